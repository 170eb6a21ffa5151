//! Plans in sections: what is read, changed, taken back, and what needs a look after a change.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::document::Invalid;
use metrosk_core::fit::Request;
use metrosk_core::plan::{self, Defaults, Plan, State, Station};
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};

fn sketch() -> Sketch {
    let document = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Two", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 2, "w": 4, "h": 6}},
            {"id": "p2", "kind": "photo", "box": {"x": 6, "y": 2, "w": 4, "h": 6}},
        ],
    });
    Sketch::from_json(&document).unwrap()
}

fn started() -> Value {
    plan::start(&sketch(), &Defaults::default())
}

/// The plan after a change that is made at the call: nothing is settled there.
fn after(plan: &Value, patch: Value) -> Value {
    at(Station::Call, plan, patch)
}

fn at(station: Station, plan: &Value, patch: Value) -> Value {
    plan::changed(plan, station, &patch).unwrap().plan
}

fn paths(invalid: Invalid) -> Vec<String> {
    invalid.findings.into_iter().map(|f| f.path).collect()
}

/// A plan as version 1 wrote it: one fit request, the stations' marks beside it, and fields of somebody else's.
fn of_version_1() -> Value {
    json!({
        "format": "metrosk-plan/1", "mood": "windy",
        "fit": {
            "format": "metrosk-fit/1", "unit": "in", "sketch": sketch().to_json(), "turn": 90, "keep": {"p1": "size"},
            "photos": {"count": 3}, "photo_rule": "whole", "target": {"page": {"w": 8.5, "h": 11}, "pages": 1, "margin": 0.25},
            "snap": 0.125, "pins": [{"block": "p1", "edge": "left", "at": 1}], "weather": "gale",
        },
        "stations": {"sketch": "settled", "fit": "settled", "papers": "needs-a-look"},
    })
}

#[test]
fn a_plan_of_version_1_is_brought_up_and_asks_for_the_same() {
    let earlier = of_version_1();
    let today = plan::brought_up(&earlier);
    assert_eq!(today["format"], "metrosk-plan/2");
    assert_eq!(today["sketch"]["turn"], 90);
    assert_eq!(today["photos"]["photos"]["count"], 3);
    assert_eq!(
        (&today["mood"], &today["fit"]["weather"]),
        (&json!("windy"), &json!("gale")),
        "what is not understood is kept"
    );
    let read = Plan::from_json(&earlier).unwrap();
    assert_eq!(read.request(), Request::from_json(&earlier["fit"]).unwrap());
    assert_eq!(read.papers.mark.state, Some(State::NeedsALook));
    let progress = plan::progress(&today, None);
    let states: Vec<State> = progress.stations.iter().map(|s| s.state).collect();
    assert_eq!(states[1], State::Settled);
    assert_eq!((states[2], states[3]), (State::Open, State::Settled));
    assert_eq!(plan::brought_up(&today), today, "once is enough");
}

#[test]
fn what_is_wrong_in_a_plan_of_version_1_is_told() {
    let mut earlier = of_version_1();
    earlier["fit"]["pins"][0]["block"] = json!("p9");
    assert_eq!(
        paths(Plan::from_json(&earlier).unwrap_err()),
        ["fit.pins[0].block"]
    );
    let without = json!({"format": "metrosk-plan/1", "fit": 3});
    assert!(paths(Plan::from_json(&without).unwrap_err()).contains(&"fit".to_owned()));
}

#[test]
fn each_section_writes_itself_with_fields_that_are_not_understood() {
    let mut document = started();
    document["words"] = json!({"title": {"text": "Low sun"}, "mark": "settled"});
    document["fit"]["later"] = json!({"deep": [1, 2]});
    let read = Plan::from_json(&document).unwrap();
    assert_eq!(read.words.to_json(), document["words"]);
    assert_eq!(read.fit.to_json(), document["fit"]);
    assert_eq!(read.sketch.to_json(), document["sketch"]);
}

