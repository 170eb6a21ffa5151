//! What is decided about papers: which paper for each piece, how much of it is cut, what may be gutted.

use super::piecing::CutSize;
use super::weighing::RuleWeights;
use crate::document::{Findings, Invalid, Node};
use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::stash::Colour;
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};

/// How far pieces reach under their neighbours where nothing else is said: 1/2 in.
pub const USUAL_TUCK: Length = Length::inches(1, 2);
/// No piece reaches further under its neighbours than this.
const MOST_TUCK: Length = Length::inches(6, 1);
const MOST_GUTTED: usize = 200;
const MOST_DEALT: usize = 24;
const MOST_LOCKED: usize = 4_000;
const MOST_SPARES: u32 = 100;
const MOST_DIES: u32 = 100;
const LEAST_DIE: Length = Length::inches(1, 4);
const MOST_DIE: Length = Length::inches(12, 1);

/// A side of something in the stash.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct PaperSide {
    /// The item's id.
    pub item: String,
    /// Whether the other side lies up.
    pub is_b: bool,
}

impl PaperSide {
    /// `a` or `b`.
    pub const fn side(&self) -> &'static str {
        if self.is_b { "b" } else { "a" }
    }
}

/// How a colour is brought onto paper.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Medium {
    /// Rubbed on from a pad.
    Ink,
    /// Brushed on.
    Paint,
    /// Misted on.
    Spray,
}

impl Medium {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["ink", "paint", "spray"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    fn from_name(name: &str) -> Option<Medium> {
        [Medium::Ink, Medium::Paint, Medium::Spray]
            .into_iter()
            .find(|m| m.name() == name)
    }
}

/// What is done to a piece before it goes onto the page.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct MadeUp {
    /// With what.
    pub medium: Medium,
    /// In which colour.
    pub colour: Colour,
    /// Only its edges.
    pub edges: bool,
}

/// Out of how many pieces of paper a piece is put together.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum CutAs {
    /// One.
    #[default]
    One,
    /// One for each part that shows: what runs hidden between them is saved.
    Parts,
    /// Four strips whose inner edges lie hidden: only the border of a mat is cut.
    Strips,
}

impl CutAs {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["one", "parts", "strips"];

    fn from_name(name: &str) -> Option<CutAs> {
        match name {
            "one" => Some(CutAs::One),
            "parts" => Some(CutAs::Parts),
            "strips" => Some(CutAs::Strips),
            _ => None,
        }
    }
}

/// What is decided about one piece.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PieceChoice {
    /// Its paper.
    pub paper: Option<PaperSide>,
    /// How far it reaches under its neighbours.
    pub tuck: Option<Length>,
    /// How much of it is cut.
    pub cut: Option<CutSize>,
    /// Its colour is brought on.
    pub made: Option<MadeUp>,
    /// Its edges are roughened.
    pub rough: bool,
    /// Out of how many pieces of paper it is put together.
    pub cut_as: CutAs,
    /// A second one is cut for the back of a page that can be seen through.
    pub twin: bool,
    /// Of a grid or ring: units that are cut beyond those that lie on the page.
    pub spares: u32,
    /// Papers of single units of a grid or ring, by `ROW/COLUMN` or `NUMBER`.
    pub units: BTreeMap<String, PaperSide>,
    /// Units that keep their paper when papers are dealt out again.
    pub locked: BTreeSet<String>,
}

/// What may come out of hidden middles.
#[derive(Clone, Debug, PartialEq)]
pub struct GutDecisions {
    /// How far a hole stays away from what shows.
    pub margin: Length,
    /// How far from the sheet's sides.
    pub bar: Length,
    /// The shortest side of a hole.
    pub least: Length,
    /// Pieces that are gutted: `ground-0`, or `BLOCK/PART`.
    pub from: BTreeSet<String>,
    /// Of pieces that are gutted: shapes of a die are cut out of the middle instead of the whole of it.
    pub dies: BTreeMap<String, DieChoice>,
}

/// A die whose shapes are cut out of a hidden middle.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct DieChoice {
    /// The tool's id in the stash.
    pub tool: String,
    /// What it cuts.
    pub size: Size,
    /// How many at the most.
    pub count: usize,
}

impl Default for GutDecisions {
    fn default() -> GutDecisions {
        GutDecisions {
            margin: Length::inches(1, 2),
            bar: Length::inches(1, 1),
            least: Length::inches(2, 1),
            from: BTreeSet::new(),
            dies: BTreeMap::new(),
        }
    }
}

