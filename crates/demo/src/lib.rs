//! The demo: a small paper club documents a kite festival on a winter tidal flat. Everything in it is invented, and made
//! by code from a seed, so that nothing is borrowed and every start shows the same.

mod pages;
mod pictures;
mod sketches;
mod teams;

pub use pages::Page;
pub use pictures::{Style, picture};
pub use teams::{Team, teams};

use metrosk_core::sketch::Sketch;

/// The seed that the application's demo is made from.
pub const SEED: u64 = 20_261_127;

/// The account of the club's lead, as whom one click signs in.
pub const MAKER_ACCOUNT: &str = "wren";

/// Everybody's password in the demo. It protects nothing: the demo is for looking around.
pub const PASSWORD: &str = "low sun on wet sand";

/// The club's sketches, in the order in which they lie in the drawer.
pub fn sketches(seed: u64) -> Vec<Sketch> {
    sketches::all(seed)
}

/// A crowded sketch of 25 blocks, for load and benchmarks.
pub fn crowd() -> Sketch {
    sketches::crowd()
}
