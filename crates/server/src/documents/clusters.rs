//! Clusters, as shapes.

use crate::documents::plans::SectionDoc;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What is decided about clusters and checks.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ClustersSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// The clusters.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) clusters: Option<BTreeMap<String, BTreeMap<String, ClusterChoiceDoc>>>,
    /// What is strewn over the page.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) scatter: Option<ScatterDoc>,
    /// Checks that are off for this page.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) off: Option<Vec<String>>,
    /// Findings that she let be, by their keys.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) passed: Option<Vec<String>>,
}

/// What is decided about one cluster.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct ClusterChoiceDoc {
    /// `small`, `medium` or `large`; as the sketch has it where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) size: Option<String>,
    /// Another number lays the pieces another way.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) seed: Option<u32>,
    /// Bottom to top.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) pieces: Option<Vec<ClusterPieceDoc>>,
}

/// A piece of a cluster.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ClusterPieceDoc {
    /// The thing in the stash.
    pub(crate) item: String,
    /// `flat`, `card`, `thin-foam` or `thick-foam`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) lift: Option<String>,
    /// Its middle, where she placed it herself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) at: Option<PointDoc>,
    /// Degrees clockwise, where she turned it herself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) turn: Option<f64>,
}

/// A place on the page or spread.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
pub(crate) struct PointDoc {
    /// From the left.
    pub(crate) x: f64,
    /// From the top.
    pub(crate) y: f64,
}

/// Small things strewn over the page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ScatterDoc {
    /// The thing in the stash.
    pub(crate) item: String,
    /// How many.
    pub(crate) count: u32,
    /// `from-clusters`, `diagonal` or `triangle`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) way: Option<String>,
    /// Another number strews them another way.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) seed: Option<u32>,
}
