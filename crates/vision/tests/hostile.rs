//! Whatever bytes come as a picture: an error or a reading, within bounds, never a fall.
//!
//! By default a fixed number of tries from one seed. `METROSK_FUZZ_SECONDS=600` tries new ones for so long (script/fuzz), `METROSK_FUZZ_SEED` from one
//! seed on.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use image::{DynamicImage, ImageFormat, Rgb, RgbImage};
use metrosk_core::length::Unit;
use metrosk_core::sketch::Sketch;
use metrosk_demo::{SEED, Style, picture};
use metrosk_vision::{ReadRequest, decode, read};
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use std::io::Cursor;
use std::time::{Duration, Instant};

/// Calls `one` with seed after seed.
fn tries(few: u64, mut one: impl FnMut(u64)) -> u64 {
    match std::env::var("METROSK_FUZZ_SECONDS")
        .ok()
        .and_then(|s| s.parse().ok())
    {
        None => {
            (0..few).for_each(&mut one);
            few
        }
        Some(seconds) => {
            let start = Instant::now();
            let told = std::env::var("METROSK_FUZZ_SEED")
                .ok()
                .and_then(|s| s.parse().ok());
            let first = told.unwrap_or_else(|| {
                std::time::SystemTime::now()
                    .duration_since(std::time::UNIX_EPOCH)
                    .unwrap()
                    .as_secs()
                    << 20
            });
            let mut seed = first;
            while start.elapsed() < Duration::from_secs(seconds) {
                one(seed);
                seed += 1;
            }
            seed - first
        }
    }
}

fn encoded(pixels: &RgbImage, format: ImageFormat) -> Vec<u8> {
    let mut out = Cursor::new(Vec::new());
    DynamicImage::ImageRgb8(pixels.clone())
        .write_to(&mut out, format)
        .unwrap();
    out.into_inner()
}

#[test]
fn broken_files_are_refused_or_read() {
    let small = metrosk_vision::reduced(
        &picture(&metrosk_demo::sketches(SEED)[0], Style::Clean, SEED),
        200,
    );
    let whole: Vec<Vec<u8>> = [ImageFormat::Png, ImageFormat::Jpeg, ImageFormat::WebP]
        .map(|f| encoded(&small, f))
        .into();
    let done = tries(1_500, |seed| {
        let mut hand = StdRng::seed_from_u64(seed);
        let mut bytes = whole[hand.random_range(0..whole.len())].clone();
        for _ in 0..hand.random_range(1..12) {
            let at = hand.random_range(0..bytes.len());
            match hand.random_range(0..5) {
                0 => bytes[at] = hand.random(),
                1 => bytes[at] ^= 1 << hand.random_range(0..8),
                2 => bytes.truncate(at.max(1)),
                3 => {
                    let copy: Vec<u8> = bytes[at..(at + 16).min(bytes.len())].to_vec();
                    bytes.splice(at..at, copy);
                }
                // Sizes stand near the front: large numbers there are the dear ones.
                _ => {
                    let near = hand.random_range(0..bytes.len().min(64));
                    bytes[near] = 0xFF;
                }
            }
        }
        let _ = decode(&bytes);
    });
    println!("{done} broken files");
}

