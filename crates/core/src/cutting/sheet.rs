//! A sheet of a page's cut plan by names: as it is shown, ticked off and kept once she has begun to cut it.

use super::job::{Area, CutJob};
use super::opened::Opened;
use super::plan::name_of;
use crate::document::{Node, number};
use crate::geometry::Axis;
use crate::length::{Length, Unit};
use serde_json::{Value, json};
use std::collections::BTreeMap;

/// How many cuts one sheet may have.
const MOST_CUTS: usize = 20_000;
const LONGEST: Length = Length::LIMIT;

/// A cut across a part of a sheet.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct NamedCut {
    /// The part that is cut.
    pub part: String,
    /// Along x it runs from left to right, along y from top to bottom.
    pub along: Axis,
    /// From the part's top, or its left, in ticks.
    pub at: i64,
    /// The top or left one, and the other.
    pub makes: [String; 2],
}

/// A piece, or a clean rest, on a sheet.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OnSheetPart {
    /// The piece's name in the plan; of a rest the part's.
    pub name: String,
    /// The part that it is.
    pub part: String,
    /// Where it lies on the sheet.
    pub area: Area,
    /// Whether a piece lies across.
    pub is_turned: bool,
}

/// A sheet that is to be cut, or is being cut.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PlannedSheet {
    /// The stash's thing.
    pub item: String,
    /// Which of these, from 1.
    pub copy: u32,
    /// Across, in ticks.
    pub w: i64,
    /// Down, in ticks.
    pub h: i64,
    /// What no piece may touch.
    pub spoiled: Vec<Area>,
    /// In the order in which they are made.
    pub cuts: Vec<NamedCut>,
    /// What comes out.
    pub pieces: Vec<OnSheetPart>,
    /// Clean rests.
    pub rests: Vec<OnSheetPart>,
    /// How many of its cuts are made.
    pub done: usize,
    /// Pieces that were cut wrong.
    pub wrong: Vec<String>,
}

impl PlannedSheet {
    /// A sheet of a plan, its cuts put in an order in which equal settings follow one another.
    pub(super) fn new(job: &CutJob, opened: &Opened) -> PlannedSheet {
        /// Rests that are narrower than this are not worth keeping: 1/4 in, in ticks.
        const LEAST_REST: i64 = 203_200 / 4;
        let stock = &job.stock[opened.stock];
        let cut = |c: &super::opened::Cut| NamedCut {
            part: name_of(c.part),
            along: c.along,
            at: c.at,
            makes: c.makes.map(name_of),
        };
        let part = |name: String, part: super::opened::Part, is_turned: bool| OnSheetPart {
            name,
            part: name_of(part.number),
            area: part.area,
            is_turned,
        };
        let rests = opened.free.iter();
        let rests = rests.filter(|p| p.area.w.min(p.area.h) >= LEAST_REST);
        PlannedSheet {
            item: stock.id.clone(),
            copy: opened.copy,
            w: stock.w,
            h: stock.h,
            spoiled: stock.spoiled.clone(),
            cuts: in_order_of_setting(opened.cuts.iter().map(cut).collect()),
            pieces: opened
                .pieces
                .iter()
                .map(|p| part(job.pieces[p.piece].id.clone(), p.part, p.is_turned))
                .collect(),
            rests: rests.map(|p| part(name_of(p.number), *p, false)).collect(),
            done: 0,
            wrong: Vec::new(),
        }
    }

    /// Whether all its cuts are made.
    pub fn is_cut(&self) -> bool {
        self.done >= self.cuts.len()
    }

    /// Where each part lies, by its name.
    pub fn parts(&self) -> BTreeMap<&str, Area> {
        let whole = Area {
            x: 0,
            y: 0,
            w: self.w,
            h: self.h,
        };
        let mut parts = BTreeMap::from([("whole", whole)]);
        // In the order of cutting a part is there before it is cut.
        for cut in &self.cuts {
            let Some(&Area { x, y, w, h }) = parts.get(cut.part.as_str()) else {
                continue;
            };
            let at = cut.at;
            let (a, b) = if cut.along == Axis::X {
                (
                    Area { x, y, w, h: at },
                    Area {
                        x,
                        y: y + at,
                        w,
                        h: h - at,
                    },
                )
            } else {
                (
                    Area { x, y, w: at, h },
                    Area {
                        x: x + at,
                        y,
                        w: w - at,
                        h,
                    },
                )
            };
            parts.insert(&cut.makes[0], a);
            parts.insert(&cut.makes[1], b);
        }
        parts
    }

    /// The piece that a part is.
    pub fn piece_at(&self, part: &str) -> Option<&OnSheetPart> {
        self.pieces.iter().find(|p| p.part == part)
    }

    /// What of the sheet pieces take, 0 to 1.
    pub fn used(&self) -> f64 {
        let used: i128 = self.pieces.iter().map(|p| p.area.area()).sum();
        used as f64 / (self.w as f64 * self.h as f64)
    }

