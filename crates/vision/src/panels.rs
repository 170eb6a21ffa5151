//! Rectangles out of straight runs. In a frame of one direction the runs lie on level and upright tracks; two of each make a hypothesis. It
//! is scored by the share of its outline that is seen, where what a block over it covers is no loss, and by its corners: at a corner of its
//! own the strokes end. A stroke that runs on belongs to something else.

mod corners;
mod panel;
mod tracks;

pub(crate) use panel::{Cover, Panel};

use crate::strokes::{Run, between};
use corners::Corner;
use std::cell::Cell;
use tracks::{Sums, Track, fresh, passable, tracks};

/// How far a stroke may lie from a side and still be the side's.
const NEAR: f64 = 5.5;
/// The share of its open outline that a panel shows at least.
const LEAST_SHARE: f64 = 0.88;
/// Places asked about in one frame, times covers, before its search ends: a texture would ask without end, a drawing does not come near.
const MOST_WORK: usize = 25_000_000;
/// What telling a hypothesis from sums alone costs, in the same measure.
const JUDGING: usize = 20;
/// The narrowest panel.
const NARROWEST: f64 = 27.0;

/// How much is asked of a hypothesis.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Care {
    /// Nearly the whole outline is seen, and the corners are its own.
    Whole,
    /// The rest of it is covered.
    Covered,
    /// Strokes may be shared with neighbours, as in units that touch.
    Touching,
}

/// The page as far as its edges matter to a frame that is not turned.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Bounds {
    pub(crate) x0: f64,
    pub(crate) y0: f64,
    pub(crate) x1: f64,
    pub(crate) y1: f64,
    /// Pages drawn apart or with a fold may have edges in the middle too.
    pub(crate) fold: Option<f64>,
}

/// A frame: level tracks across, upright tracks down, about the sheet's middle.
pub(crate) struct Frame {
    turn: f64,
    centre: [f64; 2],
    /// Half the length of a track.
    half: f64,
    level: Vec<Track>,
    upright: Vec<Track>,
    runs: Vec<Run>,
    covers: Vec<Cover>,
    /// Places asked about so far, times covers.
    work: Cell<usize>,
}

impl Frame {
    /// The frame of a direction, from the runs that lie in it.
    pub(crate) fn new(turn: f64, runs: &[Run], size: (f64, f64), bounds: Option<Bounds>) -> Frame {
        let centre = [size.0 / 2.0, size.1 / 2.0];
        let half = size.0.hypot(size.1) / 2.0 + 40.0;
        let mut frame = Frame {
            turn,
            centre,
            half,
            level: Vec::new(),
            upright: Vec::new(),
            runs: Vec::new(),
            covers: Vec::new(),
            work: Cell::new(0),
        };
        // A short stroke by hand leans more.
        let lies = |r: &Run, along: f64| {
            between(r.angle(), along) < (7.0 / r.length()).atan().to_degrees().clamp(3.1, 7.0)
        };
        let turned: Vec<Run> = runs
            .iter()
            .map(|r| Run {
                a: frame.inside(r.a),
                b: frame.inside(r.b),
                ..*r
            })
            .collect();
        let level: Vec<Run> = turned.iter().filter(|r| lies(r, 0.0)).copied().collect();
        let upright: Vec<Run> = turned
            .iter()
            .filter(|r| lies(r, 90.0))
            .map(|r| Run {
                a: [r.a[1], r.a[0]],
                b: [r.b[1], r.b[0]],
                ..*r
            })
            .collect();
        let edges = |low: f64, high: f64, fold: Option<f64>, k: usize| -> Vec<(f64, bool)> {
            let place = |v: f64| v - centre[k] + half;
            [
                Some((place(low), false)),
                Some((place(high), false)),
                fold.map(|v| (place(v), true)),
            ]
            .into_iter()
            .flatten()
            .collect()
        };
        let (level_edges, upright_edges) = match bounds {
            Some(b) => (edges(b.y0, b.y1, None, 1), edges(b.x0, b.x1, b.fold, 0)),
            None => (Vec::new(), Vec::new()),
        };
        frame.level = tracks(&level, &level_edges, half);
        frame.upright = tracks(&upright, &upright_edges, half);
        frame.runs = turned;
        frame
    }

    /// A place of the sheet in the frame; the frame's own zero is at the top left of all its tracks.
    fn inside(&self, p: [f64; 2]) -> [f64; 2] {
        let (s, c) = self.turn.to_radians().sin_cos();
        let (x, y) = (p[0] - self.centre[0], p[1] - self.centre[1]);
        [x * c + y * s + self.half, y * c - x * s + self.half]
    }

