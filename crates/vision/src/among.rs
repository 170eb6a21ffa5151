//! The outline of a page that is printed among other things: rows of text, captions, other drawings.

use crate::plane::Plane;
use crate::quad::{Line, Quad, length, meeting};

/// Slopes that are tried, each way.
const MOST_SLOPE: f64 = 0.06;
/// Steps of the slope, each way.
const SLOPES: i32 = 12;
/// How far in an outline's side may lie, as a share of the plane.
const DEEPEST: f64 = 0.45;
/// Of a plane's side, the least share along which a line is inked to be tried at all.
const WORTH_TRYING: f64 = 0.35;
/// Lines tried a side, those with the most ink on them.
const MOST_TRIED: usize = 6;
/// Of each side of an outline, the least share that is inked: rows of print have gaps.
const INKED: f64 = 0.8;
/// Of the picture's width, more than a photo or a panel takes: in print the page is nearly as wide as the text.
const WIDEST_PHOTO: f64 = 0.65;
/// Of the picture's height, what a page among print takes at least.
const LOWEST: f64 = 0.3;
/// Lines nearer to one another than this, in pixels, are one.
const NEIGHBOURS: f64 = 4.0;
/// Pixels beside a line that count as on it.
const BESIDE: usize = 2;

/// The largest outline whose four sides are inked nearly all along, in a plane of ink.
pub(crate) fn outline_among_print(ink: &Plane, strong: f32) -> Option<Quad> {
    let sides: Vec<Vec<([f64; 2], [f64; 2])>> =
        (0..4).map(|side| lines_of(ink, strong, side)).collect();
    let mut best: Option<(f64, Quad)> = None;
    for top in &sides[0] {
        for right in &sides[1] {
            for bottom in &sides[2] {
                for left in &sides[3] {
                    let Some(quad) = corners([*top, *right, *bottom, *left]) else {
                        continue;
                    };
                    let (w, h) = (length(quad[0], quad[1]), length(quad[1], quad[2]));
                    let size = w * h;
                    let is_larger = best.as_ref().is_none_or(|(most, _)| size > *most);
                    let is_some_page = w > WIDEST_PHOTO * ink.w as f64 && h > LOWEST * ink.h as f64;
                    if is_larger && is_some_page && is_drawn(ink, strong, &quad) {
                        best = Some((size, quad));
                    }
                }
            }
        }
    }
    best.map(|(_, quad)| quad)
}

fn corners(sides: [([f64; 2], [f64; 2]); 4]) -> Option<Quad> {
    let corner = |a: usize, b: usize| meeting(sides[a], sides[b]);
    Some([corner(3, 0)?, corner(0, 1)?, corner(1, 2)?, corner(2, 3)?])
}

/// Whether each side of a quad is inked nearly all along.
pub(crate) fn is_drawn(ink: &Plane, strong: f32, quad: &Quad) -> bool {
    (0..4).all(|k| {
        let (a, b) = (quad[k], quad[(k + 1) % 4]);
        let steps = (length(a, b) / 3.0) as usize;
        if steps < 20 {
            return false;
        }
        let seen = (0..steps).filter(|n| {
            let t = (*n as f64 + 0.5) / steps as f64;
            let (x, y) = (a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t);
            is_inked(ink, strong, x, y, k % 2 == 1)
        });
        seen.count() as f64 >= INKED * steps as f64
    })
}

/// Whether there is ink at a place or right beside it, across the line.
fn is_inked(ink: &Plane, strong: f32, x: f64, y: f64, upright: bool) -> bool {
    let near = BESIDE as i64 + 1;
    (-near..=near).any(|by| {
        let (x, y) = (
            x as i64 + if upright { by } else { 0 },
            y as i64 + if upright { 0 } else { by },
        );
        let inside = x >= 0 && y >= 0 && (x as usize) < ink.w && (y as usize) < ink.h;
        inside && ink.at(x as usize, y as usize) > strong
    })
}

