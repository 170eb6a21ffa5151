//! What the maker chooses for a block that would stand on the fold, in place of the page that costs least.
//!
//! A field of the fit request beside those of the format: `"at_fold": [{"block": "t1", "as": "each"}]`. It speaks of the sketch after turn
//! and flip, as pins do, and of fits that take the sketch as a whole: what says it twice has its own block on either page. A title that is
//! to run across has its `words` with it, since the fold may come between two of them only.

use crate::document::Node;
use crate::sketch::{Kind, MOST_BLOCKS, Sketch};

/// A title has no more letters than this.
const MOST_LETTERS: usize = 200;

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
    /// It runs across, broken between two words.
    Across,
}

impl FoldWay {
    const ALL: [FoldWay; 5] = [
        FoldWay::Left,
        FoldWay::Right,
        FoldWay::Each,
        FoldWay::Pair,
        FoldWay::Across,
    ];
    /// The names that documents use.
    pub const NAMES: [&'static str; 5] = ["left", "right", "each", "pair", "across"];

    /// Those that a kind of block can take; none for what is cut at the fold. What a photo's slot becomes is chosen with its slot.
    pub fn of(kind: Kind) -> &'static [FoldWay] {
        match kind {
            Kind::Photo => &[FoldWay::Left, FoldWay::Right],
            Kind::Title => &[
                FoldWay::Left,
                FoldWay::Right,
                FoldWay::Each,
                FoldWay::Across,
            ],
            Kind::Cluster | Kind::Accent => &[FoldWay::Left, FoldWay::Right, FoldWay::Each],
            Kind::Journal => &[FoldWay::Left, FoldWay::Right, FoldWay::Each, FoldWay::Pair],
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
    /// The words of a title that runs across, two or more; none otherwise.
    pub words: Vec<String>,
}

impl FoldChoice {
    /// The spaces between its words, as shares of the title's width: where each begins and ends. Letters and spaces count alike, since no
    /// letter set is chosen yet.
    pub(crate) fn spaces(&self) -> Vec<(f64, f64)> {
        let letters: Vec<usize> = self.words.iter().map(|w| w.chars().count()).collect();
        let all = (letters.iter().sum::<usize>() + letters.len().saturating_sub(1)) as f64;
        let mut found = Vec::with_capacity(letters.len());
        let mut at = 0;
        for word in letters.iter().take(letters.len().saturating_sub(1)) {
            at += word + 1;
            found.push(((at - 1) as f64 / all, at as f64 / all));
        }
        found
    }
}

/// Reads `at_fold` of a request.
pub(super) fn read(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Vec<FoldChoice>> {
    let nodes = node.at_most(MOST_BLOCKS)?;
    let found: Vec<Option<FoldChoice>> = nodes.iter().map(|n| read_choice(n, sketch)).collect();
    for (n, choice) in found.iter().enumerate() {
        let Some(choice) = choice else { continue };
        if found[..n]
            .iter()
            .flatten()
            .any(|other| other.block == choice.block)
        {
            nodes[n]
                .get("block")?
                .wrong_because(choice.block.clone(), "a block that no other choice names");
        }
    }
    found.into_iter().collect()
}

fn read_choice(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<FoldChoice> {
    node.object()?;
    let named = node.need("block", "the id of a sketch block")?;
    let block = named.text()?.to_owned();
    let way = node.need("as", &FoldWay::NAMES.join(", "))?;
    let chosen = way.one_of(&FoldWay::NAMES, |t| {
        FoldWay::ALL
            .into_iter()
            .zip(FoldWay::NAMES)
            .find(|(_, n)| *n == t)
            .map(|(w, _)| w)
    })?;
    if let Some(sketch) = sketch {
        let Some(n) = sketch.index_of(&block) else {
            named.wrong("the id of a sketch block");
            return None;
        };
        let kind = sketch.blocks[n].kind;
        let allowed: Vec<&str> = FoldWay::ALL
            .into_iter()
            .zip(FoldWay::NAMES)
            .filter(|(w, _)| FoldWay::of(kind).contains(w))
            .map(|(_, n)| n)
            .collect();
        if allowed.is_empty() {
            named.wrong_because(
                format!("{} {block}", kind.word()),
                "a photo, title, writing, cluster or accent: all else is cut at the fold",
            );
            return None;
        }
        if !FoldWay::of(kind).contains(&chosen) {
            way.wrong(format!("{} for a {}", allowed.join(", "), kind.word()));
            return None;
        }
    }
    let words = if chosen == FoldWay::Across {
        read_words(node)?
    } else {
        Vec::new()
    };
    Some(FoldChoice {
        block,
        way: chosen,
        words,
    })
}

/// The words of a title that runs across.
fn read_words(node: &Node<'_>) -> Option<Vec<String>> {
    let allowed = format!("two words or more, up to {MOST_LETTERS} letters");
    let named = node.need("words", &allowed)?;
    let text = named.text()?;
    let words: Vec<String> = text.split_whitespace().map(str::to_owned).collect();
    if words.len() < 2 || text.chars().count() > MOST_LETTERS {
        named.wrong(allowed);
        return None;
    }
    Some(words)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn spaces_are_told_as_shares_of_the_width() {
        let choice = |words: &[&str]| FoldChoice {
            block: "t1".into(),
            way: FoldWay::Across,
            words: words.iter().map(|w| (*w).to_owned()).collect(),
        };
        assert_eq!(choice(&["Low", "sun"]).spaces(), [(3.0 / 7.0, 4.0 / 7.0)]);
        assert_eq!(
            choice(&["a", "bc", "d"]).spaces(),
            [(1.0 / 6.0, 2.0 / 6.0), (4.0 / 6.0, 5.0 / 6.0)]
        );
        // Letters are counted, not bytes.
        assert_eq!(choice(&["Nähe", "é"]).spaces(), [(4.0 / 6.0, 5.0 / 6.0)]);
        assert!(choice(&[]).spaces().is_empty());
    }

    #[test]
    fn every_kind_knows_its_ways() {
        assert!(FoldWay::of(Kind::Strip).is_empty() && FoldWay::of(Kind::Mat).is_empty());
        assert!(
            FoldWay::of(Kind::Title).contains(&FoldWay::Across)
                && !FoldWay::of(Kind::Journal).contains(&FoldWay::Across)
        );
        assert!(
            FoldWay::of(Kind::Journal).contains(&FoldWay::Pair)
                && !FoldWay::of(Kind::Photo).contains(&FoldWay::Each)
        );
    }
}
