//! Both pages of a spread from one: `mirror` and `echo` where each page shows the sketch's own photos.
//!
//! Half of the blocks is solved, on one page that has the fold at its side, and said again. That takes a third of the time of a spread with
//! all of them, and the pages are each other's image (or like) to the tick.

use super::approach::Map;
use super::copies::Derived;
use super::measure::measure;
use super::note::Note;
use super::proposal::Explanation;
use super::task::Task;
use super::{Approach, Conflict, Pin, Proposal, Request};
use crate::geometry::{Edge, Rect};
use crate::layout::{Layout, LayoutBlock};
use crate::photos::Photos;
use crate::reading::HAIR;
use crate::sketch::{Block, Flip, QuarterTurn, Sketch};

/// One page of both.
pub(super) struct OnePage {
    approach: Approach,
    task: Task,
    /// Which of the derived request's pins each of its pins is.
    pins: Vec<usize>,
    /// What runs over the fold.
    joined: Vec<String>,
}

/// The one page, or none where the two differ: with a photo count of its own, or where one's ruler is not the other's.
pub(super) fn one_page(asked: &Request, approach: Approach, derived: &Derived) -> Option<OnePage> {
    let fold_at = match approach {
        Approach::Mirror => vec![Edge::Right],
        // Said again, the page has the fold at its other side.
        Approach::Echo => vec![Edge::Left, Edge::Right],
        _ => return None,
    };
    let both = derived.request();
    let width = both.sketch.canvas.page.w;
    let step = asked.snap.ticks();
    let one_ruler = step == 0 || asked.target.page.w.ticks() % step == 0;
    if asked.photos != Photos::AsDrawn || !one_ruler || !asked.across_fold.is_empty() {
        return None;
    }
    // What runs off one side only runs off one page of an echo, and ends within the margin on the other.
    let one_sided = |b: &Block| b.bleed.contains(&Edge::Left) != b.bleed.contains(&Edge::Right);
    let has_copy = |id: &str| both.sketch.index_of(&derived.copy_of(id)).is_some();
    let left = |id: &str| derived.is_own(id);
    let mut sketch = Sketch {
        blocks: both
            .sketch
            .blocks
            .iter()
            .filter(|b| left(&b.id))
            .cloned()
            .collect(),
        ..both.sketch.clone()
    };
    sketch.canvas.pages = 1;
    // What hangs over a page does so over the spread's edge on one of them only.
    let page = sketch.canvas.span();
    let hangs_over = |b: &Block| {
        b.bleed.is_empty()
            && (b.true_bounds().l < page.l - HAIR || b.true_bounds().r > page.r + HAIR)
    };
    let stands_on_both = |b: &Block| has_copy(&b.id) || !left(&b.id);
    let differs = |b: &Block| stands_on_both(b) && (one_sided(b) || left(&b.id) && hangs_over(b));
    if approach == Approach::Echo && both.sketch.blocks.iter().any(differs) {
        return None;
    }
    let mut joined = Vec::new();
    for block in sketch.blocks.iter_mut().filter(|b| !has_copy(&b.id)) {
        if block.rect.right() > width {
            block.rect.w = width - block.rect.x;
            block.bleed.push(Edge::Right);
            block.bleed.sort_unstable();
            block.bleed.dedup();
            joined.push(block.id.clone());
        }
    }
    // Across the fold, a block's edges and width are those of both its parts.
    let names_joined = |p: &Pin| p.edge.is_across() && p.blocks().any(|id| joined.contains(id));
    if both.pins.iter().any(names_joined) {
        return None;
    }
    let pins: Vec<usize> = (0..both.pins.len())
        .filter(|n| both.pins[*n].blocks().all(|id| left(id)))
        .collect();
    let slots = both
        .slots
        .iter()
        .filter(|s| s.photos.iter().all(|id| left(id)))
        .cloned()
        .collect();
    let mut target = both.target;
    target.pages = 1;
    let own_pins = pins.iter().map(|n| both.pins[*n].clone()).collect();
    let request = Request {
        sketch,
        target,
        pins: own_pins,
        slots,
        holds: asked.holds.clone(),
        ..both.clone()
    };
    Some(OnePage {
        approach,
        task: Task {
            fold_at,
            ..Task::of(&request)
        },
        pins,
        joined,
    })
}

impl OnePage {
    /// What is to be fitted for it.
    pub(super) fn task(&self) -> &Task {
        &self.task
    }

    /// Its conflict with the derived request's pins.
    pub(super) fn with_derived_pins(&self, conflict: Conflict) -> Conflict {
        Conflict {
            pins: conflict
                .pins
                .iter()
                .filter_map(|n| self.pins.get(*n).copied())
                .collect(),
            ..conflict
        }
    }

    /// The derived sketch's proposal from the page's.
    pub(super) fn both(&self, page: Proposal, derived: &Derived) -> Proposal {
        let request = derived.request();
        let layout = self.spread(&page.layout, request, derived);
        let map = Map::new(Approach::Scale, request.sketch.canvas, request.target);
        let measures = measure(&request.sketch, map, &layout);
        let mut notes = page.notes;
        if !self.joined.is_empty() {
            notes.push(Note::JoinedAtFold {
                blocks: self.joined.clone(),
            });
        }
        Proposal::new(
            request,
            &request.sketch,
            page.choices,
            layout,
            measures,
            Explanation {
                notes,
                whys: page.whys,
                tried: page.tried,
            },
        )
    }

    fn spread(&self, page: &Layout, request: &Request, derived: &Derived) -> Layout {
        let canvas = request.target;
        let fold = canvas.page.w;
        let mut blocks = page.blocks.clone();
        let mut image = Sketch {
            blocks: page.blocks.iter().map(|b| b.block.clone()).collect(),
            canvas,
            ..request.sketch.clone()
        };
        if self.approach == Approach::Mirror {
            image = image.oriented(QuarterTurn::default(), Flip::Across);
        } else {
            image
                .blocks
                .iter_mut()
                .for_each(|b| b.rect.x = b.rect.x + fold);
        }
        // What runs off the page at the fold ends there.
        for block in blocks
            .iter_mut()
            .filter(|b| b.block.bleed.contains(&Edge::Right))
        {
            let Rect { x, w, .. } = block.block.rect;
            block.block.rect.w = w.min(fold - x);
            block.block.bleed.retain(|e| *e != Edge::Right);
        }
        for (own, mut block) in page.blocks.iter().zip(image.blocks) {
            let right = |id: String| derived.copy_of(&id);
            if block.bleed.contains(&Edge::Left) {
                let begins = block.rect.x.max(fold);
                block.rect = Rect {
                    x: begins,
                    w: block.rect.right() - begins,
                    ..block.rect
                };
                block.bleed.retain(|e| *e != Edge::Left);
            }
            (block.id, block.under, block.host) = (
                right(block.id),
                block.under.map(right),
                block.host.map(right),
            );
            let from = own.from.iter().map(|id| derived.on_right(id)).collect();
            blocks.push(LayoutBlock {
                block,
                from,
                page: 1,
                ..own.clone()
            });
        }
        Layout {
            canvas,
            blocks,
            ..page.clone()
        }
    }
}
