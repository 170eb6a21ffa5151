//! The demo's pages, at different stations.

use crate::season::{SeasonCall, call_of};
use metrosk_core::plan::{self, Change, Defaults, Station};
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};

/// A page in the making, or a finished one.
#[derive(Debug, Clone)]
pub struct Page {
    /// Its name.
    pub name: &'static str,
    /// The name of the sketch it is made from.
    pub sketch: String,
    /// Due so many days from today, if at all; less than 0 is overdue.
    pub due_in_days: Option<i64>,
    /// Who made it.
    pub author: &'static str,
    /// Whether it is done.
    pub finished: bool,
    /// The plan that it was started with.
    pub plan: Value,
    /// What was decided since, oldest first.
    pub steps: Vec<Step>,
}

/// A decision, as it went into a page's history.
#[derive(Debug, Clone)]
pub struct Step {
    /// The station at which it was taken.
    pub station: Station,
    /// What it changed.
    pub change: Change,
    /// Why.
    pub reason: &'static str,
}

impl Page {
    /// Its newest plan.
    pub fn newest(&self) -> &Value {
        self.steps.last().map_or(&self.plan, |s| &s.change.plan)
    }
}

/// A page being written down.
struct Draft {
    page: Page,
}

impl Draft {
    fn new(sketches: &[Sketch], sketch: &str, name: &'static str, author: &'static str) -> Draft {
        let found = sketches
            .iter()
            .find(|s| s.name == sketch)
            .expect("the demo's pages are made from the demo's sketches");
        Draft {
            page: Page {
                name,
                sketch: sketch.to_owned(),
                due_in_days: None,
                author,
                finished: false,
                plan: plan::start(found, &Defaults::default()),
                steps: Vec::new(),
            },
        }
    }

    /// Begun for the call that it answers.
    fn asked(mut self, calls: &[SeasonCall], sketches: &[Sketch]) -> Draft {
        let call = call_of(calls, self.page.name).expect("the demo's season asks for it");
        let sketch = sketches.iter().find(|s| s.name == self.page.sketch);
        self.page.plan = call.plan(sketch.expect("it is made from the demo's sketches"));
        self
    }

    /// Begun with papers that were chosen already.
    fn papered(mut self, papers: Value) -> Draft {
        self.page.plan["papers"] = papers;
        self
    }

    /// Begun with a title and writing in mind.
    fn worded(mut self, words: Value) -> Draft {
        self.page.plan["words"] = words;
        self
    }

    /// Begun with pieces laid into its clusters.
    fn clustered(mut self, clusters: Value) -> Draft {
        self.page.plan["clusters"] = clusters;
        self
    }

    /// With what was written down while it was made.
    fn logged(mut self, log: Value) -> Draft {
        self.page.plan["log"] = log;
        self
    }

    fn due(mut self, days: i64) -> Draft {
        self.page.due_in_days = Some(days);
        self
    }

    /// A further step, as a patch of a station's section.
    fn then(mut self, station: Station, reason: &'static str, section: Value) -> Draft {
        let patch = json!({station.name(): section});
        let change = plan::changed(self.page.newest(), station, &patch)
            .expect("the demo's steps can be meant");
        self.page.steps.push(Step {
            station,
            change,
            reason,
        });
        self
    }

    fn photos(self, count: u32, reason: &'static str) -> Draft {
        self.then(Station::Photos, reason, json!({"photos": {"count": count}}))
    }

    /// Marks the first so many stations as settled, one after another.
    fn settled(self, count: usize) -> Draft {
        Station::ALL[..count].iter().fold(self, |draft, station| {
            draft.then(*station, said(*station), json!({"mark": "settled"}))
        })
    }

    fn done(mut self) -> Page {
        self.page.finished = plan::progress(self.page.newest(), None).next.is_none();
        self.page
    }
}

/// What the history says of a settled station.
const fn said(station: Station) -> &'static str {
    match station {
        Station::Call => "Call settled",
        Station::Sketch => "Sketch settled",
        Station::Photos => "Photos settled",
        Station::Fit => "Fit settled",
        Station::Papers => "Papers settled",
        Station::Cut => "Cut settled",
        Station::Words => "Words settled",
        Station::Clusters => "Clusters settled",
        Station::Build => "Build settled",
        Station::Log => "Log settled",
    }
}

/// The club's table.
pub(crate) fn of_the_club(sketches: &[Sketch], calls: &[SeasonCall]) -> Vec<Page> {
    let draft = |sketch, name, author| Draft::new(sketches, sketch, name, author);
    let asked = |sketch, name, author| draft(sketch, name, author).asked(calls, sketches);
    vec![
        asked("Three by the tide line", "Kites over the flats", "Wren")
            .papered(papers_of_kites())
            .worded(words_of_kites())
            .clustered(clusters_of_kites())
            .due(3)
            .then(Station::Fit, "two pages", json!({"target": {"pages": 2}}))
            .then(Station::Photos, "prints listed", json!({"photos": crate::prints()}))
            .settled(4)
            .done(),
        asked("Tea at the slipway", "Tea at the slipway", "Teal").due(9).photos(4, "4 photos").settled(6).done(),
        asked("Sledge race", "Sledge race", "Wren").due(14).then(Station::Fit, "page 8 × 8 in", json!({"target": {"page": {"w": 8, "h": 8}}})).settled(2).done(),
        draft("The long walk out", "The long walk out", "Plover").due(20).settled(1).done(),
        draft("Red noses", "Noses in the wind", "Teal")
            .due(3)
            .then(Station::Fit, "left edge of p2 pinned", json!({"pins": [{"block": "p2", "edge": "left", "at": 3}]}))
            .then(
                Station::Fit,
                "right edge of p1 pinned",
                json!({"pins": [{"block": "p2", "edge": "left", "at": 3}, {"block": "p1", "edge": "right", "at": 4}]}),
            )
            .settled(3)
            .done(),
        asked("Low sun, both pages", "Low sun on one sheet", "Wren")
            .due(-1)
            .then(Station::Fit, "one page", json!({"target": {"pages": 1}}))
            .settled(3)
            .done(),
        asked("Three by the tide line", "Low water", "Plover")
            .due(-4)
            .logged(log_of_low_water())
            .then(Station::Fit, "page 8 × 8 in", json!({"target": {"page": {"w": 8, "h": 8}}}))
            .settled(10)
            .done(),
        draft("Lanterns coming home", "Lanterns", "Plover").settled(2).done(),
        asked("Flag row", "Flags drying", "Wren").due(-30).logged(log_of_flags()).settled(10).done(),
    ]
}

