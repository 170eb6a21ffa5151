//! What lies around a piece: what choosing its paper asks about.

use super::choosing::{BUSY, Place};
use super::decisions::{PaperDecisions, PaperSide};
use super::papered::{Papered, PaperedPiece};
use crate::geometry::{Size, Span};
use crate::layout::{Layout, LayoutBlock};
use crate::length::Length;
use crate::sketch::Kind;
use crate::stash::{Colour, Item, Side};
use std::collections::BTreeMap;

/// Papers no further apart than this, in ticks, lie beside one another: 1/8 in.
const BESIDE: f64 = 25_400.0;

/// What is known of a page's papers and photos.
pub struct Known<'a> {
    /// The layout.
    pub layout: &'a Layout,
    /// What is decided.
    pub decisions: &'a PaperDecisions,
    /// What became of it.
    pub papered: &'a Papered,
    /// The stash.
    pub items: &'a BTreeMap<String, Item>,
    /// The main colours of prints, by their ids.
    pub photos: &'a BTreeMap<String, Vec<Colour>>,
    /// The kit that the call asks for.
    pub kit: Option<String>,
}

impl Known<'_> {
    fn side(&self, paper: &PaperSide) -> Option<&Side> {
        let item = self.items.get(&paper.item)?;
        item.side(paper.side()).or(Some(&item.a))
    }

    /// The colour that most of a piece has: the one that was brought on, or its paper's.
    fn ground_of(&self, piece: &PaperedPiece) -> Option<Colour> {
        let choice = piece
            .of
            .as_ref()
            .and_then(|of| self.decisions.pieces.get(of));
        let made = choice.and_then(|c| c.made).filter(|m| !m.edges);
        let of_paper = || self.side(piece.paper.as_ref()?)?.ground();
        made.map(|m| m.colour).or_else(of_paper)
    }

    /// What lies around a piece of that name; none where there is no such piece.
    pub fn place_of(&self, name: &str) -> Option<Place> {
        let piece = self.papered.pieces.iter().find(|p| p.name() == name)?;
        let others: Vec<&PaperedPiece> = self
            .papered
            .pieces
            .iter()
            .filter(|p| p.name() != name)
            .collect();
        let papers = || others.iter().filter_map(|p| p.paper.as_ref());
        let near = others.iter().filter(|p| {
            p.piece.page == piece.piece.page
                && grown(p.piece.shows).overlaps(piece.piece.shows, 0.0)
        });
        let beside = near.filter_map(|p| self.ground_of(p));
        let busy = papers().filter_map(|p| {
            let side = self.side(p).filter(|s| s.busy >= BUSY)?;
            Some((p.clone(), side.colours.iter().map(|s| s.colour).collect()))
        });
        let mut all_busy: Vec<(PaperSide, Vec<Colour>)> = busy.collect();
        all_busy.dedup_by(|a, b| a.0 == b.0);
        let is_ground = piece.of.is_none();
        let other_page = usize::from(1 - piece.piece.page.min(1));
        Some(Place {
            cut: Some(piece.size_to_cut()),
            narrow: Some(narrow(piece)),
            is_ground,
            photos_on_it: self.photos_on(piece),
            photos: self.photos.values().flatten().copied().collect(),
            beside: beside.collect(),
            busy: all_busy,
            others: papers().cloned().collect(),
            other_ground: self.decisions.ground[other_page]
                .clone()
                .filter(|_| is_ground),
            kit: self.kit.clone(),
            weights: self.decisions.weights.clone(),
        })
    }

    /// The colours of the photos that lie right on a piece.
    fn photos_on(&self, piece: &PaperedPiece) -> Vec<Colour> {
        let blocks = self.layout.blocks.iter().enumerate();
        let on_it = blocks.filter(|(n, photo)| {
            photo.block.kind == Kind::Photo
                && photo.page == piece.piece.page
                && self.host_of(*n, photo) == piece.piece.block
        });
        let prints = on_it.filter_map(|(_, b)| b.placement.as_ref().map(|p| &p.photo));
        prints
            .filter_map(|print| self.photos.get(print))
            .flatten()
            .copied()
            .collect()
    }

    /// What a photo lies on: the topmost paper under its middle, or the ground.
    fn host_of(&self, n: usize, photo: &LayoutBlock) -> String {
        let middle = photo.extent();
        let (x, y) = (middle.cx(), middle.cy());
        let holds = |b: &&LayoutBlock| {
            let bounds = b.block.true_bounds();
            let is_in = x >= bounds.l && x <= bounds.r && y >= bounds.t && y <= bounds.b;
            is_in && b.page == photo.page && super::is_papered(b.block.kind)
        };
        let under = self.layout.blocks[..n].iter().rev().find(holds);
        under.map_or_else(|| format!("ground-{}", photo.page), |b| b.block.id.clone())
    }
}

fn grown(span: Span) -> Span {
    Span {
        l: span.l - BESIDE,
        t: span.t - BESIDE,
        r: span.r + BESIDE,
        b: span.b + BESIDE,
    }
}

/// The width of what shows where it is narrow: of a mat its border, which is its area over its length.
fn narrow(piece: &PaperedPiece) -> Length {
    let shows = piece.piece.shows;
    let least = shows.w().min(shows.h());
    let round = 2.0 * (shows.w() + shows.h());
    let border = if piece.kind == Some(Kind::Mat) {
        piece.piece.area / round * 2.0
    } else {
        least
    };
    Length::from_ticks(least.min(border).max(1.0).round() as i64)
}

impl PaperedPiece {
    /// The rectangle to cut.
    pub fn size_to_cut(&self) -> Size {
        let side = |v: f64| Length::from_ticks(v.round() as i64);
        Size {
            w: side(self.piece.cut.w()),
            h: side(self.piece.cut.h()),
        }
    }
}
