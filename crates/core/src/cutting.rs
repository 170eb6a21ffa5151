//! Cutting: which pieces come out of which sheet, by which edge-to-edge cuts; and for a page its cut list, its sheets as steps at a trimmer,
//! and what has been cut already.

mod cures;
mod decisions;
mod job;
mod opened;
mod page;
mod plan;
mod search;
mod sheet;
mod steps;

pub use cures::{Cure, CutsAsked, cures};
pub use decisions::{CutDecisions, PieceLock};
pub use job::{Area, CutJob, CutPiece, Preference, Stock};
pub use page::{CutState, InStash, ListedCut, PageCuts, ShortPiece, page_cuts};
pub use plan::{CutPlan, CutSheet, Short};
pub use sheet::{NamedCut, OnSheetPart, PlannedSheet};
pub use steps::{CutStep, Trimmer};
