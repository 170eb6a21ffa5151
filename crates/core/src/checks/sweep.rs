//! Areas grown and shrunk by an upright square.

use crate::geometry::{Point, Region};

/// All that an upright square covers while its middle is anywhere in an area.
pub(super) fn grown_by_square(area: &Region, side: f64) -> Region {
    if area.is_empty() {
        return Region::default();
    }
    let swept = along_edges(area, side);
    Region::union(std::iter::once(area).chain(&swept))
}

/// Where the middle of an upright square can be while it lies in an area wholly.
pub(super) fn shrunk_by_square(area: &Region, side: f64) -> Region {
    let swept = along_edges(area, side);
    area.without(&swept)
}

/// What a square covers on its way along each edge of an area.
fn along_edges(area: &Region, side: f64) -> Vec<Region> {
    let edge = |points: &Vec<Point>| {
        let next = points.iter().cycle().skip(1);
        let steps = points.iter().zip(next);
        steps
            .map(|(a, b)| swept(*a, *b, side / 2.0))
            .collect::<Vec<_>>()
    };
    area.edges().flat_map(edge).collect()
}

/// What a square of so much to each side covers on its way from one point to another: a hexagon.
fn swept(a: Point, b: Point, half: f64) -> Region {
    // From left to right, so that only the slope's sign is left to tell.
    let (a, b) = if a[0] <= b[0] { (a, b) } else { (b, a) };
    let corner = |p: Point, x: f64, y: f64| [p[0] + x * half, p[1] + y * half];
    let points = if a[1] <= b[1] {
        vec![
            corner(a, -1.0, -1.0),
            corner(a, 1.0, -1.0),
            corner(b, 1.0, -1.0),
            corner(b, 1.0, 1.0),
            corner(b, -1.0, 1.0),
            corner(a, -1.0, 1.0),
        ]
    } else {
        vec![
            corner(a, -1.0, -1.0),
            corner(b, -1.0, -1.0),
            corner(b, 1.0, -1.0),
            corner(b, 1.0, 1.0),
            corner(a, 1.0, 1.0),
            corner(a, -1.0, 1.0),
        ]
    };
    Region::convex(points)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Span;

    fn square(side: f64) -> Region {
        Region::from(Span {
            l: 0.0,
            t: 0.0,
            r: side,
            b: side,
        })
    }

    #[test]
    fn a_square_grows_to_a_square_and_shrinks_back() {
        let grown = grown_by_square(&square(10_000.0), 2_000.0);
        assert!((grown.area() - 12_000.0_f64.powi(2)).abs() < 10.0);
        let back = shrunk_by_square(&grown, 2_000.0);
        assert!((back.area() - 10_000.0_f64.powi(2)).abs() < 10.0);
    }

    #[test]
    fn what_is_narrower_than_the_square_goes() {
        assert!(shrunk_by_square(&square(10_000.0), 10_001.0).is_empty());
    }
}
