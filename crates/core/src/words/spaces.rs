//! Where words can stand on a page: in a block, on a photo beside what must stay in sight, or where nothing lies.

use super::decisions::WordsDecisions;
use super::shape::Shape;
use crate::geometry::{Rect, Region, Size, Span, largest_free_rectangle};
use crate::layout::{Layout, LayoutBlock};
use crate::length::{Length, Unit};
use crate::photos::Print;
use crate::placed_photos::marked_areas;
use crate::sketch::{self, Kind};

const INCH: f64 = Unit::Inch.ticks() as f64;
/// Words keep as far from other things, and from the edges of pages and photos.
const APART: f64 = INCH / 8.0;
/// In a lower or narrower place there is no room for a letter.
const LEAST: f64 = INCH / 2.0;

/// What a place for words is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PlaceKind {
    /// A block that takes words: a title, writing, a strip, a panel, a tag.
    Block,
    /// The quiet part of a photo.
    Photo,
    /// Where nothing lies.
    Free,
}

impl PlaceKind {
    /// Its name in documents.
    pub const fn name(self) -> &'static str {
        match self {
            PlaceKind::Block => "block",
            PlaceKind::Photo => "photo",
            PlaceKind::Free => "free",
        }
    }
}

/// A place where words can stand.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Place {
    /// What a plan names it by: the block's id, or `free-` and the page's number.
    pub key: String,
    /// What it is.
    pub kind: PlaceKind,
    /// The kind of its block.
    pub block: Option<Kind>,
    /// On which page.
    pub page: u8,
    /// Where, on the whole layout.
    pub rect: Rect,
}

/// All places for words, in the layout's order, then the free ones. `prints` tell what must stay in sight on photos.
#[must_use]
pub fn places(layout: &Layout, prints: &[Print]) -> Vec<Place> {
    let in_sight = marked_areas(layout, prints, |p| &p.faces);
    let blocks = layout.blocks.iter().enumerate();
    let is_first_part = |n: usize| {
        let whole = layout.blocks[n].whole;
        whole.is_none() || !layout.blocks[..n].iter().any(|b| b.whole == whole)
    };
    let mut all: Vec<Place> = blocks
        .filter_map(|(n, block)| {
            let of_block = |kind, rect| Place {
                key: block.block.id.clone(),
                kind,
                block: Some(block.block.kind),
                page: block.page,
                rect,
            };
            match block.block.kind {
                Kind::Title | Kind::Journal | Kind::Strip | Kind::Paper | Kind::Accent
                    if is_first_part(n) =>
                {
                    let rect = block.whole.unwrap_or(block.block.rect);
                    Some(of_block(PlaceKind::Block, rect))
                }
                Kind::Photo => {
                    let faces = in_sight.iter().filter(|(photo, _)| *photo == n);
                    let faces: Vec<Span> = faces.map(|(_, s)| *s).collect();
                    let quiet = quiet_part(layout, (n, block), &faces)?;
                    Some(of_block(PlaceKind::Photo, quiet))
                }
                _ => None,
            }
        })
        .collect();
    all.extend((0..layout.canvas.pages).filter_map(|page| free_part(layout, page)));
    all
}

/// The place that a plan names; otherwise the first block of the kind that is wanted, otherwise the largest where nothing lies. Where she gave a
/// size, the space has it, from the place's left top corner.
#[must_use]
pub fn place_for(
    places: &[Place],
    named: Option<&String>,
    wanted: Kind,
    size: Option<Size>,
) -> Option<Place> {
    let by_name = places.iter().find(|p| Some(&p.key) == named);
    let of_kind = || places.iter().find(|p| p.block == Some(wanted));
    let area = |p: &&Place| i128::from(p.rect.w.ticks()) * i128::from(p.rect.h.ticks());
    let free = || {
        let free = places.iter().filter(|p| p.kind == PlaceKind::Free);
        free.max_by_key(area)
    };
    let mut found = by_name.or_else(of_kind).or_else(free)?.clone();
    if let Some(Size { w, h }) = size {
        found.rect = Rect { w, h, ..found.rect };
    }
    Some(found)
}

