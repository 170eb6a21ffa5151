//! One thing in the stash, or so many of it.

use super::{Colour, Form, Material};
use crate::geometry::{Edge, Rect, Region, Size, Span};
use crate::length::{Length, Unit};
use crate::letters::KeptLetters;

/// The longest side of anything.
pub const LARGEST_SIDE: Length = Length::inches(60, 1);
/// The most of one thing.
pub const MOST_COUNT: u32 = 100_000;

/// What a thing is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum ItemKind {
    /// A sheet of patterned paper.
    Sheet,
    /// A pad of sheets.
    Pad,
    /// Plain, heavy paper.
    Cardstock,
    /// A card to cut apart.
    Card,
    /// Paper that shows what lies under it.
    Vellum,
    /// Clear film.
    Acetate,
    /// What something came in.
    Packaging,
    /// What was left of a sheet.
    Scrap,
    /// A set of letters.
    Letters,
    /// Something to decorate with.
    Embellishment,
    /// Something to work with.
    Tool,
}

impl ItemKind {
    /// All of them, in the order in which the stash shows them.
    pub const ALL: [ItemKind; 11] = [
        ItemKind::Sheet,
        ItemKind::Pad,
        ItemKind::Cardstock,
        ItemKind::Card,
        ItemKind::Vellum,
        ItemKind::Acetate,
        ItemKind::Packaging,
        ItemKind::Scrap,
        ItemKind::Letters,
        ItemKind::Embellishment,
        ItemKind::Tool,
    ];

    /// The names that documents use.
    pub const NAMES: [&'static str; 11] = [
        "sheet",
        "pad",
        "cardstock",
        "card",
        "vellum",
        "acetate",
        "packaging",
        "scrap",
        "letters",
        "embellishment",
        "tool",
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The kind of that document name.
    pub fn from_name(name: &str) -> Option<ItemKind> {
        ItemKind::ALL.into_iter().find(|k| k.name() == name)
    }

    /// Whether pieces of a page are cut from it.
    pub const fn is_paper(self) -> bool {
        !matches!(
            self,
            ItemKind::Letters | ItemKind::Embellishment | ItemKind::Tool
        )
    }

    /// Whether it hides nothing of what lies under it.
    pub const fn is_see_through(self) -> bool {
        matches!(self, ItemKind::Vellum | ItemKind::Acetate)
    }

    /// The size that it usually has.
    pub fn usual_size(self) -> Option<Size> {
        let square = |n| Size {
            w: Length::inches(n, 1),
            h: Length::inches(n, 1),
        };
        match self {
            ItemKind::Sheet => Some(square(12)),
            ItemKind::Pad => Some(square(6)),
            ItemKind::Cardstock | ItemKind::Vellum | ItemKind::Acetate => Some(Size {
                w: Length::inches(17, 2),
                h: Length::inches(11, 1),
            }),
            ItemKind::Card => Some(Size {
                w: Length::inches(3, 1),
                h: Length::inches(4, 1),
            }),
            _ => None,
        }
    }
}

/// Which way a pattern runs.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Direction {
    /// The same however it is turned.
    #[default]
    Any,
    /// Stripes or rows from left to right: half a turn changes nothing.
    Across,
    /// From top to bottom: half a turn changes nothing.
    Down,
    /// There is one way up.
    Up,
}

impl Direction {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["any", "across", "down", "up"];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The direction of that document name.
    pub fn from_name(name: &str) -> Option<Direction> {
        use Direction::{Across, Any, Down, Up};
        [Any, Across, Down, Up]
            .into_iter()
            .find(|d| d.name() == name)
    }
}

/// A colour and how much of the side has it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Swatch {
    /// Which.
    pub colour: Colour,
    /// From 0 to 1.
    pub share: f64,
}

/// One side of a sheet.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Side {
    /// What it is called, where the two sides have names of their own.
    pub name: Option<String>,
    /// Its colours, most first.
    pub colours: Vec<Swatch>,
    /// How large one motif of the pattern is; none where it is plain.
    pub scale: Option<Length>,
    /// How much is going on in it: 0 for plain, 1 for as busy as paper gets.
    pub busy: f64,
    /// Which way the pattern runs.
    pub direction: Direction,
    /// The picture of it.
    pub picture: Option<String>,
    /// How much of the side that picture shows; it is repeated beyond.
    pub tile: Option<Size>,
}

