//! All clusters of a page as they lie: each piece in its place, with how it is fixed.

use super::decisions::{ClusterChoice, ClusterDecisions};
use super::fixing::{Fixing, fixing};
use super::placing::{PlacedPiece, Surroundings, placed};
use super::scatter::scattered;
use super::thing::Thing;
use crate::geometry::{Span, turned};
use crate::layout::{Layout, LayoutBlock, crop_of};
use crate::photos::{Face, Lift, Print};
use crate::sketch::{ClusterSize, Kind};
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

/// Lays all clusters. `things` are the things that they name, by id; a piece of a thing that is no longer there is left out.
pub fn laid(
    layout: &Layout,
    decisions: &ClusterDecisions,
    things: &BTreeMap<String, Thing>,
    prints: &[Print],
) -> LaidClusters {
    let in_sight = photo_areas(layout, prints, |p| &p.faces);
    let to_hide = photo_areas(layout, prints, |p| &p.covers);
    let words = layout
        .blocks
        .iter()
        .filter(|b| matches!(b.block.kind, Kind::Title | Kind::Journal))
        .map(|b| b.block.true_bounds());
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

/// The areas that are marked on photos, as they lie on the page.
fn photo_areas(
    layout: &Layout,
    prints: &[Print],
    marked: impl Fn(&Print) -> &Vec<Face>,
) -> Vec<(usize, Span)> {
    let mut found = Vec::new();
    for parts in layout.each_photo() {
        let block = parts[0];
        let Some(placement) = &block.placement else {
            continue;
        };
        let (Some(print), Some(crop)) = (
            prints.iter().find(|p| p.id == placement.photo),
            crop_of(&parts),
        ) else {
            continue;
        };
        let n = layout.blocks.iter().position(|b| std::ptr::eq(b, block));
        let frame = block.whole.unwrap_or(block.block.rect);
        let (x, y) = (frame.x.ticks() as f64, frame.y.ticks() as f64);
        let (w, h) = (
            placement.print.w.ticks() as f64,
            placement.print.h.ticks() as f64,
        );
        let shows = Span {
            l: x,
            t: y,
            r: x + crop.w * w,
            b: y + crop.h * h,
        };
        for area in marked(print) {
            let flat = Span {
                l: x + (area.x - crop.x) * w,
                t: y + (area.y - crop.y) * h,
                r: x + (area.x + area.w - crop.x) * w,
                b: y + (area.y + area.h - crop.y) * h,
            }
            .cut_to(shows);
            if let (Some(n), true) = (n, flat.area() > 0.0) {
                found.push((n, turned_about(flat, shows, block.block.turn)));
            }
        }
    }
    found
}

/// The bounds of a box that turns about the middle of another.
fn turned_about(inner: Span, outer: Span, degrees: f64) -> Span {
    if degrees == 0.0 {
        return inner;
    }
    let (cx, cy) = (outer.cx(), outer.cy());
    let (dx, dy) = turned((inner.cx() - cx, inner.cy() - cy), degrees);
    let (hw, hh) = (inner.w() / 2.0, inner.h() / 2.0);
    Span {
        l: cx + dx - hw,
        t: cy + dy - hh,
        r: cx + dx + hw,
        b: cy + dy + hh,
    }
    .turned_bounds(degrees, false)
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
