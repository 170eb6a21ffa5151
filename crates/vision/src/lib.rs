//! Reads sketches from pictures: pixel buffers in, sketch documents and swatches out. Pure, and the same for the same pixels.
//!
//! The steps: find the page ([`find_page`]), bring it upright, tell ink from paper, take out writing and clusters, trace straight runs and
//! rounds, make panels of them ([`read`]), tell their kinds and what lies on what.

mod among;
mod blocks;
mod choosing;
mod clusters;
mod document;
mod evidence;
mod judging;
mod keeping;
mod labels;
mod lone;
mod marks;
mod matters;
mod network;
mod page;
mod panels;
mod pattern;
mod picture;
mod plane;
mod progress;
mod proportions;
mod quad;
mod repeats;
mod rounds;
mod screens;
mod seen;
mod sheet;
mod snapping;
mod strokes;
mod sureness;
mod surround;
mod swatches;
mod tags;
mod trace;
mod washes;
mod writing;

pub use judging::Evidence;
pub use matters::matters;
pub use pattern::{Pattern, Runs, detail, pattern};
pub use picture::{
    FEWEST_PIXELS, MOST_BYTES, MOST_PIXELS, Picture, Unreadable, decode, jpeg, reduced,
};
pub use progress::Stage;
pub use quad::Quad;
pub use screens::{resized, webp};
pub use snapping::{edges_near, snapped};
pub use swatches::{Swatch, swatches};

use blocks::Read;
use image::RgbImage;
use judging::Judge;
use keeping::Keep;
use metrosk_core::length::Unit;
use page::Found;
use plane::Plane;
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
    /// Sizes that are written in photos' places, in inches: the block's place in the sketch, width, height.
    pub written: Vec<(usize, u32, u32)>,
    /// What speaks for each block of the sketch.
    pub evidence: Vec<Evidence>,
    /// Sizes of paper, in inches, that have the page's proportions where the size that was said has others; the likeliest first.
    pub looks_like: Vec<(f64, f64)>,
}

/// Where the page, or the whole spread, lies in a picture, in its pixels.
#[must_use]
pub fn find_page(pixels: &RgbImage, pages: u32) -> Quad {
    let (small, scale) = small(pixels);
    let found = page_of(&small, &sheet::brightness(&small), pages);
    found.quads[0].map(|p| p.map(|v| v * scale))
}

fn page_of(small: &RgbImage, gray: &Plane, pages: u32) -> Found {
    choosing::chosen(small, gray, page::find(small, gray, pages), pages)
}

/// The corners that a maker gave, in the smaller picture's pixels.
fn given(corners: &Quad, scale: f64, small: &RgbImage) -> Result<Quad, Unreadable> {
    let quad = corners.map(|p| p.map(|v| v / scale));
    if quad::is_page(&quad, small.width(), small.height()) {
        Ok(quad)
    } else {
        Err(Unreadable::Corners)
    }
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
    read_keeping(pixels, asked, Keep::Sure, go_on)
}

/// The same, but all that was thought of is kept, however unsure: for fitting how sure each block is.
///
/// # Errors
/// As [`read`].
pub fn read_everything(pixels: &RgbImage, asked: &ReadRequest) -> Result<Reading, Unreadable> {
    read_keeping(pixels, asked, Keep::All, &|_| true)
}

fn read_keeping(
    pixels: &RgbImage,
    asked: &ReadRequest,
    keep: Keep,
    go_on: &dyn Fn(Stage) -> bool,
) -> Result<Reading, Unreadable> {
    let stopped = |_| Unreadable::Stopped;
    progress::step(go_on, Stage::Page).map_err(stopped)?;
    let (small, scale) = small(pixels);
    let gray = sheet::brightness(&small);
    let found = match asked.corners {
        None => page_of(&small, &gray, asked.pages),
        // Rules still tell whether it is a photograph.
        Some(corners) => Found {
            quads: vec![given(&corners, scale, &small)?],
            outlined: true,
            ..page::find(&small, &gray, asked.pages)
        },
    };
    progress::step(go_on, Stage::Upright).map_err(stopped)?;
    let sheet = sheet::upright(&small, &found, asked.page, asked.pages);
    drop(gray);
    let traced = trace::trace(&sheet, go_on).map_err(stopped)?;
    progress::step(go_on, Stage::Kinds).map_err(stopped)?;
    let judged = Judge::new(&sheet, &traced).judged(blocks::blocks(&sheet, &traced));
    let (blocks, evidence) = keeping::kept(judged, keep);
    if blocks.is_empty() {
        return Err(Unreadable::Nothing);
    }
    let sketch = document::sketch(&sheet, &blocks, asked.page, asked.unit.name(), &asked.name);
    let said = asked.page;
    let size = (f64::from(small.width()), f64::from(small.height()));
    Ok(Reading {
        sketch,
        written: written(&blocks, &traced),
        evidence,
        looks_like: proportions::sizes_like(&sheet.quads, size, said, asked.pages),
        quads: sheet
            .quads
            .iter()
            .map(|q| q.map(|p| p.map(|v| v * scale)))
            .collect(),
    })
}

/// The pages between several quads brought upright, one beside the other; one quad is round a page or a whole spread.
///
/// # Errors
/// When the corners make no page.
pub fn pages_straightened(
    pixels: &RgbImage,
    quads: &[Quad],
    page: (f64, f64),
    pages: u32,
    side: u32,
) -> Result<RgbImage, Unreadable> {
    let each = if quads.len() > 1 { 1 } else { pages };
    let mut upright = Vec::new();
    for quad in quads {
        upright.push(straightened(pixels, quad, page, each, side)?);
    }
    let first = upright.first().ok_or(Unreadable::Corners)?;
    let (w, h) = first.dimensions();
    let mut all = RgbImage::new(w * upright.len() as u32, h);
    for (n, part) in upright.iter().enumerate() {
        image::imageops::replace(&mut all, part, i64::from(w) * n as i64, 0);
    }
    Ok(all)
}

/// The sizes written in photos' places.
fn written(blocks: &[Read], traced: &trace::Traced) -> Vec<(usize, u32, u32)> {
    let mut found = Vec::new();
    for (n, block) in blocks.iter().enumerate().filter(|(_, b)| b.kind == "photo") {
        let inside = |w: &&writing::Writing| !w.lines && block.form.depth(w.extent.middle()) > 0.0;
        let mut words = traced.writing.iter().filter(inside);
        found.extend(
            words
                .find_map(|w| labels::size_written(&traced.ink, &w.extent))
                .map(|(w, h)| (n, w, h)),
        );
    }
    found
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
    if !quad::is_page(corners, pixels.width(), pixels.height()) {
        return Err(Unreadable::Corners);
    }
    let scale = f64::from(side) / page.0.max(page.1);
    let (w, h) = (page.0 * scale * f64::from(pages), page.1 * scale);
    let back = quad::onto(w, h, corners).ok_or(Unreadable::Corners)?;
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
