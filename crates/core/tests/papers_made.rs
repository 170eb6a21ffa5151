//! Papers as makers save and prepare them: two short pieces, four strips, spares, twins, rows of units, what can't reach.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::{
    Dealing, FreePaper, KitPaper, PaperDecisions, PaperSide, Papered, PaperedPiece, papered,
};
use metrosk_core::stash::{Item, ItemKind};
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

fn block(id: &str, kind: &str, (x, y, w, h): (f64, f64, f64, f64)) -> Value {
    json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": x, "y": y, "w": w, "h": h}})
}

fn layout(blocks: &[Value]) -> Layout {
    Layout::from_json(
        &json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks}),
    )
    .unwrap()
}

fn decided(papers: &Value) -> PaperDecisions {
    PaperDecisions::from_json(papers, Unit::Inch).unwrap()
}

fn on(blocks: &[Value], papers: &Value) -> Papered {
    papered(
        Unit::Inch,
        &layout(blocks),
        &decided(papers),
        &BTreeSet::new(),
    )
}

fn cut(piece: &PaperedPiece) -> (f64, f64) {
    let inch = Length::inches(1, 1).ticks() as f64;
    (piece.piece.cut.w() / inch, piece.piece.cut.h() / inch)
}

fn under_a_photo() -> [Value; 2] {
    [
        block("s1", "strip", (0.0, 8.0, 12.0, 1.5)),
        block("p1", "photo", (4.0, 4.0, 4.0, 6.0)),
    ]
}

fn matted() -> [Value; 2] {
    [
        block("m1", "mat", (2.0, 2.0, 6.0, 8.0)),
        block("p1", "photo", (2.5, 2.5, 5.0, 7.0)),
    ]
}

fn choice(of: &str, choice: Value) -> Value {
    json!({"pieces": {of: {"0": choice}}})
}

#[test]
fn two_short_pieces_stand_in_for_one_that_runs_hidden() {
    let found = on(&under_a_photo(), &choice("s1", json!({"cut_as": "parts"})));
    let strips: Vec<&PaperedPiece> = found.pieces.iter().filter(|p| p.of.is_some()).collect();
    assert_eq!(
        strips.iter().map(|p| p.name()).collect::<Vec<_>>(),
        ["s1/0#1", "s1/0#2"]
    );
    assert_eq!(
        strips.iter().map(|p| cut(p)).collect::<Vec<_>>(),
        [(4.5, 1.5), (4.5, 1.5)]
    );
}

#[test]
fn a_mat_of_four_strips_cuts_only_its_border() {
    let found = on(&matted(), &choice("m1", json!({"cut_as": "strips"})));
    let strips: Vec<(f64, f64)> = found
        .pieces
        .iter()
        .filter(|p| p.of.is_some())
        .map(cut)
        .collect();
    assert_eq!(strips, [(1.0, 8.0), (1.0, 8.0), (6.0, 1.0), (6.0, 1.0)]);
    // A piece of which nothing is hidden stays one.
    let bare = on(&matted()[..1], &choice("m1", json!({"cut_as": "strips"})));
    assert_eq!(bare.pieces.iter().filter(|p| p.of.is_some()).count(), 1);
}

fn grid(columns: u32, rows: u32) -> Value {
    json!({"id": "g1", "from": ["g1"], "kind": "grid", "page": 0, "box": {"x": 0, "y": 1, "w": 12, "h": 5},
           "grid": {"cols": columns, "rows": rows, "gap": 0.15}})
}

#[test]
fn spares_and_twins_are_cut_with_the_page() {
    let units = json!({"1/1": {"item": "dots"}, "1/2": {"item": "dots"}, "1/3": {"item": "waves"}});
    let found = on(
        &[grid(3, 1)],
        &choice("g1", json!({"units": units, "spares": 2})),
    );
    assert_eq!(found.pieces.iter().filter(|p| p.of.is_some()).count(), 3);
    let spares: Vec<(String, String)> = found
        .extras
        .iter()
        .map(|p| (p.name(), p.paper.clone().unwrap().item))
        .collect();
    let named = |name: &str, item: &str| (name.to_owned(), item.to_owned());
    assert_eq!(
        spares,
        [
            named("g1/0/spare-1", "dots"),
            named("g1/0/spare-2", "waves")
        ]
    );
    let found = on(&matted(), &choice("m1", json!({"twin": true})));
    assert_eq!(found.extras[0].name(), "m1/0/twin");
    assert_eq!(found.to_cut().count(), found.pieces.len() + 1);
}

