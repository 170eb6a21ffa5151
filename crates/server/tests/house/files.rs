//! Files: kept once a team, counted, held to a quota, and thrown away when nothing uses them.

use crate::support::{Guest, Server, answer, id, serve};
use metrosk_demo::{SEED, Style, picture};
use metrosk_server::{App, Settings, sweep_files};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::time::Duration;

fn scan(seed: u64) -> Vec<u8> {
    let sketches = metrosk_demo::sketches(SEED);
    let sketch = &sketches[seed as usize % sketches.len()];
    metrosk_vision::jpeg(&picture(sketch, Style::Clean, seed), 88).unwrap()
}

async fn put_in(guest: &Guest, bytes: &[u8]) -> (StatusCode, Value) {
    let request = guest.request(Method::POST, "/api/pictures?name=x");
    answer(request.body(bytes.to_vec())).await
}

/// The rows of a house's files of a team that put something in: how many, and the uses of all.
async fn rows(house: &Server, team: &str) -> (i64, i64) {
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    let sql = "SELECT count(*), coalesce(sum(uses), 0)::bigint FROM files f JOIN teams t ON t.id = f.team_id WHERE t.name = $1";
    sqlx::query_as(sql)
        .bind(team)
        .fetch_one(&pool)
        .await
        .unwrap()
}

const NEIGHBOURS: &str = "Harbour Lamp Makers";

#[tokio::test]
async fn what_is_put_in_twice_is_kept_once_until_nothing_uses_it() {
    let house = Server::sharing_pictures().await;
    let sandpiper = house.as_person("sandpiper").await;
    let bytes = scan(7);
    let first = put_in(&sandpiper, &bytes).await.1;
    let second = put_in(&sandpiper, &bytes).await.1;
    assert_ne!(first["id"], second["id"]);
    assert_eq!(
        rows(&house, NEIGHBOURS).await,
        (3, 6),
        "three forms, two uses each"
    );
    let used = sandpiper.get("/api/limits").await.1["team_bytes_used"]
        .as_u64()
        .unwrap();
    assert!(used > 1000, "{used}");
    // Another team that puts the same in has its own: nobody learns what others have.
    let wren = house.as_wren().await;
    assert_eq!(put_in(&wren, &bytes).await.0, StatusCode::CREATED);
    assert_eq!(rows(&house, NEIGHBOURS).await, (3, 6));

    let path = |picture: &Value| format!("/api/pictures/{}", id(picture));
    assert_eq!(
        sandpiper.delete(&path(&first)).await.0,
        StatusCode::NO_CONTENT
    );
    sweep_files(&house.app, Duration::ZERO).await.unwrap();
    let thumb = format!("{}/thumb", path(&second));
    assert_eq!(
        sandpiper.get(&thumb).await.0,
        StatusCode::OK,
        "the other still uses it"
    );
    assert_eq!(
        sandpiper.delete(&path(&second)).await.0,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        sandpiper.delete(&path(&second)).await.0,
        StatusCode::NOT_FOUND
    );
    sweep_files(&house.app, Duration::from_secs(60))
        .await
        .unwrap();
    assert_eq!(
        rows(&house, NEIGHBOURS).await,
        (3, 0),
        "for a while it could be wanted back"
    );
    let swept = sweep_files(&house.app, Duration::ZERO).await.unwrap();
    assert_eq!((swept, rows(&house, NEIGHBOURS).await), (3, (0, 0)));
    // Put in again, it is all there again.
    let third = put_in(&sandpiper, &bytes).await.1;
    assert_eq!(
        sandpiper.get(&format!("{}/view", path(&third))).await.0,
        StatusCode::OK
    );
}

#[tokio::test]
async fn a_picture_that_a_sketch_came_from_stays() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let picture = put_in(&wren, &scan(9)).await.1;
    let path = format!("/api/pictures/{}", id(&picture));
    let lift = json!({"width": "12", "height": "12", "corners": "0,0,400,0,400,400,0,400"});
    let (status, lift) = wren.post(&format!("{path}/lift"), &lift).await;
    assert_eq!(status, StatusCode::OK, "{lift}");
    let sketch = wren.get("/api/sketches").await.1[0]["document"].clone();
    let source = format!("/api/sketches?picture={}&lift={}", id(&picture), id(&lift));
    assert_eq!(wren.post(&source, &sketch).await.0, StatusCode::CREATED);
    let (status, told) = wren.delete(&path).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(told["detail"].as_str().unwrap().contains("stays"), "{told}");
    assert_eq!(
        wren.get(&format!("/api/lifts/{}/page", id(&lift))).await.0,
        StatusCode::OK
    );
    let gull = house.as_person("gull").await;
    assert_eq!(gull.delete(&path).await.0, StatusCode::FORBIDDEN);
}

#[tokio::test]
async fn a_team_whose_space_is_full_is_told_how_full() {
    let house = Server::start().await;
    let small = Settings {
        team_bytes: 300_000,
        ..Settings::default()
    };
    let app = App::connect(&house.database.url, small).await.unwrap();
    let sandpiper = Guest {
        client: house.as_person("sandpiper").await.client,
        address: serve(app).await,
    };
    let mut kept = Vec::new();
    let told = loop {
        let (status, told) = put_in(&sandpiper, &scan(20 + kept.len() as u64)).await;
        if status != StatusCode::CREATED {
            assert_eq!(status, StatusCode::CONFLICT);
            break told;
        }
        kept.push(told);
        assert!(kept.len() < 20, "it never was full");
    };
    assert!(
        told["detail"].as_str().unwrap().contains("of 0.3 MB"),
        "{told}"
    );
    let limits = sandpiper.get("/api/limits").await.1;
    assert_eq!(limits["team_bytes"], 300_000);
    assert!(limits["team_bytes_used"].as_u64().unwrap() <= 300_000);
    let pictures = sandpiper.get("/api/pictures").await.1;
    assert_eq!(
        pictures.as_array().unwrap().len(),
        kept.len(),
        "nothing half done"
    );
}

#[tokio::test]
async fn an_object_without_a_row_is_swept() {
    let house = Server::sharing_pictures().await;
    let stray = house.picture_folder().join("files/nobody/original-0");
    std::fs::create_dir_all(stray.parent().unwrap()).unwrap();
    std::fs::write(&stray, [1, 2, 3]).unwrap();
    sweep_files(&house.app, Duration::from_secs(3600))
        .await
        .unwrap();
    assert!(stray.exists(), "it may be on its way");
    assert_eq!(sweep_files(&house.app, Duration::ZERO).await.unwrap(), 1);
    assert!(!stray.exists());
}
