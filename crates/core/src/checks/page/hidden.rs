//! Something on a photo that she wants hidden, and that nothing hides.
//!
//! *Measure*: nine tenths of the area must lie under one piece, or under a block above the photo.

use super::{PageFinding, Seen};
use crate::geometry::Span;
use crate::sketch::Kind;

const HIDDEN: f64 = 0.9;

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    if seen.laid.to_hide.is_empty() {
        return None;
    }
    let layout = seen.page.layout;
    let share = |area: Span, over: Span| area.shared_area(over) / area.area().max(1.0);
    let mut found = Vec::new();
    for (photo, area) in &seen.laid.to_hide {
        let pieces = seen.laid.clusters.iter().flat_map(|c| &c.pieces);
        let mut over = pieces.map(|p| share(*area, p.placed.bounds));
        let blocks = &layout.blocks[photo + 1..];
        let mut above = blocks
            .iter()
            .filter(|b| !matches!(b.block.kind, Kind::Cluster | Kind::Wash))
            .map(|b| share(*area, b.block.true_bounds()));
        if over.any(|s| s >= HIDDEN) || above.any(|s| s >= HIDDEN) {
            continue;
        }
        let id = seen.id(*photo);
        let (w, h) = (seen.length(area.w()), seen.length(area.h()));
        found.push(PageFinding {
            what: "hidden",
            key: format!("hidden {id} {:.0}", area.l),
            place: Some(*area),
            blocks: vec![*photo],
            text: format!(
                "{id} shows what you wanted hidden: a piece of at least {w} × {h} would cover it."
            ),
            cures: Vec::new(),
        });
    }
    Some(found)
}
