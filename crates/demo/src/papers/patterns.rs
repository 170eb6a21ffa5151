//! Patterns of paper as seamless tiles of SVG: what runs over one edge comes in at the other. Measures are hundredths of an inch.

use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use std::f64::consts::TAU;
use std::fmt::Write as _;

/// A colour as SVG writes it.
pub(super) type Ink = &'static str;

/// A tile's drawing as it grows.
struct Tile {
    side: f64,
    body: String,
}

impl Tile {
    fn new(side: f64, ground: Ink) -> Tile {
        let body = format!(r#"<rect width="{side}" height="{side}" fill="{ground}"/>"#);
        Tile { side, body }
    }

    fn add(&mut self, drawn: &str) {
        self.body.push_str(drawn);
    }

    /// Draws something at a place, and again wherever it runs over an edge.
    fn wrapped(&mut self, (x, y): (f64, f64), reach: f64, drawn: impl Fn(f64, f64) -> String) {
        for dx in [-self.side, 0.0, self.side] {
            for dy in [-self.side, 0.0, self.side] {
                let (x, y) = (x + dx, y + dy);
                let is_near = |v: f64| v > -reach && v < self.side + reach;
                if is_near(x) && is_near(y) {
                    self.body.push_str(&drawn(x, y));
                }
            }
        }
    }

    fn done(self) -> String {
        let side = self.side;
        format!(
            r#"<svg xmlns="http://www.w3.org/2000/svg" width="{side}" height="{side}" viewBox="0 0 {side} {side}">{}</svg>"#,
            self.body
        )
    }
}

/// Places on a loose net, so that motifs lie at random but never on one another.
fn scattered(side: f64, step: f64, seed: u64) -> Vec<(f64, f64, StdRng)> {
    let count = (side / step).round().max(1.0) as usize;
    let step = side / count as f64;
    let mut random = StdRng::seed_from_u64(seed);
    let mut places = Vec::new();
    for row in 0..count {
        for column in 0..count {
            let off = if row % 2 == 0 { 0.25 } else { 0.75 };
            let x = (column as f64 + off + random.random_range(-0.14..0.14)) * step;
            let y = (row as f64 + 0.5 + random.random_range(-0.16..0.16)) * step;
            places.push((x, y, StdRng::seed_from_u64(random.random())));
        }
    }
    places
}

fn pick(inks: &[Ink], random: &mut StdRng) -> Ink {
    inks[random.random_range(0..inks.len())]
}

/// Dots on a staggered net.
pub(super) fn dots(ground: Ink, ink: Ink, step: f64, radius: f64) -> (f64, String) {
    let side = step * 4.0;
    let mut tile = Tile::new(side, ground);
    for row in 0..8 {
        for column in 0..4 {
            let off = if row % 2 == 0 { 0.25 } else { 0.75 };
            let at = (
                (column as f64 + off) * step,
                (f64::from(row) + 0.5) * step / 2.0,
            );
            tile.wrapped(at, radius, |x, y| {
                format!(r#"<circle cx="{x:.1}" cy="{y:.1}" r="{radius}" fill="{ink}"/>"#)
            });
        }
    }
    (side, tile.done())
}

/// Snow: flakes of different sizes.
pub(super) fn snow(ground: Ink, ink: Ink, seed: u64) -> (f64, String) {
    let side = 300.0;
    let mut tile = Tile::new(side, ground);
    for (x, y, mut random) in scattered(side, 21.0, seed) {
        let r = [1.6, 1.6, 2.2, 3.0][random.random_range(0..4)];
        tile.wrapped((x, y), r, |x, y| {
            format!(r#"<circle cx="{x:.1}" cy="{y:.1}" r="{r}" fill="{ink}"/>"#)
        });
    }
    (side, tile.done())
}

/// Upright stripes: each a colour and its width.
pub(super) fn stripes(bands: &[(Ink, f64)]) -> (f64, String) {
    let run: f64 = bands.iter().map(|b| b.1).sum();
    let times = (150.0 / run).ceil();
    let side = run * times;
    let mut tile = Tile::new(side, bands[0].0);
    let mut x = 0.0;
    for _ in 0..times as usize {
        for (ink, width) in bands {
            tile.add(&format!(
                r#"<rect x="{x:.2}" width="{width}" height="{side}" fill="{ink}"/>"#
            ));
            x += width;
        }
    }
    (side, tile.done())
}

/// Woven checks.
pub(super) fn gingham(ground: Ink, ink: Ink, step: f64) -> (f64, String) {
    let side = step * 4.0;
    let mut tile = Tile::new(side, ground);
    for n in 0..4 {
        let at = f64::from(n) * step;
        if n % 2 == 0 {
            tile.add(&format!(
                r#"<rect x="{at}" width="{step}" height="{side}" fill="{ink}" fill-opacity=".5"/><rect y="{at}" width="{side}" height="{step}" fill="{ink}" fill-opacity=".5"/>"#
            ));
        }
    }
    (side, tile.done())
}

/// Waves as rows of nested arcs.
pub(super) fn waves(ground: Ink, ink: Ink, light: Ink, step: f64) -> (f64, String) {
    let side = step * 4.0;
    let mut tile = Tile::new(side, ground);
    let rows = 8;
    for row in 0..rows + 2 {
        let y = f64::from(row) * step / 2.0;
        let off = if row % 2 == 0 { 0.0 } else { step / 2.0 };
        for column in -1..6 {
            let x = f64::from(column) * step + off;
            for (share, fill) in [
                (0.5, ink),
                (0.41, light),
                (0.32, ink),
                (0.2, light),
                (0.1, ink),
            ] {
                let r = share * step;
                tile.add(&format!(
                    r#"<circle cx="{x:.2}" cy="{y:.2}" r="{r:.2}" fill="{fill}"/>"#
                ));
            }
        }
    }
    (side, tile.done())
}

/// Ruled lines, with a margin where one is drawn.
pub(super) fn ledger(ground: Ink, line: Ink, margin: Option<Ink>) -> (f64, String) {
    let side = 400.0;
    let mut tile = Tile::new(side, ground);
    for n in 0..16 {
        let y = (f64::from(n) + 0.5) * 25.0;
        tile.add(&format!(
            r#"<rect y="{y}" width="{side}" height="1.6" fill="{line}"/>"#
        ));
    }
    if let Some(ink) = margin {
        for x in [96.0, 102.0] {
            tile.add(&format!(
                r#"<rect x="{x}" width="1.8" height="{side}" fill="{ink}"/>"#
            ));
        }
    }
    (side, tile.done())
}

/// Boards with their grain.
pub(super) fn boards(ground: Ink, grain: Ink, seam: Ink, seed: u64) -> (f64, String) {
    let side = 400.0;
    let mut tile = Tile::new(side, ground);
    let mut random = StdRng::seed_from_u64(seed);
    for board in 0..4 {
        let top = f64::from(board) * 100.0;
        for line in 0..9 {
            let y = top + 8.0 + f64::from(line) * 10.0 + random.random_range(-2.0..2.0);
            let (lift, turns, phase) = (
                random.random_range(1.0..3.4),
                f64::from(random.random_range(1..3)),
                random.random_range(0.0..TAU),
            );
            let mut path = String::new();
            for n in 0..=32 {
                let x = f64::from(n) / 32.0 * side;
                let y = y + lift * (x / side * TAU * turns + phase).sin();
                let verb = if n == 0 { 'M' } else { 'L' };
                // Writing to a String can't fail.
                let _ = write!(path, "{verb}{x:.1} {y:.1}");
            }
            let width = random.random_range(0.5..1.6);
            tile.add(&format!(
                r#"<path d="{path}" fill="none" stroke="{grain}" stroke-width="{width:.2}" stroke-opacity=".55"/>"#
            ));
        }
        let knot = (
            random.random_range(40.0..360.0),
            top + random.random_range(30.0..70.0),
        );
        tile.wrapped(knot, 14.0, |x, y| {
            format!(
                r#"<ellipse cx="{x:.1}" cy="{y:.1}" rx="11" ry="4.5" fill="none" stroke="{grain}" stroke-width="1.4"/><ellipse cx="{x:.1}" cy="{y:.1}" rx="5" ry="2" fill="{grain}"/>"#
            )
        });
        tile.add(&format!(
            r#"<rect y="{}" width="{side}" height="2.2" fill="{seam}"/>"#,
            top + 97.8
        ));
    }
    (side, tile.done())
}

/// Clouds of colour, as of a wet brush.
pub(super) fn wash(ground: Ink, tints: &[Ink], seed: u64) -> (f64, String) {
    let side = 400.0;
    let mut tile = Tile::new(side, ground);
    for (n, ink) in tints.iter().enumerate() {
        tile.add(&format!(
            r#"<radialGradient id="w{n}"><stop offset="0" stop-color="{ink}" stop-opacity=".85"/><stop offset=".6" stop-color="{ink}" stop-opacity=".4"/><stop offset="1" stop-color="{ink}" stop-opacity="0"/></radialGradient>"#
        ));
    }
    for (x, y, mut random) in scattered(side, 100.0, seed) {
        let n = random.random_range(0..tints.len());
        let (rx, ry) = (
            random.random_range(50.0..95.0),
            random.random_range(35.0..70.0),
        );
        tile.wrapped((x, y), 100.0, |x, y| {
            format!(
                r#"<ellipse cx="{x:.0}" cy="{y:.0}" rx="{rx:.0}" ry="{ry:.0}" fill="url(#w{n})"/>"#
            )
        });
    }
    (side, tile.done())
}

/// Lines of equal height over a rolling seabed, traced cell by cell.
pub(super) fn contours(ground: Ink, ink: Ink, seed: u64) -> (f64, String) {
    let side = 400.0;
    let mut tile = Tile::new(side, ground);
    let mut random = StdRng::seed_from_u64(seed);
    let waves: Vec<(f64, f64, f64, f64)> = (0..7)
        .map(|_| {
            (
                f64::from(random.random_range(-3..4)),
                f64::from(random.random_range(-3..4)),
                random.random_range(0.0..TAU),
                random.random_range(0.4..1.0),
            )
        })
        .collect();
    let height = |x: f64, y: f64| -> f64 {
        waves
            .iter()
            .map(|(u, v, phase, lift)| lift * ((u * x + v * y) * TAU / side + phase).sin())
            .sum()
    };
    let cells = 80;
    let step = side / f64::from(cells);
    for (n, level) in (-6..=6).enumerate() {
        let level = f64::from(level) * 0.42;
        let mut path = String::new();
        for row in 0..cells {
            for column in 0..cells {
                let corner = |c: i32, r: i32| {
                    let (x, y) = (f64::from(c) * step, f64::from(r) * step);
                    (x, y, height(x, y) - level)
                };
                let corners = [
                    corner(column, row),
                    corner(column + 1, row),
                    corner(column + 1, row + 1),
                    corner(column, row + 1),
                ];
                let mut crossings = Vec::new();
                for (a, b) in (0..4).map(|n| (corners[n], corners[(n + 1) % 4])) {
                    if (a.2 > 0.0) != (b.2 > 0.0) {
                        let t = a.2 / (a.2 - b.2);
                        crossings.push((a.0 + (b.0 - a.0) * t, a.1 + (b.1 - a.1) * t));
                    }
                }
                for pair in crossings.chunks_exact(2) {
                    let ((x, y), (u, v)) = (pair[0], pair[1]);
                    let _ = write!(path, "M{x:.1} {y:.1}L{u:.1} {v:.1}");
                }
            }
        }
        let width = if n % 3 == 0 { 1.5 } else { 0.8 };
        tile.add(&format!(
            r#"<path d="{path}" fill="none" stroke="{ink}" stroke-width="{width}" stroke-linecap="round"/>"#
        ));
    }
    (side, tile.done())
}

/// Small kites on their tails.
pub(super) fn kites(ground: Ink, inks: &[Ink], tail: Ink, step: f64, seed: u64) -> (f64, String) {
    let side = step * 4.0;
    let mut tile = Tile::new(side, ground);
    for (x, y, mut random) in scattered(side, step, seed) {
        let (a, b) = (pick(inks, &mut random), pick(inks, &mut random));
        let turn = random.random_range(-38.0..38.0);
        let s = step / 100.0 * random.random_range(0.85..1.1);
        tile.wrapped((x, y), step * 0.7, |x, y| {
            format!(
                r#"<g transform="translate({x:.1} {y:.1}) rotate({turn:.0}) scale({s:.3})"><path d="M0 26q9 9 0 18t2 17" fill="none" stroke="{tail}" stroke-width="2"/><path d="M0-26L16-4 0 26-16-4Z" fill="{a}"/><path d="M0-26L16-4H-16Z" fill="{b}"/><path d="M0-26V26M-16-4H16" stroke="{tail}" stroke-width="1.4"/><path d="M-5 42l5 2 5-3-5-2zM-4 56l5 2 5-3-5-2z" fill="{b}"/></g>"#
            )
        });
    }
    (side, tile.done())
}

/// Pennants, scraps and dots over one another: as busy as paper gets.
pub(super) fn festival(ground: Ink, inks: &[Ink], seed: u64) -> (f64, String) {
    let side = 300.0;
    let mut tile = Tile::new(side, ground);
    for (x, y, mut random) in scattered(side, 30.0, seed) {
        let (a, b) = (pick(inks, &mut random), pick(inks, &mut random));
        let turn = random.random_range(0.0..360.0);
        let kind = random.random_range(0..6);
        tile.wrapped((x, y), 26.0, |x, y| {
            let drawn = match kind {
                0 => format!(r#"<path d="M-11-8H11L0 14Z" fill="{a}"/><path d="M-6-8H-1L-3 3Z" fill="{b}"/>"#),
                1 => format!(r#"<circle r="8.5" fill="{a}"/><circle r="4" fill="{b}"/>"#),
                2 => format!(r#"<rect x="-12" y="-4" width="24" height="8" fill="{a}"/><path d="M-7-4v8M-1-4v8M5-4v8" stroke="{b}" stroke-width="2"/>"#),
                3 => format!(r#"<path d="M0-12L8 0 0 12-8 0Z" fill="{a}"/><path d="M0-12V12M-8 0H8" stroke="{b}" stroke-width="1.6"/>"#),
                4 => format!(r#"<path d="M-12 4q6-12 12 0t12 0" fill="none" stroke="{a}" stroke-width="3.4" stroke-linecap="round"/>"#),
                _ => format!(r#"<path d="M-8-8L8 8M8-8L-8 8" stroke="{a}" stroke-width="3.6" stroke-linecap="round"/>"#),
            };
            format!(r#"<g transform="translate({x:.1} {y:.1}) rotate({turn:.0})">{drawn}</g>"#)
        });
    }
    (side, tile.done())
}

/// Rows of pennants on a line.
pub(super) fn pennants(ground: Ink, inks: &[Ink], line: Ink) -> (f64, String) {
    let side = 300.0;
    let mut tile = Tile::new(side, ground);
    for row in 0..3 {
        let y = f64::from(row) * 100.0 + 22.0;
        let off = if row % 2 == 0 { 0.0 } else { 25.0 };
        for n in -1..6_i32 {
            let x = f64::from(n) * 50.0 + off;
            let ink = inks[(n.rem_euclid(6) + row * 2) as usize % inks.len()];
            tile.add(&format!(
                r#"<path d="M{} {y}h36l-18 44Z" fill="{ink}"/>"#,
                x + 7.0
            ));
            tile.add(&format!(
                r#"<path d="M{x} {}q25 9 50 0" fill="none" stroke="{line}" stroke-width="2"/>"#,
                y - 3.0
            ));
        }
    }
    (side, tile.done())
}

/// Gulls far off.
pub(super) fn gulls(ground: Ink, ink: Ink, step: f64, seed: u64) -> (f64, String) {
    let side = step * 4.0;
    let mut tile = Tile::new(side, ground);
    for (x, y, mut random) in scattered(side, step, seed) {
        let (turn, s) = (
            random.random_range(-14.0..14.0),
            step / 100.0 * random.random_range(0.7..1.15),
        );
        tile.wrapped((x, y), step * 0.4, |x, y| {
            format!(
                r#"<path transform="translate({x:.1} {y:.1}) rotate({turn:.0}) scale({s:.2})" d="M-26 4q12-16 26 0 14-16 26 0" fill="none" stroke="{ink}" stroke-width="4.4" stroke-linecap="round"/>"#
            )
        });
    }
    (side, tile.done())
}

/// A net of knotted cord.
pub(super) fn net(ground: Ink, ink: Ink, step: f64) -> (f64, String) {
    let side = step * 4.0;
    let mut tile = Tile::new(side, ground);
    for n in -4..8 {
        let at = f64::from(n) * step;
        tile.add(&format!(
            r#"<path d="M{at} 0L{} {side}M{at} {side}L{} 0" stroke="{ink}" stroke-width="1.5"/>"#,
            at + side,
            at + side
        ));
    }
    for row in 0..8 {
        for column in 0..4 {
            let off = if row % 2 == 0 { 0.0 } else { 0.5 };
            let at = (
                (f64::from(column) + off) * step,
                f64::from(row) * step / 2.0,
            );
            tile.wrapped(at, 4.0, |x, y| {
                format!(r#"<circle cx="{x:.1}" cy="{y:.1}" r="2.6" fill="{ink}"/>"#)
            });
        }
    }
    (side, tile.done())
}

/// Reeds in the wind, rooted at the bottom: there is one way up.
pub(super) fn reeds(ground: Ink, inks: &[Ink], seed: u64) -> (f64, String) {
    let side = 300.0;
    let mut tile = Tile::new(side, ground);
    for (x, y, mut random) in scattered(side, 37.0, seed) {
        let ink = pick(inks, &mut random);
        let (lean, high) = (
            random.random_range(4.0..16.0),
            random.random_range(34.0..58.0),
        );
        tile.wrapped((x, y), 70.0, |x, y| {
            format!(
                r#"<g transform="translate({x:.1} {y:.1})" stroke="{ink}" stroke-linecap="round" fill="none"><path d="M0 0Q2-{a:.0} {lean:.0}-{high:.0}" stroke-width="2.2"/><path d="M4 0Q5-{b:.0} {c:.0}-{d:.0}" stroke-width="1.6"/><path d="M{lean:.0}-{high:.0}l3-9" stroke-width="4.6"/></g>"#,
                a = high * 0.6,
                b = high * 0.4,
                c = lean + 8.0,
                d = high * 0.7
            )
        });
    }
    (side, tile.done())
}

/// Rows of low suns over a line of water.
pub(super) fn suns(ground: Ink, sun: Ink, line: Ink) -> (f64, String) {
    let side = 200.0;
    let mut tile = Tile::new(side, ground);
    for row in 0..4 {
        let y = f64::from(row) * 50.0 + 40.0;
        let off = if row % 2 == 0 { 25.0 } else { 50.0 };
        for n in -1..5 {
            let x = f64::from(n) * 50.0 + off;
            tile.add(&format!(
                r#"<path d="M{} {y}a14 14 0 0 1 28 0Z" fill="{sun}"/><path d="M{} {}h32" stroke="{line}" stroke-width="2" stroke-linecap="round"/>"#,
                x - 14.0,
                x - 16.0,
                y + 5.0
            ));
        }
    }
    (side, tile.done())
}

/// One colour, with the grain that heavy paper has.
pub(super) fn plain(ink: Ink, grain: Ink, seed: u64) -> (f64, String) {
    let side = 200.0;
    let mut tile = Tile::new(side, ink);
    for (x, y, mut random) in scattered(side, 9.0, seed) {
        let (w, turn) = (
            random.random_range(2.0..6.0),
            random.random_range(0.0..180.0),
        );
        tile.wrapped((x, y), 6.0, |x, y| {
            format!(
                r#"<rect transform="translate({x:.1} {y:.1}) rotate({turn:.0})" width="{w:.1}" height=".5" fill="{grain}" fill-opacity=".35"/>"#
            )
        });
    }
    (side, tile.done())
}
