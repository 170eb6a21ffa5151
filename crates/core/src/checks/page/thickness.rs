//! A spot that is thicker than the page protector has room for, pieces and all.
//!
//! *Measure*: what lies on each spot added up, both pages of a spread closed on one another (`placed_photos`), with each piece's own thickness and lift.
//! The cure takes the foam from the highest piece of the spot.

use super::{PageCure, PageFinding, Seen};
use crate::geometry::Span;
use crate::photos::{Lift, Lying, thickest};
use crate::placed_photos::lying_of;
use serde_json::{Value, json};

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let layout = seen.page.layout;
    if seen.laid.clusters.iter().all(|c| c.pieces.is_empty()) {
        return None;
    }
    let [mut left, mut right] = lying_of(seen.page.photos, layout);
    let width = layout.canvas.page.w;
    for cluster in &seen.laid.clusters {
        let page = layout.blocks[cluster.block].page;
        let shift = f64::from(page.min(1)) * width.ticks() as f64;
        for piece in &cluster.pieces {
            let bounds = piece.placed.bounds;
            let lying = Lying {
                of: format!("{} {}", seen.id(cluster.block), piece.placed.piece),
                bounds: Span {
                    l: bounds.l - shift,
                    r: bounds.r - shift,
                    ..bounds
                },
                thick: piece.thing.thickness + piece.lift.thickness(),
            };
            if page == 0 { &mut left } else { &mut right }.push(lying);
        }
    }
    let spot = thickest(&left, &right, width);
    let room = seen.page.photos.room;
    if spot.thick <= room {
        return Some(Vec::new());
    }
    let unit = seen.page.unit;
    let cluster = seen.laid.clusters.iter().find(|c| {
        let id = format!("{} ", seen.id(c.block));
        spot.of.iter().any(|of| of.starts_with(&id))
    });
    // Photos alone are told at the Photos station.
    let Some(cluster) = cluster else {
        return Some(Vec::new());
    };
    let id = seen.id(cluster.block);
    let at = Span {
        l: spot.at.0,
        r: spot.at.0,
        t: spot.at.1,
        b: spot.at.1,
    };
    Some(vec![PageFinding {
        what: "thickness",
        key: format!("thickness {id}"),
        place: Some(at),
        blocks: vec![cluster.block],
        text: format!(
            "At {id} the page is {} thick, and its protector has room for {}.",
            spot.thick.to_ruler_text(unit),
            room.to_ruler_text(unit)
        ),
        cures: taken_down(seen, &cluster.of),
    }])
}

/// The cluster without foam under its highest piece, and without any.
fn taken_down(seen: &Seen<'_>, of: &(String, usize)) -> Vec<PageCure> {
    let Some(own) = seen.page.clusters.clusters.get(of) else {
        return Vec::new();
    };
    let highest = (0..own.pieces.len()).max_by_key(|n| own.pieces[*n].lift);
    let highest = highest.filter(|n| own.pieces[*n].lift > Lift::Flat);
    let Some(highest) = highest else {
        return Vec::new();
    };
    let name = seen
        .page
        .things
        .get(&own.pieces[highest].item)
        .map_or("the highest piece", |t| t.name.as_str());
    let cure = |text: String, flat: &dyn Fn(usize) -> bool| {
        let pieces: Vec<Value> = own
            .pieces
            .iter()
            .enumerate()
            .map(|(n, p)| {
                let mut p = p.clone();
                if flat(n) {
                    p.lift = Lift::Flat;
                }
                p.to_json(seen.page.unit)
            })
            .collect();
        let (block, part) = (&of.0, of.1.to_string());
        PageCure {
            text,
            patch: json!({"clusters": {block: {part: {"pieces": pieces}}}}),
        }
    };
    vec![
        cure(format!("“{name}” without foam"), &|n| n == highest),
        cure("The whole cluster flat".to_owned(), &|_| true),
    ]
}
