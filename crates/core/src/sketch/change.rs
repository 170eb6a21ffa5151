//! Changes to a sketch that a maker makes on the way to a page: a block put straight, two photos swapped, a cluster moved to another
//! corner, a block of another kind.

use super::{Block, Kind, Sketch};
use crate::document::{Findings, Invalid, Node};
use crate::geometry::{Rect, nearer_to_quarter};
use crate::length::Length;
use serde_json::Value;

/// A corner of a block.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Corner {
    /// Right rather than left.
    pub right: bool,
    /// Bottom rather than top.
    pub bottom: bool,
}

/// One change.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Change {
    /// A turned block stands straight; what frames it or sits square on it turns with it.
    Straighten(String),
    /// Two photos change places, each with its mat; each keeps its own shape as far as the other's place allows.
    Swap(String, String),
    /// A cluster or accent goes to another corner of what it sits on.
    ToCorner(String, Corner),
    /// A block becomes one of another kind.
    Kind(String, Kind),
}

const CHANGES: [&str; 4] = ["straighten", "swap", "corner", "kind"];
const CORNERS: [&str; 4] = ["top-left", "top-right", "bottom-left", "bottom-right"];
/// Kinds that a plain block can become: units need their counts, a mat its photo.
const PLAIN: [Kind; 8] = [
    Kind::Photo,
    Kind::Paper,
    Kind::Strip,
    Kind::Title,
    Kind::Journal,
    Kind::Cluster,
    Kind::Accent,
    Kind::Wash,
];

impl Change {
    /// Reads a change to a sketch: `{"what": "swap", "block": "p1", "with": "p2"}`.
    ///
    /// # Errors
    /// What breaks its rules, with its path.
    pub fn from_json(value: &Value, sketch: &Sketch) -> Result<Change, Invalid> {
        let findings = Findings::default();
        let change = Change::read(&Node::top(value, &findings), sketch);
        findings.finish(change)
    }

    fn read(node: &Node<'_>, sketch: &Sketch) -> Option<Change> {
        node.object()?;
        let what = node
            .need("what", &CHANGES.join(", "))?
            .one_of(&CHANGES, |t| CHANGES.into_iter().find(|c| *c == t))?;
        let block = |field: &str, allowed: &str, suits: &dyn Fn(&Block) -> bool| {
            let field = node.need(field, allowed)?;
            let id = field.text()?;
            if !sketch
                .index_of(id)
                .is_some_and(|n| suits(&sketch.blocks[n]))
            {
                field.wrong(allowed.to_owned());
                return None;
            }
            Some(id.to_owned())
        };
        match what {
            "straighten" => {
                block("block", "the id of a block of the sketch", &|_| true).map(Change::Straighten)
            }
            "swap" => {
                let photo = "the id of a photo of the sketch";
                let first = block("block", photo, &|b| b.kind == Kind::Photo)?;
                let other = block("with", "the id of another photo of the sketch", &|b| {
                    b.kind == Kind::Photo && b.id != first
                })?;
                Some(Change::Swap(first, other))
            }
            "corner" => {
                let sits = |b: &Block| {
                    b.host
                        .as_ref()
                        .is_some_and(|h| sketch.index_of(h).is_some())
                };
                let block = block(
                    "block",
                    "the id of a cluster or accent that sits on a block",
                    &sits,
                )?;
                let at = node
                    .need("corner", &CORNERS.join(", "))?
                    .one_of(&CORNERS, |t| CORNERS.iter().position(|c| *c == t))?;
                Some(Change::ToCorner(
                    block,
                    Corner {
                        right: at % 2 == 1,
                        bottom: at >= 2,
                    },
                ))
            }
            _ => {
                let plain = |b: &Block| b.grid.is_none() && b.ring.is_none() && b.under.is_none();
                let block = block(
                    "block",
                    "the id of a block that is no grid, ring or mat",
                    &plain,
                )?;
                let names = PLAIN.map(Kind::name);
                let kind = node
                    .need("kind", &names.join(", "))?
                    .one_of(&names, |t| Kind::from_name(t).filter(|k| PLAIN.contains(k)))?;
                Some(Change::Kind(block, kind))
            }
        }
    }
}