/// All that is decided about papers.
#[derive(Clone, Debug, PartialEq)]
pub struct PaperDecisions {
    /// The paper under each page.
    pub ground: [Option<PaperSide>; 2],
    /// By the sketch's block and which part of it.
    pub pieces: BTreeMap<(String, usize), PieceChoice>,
    /// How far pieces reach under their neighbours.
    pub tuck: Length,
    /// How much of pieces is cut.
    pub cut: CutSize,
    /// What is gutted.
    pub gut: GutDecisions,
    /// How much each rule of the choice counts.
    pub weights: RuleWeights,
}

impl Default for PaperDecisions {
    fn default() -> PaperDecisions {
        PaperDecisions {
            ground: [None, None],
            pieces: BTreeMap::new(),
            tuck: USUAL_TUCK,
            cut: CutSize::Lean,
            gut: GutDecisions::default(),
            weights: RuleWeights::default(),
        }
    }
}

impl PaperDecisions {
    /// Every side of the stash that is used, with how many pieces are of it.
    pub fn used(&self) -> BTreeMap<&PaperSide, usize> {
        let pieces = self.pieces.values();
        let of_pieces = pieces.flat_map(|p| p.paper.iter().chain(p.units.values()));
        let mut used = BTreeMap::new();
        for side in self.ground.iter().flatten().chain(of_pieces) {
            *used.entry(side).or_insert(0) += 1;
        }
        used
    }

    /// Reads them from a document of their own, as a plan's section has them.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value, unit: Unit) -> Result<PaperDecisions, Invalid> {
        let findings = Findings::default();
        let read = PaperDecisions::read(&Node::top(value, &findings), unit);
        findings.finish(read)
    }

    /// Reads a list of papers.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn papers_of(value: &Value) -> Result<Vec<PaperSide>, Invalid> {
        let findings = Findings::default();
        let read = Node::top(value, &findings).each(MOST_DEALT, read_paper);
        findings.finish(read)
    }

    /// Reads a plan's section.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<PaperDecisions> {
        node.object()?;
        let usual = PaperDecisions::default();
        let ground = read_ground(node);
        let pieces = read_pieces(node, unit);
        let tuck = node.optional("tuck", |n| read_tuck(n, unit));
        let cut = node.optional("cut", read_cut);
        let gut = node
            .get("gut")
            .map_or(Some(GutDecisions::default()), |n| read_gut(&n, unit));
        let weights = node
            .get("weights")
            .map_or_else(|| Some(RuleWeights::default()), |n| RuleWeights::read(&n));
        Some(PaperDecisions {
            ground: ground?,
            pieces: pieces?,
            tuck: tuck?.unwrap_or(usual.tuck),
            cut: cut?.unwrap_or(usual.cut),
            gut: gut?,
            weights: weights?,
        })
    }
}

fn read_tuck(node: &Node<'_>, unit: Unit) -> Option<Length> {
    node.length(unit, Length::ZERO, MOST_TUCK)
}

fn read_cut(node: &Node<'_>) -> Option<CutSize> {
    node.one_of(&CutSize::NAMES, CutSize::from_name)
}

fn read_paper(node: &Node<'_>) -> Option<PaperSide> {
    node.object()?;
    let item = node.need("item", "an item of the stash");
    let item = item.and_then(|n| n.text().map(str::to_owned));
    let is_b = node.optional("side", |n| {
        n.one_of(&["a", "b"], |name| match name {
            "a" => Some(false),
            "b" => Some(true),
            _ => None,
        })
    });
    Some(PaperSide {
        item: item?,
        is_b: is_b?.unwrap_or(false),
    })
}

fn read_ground(node: &Node<'_>) -> Option<[Option<PaperSide>; 2]> {
    let Some(ground) = node.get("ground") else {
        return Some([None, None]);
    };
    ground.object()?;
    let page = |name| ground.optional(name, read_paper);
    let (left, right) = (page("0"), page("1"));
    Some([left?, right?])
}

/// The fields of an object, each by its name; null is as good as left out.
fn fields<'a, T>(
    node: &Node<'a>,
    read: impl Fn(&str, &Node<'a>) -> Option<T>,
) -> Option<Vec<(String, T)>> {
    let names: Vec<&String> = node.object()?.keys().collect();
    let found: Vec<(String, Option<T>)> = names
        .into_iter()
        .filter_map(|name| node.get(name).map(|n| (name.clone(), read(name, &n))))
        .collect();
    found
        .into_iter()
        .map(|(name, value)| Some((name, value?)))
        .collect()
}

