//! Two busy papers, one directly on the other.
//!
//! *Measure*: both busier than 0.55 (docs/PAPERS.md), and at least a third of the upper one lies on the lower, with no other paper between.
//! *Source*: makers' own rule of one busy sheet that leads.

use super::{PageFinding, Seen};
use crate::papers::BUSY;

const ON_IT: f64 = 1.0 / 3.0;

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let blocks = &seen.page.layout.blocks;
    let (mut found, mut looked) = (Vec::new(), false);
    for (n, block) in blocks.iter().enumerate() {
        let Some(own) = seen.side(n) else { continue };
        looked = true;
        if own.busy < BUSY {
            continue;
        }
        let span = block.block.true_bounds();
        let below = (0..n).rev().find(|m| {
            let other = blocks[*m].block.true_bounds();
            seen.side(*m).is_some() && span.shared_area(other) >= ON_IT * span.area()
        });
        let page = usize::from(block.page.min(1));
        let (name, busy) = match below {
            Some(m) => (seen.id(m).to_owned(), seen.side(m).map_or(0.0, |s| s.busy)),
            None => {
                let ground = seen.page.grounds[page].as_ref();
                (
                    "the page’s own paper".to_owned(),
                    ground.map_or(0.0, |g| g.busy),
                )
            }
        };
        if busy >= BUSY {
            found.push(PageFinding {
                what: "busy",
                key: format!("busy {} {name}", seen.id(n)),
                place: Some(span),
                blocks: std::iter::once(n).chain(below).collect(),
                text: format!(
                    "{} is busy and lies on {name}, which is busy too: a plain mat between them gives the eye an edge.",
                    seen.id(n)
                ),
                cures: Vec::new(),
            });
        }
    }
    looked.then_some(found)
}
