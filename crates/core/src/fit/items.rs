//! From a sketch and a request to the items that the program places.

use super::approach::Map;
use super::assign;
use super::fold_choice::FoldWay;
use super::item::{Along, Item};
use super::preferences::Slack;
use super::request::Request;
use super::slot::Slot;
use super::slot_choice::SlotWay;
use super::slots;
use super::task::Task;
use crate::geometry::{Edge, Span, nearer_to_quarter};
use crate::length::Length;
use crate::photos::{Photos, Sides};
use crate::reading::{AGREE, HAIR, INCH};
use crate::sketch::{Block, Grid, Kind, Sketch};

/// A mat's edge is a border up to this width; what is wider is a panel's showing part and goes down with the page.
const BORDER_MOST: f64 = 0.75 * INCH;
/// A border is put on the ruler when that changes it by at most this share.
const BORDER_GIVE: f64 = 0.25;

/// All items for a request, bottom to top as in the sketch. `None` when photos are asked for and there is no slot.
pub(crate) fn items(task: &Task, sketch: &Sketch, map: Map) -> Option<Vec<Item>> {
    let request = &task.request;
    let fold = (request.target.pages == 2).then(|| request.target.page.w.ticks() as f64);
    let slots = slots::plan(sketch, map, request.photo_count(), fold, &request.slots)?;
    let Photos::Prints(prints) = &request.photos else {
        return Some(items_of(task, sketch, map, &slots));
    };
    let given = |slots: &[Slot]| {
        let mut items = items_of(task, sketch, map, slots);
        let cost = assign::prints(sketch, &mut items, prints);
        (cost, items)
    };
    let mut best = given(&slots);
    for slots in slots::with_focal(sketch, map, &slots, fold, &request.slots) {
        let found = given(&slots);
        if found.0 + assign::WORTH_A_FOCAL < best.0 {
            best = found;
        }
    }
    Some(best.1)
}

/// The items of slots that are settled, without their prints.
fn items_of(task: &Task, sketch: &Sketch, map: Map, slots: &[Slot]) -> Vec<Item> {
    let groups = groups(sketch, slots);
    let mut place = vec![usize::MAX; sketch.blocks.len()];
    for (n, group) in groups.iter().enumerate() {
        group.iter().for_each(|b| place[*b] = n);
    }
    let mut items: Vec<Item> = groups
        .iter()
        .map(|g| item(task, sketch, map, slots, g))
        .collect();
    straighten_split(&mut items);
    for n in 0..items.len() {
        let block = &sketch.blocks[items[n].from[0]];
        let item_of = |id: &Option<String>| {
            id.as_deref()
                .and_then(|id| sketch.index_of(id))
                .map(|b| place[b])
                .filter(|i| *i != n && *i != usize::MAX)
        };
        items[n].host = item_of(&block.host);
        if block.kind == Kind::Mat {
            let framed = item_of(&block.under);
            if framed.is_some_and(|f| items[f].is_split()) {
                items[n].turn = 0.0;
            }
            items[n].frames =
                framed.map(|framed| (framed, borders(&task.request, sketch, map, block)));
            // Prints of a slot that have mats each lie further apart, so that these don't lie over each other.
            if let Some((framed, [l, t, r, b])) = items[n].frames
                && task.request.one_each.contains(&block.id)
            {
                let outermost = items[framed].mats_each.max((l + r).max(t + b));
                items[framed].mats_each = outermost;
            }
        }
    }
    items
}

/// Prints side by side in a turned slot would lie askew to each other: a slot that is split stands straight, its prints as they are looked at.
fn straighten_split(items: &mut [Item]) {
    items
        .iter_mut()
        .filter(|i| i.is_split())
        .for_each(|i| i.turn = 0.0);
}

/// The nearest quarter turn.
fn square(degrees: f64) -> f64 {
    (degrees / 90.0).round() * 90.0
}

