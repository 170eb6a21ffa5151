//! A page's cuts: what is cut stays cut, what was cut wrong is cut again, rests are scraps, and replayed cuts give the pieces.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::Cancel;
use metrosk_core::cutting::{CutDecisions, CutState, InStash, PageCuts, Trimmer, page_cuts};
use metrosk_core::geometry::{Edge, Size};
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::{PaperDecisions, Papered, papered};
use metrosk_core::stash::{Item, ItemKind, PrintedStrip};
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

fn block(id: &str, kind: &str, b: [f64; 4]) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": b[0], "y": b[1], "w": b[2], "h": b[3]}})
}

/// These blocks on a page, all of one paper and cut whole.
fn of_dots(blocks: &[Value]) -> Papered {
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    let paper = json!({"0": {"paper": {"item": "dots"}}});
    let pieces: serde_json::Map<String, Value> = blocks
        .iter()
        .map(|b| (b["id"].as_str().unwrap().to_owned(), paper.clone()))
        .collect();
    let decided = json!({"cut": "whole", "pieces": pieces});
    let decisions = PaperDecisions::from_json(&decided, Unit::Inch).unwrap();
    let layout = Layout::from_json(&layout).unwrap();
    papered(Unit::Inch, &layout, &decisions, &BTreeSet::new())
}

/// A page with a strip across it, a panel and two mats.
fn on_page(panel: f64) -> Papered {
    of_dots(&[
        block("s1", "strip", [0.0, 8.0, 12.0, 2.0]),
        block("n1", "paper", [1.0, 1.0, panel, 5.0]),
        block("m1", "mat", [8.0, 1.0, 2.25, 2.25]),
        block("m2", "mat", [8.0, 4.0, 2.25, 2.25]),
    ])
}

fn dots() -> Item {
    let mut item = Item::new(ItemKind::Sheet, "Dots".to_owned(), Unit::Inch);
    item.strip = Some(PrintedStrip {
        edge: Edge::Bottom,
        width: Length::inches(1, 2),
    });
    item
}

fn cuts(page: &Papered, sheets: u32, decided: &Value) -> PageCuts {
    let item = dots();
    let stash = BTreeMap::from([(
        "dots".to_owned(),
        InStash {
            item: &item,
            free: sheets,
        },
    )]);
    let decisions = CutDecisions::from_json(decided, Unit::Inch).unwrap();
    page_cuts(Unit::Inch, page, &stash, &decisions, &Cancel::default())
}

/// The first sheet as a plan keeps it, so many of its cuts made.
fn begun(found: &PageCuts, done: usize) -> Value {
    let mut sheet = found.sheets[0].to_json(Unit::Inch);
    sheet["done"] = json!(done);
    json!({"begun": [sheet]})
}

fn state(found: &PageCuts, name: &str) -> CutState {
    found.list.iter().find(|l| l.name == name).unwrap().state
}

#[test]
fn every_piece_has_a_place_and_the_printed_strip_is_left_alone() {
    let found = cuts(&on_page(5.0), 3, &json!({}));
    assert_eq!(
        (found.list.len(), found.short.len(), found.sheets.len()),
        (4, 0, 1)
    );
    let sheet = &found.sheets[0];
    let clean = Length::inches(23, 2).ticks();
    assert!(sheet.pieces.iter().all(|p| p.area.y + p.area.h <= clean));
    // Cuts replayed: each part is there before it is cut, and each piece is a part.
    let parts = sheet.parts();
    assert_eq!(parts.len(), 1 + 2 * sheet.cuts.len());
    for piece in &sheet.pieces {
        assert_eq!(parts[piece.part.as_str()], piece.area);
    }
}

#[test]
fn equal_settings_that_follow_one_another_are_one_step() {
    let strips = [1, 2, 3].map(|n| {
        block(
            &format!("s{n}"),
            "strip",
            [0.0, f64::from(n) * 3.0, 12.0, 2.0],
        )
    });
    let found = cuts(&of_dots(&strips), 3, &json!({}));
    let steps = found.sheets[0].steps(Trimmer::default(), Unit::Inch);
    let times: usize = steps.iter().map(|s| s.times).sum();
    assert_eq!(times, found.sheets[0].cuts.len());
    let done: usize = steps.iter().map(|s| s.done.len()).sum();
    assert_eq!(done, 3);
    let three = steps.iter().find(|s| s.times == 3).unwrap();
    assert_eq!(three.setting, Length::inches(2, 1).ticks());
}

#[test]
fn what_is_cut_already_is_never_planned_again() {
    let page = on_page(5.0);
    let first = cuts(&page, 3, &json!({}));
    let all = first.sheets[0].cuts.len();
    let then = cuts(&page, 3, &begun(&first, all));
    assert_eq!(then.sheets.len(), 1);
    assert!(then.list.iter().all(|l| l.state == CutState::Cut));
    assert!(then.outdated.is_empty());
}

