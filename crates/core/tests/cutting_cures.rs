//! Where paper is short: what could give, tried on the page; and what a maker holds of a piece's place.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::Cancel;
use metrosk_core::cutting::{
    Cure, CutDecisions, CutState, CutsAsked, InStash, PageCuts, cures, page_cuts,
};
use metrosk_core::geometry::Size;
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::{PaperDecisions, papered};
use metrosk_core::stash::{Direction, Item, ItemKind};
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

fn block(id: &str, kind: &str, b: [f64; 4]) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": b[0], "y": b[1], "w": b[2], "h": b[3]}})
}

fn layout(blocks: &[Value]) -> Layout {
    let canvas = json!({"page": {"w": 12, "h": 12}, "pages": 1});
    Layout::from_json(
        &json!({"format": "metrosk-layout/1", "unit": "in", "canvas": canvas, "blocks": blocks}),
    )
    .unwrap()
}

/// All blocks of dots, with further decisions.
fn of_dots(names: &[&str], more: &Value) -> PaperDecisions {
    let paper = json!({"0": {"paper": {"item": "dots"}}});
    let pieces: serde_json::Map<String, Value> = names
        .iter()
        .map(|n| ((*n).to_owned(), paper.clone()))
        .collect();
    let mut decided = more.clone();
    decided["pieces"] = json!(pieces);
    PaperDecisions::from_json(&decided, Unit::Inch).unwrap()
}

fn sheet(name: &str, quarters: (i64, i64), kind: ItemKind) -> Item {
    let mut item = Item::new(kind, name.to_owned(), Unit::Inch);
    item.size = Some(Size {
        w: Length::inches(quarters.0, 4),
        h: Length::inches(quarters.1, 4),
    });
    item
}

