//! The photo count: which slots stay, split, merge or become writing space.

use crate::geometry::{Axis, Span};
use crate::reading::{AGREE, GAP_MOST, INCH, distance, face};
use crate::sketch::{Kind, Sketch};

use super::approach::Map;
use super::rows::{self, Row};
use super::slot::Slot;
use super::slot_choice::{SlotChoice, SlotWay};

/// Two neighbours may become one slot when together they fill at least this share of their common frame.
const MERGE_FILL: f64 = 0.85;
/// A row of so many photos stays a row where there are fewer.
const ROW: usize = 3;
/// Oblong beyond 3:2, a slot shows few prints well.
const OBLONG: f64 = 1.5;
/// No more small prints than this stand beside a large one unless she says so.
const MOST_SMALL: u32 = 4;
/// Between the prints of a split slot where the sketch shows no gap between photos.
const USUAL_GAP: f64 = INCH / 8.0;

/// The slots for so many photos, or as drawn. `None` when the sketch has no slot to work with, or what the maker chose shows too many.
///
/// What she chose is settled first; the other slots share what is left of the count.
pub(crate) fn plan(
    sketch: &Sketch,
    map: Map,
    count: Option<usize>,
    fold: Option<f64>,
    choices: &[SlotChoice],
) -> Option<Vec<Slot>> {
    let mut settled: Vec<Slot> = Vec::new();
    for choice in choices {
        let mut blocks: Vec<usize> = choice
            .photos
            .iter()
            .filter_map(|id| sketch.index_of(id))
            .collect();
        blocks.sort_unstable();
        if !blocks.is_empty() {
            settled.push(Slot {
                blocks,
                way: choice.way,
            });
        }
    }
    let named = |n: &usize| settled.iter().any(|s| s.blocks.contains(n));
    let photos =
        (0..sketch.blocks.len()).filter(|n| sketch.blocks[*n].kind == Kind::Photo && !named(n));
    let mut slots: Vec<Slot> = photos
        .map(|n| Slot {
            blocks: vec![n],
            way: SlotWay::Cells(1, 1),
        })
        .collect();
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

/// The slots again, each time with one of those that are split for three prints or more showing a large one with small ones, below or beside
/// it: for prints that differ in size. What she chose stays, and what the fold runs through.
pub(crate) fn with_focal(
    sketch: &Sketch,
    map: Map,
    slots: &[Slot],
    fold: Option<f64>,
    choices: &[SlotChoice],
) -> Vec<Vec<Slot>> {
    let chosen = |slot: &Slot| {
        slot.blocks.iter().any(|n| {
            choices
                .iter()
                .any(|c| c.photos.contains(&sketch.blocks[*n].id))
        })
    };
    let mut found = Vec::new();
    for (n, slot) in slots.iter().enumerate() {
        let want = map.apply(frame_of(sketch, &slot.blocks));
        let at_fold = fold.is_some_and(|fold| want.l < fold && fold < want.r);
        let small = slot.shown().saturating_sub(1);
        if slot.blocks.len() > 1 || !(2..=MOST_SMALL).contains(&small) || at_fold || chosen(slot) {
            continue;
        }
        for below in [true, false] {
            let mut slots = slots.to_vec();
            slots[n].way = SlotWay::Focal { small, below };
            found.push(slots);
        }
    }
    found
}

/// Merges, turns into writing space or splits until so many photos are shown.
fn fill(
    sketch: &Sketch,
    map: Map,
    slots: &mut Vec<Slot>,
    count: usize,
    fold: Option<f64>,
) -> Option<()> {
    let frame = |slot: &Slot| frame_of(sketch, &slot.blocks);
    while shown(slots) > count {
        let merge = best_merge(sketch, slots, map, fold);
        let merged = merge
            .map(|(a, b)| oblong(map.apply(frame(&slots[a]).around(frame(&slots[b]))), (1, 1)));
        if let Some(row) = shorter(sketch, slots, map, fold, merged) {
            rows::join(slots, &row, row.drawn() - 1);
        } else if let Some((a, b)) = merge {
            let gone = slots.remove(b);
            slots[a].blocks.extend(gone.blocks);
            slots[a].blocks.sort_unstable();
        } else if let Some(row) = slots.iter_mut().find(|s| s.along().is_some()) {
            row.way = match row.way {
                SlotWay::Cells(cols, 1) => SlotWay::Cells(cols - 1, 1),
                SlotWay::Cells(1, rows) => SlotWay::Cells(1, rows - 1),
                other => other,
            };
        } else {
            // Of the smallest the last: where a page is said twice, the left one keeps its photos.
            let smallest = slots
                .iter_mut()
                .rev()
                .filter(|s| s.shown() > 0)
                .min_by(|a, b| frame(a).area().total_cmp(&frame(b).area()));
            smallest?.way = SlotWay::Journal;
        }
    }
    if shown(slots) < count {
        *slots = more(sketch, map, slots, count, fold);
    }
    Some(())
}

/// The row that shows one photo fewer with the least harm to their shape, if that is no more than two neighbours would take that merge.
fn shorter(
    sketch: &Sketch,
    slots: &[Slot],
    map: Map,
    fold: Option<f64>,
    merged: Option<f64>,
) -> Option<Row> {
    let harm = |row: &Row| oblong(map.apply(row.frame), row.cells(row.drawn() - 1));
    let rows = rows::rows(sketch, slots, map, fold, ROW)
        .into_iter()
        .filter(|row| merged.is_none_or(|m| harm(row) <= m));
    rows.min_by(|a, b| harm(a).total_cmp(&harm(b)))
}

/// The slots split, and rows lengthened, for so many photos: rows are taken as one where that makes the prints worth more.
fn more(sketch: &Sketch, map: Map, slots: &[Slot], count: usize, fold: Option<f64>) -> Vec<Slot> {
    let split = |slots: &[Slot]| {
        let units: Vec<Unit> = slots
            .iter()
            .map(|s| Unit {
                want: map.apply(frame_of(sketch, &s.blocks)),
                least: s.shown().max(1),
                along: s.along(),
            })
            .collect();
        let (worth, shares) = shares(&units, count)?;
        let ways = units
            .iter()
            .zip(&shares)
            .map(|(unit, cells)| unit.arrange(*cells));
        let split = slots.iter().zip(ways).map(|(s, (cols, rows))| Slot {
            way: SlotWay::Cells(cols, rows),
            ..s.clone()
        });
        Some((worth, split.collect::<Vec<Slot>>()))
    };
    let Some(mut best) = split(slots) else {
        return slots.to_vec();
    };
    let mut joined = slots.to_vec();
    for _ in 0..slots.len() {
        let mut found = None;
        for row in rows::rows(sketch, &joined, map, fold, 2) {
            let mut tried = joined.clone();
            rows::join(&mut tried, &row, row.drawn() + 1);
            if let Some(next) = split(&tried)
                && next.0 > best.0 + 1e-9
            {
                best = next;
                found = Some(tried);
            }
        }
        match found {
            Some(next) => joined = next,
            None => break,
        }
    }
    best.1
}

/// What prints are shared out to: a slot, or a row that is one.
struct Unit {
    want: Span,
    /// It shows at least so many.
    least: u32,
    /// A row across, or down; a slot is split either way.
    along: Option<bool>,
}

impl Unit {
    fn arrange(&self, count: u32) -> (u32, u32) {
        match self.along {
            Some(true) => (count, 1),
            Some(false) => (1, count),
            None => arrange(self.want, count),
        }
    }

    /// What one of so many prints in it is worth: its area in square inches, less the more oblong it is.
    fn worth(&self, count: u32) -> f64 {
        self.want.area() / (INCH * INCH) / f64::from(count)
            * (-1.5 * oblong(self.want, self.arrange(count))).exp()
    }
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
fn shares(units: &[Unit], count: usize) -> Option<(f64, Vec<u32>)> {
    // best[n]: the worth and the shares of the slots so far with n prints in all.
    let mut best: Vec<Option<(f64, Vec<u32>)>> = vec![None; count + 1];
    best[0] = Some((0.0, Vec::new()));
    for unit in units {
        let mut next: Vec<Option<(f64, Vec<u32>)>> = vec![None; count + 1];
        for (n, (worth, shares)) in best
            .iter()
            .enumerate()
            .filter_map(|(n, b)| Some((n, b.as_ref()?)))
        {
            for cells in unit.least as usize..=count - n {
                let found = worth + cells as f64 * unit.worth(cells as u32).ln();
                if next[n + cells]
                    .as_ref()
                    .is_none_or(|known| found > known.0 + 1e-9)
                {
                    let shares = shares.iter().copied().chain([cells as u32]).collect();
                    next[n + cells] = Some((found, shares));
                }
            }
        }
        best = next;
    }
    best.pop().flatten()
}

/// How far beyond 3:2 the cells of an arrangement are, as a logarithm.
fn oblong(want: Span, (cols, rows): (u32, u32)) -> f64 {
    let aspect = (want.w() / f64::from(cols)) / (want.h() / f64::from(rows));
    (aspect.ln().abs() - OBLONG.ln()).max(0.0)
}

/// Columns and rows for so many prints, the least oblong; across before down where both do.
fn arrange(want: Span, count: u32) -> (u32, u32) {
    let ways = (1..=count)
        .rev()
        .filter(|cols| count.is_multiple_of(*cols))
        .map(|cols| (cols, count / cols));
    let squareness = |(cols, rows): (u32, u32)| {
        ((want.w() / f64::from(cols)) / (want.h() / f64::from(rows)))
            .ln()
            .abs()
    };
    ways.min_by(|a, b| {
        (oblong(want, *a), squareness(*a))
            .partial_cmp(&(oblong(want, *b), squareness(*b)))
            .expect("finite")
    })
    .unwrap_or((count, 1))
}

/// The pair of neighbouring slots that makes the smallest whole slot, on one page; two with mats, or two without, before one of each, whose mat
/// would grow to frame both.
fn best_merge(
    sketch: &Sketch,
    slots: &[Slot],
    map: Map,
    fold: Option<f64>,
) -> Option<(usize, usize)> {
    let frames: Vec<Span> = slots.iter().map(|s| frame_of(sketch, &s.blocks)).collect();
    let filled: Vec<f64> = slots
        .iter()
        .map(|s| {
            s.blocks
                .iter()
                .map(|n| sketch.blocks[*n].extent().area())
                .sum()
        })
        .collect();
    let straight =
        |s: &Slot| s.shown() > 0 && s.blocks.iter().all(|n| sketch.blocks[*n].turn == 0.0);
    let matted: Vec<bool> = slots
        .iter()
        .map(|s| s.blocks.iter().any(|n| rows::has_mat(sketch, *n)))
        .collect();
    let mut best: Option<((bool, f64), (usize, usize))> = None;
    for a in 0..slots.len() {
        for b in a + 1..slots.len() {
            let both = frames[a].around(frames[b]);
            let want = map.apply(both);
            let on_one_page = fold.is_none_or(|f| {
                (map.apply(frames[a]).cx() < f) == (map.apply(frames[b]).cx() < f)
                    && (want.cx() - f).abs() > want.w() / 4.0
            });
            let beside = Axis::BOTH.into_iter().any(|x| {
                face(frames[a], frames[b], x)
                    && [
                        distance(frames[a], frames[b], x),
                        distance(frames[b], frames[a], x),
                    ]
                    .iter()
                    .any(|d| (0.0..=GAP_MOST).contains(&d.round()))
            });
            let others = (0..sketch.blocks.len())
                .filter(|n| !slots[a].blocks.contains(n) && !slots[b].blocks.contains(n));
            let clear = others
                .filter(|n| sketch.blocks[*n].kind == Kind::Photo)
                .all(|n| !frame_of(sketch, &[n]).overlaps(both, 1.0));
            let uneven = matted[a] != matted[b];
            let fills = (filled[a] + filled[b]) / both.area() >= MERGE_FILL;
            if straight(&slots[a])
                && straight(&slots[b])
                && on_one_page
                && beside
                && clear
                && fills
                && best.is_none_or(|((odd, area), _)| (uneven, both.area() + 1.0) < (odd, area))
            {
                best = Some(((uneven, both.area()), (a, b)));
            }
        }
    }
    best.map(|(_, pair)| pair)
}

/// The gap between the prints of a split slot: the smallest between photos of the sketch, or the usual one, in ticks.
pub(crate) fn cell_gap(sketch: &Sketch) -> f64 {
    let spans: Vec<Span> = sketch
        .blocks
        .iter()
        .filter(|b| b.kind == Kind::Photo)
        .map(|b| b.extent())
        .collect();
    let mut least = f64::INFINITY;
    for (n, a) in spans.iter().enumerate() {
        for b in spans.iter().skip(n + 1) {
            for axis in Axis::BOTH {
                let gap = distance(*a, *b, axis).max(distance(*b, *a, axis));
                if face(*a, *b, axis) && gap > 0.0 {
                    least = least.min(gap);
                }
            }
        }
    }
    if least <= INCH / 2.0 {
        least
    } else {
        USUAL_GAP
    }
}

/// The gap between neighbours of a row that has become one slot, in ticks; none for other slots.
pub(crate) fn gap_between(sketch: &Sketch, group: &[usize]) -> Option<f64> {
    let spans: Vec<Span> = group.iter().map(|n| sketch.blocks[*n].extent()).collect();
    let gaps = spans
        .iter()
        .enumerate()
        .flat_map(|(n, a)| spans[n + 1..].iter().map(move |b| (*a, *b)))
        .flat_map(|(a, b)| {
            Axis::BOTH
                .into_iter()
                .filter(move |x| face(a, b, *x))
                .map(move |x| distance(a, b, x).max(distance(b, a, x)))
        });
    gaps.filter(|gap| *gap > -AGREE).reduce(f64::min)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn inches(w: f64, h: f64) -> Span {
        Span {
            l: 0.0,
            t: 0.0,
            r: w * INCH,
            b: h * INCH,
        }
    }

    #[test]
    fn cells_are_as_little_oblong_as_can_be() {
        for ((w, h), count, cells) in [
            ((8.0, 4.0), 2, (2, 1)),
            ((4.0, 8.0), 2, (1, 2)),
            ((6.0, 6.0), 4, (2, 2)),
            ((12.0, 4.0), 3, (3, 1)),
            ((6.0, 4.0), 6, (3, 2)),
            ((4.0, 6.0), 6, (2, 3)),
            ((5.0, 5.0), 1, (1, 1)),
        ] {
            assert_eq!(arrange(inches(w, h), count), cells, "{count} in {w} × {h}");
        }
    }

    #[test]
    fn up_to_three_to_two_nothing_is_oblong() {
        assert!(oblong(inches(6.0, 4.0), (1, 1)) < 1e-9 && oblong(inches(4.0, 6.0), (1, 1)) < 1e-9);
        assert!((oblong(inches(6.0, 2.0), (1, 1)) - 2.0_f64.ln()).abs() < 1e-9);
        assert!(oblong(inches(6.0, 2.0), (2, 1)) < 1e-9);
    }

    #[test]
    fn prints_are_shared_out_by_area() {
        let unit = |w: f64, h: f64| Unit {
            want: inches(w, h),
            least: 1,
            along: None,
        };
        let shares = |units: &[Unit], count| shares(units, count).map(|s| s.1);
        let units = [unit(8.0, 6.0), unit(3.0, 2.0)];
        assert_eq!(shares(&units, 2), Some(vec![1, 1]));
        assert_eq!(shares(&units, 3), Some(vec![2, 1]));
        assert_eq!(shares(&units, 5), Some(vec![4, 1]));
        // Fewer than the slots need can't be shared out.
        assert_eq!(shares(&units, 1), None);
    }

    #[test]
    fn a_row_takes_its_prints_along_itself() {
        let row = Unit {
            want: inches(4.0, 6.0),
            least: 2,
            along: Some(true),
        };
        assert_eq!(row.arrange(4), (4, 1));
        let column = Unit {
            along: Some(false),
            ..row
        };
        assert_eq!(column.arrange(4), (1, 4));
    }
}
