//! Where the fold comes in what it breaks: between two units of a grid, between two words of a title.

use super::wishes::penalty;
use super::{Model, Scene, Side, inches};
use crate::fit::fold_choice::{FoldChoice, FoldWay};
use crate::fit::item::Item;
use crate::fit::qp::{Expr, Sense};
use crate::fit::reason::{Reason, Wish};
use crate::reading::{HAIR, INCH};
use num_integer::Integer;

/// How hard the middle of a gap between units is pulled to the fold, per squared inch.
const MIDDLE: f64 = 4.0;
/// The most of a space, on either side of the fold, that the guard takes: some play is left for the ruler.
const GUARD_SHARE: f64 = 0.4;

/// Of a grid over the fold: how many of its columns lie on the left page, of how many, and the gap between them in inches.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Break {
    pub(crate) left: u32,
    pub(crate) cols: u32,
    pub(crate) gap: f64,
}

impl Break {
    /// The middle of the gap that comes at the fold, as shares of the grid's left and right edge and a rest in inches. Before the first and
    /// behind the last unit it is the edge itself.
    fn middle(self) -> (f64, f64, f64) {
        let share = f64::from(self.left) / f64::from(self.cols);
        let rest = if self.left == 0 || self.left == self.cols {
            0.0
        } else {
            self.gap * (share - 0.5)
        };
        (1.0 - share, share, rest)
    }

    /// How far that middle is from a fold, for a grid between two edges; all in inches.
    pub(crate) fn off(self, left: f64, right: f64, fold: f64) -> f64 {
        let (l, r, rest) = self.middle();
        l * left + r * right + rest - fold
    }

    /// Steps of the left and right edge that bring that middle nearer to the fold by as little as can be, and steps that leave it: with both,
    /// every place on the ruler can be come by.
    pub(crate) fn steps(self) -> [(i64, i64); 2] {
        let (right, left) = (i64::from(self.left), i64::from(self.cols - self.left));
        let found = left.extended_gcd(&right);
        [(found.x, found.y), (-right / found.gcd, left / found.gcd)]
    }

    /// How far the fold may be from that middle, and still come between the units.
    pub(crate) fn give(self) -> f64 {
        if self.left == 0 || self.left == self.cols {
            0.0
        } else {
            self.gap / 2.0
        }
    }
}

impl Scene<'_> {
    /// Where a grid is broken by the fold, if it stands over it. A sketch of two pages that has the fold inside a unit means it so.
    pub(crate) fn unit_break(&self, item: &Item) -> Option<Break> {
        let (grid, drawn_grid) = item.grid?;
        let fold = self.fold()?;
        if item.is_tilted() {
            return None;
        }
        let columns = |g: crate::sketch::Grid| if item.on_its_side() { g.rows } else { g.cols };
        let broken = |span: crate::geometry::Span, cols: u32, fold: f64| {
            let gap = grid.gap.ticks() as f64 / INCH;
            let left = ((fold - span.l + gap / 2.0) / (span.w() + gap) * f64::from(cols))
                .round()
                .clamp(0.0, f64::from(cols));
            (span.l < fold - HAIR / INCH && fold + HAIR / INCH < span.r).then_some(Break {
                left: left as u32,
                cols,
                gap,
            })
        };
        if self.sketch.canvas.pages == 2 {
            let (span, fold) = (
                inches(item.drawn),
                self.sketch.canvas.page.w.ticks() as f64 / INCH,
            );
            let drawn = broken(span, columns(drawn_grid), fold)?;
            if drawn.off(span.l, span.r, fold).abs() > drawn.give() + HAIR / INCH {
                return None;
            }
        }
        broken(inches(item.want), columns(grid), fold)
    }

    /// The choice that lets an item run across the fold between its words.
    pub(crate) fn runs_across(&self, item: &Item) -> Option<&FoldChoice> {
        let id = &self.sketch.blocks[item.from[0]].id;
        self.request
            .at_fold
            .iter()
            .find(|c| c.way == FoldWay::Across && c.block == *id)
    }

    /// The middles of the spaces between the words of a title that may run across the fold, as shares of its width.
    pub(super) fn word_gaps(&self, item: &Item) -> Vec<f64> {
        let choice = self.runs_across(item).filter(|_| item.turn == 0.0);
        choice
            .map(|c| {
                c.spaces()
                    .into_iter()
                    .map(|(begin, end)| f64::midpoint(begin, end))
                    .collect()
            })
            .unwrap_or_default()
    }
}

