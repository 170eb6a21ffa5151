//! The search for settings: best first over breaks of lines and a set for each, so that what comes out first can't be bettered.

use super::gaps::squeeze;
use super::lines::{LinesOfText, Rest, in_any_lines};
use super::pieces::{InSet, Limits, Use};
use super::request::{Lines, Words};
use super::supply::{Demand, met};
use std::cell::RefCell;
use std::cmp::Ordering;
use std::collections::{BTreeMap, BinaryHeap, HashMap};
use std::ops::Range;

/// How many part settings are looked at before the first whole one is found, and after it for others.
const MOST_STEPS: usize = 60_000;
const STEPS_FOR_MORE: usize = 1_500;
/// Badness is compared in steps of this.
const SAME: f64 = 1e-9;

/// What is looked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Goal {
    /// A setting in the space: cheapest, then least bad, fewest lines, fewest sets.
    Fits,
    /// The smallest width at the space's height, then the least height.
    Narrowest,
    /// The smallest height at any width, then the least width.
    Lowest,
}

/// A setting's worth, compared from the first number on; less is better.
type Worth = [f64; 4];

/// Lines of a text, each in its set, and which pieces they use.
#[derive(Clone, Debug)]
pub(super) struct Setting {
    pub(super) worth: Worth,
    pub(super) lines: Vec<(usize, Range<usize>)>,
    /// For each set that is used: its lines by their numbers, and the use of its pieces.
    pub(super) uses: Vec<(usize, Vec<usize>, Use)>,
}

struct Open {
    worth: Worth,
    lines: Vec<(usize, Range<usize>)>,
    /// A whole setting whose worth is exact.
    setting: Option<Setting>,
}

impl Open {
    fn words(&self) -> usize {
        self.lines.last().map_or(0, |l| l.1.end)
    }
}

impl PartialEq for Open {
    fn eq(&self, other: &Open) -> bool {
        self.cmp(other) == Ordering::Equal
    }
}

impl Eq for Open {}

impl PartialOrd for Open {
    fn partial_cmp(&self, other: &Open) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}

impl Ord for Open {
    /// The greatest is looked at first: the best worth, then what is furthest on.
    fn cmp(&self, other: &Open) -> Ordering {
        let worth = |a: &Worth, b: &Worth| {
            let differ = a.iter().zip(b).map(|(a, b)| b.total_cmp(a));
            differ
                .into_iter()
                .find(|o| o.is_ne())
                .unwrap_or(Ordering::Equal)
        };
        worth(&self.worth, &other.worth)
            .then(self.setting.is_some().cmp(&other.setting.is_some()))
            .then(self.words().cmp(&other.words()))
            .then_with(|| {
                let key = |o: &Open| -> Vec<(usize, usize)> {
                    o.lines.iter().map(|(s, r)| (*s, r.end)).collect()
                };
                key(other).cmp(&key(self))
            })
    }
}

/// A text in all its sets, ready to be searched.
pub(super) struct Search<'a> {
    words: &'a Words,
    pub(super) sets: &'a [InSet],
    all_lines: LinesOfText,
    count: usize,
    /// Whether pieces may lack somewhere, so that lines get in each other's way.
    scarce: bool,
    /// From each word on, the letters to be had from any set.
    free: Vec<Vec<Demand>>,
    /// By the set that each word so far is in: what the pieces cost at least.
    costs: RefCell<HashMap<Vec<usize>, Option<i64>>>,
}

