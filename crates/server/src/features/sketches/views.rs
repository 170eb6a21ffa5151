//! Sketches, as they cross the wire.

pub(crate) mod readings;

use crate::documents::sketches::SketchDoc;
use crate::features::sketches::views::readings::ReadingView;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

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
    /// The lift of that picture that it was laid over.
    pub(crate) lift: Option<Uuid>,
    /// Its newest revision: a write names it.
    pub(crate) revision: i32,
    /// How many slots would have to change for the photos that were asked about; none where nothing was asked, or there is no slot.
    pub(crate) changes: Option<usize>,
    /// What these changes are, in words; blocks by their ids.
    pub(crate) needs: Vec<String>,
}

/// A sketch's new name, and whether it is set aside. What is left out stays.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchChange {
    /// The revision it started from.
    pub(crate) revision: i32,
    /// Its name.
    pub(crate) name: Option<String>,
    /// Put away, or taken out again.
    pub(crate) archived: Option<bool>,
    /// Its tags.
    pub(crate) tags: Option<Vec<String>>,
}

/// A revision of a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchRevisionView {
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
}
