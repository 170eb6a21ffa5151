//! Photos on a page that was laid out: what shows of each, its layers to the tick, locks, files, and what lies aside.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::fit::{self, Outcome, Proposal, Request};
use metrosk_core::geometry::Edge;
use metrosk_core::length::Length;
use metrosk_core::placed_photos::{PlacedPhotos, placed_photos};
use metrosk_core::plan::Plan;
use metrosk_core::sketch::Kind;
use proptest::prelude::*;
use serde_json::{Value, json};

/// Two photos side by side, the left one matted, and a title.
fn sketch() -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Pair", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
    "blocks": [
        {"id": "m1", "kind": "mat", "box": {"x": 0.875, "y": 1.875, "w": 4.25, "h": 6.25}, "under": "p1"},
        {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 2, "w": 4, "h": 6}},
        {"id": "p2", "kind": "photo", "box": {"x": 6, "y": 2, "w": 5, "h": 3.5}},
        {"id": "t1", "kind": "title", "box": {"x": 6, "y": 6.5, "w": 5, "h": 1}},
        {"id": "c1", "kind": "cluster", "box": {"x": 0.5, "y": 6.5, "w": 2, "h": 2}, "host": "p1"}
    ]})
}

fn plan(photos: Value) -> Plan {
    let plan = json!({"format": "metrosk-plan/2", "unit": "in", "sketch": {"sketch": sketch()}, "photos": photos,
        "fit": {"target": {"page": {"w": 12, "h": 12}, "pages": 1, "margin": 0.25}, "snap": 0.125, "pins": []}});
    Plan::from_json(&plan).unwrap()
}

fn best(plan: &Plan) -> Proposal {
    let proposal = plan.proposal().unwrap();
    assert_eq!(proposal.faults(&plan.request()), []);
    proposal
}

fn on_page(plan: &Plan) -> (Proposal, PlacedPhotos) {
    let proposal = best(plan);
    let drawn = plan.sketch.decisions.sketch.photo_slots();
    let placed = placed_photos(plan.unit, drawn, &plan.photos.decisions, &proposal.layout);
    (proposal, placed)
}

fn inches(n: f64) -> Length {
    Length::from_units(n, metrosk_core::length::Unit::Inch).unwrap()
}

#[test]
fn a_print_on_paper_is_trimmed_cut_by_cut_and_keeps_its_areas() {
    let prints = json!([
        {"id": "f1", "w": 6, "h": 8, "focal": true, "faces": [{"x": 0.3, "y": 0.0, "w": 0.4, "h": 0.3}]},
        {"id": "f2", "w": 6, "h": 4}
    ]);
    let (_, found) = on_page(&plan(json!({"photos": prints})));
    let main = found.placed.iter().find(|p| p.print == "f1").unwrap();
    assert_eq!(main.of, "p1");
    assert!(main.cut.is_empty());
    assert_eq!(
        main.window.y,
        Length::ZERO,
        "the face is at the top: {:?}",
        main.window
    );
    let (mut w, mut h) = (main.size.w, main.size.h);
    for trim in &main.trims {
        match trim.side {
            Edge::Left | Edge::Right => w = w - trim.off,
            Edge::Top | Edge::Bottom => h = h - trim.off,
        }
        assert!(
            trim.off.is_on(Length::inches(1, 32)),
            "{} is on no ruler",
            trim.off.ticks()
        );
    }
    assert_eq!((w, h), (main.slot.w, main.slot.h));
    let said: Vec<String> = found.reasons.iter().map(|r| r.sentence()).collect();
    assert!(
        said.contains(&"Print f1 is the main photo, so it takes p1, the largest place.".to_owned()),
        "{said:?}"
    );
    assert!(
        said.contains(&"What must be kept is not cut.".to_owned()),
        "{said:?}"
    );
}

