//! What the maker holds to of a sketch: the keep-list, and the readings she has switched off or added.
//!
//! Both are fields of the fit request beside those of the format: `"keep": {"p1": "place"}` and
//! `"readings": {"off": [link], "on": [link]}`, a link being `{"what": "line", "along": "left", "blocks": ["p1", "t1"]}`.
//! They speak of the sketch as drawn; a turn or flip is applied to them with it.

use crate::document::Node;
use crate::geometry::Axis;
use crate::reading::Place;
use crate::sketch::{Flip, MOST_BLOCKS, QuarterTurn, Sketch};

/// How many links a request may have.
const MOST_LINKS: usize = 500;

/// How a block is held.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Keep {
    /// To its place: its centre.
    Place,
    /// To its size.
    Size,
    /// To both.
    Both,
    /// To neither, nor to its lines: it goes where there is room.
    Free,
}

impl Keep {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["place", "size", "both", "free"];

    fn from_name(name: &str) -> Option<Keep> {
        [Keep::Place, Keep::Size, Keep::Both, Keep::Free]
            .into_iter()
            .find(|k| Self::NAMES[*k as usize] == name)
    }

    /// Whether the place is held.
    pub const fn holds_place(self) -> bool {
        matches!(self, Keep::Place | Keep::Both)
    }

    /// Whether the size is held.
    pub const fn holds_size(self) -> bool {
        matches!(self, Keep::Size | Keep::Both)
    }
}

/// What is read between blocks.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum What {
    /// Like edges or centres agree.
    Line(Place),
    /// Equally wide (along x) or high.
    Equal(Axis),
    /// Two blocks touch.
    Touch,
    /// A gap between two blocks stays open.
    Gap,
    /// One block lies on, in or over another.
    LiesOn,
    /// Two blocks are each other's image across the middle: left and right (along x), or top and bottom.
    Mirrored(Axis),
}

const WHATS: [&str; 6] = ["line", "equal", "touch", "gap", "lies-on", "mirrored"];
const PLACES: [&str; 6] = [
    Place::Left.along(),
    Place::Right.along(),
    Place::CentreX.along(),
    Place::Top.along(),
    Place::Bottom.along(),
    Place::CentreY.along(),
];
const WAYS: [&str; 2] = ["across", "down"];
const SIZES: [&str; 2] = ["width", "height"];

/// A reading between blocks.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Link {
    /// What it says.
    pub what: What,
    /// Of which sketch blocks: two for all but lines and equal sizes.
    pub blocks: Vec<String>,
}

/// The keep-list and the readings that are not as Metrosk found them.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Holds {
    /// Block by block; what is not listed is weighed with all the rest.
    pub keep: Vec<(String, Keep)>,
    /// Readings that are not held to.
    pub off: Vec<Link>,
    /// Readings that the maker has added.
    pub on: Vec<Link>,
}

impl Holds {
    /// How a block is held, where she says so.
    pub fn keep_of(&self, id: &str) -> Option<Keep> {
        self.keep
            .iter()
            .find(|(k, _)| k == id)
            .map(|(_, keep)| *keep)
    }

    /// Whether a reading of a block counts: it does unless a link that is off names the block.
    pub fn holds_to(&self, what: What, id: &str) -> bool {
        !self
            .off
            .iter()
            .any(|l| l.what == what && l.blocks.iter().any(|b| b == id))
    }

    /// Whether a reading of a pair counts: it does unless a link that is off names both.
    pub fn holds_to_pair(&self, what: What, a: &str, b: &str) -> bool {
        !self.off.iter().any(|l| {
            l.what == what && l.blocks.iter().any(|x| x == a) && l.blocks.iter().any(|x| x == b)
        })
    }

    /// For the sketch turned and flipped.
    pub(super) fn oriented(&self, turn: QuarterTurn, flip: Flip) -> Holds {
        let links = |links: &[Link]| {
            links
                .iter()
                .map(|l| Link {
                    what: oriented(l.what, turn, flip),
                    ..l.clone()
                })
                .collect()
        };
        Holds {
            keep: self.keep.clone(),
            off: links(&self.off),
            on: links(&self.on),
        }
    }