    /// Writes it, as a plan keeps it.
    pub fn to_json(&self, unit: Unit) -> Value {
        let ticks = unit.ticks() as f64;
        let side = |v: i64| number(v as f64 / ticks);
        let area =
            |a: Area| json!({"x": side(a.x), "y": side(a.y), "w": side(a.w), "h": side(a.h)});
        let on_sheet = |p: &OnSheetPart| {
            let mut written = area(p.area);
            written["name"] = json!(p.name);
            written["part"] = json!(p.part);
            written["turned"] = json!(p.is_turned);
            written
        };
        let cuts: Vec<Value> = self
            .cuts
            .iter()
            .map(|c| {
                let along = if c.along == Axis::X { "x" } else { "y" };
                json!({"part": c.part, "along": along, "at": side(c.at), "makes": c.makes})
            })
            .collect();
        json!({
            "item": self.item, "copy": self.copy, "w": side(self.w), "h": side(self.h),
            "spoiled": self.spoiled.iter().map(|a| area(*a)).collect::<Vec<_>>(), "cuts": cuts,
            "pieces": self.pieces.iter().map(on_sheet).collect::<Vec<_>>(),
            "rests": self.rests.iter().map(on_sheet).collect::<Vec<_>>(),
            "done": self.done, "wrong": self.wrong,
        })
    }

    /// Reads it from a plan.
    pub(super) fn read(node: &Node<'_>, unit: Unit) -> Option<PlannedSheet> {
        node.object()?;
        let text = |name: &str| {
            let found = node.need(name, "a text");
            found.and_then(|n| n.text().map(str::to_owned))
        };
        let side = |name: &str| {
            let found = node.need(name, "a length");
            found.and_then(|n| n.length(unit, Length::from_ticks(1), LONGEST))
        };
        let areas = |name: &str| {
            let found = node.get(name);
            found.map_or(Some(Vec::new()), |n| {
                n.each(MOST_CUTS, |a| read_area(a, unit))
            })
        };
        let parts = |name: &str| {
            let found = node.get(name);
            found.map_or(Some(Vec::new()), |n| {
                n.each(MOST_CUTS, |p| read_part(p, unit))
            })
        };
        let item = text("item");
        let copy = node
            .need("copy", "a whole number from 1")
            .and_then(|n| n.count(1, u32::MAX));
        let (w, h) = (side("w"), side("h"));
        let spoiled = areas("spoiled");
        let cuts = node
            .need("cuts", "a list of cuts")
            .and_then(|n| n.each(MOST_CUTS, |c| read_cut(c, unit)));
        let (pieces, rests) = (parts("pieces"), parts("rests"));
        let done = node
            .get("done")
            .map_or(Some(0), |n| n.count(0, MOST_CUTS as u32));
        let wrong = node
            .get("wrong")
            .map_or(Some(Vec::new()), |n| n.texts(MOST_CUTS));
        let cuts = cuts?;
        Some(PlannedSheet {
            item: item?,
            copy: copy?,
            w: w?.ticks(),
            h: h?.ticks(),
            spoiled: spoiled?,
            done: (done? as usize).min(cuts.len()),
            cuts,
            pieces: pieces?,
            rests: rests?,
            wrong: wrong?,
        })
    }
}

fn read_area(node: &Node<'_>, unit: Unit) -> Option<Area> {
    let side = |name: &str| {
        let found = node.need(name, "a length");
        found.and_then(|n| n.length(unit, Length::ZERO, LONGEST))
    };
    let (x, y, w, h) = (side("x"), side("y"), side("w"), side("h"));
    Some(Area {
        x: x?.ticks(),
        y: y?.ticks(),
        w: w?.ticks(),
        h: h?.ticks(),
    })
}

fn read_part(node: &Node<'_>, unit: Unit) -> Option<OnSheetPart> {
    let text = |name: &str| {
        let found = node.need(name, "a text");
        found.and_then(|n| n.text().map(str::to_owned))
    };
    let (name, part) = (text("name"), text("part"));
    let area = read_area(node, unit);
    let is_turned = node.flag("turned", false);
    Some(OnSheetPart {
        name: name?,
        part: part?,
        area: area?,
        is_turned: is_turned?,
    })
}

fn read_cut(node: &Node<'_>, unit: Unit) -> Option<NamedCut> {
    let part = node
        .need("part", "a part's name")
        .and_then(|n| n.text().map(str::to_owned));
    let along = node.need("along", "x or y").and_then(|n| {
        n.one_of(&["x", "y"], |name| match name {
            "x" => Some(Axis::X),
            "y" => Some(Axis::Y),
            _ => None,
        })
    });
    let at = node
        .need("at", "a length")
        .and_then(|n| n.length(unit, Length::from_ticks(1), LONGEST));
    let makes = node.need("makes", "two parts' names").and_then(|n| {
        let names: Option<[String; 2]> = n.texts(2)?.try_into().ok();
        if names.is_none() {
            n.wrong("two parts' names");
        }
        names
    });
    Some(NamedCut {
        part: part?,
        along: along?,
        at: at?.ticks(),
        makes: makes?,
    })
}

/// Cuts in an order in which each part is there before it is cut, and the trimmer is set anew as seldom as can be: after a cut come those at
/// the same setting, then those in what it made.
fn in_order_of_setting(mut left: Vec<NamedCut>) -> Vec<NamedCut> {
    let mut there = vec!["whole".to_owned()];
    let mut ordered: Vec<NamedCut> = Vec::with_capacity(left.len());
    while !left.is_empty() {
        let last = ordered.last();
        let rank = |cut: &NamedCut| {
            let made = last.is_some_and(|l| l.makes.contains(&cut.part));
            let same = last.is_some_and(|l| l.at == cut.at);
            let way = last.is_some_and(|l| l.along == cut.along);
            (same && way && made, same && way, same, made)
        };
        let can = (0..left.len()).filter(|n| there.contains(&left[*n].part));
        // Of equal ones the first, as the planner has it.
        let next = can.max_by_key(|n| (rank(&left[*n]), std::cmp::Reverse(*n)));
        let Some(next) = next else { break };
        let cut = left.remove(next);
        there.extend(cut.makes.iter().cloned());
        ordered.push(cut);
    }
    ordered
}
