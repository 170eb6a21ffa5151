//! From placed lines to layout blocks: slots to photos, the fold's parts, units, what hangs over.

use super::item::Item;
use super::model::{Model, Scene, Vars};
use super::pin::PinEdge;
use crate::geometry::{Edge, Rect, Size, Span, turned};
use crate::layout::{Crop, Layout, LayoutBlock, Placement};
use crate::length::{Length, Unit};
use crate::photos::{Photos, Print, crop, room};
use crate::reading::INCH;
use crate::sketch::{Block, Ring, Shape};
use std::collections::BTreeSet;

/// The finest mark that a print is trimmed at: 1/32 in, half a millimetre.
const fn finest_mark(unit: Unit) -> Length {
    match unit {
        Unit::Inch => Length::inches(1, 32),
        Unit::Millimetre => Length::from_ticks(Unit::Millimetre.ticks() / 2),
    }
}

/// The layout for variables in ticks.
pub(crate) fn layout(scene: &Scene<'_>, model: &Model, ticks: &[i64]) -> Layout {
    let mut names = Names::new(scene);
    let mut blocks = Vec::new();
    for (n, item) in scene.items.iter().enumerate() {
        if item.is_split() || !item.prints.is_empty() {
            photos(scene, model, ticks, n, &mut names, &mut blocks);
        } else if let Some((framed, reach)) = one_each(scene, item) {
            mats_each(
                scene,
                (model, ticks),
                (n, framed),
                reach,
                &mut names,
                &mut blocks,
            );
        } else {
            let [l, t, r, b] = model.vars[n].edges.map(|v| ticks[v]);
            let place = set_off_with_tilt(scene, item, placed(scene, item, [l, t, r, b]));
            let block = base(scene, item, place);
            over_fold(scene, item, block, &mut names, &mut blocks);
        }
    }
    Layout {
        unit: scene.request.unit,
        canvas: scene.request.target,
        blocks,
    }
}

/// Names for blocks that are not in the sketch: `p1b`, `p1c`, … past what is taken.
struct Names {
    taken: BTreeSet<String>,
}

impl Names {
    fn new(scene: &Scene<'_>) -> Names {
        Names {
            taken: scene.sketch.blocks.iter().map(|b| b.id.clone()).collect(),
        }
    }

    fn next(&mut self, id: &str) -> String {
        let letters = ('b'..='z').map(|c| format!("{id}{c}"));
        let numbers = (2..).map(|n| format!("{id}-{n}"));
        let free = letters
            .chain(numbers)
            .find(|name| !self.taken.contains(name))
            .unwrap_or_default();
        self.taken.insert(free.clone());
        free
    }
}

fn rect(l: i64, t: i64, r: i64, b: i64) -> Rect {
    let ticks = Length::from_ticks;
    Rect {
        x: ticks(l),
        y: ticks(t),
        w: ticks(r - l),
        h: ticks(b - t),
    }
}

/// The unturned box of an extent: sides exchanged back about the centre where the turn is nearer to a quarter.
fn unturned(item: &Item, [l, t, r, b]: [i64; 4]) -> Rect {
    if !item.on_its_side() {
        return rect(l, t, r, b);
    }
    let (w, h) = (b - t, r - l);
    let (x, y) = ((l + r - w) / 2, (t + b - h) / 2);
    rect(x, y, x + w, y + h)
}

