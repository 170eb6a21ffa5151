//! Papers: which one suits which piece, what shows of each piece and what of it is cut, what can come out of the hidden middle of a sheet, and how papers are dealt out
//! over equal places.

pub mod choosing;
mod cut_size;
mod deal;
mod dealing;
mod decisions;
mod hidden;
mod laid;
mod needed;
mod papered;
mod pieces;
mod piecing;
mod surroundings;
mod units;

pub(crate) use choosing::BUSY;
pub use deal::{Deal, Dealt, PaperToDeal, PlaceToFill};
pub use decisions::{
    GutDecisions, MadeUp, Medium, PaperDecisions, PaperSide, PieceChoice, USUAL_TUCK,
};
pub use needed::sheets_needed;
pub use papered::{Papered, PaperedPiece, papered};
pub use piecing::{CutSize, Gutting, Piece, Pieces, Piecing, Tucked, is_papered};
pub use surroundings::Known;
pub use units::{DealtUnits, FreePaper, yields};
