//! What should hold: relations, lines, contacts, gaps, equal sizes, each with the penalty of an inch of slack.

use super::orders::ties;
use super::{Model, Scene, slack};
use crate::fit::holds::What;
use crate::fit::item::Item;
use crate::fit::qp::{Expr, Sense};
use crate::fit::reason::{Reason, Wish};
use crate::geometry::{Axis, Edge, Span};
use crate::photos::Photos;
use crate::reading::{
    self, AGREE, GAP_MOST, INCH, KEPT, Place, Relation, distance, face, relations,
};
use crate::sketch::Kind;

/// Prices of an inch of slack, from strong to weak. The order is what counts: a weaker wish gives way to a stronger one.
pub(super) mod penalty {
    /// A circle that is none, or units that are not square.
    pub(crate) const ROUND: f64 = 600.0;
    /// Left of, above, in, over.
    pub(crate) const RELATION: f64 = 400.0;
    /// A grid that the fold breaks between two units.
    pub(crate) const UNIT: f64 = 350.0;
    /// Beyond the bounds of a size.
    pub(crate) const BOUNDS: f64 = 300.0;
    /// Touching.
    pub(crate) const CONTACT: f64 = 200.0;
    /// Halves of a split slot.
    pub(crate) const HALVES: f64 = 150.0;
    /// Edges on one line.
    pub(crate) const EDGE_LINE: f64 = 90.0;
    /// A gap that closes.
    pub(crate) const GAP: f64 = 90.0;
    /// Centres on one line.
    pub(crate) const CENTRE_LINE: f64 = 60.0;
    /// Equal sizes.
    pub(crate) const EQUAL: f64 = 40.0;
    /// Less than a comfortable size.
    pub(crate) const COMFORT: f64 = 60.0;
    /// A narrow gap that shrinks.
    pub(crate) const NARROW_GAP: f64 = 25.0;
    /// Equal gaps.
    pub(crate) const SPACING: f64 = 8.0;
}

/// Boxes that overlapped keep overlapping by this much, or half of what they did, in ticks.
const OVERLAP: f64 = INCH / 8.0;
/// A gap keeps this share of the smaller of its own and its scaled width.
const GAP_SHARE: f64 = 0.62;
/// Sizes stay between these shares of the smaller and the larger scale.
const BOUNDS: (f64, f64) = (0.6, 1.4);
/// A side is comfortable from this share of the smaller scale on; a photo's also from its share of the mean scale, so
/// that the photos together keep half of their wanted area (where a spread is laid on one page one side is always beyond that).
const COMFORT: (f64, f64, f64) = (0.88, 0.71, 0.66);

pub(super) fn add(model: &mut Model, scene: &Scene<'_>) {
    let drawn: Vec<Span> = scene.items.iter().map(|i| i.drawn).collect();
    let kinds: Vec<Kind> = scene
        .items
        .iter()
        .map(|i| scene.sketch.blocks[i.from[0]].kind)
        .collect();
    pairs(model, scene, &drawn);
    lines(model, scene, &drawn, &kinds);
    added(model, scene, &drawn);
    mirrored(model, scene, &drawn, &kinds);
    equals(model, scene, &drawn, &kinds);
    spacing(model, scene, &drawn);
    slack::add(model, scene, &drawn);
    bounds(model, scene);
    for (n, item) in scene.items.iter().enumerate() {
        halves(model, n, item);
        roomy_cells(model, n, item);
        fold_kept(model, scene, n, item);
    }
}

/// Containing, overlapping, contacts and gaps.
fn pairs(model: &mut Model, scene: &Scene<'_>, drawn: &[Span]) {
    for a in 0..drawn.len() {
        for b in 0..drawn.len() {
            if a == b || ties(scene, a, b) {
                continue;
            }
            if a < b {
                inside_or_over(model, scene, drawn, a, b);
            }
            for axis in Axis::BOTH {
                neighbours(model, scene, drawn, (a, b), axis);
            }
        }
    }
}

