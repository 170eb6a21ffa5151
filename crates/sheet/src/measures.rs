//! The measurement sheet: the page drawn to scale with its numbers, and a table of every block's place and size.

use crate::outline::{Frame, num};
use crate::texture::{PATTERNS, outlined, textured};
use crate::words::{cut, escaped, length_spans};
use crate::{Numbered, Subject, credit, numbered, pictures};
use metrosk_core::length::{Length, Unit};
use std::fmt::Write;

/// The paper that the sheet is printed on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Paper {
    /// 8 1/2 by 11 in.
    Letter,
    /// 210 by 297 mm.
    A4,
}

impl Paper {
    /// The paper of a name, `letter` or `a4`.
    pub fn from_name(name: &str) -> Option<Paper> {
        match name {
            "letter" => Some(Paper::Letter),
            "a4" => Some(Paper::A4),
            _ => None,
        }
    }

    /// Width and height in points, 1/72 in.
    pub const fn points(self) -> (f64, f64) {
        match self {
            Paper::Letter => (612.0, 792.0),
            Paper::A4 => (595.28, 841.89),
        }
    }
}

/// Room along the paper's edges, which no printer uses, in points.
const EDGE: f64 = 40.0;
/// Height of a table's row.
const ROW: f64 = 15.5;
/// Size of the table's text.
const TEXT: f64 = 10.0;
/// The drawing takes no more of the first sheet than this.
const DRAWING: f64 = 0.46;
const INK: &str = "#17263b";
const SECOND: &str = "#51617a";

/// The sheet's pages as SVG, in points of the paper.
pub fn measurement_pages(subject: &Subject<'_>, paper: Paper) -> Vec<String> {
    let (width, height) = paper.points();
    let mut rows = numbered(subject);
    let first = first_page(subject, &rows, (width, height));
    rows.sort_by_key(|n| n.order);
    let foot = height - EDGE - 14.0;
    let mut pages = Vec::new();
    let mut waiting = rows.as_slice();
    let (mut body, mut top) = first;
    loop {
        let room = (((foot - top) / ROW).floor() as usize).saturating_sub(1);
        let (now, later) = waiting.split_at(room.min(waiting.len()));
        body.push_str(&table(subject, now, top, width));
        pages.push(body);
        waiting = later;
        if waiting.is_empty() {
            break;
        }
        (body, top) = next_page(subject);
    }
    let count = pages.len();
    pages
        .into_iter()
        .enumerate()
        .map(|(n, body)| finished(subject, &body, (width, height), (n + 1, count)))
        .collect()
}

/// One page with its foot.
fn finished(
    subject: &Subject<'_>,
    body: &str,
    (width, height): (f64, f64),
    (page, of): (usize, usize),
) -> String {
    format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{w}\" height=\"{h}\" viewBox=\"0 0 {w} {h}\" font-family=\"Public Sans, Public Sans Variable\" font-size=\"{TEXT}\" fill=\"{INK}\"><defs>{PATTERNS}</defs><rect width=\"{w}\" height=\"{h}\" fill=\"#ffffff\"/>{body}<text x=\"{EDGE}\" y=\"{y}\" font-size=\"8.5\" fill=\"{SECOND}\">{}</text><text x=\"{r}\" y=\"{y}\" text-anchor=\"end\" font-size=\"8.5\" fill=\"{SECOND}\">sheet {page} of {of}</text></svg>",
        escaped(&cut(&credit(subject.sketch), 100)),
        w = num(width),
        h = num(height),
        y = num(height - EDGE),
        r = num(width - EDGE),
    )
}

fn heading(text: &str, y: f64, size: f64) -> String {
    format!(
        "<text x=\"{EDGE}\" y=\"{}\" font-family=\"Bricolage Grotesque, Bricolage Grotesque Variable\" font-weight=\"700\" font-size=\"{size}\">{}</text>",
        num(y),
        escaped(text)
    )
}

fn next_page(subject: &Subject<'_>) -> (String, f64) {
    (
        heading(
            &format!("{}, continued", cut(subject.name, 50)),
            EDGE + 14.0,
            14.0,
        ),
        EDGE + 34.0,
    )
}

