//! A plan of cuts: `metrosk-cutplan/1`.

use super::job::{Area, CutJob};
use super::opened::{Opened, can_take};
use super::search::{Found, plan_for};
use crate::Cancel;
use crate::document::number;
use crate::geometry::Axis;
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

const FORMAT: &str = "metrosk-cutplan/1";
/// Parts that are narrower than this are not worth a name: 1/4 in, in ticks.
const LEAST_OFFCUT: i64 = 203_200 / 4;

/// A sheet of a plan.
pub type CutSheet = Opened;

/// Pieces that have no place.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Short {
    /// Which, by its place among the job's pieces.
    pub piece: usize,
    /// How many.
    pub quantity: usize,
    /// Why.
    pub why: String,
}

/// What is cut from what, by which cuts.
#[derive(Clone, Debug, Default)]
pub struct CutPlan {
    /// Sheets, in the order in which they are cut.
    pub sheets: Vec<CutSheet>,
    /// What has no place.
    pub short: Vec<Short>,
    /// The search was stopped before it ended.
    pub is_stopped: bool,
}

impl CutJob {
    /// Plans the cuts, paper by paper.
    #[must_use]
    pub fn planned(&self, cancel: &Cancel) -> CutPlan {
        let papers: BTreeSet<&str> = self.pieces.iter().map(|p| p.paper.as_str()).collect();
        let mut plan = CutPlan::default();
        let mut missing: BTreeMap<usize, usize> = BTreeMap::new();
        // Papers have nothing to do with one another: each is planned beside the others.
        let all = std::thread::scope(|scope| {
            let begun: Vec<_> = papers
                .iter()
                .map(|paper| scope.spawn(move || self.planned_of(paper, cancel)))
                .collect();
            let ended = begun.into_iter().map(std::thread::ScopedJoinHandle::join);
            ended
                .map(|found| found.unwrap_or_else(|panic| std::panic::resume_unwind(panic)))
                .collect::<Vec<_>>()
        });
        for found in all {
            plan.is_stopped |= found.is_stopped;
            plan.sheets.extend(found.sheets);
            for piece in found.missing {
                *missing.entry(piece).or_insert(0) += 1;
            }
        }
        let short = missing.into_iter().map(|(piece, quantity)| Short {
            piece,
            quantity,
            why: self.why_short(piece),
        });
        plan.short = short.collect();
        plan
    }

    /// Plans the cuts of one paper.
    fn planned_of(&self, paper: &str, cancel: &Cancel) -> Found {
        let pieces: Vec<usize> = self
            .pieces
            .iter()
            .enumerate()
            .filter(|(_, p)| p.paper == paper)
            .flat_map(|(n, p)| std::iter::repeat_n(n, p.quantity as usize))
            .collect();
        let stock: Vec<usize> = self
            .stock
            .iter()
            .enumerate()
            .filter(|(_, s)| s.paper == paper && s.quantity > 0)
            .map(|(n, _)| n)
            .collect();
        plan_for(self, &pieces, &stock, cancel)
    }

    /// Why pieces of a kind have no place.
    fn why_short(&self, piece: usize) -> String {
        let p = &self.pieces[piece];
        if p.only_from.is_some() {
            return "the sheet that it is to come from has no room for it".to_owned();
        }
        let stock = self
            .stock
            .iter()
            .filter(|s| s.paper == p.paper && s.quantity > 0);
        let ways: &[(i64, i64)] = &[(p.w, p.h), (p.h, p.w)];
        let ways = if p.may_turn { ways } else { &ways[..1] };
        let mut is_there = false;
        for (n, s) in self.stock.iter().enumerate() {
            if s.paper != p.paper || s.quantity == 0 {
                continue;
            }
            let sheet = Opened::new(self, n, 1, 0);
            let fits = |part: Area| ways.iter().any(|way| can_take(self, part, *way));
            is_there |= sheet.free.iter().any(|part| fits(part.area));
        }
        if stock.count() == 0 {
            format!("there is no {} left", p.paper)
        } else if is_there {
            format!("the other pieces take all the {} there is", p.paper)
        } else {
            let turn = if p.may_turn {
                ""
            } else {
                " the way its pattern runs"
            };
            format!(
                "no clean part of any {} is large enough{turn}, or the trimmer does not reach",
                p.paper
            )
        }
    }
}

/// A part's name: `whole`, then A, B, … Z, AA, AB, …
pub(super) fn name_of(number: usize) -> String {
    if number == 0 {
        return "whole".to_owned();
    }
    let (mut left, mut letters) = (number, Vec::new());
    while left > 0 {
        left -= 1;
        letters.push(char::from(b'A' + (left % 26) as u8));
        left /= 26;
    }
    letters.iter().rev().collect()
}

impl CutPlan {
    /// Writes the plan for a job.
    #[must_use]
    pub fn to_json(&self, job: &CutJob) -> Value {
        let ticks = job.unit.ticks() as f64;
        let side = |v: i64| number(v as f64 / ticks);
        let mut copies = vec![0_usize; job.pieces.len()];
        let (mut used, mut opened) = (0_i128, 0_i128);
        let mut sheets = Vec::new();
        for sheet in &self.sheets {
            let stock = &job.stock[sheet.stock];
            used += sheet.used();
            opened += i128::from(stock.w) * i128::from(stock.h);
            let place = |part: usize, a: Area| json!({"part": name_of(part), "x": side(a.x), "y": side(a.y), "w": side(a.w), "h": side(a.h)});
            let cuts: Vec<Value> = sheet
                .cuts
                .iter()
                .enumerate()
                .map(|(n, cut)| {
                    let along = if cut.along == Axis::X { "x" } else { "y" };
                    json!({"step": n + 1, "part": name_of(cut.part), "along": along, "at": side(cut.at), "makes": cut.makes.map(name_of)})
                })
                .collect();
            let mut pieces = Vec::new();
            for out in &sheet.pieces {
                copies[out.piece] += 1;
                let mut written = place(out.part.number, out.part.area);
                written["id"] = json!(job.pieces[out.piece].id);
                written["copy"] = json!(copies[out.piece]);
                written["turned"] = json!(out.is_turned);
                pieces.push(written);
            }
            let left = sheet
                .free
                .iter()
                .filter(|p| p.area.w.min(p.area.h) >= LEAST_OFFCUT);
            let offcuts: Vec<Value> = left.map(|p| place(p.number, p.area)).collect();
            sheets.push(json!({"stock": stock.id, "copy": sheet.copy, "cuts": cuts, "pieces": pieces, "offcuts": offcuts}));
        }
        let short: Vec<Value> = self
            .short
            .iter()
            .map(|s| json!({"id": job.pieces[s.piece].id, "qty": s.quantity, "why": s.why}))
            .collect();
        let share = if opened > 0 {
            used as f64 / opened as f64
        } else {
            0.0
        };
        let mut plan = json!({"format": FORMAT, "unit": job.unit.name(), "sheets": sheets, "short": short, "used": number(share)});
        if self.is_stopped {
            plan["stopped"] = json!(true);
        }
        plan
    }
}
