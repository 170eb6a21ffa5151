//! What a solution costs, to weigh one against another.

use super::item::Item;
use super::measure::{Group, Measures, measure_groups};
use super::model::{Model, Scene, Vars};
use crate::geometry::Span;
use crate::reading::INCH;
use crate::sketch::Kind;

/// From this mean drift on a page has been dragged along.
const DRAGGED: f64 = 0.08;
/// The price of a solution: how far it is from a good one, and how oblong its split slots are.
pub(crate) fn price(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> f64 {
    demerit(&preview(scene, model, solved)) + 2.0 * oblong(scene, model, solved)
}

/// What a solution would measure, before it is put on the ruler.
fn preview(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> Measures {
    let group = |(item, vars): (&Item, &Vars)| {
        let [l, t, r, b] = vars.edges.map(|v| solved[v] * INCH);
        let parts = item.cell_runs().len();
        let kind = scene.sketch.blocks[item.from[0]].kind;
        Group {
            blocks: item.from.clone(),
            kind,
            drawn: item.drawn,
            want: item.want,
            here: Span { l, t, r, b },
            parts,
        }
    };
    measure_groups(
        scene.sketch,
        scene.items.iter().zip(&model.vars).map(group).collect(),
        scene.request.target.span(),
    )
}

/// How far the cells of split slots are from a print's shape, beyond 3:2 and on average.
fn oblong(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> f64 {
    let split: Vec<f64> = (scene.items.iter().zip(&model.vars))
        .filter(|(item, _)| item.kind == Kind::Photo && item.is_split() && item.focal.is_none())
        .map(|(_, vars)| {
            let side = |run: &(usize, usize)| (solved[run.1] - solved[run.0]).max(0.01);
            ((side(&vars.cols[0]) / side(&vars.rows[0])).ln().abs() - 1.5_f64.ln()).max(0.0)
        })
        .collect();
    split.iter().sum::<f64>() / split.len().max(1) as f64
}

/// How far a fit is from a good one: drift against lost lines, neighbours, shapes and area, in like units.
fn demerit(m: &Measures) -> f64 {
    let lost = |kept: super::measure::Kept| 1.0 - kept.share();
    m.drift_mean * 25.0
        + m.drift_max * 2.0
        // Where a whole page has been dragged along, no line or neighbour makes up for it.
        + (m.drift_mean - DRAGGED).max(0.0) * 400.0
        + lost(m.alignments) * 90.0
        + lost(m.relations) * 450.0
        + lost(m.contacts) * 8.0
        + (m.slot_shape - 0.05).max(0.0) * 6.0
        + (0.6 - m.photo_area).max(0.0) * 5.0
}
