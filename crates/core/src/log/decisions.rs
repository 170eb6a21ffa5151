//! The log section of a plan.
//!
//! `"log": {"entries": [{"id": "e1", "at": "2026-11-26T20:31:00Z", "kind": "wrong", "wrong": "cut-short", "by": 0.0625, "block": "q1", "text": "…"}],
//! "remember": "…", "story": "…", "picture": "…", "closeups": […], "link": "…", "leave_out": ["names", "place"]}`

use crate::document::{Findings, Invalid, Node};
use crate::length::{Length, Unit};
use chrono::{DateTime, FixedOffset};
use serde_json::Value;
use std::collections::BTreeSet;

const MOST_ENTRIES: usize = 2_000;
const MOST_CLOSEUPS: usize = 12;
const LONGEST: usize = 4_000;
const LONGEST_STORY: usize = 20_000;
const FARTHEST: Length = Length::inches(24, 1);

/// What an entry tells of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum EntryKind {
    /// A step that is done.
    Step,
    /// A note.
    Note,
    /// Something that went wrong.
    Wrong(Wrong),
}

/// What goes wrong, by kind.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Wrong {
    /// A piece was cut too short.
    CutShort,
    /// Glued before something could be tucked in.
    GluedEarly,
    /// A letter was lacking.
    LettersLacking,
    /// Paper warped.
    Warped,
    /// A blot.
    Blot,
    /// Something lies crooked.
    Crooked,
    /// Anything else.
    Other,
}

impl Wrong {
    /// The names that documents use.
    pub const NAMES: [&'static str; 7] = [
        "cut-short",
        "glued-early",
        "letters-lacking",
        "warped",
        "blot",
        "crooked",
        "other",
    ];

    /// All kinds.
    pub const ALL: [Wrong; 7] = [
        Wrong::CutShort,
        Wrong::GluedEarly,
        Wrong::LettersLacking,
        Wrong::Warped,
        Wrong::Blot,
        Wrong::Crooked,
        Wrong::Other,
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The kind of that document name.
    pub fn from_name(name: &str) -> Option<Wrong> {
        Wrong::ALL.into_iter().find(|w| w.name() == name)
    }
}

/// One entry.
#[derive(Clone, Debug, PartialEq)]
pub struct Entry {
    /// Its own name.
    pub id: String,
    /// When.
    pub at: DateTime<FixedOffset>,
    /// What it tells of.
    pub kind: EntryKind,
    /// In her words.
    pub text: String,
    /// The sketch's block that it is about.
    pub block: Option<String>,
    /// Of a piece that was cut short: by how much.
    pub by: Option<Length>,
    /// Minutes that it took more than was thought.
    pub longer: Option<u32>,
}

/// What stays out of the pack.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum KeptOut {
    /// Who is on the page.
    Names,
    /// Where it was.
    Place,
    /// When it was.
    Date,
}

impl KeptOut {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["names", "place", "date"];

    /// That of a document name.
    pub fn from_name(name: &str) -> Option<KeptOut> {
        let at = Self::NAMES.iter().position(|n| *n == name)?;
        [KeptOut::Names, KeptOut::Place, KeptOut::Date]
            .get(at)
            .copied()
    }
}

/// All that the log has.
#[derive(Clone, Debug, PartialEq)]
pub struct LogDecisions {
    /// As they were written.
    pub entries: Vec<Entry>,
    /// What she wants to think of next time.
    pub remember: Option<String>,
    /// What is told of the page where it is published; her writing where she wrote nothing else.
    pub story: Option<String>,
    /// The picture of the finished page.
    pub picture: Option<String>,
    /// Pictures of single parts.
    pub closeups: Vec<String>,
    /// Where the next maker's page is.
    pub link: Option<String>,
    /// What stays out of the pack. Names and places do unless she says otherwise.
    pub leave_out: BTreeSet<KeptOut>,
}

