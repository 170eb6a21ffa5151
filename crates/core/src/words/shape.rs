//! How writing runs in its space: down it, in columns, in strips cut apart, on a card's printed lines, round the page's edge.

use crate::document::Node;
use crate::geometry::Size;
use crate::length::{Length, Unit};
use serde_json::{Value, json};

/// Between columns.
const BETWEEN_COLUMNS: Length = Length::inches(1, 4);
/// Between strips that are cut apart.
const BETWEEN_STRIPS: Length = Length::inches(1, 8);
const MOST_COLUMNS: u32 = 6;
const MOST_LINES: u32 = 100;
/// So often writing goes round a page at most; further in it would be writing on the page's middle.
const MOST_ROUNDS: i64 = 2;
const CLOSEST: Length = Length::inches(1, 16);
const FARTHEST: Length = Length::inches(4, 1);
const KINDS: [&str; 5] = ["lines", "columns", "strips", "printed", "edge"];

/// How writing runs in its space.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Shape {
    /// Line under line.
    #[default]
    Lines,
    /// In so many columns.
    Columns(u32),
    /// Each line on a strip of its own, the strips apart.
    Strips,
    /// On the lines that a card has.
    Printed {
        /// How many.
        lines: u32,
        /// From one to the next.
        apart: Length,
    },
    /// Round the edge, clockwise from the left top corner.
    Edge,
}

/// Room for one line. From its left top corner it runs to the right, turned about that corner.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Slot {
    /// Where its left top corner is, from the space's.
    pub x: Length,
    /// Where its left top corner is, from the space's.
    pub y: Length,
    /// How long it is.
    pub w: Length,
    /// Quarter turns clockwise.
    pub turns: u8,
}

impl Shape {
    /// How large writing comes out that is usually so large: a card's lines may be closer.
    #[must_use]
    pub fn pitch(self, usual: Length) -> Length {
        match self {
            Shape::Printed { apart, .. } => usual.min(apart),
            _ => usual,
        }
    }

    /// Room for lines of that pitch, in the order in which they are written.
    #[must_use]
    pub fn slots(self, space: Size, pitch: Length) -> Vec<Slot> {
        match self {
            Shape::Lines => down((Length::ZERO, space.w), space.h, (pitch, pitch)),
            Shape::Columns(count) => {
                let count = i64::from(count.max(1));
                let gaps = BETWEEN_COLUMNS.ticks() * (count - 1);
                let wide = Length::from_ticks((space.w.ticks() - gaps) / count);
                if wide <= Length::ZERO {
                    return Vec::new();
                }
                let step = wide + BETWEEN_COLUMNS;
                let left = |n: i64| Length::from_ticks(step.ticks() * n);
                let columns = 0..count;
                let column = |n| down((left(n), wide), space.h, (pitch, pitch));
                columns.flat_map(column).collect()
            }
            Shape::Strips => down(
                (Length::ZERO, space.w),
                space.h,
                (pitch, pitch + BETWEEN_STRIPS),
            ),
            Shape::Printed { lines, apart } => {
                let mut slots = down((Length::ZERO, space.w), space.h, (apart, apart));
                slots.truncate(lines as usize);
                slots
            }
            Shape::Edge => round(space, pitch),
        }
    }

    /// How high a space has to be for so many lines under one another.
    pub(super) fn height(self, rows: i64, usual: Length) -> Length {
        let pitch = self.pitch(usual);
        let step = match self {
            Shape::Strips => pitch + BETWEEN_STRIPS,
            Shape::Printed { apart, .. } => apart,
            _ => pitch,
        };
        pitch + Length::from_ticks(step.ticks() * (rows - 1).max(0))
    }

    /// Reads it.
    pub(crate) fn read(node: &Node<'_>, unit: Unit) -> Option<Shape> {
        node.object()?;
        let kind = node.need("kind", "how the writing runs")?;
        let kind = kind.one_of(&KINDS, |k| KINDS.iter().position(|name| *name == k))?;
        match KINDS[kind] {
            "columns" => {
                let count = node.need("count", "how many columns")?;
                Some(Shape::Columns(count.count(2, MOST_COLUMNS)?))
            }
            "strips" => Some(Shape::Strips),
            "printed" => {
                let lines = node.need("lines", "how many lines the card has");
                let lines = lines.and_then(|n| n.count(1, MOST_LINES));
                let apart = node.need("apart", "from one line to the next");
                let apart = apart.and_then(|n| n.length(unit, CLOSEST, FARTHEST));
                Some(Shape::Printed {
                    lines: lines?,
                    apart: apart?,
                })
            }
            "edge" => Some(Shape::Edge),
            _ => Some(Shape::Lines),
        }
    }
}

impl Slot {
    /// Writes it.
    #[must_use]
    pub fn to_json(&self, unit: Unit) -> Value {
        let units = |l: Length| l.to_units(unit);
        json!({"x": units(self.x), "y": units(self.y), "w": units(self.w), "turn": i64::from(self.turns) * 90})
    }
}

/// Line under line: each so high, the next begins so much lower.
fn down((x, w): (Length, Length), h: Length, (high, step): (Length, Length)) -> Vec<Slot> {
    let step = step.ticks().max(1);
    let count = (h - high).ticks().div_euclid(step) + 1;
    let line = |n: i64| Slot {
        x,
        y: Length::from_ticks(n * step),
        w,
        turns: 0,
    };
    (0..count).map(line).collect()
}

/// Along the upper edge, down the right one, back along the lower one and up the left one; then once more within.
fn round(space: Size, pitch: Length) -> Vec<Slot> {
    let (w, h, p) = (space.w.ticks(), space.h.ticks(), pitch.ticks());
    let ticks = Length::from_ticks;
    let rounds = (0..MOST_ROUNDS).flat_map(|n| {
        // The second round keeps half a line's room from the first.
        let inset = n * (p + p / 2);
        let (right, bottom) = (w - inset, h - inset);
        let (across, high) = (right - inset, bottom - inset);
        // Where sides would lie on one another there is no going round.
        let goes_round = across.min(high) >= 3 * p;
        let sides = [
            (inset, inset, across, 0),
            (right, inset + p, high - p, 1),
            (right - p, bottom, across - p, 2),
            (inset, bottom - p, high - 2 * p, 3),
        ];
        sides.into_iter().filter(move |_| goes_round)
    });
    rounds
        .map(|(x, y, long, turns)| Slot {
            x: ticks(x),
            y: ticks(y),
            w: ticks(long),
            turns,
        })
        .collect()
}
