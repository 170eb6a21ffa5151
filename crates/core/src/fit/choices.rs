//! What a fit settled, written so that a refit can hold to it: one program in place of a search, while a hand moves a block.
//!
//! Choices name what they mean: blocks by their ids, wishes by their kind and blocks. So they can be held against the request they are
//! used with, and what does not suit it is told.

use super::Approach;
use super::item::Item;
use super::model::{Model, Scene, Side};
use super::reason::{Reason, Wish};
use super::settled::Settled;
use crate::document::{Finding, Findings, Invalid, Node, number};
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;

/// The choices of a fit that a refit may hold: the approach, and what the search settled.
#[derive(Clone, Debug, PartialEq)]
pub struct Choices {
    pub(super) approach: Approach,
    /// The page of each block that has one, by the id of its item's first block.
    sides: BTreeMap<String, Side>,
    lost: Vec<LostWish>,
    /// Where the variables were, as a place to start from.
    solved: Vec<f64>,
}

/// A wish that was let go of: the nth of its kind between these blocks (of one block, twice that one).
#[derive(Clone, Debug, PartialEq, Eq)]
struct LostWish {
    wish: Wish,
    blocks: [String; 2],
    nth: usize,
}

/// The number of a gap between faces or words is a byte.
const MOST_GAPS: u32 = 255;
const SIDES: &str = "left, right, astride, or through and the number of a gap";
const WISHES: &str = "line, contact or equal";
/// More than any request makes.
const MOST: usize = 20_000;
/// What does not suit is told up to this many times.
const MOST_FINDINGS: usize = 20;

impl Choices {
    /// What a search settled on a scene.
    pub(super) fn of(
        approach: Approach,
        scene: &Scene<'_>,
        model: &Model,
        settled: Settled,
    ) -> Choices {
        let sides = scene.items.iter().zip(&settled.sides);
        let sides = sides
            .filter_map(|(item, side)| Some((id_of(scene, item), (*side)?)))
            .collect();
        let rows = model.qp.rows.len();
        let mut named = if settled.lost.is_empty() {
            Vec::new()
        } else {
            names(scene, model)
        };
        let lost = settled
            .lost
            .iter()
            .filter_map(|from_end| named[rows - from_end].take())
            .collect();
        Choices {
            approach,
            sides,
            lost,
            solved: settled.solved,
        }
    }

    /// The same, told for the approach that made the sketch they were settled on.
    pub(super) fn by(self, approach: Approach) -> Choices {
        Choices { approach, ..self }
    }

    /// Whether a block stands on both pages.
    pub(super) fn stands_astride(&self, id: &str) -> bool {
        self.sides.get(id) == Some(&Side::Astride)
    }

    /// Held against a scene: the page of each of its items.
    ///
    /// # Errors
    /// What the choices name that the request does not have, or does not leave open.
    pub(super) fn sides_on(&self, scene: &Scene<'_>) -> Result<Vec<Option<Side>>, Invalid> {
        let mut findings = Vec::new();
        let mut wrong = |id: &str, found: String, allowed: &str| {
            findings.push(Finding {
                path: format!("sides.{id}"),
                found,
                allowed: allowed.to_owned(),
            });
        };
        let known: Vec<String> = scene.items.iter().map(|i| id_of(scene, i)).collect();
        for id in self.sides.keys().filter(|id| !known.contains(id)) {
            wrong(
                id,
                "a block that stands for no slot of this request".to_owned(),
                "the choices of a proposal of this request",
            );
        }
        let mut sides = Vec::with_capacity(scene.items.len());
        for (item, id) in scene.items.iter().zip(&known) {
            let side = self.sides.get(id).copied();
            let follows = item.frames.is_some() || item.host.is_some();
            let suits = match side {
                None => scene.fold().is_none() || !scene.keeps_off_fold(item) || follows,
                Some(_) if scene.fold().is_none() => false,
                Some(Side::Left | Side::Right) => true,
                Some(Side::Astride) => item.is_split(),
                Some(Side::Through(gap)) => usize::from(gap) < scene.fold_gaps(item).len(),
            };
            if !suits {
                wrong(
                    id,
                    side.map_or("nothing".to_owned(), |s| s.to_string()),
                    "a page that this block can have in this request",
                );
            }
            sides.push(side);
        }
        findings.truncate(MOST_FINDINGS);
        if findings.is_empty() {
            Ok(sides)
        } else {
            Err(Invalid { findings })
        }
    }

    /// Held against a program: its rows whose wishes are let go of, as places from the end.
    ///
    /// # Errors
    /// Wishes that the request does not make.
    pub(super) fn lost_on(&self, scene: &Scene<'_>, model: &Model) -> Result<Vec<usize>, Invalid> {
        if self.lost.is_empty() {
            return Ok(Vec::new());
        }
        let rows = model.qp.rows.len();
        let named: BTreeMap<String, usize> = names(scene, model)
            .into_iter()
            .enumerate()
            .filter_map(|(row, wish)| Some((wish?.to_string(), row)))
            .collect();
        let (mut found, mut findings) = (Vec::new(), Vec::new());
        for (n, wish) in self.lost.iter().enumerate() {
            match named.get(&wish.to_string()) {
                Some(row) => found.push(rows - row),
                None => findings.push(Finding {
                    path: format!("lost[{n}]"),
                    found: format!("a wish that this request does not make: {wish}"),
                    allowed: "the choices of a proposal of this request".to_owned(),
                }),
            }
        }
        findings.truncate(MOST_FINDINGS);
        if findings.is_empty() {
            Ok(found)
        } else {
            Err(Invalid { findings })
        }
    }

