//! The fit request: a sketch, a target, prints, and what the maker holds to.

use super::approach::Approach;
use super::fold_choice::{self, FoldChoice};
use super::holds::{self, Holds};
use super::pin::{self, Pin};
use super::preferences::{self, Emphasis, Slack};
use super::prints::{Photos, read_photos};
use super::slot_choice::{self, SlotChoice};
use crate::document::{self, Findings, Invalid, Node};
use crate::geometry::{Edge, Span};
use crate::length::{Length, Unit};
use crate::sketch::{Canvas, Flip, Kind, QuarterTurn, Reader, Sketch, read_canvas, read_unit};
use serde_json::Value;

/// The `format` of a fit request.
const FORMAT: &str = "metrosk-fit/1";
/// The coarsest ruler step: 1 in.
const COARSEST: Length = Length::inches(1, 1);
const KINDS_ACROSS: [&str; 3] = ["title", "journal", "photo"];

/// A fit request, in ticks.
#[derive(Clone, Debug, PartialEq)]
pub struct Request {
    /// The unit of the request and of its answer.
    pub unit: Unit,
    /// The sketch as drawn.
    pub sketch: Sketch,
    /// The page or spread to fill.
    pub target: Canvas,
    /// What stays free along the canvas's edges.
    pub margin: Length,
    /// What photos, titles and journaling stay away from the fold.
    pub fold_guard: Length,
    /// Which photos.
    pub photos: Photos,
    /// Prints keep their size (`whole`), or may be trimmed to suit (`trim`).
    pub whole: bool,
    /// The approach asked for; none for `auto`.
    pub approach: Option<Approach>,
    /// Applied to the sketch first.
    pub turn: QuarterTurn,
    /// Applied after the turn.
    pub flip: Flip,
    /// The ruler step, zero for none.
    pub snap: Length,
    /// What is held.
    pub pins: Vec<Pin>,
    /// Kinds that may be cut at the fold beyond strips, panels, grids, rings and washes.
    pub across_fold: Vec<Kind>,
    /// The keep-list, and readings switched off or added.
    pub holds: Holds,
    /// What the maker chose for single slots.
    pub slots: Vec<SlotChoice>,
    /// On one page of a spread that is said twice, the edges where the fold may be; no field of the document.
    pub fold_at: Vec<Edge>,
    /// What the maker chose for single blocks at the fold.
    pub at_fold: Vec<FoldChoice>,
    /// Those of them that the fit itself has doubled; no field of the document.
    pub doubled: Vec<String>,
    /// Where leftover room goes.
    pub slack: Slack,
    /// What counts more where the page's shape changes; none where she has not said.
    pub emphasis: Option<Emphasis>,
}

impl Request {
    /// Reads a request.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Request, Invalid> {
        let findings = Findings::default();
        let request = read_request(&Node::top(value, &findings), &findings);
        findings.finish(request)
    }

    /// Reads a request from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<Request, Invalid> {
        Request::from_json(&document::parse_json(text)?)
    }

    /// How many photos are asked for, when the request says so.
    pub fn photo_count(&self) -> Option<usize> {
        match &self.photos {
            Photos::AsDrawn => None,
            Photos::Count(count) => Some(*count as usize),
            Photos::Prints(prints) => Some(prints.len()),
        }
    }
}

fn read_request(top: &Node<'_>, findings: &Findings) -> Option<Request> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top);
    let reader = Reader {
        unit: unit.unwrap_or_default(),
    };
    let sketch = top
        .need("sketch", "a sketch document")
        .and_then(|n| read_inner_sketch(&n, findings));
    let target = top
        .need("target", "an object with page and pages")
        .and_then(|n| read_target(&n, reader));
    let photos = top
        .get("photos")
        .map_or(Some(Photos::AsDrawn), |n| read_photos(&n, reader));
    let whole = top.get("photo_rule").map_or(Some(false), |n| {
        n.one_of(&["trim", "whole"], |t| match t {
            "trim" => Some(false),
            "whole" => Some(true),
            _ => None,
        })
    });
    let approach = top.get("approach").map_or(Some(None), |n| {
        n.one_of(&Approach::NAMES, Approach::or_auto)
    });
    let turn = top.get("turn").map_or(Some(QuarterTurn::default()), |n| {
        let turn = n
            .value
            .as_f64()
            .filter(|d| d.fract() == 0.0 && *d >= 0.0)
            .and_then(|d| QuarterTurn::from_degrees(d as u32));
        if turn.is_none() {
            n.wrong("0, 90, 180 or 270");
        }
        turn
    });
    let flip = top.get("flip").map_or(Some(Flip::None), |n| {
        n.one_of(&Flip::NAMES, Flip::from_name)
    });
    let snap = top.get("snap").map_or(Some(Length::ZERO), |n| {
        n.length(reader.unit, Length::ZERO, COARSEST)
    });
    let pins = top
        .get("pins")
        .map_or(Some(Vec::new()), |n| pin::read(&n, reader, sketch.as_ref()));
    let across_fold = top.get("across_fold").map_or(Some(Vec::new()), |n| {
        n.each(KINDS_ACROSS.len(), |k| {
            k.one_of(&KINDS_ACROSS, |t| {
                Kind::from_name(t).filter(|_| KINDS_ACROSS.contains(&t))
            })
        })
    });
    let holds = holds::read(top, sketch.as_ref());
    let slots = top
        .get("slots")
        .map_or(Some(Vec::new()), |n| slot_choice::read(&n, sketch.as_ref()));
    let at_fold = top
        .get("at_fold")
        .map_or(Some(Vec::new()), |n| fold_choice::read(&n, sketch.as_ref()));
    let slack = top.get("slack").map_or(Some(Slack::default()), |n| {
        preferences::read_slack(&n, sketch.as_ref())
    });
    let emphasis = top
        .get("emphasis")
        .map_or(Some(None), |n| preferences::read_emphasis(&n).map(Some));
    let (canvas, margin, fold_guard) = target?;
    let request = Request {
        unit: unit?,
        sketch: sketch?,
        target: canvas,
        margin,
        fold_guard,
        photos: photos?,
        whole: whole?,
        approach: approach?,
        turn: turn?,
        flip: flip?,
        snap: snap?,
        pins: pins?,
        across_fold: across_fold?,
        holds: holds?,
        slots: slots?,
        fold_at: Vec::new(),
        doubled: Vec::new(),
        at_fold: at_fold?,
        slack: slack?,
        emphasis: emphasis?,
    };
    check_together(top, &request);
    Some(request)
}

