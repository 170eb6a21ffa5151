//! A text in the letters of one set, and every use of its pieces over some lines that no other use beats.

use super::supply::{Demand, Met, met};
use crate::letters::{Glyph, LetterSet, Make};
use std::collections::BTreeMap;
use std::ops::Range;

/// How many uses are kept at a time; the cheapest and narrowest first. Titles stay far below it.
const MOST_USES: usize = 2_000;

/// One way to get a letter: from which piece, at what cost, how large.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Source {
    /// The place of the piece in the set's stock.
    pub(super) piece: usize,
    pub(super) cost: i64,
    pub(super) w: i64,
    pub(super) h: i64,
    pub(super) below: i64,
}

/// A text in one set.
#[derive(Clone, Debug)]
pub(super) struct InSet {
    /// The pieces there are, and how many of each.
    pub(super) pieces: Vec<char>,
    pub(super) stock: Vec<u32>,
    /// The different letters of the text, and how each can be had.
    pub(super) letters: Vec<char>,
    pub(super) sources: Vec<Vec<Source>>,
    /// The words, each letter by its place in `letters`.
    pub(super) words: Vec<Vec<usize>>,
}

/// Of some lines the letters: how many of each letter in each line.
pub(super) type Wanted = BTreeMap<usize, Vec<u32>>;

/// A use of pieces over some lines.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Use {
    pub(super) cost: i64,
    /// Of each line the width of its letters, and how high and how low they reach.
    pub(super) w: Vec<i64>,
    pub(super) h: Vec<i64>,
    pub(super) below: Vec<i64>,
    /// Line, letter, which of its sources, how many.
    pub(super) chosen: Vec<(usize, usize, usize, u32)>,
}

impl Use {
    fn is_no_worse_than(&self, other: &Use) -> bool {
        let le = |a: &[i64], b: &[i64]| a.iter().zip(b).all(|(a, b)| a <= b);
        self.cost <= other.cost
            && le(&self.w, &other.w)
            && le(&self.h, &other.h)
            && le(&self.below, &other.below)
    }

    fn total(&self) -> (i64, i64) {
        let sum = |v: &[i64]| v.iter().sum::<i64>();
        (self.cost, sum(&self.w) + sum(&self.h) + sum(&self.below))
    }
}

/// What of a use matters.
#[derive(Clone, Debug)]
pub(super) struct Limits {
    /// What it may cost at most; without it costs count for nothing.
    pub(super) cost: Option<i64>,
    /// Of each line the width that its letters may have at most, and the one below which narrower is no better.
    pub(super) widths: Option<Vec<(i64, i64)>>,
}

impl InSet {
    pub(super) fn new(set: &LetterSet, makes: &[Make], text: &str) -> InSet {
        let pieces: Vec<char> = set.letters.keys().copied().collect();
        let stock = set.letters.values().map(|l| l.quantity).collect();
        let said = set.case.of(text);
        let mut letters: Vec<char> = said.chars().filter(|c| *c != ' ').collect();
        letters.sort_unstable();
        letters.dedup();
        let at = |c: char| letters.binary_search(&c).unwrap_or_default();
        let words = said
            .split(' ')
            .filter(|w| !w.is_empty())
            .map(|w| w.chars().map(at).collect())
            .collect();
        let sources = letters
            .iter()
            .map(|c| sources(set, makes, &pieces, *c))
            .collect();
        InSet {
            pieces,
            stock,
            letters,
            sources,
            words,
        }
    }

    /// The letters of some lines.
    pub(super) fn wanted(&self, lines: &[Range<usize>]) -> Wanted {
        let mut wanted = Wanted::new();
        for (n, line) in lines.iter().enumerate() {
            for letter in self.words[line.clone()].iter().flatten() {
                wanted
                    .entry(*letter)
                    .or_insert_with(|| vec![0; lines.len()])[n] += 1;
            }
        }
        wanted
    }

    /// Of some lines, each letter as a demand for pieces.
    pub(super) fn demands(&self, lines: &[Range<usize>]) -> Vec<Demand> {
        let wanted = self.wanted(lines);
        let demand = |(letter, counts): (&usize, &Vec<u32>)| Demand {
            from: self.sources[*letter]
                .iter()
                .map(|s| (s.piece, s.cost))
                .collect(),
            count: counts.iter().sum(),
        };
        wanted.iter().map(demand).collect()
    }

    /// How well the letters of some lines can be had.
    pub(super) fn met(&self, lines: &[Range<usize>]) -> Met {
        met(&self.demands(lines), &self.stock)
    }

