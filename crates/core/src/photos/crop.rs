//! The window of a print that shows in a slot.
//!
//! The places where a window of the slot's size may begin make a rectangle: it lies on the print, and each area that must be kept narrows it.
//! The nearest place to the one that is wanted is found side by side, so it is exact.

use crate::geometry::{Rect, Size};
use crate::length::Length;

/// A window on a print, and the areas that it cuts.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Crop {
    /// What shows, on the print, from its top left corner.
    pub window: Rect,
    /// Places in the list of the areas that don't lie in the window whole.
    pub cuts_into: Vec<usize>,
}

/// A print is smaller than its slot: paper can't be made larger.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct NoRoom {
    /// The print.
    pub print: Size,
    /// The slot.
    pub slot: Size,
}

/// Where a window of a slot's size may begin on a print so that it holds all areas: between two places each way, both included. Nothing
/// where no window does.
#[must_use]
pub fn room(print: Size, slot: Size, areas: &[Rect]) -> Option<Rect> {
    let (left, right) = span(print.w, slot.w, areas.iter().map(|a| (a.x, a.right())))?;
    let (top, bottom) = span(print.h, slot.h, areas.iter().map(|a| (a.y, a.bottom())))?;
    Some(Rect {
        x: left,
        y: top,
        w: right - left,
        h: bottom - top,
    })
}

/// Along one side: from the first to the last place where a window holds all areas.
fn span(
    print: Length,
    window: Length,
    areas: impl Iterator<Item = (Length, Length)>,
) -> Option<(Length, Length)> {
    let (mut first, mut last) = (Length::ZERO, print - window);
    for (from, to) in areas {
        first = first.max(to - window);
        last = last.min(from);
    }
    (first <= last).then_some((first, last))
}

/// The window nearest to a wanted place that holds all areas; where none does, the one that holds the most of them, of these the most area,
/// of these the nearest.
///
/// # Errors
/// When the print is smaller than the slot.
pub fn crop(
    print: Size,
    slot: Size,
    areas: &[Rect],
    wanted: (Length, Length),
) -> Result<Crop, NoRoom> {
    if slot.w > print.w || slot.h > print.h {
        return Err(NoRoom { print, slot });
    }
    let window = |x: Length, y: Length| Rect {
        x,
        y,
        w: slot.w,
        h: slot.h,
    };
    if let Some(room) = room(print, slot, areas) {
        let x = wanted.0.clamp(room.x, room.right());
        let y = wanted.1.clamp(room.y, room.bottom());
        return Ok(Crop {
            window: window(x, y),
            cuts_into: Vec::new(),
        });
    }
    // What a window holds changes only where one of its sides passes a side of an area.
    let places = |print: Length, slot: Length, wanted: Length, sides: Vec<(Length, Length)>| {
        let last = print - slot;
        let at = sides.into_iter().flat_map(|(from, to)| [from, to - slot]);
        let mut all: Vec<Length> = at
            .chain([wanted])
            .map(|p| p.clamp(Length::ZERO, last))
            .collect();
        all.sort();
        all.dedup();
        all
    };
    let across = areas.iter().map(|a| (a.x, a.right())).collect();
    let down = areas.iter().map(|a| (a.y, a.bottom())).collect();
    let (xs, ys) = (
        places(print.w, slot.w, wanted.0, across),
        places(print.h, slot.h, wanted.1, down),
    );
    let best = xs
        .iter()
        .flat_map(|&x| ys.iter().map(move |&y| (x, y)))
        .min_by_key(|&(x, y)| worth(&window(x, y), areas, wanted));
    let (x, y) = best.unwrap_or(wanted);
    let window = window(x, y);
    let cuts_into = (0..areas.len()).filter(|&n| !holds(&window, &areas[n]));
    Ok(Crop {
        window,
        cuts_into: cuts_into.collect(),
    })
}

/// The less the better: areas cut, their area that is lost, how far the window lies from the wanted place.
fn worth(window: &Rect, areas: &[Rect], wanted: (Length, Length)) -> (usize, i128, i64) {
    let cut = areas.iter().filter(|a| !holds(window, a)).count();
    let kept: i128 = areas.iter().map(|a| common(window, a)).sum();
    let off = (window.x - wanted.0).abs() + (window.y - wanted.1).abs();
    (cut, -kept, off.ticks())
}

