//! Photos as prints: which part of one shows, how it is trimmed to that, and how well a file prints.

mod crop;
mod resolution;
mod trims;

pub use crop::{Crop, NoRoom, crop, room};
pub use resolution::{Quality, dots_an_inch, largest_good, quality};
pub use trims::{Trim, trims};
