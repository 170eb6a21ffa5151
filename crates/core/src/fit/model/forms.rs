//! What pulls: places, shapes, sizes, clusters to their hosts, units to squares.

use super::wishes::penalty;
use super::{Model, Scene, Vars, inches};
use crate::fit::holds::Keep;
use crate::fit::item::Item;
use crate::fit::preferences::{Emphasis, Slack};
use crate::fit::qp::{Expr, Sense};
use crate::fit::reason::{Reason, Wish};
use crate::geometry::{Axis, Edge};
use crate::photos::Photos;
use crate::reading::{AGREE, INCH, distance, face};
use crate::sketch::Kind;

/// Weights of the pulls. A place's is per squared share of the canvas, a size's per squared share of the wanted size.
mod weight {
    /// A block's centre to its wanted place; where a spread is laid on one page, places and photos' shapes are at odds everywhere, and
    /// sizes have to give way to both.
    pub(super) const PLACE: (f64, f64) = (900.0, 4_500.0);
    /// A cluster or accent to its place at its host: less than to its own place, or a tilt of the two would add up.
    pub(super) const HOST: f64 = 400.0;
    /// A photo slot's shape: on a page of the sketch's own shape, on any other (there it is what suffers most), on one page for two.
    pub(super) const SHAPE: (f64, f64, f64) = (40.0, 100.0, 300.0);
    /// A photo slot's size.
    pub(super) const PHOTO_SIZE: f64 = 1.5;
    /// A print's trimming.
    pub(super) const TRIM: f64 = 36.0;
    /// Any other size.
    pub(super) const SIZE: f64 = 1.0;
    /// A cluster's or accent's size; on one page for two.
    pub(super) const ACCENT_SIZE: (f64, f64) = (6.0, 2.0);
    /// A narrow gap, per squared inch: on a page of about the sketch's shape, and on one that is stretched, where holding on to each gap
    /// would leave no place where it is wanted.
    pub(super) const GAP: (f64, f64) = (8.0, 0.6);
}

/// Neighbours up to this far apart belong together, and their gap is an absolute.
const NARROW: f64 = 0.25 * INCH;

/// Scales nearer together than this leave a page of the sketch's own shape.
const OWN_SHAPE: f64 = 1.05;
/// Scales further apart than this stretch a sketch.
const STRETCHED: f64 = 1.6;

pub(super) fn add(model: &mut Model, scene: &Scene<'_>) {
    for (n, item) in scene.items.iter().enumerate() {
        place(model, scene, n, item);
        match item.kind {
            _ if item.frames.is_some() => {}
            _ if item.each => both_parts(model, scene, n, item),
            Kind::Photo if !item.prints.is_empty() => trims(model, scene, n, item),
            Kind::Photo => photo(model, scene, n, item),
            Kind::Cluster | Kind::Accent => both_by_mean(model, scene, n, item),
            _ if item.round => both_by_mean(model, scene, n, item),
            Kind::Paper | Kind::Journal | Kind::Title
                if item.bleed.is_empty()
                    && scene.request.emphasis == Some(Emphasis::Proportions) =>
            {
                both_by_mean(model, scene, n, item);
            }
            _ => size(model, n, item),
        }
        if item.round {
            let expr = model.vars[n]
                .size(Axis::X)
                .minus(&model.vars[n].size(Axis::Y));
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                penalty::ROUND,
                Reason::Wish(Wish::Round, n, n),
            );
        }
        if scene.keep(n).is_some_and(Keep::holds_size) && item.frames.is_none() {
            kept_size(model, scene, n, item);
        }
        units(model, n, item);
        host(model, scene, n, item);
    }
    narrow_gaps(model, scene);
}

/// What the keep-list holds costs this much an inch: more than lines and gaps, less than what lies on what.
const KEPT_PRICE: f64 = 250.0;
/// The share of its pull that is left of a block that is free.
const FREE: f64 = 0.04;

/// A held size: what keeps its shape grows with the mean of both scales, all else with the page.
fn kept_size(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let (drawn, want) = (inches(item.drawn), inches(item.want));
    let keeps_shape = item.round || matches!(item.kind, Kind::Photo | Kind::Cluster | Kind::Accent);
    let mean = scene.map.mean();
    let (w, h) = if keeps_shape && !item.is_split() {
        (drawn.w() * mean, drawn.h() * mean)
    } else {
        (want.w(), want.h())
    };
    for (axis, side) in [(Axis::X, w), (Axis::Y, h)] {
        model.qp.soft(
            model.vars[n].size(axis),
            Sense::Equal,
            side,
            KEPT_PRICE,
            Reason::Wish(Wish::Bounds, n, n),
        );
    }
}

