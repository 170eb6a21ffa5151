//! The club's own sketches.

use metrosk_core::sketch::Sketch;
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use serde_json::{Value, json};

/// All sketches, best first.
pub(crate) fn all(seed: u64) -> Vec<Sketch> {
    let mut tilt = Tilt(StdRng::seed_from_u64(seed));
    [
        tide_line(),
        flag_row(&mut tilt),
        tea_at_the_slipway(&mut tilt),
        low_sun(),
        panel_and_four(),
        long_walk_out(&mut tilt),
        wind_across(&mut tilt),
        red_noses(),
        lantern_strip(),
    ]
    .iter()
    .map(|document| Sketch::from_json(document).expect("the demo's own sketches are valid"))
    .collect()
}

/// Small turns, as a hand puts things down.
struct Tilt(StdRng);

impl Tilt {
    /// A turn of 4 to 12 degrees either way, in halves.
    fn degrees(&mut self) -> f64 {
        let size = f64::from(self.0.random_range(8..=24)) / 2.0;
        if self.0.random_bool(0.5) { size } else { -size }
    }
}

fn sketch(name: &str, note: &str, (w, h, pages): (f64, f64, u8), blocks: Vec<Value>) -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": name,
        "origin": {"how": "own", "maker": "Slipway Paper Club", "note": note, "after": []},
        "canvas": {"page": {"w": w, "h": h}, "pages": pages}, "blocks": blocks,
    })
}

/// A block with more fields than kind and box.
fn block(id: &str, kind: &str, [x, y, w, h]: [f64; 4], more: Value) -> Value {
    let mut block = json!({"id": id, "kind": kind, "box": {"x": x, "y": y, "w": w, "h": h}});
    if let (Value::Object(block), Value::Object(more)) = (&mut block, more) {
        block.extend(more);
    }
    block
}

fn plain(id: &str, kind: &str, place: [f64; 4]) -> Value {
    block(id, kind, place, Value::Null)
}

fn across(id: &str, kind: &str, place: [f64; 4]) -> Value {
    block(id, kind, place, json!({"bleed": ["left", "right"]}))
}

fn mat(id: &str, place: [f64; 4], under: &str) -> Value {
    block(id, "mat", place, json!({"under": under}))
}

fn cluster(id: &str, place: [f64; 4], size: &str, host: &str) -> Value {
    block(id, "cluster", place, json!({"size": size, "host": host}))
}

fn tide_line() -> Value {
    sketch(
        "Three by the tide line",
        "Two unequal strips for sand and water.",
        (12.0, 12.0, 1),
        vec![
            block(
                "w1",
                "wash",
                [1.5, 1.25, 9.0, 8.0],
                json!({"shape": {"type": "ellipse"}}),
            ),
            across("s1", "strip", [0.0, 7.625, 12.0, 1.5]),
            across("s2", "strip", [0.0, 9.125, 12.0, 0.375]),
            mat("m1", [2.875, 1.875, 4.25, 6.25], "p1"),
            plain("p1", "photo", [3.0, 2.0, 4.0, 6.0]),
            plain("p2", "photo", [7.25, 2.0, 3.0, 2.9375]),
            plain("p3", "photo", [7.25, 5.0625, 3.0, 2.9375]),
            plain("t1", "title", [4.625, 8.25, 5.0, 1.0]),
            plain("j1", "journal", [7.375, 9.875, 3.375, 1.375]),
            cluster("c1", [2.0, 6.75, 2.375, 2.25], "large", "p1"),
            cluster("c2", [9.375, 1.125, 1.75, 1.625], "small", "p2"),
        ],
    )
}

fn flag_row(tilt: &mut Tilt) -> Value {
    sketch(
        "Flag row",
        "Eight squares in two staggered rows, like flags drying.",
        (12.0, 12.0, 1),
        vec![
            block(
                "g1",
                "grid",
                [0.25, 0.25, 11.5, 5.75],
                json!({"grid": {"cols": 4, "rows": 2, "gap": 0, "stagger": 0.5}}),
            ),
            plain("p1", "photo", [1.0, 5.0, 5.0, 4.0]),
            plain("p2", "photo", [6.25, 7.75, 2.5, 2.5]),
            plain("p3", "photo", [9.0, 7.75, 2.5, 2.5]),
            plain("t1", "title", [6.25, 5.75, 5.0, 1.25]),
            cluster("c1", [4.75, 4.25, 2.25, 2.25], "large", "p1"),
            block(
                "a1",
                "accent",
                [9.5, 6.875, 1.5, 0.75],
                json!({"turn": tilt.degrees()}),
            ),
            plain("j1", "journal", [1.0, 9.5, 4.5, 1.75]),
        ],
    )
}

