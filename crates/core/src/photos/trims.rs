//! How a print is trimmed to its window, as cuts on a trimmer.

use crate::geometry::{Edge, Rect, Size};
use crate::length::Length;

/// A cut: so much off one side of what is left.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Trim {
    /// The side.
    pub side: Edge,
    /// How much comes off.
    pub off: Length,
}

/// The cuts that leave a window of a print: top and bottom, then left and right, as a print is turned in a trimmer once.
#[must_use]
pub fn trims(print: Size, window: Rect) -> Vec<Trim> {
    let all = [
        (Edge::Top, window.y),
        (Edge::Bottom, print.h - window.bottom()),
        (Edge::Left, window.x),
        (Edge::Right, print.w - window.right()),
    ];
    let cuts = all.into_iter().filter(|(_, off)| *off > Length::ZERO);
    cuts.map(|(side, off)| Trim { side, off }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn the_cuts_leave_exactly_the_window(x in 0..40i64, y in 0..40i64, w in 1..40i64, h in 1..40i64, more in (0..40i64, 0..40i64)) {
            let eighths = |n: i64| Length::inches(n, 8);
            let print = Size { w: eighths(x + w + more.0), h: eighths(y + h + more.1) };
            let window = Rect { x: eighths(x), y: eighths(y), w: eighths(w), h: eighths(h) };
            let mut left = Rect { x: Length::ZERO, y: Length::ZERO, w: print.w, h: print.h };
            for trim in trims(print, window) {
                prop_assert!(trim.off > Length::ZERO);
                match trim.side {
                    Edge::Top => { left.y = left.y + trim.off; left.h = left.h - trim.off; }
                    Edge::Bottom => left.h = left.h - trim.off,
                    Edge::Left => { left.x = left.x + trim.off; left.w = left.w - trim.off; }
                    Edge::Right => left.w = left.w - trim.off,
                }
            }
            prop_assert_eq!(left, window);
        }
    }
}
