//! How wide and high the characters of a style are, in shares of its capitals' height: a start, until a maker measures her own.

use crate::length::Length;

use super::Glyph;

/// The proportions of a set.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Style {
    /// Condensed.
    Narrow,
    /// As most sticker sheets are.
    #[default]
    Normal,
    /// Extended.
    Wide,
    /// With bowls drawn as circles.
    Round,
}

/// How high small letters without an ascender are, and how far others hang down, in hundredths of a capital.
const X_HEIGHT: i64 = 68;
const DESCENT: i64 = 25;
/// What stands on a ruler's thirty-second of an inch, in ticks.
const THIRTY_SECOND: i64 = Length::inches(1, 32).ticks();
/// Widths in hundredths of the capitals' height, of a plain sans serif.
const WIDTHS: [(&str, i64); 19] = [
    ("I'’!|", 22),
    ("ijl.,:;", 22),
    ("1frt(-)", 37),
    ("s/\"", 48),
    ("Jcvxyz", 53),
    ("LFaek?", 57),
    ("bdghnopqu", 60),
    ("E023456789+=", 61),
    ("TZS*", 65),
    ("PBYR", 68),
    ("ACUVXK", 71),
    ("DH", 74),
    ("GN", 76),
    ("w&#", 79),
    ("OQ", 80),
    ("M", 88),
    ("m", 88),
    ("@", 95),
    ("W", 102),
];
/// Of a character that is not listed.
const USUAL_WIDTH: i64 = 65;
const BOWLED: &str = "CDGOQcdegopqb0";

impl Style {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["narrow", "normal", "wide", "round"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The style of that document name.
    pub fn from_name(name: &str) -> Option<Style> {
        [Style::Narrow, Style::Normal, Style::Wide, Style::Round]
            .into_iter()
            .find(|s| s.name() == name)
    }

    /// A character in this style, its capitals so high; `share` widens or narrows it. Widths are rounded to 1/32 in.
    pub(super) fn glyph(self, character: char, capitals: Length, share: f64) -> Glyph {
        let listed = WIDTHS.iter().find(|(of, _)| of.contains(character));
        let width = listed.map_or(USUAL_WIDTH, |(_, w)| *w);
        let style = match self {
            Style::Narrow => 78,
            Style::Wide => 122,
            Style::Round if BOWLED.contains(character) => 115,
            Style::Normal | Style::Round => 100,
        };
        let wide = capitals.ticks() as f64 * (width * style) as f64 / 1e4 * share;
        let rounded = (wide / THIRTY_SECOND as f64).round().max(1.0) as i64 * THIRTY_SECOND;
        let of_capitals = |hundredths| Length::from_ticks(capitals.ticks() * hundredths / 100);
        let low = "acegmnopqrsuvwxyz".contains(character);
        Glyph {
            w: Length::from_ticks(rounded),
            h: if low { of_capitals(X_HEIGHT) } else { capitals },
            below: if "gjpqy,;".contains(character) {
                of_capitals(DESCENT)
            } else {
                Length::ZERO
            },
        }
    }
}
