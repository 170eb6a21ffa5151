//! What of a page's log crosses the wire.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a page's log comes to.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LogSeenDoc {
    /// Minutes that the order of building takes; none where the page can't be laid out.
    #[schema(required = true)]
    pub(crate) planned: Option<u32>,
    /// Minutes from entry to entry, without pauses.
    pub(crate) took: i64,
    /// The entries day by day.
    pub(crate) days: Vec<LogDayDoc>,
    /// Entries whose time lies ahead of now: their clock was wrong.
    pub(crate) ahead: Vec<String>,
    /// What went wrong on the team's pages, most often first.
    pub(crate) wrong: Vec<WrongCountDoc>,
    /// What the numbers suggest.
    pub(crate) suggestions: Vec<SuggestionDoc>,
    /// The pack to publish.
    pub(crate) pack: PackDoc,
}

/// A day's entries.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LogDayDoc {
    /// Like `2026-11-26`.
    pub(crate) day: String,
    /// By their ids, the first first.
    pub(crate) entries: Vec<String>,
}

/// How often something went wrong.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WrongCountDoc {
    /// What.
    pub(crate) what: String,
    /// How often.
    pub(crate) count: usize,
}

/// Something that could be otherwise from now on.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SuggestionDoc {
    /// Why, with the numbers.
    pub(crate) text: String,
    /// How far pieces should reach under their neighbours.
    #[schema(required = true)]
    pub(crate) tuck: Option<f64>,
    /// How many of the cases it would have helped.
    pub(crate) helps: usize,
    /// Of how many.
    pub(crate) of: usize,
}

/// What is in the pack, and what is not.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PackDoc {
    /// The story as it will be told.
    pub(crate) story: String,
    /// What the page is made of.
    pub(crate) supplies: Vec<SupplyDoc>,
    /// Whom it credits.
    pub(crate) credits: Vec<String>,
    /// How many measures it has.
    pub(crate) measures: usize,
    /// How many steps it has.
    pub(crate) steps: usize,
    /// Words to find it by.
    pub(crate) tags: Vec<String>,
    /// What is lacking.
    pub(crate) missing: Vec<String>,
    /// All of it as plain text, as it would be published.
    pub(crate) text: String,
}

/// Something that the page is made of.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SupplyDoc {
    /// The kit it came in.
    #[schema(required = true)]
    pub(crate) kit: Option<String>,
    /// What it is called.
    pub(crate) name: String,
    /// How many of it.
    pub(crate) count: u32,
}
