//! A block's outline as the data of one SVG path, in whatever unit a scale gives.

use metrosk_core::geometry::{Rect, Span};
use metrosk_core::length::Length;
use metrosk_core::photos::LayerEdge;
use metrosk_core::sketch::{Block, Grid, Kind, Ring, Shape, TriangleCorner, UnitShape};
use std::f64::consts::TAU;
use std::fmt::Write;

/// A box in drawing units.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Frame {
    pub(crate) x: f64,
    pub(crate) y: f64,
    pub(crate) w: f64,
    pub(crate) h: f64,
}

impl Frame {
    /// A box of ticks, so many ticks a unit.
    pub(crate) fn of(rect: Rect, ticks: f64) -> Frame {
        let unit = |l: metrosk_core::length::Length| l.ticks() as f64 / ticks;
        Frame {
            x: unit(rect.x),
            y: unit(rect.y),
            w: unit(rect.w),
            h: unit(rect.h),
        }
    }

    pub(crate) fn cx(self) -> f64 {
        self.x + self.w / 2.0
    }

    pub(crate) fn cy(self) -> f64 {
        self.y + self.h / 2.0
    }
}

/// A number with as many places as matter, and no trailing zeros.
pub(crate) fn num(value: f64) -> String {
    let text = format!("{value:.5}");
    let text = text.trim_end_matches('0').trim_end_matches('.');
    if text == "-0" {
        "0".to_owned()
    } else {
        text.to_owned()
    }
}

pub(crate) fn rect_path(f: Frame) -> String {
    format!(
        "M{} {}h{}v{}h{}Z",
        num(f.x),
        num(f.y),
        num(f.w),
        num(f.h),
        num(-f.w)
    )
}

fn ellipse_path(f: Frame) -> String {
    let (rx, ry) = (num(f.w / 2.0), num(f.h / 2.0));
    format!(
        "M{} {}a{rx} {ry} 0 1 0 {w} 0a{rx} {ry} 0 1 0 -{w} 0Z",
        num(f.x),
        num(f.cy()),
        w = num(f.w)
    )
}

fn points_path(points: &[[f64; 2]], f: Frame) -> String {
    let mut path = String::new();
    for (n, [x, y]) in points.iter().enumerate() {
        // Writing to a String can't fail.
        let _ = write!(
            path,
            "{}{} {}",
            if n == 0 { "M" } else { "L" },
            num(f.x + x * f.w),
            num(f.y + y * f.h)
        );
    }
    path + "Z"
}

/// What a unit of a grid or ring looks like.
fn unit_path(f: Frame, shape: UnitShape) -> String {
    match shape {
        UnitShape::Square => rect_path(f),
        UnitShape::Circle => ellipse_path(f),
    }
}

/// The real units of a grid; every second row of a staggered one is shifted, its end units cut off at the box.
pub(crate) fn grid_units(grid: Grid, f: Frame, ticks: f64) -> Vec<Frame> {
    let units = metrosk_core::sketch::grid_units(grid, in_ticks(f, ticks));
    units.iter().map(|u| framed(u.span, ticks)).collect()
}

fn ring_units(ring: Ring, f: Frame, ticks: f64) -> Vec<Frame> {
    let units = metrosk_core::sketch::ring_units(ring, in_ticks(f, ticks));
    units.iter().map(|u| framed(u.span, ticks)).collect()
}

fn in_ticks(f: Frame, ticks: f64) -> Span {
    Span {
        l: f.x * ticks,
        t: f.y * ticks,
        r: (f.x + f.w) * ticks,
        b: (f.y + f.h) * ticks,
    }
}

fn framed(span: Span, ticks: f64) -> Frame {
    Frame {
        x: span.l / ticks,
        y: span.t / ticks,
        w: span.w() / ticks,
        h: span.h() / ticks,
    }
}

/// A cluster's lobed outline.
fn lobes(f: Frame) -> String {
    const COUNT: i32 = 9;
    let at = |turn: f64, reach: f64| {
        let angle = turn / f64::from(COUNT) * TAU - TAU / 4.0;
        format!(
            "{} {}",
            num(f.cx() + angle.cos() * reach * f.w / 2.0),
            num(f.cy() + angle.sin() * reach * f.h / 2.0)
        )
    };
    let start = format!("M{}", at(-0.5, 0.84));
    (0..COUNT).map(f64::from).fold(start, |path, n| {
        format!("{path}Q{} {}", at(n, 1.18), at(n + 0.5, 0.84))
    }) + "Z"
}

