//! What is decided at the Clusters station.
//!
//! `"clusters": {"k1": {"0": {"size": "large", "seed": 3, "pieces": [{"item": "…", "lift": "thin-foam", "at": {"x": 3, "y": 8}, "turn": 12}]}}}`:
//! by the sketch's block and which part of it, pieces bottom to top. `"scatter"`, `"off"` (checks that she doesn't want) and `"passed"`
//! (findings that she let be) stand beside it.

use crate::document::{Findings, Invalid, Node, length_number, number};
use crate::length::{Length, Unit};
use crate::photos::Lift;
use crate::sketch::ClusterSize;
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

/// As many pieces a cluster may have: more is no cluster any more.
const MOST_PIECES: usize = 60;
const MOST_SCATTERED: u32 = 400;
const MOST_NAMES: usize = 200;
const MOST_TURN: f64 = 360.0;
const FARTHEST: Length = Length::inches(200, 1);

/// A piece of a cluster.
#[derive(Clone, Debug, PartialEq)]
pub struct ClusterPiece {
    /// The thing in the stash.
    pub item: String,
    /// What lifts it off what lies below.
    pub lift: Lift,
    /// Its middle on the page or spread, where she placed it herself.
    pub at: Option<(Length, Length)>,
    /// How far she turned it, in degrees clockwise.
    pub turn: Option<f64>,
}

/// What is decided about one cluster.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct ClusterChoice {
    /// How large it is to be; as the sketch has it where she said nothing.
    pub size: Option<ClusterSize>,
    /// Another number lays the pieces another way.
    pub seed: u64,
    /// Bottom to top.
    pub pieces: Vec<ClusterPiece>,
}

/// Where small things are strewn.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum ScatterWay {
    /// Close to the clusters, thinning out from them.
    #[default]
    FromClusters,
    /// From one corner of the page to the other.
    Diagonal,
    /// In three places round the middle.
    Triangle,
}

impl ScatterWay {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["from-clusters", "diagonal", "triangle"];

    /// The way of that document name.
    pub fn from_name(name: &str) -> Option<ScatterWay> {
        use ScatterWay::{Diagonal, FromClusters, Triangle};
        let at = Self::NAMES.iter().position(|n| *n == name)?;
        [FromClusters, Diagonal, Triangle].get(at).copied()
    }
}

/// Dots, sequins or hearts that are strewn over the page.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Scatter {
    /// The thing in the stash.
    pub item: String,
    /// How many.
    pub count: u32,
    /// Where.
    pub way: ScatterWay,
    /// Another number strews them another way.
    pub seed: u64,
}

/// The clusters section of a plan.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct ClusterDecisions {
    /// By the sketch's block and which part of it.
    pub clusters: BTreeMap<(String, usize), ClusterChoice>,
    /// What is strewn.
    pub scatter: Option<Scatter>,
    /// Checks that she doesn't want on this page.
    pub off: BTreeSet<String>,
    /// Findings that she let be.
    pub passed: BTreeSet<String>,
}

impl ClusterPiece {
    /// A piece as it comes out of the drawer.
    pub fn of(item: &str) -> ClusterPiece {
        ClusterPiece {
            item: item.to_owned(),
            lift: Lift::Flat,
            at: None,
            turn: None,
        }
    }

    /// Writes it.
    pub fn to_json(&self, unit: Unit) -> Value {
        let mut written = json!({"item": self.item});
        if self.lift != Lift::Flat {
            written["lift"] = self.lift.name().into();
        }
        if let Some((x, y)) = self.at {
            written["at"] = json!({"x": length_number(x, unit), "y": length_number(y, unit)});
        }
        if let Some(turn) = self.turn {
            written["turn"] = number(turn);
        }
        written
    }
}

impl ClusterDecisions {
    /// How many of each thing the page takes.
    pub fn used(&self) -> BTreeMap<&str, u32> {
        let mut used = BTreeMap::new();
        for piece in self.clusters.values().flat_map(|c| &c.pieces) {
            *used.entry(piece.item.as_str()).or_insert(0) += 1;
        }
        if let Some(scatter) = &self.scatter {
            *used.entry(scatter.item.as_str()).or_insert(0) += scatter.count;
        }
        used
    }

