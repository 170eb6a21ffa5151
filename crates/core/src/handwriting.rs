//! How writing comes out: in printed type, or in a maker's own hand: how wide she writes and how far her lines lie apart, from one sentence that she wrote and measured.

use crate::document::{Node, length_number};
use crate::length::{Length, Unit};
use crate::typefaces::Typeface;
use serde_json::{Value, json};

/// What she writes once, as she always writes, and measures from its first letter to its last.
pub const SENTENCE: &str = "Low water at a quarter past one, so out we went with the sledges";
/// How much wider a hand may come out than it did in the sentence, in shares.
pub const MARGIN: f64 = 0.04;
const WIDEST: Length = Length::inches(40, 1);
const LEAST: Length = Length::inches(1, 32);
const FARTHEST: Length = Length::inches(2, 1);
const LONGEST_NAME: usize = 80;

/// A hand: hers with a certain pen.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Hand {
    /// In which she measured.
    pub unit: Unit,
    /// What she calls it.
    pub name: String,
    /// How wide [`SENTENCE`] came out.
    pub sentence: Length,
    /// From one line to the next.
    pub pitch: Length,
    /// The face, where it is no hand but printed type.
    pub typeface: Option<Typeface>,
}

/// The share of its lines' pitch that printed type takes.
pub const TYPE_SIZE: f64 = 0.75;
/// Sizes of printed type that are offered, in points.
const SIZES: [i64; 4] = [8, 10, 12, 14];
const POINTS: f64 = 72.0;
const INCH: f64 = Unit::Inch.ticks() as f64;

impl Hand {
    /// Printed type in the sizes that are offered.
    #[must_use]
    pub fn printed(unit: Unit) -> Vec<Hand> {
        let of = |face: Typeface, points: i64| {
            let size = INCH * points as f64 / POINTS;
            Hand {
                unit,
                name: format!("printed, {}, {points} pt", face.name()),
                sentence: Length::from_ticks((face.width(SENTENCE) * size).round() as i64),
                pitch: Length::from_ticks((size / TYPE_SIZE).round() as i64),
                typeface: Some(face),
            }
        };
        let faces = Typeface::ALL.into_iter();
        faces
            .flat_map(|face| SIZES.map(|points| of(face, points)))
            .collect()
    }

    /// How much wider a line may come out than it was reckoned: type never does.
    #[must_use]
    pub const fn margin(&self) -> f64 {
        if self.typeface.is_some() { 0.0 } else { MARGIN }
    }

    /// How wide a word is in this hand, in ticks, without the margin.
    #[must_use]
    pub fn width(&self, text: &str) -> f64 {
        if let Some(face) = self.typeface {
            return face.width(text) * self.pitch.ticks() as f64 * TYPE_SIZE;
        }
        self.sentence.ticks() as f64 * shares(text) / shares(SENTENCE)
    }

    /// Reads a hand; it carries its own unit, since it goes from page to page.
    pub(crate) fn read(node: &Node<'_>) -> Option<Hand> {
        node.object()?;
        let unit = match node.get("unit") {
            Some(n) => n.one_of(&["in", "mm"], Unit::from_name)?,
            None => Unit::Inch,
        };
        let name = node.need("name", "a name").and_then(|n| {
            let name = n.text()?.trim();
            if name.is_empty() || name.chars().count() > LONGEST_NAME {
                n.wrong(format!("a name of 1 to {LONGEST_NAME} characters"));
                return None;
            }
            Some(name.to_owned())
        });
        let length = |field: &str, most: Length| {
            let found = node.need(field, "a length above 0");
            found.and_then(|n| n.length(unit, LEAST, most))
        };
        let (sentence, pitch) = (length("sentence", WIDEST), length("pitch", FARTHEST));
        let typeface = node.optional("type", |n| n.one_of(&Typeface::NAMES, Typeface::from_name));
        Some(Hand {
            unit,
            name: name?,
            sentence: sentence?,
            pitch: pitch?,
            typeface: typeface?,
        })
    }

    /// Writes it.
    #[must_use]
    pub fn to_json(&self) -> Value {
        let unit = self.unit;
        let mut written = json!({"unit": unit.name(), "name": self.name, "sentence": length_number(self.sentence, unit), "pitch": length_number(self.pitch, unit)});
        if let Some(face) = self.typeface {
            written["type"] = face.name().into();
        }
        written
    }
}

/// How wide a text is, in widths of an n: written letters differ less than printed ones.
fn shares(text: &str) -> f64 {
    let share = |c: char| match c {
        'i' | 'j' | 'l' | 't' | 'f' | 'r' | '1' | '.' | ',' | '\'' | '’' | '!' | ':' | ';' => 0.6,
        'm' | 'w' => 1.5,
        'M' | 'W' => 1.9,
        ' ' => 0.8,
        c if c.is_uppercase() => 1.4,
        _ => 1.0,
    };
    text.chars().map(share).sum()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_sentence_is_as_wide_as_she_measured() {
        let hand = Hand {
            unit: Unit::Inch,
            name: "Fine pen".to_owned(),
            sentence: Length::inches(7, 1),
            pitch: Length::inches(1, 4),
            typeface: None,
        };
        let inch = Length::inches(1, 1).ticks() as f64;
        assert!((hand.width(SENTENCE) - 7.0 * inch).abs() < 1e-6);
        assert!(hand.width("mm") > 2.0 * hand.width("i"));
    }
}
