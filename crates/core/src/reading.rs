//! What a sketch means, read off its boxes: lines, gaps, contacts, what lies on or frames what, equal sizes.

mod near;

pub use near::{NEARLY, NearLine, made_one, near_lines};

use crate::geometry::{Axis, Span};
use crate::sketch::{Kind, Sketch};

/// Ticks of one inch.
pub(crate) const INCH: f64 = 203_200.0;
/// Edges this close in a sketch are meant to agree: a hair, 1/32 in.
pub const AGREE: f64 = INCH / 32.0;
/// What a layout may be off by and still count as kept: 1/64 in.
pub const KEPT: f64 = INCH / 64.0;
/// What an edge may be off by and still count as there: about 1/1000 in.
pub(crate) const HAIR: f64 = INCH / 1_000.0;
/// The widest distance that is a gap between neighbours rather than open page: 1 in.
pub const GAP_MOST: f64 = INCH;

/// The six places of a box that can line up with the like place of another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Place {
    /// Left edges.
    Left,
    /// Right edges.
    Right,
    /// Centres across.
    CentreX,
    /// Top edges.
    Top,
    /// Bottom edges.
    Bottom,
    /// Centres down.
    CentreY,
}

impl Place {
    /// All six, x first.
    pub const ALL: [Place; 6] = [
        Place::Left,
        Place::Right,
        Place::CentreX,
        Place::Top,
        Place::Bottom,
        Place::CentreY,
    ];

    /// Where that place of a box is.
    pub fn of(self, span: Span) -> f64 {
        match self {
            Place::Left => span.l,
            Place::Right => span.r,
            Place::CentreX => span.cx(),
            Place::Top => span.t,
            Place::Bottom => span.b,
            Place::CentreY => span.cy(),
        }
    }

    /// Whether it is a place in x.
    pub const fn is_x(self) -> bool {
        matches!(self, Place::Left | Place::Right | Place::CentreX)
    }

    /// Whether it is a centre.
    pub const fn is_centre(self) -> bool {
        matches!(self, Place::CentreX | Place::CentreY)
    }

    /// Its name in documents.
    pub const fn along(self) -> &'static str {
        match self {
            Place::Left => "left",
            Place::Right => "right",
            Place::CentreX => "centre-x",
            Place::Top => "top",
            Place::Bottom => "bottom",
            Place::CentreY => "centre-y",
        }
    }

    /// A name for people.
    pub const fn name(self) -> &'static str {
        match self {
            Place::Left => "left edges",
            Place::Right => "right edges",
            Place::CentreX => "centres across",
            Place::Top => "top edges",
            Place::Bottom => "bottom edges",
            Place::CentreY => "centres down",
        }
    }
}

/// How one box lies to another.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Relation {
    /// Apart in x, the first at the left.
    LeftOf,
    /// Apart in x, the first at the right.
    RightOf,
    /// Apart in y, the first on top.
    Above,
    /// Apart in y, the first below.
    Below,
    /// Apart in neither; the second lies in the first.
    Contains,
    /// Apart in neither; the first lies in the second.
    Within,
    /// Apart in neither, and neither holds the other.
    Overlapping,
}

/// The relations of a pair: one in x if apart in x, one in y if apart in y, else one of the last three.
pub fn relations(a: Span, b: Span) -> Vec<Relation> {
    let mut found = Vec::with_capacity(2);
    if a.r <= b.l + KEPT {
        found.push(Relation::LeftOf);
    } else if b.r <= a.l + KEPT {
        found.push(Relation::RightOf);
    }
    if a.b <= b.t + KEPT {
        found.push(Relation::Above);
    } else if b.b <= a.t + KEPT {
        found.push(Relation::Below);
    }
    if found.is_empty() {
        found.push(if b.is_in(a, KEPT) {
            Relation::Contains
        } else if a.is_in(b, KEPT) {
            Relation::Within
        } else {
            Relation::Overlapping
        });
    }
    found
}

