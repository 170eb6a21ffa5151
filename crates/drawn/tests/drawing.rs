//! The drawing machine draws what it says, the same each time, and keeps apart what is kept apart.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::length::Unit;
use metrosk_core::sketch::{Kind, Sketch};
use metrosk_drawn::{Camera, Found, Instrument, Manner, Page, Set, compare, layout, sample};
use rand::SeedableRng;
use rand::rngs::StdRng;
use std::collections::BTreeSet;

#[test]
fn a_number_gives_the_same_picture_each_time() {
    let (a, b) = (sample(7, Set::Tuning), sample(7, Set::Tuning));
    assert_eq!(a.picture, b.picture);
    assert_eq!(a.truth, b.truth);
    assert_ne!(a.picture, sample(8, Set::Tuning).picture);
}

#[test]
fn what_is_kept_for_checking_is_never_tuned_with() {
    let drawn = |set| (0..2_000).map(move |n| Manner::drawn(&mut StdRng::seed_from_u64(n), set));
    let mut seen: BTreeSet<String> = BTreeSet::new();
    for manner in drawn(Set::Tuning) {
        assert!(
            manner.variants().iter().all(|(_, kept)| !kept),
            "{manner:?}"
        );
        seen.extend(manner.variants().into_iter().map(|v| v.0));
    }
    let mut kept = 0;
    for manner in drawn(Set::Checking) {
        kept += usize::from(manner.variants().iter().any(|(_, kept)| *kept));
        seen.extend(manner.variants().into_iter().map(|v| v.0));
    }
    // Where a manner can't be told otherwise one kept variant may give way to another.
    assert!(kept >= 1_990, "{kept} of 2000");
    assert!(seen.len() >= 48, "every variant is drawn: {seen:?}");
}

#[test]
fn layouts_are_sketches_with_what_makers_draw() {
    let mut kinds: BTreeSet<String> = BTreeSet::new();
    for n in 0..400 {
        let mut luck = StdRng::seed_from_u64(n);
        let manner = Manner::drawn(&mut luck, Set::Tuning);
        let drawn = layout(&mut luck, &manner);
        let again = Sketch::from_json(&drawn.document).unwrap();
        assert_eq!(again, drawn.sketch);
        assert!(
            drawn.sketch.blocks.iter().any(|b| b.kind == Kind::Photo),
            "{n}"
        );
        assert_eq!(drawn.sketch.canvas.pages, manner.pages);
        kinds.extend(drawn.sketch.blocks.iter().map(|b| format!("{:?}", b.kind)));
    }
    for kind in [
        "Photo", "Mat", "Paper", "Strip", "Title", "Journal", "Cluster", "Accent",
    ] {
        assert!(kinds.contains(kind), "{kind} in {kinds:?}");
    }
}

/// The first flat diagram with an outline round its page.
fn a_diagram() -> metrosk_drawn::Sample {
    (0..400)
        .map(|n| (n, Manner::drawn(&mut StdRng::seed_from_u64(n), Set::Tuning)))
        .find(|(_, m)| {
            m.camera == Camera::Flat
                && m.instrument == Instrument::Vector
                && m.page == Page::Thin
                && m.pages == 1
        })
        .map(|(n, _)| sample(n, Set::Tuning))
        .unwrap()
}

#[test]
fn a_photo_is_drawn_where_the_truth_says() {
    let drawn = a_diagram();
    let photo = drawn
        .truth
        .blocks
        .iter()
        .find(|b| b.kind == Kind::Photo && b.turn == 0.0)
        .unwrap();
    let inches = |l: metrosk_core::length::Length| l.to_units(Unit::Inch);
    let per_inch = f64::from(drawn.picture.width() - 140) / inches(drawn.truth.canvas.page.w);
    let x = (inches(photo.rect.x) * per_inch + 70.0).round() as u32;
    let y = ((inches(photo.rect.y) + inches(photo.rect.h) / 2.0) * per_inch + 70.0).round() as u32;
    let darkest = (x - 3..=x + 3)
        .map(|x| drawn.picture.get_pixel(x, y).0[0])
        .min()
        .unwrap();
    assert!(darkest < 120, "the photo's left edge is inked: {darkest}");
}

#[test]
fn what_is_read_is_measured_by_its_place() {
    let drawn = a_diagram().truth;
    let all = drawn.blocks.len();
    let same = compare(&drawn, &drawn, 0.85);
    let whole = Found {
        drawn: all,
        read: all,
        agree: all,
        kind: all,
    };
    assert_eq!(same, whole);
    let mut less = drawn.clone();
    less.blocks.truncate(1);
    let found = compare(&drawn, &less, 0.85);
    assert_eq!((found.agree, found.read), (1, 1));
    assert!(found.recall() < 1.0 && found.precision() == 1.0);
}
