//! Edges that nearly agree: offered as one line, never made one unasked.

use super::{AGREE, INCH, Line, Place};
use crate::geometry::{Rect, Span};
use crate::length::Length;
use crate::sketch::{Kind, Sketch};

/// Edges of a drawn sketch that are this close, but no closer than a hair, may be meant to agree: 3/32 in.
pub const NEARLY: f64 = INCH * 3.0 / 32.0;

/// A line that blocks nearly share, and how far they are spread over.
#[derive(Clone, Debug, PartialEq)]
pub struct NearLine {
    /// The line as it would be: at the middle of its edges.
    pub line: Line,
    /// The distance between the outermost of them, in ticks.
    pub spread: f64,
}

fn straight(sketch: &Sketch) -> Vec<(usize, Span)> {
    let canvas = sketch.canvas.span();
    let plain = sketch
        .blocks
        .iter()
        .enumerate()
        .filter(|(_, b)| b.turn == 0.0 && b.kind != Kind::Mat);
    plain.map(|(n, b)| (n, b.measured(canvas))).collect()
}

/// Edges (no centres, no mats, nothing turned) that lie within [`NEARLY`] and don't agree yet; those with the most blocks first.
pub fn near_lines(sketch: &Sketch) -> Vec<NearLine> {
    let spans = straight(sketch);
    let mut found = Vec::new();
    for place in Place::ALL.into_iter().filter(|p| !p.is_centre()) {
        let mut at: Vec<(f64, usize)> = spans.iter().map(|(n, s)| (place.of(*s), *n)).collect();
        at.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.cmp(&b.1)));
        let mut rest = &at[..];
        while let Some((first, _)) = rest.first() {
            let (near, later) =
                rest.split_at(rest.iter().take_while(|(p, _)| p - first <= NEARLY).count());
            rest = later;
            let spread = near[near.len() - 1].0 - first;
            if near.len() > 1 && spread > AGREE {
                let mut blocks: Vec<usize> = near.iter().map(|n| n.1).collect();
                blocks.sort_unstable();
                let middle = near.iter().map(|n| n.0).sum::<f64>() / near.len() as f64;
                found.push(NearLine {
                    line: Line {
                        place,
                        at: middle,
                        blocks,
                    },
                    spread,
                });
            }
        }
    }
    found.sort_by_key(|n| std::cmp::Reverse(n.line.blocks.len()));
    found
}

/// The sketch with a near line made one: each block's edge moved there, its other edges where they were. What a mat frames takes
/// its mat along.
#[must_use]
pub fn made_one(sketch: &Sketch, near: &NearLine) -> Sketch {
    let mut made = sketch.clone();
    let at = Length::from_ticks(near.line.at.round() as i64);
    for n in &near.line.blocks {
        let before = made.blocks[*n].rect;
        let after = with_edge(before, near.line.place, at);
        made.blocks[*n].rect = after;
        let id = made.blocks[*n].id.clone();
        for mat in made
            .blocks
            .iter_mut()
            .filter(|b| b.under.as_deref() == Some(&id))
        {
            let moved = |m: Length, b: Length, a: Length| m + (a - b);
            let (l, t) = (
                moved(mat.rect.x, before.x, after.x),
                moved(mat.rect.y, before.y, after.y),
            );
            let (r, b) = (
                moved(mat.rect.right(), before.right(), after.right()),
                moved(mat.rect.bottom(), before.bottom(), after.bottom()),
            );
            mat.rect = Rect {
                x: l,
                y: t,
                w: r - l,
                h: b - t,
            };
        }
    }
    made
}

fn with_edge(rect: Rect, place: Place, at: Length) -> Rect {
    let (mut l, mut t, mut r, mut b) = (rect.x, rect.y, rect.right(), rect.bottom());
    match place {
        Place::Left => l = at,
        Place::Right => r = at,
        Place::Top => t = at,
        Place::Bottom => b = at,
        Place::CentreX | Place::CentreY => {}
    }
    // An edge never passes the other: so narrow a block keeps its size and moves.
    if r <= l {
        (l, r) = if place == Place::Left {
            (at, at + rect.w)
        } else {
            (at - rect.w, at)
        };
    }
    if b <= t {
        (t, b) = if place == Place::Top {
            (at, at + rect.h)
        } else {
            (at - rect.h, at)
        };
    }
    Rect {
        x: l,
        y: t,
        w: r - l,
        h: b - t,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn sketch() -> Sketch {
        let json = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Drawn", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [
            {"id": "m1", "kind": "mat", "box": {"x": 0.875, "y": 0.875, "w": 4.25, "h": 3.25}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 3}},
            {"id": "p2", "kind": "photo", "box": {"x": 1.0625, "y": 5, "w": 4, "h": 3}},
            {"id": "t1", "kind": "title", "box": {"x": 1.03125, "y": 9, "w": 6, "h": 1}},
            {"id": "j1", "kind": "journal", "box": {"x": 8, "y": 9.001, "w": 3, "h": 1}},
        ]});
        Sketch::from_json(&json).expect("the test's own sketch is valid")
    }

    #[test]
    fn edges_that_nearly_agree_are_found_and_those_that_do_are_not() {
        let near = near_lines(&sketch());
        let lefts: Vec<_> = near
            .iter()
            .filter(|n| n.line.place == Place::Left)
            .collect();
        assert_eq!(lefts.len(), 1);
        assert_eq!(lefts[0].line.blocks, [1, 2, 3]);
        assert!((lefts[0].spread - INCH / 16.0).abs() < 1.0);
        // The tops of title and writing agree to a hair already.
        assert!(near.iter().all(|n| n.line.place != Place::Top), "{near:?}");
    }

    #[test]
    fn made_one_they_agree_and_nothing_else_moves() {
        let before = sketch();
        let near = near_lines(&before).remove(0);
        let after = made_one(&before, &near);
        let lefts: Vec<Length> = [1, 2, 3].map(|n: usize| after.blocks[n].rect.x).to_vec();
        assert!(lefts.iter().all(|l| *l == lefts[0]), "{lefts:?}");
        for n in [1, 2, 3] {
            assert_eq!(after.blocks[n].rect.right(), before.blocks[n].rect.right());
        }
        // The mat's border is what it was.
        assert_eq!(
            after.blocks[1].rect.x - after.blocks[0].rect.x,
            before.blocks[1].rect.x - before.blocks[0].rect.x
        );
        assert_eq!(after.blocks[4], before.blocks[4]);
        assert!(
            near_lines(&after)
                .iter()
                .all(|n| n.line.place != Place::Left)
        );
    }
}
