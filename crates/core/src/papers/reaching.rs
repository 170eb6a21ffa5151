//! What can't reach: a paper that is too short for its piece, told before the glue.

use super::papered::{Papered, PaperedPiece};
use crate::geometry::{Axis, Edge, Span};
use crate::length::{Length, Unit};
use crate::stash::{Direction, Item, usable};
use std::collections::BTreeMap;

/// Less than this, in ticks, is nothing to speak of: 1/64 in.
const HAIR: f64 = 3_175.0;

impl Papered {
    /// Pieces whose paper is too short for what is to be cut, by name: by how much, and where.
    pub fn short_of(&self, items: &BTreeMap<String, Item>, unit: Unit) -> BTreeMap<String, String> {
        let short = |p: &PaperedPiece| {
            let paper = p.paper.as_ref()?;
            let item = items.get(&paper.item)?;
            let side = item.side(paper.side()).unwrap_or(&item.a);
            let may_turn = side.direction == Direction::Any;
            let told = short_of(p, item, may_turn, unit)
                .or_else(|| bitten(p, item, may_turn).then(|| BITTEN.to_owned()))?;
            Some((p.name(), told))
        };
        self.pieces.iter().filter_map(short).collect()
    }
}

const BITTEN: &str = "What is cut out of this sheet already leaves no place of that size.";

/// Whether what is cut out of a thing already leaves no place for a piece that its size would hold. A piece that has a place has one that
/// touches, to its left and at its top, a side of the sheet or of a bite.
fn bitten(piece: &PaperedPiece, item: &Item, may_turn: bool) -> bool {
    let Some(size) = item.size else { return false };
    let (sheet, cut) = (usable(size, item.strip), piece.piece.cut);
    let bites: Vec<Span> = item.bites.iter().map(|b| Span::from(*b)).collect();
    let has_place = |w: f64, h: f64| {
        let lefts = bites.iter().map(|b| b.r).chain([sheet.l]);
        lefts.into_iter().any(|l| {
            let tops = bites.iter().map(|b| b.b).chain([sheet.t]);
            tops.into_iter().any(|t| {
                let place = Span {
                    l,
                    t,
                    r: l + w,
                    b: t + h,
                };
                place.is_in(sheet, HAIR) && !bites.iter().any(|b| b.overlaps(place, HAIR))
            })
        })
    };
    let is_held = bites.is_empty()
        || has_place(cut.w(), cut.h())
        || (may_turn && has_place(cut.h(), cut.w()));
    !is_held
}

/// What is short of a piece on a thing, turned where that may be and helps.
fn short_of(piece: &PaperedPiece, item: &Item, may_turn: bool, unit: Unit) -> Option<String> {
    let sheet = usable(item.size?, item.strip);
    let cut = piece.piece.cut;
    let over = |across: f64, down: f64| [cut.w() - across, cut.h() - down];
    let worst = |over: &[f64; 2]| over[0].max(0.0) + over[1].max(0.0);
    let mut ways = vec![over(sheet.w(), sheet.h())];
    if may_turn {
        ways.push(over(sheet.h(), sheet.w()));
    }
    let best = ways
        .into_iter()
        .min_by(|a, b| worst(a).total_cmp(&worst(b)))?;
    let told: Vec<String> = [(Axis::X, best[0]), (Axis::Y, best[1])]
        .into_iter()
        .filter(|(_, over)| *over > HAIR)
        .map(|(axis, over)| told(piece, axis, over, unit))
        .collect();
    (!told.is_empty()).then(|| told.join(" "))
}

fn told(piece: &PaperedPiece, axis: Axis, over: f64, unit: Unit) -> String {
    let (low, high) = axis.edges();
    let tucked = |side: Edge| piece.under.iter().find(|(s, _)| *s == side);
    let t = piece.piece.tucked;
    let hidden = match axis {
        Axis::X => t.left + t.right,
        Axis::Y => t.top + t.bottom,
    };
    let text = |ticks: f64| Length::from_ticks(ticks.round() as i64).to_ruler_text(unit);
    let under = tucked(high).or_else(|| tucked(low));
    match under {
        Some((_, block)) if over < hidden - HAIR => format!(
            "The paper is {} short of the tuck: only {} goes under {block}.",
            text(over),
            text(hidden - over)
        ),
        Some((_, block)) if over <= hidden + HAIR => {
            format!("The paper ends just at {block}: nothing goes under it.")
        }
        Some((side, block)) => format!(
            "The paper is {} short of {block} at the {}: a gap would show.",
            text(over - hidden),
            side.name()
        ),
        None => format!(
            "The paper is {} too short from {} to {}.",
            text(over),
            low.name(),
            high.name()
        ),
    }
}