    fn outside(&self, p: [f64; 2]) -> [f64; 2] {
        let (s, c) = self.turn.to_radians().sin_cos();
        let (u, v) = (p[0] - self.half, p[1] - self.half);
        [
            self.centre[0] + u * c - v * s,
            self.centre[1] + u * s + v * c,
        ]
    }

    /// Takes note of something that hides what lies under it.
    pub(crate) fn cover(&mut self, cover: &Cover) {
        let (turn, centre, half) = (self.turn, self.centre, self.half);
        let (s, c) = turn.to_radians().sin_cos();
        let out = |u: f64, v: f64| {
            [
                centre[0] + (u - half) * c - (v - half) * s,
                centre[1] + (u - half) * s + (v - half) * c,
            ]
        };
        // Only the part of a track within the cover's own circle can be hidden.
        let e = cover.extent();
        let (middle, reach) = (self.inside(e.middle()), e.w().hypot(e.h()) / 2.0 + 2.0);
        for (level, tracks) in [(true, &mut self.level), (false, &mut self.upright)] {
            let (along, across) = if level {
                (middle[0], middle[1])
            } else {
                (middle[1], middle[0])
            };
            for track in tracks
                .iter_mut()
                .filter(|t| !t.edge && (t.at - across).abs() < reach)
            {
                let (from, until) = (
                    (along - reach).max(0.0) as usize,
                    ((along + reach).max(0.0) as usize).min(track.line.len()),
                );
                for i in from..until {
                    let t = i as f64 + 0.5;
                    track.hidden[i] |= cover.hides(if level {
                        out(t, track.at)
                    } else {
                        out(track.at, t)
                    });
                }
                let passable: Vec<bool> = track
                    .line
                    .iter()
                    .zip(&track.hidden)
                    .map(|(a, b)| *a || *b)
                    .collect();
                track.passable = Sums::of(&passable);
            }
        }
        self.covers.push(cover.clone());
    }

    /// The pixels of a side that are neither seen nor under one of the covers.
    fn missing(&self, track: &Track, level: bool, from: f64, until: f64, covers: &[&Cover]) -> f64 {
        if covers.len() == self.covers.len() {
            return (until - from - track.passable.over(from, until)).max(0.0);
        }
        let (mut bare, mut asked) = (0, 0);
        for i in (from.max(0.0) as usize..(until as usize).min(track.line.len())).step_by(2) {
            if track.line[i] {
                continue;
            }
            if !track.hidden[i] {
                bare += 1;
                continue;
            }
            let t = i as f64 + 0.5;
            let p = self.outside(if level { [t, track.at] } else { [track.at, t] });
            bare += usize::from(!covers.iter().any(|c| c.hides(p)));
            asked += covers.len();
        }
        self.work.set(self.work.get() + asked);
        2.0 * bare as f64
    }

    /// Marks the strokes along a panel's sides as explained.
    pub(crate) fn explain(&mut self, panel: &Panel) {
        let points = panel.points().map(|p| self.inside(p));
        for k in 0..4 {
            let (a, b) = (points[k], points[(k + 1) % 4]);
            let (du, dv) = ((b[0] - a[0]).abs(), (b[1] - a[1]).abs());
            let level = du > dv;
            if du.min(dv) > 0.06 * du.max(dv) {
                continue;
            }
            let (from, until, at) = if level {
                (a[0].min(b[0]), a[0].max(b[0]), (a[1] + b[1]) / 2.0)
            } else {
                (a[1].min(b[1]), a[1].max(b[1]), (a[0] + b[0]) / 2.0)
            };
            let tracks = if level {
                &mut self.level
            } else {
                &mut self.upright
            };
            for track in tracks.iter_mut().filter(|t| (t.at - at).abs() <= 4.0) {
                for i in
                    (from - 6.0).max(0.0) as usize..((until + 6.0) as usize).min(track.used.len())
                {
                    track.used[i] = true;
                }
                track.fresh = fresh(track);
            }
        }
    }