    /// Where the variables were.
    pub(super) fn solved(&self) -> &[f64] {
        &self.solved
    }

    /// Writes them.
    pub fn to_json(&self) -> Value {
        let sides: Map<String, Value> = self
            .sides
            .iter()
            .map(|(id, side)| (id.clone(), side.to_string().into()))
            .collect();
        let lost = self
            .lost
            .iter()
            .map(|l| json!({"wish": wish_name(l.wish), "blocks": l.blocks, "nth": l.nth}));
        json!({
            "approach": self.approach.name(),
            "sides": sides,
            "lost": lost.collect::<Vec<_>>(),
            // A place to start from: a thousandth of an inch is near enough.
            "solved": self.solved.iter().map(|v| number((v * 1e3).round() / 1e3)).collect::<Vec<_>>(),
        })
    }

    /// Reads them. Whether they suit a request is told where they are used.
    ///
    /// # Errors
    /// What breaks their shape, with its path.
    pub fn from_json(value: &Value) -> Result<Choices, Invalid> {
        let findings = Findings::default();
        let choices = read(&Node::top(value, &findings));
        findings.finish(choices)
    }
}

fn id_of(scene: &Scene<'_>, item: &Item) -> String {
    scene.sketch.blocks[item.from[0]].id.clone()
}

/// The name of each row's wish; none for a row that is never let go of.
fn names(scene: &Scene<'_>, model: &Model) -> Vec<Option<LostWish>> {
    let mut counts: BTreeMap<(&str, usize, usize), usize> = BTreeMap::new();
    let rows = model.qp.rows.iter();
    rows.map(|row| {
        let Reason::Wish(wish @ (Wish::Line | Wish::Contact | Wish::Equal), a, b) = row.reason
        else {
            return None;
        };
        let count = counts.entry((wish_name(wish), a, b)).or_default();
        *count += 1;
        Some(LostWish {
            wish,
            blocks: [a, b].map(|n| id_of(scene, &scene.items[n])),
            nth: *count - 1,
        })
    })
    .collect()
}

const fn wish_name(wish: Wish) -> &'static str {
    match wish {
        Wish::Line => "line",
        Wish::Contact => "contact",
        Wish::Equal => "equal",
        _ => "other",
    }
}

impl std::fmt::Display for LostWish {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(
            f,
            "{} {} of {} and {}",
            wish_name(self.wish),
            self.nth,
            self.blocks[0],
            self.blocks[1]
        )
    }
}

impl std::fmt::Display for Side {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Side::Left => f.write_str("left"),
            Side::Right => f.write_str("right"),
            Side::Astride => f.write_str("astride"),
            Side::Through(gap) => write!(f, "through {gap}"),
        }
    }
}

fn read(top: &Node<'_>) -> Option<Choices> {
    top.object()?;
    let approach = top
        .need("approach", &Approach::NAMES.join(", "))
        .and_then(|n| n.one_of(&Approach::NAMES, Approach::or_auto));
    if approach == Some(None) {
        top.need("approach", "an approach")?
            .wrong("an approach, not auto");
    }
    let sides = top
        .need("sides", "an object of pages by block")
        .and_then(|n| read_sides(&n));
    let lost = top
        .need("lost", "a list")
        .and_then(|n| n.each(MOST, read_lost));
    let solved = top
        .need("solved", "a list")
        .and_then(|n| n.each(MOST, read_place));
    Some(Choices {
        approach: approach??,
        sides: sides?,
        lost: lost?,
        solved: solved?,
    })
}

fn read_sides(node: &Node<'_>) -> Option<BTreeMap<String, Side>> {
    let object = node.object()?;
    if object.len() > MOST {
        node.wrong(format!("at most {MOST} blocks"));
        return None;
    }
    let mut sides = BTreeMap::new();
    for id in object.keys() {
        let Some(field) = node.get(id) else { continue };
        if let Some(side) = field.one_of(&[SIDES], side_from) {
            sides.insert(id.clone(), side);
        }
    }
    Some(sides)
}

fn side_from(text: &str) -> Option<Side> {
    match text {
        "left" => Some(Side::Left),
        "right" => Some(Side::Right),
        "astride" => Some(Side::Astride),
        other => other
            .strip_prefix("through ")?
            .parse()
            .ok()
            .filter(|gap| u32::from(*gap) <= MOST_GAPS)
            .map(Side::Through),
    }
}

fn read_lost(node: &Node<'_>) -> Option<LostWish> {
    node.object()?;
    let wish = node.need("wish", WISHES).and_then(|n| {
        n.one_of(&[WISHES], |t| match t {
            "line" => Some(Wish::Line),
            "contact" => Some(Wish::Contact),
            "equal" => Some(Wish::Equal),
            _ => None,
        })
    });
    let blocks = node.need("blocks", "two ids")?;
    let ids = blocks.texts(2).and_then(|ids| {
        let pair = <[String; 2]>::try_from(ids).ok();
        if pair.is_none() {
            blocks.wrong("two ids");
        }
        pair
    });
    let nth = node
        .need("nth", "a whole number from 0")
        .and_then(|n| n.count(0, MOST as u32));
    Some(LostWish {
        wish: wish?,
        blocks: ids?,
        nth: nth? as usize,
    })
}

fn read_place(node: &Node<'_>) -> Option<f64> {
    let found = node.value.as_f64().filter(|v| v.abs() < 1e4);
    if found.is_none() {
        node.wrong("a place in inches");
    }
    found
}
