//! Faces on prints: never trimmed away where there is room, never in the fold.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Choices, Fault, Outcome, Pin, PinEdge, Proposal, Request, refit};
use metrosk_core::geometry::Edge;
use metrosk_core::layout::LayoutBlock;
use metrosk_core::length::Length;
use serde_json::{Value, json};

fn sketch(w: f64) -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "One wide", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "p1", "kind": "photo", "box": {"x": 6.0 - w / 2.0, "y": 3, "w": w, "h": 4}},
            {"id": "j1", "kind": "journal", "box": {"x": 1, "y": 9, "w": 3, "h": 1.5}},
        ],
    })
}

/// One print on a spread that photos may cross.
fn across(print: Value) -> (Request, Vec<Proposal>) {
    let request = request(
        &sketch(5.0),
        0,
        2,
        json!({"photos": [print], "across_fold": ["photo"], "approach": "stretch"}),
    );
    let proposals = sound(&request);
    (request, proposals)
}

fn photos(proposal: &Proposal) -> Vec<&LayoutBlock> {
    proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.from == ["p1"])
        .collect()
}

/// Where a share of the print lies across the spread, in inches.
fn place(parts: &[&LayoutBlock], share: f64) -> f64 {
    let (first, placed) = (parts[0].extent(), parts[0].placement.as_ref().unwrap());
    first.l / 203_200.0 + (share - placed.crop.x) * placed.print.w.ticks() as f64 / 203_200.0
}

#[test]
fn a_photo_across_the_fold_is_one_print_in_two_parts() {
    let (_, proposals) = across(json!({"id": "f1", "w": 10, "h": 4}));
    let parts = photos(&proposals[0]);
    assert_eq!(parts.len(), 2);
    let keeps: Vec<_> = parts
        .iter()
        .map(|p| p.placement.as_ref().unwrap().crop)
        .collect();
    assert!(
        (keeps[0].x + keeps[0].w - keeps[1].x).abs() < 1e-9,
        "the parts follow each other on the print: {keeps:?}"
    );
    for (part, keep) in parts.iter().zip(&keeps) {
        assert!((part.block.rect.w.ticks() as f64 - keep.w * 10.0 * 203_200.0).abs() < 2.0);
    }
    assert_eq!(proposals[0].layout.photos(), 1);
    assert!(
        proposals[0]
            .sentences()
            .iter()
            .any(|n| n.contains("runs over the fold in two parts")),
        "{:?}",
        proposals[0].sentences()
    );
}

#[test]
fn the_fold_passes_between_the_faces() {
    // A face in the very middle, and two with a gap between them that is not in the middle.
    for faces in [
        json!([{"x": 0.4, "y": 0.2, "w": 0.2, "h": 0.4}]),
        json!([{"x": 0.1, "y": 0.2, "w": 0.25, "h": 0.4}, {"x": 0.45, "y": 0.1, "w": 0.3, "h": 0.5}]),
    ] {
        let (request, proposals) = across(json!({"id": "f1", "w": 10, "h": 4, "faces": faces}));
        let parts = photos(&proposals[0]);
        for face in faces.as_array().unwrap() {
            let (x, w) = (face["x"].as_f64().unwrap(), face["w"].as_f64().unwrap());
            let (from, to) = (place(&parts, x), place(&parts, x + w));
            assert!(
                to <= 12.0 + 1e-3 || from >= 12.0 - 1e-3,
                "a face from {from} to {to}"
            );
        }
        assert!(proposals[0].faults(&request).is_empty());
    }
}

#[test]
fn squares_that_meet_are_one_face() {
    // A third and a third, as rounded shares: no fold runs between them.
    let faces = json!([{"x": 0.3333, "y": 0.2, "w": 0.1666, "h": 0.4}, {"x": 0.5, "y": 0.2, "w": 0.1667, "h": 0.4}]);
    let (_, proposals) = across(json!({"id": "f1", "w": 10, "h": 4, "faces": faces}));
    let parts = photos(&proposals[0]);
    let (from, to) = (place(&parts, 0.3333), place(&parts, 0.6667));
    assert!(
        to <= 12.0 + 1e-3 || from >= 12.0 - 1e-3,
        "a face from {from} to {to}"
    );
}

#[test]
fn a_fold_through_a_face_is_a_fault() {
    let (request, proposals) = across(json!({"id": "f1", "w": 10, "h": 4}));
    let mut marked = request;
    let metrosk_core::fit::Photos::Prints(prints) = &mut marked.photos else {
        panic!("prints were asked for")
    };
    prints[0].faces.push(metrosk_core::fit::Face {
        x: 0.4,
        y: 0.2,
        w: 0.2,
        h: 0.3,
    });
    assert_eq!(proposals[0].faults(&marked), [Fault::Face("p1".to_owned())]);
}

