//! Washes: tones without an outline, as far as they show between what lies on them.

use crate::panels::Panel;
use crate::plane::{Mask, Part, Plane, quantile};
use crate::rounds::Round;
use crate::sheet::{RIM, Sheet};
use crate::trace::Wedge;
use crate::writing::Extent;

/// By so much (a share of white) one of its colours is off the bare page's.
const TONED: f32 = 0.03;
/// Parts whose colours are this near are one wash.
const ALIKE: f32 = 0.045;
/// Shadows and soft rims are narrower than twice this.
const RIMS: usize = 5;
/// The least a wash shows, as a share of the page.
const LEAST: f64 = 0.012;
/// Where neighbouring pixels differ by more than this, the picture is a photograph or a scan: its light and paper make tones of their own.
const NOISE: f32 = 1.2;

/// Parts looked at, the largest: more are a texture.
const MOST_PARTS: usize = 80;
/// The share of a drawn picture that is as bare as its barest, at the least: light and shade leave a photograph less.
const PLAIN: f64 = 0.15;

/// What lies over a wash, or is no wash.
pub(crate) struct Known<'a> {
    pub(crate) panels: &'a [Panel],
    pub(crate) rounds: &'a [Round],
    pub(crate) wedges: &'a [Wedge],
    pub(crate) clusters: &'a [Extent],
    pub(crate) tags: &'a [Vec<[f64; 2]>],
}

impl Known<'_> {
    /// The pixels that lie under what is known, or at its edge. Each thing is asked only about the pixels round it that nothing covers yet:
    /// a texture has hundreds of things on top of each other.
    fn covered(&self, w: usize, h: usize) -> Mask {
        let mut covered = Mask {
            w,
            h,
            data: vec![false; w * h],
        };
        for panel in self.panels {
            paint(&mut covered, &panel.extent().grown(6.0), |p| {
                panel.depth(p) > -5.0
            });
        }
        for cluster in self.clusters {
            paint(&mut covered, &cluster.grown(6.0), |_| true);
        }
        for wedge in self.wedges {
            paint(&mut covered, &wedge.extent.grown(6.0), |p| {
                wedge.depth(p) > -5.0
            });
        }
        for round in self.rounds {
            let (rx, ry) = (round.rx + 4.0, round.ry + 4.0);
            paint(&mut covered, &round.extent().grown(5.0), |p| {
                let (x, y) = ((p[0] - round.middle[0]) / rx, (p[1] - round.middle[1]) / ry);
                x * x + y * y < 1.0
            });
        }
        for tag in self.tags {
            paint(&mut covered, &around(tag).grown(4.0), |_| true);
        }
        covered
    }
}

fn paint(covered: &mut Mask, extent: &Extent, holds: impl Fn([f64; 2]) -> bool) {
    let until = |v: f64, most: usize| (v.max(0.0).ceil() as usize + 1).min(most);
    let (x1, y1) = (until(extent.x1, covered.w), until(extent.y1, covered.h));
    for y in extent.y0.max(0.0) as usize..y1 {
        for x in extent.x0.max(0.0) as usize..x1 {
            let at = y * covered.w + x;
            covered.data[at] = covered.data[at] || holds([x as f64, y as f64]);
        }
    }
}

fn around(points: &[[f64; 2]]) -> Extent {
    let none = Extent {
        x0: f64::INFINITY,
        y0: f64::INFINITY,
        x1: f64::NEG_INFINITY,
        y1: f64::NEG_INFINITY,
    };
    points.iter().fold(none, |e, p| Extent {
        x0: e.x0.min(p[0]),
        y0: e.y0.min(p[1]),
        x1: e.x1.max(p[0]),
        y1: e.y1.max(p[1]),
    })
}