#[test]
fn a_piece_cut_wrong_comes_out_of_what_is_left() {
    let page = on_page(5.0);
    let first = cuts(&page, 1, &json!({}));
    let mut decided = begun(&first, first.sheets[0].cuts.len());
    decided["begun"][0]["wrong"] = json!(["m1/0"]);
    let then = cuts(&page, 1, &decided);
    assert_eq!(state(&then, "m1/0"), CutState::ToCut);
    assert_eq!(state(&then, "m2/0"), CutState::Cut);
    assert_eq!((then.short.len(), then.sheets.len()), (0, 2));
    let rest = &then.sheets[1];
    assert!(rest.item.starts_with("dots#1"), "{}", rest.item);
    // The rest is cut as well: what came out of it is there, and it is no stock any more.
    let mut second = rest.to_json(Unit::Inch);
    second["done"] = json!(rest.cuts.len());
    decided["begun"].as_array_mut().unwrap().push(second);
    let last = cuts(&page, 1, &decided);
    assert_eq!(state(&last, "m1/0"), CutState::Cut);
    assert_eq!((last.sheets.len(), last.short.len()), (2, 0));
    assert!(last.outdated.is_empty(), "{:?}", last.outdated);
}

#[test]
fn what_the_page_no_longer_asks_for_is_told_and_cut_anew() {
    let first = cuts(&on_page(5.0), 3, &json!({}));
    let decided = begun(&first, first.sheets[0].cuts.len());
    let wider = cuts(&on_page(6.0), 3, &decided);
    assert_eq!(wider.outdated, ["n1/0"]);
    assert_eq!(state(&wider, "n1/0"), CutState::ToCut);
    let copies: Vec<u32> = wider
        .sheets
        .iter()
        .filter(|s| s.item == "dots")
        .map(|s| s.copy)
        .collect();
    assert_eq!(copies.iter().collect::<BTreeSet<_>>().len(), copies.len());
}

#[test]
fn the_hidden_middle_of_a_gutted_ground_is_cut_before_another_sheet_is_opened() {
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [
        block("p1", "photo", [2.0, 2.0, 8.0, 6.0]),
        block("m1", "mat", [0.5, 9.0, 3.0, 2.0]),
    ]});
    let with = |from: Value| {
        let decided = json!({"ground": {"0": {"item": "dots"}}, "pieces": {"m1": {"0": {"paper": {"item": "dots"}}}}, "gut": {"from": from}});
        let decisions = PaperDecisions::from_json(&decided, Unit::Inch).unwrap();
        let layout = Layout::from_json(&layout).unwrap();
        cuts(
            &papered(Unit::Inch, &layout, &decisions, &BTreeSet::new()),
            1,
            &json!({}),
        )
    };
    // The printed strip leaves no whole sheet for a ground of 12 by 12: it is short either way.
    let (whole, gutted) = (with(json!([])), with(json!(["ground-0"])));
    let of = |found: &PageCuts| {
        found
            .sheets
            .iter()
            .map(|s| s.item.clone())
            .collect::<Vec<_>>()
    };
    assert_eq!(of(&whole), ["dots"]);
    assert_eq!(of(&gutted), ["dots#ground-0"]);
    assert_eq!(state(&gutted, "m1/0"), CutState::ToCut);
}

#[test]
fn what_is_short_is_told_before_the_first_cut() {
    let found = cuts(&on_page(5.0), 0, &json!({}));
    assert_eq!(found.short.len(), 4);
    assert_eq!(state(&found, "s1/0"), CutState::Short);
    // By its name, not by what the stash calls it among its things.
    assert!(found.short[0].why.contains("Dots"), "{:?}", found.short[0]);
}

#[test]
fn a_cut_longer_than_the_trimmer_reaches_is_scored_first() {
    let item = dots();
    let mut small = Item::new(ItemKind::Tool, "Small trimmer".to_owned(), Unit::Inch);
    small.size = None::<Size>;
    small.tool.reach = Some(Length::inches(9, 1));
    let stash = BTreeMap::from([
        (
            "dots".to_owned(),
            InStash {
                item: &item,
                free: 3,
            },
        ),
        (
            "small".to_owned(),
            InStash {
                item: &small,
                free: 1,
            },
        ),
    ]);
    let decisions = CutDecisions::default();
    let found = page_cuts(
        Unit::Inch,
        &on_page(5.0),
        &stash,
        &decisions,
        &Cancel::default(),
    );
    assert_eq!(found.trimmer.reach, Length::inches(9, 1).ticks());
}
