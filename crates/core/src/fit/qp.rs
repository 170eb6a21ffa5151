//! The fit's convex quadratic program: variables for edges and lines, rows that must or should hold, pulls.
//!
//! minimise  sum of `weight * (terms - target)^2`  +  sum of `penalty * |slack|`  subject to the rows,
//! where a hard row has no slack. Lengths are in inches here, so that all numbers are near one.

use super::reason::Reason;
use crate::Cancel;
use clarabel::algebra::CscMatrix;
use clarabel::solver::{
    DefaultSettingsBuilder, DefaultSolver, IPSolver, NonnegativeConeT, SolverStatus,
    SupportedConeT, ZeroConeT,
};

/// A variable.
pub(crate) type Var = usize;

/// A linear expression.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Expr {
    /// Variable and factor.
    pub(crate) terms: Vec<(Var, f64)>,
}

impl Expr {
    pub(crate) fn of(terms: &[(Var, f64)]) -> Expr {
        Expr {
            terms: terms.to_vec(),
        }
    }

    pub(crate) fn plus(mut self, factor: f64, other: &Expr) -> Expr {
        self.terms
            .extend(other.terms.iter().map(|(v, f)| (*v, f * factor)));
        self
    }

    pub(crate) fn minus(self, other: &Expr) -> Expr {
        self.plus(-1.0, other)
    }

    pub(crate) fn times(mut self, factor: f64) -> Expr {
        self.terms.iter_mut().for_each(|t| t.1 *= factor);
        self
    }

    pub(crate) fn value(&self, at: &[f64]) -> f64 {
        self.terms.iter().map(|(v, f)| f * at[*v]).sum()
    }
}

/// How a row's two sides compare.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Sense {
    /// terms = rhs
    Equal,
    /// terms >= rhs
    AtLeast,
}

/// A row.
#[derive(Clone, Debug)]
pub(crate) struct Row {
    pub(crate) expr: Expr,
    pub(crate) sense: Sense,
    pub(crate) rhs: f64,
    /// The penalty of an inch of slack; none for a hard row.
    pub(crate) penalty: Option<f64>,
    /// What it stands for.
    pub(crate) reason: Reason,
}

impl Row {
    /// How far it is from holding, zero when it holds.
    pub(crate) fn slack(&self, at: &[f64]) -> f64 {
        let off = self.expr.value(at) - self.rhs;
        match self.sense {
            Sense::Equal => off.abs(),
            Sense::AtLeast => (-off).max(0.0),
        }
    }
}

/// A pull: `weight * (expr - target)^2`.
#[derive(Clone, Debug)]
pub(crate) struct Pull {
    pub(crate) expr: Expr,
    pub(crate) target: f64,
    pub(crate) weight: f64,
}

/// A solution.
#[derive(Clone, Debug)]
pub(crate) struct Solved {
    /// The variables.
    pub(crate) at: Vec<f64>,
    /// How hard each row pushes its terms up (down, below zero): the row's multiplier.
    pub(crate) duals: Vec<f64>,
}

/// A whole program.
#[derive(Clone, Debug, Default)]
pub(crate) struct Qp {
    /// Where each variable is expected, which tells the rows that are not worth looking at first.
    pub(crate) expected: Vec<f64>,
    pub(crate) rows: Vec<Row>,
    pub(crate) pulls: Vec<Pull>,
    /// Once it is cancelled there is no solution any more.
    pub(crate) cancel: Cancel,
}

/// A row at least that is expected to hold with this much to spare, in inches, is left out until it fails.
const IDLE: f64 = 0.8;
/// A row that fails by more than this is taken in.
const FAILS: f64 = 1e-5;
/// A hard row that fails by more than this, in inches, does not hold.
const BROKEN: f64 = 2e-4;
/// How often rows are taken in before all are.
const ROUNDS: usize = 4;

impl Qp {
    /// How many variables there are.
    pub(crate) fn vars(&self) -> usize {
        self.expected.len()
    }

    /// A new variable, expected near a place.
    pub(crate) fn var(&mut self, expected: f64) -> Var {
        self.expected.push(expected);
        self.expected.len() - 1
    }

    pub(crate) fn hard(&mut self, expr: Expr, sense: Sense, rhs: f64, reason: Reason) {
        self.rows.push(Row {
            expr,
            sense,
            rhs,
            penalty: None,
            reason,
        });
    }

    pub(crate) fn soft(
        &mut self,
        expr: Expr,
        sense: Sense,
        rhs: f64,
        penalty: f64,
        reason: Reason,
    ) {
        self.rows.push(Row {
            expr,
            sense,
            rhs,
            penalty: Some(penalty),
            reason,
        });
    }

