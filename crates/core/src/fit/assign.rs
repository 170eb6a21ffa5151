//! Which print goes to which cell of the slots (assignment by Kuhn and Munkres).

use super::item::Item;
use super::prints::Print;
use crate::geometry::Axis;
use crate::sketch::Kind;
use pathfinding::prelude::{Matrix, kuhn_munkres_min};

/// How much better prints must suit a large cell with small ones than even cells, on the scale of [`prints`]: an even split is the plainer page.
pub(super) const WORTH_A_FOCAL: i64 = 3_000;

/// Gives each cell the print that loses least in it; the focal one goes to the largest. What that costs over all cells: 10 000 stands for a
/// print trimmed away whole.
pub(super) fn prints(items: &mut [Item], prints: &[Print]) -> i64 {
    let mut cells: Vec<(usize, f64, f64)> = Vec::new();
    for (n, item) in items
        .iter()
        .enumerate()
        .filter(|(_, i)| i.kind == Kind::Photo)
    {
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
            cells.push((n, w * h, shape));
        }
    }
    let largest = cells.iter().map(|c| c.1).fold(0.0, f64::max);
    let cost = |(cell, print): (usize, usize)| {
        let (_, area, shape) = cells[cell];
        let p = &prints[print];
        let (w, h) = (p.size.w.ticks() as f64, p.size.h.ticks() as f64);
        let trimmed = 1.0 - (w / h / shape).min(shape * h / w);
        let size = (w * h / area).ln().abs();
        let misplaced = f64::from(u8::from(p.focal && area < 0.95 * largest));
        ((trimmed + 0.3 * size + 10.0 * misplaced) * 10_000.0) as i64
    };
    if cells.len() != prints.len() {
        return 0;
    }
    let weights = Matrix::from_fn(cells.len(), prints.len(), cost);
    let (cost, chosen) = kuhn_munkres_min(&weights);
    for (cell, print) in chosen.into_iter().enumerate() {
        items[cells[cell].0].prints.push(print);
    }
    cost
}
