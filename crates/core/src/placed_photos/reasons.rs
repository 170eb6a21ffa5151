//! Why the prints lie as they do, for a maker to read.

use super::PlacedPhoto;
use crate::photos::Print;

/// A reason.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Reason {
    /// The main photo has the largest place.
    Focal {
        /// The print.
        print: String,
        /// Its layout block.
        block: String,
    },
    /// Prints that fill their places whole.
    Whole(Vec<String>),
    /// Prints that she locked to their places.
    Locked(Vec<String>),
    /// All that must be kept is.
    NothingCut {
        /// How many areas.
        areas: usize,
    },
    /// A print has something cut that must be kept.
    Cut {
        /// The print.
        print: String,
        /// How many of its areas.
        areas: usize,
    },
}

impl Reason {
    /// As a sentence; prints by their ids, blocks by theirs.
    #[must_use]
    pub fn sentence(&self) -> String {
        let list = |ids: &[String]| match ids {
            [one] => format!("Print {one}"),
            [before @ .., last] => format!("Prints {} and {last}", before.join(", ")),
            [] => String::new(),
        };
        let are = |ids: &[String], one: &'static str, several: &'static str| {
            if ids.len() == 1 { one } else { several }
        };
        match self {
            Reason::Focal { print, block } => {
                format!("Print {print} is the main photo, so it takes {block}, the largest place.")
            }
            Reason::Whole(prints) => {
                format!("{} {} whole.", list(prints), are(prints, "fits", "fit"))
            }
            Reason::Locked(prints) => format!(
                "{} {} where you locked {}.",
                list(prints),
                are(prints, "lies", "lie"),
                are(prints, "it", "them")
            ),
            Reason::NothingCut { areas: 1 } => "What must be kept is not cut.".to_owned(),
            Reason::NothingCut { areas } => format!("None of the {areas} areas to keep is cut."),
            Reason::Cut { print, areas: 1 } => {
                format!("Print {print}: an area to keep is cut.")
            }
            Reason::Cut { print, areas } => {
                format!("Print {print}: {areas} areas to keep are cut.")
            }
        }
    }
}

/// Why they lie so.
#[must_use]
pub fn reasons(prints: &[Print], placed: &[PlacedPhoto]) -> Vec<Reason> {
    let mut all = Vec::new();
    let of = |placed: &PlacedPhoto| prints.iter().find(|p| p.id == placed.print);
    let area = |p: &PlacedPhoto| p.slot.w.ticks() as f64 * p.slot.h.ticks() as f64;
    let largest = placed.iter().map(area).fold(0.0, f64::max);
    if let Some(main) = placed
        .iter()
        .find(|p| of(p).is_some_and(|print| print.focal) && area(p) >= largest)
    {
        all.push(Reason::Focal {
            print: main.print.clone(),
            block: main.block.clone(),
        });
    }
    let ids = |chosen: &dyn Fn(&PlacedPhoto) -> bool| -> Vec<String> {
        let chosen = placed.iter().filter(|p| chosen(p));
        chosen.map(|p| p.print.clone()).collect()
    };
    let whole = ids(&|p| p.slot == p.size && of(p).is_some_and(|print| !print.is_file));
    if !whole.is_empty() {
        all.push(Reason::Whole(whole));
    }
    let locked = ids(&|p| {
        let place = of(p).and_then(|print| print.place.as_ref());
        place.is_some_and(|l| l.blocks.contains(&p.of) && l.part == p.part)
    });
    if !locked.is_empty() {
        all.push(Reason::Locked(locked));
    }
    let cut = placed.iter().filter(|p| !p.cut.is_empty());
    all.extend(cut.map(|p| Reason::Cut {
        print: p.print.clone(),
        areas: p.cut.len(),
    }));
    let areas: usize = placed
        .iter()
        .filter_map(of)
        .map(|print| print.faces.len())
        .sum();
    if areas > 0 && placed.iter().all(|p| p.cut.is_empty()) {
        all.push(Reason::NothingCut { areas });
    }
    all
}
