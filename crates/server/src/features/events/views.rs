//! What happened, as it is told.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

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
