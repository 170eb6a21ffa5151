//! The order of making: nothing before what it needs, every block fixed once, little waited for.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::building::{BuildDecisions, Built, Doing, Making, Reason};
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use metrosk_core::plan::{self, Defaults};
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

fn block(id: &str, kind: &str, b: [f64; 4]) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": b[0], "y": b[1], "w": b[2], "h": b[3]}})
}

fn layout(blocks: &[Value]) -> Layout {
    let document = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    Layout::from_json(&document).unwrap()
}

/// A painted patch, a strip, a matted photo over a tag, a title and a cluster.
fn page() -> Layout {
    layout(&[
        block("w1", "wash", [0.0, 0.0, 6.0, 6.0]),
        block("s1", "strip", [0.0, 7.0, 12.0, 2.0]),
        block("a1", "accent", [6.0, 3.0, 2.0, 1.0]),
        block("m1", "mat", [2.0, 2.0, 5.0, 6.0]),
        block("p1", "photo", [2.25, 2.25, 4.5, 5.5]),
        block("t1", "title", [3.0, 8.0, 6.0, 1.0]),
        block("j1", "journal", [8.0, 9.5, 3.0, 2.0]),
        block("c1", "cluster", [6.0, 6.5, 2.0, 2.0]),
    ])
}

fn decisions(value: &Value) -> BuildDecisions {
    BuildDecisions::from_json(value, Unit::Inch).unwrap()
}

fn built(layout: &Layout, decisions: &BuildDecisions) -> Built {
    let making = Making {
        unit: Unit::Inch,
        layout,
        has_papers: true,
        prints: true,
        gutted: [true, false],
        title: Some("Low sun"),
        decisions,
    };
    making.built()
}

fn place(built: &Built, id: &str) -> usize {
    let found = built
        .order
        .iter()
        .position(|s| built.steps[s.step].id == id);
    found.unwrap_or_else(|| {
        panic!(
            "no step {id}: {:?}",
            built.steps.iter().map(|s| &s.id).collect::<Vec<_>>()
        )
    })
}

/// What must hold of any order.
fn sound(built: &Built, layout: &Layout) {
    assert_eq!(
        built.order.len(),
        built.steps.len(),
        "every step is in the order once"
    );
    let at: BTreeMap<usize, _> = built.order.iter().map(|s| (s.step, *s)).collect();
    for edge in &built.edges {
        let (before, after) = (at[&edge.before], at[&edge.after]);
        assert!(
            after.from >= before.to + edge.lag,
            "{:?} before {:?}",
            built.steps[edge.before].id,
            built.steps[edge.after].id
        );
    }
    for pair in built.order.windows(2) {
        assert!(pair[1].from >= pair[0].to, "one pair of hands");
    }
    let mut fixed: Vec<&str> = built
        .steps
        .iter()
        .flat_map(|s| s.fixes.iter().map(String::as_str))
        .collect();
    fixed.sort_unstable();
    let mut blocks: Vec<&str> = layout.blocks.iter().map(|b| b.block.id.as_str()).collect();
    blocks.sort_unstable();
    assert_eq!(fixed, blocks, "every block is fixed exactly once");
}

#[test]
fn a_page_is_made_from_the_ground_up() {
    let layout = page();
    let all = decisions(&json!({"techniques": ["gesso", "stitch", "spatter", "round-corners"]}));
    let built = built(&layout, &all);
    sound(&built, &layout);
    let in_order = [
        ["gesso", "paint w1"],
        ["paint w1", "lay out"],
        ["middle 0", "cut"],
        ["mount p1", "lay out"],
        ["write j1", "glue j1"],
        ["lay out", "glue s1"],
        ["glue s1", "stitch"],
        ["stitch", "glue m1"],
        ["glue m1", "tuck a1"],
        ["glue m1", "cluster c1"],
        ["title t1", "cover photos"],
        ["cover photos", "spatter"],
        ["spatter", "photograph"],
        ["photograph", "put away"],
    ];
    for [before, after] in in_order {
        assert!(
            place(&built, before) < place(&built, after),
            "{before} before {after}"
        );
    }
    let glue = built.steps.iter().find(|s| s.id == "glue m1").unwrap();
    assert_eq!(glue.hint, "Leave the side open where a1 goes under.");
    assert_eq!(glue.text, "Glue m1 down: left edge 2 in, top 2 in");
    let (work, end) = built.minutes();
    assert!(
        f64::from(end) <= f64::from(built.least) * 1.05,
        "{work} {end} {}",
        built.least
    );
}

#[test]
fn only_what_the_page_needs_is_a_step() {
    let layout = layout(&[block("p1", "photo", [2.0, 2.0, 4.0, 4.0])]);
    let none = BuildDecisions::default();
    let making = Making {
        unit: Unit::Inch,
        layout: &layout,
        has_papers: false,
        prints: false,
        gutted: [false, false],
        title: None,
        decisions: &none,
    };
    let built = making.built();
    let doing: Vec<Doing> = built
        .order
        .iter()
        .map(|s| built.steps[s.step].doing)
        .collect();
    assert_eq!(
        doing,
        [
            Doing::LayOut,
            Doing::Glue,
            Doing::Photograph,
            Doing::PutAway
        ]
    );
    let as_you_go = decisions(&json!({"school": "glue-as-you-go"}));
    let built = Making {
        decisions: &as_you_go,
        ..making
    }
    .built();
    assert!(built.steps.iter().all(|s| s.doing != Doing::LayOut));
}

