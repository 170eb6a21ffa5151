//! From JSON to a sketch: lenient to unknown fields, strict to broken ones.

use super::block::{Block, ClusterSize, Grid, Kind, Ring, Shape, TriangleCorner, UnitShape};
use super::{Canvas, FORMAT, Sketch};
use crate::document::Node;
use crate::geometry::{Edge, Rect, Size};
use crate::length::{Length, Unit};
use serde_json::{Map, Value};
use std::collections::BTreeMap;

/// The least extent of a page or a block: one tick, said as "above 0".
const LEAST: Length = Length::from_ticks(1);
/// The largest page side: 5 m.
const MOST: Length = Length::from_ticks(40_000_000);
/// How many blocks a sketch may have.
pub(crate) const MOST_BLOCKS: usize = 500;
/// How many units a grid's side or a ring may have.
const MOST_UNITS: u32 = 1_000;
/// The most degrees that a block may be turned by, either way.
pub(crate) const MOST_TURN: f64 = 3_600.0;
/// How many corners a polygon may have.
const MOST_POINTS: usize = 1_000;
/// How many edges a `bleed` may name; each counts once.
const MOST_BLEEDS: usize = 16;

const KNOWN: [&str; 13] = [
    "id", "kind", "box", "turn", "shape", "bleed", "under", "host", "size", "grid", "ring", "sure",
    "from",
];

/// What all readers of a document share.
#[derive(Clone, Copy)]
pub(crate) struct Reader {
    pub(crate) unit: Unit,
}

/// The document's unit, or a finding.
pub(crate) fn read_unit(top: &Node<'_>) -> Option<Unit> {
    top.need("unit", "in or mm")?
        .one_of(&["in", "mm"], Unit::from_name)
}

pub(super) fn read_sketch(top: &Node<'_>) -> Option<Sketch> {
    let fields = top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top);
    let reader = Reader {
        unit: unit.unwrap_or_default(),
    };
    let name = top.get("name").map_or(Some(""), |n| n.text());
    read_origin(top);
    let canvas = top
        .need("canvas", "an object with page and pages")
        .and_then(|n| read_canvas(&n, reader));
    let list = top.need("blocks", "a list of blocks")?;
    let nodes = list.items();
    if nodes.len() > MOST_BLOCKS {
        list.wrong(format!("at most {MOST_BLOCKS} blocks"));
        return None;
    }
    let read: Vec<Option<Block>> = nodes.iter().map(|n| read_block(n, reader)).collect();
    check_names(&nodes, &read);
    let known = ["format", "unit", "name", "canvas", "blocks"];
    let other = rest_of(fields, &known);
    Some(Sketch {
        unit: unit?,
        name: name?.to_owned(),
        canvas: canvas?,
        blocks: read.into_iter().collect::<Option<_>>()?,
        other,
    })
}

fn read_origin(top: &Node<'_>) {
    let Some(origin) = top.get("origin") else {
        return;
    };
    if origin.object().is_none() {
        return;
    }
    if let Some(how) = origin.get("how") {
        let names = ["challenge", "scraplift", "own"];
        how.one_of(&names, |n| names.contains(&n).then_some(()));
    }
    if let Some(after) = origin.get("after") {
        after.items();
    }
}

/// A canvas or target: `page` and `pages`.
pub(crate) fn read_canvas(node: &Node<'_>, reader: Reader) -> Option<Canvas> {
    node.object()?;
    let page = node
        .need("page", "an object with w and h")
        .and_then(|page| {
            page.object()?;
            let side = |name| {
                page.need(name, "a length above 0")
                    .and_then(|n| n.length(reader.unit, LEAST, MOST))
            };
            let (w, h) = (side("w"), side("h"));
            Some(Size { w: w?, h: h? })
        });
    let pages = node.need("pages", "1 or 2").and_then(|n| n.count(1, 2));
    Some(Canvas {
        page: page?,
        pages: u8::try_from(pages?).ok()?,
    })
}

