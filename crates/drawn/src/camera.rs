//! How a drawing looks in a photograph: at an angle on a table, in a lamp's shadow, in a printed book.

use crate::manner::{Camera, Manner};
use crate::svg::rendered;
use image::{Rgb, RgbImage};
use imageproc::geometric_transformations::{
    Border, Interpolation, Projection, warp_into, warp_into_with,
};
use rand::Rng;
use rand::rngs::StdRng;
use std::fmt::Write;

/// How a drawing's pixels come into a picture.
pub(crate) struct View {
    /// Where the drawing lies on the sheet that is photographed, and the sheet's size.
    at: (u32, u32),
    sheet: (u32, u32),
    /// From the sheet to the picture, and the picture's size; nothing where no camera took it.
    camera: Option<(Projection, (u32, u32))>,
    /// By how many of its pixels the sheet's middle rises above its sides.
    curl: f32,
}

impl View {
    /// How a drawing of a size is seen in a manner.
    pub(crate) fn drawn((w, h): (u32, u32), manner: &Manner, luck: &mut StdRng) -> View {
        if !manner.is_photographed() {
            return View {
                at: (0, 0),
                sheet: (w, h),
                camera: None,
                curl: 0.0,
            };
        }
        let (at, sheet) = if manner.camera == Camera::Book {
            let at = (luck.random_range(20..130), luck.random_range(60..300));
            let more = (luck.random_range(20..130), luck.random_range(80..420));
            (at, (w + at.0 + more.0, h + at.1 + more.1))
        } else {
            ((0, 0), (w, h))
        };
        View {
            at,
            sheet,
            camera: held(sheet, luck),
            curl: if manner.camera == Camera::Curled {
                sheet.1 as f32 * luck.random_range(0.006..0.02)
            } else {
                0.0
            },
        }
    }

    /// Sharp where each pixel is a mark of its own, smooth where it is a colour.
    pub(crate) fn seen(&self, sheet: &RgbImage, round: Rgb<u8>, by: Interpolation) -> RgbImage {
        let Some((onto, (w, h))) = self.camera else {
            return sheet.clone();
        };
        let (mut out, border) = (RgbImage::from_pixel(w, h, round), Border::Constant(round));
        if self.curl == 0.0 {
            warp_into(sheet, onto, by, border, &mut out);
            return out;
        }
        let (curl, wide) = (self.curl, sheet.width() as f32);
        let bend = move |x: f32, y: f32| (x, y + curl * (x / wide * std::f32::consts::PI).sin());
        let mut bent = RgbImage::new(sheet.width(), sheet.height());
        warp_into_with(sheet, bend, by, border, &mut bent);
        warp_into(&bent, onto, by, border, &mut out);
        out
    }

    /// A drawing's pixels on the sheet, with one colour round them.
    pub(crate) fn laid(&self, drawing: &RgbImage, round: Rgb<u8>) -> RgbImage {
        let mut sheet = RgbImage::from_pixel(self.sheet.0, self.sheet.1, round);
        image::imageops::replace(&mut sheet, drawing, self.at.0.into(), self.at.1.into());
        sheet
    }
}

/// A sheet held before a camera: turned by some degrees, its corners nearer and farther.
fn held(sheet: (u32, u32), luck: &mut StdRng) -> Option<(Projection, (u32, u32))> {
    let (w, h) = (sheet.0 as f32, sheet.1 as f32);
    let turn = luck.random_range(-0.14..0.14_f32);
    let (sin, cos) = turn.sin_cos();
    let room = luck.random_range(1.04..1.25_f32);
    let (width, height) = (
        (w * cos + h * sin.abs()) * room,
        (h * cos + w * sin.abs()) * room,
    );
    let mut off = |share: f32| luck.random_range(-share..share);
    let aside = (off(0.03) * w, off(0.03) * h);
    let from = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)];
    let onto = from.map(|(x, y)| {
        let (dx, dy) = (x - w / 2.0 + off(0.045) * w, y - h / 2.0 + off(0.045) * h);
        (
            width / 2.0 + aside.0 + dx * cos - dy * sin,
            height / 2.0 + aside.1 + dx * sin + dy * cos,
        )
    });
    let projection = Projection::from_control_points(from, onto)?;
    Some((projection, (width as u32, height as u32)))
}

