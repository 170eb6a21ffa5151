//! Ways that first make another sketch: both pages from one (`mirror`, `echo`, `run-on`), one page out of two (`one-side`). What they
//! make has as many pages as the target, so the rest is a plain `scale`; afterwards the copies get their own sketch blocks' names back.

use super::approach::Approach;
use super::note::Note;
use super::proposal::Proposal;
use super::{Conflict, Pin, PinTo, Request, SlotChoice};
use crate::geometry::{Edge, Rect};
use crate::length::Length;
use crate::photos::Photos;
use crate::sketch::{Block, Flip, Kind, QuarterTurn, Shape, Sketch};
use std::collections::BTreeSet;

/// What the copy of a block on the right page is called after it, where no block of the sketch is called so already.
const RIGHT: &str = "-right";

/// An ending that makes a name of no block of the sketch from any of its blocks' names.
fn free_ending(sketch: &Sketch) -> String {
    let ids: BTreeSet<&str> = sketch.blocks.iter().map(|b| b.id.as_str()).collect();
    let is_free = |ending: &String| {
        !ids.iter().any(|id| {
            id.strip_suffix(ending.as_str())
                .is_some_and(|stem| ids.contains(stem))
        })
    };
    let numbered = (2..).map(|n| format!("{RIGHT}-{n}"));
    std::iter::once(RIGHT.to_owned())
        .chain(numbered)
        .find(is_free)
        .expect("a sketch has so many blocks and no more")
}

/// A sketch made from another, for one approach.
pub(super) struct Derived {
    approach: Approach,
    request: Request,
    /// What a copy's name ends in.
    ending: String,
    /// Of each derived pin, the pin of the request that it stands for.
    pin_of: Vec<usize>,
    /// Each derived block's id, and the id of the sketch block it comes from.
    from: Vec<(String, String)>,
    notes: Vec<Note>,
}

/// The sketch that an approach makes first; none when it is a map of one canvas to another. The error is that nothing would be left.
pub(super) fn derived(
    request: &Request,
    sketch: &Sketch,
    approach: Approach,
) -> Option<Result<Derived, Conflict>> {
    let ending = free_ending(sketch);
    let made = match approach {
        Approach::Mirror => doubled(sketch, true, &ending),
        Approach::Echo => doubled(sketch, false, &ending),
        Approach::RunOn => run_on(request, sketch, &ending),
        Approach::OneSide => one_side(sketch),
        Approach::Scale | Approach::Frame | Approach::Stretch | Approach::Merge => return None,
    };
    if made.sketch.blocks.is_empty() {
        return Some(Err(Conflict::nothing_left()));
    }
    let (pins, pin_of) = pins_of(request, &made, approach, &ending);
    let holds = request.holds.copied(&made.from, &ending);
    let slots = slots_of(request, &made, &ending);
    let copied = |id: &String| format!("{id}{ending}");
    let copies = request
        .reaches
        .iter()
        .map(|(id, reach)| (copied(id), *reach));
    let reaches = request.reaches.clone().into_iter().chain(copies).collect();
    let photos = with_copies(&request.photos, copied);
    let copies = request.one_each.iter().map(copied);
    let one_each = request.one_each.clone().into_iter().chain(copies).collect();
    let (turn, flip) = (QuarterTurn::default(), Flip::None);
    let inner = Request {
        sketch: made.sketch,
        approach: Some(Approach::Scale),
        turn,
        flip,
        pins,
        holds,
        slots,
        photos,
        reaches,
        one_each,
        at_fold: Vec::new(),
        ..request.clone()
    };
    Some(Ok(Derived {
        approach,
        request: inner,
        ending,
        pin_of,
        from: made.from,
        notes: made.notes,
    }))
}

/// Prints that are locked to a slot may be meant for its copy: it comes after the slot's own parts.
fn with_copies(photos: &Photos, copied: impl Fn(&String) -> String) -> Photos {
    let mut photos = photos.clone();
    if let Photos::Prints(prints) = &mut photos {
        for place in prints.iter_mut().filter_map(|p| p.place.as_mut()) {
            let copies: Vec<String> = place.blocks.iter().map(&copied).collect();
            place.blocks.extend(copies);
        }
    }
    photos
}

struct DerivedSketch {
    sketch: Sketch,
    from: Vec<(String, String)>,
    notes: Vec<Note>,
}

impl Derived {
    /// Whether a derived block is the sketch's own, not a copy of it.
    pub(super) fn is_own(&self, id: &str) -> bool {
        self.from.iter().any(|(made, own)| made == id && own == id)
    }

    /// What stands for a sketch block on the right page: its copy, or itself where it runs over the fold.
    pub(super) fn on_right(&self, id: &str) -> String {
        let copy = self.copy_of(id);
        if self.request.sketch.index_of(&copy).is_some() {
            copy
        } else {
            id.to_owned()
        }
    }

