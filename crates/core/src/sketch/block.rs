//! A block of a sketch and what it may be.

use crate::geometry::{Edge, Rect, Span};
use crate::length::Length;
use serde_json::{Map, Value};

/// What a block is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Kind {
    /// A slot for a print.
    Photo,
    /// The paper framing a photo.
    Mat,
    /// A panel of patterned paper or cardstock.
    Paper,
    /// A border strip.
    Strip,
    /// Equal units in rows and columns.
    Grid,
    /// Equal units around a centre.
    Ring,
    /// The title.
    Title,
    /// Writing space.
    Journal,
    /// An embellishment cluster.
    Cluster,
    /// One tag, label, banner, ticket or die cut.
    Accent,
    /// An inked, painted, stencilled or splattered area.
    Wash,
}

impl Kind {
    /// All kinds, in the order the format lists them.
    pub const ALL: [Kind; 11] = [
        Kind::Photo,
        Kind::Mat,
        Kind::Paper,
        Kind::Strip,
        Kind::Grid,
        Kind::Ring,
        Kind::Title,
        Kind::Journal,
        Kind::Cluster,
        Kind::Accent,
        Kind::Wash,
    ];

    /// The name that documents use.
    pub const fn name(self) -> &'static str {
        match self {
            Kind::Photo => "photo",
            Kind::Mat => "mat",
            Kind::Paper => "paper",
            Kind::Strip => "strip",
            Kind::Grid => "grid",
            Kind::Ring => "ring",
            Kind::Title => "title",
            Kind::Journal => "journal",
            Kind::Cluster => "cluster",
            Kind::Accent => "accent",
            Kind::Wash => "wash",
        }
    }

    /// What a maker calls it in a sentence.
    pub const fn word(self) -> &'static str {
        match self {
            Kind::Paper => "panel",
            Kind::Journal => "journaling",
            other => other.name(),
        }
    }

    /// The kind of that document name.
    pub fn from_name(name: &str) -> Option<Kind> {
        Kind::ALL.into_iter().find(|k| k.name() == name)
    }
}

/// A corner of a box: where a triangle has its right angle.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct TriangleCorner {
    /// At the top rather than the bottom.
    pub top: bool,
    /// At the left rather than the right.
    pub left: bool,
}

impl TriangleCorner {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["top-left", "top-right", "bottom-left", "bottom-right"];

    /// The corner of that document name.
    pub fn from_name(name: &str) -> Option<TriangleCorner> {
        let at = Self::NAMES.iter().position(|n| *n == name)?;
        Some(TriangleCorner {
            top: at < 2,
            left: at % 2 == 0,
        })
    }

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[if self.top { 0 } else { 2 } + if self.left { 0 } else { 1 }]
    }
}

/// The outline within a block's box.
#[derive(Clone, Debug, PartialEq, Default)]
pub enum Shape {
    /// The whole box.
    #[default]
    Rect,
    /// The ellipse in it.
    Ellipse,
    /// Half of it, with the right angle at a corner.
    Triangle(TriangleCorner),
    /// Points as shares of the box.
    Polygon(Vec<[f64; 2]>),
}

/// The unit's outline in a grid or ring.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default)]
pub enum UnitShape {
    /// A square (or an oblong where the grid's units are).
    #[default]
    Square,
    /// A circle.
    Circle,
}

/// Equal units in rows and columns.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Grid {
    /// Units across.
    pub cols: u32,
    /// Units down.
    pub rows: u32,
    /// Between two units.
    pub gap: Length,
    /// The share of a unit by which every second row is shifted: 0 or 0.5.
    pub stagger: f64,
    /// The unit's outline.
    pub unit_shape: UnitShape,
}

/// Equal units around a centre; the first one's centre is at 12 o'clock.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ring {
    /// How many.
    pub count: u32,
    /// A unit's diameter.
    pub unit: Length,
    /// The unit's outline.
    pub unit_shape: UnitShape,
}

/// How large a cluster is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ClusterSize {
    /// The smallest of the usual three.
    Small,
    /// In between.
    Medium,
    /// The main one.
    Large,
}

impl ClusterSize {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["small", "medium", "large"];

    /// The size of that document name.
    pub fn from_name(name: &str) -> Option<ClusterSize> {
        [ClusterSize::Small, ClusterSize::Medium, ClusterSize::Large]
            .into_iter()
            .find(|s| s.name() == name)
    }

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }
}

/// One block.
#[derive(Clone, Debug, PartialEq)]
pub struct Block {
    /// Unique in its document.
    pub id: String,
    /// What it is.
    pub kind: Kind,
    /// The placed extent before turning; it may hang over the canvas.
    pub rect: Rect,
    /// Degrees clockwise about the box's centre.
    pub turn: f64,
    /// The outline within the box.
    pub shape: Shape,
    /// The canvas edges that it is meant to run off.
    pub bleed: Vec<Edge>,
    /// On a mat, the block it frames.
    pub under: Option<String>,
    /// The block that a cluster or accent sits on.
    pub host: Option<String>,
    /// On a cluster.
    pub size: Option<ClusterSize>,
    /// On a grid.
    pub grid: Option<Grid>,
    /// On a ring.
    pub ring: Option<Ring>,
    /// How sure a reader of pictures is of it, 0 to 1.
    pub sure: Option<f64>,
    /// Fields that this version does not know, kept for writing.
    pub other: Map<String, Value>,
}

impl Block {
    /// Its extent in ticks: the box, width and height exchanged when the turn is nearer to a quarter.
    pub fn extent(&self) -> Span {
        Span::from(self.rect).extent(self.turn)
    }

    /// The true bounds of the turned block in ticks.
    pub fn true_bounds(&self) -> Span {
        Span::from(self.rect).turned_bounds(self.turn, self.shape == Shape::Ellipse)
    }

    /// Its extent, cut to the canvas when it is meant to run off it.
    pub fn measured(&self, canvas: Span) -> Span {
        if self.bleed.is_empty() {
            self.extent()
        } else {
            self.extent().cut_to(canvas)
        }
    }

    /// Whether it is meant to be as wide as high: a ring, or an ellipse drawn as a circle.
    pub fn is_round(&self) -> bool {
        let box_ = Span::from(self.rect);
        (self.kind == Kind::Ring || self.shape == Shape::Ellipse)
            && (box_.w() - box_.h()).abs() < f64::from(203_200 / 32)
    }
}
