//! The moves that the search on the ruler tries.

use super::{Cost, Line, Term};
use crate::fit::item::Item;
use crate::fit::model::{Model, Scene};
use crate::fit::qp::Var;

/// A move: lines, and by how many steps each.
type Move = Vec<(usize, i64)>;

/// Single lines; both edges of an item; both sides of a round one; a grid by one step a unit, and so that the
/// fold stays between its units; lines that share an equality.
pub(super) fn moves(
    scene: &Scene<'_>,
    model: &Model,
    lines: &[Line],
    line_of: &[(usize, f64)],
    terms: &[Term],
) -> Vec<Move> {
    let mut found: Vec<Move> = (0..lines.len()).map(|l| vec![(l, 1)]).collect();
    for (item, vars) in scene.items.iter().zip(&model.vars) {
        found.extend(of_edges(vars.edges.map(|v| line_of[v].0)));
        for runs in [&vars.cols, &vars.rows].into_iter().filter(|r| r.len() > 1) {
            // All prints of a split slot grow by one step, from its one end or from its other.
            let far = |(n, run): (usize, &(Var, Var))| (line_of[run.1].0, n as i64 + 1);
            let near =
                |(n, run): (usize, &(Var, Var))| (line_of[run.0].0, n as i64 - runs.len() as i64);
            found.push(runs.iter().enumerate().map(far).collect());
            found.push(runs.iter().enumerate().map(near).collect());
        }
        found.extend(of_grid(scene, item, vars.edges.map(|v| line_of[v].0)));
    }
    found.extend(along_with_neighbours(model, line_of));
    found.extend(of_equalities(terms));
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

/// An item's edges two by two, and outwards from its middle.
fn of_edges([l, t, r, b]: [usize; 4]) -> [Move; 9] {
    [
        vec![(l, 1), (r, 1)],
        vec![(t, 1), (b, 1)],
        vec![(r, 1), (b, 1)],
        vec![(l, 1), (t, 1)],
        vec![(r, 1), (t, 1)],
        vec![(l, 1), (b, 1)],
        vec![(l, -1), (r, 1)],
        vec![(t, -1), (b, 1)],
        vec![(l, -1), (r, 1), (t, -1), (b, 1)],
    ]
}

/// A grid's edges by one step a unit, and so that the fold stays between its units.
fn of_grid(scene: &Scene<'_>, item: &Item, [l, t, r, b]: [usize; 4]) -> Vec<Move> {
    let Some((grid, _)) = item.grid else {
        return Vec::new();
    };
    let (cols, rows) = if item.on_its_side() {
        (grid.rows, grid.cols)
    } else {
        (grid.cols, grid.rows)
    };
    let (cols, rows) = (i64::from(cols), i64::from(rows));
    let mut found = vec![
        vec![(r, cols), (b, rows)],
        vec![(l, cols), (t, rows)],
        vec![(r, cols)],
        vec![(b, rows)],
        vec![(l, cols)],
        vec![(t, rows)],
    ];
    if let Some(at) = scene.unit_break(item) {
        found.extend(at.steps().map(|(left, right)| vec![(l, left), (r, right)]));
    }
    found
}

/// The line of one item's edge, with what else stands on it moving along whole.
fn along_with_neighbours(model: &Model, line_of: &[(usize, f64)]) -> Vec<Move> {
    let mut found = Vec::new();
    for kept in 0..model.vars.len() {
        for at in 0..4 {
            let line = line_of[model.vars[kept].edges[at]].0;
            let along = model
                .vars
                .iter()
                .enumerate()
                .filter(|(n, v)| *n != kept && line_of[v.edges[at]].0 == line);
            let opposite: Move = along
                .map(|(_, v)| (line_of[v.edges[(at + 2) % 4]].0, 1))
                .filter(|(l, _)| *l != line)
                .collect();
            if !opposite.is_empty() {
                found.push(std::iter::once((line, 1)).chain(opposite).collect());
            }
        }
    }
    found
}

/// Two lines of one equality, so that it holds on.
fn of_equalities(terms: &[Term]) -> Vec<Move> {
    let mut found = Vec::new();
    for term in terms.iter().filter(|t| {
        matches!(t.cost, Cost::Equal(_) | Cost::Wish(..)) && (2..=4).contains(&t.terms.len())
    }) {
        for (n, (a, fa)) in term.terms.iter().enumerate() {
            for (b, fb) in &term.terms[n + 1..] {
                found.push(vec![(*a, 1), (*b, if fa * fb < 0.0 { 1 } else { -1 })]);
            }
        }
    }
    found
}