    /// The name of a block's copy on the right page, be there one or not.
    pub(super) fn copy_of(&self, id: &str) -> String {
        format!("{id}{}", self.ending)
    }

    /// The request for the derived sketch.
    pub(super) fn request(&self) -> &Request {
        &self.request
    }

    /// A proposal told in the sketch's own blocks again.
    pub(super) fn named(&self, proposal: Proposal, asked: &Request) -> Proposal {
        let own = |id: &String| {
            self.from
                .iter()
                .find(|(made, _)| made == id)
                .map_or(id, |(_, from)| from)
                .clone()
        };
        let fitted = (
            self.request.clone(),
            proposal.layout.clone(),
            Approach::Scale,
        );
        let made = Some(Box::new(fitted));
        let mut layout = proposal.layout;
        for block in &mut layout.blocks {
            for id in &mut block.from {
                *id = own(id);
            }
            block.from.dedup();
        }
        let notes = proposal
            .notes
            .into_iter()
            .chain(self.notes.iter().cloned())
            .collect();
        let choices = proposal.choices.by(self.approach);
        let score = (proposal.score - self.approach.loses()).max(0.0);
        Proposal {
            approach: self.approach,
            score,
            turn: asked.turn,
            flip: asked.flip,
            layout,
            notes,
            choices,
            made,
            ..proposal
        }
    }

    /// A conflict told in the sketch's own blocks and the request's own pins again.
    pub(super) fn named_conflict(&self, conflict: Conflict) -> Conflict {
        let own = |id: &String| {
            self.from
                .iter()
                .find(|(made, _)| made == id)
                .map_or(id, |(_, from)| from)
                .clone()
        };
        let mut blocks: Vec<String> = conflict.blocks.iter().map(own).collect();
        blocks.sort();
        blocks.dedup();
        let mut pins: Vec<usize> = conflict
            .pins
            .iter()
            .filter_map(|n| self.pin_of.get(*n).copied())
            .collect();
        pins.sort_unstable();
        pins.dedup();
        Conflict {
            blocks,
            pins,
            ..conflict
        }
    }
}

/// The pins of the derived sketch, and which pin of the request each stands for. Where both pages say the sketch, a pin holds both copies,
/// the other one where the first one's image (or its like) is; one that points to the right page holds the copy there first.
fn pins_of(
    request: &Request,
    made: &DerivedSketch,
    approach: Approach,
    ending: &str,
) -> (Vec<Pin>, Vec<usize>) {
    let known = |id: &str| made.sketch.index_of(id).is_some();
    let copy = |id: &str| Some(format!("{id}{ending}")).filter(|id| known(id));
    let page = request.target.page.w;
    let mut found = Vec::new();
    for (n, pin) in request
        .pins
        .iter()
        .enumerate()
        .filter(|(_, p)| p.blocks().all(|id| known(id)))
    {
        let right =
            copy(&pin.block).filter(|_| matches!(approach, Approach::Mirror | Approach::Echo));
        let Some(right) = right else {
            found.push((pin.clone(), n));
            continue;
        };
        let image = |pin: &Pin| match (approach, pin.on_page()) {
            _ if !pin.edge.is_across() || pin.edge.is_size() => pin.clone(),
            (Approach::Mirror, Some(at)) => Pin {
                edge: pin.edge.mirrored(),
                at: page + page - at,
                ..pin.clone()
            },
            (Approach::Mirror, None) => {
                let to = pin.to.clone().map(|to| PinTo {
                    edge: to.edge.mirrored(),
                    ..to
                });
                Pin {
                    edge: pin.edge.mirrored(),
                    at: Length::ZERO - pin.at,
                    to,
                    ..pin.clone()
                }
            }
            (_, Some(at)) if at > page => Pin {
                at: at - page,
                ..pin.clone()
            },
            (_, Some(at)) => Pin {
                at: at + page,
                ..pin.clone()
            },
            (_, None) => pin.clone(),
        };
        let on_right = |pin: Pin| {
            let to = pin.to.map(|to| PinTo {
                block: copy(&to.block).unwrap_or(to.block),
                ..to
            });
            Pin {
                block: right.clone(),
                to,
                ..pin
            }
        };
        let points_right = pin.edge.is_across()
            && !pin.edge.is_size()
            && pin.on_page().is_some_and(|at| at > page);
        let (left, right) = if points_right {
            (image(pin), on_right(pin.clone()))
        } else {
            (pin.clone(), on_right(image(pin)))
        };
        found.extend([(left, n), (right, n)]);
    }
    found.into_iter().unzip()
}

