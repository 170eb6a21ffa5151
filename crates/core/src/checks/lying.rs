//! What lies on the canvas: each block's true outline, cut at the canvas or, of a part of a larger block, at its page.

use crate::geometry::{Region, Span};
use crate::layout::{Layout, LayoutBlock};
use crate::sketch::Kind;

/// A paper over more than this share of a page is its ground.
const GROUND: f64 = 0.5;
/// Shares nearer to it than this are it.
const HAIR: f64 = 1e-9;

/// The true outlines of a layout's blocks, in their order.
pub(super) struct Lying<'a> {
    pub(super) layout: &'a Layout,
    pub(super) canvas: Span,
    pub(super) outlines: Vec<Region>,
    /// Whether each block covers paper: no wash and no ground does.
    pub(super) covers: Vec<bool>,
}

impl<'a> Lying<'a> {
    pub(super) fn new(layout: &'a Layout) -> Lying<'a> {
        let canvas = layout.canvas.span();
        let outlines: Vec<Region> = layout.blocks.iter().map(|b| outline(layout, b)).collect();
        let covers = layout
            .blocks
            .iter()
            .zip(&outlines)
            .map(|(b, outline)| b.block.kind != Kind::Wash && !is_ground(layout, b, outline))
            .collect();
        Lying {
            layout,
            canvas,
            outlines,
            covers,
        }
    }

    /// The outlines of all that covers paper.
    pub(super) fn covering(&self) -> impl Iterator<Item = &Region> {
        let all = self.outlines.iter().zip(&self.covers);
        all.filter(|(_, covers)| **covers).map(|(o, _)| o)
    }
}

/// One page's box on the spread.
pub(super) fn page_span(layout: &Layout, page: u8) -> Span {
    let (w, h) = (
        layout.canvas.page.w.ticks() as f64,
        layout.canvas.page.h.ticks() as f64,
    );
    let l = f64::from(page) * w;
    Span {
        l,
        t: 0.0,
        r: l + w,
        b: h,
    }
}

/// A block's true outline before anything is cut off; of a part of a larger block the larger one's.
pub(super) fn uncut(placed: &LayoutBlock) -> Region {
    let block = &placed.block;
    let whole = Span::from(placed.whole.unwrap_or(block.rect));
    let units = block.units_within(whole);
    let shape = block.unit_shape();
    let flat = match block.kind {
        _ if !units.is_empty() => {
            let outlines: Vec<Region> = units.iter().map(|u| u.outline(shape)).collect();
            Region::union(&outlines)
        }
        Kind::Cluster => Region::from(whole),
        _ => block.shape.outline(whole),
    };
    flat.turned(block.turn, [whole.cx(), whole.cy()])
}

fn outline(layout: &Layout, placed: &LayoutBlock) -> Region {
    let cut = if placed.whole.is_some() {
        page_span(layout, placed.page)
    } else {
        layout.canvas.span()
    };
    uncut(placed).within_also(&Region::from(cut))
}

fn is_ground(layout: &Layout, placed: &LayoutBlock, outline: &Region) -> bool {
    if placed.block.kind != Kind::Paper {
        return false;
    }
    let share = |page: u8| {
        let page = page_span(layout, page);
        outline.within_also(&Region::from(page)).area() / page.area()
    };
    (0..layout.canvas.pages)
        .map(share)
        .any(|s| s > GROUND + HAIR)
}
