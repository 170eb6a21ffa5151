//! Pages and pieces that can be seen through: where glue shows, and what needs a twin behind it.

use super::decisions::PaperSide;
use super::papered::{Papered, PaperedPiece};
use crate::layout::Layout;
use crate::sketch::Kind;
use std::collections::{BTreeMap, BTreeSet};

impl Papered {
    /// What is to be minded where something can be seen through, by the piece's name; layout blocks by their ids.
    pub fn seen_through(
        &self,
        layout: &Layout,
        see_through: &BTreeSet<String>,
    ) -> BTreeMap<String, String> {
        let is_clear =
            |paper: Option<&PaperSide>| paper.is_some_and(|p| see_through.contains(&p.item));
        let clear_grounds: BTreeSet<u8> = self
            .pieces
            .iter()
            .filter(|p| p.of.is_none() && is_clear(p.paper.as_ref()))
            .map(|p| p.piece.page)
            .collect();
        let told = self.pieces.iter().enumerate().filter_map(|(n, piece)| {
            let on_clear = clear_grounds.contains(&piece.piece.page);
            let said = if is_clear(piece.paper.as_ref()) {
                Some(self.glue_shows(n, piece, layout, see_through))
            } else if on_clear && self.lies_bare(n, see_through) {
                Some(self.back_shows(piece))
            } else {
                None
            };
            Some((piece.name(), said?))
        });
        told.collect()
    }

    /// Whether no other paper that hides lies under all of a piece.
    fn lies_bare(&self, n: usize, see_through: &BTreeSet<String>) -> bool {
        let piece = &self.pieces[n];
        !self.pieces[..n].iter().any(|under| {
            let hides = under
                .paper
                .as_ref()
                .is_some_and(|p| !see_through.contains(&p.item));
            hides
                && under.piece.page == piece.piece.page
                && piece.piece.shows.is_in(under.piece.cut, 1.0)
        })
    }

    fn back_shows(&self, piece: &PaperedPiece) -> String {
        let has_twin = self
            .extras
            .iter()
            .any(|e| e.of == piece.of && e.extra == Some(super::Extra::Twin));
        if has_twin {
            "A twin of it is cut for the back.".to_owned()
        } else {
            "The page can be seen through, and this shows its back: it needs a twin behind it."
                .to_owned()
        }
    }

    /// Where the glue of a clear piece can hide.
    fn glue_shows(
        &self,
        n: usize,
        piece: &PaperedPiece,
        layout: &Layout,
        see_through: &BTreeSet<String>,
    ) -> String {
        let shows = piece.piece.shows;
        let over_it = |b: &&crate::layout::LayoutBlock| {
            b.page == piece.piece.page
                && b.block.id != piece.piece.block
                && b.block.kind != Kind::Journal
                && b.block.kind != Kind::Title
                && b.block.true_bounds().overlaps(shows, 0.0)
        };
        let own = layout
            .blocks
            .iter()
            .position(|b| b.block.id == piece.piece.block);
        let above = &layout.blocks[own.map_or(0, |o| o + 1)..];
        let clear = |id: &str| {
            self.pieces[n..].iter().any(|p| {
                p.piece.block == id
                    && p.paper
                        .as_ref()
                        .is_some_and(|s| see_through.contains(&s.item))
            })
        };
        let cover = above.iter().filter(over_it).find(|b| !clear(&b.block.id));
        cover.map_or_else(
            || "Glue would show through it, and nothing lies on it: staple it, or let a cluster hide the glue.".to_owned(),
            |b| format!("Glue would show through it: keep the glue under {}.", b.block.id),
        )
    }
}
