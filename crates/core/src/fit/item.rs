//! What the program places: the sketch's blocks after the choices (merged, split, recounted) have been made.

use super::approach::Map;
use crate::geometry::{Axis, Edge, Rect, Span, nearer_to_quarter};
use crate::sketch::{Grid, Kind};

/// One thing to place.
#[derive(Clone, Debug)]
pub(crate) struct Item {
    /// Sketch blocks, in the sketch's order.
    pub(crate) from: Vec<usize>,
    /// Its kind on the page.
    pub(crate) kind: Kind,
    /// Its measured box in the sketch, in ticks.
    pub(crate) drawn: Span,
    /// Where that is wanted.
    pub(crate) want: Span,
    /// Degrees.
    pub(crate) turn: f64,
    /// Must stay as wide as high.
    pub(crate) round: bool,
    /// The canvas edges it runs off.
    pub(crate) bleed: Vec<Edge>,
    /// Whether all of it lies on the sketch's canvas.
    pub(crate) inside: bool,
    /// On a mat, the item it frames and its borders: left, top, right, bottom, in ticks.
    pub(crate) frames: Option<(usize, [f64; 4])>,
    /// Where its prints have mats each, how far the outermost two reach between two prints, in ticks.
    pub(crate) mats_each: f64,
    /// The item that it sits on.
    pub(crate) host: Option<usize>,
    /// Prints across and down, for photos.
    pub(crate) cells: (u32, u32),
    /// Between them.
    pub(crate) cell_gap: f64,
    /// The prints in its cells, row by row, as indexes of the request's prints.
    pub(crate) prints: Vec<usize>,
    /// On a spread, each of its two parts is as large as all of it would be: it is doubled.
    pub(crate) each: bool,
    /// Of its prints the first is large: as wide (below) or high (beside) as all the small ones together.
    pub(crate) focal: Option<Along>,
    /// On a grid, its units recounted for the target, and as drawn.
    pub(crate) grid: Option<(Grid, Grid)>,
}

impl Item {
    /// Whether it stands with its sides exchanged.
    pub(crate) fn on_its_side(&self) -> bool {
        nearer_to_quarter(self.turn)
    }

    /// The quarters, clockwise, by which it stands turned: 0 to 3.
    pub(crate) fn quarters(&self) -> u8 {
        (self.turn / 90.0).round().rem_euclid(4.0) as u8
    }

    /// The measured extent of an unturned box of it.
    pub(crate) fn extent_of(&self, rect: Rect) -> Span {
        let span = Span::from(rect);
        if !self.on_its_side() {
            return span;
        }
        let (w, h) = (span.h() / 2.0, span.w() / 2.0);
        Span {
            l: span.cx() - w,
            t: span.cy() - h,
            r: span.cx() + w,
            b: span.cy() + h,
        }
    }

    /// Whether some edge of it is not parallel to the page's.
    pub(crate) fn is_tilted(&self) -> bool {
        self.turn.rem_euclid(90.0) != 0.0
    }

    /// The columns and the rows, first and last, that each of its prints takes up.
    pub(crate) fn cell_runs(&self) -> Vec<((usize, usize), (usize, usize))> {
        let (cols, rows) = (self.cells.0 as usize, self.cells.1 as usize);
        match self.focal {
            None => (0..rows)
                .flat_map(|r| (0..cols).map(move |c| ((c, c), (r, r))))
                .collect(),
            Some(Along::Beside) => std::iter::once(((0, 0), (0, rows - 1)))
                .chain((0..rows).map(|r| ((1, 1), (r, r))))
                .collect(),
            Some(Along::Below) => std::iter::once(((0, cols - 1), (0, 0)))
                .chain((0..cols).map(|c| ((c, c), (1, 1))))
                .collect(),
        }
    }

    /// The share of its width, or of its height, that each of its columns or rows takes up, gaps aside.
    pub(crate) fn run_shares(&self, axis: Axis) -> Vec<f64> {
        match (self.focal, axis) {
            (Some(Along::Beside), Axis::X) | (Some(Along::Below), Axis::Y) => {
                vec![FOCAL_SHARE, 1.0 - FOCAL_SHARE]
            }
            _ => {
                let count = if axis == Axis::X {
                    self.cells.0
                } else {
                    self.cells.1
                };
                vec![1.0 / f64::from(count); count as usize]
            }
        }
    }

    /// Whether it would stand on the fold, or in its guard, at the smaller of its wanted and its own grown width; all in ticks.
    pub(crate) fn straddles(&self, map: Map, fold: f64, guard: f64) -> bool {
        straddles(self.drawn, self.want, map, fold, guard)
    }

    /// Whether several prints, or the parts of a block that is doubled or a pair, share it.
    pub(crate) fn is_split(&self) -> bool {
        self.cells != (1, 1)
    }
}

/// [`Item::straddles`], for what is drawn and wanted there.
pub(crate) fn straddles(drawn: Span, want: Span, map: Map, fold: f64, guard: f64) -> bool {
    let grown = (drawn.w() * map.mean()).min(want.w());
    (want.cx() - fold).abs() < grown / 2.0 + guard
}

/// Where the small prints of a slot lie from its large one.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Along {
    /// In a column beside it.
    Beside,
    /// In a row below it.
    Below,
}

/// What the large print takes of a slot that has small ones beside it.
const FOCAL_SHARE: f64 = 2.0 / 3.0;
