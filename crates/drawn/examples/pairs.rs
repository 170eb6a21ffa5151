//! Pictures with what their pixels show, for training the network (`crates/drawn/train/train.py`):
//!
//! ```sh
//! cargo run --release --package metrosk-drawn --example pairs -- FIRST COUNT FILE
//! ```
//!
//! The file holds `COUNT` records, each `SIDE * SIDE` pixels of RGB, then `(SIDE / 2)²` classes, then as many marks of edges (0 or 1).
//! Of each picture a record shows the whole, or one page of it brought roughly upright.

use image::imageops::FilterType;
use image::{Rgb, RgbImage};
use imageproc::geometric_transformations::{Border, Interpolation, Projection, warp_into};
use metrosk_drawn::{OUTSIDE, PAGE, Sample, Set, sample};
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use std::error::Error;
use std::fs::File;
use std::io::{BufWriter, Write};

/// Pixels a side of what the network sees.
const SIDE: u32 = 320;

fn main() -> Result<(), Box<dyn Error>> {
    let given: Vec<String> = std::env::args().skip(1).collect();
    let [first, count, file] = &given[..] else {
        return Err("FIRST COUNT FILE".into());
    };
    let (first, count): (u64, u64) = (first.parse()?, count.parse()?);
    let mut out = BufWriter::new(File::create(file)?);
    for number in first..first + count {
        let drawn = sample(number, Set::Tuning);
        let mut luck = StdRng::seed_from_u64(number ^ 0x5eed);
        let (picture, marks) = if luck.random_bool(0.35) {
            (drawn.picture, drawn.marks)
        } else {
            one_page(&drawn, &mut luck).unwrap_or((drawn.picture, drawn.marks))
        };
        let seen = image::imageops::resize(&picture, SIDE, SIDE, FilterType::Triangle);
        out.write_all(&seen)?;
        let half = image::imageops::resize(&marks, SIDE / 2, SIDE / 2, FilterType::Nearest);
        out.write_all(&half.pixels().map(|p| p.0[0]).collect::<Vec<u8>>())?;
        out.write_all(&edges(&half))?;
    }
    Ok(())
}

/// One page, upright but for some hundredths of its size.
fn one_page(drawn: &Sample, luck: &mut StdRng) -> Option<(RgbImage, RgbImage)> {
    let side = luck.random_range(1..=drawn.manner.pages);
    let ours = drawn.marks.enumerate_pixels();
    let ours = ours.filter(|(_, _, p)| p.0[0] >= PAGE && p.0[2] == side);
    let places: Vec<(f32, f32)> = ours.map(|(x, y, _)| (x as f32, y as f32)).collect();
    // The corner is what lies farthest that way; a page turned by some degrees has no doubt of it.
    let corner = |right: f32, low: f32| {
        let far = |p: &&(f32, f32)| p.0 * right + p.1 * low;
        places.iter().max_by(|a, b| far(a).total_cmp(&far(b)))
    };
    let corners = [
        corner(-1.0, -1.0)?,
        corner(1.0, -1.0)?,
        corner(1.0, 1.0)?,
        corner(-1.0, 1.0)?,
    ];
    const UPRIGHT: u32 = 640;
    let size = UPRIGHT as f32;
    let mut off = || luck.random_range(-0.02..0.05_f32) * size;
    let (l, t, r, b) = (off(), off(), size - off(), size - off());
    let onto = [(l, t), (r, t), (r, b), (l, b)];
    let view = Projection::from_control_points(corners.map(|c| *c), onto)?;
    let round = drawn.picture.get_pixel(2, 2);
    let mut picture = RgbImage::new(UPRIGHT, UPRIGHT);
    warp_into(
        &drawn.picture,
        view,
        Interpolation::Bilinear,
        Border::Constant(*round),
        &mut picture,
    );
    let mut marks = RgbImage::new(UPRIGHT, UPRIGHT);
    let outside = Border::Constant(Rgb([OUTSIDE, 0, 0]));
    warp_into(
        &drawn.marks,
        view,
        Interpolation::Nearest,
        outside,
        &mut marks,
    );
    Some((picture, marks))
}

/// Where one thing ends and another begins.
fn edges(marks: &RgbImage) -> Vec<u8> {
    let (w, h) = marks.dimensions();
    let at = |x: u32, y: u32| marks.get_pixel(x.min(w - 1), y.min(h - 1)).0;
    let is_edge = |x: u32, y: u32| {
        let here = at(x, y);
        let beside = [
            at(x + 1, y),
            at(x, y + 1),
            at(x.saturating_sub(1), y),
            at(x, y.saturating_sub(1)),
        ];
        beside.iter().any(|b| *b != here)
    };
    let mut out = Vec::with_capacity((w * h) as usize);
    for y in 0..h {
        out.extend((0..w).map(|x| u8::from(is_edge(x, y))));
    }
    out
}
