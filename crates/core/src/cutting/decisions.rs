//! What is decided and done at the Cut station: with which trimmer, and the sheets that are begun.

use super::sheet::PlannedSheet;
use crate::document::Node;
use crate::length::Unit;
use serde_json::Value;

/// How many sheets may be begun.
const MOST_SHEETS: usize = 500;

/// The cut section of a plan.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct CutDecisions {
    /// The trimmer, by its id in the stash; the one with the longest reach where none is chosen.
    pub trimmer: Option<String>,
    /// Sheets of which at least one cut is made: they stay as they are whatever else changes.
    pub begun: Vec<PlannedSheet>,
}

impl CutDecisions {
    /// Reads the section.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<CutDecisions> {
        node.object()?;
        let trimmer = node.optional("trimmer", |n| n.text().map(str::to_owned));
        let begun = node.get("begun").map_or(Some(Vec::new()), |n| {
            n.each(MOST_SHEETS, |s| PlannedSheet::read(s, unit))
        });
        Some(CutDecisions {
            trimmer: trimmer?,
            begun: begun?,
        })
    }

    /// Reads it from a document of its own.
    ///
    /// # Errors
    /// All that is wrong, each with its JSON path.
    pub fn from_json(value: &Value, unit: Unit) -> Result<CutDecisions, crate::document::Invalid> {
        let findings = crate::document::Findings::default();
        let read = CutDecisions::read(&Node::top(value, &findings), unit);
        findings.finish(read)
    }
}
