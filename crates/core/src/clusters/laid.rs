//! All clusters of a page as they lie: each piece in its place, with how it is fixed.

use super::decisions::{ClusterChoice, ClusterDecisions};
use super::fixing::{Fixing, fixing};
use super::placing::{PlacedPiece, Surroundings, placed};
use super::scatter::scattered;
use super::thing::Thing;
use crate::geometry::Span;
use crate::layout::{Layout, LayoutBlock};
use crate::photos::{Lift, Print};
use crate::placed_photos::marked_areas;
use crate::sketch::{ClusterSize, Kind};
use crate::words::WordsElsewhere;
use std::collections::BTreeMap;

/// A piece of a cluster, in its place.
#[derive(Clone, Debug, PartialEq)]
pub struct LaidPiece {
    /// The thing.
    pub thing: Thing,
    /// Where it lies.
    pub placed: PlacedPiece,
    /// What lifts it.
    pub lift: Lift,
    /// What holds it.
    pub fixing: Fixing,
}

/// A cluster as it lies.
#[derive(Clone, Debug, PartialEq)]
pub struct LaidCluster {
    /// Its block, by its place in the layout.
    pub block: usize,
    /// The sketch's block and which part of it.
    pub of: (String, usize),
    /// How large it is to be.
    pub size: ClusterSize,
    /// Bottom to top.
    pub pieces: Vec<LaidPiece>,
}

impl LaidCluster {
    /// The middle of what lies there, in ticks; of its block where nothing does yet.
    pub fn middle(&self, layout: &Layout) -> (f64, f64) {
        let bounds = self.pieces.iter().map(|p| p.placed.bounds);
        let all = bounds.reduce(Span::around);
        let all = all.unwrap_or_else(|| layout.blocks[self.block].extent());
        (all.cx(), all.cy())
    }
}

/// All clusters, and what is strewn.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct LaidClusters {
    /// In the layout's order.
    pub clusters: Vec<LaidCluster>,
    /// The middles of what is strewn, in ticks.
    pub strewn: Vec<(f64, f64)>,
    /// Areas of photos that must stay in sight, each with its photo's place in the layout.
    pub in_sight: Vec<(usize, Span)>,
    /// Areas of photos that something should hide.
    pub to_hide: Vec<(usize, Span)>,
}

/// Lays all clusters; `words_elsewhere` are words that stand in no block of their own. `things` are the things that they name, by id; a piece of a thing that is no longer there is left out.
pub fn laid(
    layout: &Layout,
    decisions: &ClusterDecisions,
    things: &BTreeMap<String, Thing>,
    prints: &[Print],
    words_elsewhere: WordsElsewhere,
) -> LaidClusters {
    let in_sight = marked_areas(layout, prints, |p| &p.faces);
    let to_hide = marked_areas(layout, prints, |p| &p.covers);
    let words = layout
        .blocks
        .iter()
        .filter(|b| matches!(b.block.kind, Kind::Title | Kind::Journal))
        .map(|b| b.block.true_bounds())
        .chain(words_elsewhere.spans());
    let around = |page: Span| Surroundings {
        page,
        in_sight: in_sight
            .iter()
            .map(|(_, s)| *s)
            .chain(words.clone())
            .collect(),
        to_hide: to_hide.iter().map(|(_, s)| *s).collect(),
    };
    let nothing = ClusterChoice::default();
    let mut clusters = Vec::new();
    for (n, identity) in layout.identities().into_iter().enumerate() {
        let block = &layout.blocks[n];
        if block.block.kind != Kind::Cluster {
            continue;
        }
        let of = (identity.block.to_owned(), identity.part);
        let choice = decisions.clusters.get(&of).unwrap_or(&nothing);
        let page = page_of(layout, block);
        clusters.push(LaidCluster {
            block: n,
            of,
            size: choice
                .size
                .or(block.block.size)
                .unwrap_or(ClusterSize::Medium),
            pieces: pieces(block.extent(), choice, things, &around(page)),
        });
    }
    let strewn = decisions.scatter.as_ref().map_or(Vec::new(), |scatter| {
        let Some(thing) = things.get(&scatter.item) else {
            return Vec::new();
        };
        let canvas = layout.canvas.span();
        let boxes: Vec<Span> = clusters
            .iter()
            .map(|c| layout.blocks[c.block].extent())
            .collect();
        let width = thing.size.w.max(thing.size.h).ticks() as f64;
        scattered(scatter, width, canvas, &boxes, &around(canvas))
    });
    LaidClusters {
        clusters,
        strewn,
        in_sight,
        to_hide,
    }
}

fn pieces(
    cluster: Span,
    choice: &ClusterChoice,
    things: &BTreeMap<String, Thing>,
    around: &Surroundings,
) -> Vec<LaidPiece> {
    let known: Vec<usize> = (0..choice.pieces.len())
        .filter(|n| things.contains_key(&choice.pieces[*n].item))
        .collect();
    let there = ClusterChoice {
        pieces: known.iter().map(|n| choice.pieces[*n].clone()).collect(),
        ..choice.clone()
    };
    let own: Vec<&Thing> = there
        .pieces
        .iter()
        .filter_map(|p| things.get(&p.item))
        .collect();
    let lie = placed(cluster, &there, &own, around);
    let touching = |n: usize, m: usize| lie[n].bounds.overlaps(lie[m].bounds, 1.0);
    lie.iter()
        .enumerate()
        .map(|(n, at)| {
            let over: Vec<&Thing> = (n + 1..own.len())
                .filter(|m| touching(n, *m))
                .map(|m| own[m])
                .collect();
            let under: Vec<&Thing> = (0..n)
                .rev()
                .filter(|m| touching(n, *m))
                .map(|m| own[m])
                .collect();
            let lift = there.pieces[n].lift;
            LaidPiece {
                thing: own[n].clone(),
                placed: PlacedPiece {
                    piece: known[at.piece],
                    ..at.clone()
                },
                lift,
                fixing: fixing(own[n], lift, &over, &under),
            }
        })
        .collect()
}

fn page_of(layout: &Layout, block: &LayoutBlock) -> Span {
    let canvas = layout.canvas.span();
    let width = layout.canvas.page.w.ticks() as f64;
    let l = f64::from(block.page.min(1)) * width;
    Span {
        l,
        r: l + width,
        ..canvas
    }
}

/// The layout's main photo: the one whose print is marked as focal, otherwise the largest.
pub fn main_photo_of(layout: &Layout, prints: &[Print]) -> Option<usize> {
    let photos = (0..layout.blocks.len()).filter(|n| layout.blocks[*n].block.kind == Kind::Photo);
    let is_focal = |n: &usize| {
        let placed = layout.blocks[*n].placement.as_ref();
        placed.is_some_and(|p| prints.iter().any(|q| q.id == p.photo && q.focal))
    };
    photos.clone().find(is_focal).or_else(|| {
        photos.max_by(|a, b| {
            let area = |n: &usize| layout.blocks[*n].extent().area();
            area(a).total_cmp(&area(b)).then(b.cmp(a))
        })
    })
}
