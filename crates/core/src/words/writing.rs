//! Writing measured against its space: how many lines it takes in a maker's hand, what is over, and what would make it fit.
//!
//! Lines are broken at spaces, each as full as it can be (`textwrap`'s first fit), because that is how a hand writes.

use super::shape::{Shape, Slot};
use crate::geometry::Size;
use crate::handwriting::Hand;
use crate::length::{Length, Unit};
use crate::typefaces::Typeface;
use serde_json::{Value, json};
use textwrap::core::Fragment;
use textwrap::wrap_algorithms::wrap_first_fit;

/// Steps in which smaller writing and wider spaces are tried.
const PITCH_STEP: Length = Length::inches(1, 32);
const WIDTH_STEP: Length = Length::inches(1, 8);
/// Smaller than that nobody reads it.
const SMALLEST_PITCH: Length = Length::inches(1, 8);

/// Writing, its space and the hand.
#[derive(Clone, Debug, PartialEq)]
pub struct Asked<'a> {
    /// The text; each of its lines begins anew.
    pub text: &'a str,
    /// Date, place and names, as they are to stand in a line of their own; empty where they stand elsewhere.
    pub kept: String,
    /// Where it is written.
    pub space: Size,
    /// In which hand.
    pub hand: &'a Hand,
    /// From one line to the next, where she writes larger or smaller than usual.
    pub pitch: Length,
    /// How it runs in its space.
    pub shape: Shape,
}

/// What would make it fit.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Remedy {
    /// Smaller writing.
    Pitch(Length),
    /// A wider space.
    Wider(Length),
    /// A higher one.
    Taller(Length),
    /// The date somewhere else.
    DateElsewhere,
    /// So many words less.
    Shorter(usize),
}

/// How writing comes out.
#[derive(Clone, Debug, PartialEq)]
pub struct Written {
    /// Its lines, without the one that is kept.
    pub lines: Vec<String>,
    /// How wide each comes out at most.
    pub widths: Vec<Length>,
    /// Lines of the space.
    pub room: usize,
    /// Where they are.
    pub slots: Vec<Slot>,
    /// Lines that are kept for the date.
    pub kept: usize,
    /// Words wider than the space.
    pub too_wide: Vec<String>,
    /// Whether what is to be kept is wider than the space.
    pub kept_too_wide: bool,
}

impl Written {
    /// Lines that have no room.
    #[must_use]
    pub fn lines_over(&self) -> usize {
        (self.lines.len() + self.kept).saturating_sub(self.room)
    }

    /// Lines that stay free.
    #[must_use]
    pub fn lines_spare(&self) -> usize {
        self.room.saturating_sub(self.lines.len() + self.kept)
    }

    /// Words on the lines that have no room.
    #[must_use]
    pub fn words_over(&self) -> usize {
        let fits = self.room.saturating_sub(self.kept);
        let over = self.lines.iter().skip(fits);
        over.map(|l| l.split_whitespace().count()).sum()
    }

    /// Whether all of it has room.
    #[must_use]
    pub fn fits(&self) -> bool {
        self.lines_over() == 0 && self.too_wide.is_empty() && !self.kept_too_wide
    }
}

#[derive(Debug)]
struct Word<'a> {
    text: &'a str,
    width: f64,
    space: f64,
}

impl Fragment for Word<'_> {
    fn width(&self) -> f64 {
        self.width
    }

    fn whitespace_width(&self) -> f64 {
        self.space
    }

    fn penalty_width(&self) -> f64 {
        0.0
    }
}

