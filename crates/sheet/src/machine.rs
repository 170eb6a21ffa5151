//! A sheet's SVG as a cutting machine reads it: which outlines its blade follows, in inches.

use crate::cut_sheets::CUT_COLOUR;
use usvg::tiny_skia_path::{PathSegment, Point};
use usvg::{Group, Node, Options, Paint, Path, Tree};

/// A user unit of an SVG is so much of an inch.
const UNITS_AN_INCH: f64 = 96.0;
/// Into so many straight cuts a curve is divided.
const PIECES_OF_A_CURVE: usize = 24;

/// A line that the blade follows.
#[derive(Clone, Debug, PartialEq)]
pub struct BladeLine {
    /// Corners, right and down from the sheet's left top corner, in inches.
    pub corners: Vec<[f64; 2]>,
    /// Whether its end meets its beginning.
    pub is_closed: bool,
}

impl BladeLine {
    /// Its width and height, in inches.
    #[must_use]
    pub fn size(&self) -> (f64, f64) {
        let extent = |n: usize| {
            let (low, high) = self
                .corners
                .iter()
                .map(|c| c[n])
                .fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
            (high - low).max(0.0)
        };
        (extent(0), extent(1))
    }
}

/// What a machine finds in an SVG.
#[derive(Clone, Debug, PartialEq)]
pub struct BladeSheet {
    /// Width and height, in inches.
    pub size: (f64, f64),
    /// What is cut, in order.
    pub lines: Vec<BladeLine>,
}

/// Reads an SVG as a cutting machine does: what is drawn in the colour of cuts is cut, in its order; all else is passed over.
///
/// # Errors
/// What is wrong with it, in words, when it is no SVG.
pub fn read_blade_sheet(svg: &str) -> Result<BladeSheet, String> {
    let tree = Tree::from_str(svg, &Options::default()).map_err(|e| e.to_string())?;
    let mut lines = Vec::new();
    collect(tree.root(), &mut lines);
    let inches = |v: f32| f64::from(v) / UNITS_AN_INCH;
    Ok(BladeSheet {
        size: (inches(tree.size().width()), inches(tree.size().height())),
        lines,
    })
}

fn collect(group: &Group, lines: &mut Vec<BladeLine>) {
    for node in group.children() {
        match node {
            Node::Group(group) => collect(group, lines),
            Node::Path(path) if is_cut(path) => lines.extend(lines_of(path)),
            _ => {}
        }
    }
}

fn is_cut(path: &Path) -> bool {
    let paint = path.stroke().map(usvg::Stroke::paint);
    matches!(paint, Some(Paint::Color(c)) if [c.red, c.green, c.blue] == CUT_COLOUR)
}

fn lines_of(path: &Path) -> Vec<BladeLine> {
    let Some(data) = path.data().clone().transform(path.abs_transform()) else {
        return Vec::new();
    };
    let inch = |p: Point| [f64::from(p.x), f64::from(p.y)].map(|v| v / UNITS_AN_INCH);
    let mut lines: Vec<BladeLine> = Vec::new();
    let mut here = Point::zero();
    for segment in data.segments() {
        if let PathSegment::MoveTo(to) = segment {
            lines.push(BladeLine {
                corners: vec![inch(to)],
                is_closed: false,
            });
            here = to;
            continue;
        }
        let Some(line) = lines.last_mut() else {
            continue;
        };
        match segment {
            PathSegment::LineTo(to) => {
                line.corners.push(inch(to));
                here = to;
            }
            PathSegment::QuadTo(c, to) => {
                let at = |t: f32| between(between(here, c, t), between(c, to, t), t);
                line.corners.extend(along().map(|t| inch(at(t))));
                here = to;
            }
            PathSegment::CubicTo(c, d, to) => {
                let at = |t: f32| {
                    let (a, b, e) = (between(here, c, t), between(c, d, t), between(d, to, t));
                    between(between(a, b, t), between(b, e, t), t)
                };
                line.corners.extend(along().map(|t| inch(at(t))));
                here = to;
            }
            PathSegment::Close => line.is_closed = true,
            PathSegment::MoveTo(_) => {}
        }
    }
    lines.retain(|l| l.corners.len() > 1);
    lines
}

fn along() -> impl Iterator<Item = f32> {
    (1..=PIECES_OF_A_CURVE).map(|n| n as f32 / PIECES_OF_A_CURVE as f32)
}

fn between(a: Point, b: Point, share: f32) -> Point {
    let at = |a: f32, b: f32| (b - a).mul_add(share, a);
    Point::from_xy(at(a.x, b.x), at(a.y, b.y))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::cut_sheets::{CutOutline, PieceOnSheet, SheetToCut, machine_svg};

    fn piece(at: [f64; 4], outline: CutOutline, holes: Vec<[f64; 4]>) -> PieceOnSheet {
        PieceOnSheet {
            label: "4, the mat".to_owned(),
            sizes: String::new(),
            at,
            outline,
            holes,
        }
    }

    #[test]
    fn a_machine_reads_what_is_cut_and_nothing_else() {
        let corners = CutOutline::Corners(vec![[0.0, 0.0], [1.0, 0.0], [0.0, 1.0]]);
        let sheet = SheetToCut {
            name: "Dots, sheet 1".to_owned(),
            size: (12.0, 6.0),
            spoiled: vec![[0.0, 5.5, 12.0, 0.5]],
            pieces: vec![
                piece(
                    [0.0, 0.0, 4.0, 4.0],
                    CutOutline::Straight,
                    vec![[1.0, 1.0, 2.0, 1.0]],
                ),
                piece([5.0, 0.0, 2.0, 2.0], CutOutline::Round, Vec::new()),
                piece([8.0, 0.0, 2.0, 3.0], corners, Vec::new()),
            ],
            steps: Vec::new(),
        };
        let found = read_blade_sheet(&machine_svg(&[sheet])).expect("it is an SVG");
        assert!((found.size.0 - 12.0).abs() < 1e-4 && (found.size.1 - 6.0).abs() < 1e-4);
        let sizes: Vec<(f64, f64)> = found.lines.iter().map(BladeLine::size).collect();
        let wanted = [(2.0, 1.0), (4.0, 4.0), (2.0, 2.0), (2.0, 3.0)];
        assert_eq!(sizes.len(), wanted.len(), "{sizes:?}");
        for (found, wanted) in sizes.iter().zip(wanted) {
            let near = (found.0 - wanted.0).abs() < 1e-3 && (found.1 - wanted.1).abs() < 1e-3;
            assert!(near, "{found:?} for {wanted:?}");
        }
        assert!(found.lines.iter().all(|l| l.is_closed));
    }

    #[test]
    fn an_open_line_is_seen_as_open_and_rubbish_is_told() {
        let open = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"1in\" height=\"1in\" viewBox=\"0 0 1 1\"><path d=\"M0 0L1 0L1 1\" fill=\"none\" stroke=\"#c2185b\" stroke-width=\"0.01\"/></svg>";
        let found = read_blade_sheet(open).expect("it is an SVG");
        assert_eq!((found.lines.len(), found.lines[0].is_closed), (1, false));
        assert!(read_blade_sheet("no svg").is_err());
    }
}
