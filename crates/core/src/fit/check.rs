//! The invariants of a layout: the faults of which there must be none. On in every test of the fit.

use super::fold_choice::FoldWay;
use super::note::Note;
use super::request::Request;
use super::slot_choice::SlotChoice;
use crate::geometry::{Edge, Span};
use crate::layout::{Layout, LayoutBlock, crop_of};
use crate::photos::{Photos, Print};
use crate::reading::{HAIR, KEPT};
use crate::sketch::{Kind, Sketch};

/// A fault of a layout.
#[derive(Clone, Debug, PartialEq)]
pub enum Fault {
    /// A photo, title or journal crosses the fold or lies in its guard.
    Fold(String),
    /// A block that is not meant to bleed lies outside the margin.
    Margin(String),
    /// Two photos overlap that did not.
    PhotosOverlap(String, String),
    /// A mat does not show on a side of what it frames, where it did.
    MatHidden(String, Edge),
    /// A print is used more than once, or not at all.
    Print(String, usize),
    /// A slot is larger than its print, or its print is not in it at its own size.
    PrintSize(String),
    /// The fold runs through a face on that block's print.
    Face(String),
    /// The fold runs through a word of that title.
    Word(String),
    /// So many photos, where so many were asked for.
    PhotoCount(usize, usize),
    /// A pin of that index is not met.
    Pin(usize),
    /// A block has no place, and no note says so.
    Missing(String),
    /// A bleeding block does not reach that edge.
    Bleed(String, Edge),
    /// A block on the wrong page, or uncut across the fold.
    Page(String),
    /// Two blocks of one id.
    Name(String),
}

/// All faults of a layout for a request; `sketch` is turned and flipped already, and `place` is where its canvas goes.
pub fn faults(
    request: &Request,
    sketch: &Sketch,
    place: Span,
    layout: &Layout,
    notes: &[Note],
) -> Vec<Fault> {
    let mut found = Vec::new();
    for block in &layout.blocks {
        fold_and_margin(&mut found, request, sketch, block);
    }
    photos(&mut found, request, sketch, layout);
    mats(&mut found, sketch, layout);
    names(&mut found, layout);
    for (n, block) in sketch.blocks.iter().enumerate() {
        let parts: Vec<&LayoutBlock> = layout
            .blocks
            .iter()
            .filter(|b| b.from.contains(&block.id))
            .collect();
        if parts.is_empty() {
            if !notes.iter().any(|note| note.explains_absence_of(&block.id)) {
                found.push(Fault::Missing(block.id.clone()));
            }
            continue;
        }
        let bounds = parts
            .iter()
            .map(|p| p.block.true_bounds())
            .reduce(Span::around)
            .unwrap_or(place);
        for edge in &sketch.blocks[n].bleed {
            let short = if matches!(edge, Edge::Left | Edge::Top) {
                bounds.edge(*edge) - place.edge(*edge)
            } else {
                place.edge(*edge) - bounds.edge(*edge)
            };
            if short > HAIR {
                found.push(Fault::Bleed(block.id.clone(), *edge));
            }
        }
    }
    words(&mut found, request, layout);
    pins(&mut found, request, layout);
    found
}

/// A title in two parts has the fold in one of the spaces between its words.
fn words(found: &mut Vec<Fault>, request: &Request, layout: &Layout) {
    for choice in request.at_fold.iter().filter(|c| c.way == FoldWay::Across) {
        let parts: Vec<&LayoutBlock> = layout
            .blocks
            .iter()
            .filter(|b| b.from.contains(&choice.block))
            .collect();
        let [left, right] = parts.as_slice() else {
            continue;
        };
        let at = left.extent().w() / (left.extent().w() + right.extent().w());
        if left.extent().r >= right.extent().l - HAIR
            && !choice
                .spaces()
                .iter()
                .any(|(begin, end)| begin - 1e-3 <= at && at <= end + 1e-3)
        {
            found.push(Fault::Word(left.block.id.clone()));
        }
    }
}

