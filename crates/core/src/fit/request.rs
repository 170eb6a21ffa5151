//! The fit request: a sketch, a target, prints, and what the maker holds to. What is decided at the sketch, about the photos and at the
//! fit are read one by one, so that a page's plan can keep them as sections of its own.

use super::approach::Approach;
use super::fold_choice::{self, FoldChoice};
use super::holds::{self, Holds};
use super::pin::{self, Pin};
use super::preferences::{self, Emphasis, Slack};
use super::slot_choice::{self, SlotChoice};
use crate::document::{self, Findings, Invalid, Node};
use crate::geometry::Span;
use crate::length::{Length, Unit};
use crate::photos::{
    LiftChoice, MatChoice, Photos, Print, Sides, read_lifts, read_mats, read_photos,
};
use crate::sketch::{Canvas, Flip, Kind, QuarterTurn, Reader, Sketch, read_canvas, read_unit};
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};

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
    /// The mats she chose; where she chose none, the sketch's own stay.
    pub mats: Vec<MatChoice>,
    /// Of mats that are in the sketch because she chose them, how far each reaches beyond its photo; empty in a request that was read.
    pub reaches: BTreeMap<String, Sides>,
    /// Of these, the mats of which prints that share a slot have one each.
    pub one_each: BTreeSet<String>,
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
    /// What the maker chose for single blocks at the fold.
    pub at_fold: Vec<FoldChoice>,
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

    /// The request that decisions of three stations make together.
    pub fn of(
        unit: Unit,
        sketch: SketchDecisions,
        photos: PhotoDecisions,
        fit: FitDecisions,
    ) -> Request {
        Request {
            unit,
            sketch: sketch.sketch,
            turn: sketch.turn,
            flip: sketch.flip,
            holds: sketch.holds,
            photos: photos.photos,
            whole: photos.whole,
            mats: photos.mats,
            reaches: BTreeMap::new(),
            one_each: BTreeSet::new(),
            target: fit.target,
            margin: fit.margin,
            fold_guard: fit.fold_guard,
            approach: fit.approach,
            snap: fit.snap,
            pins: fit.pins,
            across_fold: fit.across_fold,
            slots: fit.slots,
            at_fold: fit.at_fold,
            slack: fit.slack,
            emphasis: fit.emphasis,
        }
    }

    /// How many photos are asked for, when the request says so.
    pub fn photo_count(&self) -> Option<usize> {
        self.photos.count()
    }
}

/// What is decided about the sketch: how it stands, and what of it is held.
#[derive(Clone, Debug, PartialEq)]
pub struct SketchDecisions {
    /// The sketch as drawn.
    pub sketch: Sketch,
    /// Applied to the sketch first.
    pub turn: QuarterTurn,
    /// Applied after the turn.
    pub flip: Flip,
    /// The keep-list, and readings switched off or added.
    pub holds: Holds,
}

impl SketchDecisions {
    /// The fields of documents that hold them.
    pub const FIELDS: [&'static str; 5] = ["sketch", "turn", "flip", "keep", "readings"];

    /// Reads them from the object that has their fields.
    pub(crate) fn read(top: &Node<'_>, findings: &Findings) -> Option<SketchDecisions> {
        let sketch = top
            .need("sketch", "a sketch document")
            .and_then(|n| read_inner_sketch(&n, findings));
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
        let holds = holds::read(top, sketch.as_ref());
        let decided = SketchDecisions {
            sketch: sketch?,
            turn: turn?,
            flip: flip?,
            holds: holds?,
        };
        if decided.turn.exchanges()
            && decided.sketch.canvas.pages == 2
            && let Some(node) = top.get("turn")
        {
            node.wrong("0 or 180 for a sketch of two pages");
        }
        Some(decided)
    }
}

/// What is decided about the photos.
#[derive(Clone, Debug, PartialEq)]
pub struct PhotoDecisions {
    /// Which photos.
    pub photos: Photos,
    /// Prints keep their size (`whole`), or may be trimmed to suit (`trim`).
    pub whole: bool,
    /// Prints that lie on the worktop without a place.
    pub aside: Vec<Print>,
    /// The mats she chose; where she chose none, the sketch's own stay.
    pub mats: Vec<MatChoice>,
    /// What lifts photos off the page.
    pub lift: Vec<LiftChoice>,
    /// How thick a page, or a spread that is closed, may be in its protector.
    pub room: Length,
}

/// What a page protector takes where nobody says otherwise.
const ROOM: Length = Length::inches(1, 4);

impl PhotoDecisions {
    /// The fields of documents that hold what a layout follows from.
    pub const FIELDS: [&'static str; 3] = ["photos", "photo_rule", "mats"];

    /// Reads them from the object that has their fields.
    pub(crate) fn read(top: &Node<'_>, reader: Reader) -> Option<PhotoDecisions> {
        let photos = match top.get("photos") {
            Some(node) => read_photos(&node, reader).map(|w| (w.photos, w.aside)),
            None => Some((Photos::AsDrawn, Vec::new())),
        };
        let mats = top
            .get("mats")
            .map_or(Some(Vec::new()), |n| read_mats(&n, reader));
        let lift = top.get("lift").map_or(Some(Vec::new()), |n| read_lifts(&n));
        let room = top.get("room").map_or(Some(ROOM), |n| {
            n.length(reader.unit, Length::inches(1, 64), Length::inches(4, 1))
        });
        let whole = top.get("photo_rule").map_or(Some(false), |n| {
            n.one_of(&["trim", "whole"], |t| match t {
                "trim" => Some(false),
                "whole" => Some(true),
                _ => None,
            })
        });
        let (photos, aside) = photos?;
        Some(PhotoDecisions {
            photos,
            whole: whole?,
            aside,
            mats: mats?,
            lift: lift?,
            room: room?,
        })
    }
}

/// What is decided at the fit itself.
#[derive(Clone, Debug, PartialEq)]
pub struct FitDecisions {
    /// The page or spread to fill.
    pub target: Canvas,
    /// What stays free along the canvas's edges.
    pub margin: Length,
    /// What photos, titles and journaling stay away from the fold.
    pub fold_guard: Length,
    /// The approach asked for; none for `auto`.
    pub approach: Option<Approach>,
    /// The ruler step, zero for none.
    pub snap: Length,
    /// What is held.
    pub pins: Vec<Pin>,
    /// Kinds that may be cut at the fold beyond strips, panels, grids, rings and washes.
    pub across_fold: Vec<Kind>,
    /// What the maker chose for single slots.
    pub slots: Vec<SlotChoice>,
    /// What the maker chose for single blocks at the fold.
    pub at_fold: Vec<FoldChoice>,
    /// Where leftover room goes.
    pub slack: Slack,
    /// What counts more where the page's shape changes; none where she has not said.
    pub emphasis: Option<Emphasis>,
}

impl FitDecisions {
    /// The fields of documents that hold them.
    pub const FIELDS: [&'static str; 9] = [
        "target",
        "approach",
        "snap",
        "pins",
        "across_fold",
        "slots",
        "at_fold",
        "slack",
        "emphasis",
    ];

