//! Plans of cuts, replayed cut by cut from what is written.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::Cancel;
use metrosk_core::cutting::CutJob;
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::BTreeMap;

fn planned(job: &Value) -> Value {
    let read = CutJob::from_json(job).unwrap();
    read.planned(&Cancel::default()).to_json(&read)
}

/// A rectangle in sixteenths of an inch: left, top, width, height.
type Sixteenths = [i64; 4];

fn sixteenths(value: &Value) -> i64 {
    let n = value.as_f64().unwrap() * 16.0;
    assert!(
        (n - n.round()).abs() < 1e-6,
        "{value} is on the trimmer's scale"
    );
    n.round() as i64
}

fn rect(value: &Value) -> Sixteenths {
    ["x", "y", "w", "h"].map(|side| sixteenths(&value[side]))
}

fn meets(a: Sixteenths, b: Sixteenths) -> bool {
    a[0] < b[0] + b[2] && b[0] < a[0] + a[2] && a[1] < b[1] + b[3] && b[1] < a[1] + a[3]
}

fn list(value: &Value) -> &[Value] {
    value.as_array().map_or(&[], Vec::as_slice)
}

/// Makes the plan's cuts on the job's sheets and holds everything that the plan says against what comes out.
fn replay(job: &Value, plan: &Value) {
    let reach = job["trimmer"]["reach"]
        .as_f64()
        .map_or(i64::MAX, |r| (r * 16.0) as i64);
    let mut placed: BTreeMap<String, u64> = BTreeMap::new();
    let mut opened: BTreeMap<(String, u64), ()> = BTreeMap::new();
    for sheet in list(&plan["sheets"]) {
        let stock = list(&job["stock"])
            .iter()
            .find(|s| s["id"] == sheet["stock"])
            .unwrap();
        let copy = sheet["copy"].as_u64().unwrap();
        assert!(copy >= 1 && copy <= stock["qty"].as_u64().unwrap_or(1));
        let name = sheet["stock"].as_str().unwrap().to_owned();
        assert!(opened.insert((name, copy), ()).is_none(), "opened twice");
        let spoiled: Vec<Sixteenths> = list(&stock["spoiled"]).iter().map(rect).collect();
        let whole = [0, 0, sixteenths(&stock["w"]), sixteenths(&stock["h"])];
        let mut parts = BTreeMap::from([("whole".to_owned(), whole)]);
        for (n, cut) in list(&sheet["cuts"]).iter().enumerate() {
            assert_eq!(cut["step"].as_u64(), Some(n as u64 + 1));
            let [x, y, w, h] = parts
                .remove(cut["part"].as_str().unwrap())
                .expect("the part is there");
            let at = sixteenths(&cut["at"]);
            let (a, b, across, length) = match cut["along"].as_str() {
                Some("x") => ([x, y, w, at], [x, y + at, w, h - at], h, w),
                _ => ([x, y, at, h], [x + at, y, w - at, h], w, h),
            };
            assert!(at > 0 && at < across && length <= reach, "{cut}");
            for (made, area) in list(&cut["makes"]).iter().zip([a, b]) {
                assert!(
                    parts
                        .insert(made.as_str().unwrap().to_owned(), area)
                        .is_none()
                );
            }
        }
        assert!(
            !list(&sheet["pieces"]).is_empty(),
            "a sheet opened for nothing"
        );
        for out in list(&sheet["pieces"]) {
            let area = parts
                .remove(out["part"].as_str().unwrap())
                .expect("the piece is a part");
            assert_eq!(area, rect(out));
            assert!(!spoiled.iter().any(|s| meets(*s, area)), "{out} is spoiled");
            let piece = list(&job["pieces"])
                .iter()
                .find(|p| p["id"] == out["id"])
                .unwrap();
            let (w, h) = (sixteenths(&piece["w"]), sixteenths(&piece["h"]));
            let turned = out["turned"].as_bool().unwrap();
            assert_eq!((area[2], area[3]), if turned { (h, w) } else { (w, h) });
            assert!(!turned || piece["may_turn"] != json!(false));
            assert_eq!(piece["paper"], stock["paper"]);
            *placed
                .entry(out["id"].as_str().unwrap().to_owned())
                .or_default() += 1;
        }
        for offcut in list(&sheet["offcuts"]) {
            let area = parts
                .remove(offcut["part"].as_str().unwrap())
                .expect("the offcut is a part");
            assert_eq!(area, rect(offcut));
            assert!(!spoiled.iter().any(|s| meets(*s, area)));
        }
        for left in parts.values() {
            assert!(
                left[2].min(left[3]) < 4 || spoiled.iter().any(|s| meets(*s, *left)),
                "{left:?} is not told"
            );
        }
    }
    for piece in list(&job["pieces"]) {
        let id = piece["id"].as_str().unwrap();
        let short = list(&plan["short"]).iter().find(|s| s["id"] == id);
        let lacks = short.map_or(0, |s| s["qty"].as_u64().unwrap());
        let wanted = piece["qty"].as_u64().unwrap_or(1);
        assert_eq!(placed.get(id).copied().unwrap_or(0) + lacks, wanted, "{id}");
    }
}

