//! A page's cuts and checks: planned from what it holds, kept once begun, and told for a layout.

use crate::stash::layout_of;
use crate::support::{Server, change, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

#[tokio::test]
async fn a_page_is_cut_from_what_it_holds_and_what_is_begun_stays() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = |cut: Value| json!({"page": id(&kites), "unit": "in", "papers": kites["plan"]["papers"], "cut": cut, "layout": layout});
    let (status, cuts) = wren.post("/api/cut/planned", &ask(json!({}))).await;
    assert_eq!(status, StatusCode::OK, "{cuts}");
    assert_eq!(cuts["short"], json!([]));
    let list = cuts["list"].as_array().unwrap();
    let state = |cuts: &Value, name: &str| {
        let all = cuts["list"].as_array().unwrap();
        all.iter().find(|l| l["name"] == name).unwrap()["state"].clone()
    };
    assert_eq!(state(&cuts, "ground-0"), "whole");
    assert_eq!(state(&cuts, "s1/0"), "to-cut");
    let sheet = cuts["sheets"].as_array().unwrap().iter().find(|s| {
        let pieces = s["pieces"].as_array().unwrap();
        pieces.iter().any(|p| p["name"] == "s1/0")
    });
    let mut begun = sheet.unwrap().clone();
    begun["done"] = begun["cuts"].as_array().unwrap().len().into();
    for derived in ["steps", "used"] {
        begun.as_object_mut().unwrap().remove(derived);
    }
    // It goes into the plan, and what follows counts on it.
    let write = change(&kites, "cut", json!({"cut": {"begun": [begun]}}), "cut");
    let path = format!("/api/pages/{}/plan", id(&kites));
    let (status, written) = wren.patch(&path, &write).await;
    assert_eq!(status, StatusCode::OK, "{written}");
    let kept = written["plan"]["cut"].clone();
    let (_, again) = wren.post("/api/cut/planned", &ask(kept)).await;
    assert_eq!(state(&again, "s1/0"), "cut");
    assert_eq!(again["list"].as_array().unwrap().len(), list.len());
    assert_eq!(again["outdated"], json!([]));

    let (status, problem) = wren
        .post("/api/cut/planned", &ask(json!({"begun": [{"item": "x"}]})))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "cut.begun[0].copy");
}

#[tokio::test]
async fn a_layout_is_checked_with_cures_and_a_broken_one_is_told() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let block = |id: &str, b: [f64; 4]| json!({"id": id, "from": [id], "kind": "photo", "page": 0, "box": {"x": b[0], "y": b[1], "w": b[2], "h": b[3]}});
    let blocks = [
        block("p1", [2.0, 2.0, 5.0, 3.0]),
        block("p2", [7.0, 2.0, 3.0, 5.0]),
        block("p3", [5.0, 7.0, 5.0, 3.0]),
        block("p4", [2.0, 5.0, 3.0, 5.0]),
    ];
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks});
    let (status, found) = wren
        .post("/api/layouts/checked", &json!({"layout": layout}))
        .await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["findings"][0]["what"], "trapped");
    assert!(!found["findings"][0]["cures"].as_array().unwrap().is_empty());
    let (status, problem) = wren
        .post("/api/layouts/checked", &json!({"layout": {"unit": "in"}}))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "layout.format");
}

#[tokio::test]
async fn sheets_are_taken_away_on_paper_and_for_a_machine() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.page("Kites over the flats").await;
    let taken = async |path: String| {
        let response = wren.request(Method::GET, &path).send().await.unwrap();
        assert_eq!(response.status(), StatusCode::OK);
        response.bytes().await.unwrap()
    };
    let pdf = taken(format!("/api/pages/{}/cut.pdf", id(&kites))).await;
    assert!(pdf.starts_with(b"%PDF"));
    let svg = taken(format!("/api/pages/{}/cut.svg", id(&kites))).await;
    let svg = String::from_utf8(svg.to_vec()).unwrap();
    assert!(
        svg.contains("class=\"cut\"") && svg.contains("data-paper=\"Tide waves, sheet 1\""),
        "{svg}"
    );
    // The strip as it is cut, in inches.
    assert!(
        svg.contains("width=\"12\" height=\"2.125\"")
            || svg.contains("width=\"2.125\" height=\"12\""),
        "{svg}"
    );
    // A page without papers has nothing to take away.
    let bare = wren.page("Tea at the slipway").await;
    let (status, problem) = wren.get(&format!("/api/pages/{}/cut.pdf", id(&bare))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
}
