//! Prints as a maker says them: “three 4x6 level, one 5x7 upright, 2 of 3x3”.

use crate::document::{Findings, Invalid};
use crate::geometry::Size;
use crate::length::{Length, Unit};

/// How many prints one text may list.
const MOST: u32 = 100;
/// The smallest and the largest side of a print.
const SIDES: (Length, Length) = (Length::inches(1, 2), Length::inches(36, 1));
const NUMBERS: [&str; 12] = [
    "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven",
    "twelve",
];
const ALLOWED: &str =
    "how many, a size, and level or upright, like “three 4x6 level”; several with commas";

/// So many prints of a size, as they will be looked at.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Listed {
    /// How many.
    pub count: u32,
    /// Their size.
    pub size: Size,
}

/// Reads a list of prints; sizes without a unit are in `unit`.
///
/// # Errors
/// For each part that can't be read, what was found and what may stand there.
pub fn listed(text: &str, unit: Unit) -> Result<Vec<Listed>, Invalid> {
    let findings = Findings::default();
    let spoken = text.to_lowercase().replace(" and ", ", ");
    let parts = spoken.split([',', ';', '\n']).map(str::trim);
    let mut read = Vec::new();
    for part in parts.filter(|p| !p.is_empty()) {
        match one(part, unit) {
            Ok(found) => read.push(found),
            Err((found, allowed)) => findings.add("text", found, allowed),
        }
    }
    let all: u32 = read.iter().map(|l| l.count).sum();
    if read.is_empty() && findings.is_empty() {
        findings.add("text", "nothing", ALLOWED);
    }
    if all > MOST {
        findings.add(
            "text",
            format!("{all} prints"),
            format!("up to {MOST} at once"),
        );
    }
    findings.finish(Some(read))
}

/// What was found, and what is allowed.
type Wrong = (String, String);

fn one(part: &str, unit: Unit) -> Result<Listed, Wrong> {
    let wrong = || (format!("“{part}”"), ALLOWED.to_owned());
    let plain = part.replace(['×', '*'], "x");
    let mut words: Vec<&str> = plain.split_whitespace().collect();
    let upright = take(&mut words, &["upright", "portrait", "high"]);
    let level = take(&mut words, &["level", "landscape", "wide"]);
    let square = take(&mut words, &["square"]);
    take(
        &mut words,
        &["print", "prints", "photo", "photos", "file", "files"],
    );
    let count = count(&mut words).ok_or_else(wrong)?;
    take(&mut words, &["of"]);
    // “4 x 6”, “4x6”, “10x15 cm”, “3 1/2 x 5”.
    let size = words.join(" ");
    let (w, h) = size.split_once('x').unwrap_or((&size, ""));
    let (w, h) = if h.is_empty() && square {
        (w, w)
    } else {
        (w, h)
    };
    let named = Length::unit_in(h.trim());
    let read = |side: &str| {
        let with_unit = match (Length::unit_in(side.trim()), named) {
            (None, Some(_)) => {
                let name = h.trim_start_matches(|c: char| c.is_numeric() || " /.".contains(c));
                format!("{} {name}", side.trim())
            }
            _ => side.trim().to_owned(),
        };
        Length::parse(&with_unit, unit).ok()
    };
    let (w, h) = read(w).zip(read(h)).ok_or_else(wrong)?;
    if [w, h].iter().any(|side| *side < SIDES.0 || *side > SIDES.1) {
        let (least, most) = (SIDES.0.to_text(unit), SIDES.1.to_text(unit));
        return Err((
            format!("“{part}”"),
            format!("a print of {least} to {most} a side"),
        ));
    }
    if [upright, level, square].iter().filter(|s| **s).count() > 1 || square && w != h {
        return Err((
            format!("“{part}”"),
            "upright, level or square, one of them".to_owned(),
        ));
    }
    let size = match (upright, level) {
        (true, _) => Size {
            w: w.min(h),
            h: w.max(h),
        },
        (_, true) => Size {
            w: w.max(h),
            h: w.min(h),
        },
        _ => Size { w, h },
    };
    Ok(Listed { count, size })
}

/// Takes words out of a part: whether one of them was there.
fn take(words: &mut Vec<&str>, of: &[&str]) -> bool {
    let before = words.len();
    words.retain(|w| !of.contains(w));
    words.len() < before
}

/// Takes how many off the front; one where nothing says so.
fn count(words: &mut Vec<&str>) -> Option<u32> {
    let first = *words.first()?;
    let spoken = NUMBERS
        .iter()
        .position(|n| *n == first)
        .map(|n| n as u32 + 1);
    let article = (first == "a" || first == "an").then_some(1);
    // “3 4x6” and “2 of 3x3” say how many; in “4 x 6” and “3 1/2 x 5” the number belongs to the size.
    let digits = first.parse::<u32>().ok().filter(|_| {
        words
            .get(1)
            .is_some_and(|next| *next == "of" || next.contains('x') && next.len() > 1)
    });
    let times = first.strip_suffix('x').and_then(|n| n.parse().ok());
    match spoken.or(article).or(digits).or(times) {
        Some(0) => None,
        Some(count) => {
            words.remove(0);
            Some(count)
        }
        None => Some(1),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(text: &str) -> Vec<(u32, f64, f64)> {
        let listed = listed(text, Unit::Inch).unwrap_or_else(|e| panic!("{text}: {e}"));
        let inches = |l: Length| l.to_units(Unit::Inch);
        listed
            .iter()
            .map(|l| (l.count, inches(l.size.w), inches(l.size.h)))
            .collect()
    }

    #[test]
    fn lists_are_read_as_makers_say_them() {
        assert_eq!(
            read("three 4x6 level, one 5x7 upright, 2 of 3x3"),
            [(3, 6.0, 4.0), (1, 5.0, 7.0), (2, 3.0, 3.0)]
        );
        assert_eq!(
            read("a 4 x 6 upright print and two 3 square"),
            [(1, 4.0, 6.0), (2, 3.0, 3.0)]
        );
        assert_eq!(read("3 1/2 x 5"), [(1, 3.5, 5.0)]);
        assert_eq!(read("4 3x4 photos"), [(4, 3.0, 4.0)]);
        assert_eq!(read("2x 4×6"), [(2, 4.0, 6.0)]);
        let metric = listed("two 10x15 cm level", Unit::Inch).expect("centimetres");
        assert_eq!(
            metric[0].size.w,
            Length::from_units(150.0, Unit::Millimetre).expect("150 mm")
        );
    }

    #[test]
    fn what_is_no_list_is_told_with_what_would_be_one() {
        for (text, said) in [
            ("", "nothing"),
            ("some photos", "some"),
            ("three 4x60", "36 in"),
            ("two 4x6 upright level", "one of them"),
            ("4x5 square", "one of them"),
            ("99 of 4x6, 9 of 3x3", "108 prints"),
            ("0 of 4x6", "0 of 4x6"),
        ] {
            let error = listed(text, Unit::Inch).expect_err(text).to_string();
            assert!(error.contains(said), "{text}: {error}");
        }
    }
}
