//! What became of a sketch on its way from one maker to the next: which blocks stayed, moved, came and went.
//!
//! Blocks of one kind are matched by place and size (optimal assignment by Kuhn and Munkres), so names may change on the way.

mod bones;
mod chain;

pub use bones::{bones, lifted_from};
pub use chain::{ChainLink, MOST_LINKS, chain_from_json};

use crate::geometry::Span;
use crate::sketch::{Kind, Sketch};
use pathfinding::prelude::{Matrix, kuhn_munkres_min};

/// A block has stayed when its centre is within this share of the page from where it was.
const STAYED: f64 = 0.025;
/// And when neither side has changed by more than this, as a ratio's logarithm.
const SAME_SIZE: f64 = 0.12;
/// A block that would have gone further than this share of the page, its change of size counted in, is another block.
const TOO_FAR: f64 = 0.6;
/// What a change of size by a ratio's logarithm of one is worth, as a share of the page.
const SIZE_WEIGHT: f64 = 0.25;
/// Costs are whole numbers in the assignment: this is one page's width.
const UNIT: f64 = 1_000_000.0;

/// The differences of two sketches, by the blocks' ids.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Difference {
    /// In its place and size, or nearly: before and after.
    pub stayed: Vec<(String, String)>,
    /// Elsewhere, or of another size: before and after.
    pub moved: Vec<(String, String)>,
    /// Of the one before only.
    pub went: Vec<String>,
    /// Of the one after only.
    pub came: Vec<String>,
}

/// A block's place as shares of its page's width and height; on a spread the right page goes on from 1 to 2.
#[derive(Clone, Copy)]
struct Placed {
    span: Span,
}

impl Placed {
    fn distance(self, other: Placed) -> f64 {
        let (a, b) = (self.span, other.span);
        (a.cx() - b.cx()).hypot(a.cy() - b.cy())
    }

    fn size_change(self, other: Placed) -> (f64, f64) {
        let (a, b) = (self.span, other.span);
        ((a.w() / b.w()).ln().abs(), (a.h() / b.h()).ln().abs())
    }

    fn cost(self, other: Placed) -> f64 {
        let (w, h) = self.size_change(other);
        self.distance(other) + SIZE_WEIGHT * (w + h)
    }
}

/// A sketch's blocks of a kind, as shares of `across` pages and of the page's height.
fn placed(sketch: &Sketch, kind: Kind, across: u8) -> Vec<(usize, Placed)> {
    let (w, h) = (
        sketch.canvas.page.w.ticks() as f64 * f64::from(across),
        sketch.canvas.page.h.ticks() as f64,
    );
    sketch
        .blocks
        .iter()
        .enumerate()
        .filter(|(_, b)| b.kind == kind)
        .map(|(n, b)| {
            let e = b.extent();
            let span = Span {
                l: e.l / w,
                t: e.t / h,
                r: e.r / w,
                b: e.b / h,
            };
            (n, Placed { span })
        })
        .collect()
}

/// Compares a sketch with what it became. Where one has two pages and the other one, the spread is either that page drawn wide or that
/// page beside another: whichever more of its blocks bear out.
pub fn compare(before: &Sketch, after: &Sketch) -> Difference {
    let beside = compare_across(before, after, (1, 1));
    let (pages, pages_after) = (before.canvas.pages, after.canvas.pages);
    if pages == pages_after {
        return beside;
    }
    let wide = compare_across(before, after, (pages, pages_after));
    let rank = |d: &Difference| (d.stayed.len() + d.moved.len(), d.stayed.len());
    if rank(&wide) > rank(&beside) {
        wide
    } else {
        beside
    }
}

fn compare_across(before: &Sketch, after: &Sketch, across: (u8, u8)) -> Difference {
    let mut found = Difference::default();
    let id = |sketch: &Sketch, n: usize| sketch.blocks[n].id.clone();
    for kind in Kind::ALL {
        let old = placed(before, kind, across.0);
        let new = placed(after, kind, across.1);
        let pairs = matched(&old, &new);
        for (i, (n, from)) in old.iter().enumerate() {
            let Some(j) = pairs.iter().find(|p| p.0 == i).map(|p| p.1) else {
                found.went.push(id(before, *n));
                continue;
            };
            let (m, to) = new[j];
            let (w, h) = from.size_change(to);
            let is_there = from.distance(to) <= STAYED && w.max(h) <= SAME_SIZE;
            let pair = (id(before, *n), id(after, m));
            if is_there {
                found.stayed.push(pair);
            } else {
                found.moved.push(pair);
            }
        }
        let is_matched = |j: usize| pairs.iter().any(|p| p.1 == j);
        found.came.extend(
            (0..new.len())
                .filter(|j| !is_matched(*j))
                .map(|j| id(after, new[j].0)),
        );
    }
    found
}

