//! A page without an outline, told from what lies round it by its tone: a sheet that throws a shadow, or lies on a tint.

use crate::plane::{Plane, quantile};
use crate::quad::{Line, Quad, length, meeting, robust};

/// How far from the surroundings' tone a channel is at least, of 255, for another paper.
const ANOTHER_TONE: f32 = 6.0;
/// Of the picture's rim, the least share that has the surroundings' tone.
const EVEN_RIM: f64 = 0.75;
/// The rim's tone may stray by so much, of 255.
const STRAYS: f32 = 10.0;
/// Of a side, the least share along which the tone changes on one line.
const LEAST_SEEN: f64 = 0.55;
/// Tones are looked at this far in, as a share of the plane's side, before they count as the page's: letters are thinner.
const THICKNESS: f64 = 1.0 / 45.0;
/// A shadow is at most so wide, as a share of the plane's side.
const SHADOW: f64 = 1.0 / 36.0;
/// A shadow is darker by at least this, of 255, than what lies outside it and than the page.
const DARKER: f32 = 3.0;
/// Tones beside an edge are taken this far from it, in pixels.
const BESIDE: usize = 3;

/// The page's corners, where on every side one straight line parts its tone from that of the rim.
pub(crate) fn page_by_tone(channels: &[Plane; 3]) -> Option<Quad> {
    let apart = difference(channels)?;
    let size = apart.w.max(apart.h) as f64;
    let mut sides = Vec::new();
    for side in 0..4 {
        let view = View {
            side,
            plane: &apart,
        };
        let line = first_tone(&view, size)?;
        let line = under_shadow(channels, side, line, size);
        sides.push(view.ends(line));
    }
    let corner = |a: usize, b: usize| meeting(sides[a], sides[b]);
    let quad = [corner(3, 0)?, corner(0, 1)?, corner(1, 2)?, corner(2, 3)?];
    let (w, h) = (length(quad[0], quad[1]), length(quad[1], quad[2]));
    let is_some_page = w > 0.4 * apart.w as f64 && h > 0.4 * apart.h as f64;
    is_some_page.then_some(quad)
}

/// A plane looked at from one side inwards: 0 top, 1 right, 2 bottom, 3 left.
struct View<'a> {
    side: usize,
    plane: &'a Plane,
}

impl View<'_> {
    fn along(&self) -> usize {
        if self.side % 2 == 1 {
            self.plane.h
        } else {
            self.plane.w
        }
    }

    fn deep(&self) -> usize {
        if self.side % 2 == 1 {
            self.plane.w
        } else {
            self.plane.h
        }
    }

    fn at(&self, t: usize, d: usize) -> f32 {
        let p = self.plane;
        match self.side {
            0 => p.at(t, d),
            1 => p.at(p.w - 1 - d, t),
            2 => p.at(t, p.h - 1 - d),
            _ => p.at(d, t),
        }
    }

    /// A line's two ends, in the plane's own pixels.
    fn ends(&self, line: Line) -> ([f64; 2], [f64; 2]) {
        let (w, h) = (self.plane.w as f64, self.plane.h as f64);
        let at = |t: f64| {
            let d = line.at + line.slope * t;
            match self.side {
                0 => [t, d],
                1 => [w - d, t],
                2 => [t, h - d],
                _ => [d, t],
            }
        };
        (at(0.0), at(self.along() as f64))
    }
}

/// How far each pixel's colour is from the rim's, whose light may rise and fall evenly across the picture; none where the rim has no one
/// tone.
fn difference(channels: &[Plane; 3]) -> Option<Plane> {
    let (w, h) = (channels[0].w, channels[0].h);
    if w < 60 || h < 60 {
        return None;
    }
    let rim: Vec<(usize, usize)> = (0..w)
        .step_by(3)
        .flat_map(|x| [(x, 2), (x, h - 3)])
        .chain((0..h).step_by(3).flat_map(|y| [(2, y), (w - 3, y)]))
        .collect();
    let mut apart = Plane::new(w, h);
    let mut even = vec![true; rim.len()];
    for channel in channels {
        let light = Light::of(channel, &rim)?;
        for (&(x, y), even) in rim.iter().zip(&mut even) {
            *even &= (channel.at(x, y) - light.at(x, y)).abs() < STRAYS;
        }
        for y in 0..h {
            for x in 0..w {
                let off = (channel.at(x, y) - light.at(x, y)).abs();
                let all = &mut apart.data[y * w + x];
                *all = all.max(off);
            }
        }
    }
    let share = even.iter().filter(|e| **e).count() as f64 / rim.len() as f64;
    (share >= EVEN_RIM).then_some(apart)
}

/// Light that changes evenly: a tone, and by how much it grows to the right and down.
struct Light {
    tone: f32,
    right: f32,
    down: f32,
}

impl Light {
    /// That of a rim: the medians of its four sides are met, so that what touches the rim here and there counts for nothing.
    fn of(channel: &Plane, rim: &[(usize, usize)]) -> Option<Light> {
        let (w, h) = (channel.w as f32, channel.h as f32);
        let median = |of: &dyn Fn(usize, usize) -> bool| {
            let some = rim.iter().filter(|(x, y)| of(*x, *y));
            let mut values: Vec<f32> = some.map(|(x, y)| channel.at(*x, *y)).collect();
            (!values.is_empty()).then(|| quantile(&mut values, 0.5))
        };
        let (left, right) = (median(&|x, _| x == 2)?, median(&|x, _| x == channel.w - 3)?);
        let (top, bottom) = (median(&|_, y| y == 2)?, median(&|_, y| y == channel.h - 3)?);
        Some(
            Light {
                tone: (left + right + top + bottom) / 4.0,
                right: (right - left) / w,
                down: (bottom - top) / h,
            }
            .about(w, h),
        )
    }

