//! A page's history: every change is there once, undo goes back beyond today, and of two writers both are kept.

use crate::support::{Guest, Server, answer, id, next_step, photos};
use metrosk_testkit::photo_count;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// How many photos the page's newest plan asks for.
async fn count(wren: &Guest, path: &str) -> Value {
    json!(photo_count(&wren.get(path).await.1))
}

#[tokio::test]
async fn a_changed_plan_is_a_new_revision_and_the_old_ones_stay() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let (status, saved) = wren
        .patch(&format!("{path}/plan"), &photos(&page, 4, "four photos"))
        .await;
    let next = page["revision"].as_i64().unwrap() + 1;
    assert_eq!(
        (status, &saved["revision"], &saved["reason"]),
        (StatusCode::OK, &json!(next), &json!("four photos"))
    );
    assert_eq!(
        (
            &saved["author"],
            &next_step(&saved, "fit", "undo"),
            &next_step(&saved, "fit", "redo")
        ),
        (&json!("Wren"), &json!("four photos"), &Value::Null)
    );
    assert_eq!(count(&wren, &path).await, 4);
    let history = wren.get(&format!("{path}/revisions")).await.1;
    let numbers: Vec<i64> = history
        .as_array()
        .unwrap()
        .iter()
        .map(|r| r["revision"].as_i64().unwrap())
        .collect();
    assert_eq!(numbers, (1..=next).rev().collect::<Vec<_>>());
    assert_eq!(
        history[(next - 1) as usize]["reason"],
        "started from the sketch"
    );
    let first = wren.get(&format!("{path}/revisions/1")).await.1;
    assert_eq!(first["plan"]["fit"]["target"]["pages"], 1);
}

#[tokio::test]
async fn undo_and_redo_walk_the_history_and_take_nothing_away() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let mut now = page.clone();
    for n in [4, 5] {
        now = wren
            .patch(
                &format!("{path}/plan"),
                &photos(&now, n, &format!("{n} photos")),
            )
            .await
            .1;
    }
    let step = async |what: &str, now: &Value| {
        wren.post(
            &format!("{path}/{what}"),
            &json!({"revision": now["revision"], "station": "fit"}),
        )
        .await
    };
    now = step("undo", &now).await.1;
    assert_eq!(
        (count(&wren, &path).await, &next_step(&now, "fit", "redo")),
        (json!(4), &json!("5 photos"))
    );
    now = step("undo", &now).await.1;
    assert_eq!(count(&wren, &path).await, 6);
    assert_eq!(
        (
            &next_step(&now, "fit", "undo"),
            &next_step(&now, "fit", "redo"),
            &now["reason"]
        ),
        (
            &json!("Fit settled"),
            &json!("4 photos"),
            &json!("undone: 4 photos")
        )
    );
    now = step("redo", &now).await.1;
    now = step("redo", &now).await.1;
    assert_eq!(
        (count(&wren, &path).await, &next_step(&now, "fit", "redo")),
        (json!(5), &Value::Null)
    );
    let (status, problem) = step("redo", &now).await;
    assert_eq!(
        (status, &problem["detail"]),
        (StatusCode::CONFLICT, &json!("There is nothing to redo."))
    );
    for _ in 0..8 {
        let (status, undone) = step("undo", &now).await;
        if status == StatusCode::CONFLICT {
            break;
        }
        now = undone;
    }
    assert_eq!(next_step(&now, "fit", "undo"), Value::Null);
    let first = wren.get(&format!("{path}/revisions/1")).await.1;
    assert_eq!(now["plan"]["fit"], first["plan"]["fit"], "all the way back");
    // A new change after undo: what was undone is still in the history, and redo has nothing.
    now = wren
        .patch(&format!("{path}/plan"), &photos(&now, 2, "2 photos"))
        .await
        .1;
    assert_eq!(next_step(&now, "fit", "redo"), Value::Null);
    let all = wren.get(&format!("{path}/revisions")).await.1;
    assert_eq!(
        all.as_array().unwrap().len() as i64,
        now["revision"].as_i64().unwrap()
    );
}

