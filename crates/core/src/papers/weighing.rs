//! How much each rule of the choice counts: hers to set.

use crate::document::Node;
use std::collections::BTreeMap;

/// A rule by which papers are ranked.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Rule {
    /// One busy sheet leads.
    BusySheets,
    /// What lies under a whole page is quiet.
    QuietGround,
    /// Colours are shared with the photos or the leading paper.
    SharedColours,
    /// No photo sinks into what it lies on.
    SinkingPhotos,
    /// An edge is seen.
    LostEdges,
    /// The pattern's scale goes with what shows.
    PatternScale,
    /// The kit that is asked for comes first.
    AskedKit,
    /// Both pages have one ground.
    SameGround,
    /// Scraps first, and nothing wasted.
    UsingUp,
}

impl Rule {
    /// All of them.
    pub const ALL: [Rule; 9] = [
        Rule::BusySheets,
        Rule::QuietGround,
        Rule::SharedColours,
        Rule::SinkingPhotos,
        Rule::LostEdges,
        Rule::PatternScale,
        Rule::AskedKit,
        Rule::SameGround,
        Rule::UsingUp,
    ];

    /// The names that documents use.
    pub const NAMES: [&'static str; 9] = [
        "busy-sheets",
        "quiet-ground",
        "shared-colours",
        "sinking-photos",
        "lost-edges",
        "pattern-scale",
        "asked-kit",
        "same-ground",
        "using-up",
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    fn from_name(name: &str) -> Option<Rule> {
        Rule::ALL.into_iter().find(|r| r.name() == name)
    }
}

/// The most that a rule counts for, in shares of its usual points.
const MOST: f64 = 3.0;

/// How much each rule counts, in shares of its usual points: 0 is not at all, 1 the usual.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct RuleWeights(BTreeMap<Rule, f64>);

impl RuleWeights {
    /// How much a rule counts.
    pub fn of(&self, rule: Rule) -> f64 {
        self.0.get(&rule).copied().unwrap_or(1.0)
    }

    /// Reads them: an object of rules by name, each a number from 0 to 3.
    pub(super) fn read(node: &Node<'_>) -> Option<RuleWeights> {
        let read: Vec<Option<(Rule, f64)>> = node
            .object()?
            .iter()
            .filter(|(_, value)| !value.is_null())
            .map(|(name, value)| {
                let found = node.with(name, value);
                let Some(rule) = Rule::from_name(name) else {
                    found.wrong_because(format!("the rule “{name}”"), Rule::NAMES.join(", "));
                    return None;
                };
                Some((rule, found.number(0.0, MOST)?))
            })
            .collect();
        let read: Option<BTreeMap<Rule, f64>> = read.into_iter().collect();
        read.map(RuleWeights)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::Findings;
    use serde_json::json;

    #[test]
    fn what_is_not_set_counts_as_usual_and_unknown_rules_are_told() {
        let findings = Findings::default();
        let value = json!({"asked-kit": 0, "using-up": 2.5});
        let weights = RuleWeights::read(&Node::top(&value, &findings)).expect("it is right");
        assert_eq!(
            [Rule::AskedKit, Rule::UsingUp, Rule::LostEdges].map(|r| weights.of(r)),
            [0.0, 2.5, 1.0]
        );
        for wrong in [json!({"luck": 1}), json!({"using-up": 4}), json!([1])] {
            let findings = Findings::default();
            let read = RuleWeights::read(&Node::top(&wrong, &findings));
            assert!(findings.finish(read).is_err(), "{wrong}");
        }
    }
}
