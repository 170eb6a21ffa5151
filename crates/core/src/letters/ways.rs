//! Ways to come by a letter that is used up: another one turned, trimmed, or built upon.

use super::Glyph;
use crate::length::Length;

/// What is done to a letter so that it says another.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Doing {
    /// A quarter turn: it is then as wide as it was high.
    QuarterTurn,
    /// Stood on its head.
    HalfTurn,
    /// Something is cut off.
    Trim,
    /// Something is added.
    Build,
}

impl Doing {
    /// What it costs, in shares of 1/10 000: a turn shows least, a trim takes a blade, building takes a second piece.
    pub const fn cost(self) -> i64 {
        match self {
            Doing::QuarterTurn | Doing::HalfTurn => 10_000,
            Doing::Trim => 20_000,
            Doing::Build => 30_000,
        }
    }
}

/// A way that works for most alphabets.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Way {
    /// What is wanted.
    pub letter: char,
    /// Out of what.
    pub of: char,
    /// What is done.
    pub doing: Doing,
    /// How, as a maker would say it.
    pub how: &'static str,
}

const fn way(letter: char, of: char, doing: Doing, how: &'static str) -> Way {
    Way {
        letter,
        of,
        doing,
        how,
    }
}

/// The ways that work for most alphabets.
pub const WAYS: [Way; 27] = {
    use Doing::{Build, HalfTurn, QuarterTurn, Trim};
    [
        way('N', 'Z', QuarterTurn, "a quarter turn"),
        way('Z', 'N', QuarterTurn, "a quarter turn"),
        way('u', 'n', HalfTurn, "stood on its head"),
        way('n', 'u', HalfTurn, "stood on its head"),
        way('d', 'p', HalfTurn, "stood on its head"),
        way('p', 'd', HalfTurn, "stood on its head"),
        way('b', 'q', HalfTurn, "stood on its head"),
        way('q', 'b', HalfTurn, "stood on its head"),
        way('W', 'M', HalfTurn, "stood on its head"),
        way('M', 'W', HalfTurn, "stood on its head"),
        way('6', '9', HalfTurn, "stood on its head"),
        way('9', '6', HalfTurn, "stood on its head"),
        way('I', 'J', Trim, "the hook cut off"),
        way('I', 'T', Trim, "the bar cut off"),
        way('I', 'L', Trim, "the foot cut off"),
        way('L', 'E', Trim, "the two upper arms cut off"),
        way('L', 'D', Trim, "the bowl cut off, the foot left"),
        way('R', 'B', Trim, "the lower bowl opened to a leg"),
        way('P', 'R', Trim, "the leg cut off"),
        way('P', 'B', Trim, "the lower bowl cut off"),
        way('F', 'E', Trim, "the foot cut off"),
        way('C', 'O', Trim, "a piece cut out of its right side"),
        way('O', 'Q', Trim, "the tail cut off"),
        way('A', 'V', Build, "stood on its head, with a small bar"),
        way('E', 'F', Build, "with a bar from a scrap as its foot"),
        way('\'', 'A', Build, "cut from its middle"),
        way('i', 'l', Build, "shortened, with a dot from a brad"),
    ]
};

impl Way {
    /// How large the letter is when it is made so out of `of`; `own` is what it would be from its own sheet.
    pub(super) fn glyph(self, of: Glyph, own: Glyph) -> Glyph {
        let total = of.h + of.below;
        match self.doing {
            Doing::QuarterTurn => Glyph {
                w: of.h,
                h: of.w,
                below: Length::ZERO,
            },
            Doing::HalfTurn if own.below > Length::ZERO => Glyph {
                w: of.w,
                h: own.h.min(total),
                below: (total - own.h).max(Length::ZERO),
            },
            Doing::HalfTurn => Glyph {
                w: of.w,
                h: total,
                below: Length::ZERO,
            },
            Doing::Trim => Glyph {
                w: own.w.min(of.w),
                h: own.h,
                below: own.below,
            },
            Doing::Build if self.letter == '\'' => own,
            Doing::Build => Glyph {
                w: of.w,
                h: of.h,
                below: of.below,
            },
        }
    }
}
