//! Long work and what is told of it: across servers, after a server is gone, and once it is cancelled.

use crate::support::{Events, Guest, Server, answer, change, id, photos};
use metrosk_demo::{SEED, Style, picture};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// A picture that takes a moment to read.
async fn photo(guest: &Guest) -> Value {
    let pixels = picture(&metrosk_demo::sketches(SEED)[0], Style::Phone, SEED);
    let bytes = metrosk_vision::jpeg(&pixels, 88).unwrap();
    let request = guest.request(Method::POST, "/api/pictures?name=x");
    answer(request.body(bytes)).await.1
}

async fn ask(guest: &Guest, picture: &Value) -> Value {
    let path = format!("/api/pictures/{}/reading?width=12&height=12", id(picture));
    let (status, job) = guest.post(&path, &Value::Null).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{job}");
    job
}

fn is_of(job: &Value, event: &Value, state: &str) -> bool {
    event["thing"] == job["id"] && event["state"] == state
}

#[tokio::test]
async fn a_change_is_heard_on_every_server_by_its_own_team() {
    let house = Server::sharing_pictures().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let there = Guest {
        client: teal.client.clone(),
        address: house.twin().await,
    };
    let mut heard = Events::of(&there, None).await;
    let mut neighbours = Events::of(&house.as_person("sandpiper").await, None).await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let saved = wren
        .patch(&format!("{path}/plan"), &photos(&page, 4, "four"))
        .await
        .1;
    let (first, event) = heard.until(|_, e| e["what"] == "page").await;
    assert_eq!(
        (&event["thing"], &event["revision"], &event["author"]),
        (&page["id"], &saved["revision"], &json!("Wren"))
    );
    heard
        .until(|_, e| e["what"] == "layout" && e["thing"] == page["id"])
        .await;
    wren.change_page(&path, &json!({"name": "Kites at noon"}))
        .await;
    heard.until(|_, e| e["what"] == "details").await;
    // Who was away hears of it from where she was.
    let mut later = Events::of(&there, Some(first - 1)).await;
    let (again, event) = later
        .until(|_, e| e["what"] == "page" && e["revision"] == saved["revision"])
        .await;
    assert_eq!((again, &event["thing"]), (first, &page["id"]));
    // The neighbours hear their own things only.
    let sandpiper = house.as_person("sandpiper").await;
    let own = sandpiper.get("/api/pages").await.1[0].clone();
    let path = format!("/api/pages/{}", id(&own));
    sandpiper
        .change_page(&path, &json!({"name": "Lamps"}))
        .await;
    let (_, event) = neighbours
        .until(|_, e| e["what"] == "details" || e["what"] == "page")
        .await;
    assert_eq!(event["thing"], own["id"]);
}

#[tokio::test]
async fn a_job_is_cancelled_on_whichever_server_it_runs() {
    let house = Server::sharing_pictures().await;
    let wren = house.as_wren().await;
    let there = Guest {
        client: wren.client.clone(),
        address: house.twin().await,
    };
    let mut heard = Events::of(&wren, None).await;
    let picture = photo(&wren).await;
    let job = ask(&wren, &picture).await;
    let path = format!("/api/jobs/{}", id(&job));
    assert_eq!(there.delete(&path).await.0, StatusCode::NO_CONTENT);
    heard.until(|_, e| is_of(&job, e, "cancelled")).await;
    let cancelled = wren.get(&path).await.1;
    assert_eq!(
        (&cancelled["state"], &cancelled["outcome"]),
        (&json!("cancelled"), &Value::Null)
    );
    // The next one runs: what was cancelled stands in nobody's way.
    let next = ask(&wren, &picture).await;
    heard.until(|_, e| is_of(&next, e, "done")).await;
    assert_eq!(wren.get(&path).await.1["state"], "cancelled");
    assert_eq!(
        there.delete(&path).await.0,
        StatusCode::NO_CONTENT,
        "cancelling twice is no fault"
    );
}

