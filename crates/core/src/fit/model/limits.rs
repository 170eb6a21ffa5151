//! What must hold: the page, the margin, the fold, bleeds, mats, prints, photos that were apart, pins.

use super::wishes::penalty;
use super::{Model, Scene, Side, Vars, edge_at, inches};
use crate::fit::item::Item;
use crate::fit::pin::{Pin, PinEdge};
use crate::fit::qp::{Expr, Sense};
use crate::fit::reason::{Reason, Wish};
use crate::geometry::{Axis, Edge, Span};
use crate::photos::Photos;
use crate::reading::{INCH, Relation, relations};
use crate::sketch::{Kind, Shape};

/// No side of anything is less, in inches.
const LEAST_SIDE: f64 = 1.0 / 8.0;
/// Corners of tilted blocks may reach over an edge by this, in inches: no eye and no ruler sees it.
const A_HAIR: f64 = 0.000_6;
/// Nor less than this share of what the map's smaller scale gives, unless a pin says so: below it a block is a sliver.
const LEAST_SHARE: f64 = 0.2;

pub(super) fn add(model: &mut Model, scene: &Scene<'_>, sides: &[Option<Side>]) {
    for (n, item) in scene.items.iter().enumerate() {
        sizes(model, scene, n, item);
        bleeds(model, scene, n, item);
        margins(model, scene, n, item);
        mat(model, n, item);
        cells(model, scene, n, item, sides[n]);
        prints(model, scene, n, item);
        if let (Some(side), Some(fold)) = (sides[n], scene.fold()) {
            fold_side(model, scene, n, side, fold);
        }
    }
    photos_apart(model, scene);
    pins(model, scene);
}

fn sizes(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let step = scene.request.snap.ticks() as f64 / INCH;
    for axis in Axis::BOTH {
        let scaled = scene.map.least()
            * if axis == Axis::X {
                item.drawn.w()
            } else {
                item.drawn.h()
            }
            / INCH;
        let sized = |pin: &Pin| {
            pin.edge
                == if axis == Axis::X {
                    PinEdge::Width
                } else {
                    PinEdge::Height
                }
        };
        let named = |pin: &Pin| {
            pin.blocks()
                .any(|id| item.from.iter().any(|b| scene.sketch.blocks[*b].id == *id))
        };
        let pinned = scene.request.pins.iter().any(|p| sized(p) && named(p));
        let free = item.frames.is_none() && item.prints.is_empty() && !pinned;
        let share = if free { LEAST_SHARE * scaled } else { 0.0 };
        let least = LEAST_SIDE.max(step).min(scaled * 0.5).max(share);
        model.qp.hard(
            model.vars[n].size(axis),
            Sense::AtLeast,
            least,
            Reason::Size(n),
        );
    }
}

/// Half the true width (or height) of an item by its sides: `(w cos + h sin) / 2`, exact for boxes, above it for ellipses.
fn half_true(model: &Model, n: usize, item: &Item, axis: Axis) -> Expr {
    let (sin, cos) = item.turn.to_radians().sin_cos();
    // The extent has its sides exchanged already when the turn is nearer to a quarter.
    let (along, across) = if item.on_its_side() {
        (sin.abs(), cos.abs())
    } else {
        (cos.abs(), sin.abs())
    };
    let vars = &model.vars[n];
    vars.size(axis)
        .times(along / 2.0)
        .plus(across / 2.0, &vars.size(axis.other()))
}

/// An edge of the item's true bounds.
fn true_edge(model: &Model, n: usize, item: &Item, edge: Edge) -> Expr {
    if !item.is_tilted() {
        return model.vars[n].edge(edge);
    }
    let axis = edge.axis();
    let sign = if matches!(edge, Edge::Left | Edge::Top) {
        -1.0
    } else {
        1.0
    };
    model.vars[n]
        .centre(axis)
        .plus(sign, &half_true(model, n, item, axis))
}

