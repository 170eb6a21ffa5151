//! What is left of a kit, and which pages would use it up.

use super::needed::place;
use super::papered::{Papered, PaperedPiece};
use crate::geometry::Span;
use crate::stash::{Direction, Item, usable};
use std::collections::BTreeMap;

/// A paper of a kit, and how many of it are free.
pub struct KitPaper<'a> {
    /// Its id.
    pub id: &'a str,
    /// The thing.
    pub item: &'a Item,
    /// Sheets.
    pub free: u32,
}

/// What a page would take of a kit.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct KitUse {
    /// Pieces without a paper.
    pub open: usize,
    /// Those of them that the kit would serve.
    pub served: usize,
    /// Sheets of each thing.
    pub takes: BTreeMap<String, u32>,
}

impl KitUse {
    /// Whether nothing of the kit would be left over.
    pub fn finishes(&self, kit: &[KitPaper<'_>]) -> bool {
        let left = |p: &KitPaper<'_>| p.free > self.takes.get(p.id).copied().unwrap_or(0);
        self.served > 0 && !kit.iter().any(left)
    }
}

impl Papered {
    /// What the pieces that have no paper yet would take of a kit, largest first: each out of a sheet that is begun, else out of the smallest
    /// one that takes it.
    pub fn use_of_kit(&self, kit: &[KitPaper<'_>]) -> KitUse {
        let mut open: Vec<&PaperedPiece> =
            self.pieces.iter().filter(|p| p.paper.is_none()).collect();
        open.sort_by(|a, b| b.piece.cut.area().total_cmp(&a.piece.cut.area()));
        let mut papers: Vec<&KitPaper<'_>> = kit.iter().filter(|p| p.free > 0).collect();
        let area = |p: &KitPaper<'_>| {
            let size = p.item.size;
            size.map_or(0, |s| s.w.ticks() * s.h.ticks())
        };
        papers.sort_by_key(|p| area(p));
        let mut use_of = KitUse {
            open: open.len(),
            ..KitUse::default()
        };
        let mut begun: BTreeMap<&str, Vec<Span>> = BTreeMap::new();
        for piece in open {
            let size = (piece.piece.cut.w(), piece.piece.cut.h());
            if served(&papers, size, &mut begun, &mut use_of.takes) {
                use_of.served += 1;
            }
        }
        use_of
    }
}

fn served<'a>(
    papers: &[&KitPaper<'a>],
    size: (f64, f64),
    begun: &mut BTreeMap<&'a str, Vec<Span>>,
    takes: &mut BTreeMap<String, u32>,
) -> bool {
    let may_turn = |p: &KitPaper<'_>| p.item.a.direction == Direction::Any;
    let fits_rest = papers.iter().any(|p| {
        let rests = begun.get_mut(p.id);
        rests.is_some_and(|free| place(free, size, may_turn(p)))
    });
    if fits_rest {
        return true;
    }
    for paper in papers {
        let taken = takes.get(paper.id).copied().unwrap_or(0);
        let Some(whole) = paper.item.size.filter(|_| taken < paper.free) else {
            continue;
        };
        let mut fresh = vec![usable(whole, paper.item.strip)];
        if place(&mut fresh, size, may_turn(paper)) {
            begun.entry(paper.id).or_default().append(&mut fresh);
            takes.insert(paper.id.to_owned(), taken + 1);
            return true;
        }
    }
    false
}
