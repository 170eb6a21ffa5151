//! What keeps the house safe to live in: cross-site writes, limits, health, metrics, a database that goes away.

use crate::support::{Server, answer, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::io::{Cursor, Read};

#[tokio::test]
async fn a_write_from_another_site_is_refused() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let body = json!({"details_revision": 1, "name": "Taken over"});
    let rename = |header: &'static str, value: &str| {
        wren.request(Method::PUT, &format!("/api/pages/{}", id(&page)))
            .header(header, value)
            .json(&body)
    };
    for (header, value) in [
        ("sec-fetch-site", "cross-site"),
        ("sec-fetch-site", "same-site"),
        ("origin", "https://elsewhere.example"),
    ] {
        let (status, problem) = answer(rename(header, value)).await;
        assert_eq!(
            (status, &problem["type"]),
            (StatusCode::FORBIDDEN, &json!("not-allowed")),
            "{header}: {value}"
        );
    }
    assert_eq!(
        answer(rename("sec-fetch-site", "same-origin")).await.0,
        StatusCode::OK
    );
}

#[tokio::test]
async fn nobody_who_is_not_signed_in_sees_anything() {
    let house = Server::start().await;
    let stranger = house.stranger();
    let description: Value = serde_json::from_str(&metrosk_server::openapi()).unwrap();
    let open = [
        "/api/me",
        "/api/session",
        "/api/session/demo",
        "/api/links/{token}",
        "/api/password-links/{token}",
        "/api/calendar/{token}",
    ];
    let mut asked = 0;
    for (path, methods) in description["paths"].as_object().unwrap() {
        for method in methods
            .as_object()
            .unwrap()
            .keys()
            .filter(|_| !open.contains(&path.as_str()))
        {
            let path = path
                .replace("{id}", "00000000-0000-4000-8000-000000000000")
                .replace("{revision}", "1");
            let method: Method = method.to_uppercase().parse().unwrap();
            let (status, problem) = answer(stranger.request(method.clone(), &path)).await;
            assert_eq!(
                (status, &problem["type"]),
                (StatusCode::UNAUTHORIZED, &json!("signed-out")),
                "{method} {path}"
            );
            asked += 1;
        }
    }
    assert!(asked > 25, "{asked}");
    assert_eq!(stranger.get("/api/me").await.1["id"], Value::Null);
}

