//! Three clusters (or more) that lie nearly on one line make no triangle: the eye runs along it and out of the page.
//!
//! *Measure*: the smallest angle of the widest triangle between the clusters' middles. *Source*: the rule of three in makers' own teaching;
//! below 15 degrees three points look like a line.

use super::{PageFinding, Seen};
use crate::clusters::LaidClusters;
use crate::layout::Layout;

const LEAST_ANGLE: f64 = 15.0;

/// The triangle of three clusters.
#[derive(Clone, Debug, PartialEq)]
pub struct Triangle {
    /// Its corners, in ticks.
    pub corners: [(f64, f64); 3],
    /// Its smallest angle, in degrees.
    pub smallest: f64,
    /// The clusters, by their places in the layout.
    pub blocks: [usize; 3],
}

/// The widest triangle between three of the clusters.
pub(super) fn of(layout: &Layout, laid: &LaidClusters) -> Option<Triangle> {
    let points: Vec<(usize, (f64, f64))> = laid
        .clusters
        .iter()
        .map(|c| (c.block, c.middle(layout)))
        .collect();
    let mut widest: Option<Triangle> = None;
    for a in 0..points.len() {
        for b in a + 1..points.len() {
            for c in b + 1..points.len() {
                let corners = [points[a].1, points[b].1, points[c].1];
                let smallest = smallest_angle(corners);
                if widest.as_ref().is_none_or(|w| smallest > w.smallest) {
                    widest = Some(Triangle {
                        corners,
                        smallest,
                        blocks: [points[a].0, points[b].0, points[c].0],
                    });
                }
            }
        }
    }
    widest
}

fn smallest_angle(corners: [(f64, f64); 3]) -> f64 {
    let angle = |n: usize| {
        let (at, p, q) = (corners[n], corners[(n + 1) % 3], corners[(n + 2) % 3]);
        let (u, v) = ((p.0 - at.0, p.1 - at.1), (q.0 - at.0, q.1 - at.1));
        let (cross, dot) = (u.0 * v.1 - u.1 * v.0, u.0 * v.0 + u.1 * v.1);
        cross.abs().atan2(dot).to_degrees()
    };
    (0..3).map(angle).fold(180.0, f64::min)
}

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let triangle = of(seen.page.layout, seen.laid)?;
    if triangle.smallest >= LEAST_ANGLE {
        return Some(Vec::new());
    }
    let names: Vec<&str> = triangle.blocks.iter().map(|b| seen.id(*b)).collect();
    let text = format!(
        "{}, {} and {} lie nearly on one line: no triangle for the eye to rest in.",
        names[0], names[1], names[2]
    );
    Some(vec![PageFinding {
        what: "triangle",
        key: format!("triangle {}", names.join(" ")),
        place: None,
        blocks: triangle.blocks.to_vec(),
        text,
        cures: Vec::new(),
    }])
}