/// `expr` lies within a bound on the side of that edge.
fn within(model: &mut Model, expr: Expr, edge: Edge, bound: f64, reason: Reason) {
    if matches!(edge, Edge::Left | Edge::Top) {
        model.qp.hard(expr, Sense::AtLeast, bound, reason);
    } else {
        model
            .qp
            .hard(expr.times(-1.0), Sense::AtLeast, -bound, reason);
    }
}

fn bleeds(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let sketch_canvas = scene.sketch.canvas.span();
    for edge in &item.bleed {
        let bound = scene.place.edge(*edge);
        let hangs_over = item.from.iter().any(|b| {
            let (at, limit) = (
                scene.sketch.blocks[*b].extent().edge(*edge),
                sketch_canvas.edge(*edge),
            );
            if matches!(edge, Edge::Left | Edge::Top) {
                at <= limit + 1.0
            } else {
                at >= limit - 1.0
            }
        });
        if !item.is_tilted() || hangs_over {
            model.qp.hard(
                model.vars[n].edge(*edge),
                Sense::Equal,
                bound,
                Reason::Bleed(n),
            );
        } else {
            // A tilted block reaches the edge with a corner: its true bounds must.
            let axis = edge.axis();
            let sign = if matches!(edge, Edge::Left | Edge::Top) {
                -1.0
            } else {
                1.0
            };
            let ellipse = scene.sketch.blocks[item.from[0]].shape == Shape::Ellipse;
            let reach =
                half_true(model, n, item, axis).times(if ellipse { 0.5_f64.sqrt() } else { 1.0 });
            let expr = model.vars[n].centre(axis).plus(sign, &reach);
            within(model, expr, edge.opposite(), bound, Reason::Bleed(n));
        }
    }
}

fn margins(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let (canvas, fold_at) = (scene.canvas(), &scene.task.fold_at);
    // What runs over the fold alone runs off no edge of the spread.
    let runs_off = item
        .bleed
        .iter()
        .any(|e| fold_at.len() > 1 || !fold_at.contains(e));
    let [margin, guard] =
        [scene.request.margin, scene.request.fold_guard].map(|l| l.ticks() as f64 / INCH);
    for edge in Edge::ALL.into_iter().filter(|e| !item.bleed.contains(e)) {
        let at_fold = fold_at.contains(&edge);
        if !runs_off && !item.inside && !at_fold {
            continue;
        }
        // What bleeds somewhere keeps to the page elsewhere, by its measured extent. A page that is said twice has its outer edge there too.
        let keeps_margin = !runs_off && item.inside && (!at_fold || fold_at.len() > 1);
        let margin = if keeps_margin { margin } else { 0.0 };
        let guard = if at_fold && is_guarded(item) {
            guard
        } else {
            0.0
        };
        let inset = margin.max(guard)
            * if matches!(edge, Edge::Left | Edge::Top) {
                1.0
            } else {
                -1.0
            };
        let expr = if !runs_off || at_fold {
            true_edge(model, n, item, edge)
        } else {
            model.vars[n].edge(edge)
        };
        let reason = if at_fold && guard >= margin {
            Reason::Fold(n)
        } else {
            Reason::Margin(n)
        };
        // A tilted block that touches an edge by its corner does so to a hair, as it did in the sketch.
        let hair = if item.is_tilted() { A_HAIR } else { 0.0 };
        let outward = if matches!(edge, Edge::Left | Edge::Top) {
            -hair
        } else {
            hair
        };
        within(
            model,
            expr,
            edge,
            canvas.edge(edge) + inset + outward,
            reason,
        );
    }
}

/// Photos, titles and journaling keep off the fold by its guard; the rest may reach it.
fn is_guarded(item: &Item) -> bool {
    matches!(item.kind, Kind::Photo | Kind::Title | Kind::Journal)
}

