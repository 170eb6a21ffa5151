//! A page's title in the letters of the stash: every sensible setting, what each is made of, spends and leaves.

use super::decisions::{TakenLine, Title, Uses};
use super::gaps::Bounds;
use super::manner::Manner;
use super::placing::{PlacedLetter, PlacedLine, Proposal};
use super::request::Words;
use super::worded::Worded;
use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::letters::{KeptLetters, MadeLetter};
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;
use unicode_normalization::UnicodeNormalization;

/// A letter set of the stash, and what other pages have taken of it.
#[derive(Clone, Debug)]
pub struct SetInStash {
    /// Its id.
    pub id: String,
    /// What she calls it.
    pub name: String,
    /// What it is.
    pub kept: KeptLetters,
    /// How many of each letter other pages spend.
    pub taken: BTreeMap<char, u32>,
}

/// A title's settings.
#[derive(Clone, Debug)]
pub struct TitleSettings<'a> {
    words: Words,
    sets: &'a [SetInStash],
    made: Vec<MadeLetter>,
    /// How it can be set on straight lines.
    pub worded: Worded,
    /// Every way to set it, straight or not, best first.
    pub ways: Vec<Proposal>,
}

const fn bounds(least: (i64, i64), best: (i64, i64), most: (i64, i64)) -> Bounds {
    Bounds {
        least: Length::inches(least.0, least.1),
        best: Length::inches(best.0, best.1),
        most: Length::inches(most.0, most.1),
    }
}

/// Gaps as makers lay them: closer than the least letters touch, farther than the most a word falls apart.
const GAP: Bounds = bounds((1, 32), (1, 8), (3, 8));
const WORD_GAP: Bounds = bounds((1, 4), (1, 2), (1, 1));
const LINE_GAP: Bounds = bounds((1, 16), (1, 4), (1, 2));

impl Title {
    /// Sets a text as this title is to be set; `None` where it has no letters, or there is no set to set it in.
    #[must_use]
    pub fn settings<'a>(
        &self,
        text: &str,
        space: Size,
        unit: Unit,
        sets: &'a [SetInStash],
    ) -> Option<TitleSettings<'a>> {
        // A letter and an accent that were typed one after the other are one character.
        let text: String = text.replace('’', "'").nfc().collect();
        let may_be_used = |s: &&SetInStash| self.sets.is_empty() || self.sets.contains(&s.id);
        let used: Vec<&SetInStash> = sets.iter().filter(may_be_used).collect();
        if text.trim().is_empty() || used.is_empty() {
            return None;
        }
        let made: Vec<MadeLetter> = used
            .iter()
            .flat_map(|s| s.kept.makes(&s.id, &text, &s.taken))
            .collect();
        let words = Words {
            unit,
            space,
            lines: self.lines,
            align: self.align,
            sets: used
                .iter()
                .map(|s| s.kept.set(&s.id, &text, &s.taken))
                .collect(),
            makes: made.iter().map(|m| m.make.clone()).collect(),
            gap: GAP,
            word_gap: WORD_GAP,
            line_gap: LINE_GAP,
            text,
        };
        let worded = words.worded();
        let mut ways = match &worded {
            Worded::Set(plain) => plain.clone(),
            _ => Vec::new(),
        };
        if !matches!(worded, Worded::TooManyLines { .. }) {
            let others = words.in_other_manners(&ways, self.stagger);
            ways.extend(others);
        }
        // What is made out of other letters weighs most; a straight line is laid more easily than a bent one.
        ways.sort_by(|a, b| a.cost.total_cmp(&b.cost).then(a.manner.cmp(&b.manner)));
        Some(TitleSettings {
            words,
            sets,
            made,
            worded,
            ways,
        })
    }
}