/// One block of a sketch or layout; what needs its neighbours is checked by [`check_names`].
pub(crate) fn read_block(node: &Node<'_>, reader: Reader) -> Option<Block> {
    let fields = node.object()?;
    let id = node
        .need("id", "a text that no other block has")
        .and_then(|n| {
            n.text().filter(|t| !t.is_empty()).or_else(|| {
                n.wrong("a text that no other block has");
                None
            })
        });
    let names = Kind::ALL.map(Kind::name);
    let kind = node
        .need("kind", &names.join(", "))
        .and_then(|n| n.one_of(&names, Kind::from_name));
    let rect = node
        .need("box", "an object with x, y, w and h")
        .and_then(|n| read_rect(&n, reader));
    let turn = node
        .get("turn")
        .map_or(Some(0.0), |n| n.number(-MOST_TURN, MOST_TURN));
    let shape = node
        .get("shape")
        .map_or(Some(Shape::Rect), |n| read_shape(&n));
    let bleed = node
        .get("bleed")
        .map_or(Some(Vec::new()), |n| read_bleed(&n));
    let text = |name| node.get(name).and_then(|n| n.text().map(str::to_owned));
    let size = node
        .get("size")
        .map(|n| n.one_of(&ClusterSize::NAMES, ClusterSize::from_name));
    let grid = part_of(node, kind, Kind::Grid, "grid", |n| read_grid(n, reader));
    let ring = part_of(node, kind, Kind::Ring, "ring", |n| read_ring(n, reader));
    let sure = node.get("sure").map(|n| n.number(0.0, 1.0));
    Some(Block {
        id: id?.to_owned(),
        kind: kind?,
        rect: rect?,
        turn: turn?,
        shape: shape?,
        bleed: bleed?,
        under: text("under"),
        host: text("host"),
        size: size.flatten(),
        grid: grid?,
        ring: ring?,
        sure: sure.flatten(),
        other: rest_of(fields, &KNOWN),
    })
}

