//! The ways a sketch can go to a target: each is a map from the sketch's canvas to the target's.

use crate::geometry::Span;
use crate::sketch::Canvas;

/// A named way.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Approach {
    /// (u, v) stays (u, v).
    Scale,
    /// The whole sketch at its own aspect ratio, as large as the target allows, centred.
    Frame,
    /// (u, v) of the page goes to (u, v) of the spread.
    Stretch,
    /// The left page as the sketch, the right one its mirror image.
    Mirror,
    /// Both pages as the sketch.
    Echo,
    /// The left page as the sketch, strips and panels running on.
    RunOn,
    /// (u, v) of the spread goes to (u, v) of the page.
    Merge,
    /// One page of a spread is kept.
    OneSide,
}

impl Approach {
    /// The names that documents use, `auto` first.
    pub const NAMES: [&'static str; 9] = [
        "auto", "scale", "frame", "stretch", "mirror", "echo", "run-on", "merge", "one-side",
    ];
    const ALL: [Approach; 8] = [
        Approach::Scale,
        Approach::Frame,
        Approach::Stretch,
        Approach::Mirror,
        Approach::Echo,
        Approach::RunOn,
        Approach::Merge,
        Approach::OneSide,
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize + 1]
    }

    /// The approach of a document name, where `auto` is none; the outer `None` is an unknown name.
    pub fn or_auto(name: &str) -> Option<Option<Approach>> {
        if name == "auto" {
            return Some(None);
        }
        Self::ALL.into_iter().find(|a| a.name() == name).map(Some)
    }

    /// Whether it takes the sketch as it is, as one map of one canvas to another.
    pub const fn takes_all(self) -> bool {
        matches!(
            self,
            Approach::Scale | Approach::Frame | Approach::Stretch | Approach::Merge
        )
    }

    /// What a sketch loses by it though every block that is left keeps its place: half a spread that says the same again, a page that
    /// is nearly empty, half of a spread.
    pub const fn loses(self) -> f64 {
        match self {
            Approach::Scale | Approach::Frame | Approach::Stretch | Approach::Merge => 0.0,
            Approach::Mirror | Approach::Echo => 14.0,
            Approach::RunOn => 18.0,
            Approach::OneSide => 16.0,
        }
    }

    /// Those that apply from so many pages to so many.
    pub fn that_apply(from: u8, to: u8) -> Vec<Approach> {
        match (from, to) {
            (1, 2) => vec![
                Approach::Stretch,
                Approach::Mirror,
                Approach::Echo,
                Approach::RunOn,
            ],
            (2, 1) => vec![Approach::Merge, Approach::OneSide],
            _ => vec![Approach::Scale, Approach::Frame],
        }
    }
}

/// x -> x * `sx` + `dx`, y -> y * `sy` + `dy`, in ticks.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Map {
    /// Scale across.
    pub sx: f64,
    /// Scale down.
    pub sy: f64,
    dx: f64,
    dy: f64,
}

impl Map {
    /// Where an approach sends a sketch's canvas on a target.
    pub fn new(approach: Approach, sketch: Canvas, target: Canvas) -> Map {
        let (from, to) = (sketch.span(), target.span());
        let (sx, sy) = (to.w() / from.w(), to.h() / from.h());
        if approach != Approach::Frame {
            return Map {
                sx,
                sy,
                dx: 0.0,
                dy: 0.0,
            };
        }
        let s = sx.min(sy);
        Map {
            sx: s,
            sy: s,
            dx: (to.w() - s * from.w()) / 2.0,
            dy: (to.h() - s * from.h()) / 2.0,
        }
    }

    /// Where a box is wanted.
    pub fn apply(self, span: Span) -> Span {
        Span {
            l: span.l * self.sx + self.dx,
            t: span.t * self.sy + self.dy,
            r: span.r * self.sx + self.dx,
            b: span.b * self.sy + self.dy,
        }
    }

    /// The smaller scale.
    pub fn least(self) -> f64 {
        self.sx.min(self.sy)
    }

    /// The larger scale.
    pub fn most(self) -> f64 {
        self.sx.max(self.sy)
    }

    /// The geometric mean of both: the scale of things that keep their shape.
    pub fn mean(self) -> f64 {
        (self.sx * self.sy).sqrt()
    }
}
