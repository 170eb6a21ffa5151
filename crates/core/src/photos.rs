//! Photos as prints: which part of one shows, how it is trimmed to that, how well a file prints, what lies behind it and how thick that is.

mod crop;
mod lift;
mod listed;
mod mats;
mod prints;
mod resolution;
mod rough;
mod sheets;
mod trims;

pub use crop::{Crop, NoRoom, crop, room};
pub(crate) use lift::read_lifts;
pub use lift::{Lift, LiftChoice, Lying, SHEET, Thickest, lift_of, thickest};
pub use listed::{Listed, listed};
pub(crate) use mats::read_mats;
pub use mats::{Layer, LayerEdge, MOST_LAYERS, MatChoice, Sides, layers_of, mats_of, reaches};
pub(crate) use prints::read_photos;
pub use prints::{Face, MOST_PHOTOS, MOST_PRINTS, Photos, Place, Print, Window};
pub use resolution::{Quality, dots_an_inch, largest_good, quality};
pub use sheets::{OnSheet, Paper, Sheets, ToPrint, on_sheets};
pub use trims::{Trim, trims};
