//! Areas of the page with straight edges: what shows of a sheet, what covers it, what is left free.

use super::Span;
use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;
use i_overlay::mesh::float::outline::offset::OutlineOffset;
use i_overlay::mesh::float::style::{LineJoin, OutlineStyle};
use std::f64::consts::TAU;

/// How far the straight edges that stand for a curve may lie from it, in ticks: 1/1000 in.
const FLATNESS: f64 = 203.2;
/// Areas no larger than this, in square ticks, come from rounding.
const DUST: f64 = 1_000.0;

/// Corners sharper than this, in radians, are cut off when an area is grown or shrunk with its corners kept.
const MITRE: f64 = 0.2;

/// A point in ticks.
pub type Point = [f64; 2];

/// One connected area: its outer edge, then the edges of its holes.
pub type Part = Vec<Vec<Point>>;

/// An area, in ticks: parts that don't touch, each with an outer edge and its holes.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Region {
    parts: Vec<Part>,
}

impl From<Span> for Region {
    fn from(span: Span) -> Region {
        if span.w() <= 0.0 || span.h() <= 0.0 {
            return Region::default();
        }
        Region {
            parts: vec![vec![vec![
                [span.l, span.t],
                [span.r, span.t],
                [span.r, span.b],
                [span.l, span.b],
            ]]],
        }
    }
}

impl Region {
    /// The area within a closed line; where it crosses itself, what is enclosed an odd number of times.
    pub fn within(points: Vec<Point>) -> Region {
        let none: Vec<Point> = Vec::new();
        Region {
            parts: points.overlay(&none, OverlayRule::Subject, FillRule::EvenOdd),
        }
        .forwards()
    }

    /// The area within a closed line that is known not to cross itself.
    pub(crate) fn convex(points: Vec<Point>) -> Region {
        Region {
            parts: vec![vec![points]],
        }
        .forwards()
    }

    /// One of its connected areas by itself.
    pub(crate) fn of_part(part: Part) -> Region {
        Region { parts: vec![part] }
    }

    /// The ellipse in a box, its curve flattened.
    pub fn ellipse(span: Span) -> Region {
        let (rx, ry) = (span.w() / 2.0, span.h() / 2.0);
        let radius = rx.max(ry);
        if rx <= 0.0 || ry <= 0.0 {
            return Region::default();
        }
        let step = 2.0 * (1.0 - (FLATNESS / radius).min(0.5)).acos();
        // A multiple of four, so that the ends of both axes are points of it.
        let count = ((TAU / step / 4.0).ceil() as usize).max(4) * 4;
        let at = |n: usize| {
            let (sin, cos) = (n as f64 * TAU / count as f64).sin_cos();
            [span.cx() + rx * cos, span.cy() + ry * sin]
        };
        Region {
            parts: vec![vec![(0..count).map(at).collect()]],
        }
    }

    /// All outer edges run the same way round, and holes the other: the union counts on it.
    fn forwards(mut self) -> Region {
        for part in &mut self.parts {
            for (n, edge) in part.iter_mut().enumerate() {
                if (signed_area(edge) > 0.0) != (n == 0) {
                    edge.reverse();
                }
            }
        }
        self
    }

    /// The connected areas.
    pub fn parts(&self) -> &[Part] {
        &self.parts
    }

    /// Every closed edge, outer ones and those of holes.
    pub fn edges(&self) -> impl Iterator<Item = &Vec<Point>> {
        self.parts.iter().flatten()
    }

    /// Whether there is nothing of it.
    pub fn is_empty(&self) -> bool {
        self.parts.is_empty()
    }

    /// In square ticks.
    pub fn area(&self) -> f64 {
        self.parts.iter().map(part_area).sum()
    }

    /// The smallest upright box around it.
    pub fn bounds(&self) -> Option<Span> {
        let spans = self.parts.iter().filter_map(|p| edge_bounds(&p[0]));
        spans.reduce(Span::around)
    }

    /// Turned clockwise by degrees about a point.
    pub fn turned(mut self, degrees: f64, about: Point) -> Region {
        if degrees == 0.0 {
            return self;
        }
        let (sin, cos) = degrees.to_radians().sin_cos();
        for point in self.parts.iter_mut().flatten().flatten() {
            let (x, y) = (point[0] - about[0], point[1] - about[1]);
            *point = [
                x.mul_add(cos, -(y * sin)) + about[0],
                x.mul_add(sin, y * cos) + about[1],
            ];
        }
        self
    }

