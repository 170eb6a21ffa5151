//! Faces: the part of a print that shows slides so that none is trimmed away, and the fold passes between them.

use super::wishes::penalty;
use super::{Model, Scene, Side, Vars};
use crate::fit::item::Item;
use crate::fit::qp::{Expr, Sense};
use crate::fit::reason::{Reason, Wish};
use crate::geometry::{Axis, nearer_to_quarter};
use crate::photos::{Photos, Print};
use crate::reading::INCH;
use crate::sketch::Kind;

/// How hard the middle of a print is kept in the middle of its slot, per squared share of the print.
const MIDDLE: f64 = 4.0;
/// Faces nearer to each other than this share of the print are one: squares marked side by side meet to a rounding.
const TOUCH: f64 = 1e-3;
/// A photo across the fold shows at least this share of itself on either page: less looks like a mistake.
const EITHER_PAGE: f64 = 0.28;

/// A print's width (or height) as it lies in its slot, in inches.
fn full(print: &Print, item: &Item, axis: Axis) -> f64 {
    let side = if axis == Axis::Y.turned_if(nearer_to_quarter(item.turn)) {
        print.size.h
    } else {
        print.size.w
    };
    side.ticks() as f64 / INCH
}

/// The stretches across (or down) a print that faces take up, in shares, in order; faces that overlap or touch are one.
fn stretches(print: &Print, item: &Item, axis: Axis) -> Vec<(f64, f64)> {
    let mut runs: Vec<(f64, f64)> = print
        .faces
        .iter()
        .map(|f| f.run(axis, item.quarters()))
        .collect();
    runs.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut joined: Vec<(f64, f64)> = Vec::with_capacity(runs.len());
    for run in runs {
        match joined.last_mut() {
            Some(last) if run.0 <= last.1 + TOUCH => last.1 = last.1.max(run.1),
            _ => joined.push(run),
        }
    }
    joined
}

impl Scene<'_> {
    /// The print in a slot that holds one.
    fn only_print(&self, item: &Item) -> Option<&Print> {
        match (&self.request.photos, item.prints.as_slice()) {
            (Photos::Prints(prints), [one]) => Some(&prints[*one]).filter(|p| !p.is_file),
            _ => None,
        }
    }

    /// Whether faces are marked on what an item shows.
    pub(crate) fn shows_faces(&self, item: &Item) -> bool {
        matches!(&self.request.photos, Photos::Prints(prints) if item.prints.iter().any(|p| !prints[*p].faces.is_empty()))
    }

    /// The places where the fold may run through an item between the faces on it or between its words, as shares of its wanted width; none
    /// where it may not be crossed. With faces the first is left of all of them, the last right of them.
    pub(crate) fn fold_gaps(&self, item: &Item) -> Vec<f64> {
        if item.kind == Kind::Title {
            return self.word_gaps(item);
        }
        let Some(print) = self.only_print(item).filter(|p| !p.faces.is_empty()) else {
            return Vec::new();
        };
        if !self.request.across_fold.contains(&item.kind) || item.is_tilted() {
            return Vec::new();
        }
        let stretches = stretches(print, item, Axis::X);
        let begins = stretches.iter().map(|s| s.0).chain([1.0]);
        let ends = [0.0].into_iter().chain(stretches.iter().map(|s| s.1));
        ends.zip(begins)
            .map(|(end, begin)| f64::midpoint(end, begin))
            .collect()
    }
}

/// The rows and pulls of prints with faces.
pub(super) fn add(model: &mut Model, scene: &Scene<'_>, sides: &[Option<Side>]) {
    let Photos::Prints(prints) = &scene.request.photos else {
        return;
    };
    // Rounded to the ruler a slot may lose half a step on either side.
    let half_step = scene.request.snap.ticks() as f64 / INCH / 2.0;
    for (n, item) in scene.items.iter().enumerate() {
        for (cell, (print, (cols, rows))) in item.prints.iter().zip(item.cell_runs()).enumerate() {
            let print = &prints[*print];
            // A file is printed so that it covers its slot: its window is looked for once that is known.
            if print.faces.is_empty() || print.is_file {
                continue;
            }
            let slots = [
                (Axis::X, Vars::over(&model.vars[n].cols, cols)),
                (Axis::Y, Vars::over(&model.vars[n].rows, rows)),
            ];
            for (axis, slot) in slots {
                let low = begin(model, scene, (n, cell), slot, full(print, item, axis), axis);
                shown(
                    model,
                    n,
                    slot,
                    &low,
                    stretches(print, item, axis),
                    (full(print, item, axis), half_step),
                );
                if let (Axis::X, Some(Side::Through(gap)), Some(fold)) =
                    (axis, sides[n], scene.fold())
                {
                    between(model, scene, n, &low, (print, gap, fold));
                }
            }
        }
    }
}

