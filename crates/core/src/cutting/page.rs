//! A page's pieces cut from the stash: the list of what is cut, the sheets with their cuts, and what is short before the first cut.

use super::decisions::CutDecisions;
use super::job::{Area, CutJob, CutPiece, Preference, Stock};
use super::sheet::{OnSheetPart, PlannedSheet};
use super::steps::{CutStep, Trimmer};
use crate::Cancel;
use crate::document::number;
use crate::geometry::{Axis, Edge, Span};
use crate::length::Unit;
use crate::papers::{PaperSide, Papered, PaperedPiece};
use crate::sketch::{Kind, Shape};
use crate::stash::{Direction, Item, ItemKind, usable};
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

/// Sizes nearer to each other than this, in ticks, are the same to a knife: 1/64 in.
const HAIR: i64 = 203_200 / 64;

/// A thing of the stash, and how many of it this page may take.
#[derive(Clone, Debug)]
pub struct InStash<'a> {
    /// What it is.
    pub item: &'a Item,
    /// How many.
    pub free: u32,
}

/// How far a piece is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CutState {
    /// It has a place on a sheet, and is not cut yet.
    ToCut,
    /// It is cut.
    Cut,
    /// It is a whole sheet: nothing is cut.
    Whole,
    /// It has no place.
    Short,
}

impl CutState {
    /// Its document name.
    pub const fn name(self) -> &'static str {
        match self {
            CutState::ToCut => "to-cut",
            CutState::Cut => "cut",
            CutState::Whole => "whole",
            CutState::Short => "short",
        }
    }
}

/// A piece on the cut list.
#[derive(Clone, Debug, PartialEq)]
pub struct ListedCut {
    /// What the plan calls it.
    pub name: String,
    /// Its layout block; a ground's own name.
    pub block: String,
    /// What it is cut from.
    pub paper: PaperSide,
    /// What shows: across and down, in ticks.
    pub shows: (i64, i64),
    /// What is cut, in ticks.
    pub cut: (i64, i64),
    /// With what.
    pub tool: String,
    /// Less than 1/8 in of it goes under a neighbour: a slip of the blade would show.
    pub is_tight: bool,
    /// How far it is.
    pub state: CutState,
    /// Which sheet, by its place.
    pub sheet: Option<usize>,
}

/// A piece that has no place, and why.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ShortPiece {
    /// What the plan calls it.
    pub name: String,
    /// Why.
    pub why: String,
}

/// What is to be cut for a page, and how.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PageCuts {
    /// The trimmer that was counted on.
    pub trimmer: Trimmer,
    /// Every piece.
    pub list: Vec<ListedCut>,
    /// Sheets that are begun, then the others.
    pub sheets: Vec<PlannedSheet>,
    /// What has no place.
    pub short: Vec<ShortPiece>,
    /// Cut already, and no longer what the page asks for.
    pub outdated: Vec<String>,
    /// The search was stopped before it ended.
    pub is_stopped: bool,
}

