//! Grids and rings as makers set them: how many are needed, where each is marked on the ruler and in which order, what of it is cut off.

use super::papered::{Papered, PaperedPiece};
use super::units::largest;
use crate::geometry::{Axis, Size, Span};
use crate::laying::Laying;
use crate::layout::Layout;
use crate::length::{Length, Unit};
use std::collections::BTreeMap;

/// Sizes nearer to each other than this, in ticks, are the same: 1/64 in.
const HAIR: f64 = 3_175.0;

/// A unit's mark on the ruler.
#[derive(Clone, Debug, PartialEq)]
pub struct UnitMark {
    /// `ROW/COLUMN`.
    pub unit: String,
    /// Its left edge, from the left edge of its page.
    pub at: Length,
    /// When it is laid: 1 is the first.
    pub turn: usize,
}

/// A row of units, with its marks from left to right.
#[derive(Clone, Debug, PartialEq)]
pub struct UnitRow {
    /// From 1.
    pub row: usize,
    /// From the top of the page.
    pub top: Length,
    /// From left to right.
    pub marks: Vec<UnitMark>,
    /// How the sizes go into the run.
    pub told: String,
}

/// A grid or ring, unit by unit.
#[derive(Clone, Debug, PartialEq)]
pub struct UnitTable {
    /// How many lie on the page.
    pub count: usize,
    /// How large a whole one is.
    pub size: Size,
    /// Rows of a grid; none of a ring.
    pub rows: Vec<UnitRow>,
    /// Units of which a part is cut off, with how much.
    pub cut_off: Vec<(String, String)>,
}

impl Papered {
    /// The units of a block's part as they are set; none where it has none.
    pub fn unit_table(
        &self,
        layout: &Layout,
        of: &(String, usize),
        unit: Unit,
    ) -> Option<UnitTable> {
        let units = self.units_of(of);
        let size = largest(&units)?;
        let block = &units.first()?.piece.block;
        let whole = layout.blocks.iter().find(|b| b.block.id == *block)?;
        let run = whole.extent();
        let page_left = f64::from(whole.page) * layout.canvas.page.w.ticks() as f64;
        let mut rows: BTreeMap<usize, Vec<&PaperedPiece>> = BTreeMap::new();
        for piece in &units {
            let place = piece.unit.as_deref().and_then(|u| u.split_once('/'));
            if let Some(row) = place.and_then(|(row, _)| row.parse().ok()) {
                rows.entry(row).or_default().push(piece);
            }
        }
        let rows = rows.into_iter().map(|(row, mut pieces)| {
            pieces.sort_by(|a, b| a.piece.shows.l.total_cmp(&b.piece.shows.l));
            UnitRow {
                row,
                top: at(pieces[0].piece.shows.t),
                told: how_they_fit(&pieces, run.w(), unit),
                marks: marks(&pieces, page_left),
            }
        });
        Some(UnitTable {
            count: units.len(),
            size,
            rows: rows.collect(),
            cut_off: units
                .iter()
                .filter_map(|u| cut_off(u, size, run, unit))
                .collect(),
        })
    }
}

fn at(ticks: f64) -> Length {
    Length::from_ticks(ticks.round() as i64)
}

/// The first, the last, then between them, then the rest.
fn marks(pieces: &[&PaperedPiece], page_left: f64) -> Vec<UnitMark> {
    let mut turns = vec![0; pieces.len()];
    for (turn, place) in Laying::Halving.order(pieces.len()).into_iter().enumerate() {
        turns[place] = turn + 1;
    }
    pieces
        .iter()
        .zip(turns)
        .map(|(p, turn)| UnitMark {
            unit: p.unit.clone().unwrap_or_default(),
            at: at(p.piece.shows.l - page_left),
            turn,
        })
        .collect()
}

/// `5 of 2 1/4 in across 12 in leave 3/4 in: gaps of 1/8 in and 1/8 in at the ends, or butted with 3/8 in at the ends.`
fn how_they_fit(pieces: &[&PaperedPiece], run: f64, unit: Unit) -> String {
    let widest = pieces.iter().map(|p| p.piece.shows.w()).fold(0.0, f64::max);
    let count = pieces.len();
    let left = run - pieces.iter().map(|p| p.piece.shows.w()).sum::<f64>();
    let is_whole = |p: &&&PaperedPiece| widest - p.piece.shows.w() <= HAIR;
    let whole = pieces.iter().filter(is_whole).count();
    let text = |ticks: f64| at(ticks).to_ruler_text(unit);
    let narrower = if whole < count {
        format!(" and {} narrower", count - whole)
    } else {
        String::new()
    };
    let said = format!("{whole} of {}{narrower} across {}", text(widest), text(run));
    if count < 2 {
        return format!("{said}.");
    }
    if left < -HAIR {
        return format!("{said} overlap by {} in all.", text(-left));
    }
    if left <= HAIR {
        return format!("{said} fill it edge to edge.");
    }
    let finest = match unit {
        Unit::Inch => Unit::Inch.ticks() as f64 / 16.0,
        Unit::Millimetre => Unit::Millimetre.ticks() as f64,
    };
    let gap = (left / (count + 1) as f64 / finest).floor() * finest;
    let butted = format!("butted with {} at the ends", text(left / 2.0));
    if gap < finest {
        return format!("{said} leave {}: {butted}.", text(left));
    }
    let ends = (left - gap * (count - 1) as f64) / 2.0;
    format!(
        "{said} leave {}: gaps of {} and {} at the ends, or {butted}.",
        text(left),
        text(gap),
        text(ends)
    )
}

/// What goes off a unit at the ends of its block; what merely hides under something is no loss.
fn cut_off(piece: &PaperedPiece, whole: Size, run: Span, unit: Unit) -> Option<(String, String)> {
    let own = piece.size_to_cut();
    let shows = piece.piece.shows;
    let at_end = |axis: Axis| {
        let (low, high) = axis.edges();
        [low, high]
            .into_iter()
            .any(|side| (shows.edge(side) - run.edge(side)).abs() <= HAIR)
    };
    let off = |whole: Length, own: Length| {
        let off = whole.ticks() - own.ticks();
        (off as f64 > HAIR).then(|| Length::from_ticks(off).to_ruler_text(unit))
    };
    let told: Vec<String> = [
        off(whole.w, own.w)
            .filter(|_| at_end(Axis::X))
            .map(|by| format!("{by} of its width")),
        off(whole.h, own.h)
            .filter(|_| at_end(Axis::Y))
            .map(|by| format!("{by} of its height")),
    ]
    .into_iter()
    .flatten()
    .collect();
    let name = piece.unit.clone()?;
    (!told.is_empty()).then(|| (name, format!("{} goes off.", told.join(" and "))))
}
