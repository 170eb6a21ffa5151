//! A drawing machine: sketches in the layouts that makers use, drawn in as many manners as other hands have, each with its truth.
//!
//! A number stands for a picture. From it come a layout ([`layout()`]), a manner ([`Manner`]), every aspect of which is drawn at random and by
//! itself, so that no rule of reading can lean on a coincidence, and the drawing: lines (`svg`), rendered, then photographed where the manner
//! says so (`camera`). A few variants of most aspects are kept for checking: pictures that tune the reading never have one.

mod camera;
mod layout;
mod letters;
mod manner;
mod measure;
mod svg;

pub use layout::{Drawn, layout};
pub use manner::{
    Camera, Cluster, Fill, Ground, Instrument, Journal, Manner, Mat, Page, Photo, Set, Title,
};
pub use measure::{Found, compare};

use image::RgbImage;
use rand::SeedableRng;
use rand::rngs::StdRng;

/// A picture with what it shows.
#[derive(Debug, Clone)]
pub struct Sample {
    /// As it would be put in.
    pub picture: RgbImage,
    /// The sketch that was drawn.
    pub truth: metrosk_core::sketch::Sketch,
    /// In which manner.
    pub manner: Manner,
}

/// The picture of a number, in a manner of a set.
#[must_use]
pub fn sample(number: u64, set: Set) -> Sample {
    let mut luck = StdRng::seed_from_u64(number);
    let manner = Manner::drawn(&mut luck, set);
    let drawn = layout(&mut luck, &manner);
    let text = svg::drawing(&drawn, &manner, &mut luck);
    let flat = svg::rendered(&text);
    let picture = camera::photographed(flat, &manner, &mut luck);
    Sample {
        picture,
        truth: drawn.sketch,
        manner,
    }
}
