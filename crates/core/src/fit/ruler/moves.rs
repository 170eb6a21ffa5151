//! The moves that the search on the ruler tries.

use super::{Cost, Line, Term};
use crate::fit::model::{Model, Scene};
use crate::fit::qp::Var;

/// Single lines; both edges of an item; both sides of a round one; a grid by one step a unit, and so that the
/// fold stays between its units; lines that share an equality.
pub(super) fn moves(
    scene: &Scene<'_>,
    model: &Model,
    lines: &[Line],
    line_of: &[(usize, f64)],
    terms: &[Term],
) -> Vec<Vec<(usize, i64)>> {
    let mut found: Vec<Vec<(usize, i64)>> = (0..lines.len()).map(|l| vec![(l, 1)]).collect();
    for (item, vars) in scene.items.iter().zip(&model.vars) {
        let [l, t, r, b] = vars.edges.map(|v| line_of[v].0);
        found.extend([
            vec![(l, 1), (r, 1)],
            vec![(t, 1), (b, 1)],
            vec![(r, 1), (b, 1)],
            vec![(l, 1), (t, 1)],
            vec![(r, 1), (t, 1)],
            vec![(l, 1), (b, 1)],
        ]);
        found.extend([
            vec![(l, -1), (r, 1)],
            vec![(t, -1), (b, 1)],
            vec![(l, -1), (r, 1), (t, -1), (b, 1)],
        ]);
        for runs in [&vars.cols, &vars.rows].into_iter().filter(|r| r.len() > 1) {
            // All prints of a split slot grow by one step, from its one end or from its other.
            let far = |(n, run): (usize, &(Var, Var))| (line_of[run.1].0, n as i64 + 1);
            let near =
                |(n, run): (usize, &(Var, Var))| (line_of[run.0].0, n as i64 - runs.len() as i64);
            found.push(runs.iter().enumerate().map(far).collect());
            found.push(runs.iter().enumerate().map(near).collect());
        }
        if let Some((grid, _)) = item.grid {
            let (cols, rows) = if item.on_its_side() {
                (grid.rows, grid.cols)
            } else {
                (grid.cols, grid.rows)
            };
            let (cols, rows) = (i64::from(cols), i64::from(rows));
            found.extend([
                vec![(r, cols), (b, rows)],
                vec![(l, cols), (t, rows)],
                vec![(r, cols)],
                vec![(b, rows)],
                vec![(l, cols)],
                vec![(t, rows)],
            ]);
            if let Some(at) = scene.unit_break(item) {
                found.extend(at.steps().map(|(left, right)| vec![(l, left), (r, right)]));
            }
        }
    }
    for kept in 0..scene.items.len() {
        for at in 0..4 {
            // The line of one item's edge moves, and what else stands on it moves along whole.
            let line = line_of[model.vars[kept].edges[at]].0;
            let along = model
                .vars
                .iter()
                .enumerate()
                .filter(|(n, v)| *n != kept && line_of[v.edges[at]].0 == line);
            let opposite: Vec<(usize, i64)> = along
                .map(|(_, v)| (line_of[v.edges[(at + 2) % 4]].0, 1))
                .filter(|(l, _)| *l != line)
                .collect();
            if !opposite.is_empty() {
                found.push(std::iter::once((line, 1)).chain(opposite).collect());
            }
        }
    }
    for term in terms.iter().filter(|t| {
        matches!(t.cost, Cost::Equal(_) | Cost::Wish(..)) && (2..=4).contains(&t.terms.len())
    }) {
        for (n, (a, fa)) in term.terms.iter().enumerate() {
            for (b, fb) in &term.terms[n + 1..] {
                found.push(vec![(*a, 1), (*b, if fa * fb < 0.0 { 1 } else { -1 })]);
            }
        }
    }
    for m in &mut found {
        m.sort_unstable();
        m.dedup();
    }
    found.iter_mut().for_each(|m| m.retain(|(_, by)| *by != 0));
    found.retain(|m| {
        !m.is_empty()
            && m.iter().all(|(l, _)| !lines[*l].fixed)
            && m.windows(2).all(|w| w[0].0 != w[1].0)
    });
    found.sort_by_key(|m| (m.len(), m.clone()));
    found.dedup();
    found
}
