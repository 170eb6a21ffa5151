//! A thing of the stash as a document: `metrosk-stash-item/1`.

use super::item::{
    Direction, Item, ItemKind, LARGEST_SIDE, MOST_COUNT, PrintedStrip, Side, Swatch, Tool,
};
use super::{Colour, Form, Material};
use crate::document::{Findings, Invalid, Node, length_number, number};
use crate::geometry::{Edge, Size};
use crate::length::{Length, Unit};
use crate::letters::KeptLetters;
use crate::sketch::{Reader, read_rect, read_unit};
use serde_json::{Map, Value, json};

/// The `format` of an item.
const FORMAT: &str = "metrosk-stash-item/1";
/// The longest name or note.
const LONGEST_TEXT: usize = 400;
const MOST_BITES: usize = 40;
const MOST_COLOURS: usize = 12;

impl Item {
    /// Reads an item.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Item, Invalid> {
        let findings = Findings::default();
        let item = read_item(&Node::top(value, &findings));
        findings.finish(item)
    }

    /// Writes it.
    pub fn to_json(&self) -> Value {
        let unit = self.unit;
        let length = |l: Length| length_number(l, unit);
        let size = |s: Size| json!({"w": length(s.w), "h": length(s.h)});
        let mut written = Map::new();
        let mut put = |name: &str, value: Option<Value>| {
            if let Some(value) = value {
                written.insert(name.to_owned(), value);
            }
        };
        put("format", Some(FORMAT.into()));
        put("unit", Some(unit.name().into()));
        put("kind", Some(self.kind.name().into()));
        put("name", Some(self.name.clone().into()));
        put("count", Some(self.count.into()));
        put("size", self.size.map(size));
        put("a", Some(side_json(&self.a, unit)));
        put("b", self.b.as_ref().map(|b| side_json(b, unit)));
        let strip = |s: PrintedStrip| json!({"edge": s.edge.name(), "width": length(s.width)});
        put("strip", self.strip.map(strip));
        let bites = self
            .bites
            .iter()
            .map(|b| crate::sketch::rect_json(*b, unit));
        put("bites", (!self.bites.is_empty()).then(|| bites.collect()));
        put("kit", self.kit.clone().map(Value::from));
        put("kept", self.kept.clone().map(Value::from));
        put("note", self.note.clone().map(Value::from));
        put("thickness", self.thickness.map(length));
        put("material", self.material.map(|m| m.name().into()));
        put("form", self.form.map(|f| f.name().into()));
        put("reach", self.tool.reach.map(length));
        put("finest", self.tool.finest.map(length));
        let cuts = self.tool.cuts.iter().map(|s| size(*s));
        put("cuts", (!self.tool.cuts.is_empty()).then(|| cuts.collect()));
        put("letters", self.letters.as_ref().map(|l| l.to_json(unit)));
        Value::Object(written)
    }
}

fn side_json(side: &Side, unit: Unit) -> Value {
    let colours: Vec<Value> = side
        .colours
        .iter()
        .map(|s| json!({"colour": s.colour.to_hex(), "share": number(s.share)}))
        .collect();
    let mut written =
        json!({"colours": colours, "busy": number(side.busy), "direction": side.direction.name()});
    let length = |l: Length| length_number(l, unit);
    for (name, value) in [
        ("name", side.name.clone().map(Value::from)),
        ("scale", side.scale.map(length)),
        ("picture", side.picture.clone().map(Value::from)),
        (
            "tile",
            side.tile
                .map(|t| json!({"w": length(t.w), "h": length(t.h)})),
        ),
    ] {
        if let Some(value) = value {
            written[name] = value;
        }
    }
    written
}

