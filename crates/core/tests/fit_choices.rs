//! Photo counts, prints, the fold, pins and conflicts, on sketches small enough to think through.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{self, Outcome, Proposal};
use metrosk_core::layout::LayoutBlock;
use metrosk_core::sketch::Kind;
use serde_json::{Value, json};

fn sketch(blocks: Value) -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Small", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
}

fn pair() -> Value {
    sketch(json!([
        {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 8, "w": 12, "h": 1.5}, "bleed": ["left", "right"]},
        {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 3, "h": 4}},
        {"id": "p2", "kind": "photo", "box": {"x": 5, "y": 2, "w": 3, "h": 4}},
        {"id": "t1", "kind": "title", "box": {"x": 2, "y": 6.5, "w": 6, "h": 1}},
    ]))
}

fn best(sketch: &Value, page: usize, pages: u8, more: Value) -> Proposal {
    sound(&request(sketch, page, pages, more)).swap_remove(0)
}

fn block<'a>(proposal: &'a Proposal, id: &str) -> &'a LayoutBlock {
    proposal
        .layout
        .blocks
        .iter()
        .find(|b| b.block.id == id)
        .unwrap_or_else(|| panic!("no block {id}"))
}

fn conflict(sketch: &Value, page: usize, pages: u8, more: Value) -> fit::Conflict {
    match fit::fit(&request(sketch, page, pages, more)) {
        Outcome::Conflict(conflict) => conflict,
        Outcome::Proposals(p) => panic!("answered: {:?}", p[0].layout.to_json()),
    }
}

#[test]
fn touching_photos_still_touch_on_a_spread() {
    let proposal = best(&pair(), 0, 2, json!({"approach": "stretch"}));
    let (a, b) = (
        block(&proposal, "p1").block.rect,
        block(&proposal, "p2").block.rect,
    );
    assert_eq!(a.right(), b.x);
    assert_eq!((a.y, a.h), (b.y, b.h));
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n == "Photos p1 and p2 still touch."),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn a_strip_over_the_fold_is_cut_in_two_that_meet() {
    let proposal = best(&pair(), 0, 2, json!({"approach": "stretch"}));
    let parts: Vec<&LayoutBlock> = proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.from == ["s1"])
        .collect();
    assert_eq!(parts.len(), 2);
    assert_eq!((parts[0].page, parts[1].page), (0, 1));
    assert_eq!(parts[0].block.rect.right(), parts[1].block.rect.x);
    assert_eq!(parts[0].block.bleed.len() + parts[1].block.bleed.len(), 2);
}

#[test]
fn more_photos_than_slots_split_slots_into_equal_parts() {
    for (count, pages) in [(3, 1), (4, 1), (6, 2), (9, 2)] {
        let proposal = best(&pair(), 0, pages, json!({"photos": {"count": count}}));
        assert_eq!(proposal.layout.photos(), count);
        // A slot that is on both pages (its copy in a mirrored page, its half astride the fold) is looked at page by page.
        for (id, page) in [("p1", 0), ("p1", 1), ("p2", 0), ("p2", 1)] {
            let parts: Vec<_> = proposal
                .layout
                .blocks
                .iter()
                .filter(|b| b.from == [id] && b.page == page)
                .collect();
            assert!(
                parts.iter().all(|p| p.block.rect.w == parts[0].block.rect.w
                    && p.block.rect.h == parts[0].block.rect.h),
                "{count}: {id}"
            );
        }
    }
}

#[test]
fn fewer_photos_merge_neighbours_and_then_give_room_to_write() {
    let one = best(&pair(), 0, 1, json!({"photos": {"count": 1}}));
    assert_eq!(one.layout.photos(), 1);
    assert_eq!(block(&one, "p1").from, ["p1", "p2"]);
    let apart = sketch(json!([
        {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 4}},
        {"id": "p2", "kind": "photo", "box": {"x": 8, "y": 8, "w": 3, "h": 3}},
    ]));
    let one = best(&apart, 0, 1, json!({"photos": {"count": 1}}));
    assert_eq!(block(&one, "p2").block.kind, Kind::Journal);
    assert!(
        one.sentences()
            .iter()
            .any(|n| n.contains("p2 becomes writing space")),
        "{:?}",
        one.sentences()
    );
}

