//! Left of and above: who comes before whom along each axis.
//!
//! Of few blocks pair by pair, without the pairs that follow from others (a transitive reduction). Of many, by cuts: the relation is an
//! interval order, so a chain of lines can be laid through it, one wherever an end is followed by a start; each block ends before its own
//! cut and begins after another, and cuts keep their order. That says the same with rows that grow with the blocks, not with their pairs.

use super::wishes::penalty;
use super::{Model, Scene};
use crate::fit::qp::{Expr, Sense, Var};
use crate::fit::reason::{Reason, Wish};
use crate::geometry::{Axis, Span};
use crate::reading::{KEPT, distance};

/// From so many blocks on cuts take the place of pairs.
const CROWDED: usize = 40;
/// Cuts keep their order at so many times the penalty of one block's.
const CHAIN: f64 = 8.0;

/// Adds the wishes; they come last, so that the ruler can have them as pairs.
pub(super) fn add(model: &mut Model, scene: &Scene<'_>) {
    let drawn: Vec<Span> = scene.items.iter().map(|i| i.drawn).collect();
    if drawn.len() < CROWDED {
        return pairs(model, scene, &drawn);
    }
    model.before_cuts = Some((model.qp.vars(), model.qp.rows.len()));
    for axis in Axis::BOTH {
        cuts(model, &drawn, axis);
    }
}

impl Model {
    /// The model with its orders pair by pair, where they are cuts: on the ruler a cut would hold its blocks in place.
    pub(crate) fn in_pairs(&self, scene: &Scene<'_>) -> Option<Model> {
        let (vars, rows) = self.before_cuts?;
        let mut model = self.clone();
        model.qp.expected.truncate(vars);
        model.qp.rows.truncate(rows);
        model.before_cuts = None;
        let drawn: Vec<Span> = scene.items.iter().map(|i| i.drawn).collect();
        pairs(&mut model, scene, &drawn);
        Some(model)
    }
}

fn wish(model: &mut Model, expr: Expr, penalty: f64, (a, b): (usize, usize)) {
    model.qp.soft(
        expr,
        Sense::AtLeast,
        0.0,
        penalty,
        Reason::Wish(Wish::Relation, a, b),
    );
}

fn pairs(model: &mut Model, scene: &Scene<'_>, drawn: &[Span]) {
    let count = drawn.len();
    for axis in Axis::BOTH {
        let before = |a: usize, b: usize| a != b && distance(drawn[a], drawn[b], axis) >= -KEPT;
        for a in 0..count {
            for b in (0..count).filter(|b| before(a, *b) && !ties(scene, a, *b)) {
                // Two thin boxes can each be "before" the other within the tolerance: say it once.
                let follows = (0..count).any(|c| {
                    c != a
                        && c != b
                        && before(a, c)
                        && before(c, b)
                        && !before(c, a)
                        && !before(b, c)
                });
                if follows || before(b, a) {
                    continue;
                }
                let (near, far) = axis.edges();
                let expr = model.vars[b].edge(near).minus(&model.vars[a].edge(far));
                wish(model, expr, penalty::RELATION, (a, b));
            }
        }
    }
}

/// A mat and what it frames are tied already.
pub(super) fn ties(scene: &Scene<'_>, a: usize, b: usize) -> bool {
    let framed = |x: usize, y: usize| scene.items[x].frames.is_some_and(|(f, _)| f == y);
    framed(a, b) || framed(b, a)
}

fn cuts(model: &mut Model, drawn: &[Span], axis: Axis) {
    let (near, far) = axis.edges();
    let mut ends: Vec<usize> = (0..drawn.len()).collect();
    ends.sort_by(|a, b| {
        drawn[*a]
            .edge(far)
            .total_cmp(&drawn[*b].edge(far))
            .then(a.cmp(b))
    });
    let mut starts = ends.clone();
    starts.sort_by(|a, b| {
        drawn[*a]
            .edge(near)
            .total_cmp(&drawn[*b].edge(near))
            .then(a.cmp(b))
    });
    // Each cut: the blocks that end before it and before no earlier one, and from which start on blocks begin after it.
    let mut found: Vec<(Vec<usize>, usize)> = Vec::new();
    for end in ends {
        let first = starts.partition_point(|s| drawn[*s].edge(near) < drawn[end].edge(far) - KEPT);
        match found.last_mut() {
            Some((same, known)) if *known == first => same.push(end),
            _ => found.push((vec![end], first)),
        }
    }
    let mut earlier: Option<(Var, usize)> = None;
    for (n, (ending, first)) in found
        .iter()
        .enumerate()
        .filter(|(_, (_, first))| *first < starts.len())
    {
        let until = found.get(n + 1).map_or(starts.len(), |next| next.1);
        let at = |model: &Model, expr: &Expr| expr.value(&model.qp.expected);
        let last = ending
            .iter()
            .map(|a| at(model, &model.vars[*a].edge(far)))
            .fold(f64::MIN, f64::max);
        let cut = model.qp.var(last);
        let line = Expr::of(&[(cut, 1.0)]);
        for a in ending {
            let expr = line.clone().minus(&model.vars[*a].edge(far));
            wish(model, expr, penalty::RELATION, (*a, *a));
        }
        // What begins after this cut and before the next one; what begins later follows from that one.
        for b in &starts[*first..until] {
            let expr = model.vars[*b].edge(near).minus(&line);
            wish(model, expr, penalty::RELATION, (*b, *b));
        }
        if let Some((earlier, known)) = earlier {
            wish(
                model,
                line.minus(&Expr::of(&[(earlier, 1.0)])),
                CHAIN * penalty::RELATION,
                (known, ending[0]),
            );
        }
        earlier = Some((cut, ending[0]));
    }
}
