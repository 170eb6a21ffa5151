//! Straight runs of ink. Pixels of one direction are grown into regions (after von Gioi et al., 2010), each region is one run, and runs
//! in line with ink between them are joined: a double stroke is one run, and a run goes straight through a crossing.

use crate::plane::{Mask, Plane};

/// A straight run of ink, in pixels.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Run {
    pub(crate) a: [f64; 2],
    pub(crate) b: [f64; 2],
    /// Mean thickness.
    pub(crate) thick: f64,
    /// Mean black-hat along it.
    pub(crate) dark: f64,
}

impl Run {
    pub(crate) fn length(&self) -> f64 {
        (self.b[0] - self.a[0]).hypot(self.b[1] - self.a[1])
    }

    /// Direction in degrees, -90 to 90; y runs down, so clockwise is positive.
    pub(crate) fn angle(&self) -> f64 {
        let a = (self.b[1] - self.a[1])
            .atan2(self.b[0] - self.a[0])
            .to_degrees();
        if a > 90.0 {
            a - 180.0
        } else if a <= -90.0 {
            a + 180.0
        } else {
            a
        }
    }

    pub(crate) fn middle(&self) -> [f64; 2] {
        [(self.a[0] + self.b[0]) / 2.0, (self.a[1] + self.b[1]) / 2.0]
    }

    /// How far a point lies from the run's line.
    pub(crate) fn off(&self, p: [f64; 2]) -> f64 {
        let d = [self.b[0] - self.a[0], self.b[1] - self.a[1]];
        ((p[0] - self.a[0]) * d[1] - (p[1] - self.a[1]) * d[0]).abs() / self.length().max(1e-9)
    }
}

/// The smaller of two directions' differences, in degrees.
pub(crate) fn between(a: f64, b: f64) -> f64 {
    let d = (a - b).rem_euclid(180.0);
    d.min(180.0 - d)
}

/// The straight runs of at least `least` pixels in the ink that the mask shows.
pub(crate) fn runs(ink: &Plane, mask: &Mask, least: f64) -> Vec<Run> {
    let pieces = pieces(ink, mask);
    let joined = join(pieces, mask);
    joined
        .into_iter()
        .map(|run| drawn_out(run, mask))
        .filter(|r| r.length() >= least)
        .collect()
}

struct Directions {
    /// Direction of the stroke, radians, and how clear it is (0 to 1).
    angle: Plane,
    clear: Plane,
}

/// The structure tensor of the ink.
fn directions(ink: &Plane) -> Directions {
    let soft = ink.blurred(1);
    let (mut xx, mut yy, mut xy) = (
        Plane::new(ink.w, ink.h),
        Plane::new(ink.w, ink.h),
        Plane::new(ink.w, ink.h),
    );
    for y in 1..ink.h - 1 {
        for x in 1..ink.w - 1 {
            let i = y * ink.w + x;
            let gx = soft.data[i + 1] - soft.data[i - 1];
            let gy = soft.data[i + ink.w] - soft.data[i - ink.w];
            xx.data[i] = gx * gx;
            yy.data[i] = gy * gy;
            xy.data[i] = gx * gy;
        }
    }
    let smooth = |p: &Plane| p.blurred(2).blurred(2);
    let (xx, yy, xy) = (smooth(&xx), smooth(&yy), smooth(&xy));
    let mut angle = Plane::new(ink.w, ink.h);
    let mut clear = Plane::new(ink.w, ink.h);
    for i in 0..angle.data.len() {
        let (a, b, c) = (xx.data[i], yy.data[i], xy.data[i]);
        // The gradient runs across the stroke: turn it by a quarter.
        angle.data[i] = 0.5 * (2.0 * c).atan2(a - b) + std::f32::consts::FRAC_PI_2;
        let sum = a + b;
        clear.data[i] = if sum > 1e-6 {
            ((a - b).powi(2) + 4.0 * c * c).sqrt() / sum
        } else {
            0.0
        };
    }
    Directions { angle, clear }
}

