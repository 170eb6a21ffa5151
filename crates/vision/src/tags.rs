//! Small closed outlines that are no rectangles: labels, flags, banners.

use crate::panels::Panel;
use crate::plane::{Mask, Part, Parts, Plane};
use crate::rounds::Round;
use crate::writing::Extent;
use image::GrayImage;
use imageproc::contours::{BorderType, find_contours};
use imageproc::geometry::approximate_polygon_dp;
use imageproc::point::Point;

/// Sides of a label, in pixels.
const SIDES: std::ops::RangeInclusive<usize> = 34..=460;
/// Faces looked at: more are a texture.
const MOST_FACES: usize = 600;
/// Half a stroke: a face ends inside its outline.
const HALF_STROKE: f64 = 2.0;
/// What a side has at least to count as slanted.
const SLANTED: f64 = 12.0;

/// The corners of each label, clockwise or not, in pixels.
pub(crate) fn find(
    ink: &Mask,
    gray: &Plane,
    panels: &[Panel],
    rounds: &[Round],
    clusters: &[Extent],
) -> Vec<Vec<[f64; 2]>> {
    let faces = ink.not().connected_components(false);
    let known = |e: &Extent| {
        let like = |o: &Extent| e.common(o) > 0.6 * e.with(o).area();
        panels.iter().any(|p| like(&p.extent()))
            || rounds.iter().any(|r| like(&r.extent()))
            || clusters
                .iter()
                .any(|c| c.grown(10.0).common(e) > 0.4 * e.area())
    };
    let mut found: Vec<Vec<[f64; 2]>> = Vec::new();
    for (label, part) in faces
        .each()
        .filter(|(_, p)| SIDES.contains(&p.w()) && SIDES.contains(&p.h()))
        .take(MOST_FACES)
    {
        let share = part.area as f64 / (part.w() * part.h()) as f64;
        if !(0.3..0.97).contains(&share) || known(&Extent::of(&part)) {
            continue;
        }
        let corners = corners(&faces, label, &part);
        if is_label(&corners) && is_outlined(&corners, gray) && !along_panels(&corners, panels) {
            found.push(grown(&corners));
        }
    }
    found
}

/// The corners of a face's outer border.
fn corners(faces: &Parts, label: u32, part: &Part) -> Vec<[f64; 2]> {
    let mut image = GrayImage::new(part.w() as u32 + 2, part.h() as u32 + 2);
    for (x, y) in faces.pixels(label) {
        image.put_pixel(
            (x - part.x0 + 1) as u32,
            (y - part.y0 + 1) as u32,
            image::Luma([255]),
        );
    }
    let outer = find_contours::<i32>(&image)
        .into_iter()
        .filter(|c| c.border_type == BorderType::Outer)
        .max_by_key(|c| c.points.len());
    let Some(outer) = outer else {
        return Vec::new();
    };
    let near = (0.045 * part.w().min(part.h()) as f64).max(3.5);
    let few: Vec<Point<i32>> = approximate_polygon_dp(&outer.points, near, true);
    let place = |p: &Point<i32>| {
        [
            f64::from(p.x - 1) + part.x0 as f64 + 0.5,
            f64::from(p.y - 1) + part.y0 as f64 + 0.5,
        ]
    };
    merged(few.iter().map(place).collect(), near)
}

/// Corners closer together than the outline wavers are one; so is one that lies on the line of its neighbours.
fn merged(mut corners: Vec<[f64; 2]>, near: f64) -> Vec<[f64; 2]> {
    let off = |a: [f64; 2], b: [f64; 2], p: [f64; 2]| {
        let (x, y) = (b[0] - a[0], b[1] - a[1]);
        ((p[0] - a[0]) * y - (p[1] - a[1]) * x).abs() / x.hypot(y).max(1e-9)
    };
    loop {
        let n = corners.len();
        let idle = (0..n).find(|&k| {
            let (before, here, after) =
                (corners[(k + n - 1) % n], corners[k], corners[(k + 1) % n]);
            (here[0] - after[0]).hypot(here[1] - after[1]) < near.max(6.0)
                || off(before, after, here) < 0.8 * near
        });
        match idle {
            Some(k) if n > 3 => corners.remove(k),
            _ => return corners,
        };
    }
}

