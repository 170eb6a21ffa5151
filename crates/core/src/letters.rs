//! Letter sets: what characters a maker has, how large each is and how many are left, and what can be made out of others.

mod accents;
mod kept;
mod style;
mod ways;

pub use kept::{KeptLetters, MadeLetter, Material, OwnWay};
pub use style::Style;
pub use ways::{Doing, WAYS, Way};

use crate::document::Node;
use crate::length::{Length, Unit};
use std::collections::BTreeMap;

/// How many characters one set may have, and how many ways to make some.
const MOST_LETTERS: usize = 1_000;
/// The largest letter.
const LARGEST: Length = Length::inches(48, 1);
/// The most that may be left of one letter.
const MOST_LEFT: u32 = 10_000;
const TICK: Length = Length::from_ticks(1);
/// The highest cost of making a letter out of another.
const DEAREST: f64 = 1e6;
/// Costs are whole numbers of this share.
pub const COST_SHARE: f64 = 10_000.0;

/// In which case a set has its letters.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Case {
    /// Capitals only.
    Upper,
    /// Small letters only.
    Lower,
    /// Both: text is set as it is written.
    Both,
}

impl Case {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["upper", "lower", "both"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The case of that document name.
    pub fn from_name(name: &str) -> Option<Case> {
        match name {
            "upper" => Some(Case::Upper),
            "lower" => Some(Case::Lower),
            "both" => Some(Case::Both),
            _ => None,
        }
    }

    /// A text as this set can say it.
    #[must_use]
    pub fn of(self, text: &str) -> String {
        match self {
            Case::Upper => text.to_uppercase(),
            Case::Lower => text.to_lowercase(),
            Case::Both => text.to_owned(),
        }
    }
}

/// How large a character is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Glyph {
    /// Across.
    pub w: Length,
    /// What stands on the baseline.
    pub h: Length,
    /// What hangs below it.
    pub below: Length,
}

/// A character of a set, and how many are left.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Letter {
    /// Its size.
    pub glyph: Glyph,
    /// How many are left.
    pub quantity: u32,
}

/// A set of letters.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LetterSet {
    /// Unique in its document.
    pub id: String,
    /// In which case.
    pub case: Case,
    /// Its characters.
    pub letters: BTreeMap<char, Letter>,
}

/// A way to make a letter out of another of the same set, which is used up: an I out of a J.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Make {
    /// The set.
    pub set: String,
    /// What is made.
    pub letter: char,
    /// Out of what.
    pub of: char,
    /// How large it is then.
    pub glyph: Glyph,
    /// What it costs, in shares of 1/10 000.
    pub cost: i64,
}

/// Reads a set.
pub(crate) fn read_set(node: &Node<'_>, unit: Unit) -> Option<LetterSet> {
    node.object()?;
    let id = node
        .need("id", "a text that no other set has")
        .and_then(|n| n.text().map(str::to_owned));
    let case = node
        .need("case", "upper, lower or both")
        .and_then(|n| n.one_of(&Case::NAMES, Case::from_name));
    let letters = node
        .need("letters", "an object: each character with its size")
        .and_then(|n| read_letters(&n, unit));
    Some(LetterSet {
        id: id?,
        case: case?,
        letters: letters?,
    })
}

fn read_letters(node: &Node<'_>, unit: Unit) -> Option<BTreeMap<char, Letter>> {
    let fields = node.object()?;
    if fields.len() > MOST_LETTERS {
        node.wrong_because(
            format!("{} characters", fields.len()),
            format!("at most {MOST_LETTERS}"),
        );
        return None;
    }
    let read = |(name, value): (&String, &serde_json::Value)| {
        let here = node.with(name, value);
        here.object()?;
        let letter = one_character(name);
        if letter.is_none() {
            here.wrong_because(format!("“{name}”"), "one character that is no space");
        }
        let quantity = here
            .need("qty", "a whole number from 0")
            .and_then(|n| n.count(0, u32::MAX));
        let glyph = read_glyph(&here, unit);
        let (glyph, quantity) = (glyph?, quantity?);
        Some((letter?, Letter { glyph, quantity }))
    };
    let all: Vec<_> = fields.iter().map(read).collect();
    all.into_iter().collect()
}

fn one_character(text: &str) -> Option<char> {
    let mut characters = text.chars();
    let first = characters.next().filter(|c| !c.is_whitespace())?;
    characters.next().is_none().then_some(first)
}

fn read_glyph(node: &Node<'_>, unit: Unit) -> Option<Glyph> {
    let side = |name: &str| {
        let found = node.need(name, "a length above 0");
        found.and_then(|n| n.length(unit, TICK, LARGEST))
    };
    let (w, h) = (side("w"), side("h"));
    let below = node.get("below").map_or(Some(Length::ZERO), |n| {
        n.length(unit, Length::ZERO, LARGEST)
    });
    Some(Glyph {
        w: w?,
        h: h?,
        below: below?,
    })
}

/// Reads a way to make a letter of one of these sets.
pub(crate) fn read_make(node: &Node<'_>, unit: Unit, sets: &[String]) -> Option<Make> {
    node.object()?;
    let set = node.need("set", "the id of a set").and_then(|n| {
        let id = n.text()?;
        if !sets.iter().any(|s| s == id) {
            n.wrong(format!("one of the sets: {}", sets.join(", ")));
            return None;
        }
        Some(id.to_owned())
    });
    let character = |name: &str| {
        let found = node.need(name, "one character");
        found.and_then(|n| {
            let read = one_character(n.text()?);
            if read.is_none() {
                n.wrong("one character that is no space");
            }
            read
        })
    };
    let (letter, of) = (character("letter"), character("of"));
    let cost = node
        .need("cost", "a number from 0")
        .and_then(|n| n.number(0.0, DEAREST));
    let glyph = read_glyph(node, unit);
    Some(Make {
        set: set?,
        letter: letter?,
        of: of?,
        glyph: glyph?,
        cost: (cost? * COST_SHARE).round() as i64,
    })
}
