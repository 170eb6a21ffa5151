//! Planes of numbers and masks, and the few filters that reading needs.

/// One number a pixel, row by row.
#[derive(Debug, Clone)]
pub(crate) struct Plane {
    pub(crate) w: usize,
    pub(crate) h: usize,
    pub(crate) data: Vec<f32>,
}

impl Plane {
    pub(crate) fn new(w: usize, h: usize) -> Plane {
        Plane {
            w,
            h,
            data: vec![0.0; w * h],
        }
    }

    pub(crate) fn at(&self, x: usize, y: usize) -> f32 {
        self.data[y * self.w + x]
    }

    /// The value at a place between pixels; outside, the nearest inside.
    pub(crate) fn sample_bilinear(&self, x: f32, y: f32) -> f32 {
        let x = x.clamp(0.0, (self.w - 1) as f32);
        let y = y.clamp(0.0, (self.h - 1) as f32);
        let (x0, y0) = (x as usize, y as usize);
        let (x1, y1) = ((x0 + 1).min(self.w - 1), (y0 + 1).min(self.h - 1));
        let (u, v) = (x - x0 as f32, y - y0 as f32);
        let top = self.at(x0, y0) * (1.0 - u) + self.at(x1, y0) * u;
        let bottom = self.at(x0, y1) * (1.0 - u) + self.at(x1, y1) * u;
        top * (1.0 - v) + bottom * v
    }

    pub(crate) fn map(&self, f: impl Fn(f32) -> f32) -> Plane {
        Plane {
            w: self.w,
            h: self.h,
            data: self.data.iter().map(|&v| f(v)).collect(),
        }
    }

    pub(crate) fn with(&self, other: &Plane, f: impl Fn(f32, f32) -> f32) -> Plane {
        Plane {
            w: self.w,
            h: self.h,
            data: self
                .data
                .iter()
                .zip(&other.data)
                .map(|(&a, &b)| f(a, b))
                .collect(),
        }
    }

    /// Rows for columns, tile by tile: a whole column at a time would miss the cache at every pixel.
    fn turned(&self) -> Plane {
        const TILE: usize = 32;
        let mut out = Plane::new(self.h, self.w);
        for y0 in (0..self.h).step_by(TILE) {
            for x0 in (0..self.w).step_by(TILE) {
                for y in y0..(y0 + TILE).min(self.h) {
                    for x in x0..(x0 + TILE).min(self.w) {
                        out.data[x * self.h + y] = self.data[y * self.w + x];
                    }
                }
            }
        }
        out
    }

    /// Runs a filter of lines over the rows, then over the columns.
    fn both_ways(&self, f: impl Fn(&[f32], &mut [f32])) -> Plane {
        let rows = |plane: &Plane| {
            let mut out = Plane::new(plane.w, plane.h);
            for (line, to) in plane.data.chunks(plane.w).zip(out.data.chunks_mut(plane.w)) {
                f(line, to);
            }
            out
        };
        rows(&rows(self).turned()).turned()
    }

    /// The mean over a square of `2 r + 1` pixels.
    pub(crate) fn blurred(&self, r: usize) -> Plane {
        self.both_ways(|line, to| {
            let n = line.len();
            let mut sum = 0.0_f64;
            let (mut from, mut until) = (0, 0);
            for (i, out) in to.iter_mut().enumerate() {
                while until < n && until <= i + r {
                    sum += f64::from(line[until]);
                    until += 1;
                }
                while from + r < i {
                    sum -= f64::from(line[from]);
                    from += 1;
                }
                *out = (sum / (until - from) as f64) as f32;
            }
        })
    }

    /// The largest value within a square of `2 r + 1` pixels.
    pub(crate) fn largest(&self, r: usize) -> Plane {
        self.both_ways(|line, to| running_max(line, to, r))
    }

    /// The smallest value within a square of `2 r + 1` pixels.
    pub(crate) fn smallest(&self, r: usize) -> Plane {
        self.map(|v| -v).largest(r).map(|v| -v)
    }

    /// What is thinner than `2 r + 1` pixels and darker than its surroundings: closing minus the plane.
    pub(crate) fn black_hat(&self, r: usize) -> Plane {
        self.largest(r)
            .smallest(r)
            .with(self, |closed, v| (closed - v).max(0.0))
    }

    /// The value that a share of the pixels taken (every `step`th) lies below.
    pub(crate) fn quantile(&self, share: f32, step: usize) -> f32 {
        let mut values: Vec<f32> = self.data.iter().step_by(step).copied().collect();
        quantile(&mut values, share)
    }
}

/// The value that a share of the values lies below; 0 of none.
pub(crate) fn quantile(values: &mut [f32], share: f32) -> f32 {
    if values.is_empty() {
        return 0.0;
    }
    let k = ((values.len() - 1) as f32 * share).round() as usize;
    *values.select_nth_unstable_by(k, f32::total_cmp).1
}

