//! Changes to a sketch on the way to a page, and fits that follow a hand.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{self, Choices, Outcome};
use metrosk_core::geometry::Span;
use metrosk_core::sketch::{Change, Kind, Sketch};
use serde_json::{Value, json};

fn sketch() -> Sketch {
    Sketch::from_json(&json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Two sledges", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "m1", "kind": "mat", "box": {"x": 0.75, "y": 0.75, "w": 4.5, "h": 6.5}, "turn": -8, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 6}, "turn": -8},
            {"id": "p2", "kind": "photo", "box": {"x": 7, "y": 2, "w": 4, "h": 3}},
            {"id": "p3", "kind": "photo", "box": {"x": 7, "y": 6, "w": 4, "h": 2}, "turn": 88},
            {"id": "c1", "kind": "cluster", "size": "small", "box": {"x": 6.5, "y": 1.5, "w": 1.5, "h": 1}, "host": "p2"},
        ],
    }))
    .unwrap()
}

fn changed(change: &Value) -> Sketch {
    let sketch = sketch();
    sketch
        .changed(&Change::from_json(change, &sketch).unwrap())
        .unwrap()
}

fn span(sketch: &Sketch, id: &str) -> Span {
    sketch.blocks[sketch.index_of(id).unwrap()].extent()
}

#[test]
fn a_photo_is_put_straight_with_its_mat() {
    let straight = changed(&json!({"what": "straighten", "block": "p1"}));
    assert!(
        ["p1", "m1"]
            .iter()
            .all(|id| straight.blocks[straight.index_of(id).unwrap()].turn == 0.0)
    );
    assert_eq!(span(&straight, "p1"), span(&sketch(), "p1"));
    // One that stands nearly on its side stays as wide as it looked.
    let level = changed(&json!({"what": "straighten", "block": "p3"}));
    let (was, is) = (span(&sketch(), "p3"), span(&level, "p3"));
    assert!((was.w() - is.w()).abs() < 2.0 && is.h() > is.w());
}

#[test]
fn photos_change_places_and_mats_stay() {
    let swapped = changed(&json!({"what": "swap", "block": "p1", "with": "p2"}));
    assert_eq!(span(&swapped, "p1"), span(&sketch(), "p2"));
    assert_eq!(span(&swapped, "p2"), span(&sketch(), "p1"));
    assert_eq!(
        swapped.blocks[0].under.as_deref(),
        Some("p2"),
        "the mat frames what lies in it now"
    );
    assert_eq!(
        swapped.blocks[4].host.as_deref(),
        Some("p1"),
        "the cluster sits where it sat"
    );
    let change = Change::Swap("p1".into(), "p2".into());
    assert_eq!(
        swapped.changed(&change).unwrap(),
        sketch(),
        "twice is as before"
    );
}

#[test]
fn a_cluster_goes_to_another_corner_at_the_same_distance() {
    let moved = changed(&json!({"what": "corner", "block": "c1", "corner": "bottom-right"}));
    let (host, was, is) = (
        span(&moved, "p2"),
        span(&sketch(), "c1"),
        span(&moved, "c1"),
    );
    assert!((is.r - host.r - (host.l - was.l)).abs() < 2.0);
    assert!((is.b - host.b - (host.t - was.t)).abs() < 2.0);
    let same = changed(&json!({"what": "corner", "block": "c1", "corner": "top-left"}));
    assert_eq!(span(&same, "c1"), was, "it is there already");
}

#[test]
fn a_block_becomes_another_kind() {
    let cluster = changed(&json!({"what": "kind", "block": "p2", "kind": "cluster"}));
    let p2 = &cluster.blocks[2];
    assert_eq!((p2.kind, p2.size.is_some()), (Kind::Cluster, true));
    let title = changed(&json!({"what": "kind", "block": "c1", "kind": "title"}));
    assert_eq!(
        (
            title.blocks[4].kind,
            title.blocks[4].size,
            title.blocks[4].host.clone()
        ),
        (Kind::Title, None, None)
    );
}

#[test]
fn a_change_that_cannot_be_is_told_with_its_place() {
    let cases = [
        (json!({"what": "tear", "block": "p1"}), "what"),
        (
            json!({"what": "swap", "block": "m1", "with": "p2"}),
            "block",
        ),
        (json!({"what": "swap", "block": "p1", "with": "p1"}), "with"),
        (
            json!({"what": "corner", "block": "p1", "corner": "top-left"}),
            "block",
        ),
        (
            json!({"what": "corner", "block": "c1", "corner": "middle"}),
            "corner",
        ),
        (
            json!({"what": "kind", "block": "m1", "kind": "paper"}),
            "block",
        ),
        (
            json!({"what": "kind", "block": "p1", "kind": "ring"}),
            "kind",
        ),
    ];
    for (change, path) in cases {
        let invalid = Change::from_json(&change, &sketch()).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {:?}",
            invalid.findings
        );
    }
}

