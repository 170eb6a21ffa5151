//! Everything of a server goes into one archive and comes back onto an empty one, row by row the same.

use crate::gallery;
use crate::machine::{self, sent_to_machine};
use crate::printing::{ended, sent_to_printer};
use crate::support::{Events, Server};
use metrosk_server::{Settings, backup};
use sqlx::PgPool;

/// All rows of a table as text, in one order.
async fn rows(database_url: &str, table: &str) -> Vec<String> {
    let pool = PgPool::connect(database_url).await.unwrap();
    let sql = format!("SELECT row_to_json(t)::text FROM {table} t ORDER BY 1");
    sqlx::query_scalar(sqlx::AssertSqlSafe(sql))
        .fetch_all(&pool)
        .await
        .unwrap()
}

#[tokio::test]
async fn a_server_is_backed_up_and_restored() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let picture = wren.get("/api/pictures").await.1[0]["id"]
        .as_str()
        .unwrap()
        .to_owned();
    let lift = wren
        .post(
            &format!("/api/pictures/{picture}/lift"),
            &serde_json::json!({"width": "12", "height": "12"}),
        )
        .await;
    assert_eq!(lift.0, 200, "{}", lift.1);
    wren.post("/api/team/invites", &serde_json::json!({"role": "guest"}))
        .await;
    wren.post("/api/feed", &serde_json::Value::Null).await;
    wren.request(
        reqwest::Method::GET,
        &format!("/api/pictures/{picture}/screen-480"),
    )
    .send()
    .await
    .unwrap();
    let mut events = Events::of(&wren, None).await;
    let order = sent_to_printer(&wren).await;
    ended(&wren, &mut events, &order).await;
    // A finished page has taken something out of the stash.
    let kites = format!(
        "/api/pages/{}",
        wren.kites().await["id"].as_str().unwrap_or_default()
    );
    let copy = wren
        .post(&format!("{kites}/copy"), &serde_json::json!({}))
        .await
        .1;
    let done = serde_json::json!({"details_revision": copy["details_revision"], "finished": true});
    let path = format!("/api/pages/{}", copy["id"].as_str().unwrap());
    assert_eq!(wren.put(&path, &done).await.0, 200);
    let entry = gallery::entered(&wren).await;
    gallery::settled(&wren, &mut events, &entry).await;
    let to_cut = sent_to_machine(&wren).await;
    machine::ended(&wren, &mut events, &to_cut).await;
    wren.put(
        "/api/cutting-machine",
        &wren.get("/api/cutting-machine").await.1,
    )
    .await;
    let page = wren.kites().await;
    let name = serde_json::json!({"revision": 1, "name": "the first"});
    wren.post(
        &format!("/api/pages/{}/versions", page["id"].as_str().unwrap()),
        &name,
    )
    .await;
    let file = std::path::Path::new(env!("CARGO_TARGET_TMPDIR"))
        .join(format!("backup-{}.zip", std::process::id()));
    let _ = std::fs::remove_file(&file);
    let counts = backup::backup(&house.app, &file).await.unwrap();
    assert!(
        counts.iter().all(|(table, n)| *n > 0 || table == "nothing"),
        "{counts:?}"
    );
    assert!(
        backup::backup(&house.app, &file).await.is_err(),
        "a file that exists is left alone"
    );

    let empty = Server::empty(Settings::default()).await;
    assert_eq!(backup::restore(&empty.app, &file).await.unwrap(), counts);
    let (here, there) = (house.as_wren().await, empty.as_wren().await);
    let thumb = format!("/api/pictures/{picture}/thumb");
    assert_eq!(
        there.get(&thumb).await,
        here.get(&thumb).await,
        "pictures come along, pixels and all"
    );
    for (table, count) in counts.iter().filter(|(table, _)| table != "files") {
        let (before, after) = (
            rows(&house.database.url, table).await,
            rows(&empty.database.url, table).await,
        );
        assert_eq!(before.len(), *count);
        assert_eq!(before, after, "{table}");
    }
    // It lives: she signs in with her own password and finds her page.
    let wren = empty.as_wren().await;
    assert_eq!(wren.kites().await["plan"], page["plan"]);
    let twice = backup::restore(&empty.app, &file)
        .await
        .unwrap_err()
        .to_string();
    assert!(twice.contains("not empty"), "{twice}");
    std::fs::write(&file, "no archive").unwrap();
    let none = Server::empty(Settings::default()).await;
    assert!(backup::restore(&none.app, &file).await.is_err());
    std::fs::remove_file(&file).unwrap();
}
