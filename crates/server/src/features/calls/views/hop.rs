//! A hop's chain, as it crosses the wire.

use crate::features::pages::views::DrawnDoc;
use chrono::NaiveDate;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

/// A chain to be: who makes a page on which day.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ChainDoc {
    /// The revision of the call that it started from.
    pub(crate) revision: i32,
    /// Its makers in the order of their days.
    #[schema(value_type = Vec<ChainLinkDoc>)]
    pub(crate) links: Value,
}

/// A maker in the chain.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ChainLinkDoc {
    /// A person of the team; or
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) person: Option<String>,
    /// somebody from outside, by name.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) name: Option<String>,
    /// Where her page is to be seen.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) url: Option<String>,
    /// A sketch in the drawer that stands for her page.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) sketch: Option<String>,
    /// The day her page is shown and goes on.
    pub(crate) day: String,
}

/// A hop, page by page.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct HopView {
    /// The revision of its call.
    pub(crate) revision: i32,
    /// In the order of their days.
    pub(crate) links: Vec<HopLinkView>,
}

/// A page of a hop.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct HopLinkView {
    /// The person of the team.
    pub(crate) person: Option<Uuid>,
    /// Her name, be she of the team or from outside.
    pub(crate) maker: String,
    /// Whether that is she who looks.
    pub(crate) me: bool,
    /// Where her page is to be seen.
    pub(crate) url: Option<String>,
    /// The sketch in the drawer that stands for it.
    pub(crate) sketch: Option<Uuid>,
    /// The day it is shown and goes on.
    pub(crate) day: NaiveDate,
    /// Her page in the making.
    pub(crate) page: Option<Uuid>,
    /// Its name.
    pub(crate) page_name: Option<String>,
    /// Whether it is settled, so that the next can begin.
    pub(crate) settled: bool,
    /// Whether she can begin hers now, where she has not yet.
    pub(crate) ready: bool,
    /// What there is of it, to be drawn.
    #[schema(value_type = Option<DrawnDoc>)]
    pub(crate) drawn: Option<Value>,
    /// How many blocks it has.
    pub(crate) blocks: usize,
    /// What became of the page before it.
    pub(crate) changed: Option<ChangedView>,
}

/// What became of the blocks of the page before, in counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub(crate) struct ChangedView {
    /// In their place.
    pub(crate) stayed: usize,
    /// Elsewhere, or of another size.
    pub(crate) moved: usize,
    /// No longer there.
    pub(crate) went: usize,
    /// New.
    pub(crate) came: usize,
}
