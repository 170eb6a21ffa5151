//! What of a page's making crosses the wire.

use crate::documents::plans::PlanDoc;
use crate::documents::sketches::LayoutDoc;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A page's plan and the layout that it leads to.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BuildAskedDoc {
    /// The plan.
    pub(crate) plan: PlanDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
}

/// How a page is made.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BuiltDoc {
    /// `metrosk-build/1`
    pub(crate) format: String,
    /// The steps in their order.
    pub(crate) steps: Vec<BuildStepDoc>,
    /// Minutes of work.
    pub(crate) work: u32,
    /// Minutes until all is done; what is done already takes none.
    pub(crate) end: u32,
    /// No order takes less.
    pub(crate) least: u32,
    /// What of her own order could not be followed.
    pub(crate) broken: Vec<BrokenReasonDoc>,
}

/// A step.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BuildStepDoc {
    /// The same for the same work on the same thing.
    pub(crate) id: String,
    /// What to do; blocks go by their layout ids.
    pub(crate) text: String,
    /// What else to know.
    pub(crate) hint: String,
    /// Blocks that it fixes for good.
    pub(crate) fixes: Vec<String>,
    /// Blocks that it works on.
    pub(crate) on: Vec<String>,
    /// Minutes of work.
    pub(crate) minutes: u32,
    /// Minutes that it dries afterwards.
    pub(crate) dries: u32,
    /// After it there is no way back: what to check before.
    #[schema(required = true)]
    pub(crate) no_return: Option<String>,
    /// Where a hand can be hurt.
    #[schema(required = true)]
    pub(crate) caution: Option<CautionDoc>,
    /// Minutes from the start.
    pub(crate) from: u32,
    /// Minutes from the start.
    pub(crate) to: u32,
    /// What has to come before it.
    pub(crate) after: Vec<StepReasonDoc>,
    /// What has to come after it.
    pub(crate) before: Vec<StepReasonDoc>,
}

/// Where a hand can be hurt.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CautionDoc {
    /// `blade`, `needle`, `paint` or `small-parts`
    pub(crate) kind: String,
    /// What to mind.
    pub(crate) text: String,
}

/// Another step, and why it comes before or after.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct StepReasonDoc {
    /// Its id.
    pub(crate) step: String,
    /// Why.
    pub(crate) why: String,
    /// Minutes that lie between.
    pub(crate) lag: u32,
}

/// Two steps that can't change places.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BrokenReasonDoc {
    /// This comes first.
    pub(crate) before: String,
    /// Then this.
    pub(crate) after: String,
    /// What would no longer be possible.
    pub(crate) text: String,
}