#[test]
fn any_pixels_are_read_or_hold_nothing() {
    let mut slowest = Duration::ZERO;
    let done = tries(12, |seed| {
        let mut hand = StdRng::seed_from_u64(seed);
        let (w, h) = (hand.random_range(120..420), hand.random_range(120..420));
        let mut pixels =
            RgbImage::from_pixel(w, h, Rgb([hand.random(), hand.random(), hand.random()]));
        let noise = hand.random_range(0..3) * 20;
        for _ in 0..hand.random_range(0..14) {
            let (x0, y0) = (hand.random_range(0..w), hand.random_range(0..h));
            let (x1, y1) = (hand.random_range(x0..=w), hand.random_range(y0..=h));
            let colour = Rgb([hand.random(), hand.random(), hand.random()]);
            let hollow = hand.random_bool(0.5);
            for y in y0..y1 {
                for x in x0..x1 {
                    if !hollow || x < x0 + 2 || y < y0 + 2 || x + 2 >= x1 || y + 2 >= y1 {
                        pixels.put_pixel(x, y, colour);
                    }
                }
            }
        }
        if noise > 0 {
            pixels
                .pixels_mut()
                .for_each(|p| p.0 = p.0.map(|c| c.saturating_add(hand.random_range(0..noise))));
        }
        let pages = hand.random_range(1..=2);
        let asked = ReadRequest {
            page: (12.0, f64::from(hand.random_range(6..16))),
            pages,
            unit: Unit::Inch,
            name: "Any".into(),
            corners: None,
        };
        let start = Instant::now();
        let read = read(&pixels, &asked, &|_| true);
        if start.elapsed() > slowest {
            slowest = start.elapsed();
            println!("seed {seed} took {slowest:?}");
        }
        if let Ok(reading) = read {
            // What is read is a sketch by the format's own rules.
            let sketch = Sketch::from_json(&reading.sketch);
            assert!(sketch.is_ok(), "seed {seed}: {:?}", sketch.err());
        }
    });
    println!("{done} pictures of anything, the slowest took {slowest:?}");
}

/// A picture with ruled lines: every `each` pixels one, `thick` pixels thick, across or down.
fn ruled(w: u32, h: u32, each: u32, thick: u32, across: bool) -> RgbImage {
    RgbImage::from_fn(w, h, |x, y| {
        if (if across { y } else { x }) % each < thick {
            Rgb([30, 30, 30])
        } else {
            Rgb([250, 250, 250])
        }
    })
}

#[test]
fn narrow_pictures_and_narrow_pages_are_read_or_refused() {
    let asked = |page: (f64, f64), pages: u32| ReadRequest {
        page,
        pages,
        unit: Unit::Inch,
        name: "Narrow".to_owned(),
        corners: None,
    };
    let mut tried = 0;
    for (w, h) in [(120, 2400), (2400, 120)] {
        for pixels in [
            ruled(w, h, 12, 3, true),
            ruled(w, h, 9, 2, false),
            ruled(w, h, 40, 4, true),
            // A narrow strip with ruled lines on an empty sheet.
            RgbImage::from_fn(w, h, |x, y| {
                let strip = if w < h {
                    (40..80).contains(&x)
                } else {
                    (40..80).contains(&y)
                };
                let line = if w < h { y % 14 < 2 } else { x % 14 < 2 };
                if strip && line {
                    Rgb([20, 20, 20])
                } else {
                    Rgb([252, 252, 252])
                }
            }),
        ] {
            for page in [(12.0, 12.0), (1.0, 12.0), (48.0, 1.0)] {
                for pages in [1, 2] {
                    if let Ok(reading) = read(&pixels, &asked(page, pages), &|_| true) {
                        assert!(
                            Sketch::from_json(&reading.sketch).is_ok(),
                            "{w}x{h}, {page:?} x {pages}: {}",
                            reading.sketch
                        );
                    }
                    tried += 1;
                }
            }
        }
    }
    assert_eq!(tried, 48);
}

#[test]
fn deep_pictures_take_no_more_memory_than_is_granted() {
    // 36 million pixels of 16 bits in four colours: 288 MB as they are, and as much again on the way to eight bits.
    let mut bytes = Vec::new();
    let small = image::ImageBuffer::<image::Rgba<u16>, Vec<u16>>::from_pixel(
        6000,
        6000,
        image::Rgba([9, 9, 9, 65_535]),
    );
    DynamicImage::ImageRgba16(small)
        .write_to(&mut Cursor::new(&mut bytes), ImageFormat::Png)
        .unwrap();
    let refused = decode(&bytes).unwrap_err().to_string();
    assert!(
        refused.contains("64 bits each") && refused.contains("allowed are up to"),
        "{refused}"
    );
}
