//! What of clusters and page checks crosses the wire.

use crate::documents::clusters::{ClusterChoiceDoc, PointDoc};
use crate::documents::plans::PlanDoc;
use crate::documents::sketches::{BoxDoc, LayoutDoc};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::BTreeMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// A page with all that was decided about it.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ClustersAskedDoc {
    /// The page, whose own holds count as free.
    pub(crate) page: Uuid,
    /// The plan.
    pub(crate) plan: PlanDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
}

/// The clusters as they lie, and what is seen on the page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ClustersLaidDoc {
    /// In the layout's order.
    pub(crate) clusters: Vec<LaidClusterDoc>,
    /// Where small things lie that are strewn.
    pub(crate) strewn: Vec<PointDoc>,
    /// The triangle that three clusters make.
    #[schema(required = true)]
    pub(crate) triangle: Option<TriangleDoc>,
    /// What to look at.
    pub(crate) findings: Vec<PageFindingDoc>,
    /// Checks that found nothing.
    pub(crate) fine: Vec<String>,
    /// Things that the plan names and the stash no longer has.
    pub(crate) gone: Vec<String>,
    /// Things of which the page takes more than there are, with how many too many.
    pub(crate) short: Vec<ShortThingDoc>,
}

/// A cluster as it lies.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LaidClusterDoc {
    /// Its layout block.
    pub(crate) block: String,
    /// The sketch's block.
    pub(crate) of: String,
    /// Which part of it.
    pub(crate) part: usize,
    /// `small`, `medium` or `large`
    pub(crate) size: String,
    /// Bottom to top.
    pub(crate) pieces: Vec<LaidPieceDoc>,
}

/// A piece in its place.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LaidPieceDoc {
    /// Which of the cluster's pieces.
    pub(crate) piece: usize,
    /// The thing.
    pub(crate) item: String,
    /// Its middle.
    pub(crate) at: PointDoc,
    /// Degrees clockwise.
    pub(crate) turn: f64,
    /// Across.
    pub(crate) w: f64,
    /// Down.
    pub(crate) h: f64,
    /// What lifts it.
    pub(crate) lift: String,
    /// What holds it.
    pub(crate) fixed: String,
    /// What can't be done, or what to mind.
    #[schema(required = true)]
    pub(crate) mind: Option<String>,
}

/// Three clusters.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TriangleDoc {
    /// Where.
    pub(crate) corners: Vec<PointDoc>,
    /// From each corner to the next.
    pub(crate) sides: Vec<f64>,
}

/// Something to look at.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageFindingDoc {
    /// Which check.
    pub(crate) what: String,
    /// The same as long as the matter is the same.
    pub(crate) key: String,
    /// In words.
    pub(crate) text: String,
    /// Where.
    #[serde(rename = "box")]
    #[schema(required = true)]
    pub(crate) place: Option<BoxDoc>,
    /// The blocks that it is about.
    pub(crate) blocks: Vec<String>,
    /// Of edges that nearly agree: which.
    #[schema(required = true)]
    pub(crate) edge: Option<String>,
    /// What would cure it.
    pub(crate) cures: Vec<PageCureDoc>,
}

/// What would cure a finding: another box for a block, a place for an accent, or a change of the clusters.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageCureDoc {
    /// What to do.
    pub(crate) text: String,
    /// The block that moves or grows.
    #[schema(required = true)]
    pub(crate) block: Option<String>,
    /// Its new box, or the accent's.
    #[serde(rename = "box")]
    #[schema(required = true)]
    pub(crate) place: Option<BoxDoc>,
    /// A merge patch of the clusters section.
    #[schema(required = true, value_type = Option<Object>)]
    pub(crate) patch: Option<Value>,
}

/// A thing of which there are too few.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ShortThingDoc {
    /// The thing.
    pub(crate) item: String,
    /// What she calls it.
    pub(crate) name: String,
    /// How many are lacking.
    pub(crate) lacking: u32,
}

/// Pieces to share out over the page's clusters.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ShareAskedDoc {
    /// The plan.
    pub(crate) plan: PlanDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
    /// Which, and how many of each.
    pub(crate) things: Vec<CountedThingDoc>,
}

/// So many of a thing.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CountedThingDoc {
    /// The thing in the stash.
    pub(crate) item: String,
    /// How many.
    pub(crate) count: u32,
}

/// How pieces are shared out.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SharedOutDoc {
    /// The clusters with their pieces.
    pub(crate) clusters: BTreeMap<String, BTreeMap<String, ClusterChoiceDoc>>,
}