/// Three to seven corners, two of the sides slanted, and no square that stands on its corner.
fn is_label(corners: &[[f64; 2]]) -> bool {
    let n = corners.len();
    if !(3..=7).contains(&n) {
        return false;
    }
    let slanted = (0..n).filter(|&k| {
        let (a, b) = (corners[k], corners[(k + 1) % n]);
        (a[0] - b[0]).abs() >= SLANTED && (a[1] - b[1]).abs() >= SLANTED
    });
    let slanted = slanted.count();
    slanted >= 2 && !(n == 4 && slanted == 4)
}

/// Whether a darker line runs along most of the corners' outline: a picture inside a photo has none.
fn is_outlined(corners: &[[f64; 2]], gray: &Plane) -> bool {
    let n = corners.len();
    let middle = corners.iter().fold([0.0, 0.0], |m, p| {
        [m[0] + p[0] / n as f64, m[1] + p[1] / n as f64]
    });
    let at = |p: [f64; 2]| gray.sample_bilinear(p[0] as f32, p[1] as f32);
    let (mut dark, mut all) = (0, 0);
    for k in 0..n {
        let (a, b) = (corners[k], corners[(k + 1) % n]);
        let long = (b[0] - a[0]).hypot(b[1] - a[1]).max(1e-9);
        let mut out = [(b[1] - a[1]) / long, -(b[0] - a[0]) / long];
        let half = [(a[0] + b[0]) / 2.0, (a[1] + b[1]) / 2.0];
        if out[0] * (half[0] - middle[0]) + out[1] * (half[1] - middle[1]) < 0.0 {
            out = out.map(|v| -v);
        }
        for i in 1..8 {
            let t = f64::from(i) / 8.0;
            let p = [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
            let away = |d: f64| at([p[0] + out[0] * d, p[1] + out[1] * d]);
            let line = (-2..=6)
                .map(|d| away(f64::from(d)))
                .fold(f32::INFINITY, f32::min);
            all += 1;
            dark += usize::from(line < 0.9 * away(-9.0).min(away(11.0)));
        }
    }
    dark * 100 >= all * 75
}

/// Whether the outline lies for its most part on panels' sides: then it is what they leave open between them.
fn along_panels(corners: &[[f64; 2]], panels: &[Panel]) -> bool {
    let n = corners.len();
    let (mut along, mut all) = (0, 0);
    for k in 0..n {
        let (a, b) = (corners[k], corners[(k + 1) % n]);
        let steps = ((b[0] - a[0]).hypot(b[1] - a[1]) / 6.0).ceil().max(1.0);
        for i in 0..steps as usize {
            let t = (i as f64 + 0.5) / steps;
            let p = [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
            all += 1;
            along += usize::from(panels.iter().any(|o| o.depth(p).abs() < 7.0));
        }
    }
    along * 100 > all * 35
}

/// The corners moved out by half a stroke.
fn grown(corners: &[[f64; 2]]) -> Vec<[f64; 2]> {
    let by = |k: usize| {
        let (low, high) = corners
            .iter()
            .fold((f64::INFINITY, f64::NEG_INFINITY), |(a, b), p| {
                (a.min(p[k]), b.max(p[k]))
            });
        (
            (low + high) / 2.0,
            (high - low + 2.0 * HALF_STROKE) / (high - low).max(1.0),
        )
    };
    let ((mx, sx), (my, sy)) = (by(0), by(1));
    corners
        .iter()
        .map(|p| [mx + (p[0] - mx) * sx, my + (p[1] - my) * sy])
        .collect()
}
