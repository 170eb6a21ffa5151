//! A finished page as a maker would photograph it: coloured papers, mats with shadows, photos of the flats. Drawn by code from a seed.

use crate::lettering::lettering;
use image::{Rgb, RgbImage};
use metrosk_core::length::Unit;
use metrosk_core::sketch::{Block, Kind, Sketch};
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};

/// Pixels an inch.
const SCALE: f64 = 100.0;
/// Table round the page, in pixels.
const TABLE: f64 = 70.0;
/// How far a shadow falls, in pixels.
const SHADOW: f64 = 4.0;

const FOUNDATION: [u8; 3] = [238, 231, 216];
const PAPERS: [[u8; 3]; 4] = [
    [70, 104, 128],
    [190, 92, 66],
    [222, 180, 96],
    [120, 142, 118],
];

/// What the finished page's title says.
const TITLE: &str = "LOW SUN";

/// A finished page made from a sketch.
#[must_use]
pub fn finished_page(sketch: &Sketch, seed: u64) -> RgbImage {
    let inches = |l: metrosk_core::length::Length| l.to_units(Unit::Inch);
    let (w, h) = (
        inches(sketch.canvas.width()) * SCALE,
        inches(sketch.canvas.page.h) * SCALE,
    );
    let mut page = RgbImage::from_pixel(
        (w + 2.0 * TABLE) as u32,
        (h + 2.0 * TABLE) as u32,
        Rgb([92, 72, 58]),
    );
    let mut hand = StdRng::seed_from_u64(seed);
    fill(&mut page, [0.0, 0.0, w, h], &mut |_, _| FOUNDATION);
    for (n, block) in sketch.blocks.iter().enumerate() {
        lay(
            &mut page,
            block,
            PAPERS[n % PAPERS.len()],
            &mut hand,
            (w, h),
        );
    }
    page
}

fn lay(page: &mut RgbImage, block: &Block, paper: [u8; 3], hand: &mut StdRng, (w, h): (f64, f64)) {
    let px = |ticks: f64| ticks / Unit::Inch.ticks() as f64 * SCALE;
    let s = block.extent();
    let at = [
        px(s.l).max(0.0),
        px(s.t).max(0.0),
        px(s.r).min(w),
        px(s.b).min(h),
    ];
    let [l, t, r, b] = at;
    match block.kind {
        Kind::Photo => {
            shadow(page, at);
            scene(page, at, hand);
        }
        Kind::Mat => {
            shadow(page, at);
            fill(page, at, &mut |_, _| [250, 248, 243]);
        }
        Kind::Paper | Kind::Strip | Kind::Grid => {
            shadow(page, at);
            let step = hand.random_range(22.0..40.0);
            // A small printed pattern: dots on a lattice.
            fill(page, at, &mut |x, y| {
                let (u, v) = (
                    (x - l).rem_euclid(step) - step / 2.0,
                    (y - t).rem_euclid(step) - step / 2.0,
                );
                if u.hypot(v) < 3.2 {
                    paper.map(|c| c.saturating_add(34))
                } else {
                    paper
                }
            });
        }
        Kind::Title => {
            // Letters cut from dark card, as large as their place lets them.
            let letters = lettering(TITLE, (r - l, b - t));
            fill(page, at, &mut |x, y| match letters
                .get_pixel_checked((x - l) as u32, (y - t) as u32)
            {
                Some(ink) if ink.0[0] > 127 => [52, 46, 60],
                _ => KEEP,
            });
        }
        Kind::Journal => {
            let mut y = t + 12.0;
            while y < b {
                let end = if y + 26.0 > b { l + (r - l) * 0.6 } else { r };
                fill(page, [l, y, end, y + 3.0], &mut |x, _| {
                    if (x / 9.0) as i64 % 4 == 3 {
                        FOUNDATION
                    } else {
                        [96, 92, 98]
                    }
                });
                y += 26.0;
            }
        }
        Kind::Cluster | Kind::Accent | Kind::Ring | Kind::Wash => {
            let (cx, cy, size) = ((l + r) / 2.0, (t + b) / 2.0, (r - l).min(b - t) / 2.0);
            fill(page, at, &mut |x, y| {
                let (u, v) = ((x - cx) / size, (y - cy) / size);
                let petals = 0.7 + 0.22 * (v.atan2(u) * 6.0).cos();
                let far = u.hypot(v);
                if far < 0.22 {
                    [238, 206, 120]
                } else if far < petals {
                    [176, 62, 58]
                } else {
                    KEEP
                }
            });
        }
    }
}

