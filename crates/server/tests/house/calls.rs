//! What a page is asked for, and how it stands to it.

use crate::support::{Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};

#[tokio::test]
async fn what_is_asked_ticks_itself_as_far_as_the_plan_knows() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.page("Low sun on one sheet").await;
    let path = format!("/api/pages/{}", id(&page));
    // It begins with a call of the season; taken off it, it answers none.
    let none = json!({"call": {"call": null, "of": null}});
    let body = change(&page, "call", none, "no call");
    let (status, page) = wren.patch(&format!("{path}/plan"), &body).await;
    assert_eq!(status, StatusCode::OK, "{page}");
    let (status, none) = wren.get(&format!("{path}/call")).await;
    assert_eq!((status, none), (StatusCode::OK, json!([])));

    let call = json!({
        "name": "Two by two", "kind": "challenge", "due": "2031-01-02", "shown": "2031-01-09",
        "sketch": page["plan"]["sketch"]["sketch"],
        "asks": [
            {"id": "a", "what": "pages", "count": 2},
            {"id": "b", "what": "photos", "count": 4},
            {"id": "c", "what": "sketch"},
            {"id": "d", "what": "technique", "name": "Stitching"},
        ],
    });
    let patch = json!({"call": {"call": call, "ticked": ["d"]}});
    let body = change(&page, "call", patch, "what is asked");
    let (status, written) = wren.patch(&format!("{path}/plan"), &body).await;
    assert_eq!(status, StatusCode::OK, "{written}");
    assert_eq!(written["plan"]["call"]["call"]["name"], "Two by two");

    let (_, found) = wren.get(&format!("{path}/call")).await;
    let stands = |found: &Value| -> Vec<(Value, Value)> {
        let all = found.as_array().unwrap();
        all.iter()
            .map(|a| (a["seen"].clone(), a["ticked"].clone()))
            .collect()
    };
    let (yes, no, hand) = (json!(true), json!(false), Value::Null);
    assert_eq!(
        stands(&found),
        [
            (no.clone(), no.clone()),
            (yes.clone(), no.clone()),
            (hand.clone(), no.clone()),
            (hand.clone(), yes.clone())
        ]
    );
    assert_eq!(
        found[2]["held"]["stayed"],
        call["sketch"]["blocks"].as_array().unwrap().len()
    );

    // The page becomes two: that ticks itself, and nothing else changes.
    let two = json!({"fit": {"target": {"pages": 2}}});
    let body = change(&written, "fit", two, "two pages");
    let (status, wider) = wren.patch(&format!("{path}/plan"), &body).await;
    assert_eq!(status, StatusCode::OK, "{wider}");
    let (_, found) = wren.get(&format!("{path}/call")).await;
    assert_eq!(stands(&found)[0].0, yes);
}

#[tokio::test]
async fn a_call_that_is_wrong_is_told_and_changes_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.page("Low sun on one sheet").await;
    let path = format!("/api/pages/{}", id(&page));
    for (call, at) in [
        (json!({"name": ""}), "call.call.name"),
        (json!({"name": "x", "due": "soon"}), "call.call.due"),
        (
            json!({"name": "x", "due": "2031-02-02", "shown": "2031-02-01"}),
            "call.call",
        ),
        (
            json!({"name": "x", "asks": [{"id": "a", "what": "pages", "count": 3}]}),
            "call.call.asks[0].count",
        ),
        (
            json!({"name": "x", "asks": [{"id": "a", "what": "sketch"}, {"id": "a", "what": "kit", "name": "Ebb"}]}),
            "call.call",
        ),
        (
            json!({"name": "x", "links": [{"name": "y", "url": "javascript:alert(1)"}]}),
            "call.call.links[0].url",
        ),
        (
            json!({"name": "x", "text": "long ".repeat(1_000)}),
            "call.call.text",
        ),
    ] {
        let body = change(&page, "call", json!({"call": {"call": call}}), "wrong");
        let (status, told) = wren.patch(&format!("{path}/plan"), &body).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{told}");
        let found_at = format!("patch.{at}");
        assert_eq!(told["findings"][0]["path"], found_at, "{told}");
    }
    let (_, now) = wren.get(&path).await;
    assert_eq!(now["revision"], page["revision"]);
}