fn mat(model: &mut Model, n: usize, item: &Item) {
    let Some((framed, borders)) = item.frames else {
        return;
    };
    for (edge, sign) in [
        (Edge::Left, -1.0),
        (Edge::Top, -1.0),
        (Edge::Right, 1.0),
        (Edge::Bottom, 1.0),
    ] {
        let border = borders[edge_at(edge)] / INCH;
        let expr = model.vars[n]
            .edge(edge)
            .minus(&model.vars[framed].edge(edge));
        model
            .qp
            .hard(expr, Sense::Equal, sign * border, Reason::Mat(n));
    }
}

/// The prints of a split slot: equal halves are a wish, the gap between them a limit (wider where the fold runs through).
fn cells(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item, side: Option<Side>) {
    if !item.is_split() {
        return;
    }
    let guard = scene.request.fold_guard.ticks() as f64 / INCH;
    let gap = (item.cell_gap + item.mats_each) / INCH;
    let vars = model.vars[n].clone();
    for (runs, axis) in [(&vars.cols, Axis::X), (&vars.rows, Axis::Y)] {
        let middle = (side == Some(Side::Astride) && axis == Axis::X).then_some(runs.len() / 2);
        for (k, pair) in runs.windows(2).enumerate() {
            let between = Expr::of(&[(pair[1].0, 1.0), (pair[0].1, -1.0)]);
            if middle == Some(k + 1) {
                let fold = scene.fold().unwrap_or_default();
                model.qp.hard(
                    Expr::of(&[(pair[0].1, -1.0)]),
                    Sense::AtLeast,
                    guard - fold,
                    Reason::Fold(n),
                );
                model.qp.hard(
                    Expr::of(&[(pair[1].0, 1.0)]),
                    Sense::AtLeast,
                    fold + guard,
                    Reason::Fold(n),
                );
                let least = gap.max(2.0 * guard);
                model.qp.soft(
                    between.clone().times(-1.0),
                    Sense::AtLeast,
                    -least,
                    penalty::HALVES,
                    Reason::Wish(Wish::Gap, n, n),
                );
                model
                    .qp
                    .hard(between, Sense::AtLeast, least, Reason::Cells(n));
            } else {
                model.qp.hard(between, Sense::Equal, gap, Reason::Cells(n));
            }
        }
        for run in runs {
            model.qp.hard(
                Expr::of(&[(run.1, 1.0), (run.0, -1.0)]),
                Sense::AtLeast,
                LEAST_SIDE,
                Reason::Cells(n),
            );
        }
    }
}

/// A slot is never larger than its print; under `whole` it is the print's size.
fn prints(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let Photos::Prints(prints) = &scene.request.photos else {
        return;
    };
    let on_paper = |(print, _): &(&usize, _)| !prints[**print].is_file;
    for (print, (cols, rows)) in item.prints.iter().zip(item.cell_runs()).filter(on_paper) {
        let size = prints[*print].size;
        let (w, h) = if item.on_its_side() {
            (size.h, size.w)
        } else {
            (size.w, size.h)
        };
        let vars = &model.vars[n];
        for ((low, high), most) in [
            (Vars::over(&vars.cols, cols), w),
            (Vars::over(&vars.rows, rows), h),
        ] {
            let most = most.ticks() as f64 / INCH;
            if scene.request.whole {
                model.qp.hard(
                    Expr::of(&[(high, 1.0), (low, -1.0)]),
                    Sense::Equal,
                    most,
                    Reason::Print(n),
                );
            } else {
                model.qp.hard(
                    Expr::of(&[(low, 1.0), (high, -1.0)]),
                    Sense::AtLeast,
                    -most,
                    Reason::Print(n),
                );
            }
        }
    }
}

/// An item that may not be cut keeps to its page: photos, titles and journaling by the guard, the rest just off the fold.
fn fold_side(model: &mut Model, scene: &Scene<'_>, n: usize, side: Side, fold: f64) {
    let item = &scene.items[n];
    let guard = if is_guarded(item) {
        scene.request.fold_guard.ticks() as f64 / INCH
    } else {
        0.0
    };
    match side {
        Side::Left => {
            let expr = true_edge(model, n, item, Edge::Right);
            within(model, expr, Edge::Right, fold - guard, Reason::Fold(n));
        }
        Side::Right => {
            let expr = true_edge(model, n, item, Edge::Left);
            within(model, expr, Edge::Left, fold + guard, Reason::Fold(n));
        }
        Side::Astride | Side::Through(_) => {}
    }
}

