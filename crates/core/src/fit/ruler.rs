//! Rounding to the ruler: lines, not blocks.
//!
//! Edges that the program made equal, or that hard rows tie at a fixed distance (a mat's border, a whole print), become
//! one line with offsets. Every line goes to its nearest ruler mark; then lines are moved by single steps, alone and in
//! pairs, as long as that lowers the program's own cost with hard rows priced out of reach. A local search: it ends
//! because the cost falls at each move, and it is deterministic because moves are tried in a fixed order. Where it ends with a
//! hard row that fails, lines are put on their marks a few at a time and the rest is solved anew (`marks`). Where it leaves wished equalities
//! (blocks on one centre line) half a step off, chains of steps mend them (`chains`), and marks by parity are tried as another start (`parity`).

mod chains;
mod marks;
mod moves;
mod parity;
mod ties;

use super::model::{Model, Scene};
use super::qp::{Qp, Sense, Var};
use crate::reading::INCH;
use moves::moves;
use ties::Ties;

/// The penalty of an inch by which a hard row fails.
const HARD: f64 = 1e6;
/// What the solver may be off by, in inches.
const NOISE: f64 = 2e-4;
/// What a row may be off by, in inches, and still be true.
const TRUE: f64 = 1e-4;
/// A wished equality that is not true counts as off by this more, in inches: to the eye half a step apart is as lost as a whole one. In a
/// crowd, where each line has many blocks and each block many lines, by more.
const UNTRUE: (f64, f64) = (0.03, 0.25);
/// So many blocks are a crowd.
const CROWD: usize = 40;
/// Rounds of repair at the most.
const REPAIRS: usize = 12;
/// Lines of blocks on their side that are tried for evening them out, at the most.
const EVENED: usize = 40;
/// Rounds of moves at the most.
const ROUNDS: usize = 40;

