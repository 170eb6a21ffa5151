//! How a page stands to what it is asked for, as it crosses the wire.

pub(crate) mod hop;
pub(crate) mod season;

use crate::documents::calls::CallDoc;
use crate::features::calls::store::CallRow;
use chrono::{DateTime, SecondsFormat, Utc};
use metrosk_core::calls::{Call, Finding, Held, Noticed};
use season::MakerView;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// One of the team's calls.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its newest revision: a write names it.
    pub(crate) revision: i32,
    /// What is asked.
    #[schema(value_type = CallDoc)]
    pub(crate) document: Value,
    /// The sketch in the drawer that is asked for.
    pub(crate) sketch: Option<Uuid>,
    /// Whether it is one of several that come again.
    pub(crate) comes_again: bool,
    /// The moment by which it is due, where an hour is set: in UTC.
    pub(crate) due_at: Option<String>,
    /// The moment at which its prize closes, where an hour is set: in UTC.
    pub(crate) prize_at: Option<String>,
    /// Who takes part.
    pub(crate) makers: Vec<MakerView>,
    /// Who wrote it.
    pub(crate) made_by: String,
    /// When.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
    /// Whether it has been set aside.
    pub(crate) archived: bool,
}

/// A call with who takes part in it.
pub(crate) fn call(row: CallRow, makers: Vec<MakerView>) -> CallView {
    let read = Call::from_json(&row.document).ok();
    CallView {
        due_at: read.as_ref().and_then(Call::due_at).map(moment),
        prize_at: read.as_ref().and_then(Call::prize_at).map(moment),
        id: row.id,
        revision: row.revision,
        document: row.document,
        sketch: row.sketch_id,
        comes_again: row.series.is_some(),
        makers,
        made_by: row.made_by,
        made_at: row.made_at,
        archived: row.archived_at.is_some(),
    }
}

/// A moment as it crosses the wire.
pub(crate) fn moment(at: DateTime<Utc>) -> String {
    at.to_rfc3339_opts(SecondsFormat::Secs, true)
}

/// A call to come.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewCall {
    /// What is asked.
    #[schema(value_type = CallDoc)]
    pub(crate) document: Value,
    /// The sketch in the drawer that is asked for: it goes into the document as it is now.
    #[serde(default)]
    pub(crate) sketch: Option<Uuid>,
}

/// Calls to come, all of them or none.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewCalls {
    /// Up to 200.
    #[schema(value_type = Vec<CallDoc>)]
    pub(crate) documents: Vec<Value>,
}

/// What a call becomes. What is left out stays.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallChange {
    /// The revision it started from.
    pub(crate) revision: i32,
    /// What is asked.
    #[schema(value_type = Option<CallDoc>)]
    pub(crate) document: Option<Value>,
    /// Another sketch in the drawer.
    #[serde(default)]
    pub(crate) sketch: Option<Uuid>,
    /// Set aside, or taken out again.
    pub(crate) archived: Option<bool>,
}

/// A revision of a call.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallRevisionView {
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

/// With which page she takes part.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct Taking {
    /// A page of hers that is in the making already and answers the call.
    #[serde(default)]
    pub(crate) page: Option<Uuid>,
}

/// The page that answers a call.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct PageForCall {
    /// Its name; the call's where there is none.
    #[serde(default)]
    pub(crate) name: Option<String>,
    /// A sketch in the drawer, where the call has none, or another one is wanted.
    #[serde(default)]
    pub(crate) sketch: Option<Uuid>,
}

/// A text that says what is asked.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PastedText {
    /// Up to 20 000 characters.
    pub(crate) text: String,
    /// The zone in which it is read: a day without a year is the next such day there.
    #[serde(default)]
    pub(crate) zone: Option<String>,
}

/// A call as it was understood from a text, to be looked over.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct PastedView {
    /// What is asked.
    #[schema(value_type = CallDoc)]
    pub(crate) document: Value,
    /// What was understood, in the order of the text.
    pub(crate) noticed: Vec<NoticedView>,
}

/// Something that was understood.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct NoticedView {
    /// The words it was read from.
    pub(crate) words: String,
    /// What they were taken for.
    pub(crate) taken_for: String,
}

impl From<Noticed> for NoticedView {
    fn from(n: Noticed) -> NoticedView {
        NoticedView {
            words: n.words,
            taken_for: n.taken_for,
        }
    }
}

/// An event of a calendar as a call, to be looked over.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct BroughtView {
    /// What is asked.
    #[schema(value_type = CallDoc)]
    pub(crate) document: Value,
    /// Whether it is still to come.
    pub(crate) comes: bool,
    /// What was left out or guessed.
    pub(crate) notes: Vec<String>,
}

/// The address at which her own calendar fetches her dates.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct FeedView {
    /// Since when she has one; none where she has none.
    #[serde(with = "time::serde::rfc3339::option")]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub(crate) made_at: Option<OffsetDateTime>,
    /// The address's path, told once, when it is made.
    pub(crate) path: Option<String>,
}

/// One thing that is asked, and how it stands.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct AskView {
    /// The ask's id.
    pub(crate) id: String,
    /// What is asked, in words.
    pub(crate) asks: String,
    /// Whether the plan sees it; none where only its maker can tell.
    pub(crate) seen: Option<bool>,
    /// Whether she ticked it.
    pub(crate) ticked: bool,
    /// What there is of it, in words; blocks by their ids.
    pub(crate) says: String,
    /// How far the sketch is held to, where that is asked.
    pub(crate) held: Option<HeldView>,
}

/// How far a page holds to a sketch, in counts of blocks.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct HeldView {
    /// In their place.
    pub(crate) stayed: usize,
    /// Elsewhere, or of another size.
    pub(crate) moved: usize,
    /// Of the sketch, but not on the page.
    pub(crate) went: usize,
    /// On the page, but not of the sketch.
    pub(crate) came: usize,
    /// Of the sketch, and on the page more than once.
    pub(crate) doubled: usize,
}

impl From<Finding> for AskView {
    fn from(f: Finding) -> AskView {
        AskView {
            id: f.id,
            asks: f.asks,
            seen: f.seen,
            ticked: f.ticked,
            says: f.says,
            held: f.held.map(HeldView::from),
        }
    }
}

impl From<Held> for HeldView {
    fn from(h: Held) -> HeldView {
        HeldView {
            stayed: h.stayed,
            moved: h.moved,
            went: h.went,
            came: h.came,
            doubled: h.doubled,
        }
    }
}
