//! Rounding to the ruler: lines, not blocks.
//!
//! Edges that the programme made equal, or that hard rows tie at a fixed distance (a mat's border, a whole print), become
//! one line with offsets. Every line goes to its nearest ruler mark; then lines are moved by single steps, alone and in
//! pairs, as long as that lowers the programme's own cost with hard rows priced out of reach. A local search: it ends
//! because the cost falls at each move, and it is deterministic because moves are tried in a fixed order.

use super::item::Item;
use super::model::{Model, Scene};
use super::programme::{Programme, Row, Sense, Var};
use crate::reading::INCH;

/// The price of an inch by which a hard row fails.
const HARD: f64 = 1e6;
/// What the solver may be off by, in inches.
const NOISE: f64 = 2e-4;
/// Rounds of repair at the most.
const REPAIRS: usize = 12;
/// Rounds of moves at the most.
const ROUNDS: usize = 40;

/// Puts a solution on the ruler (no step: to the nearest tick). All variables, in ticks.
pub(crate) fn snap(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> Vec<i64> {
    let step = scene.request.snap.ticks();
    if step <= 0 {
        return off_ruler(solved);
    }
    let mut lattice = Lattice::new(scene, model, solved, step as f64);
    lattice.improve();
    lattice.repair();
    if !lattice.broken().is_empty() {
        // Better off the ruler than over a limit: the programme's own answer breaks none.
        return off_ruler(solved);
    }
    (0..model.programme.vars()).map(|v| lattice.value(v).round() as i64).collect()
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

#[derive(Clone, Copy, Debug)]
enum Cost {
    Equal(f64),
    AtLeast(f64),
    Square(f64),
}

impl Cost {
    /// What being off by so many inches costs.
    fn of(self, off: f64) -> f64 {
        match self {
            Cost::Equal(price) => price * off.abs(),
            Cost::AtLeast(price) => price * (-off).max(0.0),
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
    fn new(scene: &Scene<'_>, model: &Model, solved: &[f64], step: f64) -> Lattice {
        let mut ties = Ties::new(scene, &model.programme, solved, step);
        let (lines, line_of) = ties.lines(scene, model, solved, step);
        let terms = terms(&model.programme, &line_of, lines.len());
        let mut touching = vec![Vec::new(); lines.len()];
        for (n, term) in terms.iter().enumerate() {
            term.terms.iter().for_each(|(line, factor)| touching[*line].push((n, *factor)));
        }
        let moves = moves(scene.items, model, &lines, &line_of, &terms);
        let at = |line: usize| lines[line].origin + lines[line].steps as f64 * lines[line].step;
        let off = terms.iter().map(|t| (t.terms.iter().map(|(l, f)| f * at(*l)).sum::<f64>() + t.constant) / INCH).collect();
        Lattice { lines, line_of, terms, off, touching, moves }
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
        let Lattice { lines, terms, off, touching, .. } = self;
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
        let fails = |t: &usize| matches!(self.terms[*t].cost, Cost::Equal(HARD) | Cost::AtLeast(HARD)) && self.cost(*t) > HARD * NOISE;
        (0..self.terms.len()).filter(fails).collect()
    }

    /// Single steps can get stuck at a limit (a tilted mat at the margin moves in x and y at once): where a hard row
    /// fails, its lines are moved together with each line that shares a row with them, by up to three steps each.
    fn repair(&mut self) {
        for _ in 0..REPAIRS {
            let broken = self.broken();
            let Some(first) = broken.first() else { return };
            let own: Vec<usize> = self.terms[*first].terms.iter().map(|t| t.0).filter(|l| !self.lines[*l].fixed).collect();
            let mut near: Vec<usize> = own.iter().flat_map(|l| &self.touching[*l]).flat_map(|t| &self.terms[t.0].terms).map(|t| t.0).collect();
            near.sort_unstable();
            near.dedup();
            near.retain(|l| !self.lines[*l].fixed);
            let mut moved = false;
            for a in &own {
                for b in &near {
                    for (i, j) in (-3..=3).flat_map(|i| (-3..=3).map(move |j| (i, j))) {
                        let steps = if a == b { vec![(*a, i)] } else { vec![(*a, i), (*b, j)] };
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

/// Which variables are one line: a union-find with offsets in ticks.
struct Ties {
    parent: Vec<usize>,
    offset: Vec<f64>,
    fixed: Vec<Option<f64>>,
    step: f64,
    /// Where the right page's ruler begins, on a spread.
    fold: f64,
}

impl Ties {
    fn new(scene: &Scene<'_>, programme: &Programme, solved: &[f64], step: f64) -> Ties {
        let n = programme.vars();
        let mut ties =
            Ties { parent: (0..n).collect(), offset: vec![0.0; n], fixed: vec![None; n], step, fold: scene.fold().unwrap_or_default() * INCH };
        // Hard ties first: what only should be equal gives way where both can't be.
        for hard in [true, false] {
            for row in &programme.rows {
                if row.sense == Sense::Equal && row.price.is_none() == hard && row.slack(solved) < NOISE {
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
                if !hard && (!self.is_on_ruler(between) || off(self.fixed[rx]) != off(self.fixed[ry])) {
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

    fn lines(&mut self, scene: &Scene<'_>, model: &Model, solved: &[f64], step: f64) -> (Vec<Line>, Vec<(usize, f64)>) {
        let n = model.programme.vars();
        let mut owner = vec![None; n];
        for (item, vars) in scene.items.iter().zip(&model.vars) {
            let inner = vars.cols.iter().chain(&vars.rows).flat_map(|(a, b)| [*a, *b]);
            let across: Vec<Var> = vars.cols.iter().flat_map(|(a, b)| [*a, *b]).collect();
            for var in vars.edges.into_iter().chain(inner) {
                let in_x = var == vars.edges[0] || var == vars.edges[2] || across.contains(&var);
                owner[var] = Some((item.frames.is_some(), in_x));
            }
        }
        let mut line_at = vec![usize::MAX; n];
        let mut lines: Vec<Line> = Vec::new();
        let mut line_of = vec![(0, 0.0); n];
        // What is no mat's edge says where the line's marks are; lines of centres alone go by half steps.
        let mut order: Vec<Var> = (0..n).collect();
        order.sort_by_key(|v| (owner[*v].is_none(), owner[*v].is_some_and(|(mat, _)| mat), *v));
        for var in order {
            let (root, offset) = self.root(var);
            if line_at[root] == usize::MAX {
                line_at[root] = lines.len();
                let wanted = solved[var] * INCH;
                let line = match self.fixed[root] {
                    Some(at) => Line { origin: at, step, steps: 0, fixed: true },
                    None => {
                        let step = if owner[var].is_none() { step / 2.0 } else { step };
                        let zero = owner[var].map_or(0.0, |(_, in_x)| ruler_zero(scene, wanted, in_x));
                        Line { origin: zero - offset, step, steps: ((wanted - zero) / step).round() as i64, fixed: false }
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
fn ruler_zero(scene: &Scene<'_>, at: f64, in_x: bool) -> f64 {
    match scene.fold() {
        Some(fold) if in_x && at > fold * INCH - 1.0 => fold * INCH,
        _ => 0.0,
    }
}

/// The programme's rows and pulls over lines.
fn terms(programme: &Programme, line_of: &[(usize, f64)], lines: usize) -> Vec<Term> {
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
        Term { terms: factors, constant, cost }
    };
    let rows = programme.rows.iter().map(|r| {
        let price = r.price.unwrap_or(HARD);
        over(&r.expr.terms, r.rhs, if r.sense == Sense::Equal { Cost::Equal(price) } else { Cost::AtLeast(price) })
    });
    let pulls = programme.pulls.iter().map(|p| over(&p.expr.terms, p.target, Cost::Square(p.weight)));
    rows.chain(pulls).filter(|t| !t.terms.is_empty()).collect()
}

/// Single lines; both edges of an item; both sides of a round one; a grid by one step a unit; lines that share an equality.
fn moves(items: &[Item], model: &Model, lines: &[Line], line_of: &[(usize, f64)], terms: &[Term]) -> Vec<Vec<(usize, i64)>> {
    let mut found: Vec<Vec<(usize, i64)>> = (0..lines.len()).map(|l| vec![(l, 1)]).collect();
    for (item, vars) in items.iter().zip(&model.vars) {
        let [l, t, r, b] = vars.edges.map(|v| line_of[v].0);
        found.extend([
            vec![(l, 1), (r, 1)],
            vec![(t, 1), (b, 1)],
            vec![(r, 1), (b, 1)],
            vec![(l, 1), (t, 1)],
            vec![(r, 1), (t, 1)],
            vec![(l, 1), (b, 1)],
        ]);
        found.extend([vec![(l, -1), (r, 1)], vec![(t, -1), (b, 1)], vec![(l, -1), (r, 1), (t, -1), (b, 1)]]);
        for runs in [&vars.cols, &vars.rows].into_iter().filter(|r| r.len() > 1) {
            // All prints of a split slot grow by one step, from its one end or from its other.
            let far = |(n, run): (usize, &(Var, Var))| (line_of[run.1].0, n as i64 + 1);
            let near = |(n, run): (usize, &(Var, Var))| (line_of[run.0].0, n as i64 - runs.len() as i64);
            found.push(runs.iter().enumerate().map(far).collect());
            found.push(runs.iter().enumerate().map(near).collect());
        }
        if let Some((grid, _)) = item.grid {
            let (cols, rows) = if item.on_its_side() { (grid.rows, grid.cols) } else { (grid.cols, grid.rows) };
            let (cols, rows) = (i64::from(cols), i64::from(rows));
            found.extend([
                vec![(r, cols), (b, rows)],
                vec![(l, cols), (t, rows)],
                vec![(r, cols)],
                vec![(b, rows)],
                vec![(l, cols)],
                vec![(t, rows)],
            ]);
        }
    }
    for kept in 0..items.len() {
        for at in 0..4 {
            // The line of one item's edge moves, and what else stands on it moves along whole.
            let line = line_of[model.vars[kept].edges[at]].0;
            let along = model.vars.iter().enumerate().filter(|(n, v)| *n != kept && line_of[v.edges[at]].0 == line);
            let opposite: Vec<(usize, i64)> = along.map(|(_, v)| (line_of[v.edges[(at + 2) % 4]].0, 1)).filter(|(l, _)| *l != line).collect();
            if !opposite.is_empty() {
                found.push(std::iter::once((line, 1)).chain(opposite).collect());
            }
        }
    }
    for term in terms.iter().filter(|t| matches!(t.cost, Cost::Equal(_)) && (2..=4).contains(&t.terms.len())) {
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
    found.retain(|m| m.iter().all(|(l, _)| !lines[*l].fixed) && m.windows(2).all(|w| w[0].0 != w[1].0));
    found.sort_by_key(|m| (m.len(), m.clone()));
    found.dedup();
    found
}
