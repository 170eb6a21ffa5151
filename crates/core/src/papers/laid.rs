//! What lies on a page, bottom to top: its ground, its blocks, and each unit of a grid or ring on its own.

use super::piecing::Piecing;
use crate::geometry::{Point, Region, Span};
use crate::layout::LayoutBlock;
use crate::sketch::{Kind, Shape};

/// Units that share less than this with their page, in square ticks, lie on the other one.
const NOTHING: f64 = 1_000.0;

/// One thing that lies on a page. Places are those of the spread, in ticks.
pub(super) struct Laid<'a> {
    /// The piece's id: `ground-0`, a block's id, `g1/2/3`, `r1/4`.
    pub id: String,
    /// Its block, by its place in the layout; none for a ground.
    pub block: Option<usize>,
    /// Degrees clockwise.
    pub turn: f64,
    /// What it is turned about.
    pub about: Point,
    /// Its box in its own, unturned frame.
    pub frame: Span,
    /// Its true outline as it lies.
    pub outline: Region,
    /// The box around the outline.
    pub bounds: Span,
    /// Whether it is an unturned rectangle.
    pub is_upright_rect: bool,
    /// The paper it is cut from.
    pub paper: Option<&'a str>,
    /// Whether it hides what lies under it.
    pub covers: bool,
}

/// One page and all that lies on it.
pub(super) struct Page<'a> {
    /// Its own box on the spread.
    pub span: Span,
    /// Bottom to top.
    pub laid: Vec<Laid<'a>>,
}

/// What hides what lies under it.
const fn is_cover(kind: Kind) -> bool {
    matches!(
        kind,
        Kind::Photo
            | Kind::Mat
            | Kind::Paper
            | Kind::Strip
            | Kind::Grid
            | Kind::Ring
            | Kind::Accent
    )
}

/// Each page with what lies on it.
pub(super) fn pages(piecing: &Piecing) -> Vec<Page<'_>> {
    let canvas = piecing.layout.canvas;
    let (w, h) = (canvas.page.w.ticks() as f64, canvas.page.h.ticks() as f64);
    let page = |number: u8| {
        let l = f64::from(number) * w;
        let span = Span {
            l,
            t: 0.0,
            r: l + w,
            b: h,
        };
        let mut laid: Vec<Laid> = ground(piecing, number, span).into_iter().collect();
        let blocks = piecing.layout.blocks.iter().enumerate();
        for (n, block) in blocks.filter(|(_, b)| b.page == number) {
            lay(piecing, n, block, span, &mut laid);
        }
        Page { span, laid }
    };
    (0..canvas.pages).map(page).collect()
}

fn ground(piecing: &Piecing, page: u8, span: Span) -> Option<Laid<'_>> {
    let paper = piecing.ground.get(usize::from(page))?.as_deref()?;
    Some(Laid {
        id: format!("ground-{page}"),
        block: None,
        turn: 0.0,
        about: [0.0, 0.0],
        frame: span,
        outline: Region::from(span),
        bounds: span,
        is_upright_rect: true,
        paper: Some(paper),
        covers: false,
    })
}

fn lay<'a>(
    piecing: &'a Piecing,
    n: usize,
    placed: &LayoutBlock,
    page: Span,
    laid: &mut Vec<Laid<'a>>,
) {
    let block = &placed.block;
    // A part of what crosses the fold is the whole, seen on its page.
    let whole = Span::from(placed.whole.unwrap_or(block.rect));
    let about = [whole.cx(), whole.cy()];
    let mut add = |id: String, frame: Span, outline: Region, is_rect: bool| {
        let outline = outline.turned(block.turn, about);
        let Some(bounds) = outline.bounds() else {
            return;
        };
        let paper = piecing.paper_of(&id, &block.id);
        let is_clear = paper.is_some_and(|p| piecing.see_through.contains(p));
        laid.push(Laid {
            id,
            block: Some(n),
            turn: block.turn,
            about,
            frame,
            outline,
            bounds,
            is_upright_rect: is_rect && block.turn == 0.0,
            paper,
            covers: is_cover(block.kind) && !is_clear,
        });
    };
    let units = block.units_within(whole);
    if units.is_empty() {
        let is_rect = block.shape == Shape::Rect;
        add(block.id.clone(), whole, block.shape.outline(whole), is_rect);
        return;
    }
    let shape = block.unit_shape();
    for unit in units {
        let outline = unit.outline(shape);
        let on_page = || outline.clone().turned(block.turn, about);
        if placed.whole.is_some() && on_page().within_also(&Region::from(page)).area() <= NOTHING {
            continue;
        }
        let is_rect = shape == crate::sketch::UnitShape::Square;
        add(
            format!("{}/{}", block.id, unit.name),
            unit.span,
            outline,
            is_rect,
        );
    }
}
