//! Where a finished page differs from its plan: block by block, from the edges that are found in its picture.

use crate::geometry::Span;
use crate::layout::{Layout, LayoutBlock};
use crate::length::{Length, Unit};
use crate::sketch::{Kind, Shape};

/// Less than this is a hand's, in ticks: 1/16 in.
const LEAST: f64 = 12_700.0;
/// Blocks with a shorter side than this show no edge that can be trusted, in ticks: 3/4 in.
const SMALLEST: f64 = 152_400.0;
/// Edges are looked for so far from where they are planned, in ticks: 3/8 in.
const REACH: f64 = 76_200.0;
/// Where a neighbour's edge is as near as this, in ticks, nobody knows which is which: 1/4 in.
const TOO_NEAR: f64 = 50_800.0;
/// A side that others cover to so large a share is not seen.
const COVERED: f64 = 0.4;
/// So many of the edges have to be found, and half of them no further off than this, in ticks: 1/8 in.
const SAME_PAGE: (f64, f64) = (0.5, 25_400.0);

/// A block whose edges can be looked for.
#[derive(Clone, Debug, PartialEq)]
pub struct SeenBlock {
    /// The layout block.
    pub block: String,
    /// Left, top, right and bottom as planned, in ticks from the left top corner of the layout.
    pub sides: [f64; 4],
    /// How far from there each is looked for, in ticks: not so far that a neighbour's edge is taken for it. None where it can't be seen.
    pub reach: [Option<f64>; 4],
}

/// How a block differs.
#[derive(Clone, Debug, PartialEq)]
pub struct Difference {
    /// The layout block.
    pub block: String,
    /// How much further right and further down it lies, in ticks.
    pub moved: (f64, f64),
    /// How much wider and higher it is, in ticks.
    pub grown: (f64, f64),
    /// In words: `1/8 in further right, 1/16 in wider`.
    pub text: String,
}

/// What a picture shows of a plan.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Compared {
    /// Blocks that lie otherwise than planned, those that are furthest off first.
    pub differences: Vec<Difference>,
    /// How many edges were looked for.
    pub looked_for: usize,
    /// How many of them were found.
    pub found: usize,
    /// Enough was found near its place for this to be the page.
    pub is_this_page: bool,
}

/// The blocks of a layout whose edges can be seen in a picture of the page: upright, of some size, and not covered there.
pub fn seen_blocks(layout: &Layout) -> Vec<SeenBlock> {
    let blocks = &layout.blocks;
    let page = layout.canvas.page;
    let can_be_seen = |b: &LayoutBlock| {
        let bounds = b.block.true_bounds();
        matches!(
            b.block.kind,
            Kind::Photo | Kind::Mat | Kind::Paper | Kind::Strip
        ) && b.block.shape == Shape::Rect
            && b.block.turn == 0.0
            && bounds.w().min(bounds.h()) >= SMALLEST
    };
    let seen = |(n, b): (usize, &LayoutBlock)| {
        let bounds = b.block.true_bounds();
        let sides = [bounds.l, bounds.t, bounds.r, bounds.b];
        // At the fold a block that goes on has no edge.
        let left = page.w.ticks() as f64 * f64::from(b.page);
        let at_page = [
            bounds.l <= left + LEAST,
            bounds.t <= LEAST,
            bounds.r >= left + page.w.ticks() as f64 - LEAST,
            bounds.b >= page.h.ticks() as f64 - LEAST,
        ];
        let reach = [0, 1, 2, 3].map(|side| {
            let hidden = at_page[side] || covered(bounds, side, &blocks[n + 1..]) >= COVERED;
            let apart = nearest_edge(bounds, side, blocks);
            (!hidden && apart > TOO_NEAR).then(|| REACH.min(apart / 2.0))
        });
        SeenBlock {
            block: b.block.id.clone(),
            sides,
            reach,
        }
    };
    let all = blocks.iter().enumerate().filter(|(_, b)| can_be_seen(b));
    all.map(seen)
        .filter(|b| b.reach.iter().any(Option::is_some))
        .collect()
}

/// How far the nearest edge of another block lies that runs beside a side; edges that lie on it are as good as the same.
fn nearest_edge(of: Span, side: usize, blocks: &[LayoutBlock]) -> f64 {
    let hair = LEAST / 4.0;
    let own = [of.l, of.t, of.r, of.b][side];
    let beside = |other: &Span| {
        if side.is_multiple_of(2) {
            other.t < of.b - hair && of.t < other.b - hair
        } else {
            other.l < of.r - hair && of.l < other.r - hair
        }
    };
    let bounds = blocks.iter().map(|b| b.block.true_bounds());
    let edges = bounds.filter(beside).flat_map(|o| {
        if side.is_multiple_of(2) {
            [o.l, o.r]
        } else {
            [o.t, o.b]
        }
    });
    edges
        .map(|edge| (edge - own).abs())
        .filter(|apart| *apart > hair)
        .fold(f64::MAX, f64::min)
}

/// How much of a side lies under others, as a share.
fn covered(of: Span, side: usize, above: &[LayoutBlock]) -> f64 {
    let hair = LEAST / 4.0;
    let line = match side {
        0 => Span {
            r: of.l + hair,
            ..of
        },
        1 => Span {
            b: of.t + hair,
            ..of
        },
        2 => Span {
            l: of.r - hair,
            ..of
        },
        _ => Span {
            t: of.b - hair,
            ..of
        },
    };
    let under = above
        .iter()
        .map(|b| line.shared_area(b.block.true_bounds()));
    (under.sum::<f64>() / line.area().max(1.0)).min(1.0)
}