    /// The best hypothesis left, if one is good enough: as its tracks lie, and with its sides moved to their strokes.
    pub(crate) fn best(&self, care: Care, found: &[Panel]) -> Option<(Panel, Panel)> {
        let mut best: Option<(f64, Panel, [f64; 4])> = None;
        for (i, top) in self.level.iter().enumerate() {
            for bottom in &self.level[i + 1..] {
                if bottom.at - top.at < NARROWEST || self.work.get() > MOST_WORK {
                    continue;
                }
                let sides: Vec<&Track> = self
                    .upright
                    .iter()
                    .filter(|t| t.edge || passable(t, top.at, bottom.at) >= 0.8)
                    .collect();
                self.work
                    .set(self.work.get() + self.upright.len() + sides.len() * sides.len());
                for (j, left) in sides.iter().enumerate() {
                    for right in &sides[j + 1..] {
                        if right.at - left.at < NARROWEST {
                            continue;
                        }
                        if passable(top, left.at, right.at) < 0.8
                            || passable(bottom, left.at, right.at) < 0.8
                        {
                            continue;
                        }
                        let Some((score, panel)) = self.judged(top, bottom, left, right, care)
                        else {
                            continue;
                        };
                        if care == Care::Touching && found.iter().any(|p| cuts_into(&panel, p)) {
                            continue;
                        }
                        if best.as_ref().is_none_or(|(most, _, _)| score > *most) {
                            best = Some((score, panel, [left.at, top.at, right.at, bottom.at]));
                        }
                    }
                }
            }
        }
        best.map(|(_, panel, at)| (panel, self.refined(panel, at)))
    }

    fn judged(
        &self,
        top: &Track,
        bottom: &Track,
        left: &Track,
        right: &Track,
        care: Care,
    ) -> Option<(f64, Panel)> {
        self.work.set(self.work.get() + JUDGING);
        let shared = care == Care::Touching;
        let sides = [
            (top, true, left.at, right.at),
            (right, false, top.at, bottom.at),
            (bottom, true, left.at, right.at),
            (left, false, top.at, bottom.at),
        ];
        let on_edge = sides.iter().filter(|s| s.0.edge).count();
        if on_edge > if shared { 0 } else { 2 } {
            return None;
        }
        // What can be told from sums is told first: most hypotheses end here.
        let opposite = top.edge && bottom.edge || left.edge && right.edge;
        let around: f64 = sides.iter().filter(|s| !s.0.edge).map(|s| s.3 - s.2).sum();
        let sum = |of: fn(&Track) -> &Sums| -> f64 {
            sides
                .iter()
                .filter(|s| !s.0.edge)
                .map(|s| of(s.0).over(s.2, s.3))
                .sum()
        };
        let (seen, fresh) = (sum(|t| &t.seen), sum(|t| &t.fresh));
        let at_least_missing = (around - sum(|t| &t.passable)).max(0.0);
        if seen < 1.0
            || care == Care::Whole && seen < 0.7 * around
            || fresh / seen < if shared || opposite { 0.4 } else { 0.5 }
            || seen / (seen + at_least_missing) < LEAST_SHARE
        {
            return None;
        }
        self.work.set(self.work.get() + self.covers.len());
        let (mut visible, mut hidden_sides) = (0.0, 0);
        // What holds the whole panel would hide all of it or nothing.
        let corners = [
            [left.at, top.at],
            [right.at, top.at],
            [right.at, bottom.at],
            [left.at, bottom.at],
        ]
        .map(|p| self.outside(p));
        let covers: Vec<&Cover> = self
            .covers
            .iter()
            .filter(|c| !corners.iter().all(|&p| c.hides(p)))
            .collect();
        for (track, level, from, until) in sides {
            if track.edge {
                continue;
            }
            let here = track.seen.over(from, until);
            // What is neither seen nor under a cover is missing.
            let missing = self.missing(track, level, from, until, &covers);
            visible += here + missing;
            hidden_sides += usize::from(here < 10.0);
            if missing > 12.0 && here < 0.72 * (here + missing) {
                return None;
            }
        }
        if hidden_sides > 1 || visible < 0.25 * around || visible < 40.0 {
            return None;
        }
        let (share, new) = (seen / visible, fresh / seen);
        if care == Care::Whole && on_edge > 2 || share < LEAST_SHARE {
            return None;
        }
        let (mut good, mut free, mut borrowed, mut open, mut beyond) = (0, 0, 0, 0, 0.0);
        for (level, side_out, upright, down_out) in [
            (top, -1.0, left, -1.0),
            (top, 1.0, right, -1.0),
            (bottom, 1.0, right, 1.0),
            (bottom, -1.0, left, 1.0),
        ] {
            let (corner, over) = self.corner(level, side_out, upright, down_out, &covers);
            beyond += over;
            match corner {
                Corner::Good => good += 1,
                Corner::Free => free += 1,
                Corner::Borrowed => borrowed += 1,
                Corner::Open => open += 1,
            }
        }
        // One corner may be lost where it touches something else.
        if open > 1 || open == 1 && (good < 2 || good + free < 3 || share < 0.92) {
            return None;
        }
        // A side along another block's edge borrows two corners; the rest must be whole.
        let aligned = borrowed > 0
            && borrowed <= 2
            && good + free >= 2
            && good > 0
            && share > 0.93
            && visible > 0.8 * around
            && new > 0.65;
        if !shared && borrowed > 0 && !aligned
            || good + free < 2 && !shared
            || shared && borrowed > 0 && visible < 0.9 * around
        {
            return None;
        }
        if !shared && good == 0 && on_edge < 2 || self.turn != 0.0 && (good < 2 || hidden_sides > 0)
        {
            return None;
        }
        if on_edge == 0
            && (self.divided(top, bottom, left, right)
                || !shared && borrowed > 0 && self.goes_on(top, bottom, left, right))
        {
            return None;
        }
        // In a corner of the page, or along one edge of it, the rest must speak for itself.
        if on_edge == 2 && !opposite && (good < 1 || hidden_sides > 0 || visible < 0.85 * around)
            || on_edge == 1 && (borrowed > 0 || good < 1 || hidden_sides > 0)
        {
            return None;
        }
        let area = (right.at - left.at) * (bottom.at - top.at);
        let score = 2.0 * new + 6.0 * share + 0.12 * f64::from(good)
            - 0.2 * f64::from(borrowed)
            - 0.5 * f64::from(open)
            + 1.0 * (visible / around.max(1.0)).min(1.0)
            - 0.2 * (area / 1e3).ln_1p()
            - 0.6 * hidden_sides as f64
            - 0.016 * beyond;
        let middle = self.outside([(left.at + right.at) / 2.0, (top.at + bottom.at) / 2.0]);
        let panel = Panel {
            middle,
            w: right.at - left.at,
            h: bottom.at - top.at,
            turn: self.turn,
            seen: share,
            edges: [left.edge, top.edge, right.edge, bottom.edge],
        };
        Some((score, panel))
    }

