//! The answer: settings, or what is missing for one.

use super::pieces::InSet;
use super::placing::{Proposal, placed};
use super::request::{Lines, Words};
use super::search::{Goal, Search};
use crate::length::Length;
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;

const ANSWER: &str = "metrosk-worded/1";
/// How many settings are proposed.
const MOST_PROPOSALS: usize = 12;

/// For each set the letters that lack when the whole text is set in it.
pub type Lacking = BTreeMap<String, BTreeMap<char, u32>>;

/// The space that would do.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Needs {
    /// Across.
    pub w: Length,
    /// Down.
    pub h: Length,
}

/// How a text can be set.
#[derive(Clone, Debug, PartialEq)]
pub enum Worded {
    /// In these ways, best first.
    Set(Vec<Proposal>),
    /// More lines are asked for than there are words.
    TooManyLines {
        /// Words.
        words: usize,
    },
    /// Letters lack in every set, and in every mix of sets.
    Lacks(Lacking),
    /// The letters are there, but no space.
    TooSmall(Needs),
}

impl Words {
    /// The best settings, up to so many; none where there is none.
    pub(super) fn best(&self, most: usize) -> Vec<Proposal> {
        let in_set = |set| InSet::new(set, &self.makes, &self.text);
        let sets: Vec<InSet> = self.sets.iter().map(in_set).collect();
        let found = Search::new(self, &sets).best(Goal::Fits, most);
        found
            .iter()
            .filter_map(|s| placed(self, &sets, s))
            .collect()
    }

    /// Sets the text in every way that is sensible, best first.
    #[must_use]
    pub fn worded(&self) -> Worded {
        let in_set = |set| InSet::new(set, &self.makes, &self.text);
        let sets: Vec<InSet> = self.sets.iter().map(in_set).collect();
        let count = sets.first().map_or(0, |s| s.words.len());
        if let Lines::Count(lines) = self.lines
            && lines > count
        {
            return Worded::TooManyLines { words: count };
        }
        let search = Search::new(self, &sets);
        let found = search.best(Goal::Fits, MOST_PROPOSALS);
        if !found.is_empty() {
            let settings = found.iter().filter_map(|s| placed(self, &sets, s));
            return Worded::Set(settings.collect());
        }
        let needs = |worth: Option<[f64; 4]>, w: usize, h: usize| {
            let ticks = |n: f64| Length::from_ticks(n.round() as i64);
            worth.map(|worth| Needs {
                w: ticks(worth[w]),
                h: ticks(worth[h]),
            })
        };
        let first = |goal| search.best(goal, 1).first().map(|s| s.worth);
        let narrow = needs(first(Goal::Narrowest), 0, 1);
        match narrow.or_else(|| needs(first(Goal::Lowest), 1, 0)) {
            Some(needs) => Worded::TooSmall(needs),
            None => Worded::Lacks(self.lacking(&sets)),
        }
    }

    /// The letters that lack when the whole text is set in each set, with the best use of what can be made.
    fn lacking(&self, sets: &[InSet]) -> Lacking {
        let mut lacking = Lacking::new();
        for (set, inside) in self.sets.iter().zip(sets) {
            let whole = 0..inside.words.len();
            let letters = inside.wanted(std::slice::from_ref(&whole));
            let met = inside.met(std::slice::from_ref(&whole));
            let lack = letters.keys().zip(met.lacking).filter(|(_, n)| *n > 0);
            let of_set: BTreeMap<char, u32> = lack.map(|(l, n)| (inside.letters[*l], n)).collect();
            if !of_set.is_empty() {
                lacking.insert(set.id.clone(), of_set);
            }
        }
        lacking
    }
}

impl Worded {
    /// Writes the answer.
    #[must_use]
    pub fn to_json(&self, words: &Words) -> Value {
        let unit = |l: Length| l.to_units(words.unit);
        let mut answer = json!({"format": ANSWER, "unit": words.unit.name(), "proposals": []});
        match self {
            Worded::Set(proposals) => {
                let all = proposals.iter().map(|p| p.to_json(words));
                answer["proposals"] = all.collect();
                return answer;
            }
            Worded::TooManyLines { .. } => answer["why"] = json!({}),
            Worded::Lacks(lacking) => {
                let letters = |of_set: &BTreeMap<char, u32>| -> Map<String, Value> {
                    let each = of_set.iter().map(|(c, n)| (c.to_string(), json!(n)));
                    each.collect()
                };
                let short: Map<String, Value> = lacking
                    .iter()
                    .map(|(set, of_set)| (set.clone(), Value::Object(letters(of_set))))
                    .collect();
                answer["why"] = json!({"short": short});
            }
            Worded::TooSmall(needs) => {
                answer["why"] = json!({"needs": {"w": unit(needs.w), "h": unit(needs.h)}});
            }
        }
        answer["why"]["text"] = self.why(words).into();
        answer
    }

    /// Why the text can't be set, in words; empty where it can.
    #[must_use]
    pub fn why(&self, words: &Words) -> String {
        let unit = words.unit;
        match self {
            Worded::Set(_) => String::new(),
            Worded::TooManyLines { words: count } => {
                let count = if *count == 1 {
                    "is one word".to_owned()
                } else {
                    format!("are {count} words")
                };
                format!("There {count}, and each stays on one line: more lines can't be filled.")
            }
            Worded::Lacks(lacking) => {
                let of_set = |(set, letters): (&String, &BTreeMap<char, u32>)| {
                    let each = letters.iter().map(|(c, n)| format!("{n} {c}"));
                    format!("{set} lacks {}", each.collect::<Vec<_>>().join(", "))
                };
                let sets: Vec<String> = lacking.iter().map(of_set).collect();
                format!("There are not enough letters: {}.", sets.join("; "))
            }
            Worded::TooSmall(needs) => format!(
                "The letters are there, but the space is too small: it takes {} by {}.",
                needs.w.to_text(unit),
                needs.h.to_text(unit)
            ),
        }
    }
}
