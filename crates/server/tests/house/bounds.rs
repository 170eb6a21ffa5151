//! No work without a bound, and no false answer: each test is named after its mend.

use crate::support::{Server, answer};
use metrosk_server::{Settings, demo};
use metrosk_testkit::fit_of;
use reqwest::header::HeaderMap;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::time::Duration;

async fn demo_with(settings: Settings) -> Server {
    let server = Server::empty(Settings {
        demo: true,
        ..settings
    })
    .await;
    demo::load_once(&server.app).await.unwrap();
    server
}

#[tokio::test]
async fn probes_are_answered_when_everything_else_is_shed() {
    let house = demo_with(Settings {
        max_in_flight: 0,
        ..Settings::default()
    })
    .await;
    let stranger = house.stranger();
    let (status, problem) = stranger.get("/api/me").await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::SERVICE_UNAVAILABLE, &json!("busy"))
    );
    for probe in ["/healthz", "/readyz", "/metrics"] {
        assert_eq!(stranger.get(probe).await.0, StatusCode::OK, "{probe}");
    }
}

#[tokio::test]
async fn a_fit_that_takes_too_long_is_told_in_the_one_shape() {
    let house = demo_with(Settings {
        compute_timeout: Duration::from_nanos(1),
        ..Settings::default()
    })
    .await;
    let wren = house.as_wren().await;
    let fit = fit_of(&wren.kites().await);
    let (status, problem) = wren.post("/api/fit", &fit).await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("too-long"))
    );
}

#[tokio::test]
async fn ten_thousand_lines_by_number_are_told_at_the_first_that_is_too_many() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let text = "mat 1/8 around p9\n".repeat(10_000);
    let read = wren.post("/api/notation", &json!({"text": text})).await.1;
    assert_eq!(
        (
            &read["errors"][0]["line"],
            read["errors"].as_array().unwrap().len()
        ),
        (&json!(2001), 1)
    );
}

#[tokio::test]
async fn choices_of_another_request_are_told_with_their_place() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let fit = fit_of(&wren.kites().await);
    let choices = wren.post("/api/fit", &fit).await.1["proposals"][0]["choices"].clone();
    assert_eq!(
        wren.post("/api/fit/again", &json!({"fit": fit, "choices": choices}))
            .await
            .0,
        StatusCode::OK
    );
    for (field, value, path) in [
        ("lost", json!([0]), "choices.lost[0]"),
        (
            "lost",
            json!([{"wish": "line", "blocks": ["p1", "nobody"], "nth": 0}]),
            "choices.lost[0]",
        ),
        ("sides", json!({"nobody": "left"}), "choices.sides.nobody"),
    ] {
        let mut other = choices.clone();
        other[field] = value;
        let (status, problem) = wren
            .post("/api/fit/again", &json!({"fit": fit, "choices": other}))
            .await;
        assert_eq!(
            (status, &problem["findings"][0]["path"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &json!(path)),
            "{problem}"
        );
    }
}

#[tokio::test]
async fn a_hundred_guesses_at_once_are_as_many_as_one_after_the_other() {
    let house = Server::start().await;
    let guesses = (0..100).map(|n| {
        let stranger = house.stranger();
        tokio::spawn(async move {
            stranger
                .post(
                    "/api/session",
                    &json!({"account": "teal", "password": format!("guess {n}")}),
                )
                .await
                .0
        })
    });
    let mut looked_at = 0;
    for guess in guesses.collect::<Vec<_>>() {
        match guess.await.unwrap() {
            StatusCode::UNAUTHORIZED => looked_at += 1,
            other => assert_eq!(other, StatusCode::TOO_MANY_REQUESTS),
        }
    }
    assert_eq!(looked_at, 8);
}

#[tokio::test]
async fn who_signs_in_rightly_is_not_counted_as_a_guess() {
    let house = Server::start().await;
    for _ in 0..12 {
        house.as_person("teal").await;
    }
}

#[tokio::test]
async fn the_last_forwarded_line_is_believed() {
    let house = demo_with(Settings {
        behind_proxy: true,
        ..Settings::default()
    })
    .await;
    // Forty guesses from one address, each said to come through another one and of another account.
    let guess = async |n: usize, from: &str| {
        let mut headers = HeaderMap::new();
        headers.append(
            "x-forwarded-for",
            format!("198.51.100.{n}").parse().unwrap(),
        );
        headers.append(
            "x-forwarded-for",
            format!("10.0.0.{n}, {from}").parse().unwrap(),
        );
        let body = json!({"account": format!("nobody{n}"), "password": "some guess"});
        answer(
            house
                .stranger()
                .request(Method::POST, "/api/session")
                .headers(headers)
                .json(&body),
        )
        .await
        .0
    };
    for n in 0..40 {
        assert_eq!(guess(n, "203.0.113.7").await, StatusCode::UNAUTHORIZED);
    }
    assert_eq!(
        guess(41, "203.0.113.7").await,
        StatusCode::TOO_MANY_REQUESTS
    );
    assert_eq!(
        guess(42, "203.0.113.8").await,
        StatusCode::UNAUTHORIZED,
        "another house is not told to wait"
    );
}

