//! The photo count: which slots stay, split, merge or become writing space.

use crate::geometry::Span;
use crate::reading::{GAP_MOST, INCH, distance, face};
use crate::sketch::{Kind, Sketch};

use super::approach::Map;
use super::slot_choice::{SlotChoice, SlotWay};

/// Two neighbours may become one slot when together they fill at least this share of their common frame.
const MERGE_FILL: f64 = 0.85;
/// Oblong beyond 3:2, a slot shows few prints well.
const OBLONG: f64 = 1.5;
/// Between the prints of a split slot where the sketch shows no gap between photos.
const USUAL_GAP: f64 = INCH / 8.0;

/// What becomes of one or several photo slots of a sketch.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Slot {
    /// The sketch's photo blocks that it stands for.
    pub(crate) blocks: Vec<usize>,
    /// What becomes of it.
    pub(crate) way: SlotWay,
}

impl Slot {
    fn shown(&self) -> u32 {
        self.way.shows()
    }
}

/// The slots for so many photos, or as drawn. `None` when the sketch has no slot to work with, or what the maker chose shows too many.
///
/// What she chose is settled first; the other slots share what is left of the count.
pub(crate) fn plan(sketch: &Sketch, map: Map, count: Option<usize>, fold: Option<f64>, choices: &[SlotChoice]) -> Option<Vec<Slot>> {
    let mut settled: Vec<Slot> = Vec::new();
    for choice in choices {
        let mut blocks: Vec<usize> = choice.photos.iter().filter_map(|id| sketch.index_of(id)).collect();
        blocks.sort_unstable();
        if !blocks.is_empty() {
            settled.push(Slot { blocks, way: choice.way });
        }
    }
    let named = |n: &usize| settled.iter().any(|s| s.blocks.contains(n));
    let photos = (0..sketch.blocks.len()).filter(|n| sketch.blocks[*n].kind == Kind::Photo && !named(n));
    let mut slots: Vec<Slot> = photos.map(|n| Slot { blocks: vec![n], way: SlotWay::Cells(1, 1) }).collect();
    if let Some(count) = count {
        let count = count.checked_sub(shown(&settled))?;
        if slots.is_empty() && (count > 0 || settled.is_empty()) {
            return None;
        }
        fill(sketch, map, &mut slots, count, fold)?;
    }
    settled.extend(slots);
    Some(settled)
}

/// Merges, turns into writing space or splits until so many photos are shown.
fn fill(sketch: &Sketch, map: Map, slots: &mut Vec<Slot>, count: usize, fold: Option<f64>) -> Option<()> {
    let frame = |slot: &Slot| frame_of(sketch, &slot.blocks);
    while shown(slots) > count {
        if let Some((a, b)) = best_merge(sketch, slots, map, fold) {
            let gone = slots.remove(b);
            slots[a].blocks.extend(gone.blocks);
            slots[a].blocks.sort_unstable();
        } else {
            let smallest = slots.iter_mut().filter(|s| s.shown() > 0).min_by(|a, b| frame(a).area().total_cmp(&frame(b).area()));
            smallest?.way = SlotWay::Journal;
        }
    }
    if shown(slots) < count {
        let wants: Vec<Span> = slots.iter().map(|s| map.apply(frame(s))).collect();
        for ((slot, want), cells) in slots.iter_mut().zip(&wants).zip(shares(&wants, count)) {
            let (cols, rows) = arrange(*want, cells);
            slot.way = SlotWay::Cells(cols, rows);
        }
    }
    Some(())
}

/// The box around slots in the sketch.
fn frame_of(sketch: &Sketch, blocks: &[usize]) -> Span {
    let canvas = sketch.canvas.span();
    let spans = blocks.iter().map(|n| sketch.blocks[*n].measured(canvas));
    spans.reduce(Span::around).unwrap_or(canvas)
}

fn shown(slots: &[Slot]) -> usize {
    slots.iter().map(|s| s.shown() as usize).sum()
}

/// How many prints each slot is split for, so that the prints are as large, as even and as little oblong as can be:
/// the split with the largest sum of the logarithms of the prints' worth, found slot by slot (dynamic programming).
fn shares(wants: &[Span], count: usize) -> Vec<u32> {
    // best[n]: the worth and the shares of the slots so far with n prints in all.
    let mut best: Vec<Option<(f64, Vec<u32>)>> = vec![None; count + 1];
    best[0] = Some((0.0, Vec::new()));
    for want in wants {
        let mut next: Vec<Option<(f64, Vec<u32>)>> = vec![None; count + 1];
        for (n, (worth, shares)) in best.iter().enumerate().filter_map(|(n, b)| Some((n, b.as_ref()?))) {
            for cells in 1..=count - n {
                let found = worth + cells as f64 * print_worth(*want, cells as u32).ln();
                if next[n + cells].as_ref().is_none_or(|known| found > known.0 + 1e-9) {
                    let shares = shares.iter().copied().chain([cells as u32]).collect();
                    next[n + cells] = Some((found, shares));
                }
            }
        }
        best = next;
    }
    best.pop().flatten().map(|(_, shares)| shares).unwrap_or_default()
}

