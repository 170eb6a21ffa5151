//! Reads sketches from pictures: pixel buffers in, sketch documents and swatches out. Pure, and the same for the same pixels.
//!
//! The steps: find the page ([`find_page`]), bring it upright, tell ink from paper, take out writing and clusters, trace straight runs and
//! rounds, make panels of them ([`read`]), tell their kinds and what lies on what.

mod among;
mod blocks;
mod clusters;
mod document;
mod evidence;
mod page;
mod panels;
mod picture;
mod plane;
mod progress;
mod repeats;
mod rounds;
mod sheet;
mod snapping;
mod strokes;
mod surround;
mod swatches;
mod tags;
mod trace;
mod washes;
mod writing;

pub use page::Quad;
pub use picture::{
    FEWEST_PIXELS, MOST_BYTES, MOST_PIXELS, Picture, Unreadable, decode, jpeg, reduced,
};
pub use progress::Stage;
pub use snapping::snapped;
pub use swatches::{Swatch, swatches};

use image::RgbImage;
use metrosk_core::length::Unit;
use serde_json::Value;

/// A picture is read at no more than this many pixels a side: more tells no more about blocks.
const READ_AT: u32 = 2400;

/// What the picture shows.
#[derive(Debug, Clone)]
pub struct ReadRequest {
    /// The page's width and height in the unit, both above 0.
    pub page: (f64, f64),
    /// 1, or 2 for a spread.
    pub pages: u32,
    /// The sketch's unit.
    pub unit: Unit,
    /// The sketch's name.
    pub name: String,
    /// The page's corners, in pixels of the picture, where the maker gave them: one quad round the page or spread.
    pub corners: Option<Quad>,
}

/// What was read.
#[derive(Debug, Clone)]
pub struct Reading {
    /// A sketch document (metrosk-sketch/1), each block with `sure`.
    pub sketch: Value,
    /// Where the page lies in the picture, in its pixels: one quad, or two for pages drawn apart.
    pub quads: Vec<Quad>,
}

/// Where the page, or the whole spread, lies in a picture, in its pixels.
#[must_use]
pub fn find_page(pixels: &RgbImage, pages: u32) -> Quad {
    let (small, scale) = small(pixels);
    let found = page::find(&small, &sheet::brightness(&small), pages);
    found.quads[0].map(|p| p.map(|v| v * scale))
}

fn small(pixels: &RgbImage) -> (RgbImage, f64) {
    let small = reduced(pixels, READ_AT);
    let scale = f64::from(pixels.width()) / f64::from(small.width());
    (small, scale)
}

/// Reads a sketch from a picture. `go_on` is told each stage, and says whether to go on.
///
/// # Errors
/// When nothing is found, when the corners make no page, or when it was stopped.
pub fn read(
    pixels: &RgbImage,
    asked: &ReadRequest,
    go_on: &dyn Fn(Stage) -> bool,
) -> Result<Reading, Unreadable> {
    let stopped = |_| Unreadable::Stopped;
    progress::step(go_on, Stage::Page).map_err(stopped)?;
    let (small, scale) = small(pixels);
    let gray = sheet::brightness(&small);
    let mut found = page::find(&small, &gray, asked.pages);
    if let Some(corners) = asked.corners {
        let quad = corners.map(|p| p.map(|v| v / scale));
        if !page::is_page(&quad, small.width(), small.height()) {
            return Err(Unreadable::Corners);
        }
        found.quads = vec![quad];
        found.outlined = true;
    }
    progress::step(go_on, Stage::Upright).map_err(stopped)?;
    let sheet = sheet::upright(&small, &found, asked.page, asked.pages);
    drop(gray);
    let traced = trace::trace(&sheet, go_on).map_err(stopped)?;
    progress::step(go_on, Stage::Kinds).map_err(stopped)?;
    let blocks = blocks::blocks(&sheet, &traced);
    if blocks.is_empty() {
        return Err(Unreadable::Nothing);
    }
    let sketch = document::sketch(&sheet, &blocks, asked.page, asked.unit.name(), &asked.name);
    Ok(Reading {
        sketch,
        quads: sheet
            .quads
            .iter()
            .map(|q| q.map(|p| p.map(|v| v * scale)))
            .collect(),
    })
}

/// The page brought upright, `side` pixels along its longer side (a spread is twice as wide), for laying blocks over it.
///
/// # Errors
/// When the corners make no page.
pub fn straightened(
    pixels: &RgbImage,
    corners: &Quad,
    page: (f64, f64),
    pages: u32,
    side: u32,
) -> Result<RgbImage, Unreadable> {
    if !page::is_page(corners, pixels.width(), pixels.height()) {
        return Err(Unreadable::Corners);
    }
    let scale = f64::from(side) / page.0.max(page.1);
    let (w, h) = (page.0 * scale * f64::from(pages), page.1 * scale);
    let back = page::onto(w, h, corners).ok_or(Unreadable::Corners)?;
    let mut out = RgbImage::new(w.round().max(1.0) as u32, h.round().max(1.0) as u32);
    imageproc::geometric_transformations::warp_into(
        pixels,
        back.invert(),
        imageproc::geometric_transformations::Interpolation::Bilinear,
        imageproc::geometric_transformations::Border::Constant(image::Rgb([255, 255, 255])),
        &mut out,
    );
    Ok(out)
}
