//! What the fold breaks: grids between units, titles between words.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Choices, Fault, Outcome, Proposal, Request, refit};
use metrosk_core::geometry::Span;
use metrosk_core::layout::LayoutBlock;
use metrosk_core::length::Length;
use serde_json::{Value, json};

const INCH: f64 = 203_200.0;
const FOLD: f64 = 12.0 * INCH;

fn sketch(blocks: Value) -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Breaks", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
}

/// A grid of so many columns with its left edge there, each unit 1 in and some gap.
fn with_grid(left: f64, cols: u32, gap: f64) -> Value {
    let w = f64::from(cols) + gap * f64::from(cols - 1);
    sketch(json!([
        {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 5}},
        {"id": "g1", "kind": "grid", "box": {"x": left, "y": 8, "w": w, "h": 2.0 + gap}, "grid": {"cols": cols, "rows": 2, "gap": gap, "stagger": 0}},
    ]))
}

fn best(sketch: &Value, more: Value) -> (Request, Proposal) {
    let request = request(sketch, 0, 2, more);
    let proposal = sound(&request).swap_remove(0);
    (request, proposal)
}

fn parts<'a>(proposal: &'a Proposal, id: &str) -> Vec<&'a LayoutBlock> {
    proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.from == [id])
        .collect()
}

/// How far the fold lies from the nearest gap between the units of a grid in two parts, in inches; 0 within a gap.
fn into_a_unit(parts: &[&LayoutBlock]) -> f64 {
    let whole = Span::from(parts[0].whole.unwrap());
    let grid = parts[0].block.grid.unwrap();
    let (cols, gap) = (f64::from(grid.cols), grid.gap.ticks() as f64);
    let unit = (whole.w() - gap * (cols - 1.0)) / cols;
    let gaps = (1..grid.cols).map(|k| whole.l + f64::from(k) * (unit + gap) - gap);
    gaps.map(|begin| (begin - FOLD).max(FOLD - begin - gap).max(0.0))
        .fold(f64::INFINITY, f64::min)
        / INCH
}

#[test]
fn a_grid_off_the_middle_breaks_between_its_units() {
    for gap in [0.0, 0.125, 0.25] {
        for cols in 4..=7 {
            for left in [1.0, 1.5, 2.25, 3.0, 3.75, 4.125] {
                if left + f64::from(cols) * (1.0 + gap) > 11.5 {
                    continue;
                }
                let (_, proposal) =
                    best(&with_grid(left, cols, gap), json!({"approach": "stretch"}));
                let parts = parts(&proposal, "g1");
                if parts.len() == 2 {
                    let cut = into_a_unit(&parts);
                    assert!(
                        cut < 0.001,
                        "gap {gap}, {cols} columns from {left}: {cut} in into a unit; {:?}",
                        proposal.sentences()
                    );
                    assert!(
                        proposal
                            .sentences()
                            .iter()
                            .any(|n| n.contains("columns on the left")),
                        "{:?}",
                        proposal.sentences()
                    );
                }
            }
        }
    }
}

#[test]
fn a_grid_across_the_page_has_as_many_units_on_either_page() {
    let mut drawn = with_grid(0.0, 12, 0.0);
    drawn["blocks"][1]["bleed"] = json!(["left", "right"]);
    for cols in [11, 12] {
        drawn["blocks"][1]["grid"]["cols"] = json!(cols);
        let (_, proposal) = best(&drawn, json!({"approach": "stretch"}));
        let parts = parts(&proposal, "g1");
        assert_eq!(parts.len(), 2);
        assert_eq!(
            parts[0].block.grid.unwrap().cols % 2,
            0,
            "{:?}",
            parts[0].block.grid
        );
        assert!(into_a_unit(&parts) < 0.001);
    }
}

#[test]
fn a_spread_that_has_the_fold_inside_a_unit_keeps_it_there() {
    let drawn = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Own", "canvas": {"page": {"w": 12, "h": 12}, "pages": 2},
        "blocks": [{"id": "g1", "kind": "grid", "box": {"x": 9.5, "y": 4, "w": 6, "h": 2}, "grid": {"cols": 6, "rows": 2, "gap": 0, "stagger": 0}}],
    });
    let (_, proposal) = best(&drawn, json!({"approach": "scale"}));
    let whole = parts(&proposal, "g1")[0].whole.unwrap();
    assert!(
        (Span::from(whole).l / INCH - 9.5).abs() < 0.001,
        "its own page is the identity: {whole:?}"
    );
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("cuts through its units, as drawn")),
        "{:?}",
        proposal.sentences()
    );
}

/// A wide title a little off the middle.
fn with_title() -> Value {
    sketch(json!([
        {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 5}},
        {"id": "t1", "kind": "title", "box": {"x": 3, "y": 7, "w": 5.5, "h": 1}},
        {"id": "j1", "kind": "journal", "box": {"x": 7, "y": 2, "w": 4, "h": 3}},
    ]))
}

