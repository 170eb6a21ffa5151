//! What would stand on the fold: the page that costs least, a page of her choice, once on each, or a pair. And copies, held alike.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Choices, Outcome, Pin, PinEdge, Proposal, Request, fit, refit};
use metrosk_core::geometry::{Edge, Span};
use metrosk_core::length::Length;
use metrosk_core::sketch::Kind;
use serde_json::{Value, json};

fn sketch() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Centred", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 8.5, "w": 12, "h": 0.75}, "bleed": ["left", "right"]},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 2, "w": 3, "h": 4}},
            {"id": "p2", "kind": "photo", "box": {"x": 8, "y": 2, "w": 3, "h": 4}},
            {"id": "p3", "kind": "photo", "box": {"x": 4.5, "y": 2, "w": 3, "h": 4}},
            {"id": "t1", "kind": "title", "box": {"x": 4, "y": 6.75, "w": 4, "h": 1}},
            {"id": "j1", "kind": "journal", "box": {"x": 4, "y": 9.5, "w": 4, "h": 1.75}},
        ],
    })
}

fn best(more: Value) -> Proposal {
    sound(&request(&sketch(), 0, 2, more)).swap_remove(0)
}

fn spans(proposal: &Proposal, id: &str) -> Vec<Span> {
    proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.from == [id])
        .map(|b| b.extent())
        .collect()
}

const FOLD: f64 = 12.0 * 203_200.0;

#[test]
fn a_block_goes_to_the_page_she_says() {
    for (way, right) in [("left", false), ("right", true)] {
        let proposal =
            best(json!({"approach": "stretch", "at_fold": [{"block": "t1", "as": way}]}));
        let title = spans(&proposal, "t1");
        assert_eq!(title.len(), 1);
        assert_eq!(title[0].l >= FOLD, right, "{way}: {title:?}");
    }
}

#[test]
fn a_cluster_goes_where_she_says_rather_than_with_its_photo() {
    let mut drawn = sketch();
    let cluster = json!({"id": "c1", "kind": "cluster", "size": "small", "box": {"x": 5.25, "y": 5.25, "w": 1.5, "h": 1.5}, "host": "p3"});
    drawn["blocks"].as_array_mut().unwrap().push(cluster);
    for (way, other, right) in [("left", "right", false), ("right", "left", true)] {
        let at_fold = json!([{"block": "c1", "as": way}, {"block": "p3", "as": other}]);
        let proposal = sound(&request(
            &drawn,
            0,
            2,
            json!({"approach": "stretch", "at_fold": at_fold}),
        ))
        .swap_remove(0);
        assert_eq!(spans(&proposal, "c1")[0].cx() > FOLD, right, "{way}");
        assert_eq!(spans(&proposal, "p3")[0].cx() > FOLD, !right, "{other}");
    }
    let doubled = sound(&request(
        &drawn,
        0,
        2,
        json!({"approach": "stretch", "at_fold": [{"block": "c1", "as": "each"}]}),
    ))
    .swap_remove(0);
    let both = spans(&doubled, "c1");
    assert!(
        both.len() == 2 && both[0].r <= FOLD && both[1].l >= FOLD,
        "{both:?}"
    );
}

