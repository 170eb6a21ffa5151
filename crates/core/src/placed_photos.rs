//! What became of each print on the page that was laid out: where it went, what of it shows, how it is trimmed to that, its layers and how
//! thick they make the page. A pure step of the plan, from the decisions about photos and the layout.

mod areas;
mod json;
mod layers;
mod reasons;
mod thickness;

pub use areas::marked_areas;
pub use json::placed_photos_of;
use layers::layers;
pub use reasons::{Reason, reasons};
pub use thickness::{Thickness, lying_of};

use crate::fit::PhotoDecisions;
use crate::geometry::{Rect, Size, Span};
use crate::layout::{Layout, LayoutBlock, PartId, crop_of};
use crate::length::{Length, Unit};
use crate::photos::{
    Lift, Print, Quality, Trim, dots_an_inch, largest_good, lift_of, quality, trims,
};
use crate::sketch::Kind;

/// A share of a cover area that must lie under something for it to be hidden.
const HIDDEN: f64 = 0.9;

/// A mat round all photos of a slot reaches no further beyond them than this, in ticks; what is wider is a panel.
const WIDEST_SHARED: f64 = 4.0 * Unit::Inch.ticks() as f64;

/// An area of a print that is not held whole by its window.
#[derive(Clone, Debug, PartialEq)]
pub struct CutArea {
    /// Its place in the print's list.
    pub area: usize,
    /// The smallest slot that would hold all of them.
    pub slot: Size,
    /// The largest print, of the same shape, on which this slot holds all of them; none where it is larger already.
    pub print: Option<Size>,
}

/// An area that an embellishment should hide.
#[derive(Clone, Debug, PartialEq)]
pub struct Covered {
    /// Its place in the print's list.
    pub area: usize,
    /// The layout block that lies over it; none where nothing does.
    pub by: Option<String>,
    /// Whether it is trimmed off, so that nothing need hide it.
    pub trimmed: bool,
}

/// A layer behind a photo, as it lies on the page.
#[derive(Clone, Debug, PartialEq)]
pub struct PlacedLayer {
    /// Its layout block.
    pub block: String,
    /// Its size.
    pub size: Size,
    /// How far it shows around what lies on it: left, top, right, bottom.
    pub borders: [Length; 4],
    /// How its edge is finished.
    pub edge: &'static str,
    /// How many photos lie on it: those that share a slot share its layers.
    pub around: usize,
    /// What lies under it.
    pub lift: Lift,
}

/// A print in its place.
#[derive(Clone, Debug, PartialEq)]
pub struct PlacedPhoto {
    /// The print.
    pub print: String,
    /// Its layout block; where it runs over the fold the left one.
    pub block: String,
    /// The sketch's photo block that it stands for.
    pub of: String,
    /// Which of that block's prints it is.
    pub part: usize,
    /// 0, or 1 for the right page.
    pub page: u8,
    /// What shows, in size.
    pub slot: Size,
    /// How large it is printed.
    pub size: Size,
    /// What shows, on the print.
    pub window: Rect,
    /// How a print on paper is trimmed to that, cut by cut.
    pub trims: Vec<Trim>,
    /// Areas that must be kept and are cut.
    pub cut: Vec<CutArea>,
    /// Areas that should be hidden.
    pub covered: Vec<Covered>,
    /// Of a picture: its dots an inch at that size.
    pub dots: Option<f64>,
    /// Of a picture: how that looks.
    pub quality: Option<Quality>,
    /// Of a picture: the largest size at which it is good.
    pub largest_good: Option<Size>,
    /// From the photo outwards.
    pub layers: Vec<PlacedLayer>,
    /// What lifts it.
    pub lift: Lift,
}

/// All that became of the photos.
#[derive(Clone, Debug, PartialEq)]
pub struct PlacedPhotos {
    /// In which unit it is written.
    pub unit: Unit,
    /// The prints that have a place, in the order of the layout.
    pub placed: Vec<PlacedPhoto>,
    /// Prints that lie aside.
    pub aside: Vec<String>,
    /// How many photos the sketch draws.
    pub drawn: usize,
    /// The thickest spot, and what would make it thinner.
    pub thickness: Thickness,
    /// Why they lie so.
    pub reasons: Vec<Reason>,
}

/// What becomes of the prints on a layout.
#[must_use]
pub fn placed_photos(
    unit: Unit,
    drawn: usize,
    photos: &PhotoDecisions,
    layout: &Layout,
) -> PlacedPhotos {
    let prints = photos.photos.prints();
    let identities = layout.identities();
    let placed: Vec<PlacedPhoto> = layout
        .each_photo()
        .iter()
        .filter_map(|parts| {
            let placement = parts[0].placement.as_ref()?;
            let print = prints.iter().find(|p| p.id == placement.photo)?;
            let n = layout
                .blocks
                .iter()
                .position(|b| std::ptr::eq(b, parts[0]))?;
            placed(photos, layout, parts, (print, identities[n]))
        })
        .collect();
    let thickness = thickness::of(photos, layout);
    PlacedPhotos {
        unit,
        reasons: reasons(prints, &placed),
        placed,
        aside: photos.aside.iter().map(|p| p.id.clone()).collect(),
        drawn,
        thickness,
    }
}

