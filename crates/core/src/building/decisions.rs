//! What is decided and done at the Build station.

use crate::document::{Findings, Invalid, Node};
use crate::length::Unit;
use serde_json::Value;
use std::collections::BTreeSet;

const MOST_STEPS: usize = 2_000;

/// When things are glued.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum School {
    /// All is laid out dry and measured before the first glue.
    #[default]
    LayOutFirst,
    /// Each thing is glued as it comes.
    GlueAsYouGo,
}

impl School {
    /// The names that documents use.
    pub const NAMES: [&'static str; 2] = ["lay-out-first", "glue-as-you-go"];

    /// The school of that document name.
    pub fn from_name(name: &str) -> Option<School> {
        match name {
            "lay-out-first" => Some(School::LayOutFirst),
            "glue-as-you-go" => Some(School::GlueAsYouGo),
            _ => None,
        }
    }
}

/// Work that no sketch shows.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Technique {
    /// The ground is primed.
    Gesso,
    /// Papers and strips are sewn down.
    Stitch,
    /// Paint is spattered over the finished page.
    Spatter,
    /// The page's corners are rounded.
    RoundCorners,
}

impl Technique {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["gesso", "stitch", "spatter", "round-corners"];

    /// The technique of that document name.
    pub fn from_name(name: &str) -> Option<Technique> {
        use Technique::{Gesso, RoundCorners, Spatter, Stitch};
        let all = [Gesso, Stitch, Spatter, RoundCorners];
        let at = Self::NAMES.iter().position(|n| *n == name)?;
        all.get(at).copied()
    }
}

/// The build section of a plan.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct BuildDecisions {
    /// When things are glued.
    pub school: School,
    /// What is done beside what the plan shows.
    pub techniques: BTreeSet<Technique>,
    /// Steps that she has put into an order of her own: each comes before the next of these.
    pub order: Vec<String>,
    /// Steps that are done.
    pub done: BTreeSet<String>,
}

impl BuildDecisions {
    /// Reads the section.
    pub(crate) fn read(node: &Node<'_>, _: Unit) -> Option<BuildDecisions> {
        node.object()?;
        let school = node.get("school").map_or(Some(School::default()), |n| {
            n.one_of(&School::NAMES, School::from_name)
        });
        let techniques = node.get("techniques").map_or(Some(Vec::new()), |n| {
            n.each(Technique::NAMES.len(), |t| {
                t.one_of(&Technique::NAMES, Technique::from_name)
            })
        });
        let steps = |field: &str| {
            node.get(field).map_or(Some(Vec::new()), |n| {
                n.each(MOST_STEPS, |s| s.text().map(str::to_owned))
            })
        };
        let (order, done) = (steps("order"), steps("done"));
        Some(BuildDecisions {
            school: school?,
            techniques: techniques?.into_iter().collect(),
            order: order?,
            done: done?.into_iter().collect(),
        })
    }

    /// Reads it from a document of its own.
    ///
    /// # Errors
    /// All that is wrong, each with its JSON path.
    pub fn from_json(value: &Value, unit: Unit) -> Result<BuildDecisions, Invalid> {
        let findings = Findings::default();
        let read = BuildDecisions::read(&Node::top(value, &findings), unit);
        findings.finish(read)
    }
}
