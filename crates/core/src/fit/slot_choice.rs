//! What the maker chooses for a photo slot of the sketch, in place of what the fit finds.
//!
//! A field of the fit request beside those of the format: `"slots": [{"photos": ["p1"], "as": "cells", "cols": 2, "rows": 1}]`. It speaks
//! of the sketch after turn and flip, as pins do. Slots that are not named take what is left of the photo count.

use crate::document::Node;
use crate::sketch::{Kind, MOST_BLOCKS, Sketch};
use std::collections::BTreeSet;

/// A slot is divided at the most so often along one side.
const MOST_CELLS: u32 = 12;

/// What becomes of a slot.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SlotWay {
    /// So many prints across and down, even and a narrow gap apart; one by one is a slot as drawn.
    Cells(u32, u32),
    /// One large print with so many small ones in a row below it, or in a column beside it.
    Focal {
        /// How many small ones.
        small: u32,
        /// Below rather than beside.
        below: bool,
    },
    /// Two prints, each as large as the slot, one on either page where it stands on the fold; elsewhere two halves.
    Each,
    /// Writing space.
    Journal,
    /// A square of paper.
    Paper,
    /// Nothing: it is left out, with its mat.
    Gone,
}

const WAYS: [&str; 6] = ["cells", "focal", "each", "journal", "paper", "gone"];
const ALONG: [&str; 2] = ["beside", "below"];

impl SlotWay {
    /// How many photos it shows.
    pub const fn shows(self) -> u32 {
        match self {
            SlotWay::Cells(cols, rows) => cols * rows,
            SlotWay::Focal { small, .. } => small + 1,
            SlotWay::Each => 2,
            SlotWay::Journal | SlotWay::Paper | SlotWay::Gone => 0,
        }
    }
}

/// A choice for one slot, or for several that become one: a row that is lengthened, two that merge.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SlotChoice {
    /// The sketch's photo blocks.
    pub photos: Vec<String>,
    /// What becomes of them.
    pub way: SlotWay,
}

/// Reads `slots` of a request.
pub(super) fn read(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Vec<SlotChoice>> {
    let nodes = node.at_most(MOST_BLOCKS)?;
    let found: Vec<Option<SlotChoice>> = nodes.iter().map(|n| read_choice(n, sketch)).collect();
    let mut seen = BTreeSet::new();
    for (node, choice) in nodes.iter().zip(&found) {
        for id in choice.iter().flat_map(|c| &c.photos) {
            if !seen.insert(id) {
                node.get("photos")?
                    .wrong_because(id.clone(), "photos that no choice names a second time");
            }
        }
    }
    found.into_iter().collect()
}

fn read_choice(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<SlotChoice> {
    node.object()?;
    let list = node.need("photos", "the ids of one or several photo blocks")?;
    let photos = list.texts(MOST_BLOCKS)?;
    let is_photo = |id: &String| {
        sketch.is_none_or(|s| {
            s.index_of(id)
                .is_some_and(|n| s.blocks[n].kind == Kind::Photo)
        })
    };
    if photos.is_empty() || !photos.iter().all(is_photo) {
        list.wrong("the ids of one or several photo blocks of the sketch");
    }
    let name = node
        .need("as", &WAYS.join(", "))?
        .one_of(&WAYS, |t| WAYS.into_iter().find(|w| *w == t))?;
    let count = |field: &str, otherwise: Option<u32>| match node.get(field) {
        Some(n) => n.count(1, MOST_CELLS),
        None => otherwise.or_else(|| node.need(field, &format!("1 to {MOST_CELLS}")).and(None)),
    };
    let way = match name {
        "cells" => SlotWay::Cells(count("cols", None)?, count("rows", Some(1))?),
        "focal" => {
            let along = node.get("along").map_or(Some("beside"), |n| {
                n.one_of(&ALONG, |t| ALONG.into_iter().find(|w| *w == t))
            });
            SlotWay::Focal {
                small: count("small", None)?,
                below: along? == "below",
            }
        }
        "each" => SlotWay::Each,
        "journal" => SlotWay::Journal,
        "paper" => SlotWay::Paper,
        _ => SlotWay::Gone,
    };
    if photos.len() > 1 && !matches!(way, SlotWay::Cells(..)) {
        list.wrong("one photo: only cells are made of several");
    }
    Some(SlotChoice { photos, way })
}