impl Side {
    /// The colour that most of it has.
    pub fn ground(&self) -> Option<Colour> {
        self.colours.first().map(|s| s.colour)
    }
}

/// The maker's strip along an edge.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PrintedStrip {
    /// Where.
    pub edge: Edge,
    /// How wide.
    pub width: Length,
}

/// What a tool can do.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Tool {
    /// The longest cut, of a trimmer.
    pub reach: Option<Length>,
    /// The smallest step it can be set to.
    pub finest: Option<Length>,
    /// The sizes that a punch or die cuts.
    pub cuts: Vec<Size>,
}

/// One thing in the stash, or so many of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Item {
    /// The unit in which the document is written.
    pub unit: Unit,
    /// What it is.
    pub kind: ItemKind,
    /// What she calls it.
    pub name: String,
    /// How large one is.
    pub size: Option<Size>,
    /// How many there are.
    pub count: u32,
    /// The side that lies up.
    pub a: Side,
    /// The other one.
    pub b: Option<Side>,
    /// The maker's strip.
    pub strip: Option<PrintedStrip>,
    /// What has been cut out of a scrap.
    pub bites: Vec<Rect>,
    /// The kit that it came in.
    pub kit: Option<String>,
    /// Where it lies.
    pub kept: Option<String>,
    /// Anything else she wants to know of it.
    pub note: Option<String>,
    /// How thick.
    pub thickness: Option<Length>,
    /// What it is made of, where that was said.
    pub material: Option<Material>,
    /// What a piece to decorate with looks like, where that was said.
    pub form: Option<Form>,
    /// What a tool can do.
    pub tool: Tool,
    /// Of a letter set: its letters.
    pub letters: Option<KeptLetters>,
}

impl Item {
    /// One of a kind, of its usual size, with nothing known of it yet.
    pub fn new(kind: ItemKind, name: String, unit: Unit) -> Item {
        Item {
            unit,
            kind,
            name,
            size: kind.usual_size(),
            count: 1,
            a: Side::default(),
            b: None,
            strip: None,
            bites: Vec::new(),
            kit: None,
            kept: None,
            note: None,
            thickness: None,
            material: None,
            form: None,
            tool: Tool::default(),
            letters: None,
        }
    }

    /// The side of that name: `a` or `b`.
    pub fn side(&self, name: &str) -> Option<&Side> {
        match name {
            "a" => Some(&self.a),
            "b" => self.b.as_ref(),
            _ => None,
        }
    }

    /// The words by which it is found, in small letters: its name, kit, place, note, and the names of its colours.
    pub fn words(&self) -> String {
        let sides = [Some(&self.a), self.b.as_ref()];
        let colours = sides.into_iter().flatten().flat_map(|s| {
            let named = s.colours.iter().filter(|c| c.share >= 0.04);
            named.map(|c| c.colour.name())
        });
        let sides = [Some(&self.a), self.b.as_ref()].into_iter().flatten();
        let names = sides.filter_map(|s| s.name.as_deref());
        let own = [
            Some(self.name.as_str()),
            self.kit.as_deref(),
            self.kept.as_deref(),
            self.note.as_deref(),
        ];
        let all: Vec<&str> = own
            .into_iter()
            .flatten()
            .chain(names)
            .chain(colours)
            .collect();
        all.join(" ").to_lowercase()
    }

    /// What of it can be cut, in ticks from its left top corner: without the printed strip and what has been cut out.
    pub fn region(&self) -> Region {
        let Some(size) = self.size else {
            return Region::default();
        };
        let bites: Vec<Region> = self
            .bites
            .iter()
            .map(|b| Region::from(Span::from(*b)))
            .collect();
        Region::from(usable(size, self.strip)).without(&bites)
    }
}

/// A sheet without its printed strip, in ticks.
pub fn usable(size: Size, strip: Option<PrintedStrip>) -> Span {
    let whole = Span {
        l: 0.0,
        t: 0.0,
        r: size.w.ticks() as f64,
        b: size.h.ticks() as f64,
    };
    strip.map_or(whole, |strip| {
        let width = strip.width.ticks() as f64;
        let at = whole.edge(strip.edge);
        let inwards = if matches!(strip.edge, Edge::Left | Edge::Top) {
            width
        } else {
            -width
        };
        whole.with_edge(strip.edge, at + inwards)
    })
}
