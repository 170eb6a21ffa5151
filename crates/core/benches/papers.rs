//! Papers of a page: what shows and what is cut of all its pieces, and papers dealt out over two hundred places.

use criterion::{Criterion, criterion_group, criterion_main};
use metrosk_core::length::Unit;
use metrosk_core::papers::choosing::{Candidate, Place, ranked};
use metrosk_core::papers::{Deal, PaperSide, Piecing};
use metrosk_core::stash::{Colour, Item, ItemKind, Swatch};
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

/// Five hundred papers for each of twenty pieces.
fn ranking(c: &mut Criterion) {
    let named = ["navy", "teal", "mustard", "red", "cream", "pink", "brown"];
    let items: Vec<Item> = (0..500)
        .map(|n| {
            let mut item = Item::new(ItemKind::Sheet, format!("Paper {n}"), Unit::Inch);
            item.a.busy = f64::from(n % 10) / 10.0;
            let colours =
                (0..4).filter_map(|k| Colour::named(named[(n as usize + k) % named.len()]));
            item.a.colours = colours
                .map(|colour| Swatch {
                    colour,
                    share: 0.25,
                })
                .collect();
            item
        })
        .collect();
    let candidates: Vec<Candidate> = items
        .iter()
        .map(|item| Candidate {
            paper: PaperSide {
                item: item.name.clone(),
                is_b: false,
            },
            item,
            free: 1,
            held_for: None,
        })
        .collect();
    let photos: Vec<Colour> = named.iter().filter_map(|n| Colour::named(n)).collect();
    let place = Place {
        photos_on_it: photos.clone(),
        photos,
        ..Place::default()
    };
    c.bench_function("ranking 500 papers for 20 pieces", |b| {
        b.iter(|| {
            for _ in 0..20 {
                black_box(ranked(&place, &candidates, Unit::Inch));
            }
        });
    });
}

fn papers(c: &mut Criterion) {
    for count in [60, 150] {
        let piecing = piecing(count);
        c.bench_function(&format!("pieces of {count} blocks"), |b| {
            b.iter(|| black_box(piecing.pieces()));
        });
    }
    ranking(c);
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
