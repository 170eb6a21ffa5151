//! What she chooses for a slot: split, a row made longer, a large print with small ones, writing space, paper, nothing.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Proposal, Request};
use metrosk_core::geometry::Span;
use metrosk_core::sketch::Kind;
use serde_json::{Value, json};

fn sketch() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "A row and a large one", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "m1", "kind": "mat", "box": {"x": 0.75, "y": 0.75, "w": 5.5, "h": 6.5}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 5, "h": 6}},
            {"id": "p2", "kind": "photo", "box": {"x": 1, "y": 8, "w": 3, "h": 2.5}},
            {"id": "p3", "kind": "photo", "box": {"x": 4.25, "y": 8, "w": 3, "h": 2.5}},
            {"id": "p4", "kind": "photo", "box": {"x": 7.5, "y": 8, "w": 3, "h": 2.5}},
            {"id": "t1", "kind": "title", "box": {"x": 7, "y": 2, "w": 4, "h": 1}},
        ],
    })
}

fn with(slots: Value, more: Value) -> Result<Request, metrosk_core::document::Invalid> {
    let mut fit = json!({
        "format": "metrosk-fit/1", "unit": "in", "sketch": sketch(), "snap": 0.125, "slots": slots,
        "target": {"page": {"w": 12, "h": 12}, "pages": 1, "margin": 0.25},
    });
    fit.as_object_mut()
        .unwrap()
        .extend(more.as_object().unwrap().clone());
    Request::from_json(&fit)
}

fn first(slots: Value, more: Value) -> Proposal {
    sound(&with(slots, more).unwrap()).swap_remove(0)
}

fn photos(proposal: &Proposal, from: &[&str]) -> Vec<Span> {
    let own =
        |b: &&metrosk_core::layout::LayoutBlock| b.block.kind == Kind::Photo && b.from == from;
    proposal
        .layout
        .blocks
        .iter()
        .filter(own)
        .map(|b| b.extent())
        .collect()
}

#[test]
fn a_slot_is_split_as_she_says_and_the_others_take_what_is_left() {
    let six = first(
        json!([{"photos": ["p1"], "as": "cells", "cols": 1, "rows": 2}]),
        json!({"photos": {"count": 6}}),
    );
    let halves = photos(&six, &["p1"]);
    assert_eq!(halves.len(), 2);
    assert!((halves[0].h() - halves[1].h()).abs() < 2.0 && halves[0].b < halves[1].t);
    assert_eq!(
        six.layout
            .blocks
            .iter()
            .filter(|b| b.block.kind == Kind::Photo)
            .count(),
        6
    );
    let as_drawn = first(
        json!([{"photos": ["p1"], "as": "cells", "cols": 1, "rows": 2}]),
        json!({}),
    );
    assert_eq!(
        as_drawn
            .layout
            .blocks
            .iter()
            .filter(|b| b.block.kind == Kind::Photo)
            .count(),
        5
    );
}

#[test]
fn a_row_is_made_longer_within_its_own_place() {
    let proposal = first(
        json!([{"photos": ["p2", "p3", "p4"], "as": "cells", "cols": 4}]),
        json!({"photos": {"count": 5}}),
    );
    let row = photos(&proposal, &["p2", "p3", "p4"]);
    assert_eq!(row.len(), 4);
    assert!(row.windows(2).all(|w| (w[0].t - w[1].t).abs() < 2.0
        && (w[0].w() - w[1].w()).abs() < 2.0
        && w[0].r < w[1].l));
    assert!(proposal.measures.drift_max < 0.02);
}

#[test]
fn a_large_print_has_small_ones_beside_or_below_it() {
    for (along, below) in [("beside", false), ("below", true)] {
        let proposal = first(
            json!([{"photos": ["p1"], "as": "focal", "small": 3, "along": along}]),
            json!({}),
        );
        let prints = photos(&proposal, &["p1"]);
        assert_eq!(prints.len(), 4);
        let large = prints[0];
        assert!(
            prints[1..].iter().all(|s| s.area() * 2.0 < large.area()),
            "{prints:?}"
        );
        assert!(
            prints[1..]
                .iter()
                .all(|s| if below { s.t > large.b } else { s.l > large.r })
        );
        let around = prints[1..].iter().copied().reduce(Span::around).unwrap();
        let (own, other) = if below {
            (around.w(), large.w())
        } else {
            (around.h(), large.h())
        };
        assert!(
            (own - other).abs() < 2.0,
            "the small ones are as long as the large one"
        );
        assert!(
            proposal
                .sentences()
                .iter()
                .any(|n| n.contains("one large print") && n.contains("3 small ones")),
            "{:?}",
            proposal.sentences()
        );
    }
}

#[test]
fn prints_go_to_a_slot_with_a_large_place_the_focal_one_first() {
    let prints = json!([
        {"id": "a", "w": 4, "h": 3}, {"id": "b", "w": 6, "h": 8, "focal": true}, {"id": "c", "w": 3, "h": 4}, {"id": "d", "w": 4, "h": 3},
        {"id": "e", "w": 3, "h": 4}, {"id": "f", "w": 4, "h": 3}
    ]);
    let proposal = first(
        json!([{"photos": ["p1"], "as": "focal", "small": 2}]),
        json!({"photos": prints}),
    );
    let areas: Vec<(f64, String)> = (proposal.layout.blocks.iter())
        .filter_map(|b| Some((b.extent().area(), b.placement.as_ref()?.photo.clone())))
        .collect();
    assert_eq!(
        areas.iter().max_by(|a, b| a.0.total_cmp(&b.0)).unwrap().1,
        "b"
    );
}