#[test]
fn merged_slots_take_their_mats_along() {
    let matted = sketch(json!([
        {"id": "m1", "kind": "mat", "box": {"x": 1.75, "y": 1.75, "w": 3.5, "h": 4.5}, "under": "p1"},
        {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 3, "h": 4}},
        {"id": "m2", "kind": "mat", "box": {"x": 5.25, "y": 1.75, "w": 3.5, "h": 4.5}, "under": "p2"},
        {"id": "p2", "kind": "photo", "box": {"x": 5.5, "y": 2, "w": 3, "h": 4}},
    ]));
    let one = best(&matted, 0, 1, json!({"photos": {"count": 1}}));
    let mats: Vec<_> = one
        .layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Mat)
        .collect();
    assert_eq!(mats.len(), 1);
    assert_eq!(mats[0].from, ["m1", "m2"]);
    assert_eq!(
        block(&one, "p1").block.rect.x - mats[0].block.rect.x,
        metrosk_core::length::Length::inches(1, 4)
    );
}

#[test]
fn prints_go_where_they_lose_least_and_the_focal_one_to_the_largest_slot() {
    let three = sketch(json!([
        {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 6}},
        {"id": "p2", "kind": "photo", "box": {"x": 5.5, "y": 1, "w": 4, "h": 3}},
        {"id": "p3", "kind": "photo", "box": {"x": 5.5, "y": 4.5, "w": 2, "h": 3}},
    ]));
    let prints = json!([{"id": "level", "w": 4, "h": 3}, {"id": "small", "w": 2, "h": 3}, {"id": "tall", "w": 4, "h": 6, "focal": true}]);
    let proposal = best(&three, 0, 1, json!({"photos": prints}));
    let print = |id: &str| {
        block(&proposal, id)
            .placement
            .as_ref()
            .unwrap()
            .photo
            .clone()
    };
    assert_eq!(
        [print("p1"), print("p2"), print("p3")],
        ["tall", "level", "small"]
    );
    assert!(
        proposal.measures.trimmed < 0.02,
        "{}",
        proposal.measures.trimmed
    );
    let focal = json!([{"id": "level", "w": 4, "h": 3, "focal": true}, {"id": "small", "w": 2, "h": 3}, {"id": "tall", "w": 4, "h": 6}]);
    let proposal = best(&three, 0, 1, json!({"photos": focal}));
    assert_eq!(
        block(&proposal, "p1").placement.as_ref().unwrap().photo,
        "level"
    );
}

#[test]
fn whole_prints_keep_their_size() {
    let prints = json!([{"id": "a", "w": 3.5, "h": 5}, {"id": "b", "w": 3.5, "h": 5}]);
    let proposal = best(
        &pair(),
        0,
        1,
        json!({"photos": prints, "photo_rule": "whole"}),
    );
    for id in ["p1", "p2"] {
        let rect = block(&proposal, id).block.rect;
        assert_eq!((rect.w.ticks(), rect.h.ticks()), (711_200, 1_016_000));
    }
    assert_eq!(proposal.measures.trimmed, 0.0);
}