fn inside_or_over(model: &mut Model, scene: &Scene<'_>, drawn: &[Span], a: usize, b: usize) {
    if !scene.holds_to_pair(What::LiesOn, a, b) {
        return;
    }
    let relation = relations(drawn[a], drawn[b])[0];
    let (outer, inner) = match relation {
        Relation::Contains => (a, b),
        Relation::Within => (b, a),
        Relation::Overlapping => return over(model, scene, drawn, a, b),
        _ => return,
    };
    let reason = Reason::Wish(Wish::Relation, outer, inner);
    for (edge, sign) in [
        (Edge::Left, 1.0),
        (Edge::Top, 1.0),
        (Edge::Right, -1.0),
        (Edge::Bottom, -1.0),
    ] {
        let expr = model.vars[inner]
            .edge(edge)
            .minus(&model.vars[outer].edge(edge))
            .times(sign);
        model
            .qp
            .soft(expr, Sense::AtLeast, 0.0, penalty::RELATION, reason);
    }
}

fn over(model: &mut Model, scene: &Scene<'_>, drawn: &[Span], a: usize, b: usize) {
    for axis in Axis::BOTH {
        let (near, far) = axis.edges();
        let scale = if axis == Axis::X {
            scene.map.sx
        } else {
            scene.map.sy
        };
        for (x, y) in [(a, b), (b, a)] {
            let shared = drawn[x].edge(far) - drawn[y].edge(near);
            let keep = (shared * scale.min(1.0) / 2.0).min(OVERLAP) / INCH;
            let expr = model.vars[x].edge(far).minus(&model.vars[y].edge(near));
            model.qp.soft(
                expr,
                Sense::AtLeast,
                keep,
                penalty::RELATION,
                Reason::Wish(Wish::Relation, a, b),
            );
        }
    }
}

fn neighbours(
    model: &mut Model,
    scene: &Scene<'_>,
    drawn: &[Span],
    (a, b): (usize, usize),
    axis: Axis,
) {
    let width = distance(drawn[a], drawn[b], axis);
    if !face(drawn[a], drawn[b], axis) || !(-AGREE..=GAP_MOST).contains(&width) {
        return;
    }
    let (near, far) = axis.edges();
    let between = model.vars[b].edge(near).minus(&model.vars[a].edge(far));
    let what = if width.abs() <= AGREE {
        What::Touch
    } else {
        What::Gap
    };
    if !scene.holds_to_pair(what, a, b)
        || (what == What::Touch && (scene.is_free(a) || scene.is_free(b)))
    {
        return;
    }
    if what == What::Touch {
        model.qp.soft(
            between,
            Sense::Equal,
            0.0,
            penalty::CONTACT,
            Reason::Wish(Wish::Contact, a, b),
        );
        return;
    }
    // No less than a ruler mark's worth, where the gap had that.
    let (step, least) = (
        scene.request.snap.ticks() as f64,
        width.min(width * scene.map.least()) * GAP_SHARE,
    );
    let least = if step > 0.0 && width >= step {
        least.max(((least / GAP_SHARE * 0.5) / step).ceil() * step)
    } else {
        least
    } / INCH;
    model.qp.soft(
        between,
        Sense::AtLeast,
        least,
        penalty::GAP,
        Reason::Wish(Wish::Gap, a, b),
    );
}

/// Edges and centres that agreed within a hair lie on one line each.
fn lines(model: &mut Model, scene: &Scene<'_>, drawn: &[Span], kinds: &[Kind]) {
    for mut line in reading::lines(drawn, kinds) {
        line.blocks
            .retain(|n| scene.holds_to(What::Line(line.place), *n));
        if line.blocks.len() < 2 {
            continue;
        }
        let penalty = if line.place.is_centre() {
            penalty::CENTRE_LINE
        } else {
            penalty::EDGE_LINE
        };
        let (first, rest) = line.blocks.split_first().expect("a line has members");
        if let [other] = rest {
            let expr = at(model, line.place, *other).minus(&at(model, line.place, *first));
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                penalty,
                Reason::Wish(Wish::Line, *first, *other),
            );
            continue;
        }
        let common = model.qp.var(0.0);
        for member in &line.blocks {
            let expr = at(model, line.place, *member).plus(-1.0, &Expr::of(&[(common, 1.0)]));
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                penalty,
                Reason::Wish(Wish::Line, *first, *member),
            );
        }
    }
}

