//! Papers of a page: what shows and what is cut of all its pieces, and papers dealt out over two hundred places.

use criterion::{Criterion, criterion_group, criterion_main};
use metrosk_core::papers::{Deal, Piecing};
use serde_json::{Map, Value, json};
use std::hint::black_box;

/// A page with so many panels that lie over one another, the ground gutted.
fn piecing(count: u32) -> Piecing {
    let place = |n: u32| f64::from(n * 7 % 40) / 4.0;
    let block = |n: u32| {
        json!({"id": format!("b{n}"), "from": [], "kind": "paper", "page": 0,
            "box": {"x": place(n), "y": place(n * 3 + 1), "w": 1.0 + f64::from(n % 5), "h": 1.0 + f64::from(n % 3)},
            "turn": if n.is_multiple_of(6) { 4 } else { 0 }})
    };
    let papers: Map<String, Value> = (0..count)
        .map(|n| (format!("b{n}"), json!("dots")))
        .collect();
    let request = json!({"format": "metrosk-piecing/1", "unit": "in", "papers": papers, "ground": ["kraft"],
        "gut": {"margin": 0.25, "bar": 0.5, "least": 1, "from": ["ground-0"]},
        "layout": {"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
            "blocks": (0..count).map(block).collect::<Vec<Value>>()}});
    Piecing::from_json(&request).expect("it is a request")
}

fn papers(c: &mut Criterion) {
    for count in [60, 150] {
        let piecing = piecing(count);
        c.bench_function(&format!("pieces of {count} blocks"), |b| {
            b.iter(|| black_box(piecing.pieces()));
        });
    }
    let places: Vec<Value> = (0..200)
        .map(|n| json!({"id": n.to_string(), "x": f64::from(n % 20) * 1.1, "y": f64::from(n / 20) * 1.1}))
        .collect();
    let six: Vec<Value> = (0..6)
        .map(|n| json!({"id": n.to_string(), "qty": 40}))
        .collect();
    let deal = json!({"format": "metrosk-deal/1", "unit": "in", "seed": 1, "reach": 1.6, "places": places, "papers": six});
    let deal = Deal::from_json(&deal).expect("it is a deal");
    let mut group = c.benchmark_group("dealing");
    group.sample_size(10);
    group.bench_function("two hundred places", |b| b.iter(|| black_box(deal.dealt())));
    group.finish();
}

criterion_group!(benches, papers);
criterion_main!(benches);
