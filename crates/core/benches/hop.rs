//! How long it takes to see what became of a sketch: 150 blocks of one kind, all moved, matched with one another.

use criterion::{Criterion, criterion_group, criterion_main};
use metrosk_core::hop::compare;
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};
use std::hint::black_box;

/// Photos in rows, taken in steps that are coprime to their number, so that no order helps.
fn photos(count: usize, step: usize, off: f64) -> Sketch {
    let block = |n: usize| {
        let at = n * step % count;
        let (x, y) = ((at % 15) as f64 * 0.75, (at / 15) as f64 * 1.1);
        json!({"id": format!("b{n}"), "kind": "photo", "box": {"x": x + off, "y": y + off / 2.0, "w": 0.5, "h": 0.75}})
    };
    let blocks: Vec<Value> = (0..count).map(block).collect();
    let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Photos",
        "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    Sketch::from_json(&sketch).expect("the benchmark's own sketch is valid")
}

fn matches(c: &mut Criterion) {
    let before = photos(150, 1, 0.0);
    let cases = [
        ("150 blocks, none moved", photos(150, 7, 0.0)),
        ("150 blocks, all moved", photos(150, 7, 0.33)),
        ("150 blocks become 75", photos(75, 7, 0.33)),
    ];
    let mut group = c.benchmark_group("hop");
    for (name, after) in &cases {
        let found = compare(&before, after);
        assert_eq!(
            found.stayed.len() + found.moved.len() + found.came.len(),
            after.blocks.len()
        );
        group.bench_function(*name, |b| {
            b.iter(|| compare(black_box(&before), black_box(after)))
        });
    }
    group.finish();
}

criterion_group!(benches, matches);
criterion_main!(benches);
