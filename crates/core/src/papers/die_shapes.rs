//! Shapes of a die in a hidden middle, each where the picture of the paper is best: much of it within the shape, little of it cut by its edge.

use super::papered::Papered;
use crate::geometry::{Size, Span};
use std::collections::BTreeMap;

/// What stays between two shapes of a die, in ticks: 1/4 in.
pub(super) const BETWEEN_DIES: f64 = 50_800.0;
/// No more shapes than this are cut out of one middle.
const MOST: usize = 100;
/// Places are tried so far apart, in ticks: 1/8 in.
const STEP: f64 = 25_400.0;
/// No more places than this are tried along a side.
const MOST_STEPS: f64 = 120.0;
/// Into so many looks a side of a shape is divided.
const LOOKS: usize = 12;
/// How much of the picture along the edge of a shape counts against it.
const CUT_MOTIF: f64 = 0.5;

/// How much of a paper's picture there is, place by place of the tile that comes again and again.
#[derive(Clone, Debug, PartialEq)]
pub struct PaperDetail {
    /// The tile, in ticks.
    pub tile: Size,
    /// How many places lie side by side in it.
    pub columns: usize,
    /// How much there is, 0 to 1, row by row.
    pub places: Vec<f64>,
}

impl PaperDetail {
    fn at(&self, x: f64, y: f64) -> f64 {
        let rows = self.places.len() / self.columns.max(1);
        let place = |at: f64, tile: f64, count: usize| {
            ((at.rem_euclid(tile) / tile * count as f64) as usize).min(count.saturating_sub(1))
        };
        let column = place(x, self.tile.w.ticks().max(1) as f64, self.columns);
        let row = place(y, self.tile.h.ticks().max(1) as f64, rows);
        self.places
            .get(row * self.columns + column)
            .copied()
            .unwrap_or_default()
    }

    /// How good a place is for a shape.
    fn worth(&self, shape: Span) -> f64 {
        let share = |n: usize| (n as f64 + 0.5) / LOOKS as f64;
        let across = |n: usize| shape.w().mul_add(share(n), shape.l);
        let down = |n: usize| shape.h().mul_add(share(n), shape.t);
        let within: f64 = (0..LOOKS * LOOKS)
            .map(|n| self.at(across(n % LOOKS), down(n / LOOKS)))
            .sum();
        let edge = |n: usize| {
            self.at(across(n), shape.t)
                + self.at(across(n), shape.b)
                + self.at(shape.l, down(n))
                + self.at(shape.r, down(n))
        };
        let on_edge: f64 = (0..LOOKS).map(edge).sum();
        let [all, edges] = [LOOKS * LOOKS, 4 * LOOKS].map(|n| n as f64);
        within / all - CUT_MOTIF * on_edge / edges
    }
}

/// Places for up to so many shapes of a die in a hidden middle, `bar` ticks apart. With the paper's picture each takes the best place that is
/// left, as long as that costs none of the others its place; without it they lie row by row in the middle. Nothing where none fits.
pub fn dies_in(
    hole: Span,
    die: Size,
    bar: f64,
    most: usize,
    detail: Option<&PaperDetail>,
) -> Vec<Span> {
    let (w, h) = (die.w.ticks() as f64, die.h.ticks() as f64);
    if w <= 0.0 || h <= 0.0 {
        return Vec::new();
    }
    let rows = [(w, h), (h, w)]
        .map(|sides| in_rows(hole, sides, bar, most))
        .into_iter()
        .reduce(
            |best, next| {
                if next.len() > best.len() { next } else { best }
            },
        )
        .unwrap_or_default();
    let Some(detail) = detail else { return rows };
    let chosen = where_it_is_best(hole, (w, h), bar, rows.len(), detail);
    if chosen.len() == rows.len() {
        chosen
    } else {
        shifted(hole, rows, detail)
    }
}

