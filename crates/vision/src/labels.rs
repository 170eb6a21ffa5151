//! Sizes that are written in a photo's place: "4x6".

use crate::plane::{Mask, Part};
use crate::writing::Extent;

/// Places across and down that a letter is squeezed to.
const GRID: (usize, usize) = (8, 12);
/// Of these places, so many may differ from a letter's own shape.
const MOST_APART: u32 = 24;
/// The best shape must be nearer than the next letter's by so many.
const CLEARER: u32 = 3;
/// What is this much narrower than it is high is a one, of which no grid tells anything.
const NARROW: f64 = 0.34;
/// Photos are this large, in inches.
const SIZES: std::ops::RangeInclusive<u32> = 1..=14;

/// A size of a photo in inches that is written within an extent; nothing where it is anything else.
pub(crate) fn size_written(ink: &Mask, within: &Extent) -> Option<(u32, u32)> {
    let part = cut_out(ink, &within.grown(3.0))?;
    let letters = part.connected_components(true);
    let tall = letters.each().map(|(_, p)| p.h()).max()?;
    let mut row: Vec<(u32, Part)> = letters.each().filter(|(_, p)| 2 * p.h() > tall).collect();
    row.sort_by_key(|(_, p)| p.x0);
    // More letters than two lengths have are a word.
    if row.len() < 3 || row.len() > 5 {
        return None;
    }
    let read: Option<String> = row
        .iter()
        .map(|(label, p)| letter(p, |x, y| letters.label(x, y) == *label))
        .collect();
    let read = read?;
    let (w, h) = read.split_once('x')?;
    let (w, h) = (w.parse().ok()?, h.parse().ok()?);
    (SIZES.contains(&w) && SIZES.contains(&h)).then_some((w, h))
}

fn cut_out(ink: &Mask, e: &Extent) -> Option<Mask> {
    let (x0, y0) = (e.x0.max(0.0) as usize, e.y0.max(0.0) as usize);
    let (x1, y1) = ((e.x1 as usize).min(ink.w), (e.y1 as usize).min(ink.h));
    let (w, h) = (x1.checked_sub(x0)?, y1.checked_sub(y0)?);
    let data = (0..w * h).map(|n| ink.at(x0 + n % w, y0 + n / w)).collect();
    Some(Mask { w, h, data })
}

/// The digit or x that a part's pixels make.
fn letter(part: &Part, holds: impl Fn(usize, usize) -> bool) -> Option<char> {
    if (part.w() as f64) < NARROW * part.h() as f64 {
        return Some('1');
    }
    let mut squeezed = [0u8; GRID.1];
    for (row, bits) in squeezed.iter_mut().enumerate() {
        for column in 0..GRID.0 {
            let span = |from: usize, size: usize, n: usize, of: usize| {
                let first = from + n * size / of;
                first..(from + (n + 1) * size / of).max(first + 1)
            };
            let (xs, ys) = (
                span(part.x0, part.w(), column, GRID.0),
                span(part.y0, part.h(), row, GRID.1),
            );
            let all = xs.len() * ys.len();
            let inked = ys
                .flat_map(|y| xs.clone().map(move |x| (x, y)))
                .filter(|(x, y)| holds(*x, *y))
                .count();
            *bits |= u8::from(5 * inked > 2 * all) << (GRID.0 - 1 - column);
        }
    }
    let apart = |shape: &[u8; GRID.1]| {
        let rows = shape.iter().zip(&squeezed);
        rows.map(|(a, b)| (a ^ b).count_ones()).sum::<u32>()
    };
    let (best, least) = SHAPES
        .iter()
        .map(|(of, shape)| (*of, apart(shape)))
        .min_by_key(|(_, apart)| *apart)?;
    let others = SHAPES.iter().filter(|(of, _)| *of != best);
    let next = others.map(|(_, shape)| apart(shape)).min()?;
    (least <= MOST_APART && next >= least + CLEARER).then_some(best)
}