    /// Each side moved to the mean of its strokes; a turned panel's direction to that of its own.
    fn refined(&self, panel: Panel, [left, top, right, bottom]: [f64; 4]) -> Panel {
        let (mut turn, mut weight) = (0.0, 0.0);
        let mut side = |level: bool, at: f64, from: f64, until: f64, edge: bool| {
            if edge {
                return at;
            }
            let (mut sum, mut long) = (0.0, 0.0);
            for run in &self.runs {
                let run = if level {
                    *run
                } else {
                    Run {
                        a: [run.a[1], run.a[0]],
                        b: [run.b[1], run.b[0]],
                        ..*run
                    }
                };
                if between(run.angle(), 0.0) > 4.0 || (run.middle()[1] - at).abs() > 14.0 {
                    continue;
                }
                let (a, b) = (
                    run.a[0].min(run.b[0]).max(from),
                    run.a[0].max(run.b[0]).min(until),
                );
                if b - a < 6.0 {
                    continue;
                }
                let slope = (run.b[1] - run.a[1]) / (run.b[0] - run.a[0]);
                let here = run.a[1] + slope * ((a + b) / 2.0 - run.a[0]);
                if (here - at).abs() > NEAR {
                    continue;
                }
                sum += here * (b - a);
                long += b - a;
                let lean = slope.atan().to_degrees();
                turn += if level { lean } else { -lean } * (b - a) * (b - a);
                weight += (b - a) * (b - a);
            }
            if long > 0.0 { sum / long } else { at }
        };
        let new_top = side(true, top, left, right, panel.edges[1]);
        let new_bottom = side(true, bottom, left, right, panel.edges[3]);
        let new_left = side(false, left, top, bottom, panel.edges[0]);
        let new_right = side(false, right, top, bottom, panel.edges[2]);
        let lean = if self.turn == 0.0 || weight == 0.0 {
            0.0
        } else {
            turn / weight
        };
        Panel {
            middle: self.outside([(new_left + new_right) / 2.0, (new_top + new_bottom) / 2.0]),
            w: new_right - new_left,
            h: new_bottom - new_top,
            turn: self.turn + lean,
            ..panel
        }
    }
}

/// Whether two panels overlap, but neither holds the other.
fn cuts_into(a: &Panel, b: &Panel) -> bool {
    let (e, f) = (a.extent(), b.extent());
    let common = e.common(&f);
    common > 0.1 * e.area().min(f.area()) && common < 0.9 * e.area().min(f.area())
}
