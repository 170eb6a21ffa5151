//! The cutting machine over HTTP: it stops and goes on, cuts no line twice, and refuses what it can't cut.

use crate::support::{Events, Guest, Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};

/// The sheets of the demo's spread, sent to the machine.
pub(crate) async fn sent_to_machine(guest: &Guest) -> Value {
    let page = guest.kites().await;
    let path = format!("/api/pages/{}/cut-orders", id(&page));
    let (status, order) = guest.post(&path, &Value::Null).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{order}");
    order
}

/// Waits until an order's job has ended: the order.
pub(crate) async fn ended(guest: &Guest, events: &mut Events, order: &Value) -> Value {
    events
        .until(|_, e| {
            e["thing"] == order["job"] && (e["state"] == "done" || e["state"] == "failed")
        })
        .await;
    let page = order["page"].as_str().unwrap();
    let orders = guest.get(&format!("/api/pages/{page}/cut-orders")).await.1;
    let all = orders.as_array().unwrap();
    all.iter().find(|o| o["id"] == order["id"]).unwrap().clone()
}

fn cut(order: &Value) -> Vec<(u64, u64)> {
    let sheets = order["sheets"].as_array().unwrap();
    let counts = |s: &Value| (s["cut"].as_u64().unwrap(), s["lines"].as_u64().unwrap());
    sheets.iter().map(counts).collect()
}

async fn set(guest: &Guest, jammed: bool, lost: bool, trouble: &str) {
    let to = json!({"mat": "12x12", "jammed": jammed, "lost": lost, "trouble": trouble, "trouble_after": 1});
    let (status, told) = guest.put("/api/cutting-machine", &to).await;
    assert_eq!(status, StatusCode::OK, "{told}");
}

async fn go_on(guest: &Guest, order: &Value) -> Value {
    let path = format!("/api/cut-orders/{}/go-on", id(order));
    let (status, going) = guest.post(&path, &Value::Null).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{going}");
    going
}

#[tokio::test]
async fn a_machine_that_jams_and_loses_its_place_goes_on_and_cuts_no_line_twice() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    set(&wren, false, false, "jam").await;
    let mut events = Events::of(&wren, None).await;
    let order = sent_to_machine(&wren).await;
    let jammed = ended(&wren, &mut events, &order).await;
    let why = jammed["problem"]["detail"].as_str().unwrap();
    assert!(why.contains("jammed"), "{jammed}");
    assert_eq!(cut(&jammed)[0].0, 1, "the line before the jam is cut");
    assert_eq!(
        wren.get("/api/cutting-machine").await.1["jammed"],
        json!(true)
    );
    // Nothing moves while it is jammed.
    let still = ended(&wren, &mut events, &go_on(&wren, &order).await).await;
    assert_eq!(cut(&still), cut(&jammed));
    set(&wren, false, false, "lost").await;
    let lost = ended(&wren, &mut events, &go_on(&wren, &order).await).await;
    let why = lost["problem"]["detail"].as_str().unwrap();
    assert!(why.contains("lost its place"), "{lost}");
    set(&wren, false, false, "none").await;
    let done = ended(&wren, &mut events, &go_on(&wren, &order).await).await;
    assert_eq!(done["state"], "done");
    assert!(
        cut(&done)
            .iter()
            .all(|(cut, lines)| cut == lines && *cut > 0)
    );
    let said: Vec<&str> = done["log"]
        .as_array()
        .unwrap()
        .iter()
        .map(|l| l["said"].as_str().unwrap())
        .collect();
    let ends = said.iter().filter(|s| s.starts_with("All ")).count();
    assert_eq!(ends, cut(&done).len(), "each sheet ends once: {said:?}");
    // Sent on once more it has nothing left to do.
    let again = ended(&wren, &mut events, &go_on(&wren, &order).await).await;
    assert_eq!((cut(&again), &again["log"]), (cut(&done), &done["log"]));
}

