//! A small convolutional network, run on one core: the layers that the network for sketches has, and no others.
//!
//! It is a U-Net (Ronneberger, Fischer and Brox 2015). `crates/drawn/train` trains it, folds its normalisation into the weights and writes
//! them as half-precision safetensors.

use half::f16;
use nalgebra::DMatrix;
use safetensors::{SafeTensors, tensor::TensorView};

/// Channels of `w * h` values each, one after the other.
#[derive(Debug, Clone)]
pub(crate) struct Map {
    pub(crate) w: usize,
    pub(crate) h: usize,
    pub(crate) channels: usize,
    pub(crate) data: Vec<f32>,
}

impl Map {
    pub(crate) fn new(w: usize, h: usize, channels: usize) -> Map {
        Map {
            w,
            h,
            channels,
            data: vec![0.0; w * h * channels],
        }
    }

    pub(crate) fn channel(&self, n: usize) -> &[f32] {
        &self.data[n * self.w * self.h..(n + 1) * self.w * self.h]
    }

    /// Every second place, the largest of four.
    fn pooled(&self) -> Map {
        let mut out = Map::new(self.w / 2, self.h / 2, self.channels);
        let (w, count) = (out.w, out.w * out.h);
        for c in 0..self.channels {
            let from = self.channel(c);
            for (n, to) in out.data[c * count..(c + 1) * count].iter_mut().enumerate() {
                let at = 2 * (n / w) * self.w + 2 * (n % w);
                let (above, below) = (&from[at..at + 2], &from[at + self.w..at + self.w + 2]);
                *to = above[0].max(above[1]).max(below[0].max(below[1]));
            }
        }
        out
    }

    /// Each place twice across and twice down.
    fn doubled(&self) -> Map {
        let mut out = Map::new(self.w * 2, self.h * 2, self.channels);
        let (w, count) = (out.w, out.w * out.h);
        for c in 0..self.channels {
            let from = self.channel(c);
            for (n, to) in out.data[c * count..(c + 1) * count].iter_mut().enumerate() {
                *to = from[n / w / 2 * self.w + n % w / 2];
            }
        }
        out
    }
}

/// A convolution, with its offsets.
struct Convolution {
    /// A row for each value that goes in, a column for each channel that comes out.
    weights: DMatrix<f32>,
    offsets: Vec<f32>,
    /// 1 or 3 places a side.
    size: usize,
    stride: usize,
    /// Whether what falls below 0 counts as 0.
    rectified: bool,
}

/// So many values are gathered for one multiplication: more would leave the cache.
const GATHERED: usize = 1 << 19;

impl Convolution {
    /// Over several maps of one size, as if their channels were one map's.
    fn over(&self, maps: &[&Map]) -> Map {
        let (w, h) = (maps[0].w / self.stride, maps[0].h / self.stride);
        let mut out = Map::new(w, h, self.offsets.len());
        let taken = self.weights.nrows();
        let rows = (GATHERED / (taken * w)).clamp(1, h);
        for top in (0..h).step_by(rows) {
            let rows = rows.min(h - top);
            let mut gathered = DMatrix::<f32>::zeros(rows * w, taken);
            self.gather(maps, top, (w, rows), gathered.as_mut_slice());
            let found = gathered * &self.weights;
            for (c, offset) in self.offsets.iter().enumerate() {
                let from = c * w * h + top * w;
                let to = &mut out.data[from..from + rows * w];
                for (to, value) in to.iter_mut().zip(found.column(c).iter()) {
                    let value = value + offset;
                    *to = if self.rectified {
                        value.max(0.0)
                    } else {
                        value
                    };
                }
            }
        }
        out
    }

    /// What each place in some rows is made of: a column for each value of each place's neighbourhood.
    fn gather(&self, maps: &[&Map], top: usize, (w, rows): (usize, usize), into: &mut [f32]) {
        let around = (self.size / 2) as isize;
        let mut columns = into.chunks_exact_mut(w * rows);
        for map in maps {
            for c in 0..map.channels {
                let from = map.channel(c);
                for (dy, dx) in (0..self.size * self.size).map(|n| (n / self.size, n % self.size)) {
                    let Some(column) = columns.next() else { return };
                    for (row, to) in column.chunks_exact_mut(w).enumerate() {
                        let y = ((top + row) * self.stride + dy) as isize - around;
                        if y < 0 || y >= map.h as isize {
                            continue;
                        }
                        let line = &from[y as usize * map.w..(y as usize + 1) * map.w];
                        shifted(line, dx as isize - around, self.stride, to);
                    }
                }
            }
        }
    }
}

/// A line of values moved by some places, with nothing beyond its ends.
fn shifted(line: &[f32], by: isize, stride: usize, to: &mut [f32]) {
    if stride == 1 {
        let (from, skip) = (by.max(0) as usize, (-by).max(0) as usize);
        let count = line.len() - from.max(skip);
        to[skip..skip + count].copy_from_slice(&line[from..from + count]);
        return;
    }
    for (n, to) in to.iter_mut().enumerate() {
        let at = (n * stride) as isize + by;
        if at >= 0 && at < line.len() as isize {
            *to = line[at as usize];
        }
    }
}

/// The network.
pub(crate) struct Network {
    down: Vec<[Convolution; 2]>,
    narrow: Vec<Convolution>,
    join: Vec<Convolution>,
    head: Convolution,
}

