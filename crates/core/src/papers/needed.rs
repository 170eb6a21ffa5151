//! How many sheets the pieces of a page take: a simple packing by straight cuts, each piece into the smallest free rectangle that takes it.

use super::decisions::PaperSide;
use super::papered::Papered;
use crate::geometry::{Size, Span};
use crate::stash::{Direction, Item, usable};
use std::collections::BTreeMap;

/// A tick more or less is nothing that a knife knows of.
const HAIR: f64 = 8.0;

/// How many of an item its pieces take. `may_turn` says whether pieces may lie across. What can't be cut from one takes one all the same.
pub fn sheets_needed(pieces: &[Size], item: &Item, may_turn: bool) -> u32 {
    let Some(size) = item.size else {
        return u32::from(!pieces.is_empty());
    };
    let sheet = usable(size, item.strip);
    let mut largest_first: Vec<Size> = pieces.to_vec();
    largest_first.sort_by_key(|p| std::cmp::Reverse((p.w.max(p.h), p.w.min(p.h))));
    let mut free: Vec<Span> = Vec::new();
    let mut sheets = 0;
    for piece in largest_first {
        let (w, h) = (piece.w.ticks() as f64, piece.h.ticks() as f64);
        if place(&mut free, (w, h), may_turn) {
            continue;
        }
        sheets += 1;
        let mut fresh = vec![sheet];
        if place(&mut fresh, (w, h), may_turn) {
            free.append(&mut fresh);
        }
    }
    sheets
}

/// Takes a piece out of the free rectangles, if one of them is large enough.
pub(super) fn place(free: &mut Vec<Span>, (w, h): (f64, f64), may_turn: bool) -> bool {
    let ways = [(w, h), (h, w)];
    let ways = if may_turn { &ways[..] } else { &ways[..1] };
    let fits = |span: &Span, (w, h): (f64, f64)| w <= span.w() + HAIR && h <= span.h() + HAIR;
    let mut best: Option<(f64, usize, (f64, f64))> = None;
    for (n, span) in free.iter().enumerate() {
        for way in ways.iter().filter(|way| fits(span, **way)) {
            // The shorter rest beside the piece tells how well it fits.
            let rest = (span.w() - way.0).min(span.h() - way.1);
            if best.is_none_or(|(least, ..)| rest < least) {
                best = Some((rest, n, *way));
            }
        }
    }
    let Some((_, n, (w, h))) = best else {
        return false;
    };
    let span = free.swap_remove(n);
    let (right, below) = (span.w() - w, span.h() - h);
    // The longer rest stays whole.
    let (beside, under) = if right > below {
        (span.b, span.l + w)
    } else {
        (span.t + h, span.r)
    };
    let parts = [
        Span {
            l: span.l + w,
            b: beside,
            ..span
        },
        Span {
            t: span.t + h,
            r: under,
            ..span
        },
    ];
    free.extend(parts.into_iter().filter(|p| p.w() > HAIR && p.h() > HAIR));
    true
}

impl Papered {
    /// How many of each item these pieces take.
    pub fn items_needed(&self, items: &BTreeMap<String, Item>) -> BTreeMap<String, u32> {
        let mut by_side: BTreeMap<&PaperSide, Vec<Size>> = BTreeMap::new();
        for piece in self.to_cut() {
            let Some(paper) = &piece.paper else { continue };
            by_side.entry(paper).or_default().push(piece.size_to_cut());
        }
        let mut needed = BTreeMap::new();
        for (paper, pieces) in by_side {
            let count = items.get(&paper.item).map_or(1, |item| {
                let side = item.side(paper.side()).unwrap_or(&item.a);
                sheets_needed(&pieces, item, side.direction == Direction::Any)
            });
            *needed.entry(paper.item.clone()).or_insert(0) += count;
        }
        needed
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::length::{Length, Unit};
    use crate::stash::ItemKind;
    use proptest::prelude::*;

    fn inches(w: i64, h: i64) -> Size {
        Size {
            w: Length::inches(w, 4),
            h: Length::inches(h, 4),
        }
    }

    fn sheet() -> Item {
        Item::new(ItemKind::Sheet, "Dots".to_owned(), Unit::Inch)
    }

    #[test]
    fn pieces_share_a_sheet_while_it_lasts() {
        assert_eq!(sheets_needed(&[], &sheet(), true), 0);
        assert_eq!(sheets_needed(&[inches(48, 12); 4], &sheet(), true), 1);
        assert_eq!(sheets_needed(&[inches(48, 12); 5], &sheet(), true), 2);
        assert_eq!(
            sheets_needed(&[inches(12, 48), inches(48, 36)], &sheet(), true),
            1
        );
        assert_eq!(
            sheets_needed(&[inches(12, 48), inches(48, 36)], &sheet(), false),
            2
        );
        assert_eq!(sheets_needed(&[inches(49, 4); 2], &sheet(), true), 2);
    }

    proptest! {
        #[test]
        fn never_fewer_sheets_than_the_area_asks_for(pieces in prop::collection::vec((1..48_i64, 1..48_i64), 0..20), may_turn in any::<bool>()) {
            let area: i64 = pieces.iter().map(|(w, h)| w * h).sum();
            let sizes: Vec<Size> = pieces.iter().map(|(w, h)| inches(*w, *h)).collect();
            let count = sheets_needed(&sizes, &sheet(), may_turn);
            prop_assert!(i64::from(count) * 48 * 48 >= area);
            prop_assert!(count as usize <= pieces.len());
        }
    }
}
