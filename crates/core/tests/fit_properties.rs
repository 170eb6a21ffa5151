//! Any valid sketch on any page: proposals without a fault, in both units, the same each time.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{PAGES, assert_sound, request, sound};
use metrosk_core::fit::{self, Outcome, Proposal, Request};
use metrosk_core::layout::LayoutBlock;
use proptest::prelude::*;
use serde_json::{Value, json};

/// A place on a quarter-inch lattice of a 12 in page.
fn place(least: u32, most: u32) -> impl Strategy<Value = [f64; 4]> {
    (least..=most, least..=most).prop_flat_map(|(w, h)| {
        (1..=47 - w, 1..=47 - h).prop_map(move |(x, y)| {
            [
                f64::from(x) / 4.0,
                f64::from(y) / 4.0,
                f64::from(w) / 4.0,
                f64::from(h) / 4.0,
            ]
        })
    })
}

fn boxed(id: String, kind: &str, [x, y, w, h]: [f64; 4]) -> Value {
    json!({"id": id, "kind": kind, "box": {"x": x, "y": y, "w": w, "h": h}})
}

/// One block of any kind; a photo may bring its mat.
fn block(n: usize) -> impl Strategy<Value = Vec<Value>> {
    let photo = (
        place(6, 24),
        any::<bool>(),
        prop_oneof![8 => Just(0), 2 => -12..=12i32, 1 => Just(90)],
    )
        .prop_map(move |(at, mat, turn)| {
            let mut photo = boxed(format!("p{n}"), "photo", at);
            photo["turn"] = json!(turn);
            let [x, y, w, h] = at;
            let inside = x >= 0.5 && y >= 0.5 && x + w <= 11.5 && y + h <= 11.5;
            let mut around = boxed(
                format!("m{n}"),
                "mat",
                [x - 0.125, y - 0.125, w + 0.25, h + 0.25],
            );
            around["under"] = json!(format!("p{n}"));
            around["turn"] = json!(turn);
            if mat && inside {
                vec![around, photo]
            } else {
                vec![photo]
            }
        });
    let strip = (0..44u32, 1..6u32).prop_map(move |(y, h)| {
        let mut strip = boxed(
            format!("s{n}"),
            "strip",
            [0.0, f64::from(y) / 4.0, 12.0, f64::from(h) / 4.0],
        );
        strip["bleed"] = json!(["left", "right"]);
        vec![strip]
    });
    let panel = (place(4, 40), any::<bool>()).prop_map(move |([_, y, w, h], left)| {
        let mut panel = boxed(
            format!("b{n}"),
            "paper",
            [if left { 0.0 } else { 12.0 - w }, y, w, h],
        );
        panel["bleed"] = json!([if left { "left" } else { "right" }]);
        vec![panel]
    });
    let grid = (place(8, 30), 1..6u32, 1..4u32, any::<bool>()).prop_map(move |(at, cols, rows, stagger)| {
        let mut grid = boxed(format!("g{n}"), "grid", at);
        grid["grid"] = json!({"cols": cols, "rows": rows, "gap": 0.125, "stagger": if stagger { 0.5 } else { 0.0 }});
        vec![grid]
    });
    let round = (place(6, 24), any::<bool>()).prop_map(move |([x, y, w, h], ring)| {
        let size = w.min(h);
        let mut round = boxed(
            format!("r{n}"),
            if ring { "ring" } else { "wash" },
            [x, y, size, size],
        );
        if ring {
            round["ring"] = json!({"count": 8, "unit": size / 4.0});
        } else {
            round["shape"] = json!({"type": "ellipse"});
        }
        vec![round]
    });
    let plain = (
        place(3, 20),
        prop_oneof![
            Just("title"),
            Just("journal"),
            Just("accent"),
            Just("paper"),
            Just("cluster")
        ],
    )
        .prop_map(move |(at, kind)| vec![boxed(format!("x{n}"), kind, at)]);
    prop_oneof![4 => photo, 1 => strip, 1 => panel, 1 => grid, 1 => round, 3 => plain]
}

