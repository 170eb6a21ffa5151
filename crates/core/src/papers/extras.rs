//! What is cut beyond what lies on the page: spares of units, and twins for the back of a page that can be seen through.

use super::decisions::{PaperDecisions, PaperSide};
use super::papered::{Papered, PaperedPiece};
use std::collections::BTreeMap;

/// What a piece is that is cut beyond those of the page.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Extra {
    /// A spare of a unit; the first is 1.
    Spare(u32),
    /// The same again, for the back.
    Twin,
}

impl Papered {
    /// All that is cut: the pieces of the page, and what is cut beyond them.
    pub fn to_cut(&self) -> impl Iterator<Item = &PaperedPiece> {
        self.pieces.iter().chain(&self.extras)
    }
}

/// Twins and spares as they are decided.
pub(super) fn extras(pieces: &[PaperedPiece], decisions: &PaperDecisions) -> Vec<PaperedPiece> {
    let decided = decisions.pieces.iter();
    decided
        .filter(|(_, choice)| choice.twin || choice.spares > 0)
        .flat_map(|(of, choice)| {
            let own: Vec<&PaperedPiece> = pieces
                .iter()
                .filter(|p| p.of.as_ref() == Some(of))
                .collect();
            let twins = own.iter().filter(|_| choice.twin);
            let mut more: Vec<PaperedPiece> = twins.map(|p| extra(p, Extra::Twin)).collect();
            more.extend(spares(&own, choice.spares));
            more
        })
        .collect()
}

fn extra(piece: &PaperedPiece, extra: Extra) -> PaperedPiece {
    PaperedPiece {
        extra: Some(extra),
        ..piece.clone()
    }
}

/// So many units more, of each paper in turn, the commonest first.
fn spares(own: &[&PaperedPiece], count: u32) -> Vec<PaperedPiece> {
    let mut by_paper: BTreeMap<Option<&PaperSide>, Vec<&PaperedPiece>> = BTreeMap::new();
    for piece in own.iter().filter(|p| p.unit.is_some()) {
        by_paper
            .entry(piece.paper.as_ref())
            .or_default()
            .push(piece);
    }
    let mut papers: Vec<Vec<&PaperedPiece>> = by_paper.into_values().collect();
    papers.sort_by_key(|pieces| std::cmp::Reverse(pieces.len()));
    let area = |p: &PaperedPiece| p.piece.cut.area();
    let largest = papers.into_iter().filter_map(|pieces| {
        pieces
            .into_iter()
            .max_by(|a, b| area(a).total_cmp(&area(b)))
    });
    let models: Vec<&PaperedPiece> = largest.collect();
    if models.is_empty() {
        return Vec::new();
    }
    (0..count)
        .map(|n| extra(models[n as usize % models.len()], Extra::Spare(n + 1)))
        .collect()
}
