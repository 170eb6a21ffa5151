//! Any valid sketch on any page: proposals without a fault, in both units, the same each time.

mod common;

use common::{PAGES, assert_sound, request, sound};
use metrosk_core::fit::{self, Outcome};
use proptest::prelude::*;
use serde_json::{Value, json};

/// A place on a quarter-inch lattice of a 12 in page.
fn place(least: u32, most: u32) -> impl Strategy<Value = [f64; 4]> {
    (least..=most, least..=most).prop_flat_map(|(w, h)| {
        (1..=47 - w, 1..=47 - h).prop_map(move |(x, y)| [f64::from(x) / 4.0, f64::from(y) / 4.0, f64::from(w) / 4.0, f64::from(h) / 4.0])
    })
}

fn boxed(id: String, kind: &str, [x, y, w, h]: [f64; 4]) -> Value {
    json!({"id": id, "kind": kind, "box": {"x": x, "y": y, "w": w, "h": h}})
}

/// One block of any kind; a photo may bring its mat.
fn block(n: usize) -> impl Strategy<Value = Vec<Value>> {
    let photo = (place(6, 24), any::<bool>(), prop_oneof![4 => Just(0), 1 => -12..=12i32]).prop_map(move |(at, mat, turn)| {
        let mut photo = boxed(format!("p{n}"), "photo", at);
        photo["turn"] = json!(turn);
        let [x, y, w, h] = at;
        let inside = x >= 0.5 && y >= 0.5 && x + w <= 11.5 && y + h <= 11.5;
        let mut around = boxed(format!("m{n}"), "mat", [x - 0.125, y - 0.125, w + 0.25, h + 0.25]);
        around["under"] = json!(format!("p{n}"));
        around["turn"] = json!(turn);
        if mat && inside { vec![around, photo] } else { vec![photo] }
    });
    let strip = (0..44u32, 1..6u32).prop_map(move |(y, h)| {
        let mut strip = boxed(format!("s{n}"), "strip", [0.0, f64::from(y) / 4.0, 12.0, f64::from(h) / 4.0]);
        strip["bleed"] = json!(["left", "right"]);
        vec![strip]
    });
    let panel = (place(4, 40), any::<bool>()).prop_map(move |([_, y, w, h], left)| {
        let mut panel = boxed(format!("b{n}"), "paper", [if left { 0.0 } else { 12.0 - w }, y, w, h]);
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
        let mut round = boxed(format!("r{n}"), if ring { "ring" } else { "wash" }, [x, y, size, size]);
        if ring {
            round["ring"] = json!({"count": 8, "unit": size / 4.0});
        } else {
            round["shape"] = json!({"type": "ellipse"});
        }
        vec![round]
    });
    let plain = (place(3, 20), prop_oneof![Just("title"), Just("journal"), Just("accent"), Just("paper"), Just("cluster")])
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
    std::env::var("METROSK_CASES").ok().and_then(|n| n.parse().ok()).unwrap_or(160)
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
}