fn pieces(ink: &Plane, mask: &Mask) -> Vec<Run> {
    let Directions { angle, clear } = directions(ink);
    let (w, h) = (mask.w, mask.h);
    let mut used = mask.not().data;
    let mut found = Vec::new();
    let mut stack = Vec::new();
    for level in [0.85_f32, 0.7, 0.5] {
        for seed in 0..w * h {
            if used[seed] || clear.data[seed] < level {
                continue;
            }
            let (mut sx, mut sy) = (
                (2.0 * angle.data[seed]).cos(),
                (2.0 * angle.data[seed]).sin(),
            );
            let mut region = Vec::new();
            stack.clear();
            stack.push(seed);
            used[seed] = true;
            while let Some(i) = stack.pop() {
                region.push(i);
                let mean = 0.5 * sy.atan2(sx);
                let (x, y) = (i % w, i / w);
                for ny in y.saturating_sub(1)..(y + 2).min(h) {
                    for nx in x.saturating_sub(1)..(x + 2).min(w) {
                        let n = ny * w + nx;
                        if used[n] || clear.data[n] < 0.4 {
                            continue;
                        }
                        let d = (angle.data[n] - mean).rem_euclid(std::f32::consts::PI);
                        if d.min(std::f32::consts::PI - d) > 0.30 {
                            continue;
                        }
                        used[n] = true;
                        sx += (2.0 * angle.data[n]).cos();
                        sy += (2.0 * angle.data[n]).sin();
                        stack.push(n);
                    }
                }
            }
            if region.len() >= 14
                && let Some(run) = run_of(&region, ink)
                && run.length() >= 8.0
                && run.length() >= 1.4 * run.thick
            {
                found.push(run);
            }
        }
    }
    found
}

/// The run through a region: along the ink's main axis, weighted by how dark it is.
fn run_of(region: &[usize], ink: &Plane) -> Option<Run> {
    let (mut s, mut sx, mut sy) = (0.0, 0.0, 0.0);
    let each = |i: usize| {
        (
            (i % ink.w) as f64 + 0.5,
            (i / ink.w) as f64 + 0.5,
            f64::from(ink.data[i]),
        )
    };
    for &i in region {
        let (x, y, v) = each(i);
        s += v;
        sx += v * x;
        sy += v * y;
    }
    let (mx, my) = (sx / s, sy / s);
    let (mut xx, mut yy, mut xy) = (0.0, 0.0, 0.0);
    for &i in region {
        let (x, y, v) = each(i);
        xx += v * (x - mx).powi(2);
        yy += v * (y - my).powi(2);
        xy += v * (x - mx) * (y - my);
    }
    let angle = 0.5 * (2.0 * xy).atan2(xx - yy);
    let (dx, dy) = (angle.cos(), angle.sin());
    let along = |&i: &usize| (each(i).0 - mx) * dx + (each(i).1 - my) * dy;
    let from = region.iter().map(along).fold(f64::INFINITY, f64::min);
    let until = region.iter().map(along).fold(f64::NEG_INFINITY, f64::max);
    (until > from).then(|| Run {
        a: [mx + dx * from, my + dy * from],
        b: [mx + dx * until, my + dy * until],
        thick: region.len() as f64 / (until - from),
        dark: s / region.len() as f64,
    })
}

/// Whether the ink runs on between two places, but for gaps of up to 3 pixels.
fn inked_between(mask: &Mask, a: [f64; 2], b: [f64; 2]) -> bool {
    let long = (b[0] - a[0]).hypot(b[1] - a[1]);
    let n = long.ceil() as i32;
    let mut bare = 0;
    for i in 0..=n {
        let t = if n == 0 {
            0.0
        } else {
            f64::from(i) / f64::from(n)
        };
        let (x, y) = (
            (a[0] + (b[0] - a[0]) * t) as i32,
            (a[1] + (b[1] - a[1]) * t) as i32,
        );
        let seen = (-1..=1).any(|dy| (-1..=1).any(|dx| mask.get(x + dx, y + dy)));
        bare = if seen { 0 } else { bare + 1 };
        if bare > 3 {
            return false;
        }
    }
    true
}

/// Joins pieces that lie in one line with ink between them.
fn join(mut pieces: Vec<Run>, mask: &Mask) -> Vec<Run> {
    pieces.sort_by(|a, b| b.length().total_cmp(&a.length()));
    let cell = 32.0;
    loop {
        let mut by_cell: std::collections::HashMap<(i32, i32), Vec<usize>> =
            std::collections::HashMap::new();
        let key = |p: [f64; 2]| ((p[0] / cell).floor() as i32, (p[1] / cell).floor() as i32);
        for (i, p) in pieces.iter().enumerate() {
            by_cell.entry(key(p.a)).or_default().push(i);
            by_cell.entry(key(p.b)).or_default().push(i);
        }
        let mut gone = vec![false; pieces.len()];
        let mut changed = false;
        for i in 0..pieces.len() {
            if gone[i] {
                continue;
            }
            loop {
                let run = pieces[i];
                let mut next = None;
                for end in [run.a, run.b] {
                    let (cx, cy) = key(end);
                    for k in (cx - 1..=cx + 1).flat_map(|x| (cy - 1..=cy + 1).map(move |y| (x, y)))
                    {
                        for &j in by_cell.get(&k).map_or(&[][..], |v| v) {
                            if j != i && !gone[j] && joins(&run, &pieces[j], mask) {
                                next = Some(j);
                            }
                        }
                    }
                }
                let Some(j) = next else { break };
                pieces[i] = both(&run, &pieces[j]);
                gone[j] = true;
                changed = true;
            }
        }
        pieces = pieces
            .into_iter()
            .zip(gone)
            .filter(|(_, g)| !g)
            .map(|(p, _)| p)
            .collect();
        if !changed {
            return pieces;
        }
    }
}

