//! Mats and layers, as a maker chooses them: so many behind a photo, each with its border.
//!
//! `"mats": [{"of": ["p1"], "layers": [{"border": 0.125}, {"border": 0.25, "off": {"x": 0.125, "y": 0.125}, "edge": "torn"}]}]`. Layers are
//! listed from the photo outwards; a border is measured from what lies on the layer. `off` sets a layer off to the right and down; `left`,
//! `top`, `right`, `bottom` give a side a border of its own, `lift` says what lies under a layer. With `"each": true` prints that share a slot have
//! layers each. Without `of` a choice is for all photos; later choices come before earlier ones.

use super::lift::Lift;
use crate::document::Node;
use crate::length::Length;
use crate::sketch::{Block, MOST_BLOCKS, Reader};
use serde_json::Value;

/// How many layers may lie behind a photo.
pub const MOST_LAYERS: usize = 3;
/// The widest border.
const WIDEST: Length = Length::inches(4, 1);
/// How many choices a plan may have.
const MOST_CHOICES: usize = 200;

/// How a layer's edge is finished.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum LayerEdge {
    /// Cut.
    #[default]
    Cut,
    /// Torn: it shows its core.
    Torn,
    /// Roughened with a blade or a nail.
    Roughened,
}

impl LayerEdge {
    /// Of a layout's mat, the field that says how its edge is finished; a cut one says nothing.
    pub const FIELD: &'static str = "edge";
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["cut", "torn", "roughened"];

    /// The edge of that document name.
    pub fn from_name(name: &str) -> Option<LayerEdge> {
        match name {
            "cut" => Some(LayerEdge::Cut),
            "torn" => Some(LayerEdge::Torn),
            "roughened" => Some(LayerEdge::Roughened),
            _ => None,
        }
    }

    /// How the edge of a layout's mat is finished.
    pub fn of(mat: &Block) -> LayerEdge {
        let named = mat.other.get(Self::FIELD).and_then(Value::as_str);
        named.and_then(Self::from_name).unwrap_or_default()
    }

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }
}

/// How far something reaches on each side, or is wider there: left, top, right, bottom.
pub type Sides = [Length; 4];

/// One layer behind a photo.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Layer {
    /// How far it shows around what lies on it.
    pub borders: Sides,
    /// How its edge is finished.
    pub edge: LayerEdge,
    /// What lies under it.
    pub lift: Lift,
}

/// What a maker chose for one photo, several, or all.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct MatChoice {
    /// The sketch's photo blocks; all of them when it is empty.
    pub of: Vec<String>,
    /// From the photo outwards; none takes the sketch's own mats away.
    pub layers: Vec<Layer>,
    /// Where prints share a slot, each has layers of its own, not one set for all.
    pub each: bool,
}

/// What was chosen for a photo: nothing where the sketch's own mats stay.
#[must_use]
pub fn mats_of<'a>(choices: &'a [MatChoice], photo: &str) -> Option<&'a MatChoice> {
    let names = |c: &&MatChoice| c.of.iter().any(|id| id == photo);
    let by_name = choices.iter().rev().find(names);
    by_name.or_else(|| choices.iter().rev().find(|c| c.of.is_empty()))
}

/// The layers that were chosen for a photo.
#[must_use]
pub fn layers_of<'a>(choices: &'a [MatChoice], photo: &str) -> Option<&'a [Layer]> {
    mats_of(choices, photo).map(|c| c.layers.as_slice())
}

/// How far each layer reaches beyond the photo, from the innermost outwards.
#[must_use]
pub fn reaches(layers: &[Layer]) -> Vec<Sides> {
    let mut so_far = [Length::ZERO; 4];
    let outwards = |layer: &Layer| {
        for (reach, border) in so_far.iter_mut().zip(layer.borders) {
            *reach = *reach + border;
        }
        so_far
    };
    layers.iter().map(outwards).collect()
}

/// Reads `mats` of a request or a plan.
pub(crate) fn read_mats(node: &Node<'_>, reader: Reader) -> Option<Vec<MatChoice>> {
    node.each(MOST_CHOICES, |n| read_choice(n, reader))
}

