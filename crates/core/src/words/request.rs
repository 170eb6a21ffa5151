//! What is to be set: the text, its space, the letters there are, and how gaps may be.

use super::gaps::Bounds;
use crate::document::{self, Findings, Invalid, Node};
use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::letters::{LetterSet, Make, read_make, read_set};
use crate::sketch::read_unit;
use serde_json::Value;

const FORMAT: &str = "metrosk-words/1";
/// The longest text, in characters.
const LONGEST: usize = 400;
const MOST_SETS: usize = 40;
const MOST_MAKES: usize = 4_000;
const LARGEST: Length = Length::inches(96, 1);

/// How many lines.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Lines {
    /// As suits best.
    Any,
    /// So many.
    Count(usize),
}

/// Where lines stand in the space.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default)]
pub enum Align {
    /// At its left edge.
    #[default]
    Left,
    /// In its middle.
    Centre,
    /// At its right edge.
    Right,
}

impl Align {
    /// The names that documents use.
    pub(super) const NAMES: [&'static str; 3] = ["left", "centre", "right"];

    pub(super) fn from_name(name: &str) -> Option<Align> {
        match name {
            "left" => Some(Align::Left),
            "centre" => Some(Align::Centre),
            "right" => Some(Align::Right),
            _ => None,
        }
    }
}

/// A text to be set in letters.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Words {
    /// The unit of the document.
    pub unit: Unit,
    /// Words with spaces between.
    pub text: String,
    /// Where it is to stand.
    pub space: Size,
    /// How many lines.
    pub lines: Lines,
    /// Where lines stand.
    pub align: Align,
    /// The letters there are.
    pub sets: Vec<LetterSet>,
    /// What can be made out of others.
    pub makes: Vec<Make>,
    /// Between letters.
    pub gap: Bounds,
    /// Between words.
    pub word_gap: Bounds,
    /// Between lines.
    pub line_gap: Bounds,
}

impl Words {
    /// Reads what is to be set.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Words, Invalid> {
        let findings = Findings::default();
        let words = read(&Node::top(value, &findings));
        findings.finish(words)
    }

    /// Reads it from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<Words, Invalid> {
        Words::from_json(&document::parse_json(text)?)
    }
}

fn read(top: &Node<'_>) -> Option<Words> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top).unwrap_or_default();
    let text = top.need("text", "a text with letters").and_then(read_text);
    let space = top
        .need("space", "a width and a height")
        .and_then(|n| read_space(&n, unit));
    let lines = top
        .get("lines")
        .map_or(Some(Lines::Any), |n| read_lines(&n));
    let align = top.get("align").map_or(Some(Align::Left), |n| {
        n.one_of(&Align::NAMES, Align::from_name)
    });
    let sets = top
        .need("sets", "a list of letter sets")
        .and_then(|n| read_sets(&n, unit));
    let ids: Vec<String> = sets.iter().flatten().map(|s| s.id.clone()).collect();
    let makes = top.get("makes").map_or(Some(Vec::new()), |n| {
        n.each(MOST_MAKES, |m| read_make(m, unit, &ids))
    });
    let bounds = |name: &str| {
        let found = top.need(name, "least, best and most");
        found.and_then(|n| read_bounds(&n, unit))
    };
    let (gap, word_gap, line_gap) = (bounds("gap"), bounds("word_gap"), bounds("line_gap"));
    Some(Words {
        unit,
        text: text?,
        space: space?,
        lines: lines?,
        align: align?,
        sets: sets?,
        makes: makes?,
        gap: gap?,
        word_gap: word_gap?,
        line_gap: line_gap?,
    })
}

fn read_text(node: Node<'_>) -> Option<String> {
    let text = node.text()?;
    let count = text.chars().count();
    if text.trim().is_empty() {
        node.wrong("a text with at least one letter");
        return None;
    }
    if count > LONGEST {
        node.wrong_because(
            format!("{count} characters"),
            format!("at most {LONGEST} in a title"),
        );
        return None;
    }
    Some(text.to_owned())
}

fn read_space(node: &Node<'_>, unit: Unit) -> Option<Size> {
    node.object()?;
    let side = |name: &str| {
        let found = node.need(name, "a length above 0");
        found.and_then(|n| n.length(unit, Length::from_ticks(1), LARGEST))
    };
    let (w, h) = (side("w"), side("h"));
    Some(Size { w: w?, h: h? })
}

pub(super) fn read_lines(node: &Node<'_>) -> Option<Lines> {
    if node.value.as_str() == Some("any") {
        return Some(Lines::Any);
    }
    let whole = node.value.as_u64().filter(|n| *n > 0);
    if whole.is_none() {
        node.wrong("“any” or a whole number from 1");
    }
    whole.map(|n| Lines::Count(usize::try_from(n).unwrap_or(usize::MAX)))
}

fn read_sets(node: &Node<'_>, unit: Unit) -> Option<Vec<LetterSet>> {
    let nodes = node.at_most(MOST_SETS)?;
    if nodes.is_empty() {
        node.wrong("at least one set");
        return None;
    }
    let mut sets: Vec<LetterSet> = Vec::new();
    let mut whole = true;
    for n in nodes {
        match read_set(&n, unit) {
            Some(set) if sets.iter().any(|s| s.id == set.id) => {
                n.wrong_because(
                    format!("the id “{}” twice", set.id),
                    "an id that no other set has",
                );
                whole = false;
            }
            Some(set) => sets.push(set),
            None => whole = false,
        }
    }
    whole.then_some(sets)
}

fn read_bounds(node: &Node<'_>, unit: Unit) -> Option<Bounds> {
    node.object()?;
    let length = |name: &str| {
        let found = node.need(name, "a length");
        found.and_then(|n| n.length(unit, Length::ZERO, LARGEST))
    };
    let (least, best, most) = (length("least"), length("best"), length("most"));
    let bounds = Bounds {
        least: least?,
        best: best?,
        most: most?,
    };
    let text = |l: Length| l.to_text(unit);
    if bounds.least > bounds.best || bounds.best > bounds.most {
        node.wrong_because(
            format!(
                "least {}, best {}, most {}",
                text(bounds.least),
                text(bounds.best),
                text(bounds.most)
            ),
            "least no more than best, best no more than most",
        );
        return None;
    }
    Some(bounds)
}
