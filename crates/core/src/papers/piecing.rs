//! What is to be pieced, and the answer: `metrosk-piecing/1` and `metrosk-pieces/1`.

use crate::document::{self, Findings, Invalid, Node, number};
use crate::geometry::Span;
use crate::layout::{Layout, read_layout};
use crate::length::{Length, Unit};
use crate::sketch::{Kind, read_unit};
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

const FORMAT: &str = "metrosk-piecing/1";
const ANSWER: &str = "metrosk-pieces/1";
/// How many names a list of a request may have.
const MOST_NAMES: usize = 10_000;

/// How much of a block is cut.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum CutSize {
    /// What shows, and the tuck allowance under its neighbours.
    #[default]
    Lean,
    /// All of it.
    Whole,
}

impl CutSize {
    /// The names that documents use.
    pub const NAMES: [&'static str; 2] = ["lean", "whole"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        match self {
            CutSize::Lean => "lean",
            CutSize::Whole => "whole",
        }
    }

    /// The size of that document name.
    pub fn from_name(name: &str) -> Option<CutSize> {
        match name {
            "lean" => Some(CutSize::Lean),
            "whole" => Some(CutSize::Whole),
            _ => None,
        }
    }
}

/// What may come out of the hidden middle of a sheet.
#[derive(Clone, Debug, PartialEq)]
pub struct Gutting {
    /// How far a hole stays away from what shows.
    pub margin: Length,
    /// How far from each side of the sheet.
    pub bar: Length,
    /// How long each side of a hole is at least.
    pub least: Length,
    /// The pieces that may be gutted.
    pub from: BTreeSet<String>,
}

/// A layout and the papers for it.
#[derive(Clone, Debug, PartialEq)]
pub struct Piecing {
    /// The unit in which the document is written.
    pub unit: Unit,
    /// What lies where.
    pub layout: Layout,
    /// The paper under each page.
    pub ground: Vec<Option<String>>,
    /// The paper of each block, or of a unit of a grid or ring alone, by id.
    pub papers: BTreeMap<String, String>,
    /// Papers that hide nothing.
    pub see_through: BTreeSet<String>,
    /// How far a piece reaches under its neighbours.
    pub tuck: Length,
    /// The same for a block alone.
    pub tucks: BTreeMap<String, Length>,
    /// How much is cut.
    pub cut: CutSize,
    /// The same for a block alone.
    pub cuts: BTreeMap<String, CutSize>,
    /// What may be gutted; none where she doesn't.
    pub gut: Option<Gutting>,
    /// Blocks that are put together out of strips: what is hidden of each is looked for.
    pub of_strips: BTreeSet<String>,
}

/// How far each side of a cut reaches beyond what shows, in ticks.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Tucked {
    /// At the left.
    pub left: f64,
    /// At the right.
    pub right: f64,
    /// At the top.
    pub top: f64,
    /// At the bottom.
    pub bottom: f64,
}

/// A piece of paper: what shows of it, and what is cut. Places are those of the spread, in ticks.
#[derive(Clone, Debug, PartialEq)]
pub struct Piece {
    /// `ground-0`, a block's id, or a unit's: `g1/2/3`, `r1/4`.
    pub id: String,
    /// The block it belongs to; the ground's own id.
    pub block: String,
    /// What it is cut from.
    pub paper: String,
    /// 0, or 1 for the right page.
    pub page: u8,
    /// Degrees clockwise.
    pub turn: f64,
    /// The upright box around what shows.
    pub shows: Span,
    /// How much shows, in square ticks.
    pub area: f64,
    /// The separate parts that show: the box around each in the block's own frame, and its area.
    pub parts: Vec<(Span, f64)>,
    /// The rectangle to cut, in the block's own frame.
    pub cut: Span,
    /// How far that reaches beyond what shows.
    pub tucked: Tucked,
    /// What can come out of its hidden middle.
    pub hole: Option<Span>,
    /// All that is hidden in its middle, where it is put together out of strips.
    pub hidden: Option<Span>,
}

/// What is to be cut for a layout.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Pieces {
    /// Bottom to top, page by page.
    pub pieces: Vec<Piece>,
    /// Pieces of which nothing shows.
    pub not_needed: Vec<String>,
}

impl Piecing {
    /// Reads what is to be pieced.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Piecing, Invalid> {
        let findings = Findings::default();
        let piecing = read_piecing(&Node::top(value, &findings));
        findings.finish(piecing)
    }

    /// Reads it from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<Piecing, Invalid> {
        Piecing::from_json(&document::parse_json(text)?)
    }

    /// The paper of a piece: its own, or that of its block.
    pub fn paper_of(&self, piece: &str, block: &str) -> Option<&str> {
        let paper = self.papers.get(piece).or_else(|| self.papers.get(block));
        paper.map(String::as_str)
    }

    /// How far a block's pieces reach under their neighbours.
    pub(super) fn tuck_of(&self, block: &str) -> f64 {
        self.tucks.get(block).unwrap_or(&self.tuck).ticks() as f64
    }

    /// How much of a block's pieces is cut.
    pub(super) fn cut_of(&self, block: &str) -> CutSize {
        *self.cuts.get(block).unwrap_or(&self.cut)
    }

    /// Writes an answer.
    #[must_use]
    pub fn answer(&self, pieces: &Pieces) -> Value {
        let written: Vec<Value> = pieces.pieces.iter().map(|p| self.piece_json(p)).collect();
        json!({"format": ANSWER, "unit": self.unit.name(), "pieces": written, "not_needed": pieces.not_needed})
    }

    fn piece_json(&self, piece: &Piece) -> Value {
        let ticks = self.unit.ticks() as f64;
        let page = f64::from(piece.page) * self.layout.canvas.page.w.ticks() as f64;
        let side = |v: f64| number(v / ticks);
        let rect = |s: Span| json!({"x": side(s.l - page), "y": side(s.t), "w": side(s.w()), "h": side(s.h())});
        let t = piece.tucked;
        let mut written = json!({
            "id": piece.id, "block": piece.block, "paper": piece.paper, "page": piece.page, "turn": number(piece.turn),
            "shows": {"box": rect(piece.shows), "area": number(piece.area / ticks / ticks), "parts": piece.parts.len()},
            "cut": rect(piece.cut),
            "tucked": {"left": side(t.left), "right": side(t.right), "top": side(t.top), "bottom": side(t.bottom)},
        });
        if let Some(hole) = piece.hole {
            written["hole"] = rect(hole);
        }
        written
    }
}