#[test]
fn a_step_is_moved_as_far_as_it_can_and_then_told_what_is_lost() {
    let layout = page();
    // The title may go down before the matted photo, which it does not overlap… but the strip under it must lie there.
    let own = decisions(&json!({"order": ["title t1", "cluster c1"]}));
    let moved = built(&layout, &own);
    sound(&moved, &layout);
    assert!(moved.broken.is_empty());
    assert!(place(&moved, "title t1") < place(&moved, "cluster c1"));
    let too_far = decisions(&json!({"order": ["tuck a1", "glue m1"]}));
    let told = built(&layout, &too_far);
    sound(&told, &layout);
    assert_eq!(told.broken.len(), 1);
    let edge = told.edges[told.broken[0].edge];
    assert_eq!(edge.reason, Reason::TuckedUnder);
    assert_eq!(told.broken[0].text, "nothing is there to tuck it under");
}

#[test]
fn what_is_done_takes_no_time_any_more() {
    let layout = page();
    let before = built(&layout, &BuildDecisions::default());
    let first: Vec<String> = before.order[..4]
        .iter()
        .map(|s| before.steps[s.step].id.clone())
        .collect();
    let done = decisions(&json!({"done": first}));
    let after = built(&layout, &done);
    let ids: BTreeSet<&String> = after.order[..4]
        .iter()
        .map(|s| &after.steps[s.step].id)
        .collect();
    assert!(first.iter().all(|id| ids.contains(id)), "{ids:?}");
    assert!(after.minutes().1 < before.minutes().1);
}

#[test]
fn wrong_decisions_are_refused_with_their_path() {
    for (wrong, path) in [
        (json!({"school": "whenever"}), "school"),
        (json!({"techniques": ["staple"]}), "techniques[0]"),
        (json!({"order": [3]}), "order[0]"),
        (json!({"done": "all"}), "done"),
    ] {
        let error = BuildDecisions::from_json(&wrong, Unit::Inch).expect_err(path);
        assert!(error.findings.iter().any(|f| f.path == path), "{error}");
    }
}

#[test]
fn the_demos_sketches_are_made_with_hardly_a_wait() {
    for sketch in metrosk_demo::sketches(metrosk_demo::SEED) {
        let plan = plan::start(&sketch, &Defaults::default());
        let made = plan::Plan::from_json(&plan).unwrap().proposal().unwrap();
        for techniques in [json!([]), json!(["gesso", "stitch", "spatter"])] {
            let built = built(&made.layout, &decisions(&json!({"techniques": techniques})));
            sound(&built, &made.layout);
            let end = built.minutes().1;
            assert!(
                f64::from(end) <= f64::from(built.least) * 1.05,
                "{}: {end} of {}",
                sketch.name,
                built.least
            );
        }
    }
}

/// Kinds as they lie on pages, from the ground up; the first tags lie under photos.
const KINDS: [&str; 10] = [
    "wash", "paper", "strip", "accent", "mat", "photo", "journal", "title", "accent", "cluster",
];

fn any_blocks() -> impl Strategy<Value = Vec<(usize, [f64; 4])>> {
    let one = (0..KINDS.len(), 0..40_u32, 0..40_u32, 4..24_u32, 4..24_u32);
    prop::collection::vec(one, 1..24).prop_map(|all| {
        let quarter = |n: u32| f64::from(n) / 4.0;
        let block = |(kind, x, y, w, h): (usize, u32, u32, u32, u32)| {
            let (w, h) = (w.min(48 - x), h.min(48 - y));
            (kind, [quarter(x), quarter(y), quarter(w), quarter(h)])
        };
        all.into_iter().map(block).collect()
    })
}

fn layout_from(blocks: &[(usize, [f64; 4])]) -> Layout {
    let all = blocks.iter().enumerate();
    let all: Vec<Value> = all
        .map(|(n, (kind, b))| block(&format!("b{n}"), KINDS[*kind], *b))
        .collect();
    layout(&all)
}

fn any_techniques() -> impl Strategy<Value = Vec<&'static str>> {
    prop::sample::subsequence(vec!["gesso", "stitch", "spatter", "round-corners"], 0..=4)
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, rng_seed: proptest::test_runner::RngSeed::Fixed(7), ..ProptestConfig::with_cases(200) })]

    #[test]
    fn a_page_is_made_with_hardly_a_wait(mut blocks in any_blocks(), techniques in any_techniques()) {
        blocks.sort_by_key(|b| b.0);
        // More than two patches of paint are no page of this craft.
        let paint = blocks.iter().filter(|b| b.0 == 0).count();
        blocks.drain(..paint.saturating_sub(2));
        prop_assume!(!blocks.is_empty());
        let layout = layout_from(&blocks);
        let built = built(&layout, &decisions(&json!({"techniques": techniques})));
        sound(&built, &layout);
        let end = f64::from(built.minutes().1);
        prop_assert!(end <= f64::from(built.least) * 1.05, "{end} of {}", built.least);
    }

    #[test]
    fn whatever_lies_on_what_it_can_be_made(blocks in any_blocks(), techniques in any_techniques()) {
        let layout = layout_from(&blocks);
        let built = built(&layout, &decisions(&json!({"techniques": techniques})));
        sound(&built, &layout);
        // Nothing is glued shut over a tuck still to come.
        for edge in built.edges.iter().filter(|e| e.reason == Reason::TuckedUnder) {
            let host = &built.steps[edge.before];
            prop_assert!(host.hint.contains("open") || host.doing != Doing::Glue, "{host:?}");
        }
    }
}