    /// For a sketch made from another: what is said of a block is said of its copies, links among copies of one page each.
    pub(super) fn copied(&self, from: &[(String, String)], right: &str) -> Holds {
        let made = |name: &str| from.iter().any(|(made, _)| made == name);
        let keep = self.keep.iter().flat_map(|(id, keep)| {
            from.iter()
                .filter(move |(_, own)| own == id)
                .map(|(made, _)| (made.clone(), *keep))
        });
        let both = |links: &[Link]| {
            let copy = |l: &Link| {
                let blocks = l
                    .blocks
                    .iter()
                    .map(|b| {
                        if made(&format!("{b}{right}")) {
                            format!("{b}{right}")
                        } else {
                            b.clone()
                        }
                    })
                    .collect();
                Link {
                    blocks,
                    ..l.clone()
                }
            };
            // What has no copy is said once: twice would hold twice as hard.
            let all = links
                .iter()
                .flat_map(|l| std::iter::once(l.clone()).chain(Some(copy(l)).filter(|c| c != l)));
            all.filter(|l| l.blocks.iter().all(|b| made(b))).collect()
        };
        Holds {
            keep: keep.collect(),
            off: both(&self.off),
            on: both(&self.on),
        }
    }
}

/// Where a reading points once the sketch is turned, then flipped.
fn oriented(what: What, turn: QuarterTurn, flip: Flip) -> What {
    match what {
        What::Equal(axis) => What::Equal(axis.turned_if(turn.exchanges())),
        What::Mirrored(axis) => What::Mirrored(axis.turned_if(turn.exchanges())),
        What::Line(place) => {
            let quarter = |p: Place| match p {
                Place::Left => Place::Top,
                Place::Top => Place::Right,
                Place::Right => Place::Bottom,
                Place::Bottom => Place::Left,
                Place::CentreX => Place::CentreY,
                Place::CentreY => Place::CentreX,
            };
            let turned = (0..turn.degrees() / 90).fold(place, |p, _| quarter(p));
            What::Line(match (flip, turned) {
                (Flip::Across, Place::Left) => Place::Right,
                (Flip::Across, Place::Right) => Place::Left,
                (Flip::Down, Place::Top) => Place::Bottom,
                (Flip::Down, Place::Bottom) => Place::Top,
                (_, same) => same,
            })
        }
        other => other,
    }
}

/// Reads `keep` and `readings` of a request.
pub(super) fn read(top: &Node<'_>, sketch: Option<&Sketch>) -> Option<Holds> {
    let keep = top
        .get("keep")
        .map_or(Some(Vec::new()), |n| read_keep(&n, sketch));
    let links = |name: &str| {
        let list = top
            .get("readings")
            .and_then(|n| n.object().and_then(|_| n.get(name)));
        list.map_or(Some(Vec::new()), |n| read_links(&n, sketch))
    };
    let (off, on) = (links("off"), links("on"));
    Some(Holds {
        keep: keep?,
        off: off?,
        on: on?,
    })
}

fn read_keep(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Vec<(String, Keep)>> {
    let fields = node.object()?;
    let one = |id: &String| {
        let keep = node.get(id)?;
        if sketch.is_some_and(|s| s.index_of(id).is_none()) {
            keep.wrong_because(id.clone(), "the id of a block of the sketch");
        }
        Some((id.clone(), keep.one_of(&Keep::NAMES, Keep::from_name)?))
    };
    fields
        .iter()
        .filter(|(_, v)| !v.is_null())
        .map(|(id, _)| one(id))
        .collect::<Vec<_>>()
        .into_iter()
        .collect()
}

fn read_links(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Vec<Link>> {
    node.each(MOST_LINKS, |n| read_link(n, sketch))
}

fn read_link(node: &Node<'_>, sketch: Option<&Sketch>) -> Option<Link> {
    node.object()?;
    let name = node
        .need("what", &WHATS.join(", "))?
        .one_of(&WHATS, |t| WHATS.into_iter().find(|w| *w == t))?;
    let along = |names: &'static [&'static str]| {
        node.need("along", &names.join(", "))?
            .one_of(names, |t| names.iter().position(|p| *p == t))
    };
    let what = match name {
        "line" => What::Line(Place::ALL[along(&PLACES)?]),
        "equal" => What::Equal(Axis::BOTH[along(&SIZES)?]),
        "touch" => What::Touch,
        "gap" => What::Gap,
        "mirrored" => What::Mirrored(Axis::BOTH[along(&WAYS)?]),
        _ => What::LiesOn,
    };
    let list = node.need("blocks", "a list of at least two blocks' ids")?;
    let blocks = list.each(MOST_BLOCKS, |b| {
        let id = b.text()?;
        if sketch.is_some_and(|s| s.index_of(id).is_none()) {
            b.wrong("the id of a block of the sketch");
        }
        Some(id.to_owned())
    })?;
    let pair = !matches!(what, What::Line(_) | What::Equal(_));
    if blocks.len() < 2 || (pair && blocks.len() > 2) {
        list.wrong(if pair {
            "the ids of two blocks"
        } else {
            "the ids of at least two blocks"
        });
    }
    Some(Link { what, blocks })
}
