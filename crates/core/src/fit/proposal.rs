//! A fit's answer.

use super::approach::{Approach, Map};
use super::check::{Fault, faults};
use super::measure::Measures;
use super::note::Note;
use super::preferences::Emphasis;
use super::request::Request;
use super::{Choices, Conflict};
use crate::document::{length_number, number};
use crate::geometry::Span;
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::sketch::{Flip, QuarterTurn, Sketch};
use serde_json::{Value, json};

/// The `format` of a fit's answer.
const FORMAT: &str = "metrosk-proposals/1";

/// One way that the sketch can go.
#[derive(Clone, Debug, PartialEq)]
pub struct Proposal {
    /// By which approach.
    pub approach: Approach,
    /// The sketch was turned first.
    pub turn: QuarterTurn,
    /// Then flipped.
    pub flip: Flip,
    /// What counted more in it; none where both did.
    pub emphasis: Option<Emphasis>,
    /// 0 to 100, higher is better.
    pub score: f64,
    /// Where everything is.
    pub layout: Layout,
    /// How good it is.
    pub measures: Measures,
    /// What changed and why.
    pub notes: Vec<Note>,
    /// What a refit may hold.
    pub choices: Choices,
    /// For each block that is not as it was wanted, why not.
    pub whys: Vec<(String, Vec<String>)>,
    /// How many choices of sides of the fold were compared, and how many more there were.
    pub tried: (usize, usize),
    /// Each sketch block's drawn, wanted and placed box.
    pub(super) places: Vec<(String, Span, Span, Span)>,
    /// Where another sketch was fitted than the request's own: that sketch's request, the layout in its blocks' names, and by which map.
    pub(super) made: Option<Box<(Request, Layout, Approach)>>,
}

/// What is told of a fit beside its measures.
pub(crate) struct Explanation {
    pub(crate) notes: Vec<Note>,
    pub(crate) whys: Vec<(String, Vec<String>)>,
    pub(crate) tried: (usize, usize),
}

/// Proposals, or what stands in their way. Neither is an error.
#[derive(Clone, Debug, PartialEq)]
pub enum Outcome {
    /// Best first, at least one.
    Proposals(Vec<Proposal>),
    /// The request can't be met.
    Conflict(Conflict),
}

impl Proposal {
    pub(crate) fn new(
        request: &Request,
        sketch: &Sketch,
        choices: Choices,
        layout: Layout,
        measures: Measures,
        told: Explanation,
    ) -> Proposal {
        let Explanation { notes, whys, tried } = told;
        let places = measures
            .groups
            .iter()
            .flat_map(|g| {
                g.blocks
                    .iter()
                    .map(|n| (sketch.blocks[*n].id.clone(), g.drawn, g.want, g.here))
            })
            .collect();
        let map = Map::new(choices.approach, sketch.canvas, request.target);
        let filled = map.apply(sketch.canvas.span()).area() / request.target.span().area();
        let (approach, turn, flip, score) = (
            choices.approach,
            request.turn,
            request.flip,
            score(&measures, filled),
        );
        let emphasis = request.emphasis.filter(|e| *e != Emphasis::Balance);
        Proposal {
            approach,
            turn,
            flip,
            emphasis,
            score,
            layout,
            measures,
            notes,
            choices,
            whys,
            tried,
            places,
            made: None,
        }
    }

    /// The faults of its layout, of which there must be none, against the sketch as it was fitted.
    pub fn faults(&self, request: &Request) -> Vec<Fault> {
        let (request, layout, approach) = match &self.made {
            Some(made) => (&made.0, &made.1, made.2),
            None => (request, &self.layout, self.approach),
        };
        let (request, sketch) = &super::matted::as_fitted(request);
        let place = Map::new(approach, sketch.canvas, request.target).apply(sketch.canvas.span());
        faults(request, sketch, place, layout, &self.notes)
    }