fn at(model: &Model, place: Place, n: usize) -> Expr {
    let vars = &model.vars[n];
    match place {
        Place::Left => vars.edge(Edge::Left),
        Place::Right => vars.edge(Edge::Right),
        Place::Top => vars.edge(Edge::Top),
        Place::Bottom => vars.edge(Edge::Bottom),
        Place::CentreX => vars.centre(Axis::X),
        Place::CentreY => vars.centre(Axis::Y),
    }
}

fn equals(model: &mut Model, scene: &Scene<'_>, drawn: &[Span], kinds: &[Kind]) {
    let listed = matches!(scene.request.photos, Photos::Prints(_));
    for (axis, members) in reading::equal_sizes(drawn, kinds) {
        let members = members
            .into_iter()
            .filter(|m| scene.holds_to(What::Equal(axis), *m));
        let free: Vec<usize> = members
            .filter(|m| !(scene.items[*m].is_split() || listed && kinds[*m] == Kind::Photo))
            .collect();
        for pair in free.windows(2) {
            let expr = model.vars[pair[1]]
                .size(axis)
                .minus(&model.vars[pair[0]].size(axis));
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                penalty::EQUAL,
                Reason::Wish(Wish::Equal, pair[0], pair[1]),
            );
        }
    }
}

/// What the maker added herself holds a little harder than what was read.
fn added(model: &mut Model, scene: &Scene<'_>, drawn: &[Span]) {
    const OWN: f64 = 2.0;
    for link in &scene.request.holds.on {
        let of = |id: &String| {
            scene
                .sketch
                .index_of(id)
                .and_then(|b| scene.items.iter().position(|i| i.from.contains(&b)))
        };
        let items: Vec<usize> = link.blocks.iter().filter_map(of).collect();
        for pair in items.windows(2).filter(|p| p[0] != p[1]) {
            let (a, b) = (pair[0], pair[1]);
            let (expr, penalty, wish) = match link.what {
                What::Line(place) => (
                    at(model, place, b).minus(&at(model, place, a)),
                    penalty::EDGE_LINE,
                    Wish::Line,
                ),
                What::Equal(axis) => (
                    model.vars[b].size(axis).minus(&model.vars[a].size(axis)),
                    penalty::EDGE_LINE,
                    Wish::Equal,
                ),
                What::Touch => {
                    // They meet where they are nearest to it.
                    let ways = Axis::BOTH
                        .into_iter()
                        .flat_map(|axis| [(a, b, axis), (b, a, axis)]);
                    let off =
                        |w: &(usize, usize, Axis)| distance(drawn[w.0], drawn[w.1], w.2).abs();
                    let Some((first, second, axis)) = ways.min_by(|x, y| off(x).total_cmp(&off(y)))
                    else {
                        continue;
                    };
                    let (near, far) = axis.edges();
                    (
                        model.vars[second]
                            .edge(near)
                            .minus(&model.vars[first].edge(far)),
                        penalty::CONTACT,
                        Wish::Contact,
                    )
                }
                What::Mirrored(axis) => {
                    image(
                        model,
                        scene,
                        axis,
                        (a, b),
                        OWN * penalty::CENTRE_LINE,
                        Wish::Line,
                    );
                    continue;
                }
                // A gap and what lies on what are read from the places; there is nothing to add to them.
                What::Gap | What::LiesOn => continue,
            };
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                OWN * penalty,
                Reason::Wish(wish, a, b),
            );
        }
    }
}

/// Images of each other across the middle of the sketch stay as far from the middle of where it goes.
fn mirrored(model: &mut Model, scene: &Scene<'_>, drawn: &[Span], kinds: &[Kind]) {
    let canvas = scene.sketch.canvas.span();
    for (axis, a, b) in reading::mirrored(drawn, kinds, canvas) {
        if scene.is_free(a) || scene.is_free(b) || !scene.holds_to_pair(What::Mirrored(axis), a, b)
        {
            continue;
        }
        image(model, scene, axis, (a, b), penalty::SPACING, Wish::Equal);
    }
}

