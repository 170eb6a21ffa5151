//! Rows and columns of like photos: where photos come or go, a row stays a row of one more or one fewer.

use super::approach::Map;
use super::slot::Slot;
use super::slot_choice::SlotWay;
use crate::geometry::{Axis, Edge, Span};
use crate::reading::{AGREE, GAP_MOST};
use crate::sketch::{Kind, Sketch};

/// Slots of one size, one beside the other at even distances.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Row {
    /// Indexes of the slots, in order.
    pub(super) slots: Vec<usize>,
    /// Across the page, or down it.
    pub(super) axis: Axis,
    /// The box around them in the sketch.
    pub(super) frame: Span,
}

impl Row {
    /// The cells of so many prints in it.
    pub(super) fn cells(&self, count: u32) -> (u32, u32) {
        if self.axis == Axis::X {
            (count, 1)
        } else {
            (1, count)
        }
    }

    /// How many photos it shows as drawn.
    pub(super) fn drawn(&self) -> u32 {
        self.slots.len() as u32
    }
}

/// All rows and columns of at least so many slots, each slot in one of them at the most. A row is left alone that the fold would run
/// through, and one whose photos have mats of their own.
pub(super) fn rows(
    sketch: &Sketch,
    slots: &[Slot],
    map: Map,
    fold: Option<f64>,
    least: usize,
) -> Vec<Row> {
    let canvas = sketch.canvas.span();
    let single = |s: &Slot| match s.blocks[..] {
        [block]
            if s.way == SlotWay::Cells(1, 1)
                && sketch.blocks[block].turn == 0.0
                && !has_mat(sketch, block) =>
        {
            Some(sketch.blocks[block].measured(canvas))
        }
        _ => None,
    };
    let open: Vec<(usize, Span)> = slots
        .iter()
        .enumerate()
        .filter_map(|(n, s)| Some((n, single(s)?)))
        .collect();
    let mut found: Vec<Row> = Vec::new();
    for axis in Axis::BOTH {
        let mut left: Vec<(usize, Span)> = open
            .iter()
            .filter(|(n, _)| !found.iter().any(|r| r.slots.contains(n)))
            .copied()
            .collect();
        let near = if axis == Axis::X {
            Edge::Left
        } else {
            Edge::Top
        };
        left.sort_by(|a, b| {
            a.1.edge(near)
                .total_cmp(&b.1.edge(near))
                .then(a.0.cmp(&b.0))
        });
        while let Some(first) = (!left.is_empty()).then(|| left.remove(0)) {
            let mut run = vec![first];
            let mut step = None;
            while let Some(next) = left
                .iter()
                .position(|s| follows(run[run.len() - 1].1, s.1, axis, step))
            {
                step = step.or(Some(
                    left[next].1.edge(near) - run[run.len() - 1].1.edge(near),
                ));
                run.push(left.remove(next));
            }
            let frame = run
                .iter()
                .map(|s| s.1)
                .reduce(Span::around)
                .unwrap_or(canvas);
            let over_fold = fold.is_some_and(|f| map.apply(frame).l < f && map.apply(frame).r > f);
            let others = open.iter().filter(|(n, _)| !run.iter().any(|r| r.0 == *n));
            let clear = others.into_iter().all(|(_, s)| !s.overlaps(frame, 1.0));
            if run.len() >= least && !over_fold && clear {
                found.push(Row {
                    slots: run.iter().map(|s| s.0).collect(),
                    axis,
                    frame,
                });
            }
        }
    }
    found
}

/// Whether a mat frames a photo.
pub(super) fn has_mat(sketch: &Sketch, photo: usize) -> bool {
    let id = &sketch.blocks[photo].id;
    sketch
        .blocks
        .iter()
        .any(|b| b.kind == Kind::Mat && b.under.as_ref() == Some(id))
}

/// Whether the second stands next after the first in a row: as large, level, at the row's own distance.
fn follows(first: Span, second: Span, axis: Axis, step: Option<f64>) -> bool {
    let alike = (first.w() - second.w()).abs() <= AGREE && (first.h() - second.h()).abs() <= AGREE;
    let (level, way, side) = match axis {
        Axis::X => (
            (first.t - second.t).abs() <= AGREE,
            second.l - first.l,
            first.w(),
        ),
        Axis::Y => (
            (first.l - second.l).abs() <= AGREE,
            second.t - first.t,
            first.h(),
        ),
    };
    let gap = way - side;
    alike
        && level
        && (-AGREE..=GAP_MOST).contains(&gap)
        && step.is_none_or(|s| (s - way).abs() <= AGREE)
}

/// Joins a row's slots to one with so many prints. The slots' other indexes move up.
pub(super) fn join(slots: &mut Vec<Slot>, row: &Row, count: u32) {
    let (cols, rows) = row.cells(count);
    let mut blocks: Vec<usize> = row
        .slots
        .iter()
        .flat_map(|n| slots[*n].blocks.clone())
        .collect();
    blocks.sort_unstable();
    let at = row.slots.iter().copied().min().unwrap_or_default();
    slots[at] = Slot {
        blocks,
        way: SlotWay::Cells(cols, rows),
    };
    let mut gone: Vec<usize> = row.slots.iter().copied().filter(|n| *n != at).collect();
    gone.sort_unstable_by(|a, b| b.cmp(a));
    for n in gone {
        slots.remove(n);
    }
}
