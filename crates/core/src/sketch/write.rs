//! From a sketch to JSON.

use super::block::{Block, Shape, UnitShape};
use super::{Canvas, FORMAT, Sketch};
use crate::document::{length_number, number};
use crate::geometry::{Edge, Rect};
use crate::length::Unit;
use serde_json::{Map, Value, json};

pub(super) fn sketch_json(sketch: &Sketch) -> Value {
    let unit = sketch.unit;
    let mut top = Map::new();
    top.insert("format".to_owned(), FORMAT.into());
    top.insert("unit".to_owned(), unit.name().into());
    top.insert("name".to_owned(), sketch.name.clone().into());
    top.extend(sketch.other.clone());
    top.insert("canvas".to_owned(), canvas_json(sketch.canvas, unit));
    let blocks = sketch.blocks.iter().map(|b| {
        let mut fields = Map::new();
        fields.insert("id".to_owned(), b.id.clone().into());
        fields.extend(block_fields(b, unit));
        Value::Object(fields)
    });
    top.insert("blocks".to_owned(), blocks.collect());
    Value::Object(top)
}

pub(crate) fn canvas_json(canvas: Canvas, unit: Unit) -> Value {
    json!({"page": {"w": length_number(canvas.page.w, unit), "h": length_number(canvas.page.h, unit)}, "pages": canvas.pages})
}

pub(crate) fn rect_json(rect: Rect, unit: Unit) -> Value {
    let length = |l| length_number(l, unit);
    json!({"x": length(rect.x), "y": length(rect.y), "w": length(rect.w), "h": length(rect.h)})
}

/// All fields of a block but its id, defaults left out.
pub(crate) fn block_fields(block: &Block, unit: Unit) -> Map<String, Value> {
    let mut fields = Map::new();
    let mut put = |name: &str, value: Value| {
        fields.insert(name.to_owned(), value);
    };
    put("kind", block.kind.name().into());
    put("box", rect_json(block.rect, unit));
    if block.turn != 0.0 {
        put("turn", number(block.turn));
    }
    if let Some(shape) = shape_json(&block.shape) {
        put("shape", shape);
    }
    if !block.bleed.is_empty() {
        put(
            "bleed",
            block.bleed.iter().copied().map(Edge::name).collect(),
        );
    }
    for (name, id) in [("under", &block.under), ("host", &block.host)] {
        if let Some(id) = id {
            put(name, id.clone().into());
        }
    }
    if let Some(size) = block.size {
        put("size", size.name().into());
    }
    if let Some(grid) = block.grid {
        let gap = length_number(grid.gap, unit);
        put(
            "grid",
            json!({"cols": grid.cols, "rows": grid.rows, "gap": gap, "stagger": number(grid.stagger), "unit_shape": unit_shape(grid.unit_shape)}),
        );
    }
    if let Some(ring) = block.ring {
        put(
            "ring",
            json!({"count": ring.count, "unit": length_number(ring.unit, unit), "unit_shape": unit_shape(ring.unit_shape)}),
        );
    }
    if let Some(sure) = block.sure {
        put("sure", number(sure));
    }
    fields.extend(block.other.clone());
    fields
}

fn shape_json(shape: &Shape) -> Option<Value> {
    Some(match shape {
        Shape::Rect => return None,
        Shape::Ellipse => json!({"type": "ellipse"}),
        Shape::Triangle(corner) => json!({"type": "triangle", "corner": corner.name()}),
        Shape::Polygon(points) => json!({"type": "polygon", "points": points}),
    })
}

fn unit_shape(shape: UnitShape) -> &'static str {
    match shape {
        UnitShape::Square => "square",
        UnitShape::Circle => "circle",
    }
}