impl Sketch {
    /// The sketch with a change made.
    ///
    /// # Errors
    /// When the changed sketch breaks a rule of sketches.
    pub fn changed(&self, change: &Change) -> Result<Sketch, Invalid> {
        let mut made = self.clone();
        match change {
            Change::Straighten(id) => straighten(&mut made, id),
            Change::Swap(a, b) => swap(&mut made, a, b),
            Change::ToCorner(id, corner) => to_corner(&mut made, id, *corner),
            Change::Kind(id, kind) => become_kind(&mut made, id, *kind),
        }
        // What a change makes is held to the same rules as what is drawn.
        Sketch::from_json(&made.to_json())
    }
}

/// Half a length, to the tick.
fn half(length: Length) -> Length {
    Length::from_ticks(length.ticks() / 2)
}

fn straighten(sketch: &mut Sketch, id: &str) {
    let Some(n) = sketch.index_of(id) else { return };
    let turn = sketch.blocks[n].turn;
    // A mat is straightened with what it frames, and the other way round.
    let under = sketch.blocks[n].under.clone();
    let goes_along = |b: &Block| {
        b.id == id
            || Some(&b.id) == under.as_ref()
            || b.under.as_deref() == Some(id)
            || b.under.is_some() && b.under == under
    };
    for block in sketch
        .blocks
        .iter_mut()
        .filter(|b| goes_along(b) && (b.turn - turn).abs() < 1e-6)
    {
        if nearer_to_quarter(block.turn) {
            let Rect { x, y, w, h } = block.rect;
            block.rect = Rect {
                x: x + half(w) - half(h),
                y: y + half(h) - half(w),
                w: h,
                h: w,
            };
        }
        block.turn = 0.0;
    }
}

fn swap(sketch: &mut Sketch, a: &str, b: &str) {
    let (Some(n), Some(m)) = (sketch.index_of(a), sketch.index_of(b)) else {
        return;
    };
    // The places stay with their mats and their layer; the photos' names go over, with what sits on them.
    sketch.blocks[n].id = b.to_owned();
    sketch.blocks[m].id = a.to_owned();
    for block in &mut sketch.blocks {
        if let Some(under) = &mut block.under {
            *under = other(under, a, b);
        }
        if let Some(host) = &mut block.host {
            *host = other(host, a, b);
        }
    }
}

fn other(id: &str, a: &str, b: &str) -> String {
    if id == a {
        b.to_owned()
    } else if id == b {
        a.to_owned()
    } else {
        id.to_owned()
    }
}

/// As far from the new corner as it was from the one it was nearest to, on the same sides of it.
fn to_corner(sketch: &mut Sketch, id: &str, corner: Corner) {
    let Some(n) = sketch.index_of(id) else { return };
    let Some(host) = sketch.blocks[n]
        .host
        .clone()
        .and_then(|h| sketch.index_of(&h))
    else {
        return;
    };
    let host = sketch.blocks[host].rect;
    let own = &mut sketch.blocks[n].rect;
    let (cx, cy) = (own.x + half(own.w), own.y + half(own.h));
    let (hx, hy) = (host.x + half(host.w), host.y + half(host.h));
    if (cx > hx) != corner.right {
        own.x = host.x + host.right() - own.right();
    }
    if (cy > hy) != corner.bottom {
        own.y = host.y + host.bottom() - own.bottom();
    }
}

fn become_kind(sketch: &mut Sketch, id: &str, kind: Kind) {
    let Some(n) = sketch.index_of(id) else { return };
    let block = &mut sketch.blocks[n];
    if kind == Kind::Cluster && block.size.is_none() {
        block.size = Some(super::ClusterSize::Medium);
    } else if kind != Kind::Cluster {
        block.size = None;
    }
    if !matches!(kind, Kind::Cluster | Kind::Accent) {
        block.host = None;
    }
    block.kind = kind;
}