/// How many shapes of a die a hidden middle gives.
pub fn dies_given(hole: Span, die: Size) -> usize {
    dies_in(hole, die, BETWEEN_DIES, MOST, None).len()
}

/// Row by row, all in the middle of the hole.
fn in_rows(hole: Span, (w, h): (f64, f64), bar: f64, most: usize) -> Vec<Span> {
    let count =
        |room: f64, side: f64| ((room + bar + 1.0) / (side + bar)).floor().max(0.0) as usize;
    let (across, down) = (count(hole.w(), w), count(hole.h(), h));
    let all = (across * down).min(most);
    if all == 0 {
        return Vec::new();
    }
    let (across, down) = (across.min(all), all.div_ceil(across));
    let run = |count: usize, side: f64| (count as f64).mul_add(side + bar, -bar);
    let left = hole.l + (hole.w() - run(across, w)) / 2.0;
    let top = hole.t + (hole.h() - run(down, h)) / 2.0;
    let place = |n: usize| {
        let l = ((n % across) as f64).mul_add(w + bar, left);
        let t = ((n / across) as f64).mul_add(h + bar, top);
        Span {
            l,
            t,
            r: l + w,
            b: t + h,
        }
    };
    (0..all).map(place).collect()
}

/// The best place left for one after the other; fewer than asked where those before took the room.
fn where_it_is_best(
    hole: Span,
    (w, h): (f64, f64),
    bar: f64,
    count: usize,
    detail: &PaperDetail,
) -> Vec<Span> {
    let ways: &[(f64, f64)] = if (w - h).abs() < 1.0 {
        &[(w, h)]
    } else {
        &[(w, h), (h, w)]
    };
    let all = ways.iter().flat_map(|sides| places(hole, *sides));
    let mut weighed: Vec<(f64, Span)> = all.map(|s| (detail.worth(s), s)).collect();
    weighed.sort_by(|a, b| b.0.total_cmp(&a.0));
    let mut taken: Vec<Span> = Vec::new();
    for (_, shape) in weighed {
        if taken.len() == count {
            break;
        }
        let wide = Span {
            l: shape.l - bar,
            t: shape.t - bar,
            r: shape.r + bar,
            b: shape.b + bar,
        };
        if taken.iter().all(|other| !other.overlaps(wide, 1.0)) {
            taken.push(shape);
        }
    }
    taken
}

fn places(hole: Span, (w, h): (f64, f64)) -> impl Iterator<Item = Span> {
    let (room_w, room_h) = (hole.w() - w, hole.h() - h);
    let step = STEP.max(room_w / MOST_STEPS).max(room_h / MOST_STEPS);
    let steps = |room: f64| {
        if room < -1.0 {
            0
        } else {
            (room.max(0.0) / step).floor() as usize + 1
        }
    };
    let (across, down) = (steps(room_w), steps(room_h));
    (0..across * down).map(move |n| {
        let l = ((n % across) as f64).mul_add(step, hole.l);
        let t = ((n / across) as f64).mul_add(step, hole.t);
        Span {
            l,
            t,
            r: l + w,
            b: t + h,
        }
    })
}

/// The rows moved together to where they meet the picture best.
fn shifted(hole: Span, rows: Vec<Span>, detail: &PaperDetail) -> Vec<Span> {
    let Some(block) = rows.iter().copied().reduce(Span::around) else {
        return rows;
    };
    let moved = |to: Span| -> Vec<Span> {
        let (dx, dy) = (to.l - block.l, to.t - block.t);
        let by = |s: &Span| Span {
            l: s.l + dx,
            t: s.t + dy,
            r: s.r + dx,
            b: s.b + dy,
        };
        rows.iter().map(by).collect()
    };
    let worth = |shapes: &[Span]| -> f64 { shapes.iter().map(|s| detail.worth(*s)).sum() };
    let all = places(hole, (block.w(), block.h())).map(moved);
    let best = all
        .map(|shapes| (worth(&shapes), shapes))
        .reduce(|best, next| if next.0 > best.0 { next } else { best });
    best.map_or_else(|| rows.clone(), |(_, shapes)| shapes)
}

