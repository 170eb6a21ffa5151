//! What is decided at the Words station: the title and how it is set, and the writing.

use super::manner::Manner;
use super::request::{Align, Lines, read_lines};
use super::shape::Shape;
use crate::document::{Findings, Invalid, Node};
use crate::geometry::Size;
use crate::handwriting::Hand;
use crate::laying::Laying;
use crate::length::{Length, Unit};
use serde_json::Value;
use std::collections::BTreeMap;

/// The longest title.
const LONGEST_TITLE: usize = 400;
/// The longest writing.
const LONGEST_WRITING: usize = 20_000;
const LONGEST_FIELD: usize = 200;
const MOST_SETS: usize = 40;
const MOST_LINES: usize = 60;
const MOST_TITLES: usize = 12;
const LARGEST: Length = Length::inches(60, 1);
const FINEST: Length = Length::inches(1, 16);
const FARTHEST_STAGGER: Length = Length::inches(2, 1);

/// How many of each letter are used, by set.
pub type Uses = BTreeMap<String, BTreeMap<char, u32>>;

/// A line of the setting that she took.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct TakenLine {
    /// The set.
    pub set: String,
    /// How many words stand on it.
    pub words: usize,
}

/// The title.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Title {
    /// What it says.
    pub text: String,
    /// Others that she would take.
    pub others: Vec<String>,
    /// The place that it stands in: a block of the layout, or `free-` and a page.
    pub block: Option<String>,
    /// Its space, where it stands in none.
    pub space: Option<Size>,
    /// How many lines.
    pub lines: Lines,
    /// Where lines stand.
    pub align: Align,
    /// The sets that may be used; all of them where none is named.
    pub sets: Vec<String>,
    /// In which order letters are laid.
    pub laying: Laying,
    /// How far letters stand up and down where they are staggered.
    pub stagger: Option<Length>,
    /// How the lines of the setting run that she took.
    pub manner: Manner,
    /// The setting that she took.
    pub taken: Vec<TakenLine>,
    /// The letters that it spends.
    pub uses: Uses,
}

/// The writing.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Writing {
    /// What it says.
    pub text: String,
    /// The place that it stands in: a block of the layout, or `free-` and a page.
    pub block: Option<String>,
    /// Its space, where it stands in none.
    pub space: Option<Size>,
    /// In which hand.
    pub hand: Option<Hand>,
    /// From one line to the next, where it is not the hand's own.
    pub pitch: Option<Length>,
    /// When it was.
    pub date: String,
    /// Where.
    pub place: String,
    /// Who is on it.
    pub names: String,
    /// Date, place and names stand somewhere else.
    pub date_elsewhere: bool,
    /// How it runs in its space.
    pub shape: Shape,
}

/// The words section of a plan.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct WordsDecisions {
    /// The title.
    pub title: Option<Title>,
    /// The writing.
    pub writing: Option<Writing>,
}

impl Writing {
    /// Date, place and names in one line.
    #[must_use]
    pub fn kept(&self) -> String {
        let fields = [&self.date, &self.place, &self.names];
        let said: Vec<&str> = fields
            .iter()
            .map(|f| f.trim())
            .filter(|f| !f.is_empty())
            .collect();
        said.join(", ")
    }
}

impl WordsDecisions {
    /// Reads the section.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<WordsDecisions> {
        node.object()?;
        let title = node.optional("title", |n| read_title(n, unit));
        let writing = node.optional("writing", |n| read_writing(n, unit));
        Some(WordsDecisions {
            title: title?,
            writing: writing?,
        })
    }

    /// Reads it from a document of its own.
    ///
    /// # Errors
    /// All that is wrong, each with its JSON path.
    pub fn from_json(value: &Value, unit: Unit) -> Result<WordsDecisions, Invalid> {
        let findings = Findings::default();
        let read = WordsDecisions::read(&Node::top(value, &findings), unit);
        findings.finish(read)
    }
}

