//! Which papers of the stash suit a piece, best first, with reasons in words. docs/PAPERS.md tells the rules and their weights.

mod rules;

use super::decisions::PaperSide;
use super::weighing::{Rule, RuleWeights};
use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::stash::{Colour, Direction, Item, Side, usable};

/// Nothing about a paper speaks for or against it yet.
const START: f64 = 50.0;
/// From here on a paper is busy.
pub(crate) const BUSY: f64 = 0.55;
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
    /// How much each rule counts.
    pub weights: RuleWeights,
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
    let mut told: Vec<(f64, String)> = Rule::ALL
        .into_iter()
        .filter_map(|rule| {
            let (points, why) = rules::told(rule, place, candidate)?;
            let factor = place.weights.of(rule);
            (factor > 0.0).then_some((points * factor, why))
        })
        .collect();
    told.sort_by(|a, b| b.0.abs().total_cmp(&a.0.abs()));
    let sum: f64 = told.iter().map(|t| t.0).sum();
    Ranked {
        paper: candidate.paper.clone(),
        points: START + sum,
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Edge;
    use crate::stash::{ItemKind, PrintedStrip, Swatch};

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
