//! How well a file prints at a size.

use crate::geometry::Size;
use crate::length::{Length, Unit};

/// From this many dots an inch on a print is as good as it gets, and from this many nobody minds: what photo labs ask for.
const GOOD: f64 = 300.0;
const FAIR: f64 = 200.0;

/// How a print looks.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Quality {
    /// Under 200 dots an inch: dots show.
    Coarse,
    /// Under 300: good at arm's length.
    Fair,
    /// 300 and more.
    Good,
}

/// Dots an inch of so many pixels at a size; the side with fewer counts.
#[must_use]
pub fn dots_an_inch(pixels: (u32, u32), size: Size) -> f64 {
    let along = |pixels: u32, length: Length| f64::from(pixels) / length.to_units(Unit::Inch);
    along(pixels.0, size.w).min(along(pixels.1, size.h))
}

/// How so many pixels look at a size.
#[must_use]
pub fn quality(pixels: (u32, u32), size: Size) -> Quality {
    match dots_an_inch(pixels, size) {
        dots if dots >= GOOD => Quality::Good,
        dots if dots >= FAIR => Quality::Fair,
        _ => Quality::Coarse,
    }
}

/// The largest size at which so many pixels are a good print.
#[must_use]
pub fn largest_good(pixels: (u32, u32)) -> Size {
    let long = |pixels: u32| {
        let ticks = f64::from(pixels) / GOOD * Unit::Inch.ticks() as f64;
        Length::from_ticks(ticks as i64)
    };
    Size {
        w: long(pixels.0),
        h: long(pixels.1),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_megapixels_are_good_at_four_by_six_and_coarse_on_a_page() {
        let pixels = (1800, 1200);
        let size = |w, h| Size {
            w: Length::inches(w, 1),
            h: Length::inches(h, 1),
        };
        assert_eq!(quality(pixels, size(6, 4)), Quality::Good);
        assert_eq!(quality(pixels, size(8, 6)), Quality::Fair);
        assert_eq!(quality(pixels, size(12, 12)), Quality::Coarse);
        assert_eq!(largest_good(pixels), size(6, 4));
    }
}
