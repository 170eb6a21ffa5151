//! The sketch with the mats that a maker chose in place of its own.

use super::request::Request;
use crate::geometry::Rect;
use crate::length::Length;
use crate::photos::{LayerEdge, Sides, mats_of, reaches};
use crate::sketch::{Block, Kind, Sketch};
use serde_json::Map;
use std::collections::{BTreeMap, BTreeSet};

/// A request that speaks of the sketch as it stands on the page, and that sketch, with the mats she chose in it.
pub(super) fn as_fitted(request: &Request) -> (Request, Sketch) {
    let mut sketch = request.sketch.oriented(request.turn, request.flip);
    let mut known = (request.reaches.clone(), request.one_each.clone());
    if !request.mats.is_empty() {
        with_mats(&mut sketch, request, &mut known);
    }
    let (reaches, one_each) = known;
    let fitted = Request {
        holds: request.holds.oriented(request.turn, request.flip),
        // A pin on a mat that is no longer there holds nothing.
        pins: request
            .pins
            .iter()
            .filter(|p| {
                request.mats.is_empty() || p.blocks().all(|id| sketch.index_of(id).is_some())
            })
            .cloned()
            .collect(),
        mats: Vec::new(),
        reaches,
        one_each,
        ..request.clone()
    };
    (fitted, sketch)
}

/// Puts the chosen layers in place of the sketch's mats, and notes how far each reaches beyond its photo, and which are one for each print.
fn with_mats(
    sketch: &mut Sketch,
    request: &Request,
    (all, one_each): &mut (BTreeMap<String, Sides>, BTreeSet<String>),
) {
    let mut taken: BTreeSet<String> = sketch.blocks.iter().map(|b| b.id.clone()).collect();
    let photos: Vec<Block> = sketch
        .blocks
        .iter()
        .filter(|b| b.kind == Kind::Photo)
        .cloned()
        .collect();
    for photo in photos {
        let Some(choice) = mats_of(&request.mats, &photo.id) else {
            continue;
        };
        let own: Vec<String> = drawn_mats(sketch, &photo.id);
        let mut names = own.clone().into_iter().rev();
        let mut made: Vec<Block> = Vec::new();
        for (layer, reach) in choice.layers.iter().zip(reaches(&choice.layers)) {
            let id = names
                .next()
                .unwrap_or_else(|| free_name(&photo.id, &mut taken));
            let drawn = beside_neighbours(sketch, &photo, &own, reach);
            made.insert(0, mat(&photo, &id, drawn, layer.edge));
            if choice.each {
                one_each.insert(id.clone());
            }
            all.insert(id, reach);
        }
        let is_own = |b: &Block| own.contains(&b.id);
        // They lie where the uppermost of the sketch's own lay, or right under the photo.
        let uppermost = sketch.blocks.iter().rposition(is_own);
        let below = uppermost.or_else(|| sketch.index_of(&photo.id));
        let at = below.unwrap_or_default();
        let gone_before = sketch.blocks[..at].iter().filter(|b| is_own(b)).count();
        sketch.blocks.retain(|b| !is_own(b));
        sketch
            .blocks
            .splice(at - gone_before..at - gone_before, made);
        let left: BTreeSet<&String> = sketch.blocks.iter().map(|b| &b.id).collect();
        let gone: Vec<String> = own
            .iter()
            .filter(|id| !left.contains(id))
            .cloned()
            .collect();
        // What sat on a mat that went sits on its photo.
        for block in &mut sketch.blocks {
            for named in [&mut block.under, &mut block.host] {
                if named.as_ref().is_some_and(|id| gone.contains(id)) {
                    *named = Some(photo.id.clone());
                }
            }
        }
    }
}

/// The sketch's mats around a photo, bottom to top: those that frame it, and those that frame these.
fn drawn_mats(sketch: &Sketch, photo: &str) -> Vec<String> {
    let frames = |block: &Block| {
        let mut at = block.under.as_deref();
        while let Some(id) = at {
            if id == photo {
                return true;
            }
            let on = sketch.index_of(id).map(|n| &sketch.blocks[n]);
            at = on
                .filter(|b| b.kind == Kind::Mat)
                .and_then(|b| b.under.as_deref());
        }
        false
    };
    let mats = sketch.blocks.iter().filter(|b| b.kind == Kind::Mat);
    mats.filter(|b| frames(b)).map(|b| b.id.clone()).collect()
}

fn free_name(photo: &str, taken: &mut BTreeSet<String>) -> String {
    let id = (1..)
        .map(|n| format!("{photo}-mat{n}"))
        .find(|id| !taken.contains(id))
        .unwrap_or_default();
    taken.insert(id.clone());
    id
}

/// Of a gap between a photo and its neighbour, the share that a mat takes up in the sketch: the rest stays a gap, and is one on the page.
const OF_A_GAP: f64 = 0.4;

/// How far a mat is drawn in the sketch: no nearer to what lies beside the photo, so that there too they stay apart. On the page it reaches
/// as far as was chosen, and makes room for itself.
fn beside_neighbours(sketch: &Sketch, photo: &Block, own: &[String], reach: Sides) -> Sides {
    let here = photo.extent();
    let mut drawn = reach;
    let keeps_off = |b: &&Block| {
        matches!(
            b.kind,
            Kind::Photo | Kind::Mat | Kind::Title | Kind::Journal
        ) && b.id != photo.id
            && !own.contains(&b.id)
    };
    for other in sketch.blocks.iter().filter(keeps_off) {
        let there = other.extent();
        let level = here.t < there.b && there.t < here.b;
        let plumb = here.l < there.r && there.l < here.r;
        let gaps = [
            (level, here.l - there.r),
            (plumb, here.t - there.b),
            (level, there.l - here.r),
            (plumb, there.t - here.b),
        ];
        for (side, (faces, gap)) in drawn.iter_mut().zip(gaps) {
            if faces && gap > 0.0 {
                *side = (*side).min(Length::from_ticks((gap * OF_A_GAP) as i64));
            }
        }
    }
    drawn
}

/// A mat that follows a photo's shape.
fn mat(photo: &Block, id: &str, [left, top, right, bottom]: Sides, edge: LayerEdge) -> Block {
    let mut other = Map::new();
    if edge != LayerEdge::Cut {
        other.insert(LayerEdge::FIELD.to_owned(), edge.name().into());
    }
    Block {
        id: id.to_owned(),
        kind: Kind::Mat,
        rect: Rect {
            x: photo.rect.x - left,
            y: photo.rect.y - top,
            w: photo.rect.w + left + right,
            h: photo.rect.h + top + bottom,
        },
        under: Some(photo.id.clone()),
        host: None,
        size: None,
        grid: None,
        ring: None,
        sure: None,
        other,
        ..photo.clone()
    }
}
