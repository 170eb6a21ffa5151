//! A panel, and what lies over others.

use crate::writing::Extent;

/// A rectangle, turned about its middle.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Panel {
    pub(crate) middle: [f64; 2],
    pub(crate) w: f64,
    pub(crate) h: f64,
    /// Degrees clockwise.
    pub(crate) turn: f64,
    /// Share of the outline seen where nothing covers it.
    pub(crate) seen: f64,
    /// Sides on the page's own edge: left, top, right, bottom.
    pub(crate) edges: [bool; 4],
}

impl Panel {
    pub(crate) fn upright(extent: Extent) -> Panel {
        Panel {
            middle: extent.middle(),
            w: extent.w(),
            h: extent.h(),
            turn: 0.0,
            seen: 1.0,
            edges: [false; 4],
        }
    }

    /// The corners clockwise from the top left.
    pub(crate) fn points(&self) -> [[f64; 2]; 4] {
        let (s, c) = self.turn.to_radians().sin_cos();
        let at = |u: f64, v: f64| {
            [
                self.middle[0] + u * c - v * s,
                self.middle[1] + u * s + v * c,
            ]
        };
        let (a, b) = (self.w / 2.0, self.h / 2.0);
        [at(-a, -b), at(a, -b), at(a, b), at(-a, b)]
    }

    /// The upright extent round it.
    pub(crate) fn extent(&self) -> Extent {
        let p = self.points();
        let by = |k: usize, f: fn(f64, f64) -> f64, from: f64| p.iter().map(|q| q[k]).fold(from, f);
        Extent {
            x0: by(0, f64::min, f64::INFINITY),
            y0: by(1, f64::min, f64::INFINITY),
            x1: by(0, f64::max, f64::NEG_INFINITY),
            y1: by(1, f64::max, f64::NEG_INFINITY),
        }
    }

    /// How far inside a point lies; negative outside.
    pub(crate) fn depth(&self, p: [f64; 2]) -> f64 {
        let (x, y) = (p[0] - self.middle[0], p[1] - self.middle[1]);
        // Most panels stand straight, and this is asked millions of times.
        let (s, c) = if self.turn == 0.0 {
            (0.0, 1.0)
        } else {
            self.turn.to_radians().sin_cos()
        };
        (self.w / 2.0 - (x * c + y * s).abs()).min(self.h / 2.0 - (y * c - x * s).abs())
    }

    pub(crate) fn area(&self) -> f64 {
        self.w * self.h
    }
}

/// Something that lies over others and hides them.
#[derive(Debug, Clone)]
pub(crate) enum Cover {
    Panel(Panel),
    Ellipse(Extent),
}

impl Cover {
    pub(super) fn extent(&self) -> Extent {
        match self {
            Cover::Panel(panel) => panel.extent(),
            Cover::Ellipse(e) => *e,
        }
    }

    pub(crate) fn hides(&self, p: [f64; 2]) -> bool {
        match self {
            Cover::Panel(panel) => panel.depth(p) > 4.0,
            Cover::Ellipse(e) => {
                let [mx, my] = e.middle();
                ((p[0] - mx) / (e.w() / 2.0)).hypot((p[1] - my) / (e.h() / 2.0)) < 1.0
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn panel(turn: f64) -> Panel {
        Panel {
            middle: [50.0, 40.0],
            w: 40.0,
            h: 20.0,
            turn,
            seen: 1.0,
            edges: [false; 4],
        }
    }

    #[test]
    fn corners_go_clockwise_from_the_top_left() {
        assert_eq!(
            panel(0.0).points(),
            [[30.0, 30.0], [70.0, 30.0], [70.0, 50.0], [30.0, 50.0]]
        );
        let turned = panel(90.0).points();
        for (found, at) in
            turned
                .iter()
                .zip([[60.0, 20.0], [60.0, 60.0], [40.0, 60.0], [40.0, 20.0]])
        {
            assert!(
                (found[0] - at[0]).abs() < 1e-9 && (found[1] - at[1]).abs() < 1e-9,
                "{turned:?}"
            );
        }
    }

    #[test]
    fn its_extent_is_upright_whatever_its_turn() {
        let e = panel(90.0).extent();
        assert!((e.w() - 20.0).abs() < 1e-9 && (e.h() - 40.0).abs() < 1e-9);
        let e = panel(45.0).extent();
        assert!((e.w() - 60.0 / 2.0_f64.sqrt()).abs() < 1e-9 && (e.w() - e.h()).abs() < 1e-9);
    }

    #[test]
    fn depth_is_from_the_nearest_side() {
        assert_eq!(panel(0.0).depth([50.0, 40.0]), 10.0);
        assert_eq!(panel(0.0).depth([33.0, 40.0]), 3.0);
        assert_eq!(panel(0.0).depth([20.0, 40.0]), -10.0);
        assert!((panel(90.0).depth([50.0, 57.0]) - 3.0).abs() < 1e-9);
    }

    #[test]
    fn covers_hide_what_is_well_inside_them() {
        let over = Cover::Panel(panel(0.0));
        assert!(over.hides([50.0, 40.0]) && !over.hides([50.0, 33.0]) && !over.hides([90.0, 40.0]));
        let round = Cover::Ellipse(Extent {
            x0: 0.0,
            y0: 0.0,
            x1: 40.0,
            y1: 20.0,
        });
        assert!(round.hides([20.0, 10.0]) && round.hides([20.0, 1.0]) && !round.hides([3.0, 2.0]));
    }
}
