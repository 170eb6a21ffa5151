//! What is to be checked, and from where on something is a finding.

use super::checked::Checked;
use super::cures::cures;
use super::lying::Lying;
use super::near::{NearThresholds, near_misses};
use super::trapped::{TrappedThresholds, square_inch, trapped};
use super::verify::Before;
use crate::document::{self, Findings, Invalid, Node};
use crate::layout::{Layout, read_layout};
use crate::length::{Length, Unit};
use crate::sketch::read_unit;
use serde_json::Value;
use std::collections::BTreeSet;

const FORMAT: &str = "metrosk-check/1";
const LARGEST: Length = Length::inches(48, 1);
/// The largest area, in square inches.
const LARGEST_AREA: f64 = 48.0 * 48.0;

/// A layout to be checked.
#[derive(Clone, Debug, PartialEq)]
pub struct Check {
    /// The unit of the document.
    pub unit: Unit,
    /// The page or spread.
    pub layout: Layout,
    /// What counts as trapped.
    pub trapped: TrappedThresholds,
    /// What counts as nearly in line.
    pub near: NearThresholds,
}

impl Check {
    /// Reads what is to be checked.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Check, Invalid> {
        let findings = Findings::default();
        let check = read(&Node::top(value, &findings));
        findings.finish(check)
    }

    /// Reads it from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<Check, Invalid> {
        Check::from_json(&document::parse_json(text)?)
    }

    /// Looks at the page, and for a cure for each pocket.
    #[must_use]
    pub fn checked(&self) -> Checked {
        let lying = Lying::new(&self.layout);
        let pockets = trapped(&lying, &self.trapped);
        let near = near_misses(&self.layout, &self.near);
        let before = Before {
            check: self,
            lying: &lying,
            pockets: &pockets,
            near: &near,
        };
        let cures = pockets.iter().map(|p| cures(&before, p)).collect();
        Checked {
            pockets,
            cures,
            near,
        }
    }
}

fn read(top: &Node<'_>) -> Option<Check> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top).unwrap_or_default();
    let layout = top.need("layout", "a layout").and_then(|n| {
        let layout = read_layout(&n)?;
        let mut ids = BTreeSet::new();
        let twice = layout.blocks.iter().find(|b| !ids.insert(&b.block.id));
        if let Some(block) = twice {
            n.wrong_because(
                format!("the block id “{}” twice", block.block.id),
                "an id that no other block has",
            );
            return None;
        }
        Some(layout)
    });
    let trapped = match top.get("trapped") {
        Some(node) => read_trapped(&node, unit),
        None => Some(TrappedThresholds::default()),
    };
    let near = match top.get("near") {
        Some(node) => read_near(&node, unit),
        None => Some(NearThresholds::default()),
    };
    Some(Check {
        unit,
        layout: layout?,
        trapped: trapped?,
        near: near?,
    })
}

fn length(node: &Node<'_>, name: &str, unit: Unit, usual: Length, least: Length) -> Option<Length> {
    let found = node.get(name);
    found.map_or(Some(usual), |n| n.length(unit, least, LARGEST))
}

fn read_trapped(node: &Node<'_>, unit: Unit) -> Option<TrappedThresholds> {
    node.object()?;
    let usual = TrappedThresholds::default();
    let side = |name: &str, usual: Length| length(node, name, unit, usual, Length::inches(1, 64));
    let in_ticks = (unit.ticks() as f64).powi(2);
    let area = |name: &str, usual: f64| {
        let most = LARGEST_AREA * square_inch() / in_ticks;
        let found = node.get(name);
        found.map_or(Some(usual), |n| n.number(0.0, most).map(|a| a * in_ticks))
    };
    let (opening, width) = (side("opening", usual.opening), side("width", usual.width));
    let (least, most) = (area("least", usual.least), area("most", usual.most));
    let (opening, width) = (opening?, width?);
    if width < opening {
        node.wrong_because(
            format!(
                "width {}, opening {}",
                width.to_text(unit),
                opening.to_text(unit)
            ),
            "a width of at least the opening",
        );
        return None;
    }
    Some(TrappedThresholds {
        opening,
        width,
        least: least?,
        most: most?,
    })
}

fn read_near(node: &Node<'_>, unit: Unit) -> Option<NearThresholds> {
    node.object()?;
    let usual = NearThresholds::default();
    let from = length(node, "from", unit, usual.from, Length::ZERO);
    let to = length(node, "to", unit, usual.to, Length::ZERO);
    let (from, to) = (from?, to?);
    if from > to {
        node.wrong_because(
            format!("from {}, to {}", from.to_text(unit), to.to_text(unit)),
            "from no more than to",
        );
        return None;
    }
    Some(NearThresholds { from, to })
}