    pub(crate) fn pull(&mut self, expr: Expr, target: f64, weight: f64) {
        self.pulls.push(Pull {
            expr,
            target,
            weight,
        });
    }

    /// Solves it; `None` when the hard rows can't hold together.
    pub(crate) fn solve(&self) -> Option<Vec<f64>> {
        self.solve_with_duals().map(|s| s.at)
    }

    /// Solves it, and tells how hard each row pushes.
    ///
    /// Rows that are expected to hold easily are taken in only once they fail, so that most solves see a fraction of them.
    pub(crate) fn solve_with_duals(&self) -> Option<Solved> {
        let expected_to_hold =
            |r: &Row| r.sense == Sense::AtLeast && r.expr.value(&self.expected) - r.rhs > IDLE;
        let mut idle: Vec<bool> = self.rows.iter().map(expected_to_hold).collect();
        for round in 0.. {
            let rows: Vec<&Row> = self
                .rows
                .iter()
                .zip(&idle)
                .filter(|(_, idle)| !**idle)
                .map(|(r, _)| r)
                .collect();
            let Solved { at, duals: pushing } = self.solve_rows(&rows)?;
            let mut complete = true;
            for (row, idle) in self.rows.iter().zip(&mut idle) {
                if *idle && (round == ROUNDS || row.slack(&at) > FAILS) {
                    *idle = false;
                    complete = false;
                }
            }
            if complete {
                // Left-out rows push nothing.
                let mut pushing = pushing.into_iter();
                let duals = idle
                    .iter()
                    .map(|idle| {
                        if *idle {
                            0.0
                        } else {
                            pushing.next().unwrap_or_default()
                        }
                    })
                    .collect();
                return Some(Solved { at, duals });
            }
        }
        None
    }

    /// One program with some of the rows. Refining the solver's linear systems costs two fifths of its time and is
    /// hardly ever needed: only what fails without is tried with.
    fn solve_rows(&self, rows: &[&Row]) -> Option<Solved> {
        self.run_solver(rows, false)
            .or_else(|| self.run_solver(rows, true))
    }

    fn run_solver(&self, rows: &[&Row], refine: bool) -> Option<Solved> {
        if self.cancel.is_cancelled() {
            return None;
        }
        let slacks = rows.iter().filter(|r| r.penalty.is_some()).count();
        let n = self.vars() + slacks;
        let (objective, linear) = self.objective(rows, n);
        let (matrix, rhs, cones) = self.constraints(rows, n);
        let settings = DefaultSettingsBuilder::default()
            .verbose(false)
            .max_iter(120)
            .iterative_refinement_enable(refine)
            .tol_gap_abs(1e-7)
            .tol_gap_rel(1e-7)
            .tol_feas(1e-7)
            .build()
            .expect("fixed settings are valid");
        let mut solver =
            DefaultSolver::new(&objective, &linear, &matrix, &rhs, &cones, settings).ok()?;
        solver.solve();
        let accepted = match solver.solution.status {
            SolverStatus::Solved => true,
            SolverStatus::AlmostSolved => refine,
            _ => false,
        };
        let at = &solver.solution.x[..self.vars()];
        // Next to what is impossible the solver may be content with rows that hold almost: a limit may not.
        let holds = || {
            rows.iter()
                .all(|r| r.penalty.is_some() || r.slack(at) <= BROKEN)
        };
        (accepted && holds()).then(|| Solved {
            at: at.to_vec(),
            duals: duals(rows, &solver.solution.z),
        })
    }

    /// Whether some of its hard rows can hold together, with nothing asked for.
    pub(crate) fn is_possible(&self, rows: &[usize]) -> bool {
        let rows: Vec<Row> = rows
            .iter()
            .map(|r| Row {
                penalty: None,
                ..self.rows[*r].clone()
            })
            .collect();
        let pulls = (0..self.vars())
            .map(|v| Pull {
                expr: Expr::of(&[(v, 1.0)]),
                target: self.expected[v],
                weight: 1e-4,
            })
            .collect();
        Qp {
            expected: self.expected.clone(),
            rows,
            pulls,
            cancel: self.cancel.clone(),
        }
        .solve()
        .is_some()
    }