#[test]
fn choices_go_over_the_wire_and_hold_the_page_still_while_a_block_moves() {
    for pages in [1, 2] {
        let base = request(&sketch().to_json(), 0, pages, json!({"snap": 0}));
        for found in sound(&base) {
            let choices = Choices::from_json(&found.choices.to_json()).unwrap();
            let again = |request: &fit::Request| match fit::refit(request, &choices).unwrap() {
                Outcome::Proposals(mut p) => p.swap_remove(0),
                Outcome::Conflict(c) => panic!("{}: {}", found.approach.name(), c.text),
            };
            // Nothing has moved: the page is the same to the ruler's step.
            let still = again(&fit::Request {
                approach: Some(found.approach),
                emphasis: found.emphasis,
                ..base.clone()
            });
            let step = 2_000.0; // 1/100 in
            for (a, b) in found.layout.blocks.iter().zip(&still.layout.blocks) {
                let (s, t) = (a.extent(), b.extent());
                assert!(
                    [s.l - t.l, s.t - t.t, s.r - t.r, s.b - t.b]
                        .iter()
                        .all(|d| d.abs() <= step),
                    "{} {:?} {}: {s:?} became {t:?}",
                    found.approach.name(),
                    found.emphasis,
                    a.block.id
                );
            }
        }
    }
}

#[test]
fn choices_of_another_shape_or_another_request_are_told() {
    let shape = |sides: serde_json::Value, lost: serde_json::Value| json!({"approach": "scale", "sides": sides, "lost": lost, "solved": []});
    for (wrong, path) in [
        (
            json!({"approach": "auto", "sides": {}, "lost": [], "solved": []}),
            "approach",
        ),
        (shape(json!({"p1": "up"}), json!([])), "sides.p1"),
        (shape(json!(["left"]), json!([])), "sides"),
        (shape(json!({}), json!([0])), "lost[0]"),
        (
            shape(
                json!({}),
                json!([{"wish": "hope", "blocks": ["p1", "p1"], "nth": 0}]),
            ),
            "lost[0].wish",
        ),
    ] {
        let invalid = Choices::from_json(&wrong).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {:?}",
            invalid.findings
        );
    }
    let base = request(&sketch().to_json(), 0, 2, json!({"snap": 0}));
    let own = sound(&base).swap_remove(0).choices.to_json();
    let told = |field: &str, value: serde_json::Value| {
        let mut choices = own.clone();
        choices[field] = value;
        fit::refit(&base, &Choices::from_json(&choices).unwrap())
            .unwrap_err()
            .findings[0]
            .path
            .clone()
    };
    assert_eq!(told("approach", json!("merge")), "approach");
    assert_eq!(told("sides", json!({"x9": "left"})), "sides.x9");
    let lost = json!([{"wish": "line", "blocks": ["p1", "x9"], "nth": 0}]);
    assert_eq!(told("lost", lost), "lost[0]");
    let mut sides = own["sides"].clone();
    sides["p1"] = json!("through 0");
    assert_eq!(
        told("sides", sides),
        "sides.p1",
        "no fold runs through a photo without a choice of hers"
    );
    // Another page count has no fold to be on a side of.
    let page = request(&sketch().to_json(), 0, 1, json!({"snap": 0}));
    let mut choices = own.clone();
    choices["approach"] = json!("scale");
    choices["sides"] = json!({"p1": "left"});
    assert_eq!(
        fit::refit(&page, &Choices::from_json(&choices).unwrap())
            .unwrap_err()
            .findings[0]
            .path,
        "sides.p1"
    );
}

#[test]
fn a_lost_wish_is_named_and_held_to() {
    // Two blocks on one line that pins pull apart: the line is lost, and a refit must not find it again.
    let drawn = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Apart", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 3}},
            {"id": "j1", "kind": "journal", "box": {"x": 1, "y": 6, "w": 3, "h": 2}},
        ],
    });
    let pins =
        json!([{"block": "p1", "edge": "left", "at": 1}, {"block": "j1", "edge": "left", "at": 3}]);
    let base = request(&drawn, 0, 1, json!({"snap": 0, "pins": pins}));
    let found = sound(&base).swap_remove(0);
    let choices = found.choices.to_json();
    let lost = choices["lost"].as_array().unwrap();
    assert!(
        lost.iter()
            .any(|l| l["wish"] == "line" && l["blocks"].as_array().unwrap().contains(&json!("j1"))),
        "{choices}"
    );
    let Ok(Outcome::Proposals(again)) = fit::refit(&base, &Choices::from_json(&choices).unwrap())
    else {
        panic!("it holds")
    };
    assert_eq!(
        again[0].choices.to_json()["lost"],
        choices["lost"],
        "they mean the same rows again"
    );
}
