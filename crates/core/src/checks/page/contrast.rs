//! A title or a photo that sinks into what it lies on.
//!
//! *Measure*: the distance in OKLab between its main colour and that of the paper that most of it lies on; a mat between counts as the paper.
//! Below 0.10 it sinks. *Source*: the same threshold by which papers are ranked (docs/PAPERS.md).

use super::{PageFinding, Seen};
use crate::sketch::Kind;
use crate::stash::Colour;

const SINKS: f64 = 0.10;
/// A paper counts as what lies below from this share on.
const MOST_OF_IT: f64 = 0.5;

/// The paper that most of a block lies on, and its colour.
pub(super) fn below(seen: &Seen<'_>, block: usize) -> Option<(String, Colour)> {
    let layout = seen.page.layout;
    let own = layout.blocks[block].block.true_bounds();
    for under in (0..block).rev() {
        let other = &layout.blocks[under];
        let span = other.block.true_bounds();
        let over = own.shared_area(span);
        let lies = !matches!(other.block.kind, Kind::Wash) && over >= MOST_OF_IT * own.area();
        if lies {
            let colour = seen.side(under)?.ground()?;
            return Some((seen.id(under).to_owned(), colour));
        }
    }
    let page = usize::from(layout.blocks[block].page.min(1));
    let colour = seen.page.grounds[page].as_ref()?.ground()?;
    Some(("the page's own paper".to_owned(), colour))
}

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let (mut found, mut looked) = (Vec::new(), false);
    for (n, block) in seen.page.layout.blocks.iter().enumerate() {
        let own = match block.block.kind {
            Kind::Title => seen.page.title,
            Kind::Photo => block
                .placement
                .as_ref()
                .and_then(|p| seen.page.photo_colours.get(&p.photo))
                .and_then(|c| c.first().copied()),
            _ => None,
        };
        let (Some(own), Some((paper, colour))) = (own, below(seen, n)) else {
            continue;
        };
        looked = true;
        if own.distance(colour) >= SINKS {
            continue;
        }
        let id = seen.id(n);
        let help = match block.block.kind {
            Kind::Title => "a banner behind it, or letters of another colour, would lift it.",
            _ => "a mat would set it off.",
        };
        found.push(PageFinding {
            what: "contrast",
            key: format!("contrast {id}"),
            place: Some(block.block.true_bounds()),
            blocks: vec![n],
            text: format!(
                "{id} is as {} as {paper} under it and sinks in: {help}",
                own.name()
            ),
            cures: Vec::new(),
        });
    }
    looked.then_some(found)
}