#[test]
fn her_window_is_taken_as_near_as_what_must_be_kept_lets_it() {
    let with = |crop: Value, faces: Value| {
        let prints = json!([{"id": "f1", "w": 5, "h": 10, "crop": crop, "faces": faces, "place": {"block": "p1"}}, {"id": "f2", "w": 6, "h": 4}]);
        let (_, found) = on_page(&plan(json!({"photos": prints})));
        found.placed.into_iter().find(|p| p.print == "f1").unwrap()
    };
    let free = with(json!({"x": 0, "y": 0.05}), json!([]));
    assert_eq!((free.window.x, free.window.y), (Length::ZERO, inches(0.5)));
    // A face at the bottom: the window comes down as far as it must and no further.
    let held = with(
        json!({"x": 0, "y": 0.05}),
        json!([{"x": 0.2, "y": 0.6, "w": 0.3, "h": 0.25}]),
    );
    assert_eq!(held.window.bottom(), inches(8.5));
}

#[test]
fn what_no_window_holds_is_told_with_what_would() {
    let prints = json!([
        {"id": "f1", "w": 8, "h": 10, "place": {"block": "p2"}, "faces": [{"x": 0.0, "y": 0.0, "w": 0.9, "h": 0.9}]},
        {"id": "f2", "w": 4, "h": 6}
    ]);
    let (proposal, found) = on_page(&plan(json!({"photos": prints})));
    let cut = &found.placed.iter().find(|p| p.print == "f1").unwrap().cut;
    assert_eq!(cut.len(), 1);
    assert_eq!((cut[0].slot.w, cut[0].slot.h), (inches(7.2), inches(9.0)));
    assert!(
        proposal.sentences().iter().any(|s| s.contains("f1")),
        "the fit's notes name it too"
    );
}

#[test]
fn an_area_to_cover_is_hidden_by_the_cluster_that_lies_on_it() {
    let cover = |x: f64, y: f64| json!([{"x": x, "y": y, "w": 0.1, "h": 0.1}]);
    let prints = json!([{"id": "f1", "w": 4, "h": 6, "place": {"block": "p1"}, "covers": cover(0.02, 0.85)}, {"id": "f2", "w": 6, "h": 4, "covers": cover(0.5, 0.4)}]);
    let (_, found) = on_page(&plan(json!({"photos": prints})));
    let by = |id: &str| {
        found.placed.iter().find(|p| p.print == id).unwrap().covered[0]
            .by
            .clone()
    };
    assert_eq!(by("f1"), Some("c1".to_owned()));
    assert_eq!(by("f2"), None);
}

#[test]
fn a_locked_print_lies_where_it_is_locked_to_whatever_suits_better() {
    let prints = json!([
        {"id": "f1", "w": 6, "h": 4, "place": {"block": "p1"}},
        {"id": "f2", "w": 4, "h": 6, "focal": true}
    ]);
    let (_, found) = on_page(&plan(json!({"photos": prints})));
    let of = |id: &str| {
        found
            .placed
            .iter()
            .find(|p| p.print == id)
            .unwrap()
            .of
            .clone()
    };
    assert_eq!((of("f1"), of("f2")), ("p1".to_owned(), "p2".to_owned()));
}

#[test]
fn where_the_sketch_is_said_twice_a_print_can_be_locked_to_the_second_page() {
    let prints: Vec<Value> = (0..4)
        .map(|n| {
            let place = (n == 0).then(|| json!({"block": "p1", "part": 1}));
            json!({"id": format!("f{n}"), "w": 4, "h": 6, "place": place})
        })
        .collect();
    let mut request = json!({"format": "metrosk-fit/1", "unit": "in", "sketch": sketch(), "approach": "echo", "photos": prints,
        "target": {"page": {"w": 12, "h": 12}, "pages": 2, "fold_guard": 0.25}, "snap": 0.125});
    request["mats"] = json!([{"layers": [{"border": 0.25}]}]);
    let request = Request::from_json(&request).unwrap();
    let Outcome::Proposals(found) = fit::fit(&request) else {
        panic!("nothing stands in its way")
    };
    assert_eq!(found[0].faults(&request), []);
    let locked = found[0]
        .layout
        .blocks
        .iter()
        .find(|b| b.placement.as_ref().is_some_and(|p| p.photo == "f0"))
        .unwrap();
    assert_eq!((locked.from[0].as_str(), locked.page), ("p1", 1));
}

