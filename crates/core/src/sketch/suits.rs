//! How well a sketch suits the photos at hand.

use super::{Kind, Sketch};

/// Within this of square, a slot takes an upright print as well as a level one.
const SQUARISH: f64 = 1.08;

/// What of a sketch would have to change for the photos at hand.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Need {
    /// A slot is split, so that it shows so many photos.
    Split {
        /// The slot's id.
        slot: String,
        /// How many photos it shows then.
        into: usize,
    },
    /// A slot is left without a photo and becomes writing space.
    Writing {
        /// The slot's id.
        slot: String,
    },
    /// A photo of the other way lies in a slot, and is trimmed for it.
    OtherWay {
        /// The slot's id.
        slot: String,
        /// Whether the photo stands upright.
        upright: bool,
    },
}

impl Need {
    /// How many changes it is.
    pub fn changes(&self) -> usize {
        match self {
            Need::Split { into, .. } => into - 1,
            Need::Writing { .. } | Need::OtherWay { .. } => 1,
        }
    }
}

/// What is needed in a maker's words, blocks by their ids.
pub fn needs_sentences(needs: &[Need]) -> Vec<String> {
    let ids = |of: &dyn Fn(&Need) -> Option<&String>| -> Vec<&str> {
        needs.iter().filter_map(of).map(String::as_str).collect()
    };
    let mut sentences: Vec<String> = needs
        .iter()
        .filter_map(|n| match n {
            Need::Split { slot, into } => Some(format!("{slot} shows {into} photos.")),
            _ => None,
        })
        .collect();
    let say = |ids: &[&str], one: &str, many: &str| {
        let list = match ids {
            [] => return None,
            [one] => (*one).to_owned(),
            [before @ .., last] => format!("{} and {last}", before.join(", ")),
        };
        Some(format!(
            "{list} {}",
            if ids.len() == 1 { one } else { many }
        ))
    };
    let writing = ids(&|n| match n {
        Need::Writing { slot } => Some(slot),
        _ => None,
    });
    sentences.extend(say(
        &writing,
        "becomes writing space.",
        "become writing space.",
    ));
    for standing in [true, false] {
        let other = ids(&|n| match n {
            Need::OtherWay { slot, upright } if *upright == standing => Some(slot),
            _ => None,
        });
        let (photo, way) = if standing {
            ("an upright print", "level")
        } else {
            ("a level print", "upright")
        };
        sentences.extend(say(
            &other,
            &format!("takes {photo}, trimmed {way}."),
            &format!("take {photo} each, trimmed {way}."),
        ));
    }
    sentences
}

/// The least that would have to change for so many photos, so many of them upright and the rest level: a slot more or less (split, or
/// turned into writing space), or a photo in a slot of the other way. None when the sketch has no slot at all.
///
/// Slots are matched to photos of their own way first, large ones before small; squarish ones take what is left. No other matching
/// changes less.
pub fn needs_for(sketch: &Sketch, photos: usize, upright: usize) -> Option<Vec<Need>> {
    struct Slot<'a> {
        id: &'a str,
        area: f64,
        aspect: f64,
    }
    let mut free: Vec<Slot<'_>> = sketch
        .blocks
        .iter()
        .filter(|b| b.kind == Kind::Photo)
        .map(|b| {
            let extent = b.extent();
            Slot {
                id: &b.id,
                area: extent.w() * extent.h(),
                aspect: extent.h() / extent.w(),
            }
        })
        .collect();
    if free.is_empty() {
        return None;
    }
    free.sort_by(|a, b| b.area.total_cmp(&a.area));
    let mut areas: Vec<(&str, f64, usize)> = free.iter().map(|s| (s.id, s.area, 1)).collect();
    let mut upright = upright.min(photos);
    let mut level = photos - upright;
    let stands = |s: &Slot<'_>| s.aspect > SQUARISH;
    let lies = |s: &Slot<'_>| s.aspect < 1.0 / SQUARISH;
    free.retain(|s| {
        let left = if stands(s) {
            &mut upright
        } else if lies(s) {
            &mut level
        } else {
            return true;
        };
        let takes = *left > 0;
        *left -= usize::from(takes);
        !takes
    });
    free.retain(|s| {
        let squarish = !stands(s) && !lies(s);
        let takes = squarish && upright + level > 0;
        if takes {
            let left = if upright > level {
                &mut upright
            } else {
                &mut level
            };
            *left -= 1;
        }
        !takes
    });
    let mut needs = Vec::new();
    free.retain(|s| {
        let left = if stands(s) { &mut level } else { &mut upright };
        let takes = *left > 0;
        if takes {
            *left -= 1;
            needs.push(Need::OtherWay {
                slot: s.id.to_owned(),
                upright: !stands(s),
            });
        }
        !takes
    });
    needs.extend(free.iter().map(|s| Need::Writing {
        slot: s.id.to_owned(),
    }));
    // What is left over shares the slots that stay largest when they are split.
    for _ in 0..upright + level {
        let share = |(_, area, parts): &(&str, f64, usize)| area / (*parts as f64 + 1.0);
        if let Some(largest) = areas
            .iter_mut()
            .max_by(|a, b| share(a).total_cmp(&share(b)))
        {
            largest.2 += 1;
        }
    }
    let split = areas.iter().filter(|a| a.2 > 1).map(|a| Need::Split {
        slot: a.0.to_owned(),
        into: a.2,
    });
    Some(split.chain(needs).collect())
}

/// How many changes the needs of [`needs_for`] are.
pub fn changes_for(sketch: &Sketch, photos: usize, upright: usize) -> Option<usize> {
    needs_for(sketch, photos, upright).map(|needs| needs.iter().map(Need::changes).sum())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::notation::read;

    #[test]
    fn changes_are_counted() {
        let sketch =
            read("photo 4x6 at 0, 0\nphoto 6x4 at 4, 0\nphoto 3x3 at 4, 4").expect("three slots");
        for (photos, upright, changes) in [
            (3, 1, 0),
            (3, 2, 0),
            (3, 3, 1),
            (3, 0, 1),
            (5, 2, 2),
            (1, 1, 2),
            (2, 0, 1),
        ] {
            assert_eq!(
                changes_for(&sketch, photos, upright),
                Some(changes),
                "{photos} photos, {upright} upright"
            );
        }
        assert_eq!(
            changes_for(&read("title 4x1 at 0, 0").expect("a title"), 3, 1),
            None
        );
    }

    #[test]
    fn a_slot_put_down_sideways_counts_as_it_lies() {
        let sketch = read("photo 4x6 at 3, 3 turned 90").expect("one slot");
        assert_eq!(changes_for(&sketch, 1, 0), Some(0));
    }

    #[test]
    fn needs_are_told_by_the_slots() {
        let sketch =
            read("photo 4x6 at 0, 0\nphoto 6x4 at 4, 0\nphoto 3x3 at 4, 4").expect("three slots");
        let says = |photos, upright| {
            needs_sentences(&needs_for(&sketch, photos, upright).expect("it has slots"))
        };
        assert!(says(3, 1).is_empty());
        assert_eq!(says(5, 2), ["p1 shows 2 photos.", "p2 shows 2 photos."]);
        assert_eq!(says(1, 1), ["p2 and p3 become writing space."]);
        assert_eq!(says(3, 3), ["p2 takes an upright print, trimmed level."]);
    }
}