    /// What she added to the sketch stands for none of its blocks.
    pub(super) fn without_added(
        mut self,
        asked: &Request,
        fitted: (&Request, &Sketch),
    ) -> Proposal {
        let is_added = |id: &String| asked.sketch.index_of(id).is_none();
        if !self
            .layout
            .blocks
            .iter()
            .any(|b| b.from.iter().any(is_added))
        {
            return self;
        }
        let (request, sketch) = fitted;
        let as_fitted = || {
            let request = Request {
                sketch: sketch.clone(),
                turn: QuarterTurn::default(),
                flip: Flip::None,
                ..request.clone()
            };
            Box::new((request, self.layout.clone(), self.approach))
        };
        self.made = Some(self.made.take().unwrap_or_else(as_fitted));
        for block in &mut self.layout.blocks {
            block.from.retain(|id| !is_added(id));
        }
        self.places.retain(|(id, ..)| !is_added(id));
        self
    }

    /// Its notes as a maker reads them.
    pub fn sentences(&self) -> Vec<String> {
        self.notes
            .iter()
            .map(|n| n.sentence(self.layout.unit))
            .collect()
    }

    /// Writes the proposal.
    pub fn to_json(&self) -> Value {
        let m = &self.measures;
        let unit = self.layout.unit;
        let places: Vec<Value> = self
            .places
            .iter()
            .map(|(id, drawn, want, here)| {
                let why: Vec<&String> = self.whys.iter().filter(|w| w.0 == *id).flat_map(|w| &w.1).collect();
                json!({"id": id, "sketch": span_json(*drawn, unit), "wanted": span_json(*want, unit), "here": span_json(*here, unit), "why": why})
            })
            .collect();
        let mut written = json!({
            "approach": self.approach.name(),
            "turn": self.turn.degrees(),
            "flip": self.flip.name(),
            "score": (self.score * 10.0).round() / 10.0,
            "layout": self.layout.to_json(),
            "choices": self.choices.to_json(),
            "report": {
                "drift": {"mean": rounded(m.drift_mean), "max": rounded(m.drift_max)},
                "alignments": m.alignments.json(),
                "relations": m.relations.json(),
                "trimmed": rounded(m.trimmed),
                "notes": self.sentences(),
                "blocks": places,
                "search": {"tried": self.tried.0, "left_out": self.tried.1},
            },
        });
        if let Some(emphasis) = self.emphasis {
            written["emphasis"] = json!(emphasis.name());
        }
        written
    }
}

impl Outcome {
    /// Writes the fit response.
    pub fn to_json(&self, unit: Unit) -> Value {
        match self {
            Outcome::Proposals(proposals) => {
                json!({"format": FORMAT, "unit": unit.name(), "proposals": proposals.iter().map(Proposal::to_json).collect::<Vec<_>>()})
            }
            Outcome::Conflict(c) => json!({
                "format": FORMAT, "unit": unit.name(), "proposals": [],
                "conflict": {"text": c.text, "pins": c.pins, "blocks": c.blocks, "limits": c.limits},
            }),
        }
    }
}

fn rounded(share: f64) -> Value {
    number((share * 1e6).round() / 1e6)
}

fn span_json(span: Span, unit: Unit) -> Value {
    let length = |ticks: f64| length_number(Length::from_ticks(ticks.round() as i64), unit);
    json!({"x": length(span.l), "y": length(span.t), "w": length(span.w()), "h": length(span.h())})
}

/// One figure to rank proposals by: lines and neighbours kept, little drift, photos that keep their shape and area, and
/// the share of the target that the sketch fills (a frame around it is paper that the page was bought for).
fn score(m: &Measures, filled: f64) -> f64 {
    let drift = 1.0 - (m.drift_mean / 0.12).min(1.0);
    let shape = 1.0 - (m.slot_shape / 0.5).min(1.0);
    let area = m.photo_area.min(1.0);
    let kept = 0.25 * drift + 0.2 * m.alignments.share() + 0.15 * m.relations.share();
    100.0 * (kept + 0.05 * shape + 0.05 * area + 0.05 * (1.0 - m.trimmed) + 0.25 * filled.min(1.0))
}