/// Photos that were apart stay apart, on the axis where they were further apart.
fn photos_apart(model: &mut Model, scene: &Scene<'_>) {
    let photo = |i: &Item| scene.sketch.blocks[i.from[0]].kind == Kind::Photo;
    for (a, first) in scene.items.iter().enumerate().filter(|(_, i)| photo(i)) {
        for (b, second) in scene
            .items
            .iter()
            .enumerate()
            .skip(a + 1)
            .filter(|(_, i)| photo(i))
        {
            let Some((axis, a_first)) = further_apart(
                inches(first.want),
                inches(second.want),
                first.drawn,
                second.drawn,
            ) else {
                continue;
            };
            let (low, high) = if a_first { (a, b) } else { (b, a) };
            let (near, far) = axis.edges();
            let expr = model.vars[high]
                .edge(near)
                .minus(&model.vars[low].edge(far));
            model
                .qp
                .hard(expr, Sense::AtLeast, 0.0, Reason::Apart(low, high));
        }
    }
}

/// The axis and order of the wider distance on the target; none when the boxes overlap in the sketch.
fn further_apart(a: Span, b: Span, drawn_a: Span, drawn_b: Span) -> Option<(Axis, bool)> {
    let found = relations(drawn_a, drawn_b)
        .into_iter()
        .filter_map(|r| match r {
            Relation::LeftOf => Some((b.l - a.r, Axis::X, true)),
            Relation::RightOf => Some((a.l - b.r, Axis::X, false)),
            Relation::Above => Some((b.t - a.b, Axis::Y, true)),
            Relation::Below => Some((a.t - b.b, Axis::Y, false)),
            _ => None,
        });
    found
        .max_by(|x, y| x.0.total_cmp(&y.0))
        .map(|(_, axis, a_first)| (axis, a_first))
}

fn pins(model: &mut Model, scene: &Scene<'_>) {
    for (p, pin) in scene.request.pins.iter().enumerate() {
        let Some(n) = scene.item_of(&pin.block) else {
            continue;
        };
        let at = pin.at.ticks() as f64 / INCH;
        let own = held(model, n, pin.edge);
        let expr = match &pin.to {
            Some(to) => match scene.item_of(&to.block) {
                // Two blocks that have become one slot have nothing between them.
                None => continue,
                Some(other) if other == n => continue,
                Some(other) => own.plus(-to.times, &held(model, other, to.edge)),
            },
            None if matches!(pin.edge, PinEdge::Edge(edge) if hangs_beyond(scene, &scene.items[n], edge, at)) =>
            {
                continue;
            }
            None => own,
        };
        model.qp.hard(expr, Sense::Equal, at, Reason::Pin(p));
    }
}

/// What a pin holds of an item.
fn held(model: &Model, n: usize, edge: PinEdge) -> Expr {
    let vars = &model.vars[n];
    match edge {
        PinEdge::Edge(edge) => vars.edge(edge),
        PinEdge::Width => vars.size(Axis::X),
        PinEdge::Height => vars.size(Axis::Y),
        PinEdge::CentreX => vars.centre(Axis::X),
        PinEdge::CentreY => vars.centre(Axis::Y),
    }
}

/// A bleeding edge pinned beyond the page holds by hanging over so far.
fn hangs_beyond(scene: &Scene<'_>, item: &Item, edge: Edge, at: f64) -> bool {
    let bound = scene.place.edge(edge);
    item.bleed.contains(&edge)
        && if matches!(edge, Edge::Left | Edge::Top) {
            at <= bound
        } else {
            at >= bound
        }
}
