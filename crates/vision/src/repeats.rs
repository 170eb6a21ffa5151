//! Equal units: in rows and columns, or round a middle.

use crate::panels::Panel;
use crate::rounds::Round;
use crate::writing::{Extent, groups};

/// Units in rows and columns, in pixels.
#[derive(Debug, Clone)]
pub(crate) struct Lattice {
    pub(crate) extent: Extent,
    pub(crate) cols: usize,
    pub(crate) rows: usize,
    pub(crate) gap: f64,
}

/// Round units about a middle, in pixels.
#[derive(Debug, Clone)]
pub(crate) struct RingOf {
    pub(crate) middle: [f64; 2],
    /// From the middle to the units' middles.
    pub(crate) radius: f64,
    /// A unit's diameter.
    pub(crate) unit: f64,
    pub(crate) count: usize,
}

impl RingOf {
    pub(crate) fn extent(&self) -> Extent {
        let r = self.radius + self.unit / 2.0;
        let [x, y] = self.middle;
        Extent {
            x0: x - r,
            y0: y - r,
            x1: x + r,
            y1: y + r,
        }
    }
}

/// Lattices of at least four equal panels, and which panels are in them.
pub(crate) fn lattices(panels: &[Panel], may: &[usize]) -> (Vec<Lattice>, Vec<usize>) {
    let close = |a: f64, b: f64| (a - b).abs() <= (0.07 * a.max(b)).max(7.0);
    let equal = |&i: &usize, &j: &usize| {
        let (a, b) = (&panels[i], &panels[j]);
        let (dx, dy) = (
            (a.middle[0] - b.middle[0]).abs(),
            (a.middle[1] - b.middle[1]).abs(),
        );
        let beside = dy < 0.1 * a.h + 6.0 && dx < 1.45 * a.w && dx > 0.9 * a.w;
        let below = dx < 0.1 * a.w + 6.0 && dy < 1.45 * a.h && dy > 0.9 * a.h;
        close(a.w, b.w)
            && close(a.h, b.h)
            && a.turn.abs() < 0.5
            && b.turn.abs() < 0.5
            && (beside || below)
    };
    let (mut out, mut gathered) = (Vec::new(), Vec::new());
    for group in groups(may, equal).into_iter().filter(|g| g.len() >= 4) {
        let lines = |k: usize, size: f64| {
            let mut at: Vec<f64> = group.iter().map(|&i| panels[i].middle[k]).collect();
            at.sort_by(f64::total_cmp);
            1 + at.windows(2).filter(|w| w[1] - w[0] > 0.5 * size).count()
        };
        let mean = |f: &dyn Fn(&Panel) -> f64| {
            group.iter().map(|&i| f(&panels[i])).sum::<f64>() / group.len() as f64
        };
        let (w, h) = (mean(&|p| p.w), mean(&|p| p.h));
        let (cols, rows) = (lines(0, w), lines(1, h));
        if cols * rows != group.len() {
            continue;
        }
        let Some(extent) = group
            .iter()
            .map(|&i| panels[i].extent())
            .reduce(|a, b| a.with(&b))
        else {
            continue;
        };
        let gap = match (cols, rows) {
            (1, _) => (extent.h() - rows as f64 * h) / (rows - 1) as f64,
            _ => (extent.w() - cols as f64 * w) / (cols - 1) as f64,
        };
        out.push(Lattice {
            extent,
            cols,
            rows,
            gap: gap.max(0.0),
        });
        gathered.extend(group);
    }
    (out, gathered)
}

