//! What shows and what is cut, by hand-made numbers and against a raster of quarter inches.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::papers::{Pieces, Piecing};
use proptest::prelude::*;
use serde_json::{Value, json};

fn block(id: &str, kind: &str, (x, y, w, h): (f64, f64, f64, f64)) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": x, "y": y, "w": w, "h": h}})
}

fn request(blocks: &[Value]) -> Value {
    json!({"format": "metrosk-piecing/1", "unit": "in", "layout": {
        "format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks}})
}

fn pieces(request: &Value) -> (Piecing, Pieces) {
    let piecing = Piecing::from_json(request).expect("it is a request");
    let pieces = piecing.pieces();
    (piecing, pieces)
}

fn answer(request: &Value) -> Value {
    let (piecing, pieces) = pieces(request);
    piecing.answer(&pieces)
}

fn piece<'a>(answer: &'a Value, id: &str) -> &'a Value {
    let all = answer["pieces"].as_array().expect("a list");
    all.iter().find(|p| p["id"] == id).expect("it is needed")
}

fn rect(value: &Value) -> [f64; 4] {
    ["x", "y", "w", "h"].map(|side| value[side].as_f64().expect("a number"))
}

#[test]
fn a_strip_under_a_photo_shows_in_two_parts_and_tucks_at_no_page_edge() {
    let mut r = request(&[
        block("s1", "strip", (0.0, 8.0, 12.0, 1.5)),
        block("p1", "photo", (4.0, 4.0, 4.0, 6.0)),
    ]);
    r["papers"] = json!({"s1": "dots"});
    let a = answer(&r);
    let strip = piece(&a, "s1");
    assert_eq!(strip["shows"]["parts"], 2);
    assert_eq!(strip["shows"]["area"].as_f64(), Some(12.0));
    assert_eq!(rect(&strip["cut"]), [0.0, 8.0, 12.0, 1.5]);
}

#[test]
fn a_lean_cut_reaches_half_an_inch_under_what_hides_it() {
    let mut r = request(&[
        block("a1", "paper", (1.0, 1.0, 6.0, 4.0)),
        block("p1", "photo", (5.0, 0.5, 5.0, 5.0)),
    ]);
    r["papers"] = json!({"a1": "waves"});
    assert_eq!(rect(&piece(&answer(&r), "a1")["cut"]), [1.0, 1.0, 4.5, 4.0]);
    r["tucks"] = json!({"a1": 0.25});
    assert_eq!(
        rect(&piece(&answer(&r), "a1")["cut"]),
        [1.0, 1.0, 4.25, 4.0]
    );
    r["cuts"] = json!({"a1": "whole"});
    assert_eq!(rect(&piece(&answer(&r), "a1")["cut"]), [1.0, 1.0, 6.0, 4.0]);
}

#[test]
fn a_panel_that_meets_a_strip_laid_over_its_edge_tucks_under_it() {
    let mut r = request(&[
        block("a1", "paper", (0.0, 0.0, 4.0, 8.0)),
        block("s1", "strip", (0.0, 8.0, 12.0, 1.0)),
    ]);
    r["papers"] = json!({"a1": "kites"});
    let a = answer(&r);
    assert_eq!(rect(&piece(&a, "a1")["cut"]), [0.0, 0.0, 4.0, 8.5]);
    assert_eq!(
        piece(&a, "a1")["tucked"],
        json!({"left": 0, "right": 0, "top": 0, "bottom": 0.5})
    );
}

#[test]
fn what_is_wholly_hidden_is_not_needed() {
    let mut r = request(&[
        block("a1", "paper", (4.0, 4.0, 2.0, 2.0)),
        block("m1", "mat", (3.0, 3.0, 4.0, 4.0)),
    ]);
    r["papers"] = json!({"a1": "waves", "m1": "navy"});
    let a = answer(&r);
    assert_eq!(a["not_needed"], json!(["a1"]));
    // Through vellum it shows.
    r["see_through"] = json!(["navy"]);
    assert_eq!(answer(&r)["not_needed"], json!([]));
}

#[test]
fn units_are_pieces_and_half_ones_too() {
    let mut grid = block("g1", "grid", (0.0, 0.0, 6.0, 4.0));
    grid["grid"] = json!({"cols": 3, "rows": 2, "gap": 0, "stagger": 0.5});
    let mut r = request(&[grid]);
    r["papers"] = json!({"g1": "mixed"});
    let a = answer(&r);
    assert_eq!(a["pieces"].as_array().map(Vec::len), Some(7));
    assert_eq!(rect(&piece(&a, "g1/2/1")["cut"]), [0.0, 2.0, 1.0, 2.0]);
    assert_eq!(rect(&piece(&a, "g1/2/4")["cut"]), [5.0, 2.0, 1.0, 2.0]);
}

#[test]
fn a_part_takes_its_units_from_the_whole() {
    let mut left = block("g1", "grid", (10.0, 0.0, 2.0, 2.0));
    left["whole"] =
        json!({"box": {"x": 10, "y": 0, "w": 4, "h": 2}, "grid": {"cols": 2, "rows": 1, "gap": 0}});
    let mut r = request(&[left]);
    r["layout"]["canvas"]["pages"] = json!(2);
    r["papers"] = json!({"g1": "mixed"});
    let a = answer(&r);
    assert_eq!(a["pieces"].as_array().map(Vec::len), Some(1));
    assert_eq!(rect(&piece(&a, "g1/1/1")["cut"]), [10.0, 0.0, 2.0, 2.0]);
}

#[test]
fn the_hidden_middle_keeps_its_margin_and_its_bars() {
    let mut r = request(&[block("p1", "photo", (2.0, 2.0, 8.0, 6.0))]);
    r["ground"] = json!(["kraft"]);
    r["gut"] = json!({"margin": 0.5, "bar": 1, "least": 2, "from": ["ground-0"]});
    assert_eq!(
        rect(&piece(&answer(&r), "ground-0")["hole"]),
        [2.5, 2.5, 7.0, 5.0]
    );
    r["gut"]["bar"] = json!(3);
    assert_eq!(
        rect(&piece(&answer(&r), "ground-0")["hole"]),
        [3.0, 3.0, 6.0, 4.5]
    );
    r["gut"]["least"] = json!(5);
    assert!(piece(&answer(&r), "ground-0").get("hole").is_none());
}

#[test]
fn under_a_round_photo_the_largest_hole_is_the_square_in_the_circle() {
    let mut round = block("p1", "photo", (2.0, 2.0, 8.0, 8.0));
    round["shape"] = json!({"type": "ellipse"});
    let mut r = request(&[round]);
    r["ground"] = json!(["kraft"]);
    r["gut"] = json!({"margin": 0.5, "bar": 0, "least": 1, "from": ["ground-0"]});
    let [.., w, h] = rect(&piece(&answer(&r), "ground-0")["hole"]);
    // Half an inch inside a circle of 4 in: a square in one of 3 1/2 in.
    let wanted = 3.5 * 2.0_f64.sqrt();
    assert!((w * h / (wanted * wanted) - 1.0).abs() < 0.005, "{w} x {h}");
}

#[test]
fn what_cannot_be_pieced_is_refused_with_its_path() {
    let blocks = [
        block("t1", "title", (1.0, 1.0, 4.0, 1.0)),
        block("a1", "paper", (4.0, 4.0, 2.0, 2.0)),
    ];
    for (field, value, path, said) in [
        (
            "papers",
            json!({"t1": "dots"}),
            "papers.t1",
            "the title “t1”",
        ),
        ("papers", json!({"zz": "dots"}), "papers.zz", "no block"),
        ("tucks", json!({"a1": -0.5}), "tucks.a1", "-0.5"),
        ("tucks", json!({"b9": 0.5}), "tucks.b9", "b9"),
        ("cut", json!("tight"), "cut", "tight"),
        (
            "gut",
            json!({"margin": 0, "bar": -1, "least": 1}),
            "gut.bar",
            "-1",
        ),
        ("layout", json!(7), "layout", "7"),
    ] {
        let mut r = request(&blocks);
        r[field] = value;
        let error = Piecing::from_json(&r).expect_err(said);
        assert!(error.findings.iter().any(|f| f.path == path), "{error}");
        assert!(error.to_string().contains(said), "{error}");
    }
    let twice = request(&[blocks[1].clone(), blocks[1].clone()]);
    assert!(
        Piecing::from_json(&twice)
            .expect_err("twice")
            .to_string()
            .contains("second time")
    );
}

/// Cells of a quarter inch: 48 a side.
const CELLS: i64 = 48;

type Cells = (i64, i64, i64, i64);

fn covers((x, y, w, h): Cells, (cx, cy): (i64, i64)) -> bool {
    (x..x + w).contains(&cx) && (y..y + h).contains(&cy)
}

fn cells() -> impl Iterator<Item = (i64, i64)> {
    (0..CELLS).flat_map(|y| (0..CELLS).map(move |x| (x, y)))
}

fn boxes() -> impl Strategy<Value = Vec<Cells>> {
    let one = (0..40_i64, 0..40_i64, 1..20_i64, 1..20_i64);
    prop::collection::vec(one, 1..9)
}

fn papered(boxes: &[Cells], cut: &str) -> Value {
    let quarter = |n: i64| n as f64 / 4.0;
    let blocks: Vec<Value> = boxes
        .iter()
        .enumerate()
        .map(|(n, (x, y, w, h))| {
            let place = (quarter(*x), quarter(*y), quarter(*w), quarter(*h));
            block(&format!("b{n}"), "paper", place)
        })
        .collect();
    let mut r = request(&blocks);
    r["papers"] = (0..boxes.len())
        .map(|n| (format!("b{n}"), json!("dots")))
        .collect::<serde_json::Map<_, _>>()
        .into();
    r["cut"] = json!(cut);
    r["ground"] = json!(["kraft"]);
    r["gut"] = json!({"margin": 0.5, "bar": 0.25, "least": 0.5, "from": ["ground-0", "b0", "b1"]});
    r
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn what_shows_and_what_is_hidden_is_what_is_there(boxes in boxes(), lean in any::<bool>()) {
        let a = answer(&papered(&boxes, if lean { "lean" } else { "whole" }));
        for (n, own) in boxes.iter().enumerate() {
            let shows: Vec<(i64, i64)> = cells()
                .filter(|c| covers(*own, *c) && !boxes[n + 1..].iter().any(|b| covers(*b, *c)))
                .collect();
            let id = format!("b{n}");
            if shows.is_empty() {
                prop_assert!(a["not_needed"].as_array().unwrap().contains(&json!(id)));
                continue;
            }
            let written = piece(&a, &id);
            let area = written["shows"]["area"].as_f64().unwrap();
            prop_assert!((area - shows.len() as f64 / 16.0).abs() < 1e-6, "{id} shows {area}");
            // All that shows is cut, and nothing is cut where the piece would show beyond its block.
            let [x, y, w, h] = rect(&written["cut"]).map(|v| v * 4.0);
            for (cx, cy) in cells() {
                let (mx, my) = (cx as f64 + 0.5, cy as f64 + 0.5);
                let in_cut = mx > x && mx < x + w && my > y && my < y + h;
                if shows.contains(&(cx, cy)) {
                    prop_assert!(in_cut, "{id} lacks {cx}, {cy}");
                } else if in_cut && !covers(*own, (cx, cy)) {
                    prop_assert!(boxes[n + 1..].iter().any(|b| covers(*b, (cx, cy))), "{id} would show at {cx}, {cy}");
                }
            }
        }
    }

    #[test]
    fn no_hole_shows_and_none_is_larger(boxes in boxes()) {
        let a = answer(&papered(&boxes, "whole"));
        for id in ["ground-0", "b0", "b1"] {
            let Some(written) = a["pieces"].as_array().unwrap().iter().find(|p| p["id"] == id) else { continue };
            let level = id.strip_prefix('b').map_or(0, |n| n.parse::<usize>().unwrap() + 1);
            let hidden = |c: (i64, i64)| boxes[level..].iter().any(|b| covers(*b, c));
            let cut = rect(&written["cut"]).map(|v| (v * 4.0).round() as i64);
            let shows: Vec<(i64, i64)> = cells()
                .filter(|c| covers((cut[0], cut[1], cut[2], cut[3]), *c) && !hidden(*c))
                .collect();
            let hole = written.get("hole").map(|h| rect(h).map(|v| v * 4.0));
            if let Some([x, y, w, h]) = hole {
                for (cx, cy) in &shows {
                    let (dx, dy) = (
                        (x - (*cx as f64 + 1.0)).max(*cx as f64 - x - w).max(0.0),
                        (y - (*cy as f64 + 1.0)).max(*cy as f64 - y - h).max(0.0),
                    );
                    prop_assert!(dx.hypot(dy) > 2.0 - 0.02, "{id}: {dx}, {dy} from what shows");
                }
            }
            // Away from what shows in x and in y is stricter than in a straight line: no such rectangle of cells is larger.
            let blocked = |c: (i64, i64)| !hidden(c) || shows.iter().any(|s| (s.0 - c.0).abs() <= 2 && (s.1 - c.1).abs() <= 2);
            let largest = largest_of_cells((cut[0] + 1, cut[1] + 1, cut[2] - 2, cut[3] - 2), blocked);
            let area = hole.map_or(0.0, |[.., w, h]| w * h);
            prop_assert!(area >= largest as f64 * 0.999, "{id}: {area} cells for {largest}");
        }
    }
}

/// The most cells of a free rectangle within a window, both sides at least two.
fn largest_of_cells((x, y, w, h): Cells, blocked: impl Fn((i64, i64)) -> bool) -> i64 {
    let mut largest = 0;
    let mut high = vec![0_i64; w.max(0) as usize];
    for row in y..y + h {
        for (n, high) in high.iter_mut().enumerate() {
            *high = if blocked((x + n as i64, row)) {
                0
            } else {
                *high + 1
            };
        }
        for from in 0..high.len() {
            let mut low = i64::MAX;
            for (to, high) in high.iter().enumerate().skip(from) {
                low = low.min(*high);
                let wide = (to - from + 1) as i64;
                if wide >= 2 && low >= 2 {
                    largest = largest.max(wide * low);
                }
            }
        }
    }
    largest
}
