//! What can't reach: a paper that is too short for its piece, told before the glue.

use super::papered::{Papered, PaperedPiece};
use crate::geometry::{Axis, Edge};
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
            let told = short_of(p, item, side.direction == Direction::Any, unit)?;
            Some((p.name(), told))
        };
        self.pieces.iter().filter_map(short).collect()
    }
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