#[test]
fn a_block_is_doubled_as_large_on_each_page() {
    let plain = spans(&best(json!({"approach": "stretch"})), "j1")[0];
    let proposal = best(json!({"approach": "stretch", "at_fold": [{"block": "j1", "as": "each"}]}));
    let both = spans(&proposal, "j1");
    assert_eq!(both.len(), 2);
    assert!(both[0].r <= FOLD && both[1].l >= FOLD, "{both:?}");
    assert!((both[0].w() - both[1].w()).abs() < 2.0 && (both[0].t - both[1].t).abs() < 2.0);
    assert!(
        both[0].w() > 0.7 * plain.w(),
        "as large as once: {} against {}",
        both[0].w(),
        plain.w()
    );
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("once on each page")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn writing_becomes_a_pair_at_the_fold() {
    let proposal = best(json!({"approach": "stretch", "at_fold": [{"block": "j1", "as": "pair"}]}));
    let pair = spans(&proposal, "j1");
    assert_eq!(pair.len(), 2);
    let (l, r) = (pair[0], pair[1]);
    assert!(
        l.r <= FOLD && r.l >= FOLD && (l.w() - r.w()).abs() < 2.0,
        "{pair:?}"
    );
    assert!(r.l - l.r < 203_200.0, "near the fold, not far apart");
}

#[test]
fn a_photo_is_doubled_by_its_slot() {
    let proposal =
        best(json!({"approach": "stretch", "slots": [{"photos": ["p3"], "as": "each"}]}));
    let both = spans(&proposal, "p3");
    assert_eq!(both.len(), 2);
    assert!(both[0].r <= FOLD && both[1].l >= FOLD);
    let other = spans(&proposal, "p1")[0];
    assert!(
        both[0].area() > 0.5 * other.area(),
        "each is a photo like the others: {both:?} {other:?}"
    );
    assert_eq!(proposal.layout.photos(), 4);
}

#[test]
fn what_does_not_stand_at_the_fold_stays_one() {
    let away = json!({"approach": "stretch", "at_fold": [{"block": "t1", "as": "each"}]});
    let mut drawn = sketch();
    drawn["blocks"][4]["box"] = json!({"x": 1, "y": 6.75, "w": 2, "h": 1});
    let proposal = sound(&request(&drawn, 0, 2, away)).swap_remove(0);
    assert_eq!(spans(&proposal, "t1").len(), 1);
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("does not stand at the fold")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn where_there_is_no_fold_nothing_is_said_of_it() {
    let at_fold =
        json!([{"block": "t1", "as": "across", "words": "Low sun"}, {"block": "j1", "as": "pair"}]);
    for (pages, told) in [(1, false), (2, true)] {
        let mut drawn = sketch();
        for block in [4, 5] {
            drawn["blocks"][block]["box"]["x"] = json!(0.75);
            drawn["blocks"][block]["box"]["w"] = json!(2);
        }
        let proposal =
            sound(&request(&drawn, 0, pages, json!({"at_fold": at_fold}))).swap_remove(0);
        assert_eq!(
            proposal
                .sentences()
                .iter()
                .any(|n| n.contains("does not stand at the fold")),
            told,
            "{pages}: {:?}",
            proposal.sentences()
        );
    }
}

#[test]
fn choices_that_cannot_be_are_told_with_their_place() {
    for (choice, path) in [
        (json!([{"block": "s1", "as": "each"}]), "at_fold[0].block"),
        (json!([{"block": "x", "as": "left"}]), "at_fold[0].block"),
        (json!([{"block": "t1", "as": "pair"}]), "at_fold[0].as"),
        (json!([{"block": "t1", "as": "torn"}]), "at_fold[0].as"),
        (
            json!([{"block": "t1", "as": "left"}, {"block": "t1", "as": "right"}]),
            "at_fold[1].block",
        ),
    ] {
        let fit = json!({
            "format": "metrosk-fit/1", "unit": "in", "sketch": sketch(), "target": {"page": {"w": 12, "h": 12}, "pages": 2}, "at_fold": choice,
        });
        let invalid = Request::from_json(&fit).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {:?}",
            invalid.findings
        );
    }
}

#[test]
fn a_pin_holds_both_copies() {
    let pins = json!([{"block": "p1", "edge": "left", "at": 2}, {"block": "p1", "edge": "width", "at": 2.5}]);
    for (approach, right) in [("mirror", 22.0), ("echo", 14.0)] {
        let proposal = best(json!({"approach": approach, "pins": pins}));
        let both = spans(&proposal, "p1");
        assert_eq!(both.len(), 2);
        let inches = |t: f64| t / 203_200.0;
        assert!((inches(both[0].l) - 2.0).abs() < 1e-3 && (inches(both[0].w()) - 2.5).abs() < 1e-3);
        let edge = if approach == "mirror" {
            both[1].r
        } else {
            both[1].l
        };
        assert!(
            (inches(edge) - right).abs() < 1e-3 && (inches(both[1].w()) - 2.5).abs() < 1e-3,
            "{approach}: {both:?}"
        );
    }
    // One that points to the right page holds the copy there.
    let proposal =
        best(json!({"approach": "echo", "pins": [{"block": "p1", "edge": "left", "at": 14.5}]}));
    let both = spans(&proposal, "p1");
    assert!(
        (both[0].l / 203_200.0 - 2.5).abs() < 1e-3 && (both[1].l / 203_200.0 - 14.5).abs() < 1e-3,
        "{both:?}"
    );
}

#[test]
fn a_clash_on_a_copied_page_names_the_pins_she_made() {
    let pins = json!([
        {"block": "p1", "edge": "left", "at": 2}, {"block": "p2", "edge": "top", "at": 2}, {"block": "p1", "edge": "right", "at": 1}
    ]);
    let Outcome::Conflict(conflict) = fit(&request(
        &sketch(),
        0,
        2,
        json!({"approach": "mirror", "pins": pins}),
    )) else {
        panic!("a clash")
    };
    assert_eq!(conflict.pins, [0, 2], "{conflict:?}");
}

#[test]
fn a_choice_for_a_slot_holds_on_both_copies() {
    let slots = json!([{"photos": ["p1"], "as": "cells", "cols": 1, "rows": 2}, {"photos": ["p2"], "as": "journal"}]);
    let proposal = best(json!({"approach": "mirror", "slots": slots}));
    assert_eq!(spans(&proposal, "p1").len(), 4);
    let journals = proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.from == ["p2"] && b.block.kind == Kind::Journal)
        .count();
    assert_eq!(journals, 2);
}

