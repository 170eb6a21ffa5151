//! Chains of steps: what a step puts out of true is put right by the next, until nothing is worse than before.
//!
//! Blocks on one centre line share the parity of their edges' marks, so that a single step that puts one of them in the middle puts others
//! out of it. (An ejection chain, after Glover 1996: each link is the cheapest that mends the first row out of true, no line moves twice,
//! and a chain is kept as soon as the cost has fallen.)

use super::{Cost, Lattice, Steps, TRUE};
use crate::reading::INCH;
use std::collections::VecDeque;

/// Links of a chain at the most.
const LINKS: usize = 24;
/// Wishes that cost no more an inch have been let go of.
const LET_GO: f64 = 5.0;
/// No link moves a line by more steps.
const MOST_STEPS: i64 = 2;
/// Passes over all rows at the most.
const PASSES: usize = 6;

impl Lattice {
    /// Mends wishes for equality that rounding has put out of true, and improves what that opens up, by turns.
    pub(super) fn mend(&mut self) {
        for _ in 0..PASSES {
            let mut mended = false;
            for row in (0..self.terms.len())
                .filter(|t| self.is_untrue(*t))
                .collect::<Vec<_>>()
            {
                for first in self.links(row) {
                    if self.is_untrue(row) {
                        mended |= self.chain(row, first);
                    }
                }
            }
            if !mended {
                return;
            }
            self.improve();
        }
    }

    /// Whether any wished equality is not true.
    pub(super) fn has_untrue(&self) -> bool {
        (0..self.terms.len()).any(|t| self.is_untrue(t))
    }

    /// Whether a wished equality is not true.
    fn is_untrue(&self, term: usize) -> bool {
        matches!(self.terms[term].cost, Cost::Wish(penalty, _) if penalty > LET_GO)
            && self.off[term].abs() > TRUE
    }

    /// The steps of one line each that would make a row true.
    fn links(&self, row: usize) -> Steps {
        let by = |(line, factor): &(usize, f64)| {
            let l = &self.lines[*line];
            let steps = -self.off[row] * INCH / (factor * l.step);
            let whole = steps.round() as i64;
            (!l.fixed
                && whole != 0
                && whole.abs() <= MOST_STEPS
                && (steps - whole as f64).abs() < 1e-3)
                .then_some((*line, whole))
        };
        self.terms[row].terms.iter().filter_map(by).collect()
    }

    /// A chain that begins with a step; taken back when the cost has not fallen at its end.
    fn chain(&mut self, row: usize, first: (usize, i64)) -> bool {
        let mut done: Steps = Vec::new();
        let mut open = VecDeque::from([row]);
        let mut next = Some(first);
        let mut added = 0.0;
        while let Some((line, by)) = next.filter(|_| done.len() < LINKS) {
            added += self.shift(line, by);
            done.push((line, by));
            if added < -1e-7 {
                return true;
            }
            open.extend(
                self.touching[line]
                    .iter()
                    .map(|t| t.0)
                    .filter(|t| self.is_untrue(*t)),
            );
            next = None;
            while let Some(row) = open.front().copied() {
                if !self.is_untrue(row) {
                    open.pop_front();
                    continue;
                }
                let free: Steps = self
                    .links(row)
                    .into_iter()
                    .filter(|(l, _)| done.iter().all(|d| d.0 != *l))
                    .collect();
                let costs: Vec<(f64, (usize, i64))> = free
                    .into_iter()
                    .map(|step| (self.cost_of(step), step))
                    .collect();
                next = costs
                    .into_iter()
                    .min_by(|a, b| a.0.total_cmp(&b.0))
                    .map(|(_, step)| step);
                if next.is_some() {
                    break;
                }
                // Nothing in this row may move any more: it stays untrue, and counts.
                open.pop_front();
            }
        }
        for (line, by) in done {
            self.shift(line, -by);
        }
        false
    }

    /// What a step would add to the cost.
    fn cost_of(&mut self, (line, by): (usize, i64)) -> f64 {
        let added = self.shift(line, by);
        self.shift(line, -by);
        added
    }
}
