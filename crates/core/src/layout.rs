//! The layout document: where each block went on the target page or spread.

use crate::document::{Findings, Invalid, Node, number};
use crate::geometry::{Rect, Size, Span};
use crate::length::Unit;
use crate::sketch::{
    Block, Canvas, Kind, Reader, Sketch, block_fields, canvas_json, read_block, read_canvas,
    read_unit, rect_json,
};
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;

/// The `format` of a layout document.
pub const FORMAT: &str = "metrosk-layout/1";
/// How many blocks a layout may have: those of the largest sketch on both pages, split for photos.
const MOST_BLOCKS: usize = 4_000;

/// The part of a print that shows, each 0 to 1 of the print.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Crop {
    /// From the left.
    pub x: f64,
    /// From the top.
    pub y: f64,
    /// Across.
    pub w: f64,
    /// Down.
    pub h: f64,
}

/// The print in a slot.
#[derive(Clone, Debug, PartialEq)]
pub struct Placement {
    /// The print's id.
    pub photo: String,
    /// The print's own size.
    pub print: Size,
    /// What of it shows.
    pub crop: Crop,
}

/// One block of a layout.
#[derive(Clone, Debug, PartialEq)]
pub struct LayoutBlock {
    /// As in a sketch.
    pub block: Block,
    /// The sketch blocks it stands for.
    pub from: Vec<String>,
    /// 0, or 1 for the right page.
    pub page: u8,
    /// The print it holds.
    pub placement: Option<Placement>,
    /// The undivided box, on a part of a block that crosses the fold.
    pub whole: Option<Rect>,
}

/// What a block of a layout is, whatever it is named: which sketch block, and which part of it, from 0. A slot that is split for prints,
/// or a block that is cut at the fold or stands on both pages, has several parts.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct PartId<'a> {
    /// The first of the sketch blocks that it stands for; its own id where it stands for none.
    pub block: &'a str,
    /// Which of that block's parts, in the layout's order.
    pub part: usize,
}

impl LayoutBlock {
    /// Its extent in ticks.
    pub fn extent(&self) -> Span {
        self.block.extent()
    }
}

/// Blocks on a page or a spread, bottom to top.
#[derive(Clone, Debug, PartialEq)]
pub struct Layout {
    /// The unit in which the document is written.
    pub unit: Unit,
    /// The target.
    pub canvas: Canvas,
    /// Bottom to top.
    pub blocks: Vec<LayoutBlock>,
}

impl Layout {
    /// The layout as a sketch to give away: its blocks as they lie, without prints. `other` are fields of the sketch that it came from, its
    /// credit among them.
    pub fn as_sketch(&self, name: String, other: Map<String, Value>) -> Sketch {
        Sketch {
            unit: self.unit,
            name,
            canvas: self.canvas,
            blocks: self.blocks.iter().map(|b| b.block.clone()).collect(),
            other,
        }
    }

    /// Writes the document.
    pub fn to_json(&self) -> Value {
        let blocks: Vec<Value> = self
            .blocks
            .iter()
            .map(|b| block_json(b, self.unit))
            .collect();
        json!({"format": FORMAT, "unit": self.unit.name(), "canvas": canvas_json(self.canvas, self.unit), "blocks": blocks})
    }

    /// Reads a layout document.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Layout, Invalid> {
        let findings = Findings::default();
        let layout = read_layout(&Node::top(value, &findings));
        findings.finish(layout)
    }

    /// What each block is, in their order.
    pub fn identities(&self) -> Vec<PartId<'_>> {
        let mut parts: BTreeMap<&str, usize> = BTreeMap::new();
        let mut found = Vec::with_capacity(self.blocks.len());
        for block in &self.blocks {
            let of = block.from.first().unwrap_or(&block.block.id).as_str();
            let next = parts.entry(of).or_default();
            found.push(PartId {
                block: of,
                part: *next,
            });
            *next += 1;
        }
        found
    }

    /// How many photos it shows; one across the fold is one.
    pub fn photos(&self) -> usize {
        self.each_photo().len()
    }

    /// The photos, each with its parts: two where it crosses the fold.
    pub fn each_photo(&self) -> Vec<Vec<&LayoutBlock>> {
        let mut found: Vec<Vec<&LayoutBlock>> = Vec::new();
        for block in self.blocks.iter().filter(|b| b.block.kind == Kind::Photo) {
            match found.last_mut() {
                Some(parts) if parts.len() == 1 && self.are_parts(parts[0], block) => {
                    parts.push(block)
                }
                _ => found.push(vec![block]),
            }
        }
        found
    }

    /// Whether two blocks, one after the other, are what the fold made of one.
    pub(crate) fn are_parts(&self, left: &LayoutBlock, right: &LayoutBlock) -> bool {
        let (l, r, fold) = (
            left.extent(),
            right.extent(),
            self.canvas.page.w.ticks() as f64,
        );
        let meet = [(l.r, fold), (r.l, fold), (l.t, r.t), (l.b, r.b)]
            .iter()
            .all(|(a, b)| (a - b).abs() <= 1.0);
        meet && self.canvas.pages == 2
            && (left.page, right.page) == (0, 1)
            && left.from == right.from
            && left.whole == right.whole
    }
}

