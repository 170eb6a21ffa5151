//! Pins between blocks: distances, lines, touching, equal sizes, parts of a size; and what clashes.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{self, Outcome, Proposal, Request};
use metrosk_core::geometry::Span;
use metrosk_core::length::Length;
use serde_json::{Value, json};

fn sketch() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Three kites", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 8, "w": 12, "h": 1.5}, "bleed": ["left", "right"]},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1.5, "w": 3, "h": 4}},
            {"id": "p2", "kind": "photo", "box": {"x": 4.75, "y": 2, "w": 3.5, "h": 4.5}},
            {"id": "p3", "kind": "photo", "box": {"x": 9, "y": 1.25, "w": 2, "h": 3}},
            {"id": "t1", "kind": "title", "box": {"x": 1.5, "y": 10, "w": 5, "h": 1}},
        ],
    })
}

fn pinned(pages: u8, pins: Value) -> Request {
    request(&sketch(), 0, pages, json!({"pins": pins}))
}

fn place(proposal: &Proposal, id: &str) -> Span {
    let parts = proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.from.iter().any(|f| f == id));
    parts.map(|b| b.extent()).reduce(Span::around).unwrap()
}

fn inches(ticks: f64) -> f64 {
    ticks / Length::inches(1, 1).ticks() as f64
}

#[test]
fn a_distance_between_two_blocks_holds_whatever_else_moves() {
    for pages in [1, 2] {
        let pins = json!([{"block": "p2", "edge": "left", "to": {"block": "p1", "edge": "right"}, "at": 0.5}]);
        for proposal in sound(&pinned(pages, pins))
            .iter()
            .filter(|p| p.approach.name() != "frame")
        {
            let gap = inches(place(proposal, "p2").l - place(proposal, "p1").r);
            let copies = ["mirror", "echo"].contains(&proposal.approach.name());
            assert!(
                copies || (gap - 0.5).abs() < 1e-3,
                "{} on {pages}: {gap}",
                proposal.approach.name()
            );
        }
    }
}

#[test]
fn blocks_are_held_in_one_line_and_as_wide_as_each_other() {
    let pins = json!([
        {"block": "p2", "edge": "top", "to": {"block": "p1", "edge": "top"}},
        {"block": "p3", "edge": "centre-y", "to": {"block": "p1", "edge": "centre-y"}},
        {"block": "p2", "edge": "width", "to": {"block": "p1", "edge": "width"}},
        {"block": "p3", "edge": "width", "to": {"block": "p1", "edge": "width"}},
    ]);
    let first = &sound(&pinned(1, pins))[0];
    let [p1, p2, p3] = ["p1", "p2", "p3"].map(|id| place(first, id));
    assert!((p1.t - p2.t).abs() < 2.0 && (p1.cy() - p3.cy()).abs() < 2.0);
    assert!((p1.w() - p2.w()).abs() < 2.0 && (p1.w() - p3.w()).abs() < 2.0);
}

#[test]
fn a_size_is_held_to_a_part_of_another_and_more() {
    let pins = json!([{"block": "t1", "edge": "width", "to": {"block": "s1", "edge": "width", "times": 0.5}, "at": 0.25}]);
    let first = &sound(&pinned(1, pins))[0];
    assert!((inches(place(first, "t1").w()) - 6.25).abs() < 1e-3);
}

#[test]
fn pins_that_clash_are_named_with_both_their_blocks_and_no_others() {
    let pins = json!([
        {"block": "t1", "edge": "left", "at": 1.5},
        {"block": "p2", "edge": "left", "to": {"block": "p1", "edge": "right"}, "at": 1},
        {"block": "p2", "edge": "left", "to": {"block": "p1", "edge": "left"}, "at": 2},
        {"block": "p1", "edge": "width", "at": 3},
    ]);
    let Outcome::Conflict(conflict) = fit::fit(&pinned(1, pins)) else {
        panic!("3 + 1 is not 2")
    };
    assert_eq!(conflict.pins, vec![1, 2, 3]);
    assert_eq!(conflict.blocks, vec!["p1", "p2"]);
    assert!(
        conflict
            .text
            .contains("the left edge of the photo p2 1 in right of the right edge of the photo p1"),
        "{}",
        conflict.text
    );
    assert!(
        conflict.text.contains("the photo p1 3 in wide"),
        "{}",
        conflict.text
    );
}

#[test]
fn a_pin_to_another_block_is_checked_field_by_field() {
    let cases = [
        (
            json!({"block": "p2", "edge": "left", "to": {"block": "p9", "edge": "left"}}),
            "pins[0].to.block",
        ),
        (
            json!({"block": "p2", "edge": "left", "to": {"block": "p1", "edge": "top"}}),
            "pins[0].to.edge",
        ),
        (
            json!({"block": "p2", "edge": "left", "to": {"block": "p1", "edge": "width"}}),
            "pins[0].to.edge",
        ),
        (
            json!({"block": "p2", "edge": "left", "to": {"block": "p2", "edge": "right"}}),
            "pins[0].to.block",
        ),
        (
            json!({"block": "p2", "edge": "left", "to": {"block": "p1", "edge": "left", "times": 2}}),
            "pins[0].to.times",
        ),
        (
            json!({"block": "p2", "edge": "width", "to": {"block": "p1", "edge": "width", "times": 0}}),
            "pins[0].to.times",
        ),
        (
            json!({"block": "p2", "edge": "middle", "to": {"block": "p1", "edge": "left"}}),
            "pins[0].edge",
        ),
        (json!({"block": "p2", "edge": "left"}), "pins[0].at"),
    ];
    for (pin, path) in cases {
        let document = json!({
            "format": "metrosk-fit/1", "unit": "in", "sketch": sketch(),
            "target": {"page": {"w": 12, "h": 12}, "pages": 1}, "pins": [pin],
        });
        let invalid = Request::from_json(&document).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {:?}",
            invalid.findings
        );
    }
}