/// The picture that a camera takes of a drawing; the drawing itself where none does.
pub(crate) fn photographed(
    flat: RgbImage,
    view: &View,
    manner: &Manner,
    luck: &mut StdRng,
) -> RgbImage {
    if view.camera.is_none() {
        return flat;
    }
    let sheet = if manner.camera == Camera::Book {
        printed(&flat, view, luck)
    } else {
        flat
    };
    let table: [[u8; 3]; 4] = [[70, 76, 96], [92, 74, 58], [58, 62, 66], [150, 132, 110]];
    let table = Rgb(table[luck.random_range(0..table.len())]);
    let mut out = view.seen(&sheet, table, Interpolation::Bilinear);
    lit(&mut out, manner, luck);
    imageproc::filter::gaussian_blur_f32(&out, luck.random_range(0.5..1.3))
}

/// The drawing among rows of print.
fn printed(flat: &RgbImage, view: &View, luck: &mut StdRng) -> RgbImage {
    let papers: [[u8; 3]; 3] = [[238, 231, 214], [246, 243, 236], [229, 224, 210]];
    let paper = Rgb(papers[luck.random_range(0..papers.len())]);
    let mut sheet = view.laid(flat, Rgb([255; 3]));
    for p in sheet.pixels_mut() {
        // What is white in the drawing is the book's own paper.
        let ink = |n: usize| (u16::from(p.0[n]) * u16::from(paper.0[n]) / 255) as u8;
        *p = Rgb([ink(0), ink(1), ink(2)]);
    }
    let (w, h) = view.sheet;
    let size = luck.random_range(15.0..24.0_f32);
    let left = luck.random_range(16.0..60.0_f32);
    let words = "the sea went out and nobody followed the kites that stood still over the water while the lamps were lit on the quay ";
    let mut text = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{w}\" height=\"{h}\"><rect width=\"{w}\" height=\"{h}\" fill=\"#fff\"/><g fill=\"#3a3836\">"
    );
    let mut y = size * 2.0;
    while y < h as f32 - size {
        let is_clear =
            y + size * 0.6 < view.at.1 as f32 || y - size > (view.at.1 + flat.height()) as f32;
        if is_clear {
            let count = ((w as f32 - 2.0 * left) / (size * 0.53)) as usize;
            let last = luck.random_bool(0.12);
            let count = if last { count / 2 } else { count };
            let row: String = words
                .chars()
                .cycle()
                .skip(luck.random_range(0..words.len()))
                .take(count)
                .collect();
            let _ = write!(
                text,
                "<text x=\"{left:.1}\" y=\"{y:.1}\" font-size=\"{size:.1}\" font-family=\"Public Sans\">{row}</text>"
            );
        }
        y += size * 1.5;
    }
    text += "</g></svg>";
    let print = rendered(&text);
    for (x, y, p) in sheet.enumerate_pixels_mut() {
        let ink = u16::from(print.get_pixel(x, y).0[0]);
        *p = Rgb(p.0.map(|c| (u16::from(c) * ink / 255) as u8));
    }
    sheet
}

/// Light that falls off to one side, a lamp's shadow where there is one, and the grain of a small sensor.
fn lit(image: &mut RgbImage, manner: &Manner, luck: &mut StdRng) {
    let (w, h) = (f64::from(image.width()), f64::from(image.height()));
    let (ax, ay) = (
        luck.random_range(-0.22..0.22),
        luck.random_range(-0.22..0.22),
    );
    let (bright, warm) = (luck.random_range(0.78..1.0), luck.random_range(0.82..1.0));
    let shadow = match manner.camera {
        Camera::Lamp | Camera::Book => luck.random_range(0.2..0.6),
        _ => 0.0,
    };
    let (at, slant, soft) = (
        luck.random_range(0.2..0.8),
        luck.random_range(-0.5..0.5),
        luck.random_range(0.06..0.3),
    );
    // Shadows fall from any side.
    let (from_right, is_level) = (luck.random_bool(0.5), luck.random_bool(0.4));
    for (x, y, pixel) in image.enumerate_pixels_mut() {
        let (u, v) = (f64::from(x) / w, f64::from(y) / h);
        let (a, b) = if is_level { (v, u) } else { (u, v) };
        let a = if from_right { 1.0 - a } else { a };
        let beyond = ((a + slant * (b - 0.5) - at) / soft).clamp(0.0, 1.0);
        let light = bright * (1.0 + ax * (u - 0.5) + ay * (v - 0.5)) * (1.0 - shadow * beyond);
        let grain = luck.random_range(-5.0..5.0);
        let lit = |c: u8, by: f64| (f64::from(c) * light * by + grain).clamp(0.0, 255.0) as u8;
        *pixel = Rgb([
            lit(pixel.0[0], 1.0),
            lit(pixel.0[1], (1.0 + warm) / 2.0),
            lit(pixel.0[2], warm),
        ]);
    }
}
