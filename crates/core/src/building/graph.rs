//! What a page is made of and by which steps; rules add steps, then edges between them.

use super::decisions::BuildDecisions;
use super::order::{Scheduled, lower_bound, scheduled};
use super::step::{Doing, Edge, Reason, Step};
use super::{finish, glue, prepare, wet};
use crate::geometry::Span;
use crate::layout::{Layout, LayoutBlock};
use crate::length::{Length, Unit};
use crate::sketch::Kind;
use petgraph::algo::toposort;
use petgraph::graph::{DiGraph, NodeIndex};

/// A page that is to be made.
#[derive(Clone, Copy, Debug)]
pub struct Making<'a> {
    /// In which lengths are told.
    pub unit: Unit,
    /// Where everything is.
    pub layout: &'a Layout,
    /// Whether papers are chosen, so that there are pieces to cut.
    pub has_papers: bool,
    /// Whether photos are to be printed.
    pub prints: bool,
    /// Pages of which the hidden middle comes out.
    pub gutted: [bool; 2],
    /// What the title says, if it is known.
    pub title: Option<&'a str>,
    /// What is decided at the station.
    pub decisions: &'a BuildDecisions,
}

/// An edge that her own order breaks.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Broken {
    /// The edge, by its place.
    pub edge: usize,
    /// What is no longer possible.
    pub text: String,
}

/// Steps in an order.
#[derive(Clone, Debug, PartialEq)]
pub struct Built {
    /// All steps, as the rules made them.
    pub steps: Vec<Step>,
    /// What comes before what.
    pub edges: Vec<Edge>,
    /// The order, with minutes from the start.
    pub order: Vec<Scheduled>,
    /// No order takes less, in minutes.
    pub least: u32,
    /// What of her own order could not be followed.
    pub broken: Vec<Broken>,
}

/// Steps and edges while rules add to them.
pub(super) struct Draft<'a> {
    pub(super) making: Making<'a>,
    pub(super) steps: Vec<Step>,
    pub(super) edges: Vec<Edge>,
}

impl<'a> Draft<'a> {
    pub(super) fn add(&mut self, step: Step) -> usize {
        self.steps.push(step);
        self.steps.len() - 1
    }

    pub(super) fn before(&mut self, before: usize, after: usize, reason: Reason) {
        let same = |e: &&Edge| e.before == before && e.after == after;
        if before == after || self.edges.iter().any(|e| same(&e)) {
            return;
        }
        let lag = self.steps[before].dries;
        self.edges.push(Edge {
            before,
            after,
            reason,
            lag,
        });
    }

    /// All steps of a kind, by their places.
    pub(super) fn all(&self, doing: Doing) -> Vec<usize> {
        let of_kind = |(_, s): &(usize, &Step)| s.doing == doing;
        let found = self.steps.iter().enumerate().filter(of_kind);
        found.map(|(n, _)| n).collect()
    }

    /// The step that fixes a block.
    pub(super) fn fixing(&self, block: &str) -> Option<usize> {
        self.steps
            .iter()
            .position(|s| s.fixes.iter().any(|f| f == block))
    }

    pub(super) fn blocks(&self) -> &'a [LayoutBlock] {
        &self.making.layout.blocks
    }

    /// Where a block's left and top edges are, on its own page.
    pub(super) fn place(&self, block: &LayoutBlock) -> String {
        let page = self.making.layout.canvas.page.w;
        let at = Length::from_ticks(page.ticks() * i64::from(block.page));
        let text = |l: Length| l.to_text(self.making.unit);
        let which = match (self.making.layout.canvas.pages, block.page) {
            (1, _) => "",
            (_, 0) => ", left page",
            _ => ", right page",
        };
        let rect = block.block.rect;
        format!(
            "left edge {}, top {}{which}",
            text(rect.x - at),
            text(rect.y)
        )
    }
}

/// Whether two blocks lie over one another by more than a hair.
pub(super) fn overlap(a: &LayoutBlock, b: &LayoutBlock) -> bool {
    let hair = Length::inches(1, 64).ticks() as f64;
    Span::from(a.block.rect).overlaps(Span::from(b.block.rect), hair)
}

/// Whether a block lies wholly on another.
pub(super) fn within(inner: &LayoutBlock, outer: &LayoutBlock) -> bool {
    let hair = Length::inches(1, 64).ticks();
    let (i, o) = (inner.block.rect, outer.block.rect);
    let least = |a: Length, b: Length| a.ticks() >= b.ticks() - hair;
    least(i.x, o.x)
        && least(i.y, o.y)
        && least(o.right(), i.right())
        && least(o.bottom(), i.bottom())
}

/// Whether a block is painted, not laid down.
pub(super) fn is_painted(block: &LayoutBlock) -> bool {
    block.block.kind == Kind::Wash
}

