//! A job, as it is told.

use crate::features::pictures::views::PictureReading;
use crate::http::error::Problem;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

/// Long work.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct JobView {
    /// Its id: events name it.
    pub(crate) id: Uuid,
    /// `read`, `layout` or `print`
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
