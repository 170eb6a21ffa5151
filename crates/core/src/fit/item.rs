//! What the program places: the sketch's blocks after the choices (merged, split, recounted) have been made.

use super::approach::Map;
use super::assign;
use super::fold_choice::FoldWay;
use super::preferences::Slack;
use super::prints::Photos;
use super::request::Request;
use super::slot_choice::SlotWay;
use super::slots::{self, Slot};
use super::task::Task;
use crate::geometry::{Axis, Edge, Rect, Span, nearer_to_quarter};
use crate::length::Length;
use crate::reading::{AGREE, HAIR, INCH};
use crate::sketch::{Block, Grid, Kind, Sketch};

/// A mat's edge is a border up to this width; what is wider is a panel's showing part and goes down with the page.
const BORDER_MOST: f64 = 0.75 * INCH;
/// A border is put on the ruler when that changes it by at most this share.
const BORDER_GIVE: f64 = 0.25;

/// One thing to place.
#[derive(Clone, Debug)]
pub(crate) struct Item {
    /// Sketch blocks, in the sketch's order.
    pub(crate) from: Vec<usize>,
    /// Its kind on the page.
    pub(crate) kind: Kind,
    /// Its measured box in the sketch, in ticks.
    pub(crate) drawn: Span,
    /// Where that is wanted.
    pub(crate) want: Span,
    /// Degrees.
    pub(crate) turn: f64,
    /// Must stay as wide as high.
    pub(crate) round: bool,
    /// The canvas edges it runs off.
    pub(crate) bleed: Vec<Edge>,
    /// Whether all of it lies on the sketch's canvas.
    pub(crate) inside: bool,
    /// On a mat, the item it frames and its borders: left, top, right, bottom, in ticks.
    pub(crate) frames: Option<(usize, [f64; 4])>,
    /// The item that it sits on.
    pub(crate) host: Option<usize>,
    /// Prints across and down, for photos.
    pub(crate) cells: (u32, u32),
    /// Between them.
    pub(crate) cell_gap: f64,
    /// The prints in its cells, row by row, as indexes of the request's prints.
    pub(crate) prints: Vec<usize>,
    /// On a spread, each of its two parts is as large as all of it would be: it is doubled.
    pub(crate) each: bool,
    /// Of its prints the first is large: as wide (below) or high (beside) as all the small ones together.
    pub(crate) focal: Option<Along>,
    /// On a grid, its units recounted for the target, and as drawn.
    pub(crate) grid: Option<(Grid, Grid)>,
}

impl Item {
    /// Whether it stands with its sides exchanged.
    pub(crate) fn on_its_side(&self) -> bool {
        nearer_to_quarter(self.turn)
    }

    /// The quarters, clockwise, by which it stands turned: 0 to 3.
    pub(crate) fn quarters(&self) -> u8 {
        (self.turn / 90.0).round().rem_euclid(4.0) as u8
    }

    /// The measured extent of an unturned box of it.
    pub(crate) fn extent_of(&self, rect: Rect) -> Span {
        let span = Span::from(rect);
        if !self.on_its_side() {
            return span;
        }
        let (w, h) = (span.h() / 2.0, span.w() / 2.0);
        Span {
            l: span.cx() - w,
            t: span.cy() - h,
            r: span.cx() + w,
            b: span.cy() + h,
        }
    }

    /// Whether some edge of it is not parallel to the page's.
    pub(crate) fn is_tilted(&self) -> bool {
        self.turn.rem_euclid(90.0) != 0.0
    }

    /// The columns and the rows, first and last, that each of its prints takes up.
    pub(crate) fn cell_runs(&self) -> Vec<((usize, usize), (usize, usize))> {
        let (cols, rows) = (self.cells.0 as usize, self.cells.1 as usize);
        match self.focal {
            None => (0..rows)
                .flat_map(|r| (0..cols).map(move |c| ((c, c), (r, r))))
                .collect(),
            Some(Along::Beside) => std::iter::once(((0, 0), (0, rows - 1)))
                .chain((0..rows).map(|r| ((1, 1), (r, r))))
                .collect(),
            Some(Along::Below) => std::iter::once(((0, cols - 1), (0, 0)))
                .chain((0..cols).map(|c| ((c, c), (1, 1))))
                .collect(),
        }
    }

    /// The share of its width, or of its height, that each of its columns or rows takes up, gaps aside.
    pub(crate) fn run_shares(&self, axis: Axis) -> Vec<f64> {
        match (self.focal, axis) {
            (Some(Along::Beside), Axis::X) | (Some(Along::Below), Axis::Y) => {
                vec![FOCAL_SHARE, 1.0 - FOCAL_SHARE]
            }
            _ => {
                let count = if axis == Axis::X {
                    self.cells.0
                } else {
                    self.cells.1
                };
                vec![1.0 / f64::from(count); count as usize]
            }
        }
    }

    /// Whether it would stand on the fold, or in its guard, at the smaller of its wanted and its own grown width; all in ticks.
    pub(crate) fn straddles(&self, map: Map, fold: f64, guard: f64) -> bool {
        straddles(self.drawn, self.want, map, fold, guard)
    }

    /// Whether several prints, or the parts of a block that is doubled or a pair, share it.
    pub(crate) fn is_split(&self) -> bool {
        self.cells != (1, 1)
    }
}

/// [`Item::straddles`], for what is drawn and wanted there.
pub(crate) fn straddles(drawn: Span, want: Span, map: Map, fold: f64, guard: f64) -> bool {
    let grown = (drawn.w() * map.mean()).min(want.w());
    (want.cx() - fold).abs() < grown / 2.0 + guard
}

/// Where the small prints of a slot lie from its large one.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Along {
    /// In a column beside it.
    Beside,
    /// In a row below it.
    Below,
}

/// What the large print takes of a slot that has small ones beside it.
const FOCAL_SHARE: f64 = 2.0 / 3.0;

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
        let cost = assign::prints(&mut items, prints);
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
    let step = request.snap.ticks() as f64;
    let (gap, joined) = slots::gap_between(sketch, group).map_or_else(
        || (slots::cell_gap(sketch), false),
        |gap| (gap, gap <= AGREE),
    );
    let (kind, cells, focal) = match slot.map(|s| s.way) {
        None | Some(SlotWay::Gone) => (first.kind, (1, 1), None),
        Some(SlotWay::Each) => (first.kind, (2, 1), None),
        Some(SlotWay::Cells(cols, rows)) => (first.kind, (cols, rows), None),
        Some(SlotWay::Focal { small, below: true }) => (first.kind, (small, 2), Some(Along::Below)),
        Some(SlotWay::Focal {
            small,
            below: false,
        }) => (first.kind, (2, small), Some(Along::Beside)),
        Some(SlotWay::Journal) => (Kind::Journal, (1, 1), None),
        Some(SlotWay::Paper) => (Kind::Paper, (1, 1), None),
    };
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
        host: None,
        cells,
        each: false,
        focal,
        cell_gap: if joined {
            0.0
        } else if step > 0.0 {
            (gap / step).round().max(1.0) * step
        } else {
            gap
        },
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
