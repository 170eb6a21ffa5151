//! Papers dealt out over the equal units of a grid or ring.

use super::deal::{Deal, Dealt, PaperToDeal, PlaceToFill};
use super::decisions::{PaperDecisions, PaperSide};
use super::papered::{Papered, PaperedPiece};
use super::yields::yields;
use crate::geometry::Size;
use crate::stash::{Direction, Item};
use std::collections::BTreeMap;

/// Units whose middles are no further apart than this, in shares of the smallest distance, are neighbours: those beside and over one another,
/// and those of a staggered row, but not those at a corner.
const NEIGHBOURS: f64 = 1.2;

/// How papers are to be dealt out.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Dealing {
    /// Equal papers as far apart as can be.
    #[default]
    Spread,
    /// One, two, three along every row, each row one further.
    InRhythm,
}

/// How papers were dealt out over units.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct DealtUnits {
    /// Each unit's paper.
    pub units: BTreeMap<String, PaperSide>,
    /// Neighbours with the same paper.
    pub met: Vec<(String, String)>,
    /// Units that got none.
    pub short: usize,
}

/// A paper and how many sheets of it are free.
pub struct FreePaper<'a> {
    /// Which.
    pub paper: PaperSide,
    /// The thing.
    pub item: &'a Item,
    /// Sheets.
    pub free: u32,
}

impl Papered {
    /// The units of a block's part, those that show.
    pub fn units_of(&self, of: &(String, usize)) -> Vec<&PaperedPiece> {
        let own = self.pieces.iter().filter(|p| p.of.as_ref() == Some(of));
        own.filter(|p| p.unit.is_some()).collect()
    }

    /// Deals papers out over the units of a block's part; units that she locked keep theirs.
    pub fn dealt(
        &self,
        decisions: &PaperDecisions,
        of: &(String, usize),
        papers: &[FreePaper<'_>],
        (how, seed): (Dealing, u64),
    ) -> DealtUnits {
        let units = self.units_of(of);
        let Some(largest) = largest(&units) else {
            return DealtUnits::default();
        };
        let choice = decisions.pieces.get(of);
        let locked = |unit: &PaperedPiece| {
            let (choice, name) = (choice?, unit.unit.as_ref()?);
            let paper = choice
                .units
                .get(name)
                .filter(|_| choice.locked.contains(name))?;
            papers.iter().position(|p| p.paper == *paper)
        };
        let locks: Vec<Option<usize>> = units.iter().map(|u| locked(u)).collect();
        let deal = Deal {
            seed,
            reach: reach(&units),
            places: units.iter().map(|u| place(u)).collect(),
            papers: papers
                .iter()
                .enumerate()
                .map(|(n, p)| to_deal(p, largest, locks.iter().filter(|l| **l == Some(n)).count()))
                .collect(),
            locks,
        };
        let dealt = match how {
            Dealing::Spread => deal.dealt(),
            Dealing::InRhythm => in_rhythm(&deal, &units),
        };
        let name = |n: usize| units[n].unit.clone().unwrap_or_default();
        let given = dealt.papers.iter().enumerate();
        DealtUnits {
            units: given
                .filter_map(|(n, paper)| Some((name(n), papers[(*paper)?].paper.clone())))
                .collect(),
            met: dealt
                .met
                .iter()
                .map(|(a, b)| (name(*a), name(*b)))
                .collect(),
            short: dealt.papers.iter().filter(|p| p.is_none()).count(),
        }
    }
}

/// Papers one after another along the rows, or round a ring; where one has run out its place stays empty.
fn in_rhythm(deal: &Deal, units: &[&PaperedPiece]) -> Dealt {
    let count = deal.papers.len().max(1);
    let locked = |n: usize| deal.locks.iter().filter(|l| **l == Some(n)).count();
    let mut left: Vec<usize> = deal.papers.iter().map(|p| p.quantity).collect();
    for (n, left) in left.iter_mut().enumerate() {
        *left = left.saturating_sub(locked(n));
    }
    // A seed may be as large as can be: only what of it turns the rhythm is added.
    let first = (deal.seed % count as u64) as usize;
    let given = units.iter().zip(&deal.locks).map(|(unit, lock)| {
        let turn = turn_of(unit) + first;
        lock.or_else(|| {
            let left = left.get_mut(turn % count).filter(|left| **left > 0)?;
            *left -= 1;
            Some(turn % count)
        })
    });
    let papers: Vec<Option<usize>> = given.collect();
    let met = deal.meetings(&papers);
    Dealt { papers, met }
}

/// A unit's turn: its row and column together, or its number on a ring.
fn turn_of(unit: &PaperedPiece) -> usize {
    let numbers = unit.unit.iter().flat_map(|u| u.split('/'));
    numbers.filter_map(|n| n.parse::<usize>().ok()).sum()
}

/// As large as the largest of them, across and down.
pub(super) fn largest(units: &[&PaperedPiece]) -> Option<Size> {
    let sizes = units.iter().map(|u| u.size_to_cut());
    sizes.reduce(|a, b| Size {
        w: a.w.max(b.w),
        h: a.h.max(b.h),
    })
}

fn to_deal(paper: &FreePaper<'_>, unit: Size, locked: usize) -> PaperToDeal {
    let side = paper.item.side(paper.paper.side()).unwrap_or(&paper.item.a);
    let each = yields(paper.item, unit, side.direction == Direction::Any);
    PaperToDeal {
        id: format!("{}:{}", paper.paper.item, paper.paper.side()),
        // What is locked holds, whatever is left.
        quantity: ((each * paper.free) as usize).max(locked),
        like: Vec::new(),
    }
}

fn place(unit: &PaperedPiece) -> PlaceToFill {
    let shows = unit.piece.shows;
    PlaceToFill {
        id: unit.piece.id.clone(),
        at: (shows.cx().round() as i64, shows.cy().round() as i64),
    }
}

/// How near neighbours lie, by the two that lie nearest.
fn reach(units: &[&PaperedPiece]) -> i64 {
    let middle = |u: &&PaperedPiece| (u.piece.shows.cx(), u.piece.shows.cy());
    let middles: Vec<(f64, f64)> = units.iter().map(middle).collect();
    let mut nearest = f64::INFINITY;
    for (n, a) in middles.iter().enumerate() {
        for b in &middles[n + 1..] {
            nearest = nearest.min((a.0 - b.0).hypot(a.1 - b.1));
        }
    }
    if nearest.is_finite() {
        (nearest * NEIGHBOURS).round() as i64
    } else {
        1
    }
}
