//! Whatever is typed by number: a sketch, or errors that stand in the text, never a fall.
//!
//! By default a fixed number of tries. `METROSK_FUZZ_SECONDS=600` tries for so long (script/fuzz).

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::notation;
use metrosk_core::plan::Defaults;
use metrosk_core::sketch::Sketch;
use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};
use std::time::{Duration, Instant};

const WORDS: [&str; 46] = [
    "photo",
    "mat",
    "strip",
    "grid",
    "ring",
    "title",
    "journal",
    "cluster",
    "accent",
    "wash",
    "paper",
    "sketch",
    "one",
    "page",
    "two",
    "pages",
    "at",
    "around",
    "p1",
    "p2",
    "of",
    "x",
    "4x6",
    "1 3/8",
    "3/0",
    "1/64",
    "-2",
    "999999999999",
    "0",
    "86 mm",
    "in",
    "full",
    "width",
    "along",
    "the",
    "top",
    "staggered",
    "turned",
    "round",
    "triangle",
    "top-left",
    "off",
    "left",
    "on",
    "large",
    "\"",
];

fn line() -> impl Strategy<Value = String> {
    let word = prop_oneof![8 => proptest::sample::select(&WORDS[..]).prop_map(str::to_owned), 1 => "\\PC{0,6}", 1 => "[0-9/., x-]{1,9}"];
    proptest::collection::vec(word, 0..12).prop_map(|w| w.join(" "))
}

fn text() -> impl Strategy<Value = String> {
    prop_oneof![6 => proptest::collection::vec(line(), 0..8).prop_map(|l| l.join("\n")), 1 => "(?s).{0,120}"]
}

fn check(text: &str) {
    match notation::read_as(&Defaults::default(), text) {
        Ok(sketch) => {
            // It is a sketch by the format's rules, or breaks one of them by name.
            let _ = Sketch::from_json(&sketch.to_json());
            let _ = notation::print(&sketch);
        }
        Err(errors) => {
            assert!(!errors.is_empty());
            let lines: Vec<&str> = text.split('\n').collect();
            for e in errors {
                assert!(
                    e.line <= lines.len().max(1),
                    "line {} of {}: {text:?}",
                    e.line,
                    lines.len()
                );
                let length = lines
                    .get(e.line.saturating_sub(1))
                    .map_or(0, |l| l.chars().count());
                assert!(
                    e.line == 0 || e.column <= length + 1,
                    "column {} of {length}: {text:?}",
                    e.column
                );
            }
            let _ = notation::read_what_can_be(&Defaults::default(), text);
        }
    }
}

#[test]
fn any_text_is_a_sketch_or_errors_in_it() {
    let seconds: Option<u64> = std::env::var("METROSK_FUZZ_SECONDS")
        .ok()
        .and_then(|s| s.parse().ok());
    let start = Instant::now();
    let mut done = 0;
    loop {
        let config = Config {
            cases: 400,
            failure_persistence: None,
            ..Config::default()
        };
        TestRunner::new(config)
            .run(&text(), |text| {
                check(&text);
                Ok(())
            })
            .unwrap();
        done += 400;
        if seconds.is_none_or(|s| start.elapsed() >= Duration::from_secs(s)) {
            break;
        }
    }
    println!("{done} texts");
}
