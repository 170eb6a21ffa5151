//! Quads in a picture: their corners, and their sides moved to the edges that are seen.

use crate::plane::{Mask, Plane};
use imageproc::geometric_transformations::Projection;

/// Four corners in pixels: top left, top right, bottom right, bottom left.
pub type Quad = [[f64; 2]; 4];

/// A straight line near one direction: `across = at + slope * along`.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Line {
    pub(crate) at: f64,
    pub(crate) slope: f64,
}

/// The place where a projection brings a point.
pub(crate) fn project_point(projection: &Projection, [x, y]: [f64; 2]) -> [f64; 2] {
    let (x, y) = *projection * (x as f32, y as f32);
    [f64::from(x), f64::from(y)]
}

/// The projection that brings a rectangle's corners to a quad's.
pub(crate) fn onto(w: f64, h: f64, quad: &Quad) -> Option<Projection> {
    let from = [
        (0.0, 0.0),
        (w as f32, 0.0),
        (w as f32, h as f32),
        (0.0, h as f32),
    ];
    Projection::from_control_points(from, quad.map(|[x, y]| (x as f32, y as f32)))
}

pub(crate) fn length(a: [f64; 2], b: [f64; 2]) -> f64 {
    (a[0] - b[0]).hypot(a[1] - b[1])
}

/// The four corners of a part: the hull's points furthest along the diagonals of the part's own axes, improved to the largest quad.
pub(crate) fn corners_of(pixels: impl Iterator<Item = (usize, usize)>) -> Option<Quad> {
    use imageproc::point::Point;
    let points: Vec<Point<i32>> = pixels
        .map(|(x, y)| Point::new(x as i32, y as i32))
        .collect();
    let hull: Vec<[f64; 2]> = imageproc::geometry::convex_hull(points.as_slice())
        .iter()
        .map(|p| [f64::from(p.x), f64::from(p.y)])
        .collect();
    if hull.len() < 4 {
        return None;
    }
    let far =
        |f: &dyn Fn([f64; 2]) -> f64| hull.iter().copied().max_by(|a, b| f(*a).total_cmp(&f(*b)));
    let mut quad = [
        far(&|p| -p[0] - p[1])?,
        far(&|p| p[0] - p[1])?,
        far(&|p| p[0] + p[1])?,
        far(&|p| p[1] - p[0])?,
    ];
    // Moves each corner in turn to where the quad is largest.
    for _ in 0..4 {
        for k in 0..4 {
            let best = hull.iter().copied().max_by(|a, b| {
                let with = |p: [f64; 2]| {
                    let mut q = quad;
                    q[k] = p;
                    area(&q)
                };
                with(*a).total_cmp(&with(*b))
            });
            quad[k] = best.unwrap_or(quad[k]);
        }
    }
    Some(quad)
}

/// The corners round all of a mask's parts.
pub(crate) fn corners_round(mask: &Mask) -> Option<Quad> {
    let points = (0..mask.w * mask.h).filter(|n| mask.data[*n]);
    corners_of(points.map(|n| (n % mask.w, n / mask.w)))
}

/// Whether a place lies in a quad whose corners run clockwise.
pub(crate) fn holds(quad: &Quad, p: [f64; 2]) -> bool {
    (0..4).all(|k| {
        let (a, b) = (quad[k], quad[(k + 1) % 4]);
        (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) >= 0.0
    })
}

pub(crate) fn area(q: &Quad) -> f64 {
    (0..4)
        .map(|i| q[i][0] * q[(i + 1) % 4][1] - q[(i + 1) % 4][0] * q[i][1])
        .sum::<f64>()
        / 2.0
}

/// Each side moved to where brightness first rises above the level between table and sheet, from the outside inwards.
pub(crate) fn sharpened(gray: &Plane, rough: &Quad, reach: f64, level: f32) -> Quad {
    let steps = (reach * 2.0) as i32;
    moved_sides(rough, 1.5, |at| {
        (-steps..=steps)
            .rev()
            .find(|&s| at(gray, s) > level && at(gray, s - 4) > level)
    })
}

/// Each side moved to the strongest edge or line near it.
pub(crate) fn drawn_to_edges(gray: &Plane, rough: &Quad, reach: f64) -> Quad {
    let steps = (reach * 2.0) as i32;
    moved_sides(rough, 2.0, |at| {
        let rise = |s: i32| (at(gray, s + 2) - at(gray, s - 2)).abs();
        let best = (-steps..=steps).max_by(|a, b| rise(*a).total_cmp(&rise(*b)))?;
        (rise(best) > FAINT).then_some(best)
    })
}

/// A change of brightness below this is paper's grain, of 255.
const FAINT: f32 = 8.0;

