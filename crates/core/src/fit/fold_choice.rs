//! What the maker chooses for a block that would stand on the fold, in place of the page that costs least.
//!
//! A field of the fit request beside those of the format: `"at_fold": [{"block": "t1", "as": "each"}]`. It speaks of the sketch after turn
//! and flip, as pins do, and of fits that take the sketch as a whole: what says it twice has its own block on either page.

use crate::document::Node;
use crate::sketch::{Kind, Sketch};

/// What becomes of a block at the fold.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum FoldWay {
    /// It goes to the left page.
    Left,
    /// It goes to the right page.
    Right,
    /// It is doubled: once on each page, as large.
    Each,
    /// It becomes a pair, half of it on each page.
    Pair,
}

impl FoldWay {
    const ALL: [FoldWay; 4] = [FoldWay::Left, FoldWay::Right, FoldWay::Each, FoldWay::Pair];
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["left", "right", "each", "pair"];

    /// Those that a kind of block can take; none for what is cut at the fold. What a photo's slot becomes is chosen with its slot.
    pub fn of(kind: Kind) -> &'static [FoldWay] {
        match kind {
            Kind::Photo => &[FoldWay::Left, FoldWay::Right],
            Kind::Title | Kind::Cluster | Kind::Accent => &[FoldWay::Left, FoldWay::Right, FoldWay::Each],
            Kind::Journal => &Self::ALL,
            _ => &[],
        }
    }
}

/// A choice for one block.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct FoldChoice {
    /// The sketch block.
    pub block: String,
    /// What becomes of it.
    pub way: FoldWay,
}

/// Reads `at_fold` of a request.
pub(super) fn read(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Vec<FoldChoice>> {
    let nodes = node.items();
    let found: Vec<Option<FoldChoice>> = nodes.iter().map(|n| read_choice(n, sketch)).collect();
    for (n, choice) in found.iter().enumerate() {
        let Some(choice) = choice else { continue };
        if found[..n].iter().flatten().any(|other| other.block == choice.block) {
            nodes[n].get("block")?.wrong_because(choice.block.clone(), "a block that no other choice names");
        }
    }
    found.into_iter().collect()
}

fn read_choice(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<FoldChoice> {
    node.object()?;
    let named = node.need("block", "the id of a sketch block")?;
    let block = named.text()?.to_owned();
    let way = node.need("as", &FoldWay::NAMES.join(", "))?;
    let chosen = way.one_of(&FoldWay::NAMES, |t| FoldWay::ALL.into_iter().zip(FoldWay::NAMES).find(|(_, n)| *n == t).map(|(w, _)| w))?;
    if let Some(sketch) = sketch {
        let Some(n) = sketch.index_of(&block) else {
            named.wrong("the id of a sketch block");
            return None;
        };
        let kind = sketch.blocks[n].kind;
        let allowed: Vec<&str> =
            FoldWay::ALL.into_iter().zip(FoldWay::NAMES).filter(|(w, _)| FoldWay::of(kind).contains(w)).map(|(_, n)| n).collect();
        if allowed.is_empty() {
            named.wrong_because(format!("{} {block}", kind.word()), "a photo, title, writing, cluster or accent: all else is cut at the fold");
            return None;
        }
        if !FoldWay::of(kind).contains(&chosen) {
            way.wrong(format!("{} for a {}", allowed.join(", "), kind.word()));
            return None;
        }
    }
    Some(FoldChoice { block, way: chosen })
}
