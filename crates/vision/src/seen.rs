//! What a network sees on an upright sheet, page by page, in the sheet's own pixels; and what it sees that was not traced.

use crate::marks::{CLUSTER, Marks, TITLE, WRITING};
use crate::plane::Mask;
use crate::sheet::{RIM, Sheet};
use crate::writing::Extent;
use image::{Rgb, RgbImage};

/// A page as it is seen, with its rim: where it begins, how wide and high it is, and its marks.
struct Page {
    left: f64,
    w: f64,
    h: f64,
    marks: Marks,
}

pub(crate) struct Seen {
    pages: Vec<Page>,
}

/// A place of one of the pages.
#[derive(Clone, Copy)]
pub(crate) struct Place<'a> {
    pub(crate) marks: &'a Marks,
    pub(crate) n: usize,
}

impl Place<'_> {
    pub(crate) fn likely(&self, class: usize) -> f64 {
        self.marks.likely(class, self.n)
    }

    /// How likely an edge runs here or one place beside.
    pub(crate) fn edge_near(&self) -> f64 {
        let side = self.marks.side;
        let (x, y) = (self.n % side, self.n / side);
        let mut most = 0.0_f64;
        for y in y.saturating_sub(1)..=(y + 1).min(side - 1) {
            for x in x.saturating_sub(1)..=(x + 1).min(side - 1) {
                most = most.max(self.marks.edge(y * side + x));
            }
        }
        most
    }
}

impl Seen {
    pub(crate) fn of(sheet: &Sheet) -> Seen {
        let rim = RIM as f64;
        let (w, h) = (sheet.page_w + 2.0 * rim, sheet.page_h + 2.0 * rim);
        let page = |side: u32| {
            let left = sheet.page_w * f64::from(side);
            let picture = RgbImage::from_fn(w as u32, h as u32, |x, y| {
                let at = (left as usize + x as usize, y as usize);
                let plane = &sheet.colours[0];
                let (x, y) = (at.0.min(plane.w - 1), at.1.min(plane.h - 1));
                Rgb([0, 1, 2].map(|c: usize| sheet.colours[c].at(x, y).clamp(0.0, 255.0) as u8))
            });
            Page {
                left,
                w,
                h,
                marks: Marks::of(&picture),
            }
        };
        Seen {
            pages: (0..sheet.pages).map(page).collect(),
        }
    }

    /// What is seen at a place of the sheet's planes; on a fold the page whose middle is nearer.
    pub(crate) fn at(&self, p: [f64; 2]) -> Option<Place<'_>> {
        let off = |page: &Page| (p[0] - page.left - page.w / 2.0).abs();
        let nearest = self.pages.iter().min_by(|a, b| off(a).total_cmp(&off(b)));
        let page = nearest?;
        let n = page
            .marks
            .place((p[0] - page.left) / page.w, p[1] / page.h)?;
        Some(Place {
            marks: &page.marks,
            n,
        })
    }

    /// Titles, writing and clusters that are seen in one piece, with how likely they are in the mean: by class.
    pub(crate) fn pieces(&self) -> Vec<(usize, Extent, f64)> {
        let mut found = Vec::new();
        for page in &self.pages {
            let classes = page.marks.classes();
            for class in [TITLE, WRITING, CLUSTER] {
                found.extend(pieces_of(page, &classes, class));
            }
        }
        found
    }
}

/// Pieces of fewer places than this are crumbs.
const CRUMB: usize = 14;

fn pieces_of(page: &Page, classes: &[u8], class: usize) -> Vec<(usize, Extent, f64)> {
    let side = page.marks.side;
    let mask = Mask {
        w: side,
        h: side,
        data: classes.iter().map(|c| usize::from(*c) == class).collect(),
    };
    let parts = mask.connected_components(true);
    let pieces = parts.each().filter(|(_, part)| part.area >= CRUMB);
    pieces
        .map(|(label, part)| {
            let pixels = parts.pixels(label);
            let sum: f64 = pixels
                .map(|(x, y)| page.marks.likely(class, y * side + x))
                .sum();
            let cells = [part.x0, part.y0, part.x1, part.y1];
            let extent = sharpened(page, class, cells);
            (class, extent, sum / part.area as f64)
        })
        .collect()
}

/// A piece's extent between the places of the grid: each side lies where the class becomes half as likely as within the piece, along
/// the middle of that side.
fn sharpened(page: &Page, class: usize, [x0, y0, x1, y1]: [usize; 4]) -> Extent {
    let side = page.marks.side;
    let likely = |x: usize, y: usize| page.marks.likely(class, y * side + x);
    // The middle half of a side; a piece's corners are often bare.
    let middle = |from: usize, to: usize| {
        let quarter = (to - from) / 4;
        from + quarter..=to - quarter
    };
    let column = |x: usize| middle(y0, y1).map(|y| likely(x, y)).sum::<f64>();
    let row = |y: usize| middle(x0, x1).map(|x| likely(x, y)).sum::<f64>();
    let (l, r) = half_way(&column, (x0, x1), side);
    let (t, b) = half_way(&row, (y0, y1), side);
    let (across, down) = (page.w / side as f64, page.h / side as f64);
    Extent {
        x0: page.left + l * across,
        y0: t * down,
        x1: page.left + r * across,
        y1: b * down,
    }
}

/// Where a profile rises to half of its mean within a span, and falls below it again, between the grid's places.
fn half_way(of: &dyn Fn(usize) -> f64, (from, to): (usize, usize), side: usize) -> (f64, f64) {
    let half = (from..=to).map(of).sum::<f64>() / (to - from + 1) as f64 / 2.0;
    let value = |n: isize| {
        let inside = n >= 0 && (n as usize) < side;
        if inside { of(n as usize) } else { 0.0 }
    };
    // From one place beyond the span inwards, the middles of places being halfway between whole numbers.
    let crossing = |start: usize, step: isize| {
        let mut n = start as isize - step;
        for _ in 0..(to - from) / 2 + 1 {
            let (outer, inner) = (value(n), value(n + step));
            if inner > half {
                let share = ((half - outer) / (inner - outer).max(1e-9)).clamp(0.0, 1.0);
                return n as f64 + 0.5 + step as f64 * share;
            }
            n += step;
        }
        start as f64 + 0.5
    };
    (crossing(from, 1), crossing(to, -1))
}
