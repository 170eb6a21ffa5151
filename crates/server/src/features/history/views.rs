//! Revisions and steps, as they cross the wire.

use crate::documents::plans::PlanDoc;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::OffsetDateTime;
use utoipa::ToSchema;

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
