//! Sketches and requests as documents: lenient to unknown fields, strict to broken ones, all findings at once.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::fit;
use metrosk_core::fit::Request;
use metrosk_core::layout::Layout;
use metrosk_core::plan::{self, Plan};
use metrosk_core::sketch::{Flip, QuarterTurn, Sketch};
use serde_json::{Value, json};

fn sketch() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "All kinds", "origin": {"how": "challenge", "maker": "Wren", "after": ["Pim"]},
        "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "season": "winter",
        "blocks": [
            {"id": "w1", "kind": "wash", "box": {"x": 1.5, "y": 1.2, "w": 9, "h": 8}, "shape": {"type": "ellipse"}},
            {"id": "b1", "kind": "paper", "box": {"x": 8, "y": 8, "w": 4, "h": 4}, "shape": {"type": "triangle", "corner": "bottom-right"}, "bleed": ["right", "bottom"]},
            {"id": "b2", "kind": "paper", "box": {"x": 1, "y": 1, "w": 4, "h": 4}, "shape": {"type": "polygon", "points": [[0, 0], [1, 0.25], [0.5, 1]]}},
            {"id": "s1", "kind": "strip", "box": {"x": -0.25, "y": 8, "w": 12.5, "h": 1.5}, "bleed": ["left", "right"], "turn": -2.5},
            {"id": "g1", "kind": "grid", "box": {"x": 0.5, "y": 0.5, "w": 4, "h": 2}, "grid": {"cols": 4, "rows": 2, "gap": 0.125, "stagger": 0.5, "unit_shape": "circle"}},
            {"id": "r1", "kind": "ring", "box": {"x": 6, "y": 1, "w": 4, "h": 4}, "ring": {"count": 12, "unit": 0.75}},
            {"id": "m1", "kind": "mat", "box": {"x": 1.875, "y": 1.875, "w": 4.25, "h": 6.25}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 6}, "sure": 0.75, "paper_idea": "tide"},
            {"id": "t1", "kind": "title", "box": {"x": 6.5, "y": 6, "w": 4, "h": 1}},
            {"id": "j1", "kind": "journal", "box": {"x": 6.5, "y": 7.25, "w": 4, "h": 0.5}},
            {"id": "c1", "kind": "cluster", "size": "large", "box": {"x": 5, "y": 6.5, "w": 2, "h": 2}, "host": "p1"},
            {"id": "a1", "kind": "accent", "box": {"x": 9, "y": 9, "w": 1.5, "h": 0.75}, "turn": 12},
        ],
    })
}

/// Field by field, with numbers compared as numbers and defaults that the writer spells out allowed.
fn holds_all_of(written: &Value, given: &Value, path: &str) {
    match (written, given) {
        (Value::Object(w), Value::Object(g)) => g
            .iter()
            .for_each(|(name, value)| holds_all_of(&w[name], value, &format!("{path}.{name}"))),
        (Value::Array(w), Value::Array(g)) => {
            assert_eq!(w.len(), g.len(), "{path}");
            w.iter()
                .zip(g)
                .enumerate()
                .for_each(|(n, (w, g))| holds_all_of(w, g, &format!("{path}[{n}]")));
        }
        (Value::Number(w), Value::Number(g)) => assert_eq!(w.as_f64(), g.as_f64(), "{path}"),
        _ => assert_eq!(written, given, "{path}"),
    }
}

#[test]
fn every_kind_and_unknown_fields_come_back_as_they_were() {
    let written = Sketch::from_json(&sketch()).unwrap().to_json();
    holds_all_of(&written, &sketch(), "sketch");
    assert_eq!(Sketch::from_json(&written).unwrap().to_json(), written);
}

