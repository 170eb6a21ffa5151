//! What of a page's cutting crosses the wire.

use crate::documents::plans::{BegunSheetDoc, CutSectionDoc, PaperRefDoc, PapersSectionDoc};
use crate::documents::sketches::{LayoutDoc, SizeDoc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A page's papers and what is cut already, and the layout that they lie on.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageCutsAskedDoc {
    /// The page: what it holds itself is free for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) page: Option<String>,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// What is decided about papers.
    pub(crate) papers: PapersSectionDoc,
    /// What is decided and done about cutting.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) cut: Option<CutSectionDoc>,
    /// The layout.
    pub(crate) layout: LayoutDoc,
    /// A plan at a glance, that a better one follows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) at_a_glance: Option<bool>,
}

/// What is to be cut, and how.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageCutsDoc {
    /// `in` or `mm`
    pub(crate) unit: String,
    /// The longest cut of the trimmer that was counted on.
    pub(crate) reach: f64,
    /// Its smallest step.
    pub(crate) finest: f64,
    /// Every piece.
    pub(crate) list: Vec<ListedCutDoc>,
    /// Sheets that are begun, then the others.
    pub(crate) sheets: Vec<CutSheetDoc>,
    /// What has no place.
    pub(crate) short: Vec<ShortPieceDoc>,
    /// Cut already, and no longer what the page asks for.
    pub(crate) outdated: Vec<String>,
    /// A better plan might have been found with more time.
    pub(crate) stopped: bool,
    /// What could give where something is short.
    pub(crate) cures: Vec<CutCureDoc>,
}

/// A way out where paper is short.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CutCureDoc {
    /// The paper's id in the stash.
    pub(crate) paper: String,
    /// What to do.
    pub(crate) text: String,
    /// How many pieces still have no place then.
    pub(crate) still_short: usize,
    /// The change of the papers section that does it; none where something else has to be done.
    #[schema(required = true, value_type = Option<Object>)]
    pub(crate) patch: Option<serde_json::Value>,
}

/// A piece on the cut list.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ListedCutDoc {
    /// What the plan calls it.
    pub(crate) name: String,
    /// Its layout block; a ground's own name.
    pub(crate) block: String,
    /// What it is cut from.
    pub(crate) paper: PaperRefDoc,
    /// What shows of it.
    pub(crate) shows: SizeDoc,
    /// What is cut.
    pub(crate) cut: SizeDoc,
    /// With what.
    pub(crate) tool: String,
    /// Less than 1/8 in of it goes under a neighbour: better cut large, laid down, marked and trimmed again.
    pub(crate) tight: bool,
    /// `to-cut`, `cut` or `short`
    pub(crate) state: String,
    /// Which sheet, by its place.
    #[schema(required = true)]
    pub(crate) sheet: Option<usize>,
}

/// A piece without a place.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ShortPieceDoc {
    /// What the plan calls it.
    pub(crate) name: String,
    /// Why.
    pub(crate) why: String,
}

/// A sheet with its cuts as steps.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CutSheetDoc {
    /// The sheet, as a plan keeps it once it is begun.
    #[serde(flatten)]
    pub(crate) sheet: BegunSheetDoc,
    /// Its cuts, those at one setting together.
    pub(crate) steps: Vec<CutStepDoc>,
    /// What of it pieces take, 0 to 1.
    pub(crate) used: f64,
}

/// Cuts at one setting.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CutStepDoc {
    /// Its first cut, by its place among the sheet's.
    pub(crate) first: usize,
    /// How many.
    pub(crate) times: usize,
    /// What the trimmer is set to.
    pub(crate) setting: f64,
    /// Measured from the right or bottom edge.
    pub(crate) from_far_edge: bool,
    /// `x` (from left to right) or `y`
    pub(crate) along: String,
    /// Longer than the trimmer reaches.
    pub(crate) beyond_reach: bool,
    /// Pieces that are done with it.
    pub(crate) done: Vec<String>,
    /// What to do.
    pub(crate) text: String,
}