/// What shows of a print in the parts of a photo, together.
pub fn crop_of(parts: &[&LayoutBlock]) -> Option<Crop> {
    let keeps = parts.iter().map(|p| p.placement.as_ref().map(|p| p.crop));
    // Parts of what is no plain rectangle each tell of the whole.
    let keeps = keeps.take(if parts[0].whole.is_some() {
        1
    } else {
        parts.len()
    });
    keeps.reduce(|a, b| a.zip(b).map(|(a, b)| Crop { w: a.w + b.w, ..a }))?
}

fn block_json(block: &LayoutBlock, unit: Unit) -> Value {
    let mut fields = Map::new();
    fields.insert("id".to_owned(), block.block.id.clone().into());
    fields.insert("from".to_owned(), block.from.clone().into());
    fields.extend(block_fields(&block.block, unit));
    fields.insert("page".to_owned(), block.page.into());
    if let Some(placed) = &block.placement {
        let k = placed.crop;
        fields.insert("photo".to_owned(), placed.photo.clone().into());
        let side = |l| crate::document::length_number(l, unit);
        fields.insert(
            "print".to_owned(),
            json!({"w": side(placed.print.w), "h": side(placed.print.h)}),
        );
        fields.insert(
            "keep".to_owned(),
            json!({"x": number(k.x), "y": number(k.y), "w": number(k.w), "h": number(k.h)}),
        );
    }
    if let Some(whole) = block.whole {
        let mut part = Map::from_iter([("box".to_owned(), rect_json(whole, unit))]);
        for name in ["shape", "grid", "ring", "turn"] {
            if let Some(value) = fields.get(name) {
                part.insert(name.to_owned(), value.clone());
            }
        }
        fields.insert("whole".to_owned(), Value::Object(part));
    }
    Value::Object(fields)
}

pub(crate) fn read_layout(top: &Node<'_>) -> Option<Layout> {
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
    let canvas = top
        .need("canvas", "an object with page and pages")
        .and_then(|n| read_canvas(&n, reader));
    let blocks = top
        .need("blocks", "a list of blocks")
        .and_then(|n| n.each(MOST_BLOCKS, |b| read_layout_block(b, reader)));
    Some(Layout {
        unit: unit?,
        canvas: canvas?,
        blocks: blocks?,
    })
}

fn read_layout_block(node: &Node<'_>, reader: Reader) -> Option<LayoutBlock> {
    let undivided = with_fields_of_whole(node.value);
    let node = &node.in_its_place(&undivided);
    let mut block = read_block(node, reader)?;
    let from = node
        .need("from", "a list of sketch blocks' ids")
        .and_then(|n| n.texts(MOST_BLOCKS));
    let page = node.need("page", "0 or 1").and_then(|n| n.count(0, 1));
    let whole = node
        .get("whole")
        .and_then(|n| n.need("box", "an object with x, y, w and h"))
        .map(|n| crate::sketch::read_rect(&n, reader));
    let placed = match node.get("photo") {
        Some(photo) => Some(read_placed(node, photo.text()?, reader)?),
        None => None,
    };
    for known in ["page", "photo", "print", "keep", "whole"] {
        block.other.shift_remove(known);
    }
    Some(LayoutBlock {
        block,
        from: from?,
        page: page? as u8,
        placement: placed,
        whole: whole.flatten(),
    })
}

/// A part's shape, units and turn are those of the undivided block: its box alone is its own.
fn with_fields_of_whole(part: &Value) -> Value {
    let mut fields = part.clone();
    let whole = part.get("whole").and_then(Value::as_object);
    if let (Some(fields), Some(whole)) = (fields.as_object_mut(), whole) {
        let shared = whole.iter().filter(|(name, _)| *name != "box");
        fields.extend(shared.map(|(name, value)| (name.clone(), value.clone())));
    }
    fields
}

fn read_placed(node: &Node<'_>, photo: &str, reader: Reader) -> Option<Placement> {
    let print = node.need("print", "an object with w and h")?;
    let side = |name| {
        print.need(name, "a length above 0").and_then(|n| {
            n.length(
                reader.unit,
                crate::length::Length::from_ticks(1),
                crate::length::Length::LIMIT,
            )
        })
    };
    let keep = node.need("keep", "an object with x, y, w and h")?;
    let share = |name| {
        keep.need(name, "a number from 0 to 1")
            .and_then(|n| n.number(0.0, 1.0))
    };
    Some(Placement {
        photo: photo.to_owned(),
        print: Size {
            w: side("w")?,
            h: side("h")?,
        },
        crop: Crop {
            x: share("x")?,
            y: share("y")?,
            w: share("w")?,
            h: share("h")?,
        },
    })
}
