//! A mat that shows more on one side than on the opposite one, though nobody chose it so.
//!
//! *Measure*: opposite borders of a layer that differ by 1/32 in or more. Layers whose borders she set herself, and sketches that draw them
//! staggered, are meant.

use super::{PageFinding, Seen};
use crate::length::Length;
use crate::photos::mats_of;
use crate::placed_photos::placed_photos;

const UNEVEN: Length = Length::inches(1, 32);
/// From here on it is meant.
const MEANT: Length = Length::inches(1, 8);

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let (layout, photos) = (seen.page.layout, seen.page.photos);
    let placed = placed_photos(seen.page.unit, 0, photos, layout);
    let (mut found, mut looked) = (Vec::new(), false);
    for photo in &placed.placed {
        for layer in &photo.layers {
            looked = true;
            if mats_of(&photos.mats, &photo.of).is_some() {
                continue;
            }
            let [left, top, right, bottom] = layer.borders;
            let off = (left - right).abs().max((top - bottom).abs());
            if off < UNEVEN || off >= MEANT {
                continue;
            }
            let block = layout.blocks.iter().position(|b| b.block.id == layer.block);
            found.push(PageFinding {
                what: "mats",
                key: format!("mats {}", layer.block),
                place: block.map(|n| layout.blocks[n].block.true_bounds()),
                blocks: block.into_iter().collect(),
                text: format!(
                    "The mat {} shows {} more on one side than on the other.",
                    layer.block,
                    off.to_ruler_text(seen.page.unit)
                ),
                cures: Vec::new(),
            });
        }
    }
    looked.then_some(found)
}