/// Sketch blocks that become one: merged slots, and the mats of merged slots.
fn groups(sketch: &Sketch, slots: &[Slot]) -> Vec<Vec<usize>> {
    let slot_of = |n: usize| slots.iter().position(|s| s.blocks.contains(&n));
    let framed = |n: usize| {
        sketch.blocks[n]
            .under
            .as_deref()
            .and_then(|id| sketch.index_of(id))
    };
    let gone = |n: usize| slot_of(n).is_some_and(|s| slots[s].way == SlotWay::Gone);
    let mut found: Vec<Vec<usize>> = Vec::new();
    for (n, block) in sketch.blocks.iter().enumerate() {
        // What is left out takes its mat with it.
        if gone(n) || block.kind == Kind::Mat && framed(n).is_some_and(gone) {
            continue;
        }
        let joins = |other: usize| match block.kind {
            Kind::Photo => slot_of(n) == slot_of(other),
            Kind::Mat => match (framed(n).and_then(slot_of), framed(other).and_then(slot_of)) {
                (Some(a), Some(b)) => a == b && framed(n) != framed(other),
                _ => false,
            },
            _ => false,
        };
        match found
            .iter_mut()
            .find(|g| sketch.blocks[g[0]].kind == block.kind && joins(g[0]))
        {
            Some(group) => group.push(n),
            None => found.push(vec![n]),
        }
    }
    found
}

/// What a slot's item is, its cells across and down, and where its small prints lie.
const fn shown_as(kind: Kind, way: Option<SlotWay>) -> (Kind, (u32, u32), Option<Along>) {
    match way {
        None | Some(SlotWay::Gone) => (kind, (1, 1), None),
        Some(SlotWay::Each) => (kind, (2, 1), None),
        Some(SlotWay::Cells(cols, rows)) => (kind, (cols, rows), None),
        Some(SlotWay::Focal { small, below: true }) => (kind, (small, 2), Some(Along::Below)),
        Some(SlotWay::Focal {
            small,
            below: false,
        }) => (kind, (2, small), Some(Along::Beside)),
        Some(SlotWay::Journal) => (Kind::Journal, (1, 1), None),
        Some(SlotWay::Paper) => (Kind::Paper, (1, 1), None),
    }
}

/// The gap between the prints of a slot, on the ruler: the one between the blocks it was made of, where there is one.
fn gap_between_cells(sketch: &Sketch, group: &[usize], step: f64) -> f64 {
    match slots::gap_between(sketch, group) {
        Some(gap) if gap <= AGREE => 0.0,
        between => {
            let gap = between.unwrap_or_else(|| slots::cell_gap(sketch));
            if step > 0.0 {
                (gap / step).round().max(1.0) * step
            } else {
                gap
            }
        }
    }
}

/// The item of one group of blocks.
fn item(task: &Task, sketch: &Sketch, map: Map, slots: &[Slot], group: &[usize]) -> Item {
    let request = &task.request;
    let canvas = sketch.canvas.span();
    let first = &sketch.blocks[group[0]];
    let spans = group.iter().map(|n| sketch.blocks[*n].measured(canvas));
    let drawn = spans.reduce(Span::around).unwrap_or(canvas);
    let want = map.apply(drawn);
    let slot = slots.iter().find(|s| s.blocks.contains(&group[0]));
    let mut bleed: Vec<Edge> = group
        .iter()
        .flat_map(|n| sketch.blocks[*n].bleed.clone())
        .collect();
    bleed.sort_unstable();
    bleed.dedup();
    let (kind, cells, focal) = shown_as(first.kind, slot.map(|s| s.way));
    let fold = (request.target.pages == 2).then(|| request.target.page.w.ticks() as f64);
    let chosen = request
        .at_fold
        .iter()
        .find(|c| c.block == first.id)
        .map(|c| c.way);
    let mut item = Item {
        from: group.to_vec(),
        kind,
        drawn,
        want,
        turn: if group.len() > 1 {
            square(first.turn)
        } else {
            first.turn
        },
        round: group.len() == 1 && first.is_round(),
        bleed,
        inside: group.iter().all(|n| {
            sketch.blocks[*n]
                .true_bounds()
                .is_in(beyond(canvas, &task.fold_at), HAIR)
        }),
        frames: None,
        mats_each: 0.0,
        host: None,
        cells,
        each: false,
        focal,
        cell_gap: gap_between_cells(sketch, group, request.snap.ticks() as f64),
        prints: Vec::new(),
        grid: first
            .grid
            .filter(|_| first.kind == Kind::Grid)
            .map(|g| (recount(g, first, drawn, want, map, request), g)),
    };
    let at_fold = fold
        .is_some_and(|fold| item.straddles(map, fold, request.fold_guard.ticks() as f64))
        && square(item.turn) == 0.0;
    if at_fold && matches!(chosen, Some(FoldWay::Each | FoldWay::Pair)) {
        item.cells = (2, 1);
    }
    item.each =
        at_fold && (chosen == Some(FoldWay::Each) || slot.is_some_and(|s| s.way == SlotWay::Each));
    item
}