fn tea_at_the_slipway(tilt: &mut Tilt) -> Value {
    sketch(
        "Tea at the slipway",
        "One large photo on two mats between two borders.",
        (8.5, 11.0, 1),
        vec![
            across("s1", "strip", [0.0, 0.5, 8.5, 1.0]),
            block(
                "r1",
                "ring",
                [4.75, 5.25, 3.25, 3.25],
                json!({"ring": {"count": 10, "unit": 0.625, "unit_shape": "circle"}}),
            ),
            mat("m1", [0.75, 2.0, 6.75, 4.75], "m2"),
            mat("m2", [0.875, 2.125, 6.5, 4.5], "p1"),
            plain("p1", "photo", [1.0, 2.25, 6.25, 4.25]),
            plain("t1", "title", [1.0, 7.0, 4.5, 1.0]),
            plain("j1", "journal", [1.0, 8.25, 3.5, 1.25]),
            across("s2", "strip", [0.0, 9.875, 8.5, 0.625]),
            block(
                "a1",
                "accent",
                [0.5, 5.75, 1.5, 0.75],
                json!({"turn": tilt.degrees(), "host": "p1"}),
            ),
        ],
    )
}

fn low_sun() -> Value {
    sketch(
        "Low sun, both pages",
        "Upright at the ends, level in the middle.",
        (12.0, 12.0, 2),
        vec![
            block(
                "w1",
                "wash",
                [5.0, 0.5, 12.0, 11.0],
                json!({"shape": {"type": "ellipse"}}),
            ),
            across("s1", "strip", [0.0, 6.5, 24.0, 1.0]),
            plain("p1", "photo", [1.0, 2.0, 4.0, 6.0]),
            plain("p2", "photo", [5.25, 2.0, 6.0, 4.0]),
            plain("p3", "photo", [12.75, 2.0, 6.0, 4.0]),
            plain("p4", "photo", [19.0, 2.0, 4.0, 6.0]),
            plain("t1", "title", [5.25, 8.0, 6.0, 1.5]),
            plain("j1", "journal", [12.75, 8.0, 5.0, 2.5]),
            cluster("c1", [4.0, 7.0, 2.5, 2.5], "large", "p1"),
            cluster("c2", [18.0, 1.0, 2.0, 2.0], "medium", "p4"),
            cluster("c3", [21.5, 7.0, 1.5, 1.5], "small", "p4"),
        ],
    )
}

fn panel_and_four() -> Value {
    sketch(
        "Sledge race",
        "A panel down the left, one upright photo and three at its side.",
        (12.0, 12.0, 1),
        vec![
            block(
                "b1",
                "paper",
                [0.0, 0.0, 3.5, 12.0],
                json!({"bleed": ["left", "top", "bottom"]}),
            ),
            block(
                "b2",
                "paper",
                [8.5, 8.5, 3.5, 3.5],
                json!({"shape": {"type": "triangle", "corner": "bottom-right"}, "bleed": ["right", "bottom"]}),
            ),
            plain("p1", "photo", [1.0, 1.25, 4.5, 6.25]),
            plain("p2", "photo", [6.0, 1.25, 5.0, 3.0]),
            plain("p3", "photo", [6.0, 4.5, 2.375, 3.0]),
            plain("p4", "photo", [8.625, 4.5, 2.375, 3.0]),
            plain("t1", "title", [1.0, 8.0, 7.0, 1.25]),
            plain("j1", "journal", [4.25, 9.75, 4.0, 1.5]),
            cluster("c1", [4.5, 6.5, 2.25, 2.25], "large", "p1"),
        ],
    )
}

