//! The photos of a page: a count, or prints with what must not be cut on them.
//!
//! A print's `faces` are a field beside those of the format: `"faces": [{"x": 0.1, "y": 0.2, "w": 0.3, "h": 0.3}]`, in shares of the print
//! as it will be looked at, as `keep` of a layout is. The fold never runs through one, and what is trimmed away is taken beside them.
//! Beside them too: `"covers"`, areas that an embellishment should hide; `"mark"`, the point that matters; `"file": true`, a picture that
//! can be printed at any size, with its `"pixels": [w, h]`; `"aside": true`, a print that lies on the worktop without a place;
//! `"place": {"block": "p1", "part": 0}`, the slot it is locked to; and `"crop": {"x", "y", "zoom"}`, where she put the window's corner, in
//! shares of the print.

use crate::document::Node;
use crate::geometry::{Axis, Rect, Size};
use crate::length::Length;
use crate::sketch::Reader;

/// How many photos may be asked for.
pub const MOST_PHOTOS: u32 = 100;
/// How many prints may lie on the worktop, those without a place among them.
pub const MOST_PRINTS: usize = 300;
/// How many faces may be marked on one print.
const MOST_FACES: usize = 40;
/// A file is enlarged within its slot up to so many times.
const MOST_ZOOM: f64 = 20.0;
/// The longest side of a picture, in pixels.
const MOST_PIXELS: u32 = 100_000;

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
    /// What an embellishment should hide.
    pub covers: Vec<Face>,
    /// The point that matters, in shares of the print.
    pub mark: Option<(f64, f64)>,
    /// A file, which can be printed at any size; `size` then tells its shape and how large it lies on the worktop.
    pub is_file: bool,
    /// What it is locked to.
    pub place: Option<Place>,
    /// Where she wants the window.
    pub window: Option<Window>,
    /// Of a picture: its pixels across and down.
    pub pixels: Option<(u32, u32)>,
}

/// The slot that a print is locked to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Place {
    /// The sketch's photo block; where the sketch is said twice, its copy after it.
    pub blocks: Vec<String>,
    /// Which of the prints in that slot, from 0.
    pub part: usize,
}

/// Where a window's top left corner is wanted on a print, and how many times a file is enlarged beyond what covers its slot.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Window {
    /// From the left, in shares of the print.
    pub x: f64,
    /// From the top.
    pub y: f64,
    /// 1 shows as much as the slot's shape lets it.
    pub zoom: f64,
}

impl Print {
    /// How large it is printed for a slot: a print on paper as it is, a file so that it covers the slot.
    #[must_use]
    pub fn size_for(&self, slot: Size) -> Size {
        if !self.is_file {
            return self.size;
        }
        let side = |l: Length| l.ticks() as f64;
        let cover = (side(slot.w) / side(self.size.w)).max(side(slot.h) / side(self.size.h));
        let by = cover * self.window.map_or(1.0, |w| w.zoom);
        let scaled =
            |l: Length, least: Length| Length::from_ticks((side(l) * by).round() as i64).max(least);
        Size {
            w: scaled(self.size.w, slot.w),
            h: scaled(self.size.h, slot.h),
        }
    }

    /// Its areas that must be kept, on a print of a size, in ticks: rounded outwards.
    #[must_use]
    pub fn kept_on(&self, size: Size) -> Vec<Rect> {
        self.faces.iter().map(|f| f.on(size)).collect()
    }

    /// Where a window of a slot's size is wanted: where she put it, else about what matters, else in the middle.
    #[must_use]
    pub fn wanted(&self, size: Size, slot: Size) -> (Length, Length) {
        let at = |share: f64, full: Length| {
            Length::from_ticks((share * full.ticks() as f64).round() as i64)
        };
        let half = |l: Length| Length::from_ticks(l.ticks() / 2);
        let within = |at: Length, full: Length, slot: Length| {
            at.clamp(Length::ZERO, (full - slot).max(Length::ZERO))
        };
        let (x, y) = match (self.window, self.mark) {
            (Some(window), _) => (at(window.x, size.w), at(window.y, size.h)),
            (None, Some((x, y))) => (at(x, size.w) - half(slot.w), at(y, size.h) - half(slot.h)),
            (None, None) => (half(size.w - slot.w), half(size.h - slot.h)),
        };
        (within(x, size.w, slot.w), within(y, size.h, slot.h))
    }
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
    /// The box on a print of a size, rounded outwards.
    #[must_use]
    pub fn on(self, size: Size) -> Rect {
        let run = |low: f64, share: f64, full: Length| {
            let full = full.ticks() as f64;
            // A share that was written with four decimals is not to lose a tick.
            let from = (low * full + 0.5).floor().max(0.0) as i64;
            let to = ((low + share) * full - 0.5).ceil().min(full) as i64;
            (Length::from_ticks(from), Length::from_ticks(to.max(from)))
        };
        let ((left, right), (top, bottom)) =
            (run(self.x, self.w, size.w), run(self.y, self.h, size.h));
        Rect {
            x: left,
            y: top,
            w: right - left,
            h: bottom - top,
        }
    }

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
    /// The prints; none where photos are only counted.
    pub fn prints(&self) -> &[Print] {
        match self {
            Photos::AsDrawn | Photos::Count(_) => &[],
            Photos::Prints(prints) => prints,
        }
    }