fn joins(run: &Run, other: &Run, mask: &Mask) -> bool {
    let (longer, shorter) = if run.length() >= other.length() {
        (run, other)
    } else {
        (other, run)
    };
    // A short piece's direction says little; its place says more.
    let turn = if shorter.length() < 20.0 { 25.0 } else { 9.0 };
    if between(longer.angle(), shorter.angle()) > turn
        || longer.off(shorter.a) > 3.6
        || longer.off(shorter.b) > 3.6
    {
        return false;
    }
    let mut ends: Vec<(f64, [f64; 2], [f64; 2])> = Vec::new();
    for p in [longer.a, longer.b] {
        for q in [shorter.a, shorter.b] {
            ends.push(((p[0] - q[0]).hypot(p[1] - q[1]), p, q));
        }
    }
    let Some(&(gap, p, q)) = ends.iter().min_by(|a, b| a.0.total_cmp(&b.0)) else {
        return false;
    };
    gap <= 30.0 && inked_between(mask, p, q)
}

/// One run along two: through the line that fits both, weighted by length.
fn both(one: &Run, two: &Run) -> Run {
    let (l1, l2) = (one.length(), two.length());
    let longer = if l1 >= l2 { one } else { two };
    let d = [
        (longer.b[0] - longer.a[0]) / longer.length(),
        (longer.b[1] - longer.a[1]) / longer.length(),
    ];
    let along = |p: [f64; 2]| p[0] * d[0] + p[1] * d[1];
    let across = |p: [f64; 2]| -p[0] * d[1] + p[1] * d[0];
    // Least squares through the four ends, each as heavy as its run is long, in the longer run's own frame.
    let points = [(one.a, l1), (one.b, l1), (two.a, l2), (two.b, l2)];
    let s: f64 = points.iter().map(|p| p.1).sum();
    let mt = points.iter().map(|p| p.1 * along(p.0)).sum::<f64>() / s;
    let md = points.iter().map(|p| p.1 * across(p.0)).sum::<f64>() / s;
    let tt: f64 = points.iter().map(|p| p.1 * (along(p.0) - mt).powi(2)).sum();
    let td: f64 = points
        .iter()
        .map(|p| p.1 * (along(p.0) - mt) * (across(p.0) - md))
        .sum();
    let slope = if tt > 0.0 { td / tt } else { 0.0 };
    let from = points
        .iter()
        .map(|p| along(p.0))
        .fold(f64::INFINITY, f64::min);
    let until = points
        .iter()
        .map(|p| along(p.0))
        .fold(f64::NEG_INFINITY, f64::max);
    let at = |t: f64| {
        let c = md + slope * (t - mt);
        [t * d[0] - c * d[1], t * d[1] + c * d[0]]
    };
    Run {
        a: at(from),
        b: at(until),
        thick: (one.thick * l1 + two.thick * l2) / (l1 + l2),
        dark: (one.dark * l1 + two.dark * l2) / (l1 + l2),
    }
}