fn long_walk_out(tilt: &mut Tilt) -> Value {
    sketch(
        "The long walk out",
        "Staggered sheets, a mat that is wider below, and one print put down at a tilt.",
        (12.0, 12.0, 1),
        vec![
            plain("b1", "paper", [0.75, 0.75, 7.5, 8.0]),
            plain("b2", "paper", [1.25, 1.25, 7.5, 8.0]),
            block(
                "b3",
                "paper",
                [6.0, 8.5, 6.0, 3.5],
                json!({"shape": {"type": "polygon", "points": [[0.2, 0], [1, 0], [1, 1], [0, 1]]}, "bleed": ["right", "bottom"]}),
            ),
            mat("m1", [1.75, 1.75, 5.5, 6.875], "p1"),
            plain("p1", "photo", [2.0, 2.0, 5.0, 5.75]),
            block(
                "p2",
                "photo",
                [8.0, 2.25, 3.0, 4.0],
                json!({"turn": tilt.degrees()}),
            ),
            plain("t1", "title", [1.25, 9.75, 4.5, 1.25]),
            plain("j1", "journal", [7.75, 9.25, 3.5, 1.75]),
            cluster("c1", [5.75, 6.5, 2.25, 2.25], "large", "p1"),
            cluster("c2", [9.75, 5.5, 1.5, 1.5], "small", "p2"),
        ],
    )
}

fn wind_across(tilt: &mut Tilt) -> Value {
    sketch(
        "Wind across",
        "A diagonal band under a row of three prints that touch.",
        (12.0, 12.0, 1),
        vec![
            block(
                "s1",
                "strip",
                [-2.0, 5.0, 16.0, 2.0],
                json!({"turn": -35.0, "bleed": ["left", "right"]}),
            ),
            across("s2", "strip", [0.0, 10.75, 12.0, 0.5]),
            plain("p1", "photo", [0.75, 3.5, 3.5, 4.75]),
            plain("p2", "photo", [4.25, 3.5, 3.5, 4.75]),
            plain("p3", "photo", [7.75, 3.5, 3.5, 4.75]),
            plain("t1", "title", [0.75, 1.25, 6.0, 1.25]),
            plain("j1", "journal", [7.75, 8.625, 3.5, 1.5]),
            block(
                "a1",
                "accent",
                [1.0, 7.5, 2.5, 1.25],
                json!({"turn": tilt.degrees(), "host": "p1"}),
            ),
            block(
                "a2",
                "accent",
                [2.5, 7.875, 2.5, 1.25],
                json!({"turn": tilt.degrees(), "host": "p1"}),
            ),
            cluster("c1", [9.75, 2.5, 2.0, 2.0], "medium", "p3"),
        ],
    )
}

fn red_noses() -> Value {
    sketch(
        "Red noses",
        "Four square prints that touch, a title beside them, and a row of dots below.",
        (8.0, 8.0, 1),
        vec![
            block(
                "w1",
                "wash",
                [0.5, 0.75, 5.5, 5.5],
                json!({"shape": {"type": "ellipse"}}),
            ),
            block(
                "g1",
                "grid",
                [0.5, 6.75, 7.0, 1.0],
                json!({"grid": {"cols": 7, "rows": 1, "gap": 0, "unit_shape": "circle"}}),
            ),
            plain("p1", "photo", [0.75, 1.5, 2.0, 2.0]),
            plain("p2", "photo", [2.75, 1.5, 2.0, 2.0]),
            plain("p3", "photo", [0.75, 3.5, 2.0, 2.0]),
            plain("p4", "photo", [2.75, 3.5, 2.0, 2.0]),
            plain("t1", "title", [5.25, 1.5, 2.25, 1.0]),
            plain("j1", "journal", [5.25, 2.75, 2.25, 2.75]),
            cluster("c1", [3.875, 4.75, 1.5, 1.5], "medium", "p4"),
        ],
    )
}