fn read_pieces(node: &Node<'_>, unit: Unit) -> Option<BTreeMap<(String, usize), PieceChoice>> {
    let Some(pieces) = node.get("pieces") else {
        return Some(BTreeMap::new());
    };
    let blocks = fields(&pieces, |_, parts| {
        fields(parts, |part, n| {
            let Ok(part) = part.parse::<usize>() else {
                n.wrong_because(format!("part “{part}”"), "a part's number, from 0");
                return None;
            };
            Some((part, read_piece(n, unit)?))
        })
    })?;
    let each = blocks.into_iter().flat_map(|(block, parts)| {
        parts
            .into_iter()
            .map(move |(_, (part, choice))| ((block.clone(), part), choice))
    });
    Some(each.collect())
}

fn read_piece(node: &Node<'_>, unit: Unit) -> Option<PieceChoice> {
    node.object()?;
    let paper = node.optional("paper", read_paper);
    let tuck = node.optional("tuck", |n| read_tuck(n, unit));
    let cut = node.optional("cut", read_cut);
    let made = node.optional("made", read_made);
    let rough = node.flag("rough", false);
    let cut_as = node.optional("cut_as", |n| n.one_of(&CutAs::NAMES, CutAs::from_name));
    let twin = node.flag("twin", false);
    let spares = node.optional("spares", |n| n.count(0, MOST_SPARES));
    let units = node.get("units").map_or(Some(Vec::new()), |n| {
        fields(&n, |_, paper| read_paper(paper))
    });
    let locked = node
        .get("locked")
        .map_or(Some(Vec::new()), |n| n.texts(MOST_LOCKED));
    Some(PieceChoice {
        locked: locked?.into_iter().collect(),
        paper: paper?,
        tuck: tuck?,
        cut: cut?,
        made: made?,
        rough: rough?,
        cut_as: cut_as?.unwrap_or_default(),
        twin: twin?,
        spares: spares?.unwrap_or(0),
        units: units?.into_iter().collect(),
    })
}

fn read_made(node: &Node<'_>) -> Option<MadeUp> {
    node.object()?;
    let medium = node
        .need("medium", "ink, paint or spray")
        .and_then(|n| n.one_of(&Medium::NAMES, Medium::from_name));
    let colour = Colour::read(node);
    let edges = node.flag("edges", false);
    Some(MadeUp {
        medium: medium?,
        colour: colour?,
        edges: edges?,
    })
}

fn read_gut(node: &Node<'_>, unit: Unit) -> Option<GutDecisions> {
    node.object()?;
    let usual = GutDecisions::default();
    let length = |name| {
        node.optional(name, |n| {
            n.length(unit, Length::ZERO, Length::inches(24, 1))
        })
    };
    let (margin, bar, least) = (length("margin"), length("bar"), length("least"));
    let from = node
        .get("from")
        .map_or(Some(Vec::new()), |n| n.texts(MOST_GUTTED));
    let dies = node.get("dies").map_or(Some(Vec::new()), |n| {
        fields(&n, |_, die| read_die(die, unit))
    });
    Some(GutDecisions {
        margin: margin?.unwrap_or(usual.margin),
        bar: bar?.unwrap_or(usual.bar),
        least: least?.unwrap_or(usual.least),
        from: from?.into_iter().collect(),
        dies: dies?.into_iter().collect(),
    })
}

fn read_die(node: &Node<'_>, unit: Unit) -> Option<DieChoice> {
    node.object()?;
    let tool = node.need("tool", "a die of the stash");
    let tool = tool.and_then(|n| n.text().map(str::to_owned));
    let size = node.need("size", "what the die cuts").and_then(|n| {
        n.object()?;
        let side = |name| {
            n.need(name, "a length")
                .and_then(|s| s.length(unit, LEAST_DIE, MOST_DIE))
        };
        let (w, h) = (side("w"), side("h"));
        Some(Size { w: w?, h: h? })
    });
    let count = node.optional("count", |n| n.count(1, MOST_DIES));
    Some(DieChoice {
        tool: tool?,
        size: size?,
        count: count?.unwrap_or(MOST_DIES) as usize,
    })
}
