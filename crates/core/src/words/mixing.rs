//! One line in two sets: the last words in another one. Both are searched as one set in which the second set's letters have names of their own,
//! so that the best use over the whole line is found.

use super::manner::{Manner, best_few};
use super::placing::{PlacedLine, Proposal};
use super::request::{Lines, Words};
use crate::length::Length;
use crate::letters::{Case, LetterSet, Make};
use std::collections::BTreeMap;

/// Where letters of the second set are named: a plane of characters that no text has.
const SECOND: u32 = 0xF_0000;
const BOTH: &str = "both";

fn named_second(letter: char) -> Option<char> {
    let code = u32::from(letter);
    (code < 0xFFFE)
        .then(|| char::from_u32(SECOND + code))
        .flatten()
}

fn own_name(letter: char) -> Option<char> {
    u32::from(letter)
        .checked_sub(SECOND)
        .and_then(char::from_u32)
}

/// The best lines in two sets: the break is after the first word or before the last one.
pub(super) fn mixed(words: &Words) -> Vec<Proposal> {
    let count = words.each_word().len();
    if count < 2 || !matches!(words.lines, Lines::Any | Lines::Count(1)) {
        return Vec::new();
    }
    let mut breaks = vec![count - 1, 1];
    breaks.dedup();
    let narrow: Vec<Vec<Option<i64>>> = words.sets.iter().map(|s| narrowest(words, s)).collect();
    let mut all = Vec::new();
    for (first, narrow_first) in words.sets.iter().zip(&narrow) {
        for (second, narrow_second) in words.sets.iter().zip(&narrow) {
            if first.id == second.id {
                continue;
            }
            let may_fit = |at: &&usize| {
                let each = narrow_first[..**at].iter().chain(&narrow_second[**at..]);
                let letters: Option<i64> = each.copied().sum();
                let gaps = (count - 1) as i64 * words.word_gap.least.ticks();
                letters.is_some_and(|w| w + gaps <= words.space.w.ticks())
            };
            let fitting = breaks.iter().filter(may_fit);
            all.extend(fitting.filter_map(|at| in_two(words, first, second, *at)));
        }
    }
    best_few(all)
}

/// Of each word, how narrow it could be in a set at least, in ticks; none where a letter can't be had.
pub(super) fn narrowest(words: &Words, set: &LetterSet) -> Vec<Option<i64>> {
    let letter = |c: char| {
        let own = set.letters.get(&c).map(|l| l.glyph.w);
        let made = words.makes.iter();
        let made = made.filter(|m| m.set == set.id && m.letter == c);
        let narrowest = own.into_iter().chain(made.map(|m| m.glyph.w)).min();
        narrowest.map(Length::ticks)
    };
    let word = |text: &&str| {
        let said = set.case.of(text);
        let gaps = said.chars().count().saturating_sub(1) as i64 * words.gap.least.ticks();
        let letters: Option<i64> = said.chars().map(letter).sum();
        letters.map(|w| w + gaps)
    };
    words.each_word().iter().map(word).collect()
}

fn in_two(words: &Words, first: &LetterSet, second: &LetterSet, at: usize) -> Option<Proposal> {
    let each = words.each_word();
    let renamed: Option<String> = second
        .case
        .of(&each[at..].join(" "))
        .chars()
        .map(|c| if c == ' ' { Some(' ') } else { named_second(c) })
        .collect();
    let mut letters = first.letters.clone();
    letters.extend(
        second
            .letters
            .iter()
            .filter_map(|(c, l)| Some((named_second(*c)?, *l))),
    );
    let make = |m: &Make| {
        let both = BOTH.to_owned();
        if m.set == first.id {
            return Some(Make {
                set: both,
                ..m.clone()
            });
        }
        let is_second = m.set == second.id;
        is_second
            .then(|| {
                Some(Make {
                    set: both,
                    letter: named_second(m.letter)?,
                    of: named_second(m.of)?,
                    ..m.clone()
                })
            })
            .flatten()
    };
    let line = Words {
        text: format!("{} {}", first.case.of(&each[..at].join(" ")), renamed?),
        lines: Lines::Count(1),
        sets: vec![LetterSet {
            id: BOTH.to_owned(),
            case: Case::Both,
            letters,
        }],
        makes: words.makes.iter().filter_map(make).collect(),
        ..words.clone()
    };
    let found = line.best(1).pop()?;
    Some(apart(found, (&first.id, &second.id), at))
}

/// The line as two runs, each in its own set.
fn apart(found: Proposal, (first, second): (&str, &str), at: usize) -> Proposal {
    let Proposal { lines, leaves, .. } = &found;
    let whole = &lines[0];
    let run = |set: &str, words: &[Vec<super::placing::PlacedLetter>]| {
        let mut words = words.to_vec();
        for letter in words.iter_mut().flatten() {
            letter.letter = own_name(letter.letter).unwrap_or(letter.letter);
            letter.of = own_name(letter.of).unwrap_or(letter.of);
        }
        PlacedLine {
            set: set.to_owned(),
            words,
            ..whole.clone()
        }
    };
    let runs = vec![
        run(first, &whole.words[..at]),
        run(second, &whole.words[at..]),
    ];
    let mut split: BTreeMap<String, BTreeMap<char, u32>> = BTreeMap::new();
    for (piece, left) in leaves.get(BOTH).into_iter().flatten() {
        let (set, piece) = own_name(*piece).map_or((first, *piece), |own| (second, own));
        split
            .entry(set.to_owned())
            .or_default()
            .insert(piece, *left);
    }
    Proposal {
        manner: Manner::Mixed,
        hint: "Both on one baseline; marks go on through the whole line.".to_owned(),
        lines: runs,
        leaves: split,
        ..found
    }
}
