//! From items to a program: which rows must hold, which should, and what pulls where.

mod breaks;
mod faces;
mod forms;
mod limits;
mod orders;
mod slack;
mod wishes;

use super::approach::Map;
use super::holds::{Keep, What};
use super::item::Item;
use super::preferences::Emphasis;
use super::qp::{Expr, Qp, Var};
use super::request::Request;
use super::task::Task;
use crate::Cancel;
use crate::geometry::{Axis, Edge, Span};
use crate::reading::INCH;
use crate::sketch::{Kind, Sketch};

/// The page on which an item must lie whole.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Side {
    /// The left page.
    Left,
    /// The right page.
    Right,
    /// A split slot with half its columns on either page.
    Astride,
    /// A photo or title that the fold may run through, in the gap of that number between the faces on it or between its words, counted from
    /// the left.
    Through(u8),
}

impl Side {
    /// The other page; what is on both has none and stays.
    pub(crate) const fn other(self) -> Side {
        match self {
            Side::Left => Side::Right,
            Side::Right => Side::Left,
            both => both,
        }
    }

    /// Whether it is one page.
    pub(crate) const fn is_page(self) -> bool {
        matches!(self, Side::Left | Side::Right)
    }
}

/// An item's variables, in inches on the target canvas.
#[derive(Clone, Debug)]
pub(crate) struct Vars {
    /// Left, top, right, bottom of the measured extent.
    pub(crate) edges: [Var; 4],
    /// Left and right of each column of prints.
    pub(crate) cols: Vec<(Var, Var)>,
    /// Top and bottom of each row of prints.
    pub(crate) rows: Vec<(Var, Var)>,
    /// Of each print with faces that may be trimmed, where its left and its top edge would lie untrimmed.
    pub(crate) print_begins: Vec<[Option<Var>; 2]>,
}

impl Vars {
    /// From the low edge of a first run to the high edge of a last one.
    pub(crate) fn over(runs: &[(Var, Var)], (first, last): (usize, usize)) -> (Var, Var) {
        (runs[first].0, runs[last].1)
    }

    pub(crate) fn edge(&self, edge: Edge) -> Expr {
        Expr::of(&[(self.edges[edge_at(edge)], 1.0)])
    }

    pub(crate) fn size(&self, axis: Axis) -> Expr {
        let (low, high) = if axis == Axis::X { (0, 2) } else { (1, 3) };
        Expr::of(&[(self.edges[high], 1.0), (self.edges[low], -1.0)])
    }

    pub(crate) fn centre(&self, axis: Axis) -> Expr {
        let (low, high) = if axis == Axis::X { (0, 2) } else { (1, 3) };
        Expr::of(&[(self.edges[high], 0.5), (self.edges[low], 0.5)])
    }
}

/// Where an edge's variable stands in [`Vars::edges`].
pub(crate) const fn edge_at(edge: Edge) -> usize {
    match edge {
        Edge::Left => 0,
        Edge::Top => 1,
        Edge::Right => 2,
        Edge::Bottom => 3,
    }
}

/// All that the model's parts look at.
pub(crate) struct Scene<'a> {
    pub(crate) request: &'a Request,
    pub(crate) task: &'a Task,
    pub(crate) sketch: &'a Sketch,
    pub(crate) map: Map,
    /// Where the sketch's canvas goes on the target, in inches: bleeds end at its edges.
    pub(crate) place: Span,
    pub(crate) items: &'a [Item],
    /// Whether anybody still waits for the fit.
    pub(crate) cancel: &'a Cancel,
}

