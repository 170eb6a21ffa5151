//! A page whose weight lies far off its middle tips to that side.
//!
//! *Measure*: the centre of what is laid, each block by its area and how dark its paper is (photos count as middle grey), against the page's middle, left and right.
//! *Source*: the lever of visual weight (Arnheim, Art and Visual Perception, 1954). More than a seventh of the width is seen at once; a heavy foot is
//! how pages are usually built and no finding, a heavy head is one.

use super::{PageFinding, Seen};
use crate::sketch::Kind;

const SIDEWAYS: f64 = 1.0 / 7.0;
const TOP_HEAVY: f64 = 1.0 / 7.0;

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let layout = seen.page.layout;
    let canvas = layout.canvas.span();
    let (mut sum, mut x, mut y) = (0.0, 0.0, 0.0);
    for (n, block) in layout.blocks.iter().enumerate() {
        if matches!(block.block.kind, Kind::Wash) {
            continue;
        }
        let span = block.block.true_bounds().cut_to(canvas);
        let dark = seen
            .side(n)
            .and_then(|s| s.ground())
            .map_or(0.5, |c| 1.0 - c.lightness());
        let own = match block.block.kind {
            Kind::Photo => 0.6,
            Kind::Title => 0.7,
            Kind::Cluster => 0.8,
            Kind::Journal => 0.2,
            _ => dark * 0.6,
        };
        let weight = span.area() * own;
        sum += weight;
        x += weight * span.cx();
        y += weight * span.cy();
    }
    if sum <= 0.0 {
        return None;
    }
    let (off_x, off_y) = (x / sum - canvas.cx(), y / sum - canvas.cy());
    let finding = |side: &str, off: f64, why: &str| PageFinding {
        what: "weight",
        key: format!("weight {side}"),
        place: None,
        blocks: Vec::new(),
        text: format!(
            "The weight of it all lies {} {side} of the middle: {why}",
            seen.length(off.abs())
        ),
        cures: Vec::new(),
    };
    if off_x.abs() > canvas.w() * SIDEWAYS {
        let side = if off_x < 0.0 { "left" } else { "right" };
        return Some(vec![finding(side, off_x, "it tips that way.")]);
    }
    if off_y < -canvas.h() * TOP_HEAVY {
        return Some(vec![finding("above", off_y, "it hangs from the top.")]);
    }
    Some(Vec::new())
}