fn read_title(node: &Node<'_>, unit: Unit) -> Option<Title> {
    node.object()?;
    let text = text_of(node, "text", LONGEST_TITLE);
    let others = node.get("others").map_or(Some(Vec::new()), |n| {
        n.each(MOST_TITLES, |o| bounded(o, LONGEST_TITLE))
    });
    let block = node.optional("block", |n| n.text().map(str::to_owned));
    let space = node.optional("space", |n| read_space(n, unit));
    let lines = node
        .get("lines")
        .map_or(Some(Lines::Any), |n| read_lines(&n));
    let align = node.get("align").map_or(Some(Align::Left), |n| {
        n.one_of(&Align::NAMES, Align::from_name)
    });
    let sets = node.get("sets").map_or(Some(Vec::new()), |n| {
        n.each(MOST_SETS, |s| s.text().map(str::to_owned))
    });
    let laying = node.get("laying").map_or(Some(Laying::Halving), |n| {
        n.one_of(&Laying::NAMES, Laying::from_name)
    });
    let stagger = node.optional("stagger", |n| n.length(unit, FINEST, FARTHEST_STAGGER));
    let manner = node.get("manner").map_or(Some(Manner::Lines), |n| {
        n.one_of(&Manner::NAMES, Manner::from_name)
    });
    let taken = node
        .get("taken")
        .map_or(Some(Vec::new()), |n| n.each(MOST_LINES, read_taken));
    let uses = node
        .get("uses")
        .map_or(Some(Uses::new()), |n| read_uses(&n));
    Some(Title {
        text: text?,
        others: others?,
        block: block?,
        space: space?,
        lines: lines?,
        align: align?,
        sets: sets?,
        laying: laying?,
        stagger: stagger?,
        manner: manner?,
        taken: taken?,
        uses: uses?,
    })
}

fn read_taken(node: &Node<'_>) -> Option<TakenLine> {
    node.object()?;
    let set = node
        .need("set", "the id of a set")
        .and_then(|n| n.text().map(str::to_owned));
    let words = node
        .need("words", "how many words stand on the line")
        .and_then(|n| n.count(1, LONGEST_TITLE as u32));
    Some(TakenLine {
        set: set?,
        words: words? as usize,
    })
}

/// Reads which letters a title spends.
pub(crate) fn read_uses(node: &Node<'_>) -> Option<Uses> {
    let sets = node.object()?;
    let of_set = |(set, letters): (&String, &Value)| {
        let here = node.with(set, letters);
        let one = |(name, count): (&String, &Value)| {
            let here = here.with(name, count);
            let mut characters = name.chars();
            let (Some(character), None) = (characters.next(), characters.next()) else {
                here.wrong_because(format!("“{name}”"), "one character");
                return None;
            };
            Some((character, here.count(0, LONGEST_TITLE as u32)?))
        };
        let letters: Option<BTreeMap<char, u32>> = here.object()?.iter().map(one).collect();
        Some((set.clone(), letters?))
    };
    sets.iter().map(of_set).collect()
}

fn read_writing(node: &Node<'_>, unit: Unit) -> Option<Writing> {
    node.object()?;
    let text = text_of(node, "text", LONGEST_WRITING);
    let block = node.optional("block", |n| n.text().map(str::to_owned));
    let space = node.optional("space", |n| read_space(n, unit));
    let hand = node.optional("hand", Hand::read);
    let pitch = node.optional("pitch", |n| n.length(unit, FINEST, LARGEST));
    let field = |name| text_of(node, name, LONGEST_FIELD);
    let (date, place, names) = (field("date"), field("place"), field("names"));
    let date_elsewhere = node.flag("date_elsewhere", false);
    let shape = node
        .get("shape")
        .map_or(Some(Shape::Lines), |n| Shape::read(&n, unit));
    Some(Writing {
        text: text?,
        block: block?,
        space: space?,
        hand: hand?,
        pitch: pitch?,
        date: date?,
        place: place?,
        names: names?,
        date_elsewhere: date_elsewhere?,
        shape: shape?,
    })
}

/// A text that may be left out.
fn text_of(node: &Node<'_>, name: &str, longest: usize) -> Option<String> {
    node.get(name)
        .map_or(Some(String::new()), |n| bounded(&n, longest))
}

fn bounded(node: &Node<'_>, longest: usize) -> Option<String> {
    let text = node.text()?;
    let count = text.chars().count();
    if count > longest {
        node.wrong_because(format!("{count} characters"), format!("at most {longest}"));
        return None;
    }
    Some(text.to_owned())
}

fn read_space(node: &Node<'_>, unit: Unit) -> Option<Size> {
    node.object()?;
    let side = |name: &str| {
        let found = node.need(name, "a length above 0");
        found.and_then(|n| n.length(unit, FINEST, LARGEST))
    };
    let (w, h) = (side("w"), side("h"));
    Some(Size { w: w?, h: h? })
}
