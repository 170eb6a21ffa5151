//! The photos of a fit request: a count, or prints with what must not be cut on them.
//!
//! A print's `faces` are a field beside those of the format: `"faces": [{"x": 0.1, "y": 0.2, "w": 0.3, "h": 0.3}]`, in shares of the print
//! as it will be looked at, as `keep` of a layout is. The fold never runs through one, and what is trimmed away is taken beside them.

use crate::document::Node;
use crate::geometry::{Axis, Size};
use crate::length::Length;
use crate::sketch::Reader;

/// How many photos may be asked for.
pub const MOST_PHOTOS: u32 = 100;
/// How many faces may be marked on one print.
const MOST_FACES: usize = 40;

/// A print to place, as it will be looked at.
#[derive(Clone, Debug, PartialEq)]
pub struct Print {
    /// Unique in the request.
    pub id: String,
    /// Its size.
    pub size: Size,
    /// The main photo.
    pub focal: bool,
    /// What must neither lie in the fold nor be trimmed away.
    pub faces: Vec<Face>,
}

/// A face, or whatever else must not be cut, on a print as it will be looked at: a box in shares of the print's width and height.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Face {
    /// From the left, 0 to 1.
    pub x: f64,
    /// From the top, 0 to 1.
    pub y: f64,
    /// Its width.
    pub w: f64,
    /// Its height.
    pub h: f64,
}

impl Face {
    /// Where it begins and ends across (or down) a print that is turned by a count of quarters, clockwise; in shares.
    pub(crate) fn run(self, axis: Axis, quarters: u8) -> (f64, f64) {
        let (low, size, back) = match (quarters, axis) {
            (0, Axis::X) | (3, Axis::Y) => (self.x, self.w, quarters == 3),
            (0, Axis::Y) | (1, Axis::X) => (self.y, self.h, quarters == 1),
            (1, Axis::Y) | (2, Axis::X) => (self.x, self.w, quarters == 2),
            _ => (self.y, self.h, quarters == 2),
        };
        if back {
            (1.0 - low - size, 1.0 - low)
        } else {
            (low, low + size)
        }
    }
}

/// Which photos are wanted.
#[derive(Clone, Debug, PartialEq, Default)]
pub enum Photos {
    /// As many as the layout has slots.
    #[default]
    AsDrawn,
    /// So many, in the sketch's own slot shapes.
    Count(u32),
    /// These prints.
    Prints(Vec<Print>),
}

impl Photos {
    /// How many they are, when that is said.
    pub fn count(&self) -> Option<usize> {
        match self {
            Photos::AsDrawn => None,
            Photos::Count(count) => Some(*count as usize),
            Photos::Prints(prints) => Some(prints.len()),
        }
    }
}

/// Reads `photos` of a request.
pub(super) fn read_photos(node: &Node<'_>, reader: Reader) -> Option<Photos> {
    if let Some(count) = node.get("count") {
        return count.count(1, MOST_PHOTOS).map(Photos::Count);
    }
    let nodes = node.value.as_array().map(|_| node.items());
    let Some(nodes) = nodes.filter(|n| !n.is_empty() && n.len() <= MOST_PHOTOS as usize) else {
        node.wrong(format!(
            "a list of 1 to {MOST_PHOTOS} prints, or {{\"count\": 1 to {MOST_PHOTOS}}}"
        ));
        return None;
    };
    let prints: Vec<Option<Print>> = nodes.iter().map(|n| read_print(n, reader)).collect();
    let mut seen: Vec<&str> = Vec::new();
    for (node, print) in nodes.iter().zip(&prints) {
        let Some(print) = print else { continue };
        if seen.contains(&print.id.as_str()) {
            node.get("id")?.wrong("a text that no other print has");
        }
        seen.push(&print.id);
    }
    prints
        .into_iter()
        .collect::<Option<_>>()
        .map(Photos::Prints)
}

fn read_print(node: &Node<'_>, reader: Reader) -> Option<Print> {
    node.object()?;
    let id = node
        .need("id", "a text that no other print has")
        .and_then(|n| n.text());
    let side = |name| {
        node.need(name, "a length above 0")
            .and_then(|n| n.length(reader.unit, Length::inches(1, 8), Length::inches(100, 1)))
    };
    let (w, h) = (side("w"), side("h"));
    let focal = node.get("focal").map_or(Some(false), |n| {
        n.value.as_bool().or_else(|| {
            n.wrong("true or false");
            None
        })
    });
    let faces = node
        .get("faces")
        .map_or(Some(Vec::new()), |n| n.each(MOST_FACES, read_face));
    Some(Print {
        id: id?.to_owned(),
        size: Size { w: w?, h: h? },
        focal: focal?,
        faces: faces?,
    })
}

fn read_face(node: &Node<'_>) -> Option<Face> {
    const ALLOWED: &str = "a share of the print from 0 to 1, x + w and y + h no more than 1";
    node.object()?;
    let share = |name| {
        let node = node.need(name, ALLOWED)?;
        let share = node.value.as_f64().filter(|s| (0.0..=1.0).contains(s));
        if share.is_none() {
            node.wrong(ALLOWED);
        }
        share
    };
    let (x, y, w, h) = (share("x"), share("y"), share("w"), share("h"));
    let face = Face {
        x: x?,
        y: y?,
        w: w?,
        h: h?,
    };
    if face.x + face.w > 1.0 + 1e-9 || face.y + face.h > 1.0 + 1e-9 {
        node.wrong(ALLOWED);
        return None;
    }
    Some(face)
}