#[test]
fn a_file_is_printed_so_that_it_covers_its_place_and_may_be_enlarged() {
    let with = |zoom: f64| {
        let prints = json!([{"id": "f1", "w": 3, "h": 2, "file": true, "pixels": [1200, 800], "crop": {"x": 0, "y": 0, "zoom": zoom}, "place": {"block": "p1"}}, {"id": "f2", "w": 6, "h": 4}]);
        let (_, found) = on_page(&plan(json!({"photos": prints})));
        found.placed.into_iter().find(|p| p.print == "f1").unwrap()
    };
    let plain = with(1.0);
    assert_eq!(plain.size.h, plain.slot.h, "it is as high as its place");
    assert!(plain.size.w > plain.slot.w);
    assert!(
        plain.trims.is_empty(),
        "a file is not trimmed, it is printed so"
    );
    assert!(plain.dots.is_some_and(|d| (100.0..200.0).contains(&d)));
    let near = with(2.0);
    assert!((near.size.h.ticks() - 2 * near.slot.h.ticks()).abs() <= 1);
    // The fit takes nothing off because a file is small: it is as large as it is printed.
    let as_drawn = best(&plan(json!({})));
    let p1 = |p: &Proposal| {
        p.layout
            .blocks
            .iter()
            .find(|b| b.block.id == "p1")
            .unwrap()
            .block
            .rect
    };
    let files = json!([{"id": "f1", "w": 0.5, "h": 0.75, "file": true}, {"id": "f2", "w": 0.5, "h": 0.35, "file": true}]);
    assert_eq!(p1(&best(&plan(json!({"photos": files})))), p1(&as_drawn));
}

#[test]
fn prints_without_a_place_lie_aside_and_change_nothing() {
    let prints = json!([{"id": "f1", "w": 4, "h": 6}, {"id": "f2", "w": 6, "h": 4}]);
    let mut more = prints.clone();
    more.as_array_mut()
        .unwrap()
        .push(json!({"id": "f3", "w": 3, "h": 4, "aside": true}));
    let (a, b) = (
        plan(json!({"photos": prints})),
        plan(json!({"photos": more})),
    );
    assert_eq!(best(&a).layout, best(&b).layout);
    assert_eq!(on_page(&b).1.aside, ["f3"]);
}

#[test]
fn layers_she_chose_take_the_place_of_the_sketchs_mats() {
    let mats = json!([{"layers": [{"border": 0.125}, {"border": 0.25, "off": {"x": 0.125, "y": 0.125}}]}, {"of": ["p2"], "layers": []}]);
    let (proposal, found) = on_page(&plan(
        json!({"mats": mats, "photos": [{"id": "f1", "w": 4, "h": 6, "place": {"block": "p1"}}, {"id": "f2", "w": 6, "h": 4}]}),
    ));
    let of = |id: &str| found.placed.iter().find(|p| p.print == id).unwrap();
    let borders: Vec<[Length; 4]> = of("f1").layers.iter().map(|l| l.borders).collect();
    let eighths = |n: [i64; 4]| n.map(|n| Length::inches(n, 8));
    assert_eq!(borders, [eighths([1, 1, 1, 1]), eighths([1, 1, 3, 3])]);
    assert!(of("f2").layers.is_empty());
    let mats: Vec<_> = proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Mat)
        .collect();
    // The sketch's own mat is the inner one; the other one stands for no block of the sketch.
    assert_eq!(
        mats.iter().map(|b| b.from.len()).collect::<Vec<_>>(),
        [0, 1]
    );
    assert_eq!(mats[1].block.id, "m1");
}

#[test]
fn mats_make_room_for_themselves_beside_what_lies_near() {
    let mut near = sketch();
    // Only an eighth lies between the photos; both get wider mats than that.
    near["blocks"][2]["box"] = json!({"x": 5.125, "y": 2, "w": 5, "h": 3.5});
    near["blocks"][0] = near["blocks"][1].clone();
    near["blocks"].as_array_mut().unwrap().remove(1);
    let mut request = json!({"format": "metrosk-fit/1", "unit": "in", "sketch": near, "target": {"page": {"w": 12, "h": 12}, "pages": 1}, "snap": 0.125});
    request["mats"] = json!([{"layers": [{"border": 0.25}]}]);
    let request = Request::from_json(&request).unwrap();
    let Outcome::Proposals(found) = fit::fit(&request) else {
        panic!("nothing stands in its way")
    };
    let mats: Vec<_> = found[0]
        .layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Mat)
        .map(|b| b.extent())
        .collect();
    assert_eq!(mats.len(), 2);
    assert!(!mats[0].overlaps(mats[1], 1.0), "{mats:?}");
}