/// Plans what is to be cut. Sheets that are begun stay as they are; what came out of them rightly is not planned again, and the rests of those
/// that are cut to the end are scraps.
pub fn page_cuts(
    unit: Unit,
    papered: &Papered,
    stash: &BTreeMap<String, InStash<'_>>,
    decisions: &CutDecisions,
    cancel: &Cancel,
) -> PageCuts {
    let trimmer = trimmer(stash, decisions);
    let wanted: Vec<(&PaperedPiece, &PaperSide)> = papered
        .to_cut()
        .filter_map(|p| Some((p, p.paper.as_ref()?)))
        .collect();
    let begun: Vec<&PlannedSheet> = decisions.begun.iter().filter(|s| s.done > 0).collect();
    let on_begun = on_begun_sheets(&begun);
    let is_there = |p: &PaperedPiece, paper: &PaperSide| {
        on_begun.get(p.name().as_str()).is_some_and(|(sheet, at)| {
            thing_of(begun[*sheet]) == paper.item && fits(at, size_of(p))
        })
    };
    let still: Vec<&(&PaperedPiece, &PaperSide)> = wanted
        .iter()
        .filter(|(p, paper)| !is_there(p, paper))
        .collect();
    let mut job = job(unit, trimmer, &still, stash, &begun);
    job.stock.extend(middles(&wanted, &begun));
    job.prefers = decisions.prefers;
    hold(&mut job, decisions);
    let planned = job.planned(cancel);
    let sheets = in_order(
        &wanted,
        &begun,
        planned.sheets.iter().map(|s| PlannedSheet::new(&job, s)),
    );
    let short = planned.short.iter().map(|s| {
        let piece = &job.pieces[s.piece];
        let name = stash.get(&piece.paper).map(|thing| &thing.item.name);
        ShortPiece {
            name: piece.id.clone(),
            why: name.map_or_else(|| s.why.clone(), |n| s.why.replace(&piece.paper, n)),
        }
    });
    let short: Vec<ShortPiece> = short.collect();
    let served: BTreeSet<String> = wanted
        .iter()
        .filter(|(p, paper)| is_there(p, paper))
        .map(|(p, _)| p.name())
        .collect();
    let outdated = on_begun.keys().filter(|name| !served.contains(**name));
    PageCuts {
        trimmer,
        outdated: outdated.map(|n| (*n).to_owned()).collect(),
        list: wanted
            .iter()
            .map(|(p, paper)| listed(p, paper, stash, &sheets, &short))
            .collect(),
        sheets,
        short,
        is_stopped: planned.is_stopped,
    }
}

impl PageCuts {
    /// Writes it, in the page's unit.
    #[must_use]
    pub fn to_json(&self, unit: Unit) -> Value {
        let ticks = unit.ticks() as f64;
        let side = |v: i64| number(v as f64 / ticks);
        let size = |(w, h): (i64, i64)| json!({"w": side(w), "h": side(h)});
        let step = |s: &CutStep| {
            json!({"first": s.first, "times": s.times, "setting": side(s.setting), "from_far_edge": s.from_far_edge,
                   "along": if s.along == Axis::X { "x" } else { "y" }, "beyond_reach": s.beyond_reach, "done": s.done, "text": s.text})
        };
        let sheets: Vec<Value> = self
            .sheets
            .iter()
            .map(|sheet| {
                let mut written = sheet.to_json(unit);
                let steps = sheet.steps(self.trimmer, unit);
                written["steps"] = steps.iter().map(step).collect();
                written["used"] = json!(sheet.used());
                written
            })
            .collect();
        let list: Vec<Value> = self
            .list
            .iter()
            .map(|l| {
                json!({"name": l.name, "block": l.block, "paper": {"item": l.paper.item, "side": l.paper.side()},
                       "shows": size(l.shows), "cut": size(l.cut), "tool": l.tool, "tight": l.is_tight, "state": l.state.name(), "sheet": l.sheet})
            })
            .collect();
        let short: Vec<Value> = self
            .short
            .iter()
            .map(|s| json!({"name": s.name, "why": s.why}))
            .collect();
        json!({"unit": unit.name(), "reach": side(self.trimmer.reach), "finest": side(self.trimmer.finest), "list": list,
               "sheets": sheets, "short": short, "outdated": self.outdated, "stopped": self.is_stopped})
    }
}

/// Sheets in the order in which the list names their papers, so that none changes its place when it is begun; what is used whole comes last.
/// New ones of a thing are counted past those that are begun.
fn in_order(
    wanted: &[(&PaperedPiece, &PaperSide)],
    begun: &[&PlannedSheet],
    planned: impl Iterator<Item = PlannedSheet>,
) -> Vec<PlannedSheet> {
    let mut sheets: Vec<PlannedSheet> = begun.iter().map(|s| (*s).clone()).collect();
    for mut sheet in planned {
        let is_taken = |copy: u32| {
            sheets
                .iter()
                .any(|s| s.item == sheet.item && s.copy == copy)
        };
        sheet.copy = (1..).find(|c| !is_taken(*c)).unwrap_or(sheet.copy);
        sheets.push(sheet);
    }
    let named = |sheet: &PlannedSheet| {
        let thing = thing_of(sheet);
        wanted.iter().position(|(_, p)| p.item == thing)
    };
    sheets.sort_by_key(|s| (s.cuts.is_empty(), named(s), s.item.clone(), s.copy));
    sheets
}

