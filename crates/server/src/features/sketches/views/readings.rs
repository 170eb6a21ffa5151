//! What the API says of sketches by number and of what is to be seen in a sketch.

use crate::documents::sketches::SketchDoc;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

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
