//! A letter set in the stash: its style, what she measured, and how many of each are left.

use super::style::Style;
use super::ways::{Doing, WAYS, Way};
use super::{
    COST_SHARE, Case, Glyph, LARGEST, Letter, LetterSet, MOST_LETTERS, Make, TICK, one_character,
};
use crate::document::{Node, length_number};
use crate::length::{Length, Unit};
use serde_json::{Map, Value, json};
use std::collections::{BTreeMap, BTreeSet};

/// Of what never runs out there are as many as a title may have letters.
const ENDLESS: u32 = 400;

/// What letters are.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs, reason = "each is what it is called")]
pub enum Material {
    #[default]
    Sticker,
    Chipboard,
    Wood,
    Foam,
    RubOn,
    Stamp,
    Die,
    Print,
}

impl Material {
    /// The names that documents use.
    pub const NAMES: [&'static str; 8] = [
        "sticker",
        "chipboard",
        "wood",
        "foam",
        "rub-on",
        "stamp",
        "die",
        "print",
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The material of that document name.
    pub fn from_name(name: &str) -> Option<Material> {
        use Material::{Chipboard, Die, Foam, Print, RubOn, Stamp, Sticker, Wood};
        [Sticker, Chipboard, Wood, Foam, RubOn, Stamp, Die, Print]
            .into_iter()
            .find(|m| m.name() == name)
    }

    /// Whether there is always another.
    pub const fn never_runs_out(self) -> bool {
        matches!(self, Material::Stamp | Material::Die | Material::Print)
    }
}

/// A maker's own way to come by a letter.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OwnWay {
    /// What is wanted.
    pub letter: char,
    /// Out of what.
    pub of: char,
    /// How.
    pub how: String,
}

/// A letter set as the stash keeps it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct KeptLetters {
    /// In which case.
    pub case: Case,
    /// Its proportions.
    pub style: Style,
    /// What they are.
    pub material: Material,
    /// How high its capitals are.
    pub height: Length,
    /// Characters that she measured: how wide each is.
    pub measured: BTreeMap<char, Length>,
    /// How many are left of each; characters that are not named have never been there.
    pub left: BTreeMap<char, u32>,
    /// Her own ways to come by a letter.
    pub ways: Vec<OwnWay>,
}

/// How one letter is made out of another.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct MadeLetter {
    /// As the search takes it.
    pub make: Make,
    /// How, as a maker would say it.
    pub how: String,
    /// A second piece of the set that goes into it.
    pub with: Option<char>,
}

impl KeptLetters {
    /// How large a character is: as she measured it, otherwise by the style's proportions, widened as her measures say.
    #[must_use]
    pub fn glyph(&self, character: char) -> Glyph {
        let mut glyph = self.style.glyph(character, self.height, self.widening());
        if let Some(width) = self.measured.get(&character) {
            glyph.w = *width;
        }
        glyph
    }

    /// By how much her letters are wider than the style's: all that she measured over all that the style says.
    fn widening(&self) -> f64 {
        let ticks = |l: Length| l.ticks() as f64;
        let measured: f64 = self.measured.values().map(|w| ticks(*w)).sum();
        let expected = self.measured.keys();
        let expected: f64 = expected
            .map(|c| ticks(self.style.glyph(*c, self.height, 1.0).w))
            .sum();
        if expected > 0.0 {
            measured / expected
        } else {
            1.0
        }
    }

    /// How many are left of a character, without what other pages have taken.
    #[must_use]
    pub fn left_of(&self, character: char, taken: &BTreeMap<char, u32>) -> u32 {
        if self.material.never_runs_out() {
            return ENDLESS;
        }
        let taken = taken.get(&character).copied().unwrap_or(0);
        let left = self.left.get(&character).copied().unwrap_or(0);
        left.saturating_sub(taken)
    }

    /// The set as a text needs it; `taken` is what other pages have used of it.
    #[must_use]
    pub fn set(&self, id: &str, text: &str, taken: &BTreeMap<char, u32>) -> LetterSet {
        let of_text = self.case.of(text);
        let wanted = of_text.chars().filter(|c| !c.is_whitespace());
        let endless = wanted.filter(|_| self.material.never_runs_out());
        let all: BTreeSet<char> = self.left.keys().copied().chain(endless).collect();
        let letter = |c: char| Letter {
            glyph: self.glyph(c),
            quantity: self.left_of(c, taken),
        };
        LetterSet {
            id: id.to_owned(),
            case: self.case,
            letters: all.into_iter().map(|c| (c, letter(c))).collect(),
        }
    }

