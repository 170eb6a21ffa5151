//! A setting as it lies in its space: each letter's box, the gaps to the tick, and what it leaves in the sets.

use super::gaps::squeeze;
use super::manner::Manner;
use super::pieces::{InSet, Source};
use super::request::{Align, Words};
use super::search::Setting;
use crate::geometry::Rect;
use crate::length::Length;
use crate::letters::COST_SHARE;
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;
use std::ops::Range;

/// A letter in its place.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PlacedLetter {
    /// What it says.
    pub letter: char,
    /// The piece that it uses up.
    pub of: char,
    /// From the left top corner of the space, before it is turned about its middle.
    pub rect: Rect,
    /// Degrees clockwise.
    pub turn: f64,
    /// Where it begins along its line.
    pub mark: Length,
}

/// A line of letters.
#[derive(Clone, Debug, PartialEq)]
pub struct PlacedLine {
    /// The set.
    pub set: String,
    /// From the top of the space.
    pub baseline: Length,
    /// Between letters.
    pub gap: Length,
    /// Between words.
    pub word_gap: Length,
    /// From left to right, by word.
    pub words: Vec<Vec<PlacedLetter>>,
}

/// One way to set the text.
#[derive(Clone, Debug, PartialEq)]
pub struct Proposal {
    /// How its lines run.
    pub manner: Manner,
    /// What she has to know to lay it so; empty for straight lines.
    pub hint: String,
    /// What is made out of other letters, in costs.
    pub cost: f64,
    /// How far gaps are from the best.
    pub badness: f64,
    /// From top to bottom.
    pub lines: Vec<PlacedLine>,
    /// From the lowest point of a line to the highest of the next.
    pub line_gap: Length,
    /// For each set that is used: how many remain of each piece that was used.
    pub leaves: BTreeMap<String, BTreeMap<char, u32>>,
}

impl Proposal {
    /// Writes it as `metrosk-worded/1` has it.
    pub(super) fn to_json(&self, words: &Words) -> Value {
        let unit = |l: Length| l.to_units(words.unit);
        let letter = |l: &PlacedLetter| {
            let mut written = json!({"letter": l.letter, "of": l.of,
                   "box": {"x": unit(l.rect.x), "y": unit(l.rect.y), "w": unit(l.rect.w), "h": unit(l.rect.h)}});
            if l.turn != 0.0 {
                written["turn"] = json!(l.turn);
            }
            written
        };
        let line = |l: &PlacedLine| {
            let letters: Vec<Value> = l.words.iter().flatten().map(letter).collect();
            json!({"set": l.set, "baseline": unit(l.baseline), "gap": unit(l.gap), "word_gap": unit(l.word_gap), "letters": letters})
        };
        let lines: Vec<Value> = self.lines.iter().map(line).collect();
        let left = |left: &BTreeMap<char, u32>| -> Map<String, Value> {
            let each = left.iter().map(|(c, n)| (c.to_string(), json!(n)));
            each.collect()
        };
        let leaves: Map<String, Value> = self
            .leaves
            .iter()
            .map(|(set, of_set)| (set.clone(), Value::Object(left(of_set))))
            .collect();
        json!({"cost": self.cost, "lines": lines, "line_gap": unit(self.line_gap), "leaves": leaves})
    }
}

/// A line with the source of each of its letters.
struct Spelt<'a> {
    set: &'a InSet,
    line: Range<usize>,
    words: Vec<Vec<(usize, &'a Source)>>,
}

impl Spelt<'_> {
    fn all(&self) -> impl Iterator<Item = &Source> {
        self.words.iter().flatten().map(|l| l.1)
    }

    fn highest(&self, side: fn(&Source) -> i64) -> i64 {
        self.all().map(side).max().unwrap_or_default()
    }
}

