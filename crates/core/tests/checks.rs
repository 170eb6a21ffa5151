//! Checks of a page: paper that is shut in, edges that nearly agree, and cures that cure.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::checks::{Check, Checked};
use proptest::prelude::*;
use serde_json::{Value, json};

fn block(id: &str, kind: &str, (x, y, w, h): (f64, f64, f64, f64)) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": x, "y": y, "w": w, "h": h}})
}

fn request(blocks: &[Value]) -> Value {
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    json!({"format": "metrosk-check/1", "unit": "in", "layout": layout})
}

/// Four photos around a hole of 2 by 2 in.
fn wheel() -> Vec<Value> {
    vec![
        block("p1", "photo", (2.0, 2.0, 5.0, 3.0)),
        block("p2", "photo", (7.0, 2.0, 3.0, 5.0)),
        block("p3", "photo", (5.0, 7.0, 5.0, 3.0)),
        block("p4", "photo", (2.0, 5.0, 3.0, 5.0)),
    ]
}

fn checked(request: &Value) -> (Check, Checked) {
    let check = Check::from_json(request).unwrap();
    let found = check.checked();
    (check, found)
}

fn pockets(blocks: &[Value]) -> usize {
    checked(&request(blocks)).1.pockets.len()
}

#[test]
fn a_hole_between_four_photos_is_found_with_its_neighbours() {
    let (check, found) = checked(&request(&wheel()));
    let answer = found.to_json(&check);
    let finding = &answer["findings"][0];
    assert_eq!(finding["what"], "trapped");
    assert!((finding["area"].as_f64().unwrap() - 4.0).abs() < 1e-3);
    assert_eq!(finding["between"], json!(["p1", "p2", "p3", "p4"]));
    assert_eq!(
        finding["text"],
        "About 4.0 square inches of empty paper are shut in between p1, p2, p3 and p4."
    );
    let near = |at: &str, wanted: f64| {
        let found = finding["box"][at].as_f64().unwrap();
        assert!((found - wanted).abs() < 1e-4, "{at} is {found}");
    };
    for (at, wanted) in [("x", 5.0), ("y", 5.0), ("w", 2.0), ("h", 2.0)] {
        near(at, wanted);
    }
}

#[test]
fn a_mouth_of_half_an_inch_opens_a_pocket() {
    let room = |mouth: f64| {
        pockets(&[
            block("a", "photo", (2.0, 2.0, 6.0, 2.0)),
            block("b", "photo", (2.0, 4.0, 2.0, 3.0)),
            block("c", "photo", (6.0, 4.0, 2.0, 3.0)),
            block("d", "photo", (2.0, 7.0, 2.5, 2.0)),
            block("e", "photo", (4.5 + mouth, 7.0, 3.5 - mouth, 2.0)),
        ])
    };
    assert_eq!(
        (room(0.48), room(0.4999), room(0.5), room(0.7)),
        (1, 1, 0, 0)
    );
}

#[test]
fn ground_and_wash_shut_nothing_in_and_an_accent_fills_a_pocket() {
    let with = |more: Value| {
        let mut blocks = wheel();
        blocks.insert(0, more);
        pockets(&blocks)
    };
    assert_eq!(with(block("n1", "paper", (0.0, 0.0, 12.0, 12.0))), 1);
    assert_eq!(with(block("w1", "wash", (5.0, 5.0, 2.0, 2.0))), 1);
    assert_eq!(with(block("a1", "accent", (5.2, 5.2, 1.6, 1.6))), 0);
}

#[test]
fn edges_that_nearly_agree_are_told_once_with_how_far_they_are_off() {
    let blocks = [
        block("p1", "photo", (1.0, 1.0, 4.0, 3.0)),
        block("t1", "title", (1.0625, 5.0, 6.0, 1.0)),
        block("a1", "accent", (1.1, 7.0, 1.0, 1.0)),
    ];
    let (check, found) = checked(&request(&blocks));
    let answer = found.to_json(&check);
    let finding = |what: &str| {
        let all = answer["findings"].as_array().unwrap();
        all.iter().filter(|f| f["what"] == what).count()
    };
    assert_eq!((finding("near"), finding("trapped")), (1, 0));
    assert_eq!(answer["findings"][0]["edge"], "left");
    assert_eq!(answer["findings"][0]["off"], 0.0625);
    assert_eq!(
        answer["findings"][0]["text"],
        "The left edges of p1 and t1 are 1/16 in apart: put them in line, or clearly apart."
    );
}

#[test]
fn what_is_wrong_is_told_by_place() {
    let mut asked = request(&wheel());
    asked["trapped"] = json!({"opening": 0.7, "width": 0.6});
    let told = Check::from_json(&asked).unwrap_err().to_string();
    assert_eq!(
        told,
        "trapped: found width 0.6 in, opening 0.7 in; allowed is a width of at least the opening"
    );
    let mut twice = wheel();
    twice[1]["id"] = json!("p1");
    let told = Check::from_json(&request(&twice)).unwrap_err().to_string();
    assert!(
        told.starts_with("layout: found the block id “p1” twice"),
        "{told}"
    );
}

/// The page with a cure, mats aside: there are none on these pages.
fn with_cure(request: &Value, cure: &Value) -> Value {
    let mut changed = request.clone();
    let blocks = changed["layout"]["blocks"].as_array_mut().unwrap();
    match cure.get("block").and_then(Value::as_str) {
        Some(id) => {
            let block = blocks.iter_mut().find(|b| b["id"] == id).unwrap();
            block["box"] = cure["box"].clone();
        }
        None => blocks.push(
            json!({"id": "cure", "from": [], "kind": "accent", "page": 0, "box": cure["box"]}),
        ),
    }
    changed
}

fn some_page() -> impl Strategy<Value = Value> {
    let side = |most: u32| (1_u32..most).prop_map(|n| f64::from(n) / 4.0);
    let kind = prop::sample::select(vec![
        "photo", "photo", "paper", "title", "journal", "strip", "accent",
    ]);
    let one = (kind, side(40), side(40), side(24), side(24));
    prop::collection::vec(one, 3..12).prop_map(|blocks| {
        let all: Vec<Value> = blocks
            .iter()
            .enumerate()
            .map(|(n, (kind, x, y, w, h))| {
                block(
                    &format!("b{n}"),
                    kind,
                    (*x, *y, w.min(12.0 - x), h.min(12.0 - y)),
                )
            })
            .collect();
        request(&all)
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    #[test]
    fn a_cure_cures_and_makes_nothing_else_a_finding(asked in some_page()) {
        let (check, found) = checked(&asked);
        let answer = found.to_json(&check);
        for finding in answer["findings"].as_array().unwrap() {
            for cure in finding["cures"].as_array().into_iter().flatten() {
                let (_, after) = checked(&with_cure(&asked, cure));
                prop_assert!(after.pockets.len() < found.pockets.len(), "{cure}");
                prop_assert!(after.near.len() <= found.near.len(), "{cure}");
            }
        }
    }
}