/// The extent with what hangs over put back: it scales with the page, or is what a pin beyond the edge says.
fn placed(scene: &Scene<'_>, item: &Item, mut edges: [i64; 4]) -> Rect {
    let canvas = scene.sketch.canvas.span();
    let step = scene.request.snap.ticks().max(1) as f64;
    for edge in &item.bleed {
        let at = super::model::edge_at(*edge);
        let sign = if at < 2 { -1.0 } else { 1.0 };
        let drawn = item
            .from
            .iter()
            .map(|b| sign * (scene.sketch.blocks[*b].extent().edge(*edge) - canvas.edge(*edge)));
        let scale = if at.is_multiple_of(2) {
            scene.map.sx
        } else {
            scene.map.sy
        };
        let over = (drawn.fold(0.0, f64::max) * scale / step).ceil() * step;
        edges[at] += (sign * over) as i64;
        let own = |id: &String| item.from.iter().any(|b| scene.sketch.blocks[*b].id == *id);
        let pinned = scene
            .request
            .pins
            .iter()
            .filter(|p| p.edge == PinEdge::Edge(*edge) && own(&p.block))
            .find_map(|p| p.on_page());
        if let Some(pinned) = pinned {
            edges[at] = pinned.ticks();
        }
    }
    unturned(item, edges)
}

/// A chosen layer that is set off behind a tilted photo is set off along the photo's own edges, not along the page's.
fn set_off_with_tilt(scene: &Scene<'_>, item: &Item, rect: Rect) -> Rect {
    let is_chosen = |_: &_| {
        let id = &scene.sketch.blocks[item.from[0]].id;
        item.is_tilted() && scene.request.reaches.contains_key(id)
    };
    let Some((_, [left, top, right, bottom])) = item.frames.filter(is_chosen) else {
        return rect;
    };
    let tilt = item.turn - 90.0 * (item.turn / 90.0).round();
    let (off_x, off_y) = ((right - left) / 2.0, (bottom - top) / 2.0);
    let (along_x, along_y) = turned((off_x, off_y), tilt);
    let shift = |by: f64| Length::from_ticks(by.round() as i64);
    Rect {
        x: rect.x + shift(along_x - off_x),
        y: rect.y + shift(along_y - off_y),
        ..rect
    }
}

/// The sketch's block at its new place.
fn base(scene: &Scene<'_>, item: &Item, rect: Rect) -> LayoutBlock {
    let drawn = &scene.sketch.blocks[item.from[0]];
    let id_of = |named: &Option<String>| {
        let block = scene.sketch.index_of(named.as_deref()?)?;
        let item = scene.items.iter().find(|i| i.from.contains(&block))?;
        Some(scene.sketch.blocks[item.from[0]].id.clone())
    };
    // A mat around several prints frames no single block of the layout.
    let frames_several = item.frames.is_some_and(|(f, _)| scene.items[f].is_split());
    let block = Block {
        kind: item.kind,
        rect,
        turn: item.turn,
        bleed: item.bleed.clone(),
        under: if frames_several {
            None
        } else {
            id_of(&drawn.under)
        },
        host: id_of(&drawn.host),
        grid: item.grid.map(|(new, _)| new).or(drawn.grid),
        ring: drawn.ring.map(|r| scaled_ring(r, drawn, rect)),
        sure: None,
        ..drawn.clone()
    };
    let from = item
        .from
        .iter()
        .map(|b| scene.sketch.blocks[*b].id.clone())
        .collect();
    LayoutBlock {
        page: page_of(scene, Span::from(rect)),
        block,
        from,
        placement: None,
        whole: None,
    }
}

/// A ring's units grow with the ring.
fn scaled_ring(ring: Ring, drawn: &Block, rect: Rect) -> Ring {
    let scale = rect.w.ticks() as f64 / drawn.rect.w.ticks() as f64;
    Ring {
        unit: Length::from_ticks(((ring.unit.ticks() as f64 * scale).round() as i64).max(1)),
        ..ring
    }
}

fn page_of(scene: &Scene<'_>, span: Span) -> u8 {
    scene
        .fold()
        .map_or(0, |fold| u8::from(span.cx() > fold * INCH + 0.5))
}

