//! How a torn or roughened edge is drawn: the outline runs in and out, but never beyond what was cut.

use super::LayerEdge;

impl LayerEdge {
    /// How long a tooth of the edge is, and how far it goes in, in inches; none of an edge that is cut.
    const fn teeth(self) -> Option<(f64, f64)> {
        match self {
            LayerEdge::Cut => None,
            LayerEdge::Torn => Some((0.11, 0.07)),
            LayerEdge::Roughened => Some((0.05, 0.03)),
        }
    }

    /// An outline (clockwise in a drawing whose y runs down) with this edge, in units of which `inch` make an inch. The same outline always
    /// gets the same edge.
    #[must_use]
    pub fn ragged(self, outline: &[(f64, f64)], inch: f64) -> Vec<(f64, f64)> {
        let Some((tooth, depth)) = self.teeth() else {
            return outline.to_vec();
        };
        let mut points = Vec::new();
        let ends = outline.iter().cycle().skip(1);
        for (&(x0, y0), &(x1, y1)) in outline.iter().zip(ends) {
            let (dx, dy) = (x1 - x0, y1 - y0);
            let long = dx.hypot(dy);
            if long == 0.0 {
                continue;
            }
            let count = (long / (tooth * inch)).round().max(1.0);
            // To the right of the way along a clockwise outline is its inside.
            let (in_x, in_y) = (-dy / long, dx / long);
            for n in 0..count as usize {
                let along = n as f64 / count;
                let deep = noise(points.len()) * depth * inch;
                points.push((x0 + dx * along + in_x * deep, y0 + dy * along + in_y * deep));
            }
        }
        points
    }
}

/// A number from 0 to 1 that looks like chance: multiples of the golden ratio, every other one from the other end.
fn noise(n: usize) -> f64 {
    let share = (n as f64 * 0.618_033_988_749_895).fract();
    if n.is_multiple_of(2) {
        share
    } else {
        1.0 - share * share
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const BOX: [(f64, f64); 4] = [(0.0, 0.0), (4.0, 0.0), (4.0, 3.0), (0.0, 3.0)];

    #[test]
    fn a_torn_edge_runs_in_and_never_out() {
        for edge in [LayerEdge::Torn, LayerEdge::Roughened] {
            let drawn = edge.ragged(&BOX, 1.0);
            assert!(drawn.len() > 100, "{} points", drawn.len());
            let inside = |(x, y): &(f64, f64)| (0.0..=4.0).contains(x) && (0.0..=3.0).contains(y);
            assert!(drawn.iter().all(inside), "{drawn:?}");
            assert!(drawn.iter().any(|(_, y)| *y > 0.01 && *y < 0.1));
        }
    }

    #[test]
    fn a_cut_edge_is_as_it_was() {
        assert_eq!(LayerEdge::Cut.ragged(&BOX, 1.0), BOX);
    }
}
