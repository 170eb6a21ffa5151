//! The order of making a page: its steps out of its plan, what must come before what and why, and an order in which little is waited for.
//!
//! Steps come from rules, a file a family; edges between them carry a [`Reason`] and how long something must dry. The order is a list schedule of
//! one pair of hands with drying as lags (Kelley and Walker's critical path for priorities, Graham's list scheduling), held against a lower
//! bound: the longest path, and all work of the hands.

mod decisions;
mod finish;
mod glue;
mod graph;
mod order;
mod prepare;
mod step;
mod wet;

pub use decisions::{BuildDecisions, School, Technique};
pub use graph::{Broken, Built, Making};
pub use order::{Scheduled, lower_bound};
pub use step::{Caution, Doing, Edge, Reason, Step};
