//! Blocks in their textures: kinds are told apart by texture and outline, on paper as on the screen.

use crate::outline::{Frame, grid_units, num, outline, rect_path, shape_path};
use metrosk_core::sketch::{Block, Kind, Shape, UnitShape};
use std::fmt::Write;

const INK: &str = "#17263b";
const SECOND: &str = "#51617a";

/// The patterns that textures are filled with, for the `defs` of a drawing in points.
pub(crate) const PATTERNS: &str = concat!(
    "<linearGradient id=\"photo\" x1=\"0\" y1=\"0\" x2=\"0\" y2=\"1\"><stop offset=\"0\" stop-color=\"#dde6ec\"/><stop offset=\"1\" stop-color=\"#c3d0da\"/></linearGradient>",
    "<pattern id=\"hatch\" width=\"4.5\" height=\"4.5\" patternUnits=\"userSpaceOnUse\" patternTransform=\"rotate(45)\"><path d=\"M0 0V4.5\" stroke=\"#9fb3c0\" stroke-width=\"1.2\"/></pattern>",
    "<pattern id=\"stipple\" width=\"5.2\" height=\"5.2\" patternUnits=\"userSpaceOnUse\"><circle cx=\"1.1\" cy=\"1.1\" r=\".6\" fill=\"#8093a3\"/><circle cx=\"3.7\" cy=\"3.7\" r=\".6\" fill=\"#8093a3\"/></pattern>",
);

/// A block's outline alone, turned as it lies.
pub(crate) fn outlined(block: &Block, f: Frame, ticks: f64) -> String {
    let turn = block.turn;
    let path = outline(block, f, ticks);
    let (cx, cy) = (num(f.cx()), num(f.cy()));
    format!(
        "<path d=\"{path}\" transform=\"rotate({} {cx} {cy})\" fill=\"none\" stroke=\"{INK}\" stroke-width=\".7\"/>",
        num(turn)
    )
}

/// A block in its texture, in a frame of points; a point is so many ticks of the block.
pub(crate) fn textured(block: &Block, f: Frame, ticks: f64) -> String {
    let mut svg = if block.turn == 0.0 {
        "<g>".to_owned()
    } else {
        format!(
            "<g transform=\"rotate({} {} {})\">",
            num(block.turn),
            num(f.cx()),
            num(f.cy())
        )
    };
    let path = outline(block, f, ticks);
    match block.kind {
        Kind::Photo => {
            filled(&mut svg, &path, "url(#photo)", INK);
            if block.shape == Shape::Rect {
                line(&mut svg, &corner_ticks(f), INK, "");
            }
        }
        Kind::Paper => {
            filled(&mut svg, &path, "#ffffff", "none");
            filled(&mut svg, &path, "url(#hatch)", INK);
        }
        Kind::Strip => {
            filled(&mut svg, &path, "#eef3f5", INK);
            line(&mut svg, &dashes(f), "#9fb3c0", "8 3");
        }
        Kind::Wash => {
            let _ = write!(
                svg,
                "<path d=\"{path}\" fill=\"url(#stipple)\" stroke=\"{SECOND}\" stroke-width=\".7\" stroke-dasharray=\"3 2.2\"/>"
            );
        }
        Kind::Title => {
            filled(&mut svg, &path, "#ffffff", INK);
            line(&mut svg, &guides(f, &[0.38, 0.74]), SECOND, "1.2 1.6");
        }
        Kind::Journal => {
            filled(&mut svg, &path, "#ffffff", INK);
            let count = ((f.h / 7.0).floor() as usize).clamp(1, 12);
            let at: Vec<f64> = (1..=count).map(|n| n as f64 / (count + 1) as f64).collect();
            line(&mut svg, &guides(f, &at), SECOND, "");
        }
        Kind::Grid => grid(&mut svg, block, f, ticks),
        Kind::Accent => filled(&mut svg, &tag(f), "#ffffff", INK),
        Kind::Mat | Kind::Ring | Kind::Cluster => filled(&mut svg, &path, "#ffffff", INK),
    }
    svg + "</g>"
}