#[tokio::test]
async fn a_version_has_a_name_and_is_returned_to() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let revision = page["revision"].clone();
    let (status, _) = wren
        .post(
            &format!("{path}/versions"),
            &json!({"revision": revision, "name": "before the party"}),
        )
        .await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    let now = wren
        .patch(&format!("{path}/plan"), &photos(&page, 3, "three"))
        .await
        .1;
    let history = wren.get(&format!("{path}/revisions")).await.1;
    assert_eq!(history[1]["names"], json!(["before the party"]));
    let back = json!({"revision": now["revision"], "station": "fit", "to": revision});
    let (status, now) = wren.post(&format!("{path}/return"), &back).await;
    assert_eq!((status, &now["plan"]), (StatusCode::OK, &page["plan"]));
    assert_eq!(now["reason"], format!("returned to version {revision}"));
    let (status, _) = wren
        .delete(&format!("{path}/versions?name=before%20the%20party"))
        .await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    assert_eq!(
        wren.delete(&format!("{path}/versions?name=none")).await.0,
        StatusCode::NOT_FOUND
    );
    let nowhere = json!({"revision": now["revision"], "station": "fit", "to": 999});
    assert_eq!(
        wren.post(&format!("{path}/return"), &nowhere).await.0,
        StatusCode::NOT_FOUND
    );
    assert_eq!(
        wren.get(&path).await.1["revision"],
        now["revision"],
        "a step that failed left nothing behind"
    );
}

#[tokio::test]
async fn a_stale_write_gets_both_versions_and_changes_nothing() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let page = wren.kites().await;
    let path = format!("/api/pages/{}/plan", id(&page));
    assert_eq!(
        wren.patch(&path, &photos(&page, 4, "hers")).await.0,
        StatusCode::OK
    );
    let (status, problem) = teal.patch(&path, &photos(&page, 5, "the other's")).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!(problem["newest"]["plan"]["photos"]["photos"]["count"], 4);
    assert_eq!(problem["newest"]["author"], "Wren");
    assert_eq!(
        wren.kites().await["revision"].as_i64(),
        page["revision"].as_i64().map(|r| r + 1)
    );
}

#[tokio::test]
async fn a_retried_write_acts_once() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}/plan", id(&page));
    let write = |key: &str, body: Value| {
        wren.request(Method::PATCH, &path)
            .header("idempotency-key", key)
            .json(&body)
    };
    let (status, first) = answer(write("a", photos(&page, 4, "four"))).await;
    let (again, second) = answer(write("a", photos(&page, 4, "four"))).await;
    assert_eq!((status, again), (StatusCode::OK, StatusCode::OK));
    assert_eq!(first, second, "answered as it was the first time");
    assert_eq!(wren.kites().await["revision"], first["revision"]);
    // A write that failed has not been done: its key may be used again.
    assert_eq!(
        answer(write("b", photos(&page, 5, "late"))).await.0,
        StatusCode::CONFLICT
    );
    assert_eq!(
        answer(write("b", photos(&first, 5, "in time"))).await.0,
        StatusCode::OK
    );
    // A key belongs to one write.
    let copy = wren
        .request(Method::POST, &format!("/api/pages/{}/copy", id(&page)))
        .header("idempotency-key", "a");
    let (status, problem) = answer(copy).await;
    assert_eq!(
        (status, &problem["findings"][0]["path"]),
        (
            StatusCode::UNPROCESSABLE_ENTITY,
            &json!("header Idempotency-Key")
        )
    );
}

#[tokio::test]
async fn pages_started_with_one_key_at_once_are_one_page() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let sketch = wren.get("/api/sketches").await.1[0]["id"].clone();
    let before = wren.get("/api/pages").await.1.as_array().unwrap().len();
    let requests: Vec<_> = (0..10)
        .map(|_| {
            wren.request(Method::POST, "/api/pages")
                .header("idempotency-key", "k")
                .json(&json!({"sketch": sketch, "name": "Once"}))
        })
        .map(|r| tokio::spawn(answer(r)))
        .collect();
    let mut made = Vec::new();
    for request in requests {
        let (status, page) = request.await.unwrap();
        assert_eq!(status, StatusCode::CREATED);
        made.push(id(&page));
    }
    made.dedup();
    assert_eq!(made.len(), 1);
    assert_eq!(
        wren.get("/api/pages").await.1.as_array().unwrap().len(),
        before + 1
    );
}

