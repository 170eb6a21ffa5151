//! Which papers of the stash suit a piece, best first, with reasons in words. docs/PAPERS.md tells the rules and their weights.

use super::decisions::PaperSide;
use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::stash::{Colour, Direction, Item, ItemKind, Side, usable};

/// What each rule counts, in points.
pub mod weights {
    /// Nothing about a paper speaks for or against it yet.
    pub const START: f64 = 50.0;
    /// A busy paper where another one is busy already.
    pub const SECOND_BUSY: f64 = -22.0;
    /// The same busy paper again: it ties the page together.
    pub const LEAD_AGAIN: f64 = 8.0;
    /// A busy paper where none is yet.
    pub const FIRST_BUSY: f64 = 6.0;
    /// A busy ground: everything else lies on it.
    pub const BUSY_GROUND: f64 = -26.0;
    /// A colour shared with the photos or with the leading paper.
    pub const SHARED_COLOUR: f64 = 9.0;
    /// The photos on it sink in.
    pub const SINKS: f64 = -30.0;
    /// It looks like what lies beside or under it.
    pub const NO_EDGE: f64 = -16.0;
    /// A large print on a narrow piece.
    pub const TOO_LARGE_A_PRINT: f64 = -24.0;
    /// Whole motifs show.
    pub const WHOLE_MOTIFS: f64 = 6.0;
    /// It comes out of the kit that is asked for.
    pub const ASKED_KIT: f64 = 14.0;
    /// The other page's ground, or one that goes with it.
    pub const SAME_GROUND: f64 = 16.0;
    /// A scrap is used up.
    pub const SCRAP: f64 = 5.0;
    /// The last one of it.
    pub const LAST_ONE: f64 = -3.0;
    /// It lies on the page already, quiet enough to be seen again.
    pub const AGAIN: f64 = 4.0;
}

/// From here on a paper is busy.
pub(crate) const BUSY: f64 = 0.55;
/// Colours nearer to each other than this are the same to the eye.
const SAME_COLOUR: f64 = 0.11;
/// A photo sinks into a ground whose lightness and colour are no further from its own.
const SINKING: f64 = 0.10;
/// Two papers without an edge between them.
const NO_EDGE: f64 = 0.07;
/// Colours of less than this share of a side are accents, not its colours.
const SMALL_SHARE: f64 = 0.04;

/// A side of something in the stash that could be the paper.
#[derive(Clone, Debug)]
pub struct Candidate<'a> {
    /// Which.
    pub paper: PaperSide,
    /// The thing itself.
    pub item: &'a Item,
    /// How many of it no other page holds.
    pub free: u32,
    /// Which other page holds the rest.
    pub held_for: Option<&'a str>,
}

impl Candidate<'_> {
    fn side(&self) -> &Side {
        let b = self.item.b.as_ref().filter(|_| self.paper.is_b);
        b.unwrap_or(&self.item.a)
    }
}

/// The piece, and what lies around it.
#[derive(Clone, Debug, Default)]
pub struct Place {
    /// What is to be cut; none where that isn't known yet.
    pub cut: Option<Size>,
    /// The shorter side of what shows.
    pub narrow: Option<Length>,
    /// Whether it is a page's ground.
    pub is_ground: bool,
    /// Colours of the photos that lie on it.
    pub photos_on_it: Vec<Colour>,
    /// Colours of all photos on the page or spread.
    pub photos: Vec<Colour>,
    /// Papers that lie beside, under or on it: their main colours.
    pub beside: Vec<Colour>,
    /// Busy papers on other pieces: their names and colours.
    pub busy: Vec<(PaperSide, Vec<Colour>)>,
    /// Papers on other pieces.
    pub others: Vec<PaperSide>,
    /// The other page's ground.
    pub other_ground: Option<PaperSide>,
    /// The kit that is asked for.
    pub kit: Option<String>,
}

/// A paper with its rank.
#[derive(Clone, Debug, PartialEq)]
pub struct Ranked {
    /// Which.
    pub paper: PaperSide,
    /// The higher, the better; papers that can't serve come last.
    pub points: f64,
    /// Whether a piece of it can be had.
    pub serves: bool,
    /// Why, the weightiest first.
    pub reasons: Vec<String>,
}

/// A rule's word: its points, and why.
type Told = Option<(f64, String)>;

