//! Sketches whose spreads once had no way onto the ruler by single steps.

mod common;

use common::{request, sound};
use serde_json::{Value, json};

fn boxed(id: &str, kind: &str, [x, y, w, h]: [f64; 4], more: Value) -> Value {
    let mut block = json!({"id": id, "kind": kind, "box": {"x": x, "y": y, "w": w, "h": h}});
    if let (Value::Object(block), Value::Object(more)) = (&mut block, more) {
        block.extend(more);
    }
    block
}

/// Turned photos over titles, more of them than the page has room for: limits of both axes bind at once.
#[test]
fn a_spread_crowded_with_turned_photos_is_put_on_the_ruler() {
    let none = || json!({});
    let blocks = json!([
        boxed("x0", "title", [3.75, 1.0, 2.75, 4.0], none()),
        boxed(
            "g1",
            "grid",
            [2.75, 3.75, 4.25, 4.0],
            json!({"grid": {"cols": 1, "rows": 3, "gap": 0.125, "stagger": 0.0}})
        ),
        boxed(
            "m2",
            "mat",
            [0.625, 3.625, 5.5, 2.0],
            json!({"under": "p2", "turn": -4})
        ),
        boxed("p2", "photo", [0.75, 3.75, 5.25, 1.75], json!({"turn": -4})),
        boxed(
            "r3",
            "ring",
            [10.0, 4.25, 1.5, 1.5],
            json!({"ring": {"count": 8, "unit": 0.375}})
        ),
        boxed("x4", "title", [6.0, 4.5, 0.75, 4.5], none()),
        boxed("x5", "cluster", [3.75, 7.25, 3.5, 0.75], none()),
        boxed("p6", "photo", [4.0, 7.0, 5.25, 2.75], json!({"turn": 4})),
        boxed("p7", "photo", [6.0, 4.5, 5.0, 5.5], none()),
        boxed("p8", "photo", [6.25, 4.75, 3.0, 3.25], none()),
    ]);
    let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Crowded", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    let level_letter = 5;
    let proposals = sound(&request(
        &sketch,
        level_letter,
        2,
        json!({"photos": {"count": 2}}),
    ));
    assert!(proposals.iter().any(|p| p.approach.name() == "stretch"));
}

/// Photos squeezed between the fold and each other: a tilted one has less than a step's play until its other edge is taken back.
#[test]
fn a_line_that_has_no_mark_left_takes_its_partner_back() {
    let none = || json!({});
    let blocks = json!([
        boxed(
            "m0",
            "mat",
            [6.875, 0.875, 2.0, 5.75],
            json!({"under": "p0"})
        ),
        boxed("p0", "photo", [7.0, 1.0, 1.75, 5.5], none()),
        boxed("x1", "journal", [1.75, 7.5, 3.0, 1.25], none()),
        boxed(
            "m2",
            "mat",
            [0.375, 1.875, 4.25, 3.5],
            json!({"under": "p2"})
        ),
        boxed("p2", "photo", [0.5, 2.0, 4.0, 3.25], none()),
        boxed("p3", "photo", [5.75, 0.5, 3.75, 3.75], none()),
        boxed(
            "m4",
            "mat",
            [5.125, 0.625, 5.5, 2.75],
            json!({"under": "p4"})
        ),
        boxed("p4", "photo", [5.25, 0.75, 5.25, 2.5], none()),
        boxed("p5", "photo", [2.25, 2.0, 3.5, 3.0], json!({"turn": -2})),
        boxed("p6", "photo", [6.5, 2.0, 5.25, 3.25], none()),
        boxed("p7", "photo", [4.5, 3.5, 2.75, 5.25], none()),
        boxed("p8", "photo", [4.0, 1.25, 5.75, 3.25], json!({"turn": 3})),
    ]);
    let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Squeezed", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    let a4 = 4;
    let proposals = sound(&request(&sketch, a4, 2, json!({"approach": "stretch"})));
    assert_eq!(proposals.len(), 1);
}

/// Blocks on their side are cut by their own boxes: those are on the ruler too, on pages where width and height come out uneven.
#[test]
fn blocks_on_their_side_have_their_own_boxes_on_the_ruler() {
    for (turn, w) in [(90, 3.0), (270, 3.125), (85, 2.875)] {
        let blocks = json!([
            boxed(
                "m1",
                "mat",
                [1.875, 1.875, w + 0.25, 2.25],
                json!({"under": "p1", "turn": turn})
            ),
            boxed("p1", "photo", [2.0, 2.0, w, 2.0], json!({"turn": turn})),
            boxed("p2", "photo", [6.0, 2.5, w, 2.0], json!({"turn": turn})),
            boxed("j1", "journal", [2.0, 8.0, 3.0, 1.5], json!({"turn": turn})),
        ]);
        let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Turned", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
        for page in 0..6 {
            for pages in [1, 2] {
                sound(&request(&sketch, page, pages, json!({})));
            }
        }
    }
}

/// Blocks in cells, each of another size and at another place in its cell, on an eighth of an inch: hundreds of edges and centres agree by
/// chance, and each block stands on several of those lines.
fn askew(count: usize) -> Value {
    let mut state = 7_u64;
    let mut random = |most: u64| {
        state = state
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        (state >> 33) % most
    };
    let cols = (count as f64).sqrt() as usize;
    let rows = count.div_ceil(cols);
    let eighths = |cells: usize| 92 / cells as u64;
    let mut blocks = Vec::new();
    for n in 0..count {
        let (w, h) = (eighths(cols), eighths(rows));
        let (bw, bh) = (w / 2 + random(w / 3), h / 2 + random(h / 3));
        let (x, y) = (
            2 + w * (n % cols) as u64 + random(w - bw),
            2 + h * (n / cols) as u64 + random(h - bh),
        );
        let kind = ["photo", "paper", "photo", "accent", "journal"][random(5) as usize];
        let at = [x, y, bw, bh].map(|v| v as f64 / 8.0);
        blocks.push(boxed(&format!("b{n}"), kind, at, json!({})));
    }
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Askew", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
}

#[test]
fn the_lines_of_a_crowd_hold_on_the_ruler() {
    for page in [1, 4] {
        let proposal =
            sound(&request(&askew(63), page, 1, json!({"approach": "scale"}))).swap_remove(0);
        let lines = proposal.measures.alignments;
        assert!(lines.of > 200, "many lines by chance: {lines:?}");
        assert!(lines.share() > 0.99, "{lines:?}");
        assert!(proposal.measures.relations.share() > 0.999 && proposal.measures.drift_mean < 0.01);
    }
}