    /// Letter gaps and word gaps of a line.
    pub(super) fn gaps(&self, line: &Range<usize>) -> (usize, usize) {
        let words = &self.words[line.clone()];
        (
            words.iter().map(|w| w.len() - 1).sum(),
            words.len().saturating_sub(1),
        )
    }

    /// The uses of pieces for some lines that no other beats; none where letters lack or nothing keeps the limits.
    pub(super) fn uses(&self, lines: &[Range<usize>], limits: &Limits) -> Vec<Use> {
        let wanted = self.wanted(lines);
        let Some(plain) = self.plain(&wanted) else {
            return Vec::new();
        };
        let mut first = Use {
            cost: 0,
            w: vec![0; lines.len()],
            h: vec![0; lines.len()],
            below: vec![0; lines.len()],
            chosen: Vec::new(),
        };
        let mut stock = self.stock.clone();
        let mut free = Vec::new();
        for (letter, counts) in &wanted {
            match plain.get(letter) {
                Some(source) => {
                    for (line, count) in counts.iter().enumerate() {
                        if *count > 0 {
                            take(
                                &mut first,
                                &self.sources[*letter],
                                (line, *letter, *source),
                                *count,
                            );
                            stock[self.sources[*letter][*source].piece] -= count;
                        }
                    }
                }
                None => {
                    let lines = counts.iter().enumerate().filter(|(_, n)| **n > 0);
                    free.extend(lines.map(|(line, count)| (*letter, line, *count)));
                }
            }
        }
        // A letter that reaches no higher than the lowest choice of another in its line makes no difference.
        for (letter, line, _) in &free {
            let least = |side: fn(&Source) -> i64| self.sources[*letter].iter().map(side).min();
            first.h[*line] = first.h[*line].max(least(|s| s.h).unwrap_or_default());
            first.below[*line] = first.below[*line].max(least(|s| s.below).unwrap_or_default());
        }
        self.fronts(first, stock, &free, limits)
    }

    /// Letters that are had in one way whatever the others need: their own piece beats every other source, and there are enough. None where
    /// a letter has no source at all.
    fn plain(&self, wanted: &Wanted) -> Option<BTreeMap<usize, usize>> {
        let mut asked = vec![0_u32; self.stock.len()];
        for (letter, counts) in wanted {
            if self.sources[*letter].is_empty() {
                return None;
            }
            let mut pieces: Vec<usize> = self.sources[*letter].iter().map(|s| s.piece).collect();
            pieces.dedup();
            for piece in pieces {
                asked[piece] += counts.iter().sum::<u32>();
            }
        }
        let beats = |a: &Source, b: &Source| {
            a.cost <= b.cost && a.w <= b.w && a.h <= b.h && a.below <= b.below
        };
        let plain = |letter: usize| {
            let sources = &self.sources[letter];
            let best = sources
                .iter()
                .position(|a| sources.iter().all(|b| beats(a, b)))?;
            let piece = sources[best].piece;
            (asked[piece] <= self.stock[piece]).then_some(best)
        };
        let found = wanted.keys().filter_map(|l| plain(*l).map(|s| (*l, s)));
        Some(found.collect())
    }

    /// Letter by letter and line by line, all ways to share it out over its sources; of those that leave the same stock only what nothing beats.
    fn fronts(
        &self,
        first: Use,
        stock: Vec<u32>,
        free: &[(usize, usize, u32)],
        limits: &Limits,
    ) -> Vec<Use> {
        // How much wider each line can still get: below that, narrower is no better.
        let widest = |letter: usize| self.sources[letter].iter().map(|s| s.w).max();
        let mut to_come = vec![0_i64; first.w.len()];
        for (letter, line, count) in free {
            to_come[*line] += widest(*letter).unwrap_or_default() * i64::from(*count);
        }
        let mut states: BTreeMap<Vec<u32>, Vec<Use>> = BTreeMap::from([(stock, vec![first])]);
        for (letter, line, count) in free {
            to_come[*line] -= widest(*letter).unwrap_or_default() * i64::from(*count);
            let mut next: BTreeMap<Vec<u32>, Vec<Use>> = BTreeMap::new();
            for (stock, uses) in &states {
                for taken in self.ways(*letter, *count, stock) {
                    let mut left = stock.clone();
                    for (source, n) in taken.iter().enumerate() {
                        left[self.sources[*letter][source].piece] -= n;
                    }
                    let here = next.entry(left).or_default();
                    for before in uses {
                        let mut after = before.clone();
                        for (source, n) in taken.iter().enumerate().filter(|(_, n)| **n > 0) {
                            take(
                                &mut after,
                                &self.sources[*letter],
                                (*line, *letter, source),
                                *n,
                            );
                        }
                        if keeps(&mut after, limits, &to_come) {
                            here.push(after);
                        }
                    }
                }
            }
            states = next
                .into_iter()
                .map(|(stock, uses)| (stock, unbeaten(uses)))
                .filter(|(_, uses)| !uses.is_empty())
                .collect();
            bound(&mut states);
        }
        let settled = vec![0; to_come.len()];
        let all = states.into_values().flatten();
        unbeaten(
            all.filter_map(|mut u| keeps(&mut u, limits, &settled).then_some(u))
                .collect(),
        )
    }

