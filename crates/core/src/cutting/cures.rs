//! What could give where paper is short: each way out is tried, and told with what it comes to.

use super::decisions::CutDecisions;
use super::page::{InStash, PageCuts, page_cuts};
use crate::Cancel;
use crate::document::number;
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::papers::{CutAs, CutSize, PaperDecisions, Papered, PaperedPiece, papered};
use crate::sketch::Kind;
use serde_json::{Map, Value, json};
use std::collections::{BTreeMap, BTreeSet};

/// No more ways out than this are told for one paper.
const MOST_TOLD: usize = 4;
/// So many sheets more are tried.
const MORE_SHEETS: u32 = 3;

/// What a page's cuts follow from.
#[derive(Clone, Copy, Debug)]
pub struct CutsAsked<'a> {
    /// The page's unit.
    pub unit: Unit,
    /// Where everything lies.
    pub layout: &'a Layout,
    /// What is decided about papers.
    pub papers: &'a PaperDecisions,
    /// Items that hide nothing.
    pub see_through: &'a BTreeSet<String>,
    /// Papers and tools, and how many of each this page may take.
    pub stash: &'a BTreeMap<String, InStash<'a>>,
    /// What is decided and done about cutting.
    pub cut: &'a CutDecisions,
}

/// A way out where paper is short.
#[derive(Clone, Debug, PartialEq)]
pub struct Cure {
    /// The paper's id in the stash.
    pub paper: String,
    /// What to do.
    pub text: String,
    /// How many pieces still have no place then.
    pub still_short: usize,
    /// The change of the papers section that does it; none where something else has to be done: at another station, or in the shop.
    pub patch: Option<Value>,
}

/// A way out before it is tried.
struct Way {
    text: String,
    change: Change,
}

enum Change {
    /// These pieces are decided otherwise.
    Pieces(BTreeMap<(String, usize), PieceChange>),
    /// So many sheets more.
    Sheets(u32),
    /// Mats are so much narrower all round.
    Borders(Length),
    /// One mat fewer, and its photo.
    OneMatLess,
}

#[derive(Clone, Copy)]
enum PieceChange {
    Lean,
    Tuck(Length),
    Strips,
}

/// What could give for each paper that is short, those first after which nothing is lacking.
#[must_use]
pub fn cures(asked: &CutsAsked<'_>, found: &PageCuts, cancel: &Cancel) -> Vec<Cure> {
    let short: BTreeSet<&str> = found.short.iter().map(|s| s.name.as_str()).collect();
    let listed = found
        .list
        .iter()
        .filter(|l| short.contains(l.name.as_str()));
    let mut lacking: BTreeMap<&str, usize> = BTreeMap::new();
    for piece in listed {
        *lacking.entry(piece.paper.item.as_str()).or_insert(0) += 1;
    }
    lacking
        .into_iter()
        .flat_map(|(paper, count)| asked.cures_of(paper, count, cancel))
        .collect()
}