#[tokio::test]
async fn a_session_ends_so_long_after_its_last_use() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    wren.get("/api/me").await;
    // As if all of that had been twenty-nine days ago.
    let aged = "UPDATE sessions SET expires_at = now() + interval '1 day', data = jsonb_set(data, '{prolonged_at}', to_jsonb(0))";
    sqlx::query(aged).execute(&pool).await.unwrap();
    // Another server has not seen the session yet, and asks the database.
    let wren = crate::support::Guest {
        address: house.twin().await,
        ..wren
    };
    let response = wren.request(Method::GET, "/api/me").send().await.unwrap();
    let cookie = response
        .headers()
        .get("set-cookie")
        .map(|c| c.to_str().unwrap().to_owned());
    assert!(
        cookie.is_some_and(|c| c.contains("Max-Age=2592000")),
        "the browser keeps it for thirty days from now"
    );
    let days: f64 = sqlx::query_scalar(
        "SELECT extract(epoch FROM expires_at - now())::float8 / 86400 FROM sessions",
    )
    .fetch_one(&pool)
    .await
    .unwrap();
    assert!(days > 29.9, "{days}");
    let again = wren.request(Method::GET, "/api/me").send().await.unwrap();
    assert!(
        again.headers().get("set-cookie").is_none(),
        "not with every request"
    );
}

#[tokio::test]
async fn a_missing_asset_is_not_kept_by_anybody() {
    let folder = std::path::Path::new(env!("CARGO_TARGET_TMPDIR"))
        .join(format!("front-end-{}", std::process::id()));
    std::fs::create_dir_all(folder.join("assets")).unwrap();
    std::fs::write(folder.join("assets/here.js"), "1").unwrap();
    std::fs::write(folder.join("index.html"), "<p>Here</p>").unwrap();
    let house = Server::empty(Settings {
        web: Some(folder.clone()),
        ..Settings::default()
    })
    .await;
    let of = async |path: &str| {
        let response = house
            .stranger()
            .request(Method::GET, path)
            .send()
            .await
            .unwrap();
        (
            response.status(),
            response
                .headers()
                .get("cache-control")
                .map(|c| c.to_str().unwrap().to_owned()),
        )
    };
    let (status, cache) = of("/assets/here.js").await;
    assert_eq!(
        (status, cache.as_deref()),
        (StatusCode::OK, Some("public, max-age=31536000, immutable"))
    );
    assert_eq!(of("/assets/gone.js").await, (StatusCode::NOT_FOUND, None));
    std::fs::remove_dir_all(folder).unwrap();
}

#[tokio::test]
async fn a_value_that_cannot_be_kept_is_not_a_lost_connection() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let sketch = wren.get("/api/sketches").await.1[0].clone();
    // A due date beyond PostgreSQL's own is no lost connection, which would be tried again for ever.
    let body = json!({"sketch": sketch["id"], "name": "Far away", "due": "9999-12-31"});
    let (status, answer) = wren.post("/api/pages", &body).await;
    assert!(
        status == StatusCode::CREATED || status == StatusCode::UNPROCESSABLE_ENTITY,
        "{status}: {answer}"
    );
    // A fault of the program is told as one: the table that the answer needs is not there.
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    sqlx::query("ALTER TABLE page_versions RENAME TO gone")
        .execute(&pool)
        .await
        .unwrap();
    let page = wren.kites().await;
    let (status, problem) = wren
        .get(&format!(
            "/api/pages/{}/versions",
            page["id"].as_str().unwrap()
        ))
        .await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::INTERNAL_SERVER_ERROR, &json!("internal"))
    );
}

#[tokio::test]
async fn layouts_of_an_older_engine_are_made_anew() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let known = async || {
        let pages = wren.get("/api/pages").await.1;
        pages
            .as_array()
            .unwrap()
            .iter()
            .filter(|p| p["known"] == true)
            .count()
            == pages.as_array().unwrap().len()
    };
    let until_known = async || {
        for _ in 0..400 {
            if known().await {
                return;
            }
            tokio::time::sleep(Duration::from_millis(25)).await;
        }
        panic!("the layouts were never made");
    };
    until_known().await;
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    let old = "UPDATE layouts SET engine = 0, layout = '{\"old\": true}'";
    sqlx::query(old).execute(&pool).await.unwrap();
    let pages: Value = wren.get("/api/pages").await.1;
    assert!(
        pages
            .as_array()
            .unwrap()
            .iter()
            .all(|p| p["layout"].get("old").is_none()),
        "what an older engine made is not shown"
    );
    until_known().await;
}
