//! What makers write for a length (`3 3/8`, `3-3/8"`, `3.375 in`, `86 mm`, `8,6 cm`), read and printed.

use super::{Length, Unit};
use thiserror::Error;

/// What a length may be written like, for messages.
const ALLOWED: &str = "a length such as 3 3/8, 3.375 in, 86 mm or 8,6 cm";

/// The marks that stand for inches, plain and typographic.
pub(crate) const INCH_MARKS: [char; 4] = ['"', '″', '”', '“'];
/// The typographic stroke of a fraction.
pub(crate) const FRACTION_SLASH: char = '⁄';

/// A text that is not a length: what was found, and what is allowed.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error("“{text}”: {found}; allowed is {allowed}")]
pub struct LengthError {
    /// The text as it was given.
    pub text: String,
    /// What in it can't be read.
    pub found: String,
    /// What would have been understood.
    pub allowed: &'static str,
}

impl Length {
    /// Reads a length as makers write it. A text without a unit is taken in `default`.
    ///
    /// ```
    /// use metrosk_core::length::{Length, Unit};
    /// assert_eq!(Length::parse("3-3/8\"", Unit::Millimetre), Ok(Length::inches(27, 8)));
    /// assert_eq!(Length::parse("8,6 cm", Unit::Inch), Ok(Length::from_ticks(688_000)));
    /// ```
    ///
    /// # Errors
    /// When the text is not a length, or is longer than [`Length::LIMIT`].
    pub fn parse(text: &str, default: Unit) -> Result<Length, LengthError> {
        let fail = |found: String| LengthError {
            text: text.to_owned(),
            found,
            allowed: ALLOWED,
        };
        let plain = spell_out(text);
        let (sign, rest) = match plain.strip_prefix(['-', '−']) {
            Some(rest) => (-1.0, rest.trim_start()),
            None => (1.0, plain.as_str()),
        };
        let end = rest
            .find(|c: char| !is_numeric_part(c))
            .unwrap_or(rest.len());
        let (number, unit) = rest.split_at(end);
        let ticks_each = unit_ticks(unit.trim(), default).map_err(&fail)?;
        let value = number_of(number.trim()).map_err(&fail)?;
        let ticks = (sign * value * ticks_each).round();
        if ticks.abs() > Length::LIMIT.0 as f64 {
            return Err(fail("it is longer than 100 m".to_owned()));
        }
        Ok(Length(ticks as i64))
    }

    /// The unit that a written length names, if it names one.
    pub(crate) fn unit_in(text: &str) -> Option<Unit> {
        let plain = spell_out(text);
        let unit = plain.trim_start_matches(|c: char| is_numeric_part(c) || c == '−');
        match unit_kind(unit.trim())? {
            Written::Default => None,
            Written::Inches => Some(Unit::Inch),
            Written::Millimetres | Written::Centimetres => Some(Unit::Millimetre),
        }
    }

    /// Prints a length so that [`Length::parse`] gives the same ticks again: inches as a ruler fraction where
    /// they are one (down to 1/64), everything else as a decimal of up to six places.
    pub fn to_text(self, unit: Unit) -> String {
        let sixty_fourth = Unit::Inch.ticks() / 64;
        if unit == Unit::Inch && self.0 % sixty_fourth == 0 {
            return format!("{} in", fraction(self.0 / sixty_fourth));
        }
        let decimal = format!("{:.6}", self.to_units(unit));
        format!(
            "{} {}",
            decimal.trim_end_matches('0').trim_end_matches('.'),
            unit.name()
        )
    }

    /// Prints a length as a ruler shows it: the nearest 1/64 in, or the nearest tenth of a millimetre.
    pub fn to_ruler_text(self, unit: Unit) -> String {
        let finest = match unit {
            Unit::Inch => Unit::Inch.ticks() / 64,
            Unit::Millimetre => Unit::Millimetre.ticks() / 10,
        };
        self.round_to(Length(finest)).to_text(unit)
    }
}