#[test]
fn prints_that_share_a_slot_have_one_mat_or_one_each() {
    let prints: Vec<Value> = (1..4)
        .map(|n| json!({"id": format!("f{n}"), "w": 4, "h": 6}))
        .collect();
    let with = |each: bool| {
        let mats = json!([{"of": ["p2"], "each": each, "layers": [{"border": 0.25}]}]);
        let mut plan = json!({"format": "metrosk-plan/2", "unit": "in", "sketch": {"sketch": sketch()}, "photos": {"photos": prints, "mats": mats},
            "fit": {"target": {"page": {"w": 12, "h": 12}, "pages": 1, "margin": 0.25}, "snap": 0.125, "pins": []}});
        plan["fit"]["slots"] = json!([{"photos": ["p2"], "as": "cells", "cols": 2, "rows": 1}]);
        on_page(&Plan::from_json(&plan).unwrap())
    };
    let of_p2 = |found: &PlacedPhotos| -> Vec<(usize, [Length; 4])> {
        let placed = found.placed.iter().filter(|p| p.of == "p2");
        placed
            .map(|p| (p.layers[0].around, p.layers[0].borders))
            .collect()
    };
    let quarter = [Length::inches(1, 4); 4];
    let (together, found) = with(false);
    assert_eq!(of_p2(&found), [(2, quarter), (2, quarter)]);
    let mats = |p: &Proposal| {
        p.layout
            .blocks
            .iter()
            .filter(|b| b.block.kind == Kind::Mat && b.block.under.as_deref() != Some("p1"))
            .count()
    };
    assert_eq!(mats(&together), 1);
    let (apart, found) = with(true);
    assert_eq!(of_p2(&found), [(1, quarter), (1, quarter)]);
    assert_eq!(mats(&apart), 2);
    let own: Vec<_> = apart
        .layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Mat)
        .map(|b| b.extent())
        .collect();
    assert!(
        own.iter()
            .enumerate()
            .all(|(n, a)| own[n + 1..].iter().all(|b| !a.overlaps(*b, 1.0))),
        "{own:?}"
    );
}

#[test]
fn a_layer_on_foam_makes_the_page_thicker_where_it_lies() {
    let thick = |lift: &str| {
        let prints = json!([{"id": "f1", "w": 4, "h": 6, "place": {"block": "p1"}}, {"id": "f2", "w": 6, "h": 4}]);
        let mats = json!([{"of": ["p1"], "layers": [{"lift": lift}]}]);
        let (_, found) = on_page(&plan(json!({"photos": prints, "mats": mats})));
        found.thickness.thickest.thick
    };
    assert_eq!(thick("thin-foam") - thick("flat"), Length::inches(1, 16));
}

#[test]
fn what_is_too_thick_is_told_with_what_to_take_down() {
    let prints = json!([{"id": "f1", "w": 4, "h": 6}, {"id": "f2", "w": 6, "h": 4}]);
    let thick = |by: &str, room: f64| {
        let (_, found) = on_page(&plan(
            json!({"photos": prints, "lift": [{"of": ["p1"], "by": by}], "room": room}),
        ));
        found.thickness
    };
    let flat = thick("flat", 0.1);
    assert!(flat.take_down.is_empty());
    let high = thick("thick-foam", 0.1);
    assert_eq!(
        high.thickest.thick - flat.thickest.thick,
        Length::inches(1, 8)
    );
    assert_eq!(high.take_down.len(), 1);
    assert_eq!(high.take_down[0].0, "p1");
    assert!(thick("thick-foam", 0.5).take_down.is_empty());
}