fn place(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let (canvas, want) = (scene.canvas(), inches(item.want));
    let share = match scene.keep(n) {
        Some(Keep::Free) => FREE,
        _ if item.frames.is_some() => 0.3,
        _ => 1.0,
    };
    if scene.keep(n).is_some_and(Keep::holds_place) {
        for (axis, at) in [(Axis::X, want.cx()), (Axis::Y, want.cy())] {
            model.qp.soft(
                model.vars[n].centre(axis),
                Sense::Equal,
                at,
                KEPT_PRICE,
                Reason::Wish(Wish::Bounds, n, n),
            );
        }
    }
    let weight = share
        * scene.stress().0
        * if scene.merges() {
            weight::PLACE.1
        } else {
            weight::PLACE.0
        };
    model.qp.pull(
        model.vars[n].centre(Axis::X),
        want.cx(),
        weight / canvas.w().powi(2),
    );
    model.qp.pull(
        model.vars[n].centre(Axis::Y),
        want.cy(),
        weight / canvas.h().powi(2),
    );
}

/// A slot keeps its shape, and grows with the mean of both scales.
fn photo(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let drawn = inches(item.drawn);
    let mean = scene.map.mean();
    let vars = model.vars[n].clone();
    if item.is_split() {
        model.qp.pull(
            vars.size(Axis::X).times(1.0 / (drawn.w() * scene.map.sx)),
            1.0,
            weight::PHOTO_SIZE,
        );
        model.qp.pull(
            vars.size(Axis::Y).times(1.0 / (drawn.h() * scene.map.sy)),
            1.0,
            weight::PHOTO_SIZE,
        );
        return;
    }
    let shape = vars
        .size(Axis::X)
        .times(1.0 / (drawn.w() * mean))
        .minus(&vars.size(Axis::Y).times(1.0 / (drawn.h() * mean)));
    let own_shape = scene.map.most() < OWN_SHAPE * scene.map.least();
    let weight = match own_shape {
        true => weight::SHAPE.0,
        false if scene.merges() => weight::SHAPE.2,
        false => weight::SHAPE.1,
    };
    model.qp.pull(shape, 0.0, weight * scene.stress().1);
    both_by(model, n, item, mean, weight::PHOTO_SIZE);
}

/// A slot takes as much of its print as there is room for.
fn trims(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
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
        for ((low, high), full) in [
            (Vars::over(&vars.cols, cols), w),
            (Vars::over(&vars.rows, rows), h),
        ] {
            let full = full.ticks() as f64 / INCH;
            model.qp.pull(
                Expr::of(&[(high, 1.0 / full), (low, -1.0 / full)]),
                1.0,
                weight::TRIM,
            );
        }
    }
}

/// What is doubled stands on either page as large as it would once.
fn both_parts(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let (drawn, mean) = (inches(item.drawn), scene.map.mean());
    let (vars, weight) = (model.vars[n].clone(), accent_size(scene));
    for part in &vars.cols {
        let wide = Expr::of(&[(part.1, 1.0), (part.0, -1.0)]);
        let shape = wide
            .clone()
            .times(1.0 / (drawn.w() * mean))
            .minus(&vars.size(Axis::Y).times(1.0 / (drawn.h() * mean)));
        model
            .qp
            .pull(wide.times(1.0 / (drawn.w() * mean)), 1.0, weight);
        model.qp.pull(shape, 0.0, weight);
    }
    model.qp.pull(
        vars.size(Axis::Y).times(1.0 / (drawn.h() * mean)),
        1.0,
        weight,
    );
}

fn both_by_mean(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let drawn = inches(item.drawn);
    let mean = scene.map.mean();
    let weight = accent_size(scene);
    both_by(model, n, item, mean, weight);
    let vars = &model.vars[n];
    let shape = vars
        .size(Axis::X)
        .times(1.0 / (drawn.w() * mean))
        .minus(&vars.size(Axis::Y).times(1.0 / (drawn.h() * mean)));
    model.qp.pull(shape, 0.0, weight);
}

fn accent_size(scene: &Scene<'_>) -> f64 {
    if scene.merges() {
        weight::ACCENT_SIZE.1
    } else {
        weight::ACCENT_SIZE.0
    }
}

fn both_by(model: &mut Model, n: usize, item: &Item, scale: f64, weight: f64) {
    let drawn = inches(item.drawn);
    for (axis, side) in [(Axis::X, drawn.w()), (Axis::Y, drawn.h())] {
        model.qp.pull(
            model.vars[n].size(axis).times(1.0 / (side * scale)),
            1.0,
            weight,
        );
    }
}

