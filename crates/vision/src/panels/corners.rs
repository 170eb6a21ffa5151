//! How the strokes of two sides meet, and whether a hypothesis is two panels or a piece of a band.

use super::tracks::Track;
use super::{Cover, Frame};

/// How far a stroke may overshoot its corner.
const OVERSHOOT: f64 = 24.0;

/// How two sides meet.
pub(super) enum Corner {
    /// Both strokes end here.
    Good,
    /// Hidden, or on the page's edge.
    Free,
    /// A stroke runs on.
    Borrowed,
    /// The sides do not meet.
    Open,
}

impl Frame {
    /// Whether a stroke inside reaches from side to side and ends there: then these are two panels, not one.
    pub(super) fn divided(&self, top: &Track, bottom: &Track, left: &Track, right: &Track) -> bool {
        let divides = |t: &Track, from: &Track, until: &Track| {
            if t.edge || from.edge || until.edge {
                return false;
            }
            let (a, b) = (from.at, until.at);
            let there = |from: f64, until: f64| t.passable.over(from, until);
            let seen = |from: f64, until: f64| t.seen.over(from, until);
            let reaches = there(a + 1.0, a + 9.0) >= 4.5
                && there(b - 9.0, b - 1.0) >= 4.5
                && there(a, b) >= 0.9 * (b - a)
                && seen(a, b) >= 0.6 * (b - a);
            let ends = seen(a + 1.0, a + 9.0) >= 4.5 && seen(a - OVERSHOOT, a - 3.0) < 17.0
                || seen(b - 9.0, b - 1.0) >= 4.5 && seen(b + 3.0, b + OVERSHOOT) < 17.0;
            reaches && ends
        };
        let within = |t: &Track, a: f64, b: f64| t.at > a + 18.0 && t.at < b - 18.0;
        self.upright
            .iter()
            .any(|t| within(t, left.at, right.at) && divides(t, top, bottom))
            || self
                .level
                .iter()
                .any(|t| within(t, top.at, bottom.at) && divides(t, left, right))
    }

    /// Whether two opposite sides are there again beyond a third that itself runs on past both: then this is a piece of a band, seen
    /// next to what lies over it.
    pub(super) fn goes_on(&self, top: &Track, bottom: &Track, left: &Track, right: &Track) -> bool {
        let runs_past = |t: &Track, a: f64, b: f64| {
            t.seen.over(a - OVERSHOOT, a - 3.0) >= 0.9 * (OVERSHOOT - 3.0)
                && t.seen.over(b + 3.0, b + OVERSHOOT) >= 0.9 * (OVERSHOOT - 3.0)
        };
        let again = |a: &Track, b: &Track, from: f64, until: f64| {
            a.seen.over(from, until) > 40.0 && b.seen.over(from, until) > 40.0
        };
        let far = 2.0 * self.half;
        runs_past(left, top.at, bottom.at) && again(top, bottom, 0.0, left.at - OVERSHOOT)
            || runs_past(right, top.at, bottom.at) && again(top, bottom, right.at + OVERSHOOT, far)
            || runs_past(top, left.at, right.at) && again(left, right, 0.0, top.at - OVERSHOOT)
            || runs_past(bottom, left.at, right.at)
                && again(left, right, bottom.at + OVERSHOOT, far)
    }

    /// The corner of two sides, and by how many pixels strokes overshoot it; `side_out` and `down_out` say which way is out of the panel.
    pub(super) fn corner(
        &self,
        level: &Track,
        side_out: f64,
        upright: &Track,
        down_out: f64,
        covers: &[&Cover],
    ) -> (Corner, f64) {
        let (u, v) = (upright.at, level.at);
        if upright.fold && !level.edge {
            let (a, b) = (u + side_out * 6.0, u + side_out * 26.0);
            let on = level.passable.over(a.min(b), a.max(b)) >= 14.0;
            return (if on { Corner::Open } else { Corner::Free }, 0.0);
        }
        let span = |track: &Track, at: f64, from: f64, until: f64, out: f64| {
            let (a, b) = (at + out * from, at + out * until);
            track.seen.over(a.min(b), a.max(b))
        };
        let covered = |p: [f64; 2]| covers.iter().any(|c| c.hides(self.outside(p)));
        if level.edge || upright.edge {
            // The other side must reach the page's edge.
            let (seen, near) = if level.edge {
                (
                    span(upright, v, -24.0, -6.0, down_out),
                    [u, v - down_out * 15.0],
                )
            } else {
                (
                    span(level, u, -24.0, -6.0, side_out),
                    [u - side_out * 15.0, v],
                )
            };
            return (
                if level.edge && upright.edge || seen > 9.0 || covered(near) {
                    Corner::Free
                } else {
                    Corner::Open
                },
                0.0,
            );
        }
        // Just inside the corner both sides must be there, or something lies over them.
        let (level_in, upright_in) = (
            span(level, u, -9.0, 0.0, side_out),
            span(upright, v, -9.0, 0.0, down_out),
        );
        let under = covered([u - side_out * 5.0, v]) || covered([u, v - down_out * 5.0]);
        let hidden = under && (level_in < 6.5 || upright_in < 6.5);
        if !hidden && (level_in < 4.5 || upright_in < 4.5) {
            return (Corner::Open, 0.0);
        }
        let level_on = span(level, u, 3.0, OVERSHOOT, side_out);
        let upright_on = span(upright, v, 3.0, OVERSHOOT, down_out);
        let runs_on = |on: f64| on >= 0.9 * (OVERSHOOT - 3.0);
        let (a, b) = (runs_on(level_on), runs_on(upright_on));
        let corner = match (hidden, a || b) {
            (true, false) => Corner::Free,
            (true, true) if a && b => Corner::Borrowed,
            (true, true) => Corner::Free,
            (false, false) => Corner::Good,
            (false, true) => Corner::Borrowed,
        };
        let over = if matches!(corner, Corner::Good) {
            level_on + upright_on
        } else {
            0.0
        };
        (corner, over)
    }
}
