//! What of a page's checks crosses the wire.

use crate::documents::sketches::{BoxDoc, LayoutDoc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A layout to be checked.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CheckAskedDoc {
    /// The layout.
    pub(crate) layout: LayoutDoc,
}

/// What was found.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CheckedDoc {
    /// `metrosk-checked/1`
    pub(crate) format: String,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Paper that is shut in, then edges that nearly agree.
    pub(crate) findings: Vec<FindingDoc>,
}

/// One finding.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct FindingDoc {
    /// `trapped` or `near`
    pub(crate) what: String,
    /// What is the matter.
    pub(crate) text: String,
    /// Of trapped paper: the box around it.
    #[serde(rename = "box", skip_serializing_if = "Option::is_none")]
    pub(crate) place: Option<BoxDoc>,
    /// Of trapped paper: how much.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) area: Option<f64>,
    /// Of trapped paper: the blocks that shut it in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) between: Option<Vec<String>>,
    /// Of trapped paper: what was tried and works.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) cures: Option<Vec<CureDoc>>,
    /// Of edges that nearly agree: `left`, `right`, `top` or `bottom`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) edge: Option<String>,
    /// Of edges that nearly agree: whose.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) blocks: Option<Vec<String>>,
    /// Of edges that nearly agree: how far they are apart.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) off: Option<f64>,
}

/// A change that cures a finding.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CureDoc {
    /// What to do.
    pub(crate) text: String,
    /// The block that moves or grows; left out where an accent is laid.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) block: Option<String>,
    /// Its new box, or the accent's.
    #[serde(rename = "box")]
    pub(crate) place: BoxDoc,
}
