//! Where the page lies in a picture: a bright sheet on a table, and the outline drawn on it.

use crate::among::{is_drawn, outline_among_print};
use crate::plane::{Mask, Plane, quantile};
use crate::quad::{
    Quad, area, corners_of, length, meeting, onto, project_point, robust, sharpened,
};
use crate::surround::page_by_tone;
use image::RgbImage;
use imageproc::geometric_transformations::Projection;

/// What was found of the page.
#[derive(Debug, Clone)]
pub(crate) struct Found {
    /// One quad for one page or a whole spread, two for pages drawn apart.
    pub(crate) quads: Vec<Quad>,
    /// Whether it is a photograph of a sheet on something darker: its light is uneven.
    pub(crate) photographed: bool,
    /// Whether an outline was drawn; else the page is the whole sheet or picture.
    pub(crate) outlined: bool,
}

/// Finds the page or pages in a picture, whose brightness (0 to 255) is `gray`.
pub(crate) fn find(picture: &RgbImage, gray: &Plane, pages: u32) -> Found {
    let sheet = sheet(gray);
    let whole: Quad = [
        [0.0, 0.0],
        [gray.w as f64, 0.0],
        [gray.w as f64, gray.h as f64],
        [0.0, gray.h as f64],
    ];
    let channels = channels_of(picture);
    let Some(sheet) = sheet else {
        let (quad, outlined) = drawn_or_toned(outline(gray, 0), &channels);
        return Found {
            quads: vec![quad.unwrap_or(whole)],
            photographed: false,
            outlined,
        };
    };
    let (flat, back) = straightened(gray, &sheet, 1400.0, pages);
    let flat = evened(&flat);
    let rim = flat.w.max(flat.h) / 50;
    let colours = channels.map(|c| inner(&sampled(&c, &back, flat.w, flat.h), rim));
    let (quad, outlined) = match outline(&flat, rim) {
        Some(quad) => (Some(quad), true),
        None => {
            let moved = |p: [f64; 2]| p.map(|v| v + rim as f64);
            (page_by_tone(&colours).map(|q| q.map(moved)), false)
        }
    };
    Found {
        quads: vec![quad.map_or(sheet, |q| q.map(|p| project_point(&back, p)))],
        photographed: true,
        outlined,
    }
}

/// Of a page that is drawn by an outline and one that is told by its tone the right one, and whether it has an outline. An outline that
/// lies well within another paper is something on that paper; one that runs along its edge is the page's own.
fn drawn_or_toned(outline: Option<Quad>, channels: &[Plane; 3]) -> (Option<Quad>, bool) {
    let toned = page_by_tone(channels);
    match (outline, toned) {
        (Some(outline), Some(toned)) if area(&outline) < WELL_WITHIN * area(&toned) => {
            (Some(toned), false)
        }
        (Some(outline), _) => (Some(outline), true),
        (None, toned) => (toned, false),
    }
}

/// Of a paper's area, what a page's own outline takes in at least.
const WELL_WITHIN: f64 = 0.93;

/// Red, green and blue, each as a plane.
fn channels_of(picture: &RgbImage) -> [Plane; 3] {
    [0, 1, 2].map(|n| Plane {
        w: picture.width() as usize,
        h: picture.height() as usize,
        data: picture.pixels().map(|p| f32::from(p.0[n])).collect(),
    })
}

/// A plane without its rim: a straightened sheet's own edge is soft.
fn inner(plane: &Plane, rim: usize) -> Plane {
    let (w, h) = (plane.w - 2 * rim, plane.h - 2 * rim);
    let mut out = Plane::new(w, h);
    for y in 0..h {
        for x in 0..w {
            out.data[y * w + x] = plane.at(x + rim, y + rim);
        }
    }
    out
}

/// A quad brought to an upright plane of at most `most` pixels a side, and the way back.
fn straightened(gray: &Plane, quad: &Quad, most: f64, pages: u32) -> (Plane, Projection) {
    let w = length(quad[0], quad[1]).max(length(quad[3], quad[2]));
    let h = length(quad[0], quad[3]).max(length(quad[1], quad[2]));
    let scale = (most * f64::from(pages).sqrt() / w.max(h)).min(1.5);
    let (w, h) = ((w * scale).max(16.0), (h * scale).max(16.0));
    let back = onto(w, h, quad).unwrap_or_else(|| Projection::scale(1.0, 1.0));
    (sampled(gray, &back, w as usize, h as usize), back)
}

