//! What the maker wants of a fit beyond the format: where leftover room goes, and what counts more where the page's shape changes.
//!
//! Fields of the fit request beside those of the format: `"slack": "between"` and `"emphasis": "positions"`.

use crate::document::Node;
use crate::sketch::Sketch;

/// Where room goes that is left over between neighbours.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub enum Slack {
    /// Wherever all else comes out best.
    #[default]
    Best,
    /// Into the gaps, all alike; rows keep their ends.
    Between,
    /// Outside: gaps stay what they are in the sketch.
    Outside,
    /// Above and below: gaps down the page stay, those across it share what is left over.
    Ends,
    /// Into the mats: their borders grow with the page.
    Mats,
    /// Into the gap between two blocks; all others stay.
    Gap(String, String),
}

const SLACKS: [&str; 5] = ["best", "between", "outside", "ends", "mats"];

/// What counts more where page and sketch differ in shape.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Emphasis {
    /// Both, as well as can be.
    #[default]
    Balance,
    /// Where things are.
    Positions,
    /// What shape things are.
    Proportions,
}

impl Emphasis {
    const ALL: [Emphasis; 3] = [
        Emphasis::Balance,
        Emphasis::Positions,
        Emphasis::Proportions,
    ];
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["balance", "positions", "proportions"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }
}

/// Reads `slack`.
pub(super) fn read_slack(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Slack> {
    if node.value.is_object() {
        let gap = node.need("gap", "the ids of the two blocks beside it")?;
        let ids = gap.texts(2)?;
        let known = |id: &String| sketch.is_none_or(|s| s.index_of(id).is_some());
        return match &ids[..] {
            [a, b] if a != b && known(a) && known(b) => Some(Slack::Gap(a.clone(), b.clone())),
            _ => {
                gap.wrong("the ids of two blocks of the sketch");
                None
            }
        };
    }
    node.one_of(&SLACKS, |t| match t {
        "best" => Some(Slack::Best),
        "between" => Some(Slack::Between),
        "outside" => Some(Slack::Outside),
        "ends" => Some(Slack::Ends),
        "mats" => Some(Slack::Mats),
        _ => None,
    })
}

/// Reads `emphasis`; none lets the fit propose each where it matters.
pub(super) fn read_emphasis(node: &Node<'_>) -> Option<Emphasis> {
    node.one_of(&Emphasis::NAMES, |t| {
        Emphasis::ALL.into_iter().find(|e| e.name() == t)
    })
}