impl Making<'_> {
    /// The steps of the page, what comes before what, and an order.
    #[must_use]
    pub fn built(&self) -> Built {
        let mut draft = Draft {
            making: *self,
            steps: Vec::new(),
            edges: Vec::new(),
        };
        prepare::steps(&mut draft);
        wet::ground(&mut draft);
        glue::steps(&mut draft);
        finish::steps(&mut draft);
        let Draft { steps, edges, .. } = draft;
        let (held, broken) = own_order(&steps, &edges, &self.decisions.order);
        let order = scheduled(&steps, &held, &self.decisions.done);
        Built {
            least: lower_bound(&steps, &edges),
            order,
            steps,
            edges,
            broken,
        }
    }
}

/// Adds her own order to what must be, as far as it can be followed; what can't is told with what it would break.
fn own_order(steps: &[Step], edges: &[Edge], own: &[String]) -> (Vec<Edge>, Vec<Broken>) {
    let mut held = edges.to_vec();
    let mut broken = Vec::new();
    let places: Vec<usize> = own
        .iter()
        .filter_map(|id| steps.iter().position(|s| s.id == *id))
        .collect();
    for pair in places.windows(2) {
        let &[before, after] = pair else { continue };
        let wish = Edge {
            before,
            after,
            reason: Reason::AllThere,
            lag: 0,
        };
        held.push(wish);
        if is_circular(steps.len(), &held) {
            held.pop();
            broken.extend(broken_by(steps.len(), edges, before, after));
        }
    }
    broken.sort_by_key(|b| b.edge);
    broken.dedup();
    (held, broken)
}

fn graph(count: usize, edges: &[Edge]) -> DiGraph<(), ()> {
    let mut graph = DiGraph::with_capacity(count, edges.len());
    for _ in 0..count {
        graph.add_node(());
    }
    for edge in edges {
        graph.add_edge(NodeIndex::new(edge.before), NodeIndex::new(edge.after), ());
    }
    graph
}

fn is_circular(count: usize, edges: &[Edge]) -> bool {
    toposort(&graph(count, edges), None).is_err()
}

/// The fewest edges that have to go so that `before` can come before `after`: of the ways from `after` to `before`, the last edge of each, or
/// the first, whichever are fewer.
fn broken_by(count: usize, edges: &[Edge], before: usize, after: usize) -> Vec<Broken> {
    let reaches = |from: usize, to: usize| {
        petgraph::algo::has_path_connecting(
            &graph(count, edges),
            NodeIndex::new(from),
            NodeIndex::new(to),
            None,
        )
    };
    let last = edges
        .iter()
        .enumerate()
        .filter(|(_, e)| e.after == before && reaches(after, e.before));
    let first = edges
        .iter()
        .enumerate()
        .filter(|(_, e)| e.before == after && reaches(e.after, before));
    let (last, first): (Vec<_>, Vec<_>) = (last.collect(), first.collect());
    let fewest = if first.len() < last.len() {
        first
    } else {
        last
    };
    let told = |(edge, e): (usize, &Edge)| Broken {
        edge,
        text: e.reason.lost().to_owned(),
    };
    fewest.into_iter().map(told).collect()
}

impl Built {
    /// Minutes of work, and until all is done.
    #[must_use]
    pub fn minutes(&self) -> (u32, u32) {
        let work = self.steps.iter().map(|s| s.minutes).sum();
        let end = self.order.iter().map(|s| s.to).max().unwrap_or(0);
        (work, end)
    }

    /// Writes the steps in their order, each with its reasons.
    #[must_use]
    pub fn to_json(&self) -> serde_json::Value {
        use serde_json::{Value, json};
        let id = |n: usize| self.steps[n].id.as_str();
        let step = |s: &Scheduled| {
            let step = &self.steps[s.step];
            let after = self.edges.iter().filter(|e| e.after == s.step);
            let after: Vec<Value> = after
                .map(|e| json!({"step": id(e.before), "why": e.reason.text(), "lag": e.lag}))
                .collect();
            let before = self.edges.iter().filter(|e| e.before == s.step);
            let before: Vec<Value> = before
                .map(|e| json!({"step": id(e.after), "why": e.reason.text(), "lag": e.lag}))
                .collect();
            json!({"id": step.id, "text": step.text, "hint": step.hint, "fixes": step.fixes, "on": step.on, "minutes": step.minutes, "dries": step.dries,
                   "no_return": step.no_return, "caution": step.caution.map(|c| json!({"kind": c.name(), "text": c.text()})),
                   "from": s.from, "to": s.to, "after": after, "before": before})
        };
        let broken = |b: &Broken| {
            let edge = self.edges[b.edge];
            json!({"before": id(edge.before), "after": id(edge.after), "text": b.text})
        };
        let (work, end) = self.minutes();
        json!({"format": "metrosk-build/1", "steps": self.order.iter().map(step).collect::<Vec<_>>(), "work": work, "end": end, "least": self.least,
               "broken": self.broken.iter().map(broken).collect::<Vec<_>>()})
    }
}
