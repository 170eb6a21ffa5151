//! The layers around a photo, with the borders that they have on the page.

use super::{PlacedLayer, WIDEST_SHARED};
use crate::fit::PhotoDecisions;
use crate::geometry::{Rect, Size, Span, turned};
use crate::layout::{Layout, LayoutBlock};
use crate::length::Length;
use crate::photos::{Layer, Sides, layers_of};
use crate::sketch::Kind;

/// The mats around a photo, from it outwards, with the borders that they have on the page.
pub(super) fn layers(
    photos: &PhotoDecisions,
    layout: &Layout,
    photo: &LayoutBlock,
    of: &str,
) -> Vec<PlacedLayer> {
    let chosen = layers_of(&photos.mats, of).unwrap_or_default();
    let mut mats: Vec<&LayoutBlock> = layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Mat && frames(layout, b, photo))
        .collect();
    mats.reverse();
    let sharing = sharing(layout, photo, of);
    if mats.is_empty() && sharing.len() > 1 {
        let own = shared_layers(layout, &[photo], chosen, &sharing);
        if !own.is_empty() {
            return own;
        }
        return shared_layers(layout, &sharing, chosen, &[]);
    }
    let mut within = photo.block.rect;
    let layer = |(n, mat): (usize, &LayoutBlock)| {
        let rect = mat.block.rect;
        let borders = own_borders(within, rect, photo.block.turn);
        let borders = match chosen.get(n) {
            Some(layer) if close(borders, layer.borders) => layer.borders,
            _ => borders,
        };
        within = rect;
        PlacedLayer {
            block: mat.block.id.clone(),
            size: Size {
                w: rect.w,
                h: rect.h,
            },
            borders,
            edge: chosen.get(n).map(|l| l.edge).unwrap_or_default().name(),
            lift: chosen.get(n).map(|l| l.lift).unwrap_or_default(),
            around: 1,
        }
    };
    mats.into_iter().enumerate().map(layer).collect()
}

/// How far a layer shows on each side of what lies on it, along its own edges; both stand turned by `degrees`.
fn own_borders(within: Rect, layer: Rect, degrees: f64) -> Sides {
    // Twice each offset, so that halves of a tick count.
    let off = |from: Rect, to: Rect| {
        (
            (to.x + to.right() - from.x - from.right()).ticks() as f64,
            (to.y + to.bottom() - from.y - from.bottom()).ticks() as f64,
        )
    };
    let (x, y) = turned(off(within, layer), -degrees);
    let sides = |more: Length, off: f64| {
        let more = more.ticks() as f64;
        [more - off, more + off].map(|twice| Length::from_ticks((twice / 2.0).round() as i64))
    };
    let [left, right] = sides(layer.w - within.w, x);
    let [top, bottom] = sides(layer.h - within.h, y);
    [left, top, right, bottom]
}

/// Whether borders are the same but for the rounding of a tilted layer's place to ticks.
fn close(a: Sides, b: Sides) -> bool {
    const ROUNDED: i64 = 2;
    let apart = |(a, b): (Length, Length)| (a - b).ticks().abs();
    a.into_iter().zip(b).all(|pair| apart(pair) <= ROUNDED)
}

/// The photos that share a slot with one, on its page, itself among them.
fn sharing<'a>(layout: &'a Layout, photo: &LayoutBlock, of: &str) -> Vec<&'a LayoutBlock> {
    let shares = |b: &&LayoutBlock| {
        b.block.kind == Kind::Photo && b.page == photo.page && b.from.iter().any(|id| id == of)
    };
    layout.blocks.iter().filter(shares).collect()
}

/// The layers around photos of one slot, from them outwards, that lie around none of those that are apart from them.
fn shared_layers(
    layout: &Layout,
    photos: &[&LayoutBlock],
    chosen: &[Layer],
    apart: &[&LayoutBlock],
) -> Vec<PlacedLayer> {
    let around = photos.iter().map(|p| p.extent()).reduce(Span::around);
    let Some(mut within) = around else {
        return Vec::new();
    };
    let page = photos[0].page;
    let reach = |outer: Span, within: Span| {
        [
            within.l - outer.l,
            within.t - outer.t,
            outer.r - within.r,
            outer.b - within.b,
        ]
    };
    let frames_all = |b: &&LayoutBlock| {
        let outer = b.extent();
        b.block.kind == Kind::Mat
            && b.block.under.is_none()
            && b.page == page
            && within.is_in(outer, 1.0)
            && reach(outer, within).iter().all(|r| *r <= WIDEST_SHARED)
            && !apart.iter().any(|p| {
                !photos.iter().any(|own| std::ptr::eq(*own, *p)) && p.extent().is_in(outer, 1.0)
            })
    };
    let mut mats: Vec<&LayoutBlock> = layout.blocks.iter().filter(frames_all).collect();
    mats.reverse();
    let mut layers = Vec::new();
    for (n, mat) in mats.into_iter().enumerate() {
        let outer = mat.extent();
        let ticks = |at: f64| Length::from_ticks(at.round() as i64);
        layers.push(PlacedLayer {
            block: mat.block.id.clone(),
            size: Size {
                w: mat.block.rect.w,
                h: mat.block.rect.h,
            },
            borders: reach(outer, within).map(ticks),
            edge: chosen.get(n).map(|l| l.edge).unwrap_or_default().name(),
            lift: chosen.get(n).map(|l| l.lift).unwrap_or_default(),
            around: photos.len(),
        });
        within = outer;
    }
    layers
}

/// Whether a mat frames a photo, at once or by way of other mats.
pub(super) fn frames(layout: &Layout, mat: &LayoutBlock, photo: &LayoutBlock) -> bool {
    let mut at = mat.block.under.as_deref();
    for _ in 0..layout.blocks.len() {
        let Some(id) = at else { return false };
        if id == photo.block.id {
            return true;
        }
        let on = layout.blocks.iter().find(|b| b.block.id == id);
        at = on
            .filter(|b| b.block.kind == Kind::Mat)
            .and_then(|b| b.block.under.as_deref());
    }
    false
}