/// Places a setting. None where its gaps don't fit, which the search rules out.
pub(super) fn placed(words: &Words, sets: &[InSet], setting: &Setting) -> Option<Proposal> {
    let spelt = spelt(sets, setting);
    let heights = spelt
        .iter()
        .map(|l| l.highest(|s| s.h) + l.highest(|s| s.below));
    let heights: i64 = heights.sum();
    let pairs = spelt.len().saturating_sub(1);
    let space_h = words.space.h.ticks();
    let between = squeeze(
        space_h - heights,
        (pairs, words.line_gap),
        (0, words.line_gap),
    )?;
    let line_gap = (between.gap.floor() as i64).max(words.line_gap.least.ticks());
    let mut y = (space_h - heights - pairs as i64 * line_gap) / 2;
    let mut lines = Vec::new();
    let mut cost = 0;
    let mut badness = between.badness;
    for (line, (set, _)) in spelt.iter().zip(&setting.lines) {
        cost += line.all().map(|s| s.cost).sum::<i64>();
        let (placed, off) = placed_line(words, line, &words.sets[*set].id, y)?;
        badness += off;
        lines.push(placed);
        y += line.highest(|s| s.h) + line.highest(|s| s.below) + line_gap;
    }
    Some(Proposal {
        manner: Manner::Lines,
        hint: String::new(),
        cost: cost as f64 / COST_SHARE,
        badness,
        leaves: leaves(words, sets, &spelt, setting),
        lines,
        line_gap: Length::from_ticks(line_gap),
    })
}

/// Gives each letter of a setting one of the sources that its use takes.
fn spelt<'a>(sets: &'a [InSet], setting: &Setting) -> Vec<Spelt<'a>> {
    let mut taken: BTreeMap<(usize, usize), Vec<usize>> = BTreeMap::new();
    for (_, numbers, used) in &setting.uses {
        for (line, letter, source, count) in &used.chosen {
            let here = taken.entry((numbers[*line], *letter)).or_default();
            here.extend(std::iter::repeat_n(*source, *count as usize));
        }
    }
    let mut take = |line: usize, letter: usize, set: &'a InSet| {
        let source = taken.get_mut(&(line, letter)).and_then(Vec::pop);
        source.map(|n| (letter, &set.sources[letter][n]))
    };
    let lines = setting.lines.iter().enumerate();
    lines
        .map(|(n, (set, line))| {
            let set = &sets[*set];
            let words = set.words[line.clone()].iter();
            Spelt {
                set,
                line: line.clone(),
                words: words
                    .map(|w| w.iter().filter_map(|l| take(n, *l, set)).collect())
                    .collect(),
            }
        })
        .collect()
}

fn placed_line(words: &Words, line: &Spelt<'_>, id: &str, top: i64) -> Option<(PlacedLine, f64)> {
    let letters: i64 = line.all().map(|s| s.w).sum();
    let (gaps, word_gaps) = line.set.gaps(&line.line);
    let space = words.space.w.ticks();
    let squeezed = squeeze(
        space - letters,
        (gaps, words.gap),
        (word_gaps, words.word_gap),
    )?;
    let whole = |gap: f64, least: Length| (gap.floor() as i64).max(least.ticks());
    let gap = whole(squeezed.gap, words.gap.least);
    let word_gap = whole(squeezed.word_gap, words.word_gap.least);
    let left = space - letters - gaps as i64 * gap - word_gaps as i64 * word_gap;
    let mut x = match words.align {
        Align::Left => 0,
        Align::Centre => left / 2,
        Align::Right => left,
    };
    let baseline = top + line.highest(|s| s.h);
    let ticks = Length::from_ticks;
    let mut placed = Vec::new();
    for word in &line.words {
        let mut letters = Vec::new();
        for (letter, source) in word {
            let rect = Rect {
                x: ticks(x),
                y: ticks(baseline - source.h),
                w: ticks(source.w),
                h: ticks(source.h + source.below),
            };
            letters.push(PlacedLetter {
                letter: line.set.letters[*letter],
                of: line.set.pieces[source.piece],
                rect,
                turn: 0.0,
                mark: rect.x,
            });
            x += source.w + gap;
        }
        x += word_gap - gap;
        placed.push(letters);
    }
    let placed = PlacedLine {
        set: id.to_owned(),
        baseline: ticks(baseline),
        gap: ticks(gap),
        word_gap: ticks(word_gap),
        words: placed,
    };
    Some((placed, squeezed.badness))
}

fn leaves(
    words: &Words,
    sets: &[InSet],
    spelt: &[Spelt<'_>],
    setting: &Setting,
) -> BTreeMap<String, BTreeMap<char, u32>> {
    let mut left: BTreeMap<String, BTreeMap<char, u32>> = BTreeMap::new();
    for (line, (set, _)) in spelt.iter().zip(&setting.lines) {
        let of_set = left.entry(words.sets[*set].id.clone()).or_default();
        for source in line.all() {
            let piece = sets[*set].pieces[source.piece];
            let had = sets[*set].stock[source.piece];
            let count = of_set.entry(piece).or_insert(had);
            *count = count.saturating_sub(1);
        }
    }
    left
}
