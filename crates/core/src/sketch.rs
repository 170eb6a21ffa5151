//! The sketch document: a page's or a spread's blocks, bottom to top.

mod block;
mod change;
mod credit;
mod outline;
mod read;
mod suits;
mod turning;
mod write;

pub use block::{Block, ClusterSize, Grid, Kind, Ring, Shape, TriangleCorner, UnitShape};
pub use change::{Change, Corner};
pub use credit::credit_of;
pub use outline::{UnitOutline, grid_units, ring_units};
pub(crate) use read::{
    MOST_BLOCKS, MOST_TURN, Reader, read_block, read_canvas, read_rect, read_unit,
};
pub use suits::{Need, changes_for, needs_for, needs_sentences};
pub use turning::{Flip, QuarterTurn};
pub(crate) use write::{block_fields, canvas_json, rect_json};

use crate::document::{self, Findings, Invalid, Node};
use crate::geometry::{Size, Span};
use crate::length::{Length, Unit};
use serde_json::{Map, Value};

/// The `format` of a sketch document.
pub const FORMAT: &str = "metrosk-sketch/1";

/// A page's size and how many lie side by side.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Canvas {
    /// One page.
    pub page: Size,
    /// 1, or 2 for a spread.
    pub pages: u8,
}

impl Canvas {
    /// The width of all pages together.
    pub fn width(self) -> Length {
        if self.pages == 2 {
            self.page.w + self.page.w
        } else {
            self.page.w
        }
    }

    /// The whole canvas as a box in ticks.
    pub fn span(self) -> Span {
        Span {
            l: 0.0,
            t: 0.0,
            r: self.width().ticks() as f64,
            b: self.page.h.ticks() as f64,
        }
    }
}

/// A sketch, in ticks.
#[derive(Clone, Debug, PartialEq)]
pub struct Sketch {
    /// The unit in which the document is written.
    pub unit: Unit,
    /// Its name.
    pub name: String,
    /// The page or spread.
    pub canvas: Canvas,
    /// Bottom to top.
    pub blocks: Vec<Block>,
    /// Fields of the document that this version does not interpret (its origin among them), kept for writing.
    pub other: Map<String, Value>,
}

impl Sketch {
    /// Reads a sketch document.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Sketch, Invalid> {
        let findings = Findings::default();
        let sketch = read::read_sketch(&Node::top(value, &findings));
        findings.finish(sketch)
    }

    /// Reads a sketch document from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<Sketch, Invalid> {
        Sketch::from_json(&document::parse_json(text)?)
    }

    /// Writes the document, unknown fields included.
    pub fn to_json(&self) -> Value {
        write::sketch_json(self)
    }

    /// The index of the block of that id.
    pub fn index_of(&self, id: &str) -> Option<usize> {
        self.blocks.iter().position(|b| b.id == id)
    }

    /// How many photo slots it has.
    pub fn photo_slots(&self) -> usize {
        self.blocks.iter().filter(|b| b.kind == Kind::Photo).count()
    }
}