impl Asked<'_> {
    /// Measures it.
    #[must_use]
    pub fn written(&self) -> Written {
        let pitch = self.shape.pitch(self.pitch);
        let scale = pitch.ticks() as f64 / self.hand.pitch.ticks() as f64;
        let wide = |text: &str| self.hand.width(text) * scale * (1.0 + self.hand.margin());
        let slots = self.shape.slots(self.space, pitch);
        let mut long: Vec<f64> = slots.iter().map(|s| s.w.ticks() as f64).collect();
        if long.is_empty() {
            long.push(self.space.w.ticks() as f64);
        }
        let across = long.iter().copied().fold(f64::INFINITY, f64::min);
        let space = wide(" ");
        let from = |line: usize| &long[line.min(long.len() - 1)..];
        let (mut lines, mut too_wide) = (Vec::new(), Vec::new());
        for paragraph in self.text.lines().filter(|l| !l.trim().is_empty()) {
            let word = |text| Word {
                text,
                width: wide(text),
                space,
            };
            let words: Vec<Word<'_>> = paragraph.split_whitespace().map(word).collect();
            let wider = words.iter().filter(|w| w.width > across);
            too_wide.extend(wider.map(|w| w.text.to_owned()));
            let joined = |line: &[Word<'_>]| {
                let texts: Vec<&str> = line.iter().map(|w| w.text).collect();
                texts.join(" ")
            };
            let wrapped = wrap_first_fit(&words, from(lines.len()));
            lines.extend(wrapped.into_iter().map(joined));
        }
        let width = |l: &String| Length::from_ticks(wide(l).ceil() as i64);
        let widths = lines.iter().map(width).collect();
        let kept = usize::from(!self.kept.is_empty());
        let last = lines.len().min(slots.len().saturating_sub(kept));
        Written {
            kept_too_wide: wide(&self.kept) > from(last)[0],
            lines,
            widths,
            room: slots.len(),
            slots,
            kept,
            too_wide,
        }
    }

    /// What would make it fit, each alone; empty where it does.
    #[must_use]
    pub fn remedies(&self) -> Vec<Remedy> {
        let now = self.written();
        if now.fits() {
            return Vec::new();
        }
        let fits = |changed: &Asked<'_>| changed.written().fits();
        let smaller = (1..)
            .map(|n| self.pitch - times(PITCH_STEP, n))
            .take_while(|p| *p >= SMALLEST_PITCH)
            .find(|pitch| {
                fits(&Asked {
                    pitch: *pitch,
                    ..self.clone()
                })
            });
        // The page itself is as large as it is.
        let may_grow = self.shape != Shape::Edge;
        let wider = (1..=64)
            .filter(|_| may_grow)
            .map(|n| self.space.w + times(WIDTH_STEP, n))
            .take_while(|w| *w <= times(self.space.w, 2))
            .find(|w| fits(&self.in_space(*w, self.space.h)));
        let taller = (1..=(now.lines.len() + now.kept) as i64)
            .filter(|_| may_grow)
            .map(|rows| self.shape.height(rows, self.pitch))
            .filter(|h| *h > self.space.h)
            .find(|h| fits(&self.in_space(self.space.w, *h)));
        let elsewhere = Asked {
            kept: String::new(),
            ..self.clone()
        };
        let elsewhere = !self.kept.is_empty() && fits(&elsewhere);
        let over = now.words_over();
        let shorter = over > 0 && now.too_wide.is_empty() && !now.kept_too_wide;
        [
            smaller.map(Remedy::Pitch),
            wider.map(Remedy::Wider),
            taller.map(Remedy::Taller),
            elsewhere.then_some(Remedy::DateElsewhere),
            shorter.then_some(Remedy::Shorter(over)),
        ]
        .into_iter()
        .flatten()
        .collect()
    }

    fn in_space(&self, w: Length, h: Length) -> Asked<'_> {
        Asked {
            space: Size { w, h },
            ..self.clone()
        }
    }

    /// Writes how it comes out.
    #[must_use]
    pub fn to_json(&self, unit: Unit) -> Value {
        let now = self.written();
        let remedies: Vec<Value> = self.remedies().iter().map(|r| r.to_json(unit)).collect();
        let widths: Vec<f64> = now.widths.iter().map(|w| w.to_units(unit)).collect();
        let slots: Vec<Value> = now.slots.iter().map(|s| s.to_json(unit)).collect();
        json!({"slots": slots, "type": self.hand.typeface.map(Typeface::name), "lines": now.lines, "widths": widths, "room": now.room, "kept": now.kept, "kept_text": self.kept, "over": now.lines_over(), "spare": now.lines_spare(),
               "words_over": now.words_over(), "too_wide": now.too_wide, "kept_too_wide": now.kept_too_wide, "fits": now.fits(),
               "pitch": self.shape.pitch(self.pitch).to_units(unit), "space": {"w": self.space.w.to_units(unit), "h": self.space.h.to_units(unit)}, "remedies": remedies})
    }
}

fn times(length: Length, count: i64) -> Length {
    Length::from_ticks(length.ticks() * count)
}

impl Remedy {
    fn to_json(self, unit: Unit) -> Value {
        let (what, to, text) = match self {
            Remedy::Pitch(p) => (
                "pitch",
                p.to_units(unit),
                format!("Write smaller, {} from line to line", p.to_text(unit)),
            ),
            Remedy::Wider(w) => (
                "wider",
                w.to_units(unit),
                format!("A wider space: {}", w.to_text(unit)),
            ),
            Remedy::Taller(h) => (
                "taller",
                h.to_units(unit),
                format!("A taller space: {}", h.to_text(unit)),
            ),
            Remedy::DateElsewhere => ("date-elsewhere", 0.0, "The date somewhere else".to_owned()),
            Remedy::Shorter(1) => ("shorter", 1.0, "One word less".to_owned()),
            Remedy::Shorter(words) => ("shorter", words as f64, format!("{words} words less")),
        };
        json!({"what": what, "to": to, "text": text})
    }
}
