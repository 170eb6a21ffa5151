//! What is to be cut from what: `metrosk-cutjob/1`.

use crate::document::{self, Findings, Invalid, Node};
use crate::length::{Length, Unit};
use crate::sketch::read_unit;
use serde_json::Value;
use std::collections::BTreeSet;

const FORMAT: &str = "metrosk-cutjob/1";
const MOST_STOCK: usize = 5_000;
const MOST_KINDS: usize = 10_000;
const MOST_OF_ONE: u32 = 10_000;
const MOST_SPOILED: usize = 200;
/// The longest side of a sheet or piece.
const LONGEST: Length = Length::LIMIT;

/// A rectangle in ticks: left, top, width, height.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Area {
    /// From the left.
    pub x: i64,
    /// From the top.
    pub y: i64,
    /// Across.
    pub w: i64,
    /// Down.
    pub h: i64,
}

impl Area {
    /// Whether two share more than an edge.
    pub fn meets(self, other: Area) -> bool {
        self.x < other.x + other.w
            && other.x < self.x + self.w
            && self.y < other.y + other.h
            && other.y < self.y + self.h
    }

    /// In square ticks.
    pub fn area(self) -> i128 {
        i128::from(self.w) * i128::from(self.h)
    }
}

/// Sheets or scraps of one size.
#[derive(Clone, Debug, PartialEq)]
pub struct Stock {
    /// Unique among the stock.
    pub id: String,
    /// What they are of.
    pub paper: String,
    /// Width in ticks.
    pub w: i64,
    /// Height in ticks.
    pub h: i64,
    /// How many.
    pub quantity: u32,
    /// Used up first.
    pub is_scrap: bool,
    /// What no piece may touch.
    pub spoiled: Vec<Area>,
}

/// Pieces of one size.
#[derive(Clone, Debug, PartialEq)]
pub struct CutPiece {
    /// Unique among the pieces.
    pub id: String,
    /// What they are cut from.
    pub paper: String,
    /// Width in ticks.
    pub w: i64,
    /// Height in ticks.
    pub h: i64,
    /// How many.
    pub quantity: u32,
    /// Whether they may lie across.
    pub may_turn: bool,
    /// The stock that they have to come from, by its id; any of their paper where none is named.
    pub only_from: Option<String>,
}

/// What counts more among plans that open the same sheets.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Preference {
    /// A large piece that is left.
    #[default]
    LargestRest,
    /// Few settings of the trimmer.
    FewSettings,
}

impl Preference {
    /// The names that documents use.
    pub const NAMES: [&'static str; 2] = ["largest-rest", "few-settings"];

    /// The preference of that document name.
    pub fn from_name(name: &str) -> Option<Preference> {
        match name {
            "largest-rest" => Some(Preference::LargestRest),
            "few-settings" => Some(Preference::FewSettings),
            _ => None,
        }
    }
}

/// A cut job.
#[derive(Clone, Debug, PartialEq)]
pub struct CutJob {
    /// The unit in which the document is written.
    pub unit: Unit,
    /// The longest cut, in ticks.
    pub reach: i64,
    /// The smallest setting step, in ticks.
    pub finest: i64,
    /// How long the search may take, in seconds.
    pub seconds: f64,
    /// What counts more among plans that open the same sheets.
    pub prefers: Preference,
    /// What there is.
    pub stock: Vec<Stock>,
    /// What is wanted.
    pub pieces: Vec<CutPiece>,
}

impl CutJob {
    /// Reads a job.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<CutJob, Invalid> {
        let findings = Findings::default();
        let job = read_job(&Node::top(value, &findings));
        findings.finish(job)
    }

    /// Reads it from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<CutJob, Invalid> {
        CutJob::from_json(&document::parse_json(text)?)
    }
}

