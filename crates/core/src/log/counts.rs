//! What went wrong over a season, and what the numbers suggest, with how sure.

use super::decisions::{Entry, EntryKind, Wrong};
use crate::length::{Length, Unit};

/// Fewer than this suggest nothing.
const ENOUGH: usize = 3;
/// A tuck is set in eighths.
const STEP: Length = Length::inches(1, 8);
const MOST_TUCK: Length = Length::inches(2, 1);

/// How often something went wrong.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct WrongCount {
    /// What.
    pub what: Wrong,
    /// How often.
    pub count: usize,
}

/// What went wrong, most often first.
pub fn counted<'a>(entries: impl Iterator<Item = &'a Entry>) -> Vec<WrongCount> {
    let mut counts = Wrong::ALL.map(|what| WrongCount { what, count: 0 });
    for entry in entries {
        if let EntryKind::Wrong(what) = entry.kind {
            counts[what as usize].count += 1;
        }
    }
    let mut told: Vec<WrongCount> = counts.into_iter().filter(|c| c.count > 0).collect();
    told.sort_by_key(|c| (std::cmp::Reverse(c.count), c.what));
    told
}

/// Something that could be otherwise from now on.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Suggestion {
    /// Why, with the numbers.
    pub text: String,
    /// How far pieces should reach under their neighbours.
    pub tuck: Option<Length>,
    /// How many of the cases it would have helped.
    pub helps: usize,
    /// Of how many.
    pub of: usize,
}

/// What the numbers suggest. `tuck` is how far pieces reach under their neighbours now.
pub fn suggested<'a>(
    entries: impl Iterator<Item = &'a Entry>,
    tuck: Length,
    unit: Unit,
) -> Vec<Suggestion> {
    let all: Vec<&Entry> = entries.collect();
    let of = |what: Wrong| all.iter().filter(move |e| e.kind == EntryKind::Wrong(what));
    let mut told = Vec::new();
    let short: Vec<Length> = of(Wrong::CutShort).filter_map(|e| e.by).collect();
    if short.len() >= ENOUGH {
        told.extend(longer_tuck(&short, tuck, unit));
    }
    let early = of(Wrong::GluedEarly).count();
    if early >= ENOUGH {
        told.push(Suggestion {
            text: format!("Glued too early {early} times: laying all out dry first would have shown what still goes under."),
            tuck: None,
            helps: early,
            of: early,
        });
    }
    let letters = of(Wrong::LettersLacking).count();
    if letters >= ENOUGH {
        told.push(Suggestion {
            text: format!("Letters were lacking {letters} times: counting a set before its next title tells the Words station what is left."),
            tuck: None,
            helps: letters,
            of: letters,
        });
    }
    told
}

/// A tuck that would have covered what was cut short; none where no sensible one would.
fn longer_tuck(short: &[Length], tuck: Length, unit: Unit) -> Option<Suggestion> {
    let mut sorted = short.to_vec();
    sorted.sort_unstable();
    let longest = *sorted.last()?;
    let wanted = rounded_up(tuck + longest, unit);
    if wanted > MOST_TUCK || longest == Length::ZERO {
        return None;
    }
    let helps = sorted.iter().filter(|s| tuck + **s <= wanted).count();
    Some(Suggestion {
        text: format!(
            "{} pieces came out short, by up to {}. A tuck of {} in place of {} would have covered {} of them.",
            short.len(),
            longest.to_ruler_text(unit),
            wanted.to_ruler_text(unit),
            tuck.to_ruler_text(unit),
            if helps == short.len() {
                "all".to_owned()
            } else {
                helps.to_string()
            },
        ),
        tuck: Some(wanted),
        helps,
        of: short.len(),
    })
}

/// On the ruler, upwards: to eighths of an inch, or millimetres.
fn rounded_up(length: Length, unit: Unit) -> Length {
    let step = match unit {
        Unit::Inch => STEP,
        Unit::Millimetre => Length::from_ticks(Unit::Millimetre.ticks()),
    };
    let down = length.round_to(step);
    if down < length { down + step } else { down }
}