#[test]
fn what_is_trimmed_is_trimmed_beside_the_faces() {
    for (faces, left) in [
        (json!([{"x": 0.02, "y": 0.1, "w": 0.2, "h": 0.3}]), true),
        (json!([{"x": 0.75, "y": 0.1, "w": 0.24, "h": 0.3}]), false),
    ] {
        let pins = json!([{"block": "p1", "edge": "width", "at": 4}]);
        let request = request(
            &sketch(5.0),
            0,
            1,
            json!({"photos": [{"id": "f1", "w": 6, "h": 4, "faces": faces}], "pins": pins}),
        );
        let proposal = sound(&request).swap_remove(0);
        let keep = photos(&proposal)[0].placement.as_ref().unwrap().crop;
        assert!(
            if left {
                keep.x <= 0.021
            } else {
                keep.x + keep.w >= 0.989
            },
            "{keep:?}"
        );
        assert!(
            !proposal.sentences().iter().any(|n| n.contains("face")),
            "{:?}",
            proposal.sentences()
        );
    }
}

#[test]
fn a_face_that_no_slot_can_show_is_told() {
    let pins = json!([{"block": "p1", "edge": "width", "at": 2}]);
    let faces =
        json!([{"x": 0, "y": 0.1, "w": 0.2, "h": 0.3}, {"x": 0.8, "y": 0.1, "w": 0.2, "h": 0.3}]);
    let request = request(
        &sketch(5.0),
        0,
        1,
        json!({"photos": [{"id": "f1", "w": 6, "h": 4, "faces": faces}], "pins": pins}),
    );
    let proposal = sound(&request).swap_remove(0);
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.starts_with("Of print f1") && n.contains("not shown whole")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn whole_prints_cross_between_their_faces_too() {
    let faces = json!([{"x": 0.45, "y": 0.1, "w": 0.2, "h": 0.5}]);
    let more = json!({
        "photos": [{"id": "f1", "w": 8, "h": 4, "faces": faces}], "across_fold": ["photo"], "photo_rule": "whole", "approach": "stretch"
    });
    let proposal = sound(&request(&sketch(5.0), 0, 2, more)).swap_remove(0);
    let parts = photos(&proposal);
    let (from, to) = (place(&parts, 0.45), place(&parts, 0.65));
    assert!(
        to <= 12.0 + 1e-3 || from >= 12.0 - 1e-3,
        "a face from {from} to {to}"
    );
}

#[test]
fn marks_beside_the_print_are_told_with_their_place() {
    for (faces, path) in [
        (
            json!([{"x": 0.9, "y": 0, "w": 0.2, "h": 0.1}]),
            "photos[0].faces[0]",
        ),
        (
            json!([{"x": -0.1, "y": 0, "w": 0.2, "h": 0.1}]),
            "photos[0].faces[0].x",
        ),
        (
            json!([{"x": 0.1, "y": 0, "w": "wide", "h": 0.1}]),
            "photos[0].faces[0].w",
        ),
        (json!([7]), "photos[0].faces[0]"),
        (json!("everybody"), "photos[0].faces"),
    ] {
        let fit = json!({
            "format": "metrosk-fit/1", "unit": "in", "sketch": sketch(4.0), "target": {"page": {"w": 12, "h": 12}, "pages": 1},
            "photos": [{"id": "f1", "w": 6, "h": 4, "faces": faces}],
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
fn a_refit_keeps_the_gap_that_the_fold_runs_through() {
    let faces = json!([{"x": 0.1, "y": 0.2, "w": 0.25, "h": 0.4}, {"x": 0.6, "y": 0.1, "w": 0.3, "h": 0.5}]);
    let (mut request, proposals) = across(json!({"id": "f1", "w": 10, "h": 4, "faces": faces}));
    let choices = Choices::from_json(&proposals[0].choices.to_json()).unwrap();
    assert_eq!(
        choices.to_json(),
        proposals[0].choices.to_json(),
        "they read back as they were written"
    );
    let top = proposals[0]
        .layout
        .blocks
        .iter()
        .find(|b| b.from == ["j1"])
        .unwrap()
        .block
        .rect
        .y;
    request.pins.push(Pin {
        block: "j1".to_owned(),
        edge: PinEdge::Edge(Edge::Top),
        at: top + Length::inches(1, 8),
        to: None,
    });
    let Outcome::Proposals(again) = refit(&request, &choices).unwrap() else {
        panic!("it can be made again")
    };
    assert!(again[0].faults(&request).is_empty());
    let cut = |p: &Proposal| photos(p)[0].placement.as_ref().map(|p| p.crop.x + p.crop.w);
    assert!(
        (cut(&again[0]).unwrap() - cut(&proposals[0]).unwrap()).abs() < 0.1,
        "the fold is in the same gap"
    );
    let wrong = json!({"approach": "stretch", "sides": {"p1": true}, "lost": [], "solved": []});
    assert_eq!(
        Choices::from_json(&wrong).unwrap_err().findings[0].path,
        "sides.p1"
    );
}
