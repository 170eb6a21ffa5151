//! A title or a photo that sinks into what it lies on.
//!
//! *Measure*: the distance in OKLab between its main colour and that of the paper that most of it lies on; a mat between counts as the paper.
//! Below 0.10 it sinks. *Source*: the same threshold by which papers are ranked (docs/PAPERS.md).

use super::{PageFinding, Seen};
use crate::geometry::Span;
use crate::sketch::Kind;
use crate::stash::Colour;

const SINKS: f64 = 0.10;
/// A paper counts as what lies below from this share on.
const MOST_OF_IT: f64 = 0.5;

/// The paper that most of a block lies on, and its colour.
pub(super) fn below(seen: &Seen<'_>, block: usize) -> Option<(String, Colour)> {
    let own = &seen.page.layout.blocks[block];
    below_span(seen, own.block.true_bounds(), (block, own.page))
}

/// What most of a span lies on that is laid before a block, or the page's own paper.
fn below_span(seen: &Seen<'_>, own: Span, (before, page): (usize, u8)) -> Option<(String, Colour)> {
    let layout = seen.page.layout;
    for under in (0..before.min(layout.blocks.len())).rev() {
        let other = &layout.blocks[under];
        let span = other.block.true_bounds();
        let over = own.shared_area(span);
        let lies = !matches!(other.block.kind, Kind::Wash) && over >= MOST_OF_IT * own.area();
        if lies {
            let colour = match other.block.kind {
                Kind::Photo => photo_colour(seen, under)?,
                _ => seen.side(under)?.ground()?,
            };
            return Some((seen.id(under).to_owned(), colour));
        }
    }
    let ground = seen.page.grounds[usize::from(page.min(1))].as_ref();
    let colour = ground?.ground()?;
    Some(("the page's own paper".to_owned(), colour))
}

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let (mut found, mut looked) = (Vec::new(), false);
    for (n, block) in seen.page.layout.blocks.iter().enumerate() {
        let own = match block.block.kind {
            Kind::Title if seen.page.words_elsewhere.title.is_none() => seen.page.title,
            Kind::Photo => photo_colour(seen, n),
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
    if let (Some(at), Some(own)) = (seen.page.words_elsewhere.title, seen.page.title) {
        let half = seen.page.layout.canvas.page.w.ticks() as f64;
        let page = u8::from(at.cx() > half);
        if let Some((under, colour)) = below_span(seen, at, (usize::MAX, page)) {
            looked = true;
            found.extend((own.distance(colour) < SINKS).then(|| PageFinding {
                what: "contrast",
                key: "contrast title".to_owned(),
                place: Some(at),
                blocks: Vec::new(),
                text: format!(
                    "the title is as {} as {under} under it and sinks in: a banner behind it, or letters of another colour, would lift it.",
                    own.name()
                ),
                cures: Vec::new(),
            }));
        }
    }
    looked.then_some(found)
}

/// The main colour of the print in a photo's block.
fn photo_colour(seen: &Seen<'_>, photo: usize) -> Option<Colour> {
    let placement = seen.page.layout.blocks[photo].placement.as_ref()?;
    let colours = seen.page.photo_colours.get(&placement.photo)?;
    colours.first().copied()
}
