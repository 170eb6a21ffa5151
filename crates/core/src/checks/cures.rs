//! What could be done about a pocket: an accent laid in it, a neighbour that runs on into it, or one that moves and opens it. Each is tried on
//! the page, and told only when it works.

use super::lying::page_span;
use super::trapped::Pocket;
use super::verify::{Before, Change, may_be_moved};
use crate::geometry::{Edge, Rect, Region, Span};
use crate::length::{Length, Unit};
use crate::sketch::Kind;

/// How many cures a pocket gets, and how many changes are tried for them.
const MOST_CURES: usize = 3;
const MOST_TRIED: usize = 24;
/// Lines across a pocket, each way, between which an accent is looked for.
const LINES: usize = 14;
/// How far what lies under its neighbours is tucked beneath them.
const TUCKS: [Length; 2] = [Length::inches(1, 2), Length::inches(1, 4)];

/// A change that makes a pocket go.
#[derive(Clone, Debug, PartialEq)]
pub struct Cure {
    /// What to do, in words.
    pub text: String,
    /// The block that moves or grows, by its place in the layout; none where an accent is laid.
    pub block: Option<usize>,
    /// Its new box, or the accent's.
    pub rect: Rect,
}

/// What cures a pocket, the lightest touch first.
pub(super) fn cures(before: &Before<'_>, pocket: &Pocket) -> Vec<Cure> {
    let tries = accents(before, pocket)
        .into_iter()
        .chain(grown(before, pocket))
        .chain(moved(before, pocket));
    let mut found: Vec<Cure> = Vec::new();
    for change in tries.take(MOST_TRIED) {
        if found.len() == MOST_CURES {
            break;
        }
        let block = |c: &Change| match c {
            Change::Moved(n, _) => Some(*n),
            Change::Accent(_) => None,
        };
        // One cure a block is enough.
        if found.iter().any(|c| c.block == block(&change)) {
            continue;
        }
        if before.is_cured_by(pocket, &change) {
            found.push(told(before, &change));
        }
    }
    found
}

/// The finest step that a cure is told in.
const fn step(unit: Unit) -> Length {
    match unit {
        Unit::Inch => Length::inches(1, 16),
        Unit::Millimetre => Length::from_ticks(Unit::Millimetre.ticks()),
    }
}

/// The box's sides moved to whole steps, inwards.
fn in_steps(span: Span, unit: Unit) -> Rect {
    let step = step(unit).ticks();
    let up = |at: f64| (at / step as f64 - 1e-6).ceil() as i64 * step;
    let down = |at: f64| (at / step as f64 + 1e-6).floor() as i64 * step;
    let (l, t, r, b) = (up(span.l), up(span.t), down(span.r), down(span.b));
    let ticks = Length::from_ticks;
    Rect {
        x: ticks(l),
        y: ticks(t),
        w: ticks(r - l),
        h: ticks(b - t),
    }
}

/// Accents in a pocket: the largest boxes that hide no photo and no words.
fn accents(before: &Before<'_>, pocket: &Pocket) -> Vec<Change> {
    let lying = before.lying;
    let blocks = &lying.layout.blocks;
    let is_read = |kind: Kind| matches!(kind, Kind::Photo | Kind::Title | Kind::Journal);
    let kept = blocks
        .iter()
        .zip(&lying.outlines)
        .filter(|(b, _)| is_read(b.block.kind));
    let kept: Vec<&Region> = kept.map(|(_, outline)| outline).collect();
    let right = pocket.bounds.cx() > lying.layout.canvas.page.w.ticks() as f64;
    let page = page_span(
        lying.layout,
        u8::from(lying.layout.canvas.pages == 2 && right),
    );
    let within = pocket.bounds.cut_to(page);
    let allowed = Region::from(within).without(kept);
    let mut boxes = largest_boxes(&allowed, within, pocket);
    boxes.truncate(4);
    boxes
        .into_iter()
        .map(|b| in_steps(b, lying.layout.unit))
        .filter(|r| r.w > Length::ZERO && r.h > Length::ZERO)
        .map(Change::Accent)
        .collect()
}

