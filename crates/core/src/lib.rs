//! The rules of the job and the computation of Metrosk, without interface code and without I/O.
//!
//! A maker has a **sketch**: a diagram of blocks (photo slots, mats, panels, strips, a title, writing space, clusters)
//! on a page or a spread. She wants it on her own page. The **fit** moves the sketch's lines, not its blocks, so that
//! what lined up still does, and answers with a measured **layout**.
//!
//! ```text
//! JSON text -> Request -> oriented Sketch -> Reading (lines, gaps, relations)
//!           -> choices (which print where, which slot is split or merged, which side of the fold)
//!           -> program (one convex quadratic program over edges and lines)
//!           -> ruler (lines rounded to the step) -> Layout -> measures, notes -> Proposal
//! ```
//!
//! ```
//! use metrosk_core::fit::{self, Outcome, Request};
//! let request = Request::from_text(r#"{
//!   "format": "metrosk-fit/1", "unit": "in",
//!   "sketch": {"format": "metrosk-sketch/1", "unit": "in", "name": "One", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
//!     "blocks": [{"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 6}}]},
//!   "target": {"page": {"w": 6, "h": 6}, "pages": 1}
//! }"#).unwrap();
//! let Outcome::Proposals(proposals) = fit::fit(&request) else { panic!("nothing stands in its way") };
//! assert_eq!(proposals[0].layout.blocks.len(), 1);
//! ```

pub mod building;
pub mod calendar;
pub mod calls;
mod cancel;
pub mod checks;
pub mod clusters;
pub mod cutting;
mod defaults;
pub mod document;
pub mod fit;
pub mod geometry;
pub mod handwriting;
pub mod hop;
mod laying;
pub mod layout;
pub mod length;
pub mod letters;
pub mod log;
pub mod notation;
pub mod papers;
pub mod photos;
pub mod placed_photos;
pub mod plan;
pub mod reading;
pub mod season;
pub mod sketch;
pub mod stash;
pub mod typefaces;
pub mod words;

pub use cancel::Cancel;
