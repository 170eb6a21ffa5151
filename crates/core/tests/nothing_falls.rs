//! Input that once made the core fall, lose something or take for ever: each has an answer now.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::fit::{self, Outcome, Request};
use metrosk_core::layout::Layout;
use metrosk_core::notation;
use metrosk_core::plan::Defaults;
use metrosk_core::sketch::{ClusterSize, Sketch};
use serde_json::{Value, json};
use std::collections::BTreeSet;

fn sketch(pages: u8, blocks: Value) -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Odd", "canvas": {"page": {"w": 12, "h": 12}, "pages": pages}, "blocks": blocks})
}

#[test]
fn a_spread_whose_kept_page_is_empty_has_an_answer() {
    let title = sketch(
        2,
        json!([{"id": "t1", "kind": "title", "box": {"x": 14, "y": 2, "w": 6, "h": 1}}]),
    );
    let by = |approach: &str| request(&title, 0, 1, json!({"approach": approach}));
    let Outcome::Conflict(conflict) = fit::fit(&by("one-side")) else {
        panic!("nothing is left of it")
    };
    assert_eq!(conflict.limits, ["approach"]);
    assert!(conflict.text.contains("no blocks"), "{}", conflict.text);
    sound(&by("merge"));
    sound(&by("auto"));
    let asked = request(
        &title,
        0,
        1,
        json!({"approach": "merge", "photos": {"count": 2}}),
    );
    assert!(matches!(fit::fit(&asked), Outcome::Conflict(_)));
}

#[test]
fn ids_are_unique_whatever_the_sketch_calls_its_blocks() {
    let photo = |id: &str, x: f64| json!({"id": id, "kind": "photo", "box": {"x": x, "y": 2, "w": 3, "h": 4}});
    let named = sketch(
        1,
        json!([
            photo("p1", 1.0),
            photo("p1-right", 5.0),
            photo("p1-right-2", 8.5)
        ]),
    );
    for approach in ["mirror", "echo", "run-on", "stretch"] {
        for photos in [Value::Null, json!({"count": 6})] {
            let proposal = sound(&request(
                &named,
                0,
                2,
                json!({"approach": approach, "photos": photos}),
            ))
            .swap_remove(0);
            let ids: Vec<&str> = proposal
                .layout
                .blocks
                .iter()
                .map(|b| b.block.id.as_str())
                .collect();
            assert_eq!(
                ids.iter().collect::<BTreeSet<_>>().len(),
                ids.len(),
                "{approach}: {ids:?}"
            );
        }
    }
}

#[test]
fn a_title_of_a_hundred_one_letter_words_runs_across_or_is_told() {
    let words = vec!["a"; 100].join(" ");
    let title = sketch(
        1,
        json!([{"id": "t1", "kind": "title", "box": {"x": 2, "y": 2, "w": 8, "h": 1}}]),
    );
    let fit = json!({
        "format": "metrosk-fit/1", "unit": "in", "sketch": title, "target": {"page": {"w": 12, "h": 12}, "pages": 2, "fold_guard": 0.25},
        "approach": "stretch", "at_fold": [{"block": "t1", "as": "across", "words": words}],
    });
    match Request::from_json(&fit) {
        Ok(request) => {
            let proposal = sound(&request).swap_remove(0);
            let choices = fit::Choices::from_json(&proposal.choices.to_json())
                .expect("what it settled can be read again");
            assert!(fit::refit(&request, &choices).is_ok());
        }
        Err(invalid) => assert!(
            invalid
                .findings
                .iter()
                .any(|f| f.path == "at_fold[0].words"),
            "{invalid}"
        ),
    }
}

