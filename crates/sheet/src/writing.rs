//! Writing at true scale: lines to slip under the card that she writes on, and the text in strips to cut apart.

use crate::outline::num;
use crate::pdf::{PdfError, pdf_of};
use crate::words::escaped;
use metrosk_core::geometry::Size;
use metrosk_core::handwriting::TYPE_SIZE;
use metrosk_core::length::{Length, Unit};
use metrosk_core::typefaces::Typeface;
use metrosk_core::words::Slot;
use std::fmt::Write;

/// Points an inch.
const POINTS: f64 = 72.0;
/// What stays free round it: printers don't reach the edge.
const MARGIN: f64 = POINTS / 2.0;
/// The share of a line's pitch that letters of its type take.
const TYPE: f64 = 0.62;

/// Writing to be put on paper.
#[derive(Clone, Copy, Debug)]
pub struct WritingLines<'a> {
    /// Its space on the page.
    pub space: Size,
    /// From one line to the next.
    pub pitch: Length,
    /// Where lines stand in the space, and which way they run.
    pub slots: &'a [Slot],
    /// The lines, what is kept for the date among them, each with how wide it comes out.
    pub lines: &'a [(String, Length)],
    /// The printed type that it is in; none where it is written by hand.
    pub typeface: Option<Typeface>,
    /// Millimetres or inches: what the paper's note is written in.
    pub unit: Unit,
}

fn points(l: Length) -> f64 {
    l.to_units(Unit::Inch) * POINTS
}

impl WritingLines<'_> {
    /// The paper's width and height in points: letter, or larger where the writing is.
    fn paper(&self, high: f64) -> (f64, f64) {
        let wide = points(self.space.w) + 2.0 * MARGIN;
        (
            wide.max(8.5 * POINTS),
            (high + 3.0 * MARGIN).max(11.0 * POINTS),
        )
    }

    fn page(&self, note: &str, high: f64, content: &str) -> (String, (f64, f64)) {
        let (w, h) = self.paper(high);
        let svg = format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}in\" height=\"{1}in\" viewBox=\"0 0 {2} {3}\"><rect width=\"{2}\" height=\"{3}\" fill=\"#ffffff\"/><text x=\"{4}\" y=\"{5}\" font-size=\"10\" fill=\"#51617a\">{6}</text>{content}</svg>",
            num(w / POINTS),
            num(h / POINTS),
            num(w),
            num(h),
            num(MARGIN),
            num(MARGIN + 8.0),
            escaped(note)
        );
        (svg, (w, h))
    }

    /// Guide lines to slip under: the card's outline, and each line to write on.
    #[must_use]
    pub fn guide(&self) -> (String, (f64, f64)) {
        let (w, h) = (points(self.space.w), points(self.space.h));
        let top = 2.0 * MARGIN;
        let mut content = format!(
            "<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" fill=\"none\" stroke=\"#17263b\" stroke-width=\"0.75\"/>",
            num(MARGIN),
            num(top),
            num(w),
            num(h)
        );
        for slot in self.slots {
            content.push_str(&self.guide_line(slot, top));
        }
        let note = format!(
            "Guide lines, {} apart: lay the card on top and write on them. Print at full size.",
            self.pitch.to_text(self.unit)
        );
        self.page(&note, h, &content)
    }

    /// The line to write on at the foot of a slot. Round a page it runs down, back and up.
    fn guide_line(&self, slot: &Slot, top: f64) -> String {
        let pitch = points(self.pitch);
        let (x, y) = (MARGIN + points(slot.x), top + points(slot.y));
        let long = num(points(slot.w));
        let (x, y, run) = match slot.turns {
            0 => (x, y + pitch, format!("h{long}")),
            1 => (x - pitch, y, format!("v{long}")),
            2 => (x, y - pitch, format!("h-{long}")),
            _ => (x + pitch, y, format!("v-{long}")),
        };
        let (x, y) = (num(x), num(y));
        format!(
            "<path class=\"guide\" d=\"M{x} {y}{run}\" stroke=\"#17263b\" stroke-width=\"1.2\"/>"
        )
    }

    /// The text in strips, each as high as the pitch, with lines to cut along.
    #[must_use]
    pub fn strips(&self) -> (String, (f64, f64)) {
        let (w, pitch) = (points(self.space.w), points(self.pitch));
        let top = 2.0 * MARGIN;
        let mut content = String::new();
        for (n, (text, wide)) in self.lines.iter().enumerate() {
            let y = top + n as f64 * pitch;
            // Type is as wide as it is; a hand is told by how wide it comes out.
            let type_of = match self.typeface {
                Some(face) => {
                    let (family, weight) = face.family();
                    let size = num(TYPE_SIZE * pitch);
                    format!(
                        "font-family=\"{family}\" font-weight=\"{weight}\" font-size=\"{size}\""
                    )
                }
                None => format!(
                    "font-size=\"{}\" textLength=\"{}\" lengthAdjust=\"spacingAndGlyphs\"",
                    num(TYPE * pitch),
                    num((points(*wide).min(w) - 6.0).max(1.0))
                ),
            };
            let _ = write!(
                content,
                "<rect class=\"strip\" x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" fill=\"none\" stroke=\"#51617a\" stroke-width=\"0.5\" stroke-dasharray=\"4 3\"/><text x=\"{}\" y=\"{}\" {type_of} fill=\"#17263b\">{}</text>",
                num(MARGIN),
                num(y),
                num(w),
                num(pitch),
                num(MARGIN + if self.typeface.is_some() { 0.0 } else { 3.0 }),
                num(y + 0.72 * pitch),
                escaped(text)
            );
        }
        let note = "Strips: cut along the dashed lines. Print at full size. Mind your fingers at the blade.";
        self.page(note, self.lines.len() as f64 * pitch, &content)
    }
}

/// Both as a PDF at true scale: guide lines, then strips.
///
/// # Errors
/// When the program's own drawing can't be converted: a fault of ours, whatever is written.
pub fn writing_pdf(writing: &WritingLines<'_>) -> Result<Vec<u8>, PdfError> {
    let strips = (!writing.lines.is_empty()).then(|| writing.strips());
    pdf_of([Some(writing.guide()), strips].into_iter().flatten())
}