/// The trimmer that is chosen, or the one with the longest reach; without one a usual one is counted on.
fn trimmer(stash: &BTreeMap<String, InStash<'_>>, decisions: &CutDecisions) -> Trimmer {
    let can = |thing: &InStash<'_>| {
        let tool = &thing.item.tool;
        Some(Trimmer {
            reach: tool.reach?.ticks(),
            finest: tool
                .finest
                .map_or(Trimmer::default().finest, |f| f.ticks().max(1)),
        })
    };
    let chosen = decisions.trimmer.as_ref().and_then(|id| stash.get(id));
    let longest = || stash.values().filter_map(can).max_by_key(|t| t.reach);
    chosen.and_then(can).or_else(longest).unwrap_or_default()
}

/// What is right on sheets that are begun, by its name: which sheet, and what it is there.
fn on_begun_sheets<'a>(begun: &[&'a PlannedSheet]) -> BTreeMap<&'a str, (usize, &'a OnSheetPart)> {
    let all = begun.iter().enumerate();
    all.flat_map(|(n, sheet)| {
        let right = sheet
            .pieces
            .iter()
            .filter(|p| !sheet.wrong.contains(&p.name));
        right.map(move |p| (p.name.as_str(), (n, p)))
    })
    .collect()
}

fn size_of(piece: &PaperedPiece) -> (i64, i64) {
    let size = piece.size_to_cut();
    (size.w.ticks(), size.h.ticks())
}

/// Whether what lies on a sheet is what is wanted.
fn fits(at: &OnSheetPart, (w, h): (i64, i64)) -> bool {
    let (w, h) = if at.is_turned { (h, w) } else { (w, h) };
    (at.area.w - w).abs() <= HAIR && (at.area.h - h).abs() <= HAIR
}

fn job(
    unit: Unit,
    trimmer: Trimmer,
    wanted: &[&(&PaperedPiece, &PaperSide)],
    stash: &BTreeMap<String, InStash<'_>>,
    begun: &[&PlannedSheet],
) -> CutJob {
    let may_turn = |paper: &PaperSide| {
        let item = stash.get(&paper.item).map(|s| s.item);
        let side = item.map(|i| i.side(paper.side()).unwrap_or(&i.a));
        side.is_none_or(|s| s.direction == Direction::Any)
    };
    let pieces = wanted.iter().map(|(p, paper)| {
        let (w, h) = size_of(p);
        CutPiece {
            id: p.name(),
            paper: paper.item.clone(),
            w,
            h,
            quantity: 1,
            may_turn: may_turn(paper),
            only_from: None,
        }
    });
    let used: BTreeSet<&str> = wanted.iter().map(|(_, p)| p.item.as_str()).collect();
    let of_stash = stash.iter().filter(|(id, _)| used.contains(id.as_str()));
    let mut stock: Vec<Stock> = of_stash
        .filter_map(|(id, thing)| stock_of(id, thing, begun))
        .collect();
    stock.extend(rests_of(begun, &used));
    CutJob {
        unit,
        reach: trimmer.reach,
        finest: trimmer.finest,
        seconds: 0.0,
        prefers: Preference::default(),
        stock,
        pieces: pieces.collect(),
    }
}

