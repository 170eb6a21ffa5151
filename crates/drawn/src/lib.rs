//! A drawing machine: sketches in the layouts that makers use, drawn in as many manners as other hands have, each with its truth.
//!
//! A number stands for a picture. From it come a layout ([`layout()`]), a manner ([`Manner`]), every aspect of which is drawn at random and by
//! itself, so that no rule of reading can lean on a coincidence, and the drawing: lines (`svg`), rendered, then photographed where the manner
//! says so (`camera`). A few variants of most aspects are kept for checking: pictures that tune the reading never have one.

mod camera;
mod layout;
mod letters;
mod manner;
mod marks;
mod measure;
mod svg;

pub use layout::{Drawn, layout};
pub use manner::{
    Camera, Cluster, Fill, Ground, Instrument, Journal, Manner, Mat, Page, Photo, Set, Title,
};
pub use marks::{OUTSIDE, PAGE, class_of};
pub use measure::{Found, compare, right};

use camera::View;
use image::{Rgb, RgbImage};
use imageproc::geometric_transformations::Interpolation;
use metrosk_core::length::Unit;
use metrosk_core::sketch::Sketch;
use metrosk_vision::ReadRequest;
use rand::SeedableRng;
use rand::rngs::StdRng;

/// A picture with what it shows.
#[derive(Debug, Clone)]
pub struct Sample {
    /// As it would be put in.
    pub picture: RgbImage,
    /// The sketch that was drawn.
    pub truth: Sketch,
    /// In which manner.
    pub manner: Manner,
    /// What each pixel of the picture shows: `[class, block, side of the page]`.
    pub marks: RgbImage,
}

/// The picture of a number, in a manner of a set.
#[must_use]
pub fn sample(number: u64, set: Set) -> Sample {
    let mut luck = StdRng::seed_from_u64(number);
    let manner = Manner::drawn(&mut luck, set);
    let drawn = layout(&mut luck, &manner);
    let text = svg::drawing(&drawn, &manner, &mut luck);
    let flat = svg::rendered(&text);
    let view = View::drawn(flat.dimensions(), &manner, &mut luck);
    let outside = Rgb([OUTSIDE, 0, 0]);
    let marked = view.laid(
        &marks::marks(&drawn, &svg::Paper::of(&drawn, &manner)),
        outside,
    );
    let marks = view.seen(&marked, outside, Interpolation::Nearest);
    let picture = camera::photographed(flat, &view, &manner, &mut luck);
    Sample {
        picture,
        truth: drawn.sketch,
        manner,
        marks,
    }
}

/// What a maker would say of a picture of a sketch.
#[must_use]
pub fn asked(truth: &Sketch) -> ReadRequest {
    let page = truth.canvas.page;
    ReadRequest {
        page: (page.w.to_units(Unit::Inch), page.h.to_units(Unit::Inch)),
        pages: u32::from(truth.canvas.pages),
        unit: Unit::Inch,
        name: "Read".to_owned(),
        corners: None,
    }
}