fn sketch() -> impl Strategy<Value = Value> {
    (1..10usize).prop_flat_map(|count| (0..count).map(block).collect::<Vec<_>>()).prop_map(|blocks| {
        let blocks: Vec<Value> = blocks.into_iter().flatten().collect();
        json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Any", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
    })
}

/// 160 cases of each, or as many as METROSK_CASES says.
fn cases() -> u32 {
    std::env::var("METROSK_CASES")
        .ok()
        .and_then(|n| n.parse().ok())
        .unwrap_or(160)
}

/// The boxes of a layout's blocks, in ticks, by name.
fn boxes(proposal: &Proposal) -> Vec<(String, [f64; 4])> {
    let edges = |b: &LayoutBlock| {
        let s = b.extent();
        [s.l, s.t, s.r, s.b]
    };
    proposal
        .layout
        .blocks
        .iter()
        .map(|b| (b.block.id.clone(), edges(b)))
        .collect()
}

/// A request for the sketch's own page and more, with no room kept free.
fn own_page(sketch: &Value, unit: f64, more: Value) -> Request {
    let target = json!({"page": {"w": 12.0 * unit, "h": 12.0 * unit}, "pages": 1});
    let mut fit = json!({"format": "metrosk-fit/1", "unit": sketch["unit"], "sketch": sketch, "target": target, "approach": "scale"});
    fit.as_object_mut()
        .unwrap()
        .extend(more.as_object().unwrap().clone());
    Request::from_json(&fit).unwrap()
}

fn first(request: &Request) -> Proposal {
    match fit::fit(request) {
        Outcome::Proposals(mut proposals) => proposals.swap_remove(0),
        Outcome::Conflict(conflict) => panic!("{}", conflict.text),
    }
}