#[test]
fn a_settled_station_needs_a_look_when_what_it_was_settled_on_changes() {
    let settled = after(
        &started(),
        json!({"papers": {"mark": "settled"}, "fit": {"mark": "settled"}}),
    );
    let state = |plan: &Value, station: Station| {
        let found = plan::progress(plan, None);
        let standing = &found.stations[station as usize];
        (standing.state, standing.changed.clone())
    };
    assert_eq!(state(&settled, Station::Papers), (State::Settled, vec![]));

    let pinned = after(
        &settled,
        json!({"fit": {"pins": [{"block": "p1", "edge": "left", "at": 2}]}}),
    );
    assert_eq!(
        state(&pinned, Station::Papers),
        (State::NeedsALook, vec!["what is pinned or chosen"])
    );
    assert_eq!(
        state(&pinned, Station::Fit),
        (State::Settled, vec![]),
        "her own changes there don't unsettle it"
    );

    let more = after(
        &pinned,
        json!({"photos": {"photos": {"count": 3}}, "sketch": {"turn": 90}}),
    );
    assert_eq!(
        plan::progress(&more, None).next.as_deref(),
        Some("choose a way to fit again: how the sketch is turned and the photos changed")
    );
    let back = after(
        &more,
        json!({"photos": {"photos": null}, "sketch": {"turn": null}, "fit": {"pins": []}}),
    );
    assert_eq!(
        state(&back, Station::Papers),
        (State::Settled, vec![]),
        "all is as it was"
    );

    let seen = at(
        Station::Papers,
        &settled,
        json!({"photos": {"photos": {"count": 3}}}),
    );
    assert_eq!(
        state(&seen, Station::Papers),
        (State::Settled, vec![]),
        "she changed it there"
    );
    assert_eq!(state(&seen, Station::Fit).1, ["the photos"]);

    let again = after(
        &more,
        json!({"papers": {"mark": "settled", "grounds": {"fit.page": "made up"}}}),
    );
    assert_eq!(state(&again, Station::Papers), (State::Settled, vec![]));
    let open = after(&again, json!({"papers": {"mark": "open"}}));
    assert_eq!(open["papers"], json!({}));
}

#[test]
fn a_change_says_what_it_touches_and_can_be_taken_back() {
    let first = started();
    let change = plan::changed(
        &first,
        Station::Fit,
        &json!({"fit": {"approach": "frame", "snap": 0.125}, "sketch": {"turn": 90}}),
    )
    .unwrap();
    assert_eq!(change.touches(), [Station::Sketch, Station::Fit]);
    assert_eq!(
        change.patch,
        json!({"fit": {"approach": "frame"}, "sketch": {"turn": 90}}),
        "the step was 1/8 already"
    );
    assert_eq!(plan::patched(&change.plan, &change.inverse), first);
    assert!(plan::holds(&change.plan, &change.patch));
    let unit = plan::changed(&first, Station::Fit, &json!({"unit": "mm", "fit": {"snap": 1, "target": {"page": {"w": 210, "h": 297}, "margin": 6, "fold_guard": 6}}})).unwrap();
    assert_eq!(unit.touches(), [Station::Photos, Station::Fit]);
}

#[test]
fn a_change_that_can_not_be_meant_is_refused_with_its_path() {
    let first = started();
    let refused = |patch: Value| paths(plan::changed(&first, Station::Fit, &patch).unwrap_err());
    assert_eq!(refused(json!([])), [""]);
    assert_eq!(refused(json!({"oven": {}})), [""]);
    assert_eq!(refused(json!({"papers": 3})), ["papers"]);
    assert_eq!(
        refused(json!({"papers": {"mark": "done"}})),
        ["papers.mark"]
    );
    assert_eq!(refused(json!({"sketch": {"turn": 45}})), ["sketch.turn"]);
    assert_eq!(
        refused(json!({"sketch": {"sketch": null}})),
        ["sketch.sketch"],
        "a page has a sketch"
    );
}

#[test]
fn the_digest_of_a_fit_follows_what_it_is_made_of_and_nothing_else() {
    let first = started();
    let digest = plan::fit_digest(&first);
    let same = after(
        &first,
        json!({"words": {"title": {"text": "Low sun"}}, "fit": {"mark": "settled"}}),
    );
    assert_eq!(plan::fit_digest(&same), digest);
    for patch in [
        json!({"fit": {"snap": 0.25}}),
        json!({"photos": {"photos": {"count": 5}}}),
        json!({"sketch": {"flip": "across"}}),
    ] {
        assert_ne!(
            plan::fit_digest(&after(&first, patch.clone())),
            digest,
            "{patch}"
        );
    }
}
