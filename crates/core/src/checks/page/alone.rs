//! A colour that is seen in one place only, and a colour of a spread that stays on one page.
//!
//! *Measure*: papers by their colours of at least a quarter, pieces by theirs; colours nearer than 0.11 in OKLab are one to the eye. Greys, whites and kraft
//! belong everywhere. *Source*: makers' own rule that each strong colour is seen at least twice. The cure is a piece of that colour out of the stash.

use super::{PageCure, PageFinding, Seen};
use crate::clusters::ClusterPiece;
use crate::geometry::Span;
use crate::stash::Colour;
use serde_json::{Value, json};

const SAME: f64 = 0.11;
const COLOURED: f64 = 0.07;
const SHARE: f64 = 0.25;
/// A colour that covers as much of the page needs no echo.
const LEADS: f64 = 0.25;

/// One place in which a colour is seen.
#[derive(Clone, Copy)]
struct Place {
    colour: Colour,
    block: usize,
    page: u8,
    span: Span,
}

fn places(seen: &Seen<'_>) -> Vec<Place> {
    let layout = seen.page.layout;
    let mut found = Vec::new();
    for (n, block) in layout.blocks.iter().enumerate() {
        let colours = seen.side(n).into_iter().flat_map(|s| &s.colours);
        for swatch in colours.filter(|s| s.share >= SHARE) {
            found.push(Place {
                colour: swatch.colour,
                block: n,
                page: block.page,
                span: block.block.true_bounds(),
            });
        }
    }
    for cluster in &seen.laid.clusters {
        for piece in &cluster.pieces {
            if let Some(colour) = piece.thing.colour {
                found.push(Place {
                    colour,
                    block: cluster.block,
                    page: layout.blocks[cluster.block].page,
                    span: piece.placed.bounds,
                });
            }
        }
    }
    found.retain(|p| p.colour.chroma() > COLOURED);
    found
}

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let all = places(seen);
    if all.is_empty() {
        return None;
    }
    let layout = seen.page.layout;
    let canvas = layout.canvas.span();
    let mut groups: Vec<Vec<Place>> = Vec::new();
    for place in all {
        let near = groups
            .iter_mut()
            .find(|g| g[0].colour.distance(place.colour) < SAME);
        match near {
            Some(group) => group.push(place),
            None => groups.push(vec![place]),
        }
    }
    let grounds: Vec<Colour> = seen
        .page
        .grounds
        .iter()
        .flatten()
        .flat_map(|s| &s.colours)
        .filter(|s| s.share >= SHARE)
        .map(|s| s.colour)
        .collect();
    let mut found = Vec::new();
    for group in &groups {
        let first = group[0];
        let area: f64 = group.iter().map(|p| p.span.cut_to(canvas).area()).sum();
        let echoed = grounds.iter().any(|g| g.distance(first.colour) < SAME);
        if echoed || area > LEADS * canvas.area() {
            continue;
        }
        let one_place = group.iter().all(|p| p.block == first.block);
        let one_page = layout.canvas.pages == 2 && group.iter().all(|p| p.page == first.page);
        if !one_place && !one_page {
            continue;
        }
        let name = first.colour.name();
        let text = if one_page && !one_place {
            let page = if first.page == 0 { "left" } else { "right" };
            format!("The {name} is on the {page} page only.")
        } else {
            format!("The {name} in {} stands alone.", seen.id(first.block))
        };
        found.push(PageFinding {
            what: "alone",
            key: format!("alone {} {}", name, seen.id(first.block)),
            place: Some(first.span),
            blocks: vec![first.block],
            text,
            cures: echoes(seen, first),
        });
    }
    Some(found)
}

/// A piece of that colour in another cluster, best on the other page.
fn echoes(seen: &Seen<'_>, of: Place) -> Vec<PageCure> {
    let layout = seen.page.layout;
    let near = |id: &&String| {
        let thing = seen.page.things.get(*id);
        thing
            .and_then(|t| t.colour)
            .is_some_and(|c| c.distance(of.colour) < SAME)
    };
    let mut at_hand: Vec<&String> = seen
        .page
        .free
        .iter()
        .filter(|(_, n)| **n > 0)
        .map(|(id, _)| id)
        .filter(near)
        .collect();
    at_hand.sort_by_key(|id| seen.page.things.get(*id).map(|t| t.name.clone()));
    let mut clusters: Vec<usize> = (0..seen.laid.clusters.len())
        .filter(|c| seen.laid.clusters[*c].block != of.block)
        .collect();
    clusters.sort_by_key(|c| layout.blocks[seen.laid.clusters[*c].block].page == of.page);
    let mut cures = Vec::new();
    for c in clusters.into_iter().take(2) {
        let cluster = &seen.laid.clusters[c];
        for item in at_hand.iter().take(2) {
            let name = seen
                .page
                .things
                .get(*item)
                .map_or("a piece", |t| t.name.as_str());
            let own = seen.page.clusters.clusters.get(&cluster.of);
            let mut pieces: Vec<Value> = own
                .into_iter()
                .flat_map(|c| &c.pieces)
                .map(|p| p.to_json(seen.page.unit))
                .collect();
            pieces.push(ClusterPiece::of(item).to_json(seen.page.unit));
            let (block, part) = (&cluster.of.0, cluster.of.1.to_string());
            cures.push(PageCure {
                text: format!("Lay one of “{name}” into {}", seen.id(cluster.block)),
                patch: json!({"clusters": {block: {part: {"pieces": pieces}}}}),
            });
        }
    }
    cures
}