/// Two blocks as far from the middle of where the sketch goes, one on either side.
fn image(
    model: &mut Model,
    scene: &Scene<'_>,
    axis: Axis,
    (a, b): (usize, usize),
    penalty: f64,
    wish: Wish,
) {
    let middle = if axis == Axis::X {
        scene.place.cx()
    } else {
        scene.place.cy()
    };
    let both = model.vars[a]
        .centre(axis)
        .plus(1.0, &model.vars[b].centre(axis));
    model.qp.soft(
        both,
        Sense::Equal,
        2.0 * middle,
        penalty,
        Reason::Wish(wish, a, b),
    );
}

/// Gaps between photos that repeat stay equal.
fn spacing(model: &mut Model, scene: &Scene<'_>, drawn: &[Span]) {
    let photos: Vec<usize> = (0..drawn.len())
        .filter(|n| scene.items[*n].kind == Kind::Photo)
        .collect();
    for axis in Axis::BOTH {
        // From either side, so that a sketch that is flipped has the same gaps in the same order.
        let mut gaps: Vec<(usize, usize, f64)> = Vec::new();
        for a in &photos {
            let facing = || photos.iter().filter(|b| face(drawn[*a], drawn[**b], axis));
            let within = |gap: &(usize, usize, f64)| gap.2 > AGREE && gap.2 <= 2.0 * GAP_MOST;
            let after = facing().map(|b| (*a, *b, distance(drawn[*a], drawn[*b], axis)));
            let before = facing().map(|b| (*b, *a, distance(drawn[*b], drawn[*a], axis)));
            gaps.extend(after.filter(within).min_by(|x, y| x.2.total_cmp(&y.2)));
            gaps.extend(before.filter(within).min_by(|x, y| x.2.total_cmp(&y.2)));
        }
        gaps.sort_by_key(|(a, b, _)| (*a.min(b), *a.max(b)));
        gaps.dedup_by_key(|(a, b, _)| (*a, *b));
        let widths: Vec<(usize, f64)> = gaps.iter().enumerate().map(|(n, g)| (n, g.2)).collect();
        for class in reading::classes(&widths, AGREE) {
            for pair in class.windows(2) {
                let (near, far) = axis.edges();
                let gap = |n: usize| {
                    model.vars[gaps[n].1]
                        .edge(near)
                        .minus(&model.vars[gaps[n].0].edge(far))
                };
                let expr = gap(pair[1]).minus(&gap(pair[0]));
                let reason = Reason::Wish(Wish::Equal, gaps[pair[0]].0, gaps[pair[1]].1);
                model
                    .qp
                    .soft(expr, Sense::Equal, 0.0, penalty::SPACING, reason);
            }
        }
    }
}

fn bounds(model: &mut Model, scene: &Scene<'_>) {
    let Scene { map, request, .. } = scene;
    for (n, item) in scene.items.iter().enumerate() {
        if item.frames.is_some() || (request.whole && !item.prints.is_empty()) {
            continue;
        }
        for axis in Axis::BOTH {
            let drawn = if axis == Axis::X {
                item.drawn.w()
            } else {
                item.drawn.h()
            } / INCH;
            let reason = Reason::Wish(Wish::Bounds, n, n);
            let most = BOUNDS.1 * map.most() * drawn;
            let at_most = (model.vars[n].size(axis).times(-1.0), -most);
            // What is doubled is as wide as both of it: as she says, or no wider than one of it may be where the fit does so by itself.
            if axis == Axis::X && item.each {
                if scene
                    .task
                    .doubled
                    .contains(&scene.sketch.blocks[item.from[0]].id)
                {
                    model.qp.soft(
                        at_most.0,
                        Sense::AtLeast,
                        at_most.1,
                        penalty::BOUNDS,
                        reason,
                    );
                }
                continue;
            }
            let mut least = BOUNDS.0 * map.least() * drawn;
            if let Some(most) = largest_print(scene, item, axis) {
                least = least.min(0.9 * most);
            }
            model.qp.soft(
                model.vars[n].size(axis),
                Sense::AtLeast,
                least,
                penalty::BOUNDS,
                reason,
            );
            if item.prints.is_empty() {
                let roomy = if scene.merges() { COMFORT.2 } else { COMFORT.1 };
                let share = if item.kind == Kind::Photo {
                    (COMFORT.0 * map.least()).max(roomy * map.mean())
                } else {
                    COMFORT.0 * map.least()
                };
                model.qp.soft(
                    model.vars[n].size(axis),
                    Sense::AtLeast,
                    share * drawn,
                    penalty::COMFORT,
                    reason,
                );
            }
            model.qp.soft(
                at_most.0,
                Sense::AtLeast,
                at_most.1,
                penalty::BOUNDS,
                reason,
            );
        }
    }
}