/// Reads the sketch with its findings under `sketch.`.
fn read_inner_sketch(node: &Node<'_>, findings: &Findings) -> Option<Sketch> {
    match Sketch::from_json(node.value) {
        Ok(sketch) if sketch.blocks.is_empty() => {
            findings.add(
                "sketch.blocks",
                "an empty list",
                "at least one block to fit",
            );
            None
        }
        Ok(sketch) => Some(sketch),
        Err(invalid) => {
            for f in invalid.findings {
                let path = if f.path.is_empty() {
                    node.path.clone()
                } else {
                    format!("{}.{}", node.path, f.path)
                };
                findings.add(&path, f.found, f.allowed);
            }
            None
        }
    }
}

fn read_target(node: &Node<'_>, reader: Reader) -> Option<(Canvas, Length, Length)> {
    let canvas = read_canvas(node, reader)?;
    let room = |name: &str, most: Length| {
        node.get(name).map_or(Some(Length::ZERO), |n| {
            n.length(reader.unit, Length::ZERO, most)
        })
    };
    let half = |l: Length| Length::from_ticks(l.ticks() * 2 / 5);
    let margin = room("margin", half(canvas.page.w).min(half(canvas.page.h)));
    let guard = room("fold_guard", half(canvas.page.w));
    Some((canvas, margin?, guard?))
}

/// Rules that need more than one field.
fn check_together(top: &Node<'_>, request: &Request) {
    let (from, to) = (request.sketch.canvas.pages, request.target.pages);
    if let Some(approach) = request.approach
        && let Some(node) = top.get("approach")
        && !Approach::that_apply(from, to).contains(&approach)
    {
        let names: Vec<&str> = Approach::that_apply(from, to)
            .iter()
            .map(|a| a.name())
            .collect();
        node.wrong(format!(
            "auto, {} for a sketch of {from} and a target of {to}",
            names.join(", ")
        ));
    }
    if request.turn.exchanges()
        && from == 2
        && let Some(node) = top.get("turn")
    {
        node.wrong("0 or 180 for a sketch of two pages");
    }
    check_slots(top, request);
}

/// What she chose for slots must leave each photo its room, and show no more photos than there are.
fn check_slots(top: &Node<'_>, request: &Request) {
    let Some(node) = top.get("slots") else { return };
    let spans = |id: &String| {
        request
            .sketch
            .index_of(id)
            .map(|n| request.sketch.blocks[n].extent())
    };
    for (choice, node) in request.slots.iter().zip(node.items()) {
        let Some(frame) = choice.photos.iter().filter_map(spans).reduce(Span::around) else {
            continue;
        };
        let between = request
            .sketch
            .blocks
            .iter()
            .filter(|b| b.kind == Kind::Photo && !choice.photos.contains(&b.id));
        if let Some(other) = between
            .into_iter()
            .find(|b| choice.photos.len() > 1 && b.extent().overlaps(frame, 1.0))
        {
            node.wrong_because(
                format!("photo {} between them", other.id),
                "photos with no other between them",
            );
        }
    }
    let Some(count) = request.photo_count() else {
        return;
    };
    let shown: usize = request.slots.iter().map(|s| s.way.shows() as usize).sum();
    let named: usize = request.slots.iter().map(|s| s.photos.len()).sum();
    let all_named = named >= request.sketch.photo_slots();
    if shown > count || all_named && shown != count {
        node.wrong_because(
            format!("choices that show {shown} photos"),
            format!(
                "{} {count}, as many as are asked for",
                if all_named { "exactly" } else { "at most" }
            ),
        );
    }
}