#[test]
fn a_row_is_marked_first_last_middle_and_says_how_it_fits() {
    let found = on(&[grid(5, 2)], &json!({}));
    let of = ("g1".to_owned(), 0);
    let table = found
        .unit_table(&layout(&[grid(5, 2)]), &of, Unit::Inch)
        .unwrap();
    assert_eq!((table.count, table.rows.len()), (10, 2));
    let turns: Vec<usize> = table.rows[0].marks.iter().map(|m| m.turn).collect();
    assert_eq!(turns, [1, 4, 3, 5, 2]);
    assert_eq!(table.rows[0].marks[0].at, Length::ZERO);
    assert!(
        table.rows[0]
            .told
            .starts_with("5 of 2 9/32 in across 12 in leave"),
        "{}",
        table.rows[0].told
    );
    assert!(table.cut_off.is_empty());
    assert!(
        found
            .unit_table(&layout(&[grid(5, 2)]), &("x".to_owned(), 0), Unit::Inch)
            .is_none()
    );
}

fn sheet(name: &str, side: i64) -> Item {
    let mut item = Item::new(ItemKind::Sheet, name.to_owned(), Unit::Inch);
    item.size = item.size.map(|_| metrosk_core::geometry::Size {
        w: Length::inches(side, 1),
        h: Length::inches(side, 1),
    });
    item
}

#[test]
fn what_cannot_reach_is_told_with_where_and_by_how_much() {
    let items = BTreeMap::from([("short".to_owned(), sheet("Short", 4))]);
    let papers = choice("a1", json!({"paper": {"item": "short"}}));
    let told = |w: f64| {
        let blocks = [
            block("a1", "paper", (1.0, 1.0, w, 3.0)),
            block("p1", "photo", (5.0, 0.5, 5.0, 5.0)),
        ];
        on(&blocks, &papers)
            .short_of(&items, Unit::Inch)
            .remove("a1/0")
    };
    // Four inches show and half an inch is to tuck: the tuck is lost.
    assert_eq!(
        told(6.0).unwrap(),
        "The paper ends just at p1: nothing goes under it."
    );
    assert_eq!(told(3.0), None);
}

#[test]
fn a_rhythm_runs_along_the_rows_and_no_unit_meets_its_like() {
    let found = on(&[grid(4, 3)], &json!({}));
    let items = [sheet("One", 12), sheet("Two", 12), sheet("Three", 12)];
    let free: Vec<FreePaper> = items
        .iter()
        .map(|item| FreePaper {
            paper: PaperSide {
                item: item.name.clone(),
                is_b: false,
            },
            item,
            free: 2,
        })
        .collect();
    let of = ("g1".to_owned(), 0);
    let dealt = found.dealt(&decided(&json!({})), &of, &free, (Dealing::InRhythm, 1));
    assert_eq!((dealt.met.len(), dealt.short), (0, 0));
    let row: Vec<&str> = ["2/1", "2/2", "2/3", "2/4"]
        .iter()
        .map(|u| dealt.units[*u].item.as_str())
        .collect();
    assert_eq!(row[0], row[3]);
    assert_ne!(row[0], row[1]);
    // Any seed will do, however large.
    let how = (Dealing::InRhythm, u64::MAX);
    let dealt = found.dealt(&decided(&json!({})), &of, &free, how);
    assert_eq!((dealt.met.len(), dealt.short), (0, 0));
}

#[test]
fn a_kit_is_used_up_by_what_has_no_paper_yet() {
    let found = on(&matted(), &json!({}));
    let items = [sheet("Big", 12), sheet("Small", 6)];
    let kit: Vec<KitPaper> = items
        .iter()
        .map(|item| KitPaper {
            id: &item.name,
            item,
            free: 1,
        })
        .collect();
    let used = found.use_of_kit(&kit);
    assert_eq!(used.open, found.pieces.len());
    assert_eq!(used.takes.get("Big"), Some(&1));
    assert!(!used.finishes(&kit));
}

#[test]
fn clear_papers_say_where_glue_hides_and_what_needs_a_twin() {
    let clear = BTreeSet::from(["film".to_owned()]);
    let papers = json!({"ground": {"0": {"item": "film"}}, "pieces": {"m1": {"0": {"paper": {"item": "dots"}}}}});
    let told = |papers: &Value| {
        let layout = layout(&matted());
        let found = papered(Unit::Inch, &layout, &decided(papers), &clear);
        found.seen_through(&layout, &clear)
    };
    let said = told(&papers);
    assert!(said["m1/0"].contains("needs a twin"), "{said:?}");
    assert!(said["ground-0"].contains("under m1"), "{said:?}");
    let mut with_twin = papers;
    with_twin["pieces"]["m1"]["0"]["twin"] = json!(true);
    assert!(told(&with_twin)["m1/0"].contains("is cut for the back"));
}

