//! Circles and ellipses: two short runs' normals meet in a centre; the ink round it decides.

use crate::panels::Cover;
use crate::plane::Mask;
use crate::strokes::{Run, between};
use crate::writing::Extent;

/// An ellipse with its axes level and upright.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Round {
    pub(crate) middle: [f64; 2],
    pub(crate) rx: f64,
    pub(crate) ry: f64,
    /// Share of what nothing covers that was seen.
    pub(crate) seen: f64,
}

impl Round {
    pub(crate) fn extent(&self) -> Extent {
        let [x, y] = self.middle;
        Extent {
            x0: x - self.rx,
            y0: y - self.ry,
            x1: x + self.rx,
            y1: y + self.ry,
        }
    }

    /// The `k`th of `n` places round the edge.
    pub(crate) fn place(&self, k: usize, n: usize) -> [f64; 2] {
        self.at(k, n).0
    }

    fn at(&self, k: usize, n: usize) -> ([f64; 2], [f64; 2]) {
        let (s, c) = (std::f64::consts::TAU * k as f64 / n as f64).sin_cos();
        (
            [self.middle[0] + self.rx * c, self.middle[1] + self.ry * s],
            [c, s],
        )
    }
}

/// The smallest radius in pixels.
const LEAST: f64 = 22.0;

/// No drawing has more arcs than this that are worth trying; what has is a texture, and its longest ones are tried.
const MOST_ARCS: usize = 500;
/// Rounds looked at in one picture, times what may cover them.
const MOST_LOOKS: usize = 120_000;

/// The next round thing in the ink that is not yet explained, the best seen first. `looks` counts what was looked at so far.
pub(crate) fn best(
    mask: &Mask,
    runs: &[Run],
    covers: &[Cover],
    most: f64,
    looks: &mut usize,
) -> Option<Round> {
    // Long straight runs bend away from any circle that they touch: a chord of a circle of radius r, drawn as one run, is short.
    let mut arcs: Vec<(f64, &Run)> = runs
        .iter()
        .filter(|r| r.length() >= 12.0 && r.length() < most * 0.6)
        .map(|r| (r.angle(), r))
        .collect();
    if arcs.len() > MOST_ARCS {
        arcs.sort_by(|a, b| b.1.length().total_cmp(&a.1.length()));
        arcs.truncate(MOST_ARCS);
    }
    let mut found: Option<(f64, Round)> = None;
    for (i, (angle, a)) in arcs.iter().enumerate() {
        for (other, b) in &arcs[i + 1..] {
            if between(*angle, *other) < 18.0 {
                continue;
            }
            let Some(round) = through(a, b, most) else {
                continue;
            };
            *looks += 1 + covers.len();
            if *looks > MOST_LOOKS {
                return found.map(|f| f.1);
            }
            let Some((seen, long)) = scored(&round, mask, covers, 7.0, 48) else {
                continue;
            };
            if seen < 0.62 || found.as_ref().is_some_and(|(best, _)| long * seen <= *best) {
                continue;
            }
            let Some(better) = settled(round, mask, covers) else {
                continue;
            };
            let Some((seen, long)) = scored(&better, mask, covers, 4.5, 160) else {
                continue;
            };
            if seen >= 0.78 && found.as_ref().is_none_or(|(best, _)| long * seen > *best) {
                found = Some((long * seen, Round { seen, ..better }));
            }
        }
    }
    found.map(|f| f.1)
}

fn through(a: &Run, b: &Run, most: f64) -> Option<Round> {
    let normal = |r: &Run| {
        let (d, m) = ([r.b[0] - r.a[0], r.b[1] - r.a[1]], r.middle());
        (m, [m[0] - d[1], m[1] + d[0]])
    };
    let middle = crate::quad::meeting(normal(a), normal(b))?;
    let far = |r: &Run| (r.middle()[0] - middle[0]).hypot(r.middle()[1] - middle[1]);
    let (ra, rb) = (far(a), far(b));
    let r = (ra + rb) / 2.0;
    // A run along a circle is no longer than an arc of about 50 degrees, and it bulges outwards by little.
    let fits = r >= LEAST
        && r <= most
        && (ra - rb).abs() < 0.05 * r + 2.0
        && a.length().max(b.length()) < 0.95 * r;
    fits.then_some(Round {
        middle,
        rx: r,
        ry: r,
        seen: 0.0,
    })
}

