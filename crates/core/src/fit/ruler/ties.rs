//! Which edges are one line, and where a line's marks are.

use super::{Line, NOISE};
use crate::fit::model::{Model, Scene};
use crate::fit::qp::{Qp, Row, Sense, Var};
use crate::geometry::Axis;
use crate::reading::INCH;

/// Which variables are one line: a union-find with offsets in ticks.
pub(super) struct Ties {
    parent: Vec<usize>,
    offset: Vec<f64>,
    fixed: Vec<Option<f64>>,
    step: f64,
    /// Where the right page's ruler begins, on a spread.
    fold: f64,
}

impl Ties {
    pub(super) fn new(scene: &Scene<'_>, qp: &Qp, solved: &[f64], step: f64, wishes: bool) -> Ties {
        let n = qp.vars();
        let mut ties = Ties {
            parent: (0..n).collect(),
            offset: vec![0.0; n],
            fixed: vec![None; n],
            step,
            fold: scene.fold().unwrap_or_default() * INCH,
        };
        // Hard ties first: what only should be equal gives way where both can't be.
        for hard in [true, false].into_iter().filter(|hard| *hard || wishes) {
            for row in &qp.rows {
                if row.sense == Sense::Equal
                    && row.penalty.is_none() == hard
                    && row.slack(solved) < NOISE
                {
                    ties.tie(row, hard);
                }
            }
        }
        ties
    }

    fn root(&self, var: Var) -> (usize, f64) {
        let (mut at, mut offset) = (var, 0.0);
        while self.parent[at] != at {
            offset += self.offset[at];
            at = self.parent[at];
        }
        (at, offset)
    }

    /// Whether a place or distance is a whole number of steps, on either page's ruler.
    fn is_on_ruler(&self, ticks: f64) -> bool {
        let on = |t: f64| (t / self.step - (t / self.step).round()).abs() * self.step < 1.0;
        on(ticks) || on(ticks - self.fold)
    }

    /// Takes in `x = rhs` and `x - y = rhs`. What only should be equal is no line with what is held off the ruler (a whole
    /// print's far edge, a pin between two marks): it goes to the nearest mark by itself, which counts as equal too.
    fn tie(&mut self, row: &Row, hard: bool) {
        let rhs = (row.rhs * INCH).round();
        match row.expr.terms[..] {
            [(x, 1.0)] => {
                let (root, offset) = self.root(x);
                if self.fixed[root].is_none() {
                    self.fixed[root] = Some(rhs - offset);
                }
            }
            [(x, 1.0), (y, -1.0)] => {
                let ((rx, ox), (ry, oy)) = (self.root(x), self.root(y));
                if rx == ry {
                    return;
                }
                // x = y + rhs: rx + ox = ry + oy + rhs
                let between = oy + rhs - ox;
                let off = |fixed: Option<f64>| fixed.is_some_and(|at| !self.is_on_ruler(at));
                if !hard
                    && (!self.is_on_ruler(between) || off(self.fixed[rx]) != off(self.fixed[ry]))
                {
                    return;
                }
                match (self.fixed[rx], self.fixed[ry]) {
                    (Some(a), Some(b)) if (a - b - between).abs() > 1.0 => return,
                    (Some(a), None) => self.fixed[ry] = Some(a - between),
                    _ => {}
                }
                self.parent[rx] = ry;
                self.offset[rx] = between;
            }
            _ => {}
        }
    }

    pub(super) fn lines(
        &self,
        scene: &Scene<'_>,
        model: &Model,
        solved: &[f64],
        step: f64,
    ) -> (Vec<Line>, Vec<(usize, f64)>) {
        let n = model.qp.vars();
        let mut owner = vec![None; n];
        for (item, vars) in scene.items.iter().zip(&model.vars) {
            let inner = vars
                .cols
                .iter()
                .chain(&vars.rows)
                .flat_map(|(a, b)| [*a, *b]);
            let across: Vec<Var> = vars.cols.iter().flat_map(|(a, b)| [*a, *b]).collect();
            for var in vars.edges.into_iter().chain(inner) {
                let runs_across =
                    var == vars.edges[0] || var == vars.edges[2] || across.contains(&var);
                let axis = if runs_across { Axis::X } else { Axis::Y };
                owner[var] = Some((item.frames.is_some(), axis));
            }
        }
        let mut line_at = vec![usize::MAX; n];
        let mut lines: Vec<Line> = Vec::new();
        let mut line_of = vec![(0, 0.0); n];
        // What is no mat's edge says where the line's marks are; lines of centres alone go by half steps.
        let mut order: Vec<Var> = (0..n).collect();
        order.sort_by_key(|v| {
            (
                owner[*v].is_none(),
                owner[*v].is_some_and(|(mat, _)| mat),
                *v,
            )
        });
        for var in order {
            let (root, offset) = self.root(var);
            if line_at[root] == usize::MAX {
                line_at[root] = lines.len();
                let wanted = solved[var] * INCH;
                let line = match self.fixed[root] {
                    Some(at) => Line {
                        origin: at,
                        step,
                        steps: 0,
                        fixed: true,
                    },
                    None => {
                        let step = if owner[var].is_none() {
                            step / 2.0
                        } else {
                            step
                        };
                        let zero =
                            owner[var].map_or(0.0, |(_, axis)| ruler_zero(scene, wanted, axis));
                        Line {
                            origin: zero - offset,
                            step,
                            steps: ((wanted - zero) / step).round() as i64,
                            fixed: false,
                        }
                    }
                };
                lines.push(line);
            }
            line_of[var] = (line_at[root], offset);
        }
        (lines, line_of)
    }
}

/// Positions are measured on each page from its left and top edge.
fn ruler_zero(scene: &Scene<'_>, at: f64, axis: Axis) -> f64 {
    match scene.fold() {
        Some(fold) if axis == Axis::X && at > fold * INCH - 1.0 => fold * INCH,
        _ => 0.0,
    }
}
