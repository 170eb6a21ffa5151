//! The stash: sheets, pads, cards, scraps and tools, what they look like on both sides, and how much of them there is.

mod colour;
mod document;
mod item;
mod made_of;
mod said;
mod search;
mod table;

pub use colour::Colour;
pub use item::{
    Direction, Item, ItemKind, LARGEST_SIDE, MOST_COUNT, PrintedStrip, Side, Swatch, Tool, usable,
};
pub use made_of::{Form, Material};
pub use said::{Said, said};
pub use search::{Wanted, wanted};
pub use table::{COLUMNS, MOST_ROWS, Row, Table, from_table, to_table};