    /// What lies in any of these.
    pub fn union<'a>(regions: impl IntoIterator<Item = &'a Region>) -> Region {
        let all: Vec<Vec<Point>> = regions
            .into_iter()
            .flat_map(|r| r.edges().cloned())
            .collect();
        let none: Vec<Point> = Vec::new();
        Region::cleaned(all.overlay(&none, OverlayRule::Subject, FillRule::NonZero))
    }

    /// What of it lies in none of the others.
    pub fn without<'a>(&self, others: impl IntoIterator<Item = &'a Region>) -> Region {
        self.combined(others, OverlayRule::Difference)
    }

    /// What of it lies in the other as well.
    pub fn within_also(&self, other: &Region) -> Region {
        self.combined([other], OverlayRule::Intersect)
    }

    fn combined<'a>(
        &self,
        others: impl IntoIterator<Item = &'a Region>,
        rule: OverlayRule,
    ) -> Region {
        let others: Vec<Vec<Point>> = others
            .into_iter()
            .flat_map(|r| r.edges().cloned())
            .collect();
        let own: Vec<Vec<Point>> = self.edges().cloned().collect();
        Region::cleaned(own.overlay(&others, rule, FillRule::NonZero))
    }

    /// Without what comes from rounding.
    fn cleaned(parts: Vec<Part>) -> Region {
        let parts = parts.into_iter().filter(|p| part_area(p) > DUST).collect();
        Region { parts }.forwards()
    }

    /// It and all that is nearer to it than a distance in ticks.
    pub fn grown(&self, distance: f64) -> Region {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        let step = 2.0 * (1.0 - (FLATNESS / distance).min(0.5)).acos();
        let style = OutlineStyle::new(distance).line_join(LineJoin::Round(step));
        // Grown parts may meet.
        Region::union([&Region::cleaned(self.parts.outline(&style))])
    }

    /// Without what is thinner than a width in ticks.
    pub fn without_hairs(&self, width: f64) -> Region {
        let moved = |region: &Region, by: f64| {
            let style = OutlineStyle::new(by).line_join(LineJoin::Miter(MITRE));
            Region::cleaned(region.parts.outline(&style))
        };
        if self.is_empty() {
            return self.clone();
        }
        moved(&moved(self, -width / 2.0), width / 2.0)
    }

    /// The parts larger than an area in square ticks, and the others.
    pub fn split_by_area(self, least: f64) -> (Region, Region) {
        let (large, small) = self.parts.into_iter().partition(|p| part_area(p) > least);
        (Region { parts: large }, Region { parts: small })
    }
}

/// Twice-counted triangles halved: above 0 when the edge runs from x to y.
fn signed_area(edge: &[Point]) -> f64 {
    let next = edge.iter().cycle().skip(1);
    edge.iter()
        .zip(next)
        .map(|(a, b)| a[0] * b[1] - b[0] * a[1])
        .sum::<f64>()
        / 2.0
}

/// Of one connected area, in square ticks.
pub fn part_area(part: &Part) -> f64 {
    let (outer, holes) = part.split_first().map_or((0.0, 0.0), |(outer, holes)| {
        let holes = holes.iter().map(|h| signed_area(h).abs()).sum();
        (signed_area(outer).abs(), holes)
    });
    outer - holes
}

/// The smallest upright box around the points of an edge.
pub fn edge_bounds(edge: &[Point]) -> Option<Span> {
    let at = |p: &Point| Span {
        l: p[0],
        t: p[1],
        r: p[0],
        b: p[1],
    };
    edge.iter().map(at).reduce(Span::around)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn square(x: f64, y: f64, side: f64) -> Region {
        Region::from(Span {
            l: x,
            t: y,
            r: x + side,
            b: y + side,
        })
    }

    fn assert_area(region: &Region, wanted: f64) {
        let off = (region.area() - wanted).abs();
        assert!(off <= wanted * 1e-6, "{} for {wanted}", region.area());
    }

    #[test]
    fn a_hole_is_no_part_of_the_area() {
        let frame = square(0.0, 0.0, 1_000.0).without([&square(250.0, 250.0, 500.0)]);
        assert_area(&frame, 750_000.0);
        assert_eq!((frame.parts().len(), frame.parts()[0].len()), (1, 2));
    }

    #[test]
    fn what_is_cut_through_is_two_parts() {
        let strip = Region::from(Span {
            l: 400.0,
            t: 0.0,
            r: 600.0,
            b: 1_000.0,
        });
        let halves = square(0.0, 0.0, 1_000.0).without([&strip]);
        assert_eq!(halves.parts().len(), 2);
        assert_area(&halves, 800_000.0);
    }

    #[test]
    fn a_union_counts_what_overlaps_once_whichever_way_round_it_runs() {
        let backwards = Region::within(vec![
            [500.0, 500.0],
            [500.0, 1_500.0],
            [1_500.0, 1_500.0],
            [1_500.0, 500.0],
        ]);
        let both = Region::union([&square(0.0, 0.0, 1_000.0), &backwards]);
        assert_area(&both, 1_750_000.0);
    }

    #[test]
    fn an_ellipse_is_flattened_within_a_thousandth_of_an_inch() {
        let span = Span {
            l: 0.0,
            t: 0.0,
            r: 2_438_400.0,
            b: 1_219_200.0,
        };
        let ellipse = Region::ellipse(span);
        let wanted = std::f64::consts::PI * span.w() * span.h() / 4.0;
        assert!(ellipse.area() < wanted && ellipse.area() > wanted * 0.999);
        assert_eq!(ellipse.bounds(), Some(span));
    }

    #[test]
    fn growing_rounds_the_corners_off() {
        let grown = square(0.0, 0.0, 203_200.0).grown(50_800.0);
        let wanted = 203_200.0_f64.powi(2)
            + 4.0 * 203_200.0 * 50_800.0
            + std::f64::consts::PI * 50_800.0_f64.powi(2);
        assert!((grown.area() / wanted - 1.0).abs() < 1e-3);
    }

    #[test]
    fn a_line_that_crosses_itself_encloses_both_loops() {
        let bow = Region::within(vec![
            [0.0, 0.0],
            [1_000.0, 1_000.0],
            [1_000.0, 0.0],
            [0.0, 1_000.0],
        ]);
        assert_area(&bow, 500_000.0);
    }

    #[test]
    fn a_quarter_turn_moves_a_corner_clockwise() {
        let turned = square(0.0, 0.0, 100.0).turned(90.0, [0.0, 0.0]);
        let bounds = turned.bounds().unwrap();
        assert!((bounds.l + 100.0).abs() < 1e-9 && (bounds.b - 100.0).abs() < 1e-9);
    }
}