/// A page with the one beyond the fold.
fn beyond(canvas: Span, fold_at: &[Edge]) -> Span {
    let mut found = canvas;
    if fold_at.contains(&Edge::Left) {
        found.l -= canvas.w();
    }
    if fold_at.contains(&Edge::Right) {
        found.r += canvas.w();
    }
    found
}

/// How far a mat reaches beyond what it frames, on each side: an absolute that does not scale.
fn borders(request: &Request, sketch: &Sketch, map: Map, mat: &Block) -> [f64; 4] {
    if let Some(reach) = request.reaches.get(&mat.id) {
        return on_page(*reach, mat.turn);
    }
    let canvas = sketch.canvas.span();
    let Some(framed) = mat.under.as_deref().and_then(|id| sketch.index_of(id)) else {
        return [0.0; 4];
    };
    let (m, f) = (mat.measured(canvas), sketch.blocks[framed].measured(canvas));
    [f.l - m.l, f.t - m.t, m.r - f.r, m.b - f.b].map(|border| {
        let border = if request.slack == Slack::Mats {
            border * map.mean().max(1.0)
        } else {
            border
        };
        let kept = if border <= BORDER_MOST || request.slack == Slack::Mats {
            border
        } else {
            (border * map.least().min(1.0)).max(BORDER_MOST)
        };
        let on_ruler = Length::from_ticks(kept.round() as i64)
            .round_to(request.snap)
            .ticks() as f64;
        if (on_ruler - kept).abs() <= BORDER_GIVE * kept.abs() {
            on_ruler
        } else {
            kept.round()
        }
    })
}

/// A photo's sides as they lie on the page: turned by a quarter its left one is at the top.
fn on_page(reach: Sides, turn: f64) -> [f64; 4] {
    let mut sides = reach.map(|l| l.ticks() as f64);
    let quarters = (turn / 90.0).round().rem_euclid(4.0) as usize;
    sides.rotate_right(quarters);
    sides
}

/// The units of a grid on the target: more along the stretched axis, so that a unit stays what it was.
fn recount(
    grid: Grid,
    block: &Block,
    drawn: Span,
    want: Span,
    map: Map,
    request: &Request,
) -> Grid {
    let side = nearer_to_quarter(block.turn);
    let (cols, rows) = if side {
        (grid.rows, grid.cols)
    } else {
        (grid.cols, grid.rows)
    };
    let gap = grid.gap.ticks() as f64;
    let unit = |size: f64, count: u32| (size - gap * f64::from(count - 1)) / f64::from(count);
    let aspect = unit(drawn.w(), cols) / unit(drawn.h(), rows);
    let over_fold = request.target.pages == 2
        && (want.cx() - request.target.page.w.ticks() as f64).abs() < want.w() / 8.0;
    let around = |count: u32, scale: f64| {
        let most = (f64::from(count) * scale.max(1.0) * 1.5).ceil() as u32 + 1;
        1..=most.min(1_000)
    };
    let s = map.least();
    let mut best = (f64::INFINITY, cols, rows);
    for c in around(cols, map.sx / s) {
        for r in around(rows, map.sy / s) {
            let (w, h) = (unit(want.w(), c), unit(want.h(), r));
            if w <= 0.0 || h <= 0.0 {
                continue;
            }
            let shape = (w / h / aspect).ln().abs();
            let size =
                ((w * h).sqrt() / (unit(drawn.w(), cols) * unit(drawn.h(), rows)).sqrt()).ln();
            // A unit keeps its size, or goes with the page's smaller scale; anything between is as good.
            let (least, most) = (map.least().ln().min(0.0), map.least().ln().max(0.0));
            let size = (least - size).max(size - most).max(0.0);
            let changed = f64::from(c.abs_diff(cols)) / f64::from(cols)
                + f64::from(r.abs_diff(rows)) / f64::from(rows);
            let broken = if over_fold && c % 2 == 1 { 0.3 } else { 0.0 };
            let cost = shape + 0.25 * size + 0.08 * changed + broken;
            if cost < best.0 - 1e-9 {
                best = (cost, c, r);
            }
        }
    }
    let (cols, rows) = if side {
        (best.2, best.1)
    } else {
        (best.1, best.2)
    };
    Grid { cols, rows, ..grid }
}
