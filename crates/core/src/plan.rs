//! A page's plan: a stack of decisions, one section a station. What follows from them is derived, never stored as a decision.
//!
//! `metrosk-plan/2` has a unit and a section for each station that has decided anything: `{"format", "unit", "sketch": {"sketch", "turn",
//! "flip", "keep", "readings"}, "photos": {"photos", "photo_rule"}, "fit": {"target", "approach", "pins", …}, …}`. A section may carry
//! `"mark"` (`settled`, `needs-a-look`) and `"grounds"`, the digests of what it was settled on. Unknown fields stay where they are.

mod derive;
mod digest;
mod earlier;
mod for_call;
mod grounds;
mod patch;
mod section;
mod stations;

pub use crate::defaults::Defaults;
pub use derive::{Derive, FIT_ENGINE, fit_digest};
pub use digest::Digest;
pub use earlier::brought_up;
pub use for_call::start_for_call;
pub use grounds::Grounds;
pub use patch::{between, holds, patched};
pub use section::{Mark, Section};
pub use stations::{Progress, Standing, State, Station, progress};

use crate::building::BuildDecisions;
use crate::calls::CallDecisions;
use crate::clusters::ClusterDecisions;
use crate::cutting::CutDecisions;
use crate::document::{Findings, Invalid, Node};
use crate::fit::{Back, FitDecisions, PhotoDecisions, Pin, Request, SketchDecisions};
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::log::LogDecisions;
use crate::papers::PaperDecisions;
use crate::sketch::{Reader, Sketch, read_unit};
use crate::words::WordsDecisions;
use serde_json::{Map, Value, json};

/// The `format` of a plan.
pub const FORMAT: &str = "metrosk-plan/2";

/// A plan, as read: each station's section in the order of work.
#[derive(Clone, Debug, PartialEq)]
#[allow(
    missing_docs,
    reason = "each field is the section of the station it is named after"
)]
pub struct Plan {
    /// The unit of the sections' lengths.
    pub unit: Unit,
    pub call: Section<CallDecisions>,
    pub sketch: Section<SketchDecisions>,
    pub photos: Section<PhotoDecisions>,
    pub fit: Section<FitDecisions>,
    pub papers: Section<PaperDecisions>,
    pub cut: Section<CutDecisions>,
    pub words: Section<WordsDecisions>,
    pub clusters: Section<ClusterDecisions>,
    pub build: Section<BuildDecisions>,
    pub log: Section<LogDecisions>,
}

impl Plan {
    /// Reads a plan; one of version 1 is brought up first.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Plan, Invalid> {
        let plan = brought_up(value);
        let findings = Findings::default();
        let read = read_plan(&Node::top(&plan, &findings), &findings);
        findings.finish(read)
    }

    /// The fit request that its sections make together.
    pub fn request(&self) -> Request {
        Request::of(
            self.unit,
            self.sketch.decisions.clone(),
            self.photos.decisions.clone(),
            self.fit.decisions.clone(),
        )
    }
}

fn read_plan(top: &Node<'_>, findings: &Findings) -> Option<Plan> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
        return None;
    }
    let unit = read_unit(top);
    let reader = Reader {
        unit: unit.unwrap_or_default(),
    };
    let call = section::read::<CallDecisions>(top, Station::Call, reader, (), findings);
    let sketch = section::read::<SketchDecisions>(top, Station::Sketch, reader, (), findings);
    let photos = section::read::<PhotoDecisions>(top, Station::Photos, reader, (), findings);
    let before = (
        sketch.as_ref().map(|s| &s.decisions),
        photos.as_ref().map(|s| &s.decisions),
    );
    let fit = section::read::<FitDecisions>(top, Station::Fit, reader, before, findings);
    let papers = section::read::<PaperDecisions>(top, Station::Papers, reader, (), findings);
    let cut = section::read::<CutDecisions>(top, Station::Cut, reader, (), findings);
    let words = section::read::<WordsDecisions>(top, Station::Words, reader, (), findings);
    let build = section::read::<BuildDecisions>(top, Station::Build, reader, (), findings);
    let clusters = section::read::<ClusterDecisions>(top, Station::Clusters, reader, (), findings);
    let log = section::read::<LogDecisions>(top, Station::Log, reader, (), findings);
    Some(Plan {
        unit: unit?,
        call: call?,
        sketch: sketch?,
        photos: photos?,
        fit: fit?,
        papers: papers?,
        cut: cut?,
        words: words?,
        clusters: clusters?,
        build: build?,
        log: log?,
    })
}

/// A change of a plan: a patch of one or more sections, and what takes it back.
#[derive(Clone, Debug, PartialEq)]
pub struct Change {
    /// The plan after it.
    pub plan: Value,
    /// What differs, as a merge patch of the plan.
    pub patch: Value,
    /// The merge patch that takes it back.
    pub inverse: Value,
}

impl Change {
    /// The change that leads from one plan to another.
    pub fn between(from: &Value, to: Value) -> Change {
        Change {
            patch: between(from, &to),
            inverse: between(&to, from),
            plan: to,
        }
    }

