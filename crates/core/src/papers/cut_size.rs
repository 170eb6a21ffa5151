//! How much of a piece is cut: what shows, and what is tucked under its neighbours.

use super::laid::Laid;
use super::piecing::CutSize;
use crate::geometry::{Axis, Edge, Region, Span};

/// Touching blocks may lie this far apart: 1/32 in.
pub(super) const TOUCHING: f64 = 6_350.0;
/// Slits and specks thinner than this, in ticks, come from rounding.
const ROUNDING: f64 = 8.0;
/// A side moves further than the touching distance by more than this, or stays.
const BEYOND_TOUCHING: f64 = 20.0;

/// What a piece's neighbours and her wishes leave it.
pub(super) struct Surroundings<'a> {
    /// The page's box.
    pub page: Span,
    /// What lies over the piece and hides it.
    pub covers: &'a [&'a Laid<'a>],
    /// The tuck allowance.
    pub tuck: f64,
    /// How much is cut.
    pub size: CutSize,
}

/// The rectangle to cut, in the piece's own frame. `shows` is the box around what shows, in that frame.
pub(super) fn rectangle_to_cut(piece: &Laid<'_>, shows: Span, around: &Surroundings<'_>) -> Span {
    let own = piece.frame;
    let wanted = match around.size {
        CutSize::Whole => own,
        CutSize::Lean => grown_within(shows, around.tuck, own),
    };
    if piece.turn != 0.0 {
        return wanted;
    }
    let cut = wanted.cut_to(around.page);
    if piece.block.is_none() || !piece.is_upright_rect {
        return cut;
    }
    tucked_under(piece, shows, cut, around)
}

/// A box grown on all sides, but not beyond another.
fn grown_within(span: Span, by: f64, limit: Span) -> Span {
    Span {
        l: (span.l - by).max(limit.l),
        t: (span.t - by).max(limit.t),
        r: (span.r + by).min(limit.r),
        b: (span.b + by).min(limit.b),
    }
}

/// The sides that are the piece's own and show move out under its neighbours: the two longer ones first, after them the shorter ones,
/// whose corners then lie under cover too.
fn tucked_under(piece: &Laid<'_>, shows: Span, cut: Span, around: &Surroundings<'_>) -> Span {
    let (left, right) = Axis::X.edges();
    let (top, bottom) = Axis::Y.edges();
    // Of a square, top and bottom are first.
    let is_high = cut.h() > cut.w() + ROUNDING;
    let order = if is_high {
        [[left, right], [top, bottom]]
    } else {
        [[top, bottom], [left, right]]
    };
    let mut moved = cut;
    for pair in order {
        let before = moved;
        for side in pair {
            let is_own = (cut.edge(side) - piece.frame.edge(side)).abs() <= 1.0;
            let shows_there = (cut.edge(side) - shows.edge(side)).abs() <= TOUCHING + 1.0;
            if is_own && shows_there {
                let by = way_under(before, side, around);
                moved = moved.with_edge(side, before.edge(side) + outwards(side) * by);
            }
        }
    }
    moved
}

/// 1 for sides that move right or down when they move out.
const fn outwards(side: Edge) -> f64 {
    match side {
        Edge::Left | Edge::Top => -1.0,
        Edge::Right | Edge::Bottom => 1.0,
    }
}

/// How far a side of a box can move out so that all it gains beyond the touching distance lies on the page and under covers.
fn way_under(cut: Span, side: Edge, around: &Surroundings<'_>) -> f64 {
    let (out, at) = (outwards(side), cut.edge(side));
    let room = around.tuck.min(out * (around.page.edge(side) - at));
    if room <= TOUCHING + BEYOND_TOUCHING {
        return 0.0;
    }
    let gained = cut
        .with_edge(side.opposite(), out.mul_add(TOUCHING, at))
        .with_edge(side, out.mul_add(room, at));
    let near = around
        .covers
        .iter()
        .filter(|c| c.bounds.overlaps(gained, 0.0));
    let bare = Region::from(gained)
        .without(near.map(|c| &c.outline))
        .without_hairs(ROUNDING);
    let Some(bare) = bare.bounds() else {
        return room;
    };
    let way = out * (bare.edge(side.opposite()) - at);
    if way > TOUCHING + BEYOND_TOUCHING {
        way
    } else {
        0.0
    }
}
