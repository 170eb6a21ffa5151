//! Papers: which goes where. So far how they are dealt out over equal places.

mod deal;
mod dealing;

pub use deal::{Deal, Dealt, PaperToDeal, PlaceToFill};