/// Distance of the ink from an ellipse's edge at one of its places, along the way out; `None` without ink near.
fn ink_at(mask: &Mask, p: [f64; 2], out: [f64; 2], reach: f64) -> Option<f64> {
    let n = reach.ceil() as i32;
    let (mut sum, mut count) = (0.0, 0);
    for s in -n..=n {
        let d = f64::from(s);
        if mask.get((p[0] + out[0] * d) as i32, (p[1] + out[1] * d) as i32) {
            sum += d;
            count += 1;
        }
    }
    (count > 0).then(|| sum / f64::from(count))
}

/// The share seen of what nothing covers, and how long that is in pixels; `None` when too little shows.
fn scored(
    round: &Round,
    mask: &Mask,
    covers: &[Cover],
    reach: f64,
    n: usize,
) -> Option<(f64, f64)> {
    let (mut open, mut seen, mut inside) = (0, 0, 0);
    for k in 0..n {
        let (p, out) = round.at(k, n);
        let within = p[0] > 32.0
            && p[1] > 32.0
            && p[0] < mask.w as f64 - 32.0
            && p[1] < mask.h as f64 - 32.0;
        if !within {
            continue;
        }
        inside += 1;
        let ink = ink_at(mask, p, out, reach).is_some();
        let hidden = covers.iter().any(|c| c.hides(p));
        if !hidden {
            open += 1;
            seen += usize::from(ink);
        }
    }
    let step = std::f64::consts::PI * (round.rx + round.ry) / n as f64;
    (open * 100 >= n * 30 && inside * 2 > n).then(|| {
        (
            f64::from(seen as u32) / f64::from(open as u32),
            f64::from(seen as u32) * step,
        )
    })
}

/// A few rounds of least squares: the middle, then the two radii where enough of the edge shows.
fn settled(mut round: Round, mask: &Mask, covers: &[Cover]) -> Option<Round> {
    for pass in 0..6 {
        let reach = if pass < 3 { 9.0 } else { 5.0 };
        let n = 120;
        let mut points = Vec::new();
        for k in 0..n {
            let (p, out) = round.at(k, n);
            if covers.iter().any(|c| c.hides(p)) {
                continue;
            }
            if let Some(d) = ink_at(mask, p, out, reach) {
                points.push((out, d));
            }
        }
        if points.len() < n / 4 {
            return None;
        }
        // d = dx c + dy s + dr (circle), or + drx c² + dry s² (ellipse).
        let free = pass >= 3 && points.len() > n * 3 / 5;
        let columns = if free { 4 } else { 3 };
        let row = |[c, s]: [f64; 2]| {
            if free {
                [c, s, c * c, s * s]
            } else {
                [c, s, 1.0, 0.0]
            }
        };
        let mut normal = vec![vec![0.0; columns + 1]; columns];
        for &(out, d) in &points {
            let r = row(out);
            for i in 0..columns {
                for j in 0..columns {
                    normal[i][j] += r[i] * r[j];
                }
                normal[i][columns] += r[i] * d;
            }
        }
        let x = solved(normal)?;
        round.middle = [round.middle[0] + x[0], round.middle[1] + x[1]];
        round.rx += x[2];
        round.ry += if free { x[3] } else { x[2] };
        if round.rx < LEAST || round.ry < LEAST {
            return None;
        }
    }
    Some(round)
}

/// Gaussian elimination of a small system, rows of coefficients with the right side last.
fn solved(mut m: Vec<Vec<f64>>) -> Option<Vec<f64>> {
    let n = m.len();
    for i in 0..n {
        let pivot = (i..n).max_by(|&a, &b| m[a][i].abs().total_cmp(&m[b][i].abs()))?;
        m.swap(i, pivot);
        if m[i][i].abs() < 1e-9 {
            return None;
        }
        for j in 0..n {
            if j != i {
                let f = m[j][i] / m[i][i];
                let pivot = m[i].clone();
                for (to, from) in m[j].iter_mut().zip(&pivot).skip(i) {
                    *to -= f * from;
                }
            }
        }
    }
    Some((0..n).map(|i| m[i][n] / m[i][i]).collect())
}
