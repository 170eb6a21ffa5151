//! What is marked on prints, as it lies on the page.

use crate::geometry::{Span, turned};
use crate::layout::{Layout, crop_of};
use crate::photos::{Face, Print};

/// The areas that are marked on photos, as they lie on the page: each with its photo's place in the layout, in ticks.
#[must_use]
pub fn marked_areas(
    layout: &Layout,
    prints: &[Print],
    marked: impl Fn(&Print) -> &Vec<Face>,
) -> Vec<(usize, Span)> {
    let mut found = Vec::new();
    for parts in layout.each_photo() {
        let block = parts[0];
        let Some(placement) = &block.placement else {
            continue;
        };
        let (Some(print), Some(crop)) = (
            prints.iter().find(|p| p.id == placement.photo),
            crop_of(&parts),
        ) else {
            continue;
        };
        let n = layout.blocks.iter().position(|b| std::ptr::eq(b, block));
        let frame = block.whole.unwrap_or(block.block.rect);
        let (x, y) = (frame.x.ticks() as f64, frame.y.ticks() as f64);
        let (w, h) = (
            placement.print.w.ticks() as f64,
            placement.print.h.ticks() as f64,
        );
        let shows = Span {
            l: x,
            t: y,
            r: x + crop.w * w,
            b: y + crop.h * h,
        };
        for area in marked(print) {
            let flat = Span {
                l: x + (area.x - crop.x) * w,
                t: y + (area.y - crop.y) * h,
                r: x + (area.x + area.w - crop.x) * w,
                b: y + (area.y + area.h - crop.y) * h,
            }
            .cut_to(shows);
            if let (Some(n), true) = (n, flat.area() > 0.0) {
                found.push((n, turned_about(flat, shows, block.block.turn)));
            }
        }
    }
    found
}

/// The bounds of a box that turns about the middle of another.
fn turned_about(inner: Span, outer: Span, degrees: f64) -> Span {
    if degrees == 0.0 {
        return inner;
    }
    let (cx, cy) = (outer.cx(), outer.cy());
    let (dx, dy) = turned((inner.cx() - cx, inner.cy() - cy), degrees);
    let (hw, hh) = (inner.w() / 2.0, inner.h() / 2.0);
    Span {
        l: cx + dx - hw,
        t: cy + dy - hh,
        r: cx + dx + hw,
        b: cy + dy + hh,
    }
    .turned_bounds(degrees, false)
}