/// The lines nearly level with a side that are inked along much of it, those with the most ink first, by votes for slope and place (Hough).
fn lines_of(ink: &Plane, strong: f32, side: usize) -> Vec<([f64; 2], [f64; 2])> {
    let upright = side % 2 == 1;
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
    let most = (deep as f64 * DEEPEST) as usize;
    let slack = (along as f64 * MOST_SLOPE).ceil() as usize;
    let places = most + 2 * slack + 1;
    let step = 4;
    let mut votes = vec![vec![0_u32; places]; (2 * SLOPES + 1) as usize];
    for t in (0..along).step_by(step) {
        for d in (1..most).filter(|&d| value(t, d) > strong && value(t, d - 1) <= strong) {
            for (n, row) in votes.iter_mut().enumerate() {
                let slope = f64::from(n as i32 - SLOPES) / f64::from(SLOPES) * MOST_SLOPE;
                let at = d as f64 - slope * t as f64 + slack as f64;
                if let Some(place) = row.get_mut(at.round().max(0.0) as usize) {
                    *place += 1;
                }
            }
        }
    }
    let least = (along / step) as f64 * WORTH_TRYING;
    // Of each place the slope that most agree on, its neighbours' votes counted in.
    let of = |n: usize, at: usize| -> u32 {
        let row = &votes[n];
        (at.saturating_sub(BESIDE)..(at + BESIDE + 1).min(places))
            .map(|k| row[k])
            .sum()
    };
    let mut found: Vec<(u32, Line)> = Vec::new();
    for at in 0..places {
        let best = (0..votes.len()).max_by_key(|&n| of(n, at)).unwrap_or(0);
        let slope = f64::from(best as i32 - SLOPES) / f64::from(SLOPES) * MOST_SLOPE;
        let line = Line {
            at: at as f64 - slack as f64,
            slope,
        };
        if f64::from(of(best, at)) >= least {
            found.push((of(best, at), line));
        }
    }
    found.sort_by_key(|(count, _)| std::cmp::Reverse(*count));
    let middle = |l: &Line| l.at + l.slope * along as f64 / 2.0;
    let mut kept: Vec<Line> = Vec::new();
    for (_, line) in found {
        // Beside a line lie others that share its ink.
        if kept.len() < MOST_TRIED
            && kept
                .iter()
                .all(|k| (middle(k) - middle(&line)).abs() > NEIGHBOURS)
        {
            kept.push(line);
        }
    }
    let (w, h) = (ink.w as f64, ink.h as f64);
    let ends = |line: &Line| {
        let at = |t: f64| {
            let d = line.at + line.slope * t;
            match side {
                0 => [t, d],
                1 => [w - d, t],
                2 => [t, h - d],
                _ => [d, t],
            }
        };
        (at(0.0), at(along as f64))
    };
    kept.iter().map(ends).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_outline_between_rows_of_print_is_found() {
        let (w, h) = (500, 640);
        let mut ink = Plane::new(w, h);
        let mut put = |x: usize, y: usize| ink.data[y * w + x] = 100.0;
        // Rows of words above and below.
        for row in (20..120).chain(520..620).step_by(20) {
            for x in (40..460).filter(|x| x % 37 < 26 && x % 4 < 3) {
                (row..row + 7)
                    .filter(|y| (x * 7 + y * 3) % 5 < 3)
                    .for_each(|y| put(x, y));
            }
        }
        for x in 60..440 {
            (150..152).chain(488..490).for_each(|y| put(x, y));
        }
        for y in 150..490 {
            (60..62).chain(438..440).for_each(|x| put(x, y));
        }
        let quad = outline_among_print(&ink, 40.0).expect("an outline");
        for (found, wanted) in
            quad.iter()
                .zip([[60.0, 150.0], [440.0, 150.0], [440.0, 490.0], [60.0, 490.0]])
        {
            assert!(length(*found, wanted) < 4.0, "{found:?} for {wanted:?}");
        }
    }

    #[test]
    fn print_alone_is_no_outline() {
        let (w, h) = (400, 400);
        let mut ink = Plane::new(w, h);
        for row in (20..380).step_by(20) {
            for x in (30..370).filter(|x| x % 37 < 26 && x % 4 < 3) {
                ink.data[(row + x % 5) * w + x] = 100.0;
            }
        }
        assert!(outline_among_print(&ink, 40.0).is_none());
    }
}
