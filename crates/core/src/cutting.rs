//! Cutting: which pieces come out of which sheet, by which edge-to-edge cuts. So far the planner's first part; the Cut station has no screen yet.

mod job;
mod opened;
mod plan;
mod search;

pub use job::{CutJob, CutPiece, Stock};
pub use plan::{CutPlan, CutSheet, Short};