fn lantern_strip() -> Value {
    let mut document = sketch(
        "Lanterns coming home",
        "A band of prints down one side of an upright sheet, measured in millimetres.",
        (210.0, 297.0, 1),
        vec![
            block(
                "b1",
                "paper",
                [0.0, 0.0, 90.0, 297.0],
                json!({"bleed": ["left", "top", "bottom"]}),
            ),
            block(
                "b2",
                "paper",
                [150.0, 0.0, 60.0, 60.0],
                json!({"shape": {"type": "triangle", "corner": "top-right"}, "bleed": ["right", "top"]}),
            ),
            plain("p1", "photo", [20.0, 20.0, 90.0, 60.0]),
            plain("p2", "photo", [20.0, 85.0, 90.0, 60.0]),
            plain("p3", "photo", [20.0, 150.0, 90.0, 60.0]),
            plain("t1", "title", [120.0, 85.0, 75.0, 25.0]),
            plain("j1", "journal", [120.0, 120.0, 75.0, 90.0]),
            block(
                "r1",
                "ring",
                [125.0, 220.0, 60.0, 60.0],
                json!({"ring": {"count": 8, "unit": 14}}),
            ),
            block("a1", "accent", [20.0, 225.0, 60.0, 25.0], json!({})),
            cluster("c1", [90.0, 195.0, 40.0, 40.0], "large", "p3"),
        ],
    );
    document["unit"] = "mm".into();
    document["origin"] = json!({"how": "scraplift", "maker": "Plover", "note": "Lifted from Plover's page of the lantern walk.", "after": ["Sandpiper"]});
    document
}

/// A crowded sketch of 25 blocks, as one would lift it from a full page. It is no part of the demo: load and benchmarks use it.
pub(crate) fn crowd() -> Sketch {
    let none = Value::Null;
    let across = json!({"bleed": ["left", "right"]});
    let under = |id: &str| json!({"under": id});
    let on = |id: &str| json!({"host": id, "size": "medium"});
    let blocks = vec![
        block(
            "w1",
            "wash",
            [0.5, 0.5, 6.0, 6.0],
            json!({"shape": {"type": "ellipse"}}),
        ),
        block("b1", "paper", [1.0, 1.0, 10.0, 10.0], none.clone()),
        block("b2", "paper", [1.25, 1.25, 4.5, 9.5], none.clone()),
        block("b3", "paper", [6.0, 7.75, 4.75, 3.0], none.clone()),
        block("s1", "strip", [0.0, 6.0, 12.0, 1.0], across.clone()),
        block("s2", "strip", [0.0, 7.0, 12.0, 0.5], across.clone()),
        block("m1", "mat", [1.875, 1.875, 3.25, 4.25], under("p1")),
        block("p1", "photo", [2.0, 2.0, 3.0, 4.0], none.clone()),
        block("m2", "mat", [5.875, 1.875, 2.25, 2.25], under("p2")),
        block("p2", "photo", [6.0, 2.0, 2.0, 2.0], none.clone()),
        block("m3", "mat", [8.375, 1.875, 2.25, 2.25], under("p3")),
        block("p3", "photo", [8.5, 2.0, 2.0, 2.0], none.clone()),
        block("m4", "mat", [5.875, 4.375, 4.75, 1.5], under("p4")),
        block("p4", "photo", [6.0, 4.5, 4.5, 1.25], none.clone()),
        block("t1", "title", [2.0, 8.0, 3.5, 1.0], none.clone()),
        block("j1", "journal", [2.0, 9.25, 3.5, 1.25], none.clone()),
        block("j2", "journal", [6.5, 9.25, 4.0, 1.25], none.clone()),
        block("c1", "cluster", [1.25, 5.25, 1.75, 1.75], on("p1")),
        block("c2", "cluster", [9.5, 5.25, 1.75, 1.75], on("p4")),
        block("c3", "cluster", [4.5, 1.25, 1.5, 1.5], on("p1")),
        block("a1", "accent", [8.5, 8.0, 1.5, 0.5], none.clone()),
        block("a2", "accent", [10.25, 8.0, 0.5, 0.5], none.clone()),
        block("a3", "accent", [6.25, 8.0, 1.5, 0.75], json!({"turn": 8})),
        block(
            "r1",
            "ring",
            [9.0, 0.25, 1.5, 1.5],
            json!({"ring": {"count": 8, "unit": 0.25}}),
        ),
        block(
            "g1",
            "grid",
            [1.25, 10.875, 9.5, 0.5],
            json!({"grid": {"cols": 19, "rows": 1, "gap": 0}}),
        ),
    ];
    let document = sketch("Busy", "Lifted from a full page.", (12.0, 12.0, 1), blocks);
    Sketch::from_json(&document).expect("the crowd is valid")
}
