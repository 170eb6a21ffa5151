//! The rules that speak for a paper or against it: each gives points and its reason in words, or says nothing.

use super::{BUSY, Candidate, Place};
use crate::papers::weighing::Rule;
use crate::stash::{Colour, ItemKind, Side};

/// What each rule counts, in points.
mod weights {
    /// A busy paper where another one is busy already.
    pub(super) const SECOND_BUSY: f64 = -22.0;
    /// The same busy paper again: it ties the page together.
    pub(super) const LEAD_AGAIN: f64 = 8.0;
    /// A busy paper where none is yet.
    pub(super) const FIRST_BUSY: f64 = 6.0;
    /// A busy ground: everything else lies on it.
    pub(super) const BUSY_GROUND: f64 = -26.0;
    /// A colour shared with the photos or with the leading paper.
    pub(super) const SHARED_COLOUR: f64 = 9.0;
    /// The photos on it sink in.
    pub(super) const SINKS: f64 = -30.0;
    /// It looks like what lies beside or under it.
    pub(super) const NO_EDGE: f64 = -16.0;
    /// A large print on a narrow piece.
    pub(super) const TOO_LARGE_A_PRINT: f64 = -24.0;
    /// Whole motifs show.
    pub(super) const WHOLE_MOTIFS: f64 = 6.0;
    /// It comes out of the kit that is asked for.
    pub(super) const ASKED_KIT: f64 = 14.0;
    /// The other page's ground, or one that goes with it.
    pub(super) const SAME_GROUND: f64 = 16.0;
    /// A scrap is used up.
    pub(super) const SCRAP: f64 = 5.0;
    /// The last one of it.
    pub(super) const LAST_ONE: f64 = -3.0;
    /// It lies on the page already, quiet enough to be seen again.
    pub(super) const AGAIN: f64 = 4.0;
}

/// Colours nearer to each other than this are the same to the eye.
const SAME_COLOUR: f64 = 0.11;
/// A photo sinks into a ground whose lightness and colour are no further from its own.
const SINKING: f64 = 0.10;
/// Two papers without an edge between them.
const NO_EDGE: f64 = 0.07;
/// Colours of less than this share of a side are accents, not its colours.
const SMALL_SHARE: f64 = 0.04;

/// A rule's word: its points, and why.
pub(super) type Told = Option<(f64, String)>;

/// What a rule says of a paper.
pub(super) fn told(rule: Rule, place: &Place, candidate: &Candidate<'_>) -> Told {
    let says = match rule {
        Rule::BusySheets => busy_beside_busy,
        Rule::QuietGround => busy_ground,
        Rule::SharedColours => shared_colours,
        Rule::SinkingPhotos => photos_sink,
        Rule::LostEdges => no_edge,
        Rule::PatternScale => scale_of_pattern,
        Rule::AskedKit => kit_asked_for,
        Rule::SameGround => grounds_together,
        Rule::UsingUp => used_up,
    };
    says(place, candidate)
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
