//! Pages that are nearly empty beside full ones, and pages without any rest for the eye.
//!
//! *Measure*: the share of each page that anything but a wash or its ground covers, by true outlines. *Source*: makers' own talk of white space;
//! a page under a tenth reads as forgotten, one over 92 in a hundred has no rest.

use super::{PageFinding, Seen};
use crate::checks::lying::{Lying, page_span};
use crate::geometry::Region;

const EMPTY: f64 = 0.10;
const FULL: f64 = 0.92;

pub(super) fn look(seen: &Seen<'_>) -> Option<Vec<PageFinding>> {
    let layout = seen.page.layout;
    if layout.blocks.is_empty() {
        return None;
    }
    let lying = Lying::new(layout);
    let covered = Region::union(lying.covering());
    let mut found = Vec::new();
    for page in 0..layout.canvas.pages {
        let span = page_span(layout, page);
        let share = covered.within_also(&Region::from(span)).area() / span.area();
        let which = match (layout.canvas.pages, page) {
            (1, _) => "The page",
            (_, 0) => "The left page",
            _ => "The right page",
        };
        let percent = (share * 100.0).round();
        let text = if share < EMPTY {
            format!("{which} carries next to nothing: {percent} % of it.")
        } else if share > FULL {
            format!("{which} is full to the brim, {percent} % of it: the eye finds no rest.")
        } else {
            continue;
        };
        found.push(PageFinding {
            what: "white",
            key: format!("white {page}"),
            place: Some(span),
            blocks: Vec::new(),
            text,
            cures: Vec::new(),
        });
    }
    Some(found)
}