impl TitleSettings<'_> {
    /// Writes all settings; the one that she took is marked.
    #[must_use]
    pub fn to_json(&self, title: &Title) -> Value {
        let mut answer = self.worded.to_json(&self.words);
        let all = self.ways.iter().map(|p| self.proposal_json(p, title));
        answer["proposals"] = all.collect();
        if !answer["why"].is_null() {
            answer["why"]["text"] = self.why().into();
        }
        answer
    }

    /// In a few words: what it takes, or why it can't be.
    #[must_use]
    pub fn in_short(&self) -> Value {
        let Some(first) = self.ways.first() else {
            return json!({"fits": false, "cost": null, "text": self.why()});
        };
        let made = self.made_in(first);
        let text = match (made.is_empty(), first.manner) {
            (true, Manner::Lines) => "with the letters that are left".to_owned(),
            (true, _) => self.name_of(first),
            _ => made.join("; "),
        };
        json!({"fits": true, "cost": first.cost, "text": text})
    }

    /// Why it can't be set, with sets by their names.
    fn why(&self) -> String {
        let Worded::Lacks(lacking) = &self.worded else {
            return self.worded.why(&self.words);
        };
        let of_set = |(id, letters): (&String, &BTreeMap<char, u32>)| {
            let each: Vec<String> = letters
                .iter()
                .map(|(c, n)| {
                    if *n == 1 {
                        format!("one {c}")
                    } else {
                        format!("{n} {c}")
                    }
                })
                .collect();
            format!("{} lacks {}", self.name(id), listed(&each))
        };
        let all: Vec<String> = lacking.iter().map(of_set).collect();
        format!("There are not enough letters: {}.", all.join("; "))
    }

    fn name<'n>(&'n self, id: &'n str) -> &'n str {
        let set = self.sets.iter().find(|s| s.id == id);
        set.map_or(id, |s| s.name.as_str())
    }

    fn proposal_json(&self, proposal: &Proposal, title: &Title) -> Value {
        let mut written = proposal.to_json(&self.words);
        for (line, at) in proposal.lines.iter().zip(0..) {
            let letters: usize = line.words.iter().map(Vec::len).sum();
            let laying = if proposal.manner == Manner::Overlapped {
                // Each lies over the one before: there is one order only.
                (0..letters).collect()
            } else {
                title.laying.order(letters)
            };
            written["lines"][at]["order"] = json!(laying);
            for (n, letter) in line.words.iter().flatten().enumerate() {
                written["lines"][at]["letters"][n]["mark"] =
                    json!(letter.mark.to_units(self.words.unit));
            }
            written["lines"][at]["sum"] = self.sum_json(line);
        }
        let uses = self.uses(proposal);
        let uses: Map<String, Value> = uses
            .iter()
            .map(|(set, letters)| {
                let each = letters.iter().map(|(c, n)| (c.to_string(), json!(n)));
                (set.clone(), Value::Object(each.collect()))
            })
            .collect();
        let taken = proposal.as_taken();
        let as_document = |l: &TakenLine| json!({"set": l.set, "words": l.words});
        written["name"] = self.name_of(proposal).into();
        written["manner"] = proposal.manner.name().into();
        written["hint"] = proposal.hint.as_str().into();
        written["made"] = self.made_in(proposal).into();
        written["last"] = self.last_of(proposal).into();
        written["uses"] = Value::Object(uses);
        written["is_taken"] = (taken == title.taken && proposal.manner == title.manner).into();
        written["taken"] = taken.iter().map(as_document).collect();
        written
    }

    /// How a line's width adds up.
    fn sum_json(&self, line: &PlacedLine) -> Value {
        let unit = self.words.unit;
        let letters: usize = line.words.iter().map(Vec::len).sum();
        let width: i64 = line.words.iter().flatten().map(|l| l.rect.w.ticks()).sum();
        let words = line.words.len();
        let (gaps, word_gaps) = (letters - words, words - 1);
        let together =
            width + gaps as i64 * line.gap.ticks() + word_gaps as i64 * line.word_gap.ticks();
        let units = |ticks| Length::from_ticks(ticks).to_units(unit);
        json!({"letters": units(width), "gaps": gaps, "word_gaps": word_gaps, "together": units(together)})
    }

    /// “Cork over Pebble”, “Cork on an arc”.
    fn name_of(&self, proposal: &Proposal) -> String {
        let names: Vec<&str> = proposal.lines.iter().map(|l| self.name(&l.set)).collect();
        let straight = straight(&names);
        match proposal.manner {
            Manner::Lines => straight,
            Manner::Staggered => format!("{straight}, up and down"),
            Manner::Mixed => names.join(", then "),
            Manner::Tops => format!("{} by its tops", names[0]),
            Manner::Arc => format!("{} on an arc", names[0]),
            Manner::Spread => format!("{} spread like brush writing", names[0]),
            Manner::Standing => {
                format!("{} down a column, letters standing", names.join(" beside "))
            }
            Manner::Turned => format!("{straight}, turned up the side"),
            Manner::RoundCorner if names.iter().all(|n| n == &names[0]) => {
                format!("{} round the corner", names[0])
            }
            Manner::RoundCorner => format!("{} round the corner", names.join(" and ")),
            Manner::Overlapped => format!("{} laid like tiles", names[0]),
        }
    }

    /// How a letter is made that is no piece of its own.
    fn made_as(&self, set: &str, letter: &PlacedLetter) -> Option<&MadeLetter> {
        let is_it = |m: &&MadeLetter| {
            m.make.set == set && m.make.letter == letter.letter && m.make.of == letter.of
        };
        self.made.iter().find(is_it)
    }

    /// The pieces that a proposal spends: a letter's own, and what goes into it besides.
    fn uses(&self, proposal: &Proposal) -> Uses {
        let mut uses = proposal.uses();
        for line in &proposal.lines {
            for letter in line.words.iter().flatten() {
                let made = self.made_as(&line.set, letter);
                let with = made.filter(|_| letter.letter != letter.of);
                if let Some(with) = with.and_then(|m| m.with) {
                    let of_set = uses.entry(line.set.clone()).or_default();
                    *of_set.entry(with).or_default() += 1;
                }
            }
        }
        uses
    }

    /// What is made out of other letters: “an N out of a Z, a quarter turn”.
    fn made_in(&self, proposal: &Proposal) -> Vec<String> {
        let mut counts: BTreeMap<(char, char, &str), usize> = BTreeMap::new();
        for line in &proposal.lines {
            for letter in line.words.iter().flatten().filter(|l| l.letter != l.of) {
                let made = self.made_as(&line.set, letter);
                let how = made.map_or("", |m| m.how.as_str());
                *counts.entry((letter.letter, letter.of, how)).or_default() += 1;
            }
        }
        let told = |((letter, of, how), count): ((char, char, &str), usize)| {
            if count == 1 {
                format!("{letter} out of {of}, {how}")
            } else {
                format!("{count} {letter} out of {count} {of}, {how}")
            }
        };
        counts.into_iter().map(told).collect()
    }

    /// Letters of which it takes the last.
    fn last_of(&self, proposal: &Proposal) -> Vec<String> {
        let of_set = |(set, left): (&String, &BTreeMap<char, u32>)| {
            let gone = left.iter().filter(|(_, n)| **n == 0);
            let each: Vec<String> = gone.map(|(c, _)| c.to_string()).collect();
            (!each.is_empty()).then(|| format!("{} of {}", listed(&each), self.name(set)))
        };
        proposal.leaves.iter().filter_map(of_set).collect()
    }
}

impl Proposal {
    /// The letters that it spends.
    #[must_use]
    pub fn uses(&self) -> Uses {
        let mut uses = Uses::new();
        for line in &self.lines {
            let of_set = uses.entry(line.set.clone()).or_default();
            for letter in line.words.iter().flatten() {
                *of_set.entry(letter.of).or_default() += 1;
            }
        }
        uses
    }

    /// As a title writes down that she took it.
    fn as_taken(&self) -> Vec<TakenLine> {
        let line = |l: &PlacedLine| TakenLine {
            set: l.set.clone(),
            words: l.words.len(),
        };
        self.lines.iter().map(line).collect()
    }
}

/// Lines in these sets, top to bottom.
fn straight(names: &[&str]) -> String {
    match names {
        [one] => format!("One line of {one}"),
        all if all.iter().all(|n| n == &all[0]) => format!("{} on {} lines", all[0], all.len()),
        all => all.join(" over "),
    }
}

fn listed(words: &[String]) -> String {
    match words {
        [] => String::new(),
        [one] => one.clone(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}