fn read_item(top: &Node<'_>) -> Option<Item> {
    top.object()?;
    if let Some(format) = top.get("format")
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top);
    let reader = Reader {
        unit: unit.unwrap_or_default(),
    };
    let kind = top
        .need("kind", "what it is")
        .and_then(|n| n.one_of(&ItemKind::NAMES, ItemKind::from_name));
    let name = top.need("name", "a name").and_then(|n| read_text(&n));
    let count = top.get("count").map_or(Some(1), |n| n.count(0, MOST_COUNT));
    let size = top.optional("size", |n| read_size(n, reader));
    let a = top
        .get("a")
        .map_or(Some(Side::default()), |n| read_side(&n, reader));
    let b = top.optional("b", |n| read_side(n, reader));
    let strip = top.optional("strip", |n| read_strip(n, reader));
    let bites = top.get("bites").map_or(Some(Vec::new()), |n| {
        n.each(MOST_BITES, |b| read_rect(b, reader))
    });
    let text = |name| top.optional(name, read_text);
    let (kit, kept, note) = (text("kit"), text("kept"), text("note"));
    let length = |name| top.optional(name, |n| positive(n, reader));
    let (thickness, reach, finest) = (length("thickness"), length("reach"), length("finest"));
    let material = top.optional("material", |n| {
        n.one_of(&Material::NAMES, Material::from_name)
    });
    let form = top.optional("form", |n| n.one_of(&Form::NAMES, Form::from_name));
    let cuts = top.get("cuts").map_or(Some(Vec::new()), |n| {
        n.each(MOST_BITES, |c| read_size(c, reader))
    });
    let letters = top.optional("letters", |n| KeptLetters::read(n, reader.unit));
    let item = Item {
        unit: unit?,
        kind: kind?,
        name: name?,
        size: size?,
        count: count?,
        a: a?,
        b: b?,
        strip: strip?,
        bites: bites?,
        kit: kit?,
        kept: kept?,
        note: note?,
        thickness: thickness?,
        material: material?,
        form: form?,
        tool: Tool {
            reach: reach?,
            finest: finest?,
            cuts: cuts?,
        },
        letters: letters?,
    };
    check(top, item)
}

/// What the fields say together.
fn check(top: &Node<'_>, item: Item) -> Option<Item> {
    let unit = item.unit;
    if item.kind.is_paper() && item.size.is_none() && item.kind != ItemKind::Packaging {
        top.need("size", "an object with w and h: how large one is");
        return None;
    }
    let Some(size) = item.size else {
        return Some(item);
    };
    if let Some(strip) = item.strip {
        let across = match strip.edge {
            Edge::Left | Edge::Right => size.w,
            Edge::Top | Edge::Bottom => size.h,
        };
        if strip.width >= across {
            top.get("strip")?.get("width")?.wrong_because(
                strip.width.to_text(unit),
                format!(
                    "less than the sheet, which is {} there",
                    across.to_text(unit)
                ),
            );
            return None;
        }
    }
    if !item.bites.is_empty() && item.region().is_empty() {
        let bites = top.get("bites")?;
        bites.wrong_because(
            "bites that leave nothing",
            "bites that leave some of the sheet",
        );
        return None;
    }
    Some(item)
}

fn read_text(node: &Node<'_>) -> Option<String> {
    let text = node.text()?.trim();
    if text.is_empty() || text.chars().count() > LONGEST_TEXT {
        node.wrong(format!("a text of 1 to {LONGEST_TEXT} characters"));
        return None;
    }
    Some(text.to_owned())
}

fn positive(node: &Node<'_>, reader: Reader) -> Option<Length> {
    node.length(reader.unit, Length::from_ticks(1), LARGEST_SIDE)
}

fn read_size(node: &Node<'_>, reader: Reader) -> Option<Size> {
    node.object()?;
    let side = |name| {
        node.need(name, "a length above 0")
            .and_then(|n| positive(&n, reader))
    };
    let (w, h) = (side("w"), side("h"));
    Some(Size { w: w?, h: h? })
}

fn read_strip(node: &Node<'_>, reader: Reader) -> Option<PrintedStrip> {
    node.object()?;
    let names = Edge::ALL.map(Edge::name);
    let from_name = |name: &str| Edge::ALL.into_iter().find(|e| e.name() == name);
    let edge = node
        .need("edge", "left, right, top or bottom")
        .and_then(|n| n.one_of(&names, from_name));
    let width = node
        .need("width", "a length above 0")
        .and_then(|n| positive(&n, reader));
    Some(PrintedStrip {
        edge: edge?,
        width: width?,
    })
}