/// A grid's or ring's own part: needed on its kind, read wherever it stands. The outer `None` is a finding.
fn part_of<T>(
    node: &Node<'_>,
    kind: Option<Kind>,
    of: Kind,
    name: &str,
    read: impl Fn(&Node<'_>) -> Option<T>,
) -> Option<Option<T>> {
    if kind == Some(of) {
        return node
            .need(name, &format!("an object that says how the {name} is made"))
            .and_then(|n| read(&n))
            .map(Some);
    }
    node.get(name).map_or(Some(None), |n| read(&n).map(Some))
}

pub(crate) fn read_rect(node: &Node<'_>, reader: Reader) -> Option<Rect> {
    node.object()?;
    let place = |name| {
        node.need(name, "a length")
            .and_then(|n| n.length(reader.unit, -MOST, MOST))
    };
    let side = |name| {
        node.need(name, "a length above 0")
            .and_then(|n| n.length(reader.unit, LEAST, MOST))
    };
    let (x, y, w, h) = (place("x"), place("y"), side("w"), side("h"));
    Some(Rect {
        x: x?,
        y: y?,
        w: w?,
        h: h?,
    })
}

fn read_shape(node: &Node<'_>) -> Option<Shape> {
    node.object()?;
    let names = ["rect", "ellipse", "triangle", "polygon"];
    let name = node
        .need("type", &names.join(", "))?
        .one_of(&names, |n| names.into_iter().find(|m| *m == n))?;
    match name {
        "ellipse" => Some(Shape::Ellipse),
        "triangle" => {
            let corner = node.need("corner", &TriangleCorner::NAMES.join(", "))?;
            corner
                .one_of(&TriangleCorner::NAMES, TriangleCorner::from_name)
                .map(Shape::Triangle)
        }
        "polygon" => {
            read_points(&node.need("points", "3 or more [x, y] from 0 to 1")?).map(Shape::Polygon)
        }
        _ => Some(Shape::Rect),
    }
}

fn read_points(node: &Node<'_>) -> Option<Vec<[f64; 2]>> {
    if node.value.as_array().is_some_and(|points| points.len() < 3) {
        node.wrong("3 or more [x, y] from 0 to 1");
    }
    node.each(MOST_POINTS, |n| {
        let pair: Vec<f64> = n
            .items()
            .iter()
            .filter_map(|c| c.number(0.0, 1.0))
            .collect();
        let pair = <[f64; 2]>::try_from(pair).ok();
        if pair.is_none() {
            n.wrong("[x, y], both from 0 to 1");
        }
        pair
    })
}

fn read_bleed(node: &Node<'_>) -> Option<Vec<Edge>> {
    let names = Edge::ALL.map(Edge::name);
    let edge = |n: &str| Edge::ALL.into_iter().find(|e| e.name() == n);
    node.value.is_array().then_some(()).or_else(|| {
        node.wrong("a list of left, right, top, bottom");
        None
    })?;
    let mut edges = node.each(MOST_BLEEDS, |n| n.one_of(&names, edge))?;
    edges.sort_unstable();
    edges.dedup();
    Some(edges)
}

fn read_unit_shape(node: &Node<'_>) -> Option<UnitShape> {
    let pick = |n: &str| match n {
        "square" => Some(UnitShape::Square),
        "circle" => Some(UnitShape::Circle),
        _ => None,
    };
    node.get("unit_shape").map_or(Some(UnitShape::Square), |n| {
        n.one_of(&["square", "circle"], pick)
    })
}

fn read_grid(node: &Node<'_>, reader: Reader) -> Option<Grid> {
    node.object()?;
    let units = |name| {
        node.need(name, "a whole number above 0")
            .and_then(|n| n.count(1, MOST_UNITS))
    };
    let (cols, rows) = (units("cols"), units("rows"));
    let gap = node.get("gap").map_or(Some(Length::ZERO), |n| {
        n.length(reader.unit, Length::ZERO, MOST)
    });
    let stagger = node.get("stagger").map_or(Some(0.0), |n| {
        let share = n.value.as_f64().filter(|s| *s == 0.0 || *s == 0.5);
        if share.is_none() {
            n.wrong("0 or 0.5");
        }
        share
    });
    let unit_shape = read_unit_shape(node);
    Some(Grid {
        cols: cols?,
        rows: rows?,
        gap: gap?,
        stagger: stagger?,
        unit_shape: unit_shape?,
    })
}

fn read_ring(node: &Node<'_>, reader: Reader) -> Option<Ring> {
    node.object()?;
    let count = node
        .need("count", "a whole number above 0")
        .and_then(|n| n.count(1, MOST_UNITS));
    let unit = node
        .need("unit", "a diameter above 0")
        .and_then(|n| n.length(reader.unit, LEAST, MOST));
    let unit_shape = read_unit_shape(node);
    Some(Ring {
        count: count?,
        unit: unit?,
        unit_shape: unit_shape?,
    })
}

/// Ids once each; `under` and `host` name another block; no mat frames itself by way of others.
fn check_names(nodes: &[Node<'_>], read: &[Option<Block>]) {
    let mut first: BTreeMap<&str, usize> = BTreeMap::new();
    for (n, id) in nodes
        .iter()
        .enumerate()
        .filter_map(|(n, node)| Some((n, node.get("id")?)))
    {
        let Some(name) = id.value.as_str() else {
            continue;
        };
        match first.get(name) {
            Some(earlier) => id.wrong_because(
                format!("“{name}”, which blocks[{earlier}] has too"),
                "a text that no other block has",
            ),
            None => {
                first.insert(name, n);
            }
        }
    }
    let ids: Vec<&str> = nodes
        .iter()
        .filter_map(|n| n.value.get("id").and_then(Value::as_str))
        .collect();
    for (n, block) in read.iter().enumerate() {
        let Some(block) = block else { continue };
        for (field, named) in [("under", &block.under), ("host", &block.host)] {
            let Some(named) = named else { continue };
            let Some(node) = nodes[n].get(field) else {
                continue;
            };
            if named == &block.id || !ids.contains(&named.as_str()) {
                node.wrong("the id of another block");
            } else if field == "under" && frames_itself(block, read) {
                node.wrong_because(
                    format!("“{named}”, which leads back to “{}”", block.id),
                    "a block that this one frames",
                );
            }
        }
    }
}

/// Whether following `under` from a block leads back to it.
fn frames_itself(block: &Block, read: &[Option<Block>]) -> bool {
    let mut at = block.under.as_deref();
    for _ in 0..read.len() {
        let Some(id) = at else { return false };
        if id == block.id {
            return true;
        }
        at = read
            .iter()
            .flatten()
            .find(|b| b.id == id)
            .and_then(|b| b.under.as_deref());
    }
    false
}

fn rest_of(fields: &Map<String, Value>, known: &[&str]) -> Map<String, Value> {
    fields
        .iter()
        .filter(|(name, _)| !known.contains(&name.as_str()))
        .map(|(n, v)| (n.clone(), v.clone()))
        .collect()
}
