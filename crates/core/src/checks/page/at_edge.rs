//! A title, writing or a phrase so near the page's edge that the protector's seam or a trim takes it.
//!
//! *Measure*: nearer than 1/4 in to the page's edge and not meant to run off it. *Source*: seams of page protectors are about that wide.

use super::{PageFinding, Seen};
use crate::length::Length;
use crate::sketch::Kind;
use crate::stash::Form;

const NEAR: Length = Length::inches(1, 4);
/// What is only a hair nearer is not nearer.
const HAIR: f64 = 200.0;

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let layout = seen.page.layout;
    let canvas = layout.canvas.span();
    let (mut found, mut looked) = (Vec::new(), false);
    let words = layout.blocks.iter().enumerate().filter(|(_, b)| {
        matches!(b.block.kind, Kind::Title | Kind::Journal) && b.block.bleed.is_empty()
    });
    let blocks = words.map(|(n, b)| (n, b.block.true_bounds(), seen.id(n).to_owned()));
    let pieces = seen.laid.clusters.iter().flat_map(|c| {
        let phrases = c.pieces.iter().filter(|p| p.thing.form == Form::Phrase);
        phrases.map(|p| (c.block, p.placed.bounds, format!("“{}”", p.thing.name)))
    });
    for (n, span, name) in blocks.chain(pieces) {
        looked = true;
        let nearest = [
            span.l - canvas.l,
            span.t - canvas.t,
            canvas.r - span.r,
            canvas.b - span.b,
        ]
        .into_iter()
        .fold(f64::INFINITY, f64::min);
        if nearest >= NEAR.ticks() as f64 - HAIR {
            continue;
        }
        found.push(PageFinding {
            what: "at-edge",
            key: format!("at-edge {name}"),
            place: Some(span),
            blocks: vec![n],
            text: if nearest < 0.0 {
                format!("{name} runs off the page.")
            } else {
                format!(
                    "{name} lies {} from the page’s edge: a protector’s seam covers 1/4 in.",
                    seen.length(nearest)
                )
            },
            cures: Vec::new(),
        });
    }
    looked.then_some(found)
}
