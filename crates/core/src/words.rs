//! Words in letters: every way to set a text in the letters that are left, best first, or what it lacks.
//!
//! `metrosk-words/1` is answered by `metrosk-worded/1`. In this order a setting is better: the least cost of what is made out of other letters,
//! the gaps nearest to the best ones, the fewest lines, the fewest sets. The search goes best first over breaks of lines and sets a line (Hart,
//! Nilsson and Raphael, 1968); how pieces are shared out is exact, by min-cost flow and by fronts of uses that nothing beats.

mod decisions;
mod gaps;
mod lines;
mod manner;
mod mixing;
mod on_arc;
mod pieces;
mod placing;
mod request;
mod search;
mod shape;
mod spaces;
mod spreading;
mod supply;
mod title;
mod worded;
mod writing;

pub use crate::laying::Laying;
pub use decisions::{TakenLine, Title, Uses, WordsDecisions, Writing};
pub use gaps::Bounds;
pub use manner::Manner;
pub use placing::{PlacedLetter, PlacedLine, Proposal};
pub use request::{Align, Lines, Words};
pub use shape::{Shape, Slot};
pub use spaces::{Place, PlaceKind, WordsElsewhere, place_for, places};
pub use title::{SetInStash, TitleSettings};
pub use worded::{Lacking, Needs, Worded};
pub use writing::{Asked, Remedy, Written};