impl Default for LogDecisions {
    fn default() -> LogDecisions {
        LogDecisions {
            entries: Vec::new(),
            remember: None,
            story: None,
            picture: None,
            closeups: Vec::new(),
            link: None,
            leave_out: BTreeSet::from([KeptOut::Names, KeptOut::Place]),
        }
    }
}

impl LogDecisions {
    /// Reads it from a document of its own.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value, unit: Unit) -> Result<LogDecisions, Invalid> {
        let findings = Findings::default();
        let read = LogDecisions::read(&Node::top(value, &findings), unit);
        findings.finish(read)
    }

    /// Reads the section.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<LogDecisions> {
        node.object()?;
        let entries = node.get("entries").map_or(Some(Vec::new()), |n| {
            n.each(MOST_ENTRIES, |e| read_entry(e, unit))
        });
        let text = |field: &str, most| node.optional(field, |n| read_text(n, most));
        let (remember, story) = (text("remember", LONGEST), text("story", LONGEST_STORY));
        let (picture, link) = (text("picture", LONGEST), node.optional("link", read_link));
        let closeups = node
            .get("closeups")
            .map_or(Some(Vec::new()), |n| n.texts(MOST_CLOSEUPS));
        let usual = LogDecisions::default();
        let leave_out = match node.get("leave_out") {
            Some(n) => n
                .each(KeptOut::NAMES.len(), |k| {
                    k.one_of(&KeptOut::NAMES, KeptOut::from_name)
                })
                .map(|all| all.into_iter().collect()),
            None => Some(usual.leave_out),
        };
        Some(LogDecisions {
            entries: entries?,
            remember: remember?,
            story: story?,
            picture: picture?,
            closeups: closeups?,
            link: link?,
            leave_out: leave_out?,
        })
    }
}

fn read_text(node: &Node<'_>, most: usize) -> Option<String> {
    let text = node.text()?;
    if text.chars().count() > most {
        node.wrong(format!("a text of up to {most} characters"));
        return None;
    }
    Some(text.to_owned())
}

fn read_link(node: &Node<'_>) -> Option<String> {
    let text = read_text(node, LONGEST)?;
    let is_web = text.starts_with("https://") || text.starts_with("http://");
    if !is_web || text.contains(char::is_whitespace) {
        node.wrong("an address that begins with https://");
        return None;
    }
    Some(text)
}

fn read_entry(node: &Node<'_>, unit: Unit) -> Option<Entry> {
    node.object()?;
    let id = node.need("id", "a name of its own");
    let id = id.and_then(|n| read_text(&n, 200));
    let at = node.need("at", "a day and time, like 2026-11-26T20:31:00Z");
    let at = at.and_then(|n| {
        let read = DateTime::parse_from_rfc3339(n.text()?).ok();
        if read.is_none() {
            n.wrong("a day and time, like 2026-11-26T20:31:00Z");
        }
        read
    });
    let kind = node.need("kind", "step, note or wrong").and_then(|n| {
        n.one_of(&["step", "note", "wrong"], |name| {
            matches!(name, "step" | "note" | "wrong").then(|| name.to_owned())
        })
    });
    let kind = match kind.as_deref() {
        Some("step") => Some(EntryKind::Step),
        Some("note") => Some(EntryKind::Note),
        Some(_) => node
            .need("wrong", "what went wrong")
            .and_then(|n| n.one_of(&Wrong::NAMES, Wrong::from_name))
            .map(EntryKind::Wrong),
        None => None,
    };
    let text = node.optional("text", |n| read_text(n, LONGEST));
    let block = node.optional("block", |n| read_text(n, 200));
    let by = node.optional("by", |n| n.length(unit, Length::ZERO, FARTHEST));
    let longer = node.optional("longer", |n| n.count(0, 10_000));
    Some(Entry {
        id: id?,
        at: at?,
        kind: kind?,
        text: text?.unwrap_or_default(),
        block: block?,
        by: by?,
        longer: longer?,
    })
}
