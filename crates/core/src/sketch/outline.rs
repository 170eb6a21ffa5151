//! The true outlines of blocks: what paper, glue and eye take for their edges.

use super::{Block, Grid, Kind, Ring, Shape, TriangleCorner, UnitShape};
use crate::geometry::{Region, Span};
use std::f64::consts::TAU;

/// One of the equal pieces of a grid or ring, before the block is turned.
#[derive(Clone, Debug, PartialEq)]
pub struct UnitOutline {
    /// `ROW/COLUMN` in a grid, `NUMBER` in a ring, counted from 1.
    pub name: String,
    /// Its box in ticks; of a unit that is cut off at the block's edge what is left of it.
    pub span: Span,
    /// Its box before anything was cut off.
    pub undivided: Span,
}

impl UnitOutline {
    /// What there is of it, before the block is turned.
    pub fn outline(&self, shape: UnitShape) -> Region {
        match shape {
            UnitShape::Square => Region::from(self.span),
            UnitShape::Circle if self.span == self.undivided => Region::ellipse(self.span),
            UnitShape::Circle => {
                Region::ellipse(self.undivided).within_also(&Region::from(self.span))
            }
        }
    }
}

/// The units of a grid in its box, row by row. Every second row of a staggered one is shifted by half of unit and gap together, and the
/// units at its ends are cut off at the box.
pub fn grid_units(grid: Grid, within: Span) -> Vec<UnitOutline> {
    let gap = grid.gap.ticks() as f64;
    let (cols, rows) = (f64::from(grid.cols), f64::from(grid.rows));
    let w = gap.mul_add(-(cols - 1.0), within.w()) / cols;
    let h = gap.mul_add(-(rows - 1.0), within.h()) / rows;
    let mut units = Vec::new();
    for row in 0..grid.rows {
        let shift = if row % 2 == 1 { grid.stagger } else { 0.0 };
        let before = f64::from(u8::from(shift > 0.0));
        let count = grid.cols + u32::from(shift > 0.0);
        let t = (h + gap).mul_add(f64::from(row), within.t);
        for column in 0..count {
            let l = (w + gap).mul_add(f64::from(column) + shift - before, within.l);
            let undivided = Span {
                l,
                t,
                r: l + w,
                b: t + h,
            };
            units.push(UnitOutline {
                name: format!("{}/{}", row + 1, column + 1),
                span: snapped_into(undivided, within),
                undivided,
            });
        }
    }
    units
}

/// A unit cut to its block's box; dividing leaves no hair between the last unit and the box's edge.
fn snapped_into(unit: Span, within: Span) -> Span {
    let near = |at: f64, edge: f64| if (at - edge).abs() < 1.0 { edge } else { at };
    Span {
        l: near(unit.l.max(within.l), within.l),
        t: near(unit.t, within.t),
        r: near(unit.r.min(within.r), within.r),
        b: near(unit.b, within.b),
    }
}

/// The units of a ring in its box, clockwise from 12 o'clock. Squares stand upright.
pub fn ring_units(ring: Ring, within: Span) -> Vec<UnitOutline> {
    let unit = ring.unit.ticks() as f64;
    let (rx, ry) = ((within.w() - unit) / 2.0, (within.h() - unit) / 2.0);
    let half = unit / 2.0;
    let at = |n: u32| {
        let (sin, cos) = (f64::from(n) / f64::from(ring.count) * TAU).sin_cos();
        let (x, y) = (sin.mul_add(rx, within.cx()), cos.mul_add(-ry, within.cy()));
        let span = Span {
            l: x - half,
            t: y - half,
            r: x + half,
            b: y + half,
        };
        UnitOutline {
            name: (n + 1).to_string(),
            span,
            undivided: span,
        }
    };
    (0..ring.count).map(at).collect()
}

impl Shape {
    /// The area that it takes of a box, in ticks.
    pub fn outline(&self, within: Span) -> Region {
        match self {
            Shape::Rect => Region::from(within),
            Shape::Ellipse => Region::ellipse(within),
            Shape::Triangle(corner) => triangle(*corner, within),
            Shape::Polygon(points) => Region::within(
                points
                    .iter()
                    .map(|[x, y]| {
                        [
                            x.mul_add(within.w(), within.l),
                            y.mul_add(within.h(), within.t),
                        ]
                    })
                    .collect(),
            ),
        }
    }
}

fn triangle(corner: TriangleCorner, within: Span) -> Region {
    let (x, across) = if corner.left {
        (within.l, within.r)
    } else {
        (within.r, within.l)
    };
    let (y, down) = if corner.top {
        (within.t, within.b)
    } else {
        (within.b, within.t)
    };
    Region::within(vec![[x, y], [across, y], [x, down]])
}

impl Block {
    /// The units of a grid or ring in a box, before the block is turned; none of another kind.
    pub fn units_within(&self, within: Span) -> Vec<UnitOutline> {
        match (self.kind, self.grid, self.ring) {
            (Kind::Grid, Some(grid), _) => grid_units(grid, within),
            (Kind::Ring, _, Some(ring)) => ring_units(ring, within),
            _ => Vec::new(),
        }
    }

    /// The shape of its units.
    pub fn unit_shape(&self) -> UnitShape {
        let grid = self.grid.map(|g| g.unit_shape);
        grid.or(self.ring.map(|r| r.unit_shape)).unwrap_or_default()
    }
}
