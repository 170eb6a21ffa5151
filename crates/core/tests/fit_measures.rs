//! The measures of a layout, against figures worked out by hand.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::fit::{Approach, Kept, Map, Measures, measure};
use metrosk_core::layout::Layout;
use metrosk_core::reading::Place;
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};

/// Two photos side by side that touch, their tops on one line, a title below the first on its left edge.
fn sketch() -> Sketch {
    let sketch = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Measured", "canvas": {"page": {"w": 10, "h": 10}, "pages": 1},
        "blocks": [
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 3, "h": 4}},
            {"id": "p2", "kind": "photo", "box": {"x": 4, "y": 1, "w": 2, "h": 3}},
            {"id": "t1", "kind": "title", "box": {"x": 1, "y": 6, "w": 4, "h": 1}},
        ],
    });
    Sketch::from_json(&sketch).unwrap()
}

fn block(id: &str, kind: &str, [x, y, w, h]: [f64; 4]) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": x, "y": y, "w": w, "h": h}, "turn": 0})
}

/// Measured on a page of its own size, where every place is wanted as drawn.
fn measured(blocks: Value) -> Measures {
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 10, "h": 10}, "pages": 1}, "blocks": blocks});
    let layout = Layout::from_json(&layout).unwrap();
    let sketch = sketch();
    measure(
        &sketch,
        Map::new(Approach::Scale, sketch.canvas, layout.canvas),
        &layout,
    )
}

fn with(p1: [f64; 4], p2: [f64; 4], t1: [f64; 4]) -> Measures {
    measured(json!([
        block("p1", "photo", p1),
        block("p2", "photo", p2),
        block("t1", "title", t1)
    ]))
}

const P1: [f64; 4] = [1.0, 1.0, 3.0, 4.0];
const P2: [f64; 4] = [4.0, 1.0, 2.0, 3.0];
const T1: [f64; 4] = [1.0, 6.0, 4.0, 1.0];

#[test]
fn as_drawn_nothing_is_lost() {
    let m = with(P1, P2, T1);
    assert!(m.drift_mean < 1e-9 && m.drift_max < 1e-9 && m.slot_shape < 1e-9 && m.emptied < 1e-9);
    // Two tops, and the left edges of the first photo and the title.
    assert_eq!(m.alignments, Kept { kept: 2, of: 2 });
    assert_eq!(m.contacts, Kept { kept: 1, of: 1 });
    // The photos are apart in x alone; each photo is apart from the title in y alone.
    assert_eq!(m.relations, Kept { kept: 3, of: 3 });
    assert!((m.photo_area - 1.0).abs() < 1e-9);
}

#[test]
fn drift_is_a_share_of_the_canvas_on_either_axis() {
    // The title 0.3 in right and 0.4 in down on a page of 10 in: 0.03 and 0.04, together 0.05.
    let m = with(P1, P2, [1.3, 6.4, 4.0, 1.0]);
    assert!((m.drift_max - 0.05).abs() < 1e-6, "{}", m.drift_max);
    assert!((m.drift_mean - 0.05 / 3.0).abs() < 1e-6);
    assert_eq!(m.alignments, Kept { kept: 1, of: 2 });
    assert_eq!(m.lost_lines, [(Place::Left, 0, 2)]);
}

#[test]
fn a_block_that_grows_about_its_centre_drifts_nowhere() {
    let m = with(P1, P2, [0.5, 5.75, 5.0, 1.5]);
    assert!(m.drift_max < 1e-9);
    assert_eq!(m.alignments.kept, 1);
}

#[test]
fn lines_hold_to_a_sixty_fourth() {
    assert_eq!(
        with(P1, P2, [1.0 + 1.0 / 64.0, 6.0, 4.0, 1.0])
            .alignments
            .kept,
        2
    );
    assert_eq!(
        with(P1, P2, [1.0 + 1.5 / 64.0, 6.0, 4.0, 1.0])
            .alignments
            .kept,
        1
    );
}

#[test]
fn contacts_and_relations_are_lost_one_by_one() {
    // A gap between the photos: they touch no more, and are apart as before.
    let m = with(P1, [4.25, 1.0, 2.0, 3.0], T1);
    assert_eq!((m.contacts.kept, m.relations.kept), (0, 3));
    // An overlap: neither.
    let m = with(P1, [3.5, 1.0, 2.0, 3.0], T1);
    assert_eq!((m.contacts.kept, m.relations.kept), (0, 2));
    // The title over both photos.
    assert_eq!(with(P1, P2, [1.0, 3.5, 4.0, 1.0]).relations.kept, 1);
}

#[test]
fn shape_and_area_of_the_slots() {
    // The first photo square: ln(3/4) of its shape, over two photos; 9 + 6 of 12 + 6 square inches.
    let m = with([1.0, 1.0, 3.0, 3.0], P2, T1);
    assert!((m.slot_shape - (4.0_f64 / 3.0).ln() / 2.0).abs() < 1e-6);
    assert!((m.photo_area - 15.0 / 18.0).abs() < 1e-6);
}

#[test]
fn parts_of_one_slot_count_as_the_box_around_them() {
    let part = |id: &str, at: [f64; 4]| json!({"id": id, "from": ["p1"], "kind": "photo", "page": 0, "box": {"x": at[0], "y": at[1], "w": at[2], "h": at[3]}, "turn": 0});
    let halves = [
        part("p1", [1.0, 1.0, 3.0, 1.9]),
        part("p1b", [1.0, 3.1, 3.0, 1.9]),
    ];
    let m = measured(json!([
        halves[0],
        halves[1],
        block("p2", "photo", P2),
        block("t1", "title", T1)
    ]));
    assert!(
        m.drift_max < 1e-9 && m.slot_shape < 1e-9,
        "a split slot has no shape of its own"
    );
    assert_eq!(
        m.groups.iter().map(|g| g.parts).collect::<Vec<_>>(),
        [2, 1, 1]
    );
    assert_eq!(m.contacts, Kept { kept: 1, of: 1 });
}

#[test]
fn merged_slots_are_measured_as_the_box_around_them_in_the_sketch() {
    let merged = json!({"id": "p1", "from": ["p1", "p2"], "kind": "photo", "page": 0, "box": {"x": 1, "y": 1, "w": 5, "h": 4}, "turn": 0});
    let m = measured(json!([merged, block("t1", "title", T1)]));
    assert_eq!(m.groups.len(), 2);
    assert_eq!(m.groups[0].blocks, [0, 1]);
    assert!(m.drift_max < 1e-9);
}

#[test]
fn a_slot_that_shows_no_photo_is_empty() {
    let writing = json!({"id": "p2", "from": ["p2"], "kind": "journal", "page": 0, "box": {"x": 4, "y": 1, "w": 2, "h": 3}, "turn": 0});
    let m = measured(json!([
        block("p1", "photo", P1),
        writing,
        block("t1", "title", T1)
    ]));
    assert!((m.emptied - 0.5).abs() < 1e-9);
}

#[test]
fn what_is_trimmed_is_a_share_of_the_prints_area() {
    let mut first = block("p1", "photo", P1);
    // 3 × 4 in of a print of 4 × 6 in: half of it.
    first["photo"] = json!("f1");
    first["print"] = json!({"w": 4, "h": 6});
    first["keep"] = json!({"x": 0.125, "y": 1.0 / 6.0, "w": 0.75, "h": 2.0 / 3.0});
    let m = measured(json!([
        first,
        block("p2", "photo", P2),
        block("t1", "title", T1)
    ]));
    assert!((m.trimmed - 0.5).abs() < 1e-6, "{}", m.trimmed);
}