fn fold_and_margin(
    found: &mut Vec<Fault>,
    request: &Request,
    sketch: &Sketch,
    block: &LayoutBlock,
) {
    let bounds = block.block.true_bounds();
    let (page, guard, margin) = (
        request.target.page.w.ticks() as f64,
        request.fold_guard.ticks() as f64,
        request.margin.ticks() as f64,
    );
    let id = || block.block.id.clone();
    if request.target.pages == 2 {
        let across = request
            .at_fold
            .iter()
            .any(|c| c.way == FoldWay::Across && block.from.contains(&c.block));
        let crosses = across || request.across_fold.contains(&block.block.kind);
        let guarded =
            matches!(block.block.kind, Kind::Photo | Kind::Title | Kind::Journal) && !crosses;
        if guarded && bounds.l < page + guard - HAIR && bounds.r > page - guard + HAIR {
            found.push(Fault::Fold(id()));
        } else if !guarded
            && block.block.turn == 0.0
            && bounds.l < page - HAIR
            && bounds.r > page + HAIR
        {
            found.push(Fault::Page(id()));
        }
        if (bounds.cx() > page + HAIR) == (block.page == 0) && (bounds.cx() - page).abs() > HAIR {
            found.push(Fault::Page(id()));
        }
    }
    let drawn: Vec<_> = block
        .from
        .iter()
        .filter_map(|f| sketch.index_of(f))
        .map(|n| &sketch.blocks[n])
        .collect();
    let bleeds = !block.block.bleed.is_empty() || drawn.iter().any(|b| !b.bleed.is_empty());
    let was_inside = drawn
        .iter()
        .all(|b| b.true_bounds().is_in(sketch.canvas.span(), HAIR));
    let c = request.target.span();
    let free = Span {
        l: c.l + margin,
        t: c.t + margin,
        r: c.r - margin,
        b: c.b - margin,
    };
    if !bleeds && was_inside && !bounds.is_in(free, HAIR) {
        found.push(Fault::Margin(id()));
    }
}

fn photos(found: &mut Vec<Fault>, request: &Request, sketch: &Sketch, layout: &Layout) {
    let photos = layout.each_photo();
    let extent = |parts: &[&LayoutBlock]| {
        parts
            .iter()
            .map(|p| p.extent())
            .reduce(Span::around)
            .expect("a photo has a part")
    };
    let drawn = |id: &String| sketch.index_of(id).map(|n| sketch.blocks[n].extent());
    for (n, a) in photos.iter().enumerate() {
        for b in &photos[n + 1..] {
            let overlapped = || {
                a[0].from.iter().any(|x| {
                    b[0].from.iter().any(|y| {
                        x != y
                            && drawn(x)
                                .zip(drawn(y))
                                .is_some_and(|(x, y)| x.overlaps(y, KEPT))
                    })
                })
            };
            if extent(a).overlaps(extent(b), KEPT) && !overlapped() {
                found.push(Fault::PhotosOverlap(
                    a[0].block.id.clone(),
                    b[0].block.id.clone(),
                ));
            }
        }
    }
    let chosen = |f: fn(&SlotChoice) -> usize| request.slots.iter().map(f).sum::<usize>();
    let as_drawn =
        || sketch.photo_slots() + chosen(|s| s.way.shows() as usize) - chosen(|s| s.photos.len());
    let wanted = request.photo_count().unwrap_or_else(as_drawn);
    if photos.len() != wanted {
        found.push(Fault::PhotoCount(photos.len(), wanted));
    }
    let Photos::Prints(prints) = &request.photos else {
        return;
    };
    for print in prints {
        let used = photos
            .iter()
            .filter(|p| p[0].placement.as_ref().is_some_and(|s| s.photo == print.id))
            .count();
        if used != 1 {
            found.push(Fault::Print(print.id.clone(), used));
        }
    }
    for parts in photos {
        let fits = crop_of(&parts)
            .zip(parts[0].placement.as_ref())
            .is_some_and(|(keep, placed)| {
                let (w, h) = (
                    placed.print.w.ticks() as f64 * keep.w,
                    placed.print.h.ticks() as f64 * keep.h,
                );
                let rects = parts
                    .iter()
                    .map(|p| Span::from(p.block.rect))
                    .reduce(Span::around);
                let rect = parts[0]
                    .whole
                    .map(Span::from)
                    .or(rects)
                    .expect("a photo has a part");
                let whole = !request.whole || (keep.w > 0.999 && keep.h > 0.999);
                (rect.w() - w).abs() < HAIR && (rect.h() - h).abs() < HAIR && whole
            });
        if !fits {
            found.push(Fault::PrintSize(parts[0].block.id.clone()));
        }
        faces(found, prints, &parts);
    }
}

