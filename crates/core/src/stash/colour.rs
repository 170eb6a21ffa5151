//! Colours as eyes compare them: in OKLab.

use crate::document::Node;
use palette::{FromColor, Oklab, Srgb};
use std::str::FromStr;
use std::sync::LazyLock;

/// A colour of paper.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Colour([u8; 3]);

/// Names that makers use, each with a colour that stands for it.
const NAMES: [(&str, [u8; 3]); 22] = [
    ("white", [0xfc, 0xfb, 0xf7]),
    ("cream", [0xf6, 0xef, 0xdc]),
    ("black", [0x1d, 0x1c, 0x20]),
    ("grey", [0x8d, 0x93, 0x98]),
    ("gray", [0x8d, 0x93, 0x98]),
    ("kraft", [0xc6, 0xa2, 0x77]),
    ("brown", [0x7a, 0x55, 0x3a]),
    ("red", [0xc8, 0x3c, 0x2f]),
    ("coral", [0xe8, 0x80, 0x6a]),
    ("pink", [0xe7, 0xa4, 0xb4]),
    ("orange", [0xe3, 0x86, 0x2e]),
    ("mustard", [0xdc, 0xa3, 0x2a]),
    ("yellow", [0xf2, 0xc8, 0x3c]),
    ("lime", [0xa9, 0xc2, 0x4a]),
    ("green", [0x4c, 0x8a, 0x57]),
    ("mint", [0xa8, 0xd8, 0xc4]),
    ("teal", [0x1f, 0x7f, 0x7c]),
    ("blue", [0x3d, 0x6f, 0xb0]),
    ("sky", [0xa8, 0xcb, 0xe0]),
    ("navy", [0x1f, 0x2f, 0x56]),
    ("purple", [0x6d, 0x4f, 0x8e]),
    ("lilac", [0xbd, 0xa6, 0xd0]),
];

/// From here on there is a colour to be named.
pub(crate) const COLOURED: f64 = 0.03;

impl Colour {
    /// Of red, green and blue, as screens have them.
    pub const fn from_rgb(rgb: [u8; 3]) -> Colour {
        Colour(rgb)
    }

    /// Red, green and blue.
    pub const fn rgb(self) -> [u8; 3] {
        self.0
    }

    /// Of `#rrggbb`.
    pub fn from_hex(text: &str) -> Option<Colour> {
        let is_long = text.len() == 7 && text.starts_with('#');
        let read = is_long.then(|| Srgb::<u8>::from_str(text).ok())??;
        Some(Colour([read.red, read.green, read.blue]))
    }

    /// Reads the `colour` of an object.
    pub(crate) fn read(node: &Node<'_>) -> Option<Colour> {
        const ALLOWED: &str = "a colour like #1f2f56";
        let node = node.need("colour", ALLOWED)?;
        let read = Colour::from_hex(node.text()?);
        if read.is_none() {
            node.wrong(ALLOWED);
        }
        read
    }

    /// `#rrggbb`.
    pub fn to_hex(self) -> String {
        let [r, g, b] = self.0;
        format!("#{r:02x}{g:02x}{b:02x}")
    }

    /// The colour of a name that makers use: `navy`, `kraft`.
    pub fn named(name: &str) -> Option<Colour> {
        let found = NAMES.iter().find(|(n, _)| *n == name);
        found.map(|(_, rgb)| Colour(*rgb))
    }

    /// The name that comes nearest, for sentences. What has a colour is not called grey.
    pub fn name(self) -> &'static str {
        // Papers are ranked by the hundred: what the names stand for is brought to OKLab once.
        static NAMED: LazyLock<Vec<(&str, Oklab)>> = LazyLock::new(|| {
            let lab = |(name, rgb): &(&'static str, [u8; 3])| (*name, Colour(*rgb).oklab());
            NAMES.iter().map(lab).collect()
        });
        let own = self.oklab();
        let is_coloured = chroma(own) > COLOURED;
        let found = NAMED
            .iter()
            .filter(|(_, lab)| !is_coloured || chroma(*lab) > COLOURED)
            .map(|(name, lab)| (*name, distance(own, *lab)))
            .min_by(|a, b| a.1.total_cmp(&b.1));
        found.map_or("grey", |(name, _)| name)
    }

    fn oklab(self) -> Oklab {
        let [r, g, b] = self.0;
        Oklab::from_color(Srgb::new(r, g, b).into_linear::<f32>())
    }

    /// How light it looks, from 0 (black) to 1 (white).
    pub fn lightness(self) -> f64 {
        f64::from(self.oklab().l)
    }

    /// How much colour there is in it: 0 for greys, up to about 0.3.
    pub fn chroma(self) -> f64 {
        chroma(self.oklab())
    }

    /// How different two look: about 0.02 can just be told apart, black and white are 1 apart.
    pub fn distance(self, other: Colour) -> f64 {
        distance(self.oklab(), other.oklab())
    }
}

fn chroma(c: Oklab) -> f64 {
    f64::from(c.a).hypot(f64::from(c.b))
}

fn distance(a: Oklab, b: Oklab) -> f64 {
    let part = |x: f32, y: f32| f64::from(x - y).powi(2);
    (part(a.l, b.l) + part(a.a, b.a) + part(a.b, b.b)).sqrt()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn hex_is_read_and_written() {
        assert_eq!(Colour::from_hex("#1f2F56").unwrap().to_hex(), "#1f2f56");
        for wrong in ["1f2f56", "#1f2", "#1f2f5g", "navy", ""] {
            assert_eq!(Colour::from_hex(wrong), None, "{wrong}");
        }
    }

    #[test]
    fn names_stand_for_what_they_are_called() {
        for (name, _) in NAMES.iter().filter(|(n, _)| *n != "gray") {
            assert_eq!(Colour::named(name).unwrap().name(), *name);
        }
        assert_eq!(Colour::from_hex("#203060").unwrap().name(), "navy");
    }

    #[test]
    fn black_and_white_are_furthest_apart() {
        let (black, white) = (Colour([0, 0, 0]), Colour([255, 255, 255]));
        assert!((black.distance(white) - 1.0).abs() < 1e-3);
        assert!(white.lightness() > 0.999 && black.chroma() < 1e-3);
    }
}
