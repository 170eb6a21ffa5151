//! Pins: an edge, a middle or a size held at a length, or held to another block's.

use crate::document::Node;
use crate::geometry::{Edge, Span};
use crate::length::Length;
use crate::sketch::{Reader, Sketch};

/// How many pins a request may have.
const MOST_PINS: usize = 500;
/// A size may be held to this many times another's at the most, and to a part of it no smaller.
const MOST_TIMES: f64 = 20.0;

/// What a pin holds of a block.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PinEdge {
    /// An edge's place on the target canvas.
    Edge(Edge),
    /// The width.
    Width,
    /// The height.
    Height,
    /// The middle, across.
    CentreX,
    /// The middle, down.
    CentreY,
}

impl PinEdge {
    const ALL: [PinEdge; 8] = [
        PinEdge::Edge(Edge::Left),
        PinEdge::Edge(Edge::Right),
        PinEdge::Edge(Edge::Top),
        PinEdge::Edge(Edge::Bottom),
        PinEdge::Width,
        PinEdge::Height,
        PinEdge::CentreX,
        PinEdge::CentreY,
    ];
    /// The names that documents use.
    pub const NAMES: [&'static str; 8] = [
        "left", "right", "top", "bottom", "width", "height", "centre-x", "centre-y",
    ];

    /// The pin of that document name.
    pub fn from_name(name: &str) -> Option<PinEdge> {
        Self::ALL
            .into_iter()
            .zip(Self::NAMES)
            .find(|(_, n)| *n == name)
            .map(|(e, _)| e)
    }

    /// Its document name.
    pub fn name(self) -> &'static str {
        Self::ALL
            .into_iter()
            .zip(Self::NAMES)
            .find(|(e, _)| *e == self)
            .map_or("left", |(_, n)| n)
    }

    /// Whether it is a size, not a place.
    pub const fn is_size(self) -> bool {
        matches!(self, PinEdge::Width | PinEdge::Height)
    }

    /// What it is in a mirror that stands upright.
    pub const fn mirrored(self) -> PinEdge {
        match self {
            PinEdge::Edge(Edge::Left) => PinEdge::Edge(Edge::Right),
            PinEdge::Edge(Edge::Right) => PinEdge::Edge(Edge::Left),
            other => other,
        }
    }

    /// Whether it is measured across the page.
    pub const fn is_across(self) -> bool {
        matches!(
            self,
            PinEdge::Edge(Edge::Left | Edge::Right) | PinEdge::Width | PinEdge::CentreX
        )
    }

    /// Of a box.
    pub fn of(self, span: Span) -> f64 {
        match self {
            PinEdge::Edge(edge) => span.edge(edge),
            PinEdge::Width => span.w(),
            PinEdge::Height => span.h(),
            PinEdge::CentreX => span.cx(),
            PinEdge::CentreY => span.cy(),
        }
    }

    /// As a maker says it of a block: `the left edge of`.
    pub(crate) fn said(self) -> String {
        match self {
            PinEdge::Edge(edge) => format!("the {} edge of", edge.name()),
            PinEdge::Width => "the width of".to_owned(),
            PinEdge::Height => "the height of".to_owned(),
            PinEdge::CentreX => "the middle (across) of".to_owned(),
            PinEdge::CentreY => "the middle (down) of".to_owned(),
        }
    }
}

/// What a pin is held to in place of the page: so many times another block's size, or another block's place.
#[derive(Clone, Debug, PartialEq)]
pub struct PinTo {
    /// The other sketch block's id.
    pub block: String,
    /// What of it.
    pub edge: PinEdge,
    /// 1 for places.
    pub times: f64,
}

/// An edge, middle or size of a sketch block (after turn and flip), held: at a length on the target canvas, or so far from another
/// block's (`at` is added to it: a distance, or nothing for what lies in one line, touches or is as large).
#[derive(Clone, Debug, PartialEq)]
pub struct Pin {
    /// The sketch block's id.
    pub block: String,
    /// What is held.
    pub edge: PinEdge,
    /// Where, or how far from what it is held to.
    pub at: Length,
    /// To another block rather than to the page.
    pub to: Option<PinTo>,
}

impl Pin {
    /// Where it is held on the canvas itself; none where it is held to another block.
    pub fn on_page(&self) -> Option<Length> {
        self.to.is_none().then_some(self.at)
    }

    /// The blocks it names.
    pub(crate) fn blocks(&self) -> impl Iterator<Item = &String> {
        std::iter::once(&self.block).chain(self.to.iter().map(|to| &to.block))
    }
}

/// Reads a request's pins.
pub(super) fn read(node: &Node<'_>, reader: Reader, sketch: Option<&Sketch>) -> Option<Vec<Pin>> {
    node.each(MOST_PINS, |n| read_pin(n, reader, sketch))
}

fn read_pin(node: &Node<'_>, reader: Reader, sketch: Option<&Sketch>) -> Option<Pin> {
    node.object()?;
    let (block, edge) = read_end(node, sketch);
    let most = Length::inches(400, 1);
    let to = node
        .get("to")
        .map_or(Some(None), |n| read_to(&n, sketch).map(Some));
    let at = match (node.get("at"), &to) {
        (None, Some(Some(_))) => Some(Length::ZERO),
        _ => node
            .need("at", "a length")
            .and_then(|a| a.length(reader.unit, -most, most)),
    };
    let pin = Pin {
        block: block?,
        edge: edge?,
        at: at?,
        to: to?,
    };
    if let Some(to) = &pin.to {
        let (node, own) = (node.get("to")?, &pin);
        if to.edge.is_across() != own.edge.is_across() || to.edge.is_size() != own.edge.is_size() {
            let like = PinEdge::ALL.iter().filter(|e| {
                e.is_across() == own.edge.is_across() && e.is_size() == own.edge.is_size()
            });
            node.get("edge")?.wrong(format!(
                "{} for a pin of the {}",
                like.map(|e| e.name()).collect::<Vec<_>>().join(", "),
                own.edge.name()
            ));
        } else if to.block == own.block {
            node.get("block")?.wrong("another block than the pin's own");
        } else if (to.times - 1.0).abs() > f64::EPSILON && !to.edge.is_size() {
            node.get("times")?
                .wrong("1 for a place; a size may be held to a part or a multiple of another's");
        }
    }
    Some(pin)
}

fn read_end(node: &Node<'_>, sketch: Option<&Sketch>) -> (Option<String>, Option<PinEdge>) {
    let block = node.need("block", "a block's id").and_then(|b| {
        let id = b.text()?;
        if sketch.is_some_and(|s| s.index_of(id).is_none()) {
            b.wrong("the id of a block of the sketch");
        }
        Some(id.to_owned())
    });
    let edge = node
        .need("edge", &PinEdge::NAMES.join(", "))
        .and_then(|e| e.one_of(&PinEdge::NAMES, PinEdge::from_name));
    (block, edge)
}

fn read_to(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<PinTo> {
    node.object()?;
    let (block, edge) = read_end(node, sketch);
    let times = node.get("times").map_or(Some(1.0), |n| {
        let times = n
            .value
            .as_f64()
            .filter(|t| (1.0 / MOST_TIMES..=MOST_TIMES).contains(t));
        if times.is_none() {
            n.wrong(format!(
                "a number from {} to {MOST_TIMES}",
                1.0 / MOST_TIMES
            ));
        }
        times
    });
    Some(PinTo {
        block: block?,
        edge: edge?,
        times: times?,
    })
}