/// The extents of the washes of a picture that is drawn, not photographed.
pub(crate) fn find(sheet: &Sheet, known: &Known<'_>) -> Vec<Extent> {
    let bare = [0, 1, 2].map(|k| sheet.colours[k].quantile(0.9, 11));
    if grain(&sheet.gray) > NOISE || plain(sheet, bare) < PLAIN {
        return Vec::new();
    }
    let (w, h) = (sheet.gray.w, sheet.gray.h);
    let none = || Mask {
        w,
        h,
        data: vec![false; w * h],
    };
    let (mut toned, mut blank) = (none(), none());
    let covered = known.covered(w, h);
    let rim = RIM + 8;
    for y in rim..h - rim {
        for x in rim..w - rim {
            let off = (0..3)
                .map(|k| (sheet.colours[k].at(x, y) - bare[k]).abs())
                .fold(0.0, f32::max);
            if sheet.gray.at(x, y) > 0.55 * bare[1] && !covered.at(x, y) {
                let which = if off > TONED * 255.0 {
                    &mut toned
                } else {
                    &mut blank
                };
                which.data[y * w + x] = true;
            }
        }
    }
    let solid = toned.not().grown(RIMS).not();
    let parts = solid.connected_components(false);
    let mut washes: Vec<([f32; 3], Extent, usize)> = Vec::new();
    let mut largest: Vec<(u32, Part)> = parts.each().filter(|(_, p)| p.area >= 300).collect();
    largest.sort_by_key(|(label, p)| (std::cmp::Reverse(p.area), *label));
    for (label, part) in largest.into_iter().take(MOST_PARTS) {
        let pixels: Vec<(usize, usize)> = parts
            .pixels(label)
            .step_by((part.area / 4_000).max(1))
            .collect();
        let colour = [0, 1, 2].map(|k| {
            quantile(
                &mut pixels
                    .iter()
                    .map(|&(x, y)| sheet.colours[k].at(x, y) / 255.0)
                    .collect::<Vec<_>>(),
                0.5,
            )
        });
        let extent = Extent::of(&part).grown(RIMS as f64);
        if is_outlined(sheet, &part, &pixels, &toned, &blank) {
            continue;
        }
        match washes
            .iter_mut()
            .find(|w| (0..3).all(|k| (w.0[k] - colour[k]).abs() < ALIKE))
        {
            Some(known) => {
                known.1 = known.1.with(&extent);
                known.2 += part.area;
            }
            None => washes.push((colour, extent, part.area)),
        }
    }
    let page = sheet.w() * sheet.page_h;
    let large =
        |w: &&([f32; 3], Extent, usize)| w.2 as f64 > LEAST * page && w.1.w().min(w.1.h()) > 90.0;
    washes.iter().filter(large).map(|w| w.1).collect()
}

/// The share of the sheet that has the bare page's very colour.
fn plain(sheet: &Sheet, bare: [f32; 3]) -> f64 {
    let n = sheet.gray.data.len();
    let same = |i: &usize| (0..3).all(|k| (sheet.colours[k].data[*i] - bare[k]).abs() < 2.5);
    (0..n).step_by(5).filter(same).count() as f64 / n.div_ceil(5) as f64
}

/// How much neighbouring pixels differ, by the median.
fn grain(gray: &Plane) -> f32 {
    let mut steps: Vec<f32> = gray
        .data
        .windows(2)
        .step_by(7)
        .filter(|w| w[0] > 100.0 && w[1] > 100.0)
        .map(|w| (w[0] - w[1]).abs())
        .filter(|d| *d < 20.0)
        .collect();
    quantile(&mut steps, 0.6)
}

/// Whether a dark line runs where the tone meets what is bare.
fn is_outlined(
    sheet: &Sheet,
    part: &Part,
    pixels: &[(usize, usize)],
    toned: &Mask,
    blank: &Mask,
) -> bool {
    let gray = &sheet.gray;
    let tone = quantile(
        &mut pixels
            .iter()
            .map(|&(x, y)| gray.at(x, y))
            .collect::<Vec<_>>(),
        0.5,
    );
    let (mut dark, mut all) = (0, 0);
    for y in part.y0.saturating_sub(RIMS)..=part.y1 + RIMS {
        for x in part.x0.saturating_sub(RIMS)..=part.x1 + RIMS {
            if (x + y) % 3 != 0 || !toned.get(x as i32, y as i32) {
                continue;
            }
            for (dx, dy) in [(-1_i32, 0), (1, 0), (0, -1_i32), (0, 1)] {
                let at = |d: i32| (x as i32 + dx * d, y as i32 + dy * d);
                let meets =
                    !toned.get(at(1).0, at(1).1) && (9..=11).all(|d| blank.get(at(d).0, at(d).1));
                if !meets {
                    continue;
                }
                let line = (0..=8)
                    .map(|d| gray.sample_bilinear(at(d).0 as f32, at(d).1 as f32))
                    .fold(f32::INFINITY, f32::min);
                all += 1;
                dark += usize::from(line < 0.88 * tone);
            }
        }
    }
    dark * 100 > all * 40
}