/// A change of the sketch above, and the path at which it is found.
#[test]
fn a_broken_rule_is_found_at_its_path() {
    let cases: &[(&str, Value, &str)] = &[
        ("/format", json!("metrosk-sketch/2"), "format"),
        ("/unit", json!("cm"), "unit"),
        ("/canvas/pages", json!(3), "canvas.pages"),
        ("/canvas/page/w", json!(0), "canvas.page.w"),
        ("/canvas/page/h", json!("12"), "canvas.page.h"),
        ("/canvas", Value::Null, "canvas"),
        ("/name", json!(7), "name"),
        ("/origin/how", json!("found"), "origin.how"),
        ("/blocks", json!({}), "blocks"),
        ("/blocks/0/kind", json!("splash"), "blocks[0].kind"),
        ("/blocks/0/id", json!(""), "blocks[0].id"),
        ("/blocks/0/box/w", json!(-1), "blocks[0].box.w"),
        ("/blocks/0/box", json!([1, 2, 3, 4]), "blocks[0].box"),
        (
            "/blocks/0/shape/type",
            json!("star"),
            "blocks[0].shape.type",
        ),
        (
            "/blocks/1/shape/corner",
            json!("top"),
            "blocks[1].shape.corner",
        ),
        (
            "/blocks/1/bleed",
            json!(["right", "down"]),
            "blocks[1].bleed[1]",
        ),
        ("/blocks/1/bleed", json!("right"), "blocks[1].bleed"),
        (
            "/blocks/2/shape/points",
            json!([[0, 0], [1, 1]]),
            "blocks[2].shape.points",
        ),
        (
            "/blocks/2/shape/points/1",
            json!([1, 1.5]),
            "blocks[2].shape.points[1]",
        ),
        ("/blocks/3/turn", json!("left"), "blocks[3].turn"),
        ("/blocks/4/grid/cols", json!(0), "blocks[4].grid.cols"),
        ("/blocks/4/grid/rows", json!(1.5), "blocks[4].grid.rows"),
        (
            "/blocks/4/grid/stagger",
            json!(0.25),
            "blocks[4].grid.stagger",
        ),
        ("/blocks/4/grid", Value::Null, "blocks[4].grid"),
        ("/blocks/5/ring/unit", json!(0), "blocks[5].ring.unit"),
        ("/blocks/5/ring", Value::Null, "blocks[5].ring"),
        ("/blocks/6/under", json!("p9"), "blocks[6].under"),
        ("/blocks/6/under", json!("m1"), "blocks[6].under"),
        ("/blocks/7/id", json!("m1"), "blocks[7].id"),
        ("/blocks/7/sure", json!(2), "blocks[7].sure"),
        ("/blocks/10/size", json!("huge"), "blocks[10].size"),
        ("/blocks/10/host", json!("nobody"), "blocks[10].host"),
    ];
    for (pointer, value, path) in cases {
        let mut document = sketch();
        *document.pointer_mut(pointer).unwrap() = value.clone();
        let invalid = Sketch::from_json(&document).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path.starts_with(path)),
            "{pointer} = {value}: {invalid}"
        );
        assert!(
            invalid
                .findings
                .iter()
                .all(|f| !f.found.is_empty() && !f.allowed.is_empty()),
            "{invalid}"
        );
    }
}

#[test]
fn all_findings_are_told_at_once() {
    let mut document = sketch();
    document["unit"] = json!("ell");
    document["blocks"][0]["kind"] = json!("splash");
    document["blocks"][9]["box"]["h"] = json!(0);
    document["blocks"][11]["id"] = json!("w1");
    let paths: Vec<String> = Sketch::from_json(&document)
        .unwrap_err()
        .findings
        .into_iter()
        .map(|f| f.path)
        .collect();
    assert_eq!(
        paths,
        ["unit", "blocks[0].kind", "blocks[9].box.h", "blocks[11].id"]
    );
}

#[test]
fn mats_that_frame_each_other_in_a_ring_are_refused() {
    let mut document = sketch();
    document["blocks"][7] =
        json!({"id": "p1", "kind": "mat", "box": {"x": 1, "y": 1, "w": 2, "h": 2}, "under": "m1"});
    let invalid = Sketch::from_json(&document).unwrap_err();
    assert!(
        invalid.findings.iter().any(|f| f.path == "blocks[6].under"),
        "{invalid}"
    );
}

fn request() -> Value {
    json!({
        "format": "metrosk-fit/1", "unit": "in", "sketch": sketch(), "target": {"page": {"w": 8.5, "h": 11}, "pages": 1, "margin": 0.25},
        "photos": [{"id": "f1", "w": 4, "h": 6, "focal": true}], "approach": "scale", "snap": 0.125,
        "pins": [{"block": "p1", "edge": "left", "at": 1}],
    })
}

