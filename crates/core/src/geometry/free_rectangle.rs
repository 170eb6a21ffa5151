//! The largest rectangle that finds room: in the hidden middle of a sheet, beside the faces of a photo, between the blocks of a page.

use super::{Axis, Point, Region, Span};

/// Into how many steps a side of the search's window is divided where what is in the way isn't upright.
const NET: f64 = 160.0;
/// Two places closer than this, in ticks, are one.
const SAME: f64 = 4.0;
/// How many of the largest rectangles on the net are improved.
const SEEDS: usize = 24;
/// The last step of improving, in ticks: 1/6000 in.
const FINEST: f64 = 32.0;

/// The largest upright rectangle within a window that touches nothing of what is in its way, no side shorter than `least`; all in ticks.
///
/// All maximal rectangles on a grid through every corner of what is in the way (Orlowski, "A new algorithm for the largest empty
/// rectangle problem", 1990, on cells): exact where all is upright. Otherwise a net is laid between the corners, and the best of what is
/// found on it are improved by moving their sides.
#[must_use]
pub fn largest_free_rectangle(window: Span, blocked: &Region, least: f64) -> Option<Span> {
    let least = least.max(1.0);
    if window.w() < least || window.h() < least {
        return None;
    }
    let blocked = blocked.within_also(&Region::from(window));
    if blocked.is_empty() {
        return Some(window);
    }
    let search = Search {
        window,
        edges: directed_edges(&blocked),
        least,
    };
    if search.is_upright() {
        let found = search.maximal(&search.corners(Axis::X), &search.corners(Axis::Y));
        return found.into_iter().find(|s| search.is_large_enough(*s));
    }
    search.improved()
}

/// A straight edge of what is in the way.
type Line = (Point, Point);

struct Search {
    window: Span,
    edges: Vec<Line>,
    least: f64,
}

fn directed_edges(region: &Region) -> Vec<Line> {
    let lines = region.edges().flat_map(|edge| {
        let next = edge.iter().cycle().skip(1);
        edge.iter().copied().zip(next.copied())
    });
    lines.collect()
}

/// Along an axis.
const fn along(axis: Axis, point: Point) -> f64 {
    match axis {
        Axis::X => point[0],
        Axis::Y => point[1],
    }
}

const fn ends(axis: Axis, span: Span) -> (f64, f64) {
    match axis {
        Axis::X => (span.l, span.r),
        Axis::Y => (span.t, span.b),
    }
}

impl Search {
    fn is_upright(&self) -> bool {
        self.edges
            .iter()
            .all(|(a, b)| (a[0] - b[0]).abs() < 1e-2 || (a[1] - b[1]).abs() < 1e-2)
    }

    fn is_large_enough(&self, span: Span) -> bool {
        span.w() >= self.least - 1.0 && span.h() >= self.least - 1.0
    }

    /// The places of all corners along an axis, with the window's ends.
    fn corners(&self, axis: Axis) -> Vec<f64> {
        let (from, to) = ends(axis, self.window);
        let corners = self.edges.iter().map(|(a, _)| along(axis, *a));
        merged(corners.chain([from, to]).collect())
    }

    /// The corners of upright edges, and a net between.
    fn net(&self, axis: Axis, step: f64) -> Vec<f64> {
        let (from, to) = ends(axis, self.window);
        let upright = self
            .edges
            .iter()
            .filter(|(a, b)| (along(axis, *a) - along(axis, *b)).abs() < 1e-2);
        let mut places: Vec<f64> = upright.map(|(a, _)| along(axis, *a)).collect();
        let count = ((to - from) / step).ceil() as usize;
        places.extend((0..=count).map(|n| (n as f64).mul_add(step, from).min(to)));
        merged(places)
    }

    /// Where, along an axis, something is in the way within a band across it: intervals, in order, apart from one another.
    ///
    /// What is connected within the band either reaches over its middle, between two crossings, or is bounded by edges that run there.
    fn in_the_way(&self, axis: Axis, band: (f64, f64)) -> Vec<(f64, f64)> {
        let across = axis.other();
        let middle = f64::midpoint(band.0, band.1);
        let (mut found, mut crossings) = (Vec::new(), Vec::new());
        for (a, b) in &self.edges {
            let (low, high) = if along(across, *a) <= along(across, *b) {
                (*a, *b)
            } else {
                (*b, *a)
            };
            let (from, to) = (along(across, low), along(across, high));
            if to <= band.0 || from >= band.1 {
                continue;
            }
            let (start, run) = (along(axis, low), along(axis, high) - along(axis, low));
            if from == to {
                // It runs along the axis: all of it is in the way.
                found.push((start.min(start + run), start.max(start + run)));
                continue;
            }
            let at =
                |place: f64| run.mul_add(((place - from) / (to - from)).clamp(0.0, 1.0), start);
            let (one, two) = (at(from.max(band.0)), at(to.min(band.1)));
            found.push((one.min(two), one.max(two)));
            if from <= middle && to > middle {
                crossings.push(at(middle));
            }
        }
        crossings.sort_by(f64::total_cmp);
        found.extend(crossings.chunks_exact(2).map(|c| (c[0], c[1])));
        joined(found)
    }