/// A tone that leaves what is there.
const KEEP: [u8; 3] = [1, 2, 3];

fn fill(page: &mut RgbImage, [l, t, r, b]: [f64; 4], tone: &mut dyn FnMut(f64, f64) -> [u8; 3]) {
    let (x0, y0) = (
        (l + TABLE).round().max(0.0) as u32,
        (t + TABLE).round().max(0.0) as u32,
    );
    let (x1, y1) = (
        ((r + TABLE).round() as u32).min(page.width()),
        ((b + TABLE).round() as u32).min(page.height()),
    );
    for y in y0..y1 {
        for x in x0..x1 {
            let colour = tone(f64::from(x) + 0.5 - TABLE, f64::from(y) + 0.5 - TABLE);
            if colour != KEEP {
                page.put_pixel(x, y, Rgb(colour));
            }
        }
    }
}

/// A paper lies a little above what it is glued to.
fn shadow(page: &mut RgbImage, [l, t, r, b]: [f64; 4]) {
    let (x0, y0) = ((l + TABLE + SHADOW) as u32, (t + TABLE + SHADOW) as u32);
    let (x1, y1) = (
        ((r + TABLE + SHADOW) as u32).min(page.width()),
        ((b + TABLE + SHADOW) as u32).min(page.height()),
    );
    for y in y0..y1 {
        for x in x0..x1 {
            let pixel = page.get_pixel_mut(x, y);
            pixel.0 = pixel.0.map(|c| (f64::from(c) * 0.8) as u8);
        }
    }
}

/// Sky over wet sand, a low sun, and kites.
fn scene(page: &mut RgbImage, [l, t, r, b]: [f64; 4], hand: &mut StdRng) {
    let horizon = t + (b - t) * hand.random_range(0.5..0.68);
    let sun = (
        l + (r - l) * hand.random_range(0.2..0.8),
        horizon - (b - t) * 0.12,
    );
    let kites: Vec<(f64, f64, f64, [u8; 3])> = (0..3)
        .map(|n| {
            let at = (
                hand.random_range(l + 20.0..r - 20.0),
                hand.random_range(t + 14.0..horizon - 10.0),
            );
            (
                at.0,
                at.1,
                hand.random_range(9.0..22.0),
                PAPERS[(n + 1) % PAPERS.len()],
            )
        })
        .collect();
    fill(page, [l, t, r, b], &mut |x, y| {
        if let Some(kite) = kites
            .iter()
            .find(|k| (x - k.0).abs() / k.2 + (y - k.1).abs() / (k.2 * 1.4) < 1.0)
        {
            return kite.3;
        }
        if (x - sun.0).hypot(y - sun.1) < (b - t) * 0.055 {
            return [255, 236, 190];
        }
        let mixed = |a: [f64; 3], b: [f64; 3], share: f64| {
            [0, 1, 2].map(|k| (a[k] + (b[k] - a[k]) * share).clamp(0.0, 255.0) as u8)
        };
        if y < horizon {
            mixed(
                [108.0, 138.0, 176.0],
                [242.0, 196.0, 150.0],
                (y - t) / (horizon - t),
            )
        } else {
            let ripple = ((y - horizon) * 0.35 + (x * 0.02).sin() * 3.0).sin() * 7.0;
            let sand = mixed(
                [176.0, 150.0, 122.0],
                [122.0, 100.0, 84.0],
                (y - horizon) / (b - horizon),
            );
            sand.map(|c| (f64::from(c) + ripple).clamp(0.0, 255.0) as u8)
        }
    });
}