/// A count of sixty-fourths as whole number and reduced fraction: `3 3/8`, `5/16`, `-1 1/2`.
fn fraction(sixty_fourths: i64) -> String {
    let (whole, mut top, mut bottom) = (sixty_fourths.abs() / 64, sixty_fourths.abs() % 64, 64);
    while top > 0 && top % 2 == 0 {
        top /= 2;
        bottom /= 2;
    }
    let sign = if sixty_fourths < 0 { "-" } else { "" };
    match (whole, top) {
        (_, 0) => format!("{sign}{whole}"),
        (0, _) => format!("{sign}{top}/{bottom}"),
        _ => format!("{sign}{whole} {top}/{bottom}"),
    }
}

/// Replaces fraction glyphs and the marks that keyboards produce by plain characters.
fn spell_out(text: &str) -> String {
    let mut plain = String::with_capacity(text.len() + 4);
    for c in text.trim().chars() {
        let glyph = match c {
            '½' => "1/2",
            '¼' => "1/4",
            '¾' => "3/4",
            '⅛' => "1/8",
            '⅜' => "3/8",
            '⅝' => "5/8",
            '⅞' => "7/8",
            '⅓' => "1/3",
            '⅔' => "2/3",
            FRACTION_SLASH => "/",
            '\u{a0}' | '\u{2009}' | '\u{202f}' => " ",
            c if INCH_MARKS.contains(&c) => "\"",
            _ => {
                plain.push(c);
                continue;
            }
        };
        if glyph.len() == 3 && plain.ends_with(|p: char| p.is_ascii_digit()) {
            plain.push(' ');
        }
        plain.push_str(glyph);
    }
    plain
}

fn is_numeric_part(c: char) -> bool {
    c.is_ascii_digit() || matches!(c, '.' | ',' | '/' | ' ' | '-')
}

/// How a unit is written.
enum Written {
    Default,
    Inches,
    Millimetres,
    Centimetres,
}

fn unit_kind(unit: &str) -> Option<Written> {
    match unit.to_lowercase().as_str() {
        "" => Some(Written::Default),
        "in" | "in." | "inch" | "inches" | "\"" | "''" => Some(Written::Inches),
        "mm" => Some(Written::Millimetres),
        "cm" => Some(Written::Centimetres),
        _ => None,
    }
}

/// Ticks in one of the written unit; an error says what was found.
fn unit_ticks(unit: &str, default: Unit) -> Result<f64, String> {
    match unit_kind(unit) {
        Some(Written::Default) => Ok(default.ticks() as f64),
        Some(Written::Inches) => Ok(Unit::Inch.ticks() as f64),
        Some(Written::Millimetres) => Ok(Unit::Millimetre.ticks() as f64),
        Some(Written::Centimetres) => Ok(Unit::Millimetre.ticks() as f64 * 10.0),
        None => Err(format!("“{unit}” is not a unit")),
    }
}

/// The value of `3 3/8`, `3-3/8`, `3/8`, `3.375` or `8,6`.
fn number_of(number: &str) -> Result<f64, String> {
    if number.is_empty() {
        return Err("there is no number".to_owned());
    }
    let (whole, part) = match number.split_once([' ', '-']) {
        Some((whole, part)) => (whole, part.trim_start_matches([' ', '-'])),
        None if number.contains('/') => ("0", number),
        None => return decimal(number),
    };
    let whole: u32 = whole
        .parse()
        .map_err(|_| format!("“{whole}” is not a whole number before a fraction"))?;
    let Some((top, bottom)) = part.split_once('/') else {
        return Err(format!("“{part}” after {whole} is not a fraction"));
    };
    let top_number: u32 = top
        .trim()
        .parse()
        .map_err(|_| format!("“{top}” is not the top of a fraction"))?;
    let bottom_number: u32 = bottom
        .trim()
        .parse()
        .map_err(|_| format!("“{bottom}” is not the bottom of a fraction"))?;
    if bottom_number == 0 {
        return Err("a fraction over 0".to_owned());
    }
    Ok(f64::from(whole) + f64::from(top_number) / f64::from(bottom_number))
}

/// A decimal number with a point or a comma.
fn decimal(number: &str) -> Result<f64, String> {
    let bad = || format!("“{number}” is not a number");
    if number.matches(['.', ',']).count() > 1 || !number.contains(|c: char| c.is_ascii_digit()) {
        return Err(bad());
    }
    number.replace(',', ".").parse().map_err(|_| bad())
}
