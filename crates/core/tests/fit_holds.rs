//! The keep-list and the readings that a maker switches off or adds.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Proposal, Request};
use metrosk_core::length::Unit;
use serde_json::{Value, json};

/// A focal photo over a row of two that share its left and right edge; writing beside them.
fn sketch() -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Held", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [
        {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 6, "h": 4}},
        {"id": "p2", "kind": "photo", "box": {"x": 1, "y": 5.25, "w": 2.75, "h": 3}},
        {"id": "p3", "kind": "photo", "box": {"x": 4.25, "y": 5.25, "w": 2.75, "h": 3}},
        {"id": "j1", "kind": "journal", "box": {"x": 8, "y": 1.5, "w": 3, "h": 5}},
        {"id": "t1", "kind": "title", "box": {"x": 1, "y": 9, "w": 8, "h": 1.5}},
    ]})
}

fn fitted(page: usize, more: Value) -> Proposal {
    let mut more = more;
    more["approach"] = json!("scale");
    sound(&request(&sketch(), page, 1, more)).swap_remove(0)
}

/// Left, top, width, height in inches.
fn place(proposal: &Proposal, id: &str) -> [f64; 4] {
    let block = proposal
        .layout
        .blocks
        .iter()
        .find(|b| b.block.id == id)
        .unwrap();
    let r = block.block.rect;
    [r.x, r.y, r.w, r.h].map(|l| l.to_units(Unit::Inch))
}

const SIX_BY_EIGHT: usize = 3;
const LETTER: usize = 1;

#[test]
fn a_size_that_is_held_stays_and_one_that_is_not_gives_way() {
    // 6 x 8: both scales are far apart, so that the journal would be made narrow.
    let plain = place(&fitted(SIX_BY_EIGHT, json!({})), "p1");
    let held = place(&fitted(SIX_BY_EIGHT, json!({"keep": {"p1": "size"}})), "p1");
    let (w, h) = (
        6.0 * (0.5_f64 * 8.0 / 12.0).sqrt(),
        4.0 * (0.5_f64 * 8.0 / 12.0).sqrt(),
    );
    let off = |p: [f64; 4]| (p[2] - w).abs() + (p[3] - h).abs();
    assert!(off(held) <= off(plain) + 1e-9, "{held:?} {plain:?}");
    assert!(off(held) < 0.15, "{held:?} for {w} x {h}");
}

#[test]
fn a_place_that_is_held_is_nearer_to_it() {
    let wanted = 9.5 / 12.0 * 6.0;
    let off = |p: &Proposal| (place(p, "j1")[0] + place(p, "j1")[2] / 2.0 - wanted).abs();
    let pins = json!([{"block": "p1", "edge": "left", "at": 1.0}]);
    let (plain, held) = (
        fitted(SIX_BY_EIGHT, json!({"pins": pins})),
        fitted(SIX_BY_EIGHT, json!({"pins": pins, "keep": {"j1": "place"}})),
    );
    assert!(
        off(&held) <= off(&plain) + 1e-9 && off(&held) < 0.1,
        "{} {}",
        off(&held),
        off(&plain)
    );
}

#[test]
fn a_line_that_is_switched_off_holds_nothing_and_the_rest_of_it_holds_on() {
    // The title is pinned off the line; with the line on, it takes the photos along.
    let pins = json!([{"block": "t1", "edge": "left", "at": 1.5}]);
    let lefts = |more: Value| {
        let p = fitted(LETTER, more);
        ["p1", "p2", "t1"].map(|id| place(&p, id)[0])
    };
    let on = lefts(json!({"pins": pins}));
    assert_eq!(on, [1.5, 1.5, 1.5]);
    let off = lefts(
        json!({"pins": pins, "readings": {"off": [{"what": "line", "along": "left", "blocks": ["t1", "p1"]}]}}),
    );
    assert!(off[0] < 1.5 && (off[2] - 1.5).abs() < 1e-9, "{off:?}");
    let title_alone = lefts(json!({"pins": pins, "keep": {"t1": "free"}}));
    assert!(
        title_alone[0] < 1.5 && title_alone[0] == title_alone[1],
        "{title_alone:?}"
    );
}

#[test]
fn a_reading_that_is_added_is_held_to() {
    let more = json!({"readings": {"on": [
        {"what": "line", "along": "top", "blocks": ["p1", "j1"]},
        {"what": "equal", "along": "width", "blocks": ["j1", "p2"]},
        {"what": "touch", "blocks": ["p2", "p3"]},
    ]}});
    let p = fitted(0, more);
    let (p1, p2, p3, j1) = (
        place(&p, "p1"),
        place(&p, "p2"),
        place(&p, "p3"),
        place(&p, "j1"),
    );
    assert_eq!(p1[1], j1[1]);
    assert_eq!(p2[2], j1[2]);
    assert_eq!(p2[0] + p2[2], p3[0]);
}

#[test]
fn what_is_held_turns_with_the_sketch_and_is_said_of_copies() {
    // A quarter turn clockwise: what were top edges are right edges.
    let on = json!({"on": [{"what": "line", "along": "top", "blocks": ["p1", "j1"]}]});
    let turned = fitted(0, json!({"turn": 90, "readings": on}));
    let right = |id: &str| place(&turned, id)[0] + place(&turned, id)[2];
    assert_eq!(right("p1"), right("j1"));
    let doubled = sound(&request(
        &sketch(),
        0,
        2,
        json!({"approach": "echo", "readings": {"on": [{"what": "line", "along": "top", "blocks": ["p1", "j1"]}]}}),
    ));
    let tops: Vec<f64> = (doubled[0].layout.blocks.iter())
        .filter(|b| b.from == ["p1"] || b.from == ["j1"])
        .map(|b| b.block.rect.y.to_units(Unit::Inch))
        .collect();
    assert_eq!(tops.len(), 4);
    assert!(tops.iter().all(|t| *t == tops[0]), "{tops:?}");
}

#[test]
fn what_is_not_understood_is_told_at_its_place() {
    for (field, value, path) in [
        ("keep", json!({"p9": "place"}), "keep.p9"),
        ("keep", json!({"p1": "tight"}), "keep.p1"),
        ("keep", json!(["p1"]), "keep"),
        (
            "readings",
            json!({"off": [{"what": "line", "along": "up", "blocks": ["p1", "p2"]}]}),
            "readings.off[0].along",
        ),
        (
            "readings",
            json!({"off": [{"what": "nearness", "blocks": ["p1", "p2"]}]}),
            "readings.off[0].what",
        ),
        (
            "readings",
            json!({"on": [{"what": "touch", "blocks": ["p1", "p2", "p3"]}]}),
            "readings.on[0].blocks",
        ),
        (
            "readings",
            json!({"on": [{"what": "touch", "blocks": ["p1", "p9"]}]}),
            "readings.on[0].blocks[1]",
        ),
    ] {
        let mut broken = json!({"format": "metrosk-fit/1", "unit": "in", "sketch": sketch(), "target": {"page": {"w": 12, "h": 12}, "pages": 1}});
        broken[field] = value;
        let invalid = Request::from_json(&broken).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {invalid}"
        );
    }
}
