//! What each place of a picture shows, as a network sees it: which kind of thing, and where one ends and another begins.

use crate::network::{Map, Network};
use image::RgbImage;
use image::imageops::FilterType;
use std::sync::LazyLock;

static NETWORK: LazyLock<Network> =
    LazyLock::new(|| Network::new(include_bytes!("../weights/sketch.safetensors")));

/// Pixels a side of what the network sees.
pub(crate) const SEEN: u32 = 320;
/// What a place can show; the numbers are the network's own.
pub(crate) const OUTSIDE: usize = 0;
pub(crate) const PAGE: usize = 1;
pub(crate) const PHOTO: usize = 2;
pub(crate) const MAT: usize = 3;
pub(crate) const PAPER: usize = 4;
pub(crate) const TITLE: usize = 5;
pub(crate) const WRITING: usize = 6;
pub(crate) const CLUSTER: usize = 7;
pub(crate) const ACCENT: usize = 8;
const CLASSES: usize = 9;

/// How likely each place of a square grid shows each class, and an edge.
#[derive(Debug, Clone)]
pub(crate) struct Marks {
    /// Places a side.
    pub(crate) side: usize,
    /// A channel for each class, then the edges: 0 to 1.
    likely: Map,
}

impl Marks {
    /// Of a picture, squeezed to a square.
    pub(crate) fn of(picture: &RgbImage) -> Marks {
        let seen = image::imageops::resize(picture, SEEN, SEEN, FilterType::Triangle);
        let mut map = Map::new(SEEN as usize, SEEN as usize, 3);
        let count = (SEEN * SEEN) as usize;
        for (n, pixel) in seen.pixels().enumerate() {
            for c in 0..3 {
                map.data[c * count + n] = f32::from(pixel.0[c]) / 255.0;
            }
        }
        let mut likely = NETWORK.run(&map);
        squash(&mut likely);
        Marks {
            side: likely.w,
            likely,
        }
    }

    /// How likely the place at a share of the picture's width and height shows a class.
    pub(crate) fn likely(&self, class: usize, n: usize) -> f64 {
        f64::from(self.likely.channel(class)[n])
    }

    /// How likely an edge runs within a place of another.
    pub(crate) fn edge(&self, n: usize) -> f64 {
        f64::from(self.likely.channel(CLASSES)[n])
    }

    /// The number of the place at shares of the picture's width and height; nothing outside.
    pub(crate) fn place(&self, u: f64, v: f64) -> Option<usize> {
        let side = self.side as f64;
        let (x, y) = ((u * side).floor(), (v * side).floor());
        let inside = x >= 0.0 && y >= 0.0 && x < side && y < side;
        inside.then_some(y as usize * self.side + x as usize)
    }

    /// The likeliest class of each place.
    pub(crate) fn classes(&self) -> Vec<u8> {
        let best = |n: usize| {
            let by = |a: &usize, b: &usize| self.likely(*a, n).total_cmp(&self.likely(*b, n));
            (0..CLASSES).max_by(by).unwrap_or(OUTSIDE) as u8
        };
        (0..self.side * self.side).map(best).collect()
    }
}

/// Classes to shares of 1 by place (softmax), edges to 0 to 1 (logistic).
fn squash(map: &mut Map) {
    let count = map.w * map.h;
    for n in 0..count {
        let at = |c: usize| c * count + n;
        let most = (0..CLASSES)
            .map(|c| map.data[at(c)])
            .fold(f32::NEG_INFINITY, f32::max);
        let mut sum = 0.0;
        for c in 0..CLASSES {
            map.data[at(c)] = (map.data[at(c)] - most).exp();
            sum += map.data[at(c)];
        }
        (0..CLASSES).for_each(|c| map.data[at(c)] /= sum);
        map.data[at(CLASSES)] = 1.0 / (1.0 + (-map.data[at(CLASSES)]).exp());
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The share of places that show what was drawn there.
    fn agreement(number: u64) -> f64 {
        let drawn = metrosk_drawn::sample(number, metrosk_drawn::Set::Tuning);
        let marks = Marks::of(&drawn.picture);
        let side = marks.side as u32;
        let truth = image::imageops::resize(&drawn.marks, side, side, FilterType::Nearest);
        let classes = marks.classes();
        let same = truth.pixels().zip(&classes).filter(|(t, c)| t.0[0] == **c);
        same.count() as f64 / classes.len() as f64
    }

    #[test]
    fn most_places_show_what_was_drawn_there() {
        // None of these numbers was among those it was trained with.
        for number in [3, 11, 42, 77] {
            let share = agreement(number);
            assert!(share > 0.75, "{share:.2} of picture {number}");
        }
    }

    #[test]
    fn likelihoods_are_shares_of_one() {
        let marks = Marks::of(&RgbImage::from_pixel(90, 70, image::Rgb([250, 250, 248])));
        for n in (0..marks.side * marks.side).step_by(97) {
            let sum: f64 = (0..CLASSES).map(|c| marks.likely(c, n)).sum();
            assert!((sum - 1.0).abs() < 1e-4, "{sum}");
            assert!((0.0..=1.0).contains(&marks.edge(n)));
        }
        assert_eq!(marks.place(0.5, 1.2), None);
    }
}