/// The outline of a block in a frame.
pub(crate) fn outline(block: &Block, f: Frame, ticks: f64) -> String {
    match (block.kind, block.grid, block.ring) {
        (Kind::Grid, Some(grid), _) => grid_units(grid, f, ticks)
            .into_iter()
            .map(|u| unit_path(u, grid.unit_shape))
            .collect(),
        (Kind::Ring, _, Some(ring)) => ring_units(ring, f, ticks)
            .into_iter()
            .map(|u| unit_path(u, ring.unit_shape))
            .collect(),
        (Kind::Cluster, ..) => lobes(f),
        (Kind::Mat, ..) if LayerEdge::of(block) != LayerEdge::Cut => rough_path(block, f, ticks),
        _ => shape_path(&block.shape, f),
    }
}

/// A mat's torn or roughened outline.
fn rough_path(mat: &Block, f: Frame, ticks: f64) -> String {
    /// Points of a round mat, before it is roughened.
    const AROUND: u32 = 48;
    let shares: Vec<[f64; 2]> = match &mat.shape {
        Shape::Rect => vec![[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]],
        Shape::Polygon(points) => points.clone(),
        Shape::Triangle(corner) => triangle(*corner).to_vec(),
        Shape::Ellipse => (0..AROUND)
            .map(|n| f64::from(n) / f64::from(AROUND) * TAU)
            .map(|angle| [0.5 + angle.cos() / 2.0, 0.5 + angle.sin() / 2.0])
            .collect(),
    };
    let points: Vec<(f64, f64)> = shares
        .iter()
        .map(|[x, y]| (f.x + x * f.w, f.y + y * f.h))
        .collect();
    let inch = Length::inches(1, 1).ticks() as f64 / ticks;
    let rough = LayerEdge::of(mat).ragged(&points, inch);
    let drawn: Vec<[f64; 2]> = rough.into_iter().map(|(x, y)| [x, y]).collect();
    let unscaled = Frame {
        x: 0.0,
        y: 0.0,
        w: 1.0,
        h: 1.0,
    };
    points_path(&drawn, unscaled)
}

/// The right angle's corner and its two neighbours, as shares of the box.
fn triangle(corner: TriangleCorner) -> [[f64; 2]; 3] {
    let x = if corner.left { 0.0 } else { 1.0 };
    let y = if corner.top { 0.0 } else { 1.0 };
    [[x, y], [1.0 - x, y], [x, 1.0 - y]]
}

/// The outline of a plain shape in a frame.
pub(crate) fn shape_path(shape: &Shape, f: Frame) -> String {
    match shape {
        Shape::Rect => rect_path(f),
        Shape::Ellipse => ellipse_path(f),
        Shape::Triangle(corner) => points_path(&triangle(*corner), f),
        Shape::Polygon(points) => points_path(points, f),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const BOX: Frame = Frame {
        x: 0.0,
        y: 0.0,
        w: 4.0,
        h: 2.0,
    };

    #[test]
    fn a_staggered_grid_cuts_its_end_units_off() {
        let grid = Grid {
            cols: 4,
            rows: 2,
            gap: Length::ZERO,
            stagger: 0.5,
            unit_shape: UnitShape::Square,
        };
        let units = grid_units(grid, BOX, 203_200.0);
        assert_eq!(units.len(), 4 + 5);
        assert_eq!(
            units[4],
            Frame {
                x: 0.0,
                y: 1.0,
                w: 0.5,
                h: 1.0
            }
        );
        assert_eq!(
            units[8],
            Frame {
                x: 3.5,
                y: 1.0,
                w: 0.5,
                h: 1.0
            }
        );
    }

    #[test]
    fn paths_close_and_numbers_are_short() {
        assert_eq!(rect_path(BOX), "M0 0h4v2h-4Z");
        assert_eq!(num(1.0 / 3.0), "0.33333");
        assert_eq!(num(-0.000_000_1), "0");
        assert!(lobes(BOX).ends_with('Z'));
    }
}
