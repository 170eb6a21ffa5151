//! Lines on their own: what each run of words would need in each set if all of the set's pieces were for it. No setting of the whole text can
//! do better in any of these, so they guide the search.

use super::gaps::squeeze;
use super::pieces::{InSet, Source};
use super::request::{Lines, Words};
use std::ops::Range;

/// What a line takes at least.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Least {
    pub(super) cost: i64,
    /// The line's width with its gaps at their least, and its height, in ticks.
    pub(super) w: i64,
    pub(super) h: i64,
    /// How far its gaps are off at least; none where it is too wide for the space.
    pub(super) badness: Option<f64>,
}

/// What the words from some place on take at least, in any lines and sets.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Rest {
    pub(super) cost: i64,
    pub(super) badness: f64,
    pub(super) lines: usize,
    /// The widest line, and all heights, without line gaps.
    pub(super) w: i64,
    pub(super) h: i64,
}

impl Rest {
    const NOTHING: Rest = Rest {
        cost: 0,
        badness: 0.0,
        lines: 0,
        w: 0,
        h: 0,
    };

    fn better_of(a: Option<Rest>, b: Rest) -> Rest {
        let Some(a) = a else { return b };
        Rest {
            cost: a.cost.min(b.cost),
            badness: a.badness.min(b.badness),
            lines: a.lines.min(b.lines),
            w: a.w.min(b.w),
            h: a.h.min(b.h),
        }
    }
}

/// All lines that a text could have.
pub(super) struct LinesOfText {
    count: usize,
    /// By set, first word and number of words less one.
    least: Vec<Vec<Vec<Option<Least>>>>,
}

impl LinesOfText {
    pub(super) fn new(words: &Words, sets: &[InSet]) -> LinesOfText {
        let count = sets.first().map_or(0, |s| s.words.len());
        let of_set = |set: &InSet| {
            let mut lines = vec![vec![None; count]; count];
            if words.lines == Lines::Count(1) && count > 0 {
                lines[0][count - 1] = least(words, set, &(0..count));
                return lines;
            }
            for (from, lines) in lines.iter_mut().enumerate() {
                for to in from + 1..=count {
                    // Where letters lack for a line, they lack for a longer one.
                    let Some(found) = least(words, set, &(from..to)) else {
                        break;
                    };
                    lines[to - from - 1] = Some(found);
                }
            }
            lines
        };
        LinesOfText {
            count,
            least: sets.iter().map(of_set).collect(),
        }
    }

    /// What a line takes at least; none where its letters lack.
    pub(super) fn least(&self, set: usize, line: &Range<usize>) -> Option<Least> {
        self.least[set][line.start][line.len() - 1]
    }

    /// By how many lines are still to come and from which word: what the rest takes at least. `keeps` says which lines count.
    pub(super) fn rests(&self, keeps: impl Fn(&Least) -> bool) -> Vec<Vec<Option<Rest>>> {
        let n = self.count;
        let mut rests: Vec<Vec<Option<Rest>>> = vec![vec![None; n + 1]; n + 1];
        rests[0][n] = Some(Rest::NOTHING);
        for lines in 1..=n {
            for from in (0..n).rev() {
                let mut best = None;
                for to in from + 1..=n {
                    let Some(after) = rests[lines - 1][to] else {
                        continue;
                    };
                    for set in &self.least {
                        let line = set[from][to - from - 1].filter(|l| keeps(l));
                        let Some(line) = line else { continue };
                        let with = Rest {
                            cost: line.cost + after.cost,
                            badness: line.badness.unwrap_or_default() + after.badness,
                            lines,
                            w: line.w.max(after.w),
                            h: line.h + after.h,
                        };
                        best = Some(Rest::better_of(best, with));
                    }
                }
                rests[lines][from] = best;
            }
        }
        rests
    }
}

/// From any number of lines: what the words from each place on take at least.
pub(super) fn in_any_lines(rests: &[Vec<Option<Rest>>]) -> Vec<Option<Rest>> {
    let places = rests.first().map_or(0, Vec::len);
    (0..places)
        .map(|from| {
            let all = rests.iter().filter_map(|r| r[from]);
            all.fold(None, |best, rest| Some(Rest::better_of(best, rest)))
        })
        .collect()
}

fn least(words: &Words, set: &InSet, line: &Range<usize>) -> Option<Least> {
    let met = set.met(std::slice::from_ref(line));
    if !met.wholly() {
        return None;
    }
    let letters = || set.words[line.clone()].iter().flatten();
    let least_of = |letter: &usize, side: fn(&Source) -> i64| {
        let sides = set.sources[*letter].iter().map(side);
        sides.min().unwrap_or_default()
    };
    let w: i64 = letters().map(|l| least_of(l, |s| s.w)).sum();
    let highest = |side: fn(&Source) -> i64| letters().map(|l| least_of(l, side)).max();
    let h = highest(|s| s.h).unwrap_or_default() + highest(|s| s.below).unwrap_or_default();
    let (gaps, word_gaps) = set.gaps(line);
    let between =
        gaps as i64 * words.gap.least.ticks() + word_gaps as i64 * words.word_gap.least.ticks();
    let squeezed = squeeze(
        words.space.w.ticks() - w,
        (gaps, words.gap),
        (word_gaps, words.word_gap),
    );
    Some(Least {
        cost: met.cost,
        w: w + between,
        h,
        badness: squeezed.map(|s| s.badness),
    })
}