/// How wide or high the prints of an item let it be, in inches.
fn largest_print(scene: &Scene<'_>, item: &Item, axis: Axis) -> Option<f64> {
    let Photos::Prints(prints) = &scene.request.photos else {
        return None;
    };
    let side = |p: &usize| {
        let size = prints[*p].size;
        (if axis == Axis::Y.turned_if(item.on_its_side()) {
            size.h
        } else {
            size.w
        })
        .ticks() as f64
            / INCH
    };
    let on_paper = item.prints.iter().filter(|p| !prints[**p].is_file);
    let least = on_paper.map(side).fold(f64::INFINITY, f64::min);
    least.is_finite().then(|| {
        least
            * f64::from(if axis == Axis::X {
                item.cells.0
            } else {
                item.cells.1
            })
    })
}

/// The columns and the rows of a slot's prints keep their shares of it: equal ones, but for a large print's beside small ones.
fn halves(model: &mut Model, n: usize, item: &Item) {
    let vars = model.vars[n].clone();
    for (runs, axis) in [(&vars.cols, Axis::X), (&vars.rows, Axis::Y)] {
        let shares = item.run_shares(axis);
        for (k, pair) in runs.windows(2).enumerate() {
            let times = shares[k + 1] / shares[k];
            let expr = Expr::of(&[
                (pair[1].1, 1.0),
                (pair[1].0, -1.0),
                (pair[0].1, -times),
                (pair[0].0, times),
            ]);
            // Told as a bound, for those are not let go of: a sliver beside a photo is no half of it.
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                penalty::HALVES,
                Reason::Wish(Wish::Bounds, n, n),
            );
        }
    }
}

/// The prints of a split slot take up the slot: each its part of most of the wanted width and height.
fn roomy_cells(model: &mut Model, n: usize, item: &Item) {
    if !item.is_split() || item.each || item.kind != Kind::Photo || !item.prints.is_empty() {
        return;
    }
    let vars = model.vars[n].clone();
    for (runs, whole, axis) in [
        (&vars.cols, item.want.w(), Axis::X),
        (&vars.rows, item.want.h(), Axis::Y),
    ] {
        for (run, share) in runs.iter().zip(item.run_shares(axis)) {
            let least = COMFORT.1 * whole / INCH * share;
            let expr = Expr::of(&[(run.1, 1.0), (run.0, -1.0)]);
            model.qp.soft(
                expr,
                Sense::AtLeast,
                least,
                penalty::COMFORT,
                Reason::Wish(Wish::Bounds, n, n),
            );
        }
    }
}

/// A block of a two-page sketch that kept to one page keeps to it.
fn fold_kept(model: &mut Model, scene: &Scene<'_>, n: usize, item: &Item) {
    let (Some(fold), 2) = (scene.fold(), scene.sketch.canvas.pages) else {
        return;
    };
    let drawn_fold = scene.sketch.canvas.page.w.ticks() as f64;
    let reason = Reason::Wish(Wish::Relation, n, n);
    if item.drawn.r <= drawn_fold + KEPT {
        model.qp.soft(
            model.vars[n].edge(Edge::Right).times(-1.0),
            Sense::AtLeast,
            -fold,
            penalty::RELATION,
            reason,
        );
    } else if item.drawn.l >= drawn_fold - KEPT {
        model.qp.soft(
            model.vars[n].edge(Edge::Left),
            Sense::AtLeast,
            fold,
            penalty::RELATION,
            reason,
        );
    }
}
