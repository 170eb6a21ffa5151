//! The layers around a photo, with the borders that they have on the page.

use super::{PlacedLayer, WIDEST_SHARED};
use crate::fit::PhotoDecisions;
use crate::geometry::{Size, Span};
use crate::layout::{Layout, LayoutBlock};
use crate::length::Length;
use crate::photos::{Layer, layers_of};
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
        let borders = [
            within.x - rect.x,
            within.y - rect.y,
            rect.right() - within.right(),
            rect.bottom() - within.bottom(),
        ];
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
