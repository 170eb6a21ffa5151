//! How a drawing looks in a photograph: at an angle on a table, in a lamp's shadow, in a printed book.

use crate::manner::{Camera, Manner};
use image::{Rgb, RgbImage};
use imageproc::geometric_transformations::{Border, Interpolation, Projection, warp_into};
use rand::Rng;
use rand::rngs::StdRng;

/// The picture that a camera takes of a drawing; the drawing itself where none does.
pub(crate) fn photographed(flat: RgbImage, manner: &Manner, luck: &mut StdRng) -> RgbImage {
    if !manner.is_photographed() {
        return flat;
    }
    let sheet = if manner.camera == Camera::Book {
        printed(&flat, luck)
    } else {
        flat
    };
    let (w, h) = (sheet.width() as f32, sheet.height() as f32);
    let (width, height) = (w * 1.14, h * 1.14);
    let mut off = |share: f32| luck.random_range(-share..share);
    let margin = (0.07 * w, 0.07 * h);
    let corners = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)]
        .map(|(x, y)| (x + margin.0 + off(0.045) * w, y + margin.1 + off(0.045) * h));
    let from = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)];
    let table = Rgb([[70, 76, 96], [92, 74, 58], [58, 62, 66]][luck.random_range(0..3)]);
    let mut out = RgbImage::from_pixel(width as u32, height as u32, table);
    if let Some(onto) = Projection::from_control_points(from, corners) {
        warp_into(
            &sheet,
            onto,
            Interpolation::Bilinear,
            Border::Constant(table),
            &mut out,
        );
    }
    lit(&mut out, manner, luck);
    imageproc::filter::gaussian_blur_f32(&out, luck.random_range(0.5..1.1))
}

/// The drawing among rows of print.
fn printed(flat: &RgbImage, luck: &mut StdRng) -> RgbImage {
    let (above, below) = (luck.random_range(90..170), luck.random_range(140..260));
    let paper = Rgb([238, 231, 214]);
    let mut page = RgbImage::from_pixel(flat.width(), flat.height() + above + below, paper);
    for (x, y, p) in flat.enumerate_pixels() {
        // What is white in the drawing is the book's own paper.
        let ink = |n: usize| (u16::from(p.0[n]) * u16::from(paper.0[n]) / 255) as u8;
        page.put_pixel(x, y + above, Rgb([ink(0), ink(1), ink(2)]));
    }
    let rows = |from: u32, to: u32, page: &mut RgbImage, luck: &mut StdRng| {
        let mut y = from + 24;
        while y + 24 < to {
            let mut x = 60;
            while x + 70 < page.width() {
                let word = luck.random_range(16..56);
                for dx in (0..word).filter(|d| d % 7 < 5) {
                    for dy in 0..9 {
                        if luck.random_bool(0.62) {
                            page.put_pixel(x + dx, y + dy, Rgb([74, 70, 66]));
                        }
                    }
                }
                x += word + 12;
            }
            y += 24;
        }
    };
    rows(0, above, &mut page, luck);
    let end = page.height();
    rows(above + flat.height(), end, &mut page, luck);
    page
}

/// Light that falls off to one side, a lamp's shadow where there is one, and the grain of a small sensor.
fn lit(image: &mut RgbImage, manner: &Manner, luck: &mut StdRng) {
    let (w, h) = (f64::from(image.width()), f64::from(image.height()));
    let (ax, ay) = (
        luck.random_range(-0.22..0.22),
        luck.random_range(-0.22..0.22),
    );
    let warm = luck.random_range(0.9..1.0);
    let shadow = match manner.camera {
        Camera::Lamp | Camera::Book => luck.random_range(0.25..0.5),
        _ => 0.0,
    };
    let (at, slant) = (luck.random_range(0.3..0.7), luck.random_range(-0.4..0.4));
    for (x, y, pixel) in image.enumerate_pixels_mut() {
        let (u, v) = (f64::from(x) / w, f64::from(y) / h);
        // The shadow's edge is soft.
        let beyond = ((u + slant * (v - 0.5) - at) / 0.12).clamp(0.0, 1.0);
        let light = (0.94 + ax * (u - 0.5) + ay * (v - 0.5)) * (1.0 - shadow * beyond);
        let grain = luck.random_range(-5.0..5.0);
        let lit = |c: u8, by: f64| (f64::from(c) * light * by + grain).clamp(0.0, 255.0) as u8;
        *pixel = Rgb([
            lit(pixel.0[0], 1.0),
            lit(pixel.0[1], (1.0 + warm) / 2.0),
            lit(pixel.0[2], warm),
        ]);
    }
}