#[tokio::test]
async fn a_job_whose_server_is_gone_is_taken_over() {
    let house = Server::sharing_pictures().await;
    let wren = house.as_wren().await;
    let mut heard = Events::of(&wren, None).await;
    let picture = photo(&wren).await;
    let done = ask(&wren, &picture).await;
    heard.until(|_, e| is_of(&done, e, "done")).await;
    // As a server leaves it that was killed in the middle of it: begun, and its lease run out.
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    let left = "UPDATE jobs SET state = 'running', outcome = NULL, ended_at = NULL, lease = gen_random_uuid(), lease_until = now() - interval '1 s' WHERE id = $1::uuid";
    sqlx::query(left)
        .bind(id(&done))
        .execute(&pool)
        .await
        .unwrap();
    heard.until(|_, e| is_of(&done, e, "done")).await;
    let job = wren.get(&format!("/api/jobs/{}", id(&done))).await.1;
    assert_eq!(job["outcome"]["sketch"]["format"], "metrosk-sketch/1");
    // One that brings every server down with it is given up, and says so.
    let left = "UPDATE jobs SET state = 'running', tries = 3, outcome = NULL, ended_at = NULL, lease = gen_random_uuid(), lease_until = now() - interval '1 s' WHERE id = $1::uuid";
    sqlx::query(left)
        .bind(id(&done))
        .execute(&pool)
        .await
        .unwrap();
    heard.until(|_, e| is_of(&done, e, "failed")).await;
    let job = wren.get(&format!("/api/jobs/{}", id(&done))).await.1;
    assert_eq!(job["problem"]["status"], 500);
}

#[tokio::test]
async fn a_server_that_stops_puts_its_jobs_back() {
    let house = Server::sharing_pictures().await;
    let wren = house.as_wren().await;
    let mut heard = Events::of(&wren, None).await;
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    // Three jobs at once: the house's two workers have one each, the third waits for the server that comes.
    let picture = photo(&wren).await;
    let mut jobs = Vec::new();
    for _ in 0..3 {
        jobs.push(ask(&wren, &picture).await);
    }
    let other = house.other().await;
    let (stop, stopped) = tokio::sync::oneshot::channel::<()>();
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0").await.unwrap();
    let serving = tokio::spawn(metrosk_server::serve(listener, other, async {
        let _ = stopped.await;
    }));
    stop.send(()).unwrap();
    serving.await.unwrap().unwrap();
    for job in &jobs {
        let path = format!("/api/jobs/{}", id(job));
        if wren.get(&path).await.1["state"] != "done" {
            heard.until(|_, e| is_of(job, e, "done")).await;
        }
        assert_eq!(wren.get(&path).await.1["state"], "done");
    }
    let left: i64 =
        sqlx::query_scalar("SELECT count(*) FROM jobs WHERE kind = 'read' AND state <> 'done'")
            .fetch_one(&pool)
            .await
            .unwrap();
    assert_eq!(left, 0);
}

#[tokio::test]
async fn a_page_that_is_changed_fast_has_the_layout_of_its_newest_plan() {
    let house = Server::sharing_pictures().await;
    let wren = house.as_wren().await;
    let mut heard = Events::of(&wren, None).await;
    let mut page = wren.kites().await;
    let path = format!("/api/pages/{}/plan", id(&page));
    for n in [1, 2, 3, 4, 5] {
        page = wren.patch(&path, &photos(&page, n, "more")).await.1;
    }
    let newest = page["revision"].clone();
    heard
        .until(|_, e| e["what"] == "layout" && e["thing"] == page["id"] && e["revision"] == newest)
        .await;
    let card = async || {
        let pages = wren.get("/api/pages").await.1;
        let all = pages.as_array().unwrap().clone();
        all.into_iter().find(|p| p["id"] == page["id"]).unwrap()
    };
    let shown = card().await;
    let photos_in = |card: &Value| {
        let blocks = card["layout"]["blocks"].as_array().unwrap().clone();
        blocks.into_iter().filter(|b| b["kind"] == "photo").count()
    };
    assert_eq!((&shown["known"], photos_in(&shown)), (&json!(true), 5));
    // A plan that was fitted before is known at once.
    let body = change(
        &page,
        "words",
        json!({"words": {"title": "Low sun"}}),
        "a title",
    );
    wren.patch(&path, &body).await;
    assert_eq!(card().await["known"], true, "a title moves nothing");
}
