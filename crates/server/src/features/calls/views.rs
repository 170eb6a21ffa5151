//! How a page stands to what it is asked for, as it crosses the wire.

use metrosk_core::calls::{Finding, Held};
use serde::Serialize;
use utoipa::ToSchema;

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
