//! A page with one change, checked anew: whether the change cures a pocket and harms nothing.

use super::lying::{Lying, page_span, uncut};
use super::near::{NearMiss, near_misses, other_part};
use super::request::Check;
use super::trapped::{Pocket, square_inch, trapped};
use crate::geometry::{Rect, Region, Span};
use crate::layout::{Layout, LayoutBlock};
use crate::sketch::{Kind, Shape};

/// Areas that differ by less than this share of a square inch are the same.
const A_SPECK: f64 = 0.01;
/// A pocket that shares this much of the smaller with another is still that one.
const STILL_THERE: f64 = 0.05;
const THE_SAME: f64 = 0.5;

/// One change of a page.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Change {
    /// A block, by its place in the layout, gets another box.
    Moved(usize, Rect),
    /// An accent is laid on top.
    Accent(Rect),
}

/// What was found on a page, to tell a change by.
pub(super) struct Before<'a> {
    pub(super) check: &'a Check,
    pub(super) lying: &'a Lying<'a>,
    pub(super) pockets: &'a [Pocket],
    pub(super) near: &'a [NearMiss],
}

/// Whether a block may be moved by itself: no mat, nothing that the fold cuts.
pub(super) fn may_be_moved(layout: &Layout, n: usize) -> bool {
    let block = &layout.blocks[n];
    block.block.kind != Kind::Mat && block.whole.is_none() && other_part(layout, n).is_none()
}

impl Before<'_> {
    /// Whether a change makes a pocket go, makes nothing else a finding, and hides or pushes off nothing.
    pub(super) fn is_cured_by(&self, pocket: &Pocket, change: &Change) -> bool {
        let changed = with(&self.check.layout, change);
        let after = Lying::new(&changed);
        self.nothing_is_hidden(&after, change)
            && self.is_gone(pocket, &after)
            && self.no_new_near_miss(&changed)
    }

    fn is_gone(&self, pocket: &Pocket, after: &Lying<'_>) -> bool {
        let shared = |a: &Pocket, b: &Pocket| {
            let common = a.region.within_also(&b.region).area();
            common / a.area.min(b.area)
        };
        let left = trapped(after, &self.check.trapped);
        left.iter().all(|p| {
            shared(p, pocket) <= STILL_THERE
                && self.pockets.iter().any(|old| shared(p, old) > THE_SAME)
        })
    }

    fn no_new_near_miss(&self, changed: &Layout) -> bool {
        let known = |miss: &NearMiss| {
            let same = |old: &NearMiss| old.edge == miss.edge && old.blocks == miss.blocks;
            self.near.iter().any(same)
        };
        near_misses(changed, &self.check.near).iter().all(known)
    }

    fn nothing_is_hidden(&self, after: &Lying<'_>, change: &Change) -> bool {
        let before = self.lying;
        let blocks = &after.layout.blocks;
        let speck = A_SPECK * square_inch();
        let main = match change {
            Change::Moved(n, _) => *n,
            Change::Accent(_) => blocks.len() - 1,
        };
        let common = |lying: &Lying<'_>, a: usize, b: usize| {
            if a >= lying.outlines.len() {
                return 0.0;
            }
            lying.outlines[a].within_also(&lying.outlines[b]).area()
        };
        let more = |a: usize, b: usize| common(after, a, b) > common(before, a, b) + speck;
        let moved = |n: &usize| {
            before.layout.blocks.get(*n).map(|b| b.block.rect) != Some(blocks[*n].block.rect)
        };
        for n in (0..blocks.len()).filter(moved) {
            let off = |layout: &Layout| layout.blocks.get(n).map_or(0.0, |b| off_page(layout, b));
            if off(after.layout) > off(before.layout) + speck {
                return false;
            }
            let hides = |m: &usize| {
                *m != n
                    && matches!(
                        blocks[*m].block.kind,
                        Kind::Photo | Kind::Title | Kind::Journal
                    )
                    && !(n < *m && lies_under(blocks[n].block.kind))
            };
            if (0..blocks.len()).filter(hides).any(|m| more(n, m)) {
                return false;
            }
        }
        let is_read = matches!(
            blocks[main].block.kind,
            Kind::Photo | Kind::Title | Kind::Journal
        );
        let is_above = |m: &usize| {
            let own_mat = blocks[*m].block.under.as_deref() == Some(blocks[main].block.id.as_str());
            lies_under(blocks[*m].block.kind) && !own_mat
        };
        !is_read
            || !(main + 1..blocks.len())
                .filter(is_above)
                .any(|m| more(main, m))
    }
}

/// What may lie under photos and words.
const fn lies_under(kind: Kind) -> bool {
    matches!(
        kind,
        Kind::Paper | Kind::Strip | Kind::Grid | Kind::Ring | Kind::Wash | Kind::Mat
    )
}

fn off_page(layout: &Layout, block: &LayoutBlock) -> f64 {
    let outline = uncut(block);
    let page = Region::from(page_span(layout, block.page));
    outline.area() - outline.within_also(&page).area()
}

/// The layout with a change; mats go with what they frame and keep their borders.
fn with(layout: &Layout, change: &Change) -> Layout {
    let mut changed = layout.clone();
    match *change {
        Change::Moved(n, to) => {
            let from = changed.blocks[n].block.rect;
            let mut around = vec![changed.blocks[n].block.id.clone()];
            changed.blocks[n].block.rect = to;
            while let Some(id) = around.pop() {
                for block in &mut changed.blocks {
                    let frames = block.block.under.as_deref() == Some(id.as_str());
                    if block.block.kind == Kind::Mat && frames {
                        let rect = &mut block.block.rect;
                        *rect = Rect {
                            x: rect.x + to.x - from.x,
                            y: rect.y + to.y - from.y,
                            w: rect.w + to.w - from.w,
                            h: rect.h + to.h - from.h,
                        };
                        around.push(block.block.id.clone());
                    }
                }
            }
        }
        Change::Accent(rect) => changed.blocks.extend(accent(layout, rect)),
    }
    changed
}

/// An accent on top of all.
fn accent(layout: &Layout, rect: Rect) -> Option<LayoutBlock> {
    let mut placed = layout.blocks.first()?.clone();
    let right = Span::from(rect).cx() > layout.canvas.page.w.ticks() as f64;
    placed.from.clear();
    placed.placement = None;
    placed.whole = None;
    placed.page = u8::from(layout.canvas.pages == 2 && right);
    let block = &mut placed.block;
    block.id = "accent:cure".to_owned();
    block.kind = Kind::Accent;
    block.rect = rect;
    block.turn = 0.0;
    block.shape = Shape::Rect;
    block.bleed.clear();
    (block.under, block.host, block.size) = (None, None, None);
    (block.grid, block.ring, block.sure) = (None, None, None);
    Some(placed)
}