/// Two photos side by side with a cluster over the corners of both: on a spread the fold comes between the photos.
fn with_a_cluster_over_both() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Over both", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "p1", "kind": "photo", "box": {"x": 1.75, "y": 2, "w": 4, "h": 4.5}},
            {"id": "p2", "kind": "photo", "box": {"x": 6.25, "y": 2, "w": 4, "h": 4.5}},
            {"id": "c1", "kind": "cluster", "size": "medium", "box": {"x": 4.75, "y": 5.25, "w": 2, "h": 2}, "host": "p1"},
            {"id": "t1", "kind": "title", "box": {"x": 1.75, "y": 8, "w": 5, "h": 1}},
        ],
    })
}

#[test]
fn a_cluster_over_what_the_fold_parts_stands_once_on_each_page() {
    let drawn = with_a_cluster_over_both();
    let proposal = sound(&request(&drawn, 0, 2, json!({"approach": "stretch"}))).swap_remove(0);
    let both = spans(&proposal, "c1");
    assert!(
        both.len() == 2 && both[0].r <= FOLD && both[1].l >= FOLD,
        "{both:?}"
    );
    let (p1, p2) = (spans(&proposal, "p1")[0], spans(&proposal, "p2")[0]);
    assert!(
        both[0].overlaps(p1, 2.0) && both[1].overlaps(p2, 2.0),
        "each lies over the photo of its page"
    );
    assert_eq!(
        proposal.measures.relations.kept,
        proposal.measures.relations.of
    );
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("once on each page, since the fold parts what it lay over")),
        "{:?}",
        proposal.sentences()
    );
    assert!(
        !proposal
            .sentences()
            .iter()
            .any(|n| n.contains("c1 runs over the fold")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn where_she_sends_the_cluster_it_goes_whole() {
    for way in ["left", "right"] {
        let more = json!({"approach": "stretch", "at_fold": [{"block": "c1", "as": way}]});
        let proposal = sound(&request(&with_a_cluster_over_both(), 0, 2, more)).swap_remove(0);
        let cluster = spans(&proposal, "c1");
        assert_eq!((cluster.len(), cluster[0].cx() > FOLD), (1, way == "right"));
    }
}

#[test]
fn a_cluster_that_she_holds_is_not_doubled() {
    for more in [
        json!({"approach": "stretch", "pins": [{"block": "c1", "edge": "width", "at": 2}]}),
        json!({"approach": "stretch", "keep": {"c1": "size"}}),
        json!({"approach": "stretch", "keep": {"c1": "free"}}),
    ] {
        let proposal =
            sound(&request(&with_a_cluster_over_both(), 0, 2, more.clone())).swap_remove(0);
        assert_eq!(spans(&proposal, "c1").len(), 1, "{more}");
    }
}

#[test]
fn a_cluster_over_one_photo_is_not_doubled() {
    let mut drawn = with_a_cluster_over_both();
    drawn["blocks"][2]["box"] = json!({"x": 3.75, "y": 5.25, "w": 2, "h": 2});
    let proposal = sound(&request(&drawn, 0, 2, json!({"approach": "stretch"}))).swap_remove(0);
    assert_eq!(spans(&proposal, "c1").len(), 1);
}

#[test]
fn a_doubled_cluster_stays_doubled_while_a_block_moves() {
    let mut request = request(
        &with_a_cluster_over_both(),
        0,
        2,
        json!({"approach": "stretch"}),
    );
    let found = sound(&request).swap_remove(0);
    let read = Choices::from_json(&found.choices.to_json()).unwrap();
    let at = found
        .layout
        .blocks
        .iter()
        .find(|b| b.block.id == "t1")
        .unwrap()
        .block
        .rect
        .y
        + Length::inches(1, 4);
    request.pins.push(Pin {
        block: "t1".to_owned(),
        edge: PinEdge::Edge(Edge::Top),
        at,
        to: None,
    });
    let Outcome::Proposals(again) = refit(&request, &read).unwrap() else {
        panic!("it fits again")
    };
    assert_eq!(spans(&again[0], "c1").len(), 2);
    assert!(again[0].faults(&request).is_empty());
    let moved = |id: &str| (spans(&again[0], id)[0].cx() - spans(&found, id)[0].cx()).abs();
    assert!(
        moved("p1") < 26_000.0 && moved("c1") < 26_000.0,
        "nothing jumps"
    );
}
