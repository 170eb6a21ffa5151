//! How long a maker waits for a fit.
//!
//! `busy` stands for a crowded layout of 25 blocks (four matted photos, panels, strips, a grid, clusters) as a design
//! team member would lift from a full page; `tide line` for a usual sketch of 11. Each answer is checked to be one. What
//! is not measured: reading the request and writing the answer, HTTP, the browser.

use criterion::{Criterion, criterion_group, criterion_main};
use metrosk_core::fit::{Outcome, Pin, PinEdge, Proposal, Request, fit, refit};
use metrosk_core::length::Length;
use serde_json::{Value, json};
use std::hint::black_box;

fn request(sketch: &Value, w: f64, h: f64, pages: u8, approach: &str) -> Request {
    let request = json!({"format": "metrosk-fit/1", "unit": "in", "sketch": sketch, "approach": approach, "snap": 0.125,
        "target": {"page": {"w": w, "h": h}, "pages": pages, "margin": 0.25, "fold_guard": 0.25}});
    Request::from_json(&request).expect("the benchmark's own requests are valid")
}

fn answer(outcome: Outcome) -> Proposal {
    match outcome {
        Outcome::Proposals(mut proposals) => proposals.swap_remove(0),
        Outcome::Conflict(conflict) => panic!("{}", conflict.text),
    }
}

fn fits(c: &mut Criterion) {
    let (busy, tide) = (
        metrosk_demo::crowd().to_json(),
        metrosk_demo::sketches(metrosk_demo::SEED)[0].to_json(),
    );
    assert_eq!(busy["blocks"].as_array().map(Vec::len), Some(25));
    let cases = [
        (
            "25 blocks, scale to letter",
            request(&busy, 8.5, 11.0, 1, "scale"),
        ),
        (
            "25 blocks, stretch to a spread",
            request(&busy, 12.0, 12.0, 2, "stretch"),
        ),
        (
            "tide line, scale to letter",
            request(&tide, 8.5, 11.0, 1, "scale"),
        ),
        (
            "tide line, stretch to a spread",
            request(&tide, 12.0, 12.0, 2, "stretch"),
        ),
    ];
    let mut group = c.benchmark_group("fit");
    group.sample_size(30);
    for (name, request) in &cases {
        let found = answer(fit(request));
        group.bench_function(*name, |b| b.iter(|| answer(fit(black_box(request)))));
        let mut pinned = request.clone();
        let title = &found
            .layout
            .blocks
            .iter()
            .find(|b| b.block.id == "t1")
            .expect("a title")
            .block;
        pinned.pins.push(Pin {
            block: "t1".to_owned(),
            edge: PinEdge::Height,
            at: title.rect.h + Length::inches(1, 8),
            to: None,
        });
        group.bench_function(format!("{name}, refit with a pin"), |b| {
            b.iter(|| answer(refit(black_box(&pinned), &found.choices).expect("its own choices")))
        });
    }
    group.finish();
}

/// A sketch of so many small blocks in rows, larger than any that a maker draws.
fn wall(count: usize) -> Value {
    let kinds = [
        "photo", "paper", "accent", "photo", "title", "journal", "cluster",
    ];
    let (cols, rows) = (12, count.div_ceil(12));
    let (w, h) = (11.0 / cols as f64, 11.0 / rows as f64);
    let block = |n: usize| {
        let on = |v: f64| (v * 32.0).round() / 32.0;
        let (x, y) = (
            on(0.5 + (n % cols) as f64 * w),
            on(0.5 + (n / cols) as f64 * h),
        );
        json!({"id": format!("b{n}"), "kind": kinds[n * 5 % 7], "box": {"x": x, "y": y, "w": on(w * 0.85), "h": on(h * 0.8)}})
    };
    let blocks: Vec<Value> = (0..count).map(block).collect();
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Wall", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
}

/// All ways that apply, each by its full search: what a maker waits for when she changes the target.
fn searches(c: &mut Criterion) {
    let (busy, tide) = (
        metrosk_demo::crowd().to_json(),
        metrosk_demo::sketches(metrosk_demo::SEED)[0].to_json(),
    );
    let cases = [
        (
            "tide line, all ways to letter",
            request(&tide, 8.5, 11.0, 1, "auto"),
        ),
        (
            "tide line, all ways to a spread",
            request(&tide, 12.0, 12.0, 2, "auto"),
        ),
        (
            "25 blocks, all ways to a spread",
            request(&busy, 12.0, 12.0, 2, "auto"),
        ),
        (
            "150 blocks, all ways to letter",
            request(&wall(150), 8.5, 11.0, 1, "auto"),
        ),
        (
            "150 blocks, all ways to a spread",
            request(&wall(150), 12.0, 12.0, 2, "auto"),
        ),
    ];
    let mut group = c.benchmark_group("search");
    group.sample_size(10);
    for (name, request) in &cases {
        answer(fit(request));
        group.bench_function(*name, |b| b.iter(|| answer(fit(black_box(request)))));
    }
    group.finish();
}

criterion_group!(benches, fits, searches);
criterion_main!(benches);