/// A block that crosses the fold becomes two, each with what lies on its page.
fn over_fold(
    scene: &Scene<'_>,
    item: &Item,
    block: LayoutBlock,
    names: &mut Names,
    blocks: &mut Vec<LayoutBlock>,
) {
    let [l, t, r, b] = {
        let extent = item.extent_of(block.block.rect);
        [extent.l, extent.t, extent.r, extent.b].map(|at| at.round() as i64)
    };
    let fold = scene.fold().map(|f| (f * INCH).round() as i64);
    let Some(fold) = fold.filter(|f| l < *f && *f < r) else {
        blocks.push(block);
        return;
    };
    let plain = block.block.shape == Shape::Rect
        && block.block.grid.is_none()
        && block.block.ring.is_none()
        && !item.is_tilted()
        && !item.on_its_side();
    let whole = (!plain).then_some(block.block.rect);
    let mut left = block.clone();
    left.block.rect = unturned(item, [l, t, fold, b]);
    left.block.bleed.retain(|e| *e != Edge::Right);
    left.page = 0;
    left.whole = whole;
    let mut right_part = block;
    right_part.block.id = names.next(&left.block.id);
    right_part.block.rect = unturned(item, [fold, t, r, b]);
    right_part.block.bleed.retain(|e| *e != Edge::Left);
    right_part.page = 1;
    right_part.whole = whole;
    if plain
        && let (Some(shows_left), Some(shows_right)) =
            (&mut left.placement, &mut right_part.placement)
    {
        let on_left = shows_left.crop.w * (fold - l) as f64 / (r - l) as f64;
        shows_right.crop.x += on_left;
        shows_right.crop.w -= on_left;
        shows_left.crop.w = on_left;
    }
    blocks.extend([left, right_part]);
}

/// A slot's photos, each with its print.
fn photos(
    scene: &Scene<'_>,
    model: &Model,
    ticks: &[i64],
    n: usize,
    names: &mut Names,
    blocks: &mut Vec<LayoutBlock>,
) {
    let item = &scene.items[n];
    let vars = &model.vars[n];
    for (cell, (cols, rows)) in item.cell_runs().into_iter().enumerate() {
        let ((l, r), (t, b)) = (Vars::over(&vars.cols, cols), Vars::over(&vars.rows, rows));
        let edges = [ticks[l], ticks[t], ticks[r], ticks[b]];
        let rect = if item.is_split() {
            unturned(item, edges)
        } else {
            placed(scene, item, edges)
        };
        let mut block = base(scene, item, rect);
        if cell > 0 {
            block.block.id = names.next(&scene.sketch.blocks[item.from[0]].id);
        }
        let begins = vars
            .print_begins
            .get(cell)
            .map(|b| b.map(|v| v.map(|v| ticks[v])));
        block.placement = item
            .prints
            .get(cell)
            .and_then(|p| shown(scene, item, *p, rect, begins.unwrap_or_default()));
        if item.is_split() {
            blocks.push(block);
        } else {
            over_fold(scene, item, block, names, blocks);
        }
    }
}

/// Of a mat that prints of one slot have each: the item of these prints, and how far it reaches beyond them.
fn one_each(scene: &Scene<'_>, item: &Item) -> Option<(usize, [f64; 4])> {
    let (framed, reach) = item.frames?;
    let id = &scene.sketch.blocks[item.from[0]].id;
    let is_so = scene.items[framed].is_split() && scene.request.one_each.contains(id);
    is_so.then_some((framed, reach))
}

/// A mat for each print of a slot.
fn mats_each(
    scene: &Scene<'_>,
    (model, ticks): (&Model, &[i64]),
    (mat, framed): (usize, usize),
    reach: [f64; 4],
    names: &mut Names,
    blocks: &mut Vec<LayoutBlock>,
) {
    let item = &scene.items[mat];
    let vars = &model.vars[framed];
    for (cell, (cols, rows)) in scene.items[framed].cell_runs().into_iter().enumerate() {
        let ((l, r), (t, b)) = (Vars::over(&vars.cols, cols), Vars::over(&vars.rows, rows));
        let out = reach.map(|side| side.round() as i64);
        let edges = [
            ticks[l] - out[0],
            ticks[t] - out[1],
            ticks[r] + out[2],
            ticks[b] + out[3],
        ];
        let mut block = base(scene, item, unturned(item, edges));
        block.block.turn = 0.0;
        if cell > 0 {
            block.block.id = names.next(&scene.sketch.blocks[item.from[0]].id);
        }
        blocks.push(block);
    }
}

