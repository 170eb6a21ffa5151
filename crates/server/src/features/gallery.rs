//! Finished pages entered in the challenge gallery.
//!
//! An entry is written down with all that is told of it as it is sent. Its job asks the gallery first whether it knows the entry, and sends it only
//! where it doesn't: an answer that was lost makes no second entry. Where the gallery can't be reached the entry is told as open.

pub(crate) mod job;
pub(crate) mod routes;
mod simulated;
mod store;
pub(crate) mod views;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// What is told of a page, as an entry has it written down.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Told {
    pub(crate) title: String,
    pub(crate) maker: String,
    pub(crate) credits: Vec<String>,
    pub(crate) text: String,
    /// The whole page first.
    pub(crate) pictures: Vec<ToldPicture>,
}

/// A picture of an entry.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct ToldPicture {
    pub(crate) picture: Uuid,
    pub(crate) shows: String,
}