impl Scene<'_> {
    /// The target canvas in inches.
    pub(crate) fn canvas(&self) -> Span {
        inches(self.request.target.span())
    }

    /// The fold's place in inches, on a spread.
    pub(crate) fn fold(&self) -> Option<f64> {
        (self.request.target.pages == 2).then(|| self.request.target.page.w.ticks() as f64 / INCH)
    }

    /// The item that stands for a sketch block.
    pub(crate) fn item_of(&self, id: &str) -> Option<usize> {
        let block = self.sketch.index_of(id)?;
        self.items.iter().position(|i| i.from.contains(&block))
    }

    /// How the keep-list holds an item; of merged slots, the first that it names.
    pub(crate) fn keep(&self, n: usize) -> Option<Keep> {
        self.items[n]
            .from
            .iter()
            .find_map(|b| self.request.holds.keep_of(&self.sketch.blocks[*b].id))
    }

    /// Whether a spread is laid on one page.
    pub(crate) fn merges(&self) -> bool {
        self.sketch.canvas.pages > self.request.target.pages
    }

    /// How much more than usual places and shapes count.
    pub(crate) fn stress(&self) -> (f64, f64) {
        match self.request.emphasis {
            Some(Emphasis::Positions) => (5.0, 0.4),
            Some(Emphasis::Proportions) => (0.5, 4.0),
            _ => (1.0, 1.0),
        }
    }

    /// Whether an item goes where there is room.
    pub(crate) fn is_free(&self, n: usize) -> bool {
        self.keep(n) == Some(Keep::Free)
    }

    /// Whether a reading of an item is held to.
    pub(crate) fn holds_to(&self, what: What, n: usize) -> bool {
        !self.is_free(n)
            && self.items[n].from.iter().all(|b| {
                self.request
                    .holds
                    .holds_to(what, &self.sketch.blocks[*b].id)
            })
    }

    /// Whether a reading of a pair of items is held to.
    pub(crate) fn holds_to_pair(&self, what: What, a: usize, b: usize) -> bool {
        let ids = |n: usize| {
            self.items[n]
                .from
                .iter()
                .map(|b| self.sketch.blocks[*b].id.as_str())
        };
        ids(a).all(|a| ids(b).all(|b| self.request.holds.holds_to_pair(what, a, b)))
    }

    /// Whether an item may not be cut wherever the fold comes.
    pub(crate) fn keeps_off_fold(&self, item: &Item) -> bool {
        match item.kind {
            Kind::Photo if self.shows_faces(item) => true,
            Kind::Title if self.runs_across(item).is_some() => true,
            Kind::Photo | Kind::Title | Kind::Journal => {
                !self.request.across_fold.contains(&item.kind)
            }
            Kind::Cluster | Kind::Accent => true,
            _ => false,
        }
    }
}

/// A box in inches.
pub(crate) fn inches(span: Span) -> Span {
    Span {
        l: span.l / INCH,
        t: span.t / INCH,
        r: span.r / INCH,
        b: span.b / INCH,
    }
}

/// A program with its items' variables.
#[derive(Clone, Debug)]
pub(crate) struct Model {
    pub(crate) qp: Qp,
    pub(crate) vars: Vec<Vars>,
    /// Where orders are told by cuts, how many variables and rows come before them.
    before_cuts: Option<(usize, usize)>,
}

impl Model {
    /// Builds the program for one choice of sides.
    pub(crate) fn new(scene: &Scene<'_>, sides: &[Option<Side>]) -> Model {
        let mut qp = Qp {
            cancel: scene.cancel.clone(),
            ..Qp::default()
        };
        let vars: Vec<Vars> = scene.items.iter().map(|i| item_vars(&mut qp, i)).collect();
        let mut model = Model {
            qp,
            vars,
            before_cuts: None,
        };
        limits::add(&mut model, scene, sides);
        wishes::add(&mut model, scene);
        forms::add(&mut model, scene);
        faces::add(&mut model, scene, sides);
        breaks::add(&mut model, scene, sides);
        orders::add(&mut model, scene);
        model
    }
}

fn item_vars(qp: &mut Qp, item: &Item) -> Vars {
    let want = inches(item.want);
    let edges = [want.l, want.t, want.r, want.b].map(|at| qp.var(at));
    let (cols, rows) = item.cells;
    let cols = runs(qp, cols, (edges[0], edges[2]));
    let rows = runs(qp, rows, (edges[1], edges[3]));
    Vars {
        edges,
        cols,
        rows,
        print_begins: vec![[None; 2]; item.prints.len()],
    }
}

/// Low and high edge of so many equal parts between two edges; the outermost are those edges.
fn runs(qp: &mut Qp, count: u32, (low, high): (Var, Var)) -> Vec<(Var, Var)> {
    let (from, to) = (qp.expected[low], qp.expected[high]);
    let mut found = Vec::with_capacity(count as usize);
    let mut start = low;
    for n in 1..count {
        let at = from + (to - from) * f64::from(n) / f64::from(count);
        found.push((start, qp.var(at)));
        start = qp.var(at);
    }
    found.push((start, high));
    found
}