/// Whether a relation holds between two boxes, to [`KEPT`].
pub fn holds(relation: Relation, a: Span, b: Span) -> bool {
    match relation {
        Relation::LeftOf => a.r <= b.l + KEPT,
        Relation::RightOf => b.r <= a.l + KEPT,
        Relation::Above => a.b <= b.t + KEPT,
        Relation::Below => b.b <= a.t + KEPT,
        Relation::Contains => b.is_in(a, KEPT),
        Relation::Within => a.is_in(b, KEPT),
        Relation::Overlapping => a.overlaps(b, 1.0),
    }
}

/// Whether two boxes share more than a hair in the direction across `axis`, so that they face each other along it.
pub fn face(a: Span, b: Span, axis: Axis) -> bool {
    if axis == Axis::X {
        a.b.min(b.b) - a.t.max(b.t) > AGREE
    } else {
        a.r.min(b.r) - a.l.max(b.l) > AGREE
    }
}

/// The distance from `a`'s far edge to `b`'s near one, along x or y (negative when they overlap).
pub fn distance(a: Span, b: Span, axis: Axis) -> f64 {
    if axis == Axis::X {
        b.l - a.r
    } else {
        b.t - a.b
    }
}

/// Members of equal value to within `tolerance`, chained: sorted, then cut where two neighbours differ by more.
/// Only classes of two or more are returned, each in ascending order of its members.
pub fn classes(values: &[(usize, f64)], tolerance: f64) -> Vec<Vec<usize>> {
    let mut sorted = values.to_vec();
    sorted.sort_by(|a, b| a.1.total_cmp(&b.1).then(a.0.cmp(&b.0)));
    let mut found = Vec::new();
    for run in sorted.chunk_by(|a, b| b.1 - a.1 <= tolerance) {
        if run.len() > 1 {
            let mut members: Vec<usize> = run.iter().map(|m| m.0).collect();
            members.sort_unstable();
            found.push(members);
        }
    }
    found
}

/// A line: like places of several blocks that agree.
#[derive(Clone, Debug, PartialEq)]
pub struct Line {
    /// Which places.
    pub place: Place,
    /// Where, in ticks (the first member's).
    pub at: f64,
    /// The blocks on it, by index.
    pub blocks: Vec<usize>,
}

/// A gap between two neighbours that face each other.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Gap {
    /// The left or upper block.
    pub from: usize,
    /// The right or lower one.
    pub to: usize,
    /// Along which way it is open.
    pub axis: Axis,
    /// How wide, in ticks.
    pub width: f64,
}

/// What a sketch means.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Reading {
    /// Edges and centres that agree within a hair; mats only with mats.
    pub lines: Vec<Line>,
    /// Distances of up to 1 in between blocks that face each other.
    pub gaps: Vec<Gap>,
    /// Pairs that touch: left or upper block first, and the axis along which they do.
    pub contacts: Vec<(usize, usize, Axis)>,
    /// (upper, lower): the upper block lies on the lower one.
    pub lies_on: Vec<(usize, usize)>,
    /// (frame, framed).
    pub frames: Vec<(usize, usize)>,
    /// Blocks of one kind that are equally wide (along x) or high.
    pub equal: Vec<(Axis, Vec<usize>)>,
    /// Blocks that run off the canvas.
    pub bleeding: Vec<usize>,
    /// Pairs of one kind and size, the one the other's image across the canvas's middle: left and right (true), or top and bottom.
    pub mirrored: Vec<(Axis, usize, usize)>,
}

