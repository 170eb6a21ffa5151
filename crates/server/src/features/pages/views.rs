//! Pages as they cross the wire, and how they are made from rows.

use crate::documents::plans::{PapersSectionDoc, PlanDoc};
use crate::documents::sketches::{LayoutDoc, SketchDoc};
use crate::features::history::store::{StepRow, Trail};
use crate::features::history::views::{StepView, TrailView};
use crate::features::pages::store::{CallOfPage, PageRow};
use crate::features::photos::pictures::{PictureOnPrint, on_prints};
use metrosk_core::plan::{self, Progress, brought_up};
use metrosk_core::sketch::credit_of;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::borrow::Cow;
use std::collections::BTreeMap;
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

time::serde::format_description!(pub(crate) day, Date, "[year]-[month]-[day]");

/// Where a page stands on one station.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct StationView {
    /// `call`, `sketch`, … `log`
    pub(crate) name: String,
    /// `open`, `settled` or `needs-a-look`
    pub(crate) state: String,
    /// What changed since it was settled, in words.
    pub(crate) changed: Vec<String>,
}

/// What can be drawn.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub(crate) enum DrawnDoc {
    /// A layout.
    Layout(LayoutDoc),
    /// A sketch.
    Sketch(SketchDoc),
}

/// A page as it hangs on the table.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageCard {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// The sketch in the drawer that it was made from.
    pub(crate) sketch: Option<Uuid>,
    /// The call that it answers.
    pub(crate) call: Option<CallOfPage>,
    /// By when it is to be done.
    #[serde(with = "day::option")]
    #[schema(value_type = Option<String>, format = Date)]
    pub(crate) due: Option<Date>,
    /// Whether it is done.
    pub(crate) finished: bool,
    /// Whether it has been set aside.
    pub(crate) archived: bool,
    /// The newest revision of its name, dates and the like: a change of these names it.
    pub(crate) details_revision: i32,
    /// The newest revision of its plan.
    pub(crate) revision: i32,
    /// Who made that revision.
    pub(crate) author: String,
    /// Why.
    pub(crate) reason: String,
    /// When it was last changed.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) changed_at: OffsetDateTime,
    /// Each station's state, in order.
    pub(crate) stations: Vec<StationView>,
    /// The next decision to take.
    pub(crate) next: Option<String>,
    /// Its layout to scale, once that is known; the sketch itself where pins clash or until it is.
    #[schema(value_type = DrawnDoc)]
    pub(crate) layout: Value,
    /// Whether that is the layout of the newest plan.
    pub(crate) known: bool,
    /// Why the newest plan has no layout.
    pub(crate) clash: Option<String>,
    /// The pictures on its prints.
    pub(crate) pictures: Vec<PrintPictureView>,
    /// What is decided about its papers.
    #[schema(value_type = Option<PapersSectionDoc>)]
    pub(crate) papers: Option<Value>,
}

/// A print's picture.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PrintPictureView {
    /// The print.
    pub(crate) id: String,
    /// Its picture.
    pub(crate) picture: Uuid,
    /// By how much that is turned on it, clockwise.
    pub(crate) turned: u32,
}

fn pictures_on(plan: &Value) -> Vec<PrintPictureView> {
    let view = |on: PictureOnPrint| PrintPictureView {
        id: on.print,
        picture: on.picture,
        turned: on.turned,
    };
    on_prints(plan).into_iter().map(view).collect()
}

/// A page in the making.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// The sketch in the drawer that it was made from.
    pub(crate) sketch: Option<Uuid>,
    /// The call that it answers.
    pub(crate) call: Option<CallOfPage>,
    /// By when it is to be done.
    #[serde(with = "day::option")]
    #[schema(value_type = Option<String>, format = Date)]
    pub(crate) due: Option<Date>,
    /// Whether it is done.
    pub(crate) finished: bool,
    /// Whether it has been set aside.
    pub(crate) archived: bool,
    /// The newest revision of its name, dates and the like: a change of these names it.
    pub(crate) details_revision: i32,
    /// The newest revision of its plan.
    pub(crate) revision: i32,
    /// That plan.
    #[schema(value_type = PlanDoc)]
    pub(crate) plan: Value,
    /// Whom the page credits for its sketch, in a sentence.
    pub(crate) credit: Option<String>,
    /// Who made that revision.
    pub(crate) author: String,
    /// Why.
    pub(crate) reason: String,
    /// By station, the changes that undo takes back and redo brings back there, the next one last. More may lie further back.
    pub(crate) trails: BTreeMap<String, TrailView>,
    /// When it was last changed.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) changed_at: OffsetDateTime,
    /// Each station's state, in order.
    pub(crate) stations: Vec<StationView>,
    /// The next decision to take.
    pub(crate) next: Option<String>,
}