/// The same document with every length in millimetres.
fn in_millimetres(value: &Value) -> Value {
    const LENGTHS: [&str; 7] = ["x", "y", "w", "h", "gap", "unit", "at"];
    match value {
        Value::Object(fields) => fields
            .iter()
            .map(|(k, v)| match (LENGTHS.contains(&k.as_str()), v.as_f64()) {
                (true, Some(length)) => (k.clone(), json!((length * 25.4 * 1e6).round() / 1e6)),
                _ if k == "unit" => (k.clone(), json!("mm")),
                _ => (k.clone(), in_millimetres(v)),
            })
            .collect(),
        Value::Array(list) => list.iter().map(in_millimetres).collect(),
        other => other.clone(),
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: cases(), max_shrink_iters: 200, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn any_sketch_fits_any_page_without_a_fault(sketch in sketch(), page in 0..PAGES.len(), pages in 1..=2u8) {
        sound(&request(&sketch, page, pages, json!({})));
    }

    #[test]
    fn any_photo_count_is_met_or_said_to_be_impossible(sketch in sketch(), page in 0..PAGES.len(), pages in 1..=2u8, count in 1..9usize) {
        let request = request(&sketch, page, pages, json!({"photos": {"count": count}}));
        match fit::fit(&request) {
            Outcome::Proposals(proposals) => proposals.iter().for_each(|p| assert_sound(&request, p)),
            Outcome::Conflict(conflict) => {
                prop_assert!(!conflict.limits.is_empty() && !conflict.text.is_empty());
                prop_assert!(conflict.pins.is_empty());
            }
        }
    }

    #[test]
    fn a_pin_is_met_or_named(sketch in sketch(), pages in 1..=2u8, at in 0..48i32, edge in 0..6usize) {
        let block = sketch["blocks"][0]["id"].clone();
        let pins = json!([{"block": block, "edge": fit::PinEdge::NAMES[edge], "at": f64::from(at) / 4.0}]);
        let request = request(&sketch, 0, pages, json!({"pins": pins}));
        match fit::fit(&request) {
            Outcome::Proposals(proposals) => proposals.iter().for_each(|p| assert_sound(&request, p)),
            Outcome::Conflict(conflict) => prop_assert_eq!(conflict.pins, vec![0]),
        }
    }

    #[test]
    fn the_same_request_gives_the_same_answer(sketch in sketch(), pages in 1..=2u8) {
        let request = request(&sketch, 1, pages, json!({}));
        prop_assert_eq!(fit::fit(&request), fit::fit(&request));
    }

    #[test]
    fn a_fit_to_its_own_page_is_the_sketch_itself(sketch in sketch()) {
        let request = own_page(&sketch, 1.0, json!({"snap": 0.125}));
        let found = first(&request);
        let canvas = request.sketch.canvas.span();
        for block in &found.layout.blocks {
            let drawn = &request.sketch.blocks[request.sketch.index_of(&block.from[0]).unwrap()];
            let (was, is) = (drawn.measured(canvas), block.extent());
            for (a, b) in [(was.l, is.l), (was.t, is.t), (was.r, is.r), (was.b, is.b)] {
                // What stands at half a ruler step goes to the nearest mark.
                prop_assert!((a - b).abs() <= 12_800.0, "{}: {:?} became {:?}", block.block.id, was, is);
            }
        }
        prop_assert!(found.measures.alignments.kept == found.measures.alignments.of);
    }

    #[test]
    fn flipped_before_is_flipped_after(sketch in sketch(), page in 0..PAGES.len()) {
        let by = |flip: &str| first(&request(&sketch, page, 1, json!({"flip": flip, "snap": 0, "approach": "scale"})));
        let (plain, across, down) = (by("none"), by("across"), by("down"));
        let size = plain.layout.canvas.page;
        let (w, h) = (size.w.ticks() as f64, size.h.ticks() as f64);
        for (n, (id, [l, t, r, b])) in boxes(&plain).into_iter().enumerate() {
            let ([al, at, ar, ab], [dl, dt, dr, db]) = (boxes(&across)[n].1, boxes(&down)[n].1);
            for (x, y) in [(w - r, al), (t, at), (w - l, ar), (b, ab), (l, dl), (h - b, dt), (r, dr), (h - t, db)] {
                prop_assert!((x - y).abs() < 4_000.0, "{id} by {}: {x} and {y}", size.w.ticks());
            }
        }
    }

    #[test]
    fn inches_and_millimetres_are_the_same_page(sketch in sketch()) {
        let inches = first(&own_page(&sketch, 1.0, json!({"snap": 0.125})));
        let metric = first(&own_page(&in_millimetres(&sketch), 25.4, json!({"snap": 3.175})));
        for ((id, a), (_, b)) in boxes(&inches).into_iter().zip(boxes(&metric)) {
            for (x, y) in a.into_iter().zip(b) {
                prop_assert!((x - y).abs() <= 25_400.0, "{id}: {x} and {y}");
            }
        }
    }
}

proptest! {
    // Each tries many gaps between faces: a quarter as many cases take as long as the others.
    #![proptest_config(ProptestConfig { cases: cases().div_ceil(4), max_shrink_iters: 200, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn no_face_lies_in_the_fold(
        sketch in sketch(),
        page in 0..PAGES.len(),
        sizes in proptest::collection::vec((2..10u32, 2..10u32, 0..70u32, 5..30u32), 10),
        whole in any::<bool>(),
    ) {
        let inch = if PAGES[page].1 == "in" { 1.0 } else { 25.4 };
        let slots = sketch["blocks"].as_array().unwrap().iter().filter(|b| b["kind"] == "photo").count();
        prop_assume!((1..=10).contains(&slots));
        let prints = sizes.iter().take(slots).enumerate().map(|(n, (w, h, x, wide))| {
            let face = json!({"x": f64::from(*x) / 100.0, "y": 0.25, "w": f64::from(*wide) / 100.0, "h": 0.25});
            json!({"id": format!("f{n}"), "w": f64::from(*w) * inch, "h": f64::from(*h) * inch, "faces": [face]})
        });
        let prints: Vec<Value> = prints.collect();
        let rule = if whole { "whole" } else { "trim" };
        let request = request(&sketch, page, 2, json!({"photos": prints, "across_fold": ["photo"], "photo_rule": rule, "snap": 0}));
        match fit::fit(&request) {
            Outcome::Proposals(proposals) => proposals.iter().for_each(|p| assert_sound(&request, p)),
            Outcome::Conflict(conflict) => prop_assert!(!conflict.limits.is_empty(), "{}", conflict.text),
        }
    }
}
