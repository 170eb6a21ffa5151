//! Clusters: a handful of flowers, stars, hearts, leaves or buttons, grown until they fill their box.

use super::marks::{bounds, round, star};
use super::{Hand, Point};
use crate::manner::Cluster;
use rand::Rng;
use std::f64::consts::TAU;

/// A part of an ornament.
enum Part {
    /// With an outline, filled with the ornament's colour.
    Body(Vec<Point>),
    /// Filled with ink.
    Ink(Vec<Point>),
    /// A line.
    Vein(Point, Point),
}

impl Part {
    fn points(&mut self) -> Vec<&mut Point> {
        match self {
            Part::Body(points) | Part::Ink(points) => points.iter_mut().collect(),
            Part::Vein(a, b) => vec![a, b],
        }
    }
}

impl Hand<'_> {
    pub(super) fn cluster(&mut self, points: &[Point]) {
        let (x, y, w, h) = bounds(points);
        let count = self.luck.random_range(3..=5);
        let mut ornaments: Vec<(&'static str, Vec<Part>)> = Vec::new();
        for n in 0..=count {
            let (sin, cos) = (f64::from(n) / f64::from(count) * TAU + 0.4).sin_cos();
            let (at, r) = if n == count {
                ((0.0, 0.0), 0.4)
            } else {
                ((cos * 0.55, sin * 0.55), 0.45)
            };
            let colour = if self.manner.coloured {
                self.tint()
            } else {
                self.page_colour()
            };
            ornaments.push((colour, self.ornament(at, r)));
        }
        let all = ornaments.iter_mut().flat_map(|(_, parts)| parts);
        let all: Vec<&mut Point> = all.flat_map(Part::points).collect();
        let spread: Vec<Point> = all.iter().map(|p| **p).collect();
        let (l, t, wide, high) = bounds(&spread);
        for p in all {
            *p = (x + (p.0 - l) / wide * w, y + (p.1 - t) / high * h);
        }
        for (colour, parts) in &ornaments {
            for part in parts {
                self.part(part, colour);
            }
        }
    }

    fn part(&mut self, part: &Part, colour: &str) {
        match part {
            Part::Body(points) => {
                self.area(points, colour);
                self.stroke_of(points, true, self.width * 0.8);
            }
            Part::Ink(points) => self.area(points, self.ink),
            Part::Vein(a, b) => self.line(*a, *b),
        }
    }

    fn ornament(&mut self, at: Point, r: f64) -> Vec<Part> {
        match self.manner.cluster {
            Cluster::Flowers => {
                let petal = |n: u32| {
                    let (sin, cos) = (f64::from(n) / 5.0 * TAU).sin_cos();
                    Part::Body(round((at.0 + cos * r * 0.6, at.1 + sin * r * 0.6), r * 0.4))
                };
                let heart = Part::Body(round(at, r * 0.3));
                (0..5).map(petal).chain([heart]).collect()
            }
            Cluster::Stars => vec![Part::Body(star(at, 5, r, r * 0.42))],
            Cluster::Leaves => {
                let (sin, cos) = self.luck.random_range(0.0..TAU).sin_cos();
                let leaf: Vec<Point> = (0..16)
                    .map(|n| {
                        let (s, c) = (f64::from(n) / 16.0 * TAU).sin_cos();
                        let (u, v) = (c * r, s * r * 0.4);
                        (at.0 + u * cos - v * sin, at.1 + u * sin + v * cos)
                    })
                    .collect();
                let vein = Part::Vein(leaf[0], leaf[8]);
                vec![Part::Body(leaf), vein]
            }
            Cluster::Hearts => {
                let is_dot = self.chance(0.4);
                vec![if is_dot {
                    Part::Ink(round(at, r * 0.5))
                } else {
                    Part::Body(heart(at, r))
                }]
            }
            Cluster::Buttons => {
                let hole = |by: f64| Part::Body(round((at.0 + by * r, at.1), r * 0.08));
                vec![
                    Part::Body(round(at, r * 0.8)),
                    Part::Body(round(at, r * 0.55)),
                    hole(-0.15),
                    hole(0.15),
                ]
            }
        }
    }
}

fn heart(at: Point, r: f64) -> Vec<Point> {
    let place = |n: u32| {
        let t = f64::from(n) / 24.0 * TAU;
        let down = 13.0 * t.cos() - 5.0 * (2.0 * t).cos() - 2.0 * (3.0 * t).cos();
        (at.0 + t.sin().powi(3) * r, at.1 - down / 16.0 * r)
    };
    (0..24).map(place).collect()
}