/// What a page was called and when it was due.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DetailsView {
    /// Its number, from 1.
    pub(crate) revision: i32,
    /// The page's name.
    pub(crate) name: String,
    /// By when it was to be done.
    #[serde(with = "day::option")]
    #[schema(value_type = Option<String>, format = Date)]
    pub(crate) due: Option<Date>,
    /// Whether it was done.
    pub(crate) finished: bool,
    /// Whether it was set aside.
    pub(crate) archived: bool,
    /// Who made it so.
    pub(crate) author: String,
    /// When.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
}

/// What a new page is made from.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewPage {
    /// Its name; the sketch's where there is none.
    pub(crate) name: Option<String>,
    /// The sketch in the drawer.
    pub(crate) sketch: Uuid,
    /// The page whose back this is: with `see_through`.
    #[serde(default)]
    pub(crate) back_of: Option<Uuid>,
    /// The front's sketch blocks that can be seen through.
    #[serde(default)]
    pub(crate) see_through: Option<Vec<String>>,
    /// By when it is to be done.
    #[serde(default, with = "day::option")]
    #[schema(value_type = Option<String>, format = Date)]
    pub(crate) due: Option<Date>,
}

/// What of a page changes beside its plan. What is left out stays; a due date of null is none.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageChange {
    /// The revision of these details that it started from.
    pub(crate) details_revision: i32,
    /// Its name.
    pub(crate) name: Option<String>,
    /// By when it is to be done.
    #[serde(
        default,
        deserialize_with = "some",
        skip_serializing_if = "Option::is_none"
    )]
    #[schema(value_type = Option<String>, format = Date)]
    pub(crate) due: Option<Value>,
    /// Done, or in the making again.
    pub(crate) finished: Option<bool>,
    /// Put away, or taken out again.
    pub(crate) archived: Option<bool>,
}

/// A field that is there, be it null.
fn some<'de, D: serde::Deserializer<'de>>(from: D) -> Result<Option<Value>, D::Error> {
    Value::deserialize(from).map(Some)
}

fn stations(progress: Progress) -> Vec<StationView> {
    let view = |s: plan::Standing| StationView {
        name: s.station.name().to_owned(),
        state: s.state.name().to_owned(),
        changed: s.changed.into_iter().map(str::to_owned).collect(),
    };
    progress.stations.into_iter().map(view).collect()
}

/// A row's plan in today's format, taken out of it.
fn today(row: &mut PageRow) -> Value {
    let plan = row.plan.take();
    match brought_up(&plan) {
        Cow::Owned(today) => today,
        Cow::Borrowed(_) => plan,
    }
}

/// A page as it hangs on the table: by its sketch until its layout is known, and where pins clash.
pub(crate) fn card(mut row: PageRow) -> PageCard {
    let mut plan = today(&mut row);
    let progress = plan::progress(&plan, row.clash.as_deref());
    let layout = row
        .layout
        .take()
        .unwrap_or_else(|| plan["sketch"]["sketch"].take());
    PageCard {
        id: row.id,
        name: row.name,
        sketch: row.sketch_id,
        call: row.call.map(|c| c.0),
        due: row.due,
        finished: row.finished_at.is_some(),
        archived: row.archived_at.is_some(),
        details_revision: row.details_revision,
        revision: row.revision,
        author: row.author,
        reason: row.reason,
        changed_at: row.changed_at,
        next: progress.next.clone(),
        stations: stations(progress),
        layout,
        known: row.known,
        clash: row.clash,
        pictures: pictures_on(&plan),
        papers: Some(plan["papers"].take()).filter(Value::is_object),
    }
}

/// A page with its plan.
pub(crate) fn page(mut row: PageRow, trails: BTreeMap<String, Trail>) -> PageView {
    let plan = today(&mut row);
    let progress = plan::progress(&plan, row.clash.as_deref());
    let credit = credit_of(&plan["sketch"]["sketch"]["origin"]);
    PageView {
        credit,
        id: row.id,
        name: row.name,
        sketch: row.sketch_id,
        call: row.call.map(|c| c.0),
        due: row.due,
        finished: row.finished_at.is_some(),
        archived: row.archived_at.is_some(),
        details_revision: row.details_revision,
        revision: row.revision,
        plan,
        author: row.author,
        reason: row.reason,
        trails: trails.into_iter().map(|(s, t)| (s, trail(t))).collect(),
        changed_at: row.changed_at,
        next: progress.next.clone(),
        stations: stations(progress),
    }
}

fn trail(trail: Trail) -> TrailView {
    let step = |s: StepRow| StepView {
        revision: s.revision,
        reason: s.reason,
        patch: s.patch,
        inverse: s.inverse,
    };
    TrailView {
        undo: trail.undo.into_iter().map(step).collect(),
        redo: trail.redo.into_iter().map(step).collect(),
    }
}