/// Whether a block of a kind can be cut from paper.
pub const fn is_papered(kind: Kind) -> bool {
    matches!(
        kind,
        Kind::Mat | Kind::Paper | Kind::Strip | Kind::Accent | Kind::Grid | Kind::Ring
    )
}

fn read_piecing(top: &Node<'_>) -> Option<Piecing> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top);
    let layout = top
        .need("layout", "a layout document")
        .and_then(|n| read_layout(&n));
    let (unit, layout) = (unit?, layout?);
    let kinds = read_kinds(top, &layout);
    let length = |n: &Node<'_>| n.length(unit, Length::ZERO, Length::LIMIT);
    let papers = named(top, "papers", |name, n| read_paper(name, n, &kinds));
    let of_block = |name: &str, n: &Node<'_>| {
        let known = kinds.contains_key(name);
        if !known {
            n.wrong_because(format!("“{name}”"), "a block of the layout");
        }
        known
    };
    let tucks = named(top, "tucks", |name, n| {
        length(n).filter(|_| of_block(name, n))
    });
    let size = |n: &Node<'_>| n.one_of(&CutSize::NAMES, CutSize::from_name);
    let cuts = named(top, "cuts", |name, n| size(n).filter(|_| of_block(name, n)));
    let texts = |name| {
        top.get(name)
            .map_or(Some(Vec::new()), |n| n.texts(MOST_NAMES))
    };
    let gut = top
        .get("gut")
        .map_or(Some(None), |n| read_gutting(&n, unit).map(Some));
    let tuck = top
        .get("tuck")
        .map_or(Some(Length::inches(1, 2)), |n| length(&n));
    let cut = top.get("cut").map_or(Some(CutSize::Lean), |n| size(&n));
    Some(Piecing {
        unit,
        ground: read_ground(top)?,
        papers: papers?,
        see_through: texts("see_through")?.into_iter().collect(),
        tuck: tuck?,
        tucks: tucks?,
        cut: cut?,
        cuts: cuts?,
        gut: gut?,
        of_strips: BTreeSet::new(),
        layout,
    })
}

/// Each block's kind; an id that stands twice is a finding.
fn read_kinds(top: &Node<'_>, layout: &Layout) -> BTreeMap<String, Kind> {
    let mut kinds = BTreeMap::new();
    for (n, block) in layout.blocks.iter().enumerate() {
        let twice = kinds
            .insert(block.block.id.clone(), block.block.kind)
            .is_some();
        if twice && let Some(node) = top.get("layout").and_then(|l| l.get("blocks")) {
            node.items()[n].wrong_because(
                format!("“{}” a second time", block.block.id),
                "ids that are unique in the document",
            );
        }
    }
    kinds
}

fn read_paper(name: &str, node: &Node<'_>, kinds: &BTreeMap<String, Kind>) -> Option<String> {
    let allowed = "a mat, paper, strip, accent, grid or ring of the layout";
    let found = match kinds.get(name) {
        Some(kind) if is_papered(*kind) => None,
        Some(kind) => Some(format!("the {} “{name}”", kind.word())),
        None => Some(format!("“{name}”, which is no block")),
    };
    match found {
        None => node.text().map(str::to_owned),
        Some(found) => {
            node.wrong_because(found, allowed);
            None
        }
    }
}

/// An object's fields, each by its name; none where it is left out.
fn named<T>(
    top: &Node<'_>,
    field: &str,
    read: impl Fn(&str, &Node<'_>) -> Option<T>,
) -> Option<BTreeMap<String, T>> {
    let Some(node) = top.get(field) else {
        return Some(BTreeMap::new());
    };
    let fields = node.object()?.iter();
    // All are read before any failure counts.
    let found: Vec<(String, Option<T>)> = fields
        .map(|(name, value)| (name.clone(), read(name, &node.with(name, value))))
        .collect();
    found
        .into_iter()
        .map(|(name, value)| Some((name, value?)))
        .collect()
}

fn read_ground(top: &Node<'_>) -> Option<Vec<Option<String>>> {
    let Some(node) = top.get("ground") else {
        return Some(Vec::new());
    };
    let page = |n: &Node<'_>| match n.value {
        Value::Null => Some(None),
        _ => n
            .text()
            .map(|t| Some(t.to_owned()).filter(|t| !t.is_empty())),
    };
    node.each(2, page)
}

fn read_gutting(node: &Node<'_>, unit: Unit) -> Option<Gutting> {
    node.object()?;
    let length = |name| {
        node.need(name, "a length from 0")
            .and_then(|n| n.length(unit, Length::ZERO, Length::LIMIT))
    };
    let (margin, bar, least) = (length("margin"), length("bar"), length("least"));
    let from = node
        .get("from")
        .map_or(Some(Vec::new()), |n| n.texts(MOST_NAMES));
    Some(Gutting {
        margin: margin?,
        bar: bar?,
        least: least?,
        from: from?.into_iter().collect(),
    })
}