/// What she chose for slots, on both copies where there are photos enough for that.
fn slots_of(request: &Request, made: &DerivedSketch, ending: &str) -> Vec<SlotChoice> {
    let known = |s: &SlotChoice| s.photos.iter().all(|id| made.sketch.index_of(id).is_some());
    let own: Vec<SlotChoice> = request.slots.iter().filter(|s| known(s)).cloned().collect();
    let right = |s: &SlotChoice| SlotChoice {
        photos: s.photos.iter().map(|id| format!("{id}{ending}")).collect(),
        ..s.clone()
    };
    let both: Vec<SlotChoice> = own
        .iter()
        .cloned()
        .chain(own.iter().map(right).filter(known))
        .collect();
    let shown: usize = both.iter().map(|s| s.way.shows() as usize).sum();
    let named: usize = both.iter().map(|s| s.photos.len()).sum();
    let room = request
        .photo_count()
        .is_none_or(|count| count >= shown + made.sketch.photo_slots() - named);
    if room { both } else { own }
}

/// A copy of a block under another name, its neighbours' names changed along.
fn renamed(block: &Block, name: impl Fn(&str) -> String) -> Block {
    Block {
        id: name(&block.id),
        under: block.under.as_deref().map(&name),
        host: block.host.as_deref().map(&name),
        ..block.clone()
    }
}

/// A block that is cut straight by the fold without harm: what lies beyond goes.
fn may_be_cut(block: &Block) -> bool {
    block.turn == 0.0
        && block.shape == Shape::Rect
        && matches!(
            block.kind,
            Kind::Strip | Kind::Paper | Kind::Mat | Kind::Wash
        )
}

/// Cuts a box to a stretch across; false when nothing of it is left.
fn cut(rect: &mut Rect, from: Length, until: Length) -> bool {
    let (l, r) = (rect.x.max(from), rect.right().min(until));
    rect.x = l;
    rect.w = r - l;
    rect.w > Length::ZERO
}

/// Both pages from one sketch. What runs off the page at the fold on both sides is one block across it.
fn doubled(sketch: &Sketch, mirrored: bool, ending: &str) -> DerivedSketch {
    let w = sketch.canvas.page.w;
    let other = if mirrored {
        sketch.oriented(QuarterTurn::default(), Flip::Across)
    } else {
        sketch.clone()
    };
    let mut made = Sketch {
        blocks: Vec::new(),
        ..sketch.clone()
    };
    made.canvas.pages = 2;
    let mut from = Vec::new();
    let runs_over = |left: &Block, right: &Block| {
        may_be_cut(left) && left.bleed.contains(&Edge::Right) && right.bleed.contains(&Edge::Left)
    };
    let joined: Vec<bool> = sketch
        .blocks
        .iter()
        .zip(&other.blocks)
        .map(|(l, r)| runs_over(l, r))
        .collect();
    for (n, block) in sketch.blocks.iter().enumerate() {
        let mut left = block.clone();
        if joined[n] {
            let right = &other.blocks[n];
            left.rect.w = right.rect.right() + w - left.rect.x;
            left.bleed.retain(|e| *e != Edge::Right);
            left.bleed
                .extend(right.bleed.iter().filter(|e| **e != Edge::Left));
            left.bleed.sort_unstable();
            left.bleed.dedup();
        } else {
            left.bleed.retain(|e| *e != Edge::Right);
            let begins = left.rect.x;
            if may_be_cut(&left) && !cut(&mut left.rect, begins, w) {
                continue;
            }
        }
        from.push((left.id.clone(), block.id.clone()));
        made.blocks.push(left);
    }
    let name = |id: &str| match sketch.index_of(id) {
        Some(n) if !joined[n] => format!("{id}{ending}"),
        _ => id.to_owned(),
    };
    for (n, block) in other.blocks.iter().enumerate().filter(|(n, _)| !joined[*n]) {
        let mut right = renamed(block, name);
        right.bleed.retain(|e| *e != Edge::Left);
        right.rect.x = right.rect.x + w;
        let until = right.rect.right();
        if may_be_cut(&right) && !cut(&mut right.rect, w, until) {
            continue;
        }
        from.push((right.id.clone(), sketch.blocks[n].id.clone()));
        made.blocks.push(right);
    }
    DerivedSketch {
        sketch: made,
        from,
        notes: Vec::new(),
    }
}