/// Where the print's low edge lies on the page: a whole print fills its slot, a trimmed one reaches beyond it.
fn begin(
    model: &mut Model,
    scene: &Scene<'_>,
    (n, cell): (usize, usize),
    (low, high): (usize, usize),
    full: f64,
    axis: Axis,
) -> Expr {
    if scene.request.whole {
        return Expr::of(&[(low, 1.0)]);
    }
    let qp = &mut model.qp;
    let at = qp.var(f64::midpoint(qp.expected[low], qp.expected[high]) - full / 2.0);
    qp.hard(
        Expr::of(&[(low, 1.0), (at, -1.0)]),
        Sense::AtLeast,
        0.0,
        Reason::Print(n),
    );
    qp.hard(
        Expr::of(&[(at, 1.0), (high, -1.0)]),
        Sense::AtLeast,
        -full,
        Reason::Print(n),
    );
    qp.pull(
        Expr::of(&[(low, 0.5 / full), (high, 0.5 / full), (at, -1.0 / full)]),
        0.5,
        MIDDLE,
    );
    model.vars[n].print_begins[cell][axis as usize] = Some(at);
    Expr::of(&[(at, 1.0)])
}

/// Faces show: what is trimmed is trimmed beside them, and by so much room round them as the ruler may take.
fn shown(
    model: &mut Model,
    n: usize,
    (low, high): (usize, usize),
    begin: &Expr,
    stretches: Vec<(f64, f64)>,
    (full, room): (f64, f64),
) {
    let Some((first, last)) = stretches.first().zip(stretches.last()) else {
        return;
    };
    let reason = Reason::Wish(Wish::Face, n, n);
    model.qp.soft(
        begin.clone().minus(&Expr::of(&[(low, 1.0)])),
        Sense::AtLeast,
        -(first.0 * full - room).max(0.0),
        penalty::RELATION,
        reason,
    );
    model.qp.soft(
        Expr::of(&[(high, 1.0)]).minus(begin),
        Sense::AtLeast,
        (last.1 * full + room).min(full),
        penalty::RELATION,
        reason,
    );
}

/// The fold passes through one of the gaps between the faces, off them by the guard where there is room for it.
fn between(
    model: &mut Model,
    scene: &Scene<'_>,
    n: usize,
    begin: &Expr,
    (print, gap, fold): (&Print, u8, f64),
) {
    let item = &scene.items[n];
    let (width, guard) = (
        full(print, item, Axis::X),
        scene.request.fold_guard.ticks() as f64 / INCH,
    );
    let stretches = stretches(print, item, Axis::X);
    let (before, after) = stretches.split_at(usize::from(gap).min(stretches.len()));
    let room = before
        .last()
        .zip(after.first())
        .map_or(f64::INFINITY, |(b, a)| (a.0 - b.1) * width);
    let off = guard.min(room / 2.0);
    if let Some(last) = before.last() {
        model.qp.hard(
            begin.clone().times(-1.0),
            Sense::AtLeast,
            last.1 * width + off - fold,
            Reason::Fold(n),
        );
    }
    if let Some(first) = after.first() {
        model.qp.hard(
            begin.clone(),
            Sense::AtLeast,
            fold + off - first.0 * width,
            Reason::Fold(n),
        );
    }
    let ([left, _, right, _], reason) = (model.vars[n].edges, Reason::Wish(Wish::Bounds, n, n));
    let on_left = Expr::of(&[(left, EITHER_PAGE - 1.0), (right, -EITHER_PAGE)]);
    model
        .qp
        .soft(on_left, Sense::AtLeast, -fold, penalty::BOUNDS, reason);
    let on_right = Expr::of(&[(right, 1.0 - EITHER_PAGE), (left, EITHER_PAGE)]);
    model
        .qp
        .soft(on_right, Sense::AtLeast, fold, penalty::BOUNDS, reason);
}
