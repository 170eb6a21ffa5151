//! Where leftover room goes, as the maker chose: between neighbours, outside, above and below, or into one gap.

use super::wishes::penalty;
use super::{Model, Scene};
use crate::fit::preferences::Slack;
use crate::fit::qp::Sense;
use crate::fit::reason::{Reason, Wish};
use crate::geometry::{Axis, Span};
use crate::reading::{AGREE, GAP_MOST, INCH, distance, face};
use crate::sketch::Kind;

/// Even gaps that she asks for cost so many times what those cost that were only read.
const ASKED: f64 = 8.0;

/// A gap between two facing neighbours, in ticks.
struct Gap {
    low: usize,
    high: usize,
    axis: Axis,
    width: f64,
}

pub(super) fn add(model: &mut Model, scene: &Scene<'_>, drawn: &[Span]) {
    let gaps = gaps(scene, drawn);
    let named = |n: usize, id: &String| {
        scene.items[n]
            .from
            .iter()
            .any(|b| scene.sketch.blocks[*b].id == *id)
    };
    for gap in &gaps {
        let stays = match &scene.request.slack {
            Slack::Best | Slack::Mats => return,
            Slack::Between => false,
            Slack::Outside => true,
            Slack::Ends => gap.axis == Axis::Y,
            Slack::Gap(a, b) => {
                !(named(gap.low, a) && named(gap.high, b)
                    || named(gap.low, b) && named(gap.high, a))
            }
        };
        if stays {
            let (near, far) = gap.axis.edges();
            let between = model.vars[gap.high]
                .edge(near)
                .minus(&model.vars[gap.low].edge(far));
            model.qp.soft(
                between,
                Sense::Equal,
                gap.width / INCH,
                penalty::GAP,
                Reason::Wish(Wish::Gap, gap.low, gap.high),
            );
        }
    }
    let is_named = |gap: &Gap, a: &String, b: &String| {
        named(gap.low, a) && named(gap.high, b) || named(gap.low, b) && named(gap.high, a)
    };
    let (open, alike): (Vec<&Gap>, bool) = match &scene.request.slack {
        Slack::Between => (gaps.iter().collect(), true),
        Slack::Ends => (gaps.iter().filter(|g| g.axis == Axis::X).collect(), true),
        Slack::Gap(a, b) => {
            let axis = gaps.iter().find(|g| is_named(g, a, b)).map(|g| g.axis);
            (
                gaps.iter().filter(|g| Some(g.axis) == axis).collect(),
                false,
            )
        }
        _ => return,
    };
    if alike {
        even(model, &open);
    }
    ends(model, scene, &open);
}

/// Neighbours that face each other, with nothing between them, up to an inch apart.
fn gaps(scene: &Scene<'_>, drawn: &[Span]) -> Vec<Gap> {
    let solid =
        |n: &usize| matches!(scene.items[*n].kind, Kind::Photo | Kind::Grid) && !scene.is_free(*n);
    let all: Vec<usize> = (0..drawn.len()).filter(solid).collect();
    let mut found = Vec::new();
    for axis in Axis::BOTH {
        for low in &all {
            let beyond = all
                .iter()
                .filter(|n| face(drawn[*low], drawn[**n], axis))
                .map(|n| (*n, distance(drawn[*low], drawn[*n], axis)));
            let next = beyond
                .filter(|(_, d)| *d > AGREE && *d <= GAP_MOST)
                .min_by(|a, b| a.1.total_cmp(&b.1));
            found.extend(next.map(|(high, width)| Gap {
                low: *low,
                high,
                axis,
                width,
            }));
        }
    }
    found
}

/// All gaps along an axis are alike.
fn even(model: &mut Model, gaps: &[&Gap]) {
    for axis in Axis::BOTH {
        let along: Vec<&&Gap> = gaps.iter().filter(|g| g.axis == axis).collect();
        for pair in along.windows(2) {
            let (near, far) = axis.edges();
            let gap = |g: &Gap| {
                model.vars[g.high]
                    .edge(near)
                    .minus(&model.vars[g.low].edge(far))
            };
            let expr = gap(pair[1]).minus(&gap(pair[0]));
            model.qp.soft(
                expr,
                Sense::Equal,
                0.0,
                ASKED * penalty::SPACING,
                Reason::Wish(Wish::Equal, pair[0].low, pair[1].high),
            );
        }
    }
}

/// Rows and columns keep their ends where the page wants them, so that what is left over comes between.
fn ends(model: &mut Model, scene: &Scene<'_>, gaps: &[&Gap]) {
    for gap in gaps {
        let (near, far) = gap.axis.edges();
        let is_first = !gaps.iter().any(|g| g.axis == gap.axis && g.high == gap.low);
        let is_last = !gaps.iter().any(|g| g.axis == gap.axis && g.low == gap.high);
        for (n, edge) in [(gap.low, near)]
            .into_iter()
            .filter(|_| is_first)
            .chain([(gap.high, far)].into_iter().filter(|_| is_last))
        {
            let at = scene.items[n].want.edge(edge) / INCH;
            model.qp.soft(
                model.vars[n].edge(edge),
                Sense::Equal,
                at,
                penalty::EQUAL,
                Reason::Wish(Wish::Bounds, n, n),
            );
        }
    }
}
