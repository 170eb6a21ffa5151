//! What a page is asked for.

use super::sketches::SketchDoc;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What is decided at the Call station.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallSectionDoc {
    /// `settled` or `needs-a-look`; open where it is left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) mark: Option<String>,
    /// Digests of what it was settled on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) grounds: Option<BTreeMap<String, String>>,
    /// What is asked; none for a page of one's own.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) call: Option<CallDoc>,
    /// Which of the team's calls that is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) of: Option<CallOfPageDoc>,
    /// The ids of what was ticked by hand.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) ticked: Option<Vec<String>>,
}

/// A call.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallDoc {
    /// Its name.
    pub(crate) name: String,
    /// `challenge` (the default), `kit`, `scraplift` or `hop`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) kind: Option<String>,
    /// What is asked, in its maker's words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) text: Option<String>,
    /// What must appear.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) asks: Option<Vec<AskDoc>>,
    /// By when the page is to be with who asked: `2026-11-28`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) due: Option<String>,
    /// The hour of that day: `23:00`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) due_time: Option<String>,
    /// When it is shown to all.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) shown: Option<String>,
    /// When a prize closes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) prize: Option<String>,
    /// The hour of that day.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) prize_time: Option<String>,
    /// By which clock these hours are told: a time zone's name.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) zone: Option<String>,
    /// How a team's call comes again.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) repeats: Option<RepeatDoc>,
    /// The unit of a team's call, `in` (the default) or `mm`; a page's copy has the page's.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) unit: Option<String>,
    /// Whom to credit.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) credits: Option<Vec<CreditDoc>>,
    /// Addresses to look at or to link to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) links: Option<Vec<CallLinkDoc>>,
    /// The sketch that was asked for, as it was then.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) sketch: Option<SketchDoc>,
}

/// How a call comes again, counted from the day that it is due.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RepeatDoc {
    /// `weeks`, `month-day` or `month-week`
    pub(crate) every: String,
    /// How many weeks, 1 to 12; which day of the month, 1 to 31; which week of the month, 1 to 4, or 5 for its last.
    pub(crate) number: u32,
    /// The last day it may fall on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) until: Option<String>,
}

/// Which of the team's calls a page answers.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallOfPageDoc {
    /// The call's id.
    pub(crate) id: String,
    /// As of which revision the page has it.
    pub(crate) revision: i32,
}

/// One thing that is asked.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct AskDoc {
    /// Its letter or name within the call.
    pub(crate) id: String,
    /// `pages`, `page-size`, `photos`, `large-photo`, `sketch`, `papers`, `kit`, `technique` or `other`
    pub(crate) what: String,
    /// How many pages, photos or papers.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) count: Option<u32>,
    /// A page's or photo's width.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) w: Option<f64>,
    /// And its height.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) h: Option<f64>,
    /// Of which kit the papers are.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) kit: Option<String>,
    /// A kit's, a technique's or a thing's name.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) name: Option<String>,
}

/// Whom to credit.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CreditDoc {
    /// For what.
    pub(crate) what: String,
    /// Who.
    pub(crate) name: String,
}

/// An address with a name.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallLinkDoc {
    /// What it leads to.
    pub(crate) name: String,
    /// Where: `http` or `https`.
    pub(crate) url: String,
}