/// What of a print shows in a box: its middle, or what lies in the box where the print's edges have a place on the page.
fn shown(
    scene: &Scene<'_>,
    item: &Item,
    print: usize,
    rect: Rect,
    begins: [Option<i64>; 2],
) -> Option<Placement> {
    let Photos::Prints(prints) = &scene.request.photos else {
        return None;
    };
    let print = &prints[print];
    let slot = Size {
        w: rect.w,
        h: rect.h,
    };
    let size = print.size_for(slot);
    let share = |side: Length, full: Length| (side.ticks() as f64 / full.ticks() as f64).min(1.0);
    let (w, h) = (share(rect.w, size.w), share(rect.h, size.h));
    let extent = item.extent_of(rect);
    // How much of the print lies before the box, across the page and down it.
    let cut = |begin: Option<i64>, low: f64, side: Length, full: Length| {
        let most = (full - side).ticks().max(0) as f64;
        begin.map_or(most / 2.0, |begin| (low - begin as f64).clamp(0.0, most))
            / full.ticks() as f64
    };
    let quarters = item.quarters();
    let (across, down) = if quarters.is_multiple_of(2) {
        (begins[0], begins[1])
    } else {
        (begins[1], begins[0])
    };
    let (low_x, low_y) = if quarters.is_multiple_of(2) {
        (extent.l, extent.t)
    } else {
        (extent.t, extent.l)
    };
    let x = cut(across, low_x, rect.w, size.w);
    let y = cut(down, low_y, rect.h, size.h);
    // Turned, the print's own left or top lies at the far end.
    let x = if matches!(quarters, 2 | 3) {
        1.0 - w - x
    } else {
        x
    };
    let y = if matches!(quarters, 1 | 2) {
        1.0 - h - y
    } else {
        y
    };
    let (x, y) = windowed(scene, item, print, (size, slot), extent).unwrap_or((x, y));
    Some(Placement {
        photo: print.id.clone(),
        print: size,
        crop: Crop { x, y, w, h },
    })
}

/// A cut that a ruler has a mark for, where there is one between two places.
fn on_ruler(at: Length, mark: Length, (first, last): (Length, Length)) -> Length {
    let nearest = at.round_to(mark);
    let marks = [nearest, nearest - mark, nearest + mark];
    let between = marks.into_iter().filter(|m| first <= *m && *m <= last);
    between.min_by_key(|m| (*m - at).abs()).unwrap_or(at)
}

/// Where the window begins, in shares of the print: nearest to where it is wanted, so that it holds what must be kept. None for a photo with
/// faces that runs over the fold: its place was found with the fold's.
fn windowed(
    scene: &Scene<'_>,
    item: &Item,
    print: &Print,
    (size, slot): (Size, Size),
    extent: Span,
) -> Option<(f64, f64)> {
    let over_fold = scene
        .fold()
        .is_some_and(|f| extent.l < f * INCH && f * INCH < extent.r);
    if over_fold && !item.is_split() && !print.faces.is_empty() && !print.is_file {
        return None;
    }
    let kept = print.kept_on(size);
    let mut window = crop(size, slot, &kept, print.wanted(size, slot))
        .ok()?
        .window;
    if !print.is_file {
        let mark = finest_mark(scene.request.unit);
        // Where no window holds all of them, any place on the print may be rounded to.
        let places = room(size, slot, &kept).or_else(|| room(size, slot, &[]))?;
        window.x = on_ruler(window.x, mark, (places.x, places.right()));
        window.y = on_ruler(window.y, mark, (places.y, places.bottom()));
    }
    let share = |at: Length, full: Length| at.ticks() as f64 / full.ticks() as f64;
    Some((share(window.x, size.w), share(window.y, size.h)))
}