/// Digits and the x between them, in print and by hand.
#[rustfmt::skip]
const SHAPES: &[(char, [u8; GRID.1])] = &[
    ('0', [0b00011000, 0b00111100, 0b01100110, 0b11000011, 0b11000011, 0b10000001, 0b10000001, 0b11000011, 0b11000011, 0b01100110, 0b00111100, 0b00011000]),
    ('0', [0b00111100, 0b01100110, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b01100110, 0b00111100]),
    ('0', [0b00111100, 0b01111110, 0b11100111, 0b11100111, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b11100111, 0b11100111, 0b01111110, 0b00111100]),
    ('2', [0b00111100, 0b01100110, 0b11000011, 0b10000011, 0b00000011, 0b00000110, 0b00011100, 0b00111000, 0b01100000, 0b11000000, 0b11000000, 0b11111111]),
    ('2', [0b00111100, 0b01111111, 0b11100111, 0b11000011, 0b00000111, 0b00001111, 0b00111110, 0b01111000, 0b11110000, 0b11100000, 0b11111111, 0b11111111]),
    ('2', [0b01111100, 0b01000010, 0b10000011, 0b00000001, 0b00000011, 0b00000010, 0b00000100, 0b00001000, 0b00010000, 0b00100000, 0b01000000, 0b11111111]),
    ('3', [0b00111100, 0b01100110, 0b11000011, 0b10000011, 0b00000110, 0b00011100, 0b00011110, 0b00000011, 0b10000011, 0b11000011, 0b11100111, 0b00111100]),
    ('3', [0b00111100, 0b11111110, 0b11000111, 0b11000111, 0b00000110, 0b00011110, 0b00011110, 0b00000111, 0b11000011, 0b11100111, 0b11111110, 0b01111100]),
    ('3', [0b01111100, 0b11100110, 0b00000011, 0b00000111, 0b00011100, 0b00111000, 0b00011100, 0b00000111, 0b00000011, 0b00000010, 0b11110110, 0b01111100]),
    ('4', [0b00000110, 0b00000110, 0b00001110, 0b00011110, 0b00010110, 0b00100110, 0b01100110, 0b11000110, 0b11111111, 0b00000110, 0b00000110, 0b00000110]),
    ('4', [0b00001100, 0b00001100, 0b00011100, 0b00010100, 0b00100100, 0b01100100, 0b01000100, 0b11111111, 0b11111111, 0b00000100, 0b00000100, 0b00000100]),
    ('4', [0b00001110, 0b00011110, 0b00011110, 0b00111110, 0b00111110, 0b01101110, 0b11001110, 0b11111111, 0b11111111, 0b00001110, 0b00001110, 0b00001110]),
    ('5', [0b01111110, 0b01000000, 0b01000000, 0b01000000, 0b01011100, 0b11111110, 0b01000011, 0b00000011, 0b00000011, 0b11000011, 0b01100110, 0b00111100]),
    ('5', [0b01111110, 0b01111110, 0b01100000, 0b01100000, 0b01111100, 0b11111110, 0b01100111, 0b00000011, 0b01000011, 0b11100111, 0b01111110, 0b00111100]),
    ('5', [0b11111110, 0b11000000, 0b11000000, 0b11000000, 0b11111100, 0b11111100, 0b00000110, 0b00000011, 0b00000011, 0b00000110, 0b11111110, 0b00111100]),
    ('6', [0b00000110, 0b00001100, 0b00111000, 0b00100000, 0b01100000, 0b01111100, 0b11100110, 0b10000011, 0b11000001, 0b01000011, 0b01101110, 0b00111000]),
    ('6', [0b00111100, 0b01100110, 0b01000011, 0b11000000, 0b11011100, 0b11111110, 0b11000011, 0b11000011, 0b11000011, 0b11000011, 0b01100110, 0b00111100]),
    ('6', [0b00111100, 0b01111110, 0b01100111, 0b11100000, 0b11001100, 0b11111110, 0b11100111, 0b11000011, 0b11100011, 0b11100111, 0b01111110, 0b00111100]),
    ('7', [0b11111111, 0b00000011, 0b00000010, 0b00000110, 0b00000110, 0b00000100, 0b00001100, 0b00001000, 0b00011000, 0b00010000, 0b00110000, 0b00100000]),
    ('7', [0b11111111, 0b00000011, 0b00000010, 0b00000110, 0b00001100, 0b00001100, 0b00001000, 0b00011000, 0b00011000, 0b00010000, 0b00110000, 0b00110000]),
    ('7', [0b11111111, 0b11111111, 0b00000111, 0b00000110, 0b00001110, 0b00001100, 0b00011100, 0b00011000, 0b00011000, 0b00111000, 0b00111000, 0b00110000]),
    ('8', [0b00011000, 0b01111110, 0b11000011, 0b11000011, 0b01100110, 0b00111100, 0b00111100, 0b11100111, 0b10000001, 0b10000001, 0b11100111, 0b00111100]),
    ('8', [0b00111100, 0b01100110, 0b11000011, 0b11000011, 0b01100110, 0b00111110, 0b01111110, 0b11000011, 0b11000011, 0b11000011, 0b11100111, 0b00111100]),
    ('8', [0b00111100, 0b01111110, 0b11100111, 0b11100111, 0b01100110, 0b01111110, 0b01111110, 0b11100111, 0b11000011, 0b11100111, 0b11111111, 0b00111100]),
    ('9', [0b00111100, 0b01100110, 0b11000010, 0b11000011, 0b11000011, 0b11000011, 0b01111111, 0b00111011, 0b00000011, 0b11000010, 0b11100110, 0b01111100]),
    ('9', [0b00111100, 0b01110110, 0b11000011, 0b10000001, 0b11000001, 0b01100111, 0b00111111, 0b00000011, 0b00000010, 0b00000010, 0b00000010, 0b00000010]),
    ('9', [0b00111100, 0b01111110, 0b11100111, 0b11000111, 0b11000111, 0b11101111, 0b01111111, 0b00111011, 0b00000011, 0b11000110, 0b01111110, 0b00111100]),
    ('x', [0b01000010, 0b11000011, 0b01100110, 0b01101110, 0b00111100, 0b00011000, 0b00011000, 0b00111100, 0b01101110, 0b01100110, 0b11000011, 0b01000010]),
    ('x', [0b11000011, 0b01100110, 0b01100110, 0b00111100, 0b00111100, 0b00011000, 0b00011000, 0b00111100, 0b00110100, 0b01100110, 0b01100010, 0b11000011]),
    ('x', [0b11100111, 0b01100110, 0b01111110, 0b00111100, 0b00111100, 0b00011000, 0b00111100, 0b00111100, 0b01111110, 0b01100110, 0b01100110, 0b11100111]),
];

