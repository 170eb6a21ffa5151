//! What a fit settled, written so that a refit can hold to it: one programme in place of a search, while a hand moves a block.

use super::Approach;
use super::model::Side;
use super::search::Settled;
use crate::document::{Findings, Invalid, Node, number};
use serde_json::{Value, json};

/// The choices of a fit that a refit may hold: the approach, and what the search settled.
#[derive(Clone, Debug, PartialEq)]
pub struct Choices {
    pub(super) approach: Approach,
    pub(super) settled: Settled,
}

/// A fold runs through no photo between more faces than this.
const MOST_GAPS: u32 = 60;
const SIDES: &str = "left, right, astride, a gap's number or null";
/// More than any request makes.
const MOST: usize = 20_000;

impl Choices {
    /// Writes them.
    pub fn to_json(&self) -> Value {
        let side = |s: &Option<Side>| match s {
            None => Value::Null,
            Some(Side::Left) => "left".into(),
            Some(Side::Right) => "right".into(),
            Some(Side::Astride) => "astride".into(),
            Some(Side::Through(gap)) => (*gap).into(),
        };
        json!({
            "approach": self.approach.name(),
            "sides": self.settled.sides.iter().map(side).collect::<Vec<_>>(),
            "lost": self.settled.lost,
            // A place to start from: a thousandth of an inch is near enough.
            "solved": self.settled.solved.iter().map(|v| number((v * 1e3).round() / 1e3)).collect::<Vec<_>>(),
        })
    }

    /// Reads them. What suits another request than the one they are used with is no error: the search is then made anew.
    ///
    /// # Errors
    /// What breaks their shape, with its path.
    pub fn from_json(value: &Value) -> Result<Choices, Invalid> {
        let findings = Findings::default();
        let choices = read(&Node::top(value, &findings));
        findings.finish(choices)
    }
}

fn read(top: &Node<'_>) -> Option<Choices> {
    top.object()?;
    let approach = top.need("approach", &Approach::NAMES.join(", "))?.one_of(&Approach::NAMES, Approach::or_auto)?;
    let list = |field: &str| {
        let node = top.need(field, "a list")?;
        let items = node.items();
        if items.len() > MOST {
            node.wrong(format!("at most {MOST} entries"));
            return None;
        }
        Some(items)
    };
    let side = |n: &Node<'_>| match n.value {
        Value::Null => Some(None),
        Value::Number(_) => n.count(0, MOST_GAPS).map(|gap| Some(Side::Through(gap as u8))),
        Value::String(text) => match text.as_str() {
            "left" => Some(Some(Side::Left)),
            "right" => Some(Some(Side::Right)),
            "astride" => Some(Some(Side::Astride)),
            _ => {
                n.wrong(SIDES);
                None
            }
        },
        _ => {
            n.wrong(SIDES);
            None
        }
    };
    let sides: Option<Vec<_>> = list("sides")?.iter().map(side).collect();
    let lost: Option<Vec<_>> = list("lost")?.iter().map(|n| n.count(0, MOST as u32).map(|c| c as usize)).collect();
    let solved = list("solved")?;
    let solved = solved.iter().map(|n| {
        let found = n.value.as_f64().filter(|v| v.abs() < 1e4);
        if found.is_none() {
            n.wrong("a place in inches");
        }
        found
    });
    let solved: Option<Vec<f64>> = solved.collect();
    let Some(approach) = approach else {
        top.need("approach", "an approach")?.wrong("an approach, not auto");
        return None;
    };
    Some(Choices { approach, settled: Settled { sides: sides?, lost: lost?, solved: solved? } })
}