proptest! {
    #[test]
    fn slices_show_what_the_whole_shows_and_lie_within_it(x in 1..6_u32, w in 1..5_u32, tuck in 0..4_u32) {
        let blocks = [
            block("s1", "strip", (0.0, 8.0, 12.0, 1.5)),
            block("p1", "photo", (f64::from(x), 4.0, f64::from(w), 6.0)),
        ];
        let tuck = f64::from(tuck) / 4.0;
        let whole = on(&blocks, &json!({"tuck": tuck}));
        let parts = on(&blocks, &json!({"tuck": tuck, "pieces": {"s1": {"0": {"cut_as": "parts"}}}}));
        let of = |found: &Papered| -> Vec<PaperedPiece> {
            found.pieces.iter().filter(|p| p.of.is_some()).cloned().collect()
        };
        let (whole, parts) = (of(&whole), of(&parts));
        let area = |pieces: &[PaperedPiece]| pieces.iter().map(|p| p.piece.area).sum::<f64>();
        prop_assert!((area(&whole) - area(&parts)).abs() < 1e3);
        for part in &parts {
            prop_assert!(part.piece.cut.is_in(whole[0].piece.cut, 1.0));
            prop_assert!(part.piece.shows.is_in(part.piece.cut, 1.0));
        }
    }
}

#[test]
fn on_a_clear_page_one_piece_that_runs_through_is_never_gutted() {
    let blocks = [
        block("a1", "paper", (0.0, 1.0, 12.0, 8.0)),
        block("p1", "photo", (1.0, 1.5, 9.0, 7.0)),
    ];
    let hole = |ground: &str| {
        let papers = json!({"ground": {"0": {"item": ground}}, "gut": {"from": ["a1/0"]},
            "pieces": {"a1": {"0": {"paper": {"item": "dots"}}}}});
        let clear = BTreeSet::from(["film".to_owned()]);
        let found = papered(Unit::Inch, &layout(&blocks), &decided(&papers), &clear);
        let panel = found.pieces.iter().find(|p| p.name() == "a1/0").unwrap();
        panel.piece.hole.is_some()
    };
    assert_eq!((hole("kraft"), hole("film")), (true, false));
}

#[test]
fn shapes_of_a_die_come_out_of_a_hidden_middle_and_lie_within_it() {
    let blocks = [block("p1", "photo", (1.0, 1.0, 10.0, 10.0))];
    let with = |dies: Value| {
        let papers = json!({"ground": {"0": {"item": "kraft"}}, "gut": {"from": ["ground-0"], "dies": dies}});
        on(&blocks, &papers).pieces.remove(0)
    };
    let whole = with(json!({}));
    let hole = whole.piece.hole.unwrap();
    assert_eq!(whole.holes(), [hole]);
    let die = json!({"tool": "kite", "size": {"w": 2, "h": 3}, "count": 4});
    let cut = with(json!({"ground-0": die}));
    assert_eq!((cut.piece.hole, cut.holes().len()), (Some(hole), 4));
    assert!(cut.holes().iter().all(|shape| shape.is_in(hole, 2.0)));
    let wrong = json!({"gut": {"dies": {"ground-0": {"tool": "kite", "size": {"w": 0, "h": 3}}}}});
    let told = PaperDecisions::from_json(&wrong, Unit::Inch).unwrap_err();
    assert!(
        told.to_string().contains("gut.dies.ground-0.size.w"),
        "{told}"
    );
}

#[test]
fn a_scrap_whose_bites_leave_no_place_is_told() {
    let mut scrap = sheet("Scrap", 6);
    let told = |item: &Item| {
        let items = BTreeMap::from([("scrap".to_owned(), item.clone())]);
        let papers = choice("a1", json!({"paper": {"item": "scrap"}}));
        on(&[block("a1", "paper", (1.0, 1.0, 4.0, 3.0))], &papers)
            .short_of(&items, Unit::Inch)
            .remove("a1/0")
    };
    assert_eq!(told(&scrap), None);
    let bite = |x: i64, y: i64| metrosk_core::geometry::Rect {
        x: Length::inches(x, 1),
        y: Length::inches(y, 1),
        w: Length::inches(2, 1),
        h: Length::inches(2, 1),
    };
    scrap.bites = vec![bite(0, 0)];
    assert_eq!(told(&scrap), None, "there is room beside the bite");
    scrap.bites = vec![bite(2, 2)];
    assert!(told(&scrap).unwrap().contains("no place of that size"));
}