fn read_job(top: &Node<'_>) -> Option<CutJob> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top).unwrap_or_default();
    let trimmer = top.get("trimmer");
    let limit = |name: &str, usual: i64| {
        let node = trimmer.as_ref().and_then(|t| t.get(name));
        node.map_or(Some(usual), |n| side(&n, unit))
    };
    let (reach, finest) = (limit("reach", LONGEST.ticks()), limit("finest", 1));
    let seconds = top
        .get("seconds")
        .map_or(Some(5.0), |n| n.number(0.0, 3_600.0));
    let stock = top
        .need("stock", "a list of sheets and scraps")
        .and_then(|n| n.each(MOST_STOCK, |s| read_stock(s, unit)));
    let pieces = top
        .need("pieces", "a list of pieces")
        .and_then(|n| n.each(MOST_KINDS, |p| read_piece(p, unit)));
    let (stock, pieces) = (stock?, pieces?);
    unique(top, "stock", stock.iter().map(|s| &s.id));
    unique(top, "pieces", pieces.iter().map(|p| &p.id));
    Some(CutJob {
        unit,
        reach: reach?,
        finest: finest?,
        seconds: seconds?,
        prefers: Preference::default(),
        stock,
        pieces,
    })
}

fn unique<'a>(top: &Node<'_>, list: &str, ids: impl Iterator<Item = &'a String>) {
    let mut seen = BTreeSet::new();
    let items = top.get(list).map(|n| n.items()).unwrap_or_default();
    for (id, node) in ids.zip(items) {
        if !seen.insert(id) {
            node.wrong_because(
                format!("“{id}” a second time"),
                "ids that are unique in the list",
            );
        }
    }
}

fn side(node: &Node<'_>, unit: Unit) -> Option<i64> {
    node.length(unit, Length::from_ticks(1), LONGEST)
        .map(Length::ticks)
}

fn text(node: &Node<'_>, name: &str) -> Option<String> {
    node.need(name, "a text")
        .and_then(|n| n.text().map(str::to_owned))
}

fn quantity(node: &Node<'_>) -> Option<u32> {
    node.get("qty").map_or(Some(1), |n| n.count(0, MOST_OF_ONE))
}

fn sides(node: &Node<'_>, unit: Unit) -> Option<(i64, i64)> {
    let read = |name| {
        node.need(name, "a length above 0")
            .and_then(|n| side(&n, unit))
    };
    let (w, h) = (read("w"), read("h"));
    Some((w?, h?))
}

fn read_stock(node: &Node<'_>, unit: Unit) -> Option<Stock> {
    node.object()?;
    let (id, paper, size) = (text(node, "id"), text(node, "paper"), sides(node, unit));
    let (quantity, is_scrap) = (quantity(node), node.flag("scrap", false));
    let spoiled = node.get("spoiled").map_or(Some(Vec::new()), |n| {
        n.each(MOST_SPOILED, |s| read_spoiled(s, unit))
    });
    let (w, h) = size?;
    let clipped = spoiled?
        .into_iter()
        .filter_map(|s| clipped(s, (w, h)))
        .collect();
    Some(Stock {
        id: id?,
        paper: paper?,
        w,
        h,
        quantity: quantity?,
        is_scrap: is_scrap?,
        spoiled: clipped,
    })
}

fn read_spoiled(node: &Node<'_>, unit: Unit) -> Option<Area> {
    node.object()?;
    let place = |name| {
        node.need(name, "a length")
            .and_then(|n| n.length(unit, -LONGEST, LONGEST))
            .map(Length::ticks)
    };
    let (x, y, size) = (place("x"), place("y"), sides(node, unit));
    let (w, h) = size?;
    Some(Area { x: x?, y: y?, w, h })
}

/// What of a spoiled area lies on its sheet.
fn clipped(area: Area, (w, h): (i64, i64)) -> Option<Area> {
    let (x, y) = (area.x.max(0), area.y.max(0));
    let (right, bottom) = ((area.x + area.w).min(w), (area.y + area.h).min(h));
    (right > x && bottom > y).then(|| Area {
        x,
        y,
        w: right - x,
        h: bottom - y,
    })
}

fn read_piece(node: &Node<'_>, unit: Unit) -> Option<CutPiece> {
    node.object()?;
    let (id, paper, size) = (text(node, "id"), text(node, "paper"), sides(node, unit));
    let (quantity, may_turn) = (quantity(node), node.flag("may_turn", true));
    let (w, h) = size?;
    Some(CutPiece {
        id: id?,
        paper: paper?,
        w,
        h,
        quantity: quantity?,
        may_turn: may_turn?,
        only_from: None,
    })
}
