//! What each pixel of a drawing shows, told from the truth: for training what reads pictures.

use crate::layout::Drawn;
use crate::svg::{Paper, outline_of};
use image::{Rgb, RgbImage};
use imageproc::drawing::draw_polygon_mut;
use imageproc::point::Point;
use metrosk_core::sketch::Kind;

/// What a pixel shows. The numbers are those of the network's classes.
pub const OUTSIDE: u8 = 0;
/// The page itself.
pub const PAGE: u8 = 1;

/// The number of a kind of block among the classes; a strip is a paper.
#[must_use]
pub fn class_of(kind: Kind) -> u8 {
    match kind {
        Kind::Photo => 2,
        Kind::Mat => 3,
        Kind::Title => 5,
        Kind::Journal => 6,
        Kind::Cluster => 7,
        Kind::Accent => 8,
        _ => 4,
    }
}

/// The drawing's pixels, each `[class, block, side of the page]`: blocks are numbered from 1, bottom to top, 0 is none; sides are 1 and 2.
pub(crate) fn marks(drawn: &Drawn, paper: &Paper) -> RgbImage {
    let mut marks = RgbImage::from_pixel(paper.size.0, paper.size.1, Rgb([OUTSIDE, 0, 0]));
    for (side, &(left, top)) in paper.pages.iter().enumerate() {
        let (w, h) = (paper.page.0 as u32, paper.page.1 as u32);
        let ground = Rgb([PAGE, 0, side as u8 + 1]);
        let mut page = RgbImage::from_pixel(w, h, ground);
        let off = (-(side as f64) * paper.page.0, 0.0);
        for (n, block) in drawn.sketch.blocks.iter().enumerate() {
            let mut points: Vec<Point<i32>> = Vec::new();
            for (x, y) in outline_of(block, off) {
                let point = Point::new(x.round() as i32, y.round() as i32);
                if points.last() != Some(&point) && points.first() != Some(&point) {
                    points.push(point);
                }
            }
            if points.len() > 2 {
                let mark = Rgb([class_of(block.kind), n as u8 + 1, side as u8 + 1]);
                draw_polygon_mut(&mut page, &points, mark);
            }
        }
        image::imageops::replace(&mut marks, &page, left as i64, top as i64);
    }
    marks
}
