//! A title along an arc: a line as long as the arc, bent so that each letter stands upright on it.
//!
//! With the rise s, the letters' height h and the space's width W, half the arc's angle a is where (s / (1 - cos a) + h) sin a = W / 2: the
//! outermost upper corners touch the sides. Letters stand by their share of the arc's length.

use super::manner::Manner;
use super::mixing::narrowest;
use super::placing::Proposal;
use super::request::{Align, Lines, Words};
use crate::geometry::Size;
use crate::length::{Length, Unit};
use std::f64::consts::FRAC_PI_2;

/// An arc that rises less looks like a mistake; one that rises more than this share of its width, like a wheel.
const LEAST_RISE: f64 = Length::inches(1, 4).ticks() as f64;
const MOST_RISE: f64 = 0.25;
/// A letter is flat on its arc, so the outermost stands out a little: the arc is made smaller by this share until all is within.
const SMALLER: f64 = 0.97;
const MOST_TRIES: usize = 12;

/// Each set on the highest arc that it has room for.
pub(super) fn on_arcs(words: &Words) -> Vec<Proposal> {
    words
        .sets
        .iter()
        .filter_map(|set| {
            let alone = Words {
                align: Align::Centre,
                lines: Lines::Count(1),
                ..words.alone_in(set)
            };
            let said = set.case.of(&words.text);
            let of_text = || {
                said.chars()
                    .filter_map(|c| set.letters.get(&c))
                    .map(|l| l.glyph)
            };
            let above = of_text().map(|g| g.h).max()?.ticks() as f64;
            let below = of_text().map(|g| g.below).max()?.ticks() as f64;
            let (w, h) = (words.space.w.ticks() as f64, words.space.h.ticks() as f64);
            let words_at_least: Option<i64> = narrowest(words, set).into_iter().sum();
            let words_at_least = words_at_least? as f64;
            let rise = (h - above - below).min(w * MOST_RISE);
            (0..MOST_TRIES)
                .map(|n| SMALLER.powi(n as i32))
                .filter_map(|share| Arc::of(rise * share, above, w * share))
                .filter(|arc| words_at_least <= arc.length())
                .find_map(|arc| arc.set(&alone))
        })
        .collect()
}

/// An arc, its middle on top. In ticks and radians.
struct Arc {
    rise: f64,
    radius: f64,
    half_angle: f64,
}

impl Arc {
    fn of(rise: f64, above: f64, wide: f64) -> Option<Arc> {
        if rise < LEAST_RISE {
            return None;
        }
        let over = |a: f64| (rise / (1.0 - a.cos()) + above) * a.sin() - wide / 2.0;
        let (mut flat, mut steep) = (1e-4, FRAC_PI_2);
        if over(steep) > 0.0 {
            return None;
        }
        for _ in 0..60 {
            let middle = f64::midpoint(flat, steep);
            if over(middle) > 0.0 {
                flat = middle
            } else {
                steep = middle
            }
        }
        Some(Arc {
            rise,
            radius: rise / (1.0 - steep.cos()),
            half_angle: steep,
        })
    }

    fn length(&self) -> f64 {
        2.0 * self.radius * self.half_angle
    }

    /// The text on this arc; none where it doesn't go, or sticks out of its space.
    fn set(&self, words: &Words) -> Option<Proposal> {
        let line = Words {
            space: Size {
                w: Length::from_ticks(self.length().floor() as i64),
                h: words.space.h,
            },
            ..words.clone()
        };
        let mut found = line.best(1).pop()?;
        let placed = &mut found.lines[0];
        let (wide, high) = (words.space.w.ticks() as f64, words.space.h.ticks() as f64);
        let baseline = placed.baseline.ticks() as f64;
        for letter in placed.words.iter_mut().flatten() {
            let (x, y) = letter.middle();
            let angle = (x - self.length() / 2.0) / self.radius;
            let out = self.radius + baseline - y;
            letter.stand_at(
                (
                    wide / 2.0 + out * angle.sin(),
                    self.radius - out * angle.cos(),
                ),
                angle.to_degrees(),
            );
        }
        let corners = || found.letters().flat_map(|l| l.corners());
        let top = corners().map(|c| c.1).fold(f64::INFINITY, f64::min);
        let bottom = corners().map(|c| c.1).fold(f64::NEG_INFINITY, f64::max);
        let is_within = bottom - top <= high && corners().all(|c| (0.0..=wide).contains(&c.0));
        if !is_within {
            return None;
        }
        let down = ((high - (bottom - top)) / 2.0 - top).round() as i64;
        for letter in found
            .lines
            .iter_mut()
            .flat_map(|l| l.words.iter_mut().flatten())
        {
            letter.rect.y = letter.rect.y + Length::from_ticks(down);
        }
        found.lines[0].baseline = Length::from_ticks(down);
        let text = |ticks: f64| {
            let step = match words.unit {
                Unit::Inch => Length::inches(1, 16),
                Unit::Millimetre => Length::from_units(1.0, Unit::Millimetre).unwrap_or_default(),
            };
            let length = Length::from_ticks(ticks.round() as i64);
            length.round_to(step).to_text(words.unit)
        };
        found.hint = format!(
            "The baseline is an arc with a radius of {}, its top {} below the upper edge; it falls by {} to the sides of the space.",
            text(self.radius),
            text(down as f64),
            text(self.rise)
        );
        found.manner = Manner::Arc;
        Some(found)
    }
}