/// What one of so many prints in a slot is worth: its area in square inches, less the more oblong it is.
fn print_worth(want: Span, count: u32) -> f64 {
    want.area() / (INCH * INCH) / f64::from(count) * (-1.5 * oblong(want, arrange(want, count))).exp()
}

/// How far beyond 3:2 the cells of an arrangement are, as a logarithm.
fn oblong(want: Span, (cols, rows): (u32, u32)) -> f64 {
    let aspect = (want.w() / f64::from(cols)) / (want.h() / f64::from(rows));
    (aspect.ln().abs() - OBLONG.ln()).max(0.0)
}

/// Columns and rows for so many prints, the least oblong; across before down where both do.
fn arrange(want: Span, count: u32) -> (u32, u32) {
    let ways = (1..=count).rev().filter(|cols| count.is_multiple_of(*cols)).map(|cols| (cols, count / cols));
    let squareness = |(cols, rows): (u32, u32)| ((want.w() / f64::from(cols)) / (want.h() / f64::from(rows))).ln().abs();
    ways.min_by(|a, b| (oblong(want, *a), squareness(*a)).partial_cmp(&(oblong(want, *b), squareness(*b))).expect("finite")).unwrap_or((count, 1))
}

/// The pair of neighbouring slots that makes the smallest whole slot, on one page.
fn best_merge(sketch: &Sketch, slots: &[Slot], map: Map, fold: Option<f64>) -> Option<(usize, usize)> {
    let frames: Vec<Span> = slots.iter().map(|s| frame_of(sketch, &s.blocks)).collect();
    let filled: Vec<f64> = slots.iter().map(|s| s.blocks.iter().map(|n| sketch.blocks[*n].extent().area()).sum()).collect();
    let straight = |s: &Slot| s.shown() > 0 && s.blocks.iter().all(|n| sketch.blocks[*n].turn == 0.0);
    let mut best: Option<(f64, (usize, usize))> = None;
    for a in 0..slots.len() {
        for b in a + 1..slots.len() {
            let both = frames[a].around(frames[b]);
            let want = map.apply(both);
            let on_one_page =
                fold.is_none_or(|f| (map.apply(frames[a]).cx() < f) == (map.apply(frames[b]).cx() < f) && (want.cx() - f).abs() > want.w() / 4.0);
            let beside = [true, false].into_iter().any(|x| {
                face(frames[a], frames[b], x)
                    && [distance(frames[a], frames[b], x), distance(frames[b], frames[a], x)].iter().any(|d| (0.0..=GAP_MOST).contains(&d.round()))
            });
            let others = (0..sketch.blocks.len()).filter(|n| !slots[a].blocks.contains(n) && !slots[b].blocks.contains(n));
            let clear = others.filter(|n| sketch.blocks[*n].kind == Kind::Photo).all(|n| !frame_of(sketch, &[n]).overlaps(both, 1.0));
            let fills = (filled[a] + filled[b]) / both.area() >= MERGE_FILL;
            if straight(&slots[a])
                && straight(&slots[b])
                && on_one_page
                && beside
                && clear
                && fills
                && best.is_none_or(|(area, _)| both.area() < area - 1.0)
            {
                best = Some((both.area(), (a, b)));
            }
        }
    }
    best.map(|(_, pair)| pair)
}

/// The gap between the prints of a split slot: the smallest between photos of the sketch, or the usual one, in ticks.
pub(crate) fn cell_gap(sketch: &Sketch) -> f64 {
    let spans: Vec<Span> = sketch.blocks.iter().filter(|b| b.kind == Kind::Photo).map(|b| b.extent()).collect();
    let mut least = f64::INFINITY;
    for (n, a) in spans.iter().enumerate() {
        for b in spans.iter().skip(n + 1) {
            for in_x in [true, false] {
                let gap = distance(*a, *b, in_x).max(distance(*b, *a, in_x));
                if face(*a, *b, in_x) && gap > 0.0 {
                    least = least.min(gap);
                }
            }
        }
    }
    if least <= INCH / 2.0 { least } else { USUAL_GAP }
}
