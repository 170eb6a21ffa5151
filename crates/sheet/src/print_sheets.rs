//! Sheets of photos at true scale, with cutting marks, as PDF.

use crate::outline::{Frame, num};
use crate::pdf::{PdfError, pdf_of};
use crate::pictures::{Picture, Pictures, image};
use metrosk_core::geometry::{Rect, Size};
use metrosk_core::length::{Length, Unit};
use std::fmt::Write;

/// Points an inch.
const POINTS: f64 = 72.0;
/// How long a cutting mark is, and how far it stands off its corner: 1/8 in and 1/32 in.
const MARK: (f64, f64) = (POINTS / 8.0, POINTS / 32.0);

/// A photo on a sheet.
#[derive(Clone, Debug)]
pub struct PrintedPhoto {
    /// The print, which has a picture.
    pub print: String,
    /// Where it lies on the sheet, with the bleed round it.
    pub rect: Rect,
    /// It lies on its side.
    pub turned: bool,
    /// What shows of the picture there, from its left and top, with its width and height: shares of the print.
    pub shows: [f64; 4],
}

/// A sheet of photo paper.
#[derive(Clone, Debug)]
pub struct PrintSheet {
    /// Its size.
    pub size: Size,
    /// What lies on it.
    pub photos: Vec<PrintedPhoto>,
    /// How far photos are printed beyond where they are cut.
    pub bleed: Length,
}

fn points(l: Length) -> f64 {
    l.to_units(Unit::Inch) * POINTS
}

fn frame(r: Rect) -> Frame {
    Frame {
        x: points(r.x),
        y: points(r.y),
        w: points(r.w),
        h: points(r.h),
    }
}

/// A sheet as SVG, its width and height real inches.
#[must_use]
pub fn print_sheet_svg(sheet: &PrintSheet, pictures: &Pictures) -> String {
    let (w, h) = (points(sheet.size.w), points(sheet.size.h));
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{}in\" height=\"{}in\" viewBox=\"0 0 {} {}\"><rect width=\"{}\" height=\"{}\" fill=\"#ffffff\"/>",
        num(w / POINTS),
        num(h / POINTS),
        num(w),
        num(h),
        num(w),
        num(h)
    );
    for photo in &sheet.photos {
        let at = frame(photo.rect);
        if let Some(picture) = pictures.get(&photo.print) {
            svg.push_str(&printed(photo, at, picture));
        }
    }
    // Marks lie over all photos, so that none covers another's.
    for photo in &sheet.photos {
        marks(&mut svg, frame(photo.rect), points(sheet.bleed));
    }
    svg + "</svg>"
}

fn printed(photo: &PrintedPhoto, at: Frame, picture: &Picture) -> String {
    let [x, y, w, h] = photo.shows;
    // Upright first, about the place's middle; then turned with it.
    let (fw, fh) = if photo.turned {
        (at.h, at.w)
    } else {
        (at.w, at.h)
    };
    let upright = Frame {
        x: at.cx() - fw / 2.0,
        y: at.cy() - fh / 2.0,
        w: fw,
        h: fh,
    };
    let print = Frame {
        x: upright.x - x / w * fw,
        y: upright.y - y / h * fh,
        w: fw / w,
        h: fh / h,
    };
    let turn = if photo.turned {
        format!(
            " transform=\"rotate(90 {} {})\"",
            num(at.cx()),
            num(at.cy())
        )
    } else {
        String::new()
    };
    format!(
        "<g{turn}><svg x=\"{0}\" y=\"{1}\" width=\"{2}\" height=\"{3}\" viewBox=\"{0} {1} {2} {3}\" preserveAspectRatio=\"none\">{4}</svg></g>",
        num(upright.x),
        num(upright.y),
        num(upright.w),
        num(upright.h),
        image(picture, print)
    )
}

/// Short lines at each corner of what is cut, outside of it.
fn marks(svg: &mut String, at: Frame, bleed: f64) {
    let (l, t) = (at.x + bleed, at.y + bleed);
    let (r, b) = (at.x + at.w - bleed, at.y + at.h - bleed);
    let (long, off) = MARK;
    let mut d = String::new();
    for (x, out) in [(l, -1.0), (r, 1.0)] {
        for (y, down) in [(t, -1.0), (b, 1.0)] {
            let _ = write!(
                d,
                "M{} {}h{}M{} {}v{}",
                num(x + out * off),
                num(y),
                num(out * long),
                num(x),
                num(y + down * off),
                num(down * long)
            );
        }
    }
    let _ = write!(
        svg,
        "<path d=\"{d}\" fill=\"none\" stroke=\"#ffffff\" stroke-width=\"1.2\"/><path d=\"{d}\" fill=\"none\" stroke=\"#17263b\" stroke-width=\".4\"/>"
    );
}

/// Sheets as a PDF at true scale, a page each.
///
/// # Errors
/// When the program's own drawing can't be converted: a fault of ours, whatever is printed.
pub fn print_sheets_pdf(sheets: &[PrintSheet], pictures: &Pictures) -> Result<Vec<u8>, PdfError> {
    let pages = sheets.iter().map(|s| {
        let size = (points(s.size.w), points(s.size.h));
        (print_sheet_svg(s, pictures), size)
    });
    pdf_of(pages)
}