fn job(stock: Value, pieces: Value) -> Value {
    json!({"format": "metrosk-cutjob/1", "unit": "in", "trimmer": {"reach": 12, "finest": 0.0625}, "stock": stock, "pieces": pieces})
}

#[test]
fn two_mats_come_out_of_one_sheet_above_its_printed_strip() {
    let job = job(
        json!([{"id": "dots", "paper": "dots", "w": 12, "h": 12, "spoiled": [{"x": 0, "y": 11.5, "w": 12, "h": 0.5}]}]),
        json!([{"id": "m1", "paper": "dots", "w": 4.25, "h": 6.25, "qty": 2, "may_turn": false}]),
    );
    let plan = planned(&job);
    replay(&job, &plan);
    assert_eq!(
        (list(&plan["sheets"]).len(), list(&plan["short"]).len()),
        (1, 0)
    );
    assert!((plan["used"].as_f64().unwrap() - 0.368_923_6).abs() < 1e-6);
    assert!(plan.get("stopped").is_none());
}

#[test]
fn scraps_are_used_before_a_sheet_is_opened() {
    let job = job(
        json!([{"id": "sheet", "paper": "navy", "w": 12, "h": 12}, {"id": "rest", "paper": "navy", "w": 6, "h": 4, "scrap": true, "qty": 2}]),
        json!([{"id": "m1", "paper": "navy", "w": 3, "h": 4, "qty": 4}]),
    );
    let plan = planned(&job);
    replay(&job, &plan);
    let opened: Vec<&str> = list(&plan["sheets"])
        .iter()
        .map(|s| s["stock"].as_str().unwrap())
        .collect();
    assert_eq!(opened, ["rest", "rest"]);
}

#[test]
fn six_strips_and_a_panel_leave_nothing() {
    let job = job(
        json!([{"id": "s", "paper": "tide", "w": 12, "h": 12, "qty": 2}]),
        json!([{"id": "strip", "paper": "tide", "w": 12, "h": 1, "qty": 6}, {"id": "panel", "paper": "tide", "w": 4, "h": 6, "qty": 3}]),
    );
    let plan = planned(&job);
    replay(&job, &plan);
    assert_eq!(
        (list(&plan["sheets"]).len(), plan["used"].as_f64()),
        (1, Some(1.0))
    );
}

#[test]
fn what_is_short_is_told_with_why() {
    let job = job(
        json!([{"id": "s", "paper": "tide", "w": 12, "h": 6}, {"id": "wide", "paper": "long", "w": 18, "h": 18}]),
        json!([
            {"id": "up", "paper": "tide", "w": 4, "h": 8, "may_turn": false}, {"id": "many", "paper": "tide", "w": 6, "h": 6, "qty": 3},
            {"id": "none", "paper": "coral", "w": 1, "h": 1}, {"id": "far", "paper": "long", "w": 14, "h": 14}, {"id": "zero", "paper": "coral", "w": 1, "h": 1, "qty": 0}
        ]),
    );
    let plan = planned(&job);
    replay(&job, &plan);
    let why = |id: &str| {
        let short = list(&plan["short"]).iter().find(|s| s["id"] == id).unwrap();
        (
            short["qty"].as_u64().unwrap(),
            short["why"].as_str().unwrap().to_owned(),
        )
    };
    assert!(why("up").1.contains("the way its pattern runs"), "{plan}");
    assert_eq!(why("many").0, 1);
    assert!(why("many").1.contains("the other pieces take"), "{plan}");
    assert_eq!(why("none").1, "there is no coral left");
    assert!(
        why("far").1.contains("the trimmer does not reach"),
        "{plan}"
    );
    assert_eq!(list(&plan["short"]).len(), 4);
}