impl Network {
    /// From weights in the safetensors format.
    ///
    /// # Panics
    /// When they are not this network's: they are part of the program.
    pub(crate) fn new(weights: &[u8]) -> Network {
        let weights = SafeTensors::deserialize(weights).expect("the weights are safetensors");
        let layer = |name: &str, stride: usize, rectified: bool| {
            let tensor = |part: &str| {
                let named = weights.tensor(&format!("{name}.{part}"));
                named.expect("the network has this layer")
            };
            let (weights, offsets) = (tensor("weights"), tensor("offsets"));
            let [outs, ins, size, _] = weights.shape()[..] else {
                panic!("{name} is a convolution")
            };
            Convolution {
                // Row by row for each channel that comes out is column by column here.
                weights: DMatrix::from_vec(ins * size * size, outs, values(&weights)),
                offsets: values(&offsets),
                size,
                stride,
                rectified,
            }
        };
        let depth = (0..).take_while(|n| weights.tensor(&format!("down.{n}.0.weights")).is_ok());
        let depth = depth.count();
        let down = |n: usize| {
            let stride = if n == 0 { 2 } else { 1 };
            [
                layer(&format!("down.{n}.0"), stride, true),
                layer(&format!("down.{n}.1"), 1, true),
            ]
        };
        let up = 0..depth - 1;
        Network {
            down: (0..depth).map(down).collect(),
            narrow: up
                .clone()
                .map(|n| layer(&format!("narrow.{n}"), 1, true))
                .collect(),
            join: up.map(|n| layer(&format!("join.{n}"), 1, true)).collect(),
            head: layer("head", 1, false),
        }
    }

    /// What it makes of a picture whose sides are multiples of 32: half as wide and high, before any squashing.
    pub(crate) fn run(&self, picture: &Map) -> Map {
        let mut seen: Vec<Map> = Vec::new();
        for [first, second] in &self.down {
            let next = match seen.last() {
                None => first.over(&[picture]),
                Some(before) => first.over(&[&before.pooled()]),
            };
            seen.push(second.over(&[&next]));
        }
        let mut x = seen.pop().expect("the network has layers");
        for (narrow, join) in self.narrow.iter().zip(&self.join) {
            let beside = seen.pop().expect("each step up has one down");
            x = join.over(&[&narrow.over(&[&x]).doubled(), &beside]);
        }
        self.head.over(&[&x])
    }
}

fn values(tensor: &TensorView<'_>) -> Vec<f32> {
    let halves = tensor.data().chunks_exact(2);
    halves
        .map(|b| f16::from_le_bytes([b[0], b[1]]).to_f32())
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// A convolution as it is defined, place by place.
    fn defined(of: &Convolution, map: &Map) -> Vec<f32> {
        let (w, h) = (map.w / of.stride, map.h / of.stride);
        let mut out = Vec::new();
        let around = (of.size / 2) as isize;
        for c in 0..of.offsets.len() {
            for (y, x) in (0..h * w).map(|n| (n / w, n % w)) {
                let mut sum = of.offsets[c];
                for k in 0..of.weights.nrows() {
                    let (channel, place) = (k / (of.size * of.size), k % (of.size * of.size));
                    let at_y = (y * of.stride + place / of.size) as isize - around;
                    let at_x = (x * of.stride + place % of.size) as isize - around;
                    let inside =
                        at_y >= 0 && at_x >= 0 && at_y < map.h as isize && at_x < map.w as isize;
                    if inside {
                        let value = map.channel(channel)[at_y as usize * map.w + at_x as usize];
                        sum += value * of.weights[(k, c)];
                    }
                }
                out.push(if of.rectified { sum.max(0.0) } else { sum });
            }
        }
        out
    }

    proptest! {
        #[test]
        fn a_convolution_is_what_it_is_defined_as(
            (size, stride) in prop_oneof![Just((1, 1)), Just((3, 1)), Just((3, 2))],
            seed in any::<u64>(),
            rectified in any::<bool>(),
        ) {
            use rand::{Rng, SeedableRng};
            let mut luck = rand::rngs::StdRng::seed_from_u64(seed);
            let mut some = |n: usize| (0..n).map(|_| luck.random_range(-1.0..1.0_f32)).collect::<Vec<f32>>();
            let map = Map { w: 10, h: 6, channels: 3, data: some(180) };
            let taken = 3 * size * size;
            let of = Convolution { weights: DMatrix::from_vec(taken, 4, some(taken * 4)), offsets: some(4), size, stride, rectified };
            for (a, b) in of.over(&[&map]).data.iter().zip(defined(&of, &map)) {
                prop_assert!((a - b).abs() < 1e-4, "{a} and {b}");
            }
        }
    }

    #[test]
    fn maps_are_pooled_and_doubled() {
        let map = Map {
            w: 2,
            h: 2,
            channels: 2,
            data: vec![1.0, 4.0, 2.0, 3.0, -1.0, -2.0, -3.0, -4.0],
        };
        assert_eq!(map.pooled().data, [4.0, -1.0]);
        assert_eq!(map.doubled().channel(0)[..4], [1.0, 1.0, 4.0, 4.0]);
        assert_eq!(map.doubled().pooled().data, map.data);
    }
}