fn across(words: &str) -> Value {
    json!({"approach": "stretch", "at_fold": [{"block": "t1", "as": "across", "words": words}]})
}

/// Where the fold lies in the title, as a share of its width.
fn share(parts: &[&LayoutBlock]) -> f64 {
    let (left, right) = (parts[0].extent(), parts[1].extent());
    assert!(
        (left.r - FOLD).abs() < 2.0 && (right.l - FOLD).abs() < 2.0,
        "the parts meet at the fold"
    );
    left.w() / (left.w() + right.w())
}

#[test]
fn a_title_breaks_between_two_of_its_words() {
    for (words, spaces) in [
        (
            "Kites over the flat",
            vec![(5.0, 6.0), (10.0, 11.0), (14.0, 15.0)],
        ),
        ("Low sun", vec![(3.0, 4.0)]),
        (
            "Strong winds, red noses",
            vec![(6.0, 7.0), (13.0, 14.0), (17.0, 18.0)],
        ),
        ("  Näher   am Wasser ", vec![(5.0, 6.0), (8.0, 9.0)]),
    ] {
        let (_, proposal) = best(&with_title(), across(words));
        let parts = parts(&proposal, "t1");
        assert_eq!(parts.len(), 2, "{words}: {:?}", proposal.sentences());
        let letters = words
            .split_whitespace()
            .collect::<Vec<_>>()
            .join(" ")
            .chars()
            .count() as f64;
        let at = share(&parts) * letters;
        assert!(
            spaces
                .iter()
                .any(|(begin, end)| begin - 0.01 <= at && at <= end + 0.01),
            "{words}: the fold comes at letter {at}"
        );
    }
    let (_, proposal) = best(&with_title(), across("Low sun"));
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("“Low” on the left and “sun” on the right")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn a_title_away_from_the_fold_stays_whole() {
    let mut drawn = with_title();
    drawn["blocks"][1]["box"] = json!({"x": 1, "y": 7, "w": 3, "h": 1});
    let (_, proposal) = best(&drawn, across("Low sun"));
    assert_eq!(parts(&proposal, "t1").len(), 1);
    assert!(
        proposal
            .sentences()
            .iter()
            .any(|n| n.contains("does not stand at the fold")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn a_word_in_the_fold_is_a_fault() {
    let (request, mut proposal) = best(&with_title(), across("Kites over the flat"));
    assert!(proposal.faults(&request).is_empty());
    // The left end trimmed: the fold comes elsewhere in it.
    let left = proposal
        .layout
        .blocks
        .iter_mut()
        .find(|b| b.from == ["t1"])
        .unwrap();
    let by = Length::from_ticks((left.block.rect.w.ticks() as f64 * 0.18) as i64);
    left.block.rect.x = left.block.rect.x + by;
    left.block.rect.w = left.block.rect.w - by;
    assert!(
        proposal
            .faults(&request)
            .contains(&Fault::Word("t1".to_owned())),
        "{:?}",
        proposal.faults(&request)
    );
}

#[test]
fn words_that_cannot_be_broken_are_told() {
    for (choice, path) in [
        (json!({"block": "t1", "as": "across"}), "at_fold[0].words"),
        (
            json!({"block": "t1", "as": "across", "words": "Kites"}),
            "at_fold[0].words",
        ),
        (
            json!({"block": "t1", "as": "across", "words": 7}),
            "at_fold[0].words",
        ),
        (
            json!({"block": "t1", "as": "across", "words": "a ".repeat(200)}),
            "at_fold[0].words",
        ),
        (
            json!({"block": "j1", "as": "across", "words": "Kites over the flat"}),
            "at_fold[0].as",
        ),
    ] {
        let fit = json!({
            "format": "metrosk-fit/1", "unit": "in", "sketch": with_title(), "target": {"page": {"w": 12, "h": 12}, "pages": 2}, "at_fold": [choice],
        });
        let invalid = Request::from_json(&fit).unwrap_err();
        assert!(
            invalid.findings.iter().any(|f| f.path == path),
            "{path}: {:?}",
            invalid.findings
        );
    }
}

#[test]
fn a_refit_with_a_space_that_the_title_does_not_have_is_told() {
    let (request, found) = best(&with_title(), across("Kites over the flat"));
    let mut choices = found.choices.to_json();
    assert!(
        choices["sides"]["t1"]
            .as_str()
            .unwrap()
            .starts_with("through ")
    );
    choices["sides"]["t1"] = json!("through 2");
    let choices = Choices::from_json(&choices).unwrap();
    let Ok(Outcome::Proposals(_)) = refit(&request, &choices) else {
        panic!("there is a third space")
    };
    let mut fewer = request;
    fewer.at_fold[0].words = vec!["Low".to_owned(), "sun".to_owned()];
    let findings = refit(&fewer, &choices).unwrap_err().findings;
    assert_eq!(
        (findings[0].path.as_str(), findings[0].found.as_str()),
        ("sides.t1", "through 2")
    );
}