struct Page {
    layout: Layout,
    papers: PaperDecisions,
    things: Vec<(&'static str, Item, u32)>,
    cut: CutDecisions,
}

impl Page {
    fn planned(&self) -> (PageCuts, Vec<Cure>) {
        let clear = BTreeSet::new();
        let stash: BTreeMap<String, InStash<'_>> = self
            .things
            .iter()
            .map(|(id, item, free)| ((*id).to_owned(), InStash { item, free: *free }))
            .collect();
        let asked = CutsAsked {
            unit: Unit::Inch,
            layout: &self.layout,
            papers: &self.papers,
            see_through: &clear,
            stash: &stash,
            cut: &self.cut,
        };
        let found = papered(Unit::Inch, &self.layout, &self.papers, &clear);
        let cuts = page_cuts(Unit::Inch, &found, &stash, &self.cut, &Cancel::default());
        let cured = cures(&asked, &cuts, &Cancel::default());
        (cuts, cured)
    }
}

/// A strip that runs under a photo, on a sheet that is an inch too short for it cut whole.
#[test]
fn a_strip_cut_lean_fits_where_it_did_not_whole() {
    let page = Page {
        layout: layout(&[
            block("s1", "strip", [0.0, 4.0, 12.0, 2.0]),
            block("p1", "photo", [8.0, 3.0, 4.0, 6.0]),
        ]),
        papers: of_dots(&["s1"], &json!({"cut": "whole"})),
        things: vec![("dots", sheet("Dots", (36, 48), ItemKind::Sheet), 1)],
        cut: CutDecisions::default(),
    };
    // 12 in of strip lie across a sheet 9 in wide only where it may be turned.
    let mut page = page;
    page.things[0].1.a.direction = Direction::Up;
    let (cuts, cured) = page.planned();
    assert_eq!(cuts.short.len(), 1);
    let lean = cured
        .iter()
        .find(|c| c.text.starts_with("Cut lean"))
        .unwrap();
    assert_eq!(lean.still_short, 0);
    assert_eq!(
        lean.patch,
        Some(json!({"pieces": {"s1": {"0": {"cut": "lean"}}}}))
    );
    // What is told to help does help: taken over, nothing is short.
    page.papers = of_dots(&["s1"], &json!({"cut": "lean"}));
    assert!(page.planned().0.short.is_empty());
    assert!(
        page.planned().1.is_empty(),
        "nothing is lacking: nothing to cure"
    );
}

#[test]
fn mats_that_do_not_all_fit_are_told_how_much_narrower_would_do() {
    let mats: Vec<Value> = (0..4)
        .map(|n| {
            let (x, y) = (f64::from(n % 2) * 5.0, f64::from(n / 2) * 5.0);
            block(&format!("m{n}"), "mat", [x, y, 4.125, 4.125])
        })
        .collect();
    let page = Page {
        layout: layout(&mats),
        papers: of_dots(&["m0", "m1", "m2", "m3"], &json!({})),
        things: vec![("dots", sheet("Dots", (32, 32), ItemKind::Sheet), 1)],
        cut: CutDecisions::default(),
    };
    let (cuts, cured) = page.planned();
    assert!(!cuts.short.is_empty());
    let told: Vec<(&str, usize)> = cured
        .iter()
        .map(|c| (c.text.as_str(), c.still_short))
        .collect();
    assert!(
        told.contains(&("Make the mats' borders 1/16 in narrower", 0)),
        "{told:?}"
    );
    assert!(
        !told.iter().any(|(text, _)| text.contains("more sheets")),
        "{told:?}"
    );
    let sorted = cured.is_sorted_by_key(|c| c.still_short);
    assert!(sorted, "{told:?}");
}

fn two_kinds(cut: &Value) -> Page {
    Page {
        layout: layout(&[
            block("n1", "paper", [1.0, 1.0, 3.0, 5.0]),
            block("n2", "paper", [6.0, 1.0, 5.0, 3.0]),
        ]),
        papers: of_dots(&["n1", "n2"], &json!({})),
        things: vec![("dots", sheet("Dots", (48, 48), ItemKind::Sheet), 2)],
        cut: CutDecisions::from_json(cut, Unit::Inch).unwrap(),
    }
}

#[test]
fn a_piece_that_is_held_upright_is_never_turned() {
    let held = json!({"locks": {"n1/0": {"upright": true}, "n2/0": {"upright": true}}});
    let (cuts, _) = two_kinds(&held).planned();
    let turned = cuts
        .sheets
        .iter()
        .flat_map(|s| &s.pieces)
        .any(|p| p.is_turned);
    assert!(!turned && cuts.short.is_empty());
}

#[test]
fn a_piece_comes_from_the_rest_that_it_is_held_to() {
    let (cuts, _) = two_kinds(&json!({})).planned();
    let mut first = cuts.sheets[0].to_json(Unit::Inch);
    // All of the first sheet is cut, n2 went wrong: it is to come from a rest again, and from a certain one.
    first["done"] = json!(cuts.sheets[0].cuts.len());
    first["wrong"] = json!(["n2/0"]);
    let rest = cuts.sheets[0]
        .rests
        .iter()
        .max_by_key(|r| r.area.w * r.area.h)
        .unwrap();
    let name = format!("dots#1{}", rest.part);
    let held = json!({"begun": [first], "locks": {"n2/0": {"from": name}}});
    let (again, _) = two_kinds(&held).planned();
    let at = again.list.iter().find(|l| l.name == "n2/0").unwrap();
    assert_eq!(again.sheets[at.sheet.unwrap()].item, name);
    // Held to a whole new sheet it does not come from the rest.
    let mut page = two_kinds(&held);
    page.cut.locks.get_mut("n2/0").unwrap().from = Some("dots".to_owned());
    let (anew, _) = page.planned();
    let at = anew.list.iter().find(|l| l.name == "n2/0").unwrap();
    assert_eq!(
        (at.state, anew.sheets[at.sheet.unwrap()].item.as_str()),
        (CutState::ToCut, "dots")
    );
    // A lock on what is gone holds nothing; one on what exists and has no room says so.
    page.cut.locks.get_mut("n2/0").unwrap().from = Some("dots#9Z".to_owned());
    assert!(page.planned().0.short.is_empty());
    page.things[0].2 = 1;
    page.cut.locks.get_mut("n2/0").unwrap().from = Some("dots".to_owned());
    let (none, _) = page.planned();
    assert_eq!(
        none.list.iter().find(|l| l.name == "n2/0").unwrap().state,
        CutState::Short
    );
}

#[test]
fn few_settings_or_a_large_rest_is_her_choice() {
    let blocks: Vec<Value> = [
        (1.0, 2.0),
        (2.0, 3.0),
        (3.0, 2.0),
        (1.5, 2.5),
        (2.5, 2.5),
        (2.0, 2.0),
    ]
    .iter()
    .enumerate()
    .map(|(n, (w, h))| {
        block(
            &format!("n{n}"),
            "paper",
            [
                f64::from(n as u8 % 3) * 4.0,
                f64::from(n as u8 / 3) * 5.0,
                *w,
                *h,
            ],
        )
    })
    .collect();
    let page = |prefers: &str| Page {
        layout: layout(&blocks),
        papers: of_dots(&["n0", "n1", "n2", "n3", "n4", "n5"], &json!({})),
        things: vec![("dots", sheet("Dots", (48, 48), ItemKind::Sheet), 1)],
        cut: CutDecisions::from_json(&json!({"prefers": prefers}), Unit::Inch).unwrap(),
    };
    let settings = |cuts: &PageCuts| {
        let all = cuts.sheets.iter().flat_map(|s| s.cuts.iter().map(|c| c.at));
        all.collect::<BTreeSet<i64>>().len()
    };
    let largest = |cuts: &PageCuts| {
        let all = cuts
            .sheets
            .iter()
            .flat_map(|s| s.rests.iter().map(|r| r.area.area()));
        all.max().unwrap()
    };
    let (few, large) = (
        page("few-settings").planned().0,
        page("largest-rest").planned().0,
    );
    assert!(settings(&few) <= settings(&large) && largest(&few) <= largest(&large));
    assert!(CutDecisions::from_json(&json!({"prefers": "speed"}), Unit::Inch).is_err());
}