impl<'a> Search<'a> {
    pub(super) fn new(words: &'a Words, sets: &'a [InSet]) -> Search<'a> {
        let count = sets.first().map_or(0, |s| s.words.len());
        let whole = 0..count;
        let is_scarce = |set: &InSet| {
            let met = set.met(std::slice::from_ref(&whole));
            met.cost > 0 || !met.wholly()
        };
        Search {
            words,
            sets,
            all_lines: LinesOfText::new(words, sets),
            count,
            scarce: sets.iter().any(is_scarce),
            free: (0..=count).map(|from| free_demands(sets, from)).collect(),
            costs: RefCell::default(),
        }
    }

    /// The best settings, best first, up to so many.
    pub(super) fn best(&self, goal: Goal, most: usize) -> Vec<Setting> {
        let h = self.words.space.h.ticks();
        let rests = self.all_lines.rests(|line| match goal {
            Goal::Fits => line.badness.is_some() && line.h <= h,
            Goal::Narrowest => line.h <= h,
            Goal::Lowest => true,
        });
        let any = in_any_lines(&rests);
        let rest = |lines: usize, from: usize| -> Option<Rest> {
            match self.words.lines {
                Lines::Any => any[from],
                Lines::Count(all) => all
                    .checked_sub(lines)
                    .and_then(|left| *rests.get(left)?.get(from)?),
            }
        };
        let mut open = BinaryHeap::new();
        let mut found: Vec<Setting> = Vec::new();
        let start = Open {
            worth: [0.0; 4],
            lines: Vec::new(),
            setting: None,
        };
        open.push(start);
        let mut steps = 0;
        while let Some(next) = open.pop() {
            if let Some(setting) = next.setting {
                found.push(setting);
                if found.len() == most {
                    break;
                }
                continue;
            }
            steps += 1;
            if steps > MOST_STEPS || (!found.is_empty() && steps > STEPS_FOR_MORE) {
                break;
            }
            if next.words() == self.count {
                if let Some(setting) = self.whole(goal, &next.lines) {
                    open.push(Open {
                        worth: setting.worth,
                        lines: next.lines,
                        setting: Some(setting),
                    });
                }
                continue;
            }
            self.widen(goal, &next, &rest, &mut open);
        }
        found
    }

    /// A part setting with each line that can come next.
    fn widen(
        &self,
        goal: Goal,
        next: &Open,
        rest: &dyn Fn(usize, usize) -> Option<Rest>,
        open: &mut BinaryHeap<Open>,
    ) {
        let from = next.words();
        for to in from + 1..=self.count {
            let Some(after) = rest(next.lines.len() + 1, to) else {
                continue;
            };
            for set in 0..self.sets.len() {
                let mut lines = next.lines.clone();
                lines.push((set, from..to));
                if let Some(worth) = self.at_least(goal, &lines, after) {
                    open.push(Open {
                        worth,
                        lines,
                        setting: None,
                    });
                }
            }
        }
    }

    /// What any setting that begins with these lines is worth at best; none where there is none.
    fn at_least(&self, goal: Goal, lines: &[(usize, Range<usize>)], after: Rest) -> Option<Worth> {
        let mut sum = after;
        for (set, line) in lines {
            let least = self.all_lines.least(*set, line)?;
            if goal == Goal::Fits {
                sum.badness += least.badness?;
            }
            sum.cost += least.cost;
            sum.w = sum.w.max(least.w);
            sum.h += least.h;
        }
        sum.lines += lines.len();
        let between = (sum.lines - 1) as i64 * self.words.line_gap.least.ticks();
        let h = sum.h + between;
        if goal != Goal::Lowest && h > self.words.space.h.ticks() {
            return None;
        }
        if self.scarce {
            let set_of_each = lines
                .iter()
                .flat_map(|(set, line)| line.clone().map(|_| *set));
            let mut costs = self.costs.borrow_mut();
            let cost = costs.entry(set_of_each.collect());
            let cost = *cost.or_insert_with(|| self.cost_at_least(lines));
            sum.cost = sum.cost.max(cost?);
        }
        let mut sets: Vec<usize> = lines.iter().map(|l| l.0).collect();
        sets.sort_unstable();
        sets.dedup();
        Some(match goal {
            Goal::Fits => [
                sum.cost as f64,
                in_steps(sum.badness),
                sum.lines as f64,
                sets.len() as f64,
            ],
            Goal::Narrowest => [sum.w as f64, h as f64, 0.0, 0.0],
            Goal::Lowest => [h as f64, sum.w as f64, 0.0, 0.0],
        })
    }

    /// What the pieces cost at least when these lines are in their sets and each letter after them is in any; none where letters lack.
    fn cost_at_least(&self, lines: &[(usize, Range<usize>)]) -> Option<i64> {
        let stock: Vec<u32> = self.sets.iter().flat_map(|s| &s.stock).copied().collect();
        let begins = begins(self.sets);
        let mut demands: Vec<Demand> = Vec::new();
        for (n, set) in self.sets.iter().enumerate() {
            let own = lines.iter().filter(|l| l.0 == n).map(|l| l.1.clone());
            let own: Vec<Range<usize>> = own.collect();
            if own.is_empty() {
                continue;
            }
            for mut demand in set.demands(&own) {
                for from in &mut demand.from {
                    from.0 += begins[n];
                }
                demands.push(demand);
            }
        }
        demands.extend_from_slice(&self.free[lines.last().map_or(0, |l| l.1.end)]);
        let met = met(&demands, &stock);
        met.wholly().then_some(met.cost)
    }

    /// The best use of pieces for whole lines, and what the setting is worth then.
    fn whole(&self, goal: Goal, lines: &[(usize, Range<usize>)]) -> Option<Setting> {
        if goal != Goal::Fits {
            return self.used(goal, lines, None);
        }
        let own_costs = self.by_set(lines).into_iter().map(|(set, numbers)| {
            let own: Vec<Range<usize>> = numbers.iter().map(|n| lines[*n].1.clone()).collect();
            let met = self.sets[set].met(&own);
            met.wholly().then_some((set, met.cost))
        });
        let least: BTreeMap<usize, i64> = own_costs.collect::<Option<_>>()?;
        // The least cost most often has room; only then is a dearer use looked for.
        let cheapest = self.used(goal, lines, Some(&least));
        let is_dear = least.values().any(|c| *c > 0)
            || self
                .sets
                .iter()
                .any(|s| s.sources.iter().any(|s| s.len() > 1));
        match cheapest {
            None if is_dear => {
                let any: BTreeMap<usize, i64> = least.keys().map(|s| (*s, i64::MAX)).collect();
                self.used(goal, lines, Some(&any))
            }
            found => found,
        }
    }

    /// The sets that lines are in, each with its lines' numbers.
    fn by_set(&self, lines: &[(usize, Range<usize>)]) -> BTreeMap<usize, Vec<usize>> {
        let mut by_set: BTreeMap<usize, Vec<usize>> = BTreeMap::new();
        for (n, (set, _)) in lines.iter().enumerate() {
            by_set.entry(*set).or_default().push(n);
        }
        by_set
    }

    fn used(
        &self,
        goal: Goal,
        lines: &[(usize, Range<usize>)],
        most: Option<&BTreeMap<usize, i64>>,
    ) -> Option<Setting> {
        let mut fronts: Vec<Part> = vec![Part::default()];
        for (set, numbers) in self.by_set(lines) {
            let own: Vec<Range<usize>> = numbers.iter().map(|n| lines[*n].1.clone()).collect();
            let uses = self.uses(goal, set, &own, most.and_then(|m| m.get(&set).copied()));
            let of_set: Vec<Part> = uses
                .into_iter()
                .filter_map(|u| self.part(goal, set, (&own, &numbers), u))
                .collect();
            let joined = fronts.iter().flat_map(|a| of_set.iter().map(|b| a.with(b)));
            fronts = unbeaten(joined.collect());
            if fronts.is_empty() {
                return None;
            }
        }
        let sets = self.by_set(lines).len();
        let whole = fronts.into_iter().filter_map(|part| {
            let worth = self.worth(goal, &part, (lines.len(), sets))?;
            Some(Setting {
                worth,
                lines: lines.to_vec(),
                uses: part.uses,
            })
        });
        whole.min_by(|a, b| {
            let differ = a.worth.iter().zip(&b.worth).map(|(a, b)| a.total_cmp(b));
            differ
                .into_iter()
                .find(|o| o.is_ne())
                .unwrap_or(Ordering::Equal)
        })
    }

    fn uses(&self, goal: Goal, set: usize, own: &[Range<usize>], most: Option<i64>) -> Vec<Use> {
        let widths = |line: &Range<usize>| {
            let (gaps, word_gaps) = self.sets[set].gaps(line);
            let (gaps, word_gaps) = (gaps as i64, word_gaps as i64);
            let room = |gap: i64, word_gap: i64| {
                self.words.space.w.ticks() - gaps * gap - word_gaps * word_gap
            };
            let (gap, word_gap) = (self.words.gap, self.words.word_gap);
            (
                room(gap.least.ticks(), word_gap.least.ticks()),
                room(gap.best.ticks(), word_gap.best.ticks()),
            )
        };
        let limits = Limits {
            cost: most,
            widths: (goal == Goal::Fits).then(|| own.iter().map(widths).collect()),
        };
        self.sets[set].uses(own, &limits)
    }

    /// What a set's lines come to with a use of its pieces.
    fn part(
        &self,
        goal: Goal,
        set: usize,
        (own, numbers): (&[Range<usize>], &[usize]),
        used: Use,
    ) -> Option<Part> {
        let (mut badness, mut widest) = (0.0, 0);
        for (line, w) in own.iter().zip(&used.w) {
            let (gaps, word_gaps) = self.sets[set].gaps(line);
            if goal == Goal::Fits {
                let room = self.words.space.w.ticks() - w;
                let found = squeeze(
                    room,
                    (gaps, self.words.gap),
                    (word_gaps, self.words.word_gap),
                )?;
                badness += found.badness;
            } else {
                let between = gaps as i64 * self.words.gap.least.ticks()
                    + word_gaps as i64 * self.words.word_gap.least.ticks();
                widest = widest.max(w + between);
            }
        }
        let h = used.h.iter().sum::<i64>() + used.below.iter().sum::<i64>();
        Some(Part {
            cost: used.cost,
            badness,
            w: widest,
            h,
            uses: vec![(set, numbers.to_vec(), used)],
        })
    }

    fn worth(&self, goal: Goal, part: &Part, (lines, sets): (usize, usize)) -> Option<Worth> {
        let gaps = lines - 1;
        let least = part.h + gaps as i64 * self.words.line_gap.least.ticks();
        let high = self.words.space.h.ticks();
        match goal {
            Goal::Fits => {
                let room = high - part.h;
                let none = (0, self.words.line_gap);
                let between = squeeze(room, (gaps, self.words.line_gap), none)?;
                let badness = in_steps(part.badness + between.badness);
                Some([part.cost as f64, badness, lines as f64, sets as f64])
            }
            Goal::Narrowest => (least <= high).then_some([part.w as f64, least as f64, 0.0, 0.0]),
            Goal::Lowest => Some([least as f64, part.w as f64, 0.0, 0.0]),
        }
    }
}