impl Papered {
    /// Moves the shapes of dies in hidden middles to where the pictures of their papers are best, by pieces' names.
    pub fn with_pictures(&mut self, details: &BTreeMap<String, PaperDetail>) {
        for piece in &mut self.pieces {
            let detail = details.get(&piece.name());
            if let (Some(dies), Some(hole), Some(detail)) =
                (&mut piece.dies, piece.piece.hole, detail)
            {
                dies.places = dies_in(hole, dies.size, dies.bar, dies.places.len(), Some(detail));
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::length::Length;
    use proptest::prelude::*;

    const INCH: f64 = 203_200.0;

    fn inches(l: f64, t: f64, r: f64, b: f64) -> Span {
        let [l, t, r, b] = [l, t, r, b].map(|v| v * INCH);
        Span { l, t, r, b }
    }

    fn size(w: i64, h: i64) -> Size {
        Size {
            w: Length::inches(w, 8),
            h: Length::inches(h, 8),
        }
    }

    /// One motif in the middle of a tile of 4 by 4 in.
    fn one_motif() -> PaperDetail {
        let is_motif = |n: usize| (6..10).contains(&(n % 16)) && (6..10).contains(&(n / 16));
        PaperDetail {
            tile: size(32, 32),
            columns: 16,
            places: (0..256).map(|n| f64::from(u8::from(is_motif(n)))).collect(),
        }
    }

    #[test]
    fn a_shape_lies_round_a_whole_motif() {
        let found = dies_in(
            inches(0.0, 0.0, 8.0, 4.0),
            size(12, 12),
            0.0,
            2,
            Some(&one_motif()),
        );
        assert_eq!(found.len(), 2);
        for shape in found {
            // The motif's middle lies at 2 in, and at 6 in.
            let middle = (shape.cx() / INCH).rem_euclid(4.0);
            assert!((middle - 2.0).abs() < 0.3, "{middle}");
            assert!((shape.cy() / INCH - 2.0).abs() < 0.3);
        }
    }

    #[test]
    fn without_a_picture_they_lie_in_rows_in_the_middle() {
        let found = dies_in(inches(0.0, 0.0, 5.0, 1.5), size(16, 8), INCH / 4.0, 9, None);
        assert_eq!(found.len(), 2);
        assert_eq!(found[0], inches(0.375, 0.25, 2.375, 1.25));
        assert!(dies_in(inches(0.0, 0.0, 1.0, 1.0), size(16, 8), 0.0, 9, None).is_empty());
    }

    proptest! {
        #[test]
        fn they_stay_within_and_apart(w in 1.0..11.0_f64, h in 1.0..11.0_f64, dw in 4..24_i64, dh in 4..24_i64, bar in 0.0..0.5_f64, most in 0..12_usize, seen in any::<bool>()) {
            let hole = inches(0.5, 0.5, 0.5 + w, 0.5 + h);
            let detail = one_motif();
            let found = dies_in(hole, size(dw, dh), bar * INCH, most, seen.then_some(&detail));
            prop_assert!(found.len() <= most);
            let plain = dies_in(hole, size(dw, dh), bar * INCH, most, None);
            prop_assert_eq!(found.len(), plain.len(), "a picture costs no shape its place");
            for (n, shape) in found.iter().enumerate() {
                prop_assert!(shape.is_in(hole, 2.0), "{:?} in {:?}", shape, hole);
                for other in &found[n + 1..] {
                    let apart = (other.l - shape.r).max(shape.l - other.r).max(other.t - shape.b).max(shape.t - other.b);
                    prop_assert!(apart >= bar * INCH - 2.0, "{} apart", apart / INCH);
                }
            }
        }
    }
}
