//! Papers: which one suits which piece, what shows of each piece and what of it is cut, what can come out of the hidden middle of a sheet, and how papers are dealt out
//! over equal places.

pub mod choosing;
mod cut_size;
mod deal;
mod dealing;
mod decisions;
mod die_shapes;
mod extras;
mod laid;
mod needed;
mod papered;
mod pieces;
mod piecing;
mod reaching;
mod seen_through;
mod slices;
mod surroundings;
mod unit_rows;
mod units;
mod using_up;
mod weighing;
mod yields;

pub(crate) use choosing::BUSY;
pub use deal::{Deal, Dealt, PaperToDeal, PlaceToFill};
pub use decisions::{
    CutAs, GutDecisions, MadeUp, Medium, PaperDecisions, PaperSide, PieceChoice, USUAL_TUCK,
};
pub use die_shapes::{PaperDetail, dies_given, dies_in};
pub use extras::Extra;
pub use needed::sheets_needed;
pub use papered::{DiesInMiddle, Papered, PaperedPiece, papered};
pub use piecing::{CutSize, Gutting, Piece, Pieces, Piecing, Tucked, is_papered};
pub use surroundings::Known;
pub use unit_rows::{UnitMark, UnitRow, UnitTable};
pub use units::{Dealing, DealtUnits, FreePaper};
pub use using_up::{KitPaper, KitUse};
pub use weighing::{Rule, RuleWeights};
pub use yields::{punched, punched_from, yields};