/// A plane through a projection.
pub(crate) fn sampled(from: &Plane, back: &Projection, w: usize, h: usize) -> Plane {
    let mut out = Plane::new(w, h);
    for y in 0..h {
        for x in 0..w {
            let (u, v) = *back * (x as f32 + 0.5, y as f32 + 0.5);
            out.data[y * w + x] = from.sample_bilinear(u - 0.5, v - 0.5);
        }
    }
    out
}

/// Light that falls unevenly is divided out: what is left is the paper's tone, the sheet itself near 235.
pub(crate) fn evened(gray: &Plane) -> Plane {
    let light = light(gray);
    gray.with(&light, |v, l| (v / l.max(8.0) * 235.0).min(255.0))
}

/// How bright the bare paper is at each place: high values of coarse tiles, smoothed. Filled areas are bridged by their surroundings.
fn light(gray: &Plane) -> Plane {
    let tile = (gray.w.max(gray.h) / 24).max(8);
    let (tw, th) = (gray.w.div_ceil(tile), gray.h.div_ceil(tile));
    let mut tiles = Plane::new(tw, th);
    for ty in 0..th {
        for tx in 0..tw {
            let mut values = Vec::new();
            for y in (ty * tile..((ty + 1) * tile).min(gray.h)).step_by(3) {
                for x in (tx * tile..((tx + 1) * tile).min(gray.w)).step_by(3) {
                    values.push(gray.at(x, y));
                }
            }
            tiles.data[ty * tw + tx] = quantile(&mut values, 0.8);
        }
    }
    // Bare paper changes slowly and is brighter than what lies on it: a closing fills what is up to a third of the page wide.
    let closed = tiles.largest(4).smallest(4).blurred(1);
    let mut out = Plane::new(gray.w, gray.h);
    for y in 0..gray.h {
        for x in 0..gray.w {
            let (u, v) = (
                (x as f32 + 0.5) / tile as f32 - 0.5,
                (y as f32 + 0.5) / tile as f32 - 0.5,
            );
            out.data[y * gray.w + x] = closed.sample_bilinear(u, v);
        }
    }
    out
}

/// The bright sheet on something darker, if the picture shows one.
fn sheet(gray: &Plane) -> Option<Quad> {
    let step = (gray.w.max(gray.h) / 480).max(1);
    let (w, h) = (gray.w / step, gray.h / step);
    let mut small = Plane::new(w, h);
    let soft = gray.blurred(step);
    for y in 0..h {
        for x in 0..w {
            small.data[y * w + x] = soft.at(x * step + step / 2, y * step + step / 2);
        }
    }
    let small = small.blurred(2);
    let image = image::GrayImage::from_fn(w as u32, h as u32, |x, y| {
        image::Luma([small.at(x as usize, y as usize) as u8])
    });
    let level = f32::from(imageproc::contrast::otsu_level(&image));
    // A sheet half in shadow is still brighter than the table: the level lies nearer to the table's tone than halfway.
    let mut rim: Vec<f32> = (0..w)
        .flat_map(|x| [small.at(x, 1), small.at(x, h - 2)])
        .chain((0..h).flat_map(|y| [small.at(1, y), small.at(w - 2, y)]))
        .collect();
    let table = quantile(&mut rim, 0.5);
    let mut lit: Vec<f32> = small.data.iter().copied().filter(|&v| v > level).collect();
    let level = level.min(table + 0.35 * (quantile(&mut lit, 0.5) - table));
    let bright = Mask::of(&small, |v| v > level);
    let parts = bright.connected_components(false);
    let (label, part) = parts.each().max_by_key(|(_, p)| p.area)?;
    let all = (w * h) as f64;
    let on_rim = parts
        .pixels(label)
        .filter(|&(x, y)| x == 0 || y == 0 || x + 1 == w || y + 1 == h)
        .count();
    if (part.area as f64) < 0.12 * all || on_rim * 20 > w + h {
        return None;
    }
    // A page with a pale surround is no sheet on a table: the rim of the picture must be clearly darker.
    let mut inside: Vec<f32> = parts.pixels(label).map(|(x, y)| small.at(x, y)).collect();
    if table > 0.72 * quantile(&mut inside, 0.5) {
        return None;
    }
    let rough = corners_of(parts.pixels(label))?;
    let rough = rough.map(|p| p.map(|v| (v + 0.5) * step as f64));
    Some(sharpened(gray, &rough, step as f64 * 6.0, level))
}