    /// Upper triangle of twice the pulls' squares, and the linear part with the penalties of slack.
    fn objective(&self, rows: &[&Row], n: usize) -> (CscMatrix<f64>, Vec<f64>) {
        let (mut i, mut j, mut v) = (Vec::new(), Vec::new(), Vec::new());
        let mut linear = vec![0.0; n];
        for pull in &self.pulls {
            let terms = merged(&pull.expr.terms);
            for (k, (a, fa)) in terms.iter().enumerate() {
                linear[*a] -= 2.0 * pull.weight * pull.target * fa;
                for (b, fb) in &terms[k..] {
                    i.push(*a);
                    j.push(*b);
                    v.push(2.0 * pull.weight * fa * fb);
                }
            }
        }
        let prices = rows.iter().filter_map(|r| r.penalty);
        linear[self.vars()..]
            .iter_mut()
            .zip(prices)
            .for_each(|(slot, penalty)| *slot = penalty);
        (CscMatrix::new_from_triplets(n, n, i, j, v), linear)
    }

    /// `matrix x + s = rhs`, s in the cones: hard equalities first, then everything that is at least.
    ///
    /// A soft equality is two rows with one slack, `-t <= terms - rhs <= t`.
    fn constraints(
        &self,
        rows: &[&Row],
        n: usize,
    ) -> (CscMatrix<f64>, Vec<f64>, Vec<SupportedConeT<f64>>) {
        let (mut i, mut j, mut v, mut rhs) = (Vec::new(), Vec::new(), Vec::new(), Vec::new());
        let mut put = |row: &Row, slack: Option<Var>, sign: f64| {
            let at = rhs.len();
            let terms = merged(&row.expr.terms)
                .into_iter()
                .map(|(var, factor)| (var, sign * factor));
            for (var, factor) in terms.chain(slack.map(|s| (s, -1.0))) {
                i.push(at);
                j.push(var);
                v.push(factor);
            }
            rhs.push(sign * row.rhs);
        };
        let is_hard_equality = |r: &Row| r.penalty.is_none() && r.sense == Sense::Equal;
        rows.iter()
            .filter(|r| is_hard_equality(r))
            .for_each(|r| put(r, None, 1.0));
        let mut next = self.vars();
        for row in rows.iter().filter(|r| !is_hard_equality(r)) {
            let slack = row.penalty.map(|_| next);
            next += usize::from(slack.is_some());
            put(row, slack, -1.0);
            if row.sense == Sense::Equal {
                put(row, slack, 1.0);
            }
        }
        let equalities = rows.iter().filter(|r| is_hard_equality(r)).count();
        for slack in self.vars()..n {
            i.push(rhs.len());
            j.push(slack);
            v.push(-1.0);
            rhs.push(0.0);
        }
        let total = rhs.len();
        (
            CscMatrix::new_from_triplets(total, n, i, j, v),
            rhs,
            vec![ZeroConeT(equalities), NonnegativeConeT(total - equalities)],
        )
    }
}

/// The multipliers as forces of the rows: so much each pushes its terms up, hard equalities first in the solver's own order.
fn duals(rows: &[&Row], multipliers: &[f64]) -> Vec<f64> {
    let is_hard_equality = |r: &Row| r.penalty.is_none() && r.sense == Sense::Equal;
    let mut hard = 0;
    let mut rest = rows.iter().filter(|r| is_hard_equality(r)).count();
    let next = |at: &mut usize| {
        *at += 1;
        multipliers.get(*at - 1).copied().unwrap_or_default()
    };
    (rows.iter())
        .map(|row| {
            if is_hard_equality(row) {
                return -next(&mut hard);
            }
            let up = next(&mut rest);
            if row.sense == Sense::Equal {
                up - next(&mut rest)
            } else {
                up
            }
        })
        .collect()
}

/// Terms with each variable once, in ascending order, without those that cancel.
pub(crate) fn merged(terms: &[(Var, f64)]) -> Vec<(Var, f64)> {
    let mut sorted = terms.to_vec();
    sorted.sort_by_key(|t| t.0);
    let mut once: Vec<(Var, f64)> = Vec::with_capacity(sorted.len());
    for (var, factor) in sorted {
        match once.last_mut() {
            Some(last) if last.0 == var => last.1 += factor,
            _ => once.push((var, factor)),
        }
    }
    once.retain(|t| t.1.abs() > 1e-12);
    once
}

#[cfg(test)]
mod tests {
    use super::super::reason::Wish;
    use super::*;
    use proptest::prelude::*;

    const WISH: Reason = Reason::Wish(Wish::Line, 0, 0);

    fn one(target: f64, weight: f64) -> Qp {
        let mut qp = Qp::default();
        let x = qp.var(target);
        qp.pull(Expr::of(&[(x, 1.0)]), target, weight);
        qp
    }

    fn near(found: f64, expected: f64) {
        assert!((found - expected).abs() < 1e-4, "{found} for {expected}");
    }

    #[test]
    fn a_pull_alone_gets_what_it_wants() {
        near(one(3.0, 2.0).solve().unwrap()[0], 3.0);
    }

