//! Photos on a page: windows for forty prints, and what becomes of all of them.

use criterion::{Criterion, criterion_group, criterion_main};
use metrosk_core::geometry::{Rect, Size};
use metrosk_core::length::Length;
use metrosk_core::photos::crop;
use metrosk_core::placed_photos::placed_photos;
use metrosk_core::plan::Plan;
use serde_json::{Value, json};
use std::hint::black_box;

/// A sheet of forty photos, each with three areas to keep.
fn forty() -> Plan {
    let at = |n: i64| (0.25 + (n % 8) as f64 * 1.45, 0.25 + (n / 8) as f64 * 2.3);
    let block = |n: i64| {
        let (x, y) = at(n);
        json!({"id": format!("p{n}"), "kind": "photo", "box": {"x": x, "y": y, "w": 1.25, "h": 2}})
    };
    let faces = json!([
        {"x": 0.3, "y": 0.2, "w": 0.2, "h": 0.15}, {"x": 0.5, "y": 0.3, "w": 0.2, "h": 0.15}, {"x": 0.4, "y": 0.6, "w": 0.2, "h": 0.15}
    ]);
    let print = |n: i64| json!({"id": format!("f{n}"), "w": 2, "h": 3 + n % 3, "faces": faces});
    let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Forty", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": (0..40).map(block).collect::<Vec<Value>>()});
    let plan = json!({"format": "metrosk-plan/2", "unit": "in", "sketch": {"sketch": sketch},
        "photos": {"photos": (0..40).map(print).collect::<Vec<Value>>(), "mats": [{"layers": [{"border": 0.0625}]}]},
        "fit": {"target": {"page": {"w": 12, "h": 12}, "pages": 1}, "snap": 0.0625, "pins": []}});
    Plan::from_json(&plan).expect("it is a plan")
}

fn photos(c: &mut Criterion) {
    let plan = forty();
    let layout = plan.proposal().expect("forty prints fit").layout;
    c.bench_function("what becomes of forty prints", |b| {
        b.iter(|| {
            black_box(placed_photos(
                plan.unit,
                40,
                &plan.photos.decisions,
                &layout,
            ))
        });
    });
    let eighths = |n: i64| Length::inches(n, 8);
    let print = Size {
        w: eighths(48),
        h: eighths(64),
    };
    // No window holds all of these: every place where one could is looked at.
    let areas: Vec<Rect> = (0..12)
        .map(|n| Rect {
            x: eighths(n * 3),
            y: eighths(n * 4),
            w: eighths(8),
            h: eighths(9),
        })
        .collect();
    let slot = Size {
        w: eighths(24),
        h: eighths(30),
    };
    c.bench_function("windows for forty prints, none of which holds all", |b| {
        b.iter(|| {
            for _ in 0..40 {
                let _ = black_box(crop(print, slot, &areas, (eighths(5), eighths(5))));
            }
        });
    });
}

criterion_group!(benches, photos);
criterion_main!(benches);
