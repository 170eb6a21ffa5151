//! Which print goes to which cell of the slots (assignment by Kuhn and Munkres).

use super::item::Item;
use crate::geometry::{Axis, Size};
use crate::length::Length;
use crate::photos::{Print, room};
use crate::sketch::{Kind, Sketch};
use pathfinding::prelude::{Matrix, kuhn_munkres_min};

/// How much better prints must suit a large cell with small ones than even cells, on the scale of [`prints`]: an even split is the plainer page.
pub(super) const WORTH_A_FOCAL: i64 = 3_000;
/// A print that is locked to a cell goes there, whatever that costs.
const LOCKED: f64 = 1_000.0;
/// What it costs that the main photo is not the largest.
const MISPLACED: f64 = 10.0;
/// What it costs that a cell's shape can't hold what must be kept on a print: another print is better, almost whatever is trimmed.
const CUT: f64 = 3.0;
/// How much the size of a print that is on paper counts beside what is trimmed, by the logarithm of the areas.
const SIZE: f64 = 0.3;
/// What a place less far up her list costs: enough to settle what is else alike.
const ORDER: f64 = 1e-4;

/// A place for a print: its item, its area and its shape (width by height) there.
struct Cell {
    item: usize,
    area: f64,
    shape: f64,
}

/// Gives each cell the print that loses least in it; the focal one goes to the largest, and what must be kept is. What that costs over all
/// cells: 10 000 stands for a print trimmed away whole.
pub(super) fn prints(sketch: &Sketch, items: &mut [Item], prints: &[Print]) -> i64 {
    let cells = cells(items);
    if cells.len() != prints.len() {
        return 0;
    }
    let largest = cells.iter().map(|c| c.area).fold(0.0, f64::max);
    let locked: Vec<Option<usize>> = prints
        .iter()
        .map(|p| locked_to(sketch, items, &cells, p))
        .collect();
    let taken: Vec<usize> = locked.iter().flatten().copied().collect();
    let cost = |(cell, print): (usize, usize)| {
        let Cell { area, shape, .. } = cells[cell];
        let p = &prints[print];
        let (w, h) = (p.size.w.ticks() as f64, p.size.h.ticks() as f64);
        let trimmed = 1.0 - (w / h / shape).min(shape * h / w);
        // A file is printed as large as its place.
        let size = if p.is_file {
            0.0
        } else {
            (w * h / area).ln().abs()
        };
        let misplaced = f64::from(u8::from(p.focal && area < 0.95 * largest));
        let cut = f64::from(u8::from(!holds_all(p, shape)));
        let elsewhere = match locked[print] {
            Some(own) => own != cell,
            None => taken.contains(&cell),
        };
        let order = print.abs_diff(cell) as f64;
        ((trimmed
            + SIZE * size
            + MISPLACED * misplaced
            + CUT * cut
            + ORDER * order
            + LOCKED * f64::from(u8::from(elsewhere)))
            * 10_000.0) as i64
    };
    let weights = Matrix::from_fn(cells.len(), prints.len(), cost);
    let (cost, chosen) = kuhn_munkres_min(&weights);
    for (cell, print) in chosen.into_iter().enumerate() {
        items[cells[cell].item].prints.push(print);
    }
    cost
}

fn cells(items: &[Item]) -> Vec<Cell> {
    let mut cells = Vec::new();
    let photos = items
        .iter()
        .enumerate()
        .filter(|(_, i)| i.kind == Kind::Photo);
    for (n, item) in photos {
        let (cols, rows) = (item.run_shares(Axis::X), item.run_shares(Axis::Y));
        let take = |shares: &[f64], run: (usize, usize)| shares[run.0..=run.1].iter().sum::<f64>();
        for (across, down) in item.cell_runs() {
            let (w, h) = (
                item.want.w() * take(&cols, across),
                item.want.h() * take(&rows, down),
            );
            // The slot keeps its drawn shape unless it is split.
            let shape = if item.is_split() {
                w / h
            } else {
                item.drawn.w() / item.drawn.h()
            };
            let shape = if item.on_its_side() {
                1.0 / shape
            } else {
                shape
            };
            cells.push(Cell {
                item: n,
                area: w * h,
                shape,
            });
        }
    }
    cells
}

/// The cell that a print is locked to, where there is such a one.
fn locked_to(sketch: &Sketch, items: &[Item], cells: &[Cell], print: &Print) -> Option<usize> {
    let place = print.place.as_ref()?;
    let of = |id: &String| {
        let block = sketch.index_of(id);
        let is_of = move |c: &Cell| block.is_some_and(|b| items[c.item].from.contains(&b));
        cells
            .iter()
            .enumerate()
            .filter(move |(_, c)| is_of(c))
            .map(|(n, _)| n)
    };
    place.blocks.iter().flat_map(of).nth(place.part)
}

/// Whether the largest window of a shape on a print holds all that must be kept.
fn holds_all(print: &Print, shape: f64) -> bool {
    if print.faces.is_empty() {
        return true;
    }
    let (w, h) = (print.size.w.ticks() as f64, print.size.h.ticks() as f64);
    let ticks = |side: f64| Length::from_ticks(side.floor() as i64);
    let window = Size {
        w: ticks(w.min(h * shape)),
        h: ticks(h.min(w / shape)),
    };
    room(print.size, window, &print.kept_on(print.size)).is_some()
}
