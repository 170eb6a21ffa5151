//! A piece put together out of several: only what shows, or only the border of a mat, is cut from paper.

use super::decisions::CutAs;
use super::piecing::{Piece, Tucked};
use crate::geometry::Span;

/// Less than this, in ticks, is nothing that a knife knows of.
const HAIR: f64 = 8.0;

/// The pieces of paper that a piece is put together from; none where it is better cut as one: where it lies turned, is gutted, shows in one
/// part, or hides too little. `tuck` is in ticks.
pub(super) fn slices(piece: &Piece, cut_as: CutAs, tuck: f64) -> Vec<Piece> {
    if piece.turn != 0.0 || piece.hole.is_some() {
        return Vec::new();
    }
    let slices = match cut_as {
        CutAs::One => Vec::new(),
        CutAs::Parts => parts(piece, tuck),
        CutAs::Strips => strips(piece, tuck),
    };
    if slices.len() > 1 { slices } else { Vec::new() }
}

/// A piece of paper of its own for each part that shows. Sides that the whole has stay; the others reach under what covers them.
fn parts(piece: &Piece, tuck: f64) -> Vec<Piece> {
    let mut parts = piece.parts.clone();
    parts.sort_by(|(a, _), (b, _)| a.t.total_cmp(&b.t).then(a.l.total_cmp(&b.l)));
    let all = piece.shows;
    let low = |part: f64, whole: f64, cut: f64| {
        if part - whole < HAIR {
            cut
        } else {
            (part - tuck).max(cut)
        }
    };
    let high = |part: f64, whole: f64, cut: f64| {
        if whole - part < HAIR {
            cut
        } else {
            (part + tuck).min(cut)
        }
    };
    let cut = |part: Span| Span {
        l: low(part.l, all.l, piece.cut.l),
        t: low(part.t, all.t, piece.cut.t),
        r: high(part.r, all.r, piece.cut.r),
        b: high(part.b, all.b, piece.cut.b),
    };
    parts
        .into_iter()
        .map(|(shows, area)| slice(piece, shows, cut(shows), area))
        .collect()
}

/// Four strips round what is hidden: the upright ones run all the way, the level ones lie between them, with their ends under them.
fn strips(piece: &Piece, tuck: f64) -> Vec<Piece> {
    let Some(hidden) = piece.hidden else {
        return Vec::new();
    };
    let cut = piece.cut;
    if hidden.w() <= 2.0 * tuck || hidden.h() <= 2.0 * tuck {
        return Vec::new();
    }
    let (left, right) = (hidden.l - cut.l, cut.r - hidden.r);
    let upright = |l: f64, r: f64| Span { l, r, ..cut };
    let level = |t: f64, b: f64, lap: f64| Span {
        l: hidden.l - lap.min(left),
        r: hidden.r + lap.min(right),
        t,
        b,
    };
    let all = [
        (upright(cut.l, hidden.l), upright(cut.l, hidden.l + tuck)),
        (upright(hidden.r, cut.r), upright(hidden.r - tuck, cut.r)),
        (
            level(cut.t, hidden.t, 0.0),
            level(cut.t, hidden.t + tuck, tuck),
        ),
        (
            level(hidden.b, cut.b, 0.0),
            level(hidden.b - tuck, cut.b, tuck),
        ),
    ];
    all.into_iter()
        .map(|(shows, cut)| (shows.cut_to(piece.shows), cut))
        .filter(|(shows, _)| shows.w() > HAIR && shows.h() > HAIR)
        .map(|(shows, cut)| slice(piece, shows, cut, shows.area()))
        .collect()
}

fn slice(of: &Piece, shows: Span, cut: Span, area: f64) -> Piece {
    Piece {
        shows,
        cut,
        area,
        parts: vec![(shows, area)],
        tucked: Tucked {
            left: shows.l - cut.l,
            right: cut.r - shows.r,
            top: shows.t - cut.t,
            bottom: cut.b - shows.b,
        },
        ..of.clone()
    }
}
