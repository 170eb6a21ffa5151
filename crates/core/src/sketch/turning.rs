//! Turning a sketch by quarters and flipping it, before it is fitted.

use super::block::{Block, Shape, TriangleCorner};
use super::{Canvas, Sketch};
use crate::geometry::{Edge, Rect, Size};
use crate::length::Length;

/// Quarter turns clockwise.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default)]
pub struct QuarterTurn(u8);

impl QuarterTurn {
    /// The turn of 0, 90, 180 or 270 degrees.
    pub fn from_degrees(degrees: u32) -> Option<QuarterTurn> {
        (degrees.is_multiple_of(90) && degrees < 360).then_some(QuarterTurn((degrees / 90) as u8))
    }

    /// In degrees.
    pub const fn degrees(self) -> u32 {
        self.0 as u32 * 90
    }

    /// Whether width and height change places.
    pub const fn exchanges(self) -> bool {
        self.0 % 2 == 1
    }
}

/// Mirrored or not.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default)]
pub enum Flip {
    /// As it is.
    #[default]
    None,
    /// Left and right exchanged.
    Across,
    /// Top and bottom exchanged.
    Down,
}

impl Flip {
    /// The names that documents use.
    pub const NAMES: [&'static str; 3] = ["none", "across", "down"];

    /// The flip of that document name.
    pub fn from_name(name: &str) -> Option<Flip> {
        [Flip::None, Flip::Across, Flip::Down]
            .into_iter()
            .find(|f| f.name() == name)
    }

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }
}

impl Sketch {
    /// The sketch turned, then flipped. Each box's centre turns with the page and a quarter turn exchanges its sides;
    /// a block's own turn stays under turning and is negated by flipping; corners, bleeds, grids and polygons follow.
    /// Quarter turns are for one-page sketches; a spread takes half turns only.
    pub fn oriented(&self, turn: QuarterTurn, flip: Flip) -> Sketch {
        let mut sketch = self.clone();
        if turn.0 >= 2 {
            let canvas = sketch.canvas;
            sketch.blocks.iter_mut().for_each(|b| half(b, canvas));
        }
        if turn.exchanges() {
            let Size { w, h } = sketch.canvas.page;
            sketch.blocks.iter_mut().for_each(|b| quarter(b, h));
            sketch.canvas.page = Size { w: h, h: w };
        }
        if flip != Flip::None {
            let canvas = sketch.canvas;
            sketch
                .blocks
                .iter_mut()
                .for_each(|b| mirror(b, canvas, flip));
        }
        sketch
    }
}

/// A half turn on a canvas.
fn half(block: &mut Block, canvas: Canvas) {
    block.rect.x = canvas.width() - block.rect.right();
    block.rect.y = canvas.page.h - block.rect.bottom();
    follow(block, Edge::opposite, |[x, y]| [1.0 - x, 1.0 - y]);
}

/// One quarter clockwise on a canvas of that height: (x, y, w, h) becomes (height - y - h, x, h, w).
fn quarter(block: &mut Block, height: Length) {
    let r = block.rect;
    block.rect = Rect {
        x: height - r.bottom(),
        y: r.x,
        w: r.h,
        h: r.w,
    };
    follow(block, |e| e.turned(), |[x, y]| [1.0 - y, x]);
    if let Some(grid) = &mut block.grid {
        std::mem::swap(&mut grid.cols, &mut grid.rows);
    }
}

fn mirror(block: &mut Block, canvas: Canvas, flip: Flip) {
    let across = flip == Flip::Across;
    if across {
        block.rect.x = canvas.width() - block.rect.right();
    } else {
        block.rect.y = canvas.page.h - block.rect.bottom();
    }
    block.turn = if block.turn == 0.0 { 0.0 } else { -block.turn };
    let swapped = |e: Edge| {
        matches!(
            (e, across),
            (Edge::Left | Edge::Right, true) | (Edge::Top | Edge::Bottom, false)
        )
    };
    follow(
        block,
        |e| if swapped(e) { e.opposite() } else { e },
        |[x, y]| if across { [1.0 - x, y] } else { [x, 1.0 - y] },
    );
}

/// Takes bleeds, a triangle's corner and a polygon's points along.
fn follow(block: &mut Block, edge: impl Fn(Edge) -> Edge, point: impl Fn([f64; 2]) -> [f64; 2]) {
    block.bleed = block.bleed.iter().map(|e| edge(*e)).collect();
    block.bleed.sort_unstable();
    match &mut block.shape {
        Shape::Triangle(corner) => {
            let at = point([
                if corner.left { 0.0 } else { 1.0 },
                if corner.top { 0.0 } else { 1.0 },
            ]);
            *corner = TriangleCorner {
                left: at[0] < 0.5,
                top: at[1] < 0.5,
            };
        }
        Shape::Polygon(points) => points.iter_mut().for_each(|p| *p = point(*p)),
        Shape::Rect | Shape::Ellipse => {}
    }
}