    /// The ways to come by the letters of a text out of others of this set; `taken` is what other pages have used of it.
    #[must_use]
    pub fn makes(&self, id: &str, text: &str, taken: &BTreeMap<char, u32>) -> Vec<MadeLetter> {
        let wanted: BTreeSet<char> = self.case.of(text).chars().collect();
        let made = |way: Way, how: String| MadeLetter {
            make: Make {
                set: id.to_owned(),
                letter: way.letter,
                of: way.of,
                glyph: way.glyph(self.glyph(way.of), self.glyph(way.letter)),
                cost: way.doing.cost(),
            },
            how,
            with: None,
        };
        let usual = WAYS.iter().map(|w| made(*w, w.how.to_owned()));
        let own = self.ways.iter().map(|w| {
            let way = Way {
                letter: w.letter,
                of: w.of,
                doing: Doing::Build,
                how: "",
            };
            made(way, w.how.clone())
        });
        own.chain(usual)
            .chain(self.accented(id, &self.case.of(text), taken))
            .filter(|m| wanted.contains(&m.make.letter) && self.left.contains_key(&m.make.of))
            .collect()
    }

    /// Reads a set of the stash.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<KeptLetters> {
        node.object()?;
        let case = node
            .need("case", "upper, lower or both")
            .and_then(|n| n.one_of(&Case::NAMES, Case::from_name));
        let style = node.get("style").map_or(Some(Style::Normal), |n| {
            n.one_of(&Style::NAMES, Style::from_name)
        });
        let material = node.get("material").map_or(Some(Material::Sticker), |n| {
            n.one_of(&Material::NAMES, Material::from_name)
        });
        let size = |n: &Node<'_>| n.length(unit, TICK, LARGEST);
        let height = node
            .need("height", "how high its capitals are")
            .and_then(|n| size(&n));
        let measured = read_by_character(node, "measured", size);
        let left = read_by_character(node, "left", |n| n.count(0, crate::letters::MOST_LEFT));
        let ways = node.get("ways").map_or(Some(Vec::new()), |n| {
            n.each(MOST_LETTERS, |way| read_way(way))
        });
        Some(KeptLetters {
            case: case?,
            style: style?,
            material: material?,
            height: height?,
            measured: measured?,
            left: left?,
            ways: ways?,
        })
    }

    /// Writes it.
    pub(crate) fn to_json(&self, unit: Unit) -> Value {
        let measured = self.measured.iter();
        let measured: Map<String, Value> = measured
            .map(|(c, w)| (c.to_string(), length_number(*w, unit)))
            .collect();
        let left: Map<String, Value> = self
            .left
            .iter()
            .map(|(c, n)| (c.to_string(), json!(n)))
            .collect();
        let way = |w: &OwnWay| json!({"letter": w.letter, "of": w.of, "how": w.how});
        let ways: Vec<Value> = self.ways.iter().map(way).collect();
        json!({"case": self.case.name(), "style": self.style.name(), "material": self.material.name(),
               "height": length_number(self.height, unit), "measured": measured, "left": left, "ways": ways})
    }
}

impl MadeLetter {
    /// What it costs, as documents write it.
    #[must_use]
    pub fn cost(&self) -> f64 {
        self.make.cost as f64 / COST_SHARE
    }
}

fn read_by_character<T>(
    node: &Node<'_>,
    field: &str,
    read: impl Fn(&Node<'_>) -> Option<T>,
) -> Option<BTreeMap<char, T>> {
    let Some(node) = node.get(field) else {
        return Some(BTreeMap::new());
    };
    let fields = node.object()?;
    if fields.len() > MOST_LETTERS {
        let found = format!("{} characters", fields.len());
        node.wrong_because(found, format!("at most {MOST_LETTERS}"));
        return None;
    }
    let one = |(name, value): (&String, &Value)| {
        let here = node.with(name, value);
        let Some(character) = one_character(name) else {
            here.wrong_because(format!("“{name}”"), "one character that is no space");
            return None;
        };
        Some((character, read(&here)?))
    };
    let all: Vec<_> = fields.iter().map(one).collect();
    all.into_iter().collect()
}

fn read_way(node: &Node<'_>) -> Option<OwnWay> {
    node.object()?;
    let character = |name: &str| {
        let found = node.need(name, "one character")?;
        let read = one_character(found.text()?);
        if read.is_none() {
            found.wrong("one character that is no space");
        }
        read
    };
    let (letter, of) = (character("letter"), character("of"));
    let how = node
        .need("how", "what is done")
        .and_then(|n| n.text().map(str::to_owned));
    Some(OwnWay {
        letter: letter?,
        of: of?,
        how: how?,
    })
}
