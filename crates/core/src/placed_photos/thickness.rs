//! How thick the page is where it is thickest, and what to take down where that is too much.

use super::layers::frames;
use crate::fit::PhotoDecisions;
use crate::geometry::Span;
use crate::layout::{Layout, LayoutBlock};
use crate::length::Length;
use crate::photos::{
    Lift, LiftChoice, Lying, MatChoice, SHEET, Thickest, layers_of, lift_of, thickest,
};
use crate::sketch::Kind;

/// The thickest spot.
#[derive(Clone, Debug, PartialEq)]
pub struct Thickness {
    /// Where it is, and how thick.
    pub thickest: Thickest,
    /// How thick it may be.
    pub room: Length,
    /// Where it is thicker than that: the photos to take down, each with the lift that would do; empty where nothing helps.
    pub take_down: Vec<(String, Lift)>,
}

/// The thickness of a page, or of a spread that is closed.
pub(super) fn of(photos: &PhotoDecisions, layout: &Layout) -> Thickness {
    let found = with_lifts(&photos.lift, &photos.mats, layout);
    let take_down = if found.thick > photos.room {
        lower(photos, layout, found.clone())
    } else {
        Vec::new()
    };
    Thickness {
        thickest: found,
        room: photos.room,
        take_down,
    }
}

/// Photos that are lifted the most are taken down first, step by step, until it is thin enough.
fn lower(photos: &PhotoDecisions, layout: &Layout, mut found: Thickest) -> Vec<(String, Lift)> {
    let mut lifts = photos.lift.clone();
    let mut lowered: Vec<(String, Lift)> = Vec::new();
    while found.thick > photos.room {
        let highest = found
            .of
            .iter()
            .map(|of| (lift_of(&lifts, of), of.clone()))
            .max_by_key(|(lift, _)| *lift);
        let Some((now, of)) = highest.filter(|(lift, _)| *lift > Lift::Flat) else {
            return Vec::new();
        };
        let by = match now {
            Lift::ThickFoam => Lift::ThinFoam,
            Lift::ThinFoam => Lift::Card,
            Lift::Card | Lift::Flat => Lift::Flat,
        };
        lifts.push(LiftChoice {
            of: vec![of.clone()],
            by,
        });
        lowered.retain(|(id, _)| *id != of);
        lowered.push((of, by));
        found = with_lifts(&lifts, &photos.mats, layout);
    }
    lowered
}

/// What lies on the left (or only) page and on the right one, and how much each adds.
#[must_use]
pub fn lying_of(photos: &PhotoDecisions, layout: &Layout) -> [Vec<Lying>; 2] {
    by_page(&photos.lift, &photos.mats, layout)
}

fn with_lifts(lifts: &[LiftChoice], mats: &[MatChoice], layout: &Layout) -> Thickest {
    let [left, right] = by_page(lifts, mats, layout);
    thickest(&left, &right, layout.canvas.page.w)
}

fn by_page(lifts: &[LiftChoice], mats: &[MatChoice], layout: &Layout) -> [Vec<Lying>; 2] {
    let mut pages = [Vec::new(), Vec::new()];
    for block in &layout.blocks {
        if let Some(lying) = lying((lifts, mats), layout, block) {
            pages[usize::from(block.page.min(1))].push(lying);
        }
    }
    pages
}

/// What a block adds where it lies: its sheet, and what lifts it. A mat on a lifted photo is lifted with it; the foam counts once, under the
/// outermost of them.
fn lying(
    (lifts, mats): (&[LiftChoice], &[MatChoice]),
    layout: &Layout,
    block: &LayoutBlock,
) -> Option<Lying> {
    let is_sheet = !matches!(
        block.block.kind,
        Kind::Title | Kind::Journal | Kind::Wash | Kind::Cluster
    );
    if !is_sheet {
        return None;
    }
    let own = |b: &LayoutBlock| b.from.first().unwrap_or(&b.block.id).clone();
    let of = if block.block.kind == Kind::Photo {
        own(block)
    } else {
        own(framed(layout, block).unwrap_or(block))
    };
    let lift = if block.block.kind == Kind::Photo {
        lift_of(lifts, &of)
    } else {
        layer_lift(mats, layout, block, &of)
    };
    let shift = if block.page == 1 {
        layout.canvas.page.w.ticks() as f64
    } else {
        0.0
    };
    let bounds = block.block.true_bounds();
    Some(Lying {
        of,
        bounds: Span {
            l: bounds.l - shift,
            r: bounds.r - shift,
            ..bounds
        },
        thick: SHEET + lift.thickness(),
    })
}

/// What lies under a mat, as it was chosen for its layer.
fn layer_lift(mats: &[MatChoice], layout: &Layout, mat: &LayoutBlock, of: &str) -> Lift {
    let (Some(layers), Some(photo)) = (layers_of(mats, of), framed(layout, mat)) else {
        return Lift::Flat;
    };
    // Mats lie bottom to top, layers are counted from the photo outwards.
    let around = |b: &&LayoutBlock| b.block.kind == Kind::Mat && frames(layout, b, photo);
    let outwards: Vec<&LayoutBlock> = layout.blocks.iter().filter(around).collect();
    let place = outwards.iter().rev().position(|b| std::ptr::eq(*b, mat));
    let layer = place.and_then(|n| layers.get(n));
    layer.map_or(Lift::Flat, |l| l.lift)
}

/// The photo that a mat frames.
fn framed<'a>(layout: &'a Layout, mat: &LayoutBlock) -> Option<&'a LayoutBlock> {
    if mat.block.kind != Kind::Mat {
        return None;
    }
    let photos = layout.blocks.iter().filter(|b| b.block.kind == Kind::Photo);
    photos.into_iter().find(|photo| frames(layout, mat, photo))
}