    fn about(self, w: f32, h: f32) -> Light {
        Light {
            tone: self.tone - self.right * w / 2.0 - self.down * h / 2.0,
            ..self
        }
    }

    fn at(&self, x: usize, y: usize) -> f32 {
        self.tone + self.right * x as f32 + self.down * y as f32
    }
}

/// The line on which another tone begins and goes on, seen from outside.
fn first_tone(view: &View<'_>, size: f64) -> Option<Line> {
    let thick = ((size * THICKNESS) as usize).max(8);
    let most = view.deep() * 2 / 5;
    let (mut points, mut looked_at) = (Vec::new(), 0_usize);
    for t in (0..view.along()).step_by(4) {
        looked_at += 1;
        let is_other = |d: usize| view.at(t, d) > ANOTHER_TONE;
        let (mut count, mut found) = (0_usize, None);
        for d in 0..most + thick {
            count += usize::from(is_other(d));
            if d >= thick {
                count -= usize::from(is_other(d - thick));
                // Nine in ten of so many pixels from here inwards.
                if count * 10 >= thick * 9 && is_other(d + 1 - thick) {
                    found = Some(d + 1 - thick);
                    break;
                }
            }
        }
        points.extend(found.map(|d| (t as f64 + 0.5, d as f64)));
    }
    let (line, count) = robust(&points, (size * 0.003).max(2.5))?;
    // The corners' own surroundings are on no side's line.
    (count as f64 >= LEAST_SEEN * looked_at as f64).then_some(line)
}

/// The page's own edge where a shadow begins before it: the strongest change near the line, if what lies between is darker than both.
fn under_shadow(channels: &[Plane; 3], side: usize, line: Line, size: f64) -> Line {
    let reach = (size * SHADOW) as usize;
    let views = [0, 1, 2].map(|n| View {
        side,
        plane: &channels[n],
    });
    let tone = |t: usize, d: usize| views.iter().map(|v| v.at(t, d)).sum::<f32>() / 3.0;
    let change = |t: usize, d: usize| -> f32 {
        let one = |v: &View<'_>| (v.at(t, d + 1) - v.at(t, d - 1)).abs();
        views.iter().map(one).sum()
    };
    let mut points = Vec::new();
    let (mut outside, mut inside) = (Vec::new(), Vec::new());
    for t in (0..views[0].along()).step_by(4) {
        let from = (line.at + line.slope * t as f64).round();
        let room = BESIDE + 2;
        if from < room as f64 || from as usize + reach + room >= views[0].deep() {
            continue;
        }
        let from = from as usize;
        let nearest = from - 2..from + reach;
        let Some(edge) = nearest.max_by(|a, b| change(t, *a).total_cmp(&change(t, *b))) else {
            continue;
        };
        let between = tone(t, (from + edge) / 2);
        outside.push(tone(t, from - BESIDE) - between);
        inside.push(tone(t, edge + BESIDE) - between);
        points.push((t as f64 + 0.5, edge as f64 + 0.5));
    }
    let Some((edge, count)) = robust(&points, 1.5) else {
        return line;
    };
    if (count as f64) < LEAST_SEEN * points.len() as f64 {
        return line;
    }
    let is_shadow = quantile(&mut outside, 0.5) > DARKER && quantile(&mut inside, 0.5) > DARKER;
    let is_moved = (edge.at - line.at).abs() > 2.0;
    if is_shadow || !is_moved { edge } else { line }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A page of one tone on another, with a shadow to the right and below, and a caption under it.
    fn picture(shadow: bool, slope: f32) -> [Plane; 3] {
        let (w, h) = (400, 420);
        let draw = |page: f32, round: f32| {
            let mut plane = Plane::new(w, h);
            for y in 0..h {
                for x in 0..w {
                    let inside = (50..350).contains(&x) && (40..340).contains(&y);
                    let shade = shadow && (56..358).contains(&x) && (46..348).contains(&y);
                    let caption = (380..384).contains(&y) && x % 9 < 5 && (100..300).contains(&x);
                    let tone = match (inside, caption, shade) {
                        (true, _, _) => page,
                        (_, true, _) => 60.0,
                        (_, _, true) => round * 0.75,
                        _ => round,
                    };
                    plane.data[y * w + x] = tone + slope * x as f32;
                }
            }
            plane
        };
        [draw(250.0, 235.0), draw(250.0, 238.0), draw(248.0, 240.0)]
    }

    fn near(found: &Quad) {
        let wanted = [[50.0, 40.0], [350.0, 40.0], [350.0, 340.0], [50.0, 340.0]];
        for (found, wanted) in found.iter().zip(wanted) {
            assert!(length(*found, wanted) < 2.5, "{found:?} for {wanted:?}");
        }
    }

    #[test]
    fn a_sheet_on_a_tint_is_found_by_its_tone() {
        near(&page_by_tone(&picture(false, 0.0)).expect("a page"));
        near(&page_by_tone(&picture(true, 0.0)).expect("a page with its shadow"));
    }

    #[test]
    fn light_that_falls_off_to_one_side_hides_no_page() {
        near(&page_by_tone(&picture(true, -0.1)).expect("a page"));
    }

    #[test]
    fn a_picture_of_one_tone_shows_none() {
        let plane = || Plane::new(300, 300).map(|_| 240.0);
        assert!(page_by_tone(&[plane(), plane(), plane()]).is_none());
    }
}