#[test]
fn a_centred_photo_clears_the_fold_and_says_so() {
    let centred =
        sketch(json!([{"id": "p1", "kind": "photo", "box": {"x": 4, "y": 3, "w": 4, "h": 4}}]));
    let proposal = best(&centred, 0, 2, json!({"approach": "stretch"}));
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("p1") && n.contains("to clear the fold")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn a_split_centred_slot_stands_astride_the_fold() {
    let centred =
        sketch(json!([{"id": "p1", "kind": "photo", "box": {"x": 4, "y": 3, "w": 4, "h": 4}}]));
    let proposal = best(
        &centred,
        0,
        2,
        json!({"approach": "stretch", "photos": {"count": 2}}),
    );
    let pages: Vec<u8> = proposal.layout.blocks.iter().map(|b| b.page).collect();
    assert_eq!(pages, [0, 1]);
    assert!(proposal.measures.drift_max < 0.01);
}

#[test]
fn pins_are_met_and_the_rest_goes_along() {
    let pins = json!([{"block": "p1", "edge": "left", "at": 1.5}, {"block": "t1", "edge": "width", "at": 5}]);
    let proposal = best(&pair(), 0, 1, json!({"pins": pins}));
    assert_eq!(block(&proposal, "p1").block.rect.x.ticks(), 304_800);
    assert_eq!(block(&proposal, "t1").block.rect.w.ticks(), 1_016_000);
    assert_eq!(
        block(&proposal, "p1").block.rect.right(),
        block(&proposal, "p2").block.rect.x
    );
}

#[test]
fn pins_that_clash_are_named_and_no_others() {
    let pins = json!([
        {"block": "t1", "edge": "top", "at": 6.5},
        {"block": "p2", "edge": "left", "at": 3},
        {"block": "p1", "edge": "right", "at": 8},
        {"block": "t1", "edge": "width", "at": 5},
    ]);
    let found = conflict(&pair(), 0, 1, json!({"approach": "scale", "pins": pins}));
    assert_eq!(found.pins, [1, 2]);
    assert_eq!(found.blocks, ["p1", "p2"]);
    assert_eq!(found.limits, ["photos_apart"]);
    assert!(
        found.text.contains("p1") && found.text.contains("8 in") && found.text.contains("3 in"),
        "{}",
        found.text
    );
}

#[test]
fn a_pin_against_a_limit_names_the_limit() {
    let outside = json!([{"block": "p1", "edge": "left", "at": 0.125}]);
    let found = conflict(&pair(), 0, 1, json!({"approach": "scale", "pins": outside}));
    assert_eq!(
        (found.pins, found.blocks, found.limits),
        (vec![0], vec!["p1".to_owned()], vec!["margin".to_owned()])
    );
    let on_fold = json!([{"block": "p1", "edge": "left", "at": 10}, {"block": "p1", "edge": "width", "at": 4}]);
    let found = conflict(&pair(), 0, 2, json!({"pins": on_fold}));
    assert_eq!(
        (found.pins, found.limits),
        (vec![0, 1], vec!["fold_guard".to_owned()])
    );
    let unbled = json!([{"block": "s1", "edge": "left", "at": 1}]);
    let found = conflict(&pair(), 0, 1, json!({"approach": "scale", "pins": unbled}));
    assert_eq!(
        (found.blocks, found.limits),
        (vec!["s1".to_owned()], vec!["bleed".to_owned()])
    );
    let twice =
        json!([{"block": "p1", "edge": "left", "at": 1}, {"block": "p1", "edge": "left", "at": 2}]);
    assert_eq!(
        conflict(&pair(), 0, 1, json!({"approach": "scale", "pins": twice})).pins,
        [0, 1]
    );
}

#[test]
fn whole_prints_that_are_too_large_are_a_conflict() {
    let prints = json!([{"id": "a", "w": 7, "h": 5}, {"id": "b", "w": 7, "h": 5}]);
    let found = conflict(
        &pair(),
        0,
        1,
        json!({"approach": "scale", "photos": prints, "photo_rule": "whole"}),
    );
    assert!(
        found.pins.is_empty() && found.limits.contains(&"prints".to_owned()),
        "{found:?}"
    );
}

#[test]
fn photos_without_a_slot_are_a_conflict() {
    let bare =
        sketch(json!([{"id": "t1", "kind": "title", "box": {"x": 2, "y": 2, "w": 4, "h": 1}}]));
    assert_eq!(
        conflict(&bare, 0, 1, json!({"photos": {"count": 2}})).limits,
        ["photos"]
    );
    assert_eq!(best(&bare, 0, 1, json!({})).layout.blocks.len(), 1);
}

#[test]
fn a_turned_and_flipped_sketch_is_fitted_as_it_then_lies() {
    let proposal = best(
        &pair(),
        0,
        1,
        json!({"approach": "scale", "turn": 90, "flip": "across"}),
    );
    let rect = block(&proposal, "p1").block.rect;
    // (2, 2, 3, 4) turned clockwise is (6, 2, 4, 3), flipped across (2, 2, 4, 3).
    assert_eq!(
        [rect.x, rect.y, rect.w, rect.h].map(|l| l.ticks() / 203_200),
        [2, 2, 4, 3]
    );
}

#[test]
fn a_tilted_photo_keeps_its_turn_and_its_corners_inside_the_margin() {
    let tilted = sketch(
        json!([{"id": "p1", "kind": "photo", "box": {"x": 0.5, "y": 0.5, "w": 5, "h": 4}, "turn": 10}]),
    );
    let proposal = best(&tilted, 3, 1, json!({}));
    assert_eq!(block(&proposal, "p1").block.turn, 10.0);
}

#[test]
fn a_refit_with_held_choices_meets_a_moved_pin() {
    let base = request(
        &metrosk_demo::sketches(1)[0].to_json(),
        0,
        2,
        json!({"photos": {"count": 6}}),
    );
    let found = sound(&base).swap_remove(0);
    let mut pinned = base.clone();
    pinned.pins.push(fit::Pin {
        block: "t1".to_owned(),
        edge: fit::PinEdge::from_name("left").unwrap(),
        at: metrosk_core::length::Length::inches(13, 1),
        to: None,
    });
    let Outcome::Proposals(again) = fit::refit(&pinned, &found.choices).unwrap() else {
        panic!("the title may stand there")
    };
    common::assert_sound(&pinned, &again[0]);
    let pages = |p: &Proposal| {
        p.layout
            .blocks
            .iter()
            .map(|b| (b.block.id.clone(), b.page))
            .collect::<Vec<_>>()
    };
    assert_eq!(pages(&again[0]), pages(&found));
}

#[test]
fn a_tilted_matted_photo_pinned_at_the_margin_stays_inside_it() {
    let tilted = sketch(json!([
        {"id": "m0", "kind": "mat", "box": {"x": 0.375, "y": 0.625, "w": 6, "h": 4.75}, "under": "p0", "turn": -8},
        {"id": "p0", "kind": "photo", "box": {"x": 0.5, "y": 0.75, "w": 5.75, "h": 4.5}, "turn": -8},
        {"id": "x1", "kind": "journal", "box": {"x": 8, "y": 1, "w": 3.5, "h": 3.5}},
        {"id": "m2", "kind": "mat", "box": {"x": 4.875, "y": 2.375, "w": 4, "h": 6.25}, "under": "p2"},
        {"id": "p2", "kind": "photo", "box": {"x": 5, "y": 2.5, "w": 3.75, "h": 6}},
        {"id": "b5", "kind": "paper", "box": {"x": 2.25, "y": 3.75, "w": 9.75, "h": 4}, "bleed": ["right"]},
    ]));
    for at in [2.25, 2.5, 2.75, 3.0] {
        let pinned = request(
            &tilted,
            0,
            2,
            json!({"pins": [{"block": "m0", "edge": "bottom", "at": at}]}),
        );
        if let Outcome::Proposals(proposals) = fit::fit(&pinned) {
            proposals
                .iter()
                .for_each(|p| common::assert_sound(&pinned, p));
        }
    }
}

#[test]
fn a_pin_that_leaves_hardly_any_room_is_met_or_named() {
    let tight = sketch(json!([
        {"id": "p0", "kind": "photo", "box": {"x": 6, "y": 1, "w": 5.75, "h": 4}, "turn": 8},
        {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 3.75, "w": 12, "h": 0.75}, "bleed": ["left", "right"]},
        {"id": "p2", "kind": "photo", "box": {"x": 9, "y": 4.25, "w": 1.75, "h": 2.5}},
        {"id": "x3", "kind": "paper", "box": {"x": 7, "y": 6.25, "w": 2, "h": 4.5}},
        {"id": "p4", "kind": "photo", "box": {"x": 4.5, "y": 4.75, "w": 3.25, "h": 5.75}, "turn": -3},
        {"id": "p5", "kind": "photo", "box": {"x": 4.5, "y": 2.5, "w": 3.5, "h": 4.5}},
    ]));
    let mut met = 0;
    for at in (150..176).map(|n| f64::from(n) / 16.0) {
        let pinned = request(
            &tight,
            0,
            2,
            json!({"pins": [{"block": "p0", "edge": "top", "at": at}]}),
        );
        match fit::fit(&pinned) {
            Outcome::Proposals(proposals) => {
                met += 1;
                proposals
                    .iter()
                    .for_each(|p| common::assert_sound(&pinned, p));
            }
            Outcome::Conflict(conflict) => assert_eq!(conflict.pins, [0]),
        }
    }
    assert!((1..26).contains(&met), "{met} of 26 could be met");
}