fn read_choice(node: &Node<'_>, reader: Reader) -> Option<MatChoice> {
    node.object()?;
    let of = match node.get("of") {
        Some(list) => list.texts(MOST_BLOCKS),
        None => Some(Vec::new()),
    };
    let layers = node
        .need("layers", "a list of up to three layers")
        .and_then(|n| n.each(MOST_LAYERS, |l| read_layer(l, reader)));
    let each = node.flag("each", false);
    Some(MatChoice {
        of: of?,
        layers: layers?,
        each: each?,
    })
}

fn read_layer(node: &Node<'_>, reader: Reader) -> Option<Layer> {
    node.object()?;
    let border = |name: &str| {
        node.get(name)
            .map(|n| n.length(reader.unit, Length::ZERO, WIDEST))
    };
    let all = match border("border") {
        Some(read) => read?,
        None => Length::inches(1, 8),
    };
    let side = |name| border(name).unwrap_or(Some(all));
    let (left, top, right, bottom) = (side("left"), side("top"), side("right"), side("bottom"));
    let off = node.get("off");
    let along = |name: &str| {
        let set = off.as_ref().and_then(|off| off.get(name));
        set.map_or(Some(Length::ZERO), |n| {
            n.length(reader.unit, Length::ZERO - WIDEST, WIDEST)
        })
    };
    let (x, y) = (along("x"), along("y"));
    let edge = node.get("edge").map_or(Some(LayerEdge::Cut), |n| {
        n.one_of(&LayerEdge::NAMES, LayerEdge::from_name)
    });
    let ((left, top, right, bottom), (x, y)) = ((left?, top?, right?, bottom?), (x?, y?));
    let borders = [left - x, top - y, right + x, bottom + y];
    if borders.iter().any(|b| *b < Length::ZERO) {
        let node = off.as_ref().unwrap_or(node);
        node.wrong(
            "set off by no more than its border on that side, or what lies on it would hang over",
        );
        return None;
    }
    let lift = node.get("lift").map_or(Some(Lift::Flat), |n| {
        n.one_of(&Lift::NAMES, Lift::from_name)
    });
    Some(Layer {
        borders,
        edge: edge?,
        lift: lift?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::Findings;
    use crate::length::Unit;
    use serde_json::{Value, json};

    fn read(value: &Value) -> Result<Vec<MatChoice>, String> {
        let findings = Findings::default();
        let reader = Reader { unit: Unit::Inch };
        let read = read_mats(&Node::top(value, &findings), reader);
        findings.finish(read).map_err(|e| e.to_string())
    }

    #[test]
    fn a_layer_set_off_shows_more_on_one_side_and_less_on_the_other() {
        let mats = json!([{"layers": [{"border": 0.125}, {"border": 0.25, "off": {"x": 0.125, "y": -0.125}, "edge": "torn"}]}]);
        let read = read(&mats).expect("two layers");
        let eighths = |n: [i64; 4]| n.map(|n| Length::inches(n, 8));
        let layers = layers_of(&read, "p1").expect("for all photos");
        assert_eq!(layers[1].borders, eighths([1, 3, 3, 1]));
        assert_eq!(layers[1].edge, LayerEdge::Torn);
        assert_eq!(
            reaches(layers),
            [eighths([1, 1, 1, 1]), eighths([2, 4, 4, 2])]
        );
    }

    #[test]
    fn a_photos_own_choice_comes_before_that_for_all() {
        let mats = json!([{"of": ["p1"], "layers": []}, {"layers": [{}]}]);
        let read = read(&mats).expect("two choices");
        assert_eq!(layers_of(&read, "p1"), Some(&[][..]));
        assert_eq!(layers_of(&read, "p2").map(<[Layer]>::len), Some(1));
        assert_eq!(layers_of(&[], "p1"), None);
    }

    #[test]
    fn what_cannot_be_is_told_with_what_may_be() {
        for (mats, said) in [
            (
                json!([{"layers": [{"border": 0.125, "off": {"x": 0.25}}]}]),
                "hang over",
            ),
            (json!([{"layers": [{}, {}, {}, {}]}]), "3"),
            (json!([{"layers": [{"border": -1}]}]), "-1"),
            (json!([{"of": ["p1"]}]), "three layers"),
        ] {
            let error = read(&mats).expect_err("it is no mat");
            assert!(error.contains(said), "{error}");
        }
    }
}
