//! What an experienced eye sees on a whole page, with its papers, photos and clusters: a file a check. docs/CHECKS.md tells each measure
//! and where it comes from.
//!
//! A finding may have cures; each is a change of the clusters that was tried: with it the finding is gone and no other has come.

mod alone;
mod at_edge;
mod busy;
mod contrast;
mod hidden;
mod in_sight;
mod mats;
mod thickness;
mod triangle;
mod weight;
mod white;

pub use triangle::Triangle;

use crate::clusters::{ClusterDecisions, LaidClusters, Thing, laid};
use crate::fit::PhotoDecisions;
use crate::geometry::Span;
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::stash::{Colour, Side};
use crate::words::WordsElsewhere;
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};

/// A finding has at most so many cures.
const MOST_CURES: usize = 2;

/// A page with all that was decided about it.
#[derive(Clone, Debug)]
pub struct LookOver<'a> {
    /// In which sentences speak.
    pub unit: Unit,
    /// Where everything lies.
    pub layout: &'a Layout,
    /// The photos, their lifts, and the protector's room.
    pub photos: &'a PhotoDecisions,
    /// What is seen of papers, by the sketch's block and part.
    pub papers: BTreeMap<(String, usize), Side>,
    /// What is seen of the pages' own papers.
    pub grounds: [Option<Side>; 2],
    /// The main colours of prints, by their ids.
    pub photo_colours: BTreeMap<String, Vec<Colour>>,
    /// The colour of the title's letters.
    pub title: Option<Colour>,
    /// Words that stand in no block of their own.
    pub words_elsewhere: WordsElsewhere,
    /// The clusters.
    pub clusters: &'a ClusterDecisions,
    /// The things of the stash, by id.
    pub things: BTreeMap<String, Thing>,
    /// How many of each thing this page may still take.
    pub free: BTreeMap<String, u32>,
}

/// Something to look at.
#[derive(Clone, Debug, PartialEq)]
pub struct PageFinding {
    /// Which check.
    pub what: &'static str,
    /// The same as long as the matter is the same.
    pub key: String,
    /// Where, in ticks.
    pub place: Option<Span>,
    /// The blocks that it is about, by their places in the layout.
    pub blocks: Vec<usize>,
    /// In words; blocks go by their layout ids.
    pub text: String,
    /// What would cure it.
    pub cures: Vec<PageCure>,
}

/// A change of the clusters that cures a finding.
#[derive(Clone, Debug, PartialEq)]
pub struct PageCure {
    /// In words.
    pub text: String,
    /// A merge patch of the clusters section.
    pub patch: Value,
}

/// What was seen.
#[derive(Clone, Debug, PartialEq)]
pub struct LookedOver {
    /// The clusters as they lie.
    pub laid: LaidClusters,
    /// The triangle that three clusters make.
    pub triangle: Option<Triangle>,
    /// What to look at.
    pub findings: Vec<PageFinding>,
    /// Checks that found nothing, though there was something to look at.
    pub fine: Vec<&'static str>,
}

/// A check: none where there is nothing to look at.
type Look = fn(&Seen<'_>) -> Option<Vec<PageFinding>>;

/// All checks, in the order in which findings are told.
const CHECKS: [(&str, Look); 11] = [
    ("in-sight", in_sight::look),
    ("hidden", hidden::look),
    ("thickness", thickness::look),
    ("contrast", contrast::look),
    ("busy", busy::look),
    ("triangle", triangle::look),
    ("alone", alone::look),
    ("weight", weight::look),
    ("white", white::look),
    ("mats", mats::look),
    ("at-edge", at_edge::look),
];

/// The page as checks see it.
struct Seen<'a> {
    page: &'a LookOver<'a>,
    laid: &'a LaidClusters,
}

impl<'a> Seen<'a> {
    fn id(&self, block: usize) -> &'a str {
        self.page.layout.blocks[block].block.id.as_str()
    }

    /// What is seen of a block's paper.
    fn side(&self, block: usize) -> Option<&Side> {
        let identities = self.page.layout.identities();
        let of = identities.get(block)?;
        self.page.papers.get(&(of.block.to_owned(), of.part))
    }

    fn length(&self, ticks: f64) -> String {
        let step = Length::inches(1, 16);
        let length = Length::from_ticks(ticks.round() as i64);
        match self.page.unit {
            Unit::Inch => length.round_to(step).to_ruler_text(self.page.unit),
            Unit::Millimetre => length
                .round_to(Length::from_ticks(Unit::Millimetre.ticks()))
                .to_ruler_text(self.page.unit),
        }
    }
}

impl LookOver<'_> {
    /// Looks at the page, and for cures.
    #[must_use]
    pub fn looked_over(&self) -> LookedOver {
        let (laid, mut findings, fine) = self.look(self.clusters);
        let triangle = triangle::of(self.layout, &laid);
        let before: BTreeSet<String> = findings.iter().map(|f| f.key.clone()).collect();
        for finding in &mut findings {
            let tried = std::mem::take(&mut finding.cures);
            let good = tried
                .into_iter()
                .filter(|cure| self.cures(cure, &finding.key, &before));
            finding.cures = good.take(MOST_CURES).collect();
        }
        LookedOver {
            laid,
            triangle,
            findings,
            fine,
        }
    }

    fn look(
        &self,
        clusters: &ClusterDecisions,
    ) -> (LaidClusters, Vec<PageFinding>, Vec<&'static str>) {
        let prints = self.photos.photos.prints();
        let laid = laid(
            self.layout,
            clusters,
            &self.things,
            prints,
            self.words_elsewhere,
        );
        let page = LookOver {
            clusters,
            ..self.clone()
        };
        let seen = Seen {
            page: &page,
            laid: &laid,
        };
        let (mut findings, mut fine) = (Vec::new(), Vec::new());
        for (name, look) in CHECKS {
            if clusters.off.contains(name) {
                continue;
            }
            match look(&seen) {
                Some(found) if found.is_empty() => fine.push(name),
                Some(found) => findings.extend(found),
                None => {}
            }
        }
        (laid, findings, fine)
    }

    /// Whether a change takes a finding away and brings no other.
    fn cures(&self, cure: &PageCure, key: &str, before: &BTreeSet<String>) -> bool {
        let mut section = self.clusters.to_json(self.unit);
        json_patch::merge(&mut section, &cure.patch);
        let Ok(changed) = ClusterDecisions::from_json(&section, self.unit) else {
            return false;
        };
        let (_, after, _) = self.look(&changed);
        after
            .iter()
            .all(|f| f.key != key && before.contains(&f.key))
    }
}
