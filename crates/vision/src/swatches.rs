//! A page's main colours: its pixels gathered in OKLab, where near means alike to the eye (Ottosson 2020).

use image::RgbImage;
use palette::{FromColor, Oklab, Srgb};

/// A colour and its share of the area.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Swatch {
    /// Red, green, blue, 0 to 255.
    pub rgb: [u8; 3],
    /// Share of the area, 0 to 1.
    pub share: f64,
}

impl Swatch {
    /// As `#rrggbb`.
    #[must_use]
    pub fn hex(&self) -> String {
        let [r, g, b] = self.rgb;
        format!("#{r:02x}{g:02x}{b:02x}")
    }
}

/// Closer than this in OKLab is one colour to a maker choosing papers.
const ALIKE: f32 = 0.045;

fn far(a: &Oklab, b: &Oklab) -> f32 {
    (a.l - b.l).powi(2) + (a.a - b.a).powi(2) + (a.b - b.b).powi(2)
}

/// Up to `most` main colours, the largest first. The same pixels give the same colours.
#[must_use]
pub fn swatches(pixels: &RgbImage, most: usize) -> Vec<Swatch> {
    let step = ((f64::from(pixels.width()) * f64::from(pixels.height()) / 20_000.0)
        .sqrt()
        .ceil() as usize)
        .max(1);
    let mut points = Vec::new();
    for y in (0..pixels.height()).step_by(step) {
        for x in (0..pixels.width()).step_by(step) {
            let p = pixels.get_pixel(x, y);
            points.push(Oklab::from_color(
                Srgb::new(p[0], p[1], p[2]).into_format::<f32>(),
            ));
        }
    }
    if points.is_empty() || most == 0 {
        return Vec::new();
    }
    // Seeds by farthest point, then Lloyd's rounds.
    let mut middles = vec![points[points.len() / 2]];
    while middles.len() < most + 4 {
        let nearest = |p: &Oklab| {
            middles
                .iter()
                .map(|m| far(p, m))
                .fold(f32::INFINITY, f32::min)
        };
        let Some(next) = points
            .iter()
            .max_by(|a, b| nearest(a).total_cmp(&nearest(b)))
            .copied()
        else {
            break;
        };
        if nearest(&next) < ALIKE * ALIKE {
            break;
        }
        middles.push(next);
    }
    let mut counts = vec![0_usize; middles.len()];
    for _ in 0..12 {
        let mut sums = vec![(0.0_f32, 0.0_f32, 0.0_f32, 0_usize); middles.len()];
        for p in &points {
            let k = (0..middles.len())
                .min_by(|&a, &b| far(p, &middles[a]).total_cmp(&far(p, &middles[b])))
                .unwrap_or(0);
            let s = &mut sums[k];
            *s = (s.0 + p.l, s.1 + p.a, s.2 + p.b, s.3 + 1);
        }
        for (k, s) in sums.iter().enumerate() {
            counts[k] = s.3;
            if s.3 > 0 {
                let n = s.3 as f32;
                middles[k] = Oklab::new(s.0 / n, s.1 / n, s.2 / n);
            }
        }
    }
    gathered(middles, counts, points.len(), most)
}

/// Joins middles that look alike, and keeps the largest.
fn gathered(middles: Vec<Oklab>, counts: Vec<usize>, all: usize, most: usize) -> Vec<Swatch> {
    let mut order: Vec<usize> = (0..middles.len()).filter(|&k| counts[k] > 0).collect();
    order.sort_by(|a, b| counts[*b].cmp(&counts[*a]));
    let mut kept: Vec<(Oklab, usize)> = Vec::new();
    for k in order {
        match kept
            .iter_mut()
            .find(|(m, _)| far(m, &middles[k]) < ALIKE * ALIKE)
        {
            Some((_, n)) => *n += counts[k],
            None => kept.push((middles[k], counts[k])),
        }
    }
    kept.sort_by_key(|k| std::cmp::Reverse(k.1));
    let swatch = |(m, n): (Oklab, usize)| {
        let rgb: Srgb<u8> = Srgb::from_color(m).into_format();
        Swatch {
            rgb: [rgb.red, rgb.green, rgb.blue],
            share: n as f64 / all as f64,
        }
    };
    kept.into_iter().take(most).map(swatch).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::Rgb;

    fn stripes(colours: &[([u8; 3], u32)]) -> RgbImage {
        let wide: u32 = colours.iter().map(|c| c.1).sum();
        RgbImage::from_fn(wide, 40, |x, _| {
            let mut from = 0;
            let colour = colours.iter().find(|(_, w)| {
                from += w;
                x < from
            });
            Rgb(colour.unwrap_or(&colours[0]).0)
        })
    }

    #[test]
    fn colours_come_largest_first_with_their_shares() {
        let found = swatches(
            &stripes(&[
                ([200, 40, 40], 20),
                ([30, 60, 160], 60),
                ([240, 235, 220], 40),
            ]),
            5,
        );
        let names: Vec<String> = found.iter().map(Swatch::hex).collect();
        assert_eq!(names, ["#1e3ca0", "#f0ebdc", "#c82828"]);
        for (swatch, share) in found.iter().zip([0.5, 1.0 / 3.0, 1.0 / 6.0]) {
            assert!((swatch.share - share).abs() < 0.01, "{found:?}");
        }
    }

    #[test]
    fn what_looks_alike_is_one_colour() {
        let found = swatches(
            &stripes(&[
                ([120, 120, 120], 30),
                ([124, 122, 121], 30),
                ([20, 90, 40], 20),
            ]),
            5,
        );
        assert_eq!(found.len(), 2, "{found:?}");
        assert!((found[0].share - 0.75).abs() < 0.01);
    }

    #[test]
    fn no_more_than_asked_for_and_none_of_nothing() {
        let many = stripes(&[
            ([255, 0, 0], 10),
            ([0, 255, 0], 10),
            ([0, 0, 255], 10),
            ([0, 0, 0], 10),
        ]);
        assert_eq!(swatches(&many, 2).len(), 2);
        assert!(swatches(&many, 0).is_empty());
        assert!(swatches(&RgbImage::new(0, 0), 3).is_empty());
    }
}