/// One large slot and its title.
fn one_slot() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "One large", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "m1", "kind": "mat", "box": {"x": 0.875, "y": 0.875, "w": 8.25, "h": 7.25}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 8, "h": 7}},
            {"id": "t1", "kind": "title", "box": {"x": 1, "y": 9, "w": 8, "h": 1.5}},
        ],
    })
}

#[test]
fn a_large_slot_shows_a_large_print_with_small_ones_where_the_prints_are_so() {
    let large = json!({"id": "a", "w": 5, "h": 7});
    let small = |id: &str| json!({"id": id, "w": 2.5, "h": 2.25});
    let prints = json!([small("b"), large, small("c"), small("d")]);
    let proposal = sound(&request(&one_slot(), 0, 1, json!({"photos": prints}))).swap_remove(0);
    let shown = photos(&proposal, &["p1"]);
    assert_eq!(shown.len(), 4);
    assert!(
        shown[1..].iter().all(|s| s.area() * 2.0 < shown[0].area()),
        "{shown:?}"
    );
    let first = proposal
        .layout
        .blocks
        .iter()
        .find(|b| b.from == ["p1"])
        .unwrap();
    assert_eq!(first.placement.as_ref().unwrap().photo, "a");
    // Trimmed less than in four even cells, and nobody had to choose it.
    let even = json!([{"photos": ["p1"], "as": "cells", "cols": 2, "rows": 2}]);
    let other = sound(&request(
        &one_slot(),
        0,
        1,
        json!({"photos": prints, "slots": even}),
    ))
    .swap_remove(0);
    assert!(
        proposal.measures.trimmed < other.measures.trimmed,
        "{} against {}",
        proposal.measures.trimmed,
        other.measures.trimmed
    );
}

#[test]
fn prints_of_one_size_share_a_slot_evenly() {
    let prints: Vec<Value> = (0..4)
        .map(|n| json!({"id": format!("f{n}"), "w": 6, "h": 4}))
        .collect();
    let proposal = sound(&request(&one_slot(), 0, 1, json!({"photos": prints}))).swap_remove(0);
    let shown = photos(&proposal, &["p1"]);
    assert!(
        shown
            .iter()
            .all(|s| (s.area() / shown[0].area() - 1.0).abs() < 0.01),
        "{shown:?}"
    );
}

#[test]
fn a_slot_becomes_writing_space_paper_or_nothing() {
    let proposal = first(
        json!([{"photos": ["p2"], "as": "journal"}, {"photos": ["p3"], "as": "paper"}, {"photos": ["p1"], "as": "gone"}]),
        json!({}),
    );
    let kind = |id: &str| {
        proposal
            .layout
            .blocks
            .iter()
            .find(|b| b.from == [id])
            .map(|b| b.block.kind)
    };
    assert_eq!(
        (kind("p2"), kind("p3"), kind("p4")),
        (Some(Kind::Journal), Some(Kind::Paper), Some(Kind::Photo))
    );
    assert_eq!(
        (kind("p1"), kind("m1")),
        (None, None),
        "its mat goes with it"
    );
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("p1") && n.contains("m1") && n.contains("left out")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn choices_hold_on_a_spread_by_every_way() {
    let slots =
        json!([{"photos": ["p1"], "as": "focal", "small": 2}, {"photos": ["p4"], "as": "journal"}]);
    for more in [
        json!({"slots": slots}),
        json!({"slots": slots, "photos": {"count": 8}}),
    ] {
        for proposal in sound(&request(&sketch(), 0, 2, more)) {
            assert!(
                proposal
                    .layout
                    .blocks
                    .iter()
                    .any(|b| b.from == ["p4"] && b.block.kind == Kind::Journal),
                "{}",
                proposal.approach.name()
            );
        }
    }
}

#[test]
fn choices_that_cannot_be_are_told_with_their_place() {
    let cases = [
        (
            json!([{"photos": ["t1"], "as": "paper"}]),
            json!({}),
            "slots[0].photos",
        ),
        (
            json!([{"photos": [], "as": "paper"}]),
            json!({}),
            "slots[0].photos",
        ),
        (
            json!([{"photos": ["p1", "p2"], "as": "journal"}]),
            json!({}),
            "slots[0].photos",
        ),
        (
            json!([{"photos": ["p1"], "as": "cells", "cols": 0}]),
            json!({}),
            "slots[0].cols",
        ),
        (
            json!([{"photos": ["p1"], "as": "focal"}]),
            json!({}),
            "slots[0].small",
        ),
        (
            json!([{"photos": ["p1"], "as": "torn"}]),
            json!({}),
            "slots[0].as",
        ),
        (
            json!([{"photos": ["p1"], "as": "paper"}, {"photos": ["p1"], "as": "gone"}]),
            json!({}),
            "slots[1].photos",
        ),
        (
            json!([{"photos": ["p2", "p4"], "as": "cells", "cols": 1}]),
            json!({}),
            "slots[0]",
        ),
        (
            json!([{"photos": ["p1"], "as": "cells", "cols": 3, "rows": 2}]),
            json!({"photos": {"count": 5}}),
            "slots",
        ),
    ];
    for (slots, more, path) in cases {
        let invalid = with(slots, more).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {:?}",
            invalid.findings
        );
    }
}
