//! Clusters and what is seen on a page: pieces are held for it, shared out, and what is wrong is told with its path.

use crate::stash::layout_of;
use crate::support::{Guest, Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};

async fn thing(guest: &Guest, name: &str) -> Value {
    let (_, stash) = guest.get("/api/stash").await;
    let items = stash["items"].as_array().unwrap();
    let found = items.iter().find(|i| i["item"]["name"] == name);
    found.unwrap_or_else(|| panic!("no {name}")).clone()
}

#[tokio::test]
async fn pieces_lie_in_their_clusters_and_are_held_for_the_page() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = |plan: &Value| json!({"page": id(&kites), "plan": plan, "layout": layout});
    let (status, laid) = wren.post("/api/clusters/laid", &ask(&kites["plan"])).await;
    assert_eq!(status, StatusCode::OK, "{laid}");
    let large = &laid["clusters"][0];
    assert_eq!(
        (
            large["of"].as_str(),
            large["pieces"].as_array().unwrap().len()
        ),
        (Some("c1"), 7)
    );
    let fixed: Vec<&str> = large["pieces"]
        .as_array()
        .unwrap()
        .iter()
        .filter_map(|p| p["fixed"].as_str())
        .collect();
    assert_eq!(fixed[0], "tape in the middle", "a doily");
    assert_eq!(fixed[3], "thin foam");
    assert_eq!(
        (laid["gone"].clone(), laid["short"].clone()),
        (json!([]), json!([]))
    );

    // Two leaves are held for the large cluster, one for the small one.
    let leaves = thing(&wren, "Leaves").await;
    assert_eq!(leaves["holds"][0]["held"], 3, "{leaves}");
    let path = format!("/api/pages/{}/plan", id(&kites));
    let none = json!({"clusters": {"clusters": {"c2": null}}});
    let (status, fewer) = wren
        .patch(&path, &change(&kites, "clusters", none, "taken out"))
        .await;
    assert_eq!(status, StatusCode::OK, "{fewer}");
    assert_eq!(thing(&wren, "Leaves").await["holds"][0]["held"], 2);
    let undo = json!({"revision": fewer["revision"], "station": "clusters"});
    let (status, _) = wren
        .post(&format!("/api/pages/{}/undo", id(&kites)), &undo)
        .await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(thing(&wren, "Leaves").await["holds"][0]["held"], 3);

    // More than there are, and something that is no longer there.
    let mut greedy = kites["plan"].clone();
    let star = thing(&wren, "Stars").await;
    let many: Vec<Value> = (0..5).map(|_| json!({"item": star["id"]})).collect();
    greedy["clusters"]["clusters"]["c2"]["0"]["pieces"] = many.into();
    greedy["clusters"]["clusters"]["c1"]["0"]["pieces"][0]["item"] =
        json!("00000000-0000-4000-a000-00000000ffff");
    let (_, laid) = wren.post("/api/clusters/laid", &ask(&greedy)).await;
    assert_eq!(
        laid["short"],
        json!([{"item": star["id"], "name": "Stars", "lacking": 2}])
    );
    assert_eq!(
        laid["gone"],
        json!(["00000000-0000-4000-a000-00000000ffff"])
    );
    assert_eq!(laid["clusters"][0]["pieces"].as_array().unwrap().len(), 6);

    greedy["clusters"]["clusters"]["c1"]["0"]["size"] = json!("vast");
    let (status, problem) = wren.post("/api/clusters/laid", &ask(&greedy)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        problem["findings"][0]["path"],
        "plan.clusters.clusters.c1.0.size"
    );
}

#[tokio::test]
async fn a_check_that_is_off_is_not_looked_for() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = |plan: &Value| json!({"page": id(&kites), "plan": plan, "layout": layout});
    let whats = |laid: &Value| -> Vec<String> {
        let all = laid["findings"].as_array().unwrap();
        all.iter()
            .map(|f| f["what"].as_str().unwrap().to_owned())
            .collect()
    };
    let (_, before) = wren.post("/api/clusters/laid", &ask(&kites["plan"])).await;
    assert!(whats(&before).contains(&"near".to_owned()), "{before}");
    let mut quiet = kites["plan"].clone();
    quiet["clusters"]["off"] = json!(["near"]);
    let (_, after) = wren.post("/api/clusters/laid", &ask(&quiet)).await;
    assert!(!whats(&after).contains(&"near".to_owned()), "{after}");
    assert!(!after["fine"].as_array().unwrap().contains(&json!("near")));
}

#[tokio::test]
async fn pieces_are_shared_out_over_the_clusters() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let (leaves, stars) = (thing(&wren, "Leaves").await, thing(&wren, "Stars").await);
    let ask = |things: Value| json!({"plan": kites["plan"], "layout": layout, "things": things});
    let things = json!([{"item": leaves["id"], "count": 5}, {"item": stars["id"], "count": 3}]);
    let (status, shared) = wren.post("/api/clusters/shared", &ask(things)).await;
    assert_eq!(status, StatusCode::OK, "{shared}");
    let count = |block: &str| {
        let parts = shared["clusters"][block].as_object().unwrap().values();
        parts
            .map(|p| p["pieces"].as_array().unwrap().len())
            .sum::<usize>()
    };
    assert_eq!(count("c1") + count("c2"), 8);
    assert!(
        count("c1") > count("c2"),
        "the large one gets more: {shared}"
    );
    for wrong in [json!([]), json!([{"item": leaves["id"], "count": 5000}])] {
        let (status, problem) = wren.post("/api/clusters/shared", &ask(wrong)).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(problem["findings"][0]["path"], "things");
    }
}
