//! What the API says of sketches and pages.

use super::{LayoutDoc, PlanDoc, SketchDoc};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

/// Edges that nearly agree.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NearView {
    /// Which edges: `left`, `right`, `top` or `bottom`.
    pub(crate) along: String,
    /// The blocks.
    pub(crate) blocks: Vec<String>,
    /// Where the one line would be, in the sketch's unit.
    pub(crate) at: f64,
    /// How far they are apart, in the sketch's unit.
    pub(crate) spread: f64,
}

/// A sketch, and edges of it that are to be one line.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub(crate) struct AgreeDoc {
    /// The sketch.
    #[schema(value_type = SketchDoc)]
    pub(crate) sketch: Value,
    /// Which edges, as told by the sketch's reading.
    pub(crate) along: String,
    /// Of which blocks.
    pub(crate) blocks: Vec<String>,
}

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
    /// How many slots would have to change for the photos that were asked about; none where nothing was asked, or there is no slot.
    pub(crate) changes: Option<usize>,
}

/// A sketch typed by number.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NumbersDoc {
    /// The lines.
    pub(crate) text: String,
    /// The sketch that they take the place of: what the lines do not speak of is kept from it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<SketchDoc>)]
    pub(crate) over: Option<Value>,
}

/// What lines by number come to: a document and its reading, or errors.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NumbersView {
    /// The sketch, when all of it is understood.
    #[schema(value_type = Option<SketchDoc>)]
    pub(crate) document: Option<Value>,
    /// The sketch of those lines that are understood, when not all are: to look at, not to keep.
    #[schema(value_type = Option<SketchDoc>)]
    pub(crate) preview: Option<Value>,
    /// What was read from it.
    pub(crate) reading: Option<ReadingView>,
    /// What can't be understood.
    pub(crate) errors: Vec<WordErrorView>,
}

/// A sketch as lines, and what was read from it.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LinesView {
    /// The lines by number.
    pub(crate) text: String,
    /// What was read from it.
    pub(crate) reading: ReadingView,
}

/// Something that can't be understood, at its place in the lines.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WordErrorView {
    /// From 1; 0 when it is about the sketch as a whole.
    pub(crate) line: usize,
    /// The character at which it begins, from 1.
    pub(crate) column: usize,
    /// How many characters it takes; 0 at the end of a line.
    pub(crate) length: usize,
    /// What was found there.
    pub(crate) found: String,
    /// What may stand there.
    pub(crate) allowed: Vec<String>,
}

/// A sketch's new name, and whether it is put away. What is left out stays.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchChange {
    /// Its name.
    pub(crate) name: Option<String>,
    /// Put away, or taken out again.
    pub(crate) archived: Option<bool>,
    /// Its tags.
    pub(crate) tags: Option<Vec<String>>,
}

/// What a sketch means.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ReadingView {
    /// How many photo slots it has.
    pub(crate) photo_slots: usize,
    /// Edges and centres that agree.
    pub(crate) lines: Vec<LineView>,
    /// Pairs of blocks that touch.
    pub(crate) contacts: Vec<[String; 2]>,
    /// Gaps of up to 1 in between neighbours, in the sketch's unit.
    pub(crate) gaps: Vec<GapView>,
    /// (upper, lower).
    pub(crate) lies_on: Vec<[String; 2]>,
    /// (frame, framed).
    pub(crate) frames: Vec<[String; 2]>,
    /// Blocks of one kind equally wide or high.
    pub(crate) equal: Vec<EqualView>,
    /// Blocks that run off the page.
    pub(crate) bleeding: Vec<String>,
    /// Pairs that are each other's image across the sketch's middle.
    pub(crate) mirrored: Vec<MirroredView>,
    /// Edges that nearly agree, for her to make one line.
    pub(crate) near: Vec<NearView>,
    /// Whom a page from it credits, in a sentence.
    pub(crate) credit: Option<String>,
}

/// A pair of blocks, each other's image.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct MirroredView {
    /// Left and right, or else top and bottom.
    pub(crate) across: bool,
    /// The pair.
    pub(crate) blocks: [String; 2],
}

/// A line of a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LineView {
    /// Which edges or centres.
    pub(crate) place: String,
    /// The same as a fit request names it: `left`, `centre-x` and so on.
    pub(crate) along: String,
    /// Where, in the sketch's unit.
    pub(crate) at: f64,
    /// The blocks on it.
    pub(crate) blocks: Vec<String>,
}

/// A gap between two neighbours.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct GapView {
    /// The left or upper block, then the other.
    pub(crate) blocks: [String; 2],
    /// In the sketch's unit.
    pub(crate) width: f64,
}

/// Equal sizes.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct EqualView {
    /// Equally wide, or else equally high.
    pub(crate) wide: bool,
    /// The blocks.
    pub(crate) blocks: Vec<String>,
}

/// Where a page stands on one station.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct StationView {
    /// `call`, `sketch`, … `log`
    pub(crate) name: String,
    /// `open`, `settled` or `needs-a-look`
    pub(crate) state: String,
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
    /// Whether it has been put away.
    pub(crate) archived: bool,
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
    /// Whether it has been put away.
    pub(crate) archived: bool,
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
    /// What undo takes back, if anything.
    pub(crate) undo: Option<String>,
    /// What redo brings back, if anything.
    pub(crate) redo: Option<String>,
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
    /// Its name.
    pub(crate) name: Option<String>,
    /// By when it is to be done.
    #[serde(default, deserialize_with = "some", skip_serializing_if = "Option::is_none")]
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

/// A changed plan.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlanChange {
    /// The revision it started from.
    pub(crate) revision: i32,
    /// The whole plan.
    #[schema(value_type = PlanDoc)]
    pub(crate) plan: Value,
    /// Why, in a few words.
    pub(crate) reason: String,
}

/// A step back or on.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
pub(crate) struct Step {
    /// The revision it starts from.
    pub(crate) revision: i32,
}

/// A return to an earlier revision.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
pub(crate) struct Return {
    /// The revision it starts from.
    pub(crate) revision: i32,
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