/// Words that stand in no block of their own kind, in ticks: what nothing should cover all the same.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct WordsElsewhere {
    /// The title.
    pub title: Option<Span>,
    /// The writing.
    pub writing: Option<Span>,
}

impl WordsElsewhere {
    /// Of a page whose title is set, or whose writing is written.
    #[must_use]
    pub fn of(layout: &Layout, prints: &[Print], words: &WordsDecisions) -> WordsElsewhere {
        let all = places(layout, prints);
        let elsewhere = |named: Option<&String>, kind: Kind, size: Option<Size>| {
            let place = place_for(&all, named, kind, size)?;
            (place.block != Some(kind)).then(|| Span::from(place.rect))
        };
        let title = words.title.as_ref().filter(|t| !t.taken.is_empty());
        let writing = words.writing.as_ref();
        let writing = writing.filter(|w| !w.text.trim().is_empty() && w.shape != Shape::Edge);
        WordsElsewhere {
            title: title.and_then(|t| elsewhere(t.block.as_ref(), Kind::Title, t.space)),
            writing: writing.and_then(|w| elsewhere(w.block.as_ref(), Kind::Journal, w.space)),
        }
    }

    /// Both.
    pub fn spans(&self) -> impl Iterator<Item = Span> + Clone {
        self.title.into_iter().chain(self.writing)
    }
}

/// What of a photo is neither a face nor under anything, as its largest rectangle.
fn quiet_part(layout: &Layout, (n, block): (usize, &LayoutBlock), faces: &[Span]) -> Option<Rect> {
    let above = layout.blocks[n + 1..].iter();
    let above = above.filter(|b| !matches!(b.block.kind, Kind::Title | Kind::Journal | Kind::Wash));
    let in_the_way = above.map(LayoutBlock::extent).chain(faces.iter().copied());
    // In a round or a tilted photo words would have to be laid by eye.
    let upright = block.block.turn.rem_euclid(180.0) == 0.0;
    let square = matches!(block.block.shape, sketch::Shape::Rect);
    (upright && square).then(|| free_in(Span::from(block.block.rect), in_the_way))?
}

/// The largest rectangle of a page on which nothing lies.
fn free_part(layout: &Layout, page: u8) -> Option<Place> {
    let width = layout.canvas.page.w.ticks() as f64;
    let window = Span {
        l: f64::from(page) * width,
        t: 0.0,
        r: f64::from(page + 1) * width,
        b: layout.canvas.page.h.ticks() as f64,
    };
    let in_the_way = layout.blocks.iter();
    let in_the_way = in_the_way
        .filter(|b| b.block.kind != Kind::Wash)
        .map(|b| b.block.true_bounds());
    Some(Place {
        key: format!("free-{page}"),
        kind: PlaceKind::Free,
        block: None,
        page,
        rect: free_in(window, in_the_way)?,
    })
}

/// The largest rectangle in a window, away from its edges and from what is in the way.
fn free_in(window: Span, in_the_way: impl Iterator<Item = Span>) -> Option<Rect> {
    let blocked: Vec<Region> = in_the_way.map(|s| Region::from(grown(s, APART))).collect();
    let found = largest_free_rectangle(grown(window, -APART), &Region::union(&blocked), LEAST)?;
    // Whole sixteenths are laid more easily, and never more than there is.
    let step = INCH / 16.0;
    let up = |at: f64| Length::from_ticks(((at / step).ceil() * step) as i64);
    let down = |at: f64| Length::from_ticks(((at / step).floor() * step) as i64);
    let (x, y) = (up(found.l), up(found.t));
    let (w, h) = (down(found.r) - x, down(found.b) - y);
    (w > Length::ZERO && h > Length::ZERO).then_some(Rect { x, y, w, h })
}

fn grown(span: Span, by: f64) -> Span {
    Span {
        l: span.l - by,
        t: span.t - by,
        r: span.r + by,
        b: span.b + by,
    }
}