    /// Reads them from the object that has their fields; the blocks that they name are those of the sketch.
    pub(crate) fn read(
        top: &Node<'_>,
        reader: Reader,
        sketch: Option<&Sketch>,
    ) -> Option<FitDecisions> {
        let target = top
            .need("target", "an object with page and pages")
            .and_then(|n| read_target(&n, reader));
        let approach = top.get("approach").map_or(Some(None), |n| {
            n.one_of(&Approach::NAMES, Approach::or_auto)
        });
        let snap = top.get("snap").map_or(Some(Length::ZERO), |n| {
            n.length(reader.unit, Length::ZERO, COARSEST)
        });
        let pins = top
            .get("pins")
            .map_or(Some(Vec::new()), |n| pin::read(&n, reader, sketch));
        let across_fold = top.get("across_fold").map_or(Some(Vec::new()), |n| {
            n.each(KINDS_ACROSS.len(), |k| {
                k.one_of(&KINDS_ACROSS, |t| {
                    Kind::from_name(t).filter(|_| KINDS_ACROSS.contains(&t))
                })
            })
        });
        let slots = top
            .get("slots")
            .map_or(Some(Vec::new()), |n| slot_choice::read(&n, sketch));
        let at_fold = top
            .get("at_fold")
            .map_or(Some(Vec::new()), |n| fold_choice::read(&n, sketch));
        let slack = top.get("slack").map_or(Some(Slack::default()), |n| {
            preferences::read_slack(&n, sketch)
        });
        let emphasis = top
            .get("emphasis")
            .map_or(Some(None), |n| preferences::read_emphasis(&n).map(Some));
        let (target, margin, fold_guard) = target?;
        Some(FitDecisions {
            target,
            margin,
            fold_guard,
            approach: approach?,
            snap: snap?,
            pins: pins?,
            across_fold: across_fold?,
            slots: slots?,
            at_fold: at_fold?,
            slack: slack?,
            emphasis: emphasis?,
        })
    }

    /// Rules that hold between these decisions and those of the stations before, as findings at their fields.
    pub(crate) fn check_against(
        &self,
        top: &Node<'_>,
        sketch: &SketchDecisions,
        photos: &PhotoDecisions,
    ) {
        let (from, to) = (sketch.sketch.canvas.pages, self.target.pages);
        if let Some(approach) = self.approach
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
        check_slots(top, &sketch.sketch, photos, &self.slots);
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
    let sketch = SketchDecisions::read(top, findings);
    let photos = PhotoDecisions::read(top, reader);
    let fit = FitDecisions::read(top, reader, sketch.as_ref().map(|s| &s.sketch));
    let (unit, sketch, photos, fit) = (unit?, sketch?, photos?, fit?);
    fit.check_against(top, &sketch, &photos);
    Some(Request::of(unit, sketch, photos, fit))
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

/// What she chose for slots must leave each photo its room, and show no more photos than there are.
fn check_slots(top: &Node<'_>, sketch: &Sketch, photos: &PhotoDecisions, slots: &[SlotChoice]) {
    let Some(node) = top.get("slots") else { return };
    let spans = |id: &String| sketch.index_of(id).map(|n| sketch.blocks[n].extent());
    for (choice, node) in slots.iter().zip(node.items()) {
        let Some(frame) = choice.photos.iter().filter_map(spans).reduce(Span::around) else {
            continue;
        };
        let between = sketch
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
    let Some(count) = photos.photos.count() else {
        return;
    };
    let shown: usize = slots.iter().map(|s| s.way.shows() as usize).sum();
    let named: usize = slots.iter().map(|s| s.photos.len()).sum();
    let all_named = named >= sketch.photo_slots();
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
