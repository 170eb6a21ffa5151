//! Where leftover room goes, what counts more on a page of another shape, and why each block is where it is.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Emphasis, Proposal};
use metrosk_core::geometry::Span;
use metrosk_core::length::Length;
use serde_json::{Value, json};

fn row() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Row of three", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "m1", "kind": "mat", "box": {"x": 0.625, "y": 2.875, "w": 3.25, "h": 4.25}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 0.75, "y": 3, "w": 3, "h": 4}},
            {"id": "p2", "kind": "photo", "box": {"x": 4.25, "y": 3, "w": 3, "h": 4}},
            {"id": "p3", "kind": "photo", "box": {"x": 7.75, "y": 3, "w": 3, "h": 4}},
            {"id": "t1", "kind": "title", "box": {"x": 2, "y": 8.5, "w": 6, "h": 1}},
        ],
    })
}

/// Three prints of 2 1/2 × 3 1/2 in, which keep their size: 2 in are left over.
fn with_slack(slack: Value) -> Proposal {
    let prints: Vec<Value> = (1..=3)
        .map(|n| json!({"id": format!("f{n}"), "w": 2.5, "h": 3.5}))
        .collect();
    sound(&request(
        &row(),
        0,
        1,
        json!({"photos": prints, "photo_rule": "whole", "slack": slack}),
    ))
    .swap_remove(0)
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

/// Both gaps of the row, in inches.
fn gaps(proposal: &Proposal) -> [f64; 2] {
    let [a, b, c] = ["p1", "p2", "p3"].map(|id| place(proposal, id));
    [inches(b.l - a.r), inches(c.l - b.r)]
}

#[test]
fn leftover_room_goes_where_she_says() {
    let [a, b] = gaps(&with_slack(json!("outside")));
    assert!((a - 0.5).abs() < 0.01 && (b - 0.5).abs() < 0.01, "{a} {b}");
    let between = with_slack(json!("between"));
    let [a, b] = gaps(&between);
    assert!((a - b).abs() < 0.01 && a > 1.0, "{a} {b}");
    assert!(
        (inches(place(&between, "p1").l) - 0.75).abs() < 0.13,
        "the row keeps its ends"
    );
    let [a, b] = gaps(&with_slack(json!({"gap": ["p3", "p2"]})));
    assert!((a - 0.5).abs() < 0.01 && b > 0.9, "{a} {b}");
}

#[test]
fn leftover_room_goes_into_the_mats() {
    let wide = sound(&request(
        &row(),
        0,
        2,
        json!({"approach": "stretch", "slack": "mats"}),
    ))
    .swap_remove(0);
    let usual = sound(&request(&row(), 0, 2, json!({"approach": "stretch"}))).swap_remove(0);
    let border = |p: &Proposal| inches(place(p, "p1").l - place(p, "m1").l);
    assert!((border(&usual) - 0.125).abs() < 1e-3);
    assert!(border(&wide) > 0.16, "{}", border(&wide));
    let (m, p) = (place(&wide, "m1"), place(&wide, "p1"));
    let even = [p.l - m.l, p.t - m.t, m.r - p.r, m.b - p.b];
    assert!(
        even.iter().all(|b| (b - even[0]).abs() < 2.0),
        "an even border stays even"
    );
}

#[test]
fn a_page_of_another_shape_shows_positions_first_and_proportions_first() {
    let by = |e: Emphasis, from: &[Proposal]| from.iter().find(|p| p.emphasis == Some(e)).cloned();
    let target = json!({"page": {"w": 12, "h": 7}, "pages": 1, "margin": 0.25});
    let long = sound(&request(&row(), 0, 1, json!({"target": target})));
    let (positions, proportions) = (
        by(Emphasis::Positions, &long),
        by(Emphasis::Proportions, &long),
    );
    let both = positions.as_ref().zip(proportions.as_ref()).unwrap();
    assert!(both.0.measures.drift_mean < both.1.measures.drift_mean);
    assert!(both.0.measures.slot_shape > both.1.measures.slot_shape);
    assert_eq!(
        long[0].emphasis, None,
        "what holds both as well as can be comes first"
    );
    let square = sound(&request(&row(), 2, 1, json!({})));
    assert!(
        square.iter().all(|p| p.emphasis.is_none()),
        "a page of the sketch's own shape needs no choice"
    );
}

#[test]
fn near_equal_proposals_are_shown_once() {
    // Without room around it, a frame is the scale again.
    let same = sound(&request(&row(), 0, 1, json!({})));
    assert_eq!(same.len(), 1);
}

#[test]
fn each_block_tells_what_moved_it() {
    let pin = json!([{"block": "p1", "edge": "left", "at": 2}]);
    let proposal = sound(&request(&row(), 0, 1, json!({"pins": pin}))).swap_remove(0);
    let why = |id: &str| {
        proposal
            .whys
            .iter()
            .find(|w| w.0 == id)
            .map(|w| w.1.join("; "))
            .unwrap_or_default()
    };
    assert!(
        why("p1").contains("right, because you pinned the left edge of the photo p1 at 2 in"),
        "{}",
        why("p1")
    );
    let spread = sound(&request(&row(), 0, 2, json!({"approach": "stretch"}))).swap_remove(0);
    let told: Vec<&String> = spread.whys.iter().flat_map(|w| &w.1).collect();
    assert!(
        told.iter().any(|t| t.contains("to clear the fold")),
        "{told:?}"
    );
    assert!(
        spread
            .whys
            .iter()
            .all(|w| spread.layout.blocks.iter().any(|b| b.from.contains(&w.0)))
    );
}