    /// All maximal free rectangles on the grid, largest first.
    fn maximal(&self, xs: &[f64], ys: &[f64]) -> Vec<Span> {
        let rows: Vec<Vec<bool>> = ys
            .windows(2)
            .map(|band| self.free_cells(xs, (band[0], band[1])))
            .collect();
        let mut heights = vec![0_usize; xs.len().saturating_sub(1)];
        let mut found = Vec::new();
        for (n, row) in rows.iter().enumerate() {
            for (height, free) in heights.iter_mut().zip(row) {
                *height = if *free { *height + 1 } else { 0 };
            }
            let below = rows.get(n + 1);
            for (from, to, height) in under_heights(&heights) {
                // What can grow downwards is found in a later row.
                if below.is_none_or(|b| !b[from..to].iter().all(|free| *free)) {
                    found.push(Span {
                        l: xs[from],
                        t: ys[n + 1 - height],
                        r: xs[to],
                        b: ys[n + 1],
                    });
                }
            }
        }
        found.sort_by(|a, b| b.area().total_cmp(&a.area()));
        found
    }

    fn free_cells(&self, xs: &[f64], band: (f64, f64)) -> Vec<bool> {
        let hair = SAME / 2.0;
        let blocked = self.in_the_way(Axis::X, (band.0 + hair, band.1 - hair));
        let mut next = 0;
        xs.windows(2)
            .map(|cell| {
                while next < blocked.len() && blocked[next].1 <= cell[0] + hair {
                    next += 1;
                }
                next >= blocked.len() || blocked[next].0 >= cell[1] - hair
            })
            .collect()
    }

    /// The best of what the net finds, its sides moved until nothing is gained any more.
    fn improved(&self) -> Option<Span> {
        let step = self.window.w().max(self.window.h()) / NET;
        let found = self.maximal(&self.net(Axis::X, step), &self.net(Axis::Y, step));
        let mut seeds: Vec<Span> = Vec::new();
        let mut best: Option<Span> = None;
        for seed in found {
            // Between the net's lines a side may lie up to two steps further out.
            let most = (seed.w() + 2.0 * step) * (seed.h() + 2.0 * step);
            if seeds.len() >= SEEDS || best.is_some_and(|b| most < b.area()) {
                break;
            }
            if seeds.iter().any(|s| is_near(*s, seed, 3.0 * step)) {
                continue;
            }
            seeds.push(seed);
            let moved = self.moved(seed, step);
            if let Some(moved) = moved.filter(|m| best.is_none_or(|b| m.area() > b.area())) {
                best = Some(moved);
            }
        }
        best
    }

    /// A rectangle whose left and right sides are tried further out and in; top and bottom follow from what is in the way.
    fn moved(&self, seed: Span, step: f64) -> Option<Span> {
        let mut middle = seed.cy();
        let mut sides = (seed.l, seed.r);
        let mut best = self.between(sides, middle);
        let mut by = 2.0 * step;
        while by > FINEST {
            let mut gained = false;
            for (l, r) in [
                (-by, 0.0),
                (0.0, by),
                (-by, by),
                (by, 0.0),
                (0.0, -by),
                (by, -by),
                (by, by),
                (-by, -by),
            ] {
                let tried = (
                    (sides.0 + l).max(self.window.l),
                    (sides.1 + r).min(self.window.r),
                );
                let found = self.between(tried, middle);
                if let Some(found) =
                    found.filter(|f| best.is_none_or(|b| f.area() > b.area() + SAME))
                {
                    (best, sides, middle, gained) = (Some(found), tried, found.cy(), true);
                }
            }
            if !gained {
                by /= 2.0;
            }
        }
        best
    }

    /// The free rectangle between two sides around a height.
    fn between(&self, (l, r): (f64, f64), middle: f64) -> Option<Span> {
        if r - l < self.least {
            return None;
        }
        let (mut t, mut b) = (self.window.t, self.window.b);
        for (from, to) in self.in_the_way(Axis::Y, (l + 1.0, r - 1.0)) {
            if from < middle && to > middle {
                return None;
            }
            if to <= middle {
                t = t.max(to);
            } else {
                b = b.min(from);
            }
        }
        let found = Span { l, t, r, b };
        Some(found).filter(|f| self.is_large_enough(*f))
    }
}

fn is_near(a: Span, b: Span, distance: f64) -> bool {
    [a.l - b.l, a.t - b.t, a.r - b.r, a.b - b.b]
        .iter()
        .all(|d| d.abs() < distance)
}

/// In order; places that are nearly the same taken as one.
fn merged(mut places: Vec<f64>) -> Vec<f64> {
    places.sort_by(f64::total_cmp);
    places.dedup_by(|next, kept| *next - *kept <= SAME);
    places
}

/// Intervals in order, those that meet joined.
fn joined(mut intervals: Vec<(f64, f64)>) -> Vec<(f64, f64)> {
    intervals.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut kept: Vec<(f64, f64)> = Vec::with_capacity(intervals.len());
    for next in intervals {
        match kept.last_mut() {
            Some(last) if next.0 <= last.1 => last.1 = last.1.max(next.1),
            _ => kept.push(next),
        }
    }
    kept
}

/// The widest stretches under a row of heights: from, to (exclusive), height.
fn under_heights(heights: &[usize]) -> Vec<(usize, usize, usize)> {
    let mut open: Vec<(usize, usize)> = Vec::new();
    let mut found = Vec::new();
    for (n, height) in heights.iter().copied().chain([0]).enumerate() {
        let mut from = n;
        while let Some((start, high)) = open.pop_if(|(_, high)| *high > height) {
            found.push((start, n, high));
            from = start;
        }
        if height > 0 && open.last().is_none_or(|(_, high)| *high < height) {
            open.push((from, height));
        }
    }
    found
}
