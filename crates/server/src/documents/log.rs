//! The log of a page, as shapes.

use crate::documents::plans::SectionDoc;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What was done, and what is told of it.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LogSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// As they were written.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) entries: Option<Vec<LogEntryDoc>>,
    /// What she wants to think of next time.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) remember: Option<String>,
    /// What is told of the page where it is published.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) story: Option<String>,
    /// The picture of the finished page: its id.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) picture: Option<String>,
    /// Pictures of single parts: their ids.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) closeups: Option<Vec<String>>,
    /// Where the next maker's page is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) link: Option<String>,
    /// Of `names`, `place` and `date`, what stays out of the pack; names and place where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) leave_out: Option<Vec<String>>,
}

/// An entry of the log.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LogEntryDoc {
    /// Its own name.
    pub(crate) id: String,
    /// When, like `2026-11-26T20:31:00Z`.
    pub(crate) at: String,
    /// `step`, `note` or `wrong`
    pub(crate) kind: String,
    /// Of what went wrong: `cut-short`, `glued-early`, `letters-lacking`, `warped`, `blot`, `crooked` or `other`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) wrong: Option<String>,
    /// In her words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) text: Option<String>,
    /// The sketch's block that it is about.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) block: Option<String>,
    /// Of a piece that was cut short: by how much.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) by: Option<f64>,
    /// Minutes that it took more than was thought.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) longer: Option<u32>,
}
