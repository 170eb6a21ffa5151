//! What is decided and done at the Cut station: with which trimmer, and the sheets that are begun.

use super::job::Preference;
use super::sheet::PlannedSheet;
use crate::document::Node;
use crate::length::Unit;
use serde_json::Value;
use std::collections::BTreeMap;

/// How many sheets may be begun.
const MOST_SHEETS: usize = 500;

/// What a maker holds of a piece's place.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct PieceLock {
    /// The stock that it comes from, as sheets name it: a thing of the stash, or a rest or hidden middle of one.
    pub from: Option<String>,
    /// It lies on its sheet as it lies on the page.
    pub is_upright: bool,
}

/// The cut section of a plan.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct CutDecisions {
    /// The trimmer, by its id in the stash; the one with the longest reach where none is chosen.
    pub trimmer: Option<String>,
    /// Sheets of which at least one cut is made: they stay as they are whatever else changes.
    pub begun: Vec<PlannedSheet>,
    /// What is held of pieces' places, by their names.
    pub locks: BTreeMap<String, PieceLock>,
    /// What counts more among plans that open the same sheets.
    pub prefers: Preference,
}

impl CutDecisions {
    /// Reads the section.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<CutDecisions> {
        node.object()?;
        let trimmer = node.optional("trimmer", |n| n.text().map(str::to_owned));
        let begun = node.get("begun").map_or(Some(Vec::new()), |n| {
            n.each(MOST_SHEETS, |s| PlannedSheet::read(s, unit))
        });
        let locks = node
            .get("locks")
            .map_or(Some(BTreeMap::new()), |n| read_locks(&n));
        let prefers = node.optional("prefers", |n| {
            n.one_of(&Preference::NAMES, Preference::from_name)
        });
        Some(CutDecisions {
            trimmer: trimmer?,
            begun: begun?,
            locks: locks?,
            prefers: prefers?.unwrap_or_default(),
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

fn read_locks(node: &Node<'_>) -> Option<BTreeMap<String, PieceLock>> {
    let names: Vec<&String> = node.object()?.keys().collect();
    let locks: Vec<(String, Option<PieceLock>)> = names
        .into_iter()
        .filter_map(|name| Some((name.clone(), read_lock(&node.get(name)?))))
        .collect();
    locks
        .into_iter()
        .map(|(name, lock)| Some((name, lock?)))
        .collect()
}

fn read_lock(node: &Node<'_>) -> Option<PieceLock> {
    node.object()?;
    let from = node.optional("from", |n| n.text().map(str::to_owned));
    let is_upright = node.flag("upright", false);
    Some(PieceLock {
        from: from?,
        is_upright: is_upright?,
    })
}
