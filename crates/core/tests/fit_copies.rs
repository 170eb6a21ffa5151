//! Ways that first make another sketch: mirror, echo, run-on, one-side.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Approach, Proposal};
use metrosk_core::layout::LayoutBlock;
use metrosk_core::length::{Length, Unit};
use metrosk_core::sketch::Kind;
use serde_json::{Value, json};

fn inches(l: Length) -> f64 {
    l.to_units(Unit::Inch)
}

/// A page with a strip off both sides, a photo on a mat, and a cluster on it.
fn pair() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Pair", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 8, "w": 12, "h": 1.5}, "bleed": ["left", "right"]},
            {"id": "m1", "kind": "mat", "box": {"x": 0.875, "y": 1.875, "w": 4.25, "h": 6.25}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 2, "w": 4, "h": 6}},
            {"id": "p2", "kind": "photo", "box": {"x": 6, "y": 2, "w": 3, "h": 4}},
            {"id": "c1", "kind": "cluster", "size": "small", "box": {"x": 4, "y": 7, "w": 1.5, "h": 1.5}, "host": "p1"},
        ],
    })
}

fn by(sketch: &Value, pages: u8, approach: &str, more: Value) -> Proposal {
    let mut fields = json!({"approach": approach});
    fields
        .as_object_mut()
        .unwrap()
        .extend(more.as_object().unwrap().clone());
    sound(&request(sketch, 0, pages, fields)).swap_remove(0)
}

fn of<'a>(proposal: &'a Proposal, id: &str, page: u8) -> &'a LayoutBlock {
    proposal
        .layout
        .blocks
        .iter()
        .find(|b| b.from == [id] && b.page == page)
        .unwrap()
}

#[test]
fn a_mirrored_page_is_the_other_ones_image() {
    let proposal = by(&pair(), 2, "mirror", json!({}));
    assert_eq!(proposal.approach, Approach::Mirror);
    for id in ["m1", "p1", "p2"] {
        let (left, right) = (
            of(&proposal, id, 0).block.rect,
            of(&proposal, id, 1).block.rect,
        );
        assert!(
            (inches(left.x) - (24.0 - inches(right.right()))).abs() < 0.01,
            "{id}"
        );
        assert_eq!((left.y, left.w, left.h), (right.y, right.w, right.h));
    }
    // The strip goes across both: one part a page, together from edge to edge.
    let (left, right) = (
        of(&proposal, "s1", 0).block.rect,
        of(&proposal, "s1", 1).block.rect,
    );
    assert_eq!(
        (
            inches(left.x),
            inches(left.right()),
            inches(right.x),
            inches(right.right())
        ),
        (0.0, 12.0, 12.0, 24.0)
    );
}

#[test]
fn an_echo_says_the_same_twice() {
    let proposal = by(&pair(), 2, "echo", json!({}));
    for id in ["m1", "p1", "p2", "c1"] {
        let (left, right) = (
            of(&proposal, id, 0).block.rect,
            of(&proposal, id, 1).block.rect,
        );
        assert!(
            (inches(left.x) + 12.0 - inches(right.x)).abs() < 0.01,
            "{id}"
        );
    }
    let mat = of(&proposal, "m1", 1);
    assert_eq!(
        mat.block.under.as_ref(),
        Some(&of(&proposal, "p1", 1).block.id),
        "a copied mat frames the copied photo"
    );
    let photos = |p: &Proposal| {
        p.layout
            .blocks
            .iter()
            .filter(|b| b.block.kind == Kind::Photo)
            .count()
    };
    assert_eq!(
        photos(&proposal),
        4,
        "as many photos as the layout has slots"
    );
    assert_eq!(
        photos(&by(&pair(), 2, "echo", json!({"photos": {"count": 3}}))),
        3
    );
}

#[test]
fn what_bleeds_runs_on_and_further_photos_go_to_the_right() {
    let proposal = by(&pair(), 2, "run-on", json!({}));
    assert!(
        proposal
            .layout
            .blocks
            .iter()
            .filter(|b| b.page == 1)
            .all(|b| b.from == ["s1"])
    );
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n == "s1 runs on across the fold."),
        "{:?}",
        proposal.sentences()
    );
    let more = by(&pair(), 2, "run-on", json!({"photos": {"count": 3}}));
    let right: Vec<&str> = more
        .layout
        .blocks
        .iter()
        .filter(|b| b.page == 1 && b.block.kind == Kind::Photo)
        .map(|b| b.from[0].as_str())
        .collect();
    assert_eq!(right, ["p1"], "the largest photo's place is used again");
}

#[test]
fn one_side_keeps_the_page_with_more_of_the_photos() {
    let spread = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Two", "canvas": {"page": {"w": 12, "h": 12}, "pages": 2},
        "blocks": [
            {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 8, "w": 24, "h": 1.5}, "bleed": ["left", "right"]},
            {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 3, "h": 3}},
            {"id": "p2", "kind": "photo", "box": {"x": 14, "y": 2, "w": 6, "h": 4}},
        ],
    });
    let proposal = by(&spread, 1, "one-side", json!({}));
    let strip = of(&proposal, "s1", 0).block.rect;
    assert_eq!(
        (inches(strip.x), inches(strip.w)),
        (0.0, 12.0),
        "what crossed the fold is cut off there"
    );
    assert_eq!(inches(of(&proposal, "p2", 0).block.rect.x), 2.0);
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n == "p1 is on the other page and left out."),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn all_ways_are_proposed_and_the_whole_spread_comes_first() {
    let ways: Vec<Approach> = sound(&request(&pair(), 0, 2, json!({})))
        .iter()
        .map(|p| p.approach)
        .collect();
    assert_eq!(ways[0], Approach::Stretch);
    for approach in [Approach::Mirror, Approach::Echo, Approach::RunOn] {
        assert!(ways.contains(&approach), "{ways:?}");
    }
}

#[test]
fn every_demo_sketch_goes_every_way() {
    let mut tried = 0;
    for sketch in metrosk_demo::sketches(metrosk_demo::SEED) {
        let pages = 3 - sketch.canvas.pages;
        let document = sketch.to_json();
        for page in [0, 1, 4] {
            for approach in Approach::that_apply(sketch.canvas.pages, pages) {
                sound(&request(
                    &document,
                    page,
                    pages,
                    json!({"approach": approach.name()}),
                ));
                tried += 1;
            }
        }
    }
    assert!(tried >= 9 * 3 * 2);
}