/// Puts a solution on the ruler (no step: to the nearest tick). All variables, in ticks.
pub(crate) fn snap(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> Vec<i64> {
    let step = scene.request.snap.ticks();
    if step <= 0 {
        return off_ruler(solved);
    }
    let in_pairs = model.in_pairs(scene);
    let model = in_pairs.as_ref().unwrap_or(model);
    let solved = &solved[..model.qp.vars()];
    // Wishes may ask for more lines than the ruler has room for: then only what must be one line is.
    for wishes in [true, false] {
        let mut lattice = Lattice::new(scene, model, solved, step as f64, wishes);
        lattice.improve();
        lattice.repair();
        // What is tilted binds lines of both axes: where the easiest lines first lead nowhere, its own come first, while there is room.
        for first in [Vec::new(), tilted(scene, model, &lattice)] {
            if !lattice.broken().is_empty()
                && marks::settle(&mut lattice, &model.qp, solved, &first)
            {
                lattice.improve();
            }
        }
        if lattice.broken().is_empty() {
            lattice.mend();
            if lattice.has_untrue() {
                let other =
                    Lattice::new(scene, model, solved, step as f64, wishes).by_parity(solved);
                if other.broken().is_empty() && other.total() < lattice.total() {
                    lattice = other;
                }
            }
            lattice.even_sides(scene, model);
            return (0..model.qp.vars())
                .map(|v| lattice.value(v).round() as i64)
                .collect();
        }
    }
    // Better off the ruler than over a limit: the program's own answer breaks none.
    off_ruler(solved)
}

/// The lines of tilted items.
fn tilted(scene: &Scene<'_>, model: &Model, lattice: &Lattice) -> Vec<usize> {
    let edges = scene
        .items
        .iter()
        .zip(&model.vars)
        .filter(|(i, _)| i.is_tilted())
        .flat_map(|(_, v)| v.edges);
    edges.map(|v| lattice.line_of[v].0).collect()
}

fn off_ruler(solved: &[f64]) -> Vec<i64> {
    solved.iter().map(|v| (v * INCH).round() as i64).collect()
}

/// A line on the ruler: `origin + steps * step`, in ticks; fixed lines don't move.
#[derive(Clone, Debug)]
struct Line {
    origin: f64,
    step: f64,
    steps: i64,
    fixed: bool,
}

/// A row or pull over lines: `sum of factor * line + constant`, in ticks.
#[derive(Clone, Debug)]
struct Term {
    terms: Vec<(usize, f64)>,
    constant: f64,
    cost: Cost,
}

/// Lines, each with so many steps.
type Steps = Vec<(usize, i64)>;

#[derive(Clone, Copy, Debug)]
enum Cost {
    Equal(f64),
    /// A wished equality: its penalty, and what it is off by at least once it is not true.
    Wish(f64, f64),
    AtLeast(f64),
    Square(f64),
}

impl Cost {
    /// What being off by so many inches costs.
    fn of(self, off: f64) -> f64 {
        match self {
            Cost::Equal(penalty) => penalty * off.abs(),
            Cost::Wish(_, _) if off.abs() <= TRUE => 0.0,
            Cost::Wish(penalty, least) => penalty * (off.abs() + least),
            Cost::AtLeast(penalty) => penalty * (-off).max(0.0),
            Cost::Square(weight) => weight * off * off,
        }
    }
}

struct Lattice {
    lines: Vec<Line>,
    line_of: Vec<(usize, f64)>,
    terms: Vec<Term>,
    /// How far each term is from its target, in inches; kept up to date as lines move.
    off: Vec<f64>,
    /// The terms that each line stands in, with its factor there.
    touching: Vec<Vec<(usize, f64)>>,
    moves: Vec<Vec<(usize, i64)>>,
}

impl Lattice {
    fn new(scene: &Scene<'_>, model: &Model, solved: &[f64], step: f64, wishes: bool) -> Lattice {
        let ties = Ties::new(scene, &model.qp, solved, step, wishes);
        let (lines, line_of) = ties.lines(scene, model, solved, step);
        let untrue = if scene.items.len() < CROWD {
            UNTRUE.0
        } else {
            UNTRUE.1
        };
        let terms = terms(&model.qp, &line_of, lines.len(), untrue);
        let mut touching = vec![Vec::new(); lines.len()];
        for (n, term) in terms.iter().enumerate() {
            term.terms
                .iter()
                .for_each(|(line, factor)| touching[*line].push((n, *factor)));
        }
        let moves = moves(scene, model, &lines, &line_of, &terms);
        let at = |line: usize| lines[line].origin + lines[line].steps as f64 * lines[line].step;
        let off = terms
            .iter()
            .map(|t| (t.terms.iter().map(|(l, f)| f * at(*l)).sum::<f64>() + t.constant) / INCH)
            .collect();
        Lattice {
            lines,
            line_of,
            terms,
            off,
            touching,
            moves,
        }
    }

    fn at(&self, line: usize) -> f64 {
        let l = &self.lines[line];
        l.origin + l.steps as f64 * l.step
    }

    fn value(&self, var: Var) -> f64 {
        let (line, offset) = self.line_of[var];
        self.at(line) + offset
    }

    fn cost(&self, term: usize) -> f64 {
        self.terms[term].cost.of(self.off[term])
    }

    /// Moves a line by steps; what that adds to the cost.
    fn shift(&mut self, line: usize, by: i64) -> f64 {
        let Lattice {
            lines,
            terms,
            off,
            touching,
            ..
        } = self;
        let way = by as f64 * lines[line].step / INCH;
        lines[line].steps += by;
        let mut added = 0.0;
        for (term, factor) in &touching[line] {
            let (cost, before) = (terms[*term].cost, off[*term]);
            off[*term] += factor * way;
            added += cost.of(off[*term]) - cost.of(before);
        }
        added
    }

    /// Moves lines while that lowers the cost.
    fn improve(&mut self) {
        let moves = std::mem::take(&mut self.moves);
        for _ in 0..ROUNDS {
            let mut moved = false;
            for steps in &moves {
                let back: Vec<(usize, i64)> = steps.iter().map(|(line, by)| (*line, -by)).collect();
                for way in [steps, &back] {
                    while self.try_steps(way) {
                        moved = true;
                    }
                }
            }
            if !moved {
                break;
            }
        }
        self.moves = moves;
    }

    /// Hard rows that fail by more than the solver's noise.
    fn broken(&self) -> Vec<usize> {
        let fails = |t: &usize| {
            matches!(self.terms[*t].cost, Cost::Equal(HARD) | Cost::AtLeast(HARD))
                && self.cost(*t) > HARD * NOISE
        };
        (0..self.terms.len()).filter(fails).collect()
    }

    /// Single steps can get stuck at a limit (a tilted mat at the margin moves in x and y at once): where a hard row
    /// fails, its lines are moved together with each line that shares a row with them, by up to three steps each.
    fn repair(&mut self) {
        for _ in 0..REPAIRS {
            let broken = self.broken();
            let Some(first) = broken.first() else { return };
            let own: Vec<usize> = self.terms[*first]
                .terms
                .iter()
                .map(|t| t.0)
                .filter(|l| !self.lines[*l].fixed)
                .collect();
            let mut near: Vec<usize> = own
                .iter()
                .flat_map(|l| &self.touching[*l])
                .flat_map(|t| &self.terms[t.0].terms)
                .map(|t| t.0)
                .collect();
            near.sort_unstable();
            near.dedup();
            near.retain(|l| !self.lines[*l].fixed);
            let mut moved = false;
            for a in &own {
                for b in &near {
                    for (i, j) in (-3..=3).flat_map(|i| (-3..=3).map(move |j| (i, j))) {
                        let steps = if a == b {
                            vec![(*a, i)]
                        } else {
                            vec![(*a, i), (*b, j)]
                        };
                        moved |= self.try_steps(&steps);
                    }
                }
            }
            self.improve();
            if !moved {
                return;
            }
        }
    }

    /// A block that stands on its side is cut by its own box, whose sides lie half the difference of width and height from its extent's: that
    /// difference is made an even count of steps, by the edge or the pair of edges for which that costs least.
    fn even_sides(&mut self, scene: &Scene<'_>, model: &Model) {
        let step = scene.request.snap.ticks();
        let stands = scene
            .items
            .iter()
            .zip(&model.vars)
            .filter(|(i, _)| i.on_its_side() && i.frames.is_none() && !i.is_split());
        let on_side: Vec<[Var; 4]> = stands.map(|(_, v)| v.edges).collect();
        let uneven = |lattice: &Lattice| {
            let at = |v| lattice.value(v).round() as i64;
            on_side
                .iter()
                .filter(|[l, t, r, b]| (at(*r) - at(*l) - at(*b) + at(*t)) / step % 2 != 0)
                .count()
        };
        let mut lines: Vec<usize> = on_side
            .iter()
            .flatten()
            .map(|v| self.line_of[*v].0)
            .filter(|l| !self.lines[*l].fixed)
            .collect();
        lines.sort_unstable();
        lines.dedup();
        let ways: Vec<(usize, i64)> = lines
            .iter()
            .take(EVENED)
            .flat_map(|l| [(*l, 1), (*l, -1)])
            .collect();
        let mut left = uneven(self);
        while left > 0 {
            let singles = ways.iter().map(|w| vec![*w]);
            let pairs = ways.iter().enumerate().flat_map(|(n, a)| {
                ways[n + 1..]
                    .iter()
                    .filter(|b| b.0 != a.0)
                    .map(|b| vec![*a, *b])
            });
            let mut best: Option<(f64, usize, Steps)> = None;
            for steps in singles.chain(pairs) {
                let added: f64 = steps.iter().map(|(line, by)| self.shift(*line, *by)).sum();
                let then = uneven(self);
                steps.iter().for_each(|(line, by)| {
                    self.shift(*line, -by);
                });
                if then < left
                    && added < HARD * NOISE
                    && best.as_ref().is_none_or(|(cost, ..)| added < *cost)
                {
                    best = Some((added, then, steps));
                }
            }
            let Some((_, then, steps)) = best else { return };
            steps.into_iter().for_each(|(line, by)| {
                self.shift(line, by);
            });
            left = then;
        }
    }

    /// Moves lines by steps if that lowers the cost.
    fn try_steps(&mut self, steps: &[(usize, i64)]) -> bool {
        let added: f64 = steps.iter().map(|(line, by)| self.shift(*line, *by)).sum();
        if added < -1e-7 {
            return true;
        }
        for (line, by) in steps {
            self.shift(*line, -by);
        }
        false
    }
}

/// The program's rows and pulls over lines; `untrue` is what a wished equality is off by at least once it is not true.
fn terms(qp: &Qp, line_of: &[(usize, f64)], lines: usize, untrue: f64) -> Vec<Term> {
    let over = |terms: &[(Var, f64)], target: f64, cost: Cost| {
        let mut constant = -target * INCH;
        let mut factors: Vec<(usize, f64)> = Vec::with_capacity(terms.len());
        for (var, factor) in terms {
            let (line, offset) = line_of[*var];
            debug_assert!(line < lines);
            constant += factor * offset;
            match factors.iter_mut().find(|f| f.0 == line) {
                Some(f) => f.1 += factor,
                None => factors.push((line, *factor)),
            }
        }
        factors.retain(|f| f.1.abs() > 1e-12);
        Term {
            terms: factors,
            constant,
            cost,
        }
    };
    let rows = qp.rows.iter().map(|r| {
        let cost = match (r.sense, r.penalty) {
            (Sense::Equal, None) => Cost::Equal(HARD),
            (Sense::Equal, Some(penalty)) => Cost::Wish(penalty, untrue),
            (Sense::AtLeast, penalty) => Cost::AtLeast(penalty.unwrap_or(HARD)),
        };
        over(&r.expr.terms, r.rhs, cost)
    });
    let pulls = qp
        .pulls
        .iter()
        .map(|p| over(&p.expr.terms, p.target, Cost::Square(p.weight)));
    rows.chain(pulls).filter(|t| !t.terms.is_empty()).collect()
}
