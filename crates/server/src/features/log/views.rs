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

/// A finished page held against its plan.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ComparedDoc {
    /// Blocks that lie otherwise than planned, those that are furthest off first.
    pub(crate) differences: Vec<DifferenceDoc>,
    /// How many edges were looked for in the picture.
    pub(crate) looked_for: usize,
    /// How many of them were found.
    pub(crate) found: usize,
    /// Enough was found near its place for the picture to show this page.
    pub(crate) is_this_page: bool,
}

/// How a block differs, in the page's unit.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DifferenceDoc {
    /// The layout block.
    pub(crate) block: String,
    /// In words.
    pub(crate) text: String,
    /// How much further right it lies.
    pub(crate) right: f64,
    /// How much lower.
    pub(crate) down: f64,
    /// How much wider it is.
    pub(crate) wider: f64,
    /// How much taller.
    pub(crate) taller: f64,
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

/// A page to look back on.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ToldPageView {
    /// Its id.
    pub(crate) id: uuid::Uuid,
    /// Its name.
    pub(crate) name: String,
    /// When it was finished: `May 2026`.
    pub(crate) month: String,
    /// By whom.
    pub(crate) maker: String,
    /// From which sketch.
    pub(crate) sketch: String,
    /// Out of which kits.
    pub(crate) kits: Vec<String>,
    /// In which colours.
    pub(crate) colours: Vec<String>,
    /// How long it took, where its log tells.
    #[schema(required = true)]
    pub(crate) minutes: Option<i64>,
}

/// How many pages have something.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TallyView {
    /// What.
    pub(crate) name: String,
    /// How many.
    pub(crate) pages: usize,
}

/// What finished pages come to.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LookedBackView {
    /// The newest first.
    pub(crate) pages: Vec<ToldPageView>,
    /// The newest first.
    pub(crate) months: Vec<TallyView>,
    /// Most first; so the others.
    pub(crate) sketches: Vec<TallyView>,
    /// By kit.
    pub(crate) kits: Vec<TallyView>,
    /// By maker.
    pub(crate) makers: Vec<TallyView>,
    /// By colour.
    pub(crate) colours: Vec<TallyView>,
    /// Minutes in all.
    pub(crate) minutes: i64,
    /// Of how many pages they are known.
    pub(crate) timed: usize,
    /// What has not been told for long.
    pub(crate) not_for_long: Vec<String>,
}

/// A sketch to be made of a page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchOfPage {
    /// What it is called.
    #[schema(max_length = 200)]
    pub(crate) name: String,
    /// A spread on one page.
    #[serde(default)]
    pub(crate) folded: bool,
}