/// The rows and pulls of what the fold breaks.
pub(super) fn add(model: &mut Model, scene: &Scene<'_>, sides: &[Option<Side>]) {
    let Some(fold) = scene.fold() else { return };
    for (n, item) in scene.items.iter().enumerate() {
        if let Some(at) = scene.unit_break(item) {
            between_units(model, n, at, fold);
        }
        if let (Some(Side::Through(gap)), Some(choice)) = (sides[n], scene.runs_across(item)) {
            // What a refit holds may come from a title that had more words.
            let spaces = choice.spaces();
            if let Some(space) = spaces.get(usize::from(gap)).or(spaces.last()) {
                between_words(model, scene, n, *space, fold);
            }
        }
    }
}

/// The fold passes through a gap of the grid, best through its middle.
fn between_units(model: &mut Model, n: usize, at: Break, fold: f64) {
    let [left, _, right, _] = model.vars[n].edges;
    let (l, r, rest) = at.middle();
    let middle = Expr::of(
        &[(left, l), (right, r)]
            .into_iter()
            .filter(|t| t.1 != 0.0)
            .collect::<Vec<_>>(),
    );
    let reason = Reason::Wish(Wish::Unit, n, n);
    if at.give() > 0.0 {
        model.qp.soft(
            middle.clone(),
            Sense::AtLeast,
            fold - rest - at.give(),
            penalty::UNIT,
            reason,
        );
        model.qp.soft(
            middle.clone().times(-1.0),
            Sense::AtLeast,
            rest - fold - at.give(),
            penalty::UNIT,
            reason,
        );
    } else {
        model.qp.soft(
            middle.clone(),
            Sense::Equal,
            fold - rest,
            penalty::UNIT,
            reason,
        );
    }
    model.qp.pull(middle, fold - rest, MIDDLE);
}

/// The fold passes through a space of the title; off the letters by the guard where the space is wide enough, and best through its middle.
fn between_words(
    model: &mut Model,
    scene: &Scene<'_>,
    n: usize,
    (begin, end): (f64, f64),
    fold: f64,
) {
    let [left, _, right, _] = model.vars[n].edges;
    let guard = scene.request.fold_guard.ticks() as f64 / scene.items[n].want.w();
    let off = guard.min((end - begin) * GUARD_SHARE);
    let at = |share: f64| Expr::of(&[(left, 1.0 - share), (right, share)]);
    model.qp.hard(
        at(begin).times(-1.0),
        Sense::AtLeast,
        -fold,
        Reason::Fold(n),
    );
    model
        .qp
        .hard(at(end), Sense::AtLeast, fold, Reason::Fold(n));
    let reason = Reason::Wish(Wish::Unit, n, n);
    model.qp.soft(
        at(begin + off).times(-1.0),
        Sense::AtLeast,
        -fold,
        penalty::UNIT,
        reason,
    );
    model
        .qp
        .soft(at(end - off), Sense::AtLeast, fold, penalty::UNIT, reason);
    model.qp.pull(at(f64::midpoint(begin, end)), fold, MIDDLE);
}

#[cfg(test)]
mod tests {
    use super::Break;

    #[test]
    fn the_middle_of_a_gap_lies_between_the_units() {
        // Four units of 1 in with gaps of 1/4 in, from 2 in: the second gap from 4 1/4 to 4 1/2.
        let at = Break {
            left: 2,
            cols: 4,
            gap: 0.25,
        };
        let right = 2.0 + 4.0 + 0.75;
        assert!(at.off(2.0, right, 4.375).abs() < 1e-12);
        assert!((at.off(2.0, right, 4.0) - 0.375).abs() < 1e-12);
        assert!((at.give() - 0.125).abs() < 1e-12);
    }

    #[test]
    fn before_the_first_and_behind_the_last_unit_it_is_the_edge() {
        for (left, fold) in [(0, 2.0), (4, 6.75)] {
            let at = Break {
                left,
                cols: 4,
                gap: 0.25,
            };
            assert!(at.off(2.0, 6.75, fold).abs() < 1e-12 && at.give() == 0.0);
        }
    }

    #[test]
    fn steps_reach_every_place_on_the_ruler() {
        for cols in 1..=24_u32 {
            for left in 0..=cols {
                let [nearer, level] = Break {
                    left,
                    cols,
                    gap: 0.0,
                }
                .steps();
                let moved = |(l, r): (i64, i64)| l * i64::from(cols - left) + r * i64::from(left);
                // The first moves the break by the least that whole steps can, the second not at all.
                assert_eq!(
                    moved(nearer),
                    num_integer::gcd(i64::from(left), i64::from(cols)),
                    "{left} of {cols}"
                );
                assert_eq!(moved(level), 0);
                assert_ne!(level, (0, 0));
            }
        }
    }
}