fn filled(svg: &mut String, path: &str, fill: &str, stroke: &str) {
    // Writing to a String can't fail.
    let _ = write!(
        svg,
        "<path d=\"{path}\" fill=\"{fill}\" stroke=\"{stroke}\" stroke-width=\".8\"/>"
    );
}

fn line(svg: &mut String, path: &str, stroke: &str, dash: &str) {
    let _ = write!(
        svg,
        "<path d=\"{path}\" fill=\"none\" stroke=\"{stroke}\" stroke-width=\".7\" stroke-dasharray=\"{}\"/>",
        if dash.is_empty() { "none" } else { dash }
    );
}

/// A grid's units, every other one hatched.
fn grid(svg: &mut String, block: &Block, f: Frame, ticks: f64) {
    let Some(grid) = block.grid else { return };
    let round = grid.unit_shape == UnitShape::Circle;
    for (n, unit) in grid_units(grid, f, ticks).into_iter().enumerate() {
        let row = ((unit.y - f.y) / unit.h.max(1e-9)).round() as usize;
        let path = if round {
            shape_path(&Shape::Ellipse, unit)
        } else {
            rect_path(unit)
        };
        filled(
            svg,
            &path,
            if (n + row).is_multiple_of(2) {
                "#ffffff"
            } else {
                "url(#hatch)"
            },
            INK,
        );
    }
}

fn corner_ticks(f: Frame) -> String {
    let inset = 2.6_f64.min(f.w / 8.0).min(f.h / 8.0);
    let arm = 4.5_f64.min(f.w / 6.0).min(f.h / 6.0);
    let (l, r, t, b) = (
        f.x + inset,
        f.x + f.w - inset,
        f.y + inset,
        f.y + f.h - inset,
    );
    let corner = |x: f64, y: f64, dx: f64, dy: f64| {
        format!(
            "M{} {}V{}H{}",
            num(x),
            num(y + dy * arm),
            num(y),
            num(x + dx * arm)
        )
    };
    [
        corner(l, t, 1.0, 1.0),
        corner(r, t, -1.0, 1.0),
        corner(r, b, -1.0, -1.0),
        corner(l, b, 1.0, -1.0),
    ]
    .concat()
}

/// Long dashes along a strip's run.
fn dashes(f: Frame) -> String {
    let level = f.w >= f.h;
    let across = if level { f.h } else { f.w };
    let count = ((across / 4.5).floor() as usize).clamp(1, 6);
    let one = |n: usize| {
        let at = (n as f64 + 0.5) / count as f64 * across;
        if level {
            format!("M{} {}h{}", num(f.x), num(f.y + at), num(f.w))
        } else {
            format!("M{} {}v{}", num(f.x + at), num(f.y), num(f.h))
        }
    };
    (0..count).map(one).collect()
}

fn guides(f: Frame, at: &[f64]) -> String {
    let inset = 4.0_f64.min(f.w / 10.0);
    at.iter()
        .map(|share| {
            format!(
                "M{} {}h{}",
                num(f.x + inset),
                num(f.y + share * f.h),
                num(f.w - 2.0 * inset)
            )
        })
        .collect()
}

/// A label with a notch in its right end and a hole in its left.
fn tag(f: Frame) -> String {
    let side = f.w.min(f.h);
    let (notch, hole, hx) = (side * 0.3, side * 0.12, f.x + side * 0.35);
    format!(
        "M{x} {y}H{r}L{n} {m}L{r} {b}H{x}ZM{hl} {m}a{hole} {hole} 0 1 0 {hw} 0a{hole} {hole} 0 1 0 -{hw} 0Z",
        x = num(f.x),
        y = num(f.y),
        r = num(f.x + f.w),
        b = num(f.y + f.h),
        n = num(f.x + f.w - notch),
        m = num(f.cy()),
        hl = num(hx - hole),
        hole = num(hole),
        hw = num(2.0 * hole),
    )
}