impl CutsAsked<'_> {
    fn cures_of(&self, paper: &str, lacking: usize, cancel: &Cancel) -> Vec<Cure> {
        let whole = papered(self.unit, self.layout, self.papers, self.see_through);
        let own = only_of(whole, paper);
        let mut helping: Vec<Cure> = Vec::new();
        for way in self.ways(&own) {
            let still_short = self.still_short(&own, paper, &way.change, cancel);
            // What takes more sheets than another way that is told already adds nothing to it.
            let is_more_of_the_same = matches!(way.change, Change::Sheets(n) if n > 1)
                && helping.iter().any(|c| c.still_short == 0);
            if still_short < lacking && !is_more_of_the_same {
                helping.push(Cure {
                    paper: paper.to_owned(),
                    text: way.text,
                    still_short,
                    patch: self.patch(&way.change),
                });
            }
        }
        helping.sort_by_key(|c| c.still_short);
        helping.truncate(MOST_TOLD);
        helping
    }

    fn ways(&self, own: &Papered) -> Vec<Way> {
        let pieces = |change: PieceChange, serves: &dyn Fn(&PaperedPiece) -> bool| {
            let of = own.pieces.iter().filter(|p| serves(p));
            Change::Pieces(of.filter_map(|p| Some((p.of.clone()?, change))).collect())
        };
        let is_whole = |p: &PaperedPiece| self.cut_of(p) == CutSize::Whole;
        let is_mat = |p: &PaperedPiece| p.kind == Some(Kind::Mat);
        let mut ways = vec![Way {
            text: "Cut lean in place of whole".to_owned(),
            change: pieces(PieceChange::Lean, &is_whole),
        }];
        for tuck in [Length::inches(1, 4), Length::inches(1, 8)] {
            ways.push(Way {
                text: format!("Tuck only {} under neighbours", self.told(tuck)),
                change: pieces(PieceChange::Tuck(tuck), &|p| self.tuck_of(p) > tuck),
            });
        }
        ways.push(Way {
            text: "Put mats together from four strips: only the border shows".to_owned(),
            change: pieces(PieceChange::Strips, &|p| is_mat(p) && p.slice.is_none()),
        });
        ways.retain(|w| !matches!(&w.change, Change::Pieces(all) if all.is_empty()));
        if own.pieces.iter().any(is_mat) {
            for border in [Length::inches(1, 16), Length::inches(1, 8)] {
                ways.push(Way {
                    text: format!("Make the mats' borders {} narrower", self.told(border)),
                    change: Change::Borders(border),
                });
            }
        }
        for more in 1..=MORE_SHEETS {
            let text = match more {
                1 => "Take one more sheet".to_owned(),
                _ => format!("Take {more} more sheets"),
            };
            ways.push(Way {
                text,
                change: Change::Sheets(more),
            });
        }
        if own.pieces.iter().any(is_mat) {
            ways.push(Way {
                text: "Leave one photo out, with its mat".to_owned(),
                change: Change::OneMatLess,
            });
        }
        ways
    }

    fn told(&self, length: Length) -> String {
        length.to_ruler_text(self.unit)
    }

    fn cut_of(&self, piece: &PaperedPiece) -> CutSize {
        let choice = piece.of.as_ref().and_then(|of| self.papers.pieces.get(of));
        choice.and_then(|c| c.cut).unwrap_or(self.papers.cut)
    }

    fn tuck_of(&self, piece: &PaperedPiece) -> Length {
        let choice = piece.of.as_ref().and_then(|of| self.papers.pieces.get(of));
        choice.and_then(|c| c.tuck).unwrap_or(self.papers.tuck)
    }

    /// How many pieces of a paper have no place once something is changed.
    fn still_short(&self, own: &Papered, paper: &str, change: &Change, cancel: &Cancel) -> usize {
        let changed = match change {
            Change::Pieces(all) => {
                let decisions = self.with(all);
                let whole = papered(self.unit, self.layout, &decisions, self.see_through);
                only_of(whole, paper)
            }
            Change::Borders(by) => narrower(own, *by),
            Change::OneMatLess => without_largest_mat(own),
            Change::Sheets(_) => own.clone(),
        };
        let more = match change {
            Change::Sheets(more) => *more,
            _ => 0,
        };
        let stash: BTreeMap<String, InStash<'_>> = self
            .stash
            .iter()
            .map(|(id, thing)| {
                let more = if id == paper { more } else { 0 };
                let free = thing.free + more;
                (id.clone(), InStash { free, ..*thing })
            })
            .collect();
        let cuts = page_cuts(self.unit, &changed, &stash, self.cut, cancel);
        cuts.short.len()
    }

    fn with(&self, changes: &BTreeMap<(String, usize), PieceChange>) -> PaperDecisions {
        let mut decisions = self.papers.clone();
        for (of, change) in changes {
            let choice = decisions.pieces.entry(of.clone()).or_default();
            match change {
                PieceChange::Lean => choice.cut = Some(CutSize::Lean),
                PieceChange::Tuck(tuck) => choice.tuck = Some(*tuck),
                PieceChange::Strips => choice.cut_as = CutAs::Strips,
            }
        }
        decisions
    }

    /// The change as a patch of the papers section.
    fn patch(&self, change: &Change) -> Option<Value> {
        let Change::Pieces(all) = change else {
            return None;
        };
        let mut pieces = Map::new();
        for ((block, part), change) in all {
            let written = match change {
                PieceChange::Lean => json!({"cut": CutSize::Lean.name()}),
                PieceChange::Tuck(tuck) => json!({"tuck": number(tuck.to_units(self.unit))}),
                PieceChange::Strips => json!({"cut_as": "strips"}),
            };
            let parts = pieces.entry(block.clone()).or_insert_with(|| json!({}));
            parts[part.to_string()] = written;
        }
        Some(json!({"pieces": pieces}))
    }
}

fn only_of(mut whole: Papered, paper: &str) -> Papered {
    let is_of = |p: &PaperedPiece| p.paper.as_ref().is_some_and(|own| own.item == paper);
    whole.pieces.retain(is_of);
    whole.extras.retain(is_of);
    whole
}

fn narrower(own: &Papered, by: Length) -> Papered {
    let mut changed = own.clone();
    let by = by.ticks() as f64;
    let mats = changed.pieces.iter_mut().chain(&mut changed.extras);
    for piece in mats.filter(|p| p.kind == Some(Kind::Mat)) {
        let cut = &mut piece.piece.cut;
        if cut.w() > 4.0 * by && cut.h() > 4.0 * by {
            cut.l += by;
            cut.t += by;
            cut.r -= by;
            cut.b -= by;
        }
    }
    changed
}

fn without_largest_mat(own: &Papered) -> Papered {
    let mut changed = own.clone();
    let mats = changed.pieces.iter().enumerate();
    let largest = mats
        .filter(|(_, p)| p.kind == Some(Kind::Mat))
        .max_by(|a, b| a.1.piece.cut.area().total_cmp(&b.1.piece.cut.area()))
        .map(|(n, _)| n);
    if let Some(n) = largest {
        changed.pieces.remove(n);
    }
    changed
}

impl Cure {
    /// Writes it.
    #[must_use]
    pub fn to_json(&self) -> Value {
        json!({"paper": self.paper, "text": self.text, "still_short": self.still_short, "patch": self.patch})
    }
}
