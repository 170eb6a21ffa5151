//! Sheets of a cut plan to take away: a PDF at true scale with each sheet's steps, and an SVG for cutting machines.

use crate::outline::num;
use crate::pdf::{PdfError, pdf_of};
use crate::words::escaped;
use std::fmt::Write;

/// Points an inch.
const POINTS: f64 = 72.0;
/// Round what is drawn, in points.
const MARGIN: f64 = 28.0;
/// From one line of the steps to the next, in points.
const LINE: f64 = 14.0;
/// The narrowest paper, in inches.
const NARROWEST: f64 = 8.5;
/// Bare paper round a machine's sheets, in inches.
const BETWEEN: f64 = 0.5;

/// What is cut is drawn in this colour: red, green, blue.
pub(crate) const CUT_COLOUR: [u8; 3] = [0xc2, 0x18, 0x5b];

/// A box in inches: left, top, width, height.
pub type InchBox = [f64; 4];

/// A piece on a sheet.
#[derive(Clone, Debug)]
pub struct PieceOnSheet {
    /// Its number and what it is: `2, the strip`.
    pub label: String,
    /// What shows and what is cut, as a ruler has them.
    pub sizes: String,
    /// Where it lies.
    pub at: InchBox,
    /// Its outline within its place.
    pub outline: CutOutline,
    /// What is cut out of its middle first.
    pub holes: Vec<InchBox>,
}

/// An outline within its place.
#[derive(Clone, Debug, PartialEq)]
pub enum CutOutline {
    /// All of it.
    Straight,
    /// The ellipse in it.
    Round,
    /// Corners, as shares of it from its left top corner.
    Corners(Vec<[f64; 2]>),
}

/// A sheet that is cut.
#[derive(Clone, Debug)]
pub struct SheetToCut {
    /// The paper, and which sheet of it.
    pub name: String,
    /// Its width and height, in inches.
    pub size: (f64, f64),
    /// What can't be used: the printed strip, what is cut out already.
    pub spoiled: Vec<InchBox>,
    /// What is cut from it.
    pub pieces: Vec<PieceOnSheet>,
    /// The steps in order.
    pub steps: Vec<String>,
}

fn rect([x, y, w, h]: InchBox, at: (f64, f64), scale: f64, style: &str) -> String {
    format!(
        "<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" {style}/>",
        num(x.mul_add(scale, at.0)),
        num(y.mul_add(scale, at.1)),
        num(w * scale),
        num(h * scale)
    )
}

fn round([x, y, w, h]: InchBox, at: (f64, f64), scale: f64, style: &str) -> String {
    let (rx, ry) = (w / 2.0 * scale, h / 2.0 * scale);
    format!(
        "<ellipse cx=\"{}\" cy=\"{}\" rx=\"{}\" ry=\"{}\" {style}/>",
        num(x.mul_add(scale, at.0) + rx),
        num(y.mul_add(scale, at.1) + ry),
        num(rx),
        num(ry)
    )
}

impl PieceOnSheet {
    /// What is cut for it, from the inside out.
    fn outlines(&self, at: (f64, f64), scale: f64, style: &str) -> String {
        let holes: String = self
            .holes
            .iter()
            .map(|hole| rect(*hole, at, scale, style))
            .collect();
        let outline = match &self.outline {
            CutOutline::Straight => rect(self.at, at, scale, style),
            CutOutline::Round => round(self.at, at, scale, style),
            CutOutline::Corners(corners) => polygon(self.at, corners, at, scale, style),
        };
        holes + &outline
    }
}

fn polygon(
    [x, y, w, h]: InchBox,
    corners: &[[f64; 2]],
    at: (f64, f64),
    scale: f64,
    style: &str,
) -> String {
    let corner = |[across, down]: &[f64; 2]| {
        let (x, y) = (across.mul_add(w, x), down.mul_add(h, y));
        format!(
            "{},{}",
            num(x.mul_add(scale, at.0)),
            num(y.mul_add(scale, at.1))
        )
    };
    let points: Vec<String> = corners.iter().map(corner).collect();
    format!("<polygon points=\"{}\" {style}/>", points.join(" "))
}

fn text(x: f64, y: f64, size: f64, said: &str) -> String {
    format!(
        "<text x=\"{}\" y=\"{}\" font-size=\"{size}\" fill=\"#17263b\">{}</text>",
        num(x),
        num(y),
        escaped(said)
    )
}