/// The pairs that cost least together; what would cost too much is no pair.
fn matched(old: &[(usize, Placed)], new: &[(usize, Placed)]) -> Vec<(usize, usize)> {
    if old.is_empty() || new.is_empty() {
        return Vec::new();
    }
    // The assignment wants no more rows than columns.
    let swapped = old.len() > new.len();
    let (rows, columns) = if swapped { (new, old) } else { (old, new) };
    let price = |(r, c): (usize, usize)| {
        // What is too far costs no more the further it is: it stays alone anyway.
        (rows[r].1.cost(columns[c].1).min(TOO_FAR) * UNIT) as i64
    };
    let weights = Matrix::from_fn(rows.len(), columns.len(), price);
    let (_, chosen) = kuhn_munkres_min(&weights);
    chosen
        .into_iter()
        .enumerate()
        .filter(|(r, c)| rows[*r].1.cost(columns[*c].1) < TOO_FAR)
        .map(|(r, c)| if swapped { (c, r) } else { (r, c) })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::notation;

    fn sketch(lines: &str) -> Sketch {
        notation::read(&format!("one page 12 x 12 in\n{lines}")).expect("a sketch")
    }

    #[test]
    fn what_is_the_same_has_stayed_whatever_it_is_called() {
        let before = sketch("photo p1 4x6 at 1, 1\nphoto p2 3x3 at 6, 1\ntitle t1 5x1 at 1, 9");
        let after = sketch("photo a 3x3 at 6, 1\nphoto b 4x6 at 1, 1\ntitle c 5x1 at 1, 9");
        let found = compare(&before, &after);
        assert_eq!(found.stayed.len(), 3);
        assert!(found.stayed.contains(&("p1".into(), "b".into())));
        assert!(found.moved.is_empty() && found.went.is_empty() && found.came.is_empty());
    }

    #[test]
    fn what_moved_came_and_went_is_told() {
        let before = sketch("photo p1 4x6 at 1, 1\nphoto p2 3x3 at 6, 1\njournal j1 3x2 at 8, 9");
        let after = sketch("photo p1 4x6 at 3, 1\ncluster c1 2x2 at 6, 6\njournal j1 3x2 at 8, 9");
        let found = compare(&before, &after);
        assert_eq!(found.stayed, [("j1".to_owned(), "j1".to_owned())]);
        assert_eq!(found.moved, [("p1".to_owned(), "p1".to_owned())]);
        assert_eq!(found.went, ["p2"]);
        assert_eq!(found.came, ["c1"]);
    }

    #[test]
    fn a_page_drawn_wide_over_two_is_compared_as_such() {
        let before = sketch("strip s1 12x1 at 0, 9\nphoto p1 4x6 at 1, 1\ntitle t1 4x1 at 7, 10");
        let wide = notation::read(
            "two pages 12 x 12 in\nstrip s1 24x1 at 0, 9\nphoto p1 6x6 at 3, 1\ntitle t1 8x1 at 14, 10",
        );
        let wide = wide.expect("a sketch");
        let found = compare(&before, &wide);
        assert_eq!((found.stayed.len(), found.moved.len()), (2, 1), "{found:?}");
        assert!(found.went.is_empty() && found.came.is_empty());
        let beside = notation::read(
            "two pages 12 x 12 in\nstrip s1 12x1 at 0, 9\nphoto p1 4x6 at 1, 1\ntitle t1 4x1 at 7, 10\nphoto p2 6x6 at 15, 2",
        );
        let found = compare(&before, &beside.expect("a sketch"));
        assert_eq!((found.stayed.len(), found.came.len()), (3, 1), "{found:?}");
    }

    #[test]
    fn pages_of_other_sizes_are_compared_by_their_shares() {
        let before = sketch("photo p1 6x6 at 3, 3");
        let after = notation::read("one page 8 x 8 in\nphoto p1 4x4 at 2, 2").expect("a sketch");
        assert_eq!(compare(&before, &after).stayed.len(), 1);
    }
}
