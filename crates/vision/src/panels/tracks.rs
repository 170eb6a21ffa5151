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
    if track.edge {
        1.0
    } else {
        track.passable.over(from, until) / (until - from)
    }
}

pub(super) fn fresh(track: &Track) -> Sums {
    let line: Vec<bool> = track
        .line
        .iter()
        .zip(&track.used)
        .map(|(a, b)| *a && !*b)
        .collect();
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

#[cfg(test)]
mod tests {
    use super::*;

    fn run(from: f64, until: f64, at: f64) -> Run {
        Run {
            a: [from, at],
            b: [until, at],
            thick: 2.0,
            dark: 1.0,
        }
    }

    #[test]
    fn sums_count_what_lies_between() {
        let sums = Sums::of(&[true, true, false, true, false]);
        assert_eq!(
            (
                sums.over(0.0, 5.0),
                sums.over(1.0, 3.0),
                sums.over(4.0, 5.0)
            ),
            (3.0, 1.0, 0.0)
        );
        // Beyond the ends there is nothing, and backwards neither.
        assert_eq!((sums.over(-9.0, 99.0), sums.over(3.0, 1.0)), (3.0, 0.0));
    }

    #[test]
    fn strokes_in_line_share_a_track_and_short_ones_have_none() {
        let found = tracks(
            &[
                run(10.0, 60.0, 20.0),
                run(80.0, 140.0, 21.0),
                run(10.0, 90.0, 60.0),
                run(100.0, 110.0, 90.0),
            ],
            &[],
            100.0,
        );
        let places: Vec<i64> = found.iter().map(|t| t.at.round() as i64).collect();
        assert_eq!(places, [21, 60]);
        assert!((found[0].seen.over(0.0, 200.0) - 112.0).abs() < 3.0);
        // Between the strokes nothing is seen, so that a side across the gap is only partly there.
        assert!(found[0].seen.over(62.0, 78.0) < 1.0);
        assert!((passable(&found[0], 10.0, 140.0) - 112.0 / 130.0).abs() < 0.03);
    }

    #[test]
    fn a_page_edge_is_passable_without_a_stroke() {
        let found = tracks(&[run(10.0, 90.0, 4.0)], &[(5.0, false)], 100.0);
        // The stroke along the edge is the edge's own.
        assert_eq!(found.len(), 1);
        assert!(
            found[0].edge
                && passable(&found[0], 0.0, 150.0) == 1.0
                && found[0].seen.over(0.0, 200.0) == 0.0
        );
    }

    #[test]
    fn what_is_explained_is_fresh_no_more() {
        let mut track = tracks(&[run(10.0, 110.0, 20.0)], &[], 100.0).remove(0);
        track.used[10..60].fill(true);
        assert!((fresh(&track).over(0.0, 200.0) - 51.0).abs() < 2.0);
    }
}
