//! A paper's pattern out of its picture: its colours, how large one motif is, which way it runs, how busy it is. Suggestions, for her to
//! correct.

use crate::swatches::{Swatch, swatches};
use image::RgbImage;
use image::imageops::FilterType;

/// Pixels along the longer side in which the pattern is looked for.
const SIDE: u32 = 128;
/// How many colours are told.
const COLOURS: usize = 6;
/// The pattern comes again where it agrees with itself this well, of 1.
const COMES_AGAIN: f64 = 0.35;
/// Half a turn shows where the pattern agrees with itself turned less well than this.
const SAME_TURNED: f64 = 0.72;
/// A pattern runs one way where its lightness changes so much less along it than across.
const RUNS: f64 = 0.12;
/// Lightness that changes less than this all over, of 1, is plain.
const PLAIN: f64 = 0.012;

/// Which way a pattern runs.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Runs {
    /// The same however it is turned, or nothing is seen of a way.
    AnyWay,
    /// Stripes from left to right.
    Across,
    /// Stripes from top to bottom.
    Down,
    /// There is one way up.
    Up,
}

impl Runs {
    /// Its name in documents: `any`, `across`, `down`, `up`.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Runs::AnyWay => "any",
            Runs::Across => "across",
            Runs::Down => "down",
            Runs::Up => "up",
        }
    }
}

/// What a paper's picture tells of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Pattern {
    /// Its colours, most first.
    pub colours: Vec<Swatch>,
    /// How wide one motif is, as a share of the picture's longer side; none where it is plain or never comes again.
    pub motif: Option<f64>,
    /// How much is going on in it, 0 to 1.
    pub busy: f64,
    /// Which way it runs.
    pub runs: Runs,
}

/// What a paper's picture tells of it.
#[must_use]
pub fn pattern(pixels: &RgbImage) -> Pattern {
    let lightness = Lightness::of(pixels);
    let spread = lightness.spread();
    let colours = swatches(pixels, COLOURS);
    if spread < PLAIN {
        return Pattern {
            colours,
            motif: None,
            busy: 0.0,
            runs: Runs::AnyWay,
        };
    }
    let (across, down) = lightness.changes();
    let is_striped = |along: f64, over: f64| along < over * RUNS;
    let periods = [lightness.period(true), lightness.period(false)];
    let runs = if is_striped(across, down) {
        Runs::Across
    } else if is_striped(down, across) {
        Runs::Down
    } else if periods.iter().flatten().next().is_some() && lightness.agrees_turned() < SAME_TURNED {
        Runs::Up
    } else {
        Runs::AnyWay
    };
    let shortest = periods.into_iter().flatten().min();
    Pattern {
        colours,
        motif: shortest.map(|p| p as f64 / f64::from(SIDE)),
        busy: lightness.busy(),
        runs,
    }
}

/// How much of a picture there is, place by place: how far each differs from the ground that most of it has, and from its neighbours. How many
/// places lie side by side, and each's share, 0 to 1, row by row.
#[must_use]
pub fn detail(pixels: &RgbImage) -> (usize, Vec<f64>) {
    let lightness = Lightness::of(pixels);
    let mut sorted = lightness.at.clone();
    sorted.sort_by(f64::total_cmp);
    let ground = sorted[sorted.len() / 2];
    let (w, h) = (lightness.w, lightness.h);
    let place = |n: usize| {
        let (x, y) = (n % w, n / w);
        let here = lightness.get(x, y);
        let across = (lightness.get((x + 1) % w, y) - here).abs();
        let down = (lightness.get(x, (y + 1) % h) - here).abs();
        ((here - ground).abs() + across + down).min(1.0)
    };
    (w, (0..w * h).map(place).collect())
}

/// A small picture's lightness, 0 to 1.
struct Lightness {
    w: usize,
    h: usize,
    at: Vec<f64>,
}

impl Lightness {
    fn of(pixels: &RgbImage) -> Lightness {
        let longer = pixels.width().max(pixels.height()).max(1);
        let side = |n: u32| (n * SIDE / longer).max(8);
        let (w, h) = (side(pixels.width()), side(pixels.height()));
        let small = image::imageops::resize(pixels, w, h, FilterType::Triangle);
        let gray = image::imageops::grayscale(&small);
        Lightness {
            w: w as usize,
            h: h as usize,
            at: gray.pixels().map(|p| f64::from(p[0]) / 255.0).collect(),
        }
    }

    fn get(&self, x: usize, y: usize) -> f64 {
        self.at[y * self.w + x]
    }

    fn mean(&self) -> f64 {
        self.at.iter().sum::<f64>() / self.at.len() as f64
    }

    fn spread(&self) -> f64 {
        let mean = self.mean();
        let squares: f64 = self.at.iter().map(|v| (v - mean).powi(2)).sum();
        (squares / self.at.len() as f64).sqrt()
    }

    /// How much neighbours differ: from left to right, and from top to bottom.
    fn changes(&self) -> (f64, f64) {
        let (mut across, mut down) = (0.0, 0.0);
        for y in 0..self.h - 1 {
            for x in 0..self.w - 1 {
                let here = self.get(x, y);
                across += (self.get(x + 1, y) - here).abs();
                down += (self.get(x, y + 1) - here).abs();
            }
        }
        let count = ((self.w - 1) * (self.h - 1)) as f64;
        (across / count, down / count)
    }