/// Five or more equal circles evenly on a circle, and which they are.
pub(crate) fn ring(rounds: &[Round]) -> (Option<RingOf>, Vec<usize>) {
    let all: Vec<usize> = (0..rounds.len()).collect();
    let equal = |&i: &usize, &j: &usize| {
        (rounds[i].rx - rounds[j].rx).abs() < 0.08 * rounds[i].rx.max(rounds[j].rx)
    };
    let Some(group) = groups(&all, equal)
        .into_iter()
        .max_by_key(Vec::len)
        .filter(|g| g.len() >= 5)
    else {
        return (None, Vec::new());
    };
    let mean = |f: &dyn Fn(&Round) -> f64| {
        group.iter().map(|&i| f(&rounds[i])).sum::<f64>() / group.len() as f64
    };
    // The middle is the middle of the units' extent only when all are seen; a least squares circle through the middles needs no such thing.
    let (mx, my) = (mean(&|r| r.middle[0]), mean(&|r| r.middle[1]));
    let (mut suu, mut suv, mut svv, mut su, mut sv) = (0.0, 0.0, 0.0, 0.0, 0.0);
    for &i in &group {
        let (u, v) = (rounds[i].middle[0] - mx, rounds[i].middle[1] - my);
        let q = u * u + v * v;
        suu += u * u;
        suv += u * v;
        svv += v * v;
        su += u * q / 2.0;
        sv += v * q / 2.0;
    }
    let det = suu * svv - suv * suv;
    if det.abs() < 1e-6 {
        return (None, Vec::new());
    }
    let middle = [
        mx + (su * svv - sv * suv) / det,
        my + (sv * suu - su * suv) / det,
    ];
    let far = |i: usize| (rounds[i].middle[0] - middle[0]).hypot(rounds[i].middle[1] - middle[1]);
    let radius = group.iter().map(|&i| far(i)).sum::<f64>() / group.len() as f64;
    if group
        .iter()
        .any(|&i| (far(i) - radius).abs() > 0.06 * radius + 3.0)
    {
        return (None, Vec::new());
    }
    let mut angles: Vec<f64> = group
        .iter()
        .map(|&i| (rounds[i].middle[1] - middle[1]).atan2(rounds[i].middle[0] - middle[0]))
        .collect();
    angles.sort_by(f64::total_cmp);
    // Some units may be covered: the least step tells how many there are in all.
    let step = angles
        .windows(2)
        .map(|w| w[1] - w[0])
        .fold(f64::INFINITY, f64::min);
    let count = (std::f64::consts::TAU / step).round() as usize;
    if count < group.len() || count > group.len() * 2 {
        return (None, Vec::new());
    }
    (
        Some(RingOf {
            middle,
            radius,
            unit: 2.0 * mean(&|r| (r.rx + r.ry) / 2.0),
            count,
        }),
        group,
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    fn unit(x: f64, y: f64, w: f64, h: f64) -> Panel {
        Panel::upright(Extent {
            x0: x,
            y0: y,
            x1: x + w,
            y1: y + h,
        })
    }

    fn all(count: usize) -> Vec<usize> {
        (0..count).collect()
    }

    #[test]
    fn equal_units_in_rows_and_columns_are_a_lattice() {
        let mut units: Vec<Panel> = (0..6)
            .map(|n| unit(f64::from(n % 3) * 50.0, f64::from(n / 3) * 50.0, 40.0, 40.0))
            .collect();
        // One far larger panel beside them is none of them.
        units.push(unit(300.0, 0.0, 200.0, 150.0));
        let (found, gathered) = lattices(&units, &all(units.len()));
        assert_eq!(found.len(), 1);
        assert_eq!((found[0].cols, found[0].rows), (3, 2));
        assert!((found[0].gap - 10.0).abs() < 1e-9);
        assert!((found[0].extent.w() - 140.0).abs() < 1e-9);
        assert_eq!(gathered.len(), 6);
    }

    #[test]
    fn a_row_is_a_lattice_from_four_on_and_a_missing_unit_breaks_it() {
        let row = |count: u32| {
            (0..count)
                .map(|n| unit(f64::from(n) * 42.0, 0.0, 40.0, 40.0))
                .collect::<Vec<_>>()
        };
        assert!(lattices(&row(3), &all(3)).0.is_empty());
        assert_eq!(lattices(&row(4), &all(4)).0[0].cols, 4);
        // Five of six: not as many as columns times rows.
        let five: Vec<Panel> = (0..5)
            .map(|n| unit(f64::from(n % 3) * 42.0, f64::from(n / 3) * 42.0, 40.0, 40.0))
            .collect();
        assert!(lattices(&five, &all(5)).0.is_empty());
    }

    fn circles(count: usize, of: usize, radius: f64) -> Vec<Round> {
        let at = |n: usize| {
            let a = std::f64::consts::TAU * n as f64 / of as f64;
            [200.0 + radius * a.sin(), 150.0 - radius * a.cos()]
        };
        (0..count)
            .map(|n| Round {
                middle: at(n),
                rx: 12.0,
                ry: 12.0,
                seen: 1.0,
            })
            .collect()
    }

    #[test]
    fn equal_circles_on_a_circle_are_a_ring() {
        let (found, gathered) = ring(&circles(12, 12, 90.0));
        let found = found.unwrap();
        assert_eq!((found.count, gathered.len()), (12, 12));
        assert!((found.radius - 90.0).abs() < 0.5 && (found.unit - 24.0).abs() < 1e-9);
        assert!((found.middle[0] - 200.0).abs() < 0.5 && (found.middle[1] - 150.0).abs() < 0.5);
        assert!((found.extent().w() - 204.0).abs() < 1.0);
    }

    #[test]
    fn covered_units_are_counted_by_the_step_between_the_others() {
        assert_eq!(ring(&circles(8, 12, 90.0)).0.unwrap().count, 12);
        // Four are too few to tell, and circles in a line are no ring.
        assert!(ring(&circles(4, 12, 90.0)).0.is_none());
        let line: Vec<Round> = (0..6)
            .map(|n| Round {
                middle: [f64::from(n) * 30.0, 50.0],
                rx: 12.0,
                ry: 12.0,
                seen: 1.0,
            })
            .collect();
        assert!(ring(&line).0.is_none());
    }
}
