//! The drawer, pages and the fit.

use crate::support::{Server, change, id};
use metrosk_testkit::fit_of;
use reqwest::StatusCode;
use serde_json::{Value, json};

#[tokio::test]
async fn the_drawer_holds_the_demo_with_what_was_read() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let (status, sketches) = server.get("/api/sketches").await;
    assert_eq!(status, StatusCode::OK);
    let tide = &sketches[0];
    assert_eq!(tide["name"], "Three by the tide line");
    assert_eq!(tide["reading"]["photo_slots"], 3);
    assert!(
        tide["reading"]["frames"]
            .as_array()
            .unwrap()
            .contains(&json!(["m1", "p1"]))
    );
    assert!(tide["reading"]["lines"].as_array().unwrap().len() > 5);
    assert_eq!(sketches.as_array().unwrap().len(), metrosk_demo_count());
    let (status, one) = server.get(&format!("/api/sketches/{}", id(tide))).await;
    assert_eq!((status, &one), (StatusCode::OK, tide));
    let (_, found) = server.get("/api/sketches?search=plover%20LANTERN").await;
    assert_eq!(found.as_array().unwrap().len(), 1, "{found}");
    assert_eq!(server.get("/api/sketches?search=oven").await.1, json!([]));
    let suiting = server.get("/api/sketches?photos=4&upright=2").await.1;
    assert_eq!(
        (&suiting[0]["name"], &suiting[0]["changes"]),
        (&json!("Low sun, both pages"), &json!(0))
    );
    assert_eq!(one["changes"], Value::Null);
}

/// As many sketches as the demo makes; asked of the demo, so that a shorter answer is noticed.
fn metrosk_demo_count() -> usize {
    metrosk_demo::sketches(metrosk_demo::SEED).len()
}

#[tokio::test]
async fn a_sketch_of_her_own_goes_in_with_its_unknown_fields() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let document = json!({
        "format": "metrosk-sketch/1", "unit": "mm", "name": "My own", "season": "winter", "canvas": {"page": {"w": 210, "h": 297}, "pages": 1},
        "blocks": [{"id": "p1", "kind": "photo", "box": {"x": 20, "y": 20, "w": 100, "h": 150}, "mood": "calm"}],
    });
    let (status, added) = server.post("/api/sketches", &document).await;
    assert_eq!(status, StatusCode::CREATED);
    assert_eq!(added["document"]["season"], "winter");
    assert_eq!(added["document"]["blocks"][0]["mood"], "calm");
    let (status, page) = server
        .post(
            "/api/pages",
            &json!({"sketch": added["id"], "name": "A page", "due": "2026-12-24"}),
        )
        .await;
    assert_eq!(page["due"], "2026-12-24");
    assert_eq!(status, StatusCode::CREATED);
    assert_eq!(
        (
            &page["revision"],
            &page["plan"]["unit"],
            &page["plan"]["fit"]["snap"]
        ),
        (&json!(1), &json!("mm"), &json!(1))
    );
}

#[tokio::test]
async fn a_sketch_is_typed_by_number_and_written_over() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let wrong = server
        .post("/api/notation", &json!({"text": "photo 4x6 ta 3, 2"}))
        .await
        .1;
    assert_eq!(
        (
            &wrong["document"],
            &wrong["errors"][0]["column"],
            &wrong["errors"][0]["found"]
        ),
        (&Value::Null, &json!(11), &json!("“ta”"))
    );
    let tide = server.get("/api/sketches").await.1[0].clone();
    let path = format!("/api/sketches/{}", id(&tide));
    let lines = server.get(&format!("{path}/notation")).await.1;
    let text = lines.as_str().unwrap().to_owned() + "accent 1x1 in the middle\n";
    let read = server
        .post(
            "/api/notation",
            &json!({"text": text, "over": tide["document"]}),
        )
        .await
        .1;
    assert_eq!(
        read["document"]["origin"], tide["document"]["origin"],
        "what the lines do not speak of is kept"
    );
    assert_eq!(read["document"]["blocks"].as_array().unwrap().len(), 12);
    let (status, written) = server.write_sketch(&path, &read["document"]).await;
    assert_eq!(
        (status, &written["document"]["blocks"][11]["kind"]),
        (StatusCode::OK, &json!("accent"))
    );
    let loop_of_mats = "mat m1 2x2 at 1, 1 around m2\nmat m2 3x3 at 1, 1 around m1";
    let read = server
        .post("/api/notation", &json!({"text": loop_of_mats}))
        .await
        .1;
    assert!(
        read["document"].is_null() || read["errors"].as_array().unwrap().is_empty(),
        "{read}"
    );
}