    /// Writes them.
    pub fn to_json(&self, unit: Unit) -> Value {
        let mut clusters = json!({});
        for ((block, part), choice) in &self.clusters {
            let pieces: Vec<Value> = choice.pieces.iter().map(|p| p.to_json(unit)).collect();
            let mut written = json!({"seed": choice.seed, "pieces": pieces});
            if let Some(size) = choice.size {
                written["size"] = size.name().into();
            }
            clusters[block][part.to_string()] = written;
        }
        let mut section = json!({"clusters": clusters, "off": self.off, "passed": self.passed});
        if let Some(scatter) = &self.scatter {
            section["scatter"] = json!({"item": scatter.item, "count": scatter.count,
                "way": ScatterWay::NAMES[scatter.way as usize], "seed": scatter.seed});
        }
        section
    }

    /// Reads them from a document of their own.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value, unit: Unit) -> Result<ClusterDecisions, Invalid> {
        let findings = Findings::default();
        let read = ClusterDecisions::read(&Node::top(value, &findings), unit);
        findings.finish(read)
    }

    /// Reads the section.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<ClusterDecisions> {
        node.object()?;
        let clusters = node
            .get("clusters")
            .map_or(Some(BTreeMap::new()), |n| read_clusters(&n, unit));
        let scatter = node.optional("scatter", read_scatter);
        let names = |field: &str| {
            node.get(field)
                .map_or(Some(Vec::new()), |n| n.texts(MOST_NAMES))
        };
        let (off, passed) = (names("off"), names("passed"));
        Some(ClusterDecisions {
            clusters: clusters?,
            scatter: scatter?,
            off: off?.into_iter().collect(),
            passed: passed?.into_iter().collect(),
        })
    }
}

fn read_clusters(node: &Node<'_>, unit: Unit) -> Option<BTreeMap<(String, usize), ClusterChoice>> {
    let mut read = BTreeMap::new();
    let mut whole = true;
    for block in node.object()?.keys() {
        let Some(parts) = node.get(block) else {
            continue;
        };
        for part in parts.object()?.keys() {
            let Some(choice) = parts.get(part) else {
                continue;
            };
            let Ok(number) = part.parse::<usize>() else {
                choice.wrong_because(format!("part “{part}”"), "a part's number, from 0");
                whole = false;
                continue;
            };
            match read_cluster(&choice, unit) {
                Some(found) => {
                    read.insert((block.clone(), number), found);
                }
                None => whole = false,
            }
        }
    }
    whole.then_some(read)
}

fn read_cluster(node: &Node<'_>, unit: Unit) -> Option<ClusterChoice> {
    node.object()?;
    let size = node.optional("size", |n| {
        n.one_of(&ClusterSize::NAMES, ClusterSize::from_name)
    });
    let seed = node.get("seed").map_or(Some(0), |n| n.count(0, u32::MAX));
    let pieces = node.get("pieces").map_or(Some(Vec::new()), |n| {
        n.each(MOST_PIECES, |p| read_piece(p, unit))
    });
    Some(ClusterChoice {
        size: size?,
        seed: seed?.into(),
        pieces: pieces?,
    })
}

fn read_item(node: &Node<'_>) -> Option<String> {
    let item = node.need("item", "a thing of the stash");
    item.and_then(|n| n.text().map(str::to_owned))
}

fn read_piece(node: &Node<'_>, unit: Unit) -> Option<ClusterPiece> {
    node.object()?;
    let item = read_item(node);
    let lift = node.get("lift").map_or(Some(Lift::Flat), |n| {
        n.one_of(&Lift::NAMES, Lift::from_name)
    });
    let at = node.optional("at", |n| {
        n.object()?;
        let along = |name| {
            n.need(name, "a length from the page's corner")
                .and_then(|n| n.length(unit, -FARTHEST, FARTHEST))
        };
        let (x, y) = (along("x"), along("y"));
        Some((x?, y?))
    });
    let turn = node.optional("turn", |n| n.number(-MOST_TURN, MOST_TURN));
    Some(ClusterPiece {
        item: item?,
        lift: lift?,
        at: at?,
        turn: turn?,
    })
}

fn read_scatter(node: &Node<'_>) -> Option<Scatter> {
    node.object()?;
    let item = read_item(node);
    let count = node
        .need("count", "how many")
        .and_then(|n| n.count(1, MOST_SCATTERED));
    let way = node.get("way").map_or(Some(ScatterWay::default()), |n| {
        n.one_of(&ScatterWay::NAMES, ScatterWay::from_name)
    });
    let seed = node.get("seed").map_or(Some(0), |n| n.count(0, u32::MAX));
    Some(Scatter {
        item: item?,
        count: count?,
        way: way?,
        seed: seed?.into(),
    })
}
