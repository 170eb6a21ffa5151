//! A layout as a plain SVG, for looking at a failing case.

use crate::layout::Layout;
use crate::sketch::{Kind, Shape};
use std::fmt::Write;

/// Draws a layout: one outline a block with its id, the fold dashed; user units are inches.
pub fn layout_svg(layout: &Layout) -> String {
    let inch = |ticks: f64| ticks / crate::reading::INCH;
    let canvas = layout.canvas.span();
    let (w, h) = (inch(canvas.w()), inch(canvas.h()));
    let mut svg = format!(
        "<svg xmlns='http://www.w3.org/2000/svg' viewBox='-0.5 -0.5 {:.3} {:.3}' width='{:.0}'><rect width='{w:.3}' height='{h:.3}' fill='white' stroke='black' stroke-width='.02'/>",
        w + 1.0,
        h + 1.0,
        (w + 1.0) * 48.0
    );
    for block in &layout.blocks {
        let span = crate::geometry::Span::from(block.block.rect);
        let (x, y, bw, bh) = (inch(span.l), inch(span.t), inch(span.w()), inch(span.h()));
        let fill = if block.block.kind == Kind::Photo {
            "#bcd"
        } else {
            "none"
        };
        let turn = format!(
            "rotate({} {:.4} {:.4})",
            block.block.turn,
            x + bw / 2.0,
            y + bh / 2.0
        );
        let radius = if block.block.shape == Shape::Ellipse {
            format!(" rx='{:.4}' ry='{:.4}'", bw / 2.0, bh / 2.0)
        } else {
            String::new()
        };
        let id = block.block.id.replace('&', "&amp;").replace('<', "&lt;");
        // Writing to a String can't fail.
        let _ = write!(
            svg,
            "<g transform='{turn}'><rect x='{x:.4}' y='{y:.4}' width='{bw:.4}' height='{bh:.4}'{radius} fill='{fill}' fill-opacity='.5' stroke='#333' stroke-width='.03'/><text x='{:.4}' y='{:.4}' font-size='.3'>{id}</text></g>",
            x + 0.06,
            y + 0.3
        );
    }
    if layout.canvas.pages == 2 {
        let fold = w / 2.0;
        let _ = write!(
            svg,
            "<path d='M{fold} 0V{h}' stroke='red' stroke-width='.03' stroke-dasharray='.2'/>"
        );
    }
    svg.push_str("</svg>");
    svg
}
