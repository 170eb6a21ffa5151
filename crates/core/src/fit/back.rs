//! The back of a page that can be seen through: what shows from the front lies on the back as its mirror image, fixed in place.

use super::pin::{Pin, PinEdge};
use crate::document::Invalid;
use crate::geometry::{Edge, Rect};
use crate::layout::Layout;
use crate::length::Length;
use crate::sketch::{Block, Flip, Kind, QuarterTurn, Sketch};

/// What a block that shows through is called after its own name.
const THROUGH: &str = "-through";

/// A sketch for the back with what shows through put under it, and the pins that hold that in place.
#[derive(Clone, Debug, PartialEq)]
pub struct Back {
    /// The back's sketch, the blocks that show through first.
    pub sketch: Sketch,
    /// Their places on the back, all four edges.
    pub pins: Vec<Pin>,
}

/// Puts the front's blocks of those sketch ids, mirrored across, under a one-page sketch for the back.
///
/// Places are the front layout's; in the sketch they are drawn in its own scale, so that the fit starts from where they are.
///
/// # Errors
/// When front or back is a spread, when nothing is named, or a block is not on the front.
pub fn back(front: &Layout, see_through: &[String], sketch: &Sketch) -> Result<Back, Invalid> {
    let shown = shown_through(front, see_through, sketch)?;
    // The front itself as a sketch, so that turns, corners and bleeds are mirrored with their boxes.
    let front = Sketch {
        canvas: front.canvas,
        blocks: shown,
        unit: front.unit,
        ..sketch.clone()
    };
    let mirrored = front.oriented(QuarterTurn::default(), Flip::Across);
    let (page, own) = (mirrored.canvas.page, sketch.canvas.page);
    let scale = |l: Length, from: Length, to: Length| {
        Length::from_ticks(
            (l.ticks() as f64 * to.ticks() as f64 / from.ticks() as f64).round() as i64,
        )
    };
    let mut made = sketch.clone();
    let mut pins = Vec::new();
    for (n, block) in mirrored.blocks.iter().enumerate() {
        let mut id = format!("{}{THROUGH}", block.id);
        while made.index_of(&id).is_some() {
            id.push('2');
        }
        let span = block.extent();
        for edge in Edge::ALL {
            let at = Length::from_ticks(span.edge(edge).round() as i64);
            pins.push(Pin {
                block: id.clone(),
                edge: PinEdge::Edge(edge),
                at,
                to: None,
            });
        }
        let Rect { x, y, w, h } = block.rect;
        let rect = Rect {
            x: scale(x, page.w, own.w),
            y: scale(y, page.h, own.h),
            w: scale(w, page.w, own.w),
            h: scale(h, page.h, own.h),
        };
        let kind = seen_from_behind(block.kind);
        made.blocks.insert(
            n,
            Block {
                id,
                kind,
                rect,
                ..block.clone()
            },
        );
    }
    Ok(Back { sketch: made, pins })
}

/// The front's blocks that show through, or what stands in the way.
fn shown_through(
    front: &Layout,
    see_through: &[String],
    sketch: &Sketch,
) -> Result<Vec<Block>, Invalid> {
    if front.canvas.pages != 1 || sketch.canvas.pages != 1 {
        return Err(Invalid::one(
            "see_through",
            "a spread",
            "a front of one page, and a sketch of one page for its back",
        ));
    }
    if see_through.is_empty() {
        return Err(Invalid::one(
            "see_through",
            "nothing",
            "the ids of the front's blocks that can be seen through",
        ));
    }
    let mut shown: Vec<Block> = Vec::new();
    for id in see_through {
        let parts = front.blocks.iter().filter(|b| b.from.contains(id));
        let before = shown.len();
        shown.extend(parts.map(|b| Block {
            under: None,
            host: None,
            sure: None,
            ..b.block.clone()
        }));
        if shown.len() == before {
            return Err(Invalid::one(
                "see_through",
                id.clone(),
                "blocks that are on the front",
            ));
        }
    }
    Ok(shown)
}

/// Seen from behind, a photo or its words are a piece of paper.
const fn seen_from_behind(kind: Kind) -> Kind {
    match kind {
        Kind::Paper
        | Kind::Strip
        | Kind::Grid
        | Kind::Ring
        | Kind::Wash
        | Kind::Accent
        | Kind::Cluster => kind,
        _ => Kind::Paper,
    }
}