/// The letters of the words from a place on, each to be had from any set, whose pieces are counted on through all sets. Words that are spelt with
/// as many letters in every set are told letter by letter; where a set spells one with more, it is left out.
fn free_demands(sets: &[InSet], from: usize) -> Vec<Demand> {
    let Some(first) = sets.first() else {
        return Vec::new();
    };
    let mut by_letters: BTreeMap<Vec<usize>, u32> = BTreeMap::new();
    for (word, letters) in first.words.iter().enumerate().skip(from) {
        if sets.iter().any(|s| s.words[word].len() != letters.len()) {
            continue;
        }
        for at in 0..letters.len() {
            let letters = sets.iter().map(|s| s.words[word][at]).collect();
            *by_letters.entry(letters).or_default() += 1;
        }
    }
    let begins = begins(sets);
    let demand = |(letters, count): (Vec<usize>, u32)| {
        let of_each = sets.iter().zip(&begins).zip(letters);
        let from = of_each.flat_map(|((set, begin), letter)| {
            let sources = set.sources[letter].iter();
            sources.map(move |s| (begin + s.piece, s.cost))
        });
        Demand {
            from: from.collect(),
            count,
        }
    };
    by_letters.into_iter().map(demand).collect()
}

/// Where each set's pieces begin when they are counted on through all sets.
fn begins(sets: &[InSet]) -> Vec<usize> {
    let next = |at: &mut usize, set: &InSet| {
        let begin = *at;
        *at += set.stock.len();
        Some(begin)
    };
    sets.iter().scan(0, next).collect()
}

