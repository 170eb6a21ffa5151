//! A sketch as lines by number.

use super::grammar::is_bare;
use crate::geometry::Edge;
use crate::length::{Length, Unit};
use crate::sketch::{Block, Kind, Shape, Sketch, UnitShape};

/// The lines that [`read`](super::read) makes the same sketch of: name, page and one line a block.
pub fn print(sketch: &Sketch) -> String {
    let unit = sketch.unit;
    let pages = if sketch.canvas.pages == 2 {
        "two pages"
    } else {
        "one page"
    };
    let page = sketch.canvas.page;
    let mut lines = Vec::new();
    if !sketch.name.is_empty() {
        lines.push(format!("sketch {}", quoted(&sketch.name)));
    }
    lines.push(format!(
        "{pages} {} x {} {}",
        bare(page.w, unit),
        bare(page.h, unit),
        unit.name()
    ));
    lines.extend(sketch.blocks.iter().map(|b| block(b, unit)));
    lines.join("\n") + "\n"
}

fn quoted(text: &str) -> String {
    format!(
        "\"{}\"",
        text.replace('\\', "\\\\")
            .replace('"', "\\\"")
            .replace('#', "\\h")
            .replace(['\n', '\r'], "\\n")
    )
}

fn id(id: &str) -> String {
    if is_bare(id) {
        id.to_owned()
    } else {
        quoted(id)
    }
}

/// A length without its unit, which is the sketch's. What is no fraction of an inch and no short decimal is told in
/// ticks' worth of millimetres, exact either way.
fn bare(length: Length, unit: Unit) -> String {
    let text = length.to_text(unit);
    text.trim_end_matches(unit.name()).trim_end().to_owned()
}

fn block(b: &Block, unit: Unit) -> String {
    let length = |l: Length| bare(l, unit);
    let mut words = vec![
        format!("{} {}", b.kind.word(), id(&b.id)),
        format!("{} x {}", length(b.rect.w), length(b.rect.h)),
        format!("at {}, {}", length(b.rect.x), length(b.rect.y)),
    ];
    match &b.shape {
        Shape::Rect => {}
        Shape::Ellipse => words.push("round".to_owned()),
        Shape::Triangle(corner) => words.push(format!("triangle {}", corner.name())),
        Shape::Polygon(points) => {
            let points: Vec<String> = points.iter().map(|[x, y]| format!("{x} {y}")).collect();
            words.push(format!("polygon {}", points.join(", ")));
        }
    }
    if let Some(grid) = b.grid.filter(|_| b.kind == Kind::Grid) {
        words.push(format!("in {} by {}", grid.cols, grid.rows));
        if grid.gap != Length::ZERO {
            words.push(format!("gap {}", length(grid.gap)));
        }
        if grid.stagger > 0.0 {
            words.push("staggered".to_owned());
        }
        units(&mut words, grid.unit_shape);
    }
    if let Some(ring) = b.ring.filter(|_| b.kind == Kind::Ring) {
        words.push(format!("with {} of {}", ring.count, length(ring.unit)));
        units(&mut words, ring.unit_shape);
    }
    if b.turn != 0.0 {
        words.push(format!("turned {}", b.turn));
    }
    if !b.bleed.is_empty() {
        words.push(format!(
            "off {}",
            b.bleed
                .iter()
                .map(|e: &Edge| e.name())
                .collect::<Vec<_>>()
                .join(" ")
        ));
    }
    words.extend(
        b.under
            .as_ref()
            .filter(|_| b.kind == Kind::Mat)
            .map(|under| format!("around {}", id(under))),
    );
    words.extend(b.host.as_ref().map(|host| format!("on {}", id(host))));
    words.extend(b.size.map(|size| size.name().to_owned()));
    words.join(" ")
}

fn units(words: &mut Vec<String>, shape: UnitShape) {
    if shape == UnitShape::Circle {
        words.push("circles".to_owned());
    }
}
