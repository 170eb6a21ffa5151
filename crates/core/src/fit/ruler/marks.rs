//! Lines put on their marks a few at a time, the rest solved anew each time.
//!
//! Slower than moving lines by steps, and surer: a tilted print at the margin of both axes binds many lines at once, and no
//! single step of theirs is free. (Diving, as integer programming calls it, with one line taken back where a dive ends.)

use super::{Cost, HARD, Lattice};
use crate::fit::qp::{Expr, Pull, Qp, Row, merged};
use crate::reading::INCH;

/// Programmes solved at the most.
const SOLVES: usize = 90;

/// Puts every line on a mark so that the hard rows hold, those named `first` before the others; false, with the lattice as it was, when
/// none was found.
pub(super) fn settle(lattice: &mut Lattice, qp: &Qp, solved: &[f64], first: &[usize]) -> bool {
    let mut at: Vec<Option<f64>> = lattice
        .lines
        .iter()
        .map(|l| l.fixed.then_some(l.origin))
        .collect();
    let mut expected = vec![0.0; lattice.lines.len()];
    for (value, (line, offset)) in solved.iter().zip(&lattice.line_of) {
        expected[*line] = value - offset / INCH;
    }
    let Some(mut found) = over_lines(lattice, qp, &expected, &at) else {
        return false;
    };
    let mut solves = 1;
    loop {
        let mut open: Vec<(f64, usize)> = (0..at.len())
            .filter(|l| at[*l].is_none())
            .map(|l| (lattice.off_mark(l, found[l]), l))
            .collect();
        if open.iter().any(|(_, l)| first.contains(l)) {
            open.retain(|(_, l)| first.contains(l));
        }
        if open.is_empty() {
            break;
        }
        open.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.cmp(&b.1)));
        let mut count = open.len().div_ceil(3);
        loop {
            let mut tried = at.clone();
            open[..count]
                .iter()
                .for_each(|(_, l)| tried[*l] = Some(lattice.mark(*l, found[*l], false)));
            solves += 1;
            if let Some(next) = over_lines(lattice, qp, &found, &tried) {
                (at, found) = (tried, next);
                break;
            }
            if count == 1 {
                let line = open[0].1;
                at[line] = Some(lattice.mark(line, found[line], true));
                solves += 1;
                if let Some(next) = over_lines(lattice, qp, &found, &at) {
                    found = next;
                    break;
                }
                // Neither mark is free: a line that shares a limit with it was put too near, and is taken back.
                let mut taken_back = None;
                for (partner, other) in lattice
                    .partners(line)
                    .into_iter()
                    .filter(|p| at[*p].is_some())
                    .flat_map(|p| [(p, false), (p, true)])
                {
                    if solves > SOLVES {
                        return false;
                    }
                    let mut tried = at.clone();
                    tried[partner] = None;
                    tried[line] = Some(lattice.mark(line, found[line], other));
                    solves += 1;
                    if let Some(next) = over_lines(lattice, qp, &found, &tried) {
                        taken_back = Some((tried, next));
                        break;
                    }
                }
                let Some(next) = taken_back else { return false };
                (at, found) = next;
                break;
            }
            count = count.div_ceil(4);
            if solves > SOLVES {
                return false;
            }
        }
    }
    for (line, at) in at.into_iter().enumerate() {
        let (now, to) = (lattice.at(line), at.unwrap_or_default());
        let by = ((to - now) / lattice.lines[line].step).round() as i64;
        if by != 0 {
            lattice.shift(line, by);
        }
    }
    true
}

impl Lattice {
    /// The lines that share a hard row with a line and are not fixed for good.
    fn partners(&self, line: usize) -> Vec<usize> {
        let is_hard = |t: &&(usize, f64)| {
            matches!(
                self.terms[t.0].cost,
                Cost::Equal(HARD) | Cost::AtLeast(HARD)
            )
        };
        let rows = self.touching[line].iter().filter(is_hard);
        let mut found: Vec<usize> = rows
            .flat_map(|t| &self.terms[t.0].terms)
            .map(|t| t.0)
            .filter(|l| *l != line && !self.lines[*l].fixed)
            .collect();
        found.sort_unstable();
        found.dedup();
        found
    }

    /// How far a place, in inches, is from the line's nearest mark, in steps.
    fn off_mark(&self, line: usize, at: f64) -> f64 {
        let steps = (at * INCH - self.lines[line].origin) / self.lines[line].step;
        (steps - steps.round()).abs()
    }

    /// The line's mark nearest to a place in inches, or the next nearest; in ticks.
    fn mark(&self, line: usize, at: f64, next: bool) -> f64 {
        let l = &self.lines[line];
        let steps = (at * INCH - l.origin) / l.step;
        let nearest = steps.round();
        let other = if steps > nearest {
            nearest + 1.0
        } else {
            nearest - 1.0
        };
        l.origin + l.step * if next { other } else { nearest }
    }
}

/// Solves the program with its lines as variables, some of them at a place (in ticks). All lines, in inches.
fn over_lines(
    lattice: &Lattice,
    qp: &Qp,
    expected: &[f64],
    at: &[Option<f64>],
) -> Option<Vec<f64>> {
    let mut lines = Qp {
        cancel: qp.cancel.clone(),
        ..Qp::default()
    };
    let vars: Vec<Option<usize>> = at
        .iter()
        .zip(expected)
        .map(|(at, near)| at.is_none().then(|| lines.var(*near)))
        .collect();
    let over = |expr: &Expr| {
        let mut constant = 0.0;
        let mut terms = Vec::with_capacity(expr.terms.len());
        for (var, factor) in &expr.terms {
            let (line, offset) = lattice.line_of[*var];
            constant += factor * (offset + at[line].unwrap_or_default()) / INCH;
            terms.extend(vars[line].map(|v| (v, *factor)));
        }
        (
            Expr {
                terms: merged(&terms),
            },
            constant,
        )
    };
    for row in &qp.rows {
        let (expr, constant) = over(&row.expr);
        if expr.terms.is_empty() {
            // Nothing left to move: a hard row holds or it does not.
            let left = Row {
                expr,
                rhs: row.rhs - constant,
                ..row.clone()
            };
            if left.penalty.is_none() && left.slack(&[]) > super::NOISE {
                return None;
            }
            continue;
        }
        lines.rows.push(Row {
            expr,
            rhs: row.rhs - constant,
            ..row.clone()
        });
    }
    for pull in &qp.pulls {
        let (expr, constant) = over(&pull.expr);
        if !expr.terms.is_empty() {
            lines.pulls.push(Pull {
                expr,
                target: pull.target - constant,
                ..pull.clone()
            });
        }
    }
    let solved = if lines.vars() == 0 {
        Vec::new()
    } else {
        lines.solve()?
    };
    let place =
        |line: usize| vars[line].map_or_else(|| at[line].unwrap_or_default() / INCH, |v| solved[v]);
    Some((0..at.len()).map(place).collect())
}