    /// How many they are, when that is said.
    pub fn count(&self) -> Option<usize> {
        match self {
            Photos::AsDrawn => None,
            Photos::Count(count) => Some(*count as usize),
            Photos::Prints(prints) => Some(prints.len()),
        }
    }
}

/// The photos as they are written: those to place, and the prints that lie aside.
pub(crate) struct Written {
    pub(crate) photos: Photos,
    pub(crate) aside: Vec<Print>,
}

/// Reads `photos` of a request or a plan.
pub(crate) fn read_photos(node: &Node<'_>, reader: Reader) -> Option<Written> {
    if let Some(count) = node.get("count") {
        let photos = count.count(1, MOST_PHOTOS).map(Photos::Count)?;
        let aside = Vec::new();
        return Some(Written { photos, aside });
    }
    let nodes = node.value.as_array().map(|_| node.items());
    let Some(nodes) = nodes.filter(|n| !n.is_empty() && n.len() <= MOST_PRINTS) else {
        node.wrong(format!(
            "a list of 1 to {MOST_PRINTS} prints, or {{\"count\": 1 to {MOST_PHOTOS}}}"
        ));
        return None;
    };
    let prints: Vec<Option<(Print, bool)>> = nodes.iter().map(|n| read_print(n, reader)).collect();
    let mut seen: Vec<&str> = Vec::new();
    let mut locked: Vec<&Place> = Vec::new();
    for (node, print) in nodes.iter().zip(&prints) {
        let Some((print, aside)) = print else {
            continue;
        };
        if seen.contains(&print.id.as_str()) {
            node.get("id")?.wrong("a text that no other print has");
        }
        seen.push(&print.id);
        if let Some(place) = print.place.as_ref().filter(|_| !aside) {
            if locked.contains(&place) {
                node.get("place")?
                    .wrong("a place that no other print is locked to");
            }
            locked.push(place);
        }
    }
    let prints: Vec<(Print, bool)> = prints.into_iter().collect::<Option<_>>()?;
    let (aside, placed): (Vec<_>, Vec<_>) = prints.into_iter().partition(|(_, aside)| *aside);
    if placed.len() > MOST_PHOTOS as usize {
        node.wrong_because(
            format!("{} prints to place", placed.len()),
            format!("up to {MOST_PHOTOS}; the others lie aside"),
        );
        return None;
    }
    let of =
        |list: Vec<(Print, bool)>| list.into_iter().map(|(print, _)| print).collect::<Vec<_>>();
    Some(Written {
        photos: if placed.is_empty() {
            Photos::AsDrawn
        } else {
            Photos::Prints(of(placed))
        },
        aside: of(aside),
    })
}

/// A print, and whether it lies aside.
fn read_print(node: &Node<'_>, reader: Reader) -> Option<(Print, bool)> {
    node.object()?;
    let id = node
        .need("id", "a text that no other print has")
        .and_then(|n| n.text());
    let side = |name| {
        node.need(name, "a length above 0")
            .and_then(|n| n.length(reader.unit, Length::inches(1, 8), Length::inches(100, 1)))
    };
    let (w, h) = (side("w"), side("h"));
    let areas = |name| {
        node.get(name)
            .map_or(Some(Vec::new()), |n| n.each(MOST_FACES, read_face))
    };
    let (faces, covers) = (areas("faces"), areas("covers"));
    let (focal, is_file, aside) = (
        node.flag("focal", false),
        node.flag("file", false),
        node.flag("aside", false),
    );
    let mark = node.optional("mark", read_mark);
    let place = node.optional("place", read_place);
    let window = node.optional("crop", |n| read_window(n, is_file.unwrap_or_default()));
    let pixels = node.optional("pixels", read_pixels);
    let print = Print {
        id: id?.to_owned(),
        size: Size { w: w?, h: h? },
        focal: focal?,
        faces: faces?,
        covers: covers?,
        mark: mark?,
        is_file: is_file?,
        place: place?,
        window: window?,
        pixels: pixels?,
    };
    Some((print, aside?))
}

fn read_mark(node: &Node<'_>) -> Option<(f64, f64)> {
    node.object()?;
    let share = |name| node.need(name, "a share from 0 to 1")?.number(0.0, 1.0);
    let (x, y) = (share("x"), share("y"));
    Some((x?, y?))
}

fn read_place(node: &Node<'_>) -> Option<Place> {
    node.object()?;
    let block = node
        .need("block", "the id of a photo block")
        .and_then(|n| n.text());
    let part = node
        .get("part")
        .map_or(Some(0), |n| n.count(0, MOST_PHOTOS));
    Some(Place {
        blocks: vec![block?.to_owned()],
        part: part? as usize,
    })
}

fn read_window(node: &Node<'_>, is_file: bool) -> Option<Window> {
    node.object()?;
    let share = |name| node.need(name, "a share from 0 to 1")?.number(0.0, 1.0);
    let (x, y) = (share("x"), share("y"));
    let zoom = node.get("zoom").map_or(Some(1.0), |n| {
        n.number(1.0, if is_file { MOST_ZOOM } else { 1.0 })
    });
    Some(Window {
        x: x?,
        y: y?,
        zoom: zoom?,
    })
}

fn read_pixels(node: &Node<'_>) -> Option<(u32, u32)> {
    let sides = node.each(2, |n| n.count(1, MOST_PIXELS))?;
    match sides[..] {
        [w, h] => Some((w, h)),
        _ => {
            node.wrong("two counts of pixels, across and down");
            None
        }
    }
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