#[test]
fn a_pin_takes_a_photo_and_what_is_beyond_it_to_the_other_page() {
    let proposal = best(
        &pair(),
        0,
        2,
        json!({"approach": "stretch", "pins": [{"block": "p1", "edge": "left", "at": 14}]}),
    );
    assert_eq!(
        [block(&proposal, "p1").page, block(&proposal, "p2").page],
        [1, 1]
    );
    let proposal = best(
        &pair(),
        0,
        2,
        json!({"approach": "stretch", "pins": [{"block": "p2", "edge": "right", "at": 8}]}),
    );
    assert_eq!(
        [block(&proposal, "p1").page, block(&proposal, "p2").page],
        [0, 0]
    );
}

#[test]
fn what_stands_under_a_whole_print_stays_on_the_ruler() {
    let prints = json!([{"id": "a", "w": 89, "h": 127}, {"id": "b", "w": 89, "h": 127}]);
    let request = request(
        &pair(),
        4,
        1,
        json!({"photos": prints, "photo_rule": "whole", "approach": "scale"}),
    );
    let proposal = sound(&request).swap_remove(0);
    let title = block(&proposal, "t1").block.rect;
    for length in [title.x, title.y, title.w, title.h] {
        assert!(
            length.is_on(request.snap),
            "{}",
            length.to_text(metrosk_core::length::Unit::Millimetre)
        );
    }
}