fn placed(
    photos: &PhotoDecisions,
    layout: &Layout,
    parts: &[&LayoutBlock],
    (print, identity): (&Print, PartId<'_>),
) -> Option<PlacedPhoto> {
    let block = parts[0];
    let (placement, crop) = (block.placement.as_ref()?, crop_of(parts)?);
    let size = placement.print;
    let ticks =
        |share: f64, full: Length| Length::from_ticks((share * full.ticks() as f64).round() as i64);
    let window = Rect {
        x: ticks(crop.x, size.w),
        y: ticks(crop.y, size.h),
        w: ticks(crop.w, size.w),
        h: ticks(crop.h, size.h),
    };
    let slot = Size {
        w: window.w,
        h: window.h,
    };
    Some(PlacedPhoto {
        print: print.id.clone(),
        block: block.block.id.clone(),
        of: identity.block.to_owned(),
        part: identity.part,
        page: block.page,
        slot,
        size,
        window,
        trims: if print.is_file {
            Vec::new()
        } else {
            trims(size, window)
        },
        cut: cut_areas(print, size, window),
        covered: covered(print, layout, parts, (size, window)),
        dots: print.pixels.map(|pixels| dots_an_inch(pixels, size)),
        quality: print.pixels.map(|pixels| quality(pixels, size)),
        largest_good: print.pixels.map(largest_good),
        layers: layers(photos, layout, block, identity.block),
        lift: lift_of(&photos.lift, identity.block),
    })
}

/// What of a print must be kept and is cut, and what would hold it.
fn cut_areas(print: &Print, size: Size, window: Rect) -> Vec<CutArea> {
    // A share that was written with four decimals is not to count as cut.
    let hair = Length::inches(1, 128);
    let areas = print.kept_on(size);
    let holds = |a: &Rect| {
        window.x <= a.x + hair
            && window.y <= a.y + hair
            && window.right() + hair >= a.right()
            && window.bottom() + hair >= a.bottom()
    };
    if areas.iter().all(holds) {
        return Vec::new();
    }
    let (mut left, mut top) = (areas[0].x, areas[0].y);
    let (mut right, mut bottom) = (areas[0].right(), areas[0].bottom());
    for a in &areas {
        left = left.min(a.x);
        top = top.min(a.y);
        right = right.max(a.right());
        bottom = bottom.max(a.bottom());
    }
    let needs = Size {
        w: right - left,
        h: bottom - top,
    };
    let by = (window.w.ticks() as f64 / needs.w.ticks() as f64)
        .min(window.h.ticks() as f64 / needs.h.ticks() as f64);
    let side = |l: Length| Length::from_ticks((l.ticks() as f64 * by) as i64);
    let smaller = Size {
        w: side(size.w),
        h: side(size.h),
    };
    let covers = smaller.w >= window.w && smaller.h >= window.h;
    let cut = areas.iter().enumerate().filter(|(_, a)| !holds(a));
    cut.map(|(area, _)| CutArea {
        area,
        slot: needs,
        print: (by < 1.0 && covers).then_some(smaller),
    })
    .collect()
}

/// What lies over the areas that should be hidden.
fn covered(
    print: &Print,
    layout: &Layout,
    parts: &[&LayoutBlock],
    (size, window): (Size, Rect),
) -> Vec<Covered> {
    let first = parts[0];
    let lies_at = layout
        .blocks
        .iter()
        .position(|b| std::ptr::eq(b, first))
        .unwrap_or_default();
    let above = || {
        layout.blocks[lies_at + 1..]
            .iter()
            .filter(|b| !matches!(b.block.kind, Kind::Photo | Kind::Wash | Kind::Journal))
    };
    let corner = first.whole.unwrap_or(first.block.rect);
    let each = |(area, a): (usize, Rect)| {
        let shows = Span::from(a).cut_to(Span::from(window));
        let trimmed = shows.w() <= 0.0 || shows.h() <= 0.0;
        // On the page, where the photo lies straight; a turned one is near enough there.
        let (dx, dy) = (
            (corner.x - window.x).ticks() as f64,
            (corner.y - window.y).ticks() as f64,
        );
        let here = Span {
            l: shows.l + dx,
            r: shows.r + dx,
            t: shows.t + dy,
            b: shows.b + dy,
        };
        let hides = |b: &&LayoutBlock| {
            let over = here.cut_to(b.block.true_bounds());
            let shared = over.w().max(0.0) * over.h().max(0.0);
            shared >= HIDDEN * here.area()
        };
        let by = (!trimmed)
            .then(|| above().find(hides).map(|b| b.block.id.clone()))
            .flatten();
        Covered { area, by, trimmed }
    };
    let areas = print.covers.iter().map(|c| c.on(size));
    areas.enumerate().map(each).collect()
}