/// Each side moved to the line that most of its places lie on within `near` pixels. `find` says where a place lies, in half pixels outwards,
/// from the brightness so many half pixels outwards.
fn moved_sides(
    rough: &Quad,
    near: f64,
    find: impl Fn(&dyn Fn(&Plane, i32) -> f32) -> Option<i32>,
) -> Quad {
    let mut sides = Vec::new();
    for k in 0..4 {
        let (a, b) = (rough[k], rough[(k + 1) % 4]);
        let long = length(a, b);
        let (dx, dy) = ((b[0] - a[0]) / long, (b[1] - a[1]) / long);
        // Outwards: the corners run clockwise.
        let (nx, ny) = (dy, -dx);
        let mut points = Vec::new();
        let n = 160;
        for i in 4..n - 4 {
            let t = long * f64::from(i) / f64::from(n);
            let (px, py) = (a[0] + dx * t, a[1] + dy * t);
            let at = |gray: &Plane, s: i32| {
                let d = f64::from(s) / 2.0;
                gray.sample_bilinear((px + nx * d) as f32, (py + ny * d) as f32)
            };
            if let Some(s) = find(&at) {
                points.push((t, f64::from(s) / 2.0));
            }
        }
        let line = robust(&points, near).map_or(
            Line {
                at: 0.0,
                slope: 0.0,
            },
            |(line, _)| line,
        );
        let at = |t: f64| {
            let d = line.at + line.slope * t;
            [a[0] + dx * t + nx * d, a[1] + dy * t + ny * d]
        };
        sides.push((at(0.0), at(long)));
    }
    std::array::from_fn(|k| meeting(sides[(k + 3) % 4], sides[k]).unwrap_or(rough[k]))
}

/// Where two lines, each through two points, meet.
pub(crate) fn meeting(a: ([f64; 2], [f64; 2]), b: ([f64; 2], [f64; 2])) -> Option<[f64; 2]> {
    let (p, r) = (a.0, [a.1[0] - a.0[0], a.1[1] - a.0[1]]);
    let (q, s) = (b.0, [b.1[0] - b.0[0], b.1[1] - b.0[1]]);
    let cross = r[0] * s[1] - r[1] * s[0];
    if cross.abs() < 1e-9 {
        return None;
    }
    let t = ((q[0] - p[0]) * s[1] - (q[1] - p[1]) * s[0]) / cross;
    Some([p[0] + t * r[0], p[1] + t * r[1]])
}

/// The line that most points lie within `near` of, fitted to those, and how many they are. Every pair of a fixed selection is tried,
/// so the same points give the same line (RANSAC of Fischler and Bolles, without chance).
pub(crate) fn robust(points: &[(f64, f64)], near: f64) -> Option<(Line, usize)> {
    if points.len() < 6 {
        return None;
    }
    let stride = (points.len() / 40).max(1);
    let few: Vec<(f64, f64)> = points.iter().step_by(stride).copied().collect();
    let within = |line: Line, by: f64| {
        points
            .iter()
            .filter(move |(t, d)| (d - line.at - line.slope * t).abs() <= by)
    };
    let mut best: Option<(Line, usize)> = None;
    for (i, a) in few.iter().enumerate() {
        for b in &few[i + 1..] {
            if (b.0 - a.0).abs() < 1.0 {
                continue;
            }
            let slope = (b.1 - a.1) / (b.0 - a.0);
            let line = Line {
                at: a.1 - slope * a.0,
                slope,
            };
            if slope.abs() > 0.12 {
                continue;
            }
            let count = within(line, near).count();
            if best.is_none_or(|(_, most)| count > most) {
                best = Some((line, count));
            }
        }
    }
    let (mut line, mut count) = best?;
    for _ in 0..2 {
        let inliers: Vec<(f64, f64)> = within(line, near).copied().collect();
        line = least_squares(&inliers).unwrap_or(line);
        count = within(line, near).count();
    }
    Some((line, count))
}

/// The line with the least squared distances.
pub(crate) fn least_squares(points: &[(f64, f64)]) -> Option<Line> {
    let n = points.len() as f64;
    let (mt, md) = (
        points.iter().map(|p| p.0).sum::<f64>() / n,
        points.iter().map(|p| p.1).sum::<f64>() / n,
    );
    let spread: f64 = points.iter().map(|p| (p.0 - mt).powi(2)).sum();
    if spread < 1e-9 {
        return None;
    }
    let slope = points.iter().map(|p| (p.0 - mt) * (p.1 - md)).sum::<f64>() / spread;
    Some(Line {
        at: md - slope * mt,
        slope,
    })
}

/// Whether four corners make a page: clockwise from the top left, convex, of some size, in the picture or hardly outside.
pub(crate) fn is_page(q: &Quad, w: u32, h: u32) -> bool {
    let (w, h) = (f64::from(w), f64::from(h));
    let near = |p: &[f64; 2]| {
        p.iter().all(|v| v.is_finite())
            && p[0] > -0.3 * w
            && p[1] > -0.3 * h
            && p[0] < 1.3 * w
            && p[1] < 1.3 * h
    };
    let turns = (0..4).all(|k| {
        let (a, b, c) = (q[k], q[(k + 1) % 4], q[(k + 2) % 4]);
        (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]) > 0.0
    });
    q.iter().all(near) && turns && area(q) > 0.01 * w * h
}