/// Name, target and the drawing; and where the table may begin.
fn first_page(
    subject: &Subject<'_>,
    blocks: &[Numbered<'_>],
    (width, height): (f64, f64),
) -> (String, f64) {
    let layout = subject.layout;
    let unit = layout.unit;
    let mut body = heading(&cut(subject.name, 48), EDGE + 16.0, 20.0);
    let pages = if layout.canvas.pages == 2 {
        "Two pages"
    } else {
        "One page"
    };
    let side = |l: Length| length_spans(l, unit, 11.0);
    // Writing to a String can't fail.
    let _ = write!(
        body,
        "<text x=\"{EDGE}\" y=\"{}\" font-size=\"11\" fill=\"{SECOND}\">{pages}, {}<tspan dy=\"0\">\u{a0}×\u{a0}</tspan>{}<tspan>\u{a0}{}, by {}. Places are measured from each page’s left and top edge.</tspan></text>",
        num(EDGE + 33.0),
        side(layout.canvas.page.w),
        side(layout.canvas.page.h),
        unit.name(),
        escaped(subject.way),
    );
    let mut top = EDGE + 46.0;
    if let Some(credit) = subject.sketch.credit() {
        let _ = write!(
            body,
            "<text x=\"{EDGE}\" y=\"{}\" font-size=\"11\" fill=\"{SECOND}\">{}</text>",
            num(EDGE + 48.0),
            escaped(&cut(&credit, 100))
        );
        top += 15.0;
    }
    let room = (width - 2.0 * EDGE, height * DRAWING);
    let ticks = (layout.canvas.width().ticks() as f64 / room.0)
        .max(layout.canvas.page.h.ticks() as f64 / room.1);
    let (w, h) = (
        layout.canvas.width().ticks() as f64 / ticks,
        layout.canvas.page.h.ticks() as f64 / ticks,
    );
    let left = (width - w) / 2.0;
    let _ = write!(
        body,
        "<g transform=\"translate({} {})\">",
        num(left),
        num(top)
    );
    drawing(&mut body, subject, blocks, ticks, (w, h));
    body.push_str("</g>");
    let share = ticks
        / (unit.ticks() as f64
            / if unit == Unit::Inch {
                72.0
            } else {
                72.0 / 25.4
            });
    let scale = if share >= 1.0 {
        format!("drawn 1 to {}", num((share * 10.0).round() / 10.0))
    } else {
        "drawn larger than it is".to_owned()
    };
    let _ = write!(
        body,
        "<text x=\"{}\" y=\"{}\" text-anchor=\"end\" font-size=\"8.5\" fill=\"{SECOND}\">{scale}</text>",
        num(left + w),
        num(top + h + 11.0)
    );
    (body, top + h + 22.0)
}

/// What shows of a photo's print within its outline; any other block in its texture.
fn textured_or_shown(n: &Numbered<'_>, frame: Frame, ticks: f64, subject: &Subject<'_>) -> String {
    let block = &n.block.block;
    match pictures::shown(n.block, frame, ticks, subject.pictures) {
        Some(shown) => shown + &outlined(block, frame, ticks),
        None => textured(block, frame, ticks),
    }
}

/// The page to scale, numbered.
fn drawing(
    body: &mut String,
    subject: &Subject<'_>,
    blocks: &[Numbered<'_>],
    ticks: f64,
    (w, h): (f64, f64),
) {
    let page_w = subject.layout.canvas.page.w.ticks() as f64 / ticks;
    let pages = subject.layout.canvas.pages;
    body.push_str("<defs>");
    for page in 0..pages {
        let _ = write!(
            body,
            "<clipPath id=\"page{page}\"><rect x=\"{}\" width=\"{}\" height=\"{}\"/></clipPath>",
            num(page_w * f64::from(page)),
            num(page_w),
            num(h)
        );
    }
    let _ = write!(
        body,
        "<clipPath id=\"all\"><rect width=\"{}\" height=\"{}\"/></clipPath></defs><rect width=\"{}\" height=\"{}\" fill=\"#ffffff\" stroke=\"{INK}\"/>",
        num(w),
        num(h),
        num(w),
        num(h)
    );
    for n in blocks {
        let frame = Frame::of(n.block.whole.unwrap_or(n.block.block.rect), ticks);
        let clip = if n.block.whole.is_some() {
            format!("page{}", n.block.page)
        } else {
            "all".to_owned()
        };
        let _ = write!(
            body,
            "<g clip-path=\"url(#{clip})\">{}</g>",
            textured_or_shown(n, frame, ticks, subject)
        );
    }
    if pages == 2 {
        let _ = write!(
            body,
            "<path d=\"M{} 0V{}\" stroke=\"{INK}\" stroke-dasharray=\"5 3\"/>",
            num(page_w),
            num(h)
        );
    }
    for (n, (x, y)) in blocks.iter().zip(tags(blocks, ticks)) {
        let r = if n.number.len() > 2 { 8.0 } else { 6.8 };
        let _ = write!(
            body,
            "<circle cx=\"{x}\" cy=\"{y}\" r=\"{r}\" fill=\"#ffffff\" stroke=\"{INK}\" stroke-width=\".8\"/><text x=\"{x}\" y=\"{}\" text-anchor=\"middle\" font-size=\"8\" font-weight=\"700\">{}</text>",
            num(y + 2.9),
            n.number,
            x = num(x),
            y = num(y),
        );
    }
}

/// A place for each block's number inside its box, clear of the numbers placed before where there is one: the centre, then
/// places further and further out.
fn tags(blocks: &[Numbered<'_>], ticks: f64) -> Vec<(f64, f64)> {
    const APART: f64 = 15.0;
    const SHARES: [f64; 7] = [0.5, 0.3, 0.7, 0.15, 0.85, 0.06, 0.94];
    let mut placed: Vec<(f64, f64)> = Vec::new();
    for n in blocks {
        let f = Frame::of(n.block.block.rect, ticks);
        let places = SHARES
            .iter()
            .flat_map(|v| SHARES.iter().map(move |u| (f.x + u * f.w, f.y + v * f.h)));
        let clear = |(x, y): &(f64, f64)| {
            placed
                .iter()
                .all(|(px, py)| (px - x).hypot(py - y) >= APART)
        };
        let place = places.clone().find(clear).unwrap_or((f.cx(), f.cy()));
        placed.push(place);
    }
    placed
}

/// The columns: heading, right edge as a share of the table's width, and whether it is a length.
const COLUMNS: [(&str, f64); 6] = [
    ("left", 0.46),
    ("top", 0.56),
    ("width", 0.68),
    ("height", 0.79),
    ("turn", 0.87),
    ("print", 1.0),
];

fn table(subject: &Subject<'_>, rows: &[Numbered<'_>], top: f64, width: f64) -> String {
    let (left, wide) = (EDGE, width - 2.0 * EDGE);
    let at = |share: f64| num(left + share * wide);
    let mut svg = format!(
        "<g fill=\"{SECOND}\" font-size=\"9\"><text x=\"{}\" y=\"{}\">block</text>",
        num(left),
        num(top + 9.0)
    );
    if subject.layout.canvas.pages == 2 {
        let _ = write!(
            svg,
            "<text x=\"{}\" y=\"{}\">page</text>",
            at(0.26),
            num(top + 9.0)
        );
    }
    for (name, share) in COLUMNS {
        let _ = write!(
            svg,
            "<text x=\"{}\" y=\"{}\" text-anchor=\"end\">{name}</text>",
            at(share),
            num(top + 9.0)
        );
    }
    svg.push_str("</g>");
    for (n, row) in rows.iter().enumerate() {
        table_row(
            &mut svg,
            subject,
            row,
            top + ROW * (n + 1) as f64,
            (left, wide),
        );
    }
    svg
}

fn table_row(
    svg: &mut String,
    subject: &Subject<'_>,
    row: &Numbered<'_>,
    y: f64,
    (left, wide): (f64, f64),
) {
    let unit = subject.layout.unit;
    let block = &row.block.block;
    let _ = write!(
        svg,
        "<path d=\"M{} {}h{}\" stroke=\"#c3ccd2\" stroke-width=\".6\"/>",
        num(left),
        num(y - ROW + 13.0),
        num(wide)
    );
    let base = num(y + 9.0);
    let _ = write!(
        svg,
        "<text x=\"{}\" y=\"{base}\" font-weight=\"700\">{}</text>",
        num(left),
        row.number
    );
    let _ = write!(
        svg,
        "<text x=\"{}\" y=\"{base}\">{} <tspan fill=\"{SECOND}\">{}</tspan></text>",
        num(left + 26.0),
        block.kind.word(),
        escaped(&cut(&block.id, 12))
    );
    if subject.layout.canvas.pages == 2 {
        let _ = write!(
            svg,
            "<text x=\"{}\" y=\"{base}\" fill=\"{SECOND}\">{}</text>",
            num(left + 0.26 * wide),
            if row.block.page == 1 { "right" } else { "left" }
        );
    }
    let from = if row.block.page == 1 {
        subject.layout.canvas.page.w
    } else {
        Length::ZERO
    };
    let length = |l: Length| length_spans(l, unit, TEXT);
    let turn = if block.turn == 0.0 {
        String::new()
    } else {
        format!("{}°", num((block.turn * 10.0).round() / 10.0))
    };
    let print = row.block.placement.as_ref().map(|p| {
        format!(
            "{} {}<tspan>\u{a0}×\u{a0}</tspan>{}",
            escaped(&cut(&p.photo, 10)),
            length(p.print.w),
            length(p.print.h)
        )
    });
    let cells = [
        length(block.rect.x - from),
        length(block.rect.y),
        length(block.rect.w),
        length(block.rect.h),
        turn,
        print.unwrap_or_default(),
    ];
    for ((_, share), cell) in COLUMNS.iter().zip(cells) {
        if !cell.is_empty() {
            let _ = write!(
                svg,
                "<text x=\"{}\" y=\"{base}\" text-anchor=\"end\">{cell}</text>",
                num(left + share * wide)
            );
        }
    }
}
