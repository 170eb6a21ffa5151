//! What was done on a page, what it taught, and the pack in which it is published.
//!
//! Entries are written as she goes; a page's own entries make its journal and its time, those of a season are counted by what went wrong, and
//! the counts suggest what could be otherwise, with how sure that is. Nothing is set by itself.

mod counts;
mod decisions;
mod differences;
mod journal;
mod look_back;
mod pack;

pub use counts::{Suggestion, WrongCount, counted, suggested};
pub use decisions::{Entry, EntryKind, KeptOut, LogDecisions, Wrong};
pub use differences::{Compared, Difference, SeenBlock, compared, seen_blocks};
pub use journal::{Day, ahead_of, journal, minutes_taken};
pub use look_back::{FinishedPage, LookedBack, Month, Tally, look_back};
pub use pack::{Pack, PackLine, Supply, missing};