/// Running maximum of blocks from both ends: three comparisons a pixel, whatever the width (van Herk 1992).
fn running_max(line: &[f32], to: &mut [f32], r: usize) {
    let (n, block) = (line.len(), 2 * r + 1);
    let padded = (n + 2 * r).div_ceil(block) * block;
    let at = |i: usize| {
        if i < r || i - r >= n {
            f32::NEG_INFINITY
        } else {
            line[i - r]
        }
    };
    let mut prefix_max = vec![0.0_f32; padded];
    let mut suffix_max = vec![0.0_f32; padded];
    for start in (0..padded).step_by(block) {
        let mut most = f32::NEG_INFINITY;
        for (i, slot) in prefix_max[start..start + block].iter_mut().enumerate() {
            most = most.max(at(start + i));
            *slot = most;
        }
        most = f32::NEG_INFINITY;
        for (i, slot) in suffix_max[start..start + block]
            .iter_mut()
            .enumerate()
            .rev()
        {
            most = most.max(at(start + i));
            *slot = most;
        }
    }
    for (i, out) in to.iter_mut().enumerate() {
        *out = suffix_max[i].max(prefix_max[i + 2 * r]);
    }
}

/// A yes or no a pixel.
#[derive(Debug, Clone)]
pub(crate) struct Mask {
    pub(crate) w: usize,
    pub(crate) h: usize,
    pub(crate) data: Vec<bool>,
}

impl Mask {
    pub(crate) fn of(plane: &Plane, f: impl Fn(f32) -> bool) -> Mask {
        Mask {
            w: plane.w,
            h: plane.h,
            data: plane.data.iter().map(|&v| f(v)).collect(),
        }
    }

    pub(crate) fn at(&self, x: usize, y: usize) -> bool {
        self.data[y * self.w + x]
    }

    /// Outside is no.
    pub(crate) fn get(&self, x: i32, y: i32) -> bool {
        x >= 0
            && y >= 0
            && (x as usize) < self.w
            && (y as usize) < self.h
            && self.data[y as usize * self.w + x as usize]
    }

    /// Every pixel within `r` (a square) of a yes.
    pub(crate) fn grown(&self, r: usize) -> Mask {
        let plane = Plane {
            w: self.w,
            h: self.h,
            data: self.data.iter().map(|&v| f32::from(u8::from(v))).collect(),
        };
        Mask::of(&plane.largest(r), |v| v > 0.5)
    }

    pub(crate) fn not(&self) -> Mask {
        Mask {
            w: self.w,
            h: self.h,
            data: self.data.iter().map(|v| !v).collect(),
        }
    }

    /// The connected parts of the yeses, over edges and corners.
    pub(crate) fn connected_components(&self, corners: bool) -> Parts {
        use imageproc::region_labelling::{Connectivity, connected_components};
        let image = image::GrayImage::from_fn(self.w as u32, self.h as u32, |x, y| {
            image::Luma([u8::from(self.at(x as usize, y as usize))])
        });
        let connectivity = if corners {
            Connectivity::Eight
        } else {
            Connectivity::Four
        };
        let labels = connected_components(&image, connectivity, image::Luma([0]));
        let labels: Vec<u32> = labels.into_raw();
        let count = labels.iter().copied().max().unwrap_or(0) as usize;
        let mut parts = vec![
            Part {
                x0: usize::MAX,
                y0: usize::MAX,
                x1: 0,
                y1: 0,
                area: 0
            };
            count + 1
        ];
        for (i, &label) in labels.iter().enumerate() {
            let (x, y) = (i % self.w, i / self.w);
            let part = &mut parts[label as usize];
            part.x0 = part.x0.min(x);
            part.y0 = part.y0.min(y);
            part.x1 = part.x1.max(x);
            part.y1 = part.y1.max(y);
            part.area += 1;
        }
        Parts {
            w: self.w,
            labels,
            parts,
        }
    }
}

/// The connected parts of a mask; part 0 is the rest.
#[derive(Debug)]
pub(crate) struct Parts {
    pub(crate) w: usize,
    pub(crate) labels: Vec<u32>,
    pub(crate) parts: Vec<Part>,
}

/// A connected part: its extent, ends included, and its pixels.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Part {
    pub(crate) x0: usize,
    pub(crate) y0: usize,
    pub(crate) x1: usize,
    pub(crate) y1: usize,
    pub(crate) area: usize,
}

impl Part {
    pub(crate) fn w(&self) -> usize {
        self.x1 + 1 - self.x0
    }

    pub(crate) fn h(&self) -> usize {
        self.y1 + 1 - self.y0
    }
}

impl Parts {
    pub(crate) fn label(&self, x: usize, y: usize) -> u32 {
        self.labels[y * self.w + x]
    }

