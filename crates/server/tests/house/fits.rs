//! Fits that follow a hand, changes to blocks, and backs of pages.

use crate::support::{Guest, Server, change, id};
use metrosk_testkit::fit_of;
use reqwest::StatusCode;
use serde_json::{Value, json};

/// The plan's fit of a new page from the drawer's first sketch, and the page's id.
async fn started(server: &Guest) -> (Value, String) {
    let tide = server.get("/api/sketches").await.1[0].clone();
    let (status, page) = server
        .post(
            "/api/pages",
            &json!({"sketch": tide["id"], "name": "Front"}),
        )
        .await;
    assert_eq!(status, StatusCode::CREATED);
    (fit_of(&page), id(&page))
}

#[tokio::test]
async fn a_fit_is_made_again_with_its_choices_while_a_block_moves() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let (mut fit, _) = started(&server).await;
    fit["target"]["pages"] = json!(2);
    let found = server.post("/api/fit", &fit).await.1;
    let best = &found["proposals"][0];
    fit["approach"] = best["approach"].clone();
    for at in [13.0, 13.5, 14.0] {
        fit["pins"] = json!([{"block": "t1", "edge": "left", "at": at}]);
        let (status, again) = server
            .post(
                "/api/fit/again",
                &json!({"fit": fit, "choices": best["choices"]}),
            )
            .await;
        assert_eq!(status, StatusCode::OK);
        assert_eq!(
            again["proposals"].as_array().unwrap().len(),
            1,
            "one answer, by the way on screen"
        );
        let title = again["proposals"][0]["report"]["blocks"]
            .as_array()
            .unwrap()
            .iter()
            .find(|b| b["id"] == "t1")
            .unwrap();
        assert_eq!(title["here"]["x"].as_f64(), Some(at));
        assert!(
            title["why"]
                .as_array()
                .unwrap()
                .iter()
                .all(Value::is_string)
        );
    }
    let (status, wrong) = server
        .post(
            "/api/fit/again",
            &json!({"fit": fit, "choices": {"approach": "sideways"}}),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(wrong["findings"][0]["path"], "choices.approach", "{wrong}");
    assert_eq!(
        server.post("/api/fit/again", &json!({"fit": fit})).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[tokio::test]
async fn a_block_of_a_sketch_is_changed_or_told_why_not() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let (fit, _) = started(&server).await;
    let swap =
        json!({"sketch": fit["sketch"], "change": {"what": "swap", "block": "p1", "with": "p2"}});
    let (status, swapped) = server.post("/api/notation/change", &swap).await;
    assert_eq!(status, StatusCode::OK);
    let place = |sketch: &Value, id: &str| {
        sketch["blocks"]
            .as_array()
            .unwrap()
            .iter()
            .find(|b| b["id"] == id)
            .unwrap()["box"]
            .clone()
    };
    assert_eq!(place(&swapped, "p1"), place(&fit["sketch"], "p2"));
    let wrong =
        json!({"sketch": fit["sketch"], "change": {"what": "swap", "block": "p1", "with": "t1"}});
    let (status, told) = server.post("/api/notation/change", &wrong).await;
    assert_eq!(
        (status, &told["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("change.with")),
        "{told}"
    );
}

#[tokio::test]
async fn the_back_of_a_page_is_a_page_with_what_shows_through_held() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let (front, page) = started(&server).await;
    let tide = server.get("/api/sketches").await.1[0].clone();
    let body = json!({"sketch": tide["id"], "name": "Front, back", "back_of": page, "see_through": ["s1"]});
    let (status, back) = server.post("/api/pages", &body).await;
    assert_eq!(status, StatusCode::CREATED, "{back}");
    let fit = fit_of(&back);
    assert_eq!(fit["sketch"]["blocks"][0]["id"], "s1-through");
    assert_eq!(fit["pins"].as_array().unwrap().len(), 4);
    assert_eq!(fit["target"]["page"], front["target"]["page"]);
    let wrong = json!({"sketch": tide["id"], "back_of": page, "see_through": ["x9"]});
    let (status, told) = server.post("/api/pages", &wrong).await;
    assert_eq!(
        (status, &told["findings"][0]["found"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("x9")),
        "{told}"
    );
    let nobody = json!({"sketch": tide["id"], "back_of": tide["id"], "see_through": ["s1"]});
    assert_eq!(
        server.post("/api/pages", &nobody).await.0,
        StatusCode::NOT_FOUND
    );
}

#[tokio::test]
async fn choices_for_slots_and_room_are_kept_with_the_plan() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let (mut fit, page) = started(&server).await;
    fit["slots"] = json!([{"photos": ["p1"], "as": "focal", "small": 2, "along": "below"}]);
    fit["slack"] = json!({"gap": ["p2", "p3"]});
    fit["photos"] = json!({"count": 5});
    fit["pins"] =
        json!([{"block": "p2", "edge": "top", "at": 0, "to": {"block": "p1", "edge": "top"}}]);
    let path = format!("/api/pages/{page}/plan");
    let patch = json!({
        "fit": {"slots": fit["slots"], "slack": fit["slack"], "pins": fit["pins"]},
        "photos": {"photos": fit["photos"]},
    });
    let first = json!({"revision": 1});
    let (status, kept) = server
        .patch(&path, &change(&first, "fit", patch, "as she likes it"))
        .await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!(fit_of(&kept), fit);
    let patch = json!({"fit": {"slots": [{"photos": ["t1"], "as": "paper"}]}});
    let (status, told) = server
        .patch(&path, &change(&kept, "fit", patch, "not a photo"))
        .await;
    assert_eq!(
        (status, &told["findings"][0]["path"]),
        (
            StatusCode::UNPROCESSABLE_ENTITY,
            &json!("patch.fit.slots[0].photos")
        ),
        "{told}"
    );
}

#[tokio::test]
async fn prints_with_faces_and_choices_at_the_fold_are_kept_with_the_plan() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let (mut fit, page) = started(&server).await;
    let face = json!({"x": 0.5, "y": 0.25, "w": 0.25, "h": 0.25});
    fit["photos"] = json!([{"id": "f1", "w": 9, "h": 6, "faces": [face]}, {"id": "f2", "w": 4, "h": 4, "focal": true}, {"id": "f3", "w": 4, "h": 4}]);
    fit["target"]["pages"] = json!(2);
    fit["across_fold"] = json!(["photo"]);
    fit["at_fold"] = json!([{"block": "t1", "as": "each"}]);
    let path = format!("/api/pages/{page}/plan");
    let patch = json!({
        "fit": {"target": {"pages": 2}, "across_fold": fit["across_fold"], "at_fold": fit["at_fold"]},
        "photos": {"photos": fit["photos"]},
    });
    let first = json!({"revision": 1});
    let (status, kept) = server
        .patch(&path, &change(&first, "fit", patch, "my prints"))
        .await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!(fit_of(&kept), fit);
    let found = server.post("/api/fit", &fit).await.1;
    let stretch = found["proposals"]
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["approach"] == "stretch")
        .unwrap();
    let blocks = stretch["layout"]["blocks"].as_array().unwrap();
    let pages: Vec<_> = blocks
        .iter()
        .filter(|b| b["from"] == json!(["t1"]))
        .map(|b| b["page"].as_u64().unwrap())
        .collect();
    assert_eq!(pages, [0, 1], "the title stands on both pages");

    // What is settled of a photo at the fold goes back with the next request as it came.
    fit["approach"] = json!("stretch");
    let (status, again) = server
        .post(
            "/api/fit/again",
            &json!({"fit": fit, "choices": stretch["choices"]}),
        )
        .await;
    assert_eq!(
        (status, again["proposals"].as_array().unwrap().len()),
        (StatusCode::OK, 1),
        "{again}"
    );

    for (field, wrong, told_at) in [
        (
            "photos",
            json!([{"id": "f1", "w": 9, "h": 6, "faces": [{"x": 0.9, "y": 0, "w": 0.2, "h": 0.1}]}]),
            "patch.photos.photos[0].faces[0]",
        ),
        (
            "at_fold",
            json!([{"block": "s1", "as": "each"}]),
            "patch.fit.at_fold[0].block",
        ),
    ] {
        let section = if field == "photos" { "photos" } else { "fit" };
        let patch = json!({section: {field: wrong}});
        let (status, told) = server
            .patch(&path, &change(&kept, section, patch, "broken"))
            .await;
        assert_eq!(
            (status, &told["findings"][0]["path"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &json!(told_at)),
            "{told}"
        );
    }
}

#[tokio::test]
async fn a_title_across_the_fold_is_kept_with_its_words_or_told_why_not() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let with = |choice: Value| {
        let patch = json!({"fit": {"at_fold": [choice]}});
        change(&page, "fit", patch, "the title runs across")
    };
    for (choice, found) in [
        (
            json!({"block": "t1", "as": "across", "words": "Kites"}),
            "patch.fit.at_fold[0].words",
        ),
        (
            json!({"block": "t1", "as": "across"}),
            "patch.fit.at_fold[0].words",
        ),
        (
            json!({"block": "j1", "as": "across", "words": "Two words"}),
            "patch.fit.at_fold[0].as",
        ),
    ] {
        let (status, problem) = wren
            .patch(&format!("{path}/plan"), &with(choice.clone()))
            .await;
        assert_eq!(
            (status, &problem["findings"][0]["path"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &json!(found)),
            "{choice}: {problem}"
        );
    }
    let choice = json!({"block": "t1", "as": "across", "words": "Kites over the flats"});
    let (status, written) = wren
        .patch(&format!("{path}/plan"), &with(choice.clone()))
        .await;
    assert_eq!(
        (status, &written["plan"]["fit"]["at_fold"]),
        (StatusCode::OK, &json!([choice])),
        "{written}"
    );
    let (_, layout) = wren.get(&format!("{path}/layout")).await;
    let parts: Vec<&Value> = layout["blocks"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|b| b["from"] == json!(["t1"]))
        .map(|b| &b["page"])
        .collect();
    assert_eq!(parts, [0, 1], "{layout}");
}
