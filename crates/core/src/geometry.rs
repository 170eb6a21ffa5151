//! Rectangles on the page: x runs right and y down from the top left corner.

mod free_rectangle;
mod region;

pub use free_rectangle::largest_free_rectangle;
pub use region::{Part, Point, Region, edge_bounds, part_area};

use crate::length::{Length, Unit};

/// Along which way something runs.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Axis {
    /// From left to right.
    X,
    /// From top to bottom.
    Y,
}

impl Axis {
    /// Both.
    pub const BOTH: [Axis; 2] = [Axis::X, Axis::Y];

    /// The one across it.
    pub const fn other(self) -> Axis {
        match self {
            Axis::X => Axis::Y,
            Axis::Y => Axis::X,
        }
    }

    /// The edges at its beginning and its end.
    pub const fn edges(self) -> (Edge, Edge) {
        match self {
            Axis::X => (Edge::Left, Edge::Right),
            Axis::Y => (Edge::Top, Edge::Bottom),
        }
    }

    /// What this axis is after a quarter turn, or as it was.
    pub const fn turned_if(self, turned: bool) -> Axis {
        if turned { self.other() } else { self }
    }
}

/// An edge of a page or of a block.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Edge {
    /// Smallest x.
    Left,
    /// Largest x.
    Right,
    /// Smallest y.
    Top,
    /// Largest y.
    Bottom,
}

impl Edge {
    /// All four, in the order documents list them.
    pub const ALL: [Edge; 4] = [Edge::Left, Edge::Right, Edge::Top, Edge::Bottom];

    /// The name that documents use.
    pub const fn name(self) -> &'static str {
        match self {
            Edge::Left => "left",
            Edge::Right => "right",
            Edge::Top => "top",
            Edge::Bottom => "bottom",
        }
    }

    /// The edge that this one becomes after a quarter turn clockwise.
    pub const fn turned(self) -> Edge {
        match self {
            Edge::Left => Edge::Top,
            Edge::Top => Edge::Right,
            Edge::Right => Edge::Bottom,
            Edge::Bottom => Edge::Left,
        }
    }

    /// The axis along which its place is told.
    pub const fn axis(self) -> Axis {
        match self {
            Edge::Left | Edge::Right => Axis::X,
            Edge::Top | Edge::Bottom => Axis::Y,
        }
    }

    /// The edge on the other side.
    pub const fn opposite(self) -> Edge {
        match self {
            Edge::Left => Edge::Right,
            Edge::Right => Edge::Left,
            Edge::Top => Edge::Bottom,
            Edge::Bottom => Edge::Top,
        }
    }
}

/// Width and height.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Size {
    /// Width.
    pub w: Length,
    /// Height.
    pub h: Length,
}

impl Size {
    /// `4 × 6 in`: the unit is told once, behind both sides.
    pub(crate) fn to_ruler_text(self, unit: Unit) -> String {
        let (w, h) = (self.w.to_ruler_text(unit), self.h.to_ruler_text(unit));
        format!("{} × {h}", w.trim_end_matches(unit.name()).trim_end())
    }
}

/// A placed box: top left corner, width and height.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Rect {
    /// Left edge.
    pub x: Length,
    /// Top edge.
    pub y: Length,
    /// Width.
    pub w: Length,
    /// Height.
    pub h: Length,
}

impl Rect {
    /// The place of the right edge.
    pub fn right(self) -> Length {
        self.x + self.w
    }

    /// The place of the bottom edge.
    pub fn bottom(self) -> Length {
        self.y + self.h
    }
}

/// A box in ticks as real numbers: left, top, right, bottom. The fit's continuous side and all measures use it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Span {
    /// Left.
    pub l: f64,
    /// Top.
    pub t: f64,
    /// Right.
    pub r: f64,
    /// Bottom.
    pub b: f64,
}

impl From<Rect> for Span {
    fn from(rect: Rect) -> Span {
        let (l, t) = (rect.x.ticks() as f64, rect.y.ticks() as f64);
        Span {
            l,
            t,
            r: l + rect.w.ticks() as f64,
            b: t + rect.h.ticks() as f64,
        }
    }
}

impl Span {
    /// Width.
    pub fn w(self) -> f64 {
        self.r - self.l
    }

    /// Height.
    pub fn h(self) -> f64 {
        self.b - self.t
    }

