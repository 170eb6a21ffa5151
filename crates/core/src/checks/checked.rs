//! What was found on a page, as a document and in words.

use super::cures::Cure;
use super::near::NearMiss;
use super::request::Check;
use super::trapped::{Pocket, square_inch};
use crate::geometry::Span;
use crate::length::{Length, Unit};
use crate::sketch::rect_json;
use serde_json::{Value, json};

const ANSWER: &str = "metrosk-checked/1";

/// What was found.
#[derive(Clone, Debug, PartialEq)]
pub struct Checked {
    /// Paper that is shut in.
    pub pockets: Vec<Pocket>,
    /// For each pocket what cures it.
    pub cures: Vec<Vec<Cure>>,
    /// Edges that nearly agree.
    pub near: Vec<NearMiss>,
}

/// One finding.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Finding<'a> {
    /// Paper that is shut in, and what cures it.
    Trapped(&'a Pocket, &'a [Cure]),
    /// Edges that nearly agree.
    Near(&'a NearMiss),
}

impl Checked {
    /// All findings, pockets first.
    pub fn findings(&self) -> impl Iterator<Item = Finding<'_>> {
        let pockets = self.pockets.iter().zip(&self.cures);
        pockets
            .map(|(p, cures)| Finding::Trapped(p, cures))
            .chain(self.near.iter().map(Finding::Near))
    }

    /// Writes the answer.
    #[must_use]
    pub fn to_json(&self, check: &Check) -> Value {
        let all: Vec<Value> = self.findings().map(|f| f.to_json(check)).collect();
        json!({"format": ANSWER, "unit": check.unit.name(), "findings": all})
    }
}

impl Finding<'_> {
    /// What is the matter, in words.
    #[must_use]
    pub fn text(&self, check: &Check) -> String {
        let id = |n: &usize| check.layout.blocks[*n].block.id.as_str();
        match self {
            Finding::Trapped(pocket, _) => {
                let names: Vec<&str> = pocket.between.iter().map(id).collect();
                let between = match names.as_slice() {
                    [] => String::new(),
                    [only] => format!(" by {only}"),
                    [rest @ .., last] => format!(" between {} and {last}", rest.join(", ")),
                };
                let area = match check.unit {
                    Unit::Inch => format!("{:.1} square inches", pocket.area / square_inch()),
                    Unit::Millimetre => {
                        let square = (Unit::Millimetre.ticks() as f64 * 10.0).powi(2);
                        format!("{:.1} cm²", pocket.area / square)
                    }
                };
                format!("About {area} of empty paper are shut in{between}.")
            }
            Finding::Near(miss) => format!(
                "The {} edges of {} and {} are {} apart: put them in line, or clearly apart.",
                miss.edge.name(),
                id(&miss.blocks.0),
                id(&miss.blocks.1),
                miss.off.to_ruler_text(check.unit)
            ),
        }
    }

    fn to_json(self, check: &Check) -> Value {
        let id = |n: &usize| check.layout.blocks[*n].block.id.clone();
        let text = self.text(check);
        let unit = check.unit;
        match self {
            Finding::Trapped(pocket, cures) => {
                let between: Vec<String> = pocket.between.iter().map(id).collect();
                let cures: Vec<Value> = cures
                    .iter()
                    .map(|cure| {
                        let mut told =
                            json!({"text": cure.text, "box": rect_json(cure.rect, unit)});
                        if let Some(n) = &cure.block {
                            told["block"] = id(n).into();
                        }
                        told
                    })
                    .collect();
                let area = pocket.area / (unit.ticks() as f64).powi(2);
                json!({"what": "trapped", "box": span_json(pocket.bounds, unit), "area": area,
                       "between": between, "text": text, "cures": cures})
            }
            Finding::Near(miss) => json!({"what": "near", "edge": miss.edge.name(),
                "blocks": [id(&miss.blocks.0), id(&miss.blocks.1)], "off": miss.off.to_units(unit), "text": text}),
        }
    }
}

fn span_json(span: Span, unit: Unit) -> Value {
    let at = |n: f64| Length::from_ticks(n.round() as i64).to_units(unit);
    json!({"x": at(span.l), "y": at(span.t), "w": at(span.w()), "h": at(span.h())})
}