fn read_side(node: &Node<'_>, reader: Reader) -> Option<Side> {
    node.object()?;
    let colours = node
        .get("colours")
        .map_or(Some(Vec::new()), |n| n.each(MOST_COLOURS, read_swatch));
    let busy = node.get("busy").map_or(Some(0.0), |n| n.number(0.0, 1.0));
    let direction = node.get("direction").map_or(Some(Direction::Any), |n| {
        n.one_of(&Direction::NAMES, Direction::from_name)
    });
    let name = node.optional("name", read_text);
    let picture = node.optional("picture", read_text);
    let scale = node.optional("scale", |n| positive(n, reader));
    let tile = node.optional("tile", |n| read_size(n, reader));
    Some(Side {
        name: name?,
        colours: colours?,
        scale: scale?,
        busy: busy?,
        direction: direction?,
        picture: picture?,
        tile: tile?,
    })
}

fn read_swatch(node: &Node<'_>) -> Option<Swatch> {
    node.object()?;
    let colour = Colour::read(node);
    let share = node.get("share").map_or(Some(1.0), |n| n.number(0.0, 1.0));
    Some(Swatch {
        colour: colour?,
        share: share?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn kites() -> Value {
        json!({"unit": "in", "kind": "sheet", "name": "Tiny kites", "count": 2, "size": {"w": 12, "h": 12}, "kit": "Ebb",
            "strip": {"edge": "bottom", "width": 0.5}, "kept": "the blue box",
            "a": {"colours": [{"colour": "#f7f1e3", "share": 0.8}, {"colour": "#c83c2f", "share": 0.1}], "scale": 1, "busy": 0.6, "direction": "up"},
            "b": {"colours": [{"colour": "#1f7f7c", "share": 1}], "busy": 0.2, "direction": "down"}})
    }

    #[test]
    fn what_is_read_is_written_again() {
        let item = Item::from_json(&kites()).unwrap();
        assert_eq!(Item::from_json(&item.to_json()).unwrap(), item);
        assert_eq!(item.side("b").unwrap().direction, Direction::Down);
        let inch = 203_200.0;
        assert!((item.region().area() / inch / inch - 138.0).abs() < 1e-6);
    }

    #[test]
    fn what_cannot_be_is_refused_with_its_path() {
        for (field, value, path) in [
            ("count", json!(-1), "count"),
            ("count", json!(1.5), "count"),
            ("kind", json!("lamp"), "kind"),
            ("name", json!(""), "name"),
            ("size", json!({"w": 0, "h": 12}), "size.w"),
            (
                "strip",
                json!({"edge": "bottom", "width": 12}),
                "strip.width",
            ),
            (
                "bites",
                json!([{"x": 0, "y": 0, "w": 12, "h": 12}]),
                "bites",
            ),
            (
                "a",
                json!({"colours": [{"colour": "navy"}]}),
                "a.colours[0].colour",
            ),
        ] {
            let mut item = kites();
            item[field] = value;
            let error = Item::from_json(&item).expect_err(path);
            assert!(error.findings.iter().any(|f| f.path == path), "{error}");
        }
        let mut unsized_ = kites();
        unsized_["size"] = Value::Null;
        assert!(Item::from_json(&unsized_).is_err());
    }

    #[test]
    fn a_scrap_is_a_sheet_with_bites() {
        let scrap = json!({"unit": "in", "kind": "scrap", "name": "Old boards", "size": {"w": 12, "h": 7},
            "bites": [{"x": 9, "y": 0, "w": 3, "h": 2}, {"x": 0, "y": 5, "w": 3, "h": 2}]});
        let item = Item::from_json(&scrap).unwrap();
        let inch = 203_200.0;
        assert!((item.region().area() / inch / inch - 72.0).abs() < 1e-6);
    }
}