    /// The parts but the rest, with their labels.
    pub(crate) fn each(&self) -> impl Iterator<Item = (u32, Part)> + '_ {
        self.parts
            .iter()
            .enumerate()
            .skip(1)
            .map(|(i, p)| (i as u32, *p))
    }

    /// The pixels of a part.
    pub(crate) fn pixels(&self, label: u32) -> impl Iterator<Item = (usize, usize)> + '_ {
        let part = self.parts[label as usize];
        (part.y0..=part.y1)
            .flat_map(move |y| (part.x0..=part.x1).map(move |x| (x, y)))
            .filter(move |&(x, y)| self.label(x, y) == label)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn plane(w: usize, data: &[f32]) -> Plane {
        Plane {
            w,
            h: data.len() / w,
            data: data.to_vec(),
        }
    }

    fn mask(rows: &[&str]) -> Mask {
        Mask {
            w: rows[0].len(),
            h: rows.len(),
            data: rows
                .iter()
                .flat_map(|r| r.bytes().map(|b| b == b'#'))
                .collect(),
        }
    }

    #[test]
    fn a_place_between_pixels_is_weighed_and_outside_is_the_nearest() {
        let p = plane(2, &[0.0, 10.0, 20.0, 30.0]);
        assert_eq!(p.sample_bilinear(0.5, 0.5), 15.0);
        assert_eq!(p.sample_bilinear(0.25, 0.0), 2.5);
        assert_eq!(
            (p.sample_bilinear(-3.0, -3.0), p.sample_bilinear(9.0, 9.0)),
            (0.0, 30.0)
        );
    }

    #[test]
    fn a_blur_is_the_mean_of_what_is_there() {
        let p = plane(5, &[0.0, 0.0, 9.0, 0.0, 0.0]);
        assert_eq!(p.blurred(1).data, [0.0, 3.0, 3.0, 3.0, 0.0]);
        // At the edge fewer pixels count.
        assert_eq!(plane(3, &[6.0, 0.0, 0.0]).blurred(1).data, [3.0, 2.0, 0.0]);
        assert_eq!(p.blurred(0).data, p.data);
    }

    #[test]
    fn a_black_hat_finds_thin_dark_strokes_only() {
        // One dark pixel in light, then a dark half.
        let p = plane(
            12,
            &[9.0, 9.0, 1.0, 9.0, 9.0, 9.0, 1.0, 1.0, 1.0, 1.0, 1.0, 1.0],
        );
        let found = p.black_hat(1).data;
        assert_eq!(found[2], 8.0);
        assert!(
            found.iter().enumerate().all(|(n, v)| n == 2 || *v == 0.0),
            "{found:?}"
        );
    }

    #[test]
    fn quantiles_are_of_the_values_themselves() {
        assert_eq!(quantile(&mut [3.0, 1.0, 2.0], 0.0), 1.0);
        assert_eq!(quantile(&mut [3.0, 1.0, 2.0], 0.5), 2.0);
        assert_eq!(quantile(&mut [3.0, 1.0, 2.0], 1.0), 3.0);
        assert_eq!(quantile(&mut [], 0.5), 0.0);
    }

    #[test]
    fn parts_touch_by_corners_only_where_corners_count() {
        let m = mask(&["##...", "##...", "..##.", ".....", "....#"]);
        assert_eq!(m.connected_components(false).each().count(), 3);
        let parts = m.connected_components(true);
        let areas: Vec<usize> = parts.each().map(|(_, p)| p.area).collect();
        assert_eq!(areas, [6, 1]);
        let (label, first) = parts.each().next().unwrap();
        assert_eq!((first.x0, first.y0, first.w(), first.h()), (0, 0, 4, 3));
        assert_eq!(parts.pixels(label).count(), 6);
        assert!(parts.pixels(label).all(|(x, y)| m.at(x, y)));
    }

    #[test]
    fn a_mask_grows_by_squares_and_is_no_outside_itself() {
        let m = mask(&[".....", ".....", "..#..", ".....", "....."]);
        assert_eq!(m.grown(1).data.iter().filter(|v| **v).count(), 9);
        assert_eq!(m.grown(5).data.iter().filter(|v| !**v).count(), 0);
        assert!(m.get(2, 2) && !m.get(-1, 2) && !m.get(2, 5));
        assert_eq!(m.not().data.iter().filter(|v| **v).count(), 24);
    }

    proptest! {
        /// The running maximum, by a way that can't be wrong.
        #[test]
        fn the_largest_of_each_square(w in 1..14_usize, h in 1..14_usize, r in 0..6_usize, seed in proptest::collection::vec(-100..100_i32, 196)) {
            let p = Plane { w, h, data: seed.iter().take(w * h).map(|v| *v as f32).collect() };
            let (largest, smallest) = (p.largest(r), p.smallest(r));
            for y in 0..h {
                for x in 0..w {
                    let (ys, xs) = (y.saturating_sub(r)..(y + r + 1).min(h), x.saturating_sub(r)..(x + r + 1).min(w));
                    let square: Vec<f32> = ys.flat_map(|y| xs.clone().map(move |x| (x, y))).map(|(x, y)| p.at(x, y)).collect();
                    prop_assert_eq!(largest.at(x, y), square.iter().copied().fold(f32::NEG_INFINITY, f32::max));
                    prop_assert_eq!(smallest.at(x, y), square.iter().copied().fold(f32::INFINITY, f32::min));
                }
            }
        }
    }
}
