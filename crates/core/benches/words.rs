//! A title of sixty letters with six sets: every way to set it, and a short one as it is typed.

use criterion::{Criterion, criterion_group, criterion_main};
use metrosk_core::geometry::Size;
use metrosk_core::length::{Length, Unit};
use metrosk_core::stash::Item;
use metrosk_core::words::{SetInStash, Title, WordsDecisions};
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;
use std::hint::black_box;

/// Sixty letters.
const LONG: &str = "a windy sunday morning of kites over the flats and a long walk home to tea";
const SHORT: &str = "Sun and wind";

fn sets() -> Vec<SetInStash> {
    let set = |n: u32| {
        let letters: Map<String, Value> = ('a'..='z')
            .map(|c| (c.to_string(), json!(2 + (c as u32 + n) % 7)))
            .collect();
        let item = json!({"unit": "in", "kind": "letters", "name": format!("Set {n}"), "letters": {
            "case": "lower", "height": 0.5 + f64::from(n) / 8.0, "style": (["narrow", "normal", "wide"][n as usize % 3]), "left": letters}});
        let item = Item::from_json(&item).expect("it is a letter set");
        SetInStash {
            id: item.name.clone(),
            name: item.name,
            kept: item.letters.expect("it has letters"),
            taken: BTreeMap::new(),
        }
    };
    (0..6).map(set).collect()
}

fn title(text: &str) -> Title {
    let words = json!({"title": {"text": text}});
    let read = WordsDecisions::from_json(&words, Unit::Inch).expect("it is a title");
    read.title.expect("it has a text")
}

fn words(c: &mut Criterion) {
    let sets = sets();
    for (text, (w, h)) in [
        (LONG, (10, 6)),
        (LONG, (7, 2)),
        (SHORT, (6, 3)),
        (SHORT, (2, 1)),
    ] {
        let space = Size {
            w: Length::inches(w, 1),
            h: Length::inches(h, 1),
        };
        let title = title(text);
        let letters = text.chars().filter(|c| *c != ' ').count();
        c.bench_function(&format!("{letters} letters in {w} x {h}, six sets"), |b| {
            b.iter(|| black_box(title.settings(text, space, Unit::Inch, &sets)));
        });
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(20);
    targets = words
}
criterion_main!(benches);
