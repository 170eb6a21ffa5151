//! The lines of a frame, and what of them is seen, hidden or already explained.

use super::NEAR;
use crate::strokes::Run;

/// Sums along a track, one step a pixel.
#[derive(Debug, Clone, Default)]
pub(super) struct Sums(Vec<f32>);

impl Sums {
    pub(super) fn of(line: &[bool]) -> Sums {
        let mut sum = 0.0;
        let mut out = Vec::with_capacity(line.len() + 1);
        out.push(0.0);
        for &yes in line {
            sum += f32::from(u8::from(yes));
            out.push(sum);
        }
        Sums(out)
    }

    pub(super) fn over(&self, from: f64, until: f64) -> f64 {
        let last = self.0.len() - 1;
        let at = |v: f64| f64::from(self.0[(v.max(0.0) as usize).min(last)]);
        (at(until) - at(from)).max(0.0)
    }
}

/// The strokes of one line of a frame.
#[derive(Debug)]
pub(super) struct Track {
    pub(super) at: f64,
    /// On the page's edge: seen all along without a stroke.
    pub(super) edge: bool,
    /// On the fold: what runs on over it does not end there.
    pub(super) fold: bool,
    pub(super) line: Vec<bool>,
    pub(super) hidden: Vec<bool>,
    pub(super) used: Vec<bool>,
    pub(super) seen: Sums,
    /// Seen or hidden.
    pub(super) passable: Sums,
    pub(super) fresh: Sums,
}

pub(super) fn passable(track: &Track, from: f64, until: f64) -> f64 {
    if track.edge { 1.0 } else { track.passable.over(from, until) / (until - from) }
}

pub(super) fn fresh(track: &Track) -> Sums {
    let line: Vec<bool> = track.line.iter().zip(&track.used).map(|(a, b)| *a && !*b).collect();
    Sums::of(&line)
}

/// Tracks of level runs. A run leans a little by hand, so each is taken at its middle; strokes within reach count for a track.
pub(super) fn tracks(runs: &[Run], edges: &[(f64, bool)], half: f64) -> Vec<Track> {
    let mut sorted: Vec<&Run> = runs.iter().collect();
    sorted.sort_by(|a, b| b.length().total_cmp(&a.length()));
    let mut places: Vec<(f64, f64)> = Vec::new();
    for run in sorted {
        let (at, long) = (run.middle()[1], run.length());
        if edges.iter().any(|(e, _)| (e - at).abs() < 7.0) {
            continue;
        }
        match places.iter_mut().find(|(p, _)| (*p - at).abs() <= 3.5) {
            Some((p, l)) => {
                *p = (*p * *l + at * long) / (*l + long);
                *l += long;
            }
            None => places.push((at, long)),
        }
    }
    places.retain(|(_, long)| *long >= 24.0);
    places.sort_by(|a, b| b.1.total_cmp(&a.1));
    places.truncate(110);
    let n = (2.0 * half) as usize;
    let mut out: Vec<Track> = places
        .iter()
        .map(|&(at, _)| {
            let mut line = vec![false; n];
            for run in runs {
                let (from, until) = (run.a[0].min(run.b[0]), run.a[0].max(run.b[0]));
                let slope = (run.b[1] - run.a[1]) / (run.b[0] - run.a[0]);
                if (run.middle()[1] - at).abs() > NEAR + 0.06 * (until - from) {
                    continue;
                }
                let until = (until as usize + 1).min(n);
                for (t, seen) in line.iter_mut().enumerate().take(until).skip(from as usize) {
                    *seen |= (run.a[1] + slope * (t as f64 - run.a[0]) - at).abs() <= NEAR;
                }
            }
            let seen = Sums::of(&line);
            Track {
                at,
                edge: false,
                fold: false,
                hidden: vec![false; n],
                used: vec![false; n],
                passable: seen.clone(),
                fresh: seen.clone(),
                seen,
                line,
            }
        })
        .collect();
    out.extend(edges.iter().map(|&(at, fold)| Track {
        at,
        edge: true,
        fold,
        line: vec![false; n],
        hidden: vec![false; n],
        used: vec![true; n],
        seen: Sums::of(&vec![false; n]),
        passable: Sums::of(&vec![true; n]),
        fresh: Sums::of(&vec![false; n]),
    }));
    out.sort_by(|a, b| a.at.total_cmp(&b.at));
    out
}
