//! A piece that hides what must stay in sight: an area that she marked on a photo, the title, the writing.
//!
//! *Measure*: the piece's bounds as it lies, turned, against the area. Pieces that Metrosk lays avoid it; what she placed herself may not.
//! The cure gives the piece back to be laid anew.

use super::{PageCure, PageFinding, Seen};
use crate::geometry::Span;
use crate::sketch::Kind;
use serde_json::{Value, json};

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let layout = seen.page.layout;
    if seen.laid.clusters.iter().all(|c| c.pieces.is_empty()) {
        return None;
    }
    let words = (0..layout.blocks.len())
        .filter(|n| matches!(layout.blocks[*n].block.kind, Kind::Title | Kind::Journal))
        .map(|n| (Some(n), layout.blocks[n].block.true_bounds()));
    let elsewhere = seen.page.words_elsewhere.spans().map(|s| (None, s));
    let marked = seen.laid.in_sight.iter().map(|(n, s)| (Some(*n), *s));
    let keep: Vec<(Option<usize>, Span)> = marked.chain(words).chain(elsewhere).collect();
    let mut found = Vec::new();
    for cluster in &seen.laid.clusters {
        for piece in cluster.pieces.iter().filter(|p| p.placed.hides) {
            let Some((over, _)) = keep
                .iter()
                .find(|(_, area)| area.overlaps(piece.placed.bounds, 1.0))
            else {
                continue;
            };
            let (what, over_key) = match over {
                Some(n) if layout.blocks[*n].block.kind == Kind::Photo => (
                    format!("what must stay in sight on {}", seen.id(*n)),
                    seen.id(*n),
                ),
                Some(n) => (format!("part of {}", seen.id(*n)), seen.id(*n)),
                None => ("part of the words".to_owned(), "words"),
            };
            found.push(PageFinding {
                what: "in-sight",
                key: format!(
                    "in-sight {} {} {}",
                    seen.id(cluster.block),
                    piece.placed.piece,
                    over_key
                ),
                place: Some(piece.placed.bounds),
                blocks: std::iter::once(cluster.block).chain(*over).collect(),
                text: format!(
                    "“{}” in {} hides {what}.",
                    piece.thing.name,
                    seen.id(cluster.block)
                ),
                cures: laid_anew(seen, &cluster.of, piece.placed.piece),
            });
        }
    }
    Some(found)
}

fn laid_anew(seen: &Seen<'_>, of: &(String, usize), piece: usize) -> Vec<PageCure> {
    let Some(own) = seen.page.clusters.clusters.get(of) else {
        return Vec::new();
    };
    if own.pieces.get(piece).is_none_or(|p| p.at.is_none()) {
        return Vec::new();
    }
    let pieces: Vec<Value> = own
        .pieces
        .iter()
        .enumerate()
        .map(|(n, p)| {
            let mut p = p.clone();
            if n == piece {
                p.at = None;
            }
            p.to_json(seen.page.unit)
        })
        .collect();
    let (block, part) = (&of.0, of.1.to_string());
    vec![PageCure {
        text: "Lay it where it hides nothing".to_owned(),
        patch: json!({"clusters": {block: {part: {"pieces": pieces}}}}),
    }]
}