/// Both ends moved out as long as the ink runs on: growing stops short of junctions.
fn drawn_out(run: Run, mask: &Mask) -> Run {
    let long = run.length();
    let d = [(run.b[0] - run.a[0]) / long, (run.b[1] - run.a[1]) / long];
    let reach = |from: [f64; 2], sign: f64| {
        let mut last = 0.0;
        for step in 1..=14 {
            let t = f64::from(step);
            let (x, y) = (
                (from[0] + sign * d[0] * t) as i32,
                (from[1] + sign * d[1] * t) as i32,
            );
            if (-1..=1).any(|dy| (-1..=1).any(|dx| mask.get(x + dx, y + dy))) {
                last = t;
            } else if t - last > 2.0 {
                break;
            }
        }
        [from[0] + sign * d[0] * last, from[1] + sign * d[1] * last]
    };
    Run {
        a: reach(run.a, -1.0),
        b: reach(run.b, 1.0),
        ..run
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Ink of lines so thick, drawn as distance from each.
    fn drawn(w: usize, h: usize, lines: &[([f64; 2], [f64; 2])], thick: f64) -> (Plane, Mask) {
        let mut ink = Plane::new(w, h);
        for y in 0..h {
            for x in 0..w {
                let p = [x as f64 + 0.5, y as f64 + 0.5];
                let near = lines
                    .iter()
                    .map(|(a, b)| distance(p, *a, *b))
                    .fold(f64::INFINITY, f64::min);
                ink.data[y * w + x] = (thick / 2.0 + 0.5 - near).clamp(0.0, 1.0) as f32;
            }
        }
        let mask = Mask::of(&ink, |v| v > 0.4);
        (ink, mask)
    }

    fn distance(p: [f64; 2], a: [f64; 2], b: [f64; 2]) -> f64 {
        let (d, q) = ([b[0] - a[0], b[1] - a[1]], [p[0] - a[0], p[1] - a[1]]);
        let t = ((q[0] * d[0] + q[1] * d[1]) / (d[0] * d[0] + d[1] * d[1])).clamp(0.0, 1.0);
        (q[0] - t * d[0]).hypot(q[1] - t * d[1])
    }

    fn found(lines: &[([f64; 2], [f64; 2])]) -> Vec<Run> {
        let (ink, mask) = drawn(240, 200, lines, 3.0);
        let mut runs = runs(&ink, &mask, 20.0);
        runs.sort_by(|a, b| b.length().total_cmp(&a.length()));
        runs
    }

    #[test]
    fn a_stroke_is_one_run_from_end_to_end() {
        // Round ends and the pixels under them make it a little longer than it was drawn.
        for (a, b) in [
            ([30.0, 60.0], [200.0, 60.0]),
            ([50.0, 20.0], [50.0, 180.0]),
            ([30.0, 40.0], [200.0, 150.0]),
        ] {
            let runs = found(&[(a, b)]);
            assert_eq!(runs.len(), 1, "{runs:?}");
            let length = (b[0] - a[0]).hypot(b[1] - a[1]);
            assert!(
                (runs[0].length() - length).abs() < 7.0,
                "{} for {length}",
                runs[0].length()
            );
            assert!(runs[0].off(a) < 1.5 && runs[0].off(b) < 1.5);
            assert!((runs[0].thick - 3.0).abs() < 1.2, "{}", runs[0].thick);
        }
    }

    #[test]
    fn a_run_goes_straight_through_a_crossing() {
        let runs = found(&[
            ([20.0, 100.0], [220.0, 100.0]),
            ([120.0, 20.0], [120.0, 180.0]),
        ]);
        let angles: Vec<i32> = runs
            .iter()
            .take(2)
            .map(|r| r.angle().round() as i32)
            .collect();
        assert!(
            between(f64::from(angles[0]), 0.0) < 2.0 && between(f64::from(angles[1]), 90.0) < 2.0,
            "{runs:?}"
        );
        assert!(
            runs[0].length() > 190.0 && runs[1].length() > 150.0,
            "{runs:?}"
        );
    }

    #[test]
    fn short_marks_and_empty_paper_have_no_runs() {
        assert!(found(&[([100.0, 100.0], [108.0, 100.0])]).is_empty());
        let (ink, mask) = drawn(60, 60, &[], 3.0);
        assert!(runs(&ink, &mask, 10.0).is_empty());
    }

    #[test]
    fn directions_differ_by_a_quarter_at_most() {
        for (a, b, d) in [
            (0.0, 0.0, 0.0),
            (89.0, -89.0, 2.0),
            (0.0, 90.0, 90.0),
            (-45.0, 45.0, 90.0),
            (10.0, 190.0, 0.0),
        ] {
            assert!(
                (between(a, b) - d).abs() < 1e-9 && (between(b, a) - d).abs() < 1e-9,
                "{a} {b}"
            );
        }
        let run = |b: [f64; 2]| Run {
            a: [0.0, 0.0],
            b,
            thick: 1.0,
            dark: 1.0,
        };
        assert_eq!(run([-3.0, 0.0]).angle(), 0.0);
        assert_eq!(run([0.0, -3.0]).angle(), 90.0);
        assert!((run([1.0, -1.0]).angle() + 45.0).abs() < 1e-9);
        assert_eq!(run([4.0, 0.0]).off([2.0, -3.0]), 3.0);
    }
}