#[cfg(test)]
mod tests {
    use super::*;

    /// Letters drawn from their own shapes, `scale` pixels a place.
    fn written(text: &str, scale: usize) -> Mask {
        let w = text.len() * (GRID.0 + 3) * scale;
        let h = (GRID.1 + 2) * scale;
        let mut data = vec![false; w * h];
        for (n, of) in text.chars().enumerate() {
            let shape = SHAPES.iter().find(|(c, _)| *c == of).map(|(_, s)| s);
            for (y, x) in (0..GRID.1 * scale).flat_map(|y| (0..GRID.0 * scale).map(move |x| (y, x)))
            {
                let bit = shape.is_some_and(|s| s[y / scale] >> (GRID.0 - 1 - x / scale) & 1 == 1);
                let at = (y + scale) * w + x + scale + n * (GRID.0 + 3) * scale;
                data[at] = bit;
            }
        }
        Mask { w, h, data }
    }

    fn read(text: &str) -> Option<(u32, u32)> {
        let ink = written(text, 4);
        let all = Extent {
            x0: 0.0,
            y0: 0.0,
            x1: ink.w as f64,
            y1: ink.h as f64,
        };
        size_written(&ink, &all)
    }

    #[test]
    fn sizes_are_read_and_nothing_else() {
        assert_eq!(read("4x6"), Some((4, 6)));
        assert_eq!(read("5x7"), Some((5, 7)));
        assert_eq!(read("3x3"), Some((3, 3)));
        assert_eq!(read("8x0"), None, "no photo is that small");
        assert_eq!(read("467"), None, "two lengths have an x between them");
        assert_eq!(read("x4x"), None);
    }
}
