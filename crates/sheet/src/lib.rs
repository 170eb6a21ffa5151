//! A layout on paper: a true-scale SVG for a cutting machine or a drawing program, and the measurement sheet that lies on
//! the table, as SVG pages and as PDF. Pure functions: a layout goes in, text or bytes come out. Fonts are bundled.
//!
//! ```
//! use metrosk_core::plan;
//! use metrosk_sheet::{Paper, Pictures, Subject};
//! let sketch = metrosk_demo::sketches(metrosk_demo::SEED).swap_remove(0);
//! let proposal = plan::Plan::from_json(&plan::start(&sketch, &plan::Defaults::default())).unwrap().proposal().unwrap();
//! let subject = Subject { name: "Kites", sketch: &sketch, layout: &proposal.layout, way: "scale", pictures: &Pictures::new() };
//! assert!(metrosk_sheet::true_scale(&subject).contains(r#"width="12in""#));
//! assert!(metrosk_sheet::measurement_pdf(&subject, Paper::A4).unwrap().starts_with(b"%PDF"));
//! ```

mod credit;
mod cut_sheets;
mod machine;
mod measures;
mod numbers;
mod outline;
mod pdf;
pub(crate) mod pictures;
mod print_sheets;
mod steps_sheet;
mod texture;
mod true_scale;
mod words;
mod writing;

pub use credit::credit;
pub use cut_sheets::{CutOutline, InchBox, PieceOnSheet, SheetToCut, cut_sheets_pdf, machine_svg};
pub use machine::{BladeLine, BladeSheet, read_blade_sheet};
pub use measures::{Paper, measurement_pages};
pub use numbers::{Numbered, numbered};
pub use pdf::{PdfError, measurement_pdf};
pub use pictures::{Picture, Pictures};
pub use print_sheets::{PrintSheet, PrintedPhoto, print_sheet_svg, print_sheets_pdf};
pub use steps_sheet::{StepOnPaper, steps_pdf};
pub use true_scale::true_scale;
pub use writing::{WritingLines, writing_pdf};

use metrosk_core::layout::Layout;
use metrosk_core::sketch::Sketch;

/// What is put on paper.
#[derive(Clone, Copy, Debug)]
pub struct Subject<'a> {
    /// The page's name.
    pub name: &'a str,
    /// The sketch it is made from: its blocks' places in the document are the numbers.
    pub sketch: &'a Sketch,
    /// Where everything is.
    pub layout: &'a Layout,
    /// The approach it went by.
    pub way: &'a str,
    /// The pictures of its prints; photos without one are grey places.
    pub pictures: &'a Pictures,
}
