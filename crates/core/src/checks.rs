//! What an experienced eye would see on a page before the glue: empty paper that is shut in, and edges that nearly agree.
//!
//! `metrosk-check/1` is answered by `metrosk-checked/1`. Free paper is *open* where a square of the opening's side can slide to it from outside
//! the page, always upright: a question of free configurations (Lozano-Pérez, 1983), answered by growing all that lies on the page by that
//! square. What is free and not open, and wide enough for a square of the least width (an opening in the sense of mathematical morphology), is
//! a pocket. A cure is one move, one other size or one accent, and is only told when the page with it has been checked anew.

mod checked;
mod cures;
mod lying;
mod near;
pub mod page;
mod request;
mod sweep;
mod trapped;
mod verify;

pub use checked::{Checked, Finding};
pub use cures::Cure;
pub use near::{NearMiss, NearThresholds};
pub use request::Check;
pub use trapped::{Pocket, TrappedThresholds};