#[tokio::test]
async fn another_server_goes_on_where_the_blade_stopped() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    set(&wren, false, false, "jam").await;
    let mut events = Events::of(&wren, None).await;
    let order = sent_to_machine(&wren).await;
    let jammed = ended(&wren, &mut events, &order).await;
    // Another server on the same database goes on with it.
    let other = Guest {
        client: wren.client.clone(),
        address: house.twin().await,
    };
    set(&other, false, false, "none").await;
    let mut told = Events::of(&other, None).await;
    let going = go_on(&other, &order).await;
    let done = ended(&other, &mut told, &going).await;
    assert_eq!(done["state"], "done");
    assert!(cut(&done)[0].0 > cut(&jammed)[0].0);
}

#[tokio::test]
async fn what_is_begun_by_hand_is_not_sent_and_a_wrong_machine_is_told() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let order = sent_to_machine(&wren).await;
    let count = order["sheets"].as_array().unwrap().len();
    // The first sheet is begun at the trimmer.
    let layout = crate::stash::layout_of(&wren, &kites).await;
    let ask = json!({"page": id(&kites), "unit": "in", "papers": kites["plan"]["papers"], "layout": layout});
    let cuts = wren.post("/api/cut/planned", &ask).await.1;
    let sheets = cuts["sheets"].as_array().unwrap();
    let cut_ones = sheets.iter().filter(|s| s["cuts"] != json!([]));
    let mut begun = cut_ones.clone().next().unwrap().clone();
    assert_eq!(cut_ones.count(), count);
    begun["done"] = json!(1);
    for derived in ["steps", "used"] {
        begun.as_object_mut().unwrap().remove(derived);
    }
    let write = change(&kites, "cut", json!({"cut": {"begun": [begun]}}), "cut");
    let path = format!("/api/pages/{}/plan", id(&kites));
    assert_eq!(wren.patch(&path, &write).await.0, StatusCode::OK);
    let next = sent_to_machine(&wren).await;
    assert_eq!(next["sheets"].as_array().unwrap().len(), count - 1);

    let wrong = json!({"mat": "9x9", "jammed": false, "lost": false, "trouble": "none", "trouble_after": 0});
    let (status, told) = wren.put("/api/cutting-machine", &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(told["findings"][0]["allowed"], "12x12, 12x24");
}

#[tokio::test]
async fn what_is_short_is_told_with_what_could_give() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let block = |id: &str, kind: &str, b: [f64; 4]| json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": b[0], "y": b[1], "w": b[2], "h": b[3]}});
    let blocks = [
        block("s1", "strip", [0.0, 4.0, 12.0, 2.0]),
        block("p1", "photo", [5.0, 3.0, 7.0, 6.0]),
    ];
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    let item = json!({"unit": "in", "kind": "sheet", "name": "Narrow dots", "size": {"w": 6, "h": 6}, "count": 1,
                      "a": {"colours": [{"colour": "#33ccbb", "share": 1}], "busy": 0, "direction": "any"}});
    let (status, there) = wren.post("/api/stash", &json!({"items": [item]})).await;
    assert!(status.is_success(), "{there}");
    let found = wren.get("/api/stash?search=narrow%20dots").await.1["items"][0].clone();
    let papers = json!({"cut": "whole", "pieces": {"s1": {"0": {"paper": {"item": found["id"]}}}}});
    let ask = json!({"unit": "in", "papers": papers, "layout": layout});
    let (status, cuts) = wren.post("/api/cut/planned", &ask).await;
    assert_eq!(status, StatusCode::OK, "{cuts}");
    assert_eq!(cuts["short"].as_array().unwrap().len(), 1);
    let lean = &cuts["cures"][0];
    assert_eq!(
        (&lean["text"], &lean["still_short"]),
        (&json!("Cut lean in place of whole"), &json!(0))
    );
    assert_eq!(lean["patch"]["pieces"]["s1"]["0"]["cut"], "lean");
    // At a glance nothing is cured: a better plan is on its way.
    let mut glance = ask;
    glance["at_a_glance"] = json!(true);
    let cuts = wren.post("/api/cut/planned", &glance).await.1;
    assert_eq!(cuts["cures"], json!([]));
}
