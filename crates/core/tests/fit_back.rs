//! The back of a see-through page.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Request, back};
use metrosk_core::geometry::Span;
use metrosk_core::layout::Layout;
use metrosk_core::plan;
use metrosk_core::sketch::{Shape, Sketch};
use serde_json::json;

fn front() -> Layout {
    let sketch = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Acetate", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "s1", "kind": "strip", "box": {"x": 1, "y": 0, "w": 1.5, "h": 12}, "bleed": ["top", "bottom"]},
            {"id": "a1", "kind": "paper", "box": {"x": 8, "y": 8, "w": 4, "h": 4}, "shape": {"type": "triangle", "corner": "bottom-right"},
             "bleed": ["right", "bottom"]},
            {"id": "p1", "kind": "photo", "box": {"x": 3, "y": 2, "w": 4, "h": 5}},
        ],
    });
    sound(&request(&sketch, 2, 1, json!({})))
        .swap_remove(0)
        .layout
}

fn behind() -> Sketch {
    Sketch::from_json(&json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Behind", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 5, "h": 4}},
            {"id": "t1", "kind": "title", "box": {"x": 2, "y": 8, "w": 5, "h": 1}},
        ],
    }))
    .unwrap()
}

#[test]
fn what_shows_through_lies_mirrored_and_fixed_on_the_back() {
    let front = front();
    let made = back(&front, &["s1".into(), "a1".into()], &behind()).unwrap();
    let request = Request {
        sketch: made.sketch,
        pins: made.pins,
        ..request(&behind().to_json(), 2, 1, json!({}))
    };
    let proposal = sound(&request).swap_remove(0);
    let at = |layout: &Layout, id: &str| {
        layout
            .blocks
            .iter()
            .filter(|b| b.from.iter().any(|f| f == id))
            .map(|b| b.extent())
            .reduce(Span::around)
            .unwrap()
    };
    let w = front.canvas.page.w.ticks() as f64;
    for id in ["s1", "a1"] {
        let (own, through) = (
            at(&front, id),
            at(&proposal.layout, &format!("{id}-through")),
        );
        assert!(
            (w - own.r - through.l).abs() < 2.0
                && (w - own.l - through.r).abs() < 2.0
                && (own.t - through.t).abs() < 2.0
        );
    }
    let wedge = proposal
        .layout
        .blocks
        .iter()
        .find(|b| b.block.id == "a1-through")
        .unwrap();
    assert!(
        matches!(wedge.block.shape, Shape::Triangle(corner) if corner.left && !corner.top),
        "{:?}",
        wedge.block.shape
    );
    assert_eq!(
        proposal
            .layout
            .blocks
            .iter()
            .filter(|b| b.block.kind.name() == "photo")
            .count(),
        1
    );
}

#[test]
fn a_plan_for_the_back_is_a_plan_like_any_other() {
    let plan = plan::start(&behind(), &plan::Defaults::default());
    let made = back(&front(), &["p1".into()], &behind()).unwrap();
    let plan = plan::with_back(plan, &front(), &made);
    let request = plan::Plan::from_json(&plan).unwrap().request();
    assert_eq!(request.target.page, front().canvas.page);
    assert_eq!(request.pins.len(), 4);
    assert_eq!(
        request.sketch.blocks[0].kind.name(),
        "paper",
        "a photo seen from behind is a piece of paper"
    );
    sound(&request);
}

#[test]
fn a_back_needs_a_page_and_something_to_see_through() {
    let spread = Sketch {
        canvas: metrosk_core::sketch::Canvas {
            pages: 2,
            ..behind().canvas
        },
        ..behind()
    };
    assert!(back(&front(), &["s1".into()], &spread).is_err());
    assert!(back(&front(), &[], &behind()).is_err());
    let unknown = back(&front(), &["x9".into()], &behind()).unwrap_err();
    assert_eq!(unknown.findings[0].found, "x9");
}