/// Upright boxes between lines through an area that lie in it wholly, those that cover most of a pocket first.
fn largest_boxes(allowed: &Region, within: Span, pocket: &Pocket) -> Vec<Span> {
    let corners = || pocket.region.edges().chain(allowed.edges()).flatten();
    let xs = lines(corners().map(|p| p[0]), (within.l, within.r));
    let ys = lines(corners().map(|p| p[1]), (within.t, within.b));
    let (cols, rows) = (xs.len() - 1, ys.len() - 1);
    let cell = |x: usize, y: usize| Span {
        l: xs[x],
        t: ys[y],
        r: xs[x + 1],
        b: ys[y + 1],
    };
    let is_free = |x: usize, y: usize| Region::from(cell(x, y)).without([allowed]).is_empty();
    let free: Vec<Vec<bool>> = (0..rows)
        .map(|y| (0..cols).map(|x| is_free(x, y)).collect())
        .collect();
    let mut boxes: Vec<Span> = Vec::new();
    for top in 0..rows {
        let mut open = vec![true; cols];
        for bottom in top..rows {
            for (x, open) in open.iter_mut().enumerate() {
                *open &= free[bottom][x];
            }
            boxes.extend(runs(&open).map(|(from, to)| Span {
                l: xs[from],
                t: ys[top],
                r: xs[to],
                b: ys[bottom + 1],
            }));
        }
    }
    let covered = |b: &Span| pocket.region.within_also(&Region::from(*b)).area();
    boxes.sort_by(|a, b| b.area().total_cmp(&a.area()));
    boxes.truncate(12);
    boxes.sort_by(|a, b| covered(b).total_cmp(&covered(a)));
    boxes
}

/// Where it is open without a break, from and to.
fn runs(open: &[bool]) -> impl Iterator<Item = (usize, usize)> {
    let begins = (0..open.len()).filter(|n| open[*n] && (*n == 0 || !open[n - 1]));
    begins.map(|from| {
        let long = open[from..].iter().take_while(|o| **o).count();
        (from, from + long)
    })
}

/// Lines through some places between two ends; where there are many, as many evenly apart.
fn lines(places: impl Iterator<Item = f64>, (from, to): (f64, f64)) -> Vec<f64> {
    /// Lines nearer than this, in ticks, are one.
    const APART: f64 = 2_000.0;
    let mut at: Vec<f64> = places.filter(|p| *p > from && *p < to).collect();
    at.extend([from, to]);
    at.sort_by(f64::total_cmp);
    at.dedup_by(|a, b| (*a - *b).abs() < APART);
    if at.len() <= LINES {
        return at;
    }
    (0..=LINES)
        .map(|n| from + (to - from) * n as f64 / LINES as f64)
        .collect()
}

/// Neighbours that run on into the pocket: what lies under others, tucked beneath them; what doesn't, up to its edge.
fn grown(before: &Before<'_>, pocket: &Pocket) -> Vec<Change> {
    let layout = before.lying.layout;
    let grows = |kind: Kind| {
        matches!(
            kind,
            Kind::Paper | Kind::Strip | Kind::Journal | Kind::Title
        )
    };
    let mut found = Vec::new();
    for &n in &pocket.between {
        let block = &layout.blocks[n];
        if !grows(block.block.kind) || block.block.turn != 0.0 || !may_be_moved(layout, n) {
            continue;
        }
        let page = page_span(layout, block.page);
        let own = Span::from(block.block.rect);
        let tucks = if matches!(block.block.kind, Kind::Paper | Kind::Strip) {
            [TUCKS[0], TUCKS[1], Length::ZERO].to_vec()
        } else {
            vec![Length::ZERO]
        };
        for tuck in tucks {
            for edge in Edge::ALL {
                let to = own.with_edge(edge, beyond(pocket.bounds, edge, tuck.ticks() as f64));
                let to = to.cut_to(page.around(own));
                if to.area() > own.area() && to.around(own) == to {
                    found.push(Change::Moved(n, as_rect(to)));
                }
            }
        }
    }
    found
}