/// Whole sheets of a thing that are not begun, with what spoils them.
fn stock_of(id: &str, thing: &InStash<'_>, begun: &[&PlannedSheet]) -> Option<Stock> {
    let size = thing.item.size?;
    let (w, h) = (size.w.ticks(), size.h.ticks());
    let begun = begun.iter().filter(|s| s.item == id && s.copy > 0).count();
    let mut spoiled: Vec<Area> = thing
        .item
        .bites
        .iter()
        .map(|b| area(Span::from(*b)))
        .collect();
    if let Some(strip) = thing.item.strip {
        let clean = usable(size, Some(strip));
        spoiled.extend(beside(clean, w, h));
    }
    Some(Stock {
        id: id.to_owned(),
        paper: id.to_owned(),
        w,
        h,
        quantity: thing
            .free
            .saturating_sub(u32::try_from(begun).unwrap_or(u32::MAX)),
        is_scrap: thing.item.kind == ItemKind::Scrap,
        spoiled,
    })
}

fn area(span: Span) -> Area {
    let at = |v: f64| v.round() as i64;
    Area {
        x: at(span.l),
        y: at(span.t),
        w: at(span.w()),
        h: at(span.h()),
    }
}

/// The stash's thing that a sheet is of: rests and hidden middles are named by what they come from.
fn thing_of(sheet: &PlannedSheet) -> &str {
    sheet.item.split('#').next().unwrap_or(&sheet.item)
}

/// What of a sheet lies beside its clean part.
fn beside(clean: Span, w: i64, h: i64) -> Vec<Area> {
    let clean = area(clean);
    let (right, bottom) = (clean.x + clean.w, clean.y + clean.h);
    let all = [
        Area {
            x: 0,
            y: 0,
            w: clean.x,
            h,
        },
        Area {
            x: right,
            y: 0,
            w: w - right,
            h,
        },
        Area {
            x: 0,
            y: 0,
            w,
            h: clean.y,
        },
        Area {
            x: 0,
            y: bottom,
            w,
            h: h - bottom,
        },
    ];
    all.into_iter().filter(|a| a.w > 0 && a.h > 0).collect()
}

/// What is left of sheets that are cut to the end, unless it is begun itself.
fn rests_of<'a>(
    begun: &'a [&PlannedSheet],
    used: &'a BTreeSet<&str>,
) -> impl Iterator<Item = Stock> + 'a {
    let cut = begun
        .iter()
        .filter(|s| s.is_cut() && used.contains(thing_of(s)));
    let rests = cut.flat_map(|sheet| {
        sheet.rests.iter().map(|rest| Stock {
            id: format!("{}#{}{}", sheet.item, sheet.copy, rest.part),
            paper: thing_of(sheet).to_owned(),
            w: rest.area.w,
            h: rest.area.h,
            quantity: 1,
            is_scrap: true,
            spoiled: Vec::new(),
        })
    });
    rests.filter(|stock| !begun.iter().any(|s| s.item == stock.id))
}

/// What comes out of the hidden middles of pieces that are gutted, unless it is begun already. It is cut from what covers it last, and is a
/// scrap of the same paper.
fn middles<'a>(
    wanted: &'a [(&PaperedPiece, &PaperSide)],
    begun: &'a [&PlannedSheet],
) -> impl Iterator<Item = Stock> + 'a {
    let gutted = wanted.iter().flat_map(|(p, paper)| {
        let holes = p.holes();
        let count = holes.len();
        holes.into_iter().enumerate().map(move |(n, hole)| {
            let hole = area(hole);
            let which = if count > 1 {
                format!(":{}", n + 1)
            } else {
                String::new()
            };
            Stock {
                id: format!("{}#{}{which}", paper.item, p.name()),
                paper: paper.item.clone(),
                w: hole.w,
                h: hole.h,
                quantity: 1,
                is_scrap: true,
                spoiled: Vec::new(),
            }
        })
    });
    gutted.filter(|stock| !begun.iter().any(|s| s.item == stock.id))
}