    /// Centre in x.
    pub fn cx(self) -> f64 {
        (self.l + self.r) / 2.0
    }

    /// Centre in y.
    pub fn cy(self) -> f64 {
        (self.t + self.b) / 2.0
    }

    /// Area, zero for an empty box.
    pub fn area(self) -> f64 {
        self.w().max(0.0) * self.h().max(0.0)
    }

    /// The place of one edge.
    pub fn edge(self, edge: Edge) -> f64 {
        match edge {
            Edge::Left => self.l,
            Edge::Right => self.r,
            Edge::Top => self.t,
            Edge::Bottom => self.b,
        }
    }

    /// The same box with one edge put elsewhere.
    pub fn with_edge(mut self, edge: Edge, at: f64) -> Span {
        match edge {
            Edge::Left => self.l = at,
            Edge::Right => self.r = at,
            Edge::Top => self.t = at,
            Edge::Bottom => self.b = at,
        }
        self
    }

    /// The smallest box around both.
    pub fn around(self, other: Span) -> Span {
        Span {
            l: self.l.min(other.l),
            t: self.t.min(other.t),
            r: self.r.max(other.r),
            b: self.b.max(other.b),
        }
    }

    /// The box cut to another (never inside out).
    pub fn cut_to(self, to: Span) -> Span {
        Span {
            l: self.l.clamp(to.l, to.r),
            t: self.t.clamp(to.t, to.b),
            r: self.r.clamp(to.l, to.r),
            b: self.b.clamp(to.t, to.b),
        }
    }

    /// Whether this box lies in another, give or take a tolerance.
    pub fn is_in(self, other: Span, tolerance: f64) -> bool {
        self.l >= other.l - tolerance
            && self.t >= other.t - tolerance
            && self.r <= other.r + tolerance
            && self.b <= other.b + tolerance
    }

    /// The area that two boxes share.
    pub fn shared_area(self, other: Span) -> f64 {
        let (w, h) = (
            self.r.min(other.r) - self.l.max(other.l),
            self.b.min(other.b) - self.t.max(other.t),
        );
        w.max(0.0) * h.max(0.0)
    }

    /// Whether two boxes share more than a tolerance in both directions.
    pub fn overlaps(self, other: Span, tolerance: f64) -> bool {
        self.r.min(other.r) - self.l.max(other.l) > tolerance
            && self.b.min(other.b) - self.t.max(other.t) > tolerance
    }

    /// Width and height exchanged about the centre.
    pub fn quarter_turned(self) -> Span {
        let (cx, cy, w, h) = (self.cx(), self.cy(), self.w(), self.h());
        Span {
            l: cx - h / 2.0,
            t: cy - w / 2.0,
            r: cx + h / 2.0,
            b: cy + w / 2.0,
        }
    }

    /// The extent of a box turned by `degrees`: its box, width and height exchanged when the turn is nearer to 90 or 270.
    pub fn extent(self, degrees: f64) -> Span {
        if nearer_to_quarter(degrees) {
            self.quarter_turned()
        } else {
            self
        }
    }

    /// The true bounds of a box, or of the ellipse in it, turned about its centre by `degrees`.
    pub fn turned_bounds(self, degrees: f64, ellipse: bool) -> Span {
        if degrees.rem_euclid(360.0) == 0.0 {
            return self;
        }
        let (sin, cos) = degrees.to_radians().sin_cos();
        let (sin, cos, w, h) = (sin.abs(), cos.abs(), self.w() / 2.0, self.h() / 2.0);
        let (half_w, half_h) = if ellipse {
            ((w * cos).hypot(h * sin), (w * sin).hypot(h * cos))
        } else {
            (w * cos + h * sin, w * sin + h * cos)
        };
        Span {
            l: self.cx() - half_w,
            t: self.cy() - half_h,
            r: self.cx() + half_w,
            b: self.cy() + half_h,
        }
    }
}

/// A vector turned clockwise (x to the right, y down) by `degrees`.
pub fn turned((x, y): (f64, f64), degrees: f64) -> (f64, f64) {
    let (sin, cos) = degrees.to_radians().sin_cos();
    (x * cos - y * sin, x * sin + y * cos)
}

/// Whether a turn in degrees is nearer to 90 or 270 than to 0 or 180.
pub fn nearer_to_quarter(degrees: f64) -> bool {
    let half = degrees.rem_euclid(180.0);
    half > 45.0 && half < 135.0
}
