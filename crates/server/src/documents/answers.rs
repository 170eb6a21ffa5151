//! What a fit answers, and what is sent to fit or change again, as shapes.

use crate::documents::requests::FitDoc;
use crate::documents::sketches::{BoxDoc, LayoutDoc, SketchDoc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How many of how many.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct KeptDoc {
    /// Those kept.
    pub(crate) kept: usize,
    /// All.
    pub(crate) of: usize,
}

/// A share's mean and largest.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DriftDoc {
    /// Mean, 0 to 1.
    pub(crate) mean: f64,
    /// Largest.
    pub(crate) max: f64,
}

/// A sketch block's three boxes.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlaceDoc {
    /// The sketch block.
    pub(crate) id: String,
    /// As drawn, turned and flipped.
    pub(crate) sketch: BoxDoc,
    /// Where the approach wants it.
    pub(crate) wanted: BoxDoc,
    /// Where it is.
    pub(crate) here: BoxDoc,
    /// Where it is not as wanted, what moved it.
    pub(crate) why: Vec<String>,
}

/// How far a search went.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SearchDoc {
    /// Choices compared.
    pub(crate) tried: usize,
    /// Choices left out for their number.
    pub(crate) left_out: usize,
}

/// A wish that was let go of.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LostWishDoc {
    /// `line`, `contact` or `equal`
    pub(crate) wish: String,
    /// The two blocks; of one block, twice that one.
    pub(crate) blocks: [String; 2],
    /// Which of its kind between these blocks, from 0.
    pub(crate) nth: usize,
}

/// What a fit settled, for one that follows a hand.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ChoicesDoc {
    /// The approach.
    pub(crate) approach: String,
    /// The page of each block that has one: `left`, `right`, `astride`, or `through` and the number of a gap.
    pub(crate) sides: std::collections::BTreeMap<String, String>,
    /// Wishes let go of.
    pub(crate) lost: Vec<LostWishDoc>,
    /// Its solution.
    pub(crate) solved: Vec<f64>,
}

/// A fit to make again with an earlier one's choices held.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RefitDoc {
    /// The fit, with what has moved.
    pub(crate) fit: FitDoc,
    /// What the proposal on screen had settled.
    pub(crate) choices: ChoicesDoc,
}

/// A change to a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ChangeDoc {
    /// The sketch.
    pub(crate) sketch: SketchDoc,
    /// What to change.
    pub(crate) change: OneChangeDoc,
}

/// What to change of a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct OneChangeDoc {
    /// `straighten`, `swap`, `corner` or `kind`
    pub(crate) what: String,
    /// The block.
    pub(crate) block: String,
    /// Of a swap: the other photo.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) with: Option<String>,
    /// `top-left`, `top-right`, `bottom-left` or `bottom-right`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) corner: Option<String>,
    /// The kind that it becomes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) kind: Option<String>,
}

/// How good a layout is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ReportDoc {
    /// Centres against their wanted places.
    pub(crate) drift: DriftDoc,
    /// Like edges that agree.
    pub(crate) alignments: KeptDoc,
    /// Neighbours.
    pub(crate) relations: KeptDoc,
    /// Share of the prints' area.
    pub(crate) trimmed: f64,
    /// What changed and why.
    pub(crate) notes: Vec<String>,
    /// Each block's boxes.
    pub(crate) blocks: Vec<PlaceDoc>,
    /// How far the search went.
    pub(crate) search: SearchDoc,
}

/// One way.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ProposalDoc {
    /// Which approach.
    pub(crate) approach: String,
    /// Turned first.
    pub(crate) turn: u32,
    /// Then flipped.
    pub(crate) flip: String,
    /// `positions` or `proportions`, where one of them counted more.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) emphasis: Option<String>,
    /// 0 to 100.
    pub(crate) score: f64,
    /// What it settled.
    pub(crate) choices: ChoicesDoc,
    /// Where everything is.
    pub(crate) layout: LayoutDoc,
    /// How good it is.
    pub(crate) report: ReportDoc,
}

/// What can't hold together.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ConflictDoc {
    /// In words.
    pub(crate) text: String,
    /// Pins in it.
    pub(crate) pins: Vec<usize>,
    /// Blocks in it.
    pub(crate) blocks: Vec<String>,
    /// Limits in it.
    pub(crate) limits: Vec<String>,
}

/// A fit's answer.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ProposalsDoc {
    /// `metrosk-proposals/1`
    pub(crate) format: String,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Best first.
    pub(crate) proposals: Vec<ProposalDoc>,
    /// Where there are none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) conflict: Option<ConflictDoc>,
}