/// A box's edge, moved outwards.
fn beyond(span: Span, edge: Edge, by: f64) -> f64 {
    match edge {
        Edge::Left | Edge::Top => span.edge(edge) - by,
        Edge::Right | Edge::Bottom => span.edge(edge) + by,
    }
}

/// Neighbours moved so far that the pocket opens, or across it so that it closes.
fn moved(before: &Before<'_>, pocket: &Pocket) -> Vec<Change> {
    let layout = before.lying.layout;
    let opening = before.check.trapped.opening;
    let (across, down) = (pocket.bounds.w(), pocket.bounds.h());
    let mut found = Vec::new();
    for far in [opening, opening + opening, opening + opening + opening] {
        for &n in &pocket.between {
            if !may_be_moved(layout, n) {
                continue;
            }
            let far = far.ticks() as f64;
            for (x, y) in [(far, 0.0), (-far, 0.0), (0.0, far), (0.0, -far)] {
                let own = Span::from(layout.blocks[n].block.rect);
                found.push(Change::Moved(n, as_rect(shifted(own, x, y))));
            }
        }
    }
    for &n in pocket.between.iter().filter(|n| may_be_moved(layout, **n)) {
        let own = Span::from(layout.blocks[n].block.rect);
        let (x, y) = (pocket.bounds.cx() - own.cx(), pocket.bounds.cy() - own.cy());
        let (x, y) = (x.signum() * across, y.signum() * down);
        found.push(Change::Moved(n, as_rect(shifted(own, x, 0.0))));
        found.push(Change::Moved(n, as_rect(shifted(own, 0.0, y))));
    }
    found
}

fn shifted(span: Span, x: f64, y: f64) -> Span {
    Span {
        l: span.l + x,
        t: span.t + y,
        r: span.r + x,
        b: span.b + y,
    }
}

fn as_rect(span: Span) -> Rect {
    let ticks = |at: f64| Length::from_ticks(at.round() as i64);
    let (x, y) = (ticks(span.l), ticks(span.t));
    Rect {
        x,
        y,
        w: ticks(span.r) - x,
        h: ticks(span.b) - y,
    }
}

fn told(before: &Before<'_>, change: &Change) -> Cure {
    let layout = before.lying.layout;
    let text = |l: Length| l.abs().to_ruler_text(layout.unit);
    match *change {
        Change::Accent(rect) => Cure {
            text: format!(
                "Lay an accent here, up to {} by {}.",
                text(rect.w),
                text(rect.h)
            ),
            block: None,
            rect,
        },
        Change::Moved(n, rect) => {
            let block = &layout.blocks[n].block;
            let own = block.rect;
            let (id, is_same_size) = (&block.id, (own.w, own.h) == (rect.w, rect.h));
            let text = if is_same_size {
                let (x, y) = (rect.x - own.x, rect.y - own.y);
                let (far, way) = match (x.ticks().signum(), y.ticks().signum()) {
                    (1, _) => (x, "to the right"),
                    (-1, _) => (x, "to the left"),
                    (_, 1) => (y, "down"),
                    _ => (y, "up"),
                };
                format!("Move {id} {} {way}: the space opens.", text(far))
            } else {
                let (way, more) = if rect.x < own.x {
                    ("to the left", own.x - rect.x)
                } else if rect.right() > own.right() {
                    ("to the right", rect.right() - own.right())
                } else if rect.y < own.y {
                    ("upwards", own.y - rect.y)
                } else {
                    ("downwards", rect.bottom() - own.bottom())
                };
                format!("Let {id} run on {} {way}.", text(more))
            };
            Cure {
                text,
                block: Some(n),
                rect,
            }
        }
    }
}