#[test]
fn slot_choices_beyond_any_sketch_are_told_at_once() {
    let photos: Vec<String> = (0..250_000).map(|n| format!("p{n}")).collect();
    let page = sketch(
        1,
        json!([{"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 4}}]),
    );
    let fit = json!({
        "format": "metrosk-fit/1", "unit": "in", "sketch": page, "target": {"page": {"w": 12, "h": 12}, "pages": 1},
        "slots": [{"photos": photos, "as": "cells", "cols": 2}],
    });
    let invalid = Request::from_json(&fit).unwrap_err();
    assert_eq!(
        (
            invalid.findings[0].path.as_str(),
            invalid.findings[0].allowed.as_str()
        ),
        ("slots[0].photos", "at most 500 entries")
    );
}

#[test]
fn ten_thousand_lines_by_number_are_told_and_five_hundred_blocks_are_read() {
    let lines = |count: usize| {
        (0..count)
            .map(|n| format!("mat 1/8 around q{n}"))
            .collect::<Vec<_>>()
            .join("\n")
    };
    let errors = notation::read(&lines(10_000)).unwrap_err();
    assert_eq!((errors[0].line, errors.len()), (2_001, 1));
    // Mats around mats, each before the one it frames: the longest way there is to place five hundred blocks.
    let mut chain: Vec<String> = (0..499)
        .map(|n| format!("mat m{n} 1/8 around m{}", n + 1))
        .collect();
    chain.push("photo m499 1x1 at 6, 6".to_owned());
    assert_eq!(notation::read(&chain.join("\n")).unwrap().blocks.len(), 500);
    chain.push("photo 1x1 at 0, 0".to_owned());
    let errors = notation::read(&chain.join("\n")).unwrap_err();
    assert_eq!(
        (errors[0].line, errors[0].found.as_str()),
        (501, "one block too many")
    );
    // Each line names what the next one does not make: a preview gives up rather than try a thousand times.
    chain[499] = "photo m499 ?".to_owned();
    chain.pop();
    assert!(notation::read_what_can_be(&Defaults::default(), &chain.join("\n")).is_none());
}

#[test]
fn a_turn_without_end_is_told_at_its_block() {
    for turn in ["1e999", "-1e999", "3601"] {
        let errors = notation::read(&format!("photo 4x6 at 3, 2 turned {turn}")).unwrap_err();
        assert_eq!(
            (errors[0].line, errors[0].column),
            (1, 1),
            "{turn}: {errors:?}"
        );
        assert!(
            errors[0].allowed[0].contains("-3600 to 3600"),
            "{turn}: {errors:?}"
        );
    }
}

#[test]
fn an_accents_size_and_an_under_that_frames_nothing_outlive_editing_by_number() {
    let drawn = sketch(
        1,
        json!([
            {"id": "b1", "kind": "paper", "box": {"x": 1, "y": 1, "w": 6, "h": 6}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 4}},
            {"id": "a1", "kind": "accent", "box": {"x": 5, "y": 5, "w": 1, "h": 1}, "host": "p1", "size": "small"},
        ]),
    );
    let earlier = Sketch::from_json(&drawn).unwrap();
    let again =
        notation::read_over(&earlier, &Defaults::default(), &notation::print(&earlier)).unwrap();
    assert_eq!(again, earlier);
    assert_eq!(
        (again.blocks[0].under.as_deref(), again.blocks[2].size),
        (Some("p1"), Some(ClusterSize::Small))
    );
    // What it lay under is gone: so is the word of it.
    let without = "panel b1 6 x 6 at 1, 1\naccent a1 1 x 1 at 5, 5";
    let changed = notation::read_over(&earlier, &Defaults::default(), without).unwrap();
    assert_eq!(changed.blocks[0].under, None);
    assert!(Sketch::from_json(&changed.to_json()).is_ok());
}

fn paths<T: std::fmt::Debug>(read: Result<T, Invalid>) -> Vec<String> {
    read.unwrap_err()
        .findings
        .into_iter()
        .map(|f| f.path)
        .collect()
}

#[test]
fn every_broken_entry_of_a_list_is_told_at_once() {
    let photo = json!({"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 4}, "bleed": ["up", "down"]});
    assert_eq!(
        paths(Sketch::from_json(&sketch(1, json!([photo])))),
        ["blocks[0].bleed[0]", "blocks[0].bleed[1]"]
    );
    let polygon = json!({"type": "polygon", "points": [[0, 2], [1, 0], [3, 1]]});
    let panel = json!({"id": "b1", "kind": "paper", "box": {"x": 2, "y": 2, "w": 4, "h": 4}, "shape": polygon});
    let found = paths(Sketch::from_json(&sketch(1, json!([panel]))));
    assert!(
        found.iter().any(|p| p.contains("points[0]"))
            && found.iter().any(|p| p.contains("points[2]")),
        "{found:?}"
    );
    let layout = json!({
        "format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [{"id": "p1", "kind": "foto"}, {"id": "p2", "kind": "photo", "box": {"x": 1, "y": 1, "w": 0, "h": 1}}],
    });
    let found = paths(Layout::from_json(&layout));
    assert!(
        found.iter().any(|p| p.starts_with("blocks[0]"))
            && found.iter().any(|p| p.starts_with("blocks[1]")),
        "{found:?}"
    );
    let page = sketch(
        1,
        json!([{"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 4}}]),
    );
    let fit = json!({
        "format": "metrosk-fit/1", "unit": "in", "sketch": page, "target": {"page": {"w": 12, "h": 12}, "pages": 1},
        "across_fold": ["mat", "strip"], "slots": [{"photos": [1, 2], "as": "cells", "cols": 2}],
        "photos": [{"id": "f1", "w": 4, "h": 6, "faces": [{"x": 2}, {"y": 2}]}],
    });
    let found = paths(Request::from_json(&fit));
    for path in [
        "across_fold[0]",
        "across_fold[1]",
        "slots[0].photos[0]",
        "slots[0].photos[1]",
        "photos[0].faces[0].x",
        "photos[0].faces[1].y",
    ] {
        assert!(found.contains(&path.to_owned()), "{path}: {found:?}");
    }
}

#[test]
fn a_fit_that_nobody_waits_for_has_no_outcome() {
    let page = sketch(
        1,
        json!([{"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 4, "h": 4}}]),
    );
    let request = request(&page, 0, 2, json!({}));
    let cancel = Cancel::default();
    assert!(fit::fit_while(&request, &cancel).is_some());
    cancel.cancel();
    assert!(fit::fit_while(&request, &cancel).is_none());
}