impl Reading {
    /// Reads a sketch.
    pub fn of(sketch: &Sketch) -> Reading {
        let canvas = sketch.canvas.span();
        let spans: Vec<Span> = sketch.blocks.iter().map(|b| b.measured(canvas)).collect();
        let kinds: Vec<Kind> = sketch.blocks.iter().map(|b| b.kind).collect();
        let mirrored = mirrored(&spans, &kinds, canvas);
        let mut reading = Reading {
            lines: lines(&spans, &kinds),
            equal: equal_sizes(&spans, &kinds),
            mirrored,
            ..Reading::default()
        };
        for (a, block) in sketch.blocks.iter().enumerate() {
            if !block.bleed.is_empty() {
                reading.bleeding.push(a);
            }
            if let Some(framed) = block.under.as_deref().and_then(|id| sketch.index_of(id)) {
                reading.frames.push((a, framed));
            }
            for b in 0..sketch.blocks.len() {
                if b < a && spans[a].overlaps(spans[b], KEPT) {
                    reading.lies_on.push((a, b));
                }
                if a != b {
                    neighbours(&mut reading, &spans, a, b);
                }
            }
        }
        reading
    }
}

/// Notes the contact or gap from `a` rightwards or downwards to `b`.
fn neighbours(reading: &mut Reading, spans: &[Span], a: usize, b: usize) {
    for axis in Axis::BOTH {
        let width = distance(spans[a], spans[b], axis);
        if !face(spans[a], spans[b], axis) {
            continue;
        }
        if width.abs() <= AGREE {
            reading.contacts.push((a, b, axis));
        } else if width > 0.0 && width <= GAP_MOST {
            reading.gaps.push(Gap {
                from: a,
                to: b,
                axis,
                width,
            });
        }
    }
}

/// The lines among boxes; mats agree with mats only.
pub fn lines(spans: &[Span], kinds: &[Kind]) -> Vec<Line> {
    let mut found = Vec::new();
    for place in Place::ALL {
        for mats in [false, true] {
            let values: Vec<(usize, f64)> = spans
                .iter()
                .enumerate()
                .filter(|(n, _)| (kinds[*n] == Kind::Mat) == mats)
                .map(|(n, s)| (n, place.of(*s)))
                .collect();
            for blocks in classes(&values, AGREE) {
                found.push(Line {
                    place,
                    at: place.of(spans[blocks[0]]),
                    blocks,
                });
            }
        }
    }
    found
}

/// Pairs that are each other's image across the middle of the canvas, on the side of which they lie; mats follow their photos.
pub fn mirrored(spans: &[Span], kinds: &[Kind], canvas: Span) -> Vec<(Axis, usize, usize)> {
    let same = |a: f64, b: f64| (a - b).abs() <= AGREE;
    let mut found = Vec::new();
    for (a, first) in spans
        .iter()
        .enumerate()
        .filter(|(a, _)| kinds[*a] != Kind::Mat)
    {
        for (b, second) in spans
            .iter()
            .enumerate()
            .skip(a + 1)
            .filter(|(b, _)| kinds[*b] == kinds[a])
        {
            if !same(first.w(), second.w()) || !same(first.h(), second.h()) {
                continue;
            }
            let apart = (first.cx() - second.cx())
                .abs()
                .max((first.cy() - second.cy()).abs())
                > AGREE;
            if apart && same(first.t, second.t) && same(first.l - canvas.l, canvas.r - second.r) {
                found.push((Axis::X, a, b));
            } else if apart
                && same(first.l, second.l)
                && same(first.t - canvas.t, canvas.b - second.b)
            {
                found.push((Axis::Y, a, b));
            }
        }
    }
    found
}

/// Groups of one kind (mats apart, they follow their photos) that are equally wide or high.
pub fn equal_sizes(spans: &[Span], kinds: &[Kind]) -> Vec<(Axis, Vec<usize>)> {
    let mut found = Vec::new();
    for kind in Kind::ALL.into_iter().filter(|k| *k != Kind::Mat) {
        for axis in Axis::BOTH {
            let size = |s: &Span| if axis == Axis::X { s.w() } else { s.h() };
            let values: Vec<(usize, f64)> = spans
                .iter()
                .enumerate()
                .filter(|(n, _)| kinds[*n] == kind)
                .map(|(n, s)| (n, size(s)))
                .collect();
            found.extend(
                classes(&values, AGREE)
                    .into_iter()
                    .map(|members| (axis, members)),
            );
        }
    }
    found
}
