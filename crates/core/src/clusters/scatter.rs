//! Small things strewn over a page: by a triangle, along a diagonal, or thinning out from the clusters; away from faces and writing.

use super::decisions::{Scatter, ScatterWay};
use super::placing::Surroundings;
use crate::geometry::Span;
use crate::length::Unit;
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use std::f64::consts::TAU;

const INCH: f64 = Unit::Inch.ticks() as f64;
/// Tries for one thing; where there is no room left, fewer are strewn.
const TRIES: usize = 60;
/// No two lie nearer than this many of their own widths.
const APART: f64 = 1.4;

/// The middles of what is strewn, in ticks. `clusters` are the clusters' boxes, `width` is one thing's width. Fewer than asked where there is no room.
pub fn scattered(
    scatter: &Scatter,
    width: f64,
    canvas: Span,
    clusters: &[Span],
    around: &Surroundings,
) -> Vec<(f64, f64)> {
    let mut random = StdRng::seed_from_u64(scatter.seed);
    let mut strewn: Vec<(f64, f64)> = Vec::new();
    for n in 0..scatter.count as usize {
        let found = (0..TRIES).find_map(|_| {
            let at = drawn(scatter.way, n, canvas, clusters, &mut random);
            let own = Span {
                l: at.0 - width / 2.0,
                t: at.1 - width / 2.0,
                r: at.0 + width / 2.0,
                b: at.1 + width / 2.0,
            };
            let fits = own.is_in(canvas, 0.0)
                && !around.in_sight.iter().any(|k| k.overlaps(own, 0.0))
                && strewn
                    .iter()
                    .all(|s| (s.0 - at.0).hypot(s.1 - at.1) >= width * APART);
            fits.then_some(at)
        });
        strewn.extend(found);
    }
    strewn
}

/// A place as the way has it: thick at its middle, thinning out.
fn drawn(
    way: ScatterWay,
    n: usize,
    canvas: Span,
    clusters: &[Span],
    random: &mut StdRng,
) -> (f64, f64) {
    let angle = random.random_range(0.0..TAU);
    let spread: f64 = random.random_range(0.0..1.0_f64).powi(2);
    let around = |middle: (f64, f64), reach: f64| {
        let away = reach * spread;
        (middle.0 + away * angle.cos(), middle.1 + away * angle.sin())
    };
    let side = canvas.w().min(canvas.h());
    match way {
        ScatterWay::FromClusters if !clusters.is_empty() => {
            let cluster = clusters[n % clusters.len()];
            let reach = cluster.w().max(cluster.h()) / 2.0;
            let away = reach * 0.8 + 2.0 * INCH * spread;
            (
                cluster.cx() + away * angle.cos(),
                cluster.cy() + away * angle.sin(),
            )
        }
        ScatterWay::Triangle => {
            let corners = [(0.2, 0.25), (0.8, 0.35), (0.45, 0.85)];
            let (x, y) = corners[n % corners.len()];
            around(
                (canvas.l + x * canvas.w(), canvas.t + y * canvas.h()),
                side * 0.16,
            )
        }
        ScatterWay::Diagonal | ScatterWay::FromClusters => {
            let along = random.random_range(0.06..0.94);
            around(
                (canvas.l + along * canvas.w(), canvas.b - along * canvas.h()),
                side * 0.18,
            )
        }
    }
}