/// Compares a plan with the edges that were found: for each block its sides, none where there is no edge nearby.
pub fn compared(seen: &[SeenBlock], found: &[[Option<f64>; 4]], unit: Unit) -> Compared {
    let mut off: Vec<f64> = Vec::new();
    let (mut looked_for, mut differences) = (0, Vec::new());
    for (block, sides) in seen.iter().zip(found) {
        let by = [0, 1, 2, 3].map(|n| {
            let wanted = block.reach[n].is_some();
            looked_for += usize::from(wanted);
            sides[n].filter(|_| wanted).map(|at| at - block.sides[n])
        });
        off.extend(by.iter().flatten().map(|d| d.abs()));
        let (dx, dw) = along(by[0], by[2]);
        let (dy, dh) = along(by[1], by[3]);
        let difference = Difference {
            block: block.block.clone(),
            moved: (dx, dy),
            grown: (dw, dh),
            text: told((dx, dy), (dw, dh), unit),
        };
        if !difference.text.is_empty() {
            differences.push(difference);
        }
    }
    off.sort_by(f64::total_cmp);
    let median = off.get(off.len() / 2).copied().unwrap_or(f64::MAX);
    let share = off.len() as f64 / looked_for.max(1) as f64;
    let weight =
        |d: &Difference| d.moved.0.abs() + d.moved.1.abs() + d.grown.0.abs() + d.grown.1.abs();
    differences.sort_by(|a, b| weight(b).total_cmp(&weight(a)));
    Compared {
        differences,
        looked_for,
        found: off.len(),
        is_this_page: share >= SAME_PAGE.0 && median <= SAME_PAGE.1,
    }
}

/// Moved and grown by, from how far the two sides are off. A side that isn't found goes along with the other.
fn along(low: Option<f64>, high: Option<f64>) -> (f64, f64) {
    let least = |v: f64| if v.abs() < LEAST { 0.0 } else { v };
    match (low, high) {
        (Some(low), Some(high)) if (high - low).abs() < LEAST => {
            (least(f64::midpoint(low, high)), 0.0)
        }
        // The side that stayed tells that it grew on the other.
        (Some(low), Some(high)) => (least(low), high - low),
        (Some(one), None) | (None, Some(one)) => (least(one), 0.0),
        (None, None) => (0.0, 0.0),
    }
}

fn told(moved: (f64, f64), grown: (f64, f64), unit: Unit) -> String {
    let by = |ticks: f64| {
        let step = LEAST;
        let rounded = (ticks.abs() / step).round() * step;
        Length::from_ticks(rounded as i64).to_ruler_text(unit)
    };
    let ways = [
        (moved.0, "further right", "further left"),
        (moved.1, "lower", "higher"),
        (grown.0, "wider", "narrower"),
        (grown.1, "taller", "shorter"),
    ];
    let said = ways
        .iter()
        .filter(|(v, ..)| *v != 0.0)
        .map(|(v, more, less)| {
            let way = if *v > 0.0 { more } else { less };
            format!("{} {way}", by(*v))
        });
    said.collect::<Vec<_>>().join(", ")
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    const INCH: f64 = 203_200.0;

    fn page() -> Vec<SeenBlock> {
        let block = |id: &str, kind: &str, b: [f64; 4]| json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": b[0], "y": b[1], "w": b[2], "h": b[3]}});
        let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [
            block("s1", "strip", [0.0, 8.0, 12.0, 2.0]),
            block("p1", "photo", [1.0, 1.0, 4.0, 6.0]),
            block("p2", "photo", [6.0, 1.0, 4.0, 6.0]),
            block("a1", "accent", [3.0, 9.0, 4.0, 1.0]),
        ]});
        seen_blocks(&Layout::from_json(&layout).expect("a layout"))
    }

    fn off(block: &SeenBlock, by: [f64; 4]) -> [Option<f64>; 4] {
        [0, 1, 2, 3].map(|n| Some(block.sides[n] + by[n] * INCH))
    }

    #[test]
    fn what_runs_off_the_page_shows_no_edge_there() {
        let seen = page();
        let names: Vec<&str> = seen.iter().map(|b| b.block.as_str()).collect();
        assert_eq!(names, ["s1", "p1", "p2"]);
        let shown = seen[0].reach.map(|r| r.is_some());
        assert_eq!(shown, [false, true, false, true]);
    }

    #[test]
    fn a_block_that_lies_otherwise_is_told_in_inches() {
        let seen = page();
        let found = [
            off(&seen[0], [0.0; 4]),
            off(&seen[1], [0.125, 0.0, 0.125, 0.0]),
            off(&seen[2], [0.0, 0.0, -0.1875, 0.01]),
        ];
        let compared = compared(&seen, &found, Unit::Inch);
        let told: Vec<(&str, &str)> = compared
            .differences
            .iter()
            .map(|d| (d.block.as_str(), d.text.as_str()))
            .collect();
        assert_eq!(
            told,
            [("p2", "3/16 in narrower"), ("p1", "1/8 in further right")]
        );
        assert!(compared.is_this_page);
        assert_eq!((compared.looked_for, compared.found), (10, 10));
    }

    #[test]
    fn a_picture_of_another_page_is_not_this_one() {
        let seen = page();
        let nothing = vec![[None; 4]; 3];
        assert!(!compared(&seen, &nothing, Unit::Inch).is_this_page);
        let scattered: Vec<_> = seen
            .iter()
            .map(|b| off(b, [0.3, -0.3, -0.25, 0.35]))
            .collect();
        assert!(!compared(&seen, &scattered, Unit::Inch).is_this_page);
    }
}
