//! How many pieces of a size one sheet gives, by the trimmer or by a punch or die.

use crate::geometry::Size;
use crate::length::Length;
use crate::stash::{Item, usable};

/// A tick more or less is nothing that a knife knows of.
const HAIR: f64 = 8.0;
/// A punch or die needs so much paper round what it cuts: 1/16 in.
const ROUND_A_PUNCH: f64 = 12_700.0;
/// A punch serves for sizes as near to its own as this: 1/32 in.
const SAME_SIZE: f64 = 6_350.0;
const MOST: f64 = 10_000.0;

fn rows((sheet_w, sheet_h): (f64, f64), (w, h): (f64, f64)) -> f64 {
    ((sheet_w + HAIR) / w).floor() * ((sheet_h + HAIR) / h).floor()
}

fn most((w, h): (f64, f64), sheet: (f64, f64), may_turn: bool) -> u32 {
    if w <= 0.0 || h <= 0.0 {
        return 0;
    }
    let upright = rows(sheet, (w, h));
    let most = if may_turn {
        upright.max(rows(sheet, (h, w)))
    } else {
        upright
    };
    most.clamp(0.0, MOST) as u32
}

fn sides(size: Size) -> (f64, f64) {
    (size.w.ticks() as f64, size.h.ticks() as f64)
}

/// How many pieces of a size one sheet yields, cut row by row.
pub fn yields(item: &Item, piece: Size, may_turn: bool) -> u32 {
    let Some(size) = item.size else { return 0 };
    let sheet = usable(size, item.strip);
    most(sides(piece), (sheet.w(), sheet.h()), may_turn)
}

/// How many of a size a punch or die gives from one sheet, each with paper all round it.
pub fn punched(item: &Item, piece: Size, may_turn: bool) -> u32 {
    let Some(size) = item.size else { return 0 };
    let sheet = usable(size, item.strip);
    punched_of((sheet.w(), sheet.h()), piece, may_turn)
}

/// How many of a size a punch or die gives from a rectangle of paper.
pub fn punched_from(paper: Size, piece: Size, may_turn: bool) -> u32 {
    punched_of(sides(paper), piece, may_turn)
}

fn punched_of((w, h): (f64, f64), piece: Size, may_turn: bool) -> u32 {
    let (pw, ph) = sides(piece);
    let round = ROUND_A_PUNCH;
    most(
        (pw + round, ph + round),
        ((w - round).max(0.0), (h - round).max(0.0)),
        may_turn,
    )
}

impl Item {
    /// Whether this punch or die cuts pieces of a size.
    pub fn punches(&self, size: Size) -> bool {
        let near = |a: Length, b: Length| (a.ticks() - b.ticks()).abs() as f64 <= SAME_SIZE;
        let cuts = |s: &Size, w: Length, h: Length| near(s.w, w) && near(s.h, h);
        let own = &self.tool.cuts;
        own.iter()
            .any(|s| cuts(s, size.w, size.h) || cuts(s, size.h, size.w))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::length::Unit;
    use crate::stash::ItemKind;

    fn square(sixteenths: i64) -> Size {
        Size {
            w: Length::inches(sixteenths, 16),
            h: Length::inches(sixteenths, 16),
        }
    }

    #[test]
    fn a_punch_needs_paper_round_what_it_cuts_and_a_trimmer_none() {
        let sheet = Item::new(ItemKind::Sheet, "Dots".to_owned(), Unit::Inch);
        assert_eq!(yields(&sheet, square(32), true), 36);
        assert_eq!(punched(&sheet, square(32), true), 25);
        assert_eq!(punched_from(square(64), square(32), true), 1);
        assert_eq!(punched_from(square(16), square(32), true), 0);
    }

    #[test]
    fn a_die_serves_for_its_own_size_turned_or_not() {
        let mut die = Item::new(ItemKind::Tool, "Tag die".to_owned(), Unit::Inch);
        die.tool.cuts = vec![Size {
            w: Length::inches(3, 2),
            h: Length::inches(11, 4),
        }];
        let turned = Size {
            w: Length::inches(11, 4),
            h: Length::inches(3, 2),
        };
        assert!(die.punches(turned));
        assert!(!die.punches(square(24)));
    }
}