    /// All ways to take so many of a letter out of its sources.
    fn ways(&self, letter: usize, count: u32, stock: &[u32]) -> Vec<Vec<u32>> {
        let sources = &self.sources[letter];
        let mut ways = vec![(Vec::new(), count)];
        for (n, source) in sources.iter().enumerate() {
            let is_last = n + 1 == sources.len();
            ways = ways
                .into_iter()
                .flat_map(|(taken, left): (Vec<u32>, u32)| {
                    let before = sources[..n].iter().zip(&taken);
                    let same = before.filter(|(s, _)| s.piece == source.piece);
                    let used: u32 = same.map(|(_, n)| *n).sum();
                    let most = left.min(stock[source.piece].saturating_sub(used));
                    let from = if is_last { left } else { 0 };
                    (from..=most).map(move |n| {
                        let mut taken = taken.clone();
                        taken.push(n);
                        (taken, left - n)
                    })
                })
                .collect();
        }
        ways.into_iter().map(|(taken, _)| taken).collect()
    }
}

/// A letter's sources: its own piece, then what it can be made of.
fn sources(set: &LetterSet, makes: &[Make], pieces: &[char], letter: char) -> Vec<Source> {
    let source = |piece: char, cost: i64, glyph: Glyph| {
        let at = pieces.binary_search(&piece).ok()?;
        Some(Source {
            piece: at,
            cost,
            w: glyph.w.ticks(),
            h: glyph.h.ticks(),
            below: glyph.below.ticks(),
        })
    };
    let own = set
        .letters
        .get(&letter)
        .and_then(|l| source(letter, 0, l.glyph));
    let of_this = makes
        .iter()
        .filter(|m| m.set == set.id && m.letter == letter);
    own.into_iter()
        .chain(of_this.filter_map(|m| source(m.of, m.cost, m.glyph)))
        .collect()
}

fn take(to: &mut Use, sources: &[Source], (line, letter, at): (usize, usize, usize), count: u32) {
    let source = &sources[at];
    to.cost += source.cost * i64::from(count);
    to.w[line] += source.w * i64::from(count);
    to.h[line] = to.h[line].max(source.h);
    to.below[line] = to.below[line].max(source.below);
    to.chosen.push((line, letter, at, count));
}

/// Whether a use keeps the limits; widths that can't matter any more are made alike.
fn keeps(a: &mut Use, limits: &Limits, to_come: &[i64]) -> bool {
    match limits.cost {
        Some(most) if a.cost > most => return false,
        Some(_) => {}
        None => a.cost = 0,
    }
    let Some(widths) = &limits.widths else {
        return true;
    };
    for ((w, (most, enough)), to_come) in a.w.iter_mut().zip(widths).zip(to_come) {
        if *w > *most {
            return false;
        }
        *w = (*w).max(enough - to_come);
    }
    true
}

/// What nothing beats.
fn unbeaten(mut uses: Vec<Use>) -> Vec<Use> {
    uses.sort_by_key(Use::total);
    let mut kept: Vec<Use> = Vec::new();
    for one in uses {
        if !kept.iter().any(|k| k.is_no_worse_than(&one)) {
            kept.push(one);
        }
    }
    kept
}

/// Keeps the number of uses within bounds.
fn bound(states: &mut BTreeMap<Vec<u32>, Vec<Use>>) {
    let count: usize = states.values().map(Vec::len).sum();
    if count <= MOST_USES {
        return;
    }
    let mut totals: Vec<(i64, i64)> = states.values().flatten().map(Use::total).collect();
    totals.sort_unstable();
    let last = totals[MOST_USES - 1];
    states.retain(|_, uses| {
        uses.retain(|u| u.total() <= last);
        !uses.is_empty()
    });
}
