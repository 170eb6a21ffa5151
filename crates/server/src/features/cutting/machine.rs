//! A page's sheets sent to the cutting machine.
//!
//! An order has the SVG of each sheet written down as it is sent, so that a change of the page meanwhile cuts nothing else. Each sheet is an order
//! of its own to the machine, which knows how many of its lines are cut: a job that is begun again goes on where the blade stopped.

mod blade;
pub(crate) mod job;
pub(crate) mod routes;
mod simulated;
mod store;
pub(crate) mod views;

use serde::{Deserialize, Serialize};

/// A sheet as an order has it written down.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct SheetOrder {
    /// What the maker calls it.
    pub(crate) name: String,
    /// Its outlines in inches.
    pub(crate) svg: String,
}