#[tokio::test]
async fn health_readiness_and_metrics_are_told() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    assert_eq!(
        wren.get("/healthz").await,
        (StatusCode::OK, Value::String("ok".to_owned()))
    );
    assert_eq!(wren.get("/readyz").await.0, StatusCode::OK);
    let page = wren.kites().await;
    let (status, metrics) = wren.get("/metrics").await;
    let metrics = metrics.as_str().unwrap();
    assert_eq!(status, StatusCode::OK);
    assert!(
        metrics.contains("metrosk_requests_total") && metrics.contains("route=\"/api/pages/{id}\""),
        "{metrics}"
    );
    assert!(
        !metrics.contains(&id(&page)) && !metrics.contains("Wren"),
        "no ids, no names"
    );
    let forwarded = wren
        .request(Method::GET, "/metrics")
        .header("x-forwarded-for", "203.0.113.9");
    assert_eq!(answer(forwarded).await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn every_failure_has_one_shape_and_a_request_id() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    for (method, path, status) in [
        (Method::GET, "/api/nothing", 404),
        (Method::POST, "/api/nothing", 404),
        (Method::PATCH, "/api/pages", 405),
        (Method::GET, "/api/pages/no-id", 404),
        (Method::GET, "/api/pages?most=many", 422),
        (Method::POST, "/api/fit", 422),
    ] {
        let response = wren.request(method.clone(), path).send().await.unwrap();
        assert_eq!(response.status().as_u16(), status, "{method} {path}");
        assert_eq!(
            response.headers()["content-type"],
            "application/problem+json",
            "{method} {path}"
        );
        assert!(
            response.headers().contains_key("x-request-id")
                && response.headers()["cache-control"] == "no-store"
        );
        let problem: Value = response.json().await.unwrap();
        assert_eq!(problem["status"], status);
    }
    let nul = wren.post("/api/sketches", &json!({"name": "\u{0}"})).await;
    assert_eq!(
        (nul.0, &nul.1["findings"][0]["found"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("a NUL character"))
    );
}

#[tokio::test]
async fn a_drawer_goes_out_as_an_archive_and_comes_in_all_or_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let drawer = wren
        .request(Method::GET, "/api/sketches/export")
        .send()
        .await
        .unwrap()
        .bytes()
        .await
        .unwrap();
    let before = wren.get("/api/sketches").await.1.as_array().unwrap().len();
    let import = |bytes: Vec<u8>| {
        wren.request(Method::POST, "/api/sketches/import")
            .body(bytes)
    };
    let (status, added) = answer(import(drawer.to_vec())).await;
    assert_eq!(
        (status, added.as_array().unwrap().len()),
        (StatusCode::CREATED, before)
    );
    assert_eq!(
        wren.get("/api/sketches").await.1.as_array().unwrap().len(),
        before * 2
    );
    let document = wren.get("/api/sketches").await.1[0]["document"].to_string();
    assert_eq!(
        answer(import(document.into_bytes())).await.0,
        StatusCode::CREATED
    );
    assert_eq!(
        answer(import(b"PK nothing".to_vec())).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(
        wren.get("/api/sketches").await.1.as_array().unwrap().len(),
        before * 2 + 1
    );
    let team = wren
        .request(Method::GET, "/api/team/export")
        .send()
        .await
        .unwrap()
        .bytes()
        .await
        .unwrap();
    let mut archive = zip::ZipArchive::new(Cursor::new(team)).unwrap();
    let mut text = String::new();
    archive
        .by_name("pages/kites-over-the-flats.metrosk.json")
        .unwrap()
        .read_to_string(&mut text)
        .unwrap();
    let page: Value = serde_json::from_str(&text).unwrap();
    assert_eq!(page["revisions"][0]["reason"], "started from the sketch");
}

#[tokio::test]
async fn the_page_is_taken_away_as_drawing_and_sheet() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let path = format!("/api/pages/{}", id(&wren.kites().await));
    let drawing = wren.get(&format!("{path}/drawing.svg")).await.1;
    let drawing = drawing.as_str().unwrap();
    assert!(
        drawing.contains("width=\"24in\" height=\"12in\"")
            && drawing.contains("<title>8 title</title>"),
        "{drawing}"
    );
    for paper in ["letter", "a4"] {
        let response = wren
            .request(Method::GET, &format!("{path}/sheet.pdf?paper={paper}"))
            .send()
            .await
            .unwrap();
        assert_eq!(response.headers()["content-type"], "application/pdf");
        assert!(response.bytes().await.unwrap().starts_with(b"%PDF-"));
        let sheet = wren
            .get(&format!("{path}/sheet.svg?paper={paper}&sheet=1"))
            .await
            .1;
        assert!(sheet.as_str().unwrap().contains("Kites over the flats"));
    }
    assert_eq!(
        wren.get(&format!("{path}/sheet.svg?sheet=99")).await.0,
        StatusCode::NOT_FOUND
    );
    let clash = wren.page("Noses in the wind").await;
    let (status, problem) = wren
        .get(&format!("/api/pages/{}/drawing.svg", id(&clash)))
        .await;
    assert_eq!(
        (status, &problem["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("plan.fit"))
    );
}

#[tokio::test]
async fn the_table_tells_layouts_clashes_and_the_next_decision() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    for _ in 0..100 {
        let pages = wren.get("/api/pages").await.1;
        if pages.as_array().unwrap().iter().all(|p| p["known"] == true) {
            let of = |name: &str| {
                pages
                    .as_array()
                    .unwrap()
                    .iter()
                    .find(|p| p["name"] == name)
                    .unwrap()
                    .clone()
            };
            let kites = of("Kites over the flats");
            assert_eq!(
                (&kites["layout"]["format"], &kites["next"]),
                (&json!("metrosk-layout/1"), &json!("choose the papers"))
            );
            let noses = of("Noses in the wind");
            assert_eq!(
                (&noses["layout"]["format"], &noses["stations"][3]["state"]),
                (&json!("metrosk-sketch/1"), &json!("needs-a-look"))
            );
            assert!(noses["next"].as_str().unwrap().contains("can't hold"));
            let due: Vec<&Value> = pages
                .as_array()
                .unwrap()
                .iter()
                .map(|p| &p["due"])
                .collect();
            assert!(
                due.last().unwrap().is_null()
                    && due
                        .windows(2)
                        .all(|w| w[1].is_null() || w[0].as_str() <= w[1].as_str()),
                "{due:?}"
            );
            return;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    panic!("the layouts were never made");
}