/// Fifty people write one page, each until her change is in: all are in the history, none twice.
#[tokio::test]
async fn of_fifty_writers_every_accepted_change_is_in_the_history_once() {
    const WRITERS: usize = 50;
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let write = async |n: usize,
                       client: reqwest::Client,
                       address: String,
                       path: String,
                       mut page: Value|
           -> usize {
        for tries in 1..=500 {
            let key = format!("writer {n}, from {}", page["revision"]);
            let request = client
                .patch(format!("{address}{path}/plan"))
                .header("idempotency-key", key);
            let (status, told) =
                answer(request.json(&photos(&page, n as u32 % 6 + 1, &format!("writer {n}"))))
                    .await;
            match status {
                StatusCode::OK => return tries,
                StatusCode::CONFLICT => page = told["newest"].clone(),
                other => panic!("{other}: {told}"),
            }
        }
        panic!("writer {n} was never let in")
    };
    let writers: Vec<_> = (0..WRITERS)
        .map(|n| {
            tokio::spawn(write(
                n,
                wren.client.clone(),
                wren.address.clone(),
                path.clone(),
                page.clone(),
            ))
        })
        .collect();
    let mut tries = 0;
    for writer in writers {
        tries += writer.await.unwrap();
    }
    assert!(tries > WRITERS, "they did get in each other's way");
    let history = wren.get(&format!("{path}/revisions")).await.1;
    let mut reasons: Vec<String> = (history
        .as_array()
        .unwrap()
        .iter()
        .map(|r| r["reason"].as_str().unwrap().to_owned()))
    .collect();
    reasons.retain(|r| r.starts_with("writer "));
    reasons.sort();
    let mut expected: Vec<String> = (0..WRITERS).map(|n| format!("writer {n}")).collect();
    expected.sort();
    assert_eq!(reasons, expected);
    assert_eq!(
        wren.get(&path).await.1["revision"].as_i64(),
        page["revision"].as_i64().map(|r| r + WRITERS as i64)
    );
}

#[tokio::test]
async fn pages_are_renamed_copied_finished_put_away_and_taken_out() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let (_, changed) = wren
        .change_page(&path, &json!({"name": "Kites at noon", "due": null}))
        .await;
    assert_eq!(
        (&changed["name"], &changed["due"]),
        (&json!("Kites at noon"), &Value::Null)
    );
    let (status, problem) = wren.change_page(&path, &json!({"due": "tomorrow"})).await;
    assert_eq!(
        (status, &problem["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("due"))
    );
    let (status, copy) = wren.post(&format!("{path}/copy"), &json!({})).await;
    assert_eq!(
        (status, &copy["name"], &copy["plan"]),
        (
            StatusCode::CREATED,
            &json!("Kites at noon, a copy"),
            &page["plan"]
        )
    );
    let on = async |shelf: &str| -> Vec<String> {
        let pages = wren.get(&format!("/api/pages?shelf={shelf}")).await.1;
        pages
            .as_array()
            .unwrap()
            .iter()
            .map(|p| p["name"].as_str().unwrap().to_owned())
            .collect()
    };
    wren.change_page(&path, &json!({"finished": true})).await;
    assert!(
        on("finished").await.contains(&"Kites at noon".to_owned())
            && !on("making").await.contains(&"Kites at noon".to_owned())
    );
    wren.change_page(&path, &json!({"archived": true})).await;
    assert_eq!(on("archived").await, ["Kites at noon"]);
    wren.change_page(&path, &json!({"archived": false, "finished": false}))
        .await;
    assert!(on("making").await.contains(&"Kites at noon".to_owned()));
    assert_eq!(
        wren.get("/api/pages?most=0").await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(
        wren.get("/api/pages?shelf=oven").await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}