/// Panels, strips, washes and text grow with the page; a title's letters stay as high as its bounds let them.
fn size(model: &mut Model, n: usize, item: &Item) {
    let (drawn, want) = (inches(item.drawn), inches(item.want));
    let high = if item.kind == Kind::Title {
        (want.h() * drawn.h()).sqrt()
    } else {
        want.h()
    };
    model.qp.pull(
        model.vars[n].size(Axis::X).times(1.0 / want.w()),
        1.0,
        weight::SIZE,
    );
    model.qp.pull(
        model.vars[n].size(Axis::Y).times(1.0 / want.h()),
        high / want.h(),
        weight::SIZE,
    );
}

/// Units keep the shape they have in the sketch.
fn units(model: &mut Model, n: usize, item: &Item) {
    let Some((new, old)) = item.grid else { return };
    let exchange = |g: crate::sketch::Grid| {
        if item.on_its_side() {
            (g.rows, g.cols)
        } else {
            (g.cols, g.rows)
        }
    };
    let gap = new.gap.ticks() as f64 / INCH;
    let (drawn, (old_cols, old_rows), (cols, rows)) =
        (inches(item.drawn), exchange(old), exchange(new));
    let unit = |size: f64, count: u32| (size - gap * f64::from(count - 1)) / f64::from(count);
    let aspect = unit(drawn.w(), old_cols) / unit(drawn.h(), old_rows);
    // (w - gaps) / cols = aspect * (h - gaps) / rows
    let (cols, rows) = (f64::from(cols), f64::from(rows));
    let expr = model.vars[n]
        .size(Axis::X)
        .times(1.0 / cols)
        .minus(&model.vars[n].size(Axis::Y).times(aspect / rows));
    let rhs = gap * (cols - 1.0) / cols - aspect * gap * (rows - 1.0) / rows;
    model.qp.soft(
        expr,
        Sense::Equal,
        rhs,
        penalty::EQUAL,
        Reason::Wish(Wish::Round, n, n),
    );
}

/// A cluster or accent keeps its corner of its host: its distance from the host's nearest edge or centre, on each axis.
fn host(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let Some(h) = item.host else { return };
    let (own, host, canvas) = (
        inches(item.drawn),
        inches(scene.items[h].drawn),
        scene.canvas(),
    );
    for (axis, extent) in [(Axis::X, canvas.w()), (Axis::Y, canvas.h())] {
        let (near, far) = if axis == Axis::X {
            (Edge::Left, Edge::Right)
        } else {
            (Edge::Top, Edge::Bottom)
        };
        let at = if axis == Axis::X { own.cx() } else { own.cy() };
        let middle = if axis == Axis::X {
            host.cx()
        } else {
            host.cy()
        };
        let anchors = [
            (host.edge(near), model.vars[h].edge(near)),
            (middle, model.vars[h].centre(axis)),
            (host.edge(far), model.vars[h].edge(far)),
        ];
        let Some((from, anchor)) = anchors
            .into_iter()
            .min_by(|a, b| (a.0 - at).abs().total_cmp(&(b.0 - at).abs()))
        else {
            continue;
        };
        let expr = model.vars[n].centre(axis).minus(&anchor);
        model.qp.pull(
            expr,
            (at - from) * scene.map.mean(),
            weight::HOST / extent.powi(2),
        );
    }
}

/// Narrow gaps between neighbours are absolutes: they neither shrink with the page nor grow if they can help it.
fn narrow_gaps(model: &mut Model, scene: &Scene<'_>) {
    if scene.request.slack == Slack::Between {
        return;
    }
    let stretched = scene.map.most() > STRETCHED * scene.map.least();
    let solid = |i: &Item| {
        matches!(
            i.kind,
            Kind::Photo | Kind::Title | Kind::Journal | Kind::Grid
        )
    };
    for (a, first) in scene.items.iter().enumerate().filter(|(_, i)| solid(i)) {
        for (b, second) in scene
            .items
            .iter()
            .enumerate()
            .filter(|(b, i)| *b != a && solid(i))
        {
            for axis in Axis::BOTH {
                let gap = distance(first.drawn, second.drawn, axis);
                if face(first.drawn, second.drawn, axis) && gap > AGREE && gap <= NARROW {
                    let (near, far) = if axis == Axis::X {
                        (Edge::Left, Edge::Right)
                    } else {
                        (Edge::Top, Edge::Bottom)
                    };
                    let expr = model.vars[b].edge(near).minus(&model.vars[a].edge(far));
                    let reason = Reason::Wish(Wish::Equal, a, b);
                    model.qp.soft(
                        expr.clone(),
                        Sense::AtLeast,
                        gap / INCH,
                        penalty::NARROW_GAP,
                        reason,
                    );
                    model.qp.pull(
                        expr,
                        gap / INCH,
                        if stretched {
                            weight::GAP.1
                        } else {
                            weight::GAP.0
                        },
                    );
                }
            }
        }
    }
}