/// A print of any usual or unusual size, with areas to keep on it.
fn print(n: usize) -> impl Strategy<Value = Value> {
    let face = (0..70u32, 0..70u32, 5..30u32, 5..30u32).prop_map(|(x, y, w, h)| json!({"x": f64::from(x) / 100.0, "y": f64::from(y) / 100.0, "w": f64::from(w) / 100.0, "h": f64::from(h) / 100.0}));
    (2..9u32, 2..9u32, any::<bool>(), prop::collection::vec(face, 0..3), 0..100u32, 0..100u32, prop_oneof![2 => Just(None), 1 => (0..2u8).prop_map(Some)])
        .prop_map(move |(w, h, file, faces, x, y, lock)| {
            let place = lock.filter(|_| n == 0).map(|l| json!({"block": if l == 0 { "p1" } else { "p2" }}));
            json!({"id": format!("f{n}"), "w": w, "h": h, "file": file, "faces": faces, "place": place,
                "crop": {"x": f64::from(x) / 100.0, "y": f64::from(y) / 100.0}})
        })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]
    #[test]
    fn every_crop_holds_its_areas_or_says_so_and_no_print_is_enlarged_twice_used_or_lost(
        prints in (print(0), print(1), prop::option::of(print(2))),
        borders in prop::collection::vec((0..6u32, 0..4i32), 0..4),
    ) {
        let prints: Vec<Value> = [Some(prints.0), Some(prints.1), prints.2].into_iter().flatten().collect();
        let layers: Vec<Value> = borders.iter().map(|(border, off)| {
            let off = f64::from((*off).min(*border as i32)) / 16.0;
            json!({"border": f64::from(*border) / 16.0, "off": {"x": off, "y": -off}})
        }).collect();
        prop_assume!(layers.len() <= 3);
        let plan = plan(json!({"photos": prints, "mats": [{"layers": layers}]}));
        // Prints of two inches that are locked may stand in each other's way; that is told as a conflict.
        let Ok(proposal) = plan.proposal() else { return Ok(()) };
        prop_assert_eq!(proposal.faults(&plan.request()), []);
        let drawn = plan.sketch.decisions.sketch.photo_slots();
        let found = placed_photos(plan.unit, drawn, &plan.photos.decisions, &proposal.layout);
        let mut ids: Vec<&str> = found.placed.iter().map(|p| p.print.as_str()).collect();
        ids.sort_unstable();
        let asked: Vec<&str> = prints.iter().map(|p| p["id"].as_str().unwrap()).collect();
        prop_assert_eq!(ids, asked);
        for placed in &found.placed {
            let asked = prints.iter().find(|p| p["id"] == placed.print.as_str()).unwrap();
            let file = asked["file"].as_bool().unwrap();
            if !file {
                prop_assert_eq!(placed.size.w, inches(asked["w"].as_f64().unwrap()));
                prop_assert!(placed.window.w <= placed.size.w && placed.window.h <= placed.size.h);
                let off = |side: Edge| placed.trims.iter().filter(|t| t.side == side).fold(Length::ZERO, |s, t| s + t.off);
                prop_assert_eq!(off(Edge::Left) + placed.slot.w + off(Edge::Right), placed.size.w);
                prop_assert_eq!(off(Edge::Top) + placed.slot.h + off(Edge::Bottom), placed.size.h);
            }
            // Held, or named.
            let (x, y, w, h) = (placed.window.x.ticks() as f64, placed.window.y.ticks() as f64, placed.window.w.ticks() as f64, placed.window.h.ticks() as f64);
            let (fw, fh) = (placed.size.w.ticks() as f64, placed.size.h.ticks() as f64);
            for (n, face) in asked["faces"].as_array().unwrap().iter().enumerate() {
                let at = |name: &str| face[name].as_f64().unwrap();
                let hair = inches(0.01).ticks() as f64;
                let held = at("x") * fw >= x - hair && at("y") * fh >= y - hair
                    && (at("x") + at("w")) * fw <= x + w + hair && (at("y") + at("h")) * fh <= y + h + hair;
                prop_assert!(held || placed.cut.iter().any(|c| c.area == n), "print {} face {n}", placed.print);
            }
            let set: Vec<[Length; 4]> = metrosk_core::photos::layers_of(&plan.photos.decisions.mats, &placed.of).unwrap().iter().map(|l| l.borders).collect();
            if placed.part == 0 && !placed.layers.is_empty() {
                prop_assert_eq!(placed.layers.iter().map(|l| l.borders).collect::<Vec<_>>(), set);
            }
        }
    }
}

