//! Edges of a box laid over a picture, moved onto the strong straight edges that are near.

use image::RgbImage;

/// The colours on both sides of an edge differ by at least this, of 255, in one channel.
const STRONG: f64 = 11.0;
/// Pixels on either side that an edge is seen over.
const BAND: i64 = 3;
/// A paper's shadow ends this far beyond its own edge, in pixels; the edge inside counts from this share of the shadow's strength on.
const SHADOW: (i64, f64) = (7, 0.3);
/// An edge at the end of the reach counts this much less than one that is near.
const FAR: f64 = 0.5;

/// Left, top, right and bottom of a box in pixels, each moved onto the strongest straight edge within `reach` pixels of it. A side
/// that has none stays where it is.
#[must_use]
pub fn snapped(pixels: &RgbImage, sides: [f64; 4], reach: f64) -> [f64; 4] {
    let found = edges_near(pixels, sides, reach);
    [0, 1, 2, 3].map(|n| found[n].unwrap_or(sides[n]))
}

/// For left, top, right and bottom of a box in pixels the strongest straight edge within `reach` pixels; none where there is none.
#[must_use]
pub fn edges_near(pixels: &RgbImage, sides: [f64; 4], reach: f64) -> [Option<f64>; 4] {
    let [l, t, r, b] = sides;
    let (w, h) = (f64::from(pixels.width()), f64::from(pixels.height()));
    let inset = |from: f64, to: f64| (from + (to - from) * 0.12, to - (to - from) * 0.12);
    // No side may pass the other one.
    let across = reach.min((r - l) * 0.4);
    let down = reach.min((b - t) * 0.4);
    let upright = |at: f64, inward| {
        snapped_side(
            at,
            (across, inward),
            w,
            inset(t.max(0.0), b.min(h)),
            |along, x| pixel(pixels, x, along),
        )
    };
    let level = |at: f64, inward| {
        snapped_side(
            at,
            (down, inward),
            h,
            inset(l.max(0.0), r.min(w)),
            |along, y| pixel(pixels, along, y),
        )
    };
    [upright(l, 1), level(t, 1), upright(r, -1), level(b, -1)]
}

fn pixel(pixels: &RgbImage, x: i64, y: i64) -> Option<[f64; 3]> {
    let at = (u32::try_from(x).ok()?, u32::try_from(y).ok()?);
    pixels
        .get_pixel_checked(at.0, at.1)
        .map(|p| p.0.map(f64::from))
}

/// The mean colour of each line of pixels near a side, then the step between the bands before and after each. `inward` is the way to
/// the block's middle.
fn snapped_side(
    at: f64,
    (reach, inward): (f64, i64),
    size: f64,
    (from, to): (f64, f64),
    pixel: impl Fn(i64, i64) -> Option<[f64; 3]>,
) -> Option<f64> {
    // What ends at the picture's edge stays there.
    if reach < 1.0 || to - from < 2.0 || at <= 1.0 || at >= size - 1.0 {
        return None;
    }
    let (first, last) = ((at - reach) as i64 - BAND, (at + reach) as i64 + BAND);
    let line = |n: i64| {
        let mut sum = [0.0; 3];
        let mut count = 0.0;
        for along in from as i64..to as i64 {
            if let Some(colour) = pixel(along, n) {
                sum.iter_mut().zip(colour).for_each(|(s, c)| *s += c);
                count += 1.0;
            }
        }
        (count > 0.0).then(|| sum.map(|s| s / count))
    };
    let lines: Vec<Option<[f64; 3]>> = (first..=last).map(line).collect();
    let band = |from: i64| {
        let inside = (from..from + BAND).filter_map(|n| {
            lines
                .get(usize::try_from(n - first).ok()?)
                .copied()
                .flatten()
        });
        let found: Vec<[f64; 3]> = inside.collect();
        (found.len() == BAND as usize)
            .then(|| [0, 1, 2].map(|c| found.iter().map(|f| f[c]).sum::<f64>() / BAND as f64))
    };
    let step = |edge: i64| {
        let (before, after) = (band(edge - BAND)?, band(edge)?);
        let largest = before
            .iter()
            .zip(after)
            .map(|(b, a)| (b - a).abs())
            .fold(0.0, f64::max);
        (largest >= STRONG).then_some((largest, edge))
    };
    let near =
        |(size, edge): (f64, i64)| (size * (1.0 - FAR * (edge as f64 - at).abs() / reach), edge);
    let within = (first + BAND..=last - BAND + 1).filter(|e| (*e as f64 - at).abs() <= reach);
    let (_, edge) = within
        .filter_map(step)
        .map(near)
        .max_by(|a, b| a.0.total_cmp(&b.0))?;
    let size = |edge: i64| step(edge).map_or(0.0, |s| s.0);
    let inside = (BAND..=SHADOW.0)
        .map(|n| edge + n * inward)
        .filter(|e| size(*e) >= SHADOW.1 * size(edge));
    let inside = inside
        .filter(|e| size(*e) >= size(*e - 1) && size(*e) >= size(*e + 1))
        .max_by(|a, b| size(*a).total_cmp(&size(*b)));
    Some(inside.unwrap_or(edge) as f64)
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::Rgb;

    fn page() -> RgbImage {
        let paper = |x: u32, y: u32| {
            if (x * 7 + y * 13).is_multiple_of(5) {
                4_u8
            } else {
                0
            }
        };
        RgbImage::from_fn(400, 300, |x, y| {
            let inside = (100..220).contains(&x) && (60..180).contains(&y);
            let v = if inside { 120 } else { 225 } + paper(x, y);
            Rgb([v, v, v / 2 + 100])
        })
    }

    #[test]
    fn each_side_goes_to_the_edge_that_is_near() {
        assert_eq!(
            snapped(&page(), [94.0, 66.0, 226.0, 171.0], 12.0),
            [100.0, 60.0, 220.0, 180.0]
        );
    }

    #[test]
    fn the_edge_of_a_paper_is_taken_and_not_the_end_of_its_shadow() {
        let page = RgbImage::from_fn(400, 300, |x, y| {
            let paper = (100..220).contains(&x) && (60..180).contains(&y);
            let shadow = (104..225).contains(&x) && (64..185).contains(&y);
            Rgb(if paper {
                [178, 150, 120]
            } else if shadow {
                [200, 198, 194]
            } else {
                [250, 248, 243]
            })
        });
        assert_eq!(
            snapped(&page, [96.0, 63.0, 227.0, 187.0], 14.0),
            [100.0, 60.0, 220.0, 180.0]
        );
    }

    #[test]
    fn a_side_with_no_edge_near_it_stays() {
        assert_eq!(snapped(&page(), [20.0, 66.0, 226.0, 171.0], 12.0)[0], 20.0);
        assert_eq!(
            snapped(&page(), [0.0, 0.0, 400.0, 300.0], 12.0),
            [0.0, 0.0, 400.0, 300.0]
        );
    }

    #[test]
    fn boxes_beyond_the_picture_do_no_harm() {
        for sides in [
            [-50.0, -50.0, 20.0, 20.0],
            [390.0, 290.0, 500.0, 500.0],
            [5.0, 5.0, 5.0, 5.0],
            [30.0, 30.0, 10.0, 10.0],
        ] {
            let found = snapped(&page(), sides, 12.0);
            assert!(found.iter().all(|v| v.is_finite()));
        }
    }
}
