//! A title spread like brush writing: each word on a line of its own, from the left top to the right bottom, as near to the words above as their
//! ascenders and descenders let it.

use super::manner::Manner;
use super::placing::{PlacedLine, Proposal};
use super::request::{Align, Lines, Words};
use crate::geometry::{Rect, Size};
use crate::length::Length;
use crate::letters::Case;

/// Sets with small letters, each on its own.
pub(super) fn spread(words: &Words) -> Vec<Proposal> {
    let count = words.each_word().len();
    if count < 2 || words.lines != Lines::Any {
        return Vec::new();
    }
    let with_small = words.sets.iter().filter(|s| s.case != Case::Upper);
    with_small
        .filter_map(|set| {
            let alone = Words {
                align: Align::Left,
                lines: Lines::Count(count),
                space: Size {
                    w: words.space.w,
                    h: Length::LIMIT,
                },
                ..words.alone_in(set)
            };
            spread_out(alone.best(1).pop()?, words)
        })
        .collect()
}

fn spread_out(mut found: Proposal, words: &Words) -> Option<Proposal> {
    let last = found.lines.len() as i64 - 1;
    let mut above: Vec<Rect> = Vec::new();
    for (n, line) in found.lines.iter_mut().enumerate() {
        let ends = line.words.iter().flatten().map(|l| l.rect.right()).max()?;
        let right = Length::from_ticks((words.space.w - ends).ticks() * n as i64 / last);
        let top = line.words.iter().flatten().map(|l| l.rect.y).min()?;
        shift(line, right, Length::ZERO - top);
        // As far down as what stands above any of its letters makes it go.
        let clears = |letter: &Rect, upper: &Rect| upper.bottom() + words.line_gap.least - letter.y;
        let down = line.words.iter().flatten().flat_map(|l| {
            let beside = above.iter().filter(|u| {
                u.x < l.rect.right() + words.gap.least && l.rect.x < u.right() + words.gap.least
            });
            beside.map(move |u| clears(&l.rect, u))
        });
        let down = down.max().unwrap_or_default().max(Length::ZERO);
        shift(line, Length::ZERO, down);
        above.extend(line.words.iter().flatten().map(|l| l.rect));
    }
    let bottom = above.iter().map(|r| r.bottom()).max()?;
    if bottom > words.space.h {
        return None;
    }
    let middle = Length::from_ticks((words.space.h - bottom).ticks() / 2);
    found
        .lines
        .iter_mut()
        .for_each(|line| shift(line, Length::ZERO, middle));
    found.manner = Manner::Spread;
    found.hint = "Lay the longest word first; the others go as near as their tall and hanging letters let them.".to_owned();
    Some(found)
}

fn shift(line: &mut PlacedLine, right: Length, down: Length) {
    line.baseline = line.baseline + down;
    for letter in line.words.iter_mut().flatten() {
        letter.rect.x = letter.rect.x + right;
        letter.rect.y = letter.rect.y + down;
        letter.mark = letter.rect.x;
    }
}