/// No two blocks have one id.
fn names(found: &mut Vec<Fault>, layout: &Layout) {
    let mut ids: Vec<&str> = layout.blocks.iter().map(|b| b.block.id.as_str()).collect();
    ids.sort_unstable();
    found.extend(
        ids.windows(2)
            .filter(|w| w[0] == w[1])
            .map(|w| Fault::Name(w[0].to_owned())),
    );
}

/// A face across the fold of a photo in two parts: what shows on the left ends within it.
fn faces(found: &mut Vec<Fault>, prints: &[Print], parts: &[&LayoutBlock]) {
    let [left, _] = parts else { return };
    let Some(placed) = left.placement.as_ref().filter(|_| left.whole.is_none()) else {
        return;
    };
    let fold = placed.crop.x + placed.crop.w;
    let faces = prints
        .iter()
        .filter(|p| p.id == placed.photo)
        .flat_map(|p| &p.faces);
    if faces
        .into_iter()
        .any(|f| f.x + 1e-4 < fold && fold < f.x + f.w - 1e-4)
    {
        found.push(Fault::Face(left.block.id.clone()));
    }
}

fn mats(found: &mut Vec<Fault>, sketch: &Sketch, layout: &Layout) {
    for (n, mat) in sketch
        .blocks
        .iter()
        .enumerate()
        .filter(|(_, b)| b.kind == Kind::Mat)
    {
        let Some(framed) = mat.under.as_deref().and_then(|id| sketch.index_of(id)) else {
            continue;
        };
        let here = |id: &String| {
            layout
                .blocks
                .iter()
                .filter(|b| b.from.contains(id))
                .map(LayoutBlock::extent)
                .reduce(Span::around)
        };
        let Some((mat_here, framed_here)) =
            here(&sketch.blocks[n].id).zip(here(&sketch.blocks[framed].id))
        else {
            continue;
        };
        let (mat_drawn, framed_drawn) = (mat.extent(), sketch.blocks[framed].extent());
        for edge in Edge::ALL {
            let sign = if matches!(edge, Edge::Left | Edge::Top) {
                1.0
            } else {
                -1.0
            };
            let border = |m: Span, f: Span| sign * (f.edge(edge) - m.edge(edge));
            if border(mat_drawn, framed_drawn) > HAIR && border(mat_here, framed_here) <= HAIR {
                found.push(Fault::MatHidden(mat.id.clone(), edge));
            }
        }
    }
}

fn pins(found: &mut Vec<Fault>, request: &Request, layout: &Layout) {
    let here = |id: &String| {
        layout
            .blocks
            .iter()
            .filter(|b| b.from.contains(id))
            .map(LayoutBlock::extent)
            .reduce(Span::around)
    };
    for (n, pin) in request.pins.iter().enumerate() {
        let own = here(&pin.block).map(|span| pin.edge.of(span));
        let from = match &pin.to {
            None => Some(0.0),
            // What has become one slot has nothing between.
            Some(to)
                if layout
                    .blocks
                    .iter()
                    .any(|b| b.from.contains(&pin.block) && b.from.contains(&to.block)) =>
            {
                continue;
            }
            Some(to) => here(&to.block).map(|span| to.times * to.edge.of(span)),
        };
        if own
            .zip(from)
            .is_none_or(|(own, from)| (own - from - pin.at.ticks() as f64).abs() > HAIR)
        {
            found.push(Fault::Pin(n));
        }
    }
}
