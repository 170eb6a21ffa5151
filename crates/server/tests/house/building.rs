//! The order of making a page.

use crate::stash::layout_of;
use crate::support::{Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};

#[tokio::test]
async fn a_page_is_made_in_an_order_with_reasons_and_ticks_are_kept() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = |plan: &Value| json!({"plan": plan, "layout": layout});
    let (status, built) = wren.post("/api/build/ordered", &ask(&kites["plan"])).await;
    assert_eq!(status, StatusCode::OK, "{built}");
    assert_eq!(built["format"], "metrosk-build/1");
    let steps = built["steps"].as_array().unwrap();
    // Every block is fixed once, and each step comes after what it names.
    let mut fixed: Vec<&str> = steps
        .iter()
        .flat_map(|s| s["fixes"].as_array().unwrap())
        .filter_map(Value::as_str)
        .collect();
    fixed.sort_unstable();
    let mut blocks: Vec<&str> = layout["blocks"]
        .as_array()
        .unwrap()
        .iter()
        .filter_map(|b| b["id"].as_str())
        .collect();
    blocks.sort_unstable();
    assert_eq!(fixed, blocks);
    let place = |step: &Value| steps.iter().position(|s| s["id"] == *step).unwrap();
    for (n, step) in steps.iter().enumerate() {
        for reason in step["after"].as_array().unwrap() {
            assert!(place(&reason["step"]) < n, "{step}");
        }
    }
    // A tick goes into the plan and takes its time out of what is to come.
    let first = steps[0]["id"].clone();
    let write = change(&kites, "build", json!({"build": {"done": [first]}}), "done");
    let path = format!("/api/pages/{}/plan", id(&kites));
    let (status, ticked) = wren.patch(&path, &write).await;
    assert_eq!(status, StatusCode::OK, "{ticked}");
    let (_, again) = wren.post("/api/build/ordered", &ask(&ticked["plan"])).await;
    assert_eq!(again["steps"][0]["id"], first);
    assert!(again["end"].as_u64() < built["end"].as_u64());

    let mut wrong = kites["plan"].clone();
    wrong["build"] = json!({"school": "whenever"});
    let (status, problem) = wren.post("/api/build/ordered", &ask(&wrong)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "plan.build.school");
}

#[tokio::test]
async fn the_steps_of_a_page_go_on_paper() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}/steps.pdf", id(&page));
    let pdf = crate::photos::bytes(&wren, path).await;
    assert!(pdf.starts_with(b"%PDF"));
}