fn page(sheet: &SheetToCut) -> (String, (f64, f64)) {
    let (w, h) = (sheet.size.0 * POINTS, sheet.size.1 * POINTS);
    let top = MARGIN + 2.0 * LINE;
    let at = (MARGIN, top);
    let mut content = text(MARGIN, MARGIN + 10.0, 13.0, &sheet.name);
    content += &rect(
        [0.0, 0.0, sheet.size.0, sheet.size.1],
        at,
        POINTS,
        "fill=\"none\" stroke=\"#17263b\" stroke-width=\"1\"",
    );
    for spoiled in &sheet.spoiled {
        content += &rect(
            *spoiled,
            at,
            POINTS,
            "fill=\"#dfe5e6\" stroke=\"#51617a\" stroke-width=\"0.5\" stroke-dasharray=\"3 3\"",
        );
    }
    for piece in &sheet.pieces {
        content += &piece.outlines(
            at,
            POINTS,
            "class=\"piece\" fill=\"none\" stroke=\"#c2185b\" stroke-width=\"0.75\"",
        );
        let [x, y, ..] = piece.at;
        content += &text(
            x.mul_add(POINTS, MARGIN) + 4.0,
            y.mul_add(POINTS, top) + 11.0,
            9.0,
            &piece.label,
        );
    }
    let sizes = sheet
        .pieces
        .iter()
        .map(|p| format!("{}: {}", p.label, p.sizes));
    let steps = sheet
        .steps
        .iter()
        .enumerate()
        .map(|(n, step)| format!("{}. {step}", n + 1));
    let care = ["Print at full size. Blades are sharp: keep fingers off the rail, and follow the maker's instructions.".to_owned()];
    let lines: Vec<String> = steps.chain(sizes).chain(care).collect();
    for (n, line) in lines.iter().enumerate() {
        content += &text(MARGIN, top + h + LINE * (n as f64 + 1.5), 10.0, line);
    }
    let paper = (
        (w + 2.0 * MARGIN).max(NARROWEST * POINTS),
        top + h + LINE * (lines.len() as f64 + 1.0) + MARGIN,
    );
    let svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}in\" height=\"{1}in\" viewBox=\"0 0 {2} {3}\"><rect width=\"{2}\" height=\"{3}\" fill=\"#ffffff\"/>{content}</svg>",
        num(paper.0 / POINTS),
        num(paper.1 / POINTS),
        num(paper.0),
        num(paper.1)
    );
    (svg, paper)
}

/// Each sheet at true scale with its pieces, and below it its steps and what shows and what is cut of each piece.
///
/// # Errors
/// When the program's own drawing can't be converted: a fault of ours.
pub fn cut_sheets_pdf(sheets: &[SheetToCut]) -> Result<Vec<u8>, PdfError> {
    pdf_of(sheets.iter().map(page))
}

/// All sheets for a cutting machine, in inches: one layer a sheet, side by side, each piece's cuts from the inside out. What is cut has the
/// class `cut`, the sheet's edge the class `sheet` and another colour: no blade follows it.
#[must_use]
pub fn machine_svg(sheets: &[SheetToCut]) -> String {
    let wide: f64 = sheets.iter().map(|s| s.size.0 + BETWEEN).sum();
    let high = sheets.iter().map(|s| s.size.1).fold(0.0, f64::max);
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}in\" height=\"{1}in\" viewBox=\"0 0 {0} {1}\"><style>.cut{{fill:none;stroke:#c2185b;stroke-width:0.01}}.sheet{{fill:none;stroke:#c3ccd2;stroke-width:0.01}}</style>",
        num((wide - BETWEEN).max(1.0)),
        num(high.max(1.0))
    );
    let mut left = 0.0;
    for (n, sheet) in sheets.iter().enumerate() {
        let _ = write!(
            svg,
            "<g id=\"sheet-{}\" data-paper=\"{}\"><title>{}</title>",
            n + 1,
            escaped(&sheet.name),
            escaped(&sheet.name)
        );
        svg += &rect(
            [0.0, 0.0, sheet.size.0, sheet.size.1],
            (left, 0.0),
            1.0,
            "class=\"sheet\"",
        );
        for piece in &sheet.pieces {
            svg += &piece.outlines((left, 0.0), 1.0, "class=\"cut\"");
        }
        svg += "</g>";
        left += sheet.size.0 + BETWEEN;
    }
    svg + "</svg>"
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sheet() -> SheetToCut {
        SheetToCut {
            name: "Tide & waves, sheet 1".to_owned(),
            size: (12.0, 12.0),
            spoiled: vec![[0.0, 11.5, 12.0, 0.5]],
            pieces: vec![PieceOnSheet {
                label: "2, the strip".to_owned(),
                sizes: "shows 12 in × 1 3/4 in, cut 12 in × 2 1/8 in".to_owned(),
                at: [0.0, 0.0, 12.0, 2.125],
                outline: CutOutline::Straight,
                holes: vec![[1.0, 0.5, 4.0, 1.0]],
            }],
            steps: vec!["Set 2 1/8 in, cut once.".to_owned()],
        }
    }

    #[test]
    fn a_machine_gets_inches_a_layer_a_sheet_and_holes_before_outlines() {
        let svg = machine_svg(&[sheet(), sheet()]);
        assert!(
            svg.contains("width=\"24.5in\" height=\"12in\" viewBox=\"0 0 24.5 12\""),
            "{svg}"
        );
        assert_eq!(svg.matches("<g id=").count(), 2);
        assert!(svg.contains("Tide &amp; waves"));
        let hole = svg.find("width=\"4\"").expect("the hole is cut");
        let outline = svg.find("height=\"2.125\"").expect("the piece is cut");
        assert!(hole < outline);
    }

    #[test]
    fn on_paper_a_sheet_has_its_true_size_its_steps_and_both_sizes() {
        let (svg, _) = page(&sheet());
        assert!(svg.contains("width=\"864\" height=\"153\""), "{svg}");
        for said in [
            "1. Set 2 1/8 in, cut once.",
            "2, the strip: shows 12 in",
            "Blades are sharp",
        ] {
            assert!(svg.contains(said), "{said}");
        }
        assert!(
            cut_sheets_pdf(&[sheet()])
                .expect("it is drawn")
                .starts_with(b"%PDF")
        );
    }
}