/// The papers of the spread: contours under both pages, waves and an awning for water and sand.
fn papers_of_kites() -> Value {
    let paper = |name: &str| json!({"paper": crate::paper(name, "a")});
    json!({
        "ground": {"0": crate::paper("Low water", "a"), "1": crate::paper("Low water", "a")},
        "pieces": {
            "s1": {"0": paper("Tide waves"), "1": paper("Tide waves")},
            "s2": {"0": paper("Awning"), "1": paper("Awning")},
            "m1": {"0": paper("Snow on navy")},
        },
    })
}

/// What the spread is to say; the hand is Wren's.
fn words_of_kites() -> Value {
    json!({
        "title": {"text": "Sun and wind", "others": ["Kites over the flats", "Low sun"], "sets": [crate::paper("Cork capitals", "a")["item"]]},
        "writing": {
            "text": "Low water at a quarter past one, so out we went with the sledges before the tide could change its mind. The big kite took four \
                     of us to hold and still went where it liked. Every nose was red by two, the urn was dry by three, and nobody would go in. \
                     We came home behind the lanterns with wet boots and sand in the tea.",
            "date": "Saturday 7 November", "place": "at the slipway", "hand": crate::hands()[0],
        },
    })
}

/// A large cluster by the big kite, a small one by the sledges.
fn clusters_of_kites() -> Value {
    let piece = |name: &str| json!({"item": crate::paper(name, "a")["item"]});
    let on_foam =
        |name: &str| json!({"item": crate::paper(name, "a")["item"], "lift": "thin-foam"});
    json!({"clusters": {
        "c1": {"0": {"seed": 4, "pieces": [
            piece("Doilies"), piece("Leaves"), piece("Leaves"), on_foam("Tags"), piece("Sledges"), piece("Film kites"), piece("Hold the line"),
        ]}},
        "c2": {"0": {"seed": 1, "pieces": [piece("Leaves"), piece("Wooden kites"), piece("Stars")]}},
    }})
}

/// An evening's log, by day and hour: kind and text, and of what went wrong what it was.
fn evening(day: &str, written: &[(&str, &str, Value)]) -> Vec<Value> {
    written
        .iter()
        .map(|(hour, text, more)| {
            let mut entry = json!({"id": format!("{day} {hour}"), "at": format!("{day}T{hour}:00Z"), "kind": "step", "text": text});
            if let (Value::Object(entry), Value::Object(more)) = (&mut entry, more) {
                entry.extend(more.clone());
            }
            entry
        })
        .collect()
}

/// How the small page went: two pieces came out short.
fn log_of_low_water() -> Value {
    let step = Value::Null;
    let short = |block: &str, by: f64| json!({"kind": "wrong", "wrong": "cut-short", "block": block, "by": by, "longer": 4});
    let entries = evening(
        "2026-10-24",
        &[
            (
                "18:31",
                "Papers cut, at 8 in the strips are narrow.",
                step.clone(),
            ),
            (
                "18:40",
                "The sand strip did not reach under the photo.",
                short("s2", 0.0625),
            ),
            ("18:58", "The panel neither.", short("s1", 0.125)),
            ("19:20", "Photos on their mats.", step.clone()),
            (
                "19:41",
                "The last E stood crooked. Lifted it with a blade.",
                json!({"kind": "wrong", "wrong": "crooked", "block": "t1", "longer": 5}),
            ),
            ("20:02", "Glued, and under the heavy book.", step),
        ],
    );
    json!({"entries": entries, "remember": "Count the letters before choosing the title.",
        "story": "The small page of the low-water day: one kite, two strips, and the longest line we had."})
}

/// How the flags went.
fn log_of_flags() -> Value {
    let step = Value::Null;
    let short = |block: &str, by: f64| json!({"kind": "wrong", "wrong": "cut-short", "block": block, "by": by});
    let entries = evening(
        "2026-10-03",
        &[
            ("15:10", "All squares punched.", step.clone()),
            (
                "15:32",
                "One panel a hair short under its photo.",
                short("p1", 0.125),
            ),
            (
                "15:50",
                "No G left. The title has a smaller word now.",
                json!({"kind": "wrong", "wrong": "letters-lacking", "longer": 9}),
            ),
            ("16:15", "Flags strung.", step.clone()),
            (
                "16:30",
                "A drop of glue where nobody wants one; a button hides it.",
                json!({"kind": "wrong", "wrong": "blot"}),
            ),
            ("16:44", "Done, and drying on the line.", step),
        ],
    );
    json!({"entries": entries, "remember": "Punch two squares more than needed."})
}

/// The neighbours' table.
pub(crate) fn of_the_neighbours(sketches: &[Sketch]) -> Vec<Page> {
    vec![
        Draft::new(
            sketches,
            "Low sun, both pages",
            "Lamps at dusk",
            "Sandpiper",
        )
        .due(11)
        .settled(3)
        .done(),
    ]
}
