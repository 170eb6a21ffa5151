//! Lengths as integer ticks: 1 tick = 1/8 micrometre, so that 1 in = 203 200 ticks and 1 mm = 8 000.
//!
//! Inch fractions down to 1/64 and hundredths of a millimetre are exact, and sums never drift.

mod text;

pub use text::LengthError;
pub(crate) use text::{FRACTION_SLASH, INCH_MARKS};

use std::fmt;
use std::ops::{Add, Neg, Sub};

/// A unit of length in which makers measure and documents are written.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Default)]
pub enum Unit {
    /// Inches, read as ruler fractions.
    #[default]
    Inch,
    /// Millimetres.
    Millimetre,
}

impl Unit {
    /// Ticks in one of this unit.
    pub const fn ticks(self) -> i64 {
        match self {
            Unit::Inch => 203_200,
            Unit::Millimetre => 8_000,
        }
    }

    /// The name that documents use: `in` or `mm`.
    pub const fn name(self) -> &'static str {
        match self {
            Unit::Inch => "in",
            Unit::Millimetre => "mm",
        }
    }

    /// The unit of that document name, if it is one.
    pub fn from_name(name: &str) -> Option<Unit> {
        match name {
            "in" => Some(Unit::Inch),
            "mm" => Some(Unit::Millimetre),
            _ => None,
        }
    }
}

/// A signed length in whole ticks.
///
/// Lengths that come from outside are bounded by [`Length::LIMIT`], so that sums of any document's
/// lengths stay far inside the integer; the operators check for overflow all the same.
///
/// A bare number is not a length:
///
/// ```compile_fail
/// use metrosk_core::length::{Length, Unit};
/// let wrong = Length::from_units(3.0, Unit::Inch).unwrap() + 3.0;
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub struct Length(i64);

impl Length {
    /// No length at all.
    pub const ZERO: Length = Length(0);
    /// The largest length that is read from a text or a document: 100 m either way.
    pub const LIMIT: Length = Length(800_000_000);

    /// A length of so many ticks.
    pub const fn from_ticks(ticks: i64) -> Length {
        Length(ticks)
    }

    /// The whole ticks of this length.
    pub const fn ticks(self) -> i64 {
        self.0
    }

    /// `numerator / denominator` inches, which must come out as whole ticks (any denominator down to 1/64 does).
    pub const fn inches(numerator: i64, denominator: i64) -> Length {
        Length(numerator * Unit::Inch.ticks() / denominator)
    }

    /// A decimal number of a unit, rounded to the nearest tick; `None` when it is not finite or beyond [`Length::LIMIT`].
    pub fn from_units(number: f64, unit: Unit) -> Option<Length> {
        let ticks = (number * unit.ticks() as f64).round();
        (ticks.abs() <= Self::LIMIT.0 as f64).then_some(Length(ticks as i64))
    }

    /// This length as a decimal number of a unit.
    pub fn to_units(self, unit: Unit) -> f64 {
        self.0 as f64 / unit.ticks() as f64
    }

    /// The sum, or `None` beyond the integer's range.
    pub fn checked_add(self, other: Length) -> Option<Length> {
        self.0.checked_add(other.0).map(Length)
    }

    /// The difference, or `None` beyond the integer's range.
    pub fn checked_sub(self, other: Length) -> Option<Length> {
        self.0.checked_sub(other.0).map(Length)
    }

    /// This length so many times, or `None` beyond the integer's range.
    pub fn checked_times(self, count: i64) -> Option<Length> {
        self.0.checked_mul(count).map(Length)
    }

    /// The distance from zero.
    pub const fn abs(self) -> Length {
        Length(self.0.abs())
    }

    /// The nearest multiple of a ruler step; halfway goes up. A step of zero leaves the length as it is.
    pub fn round_to(self, step: Length) -> Length {
        if step.0 <= 0 {
            return self;
        }
        let below = self.0.div_euclid(step.0);
        let rest = self.0.rem_euclid(step.0);
        Length((below + i64::from(rest * 2 >= step.0)) * step.0)
    }

    /// Whether this length lies on a ruler step (always, for a step of zero).
    pub const fn is_on(self, step: Length) -> bool {
        step.0 <= 0 || self.0 % step.0 == 0
    }
}

impl Add for Length {
    type Output = Length;
    fn add(self, other: Length) -> Length {
        self.checked_add(other)
            .expect("lengths are bounded far below the integer's range")
    }
}

impl Sub for Length {
    type Output = Length;
    fn sub(self, other: Length) -> Length {
        self.checked_sub(other)
            .expect("lengths are bounded far below the integer's range")
    }
}

impl Neg for Length {
    type Output = Length;
    fn neg(self) -> Length {
        Length(-self.0)
    }
}

impl fmt::Display for Length {
    /// Inches, as [`Length::to_text`] prints them.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.to_text(Unit::Inch))
    }
}