    #[test]
    fn pulls_share_by_their_weights() {
        let mut qp = one(0.0, 1.0);
        qp.pull(Expr::of(&[(0, 1.0)]), 4.0, 3.0);
        near(qp.solve().unwrap()[0], 3.0);
    }

    #[test]
    fn a_hard_row_holds_and_pushes_as_hard_as_it_is_pulled() {
        let mut qp = one(1.0, 5.0);
        qp.hard(
            Expr::of(&[(0, 1.0)]),
            Sense::AtLeast,
            2.0,
            Reason::Margin(0),
        );
        let solved = qp.solve_with_duals().unwrap();
        near(solved.at[0], 2.0);
        // The slope of 5 (x - 1)^2 at 2.
        assert!((solved.duals[0] - 10.0).abs() < 1e-2, "{:?}", solved.duals);
    }

    #[test]
    fn a_row_that_holds_anyway_pushes_nothing() {
        let mut qp = one(3.0, 5.0);
        qp.hard(
            Expr::of(&[(0, 1.0)]),
            Sense::AtLeast,
            2.0,
            Reason::Margin(0),
        );
        qp.hard(
            Expr::of(&[(0, -1.0)]),
            Sense::AtLeast,
            -9.0,
            Reason::Margin(0),
        );
        let solved = qp.solve_with_duals().unwrap();
        near(solved.at[0], 3.0);
        assert!(
            solved.duals.iter().all(|f| f.abs() < 1e-3),
            "{:?}",
            solved.duals
        );
    }

    #[test]
    fn a_soft_row_gives_way_where_the_slope_passes_its_price() {
        // (x - 0)^2 with the wish x = 5 at 4 an inch: the slope 2 x is 4 at 2.
        for (penalty, at) in [(4.0, 2.0), (1.0, 0.5), (100.0, 5.0)] {
            let mut qp = one(0.0, 1.0);
            qp.soft(Expr::of(&[(0, 1.0)]), Sense::Equal, 5.0, penalty, WISH);
            near(qp.solve().unwrap()[0], at);
        }
    }

    #[test]
    fn hard_rows_that_clash_have_no_solution() {
        let mut qp = one(0.0, 1.0);
        qp.hard(
            Expr::of(&[(0, 1.0)]),
            Sense::AtLeast,
            2.0,
            Reason::Margin(0),
        );
        qp.hard(
            Expr::of(&[(0, -1.0)]),
            Sense::AtLeast,
            -1.0,
            Reason::Margin(0),
        );
        assert!(qp.solve().is_none());
        assert!(!qp.is_possible(&[0, 1]) && qp.is_possible(&[0]) && qp.is_possible(&[1]));
        // The same as a wish costs, and holds as far as it may.
        qp.rows[1].penalty = Some(3.0);
        near(qp.solve().unwrap()[0], 2.0);
    }

    #[test]
    fn terms_are_merged_once_each() {
        assert_eq!(
            merged(&[(3, 1.0), (1, 2.0), (3, -1.0), (1, 0.5)]),
            [(1, 2.5)]
        );
        assert_eq!(merged(&[]), []);
    }

    #[test]
    fn expressions_add_up() {
        let expr = Expr::of(&[(0, 1.0)])
            .plus(2.0, &Expr::of(&[(1, 3.0)]))
            .minus(&Expr::of(&[(0, 4.0)]))
            .times(0.5);
        near(expr.value(&[2.0, 1.0]), (2.0 + 6.0 - 8.0) / 2.0);
    }

    proptest! {
        /// Rows that are left out at first because they are expected to hold are all held to in the end.
        #[test]
        fn rows_left_out_at_first_hold(targets in proptest::collection::vec(-5.0..5.0_f64, 2..12), expected in -20.0..20.0_f64) {
            let mut qp = Qp::default();
            for target in &targets {
                let x = qp.var(*target);
                qp.pull(Expr::of(&[(x, 1.0)]), *target, 1.0);
            }
            // Each at least an inch beyond the one before; what is expected says nothing true.
            for n in 1..targets.len() {
                qp.hard(Expr::of(&[(n, 1.0), (n - 1, -1.0)]), Sense::AtLeast, 1.0, Reason::Apart(n - 1, n));
                qp.expected[n] = expected * n as f64;
            }
            let at = qp.solve().unwrap();
            prop_assert!(at.windows(2).all(|w| w[1] - w[0] > 1.0 - 1e-3), "{at:?}");
            let mean = |of: &[f64]| of.iter().sum::<f64>() / of.len() as f64;
            // Differences alone are bound: the whole stays where it is pulled.
            prop_assert!((mean(&at) - mean(&targets)).abs() < 1e-3);
        }
    }
}