    /// Contrast and edges together: fine, strong patterns are busy, a soft wash is not.
    fn busy(&self) -> f64 {
        let (across, down) = self.changes();
        let edges = (across + down) / 0.12;
        let contrast = self.spread() / 0.28;
        (0.6 * edges + 0.4 * contrast).clamp(0.0, 1.0)
    }

    /// After how many pixels the pattern comes again, across or down: the first distance at which it agrees with itself better than before
    /// and after it, once it has stopped agreeing.
    fn period(&self, across: bool) -> Option<usize> {
        let length = if across { self.w } else { self.h };
        let agreement: Vec<f64> = (0..length * 2 / 3)
            .map(|lag| self.agrees(lag, across))
            .collect();
        let best = agreement
            .iter()
            .enumerate()
            .skip_while(|(_, a)| **a > COMES_AGAIN)
            .map(|(_, a)| *a)
            .fold(COMES_AGAIN, f64::max);
        let dip = agreement.iter().position(|a| *a < COMES_AGAIN)?;
        let is_top = |n: &usize| {
            let here = agreement[*n];
            here >= agreement[n - 1] && agreement.get(n + 1).is_none_or(|next| here >= *next)
        };
        (dip.max(1)..agreement.len())
            .filter(is_top)
            .find(|n| agreement[*n] > COMES_AGAIN && agreement[*n] >= best * 0.85)
    }

    /// How well the pattern agrees with itself moved by some pixels: 1 is the same, 0 is chance.
    fn agrees(&self, lag: usize, across: bool) -> f64 {
        let mean = self.mean();
        let (dx, dy) = if across { (lag, 0) } else { (0, lag) };
        let (mut product, mut own, mut moved) = (0.0, 0.0, 0.0);
        for y in 0..self.h - dy {
            for x in 0..self.w - dx {
                let (a, b) = (self.get(x, y) - mean, self.get(x + dx, y + dy) - mean);
                product += a * b;
                own += a * a;
                moved += b * b;
            }
        }
        product / (own * moved).sqrt().max(1e-9)
    }

    /// How well the pattern agrees with itself turned by half a turn, wherever it is laid.
    fn agrees_turned(&self) -> f64 {
        const STEP: usize = 2;
        let mean = self.mean();
        let (w, h) = (self.w / STEP, self.h / STEP);
        let at = |x: usize, y: usize| self.get(x * STEP, y * STEP) - mean;
        let all: f64 = (0..w * h).map(|n| at(n % w, n / w).powi(2)).sum();
        let with = |dx: usize, dy: usize| {
            let pairs = (0..w * h).map(|n| {
                let (x, y) = (n % w, n / w);
                at(x, y) * at((2 * w - 1 - x - dx) % w, (2 * h - 1 - y - dy) % h)
            });
            pairs.sum::<f64>() / all.max(1e-9)
        };
        (0..w * h)
            .map(|n| with(n % w, n / w))
            .fold(f64::MIN, f64::max)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::Rgb;

    fn drawn(draw: impl Fn(u32, u32) -> bool) -> Pattern {
        let navy = Rgb([38, 60, 110]);
        let cream = Rgb([246, 240, 222]);
        pattern(&RgbImage::from_fn(480, 480, |x, y| {
            if draw(x, y) { navy } else { cream }
        }))
    }

    #[test]
    fn plain_paper_has_no_motif_and_nothing_going_on() {
        let plain = drawn(|_, _| false);
        assert_eq!(
            (plain.motif, plain.busy, plain.runs),
            (None, 0.0, Runs::AnyWay)
        );
        assert_eq!(plain.colours.len(), 1);
    }

    #[test]
    fn stripes_run_their_way_and_dots_any() {
        let down = drawn(|x, _| x % 40 < 18);
        assert_eq!(down.runs, Runs::Down);
        assert!(
            (down.motif.unwrap() - 40.0 / 480.0).abs() < 0.012,
            "{down:?}"
        );
        assert_eq!(drawn(|_, y| y % 40 < 18).runs, Runs::Across);
        let dot = |x: u32, y: u32| {
            let off = |v: u32| f64::from(v % 60) - 30.0;
            off(x).hypot(off(y)) < 16.0
        };
        let dots = drawn(dot);
        assert_eq!(dots.runs, Runs::AnyWay);
        assert!(
            (dots.motif.unwrap() - 60.0 / 480.0).abs() < 0.012,
            "{dots:?}"
        );
        assert_eq!(dots.colours.len(), 2);
    }

    #[test]
    fn kites_with_tails_have_one_way_up() {
        let kite = |x: u32, y: u32| {
            let (x, y) = (f64::from(x % 80) - 40.0, f64::from(y % 80));
            // A triangle that points up, on the upper half of its place.
            y > 10.0 && y < 50.0 && x.abs() < (y - 10.0) * 0.8
        };
        assert_eq!(drawn(kite).runs, Runs::Up);
    }

    #[test]
    fn small_strong_patterns_are_busier_than_large_soft_ones() {
        let fine = drawn(|x, y| (x / 10 + y / 10) % 2 == 0);
        let large = drawn(|x, y| (x / 120 + y / 120) % 2 == 0);
        assert!(fine.busy > large.busy, "{} {}", fine.busy, large.busy);
    }
}
