//! The layout at its real size: one element a block, grouped by page, titled by number and kind.

use crate::outline::{Frame, num, outline, rect_path};
use crate::words::escaped;
use crate::{Numbered, Subject, credit, numbered, pictures};
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use std::fmt::Write;

/// Line width in the drawing, in millimetres: visible, and nothing to a blade.
const HAIRLINE_MM: f64 = 0.2;

/// An SVG whose width and height are real inches or millimetres, so that what is imported or printed at 100 % is the true
/// size. Each block is one `path` with a `title`; the pages are groups. Nothing is filled: a cutting machine reads lines. Photos that have
/// pictures lie under them in a group of their own.
pub fn true_scale(subject: &Subject<'_>) -> String {
    let layout = subject.layout;
    let ticks = layout.unit.ticks() as f64;
    let unit = layout.unit.name();
    let (w, h) = (
        layout.canvas.width().ticks() as f64 / ticks,
        layout.canvas.page.h.ticks() as f64 / ticks,
    );
    let hairline = HAIRLINE_MM * Unit::Millimetre.ticks() as f64 / ticks;
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{}{unit}\" height=\"{}{unit}\" viewBox=\"0 0 {} {}\" fill=\"none\" stroke=\"#000000\" stroke-width=\"{}\">\n<title>{}</title>\n<desc>{}. True size: print or import at 100 %.</desc>\n",
        num(w),
        num(h),
        num(w),
        num(h),
        num(hairline),
        escaped(subject.name),
        escaped(&credit(subject.sketch)),
    );
    let page_w = layout.canvas.page.w.ticks() as f64 / ticks;
    clips(&mut svg, layout, page_w, h);
    let all = numbered(subject);
    for page in 0..layout.canvas.pages {
        let name = match (layout.canvas.pages, page) {
            (1, _) => "page",
            (_, 0) => "left page",
            _ => "right page",
        };
        let frame = Frame {
            x: page_w * f64::from(page),
            y: 0.0,
            w: page_w,
            h,
        };
        // Writing to a String can't fail.
        let _ = writeln!(
            svg,
            "<g id=\"{}\">\n<title>{name}</title>\n<path id=\"{}-edge\" d=\"{}\"><title>edge of the {name}</title></path>",
            name.replace(' ', "-"),
            name.replace(' ', "-"),
            rect_path(frame)
        );
        photos(&mut svg, &all, page, subject, ticks);
        all.iter()
            .filter(|n| n.block.page == page)
            .for_each(|n| element(&mut svg, n, ticks));
        svg.push_str("</g>\n");
    }
    svg.push_str("</svg>\n");
    svg
}

/// Each page's area, for parts of what crosses the fold.
fn clips(svg: &mut String, layout: &Layout, page_w: f64, h: f64) {
    if layout.blocks.iter().all(|b| b.whole.is_none()) {
        return;
    }
    svg.push_str("<defs>");
    for page in 0..layout.canvas.pages {
        let frame = Frame {
            x: page_w * f64::from(page),
            y: 0.0,
            w: page_w,
            h,
        };
        let _ = write!(
            svg,
            "<clipPath id=\"on-page-{page}\"><path d=\"{}\"/></clipPath>",
            rect_path(frame)
        );
    }
    svg.push_str("</defs>\n");
}

/// What shows of the prints, under the lines and in a group of its own, so that whoever wants lines alone can leave it out.
fn photos(svg: &mut String, all: &[Numbered<'_>], page: u8, subject: &Subject<'_>, ticks: f64) {
    let shown: String = all
        .iter()
        .filter(|n| n.block.page == page)
        .filter_map(|n| {
            let frame = Frame::of(n.block.whole.unwrap_or(n.block.block.rect), ticks);
            pictures::shown(n.block, frame, ticks, subject.pictures)
        })
        .collect();
    if !shown.is_empty() {
        let _ = writeln!(svg, "<g class=\"photos\"><title>photos</title>{shown}</g>");
    }
}

fn element(svg: &mut String, numbered: &Numbered<'_>, ticks: f64) {
    let Numbered { block, number, .. } = numbered;
    let drawn = Frame::of(block.whole.unwrap_or(block.block.rect), ticks);
    let path = outline(&block.block, drawn, ticks);
    let turn = block.block.turn;
    let turned = if turn == 0.0 {
        String::new()
    } else {
        format!(
            " transform=\"rotate({} {} {})\"",
            num(turn),
            num(drawn.cx()),
            num(drawn.cy())
        )
    };
    // A clip belongs to the page, not to the turned block, so it stands on a group around it.
    let (open, close) = if block.whole.is_some() {
        (
            format!("<g clip-path=\"url(#on-page-{})\">", block.page),
            "</g>",
        )
    } else {
        (String::new(), "")
    };
    let kind = block.block.kind;
    let _ = writeln!(
        svg,
        "{open}<path id=\"block-{}\" class=\"{}\" d=\"{path}\"{turned}><title>{} {}</title></path>{close}",
        escaped(&block.block.id),
        kind.name(),
        escaped(number),
        kind.word()
    );
}