#[test]
fn what_a_print_is_called_unsettles_nothing_and_its_mats_do() {
    use metrosk_core::plan::{self, Standing, State, Station};
    let prints = |name: &str| json!([{"id": "f1", "w": 4, "h": 6, "name": name}, {"id": "f2", "w": 6, "h": 4}]);
    let plan = json!({"format": "metrosk-plan/2", "unit": "in", "sketch": {"sketch": sketch()}, "photos": {"photos": prints("Gulls")},
        "fit": {"target": {"page": {"w": 12, "h": 12}, "pages": 1}, "snap": 0.125, "pins": []}});
    let then = |plan: &Value, station: Station, patch: Value| {
        plan::changed(plan, station, &patch).unwrap().plan
    };
    let settled = then(&plan, Station::Fit, json!({"fit": {"mark": "settled"}}));
    let named = then(
        &settled,
        Station::Photos,
        json!({"photos": {"photos": prints("Two gulls")}}),
    );
    assert_eq!(Standing::of(&named, Station::Fit).state, State::Settled);
    assert_eq!(plan::fit_digest(&named), plan::fit_digest(&settled));
    let matted = then(
        &named,
        Station::Photos,
        json!({"photos": {"mats": [{"layers": [{}]}]}}),
    );
    let fit = Standing::of(&matted, Station::Fit);
    assert_eq!(
        (fit.state, fit.changed),
        (State::NeedsALook, vec!["the mats"])
    );
}

/// One photo, tilted, with what its layers are set to, on a page of its own.
fn tilted(turn: f64, layers: &Value) -> (Proposal, PlacedPhotos, Vec<[Length; 4]>) {
    let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Tilted", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [{"id": "p1", "kind": "photo", "box": {"x": 4, "y": 3, "w": 4, "h": 6}, "turn": turn}]});
    let plan = json!({"format": "metrosk-plan/2", "unit": "in", "sketch": {"sketch": sketch},
        "photos": {"photos": [{"id": "f1", "w": 4, "h": 6}], "mats": [{"layers": layers}]},
        "fit": {"target": {"page": {"w": 12, "h": 12}, "pages": 1, "margin": 0.25}, "snap": 0.125, "pins": []}});
    let plan = Plan::from_json(&plan).unwrap();
    let (proposal, placed) = on_page(&plan);
    let set = metrosk_core::photos::layers_of(&plan.photos.decisions.mats, "p1").unwrap();
    (proposal, placed, set.iter().map(|l| l.borders).collect())
}

#[test]
fn a_layer_behind_a_tilted_photo_is_set_off_along_the_photos_own_edges() {
    let layers = json!([{"border": 0.125}, {"border": 0.25, "off": {"x": 0.1875, "y": 0.0625}, "edge": "torn"}]);
    for turn in [0.0, 7.0, -12.5, 45.0, 90.0, 97.0, 180.0, 263.0] {
        let (proposal, placed, set) = tilted(turn, &layers);
        let found: Vec<[Length; 4]> = placed.placed[0].layers.iter().map(|l| l.borders).collect();
        assert_eq!(found, set, "turned by {turn}");
        // The same again from the drawing alone: the layer's corners as they lie on the page, seen from the photo.
        let at = |id: &str| {
            &proposal
                .layout
                .blocks
                .iter()
                .find(|b| b.block.id == id)
                .unwrap()
                .block
        };
        let (photo, outer) = (at("p1"), at(&placed.placed[0].layers[1].block));
        assert_eq!(outer.other["edge"], "torn");
        let middle = |b: &metrosk_core::sketch::Block| {
            let span = metrosk_core::geometry::Span::from(b.rect);
            (span.cx(), span.cy())
        };
        let ((px, py), (ox, oy)) = (middle(photo), middle(outer));
        let (x, y) = metrosk_core::geometry::turned((ox - px, oy - py), -photo.turn);
        let inch = inches(1.0).ticks() as f64;
        assert!(
            (x / inch - 0.1875).abs() < 1e-4,
            "turned by {turn}: {}",
            x / inch
        );
        assert!(
            (y / inch - 0.0625).abs() < 1e-4,
            "turned by {turn}: {}",
            y / inch
        );
    }
}