#[test]
fn a_stopped_search_says_so_and_still_has_a_plan() {
    let pieces: Vec<Value> = (0..40).map(|n| json!({"id": n.to_string(), "paper": "p", "w": 2.0 + f64::from(n % 7) / 8.0, "h": 3.0 - f64::from(n % 5) / 8.0})).collect();
    let job = job(
        json!([{"id": "s", "paper": "p", "w": 12, "h": 12, "qty": 9}]),
        json!(pieces),
    );
    let read = CutJob::from_json(&job).unwrap();
    let cancel = Cancel::default();
    cancel.cancel();
    let plan = read.planned(&cancel).to_json(&read);
    replay(&job, &plan);
    assert_eq!(
        (&plan["stopped"], &plan["short"]),
        (&json!(true), &json!([]))
    );
}

#[test]
fn what_is_no_job_is_refused_with_its_path() {
    let good = job(
        json!([{"id": "s", "paper": "p", "w": 12, "h": 12}]),
        json!([{"id": "a", "paper": "p", "w": 1, "h": 1}]),
    );
    for (pointer, value, path) in [
        ("/stock/0/w", json!(0), "stock[0].w"),
        ("/pieces/0/qty", json!(-1), "pieces[0].qty"),
        ("/pieces/0/may_turn", json!("no"), "pieces[0].may_turn"),
        ("/trimmer/reach", json!(0), "trimmer.reach"),
        ("/format", json!("metrosk-cutjob/2"), "format"),
    ] {
        let mut wrong = good.clone();
        *wrong.pointer_mut(pointer).unwrap_or(&mut Value::Null) = value.clone();
        if wrong.pointer(pointer) != Some(&value) {
            let (parent, field) = pointer.rsplit_once('/').unwrap();
            wrong.pointer_mut(parent).unwrap()[field] = value;
        }
        let error = CutJob::from_json(&wrong).expect_err(path);
        assert!(error.findings.iter().any(|f| f.path == path), "{error}");
    }
    let mut twice = good;
    twice["pieces"] = json!([{"id": "a", "paper": "p", "w": 1, "h": 1}, {"id": "a", "paper": "p", "w": 2, "h": 1}]);
    assert!(
        CutJob::from_json(&twice)
            .expect_err("twice")
            .to_string()
            .contains("second time")
    );
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    #[test]
    fn cuts_replayed_give_the_pieces_and_the_offcuts(
        pieces in prop::collection::vec((2..48_i64, 2..48_i64, 1..3_u32, any::<bool>()), 1..10),
        spoiled in prop::collection::vec((0..90_i64, 0..90_i64, 4..60_i64, 4..60_i64), 0..3),
        sheets in 1..4_u32,
    ) {
        let eighth = |n: i64| n as f64 / 8.0;
        let pieces: Vec<Value> = pieces.iter().enumerate()
            .map(|(n, (w, h, qty, may_turn))| json!({"id": n.to_string(), "paper": "p", "w": eighth(*w), "h": eighth(*h), "qty": qty, "may_turn": may_turn}))
            .collect();
        let spoiled: Vec<Value> = spoiled.iter().map(|(x, y, w, h)| json!({"x": eighth(*x), "y": eighth(*y), "w": eighth(*w), "h": eighth(*h)})).collect();
        let job = job(
            json!([{"id": "s", "paper": "p", "w": 12, "h": 12, "qty": sheets, "spoiled": spoiled}, {"id": "r", "paper": "p", "w": 5, "h": 3.5, "scrap": true}]),
            json!(pieces),
        );
        let plan = planned(&job);
        replay(&job, &plan);
        prop_assert_eq!(planned(&job), plan);
    }
}
