//! What the API says of sketches and pages.

use super::{LayoutDoc, PictureReading, PlanDoc, ReadingView, SketchDoc};
use crate::error::Problem;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::BTreeMap;
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

/// A sketch in the drawer.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// The document.
    #[schema(value_type = SketchDoc)]
    pub(crate) document: Value,
    /// What was read from it.
    pub(crate) reading: ReadingView,
    /// How many pages have been made from it.
    pub(crate) pages: i64,
    /// When it came into the drawer.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
    /// Whether it has been put away.
    pub(crate) archived: bool,
    /// Its tags.
    pub(crate) tags: Vec<String>,
    /// The picture that it was read from or laid over.
    pub(crate) picture: Option<Uuid>,
    /// The lift of that picture that it was laid over.
    pub(crate) lift: Option<Uuid>,
    /// Its newest revision: a write names it.
    pub(crate) revision: i32,
    /// How many slots would have to change for the photos that were asked about; none where nothing was asked, or there is no slot.
    pub(crate) changes: Option<usize>,
}

/// A sketch's new name, and whether it is set aside. What is left out stays.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchChange {
    /// The revision it started from.
    pub(crate) revision: i32,
    /// Its name.
    pub(crate) name: Option<String>,
    /// Put away, or taken out again.
    pub(crate) archived: Option<bool>,
    /// Its tags.
    pub(crate) tags: Option<Vec<String>>,
}

/// A revision of a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchRevisionView {
    /// Its number, from 1.
    pub(crate) revision: i32,
    /// Who made it.
    pub(crate) author: String,
    /// Why.
    pub(crate) reason: String,
    /// When.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
}

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

/// A revision in a page's history.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RevisionView {
    /// Its number, from 1.
    pub(crate) revision: i32,
    /// The station at which it was made.
    pub(crate) station: String,
    /// Who made it.
    pub(crate) author: String,
    /// Why.
    pub(crate) reason: String,
    /// When.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
    /// The names that it was given.
    pub(crate) names: Vec<String>,
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

/// Something that happened to one of the team's things.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct EventView {
    /// `page`, `details`, `layout`, `sketch` or `job`: what of the thing is another now.
    pub(crate) what: String,
    /// The page, sketch or job.
    pub(crate) thing: Uuid,
    /// The revision that it is at now; of a job, how often it has been told.
    pub(crate) revision: i32,
    /// Who did it.
    pub(crate) author: String,
    /// A job's state: `waiting`, `running`, `done`, `failed` or `cancelled`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) state: Option<String>,
    /// How far a job is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) progress: Option<String>,
}

/// Long work.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct JobView {
    /// Its id: events name it.
    pub(crate) id: Uuid,
    /// `read` or `layout`
    pub(crate) kind: String,
    /// `waiting`, `running`, `done`, `failed` or `cancelled`
    pub(crate) state: String,
    /// How far it is.
    pub(crate) progress: Option<String>,
    /// What came of it, once it is done; of a reading a `PictureReading`.
    #[schema(value_type = Option<PictureReading>)]
    pub(crate) outcome: Option<Value>,
    /// Why it failed.
    #[schema(value_type = Option<Problem>)]
    pub(crate) problem: Option<Value>,
    /// How often it has been told so far: events with a lower `revision` are older.
    pub(crate) told: i32,
}

/// A named version of a page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct VersionView {
    /// Its name.
    pub(crate) name: String,
    /// The revision that it names.
    pub(crate) revision: i32,
    /// Who named it.
    pub(crate) made_by: String,
    /// When.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
}

/// A revision with its plan.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RevisionPlan {
    /// Its number.
    pub(crate) revision: i32,
    /// Why it was made.
    pub(crate) reason: String,
    /// Its plan.
    #[schema(value_type = PlanDoc)]
    pub(crate) plan: Value,
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

/// A change of a plan.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlanChange {
    /// The revision it started from.
    pub(crate) revision: i32,
    /// The station at which it is made.
    pub(crate) station: String,
    /// A merge patch (RFC 7396) of the plan's sections, by station: `{"fit": {"snap": 0.25}}`. What is null is removed.
    #[schema(value_type = BTreeMap<String, Value>)]
    pub(crate) patch: Value,
    /// Why, in a few words.
    pub(crate) reason: String,
}

/// What undo and redo lead to at a station.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TrailView {
    /// What undo takes back, the next one last.
    pub(crate) undo: Vec<StepView>,
    /// What redo brings back, the next one last.
    pub(crate) redo: Vec<StepView>,
}

/// A change that undo takes back or redo brings back.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct StepView {
    /// The revision whose change it is.
    pub(crate) revision: i32,
    /// Why it was made.
    pub(crate) reason: String,
    /// A merge patch of the plan: what the change set.
    #[schema(value_type = BTreeMap<String, Value>)]
    pub(crate) patch: Value,
    /// What takes it back.
    #[schema(value_type = BTreeMap<String, Value>)]
    pub(crate) inverse: Value,
}

/// A step back or on.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct Step {
    /// The revision it starts from.
    pub(crate) revision: i32,
    /// The station whose change it takes back or brings back.
    pub(crate) station: String,
}

/// A return to an earlier revision.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct Return {
    /// The revision it starts from.
    pub(crate) revision: i32,
    /// The station at which it is made: undo there takes it back.
    pub(crate) station: String,
    /// The revision whose plan is wanted again.
    pub(crate) to: i32,
}

/// A name for a revision.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewVersion {
    /// The revision.
    pub(crate) revision: i32,
    /// Its name.
    pub(crate) name: String,
}

time::serde::format_description!(pub(crate) day, Date, "[year]-[month]-[day]");