#[test]
fn a_broken_request_is_found_at_its_path() {
    assert!(Request::from_json(&request()).is_ok());
    let cases: &[(&str, Value, &str)] = &[
        ("/format", json!("metrosk-fit/9"), "format"),
        ("/sketch/unit", json!("ell"), "sketch.unit"),
        ("/sketch/blocks/3/box/w", json!(0), "sketch.blocks[3].box.w"),
        ("/sketch/blocks", json!([]), "sketch.blocks"),
        ("/target/pages", json!(0), "target.pages"),
        ("/target/margin", json!(-1), "target.margin"),
        ("/target/margin", json!(6), "target.margin"),
        ("/photos", json!([]), "photos"),
        ("/photos", json!("many"), "photos"),
        ("/photos", json!({"count": 0}), "photos.count"),
        ("/photos/0/w", json!(0), "photos[0].w"),
        (
            "/photos",
            json!([{"id": "a", "w": 4, "h": 6}, {"id": "a", "w": 4, "h": 6}]),
            "photos[1].id",
        ),
        ("/approach", json!("stretch"), "approach"),
        ("/approach", json!("wobble"), "approach"),
        ("/snap", json!(-0.125), "snap"),
        ("/pins/0/block", json!("p7"), "pins[0].block"),
        ("/pins/0/edge", json!("middle"), "pins[0].edge"),
        ("/pins/0/at", json!(null), "pins[0].at"),
    ];
    for (pointer, value, path) in cases {
        let mut document = request();
        *document.pointer_mut(pointer).unwrap() = value.clone();
        let invalid = Request::from_json(&document).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == *path),
            "{pointer} = {value}: {invalid}"
        );
    }
    for (field, value) in [
        ("turn", json!(45)),
        ("flip", json!("over")),
        ("photo_rule", json!("bend")),
        ("across_fold", json!(["mat"])),
    ] {
        let mut document = request();
        document[field] = value;
        assert!(
            Request::from_json(&document).unwrap_err().findings[0]
                .path
                .starts_with(field)
        );
    }
}

#[test]
fn a_layout_is_read_as_it_was_written() {
    let request = Request::from_json(&request()).unwrap();
    let fit::Outcome::Proposals(proposals) = fit::fit(&request) else {
        panic!("nothing stands in its way")
    };
    let layout = &proposals[0].layout;
    let read = Layout::from_json(&layout.to_json()).unwrap();
    assert_eq!(read.to_json(), layout.to_json());
    assert_eq!(read.photos(), 1);
}

#[test]
fn a_plan_names_what_is_wrong_in_its_fit() {
    let sketch = Sketch::from_json(&sketch()).unwrap();
    let mut started = plan::start(&sketch, &plan::Defaults::default());
    let read = Plan::from_json(&started).unwrap();
    assert_eq!(read.request().target, sketch.canvas);
    started["fit"]["snap"] = json!("fine");
    started["photos"]["photo_rule"] = json!("squash");
    let path = |plan: &Value| {
        let findings = Plan::from_json(plan).unwrap_err().findings;
        findings.into_iter().map(|f| f.path).collect::<Vec<_>>()
    };
    assert_eq!(path(&started), ["photos.photo_rule", "fit.snap"]);
    assert_eq!(path(&json!({"format": "x"})), ["format"]);
}

#[test]
fn four_quarter_turns_and_two_flips_are_none() {
    let sketch = Sketch::from_json(&sketch()).unwrap();
    let quarter = QuarterTurn::from_degrees(90).unwrap();
    let mut turned = sketch.clone();
    for _ in 0..4 {
        turned = turned.oriented(quarter, Flip::None);
    }
    assert_eq!(turned, sketch);
    for flip in [Flip::Across, Flip::Down] {
        let once = sketch.oriented(QuarterTurn::default(), flip);
        assert_ne!(once, sketch);
        assert_eq!(once.oriented(QuarterTurn::default(), flip), sketch);
    }
    let half = sketch.oriented(QuarterTurn::from_degrees(180).unwrap(), Flip::None);
    assert_eq!(
        half,
        sketch
            .oriented(quarter, Flip::None)
            .oriented(quarter, Flip::None)
    );
}

#[test]
fn a_turned_sketch_takes_bleeds_corners_and_units_along() {
    let turned = Sketch::from_json(&sketch())
        .unwrap()
        .oriented(QuarterTurn::from_degrees(90).unwrap(), Flip::None)
        .to_json();
    let block = |id: &str| {
        turned["blocks"]
            .as_array()
            .unwrap()
            .iter()
            .find(|b| b["id"] == id)
            .unwrap()
            .clone()
    };
    assert_eq!(block("b1")["bleed"], json!(["left", "bottom"]));
    assert_eq!(block("b1")["shape"]["corner"], "bottom-left");
    assert_eq!(block("g1")["grid"]["cols"], 2);
    assert_eq!(block("p1")["box"], json!({"x": 4, "y": 2, "w": 6, "h": 4}));
    assert_eq!(block("a1")["turn"], 12);
}
