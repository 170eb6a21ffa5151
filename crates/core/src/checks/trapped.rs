//! Empty paper that is shut in between blocks.

use super::lying::Lying;
use super::sweep::{grown_by_square, shrunk_by_square};
use crate::geometry::{Region, Span, part_area};
use crate::length::Length;

/// A square that just fits, fits: by so much, in ticks, it is taken to be smaller.
const JUST_FITS: f64 = 0.06;
/// Pockets within this of a limit, in square ticks, are at it.
const AREA_HAIR: f64 = 4.2e4;
/// What lies within this of a pocket shuts it in.
const BESIDE: Length = Length::inches(1, 16);

/// What counts as trapped.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TrappedThresholds {
    /// The side of the square that comes in where paper is open.
    pub opening: Length,
    /// The side of the square that a pocket must have room for.
    pub width: Length,
    /// The smallest and the largest pocket, in square ticks.
    pub least: f64,
    /// See `least`.
    pub most: f64,
}

/// Square ticks in a square inch.
pub(super) fn square_inch() -> f64 {
    (Length::inches(1, 1).ticks() as f64).powi(2)
}

impl Default for TrappedThresholds {
    fn default() -> TrappedThresholds {
        TrappedThresholds {
            opening: Length::inches(1, 2),
            width: Length::inches(3, 4),
            least: 0.75 * square_inch(),
            most: 16.0 * square_inch(),
        }
    }
}

/// Paper that is shut in.
#[derive(Clone, Debug, PartialEq)]
pub struct Pocket {
    /// Where.
    pub region: Region,
    /// The box around it, in ticks.
    pub bounds: Span,
    /// In square ticks.
    pub area: f64,
    /// The blocks that shut it in, by their places in the layout.
    pub between: Vec<usize>,
}

/// The pockets of a page or spread.
pub(super) fn trapped(lying: &Lying<'_>, limits: &TrappedThresholds) -> Vec<Pocket> {
    let side = |l: Length| l.ticks() as f64 - JUST_FITS;
    let free = shut_in(lying, side(limits.opening));
    let wide = side(limits.width);
    let core = shrunk_by_square(&free, wide);
    let opened = grown_by_square(&core, wide);
    let pockets = opened.parts().iter().filter(|p| {
        let area = part_area(p);
        area >= limits.least - AREA_HAIR && area <= limits.most + AREA_HAIR
    });
    pockets
        .filter_map(|part| {
            let region = Region::of_part(part.clone());
            let bounds = region.bounds()?;
            Some(Pocket {
                bounds,
                area: region.area(),
                between: beside(lying, &region, bounds),
                region,
            })
        })
        .collect()
}

/// The free paper that a square of this side can't come to from outside.
fn shut_in(lying: &Lying<'_>, side: f64) -> Region {
    let solid: Vec<&Region> = lying.covering().collect();
    if solid.is_empty() {
        return Region::default();
    }
    let solid = Region::union(solid);
    let canvas = lying.canvas;
    let room = 2.0 * side + Length::inches(1, 1).ticks() as f64;
    let around = Span {
        l: canvas.l - room,
        t: canvas.t - room,
        r: canvas.r + room,
        b: canvas.b + room,
    };
    let reached = Region::from(around).without([&grown_by_square(&solid, side)]);
    let is_outside = |part: &&Vec<Vec<[f64; 2]>>| {
        part[0]
            .iter()
            .any(|p| p[0] <= around.l + 1.0 && p[1] <= around.t + 1.0)
    };
    let outside = reached.parts().iter().find(is_outside);
    let open = outside.map_or_else(Region::default, |part| {
        grown_by_square(&Region::of_part(part.clone()), side)
    });
    Region::from(canvas).without([&open, &solid])
}

/// The blocks that lie along a pocket.
fn beside(lying: &Lying<'_>, pocket: &Region, bounds: Span) -> Vec<usize> {
    let reach = BESIDE.ticks() as f64;
    let near = Span {
        l: bounds.l - reach,
        t: bounds.t - reach,
        r: bounds.r + reach,
        b: bounds.b + reach,
    };
    let grown = pocket.grown(reach);
    let touches = |n: &usize| {
        let outline = &lying.outlines[*n];
        lying.covers[*n]
            && outline.bounds().is_some_and(|b| b.overlaps(near, 0.0))
            && !grown.within_also(outline).is_empty()
    };
    (0..lying.outlines.len()).filter(touches).collect()
}
