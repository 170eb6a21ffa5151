//! The ten stations of a page in the making, where it stands, and what is to be decided next.

use crate::document::{Invalid, Node};
use serde_json::Value;

/// A station, in the order in which makers work.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Station {
    /// What is asked, by when, with which kit.
    Call,
    /// Which sketch, and what it means.
    Sketch,
    /// Which prints.
    Photos,
    /// Where everything goes.
    Fit,
    /// Which sheet and side for each piece.
    Papers,
    /// What is cut from which sheet.
    Cut,
    /// Title and journaling.
    Words,
    /// Clusters and the last look at the page.
    Clusters,
    /// The order of making.
    Build,
    /// What was done, and the publishing pack.
    Log,
}

/// How a station stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum State {
    /// Nothing has been settled here.
    Open,
    /// The maker has settled it.
    Settled,
    /// It was settled, or it stands in the way of what comes after: it wants another look.
    NeedsALook,
}

impl Station {
    /// All ten, in order.
    pub const ALL: [Station; 10] = [
        Station::Call,
        Station::Sketch,
        Station::Photos,
        Station::Fit,
        Station::Papers,
        Station::Cut,
        Station::Words,
        Station::Clusters,
        Station::Build,
        Station::Log,
    ];

    /// Its name in documents and addresses.
    pub const fn name(self) -> &'static str {
        match self {
            Station::Call => "call",
            Station::Sketch => "sketch",
            Station::Photos => "photos",
            Station::Fit => "fit",
            Station::Papers => "papers",
            Station::Cut => "cut",
            Station::Words => "words",
            Station::Clusters => "clusters",
            Station::Build => "build",
            Station::Log => "log",
        }
    }

    /// The station of that name.
    pub fn from_name(name: &str) -> Option<Station> {
        Station::ALL.into_iter().find(|s| s.name() == name)
    }

    /// What is to be decided there, as the next thing to do.
    pub const fn decision(self) -> &'static str {
        match self {
            Station::Call => "read the call",
            Station::Sketch => "look over the sketch",
            Station::Photos => "choose the prints",
            Station::Fit => "choose a way to fit",
            Station::Papers => "choose the papers",
            Station::Cut => "plan the cuts",
            Station::Words => "set the title and the writing",
            Station::Clusters => "place the clusters",
            Station::Build => "order the build",
            Station::Log => "log the page",
        }
    }
}

impl State {
    const NAMES: [&'static str; 3] = ["open", "settled", "needs-a-look"];

    /// Its name in documents.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }
}

/// Where a page stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Progress {
    /// Each station's state, in order.
    pub states: [(Station, State); 10],
    /// The next decision, in words; none when all ten are settled.
    pub next: Option<String>,
}

/// Where a plan stands: what the maker has marked (`"stations": {"sketch": "settled"}`), and a fit that can't hold.
pub fn progress(plan: &Value, clash: Option<&str>) -> Progress {
    let marked = |s: Station| match plan
        .get("stations")
        .and_then(|m| m.get(s.name()))
        .and_then(Value::as_str)
    {
        Some("settled") => State::Settled,
        Some("needs-a-look") => State::NeedsALook,
        _ => State::Open,
    };
    let state = |s: Station| {
        if s == Station::Fit && clash.is_some() {
            State::NeedsALook
        } else {
            marked(s)
        }
    };
    let states = Station::ALL.map(|s| (s, state(s)));
    let wanting = states
        .iter()
        .find(|s| s.1 == State::NeedsALook)
        .or_else(|| states.iter().find(|s| s.1 == State::Open));
    let next = wanting.map(|(station, _)| match (station, clash) {
        (Station::Fit, Some(clash)) => clash.to_owned(),
        (station, _) => station.decision().to_owned(),
    });
    Progress { states, next }
}

/// Checks a plan's marks, as findings under `stations`.
pub(super) fn check(plan: &Node<'_>) {
    let Some(marks) = plan.get("stations") else {
        return;
    };
    for name in marks.object().into_iter().flat_map(|o| o.keys()) {
        if Station::from_name(name).is_none() {
            marks.wrong_because(
                format!("“{name}”"),
                Station::ALL.map(Station::name).join(", "),
            );
        } else if let Some(state) = marks.get(name) {
            state.one_of(&State::NAMES, |n| State::NAMES.contains(&n).then_some(()));
        }
    }
}

/// All findings about a plan's marks.
///
/// # Errors
/// When a mark is of no station, or of no state.
pub fn check_marks(plan: &Value) -> Result<(), Invalid> {
    let findings = crate::document::Findings::default();
    check(&Node::top(plan, &findings));
    if findings.is_empty() {
        Ok(())
    } else {
        findings.finish(Some(()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn the_next_decision_is_the_first_that_is_open() {
        let plan = json!({"stations": {"call": "settled", "sketch": "settled"}});
        let found = progress(&plan, None);
        assert_eq!(found.next.as_deref(), Some("choose the prints"));
        assert_eq!(found.states[1], (Station::Sketch, State::Settled));
        assert_eq!(found.states[3], (Station::Fit, State::Open));
    }

    #[test]
    fn what_needs_a_look_comes_first_and_a_clash_says_why() {
        let plan =
            json!({"stations": {"call": "settled", "fit": "settled", "papers": "needs-a-look"}});
        assert_eq!(
            progress(&plan, None).next.as_deref(),
            Some("choose the papers")
        );
        let clash = progress(&plan, Some("These pins can't hold together."));
        assert_eq!(clash.states[3].1, State::NeedsALook);
        assert_eq!(
            clash.next.as_deref(),
            Some("These pins can't hold together.")
        );
    }

    #[test]
    fn a_page_with_all_settled_has_nothing_next() {
        let marks: serde_json::Map<String, Value> = Station::ALL
            .iter()
            .map(|s| (s.name().to_owned(), json!("settled")))
            .collect();
        assert_eq!(progress(&json!({"stations": marks}), None).next, None);
    }

    #[test]
    fn unknown_marks_are_found() {
        assert!(check_marks(&json!({"stations": {"fit": "settled"}})).is_ok());
        assert!(check_marks(&json!({})).is_ok());
        let found = check_marks(&json!({"stations": {"fit": "done", "oven": "open"}}))
            .expect_err("two findings")
            .findings;
        assert_eq!(
            found.iter().map(|f| f.path.as_str()).collect::<Vec<_>>(),
            ["stations.fit", "stations"]
        );
    }
}