#[tokio::test]
async fn a_broken_sketch_is_answered_with_every_finding() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let broken = json!({"format": "metrosk-sketch/1", "unit": "ell", "name": "x", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [{"id": "p1", "kind": "photo", "box": {"x": 0, "y": 0, "w": 0, "h": 1}}]});
    let (status, problem) = server.post("/api/sketches", &broken).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let paths: Vec<&str> = problem["findings"]
        .as_array()
        .unwrap()
        .iter()
        .map(|f| f["path"].as_str().unwrap())
        .collect();
    assert_eq!(paths, ["unit", "blocks[0].box.w"]);
    assert_eq!(problem["status"], 422);
    assert_eq!(
        server
            .get("/api/sketches")
            .await
            .1
            .as_array()
            .unwrap()
            .len(),
        metrosk_demo_count(),
        "nothing half-imported"
    );
}

#[tokio::test]
async fn what_is_no_json_is_a_problem_too() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    for body in ["{", "", "[1,", "\u{0}"] {
        let request = server
            .client
            .post(format!("{}/api/fit", server.address))
            .header("content-type", "application/json")
            .body(body);
        let response = request.send().await.unwrap();
        assert_eq!(
            response.status(),
            StatusCode::UNPROCESSABLE_ENTITY,
            "{body:?}"
        );
        assert_eq!(
            response.headers()["content-type"],
            "application/problem+json"
        );
    }
    let large = "x".repeat(3 * 1024 * 1024);
    let response = server
        .client
        .post(format!("{}/api/fit", server.address))
        .body(large)
        .send()
        .await
        .unwrap();
    assert_eq!(response.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn a_broken_plan_is_refused_by_path() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let page = server.kites().await;
    let path = format!("/api/pages/{}/plan", id(&page));
    for (station, patch, reason, wrong) in [
        ("fit", json!({"fit": {"snap": -1}}), "x", "patch.fit.snap"),
        ("fit", json!({"oven": {}}), "x", "patch"),
        ("fit", json!({"papers": 3}), "x", "patch.papers"),
        ("oven", json!({}), "x", "station"),
        ("fit", json!({}), "  ", "reason"),
    ] {
        let (status, problem) = server
            .patch(&path, &change(&page, station, patch, reason))
            .await;
        assert_eq!(
            (status, &problem["findings"][0]["path"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &json!(wrong)),
            "{problem}"
        );
    }
    assert_eq!(
        server.patch(&path, &json!({"patch": {}})).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(server.kites().await["revision"], page["revision"]);
}

#[tokio::test]
async fn the_fit_answers_with_proposals_or_a_conflict() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let mut fit = fit_of(&server.kites().await);
    let (status, answer) = server.post("/api/fit", &fit).await;
    assert_eq!(
        (status, &answer["format"]),
        (StatusCode::OK, &json!("metrosk-proposals/1"))
    );
    assert_eq!(answer["proposals"][0]["approach"], "stretch");
    fit["pins"] = json!([{"block": "p2", "edge": "left", "at": 3}, {"block": "p1", "edge": "right", "at": 8}]);
    let (status, answer) = server.post("/api/fit", &fit).await;
    assert_eq!(
        (status, &answer["conflict"]["pins"]),
        (StatusCode::OK, &json!([0, 1]))
    );
    fit["target"]["pages"] = json!(7);
    assert_eq!(
        server.post("/api/fit", &fit).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[tokio::test]
async fn the_layout_is_taken_away_as_a_file() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let page = server.kites().await;
    let path = format!("{}/api/pages/{}/layout", server.address, id(&page));
    let response = server.client.get(path).send().await.unwrap();
    assert_eq!(
        response.headers()["content-disposition"],
        "attachment; filename=\"kites-over-the-flats.metrosk.json\""
    );
    let layout: Value = response.json().await.unwrap();
    assert_eq!(layout["format"], "metrosk-layout/1");
    assert_eq!(
        layout["blocks"]
            .as_array()
            .unwrap()
            .iter()
            .filter(|b| b["kind"] == "photo")
            .count(),
        6
    );
}

#[tokio::test]
async fn what_is_not_there_is_missing() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let nobody = "00000000-0000-4000-8000-000000000000";
    for path in [
        format!("/api/sketches/{nobody}"),
        format!("/api/pages/{nobody}"),
        format!("/api/pages/{nobody}/revisions"),
        format!("/api/pages/{nobody}/layout"),
        "/api/nothing".to_owned(),
    ] {
        assert_eq!(server.get(&path).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    assert_eq!(
        server
            .post("/api/pages", &json!({"sketch": nobody}))
            .await
            .0,
        StatusCode::NOT_FOUND
    );
    let change = change(&json!({"revision": 1}), "fit", json!({}), "x");
    assert_eq!(
        server
            .patch(&format!("/api/pages/{nobody}/plan"), &change)
            .await
            .0,
        StatusCode::NOT_FOUND
    );
}

#[tokio::test]
async fn answers_carry_the_headers_that_keep_a_browser_safe() {
    let house = Server::start().await;
    let server = house.as_wren().await;
    let response = server
        .client
        .get(format!("{}/api/sketches", server.address))
        .send()
        .await
        .unwrap();
    let policy = response.headers()["content-security-policy"]
        .to_str()
        .unwrap();
    assert!(policy.contains("default-src 'self'") && !policy.contains("unsafe-eval"));
    assert_eq!(response.headers()["x-content-type-options"], "nosniff");
}

#[test]
fn the_committed_client_is_made_from_this_api() {
    let committed = include_str!("../../../../web/src/api/generated/openapi.json");
    assert!(
        committed == metrosk_server::openapi(),
        "stale: run script/api"
    );
}

#[tokio::test]
async fn a_copy_is_turned_and_flipped_as_asked() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let drawer = wren.get("/api/sketches").await.1;
    let named = |name: &str| {
        drawer
            .as_array()
            .unwrap()
            .iter()
            .find(|s| s["name"] == name)
            .unwrap()
            .clone()
    };
    let tea = named("Tea at the slipway");
    let (status, copy) = wren
        .post(
            &format!("/api/sketches/{}/copy?turn=90&flip=across", id(&tea)),
            &Value::Null,
        )
        .await;
    assert_eq!(status, StatusCode::CREATED, "{copy}");
    let page = |s: &Value| {
        [
            s["document"]["canvas"]["page"]["w"].as_f64(),
            s["document"]["canvas"]["page"]["h"].as_f64(),
        ]
    };
    assert_eq!(page(&copy), [page(&tea)[1], page(&tea)[0]]);
    assert_eq!(copy["name"], "Tea at the slipway, a copy");
    let spread = named("Low sun, both pages");
    for (query, path) in [
        ("turn=90", "turn"),
        ("turn=45", "turn"),
        ("flip=over", "flip"),
    ] {
        let (status, problem) = wren
            .post(
                &format!("/api/sketches/{}/copy?{query}", id(&spread)),
                &Value::Null,
            )
            .await;
        assert_eq!(
            (status, &problem["findings"][0]["path"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &Value::from(path)),
            "{problem}"
        );
    }
}
