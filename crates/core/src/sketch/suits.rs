//! How well a sketch suits the photos at hand.

use super::{Kind, Sketch};

/// Within this of square, a slot takes an upright print as well as a level one.
const SQUARISH: f64 = 1.08;

/// How many of a sketch's slots would have to change for so many photos, so many of them upright and the rest level: a slot
/// more or less is one change each (split, merged, turned into writing space), and so is a photo that lies in a slot of the
/// other way. None when the sketch has no slot at all.
///
/// Slots are matched to photos of their own way first; squarish ones take what is left. No other matching changes less.
pub fn changes_for(sketch: &Sketch, photos: usize, upright: usize) -> Option<usize> {
    let slots = sketch.blocks.iter().filter(|b| b.kind == Kind::Photo);
    let (mut standing, mut lying, mut squarish) = (0, 0, 0);
    for slot in slots {
        let extent = slot.extent();
        match extent.h() / extent.w() {
            aspect if aspect > SQUARISH => standing += 1,
            aspect if aspect < 1.0 / SQUARISH => lying += 1,
            _ => squarish += 1,
        }
    }
    let all = standing + lying + squarish;
    if all == 0 {
        return None;
    }
    let upright = upright.min(photos);
    let level = photos - upright;
    let own_way = upright.min(standing) + level.min(lying);
    let left = photos - own_way;
    let suited = own_way + left.min(squarish);
    Some(all.abs_diff(photos) + photos.min(all).saturating_sub(suited))
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
}
