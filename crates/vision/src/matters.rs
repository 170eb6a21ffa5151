//! What matters in a photo, as far as its pixels tell: what stands out from the rest in colour and has edges.
//!
//! Frequency-tuned saliency (Achanta and others, 2009: how far a smoothed pixel's colour is from the picture's mean) times the strength of
//! edges, on a small copy; the boxes of its largest connected parts. No faces are known to it: it suggests, a maker decides.

use image::RgbImage;
use image::imageops::{self, FilterType};
use imageproc::gradients::sobel_gradients;
use imageproc::region_labelling::{Connectivity, connected_components};
use palette::{IntoColor, Lab, Srgb};

/// The longer side of the copy that is looked at.
const SMALL: u32 = 128;
/// What stands out lies above the mean by so many standard deviations.
const ABOVE: f32 = 1.0;
/// A part counts from this share of the picture on, and up to this one: less is a crumb, more is the scene.
const SHARES: (f64, f64) = (0.004, 0.45);
/// So many are suggested at the most.
const MOST: usize = 3;
/// A part counts from this share of what the strongest one weighs.
const OF_STRONGEST: f64 = 0.25;
/// Room left around a part, in shares of the picture.
const ROUND: f64 = 0.02;

/// The areas that seem to matter, the strongest first: left, top, width and height in shares of the picture.
#[must_use]
pub fn matters(pixels: &RgbImage) -> Vec<[f64; 4]> {
    let scale = f64::from(SMALL) / f64::from(pixels.width().max(pixels.height()));
    let side = |n: u32| ((f64::from(n) * scale).round() as u32).max(8);
    let (w, h) = (side(pixels.width()), side(pixels.height()));
    let small = imageops::resize(pixels, w, h, FilterType::Triangle);
    let weight = weights(&small);
    let count = weight.len() as f32;
    let mean = weight.iter().sum::<f32>() / count;
    let spread = (weight.iter().map(|v| (v - mean).powi(2)).sum::<f32>() / count).sqrt();
    if spread <= f32::EPSILON {
        return Vec::new();
    }
    let bright = image::GrayImage::from_fn(w, h, |x, y| {
        image::Luma([u8::from(
            weight[(y * w + x) as usize] > mean + ABOVE * spread,
        )])
    });
    let parts = connected_components(&bright, Connectivity::Eight, image::Luma([0]));
    let mut found: Vec<(f64, [u32; 4], u32)> = Vec::new();
    for (x, y, label) in parts.enumerate_pixels() {
        let label = label.0[0] as usize;
        if label == 0 {
            continue;
        }
        if found.len() < label {
            found.resize(label, (0.0, [u32::MAX, u32::MAX, 0, 0], 0));
        }
        let (sum, [l, t, r, b], size) = &mut found[label - 1];
        *sum += f64::from(weight[(y * w + x) as usize]);
        (*l, *t, *r, *b) = ((*l).min(x), (*t).min(y), (*r).max(x + 1), (*b).max(y + 1));
        *size += 1;
    }
    let all = f64::from(w * h);
    found.retain(|(_, [l, t, r, b], size)| {
        let share = f64::from((r - l) * (b - t)) / all;
        f64::from(*size) / all >= SHARES.0 && share <= SHARES.1
    });
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    let strongest = found.first().map_or(0.0, |f| f.0);
    let strong = found.iter().filter(|f| f.0 >= OF_STRONGEST * strongest);
    strong
        .take(MOST)
        .map(|(_, b, _)| shares(*b, (w, h)))
        .collect()
}

/// How much each pixel stands out.
fn weights(small: &RgbImage) -> Vec<f32> {
    let smooth = imageops::blur(small, 1.5);
    let lab: Vec<Lab> = smooth
        .pixels()
        .map(|p| {
            Srgb::new(p[0], p[1], p[2])
                .into_format::<f32>()
                .into_color()
        })
        .collect();
    let count = lab.len() as f32;
    let mean = |of: fn(&Lab) -> f32| lab.iter().map(of).sum::<f32>() / count;
    let (l, a, b) = (mean(|c| c.l), mean(|c| c.a), mean(|c| c.b));
    let edges = imageops::blur(&gray_of(&sobel_gradients(&imageops::grayscale(small))), 3.0);
    lab.iter()
        .zip(edges.pixels())
        .map(|(c, edge)| {
            let off = ((c.l - l).powi(2) + (c.a - a).powi(2) + (c.b - b).powi(2)).sqrt();
            off * (0.2 + f32::from(edge[0]) / 255.0)
        })
        .collect()
}

/// Gradients as a picture of 8 bits.
fn gray_of(gradients: &image::ImageBuffer<image::Luma<u16>, Vec<u16>>) -> image::GrayImage {
    image::GrayImage::from_fn(gradients.width(), gradients.height(), |x, y| {
        image::Luma([(gradients.get_pixel(x, y)[0] / 3).min(255) as u8])
    })
}

fn shares([l, t, r, b]: [u32; 4], (w, h): (u32, u32)) -> [f64; 4] {
    let run = |from: u32, to: u32, full: u32| {
        let full = f64::from(full);
        let low = (f64::from(from) / full - ROUND).max(0.0);
        (low, (f64::from(to) / full + ROUND).min(1.0) - low)
    };
    let ((x, w), (y, h)) = (run(l, r, w), run(t, b, h));
    [x, y, w, h]
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::Rgb;

    #[test]
    fn what_stands_out_is_found_where_it_is() {
        // A striped red ball on pale sand.
        let picture = RgbImage::from_fn(600, 400, |x, y| {
            let (dx, dy) = (f64::from(x) - 420.0, f64::from(y) - 150.0);
            if dx.hypot(dy) < 60.0 {
                if (x / 12) % 2 == 0 {
                    Rgb([210, 40, 40])
                } else {
                    Rgb([250, 240, 220])
                }
            } else {
                Rgb([214, 200, 170])
            }
        });
        let found = matters(&picture);
        let [x, y, w, h] = found[0];
        assert!(x < 420.0 / 600.0 && 420.0 / 600.0 < x + w, "{found:?}");
        assert!(y < 150.0 / 400.0 && 150.0 / 400.0 < y + h, "{found:?}");
        assert!(w < 0.35 && h < 0.5, "{found:?}");
    }

    #[test]
    fn where_nothing_stands_out_nothing_is_suggested() {
        assert!(matters(&RgbImage::from_pixel(300, 200, Rgb([120, 130, 140]))).is_empty());
    }
}