/// The outline drawn round the page. What is found first from outside may be rows of print: where it is not inked nearly all along, an
/// outline among these is looked for.
fn outline(gray: &Plane, rim: usize) -> Option<Quad> {
    let size = gray.w.max(gray.h);
    let ink = gray.black_hat((size / 150).max(4));
    let strong = ink.quantile(0.995, 7) * 0.4;
    if strong < 6.0 {
        return None;
    }
    let first = first_outline(&ink, strong, rim);
    if first.is_some_and(|quad| is_drawn(&ink, strong, &quad)) {
        return first;
    }
    outline_among_print(&ink, strong).or(first)
}

/// On each side the first strong ink from outside, on one straight line, along most of it.
fn first_outline(ink: &Plane, strong: f32, rim: usize) -> Option<Quad> {
    let size = ink.w.max(ink.h);
    let near = (size as f64 * 0.003).max(2.5);
    let mut sides = Vec::new();
    for side in 0..4 {
        let upright = side % 2 == 1;
        // 0 top, 1 right, 2 bottom, 3 left.
        let (along, deep) = if upright {
            (ink.h, ink.w)
        } else {
            (ink.w, ink.h)
        };
        let value = |t: usize, d: usize| match side {
            0 => ink.at(t, d),
            1 => ink.at(ink.w - 1 - d, t),
            2 => ink.at(t, ink.h - 1 - d),
            _ => ink.at(d, t),
        };
        let mut points = Vec::new();
        for t in (rim..along - rim).step_by(2) {
            let Some(d) = (rim..deep * 2 / 5).find(|&d| value(t, d) > strong) else {
                continue;
            };
            let (mut sum, mut weight) = (0.0, 0.0);
            for k in d..(d + 10).min(deep) {
                let v = f64::from(value(t, k));
                if v < f64::from(strong) * 0.5 {
                    break;
                }
                sum += v * (k as f64 + 0.5);
                weight += v;
            }
            points.push((t as f64 + 0.5, sum / weight));
        }
        let (line, count) = robust(&points, near)?;
        let at = |t: f64| {
            let d = line.at + line.slope * t;
            match side {
                0 => [t, d],
                1 => [ink.w as f64 - d, t],
                2 => [t, ink.h as f64 - d],
                _ => [d, t],
            }
        };
        sides.push(((at(0.0), at(along as f64)), count * 2));
    }
    let corner = |a: usize, b: usize| meeting(sides[a].0, sides[b].0);
    let quad = [corner(3, 0)?, corner(0, 1)?, corner(1, 2)?, corner(2, 3)?];
    let covered = |k: usize| sides[k].1 as f64 / length(quad[k], quad[(k + 1) % 4]).max(1.0);
    let least = (0..4).map(covered).fold(f64::INFINITY, f64::min);
    let mean = (0..4).map(covered).sum::<f64>() / 4.0;
    (least > 0.45 && mean > 0.6).then_some(quad)
}

/// Two pages drawn apart, in a plane of a whole spread with `rim` pixels round it: the gap between them, as x of the left page's right
/// edge and of the right page's left edge. There the outline's top and bottom are missing.
pub(crate) fn gap(ink: &Plane, strong: f32, rim: usize, scale: f64) -> Option<(f64, f64)> {
    let middle = ink.w / 2;
    let reach = (1.6 * scale) as usize;
    let bare = |x: usize| {
        let line = |y: usize| {
            (y.saturating_sub(6)..(y + 7).min(ink.h))
                .any(|y| (x - 1..=x + 1).any(|x| ink.at(x, y) > strong * 0.6))
        };
        !line(rim) && !line(ink.h - 1 - rim)
    };
    let (mut best, mut start) = (None::<(usize, usize)>, None);
    for x in middle - reach..=middle + reach {
        match (bare(x), start) {
            (true, None) => start = Some(x),
            (false, Some(from)) => {
                if best.is_none_or(|(a, b)| b - a < x - from) {
                    best = Some((from, x));
                }
                start = None;
            }
            _ => {}
        }
    }
    let (from, until) = best?;
    if until - from < (0.08 * scale) as usize {
        return None;
    }
    let peak = |from: usize, until: usize| {
        let column = |x: usize| {
            (rim..ink.h - rim)
                .filter(|&y| ink.at(x, y) > strong * 0.6)
                .count()
        };
        let most = (from..until).map(column).max()?;
        let ys: Vec<usize> = (from..until)
            .filter(|&x| column(x) * 10 > most * 6)
            .collect();
        (most * 2 > ink.h).then(|| ys.iter().sum::<usize>() as f64 / ys.len() as f64 + 0.5)
    };
    Some((
        peak(from.saturating_sub(8), from + 6)?,
        peak(until - 6, until + 8)?,
    ))
}