    /// The stations whose sections it touches. The unit is that of the photos' lengths and of the fit's.
    pub fn touches(&self) -> Vec<Station> {
        let touched = |s: &Station| {
            let by_unit = matches!(s, Station::Photos | Station::Fit);
            self.patch.get(s.name()).is_some() || by_unit && self.patch.get("unit").is_some()
        };
        Station::ALL.into_iter().filter(touched).collect()
    }
}

/// Changes a plan (of version 2) by a patch of its sections, made at a station. A section that is marked as settled writes down what it was
/// settled on; where she changes what her own station builds on, there she has seen it, and what was settled stays so.
///
/// # Errors
/// What the patch names that is no section, and all that breaks the format after it.
pub fn changed(plan: &Value, station: Station, patch: &Value) -> Result<Change, Invalid> {
    let sections = Station::ALL.map(Station::name);
    let allowed = || format!("unit, {}", sections.join(", "));
    let Some(fields) = patch.as_object() else {
        return Err(Invalid::one(
            "",
            "no object",
            format!("an object with {}", allowed()),
        ));
    };
    for (name, section) in fields {
        if name != "unit" && !sections.contains(&name.as_str()) {
            return Err(Invalid::one("", format!("“{name}”"), allowed()));
        }
        if name != "unit" && !section.is_object() {
            return Err(Invalid::one(
                name,
                section.to_string(),
                "an object, or leave it out",
            ));
        }
    }
    let mut after = patched(plan, patch);
    let stood = Standing::of(plan, station).state == State::Settled;
    for each in Station::ALL {
        let set = patch.get(each.name());
        // What it is settled on is found here, whatever a sender thinks.
        let marks = set.is_some_and(|s| s.get("mark").is_some() || s.get("grounds").is_some());
        if marks || each == station && stood {
            after = with_grounds(&after, each);
        }
    }
    Plan::from_json(&after)?;
    Ok(Change::between(plan, after))
}

/// A plan in which a section that is marked as settled has written down what it is settled on; an open one has no mark.
fn with_grounds(plan: &Value, station: Station) -> Value {
    let mark = plan[station.name()]["mark"].clone();
    let (mark, grounds) = match mark.as_str().and_then(State::from_name) {
        Some(State::Settled) => (mark, Grounds::of(plan, station).to_json()),
        Some(State::Open) => (Value::Null, Value::Null),
        _ => (mark, Value::Null),
    };
    // Earlier grounds go first: a merge would leave those of stations that it no longer builds on.
    let without = patched(
        plan,
        &json!({station.name(): {"mark": mark, "grounds": null}}),
    );
    patched(&without, &json!({station.name(): {"grounds": grounds}}))
}

/// The sections of a plan that a fit request makes; `None` where it is no object. Fields that nothing here understands go to the fit's.
fn sections_of(fit: &Value) -> Option<Map<String, Value>> {
    let mut plan = Map::new();
    let mut sections = [Map::new(), Map::new(), Map::new()];
    for (name, value) in fit.as_object()? {
        let field = name.as_str();
        match field {
            "format" => {}
            "unit" => {
                plan.insert(name.clone(), value.clone());
            }
            _ => {
                let section = if SketchDecisions::FIELDS.contains(&field) {
                    0
                } else if PhotoDecisions::FIELDS.contains(&field) {
                    1
                } else {
                    2
                };
                sections[section].insert(name.clone(), value.clone());
            }
        }
    }
    let stations = [Station::Sketch, Station::Photos, Station::Fit];
    for (station, section) in stations.into_iter().zip(sections) {
        plan.insert(station.name().to_owned(), Value::Object(section));
    }
    Some(plan)
}

/// A plan made one for the back of a front: on the front's page, with what shows through held in place.
pub fn with_back(mut plan: Value, front: &Layout, back: &Back) -> Value {
    let unit = if plan["unit"] == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let number = |l: Length| crate::document::length_number(l, unit);
    let page = front.canvas.page;
    plan["fit"]["target"]["page"] = json!({"w": number(page.w), "h": number(page.h)});
    plan["fit"]["target"]["pages"] = json!(1);
    plan["sketch"]["sketch"] = back.sketch.to_json();
    let pin = |p: &Pin| json!({"block": p.block, "edge": p.edge.name(), "at": number(p.at)});
    plan["fit"]["pins"] = back.pins.iter().map(pin).collect();
    plan
}

/// The plan a page starts with: the sketch on a page of its own size, with the maker's own margin, fold guard and step.
pub fn start(sketch: &Sketch, defaults: &Defaults) -> Value {
    let unit = defaults.unit.unwrap_or(sketch.unit);
    let number = |l: Length| crate::document::length_number(l, unit);
    let page = sketch.canvas.page;
    let target = json!({
        "page": {"w": number(page.w), "h": number(page.h)}, "pages": sketch.canvas.pages,
        "margin": number(defaults.margin_in(unit)), "fold_guard": number(defaults.fold_guard_in(unit)),
    });
    json!({
        "format": FORMAT, "unit": unit.name(),
        "sketch": {"sketch": sketch.to_json()},
        "photos": {},
        "fit": {"target": target, "snap": number(defaults.step_in(unit)), "pins": []},
    })
}