fn listed(
    piece: &PaperedPiece,
    paper: &PaperSide,
    stash: &BTreeMap<String, InStash<'_>>,
    sheets: &[PlannedSheet],
    short: &[ShortPiece],
) -> ListedCut {
    let name = piece.name();
    let holds = |s: &PlannedSheet| {
        !s.wrong.contains(&name)
            && s.pieces
                .iter()
                .any(|p| p.name == name && fits(p, size_of(piece)))
    };
    let sheet = sheets.iter().position(holds);
    let state = match sheet.map(|n| &sheets[n]) {
        _ if short.iter().any(|s| s.name == name) => CutState::Short,
        None => CutState::Short,
        Some(sheet) => state_on(sheet, &name),
    };
    let shows = area(piece.piece.shows);
    ListedCut {
        block: piece.piece.block.clone(),
        paper: paper.clone(),
        shows: (shows.w, shows.h),
        cut: size_of(piece),
        tool: punch_for(piece, stash).unwrap_or_else(|| tool_for(piece).to_owned()),
        is_tight: is_tight(piece),
        state,
        sheet,
        name,
    }
}

/// How far a piece is on its sheet.
fn state_on(sheet: &PlannedSheet, name: &str) -> CutState {
    let part = sheet
        .pieces
        .iter()
        .find(|p| p.name == name)
        .map(|p| &p.part);
    let made = sheet
        .cuts
        .iter()
        .position(|c| part.is_some_and(|p| c.makes.contains(p)));
    match made {
        None => CutState::Whole,
        Some(n) if n < sheet.done => CutState::Cut,
        Some(_) => CutState::ToCut,
    }
}

/// Less to spare than this, in ticks, is little for a hand: 1/8 in.
const LITTLE: f64 = 25_400.0;

/// Whether so little of a piece goes under a neighbour that it had better be cut large, laid down, marked and trimmed again.
fn is_tight(piece: &PaperedPiece) -> bool {
    let tucked = |side: &Edge| match side {
        Edge::Left => piece.piece.tucked.left,
        Edge::Right => piece.piece.tucked.right,
        Edge::Top => piece.piece.tucked.top,
        Edge::Bottom => piece.piece.tucked.bottom,
    };
    let is_little = |side: &Edge| tucked(side) > 1.0 && tucked(side) < LITTLE - 1.0;
    piece.under.iter().any(|(side, _)| is_little(side))
}

/// The punch or die of the stash that cuts a unit.
fn punch_for(piece: &PaperedPiece, stash: &BTreeMap<String, InStash<'_>>) -> Option<String> {
    piece.unit.as_ref()?;
    let size = piece.size_to_cut();
    let punch = stash.values().find(|thing| thing.item.punches(size))?;
    Some(punch.item.name.clone())
}

fn is_square(piece: &PaperedPiece) -> bool {
    let (w, h) = size_of(piece);
    (w - h).abs() <= HAIR
}

/// Pieces come from the stock that their maker wants, as she wants them to lie. A lock on stock that isn't there any more holds nothing.
fn hold(job: &mut CutJob, decisions: &CutDecisions) {
    let there: BTreeSet<(String, String)> = job
        .stock
        .iter()
        .map(|s| (s.id.clone(), s.paper.clone()))
        .collect();
    for piece in &mut job.pieces {
        if let Some(lock) = decisions.locks.get(&piece.id) {
            let is_there = |id: &String| there.contains(&(id.clone(), piece.paper.clone()));
            piece.only_from = lock.from.clone().filter(is_there);
            piece.may_turn &= !lock.is_upright;
        }
    }
}

/// With what the piece gets its shape.
fn tool_for(piece: &PaperedPiece) -> &'static str {
    match (&piece.shape, piece.kind) {
        (Some(Shape::Rect), _) | (None, _) => "trimmer",
        (Some(Shape::Ellipse), _) => "trimmer, then a round template and scissors",
        (Some(Shape::Triangle(_)), _) if is_square(piece) => {
            "trimmer, then folded corner to corner and cut along the fold"
        }
        (Some(Shape::Triangle(_)), _) => "trimmer, then a line from corner to corner and scissors",
        (Some(_), Some(Kind::Accent)) => "trimmer, then scissors or a die",
        (Some(_), _) => "trimmer, then scissors",
    }
}
