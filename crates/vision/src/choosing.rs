//! Which of the pages that were found by rules and by the network is meant.

use crate::marks::{Marks, OUTSIDE};
use crate::page::Found;
use crate::plane::{Mask, Plane};
use crate::quad::{self, Quad};
use image::RgbImage;

/// What rules find is taken, edges and all, where it and what the network sees share this much of both.
const AGREE: f64 = 0.85;
/// Its own quad must fit what it sees better by so much: its edges are rough.
const BETTER: f64 = 0.06;
/// An outline within what the network sees is the page's own when it takes in so much of it; a paper on the page takes in less.
const OUTLINED: f64 = 0.7;
/// How far outside a corner may lie and be within, as a share of the picture.
const SLACK: f64 = 0.015;
/// What the network sees is a page when it fills so much of the quad round it, and so much of the picture.
const FILLED: f64 = 0.88;
const LARGE: f64 = 0.06;
/// Parts smaller than this share of the largest are no page.
const PART: f64 = 0.3;

/// The page that rules found, or the one that the network sees where both differ and the network's is a page by its shape.
pub(crate) fn chosen(picture: &RgbImage, gray: &Plane, found: Found, pages: u32) -> Found {
    let marks = Marks::of(picture);
    let Some(seen) = Sighting::of(&marks, pages) else {
        return found;
    };
    let (w, h) = (f64::from(picture.width()), f64::from(picture.height()));
    let by_rules = seen.shared(&found.quads[0].map(|p| [p[0] / w, p[1] / h]));
    if by_rules >= AGREE || by_rules + BETTER >= seen.shared(&seen.quad) {
        return found;
    }
    // An outline drawn on squared paper or on a sheet: the network may take all of the paper for the page.
    if found.outlined && by_rules >= OUTLINED && lies_within(&found.quads[0], &seen.quad, (w, h)) {
        return found;
    }
    let rough = seen.quad.map(|p| [p[0] * w, p[1] * h]);
    // The network tells a page's edge to a place of its grid.
    let reach = w.max(h) / marks.side as f64 * 1.6;
    let quad = quad::drawn_to_edges(gray, &rough, reach);
    if !quad::is_page(&quad, picture.width(), picture.height()) {
        return found;
    }
    let askew = (0..4).any(|n| {
        let (a, b) = (quad[n], quad[(n + 1) % 4]);
        (a[0] - b[0]).abs().min((a[1] - b[1]).abs()) > 0.012 * w.max(h)
    });
    Found {
        quads: vec![quad],
        photographed: found.photographed || askew,
        outlined: found.outlined,
    }
}

/// Whether a quad, in pixels, lies within another, in shares of the picture.
fn lies_within(inner: &Quad, outer: &Quad, (w, h): (f64, f64)) -> bool {
    let middle = |k: usize| outer.iter().map(|p| p[k]).sum::<f64>() / 4.0;
    let grown = outer.map(|p| {
        let off = [p[0] - middle(0), p[1] - middle(1)];
        [0, 1].map(|k| p[k] + SLACK * off[k].signum())
    });
    inner
        .iter()
        .all(|p| quad::holds(&grown, [p[0] / w, p[1] / h]))
}

/// A page as the network sees it, in shares of the picture's width and height.
struct Sighting {
    mask: Mask,
    quad: Quad,
}

impl Sighting {
    fn of(marks: &Marks, pages: u32) -> Option<Sighting> {
        let side = marks.side;
        let inside = marks.classes();
        let mut plane = Plane::new(side, side);
        for (to, class) in plane.data.iter_mut().zip(&inside) {
            *to = f32::from(u8::from(usize::from(*class) != OUTSIDE));
        }
        // Single places are noise, and so are cracks.
        let even = plane.largest(1).smallest(1).smallest(1).largest(1);
        let all = Mask::of(&even, |v| v > 0.5);
        let parts = all.connected_components(false);
        let largest = parts.each().map(|(_, p)| p.area).max()? as f64;
        let kept: Vec<u32> = parts
            .each()
            .filter(|(_, p)| p.area as f64 > PART * largest)
            .map(|(label, _)| label)
            .take(pages as usize)
            .collect();
        let mut mask = all.clone();
        for y in 0..side {
            for x in 0..side {
                mask.data[y * side + x] &= kept.contains(&parts.label(x, y));
            }
        }
        let quad = quad::corners_round(&mask)?.map(|p| p.map(|v| (v + 0.5) / side as f64));
        let sighting = Sighting { mask, quad };
        let area = quad::area(&sighting.quad);
        let is_page = area > LARGE && sighting.shared(&sighting.quad) > FILLED;
        is_page.then_some(sighting)
    }

    /// The area that a quad and the mask share, over the area of both together.
    fn shared(&self, quad: &Quad) -> f64 {
        let (w, h) = (self.mask.w, self.mask.h);
        let (mut both, mut any) = (0usize, 0usize);
        for y in 0..h {
            for x in 0..w {
                let place = [(x as f64 + 0.5) / w as f64, (y as f64 + 0.5) / h as f64];
                let (a, b) = (self.mask.at(x, y), quad::holds(quad, place));
                both += usize::from(a && b);
                any += usize::from(a || b);
            }
        }
        both as f64 / any.max(1) as f64
    }
}