/// All papers for a piece, best first; those that can't serve last, with why. At most the first two reasons of each are told.
pub fn ranked(place: &Place, candidates: &[Candidate<'_>], unit: Unit) -> Vec<Ranked> {
    let mut all: Vec<Ranked> = candidates.iter().map(|c| rank(place, c, unit)).collect();
    all.sort_by(|a, b| {
        b.serves
            .cmp(&a.serves)
            .then(b.points.total_cmp(&a.points))
            .then_with(|| a.paper.cmp(&b.paper))
    });
    all
}

fn rank(place: &Place, candidate: &Candidate<'_>, unit: Unit) -> Ranked {
    let stops = [too_small(place, candidate, unit), none_left(candidate)];
    if let Some(why) = stops.into_iter().flatten().next() {
        return Ranked {
            paper: candidate.paper.clone(),
            points: 0.0,
            serves: false,
            reasons: vec![why],
        };
    }
    const RULES: [fn(&Place, &Candidate<'_>) -> Told; 9] = [
        busy_beside_busy,
        busy_ground,
        shared_colours,
        photos_sink,
        no_edge,
        scale_of_pattern,
        kit_asked_for,
        grounds_together,
        used_up,
    ];
    let mut told: Vec<(f64, String)> = RULES
        .iter()
        .filter_map(|rule| rule(place, candidate))
        .collect();
    told.sort_by(|a, b| b.0.abs().total_cmp(&a.0.abs()));
    let sum: f64 = told.iter().map(|t| t.0).sum();
    Ranked {
        paper: candidate.paper.clone(),
        points: weights::START + sum,
        serves: true,
        reasons: told.into_iter().take(2).map(|t| t.1).collect(),
    }
}

/// Whether a piece can be cut from one of it as it lies, turned only where its pattern lets it.
fn too_small(place: &Place, candidate: &Candidate<'_>, unit: Unit) -> Option<String> {
    let (cut, size) = (place.cut?, candidate.item.size?);
    let there = usable(size, candidate.item.strip);
    let (w, h) = (cut.w.ticks() as f64, cut.h.ticks() as f64);
    let over = |w: f64, h: f64| (w - there.w()).max(h - there.h());
    let may_turn = candidate.side().direction == Direction::Any;
    let short = if may_turn {
        over(w, h).min(over(h, w))
    } else {
        over(w, h)
    };
    // A tick more is nothing that a knife knows of.
    (short > 8.0).then(|| {
        let by = Length::from_ticks(short.round() as i64).to_ruler_text(unit);
        let turned = over(h, w) <= 8.0;
        if turned {
            format!("{by} too short this way up, and its pattern has one.")
        } else {
            format!("{by} too short for the piece.")
        }
    })
}

fn none_left(candidate: &Candidate<'_>) -> Option<String> {
    (candidate.free == 0).then(|| {
        candidate.held_for.map_or_else(
            || "None of it is left.".to_owned(),
            |page| format!("Held for {page}."),
        )
    })
}

fn busy_beside_busy(place: &Place, candidate: &Candidate<'_>) -> Told {
    if candidate.side().busy < BUSY || place.is_ground {
        return None;
    }
    if place.busy.iter().any(|(p, _)| *p == candidate.paper) {
        return Some((
            weights::LEAD_AGAIN,
            "It leads already: seen twice, it ties the page together.".to_owned(),
        ));
    }
    if place.busy.is_empty() {
        return Some((
            weights::FIRST_BUSY,
            "The one busy sheet: the others can keep to its colours.".to_owned(),
        ));
    }
    Some((
        weights::SECOND_BUSY,
        "Busy beside busy: one busy sheet is enough.".to_owned(),
    ))
}

fn busy_ground(place: &Place, candidate: &Candidate<'_>) -> Told {
    (place.is_ground && candidate.side().busy >= BUSY).then(|| {
        (
            weights::BUSY_GROUND,
            "Busy under everything: the photos would have to shout.".to_owned(),
        )
    })
}

/// The colours of a side that count as its own.
fn own_colours(side: &Side) -> impl Iterator<Item = Colour> + '_ {
    let own = side.colours.iter().filter(|s| s.share >= SMALL_SHARE);
    own.map(|s| s.colour).filter(|c| c.chroma() > 0.045)
}

fn shared_colours(place: &Place, candidate: &Candidate<'_>) -> Told {
    let lead: Vec<Colour> = place.busy.iter().flat_map(|(_, c)| c.clone()).collect();
    let near =
        |colour: Colour, all: &[Colour]| all.iter().any(|c| c.distance(colour) < SAME_COLOUR);
    let mut in_photos: Vec<&str> = Vec::new();
    let mut in_lead: Vec<&str> = Vec::new();
    for colour in own_colours(candidate.side()) {
        let name = colour.name();
        if near(colour, &place.photos) && !in_photos.contains(&name) {
            in_photos.push(name);
        } else if near(colour, &lead) && !in_lead.contains(&name) {
            in_lead.push(name);
        }
    }
    let count = (in_photos.len() + in_lead.len()).min(2);
    let (names, whose) = if in_photos.is_empty() {
        (in_lead, "in the leading paper")
    } else {
        (in_photos, "in the photos")
    };
    let names: Vec<&str> = names.into_iter().take(2).collect();
    let verb = if names.len() == 1 { "is" } else { "are" };
    (count > 0).then(|| {
        (
            weights::SHARED_COLOUR * count as f64,
            format!("Its {} {verb} {whose} too.", names.join(" and ")),
        )
    })
}

fn photos_sink(place: &Place, candidate: &Candidate<'_>) -> Told {
    let ground = candidate.side().ground()?;
    let sinks = |c: &Colour| c.distance(ground) < SINKING;
    place
        .photos_on_it
        .iter()
        .any(sinks)
        .then(|| (weights::SINKS, "The photo on it would sink in.".to_owned()))
}

fn no_edge(place: &Place, candidate: &Candidate<'_>) -> Told {
    let ground = candidate.side().ground()?;
    let alike = place.beside.iter().any(|c| c.distance(ground) < NO_EDGE);
    (alike && candidate.side().busy < BUSY).then(|| {
        (
            weights::NO_EDGE,
            "So like what lies beside it that its edge is lost.".to_owned(),
        )
    })
}

fn scale_of_pattern(place: &Place, candidate: &Candidate<'_>) -> Told {
    let (scale, narrow) = (candidate.side().scale?, place.narrow?);
    let (scale, narrow) = (scale.ticks() as f64, narrow.ticks() as f64);
    if scale > narrow {
        return Some((
            weights::TOO_LARGE_A_PRINT,
            "So large a print shows nothing on so narrow a piece.".to_owned(),
        ));
    }
    (scale * 2.5 <= narrow && candidate.side().busy > 0.25).then(|| {
        (
            weights::WHOLE_MOTIFS,
            "Its motifs show whole, even where the piece is narrow.".to_owned(),
        )
    })
}

fn kit_asked_for(place: &Place, candidate: &Candidate<'_>) -> Told {
    let (asked, kit) = (place.kit.as_ref()?, candidate.item.kit.as_ref()?);
    (asked.to_lowercase().contains(&kit.to_lowercase())).then(|| {
        (
            weights::ASKED_KIT,
            format!("Out of {kit}, the kit that the call asks for."),
        )
    })
}

fn grounds_together(place: &Place, candidate: &Candidate<'_>) -> Told {
    let other = place.other_ground.as_ref().filter(|_| place.is_ground)?;
    (*other == candidate.paper).then(|| {
        (
            weights::SAME_GROUND,
            "The other page's ground: the two pages become one.".to_owned(),
        )
    })
}

fn used_up(place: &Place, candidate: &Candidate<'_>) -> Told {
    if candidate.item.kind == ItemKind::Scrap {
        return Some((weights::SCRAP, "It uses up a scrap.".to_owned()));
    }
    if place.others.contains(&candidate.paper) && candidate.side().busy < BUSY {
        return Some((
            weights::AGAIN,
            "It is on the page already: one sheet may serve both.".to_owned(),
        ));
    }
    (candidate.free == 1 && candidate.item.kind != ItemKind::Pad)
        .then(|| (weights::LAST_ONE, "The last one of it.".to_owned()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Edge;
    use crate::stash::{PrintedStrip, Swatch};

    fn inches(n: i64) -> Length {
        Length::inches(n, 1)
    }

    fn item(name: &str, colours: &[&str], busy: f64) -> Item {
        let mut item = Item::new(ItemKind::Sheet, name.to_owned(), Unit::Inch);
        item.count = 2;
        item.a.busy = busy;
        item.a.colours = colours
            .iter()
            .map(|c| Swatch {
                colour: Colour::named(c).unwrap(),
                share: 1.0 / colours.len() as f64,
            })
            .collect();
        item
    }

    fn candidate(item: &Item) -> Candidate<'_> {
        let paper = PaperSide {
            item: item.name.clone(),
            is_b: false,
        };
        Candidate {
            paper,
            item,
            free: item.count,
            held_for: None,
        }
    }

    fn order(place: &Place, items: &[Item]) -> Vec<(String, bool)> {
        let all: Vec<Candidate> = items.iter().map(candidate).collect();
        let ranked = ranked(place, &all, Unit::Inch);
        ranked
            .into_iter()
            .map(|r| (r.paper.item, r.serves))
            .collect()
    }

    fn first(place: &Place, items: &[Item]) -> String {
        order(place, items)[0].0.clone()
    }

    #[test]
    fn a_second_busy_sheet_comes_after_a_quiet_one() {
        let place = Place {
            busy: vec![(
                PaperSide {
                    item: "Flags".to_owned(),
                    is_b: false,
                },
                vec![Colour::named("red").unwrap()],
            )],
            ..Place::default()
        };
        let items = [
            item("Confetti", &["pink"], 0.9),
            item("Awning", &["mustard"], 0.3),
        ];
        assert_eq!(first(&place, &items), "Awning");
        // What keeps to the leading paper's colours comes before what doesn't.
        let items = [
            item("Awning", &["mustard"], 0.3),
            item("Gingham", &["red", "white"], 0.3),
        ];
        assert_eq!(first(&place, &items), "Gingham");
    }

    #[test]
    fn a_photo_must_not_sink_into_its_ground() {
        let place = Place {
            is_ground: true,
            photos_on_it: vec![Colour::named("navy").unwrap()],
            ..Place::default()
        };
        let items = [
            item("Snow on navy", &["navy"], 0.3),
            item("Low water", &["cream"], 0.2),
        ];
        assert_eq!(first(&place, &items), "Low water");
    }

    #[test]
    fn what_is_too_small_or_held_comes_last_and_says_so() {
        let place = Place {
            cut: Some(Size {
                w: inches(12),
                h: inches(3),
            }),
            ..Place::default()
        };
        let mut short = item("Mist", &["sky"], 0.1);
        short.size = Some(Size {
            w: inches(6),
            h: inches(6),
        });
        let mut strip = item("Waves", &["teal"], 0.2);
        strip.strip = Some(PrintedStrip {
            edge: Edge::Left,
            width: Length::inches(1, 2),
        });
        strip.a.direction = Direction::Up;
        let gone = item("Kites", &["cream"], 0.6);
        let good = item("Boards", &["brown"], 0.2);
        let all = [
            candidate(&short),
            candidate(&strip),
            Candidate {
                free: 0,
                held_for: Some("Sky for two"),
                ..candidate(&gone)
            },
            candidate(&good),
        ];
        let ranked = ranked(&place, &all, Unit::Inch);
        assert_eq!(ranked[0].paper.item, "Boards");
        assert!(ranked[1..].iter().all(|r| !r.serves));
        let why = |name: &str| {
            ranked
                .iter()
                .find(|r| r.paper.item == name)
                .unwrap()
                .reasons[0]
                .clone()
        };
        assert_eq!(why("Mist"), "6 in too short for the piece.");
        assert_eq!(
            why("Waves"),
            "1/2 in too short this way up, and its pattern has one."
        );
        assert_eq!(why("Kites"), "Held for Sky for two.");
    }

    #[test]
    fn a_large_print_is_no_use_on_a_narrow_strip() {
        let place = Place {
            narrow: Some(inches(1)),
            ..Place::default()
        };
        let mut large = item("Map", &["sky"], 0.5);
        large.a.scale = Some(inches(4));
        let mut small = item("Dots", &["sky"], 0.5);
        small.a.scale = Some(Length::inches(1, 4));
        assert_eq!(first(&place, &[large, small]), "Dots");
    }

    #[test]
    fn the_kit_that_is_asked_for_comes_first_and_both_grounds_go_together() {
        let mut ebb = item("Tally", &["cream"], 0.1);
        ebb.kit = Some("Ebb".to_owned());
        let other = item("Chalk", &["cream"], 0.1);
        let place = Place {
            kit: Some("the Ebb kit".to_owned()),
            ..Place::default()
        };
        assert_eq!(first(&place, &[other.clone(), ebb.clone()]), "Tally");
        let place = Place {
            is_ground: true,
            other_ground: Some(PaperSide {
                item: "Chalk".to_owned(),
                is_b: false,
            }),
            ..Place::default()
        };
        assert_eq!(first(&place, &[ebb, other]), "Chalk");
    }
}