/// The left page as the sketch; what bleeds off its right edge runs on. Photos beyond the sketch's own go to the right page, the largest
/// first, where the sketch has them on the left.
fn run_on(request: &Request, sketch: &Sketch, ending: &str) -> DerivedSketch {
    let w = sketch.canvas.page.w;
    let mut made = sketch.clone();
    made.canvas.pages = 2;
    let mut running = Vec::new();
    for block in &mut made.blocks {
        let runs = matches!(block.kind, Kind::Strip | Kind::Paper | Kind::Wash)
            && block.turn == 0.0
            && block.shape == Shape::Rect;
        if !block.bleed.contains(&Edge::Right) {
            continue;
        }
        if runs {
            block.rect.w = w + w - block.rect.x;
            running.push(block.id.clone());
        } else {
            block.bleed.retain(|e| *e != Edge::Right);
        }
    }
    let mut from: Vec<(String, String)> = sketch
        .blocks
        .iter()
        .map(|b| (b.id.clone(), b.id.clone()))
        .collect();
    let further = request
        .photo_count()
        .map_or(0, |wanted| wanted.saturating_sub(sketch.photo_slots()));
    let mut photos: Vec<&Block> = sketch
        .blocks
        .iter()
        .filter(|b| b.kind == Kind::Photo)
        .collect();
    photos.sort_by_key(|b| std::cmp::Reverse(b.rect.w.ticks() * b.rect.h.ticks()));
    let chosen: Vec<&str> = photos.iter().take(further).map(|b| b.id.as_str()).collect();
    for block in &sketch.blocks {
        let goes = chosen.contains(&block.id.as_str())
            || block.kind == Kind::Mat
                && block.under.as_deref().is_some_and(|u| chosen.contains(&u));
        if goes {
            let mut copy = renamed(block, |id| {
                if sketch.index_of(id).is_some_and(|n| {
                    chosen.contains(&sketch.blocks[n].id.as_str())
                        || sketch.blocks[n].kind == Kind::Mat
                }) {
                    format!("{id}{ending}")
                } else {
                    id.to_owned()
                }
            });
            copy.rect.x = copy.rect.x + w;
            copy.bleed.retain(|e| *e != Edge::Left);
            from.push((copy.id.clone(), block.id.clone()));
            made.blocks.push(copy);
        }
    }
    DerivedSketch {
        sketch: made,
        from,
        notes: vec![Note::RunsOn { blocks: running }],
    }
}

/// The page of a spread that holds more photo area; what crosses the fold is cut off there.
fn one_side(sketch: &Sketch) -> DerivedSketch {
    let w = sketch.canvas.page.w;
    let area = |right: bool| {
        let (from, until) = if right { (w, w + w) } else { (Length::ZERO, w) };
        let part = |b: &Block| {
            (b.rect.right().min(until) - b.rect.x.max(from))
                .ticks()
                .max(0) as f64
                * b.rect.h.ticks() as f64
        };
        sketch
            .blocks
            .iter()
            .filter(|b| b.kind == Kind::Photo)
            .map(part)
            .sum::<f64>()
    };
    let right = area(true) > area(false);
    let (from, until) = if right { (w, w + w) } else { (Length::ZERO, w) };
    let mut made = Sketch {
        blocks: Vec::new(),
        ..sketch.clone()
    };
    made.canvas.pages = 1;
    let mut gone = Vec::new();
    for block in &sketch.blocks {
        let mut kept = block.clone();
        let inside = (block.rect.right().min(until) - block.rect.x.max(from)).ticks();
        let crosses = block.rect.x < w && block.rect.right() > w;
        // A strip is cut wherever the fold comes; what is whole or nothing stays where most of it is.
        let stays = if may_be_cut(block) {
            inside > 0
        } else {
            2 * inside > block.rect.w.ticks()
        };
        if !stays {
            gone.push(block.id.clone());
            continue;
        }
        if may_be_cut(block) && crosses {
            cut(
                &mut kept.rect,
                block.rect.x.max(from),
                block.rect.right().min(until),
            );
            kept.bleed
                .push(if right { Edge::Left } else { Edge::Right });
        }
        let at_fold = if right { Edge::Left } else { Edge::Right };
        kept.bleed.retain(|e| crosses || *e != at_fold);
        kept.bleed.sort_unstable();
        kept.bleed.dedup();
        kept.rect.x = kept.rect.x - from;
        made.blocks.push(kept);
    }
    for n in 0..made.blocks.len() {
        let names = |id: &Option<String>| id.clone().filter(|id| made.index_of(id).is_some());
        let (under, host) = (names(&made.blocks[n].under), names(&made.blocks[n].host));
        made.blocks[n].under = under;
        made.blocks[n].host = host;
    }
    let mut notes = vec![Note::PageKept { right }];
    if !gone.is_empty() {
        notes.push(Note::OnOtherPage { blocks: gone });
    }
    let from = made
        .blocks
        .iter()
        .map(|b| (b.id.clone(), b.id.clone()))
        .collect();
    DerivedSketch {
        sketch: made,
        from,
        notes,
    }
}