/// Badness in steps, so that the order in which it was summed up decides nothing.
fn in_steps(badness: f64) -> f64 {
    (badness / SAME).round() * SAME
}

/// What lines in some of the sets come to.
#[derive(Clone, Debug, Default)]
struct Part {
    cost: i64,
    badness: f64,
    w: i64,
    h: i64,
    uses: Vec<(usize, Vec<usize>, Use)>,
}

impl Part {
    fn with(&self, other: &Part) -> Part {
        Part {
            cost: self.cost + other.cost,
            badness: self.badness + other.badness,
            w: self.w.max(other.w),
            h: self.h + other.h,
            uses: self.uses.iter().chain(&other.uses).cloned().collect(),
        }
    }

    fn is_no_worse_than(&self, other: &Part) -> bool {
        self.cost <= other.cost
            && self.badness <= other.badness
            && self.w <= other.w
            && self.h <= other.h
    }
}

/// What nothing beats.
fn unbeaten(mut parts: Vec<Part>) -> Vec<Part> {
    parts.sort_by(|a, b| {
        (a.cost, a.w, a.h)
            .cmp(&(b.cost, b.w, b.h))
            .then(a.badness.total_cmp(&b.badness))
    });
    let mut kept: Vec<Part> = Vec::new();
    for one in parts {
        if !kept.iter().any(|k| k.is_no_worse_than(&one)) {
            kept.push(one);
        }
    }
    kept
}
