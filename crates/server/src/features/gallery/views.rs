//! Entries as they cross the wire.

use super::store::{EntryRow, WallRow};
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// What is asked for.
#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct EntryAsked {
    /// The entry whose place it takes.
    #[serde(default)]
    pub(crate) replaces: Option<Uuid>,
}

/// A page entered in the gallery.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct EntryView {
    /// Its id.
    pub(crate) id: Uuid,
    /// The page.
    pub(crate) page: Uuid,
    /// The call that it answers.
    pub(crate) challenge: Option<Uuid>,
    /// The entry whose place it takes.
    pub(crate) replaces: Option<Uuid>,
    /// `sent`, `open` (it is not known whether the gallery has it), `entered`, `refused`, `withdrawing` or `withdrawn`
    pub(crate) state: String,
    /// Where it hangs.
    pub(crate) address: Option<String>,
    /// Why it is refused or open.
    pub(crate) why: Option<String>,
    /// Whether something is under way with it.
    pub(crate) under_way: bool,
    /// How far that is.
    pub(crate) progress: Option<String>,
    /// Its job.
    pub(crate) job: Uuid,
    /// Who sent it.
    pub(crate) asked_by: String,
    /// When it was sent.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
}

impl From<EntryRow> for EntryView {
    fn from(row: EntryRow) -> EntryView {
        let under_way = matches!(row.job_state.as_deref(), Some("waiting" | "running"));
        EntryView {
            id: row.id,
            page: row.page_id,
            challenge: row.challenge,
            replaces: row.replaces,
            state: row.state,
            address: row.address,
            why: row.why,
            under_way,
            progress: row.progress.filter(|_| under_way),
            job: row.job_id,
            asked_by: row.asked_by,
            made_at: row.made_at,
        }
    }
}

/// The simulated gallery.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct GalleryView {
    /// `well`, `slow`, `refuses`, `gone`, `vanishes` (after taking an entry) or `rubbish` (nobody understands its answers)
    pub(crate) mood: String,
    /// What hangs there, the newest first.
    pub(crate) wall: Vec<OnWallView>,
}

/// How the simulated gallery is to be.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct GalleryMood {
    /// `well`, `slow`, `refuses`, `gone`, `vanishes` or `rubbish`
    pub(crate) mood: String,
}

/// What hangs on the wall.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct OnWallView {
    /// The entry.
    pub(crate) entry: Uuid,
    /// Its number there.
    pub(crate) number: i32,
    /// The page's title.
    pub(crate) title: String,
    /// Who made it.
    pub(crate) maker: String,
    /// Since when.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) taken_at: OffsetDateTime,
}

impl From<WallRow> for OnWallView {
    fn from(row: WallRow) -> OnWallView {
        OnWallView {
            entry: row.entry_id,
            number: row.number,
            title: row.title,
            maker: row.maker,
            taken_at: row.taken_at,
        }
    }
}
