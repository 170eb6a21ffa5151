//! Printed type that comes with the application: how wide its letters are. The faces are under the Open Font License (their texts lie beside
//! them in `fonts/`).

use std::sync::LazyLock;
use ttf_parser::Face;

/// A face that comes with the application.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Typeface {
    /// A plain sans serif.
    Plain,
    /// The same, bold.
    Bold,
    /// For headings.
    Display,
}

/// How wide a character is that a face does not have, in shares of the type's size.
const MISSING: f64 = 0.5;

static FACES: LazyLock<[Option<Face<'static>>; 3]> = LazyLock::new(|| {
    [
        include_bytes!("../fonts/PublicSans-Regular.ttf").as_slice(),
        include_bytes!("../fonts/PublicSans-Bold.ttf").as_slice(),
        include_bytes!("../fonts/BricolageGrotesque-Bold.ttf").as_slice(),
    ]
    .map(|font| Face::parse(font, 0).ok())
});

impl Typeface {
    /// All of them.
    pub const ALL: [Typeface; 3] = [Typeface::Plain, Typeface::Bold, Typeface::Display];
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["plain", "bold", "display"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The face of that document name.
    pub fn from_name(name: &str) -> Option<Typeface> {
        Self::ALL.into_iter().find(|f| f.name() == name)
    }

    /// Its family and weight, as drawings name them.
    pub const fn family(self) -> (&'static str, u16) {
        match self {
            Typeface::Plain => ("Public Sans", 400),
            Typeface::Bold => ("Public Sans", 700),
            Typeface::Display => ("Bricolage Grotesque", 700),
        }
    }

    /// How wide a text is in it, in shares of the type's size.
    #[must_use]
    pub fn width(self, text: &str) -> f64 {
        let Some(face) = &FACES[self as usize] else {
            return MISSING * text.chars().count() as f64;
        };
        let em = f64::from(face.units_per_em());
        let advance = |c: char| {
            let glyph = face.glyph_index(c)?;
            Some(f64::from(face.glyph_hor_advance(glyph)?) / em)
        };
        text.chars().map(|c| advance(c).unwrap_or(MISSING)).sum()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_face_is_there_and_wide_letters_are_wider() {
        assert!(FACES.iter().all(Option::is_some));
        for face in Typeface::ALL {
            assert!(face.width("W") > face.width("i"), "{face:?}");
            let apart = face.width("Low") + face.width(" sun");
            assert!((face.width("Low sun") - apart).abs() < 1e-9);
            assert_eq!(Typeface::from_name(face.name()), Some(face));
        }
        assert!(Typeface::Bold.width("sledges") > Typeface::Plain.width("sledges"));
    }
}
