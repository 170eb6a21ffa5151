//! The ten stations of a page in the making, where it stands, and what is to be decided next.

use super::grounds::{Grounds, Present};
use serde_json::Value;

/// A station, in the order in which makers work.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
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

    /// The stations whose decisions it builds on: when these change after it was settled, it needs a look.
    pub const fn builds_on(self) -> &'static [Station] {
        use Station::{Build, Call, Clusters, Cut, Fit, Papers, Photos, Sketch, Words};
        match self {
            Call => &[],
            Sketch => &[Call],
            Photos => &[Sketch],
            Fit => &[Sketch, Photos],
            Papers => &[Sketch, Photos, Fit],
            Cut => &[Sketch, Photos, Fit, Papers],
            Words => &[Sketch, Photos, Fit],
            Clusters => &[Sketch, Photos, Fit, Words],
            Build => &[Sketch, Photos, Fit, Papers, Cut, Words, Clusters],
            Station::Log => &[],
        }
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
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["open", "settled", "needs-a-look"];

    /// The state of that name.
    pub fn from_name(name: &str) -> Option<State> {
        [State::Open, State::Settled, State::NeedsALook]
            .into_iter()
            .find(|s| s.name() == name)
    }

    /// Its name in documents.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }
}

/// How one station of a page stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Standing {
    /// Which.
    pub station: Station,
    /// How it stands.
    pub state: State,
    /// What changed since it was settled, in a maker's words; nothing where it was not, or stands as it was.
    pub changed: Vec<&'static str>,
}

/// Where a page stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Progress {
    /// Each station, in order.
    pub stations: Vec<Standing>,
    /// The next decision, in words; none when all ten are settled.
    pub next: Option<String>,
}

/// Where a plan stands: what the maker has marked, what changed since she settled it, and a fit that can't hold.
pub fn progress(plan: &Value, clash: Option<&str>) -> Progress {
    let present = Present::of(plan);
    let stations: Vec<Standing> = Station::ALL
        .into_iter()
        .map(|s| match Standing::in_present(&present, s) {
            fit if s == Station::Fit && clash.is_some() => Standing {
                state: State::NeedsALook,
                ..fit
            },
            standing => standing,
        })
        .collect();
    let first = |state| stations.iter().find(|s| s.state == state);
    let wanting = first(State::NeedsALook).or_else(|| first(State::Open));
    let next = wanting.map(|s| match (s.station, clash) {
        (Station::Fit, Some(clash)) => clash.to_owned(),
        (station, _) if !s.changed.is_empty() => {
            format!(
                "{} again: {} changed",
                station.decision(),
                listed(&s.changed)
            )
        }
        (station, _) => station.decision().to_owned(),
    });
    Progress { stations, next }
}

impl Standing {
    /// How a station of a plan stands: what the maker has marked, and what changed since.
    pub fn of(plan: &Value, station: Station) -> Standing {
        Standing::in_present(&Present::of(plan), station)
    }

    fn in_present(present: &Present<'_>, station: Station) -> Standing {
        let section = present.plan().get(station.name());
        let mark = section
            .and_then(|s| s.get("mark"))
            .and_then(Value::as_str)
            .and_then(State::from_name)
            .unwrap_or(State::Open);
        let changed = match (mark, section) {
            (State::Settled, Some(section)) => Grounds::written_in(section).changed_in(present),
            _ => Vec::new(),
        };
        Standing {
            station,
            state: if changed.is_empty() {
                mark
            } else {
                State::NeedsALook
            },
            changed,
        }
    }
}

/// “the sketch”, “the sketch and the photos”, “the sketch, the photos and the page”.
fn listed(words: &[&str]) -> String {
    match words {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn marked(mark: &str, stations: &[&str]) -> Value {
        let section = |s: &&str| ((*s).to_owned(), json!({"mark": mark}));
        Value::Object(stations.iter().map(section).collect())
    }

    #[test]
    fn the_next_decision_is_the_first_that_is_open() {
        let found = progress(&marked("settled", &["call", "sketch"]), None);
        assert_eq!(found.next.as_deref(), Some("choose the prints"));
        let states: Vec<State> = found.stations.iter().map(|s| s.state).collect();
        assert_eq!(states[..3], [State::Settled, State::Settled, State::Open]);
    }

    #[test]
    fn what_needs_a_look_comes_first_and_a_clash_says_why() {
        let mut plan = marked("settled", &["call", "fit"]);
        plan["papers"] = json!({"mark": "needs-a-look"});
        assert_eq!(
            progress(&plan, None).next.as_deref(),
            Some("choose the papers")
        );
        let clash = progress(&plan, Some("These pins can't hold together."));
        assert_eq!(clash.stations[3].state, State::NeedsALook);
        assert_eq!(
            clash.next.as_deref(),
            Some("These pins can't hold together.")
        );
    }

    #[test]
    fn a_page_with_all_settled_has_nothing_next() {
        let plan = marked("settled", &Station::ALL.map(Station::name));
        assert_eq!(progress(&plan, None).next, None);
    }

    #[test]
    fn a_station_builds_on_stations_before_it() {
        for station in Station::ALL {
            assert!(
                station.builds_on().iter().all(|b| *b < station),
                "{station:?}"
            );
        }
    }
}