fn holds(window: &Rect, area: &Rect) -> bool {
    window.x <= area.x
        && window.y <= area.y
        && window.right() >= area.right()
        && window.bottom() >= area.bottom()
}

/// The area that two share, in square ticks.
fn common(a: &Rect, b: &Rect) -> i128 {
    let w = a.right().min(b.right()) - a.x.max(b.x);
    let h = a.bottom().min(b.bottom()) - a.y.max(b.y);
    i128::from(w.ticks().max(0)) * i128::from(h.ticks().max(0))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn size(w: i64, h: i64) -> Size {
        Size {
            w: Length::inches(w, 8),
            h: Length::inches(h, 8),
        }
    }

    fn area(x: i64, y: i64, w: i64, h: i64) -> Rect {
        Rect {
            x: Length::inches(x, 8),
            y: Length::inches(y, 8),
            w: Length::inches(w, 8),
            h: Length::inches(h, 8),
        }
    }

    prop_compose! {
        fn print_slot_and_areas()(
            print in (16..64i64, 16..64i64),
            slot in (0.3..1.0f64, 0.3..1.0f64),
            areas in prop::collection::vec((0.0..0.9f64, 0.0..0.9f64, 0.05..0.4f64, 0.05..0.4f64), 0..6),
            wanted in (-8..64i64, -8..64i64),
        ) -> (Size, Size, Vec<Rect>, (Length, Length)) {
            let share = |of: i64, by: f64| ((of as f64 * by) as i64).max(1);
            let slot = size(share(print.0, slot.0), share(print.1, slot.1));
            let areas = areas.iter().map(|(x, y, w, h)| {
                let (x, y) = (share(print.0, *x), share(print.1, *y));
                area(x, y, share(print.0, *w).min(print.0 - x).max(1), share(print.1, *h).min(print.1 - y).max(1))
            });
            (size(print.0, print.1), slot, areas.collect(), (Length::inches(wanted.0, 8), Length::inches(wanted.1, 8)))
        }
    }

    proptest! {
        #[test]
        fn a_crop_holds_its_areas_or_says_which_it_cuts((print, slot, areas, wanted) in print_slot_and_areas()) {
            let found = crop(print, slot, &areas, wanted).unwrap();
            let w = found.window;
            prop_assert!(w.x >= Length::ZERO && w.y >= Length::ZERO && w.right() <= print.w && w.bottom() <= print.h);
            prop_assert_eq!((w.w, w.h), (slot.w, slot.h));
            for (n, a) in areas.iter().enumerate() {
                prop_assert_eq!(holds(&w, a), !found.cuts_into.contains(&n));
            }
            prop_assert_eq!(room(print, slot, &areas).is_some(), found.cuts_into.is_empty());
        }

        #[test]
        fn no_place_on_the_ruler_is_better((print, slot, areas, wanted) in print_slot_and_areas()) {
            let found = crop(print, slot, &areas, wanted).unwrap();
            let ours = worth(&found.window, &areas, wanted);
            let eighth = Length::inches(1, 8);
            let steps = |most: Length| (0..=most.ticks() / eighth.ticks()).map(move |n| Length::from_ticks(n * eighth.ticks()));
            for x in steps(print.w - slot.w) {
                for y in steps(print.h - slot.h) {
                    let other = worth(&Rect { x, y, ..found.window }, &areas, wanted);
                    // With all areas held each side is the nearest for itself.
                    prop_assert!(ours.0 < other.0 || ours <= other || (ours.0 == 0 && ours.2 <= other.2), "{x:?} {y:?}: {other:?} beats {ours:?}");
                }
            }
        }
    }

    #[test]
    fn paper_is_never_made_larger() {
        let refused = crop(
            size(24, 32),
            size(32, 24),
            &[],
            (Length::ZERO, Length::ZERO),
        );
        assert_eq!(
            refused.unwrap_err(),
            NoRoom {
                print: size(24, 32),
                slot: size(32, 24)
            }
        );
    }
}
