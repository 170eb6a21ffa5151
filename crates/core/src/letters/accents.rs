//! Letters with accents out of two pieces, where a set has no such letter but both of its parts.

use super::kept::{KeptLetters, MadeLetter};
use super::{Doing, Glyph, Make};
use crate::length::Length;
use std::collections::{BTreeMap, BTreeSet};
use unicode_normalization::char::decompose_canonical;

/// How much an accent adds above a letter, or below it, in hundredths of the capitals' height.
const ACCENT_HEIGHT: i64 = 30;
/// Accents as they are typed alone, and as Unicode joins them to a letter.
const ACCENTS: [(char, char); 9] = [
    ('\u{300}', '`'),
    ('\u{301}', '´'),
    ('\u{302}', '^'),
    ('\u{303}', '~'),
    ('\u{304}', '¯'),
    ('\u{308}', '¨'),
    ('\u{30a}', '°'),
    ('\u{30c}', 'ˇ'),
    ('\u{327}', '¸'),
];
/// It hangs below its letter.
const CEDILLA: char = '\u{327}';

/// A letter and the accent that is joined to it.
fn in_two_pieces(character: char) -> Option<(char, char)> {
    let mut parts = Vec::new();
    decompose_canonical(character, |c| parts.push(c));
    match parts[..] {
        [of, mark] => Some((of, mark)),
        _ => None,
    }
}

impl KeptLetters {
    /// Letters with accents that the set has in two pieces, as long as its accents last for all of them.
    pub(super) fn accented(
        &self,
        id: &str,
        text: &str,
        taken: &BTreeMap<char, u32>,
    ) -> Vec<MadeLetter> {
        let mut asked: BTreeMap<char, u32> = BTreeMap::new();
        let mut letters = BTreeSet::new();
        for character in text.chars() {
            let Some((of, mark)) = in_two_pieces(character) else {
                continue;
            };
            *asked.entry(mark).or_default() += 1;
            letters.insert((character, of, mark));
        }
        let made = |(letter, of, mark): (char, char, char)| {
            let alone = ACCENTS.iter().find(|a| a.0 == mark).map(|a| a.1);
            let piece = [Some(mark), alone].into_iter().flatten();
            let piece = piece.filter(|c| self.left.contains_key(c));
            let lasts = |c: &char| self.left_of(*c, taken) >= asked[&mark];
            let piece = piece.into_iter().find(lasts)?;
            let base = self.glyph(of);
            let more = Length::from_ticks(self.height.ticks() * ACCENT_HEIGHT / 100);
            let glyph = if mark == CEDILLA {
                Glyph {
                    below: base.below.max(more),
                    ..base
                }
            } else {
                Glyph {
                    h: base.h + more,
                    ..base
                }
            };
            Some(MadeLetter {
                make: Make {
                    set: id.to_owned(),
                    letter,
                    of,
                    glyph,
                    cost: Doing::Build.cost(),
                },
                how: format!("with {} of the same set", alone.unwrap_or(piece)),
                with: Some(piece),
            })
        };
        letters.into_iter().filter_map(made).collect()
    }
}
