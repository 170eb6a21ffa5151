//! The demo's pages, at different stations.

use metrosk_core::plan::{self, Defaults, Station};
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
    /// Its plan as it grew, with the reason of each step.
    pub revisions: Vec<(Value, &'static str)>,
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
        let first = plan::start(found, &Defaults::default());
        let revisions = vec![(first, "started from the sketch")];
        Draft {
            page: Page {
                name,
                sketch: sketch.to_owned(),
                due_in_days: None,
                author,
                finished: false,
                revisions,
            },
        }
    }

    fn due(mut self, days: i64) -> Draft {
        self.page.due_in_days = Some(days);
        self
    }

    /// A further step.
    fn then(mut self, reason: &'static str, change: impl FnOnce(&mut Value)) -> Draft {
        let mut plan = self
            .page
            .revisions
            .last()
            .map(|r| r.0.clone())
            .unwrap_or_default();
        change(&mut plan);
        self.page.revisions.push((plan, reason));
        self
    }

    /// Marks the first so many stations as settled.
    fn settled(self, count: usize) -> Draft {
        self.then("marked how far it is", |plan| {
            let marks: serde_json::Map<String, Value> = Station::ALL[..count]
                .iter()
                .map(|s| (s.name().to_owned(), json!("settled")))
                .collect();
            plan["stations"] = Value::Object(marks);
        })
    }

    fn done(mut self) -> Page {
        self.page.finished = self
            .page
            .revisions
            .last()
            .is_some_and(|(plan, _)| plan::progress(plan, None).next.is_none());
        self.page
    }
}

fn two_pages(plan: &mut Value) {
    plan["fit"]["target"]["pages"] = 2.into();
}

fn photos(count: u32) -> impl FnOnce(&mut Value) {
    move |plan| plan["fit"]["photos"] = json!({"count": count})
}

fn page(w: f64, h: f64) -> impl FnOnce(&mut Value) {
    move |plan| plan["fit"]["target"]["page"] = json!({"w": w, "h": h})
}

fn pins(pins: Value) -> impl FnOnce(&mut Value) {
    move |plan| plan["fit"]["pins"] = pins
}

/// The club's table.
pub(crate) fn of_the_club(sketches: &[Sketch]) -> Vec<Page> {
    let draft = |sketch, name, author| Draft::new(sketches, sketch, name, author);
    vec![
        draft("Three by the tide line", "Kites over the flats", "Wren")
            .due(3)
            .then("two pages", two_pages)
            .then("6 photos", photos(6))
            .settled(4)
            .done(),
        draft("Tea at the slipway", "Tea at the slipway", "Teal").due(9).then("4 photos", photos(4)).settled(6).done(),
        draft("Sledge race", "Sledge race", "Wren").due(14).then("page 8 × 8 in", page(8.0, 8.0)).settled(2).done(),
        draft("The long walk out", "The long walk out", "Plover").due(20).settled(1).done(),
        draft("Red noses", "Noses in the wind", "Teal")
            .due(3)
            .then("left edge of p2 pinned", pins(json!([{"block": "p2", "edge": "left", "at": 3}])))
            .then("right edge of p1 pinned", pins(json!([{"block": "p2", "edge": "left", "at": 3}, {"block": "p1", "edge": "right", "at": 4}])))
            .settled(3)
            .done(),
        draft("Low sun, both pages", "Low sun on one sheet", "Wren")
            .due(-1)
            .then("one page", |plan| plan["fit"]["target"]["pages"] = 1.into())
            .settled(3)
            .done(),
        draft("Lanterns coming home", "Lanterns", "Plover").settled(2).done(),
        draft("Flag row", "Flags drying", "Wren").due(-30).settled(10).done(),
    ]
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
