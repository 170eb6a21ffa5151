//! A server of an earlier version comes back from its backup: its pages are as they were.
//!
//! `fixtures/backup-of-schema-4.zip` was written by the program that had plans of version 1: the demo without its pictures, one page of
//! which was turned, given prints, mirrored, named, undone and annotated.

use crate::support::{Guest, Server, change, id, next_step};
use metrosk_server::{App, Settings, backup};
use metrosk_testkit::{Database, fit_of};
use reqwest::StatusCode;
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::io::Read;
use std::path::Path;

fn archive() -> std::path::PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/fixtures/backup-of-schema-4.zip")
}

/// The rows of one of the archive's tables.
fn rows(table: &str) -> Vec<Value> {
    let mut zip = zip::ZipArchive::new(std::fs::File::open(archive()).unwrap()).unwrap();
    let mut text = String::new();
    zip.by_name(&format!("tables/{table}.jsonl"))
        .unwrap()
        .read_to_string(&mut text)
        .unwrap();
    text.lines()
        .map(|line| serde_json::from_str(line).unwrap())
        .collect()
}

/// What a plan asks of the fit, with whole numbers and decimals told alike.
fn asked(fit: &Value) -> String {
    let request = metrosk_core::fit::Request::from_json(fit).unwrap();
    format!("{request:?}")
}

async fn restored() -> (Server, Guest) {
    let database = Database::fresh().unwrap();
    let app = App::connect_as_is(&database.url, Settings::default())
        .await
        .unwrap();
    backup::restore(&app, &archive()).await.unwrap();
    let server = Server::of(app, database).await;
    let wren = server.as_wren().await;
    (server, wren)
}

#[tokio::test]
async fn plans_of_version_1_open_as_they_were() {
    let (_server, wren) = restored().await;
    let mut pages: BTreeMap<String, Vec<Value>> = BTreeMap::new();
    for row in rows("page_revisions") {
        let page = row["page_id"].as_str().unwrap().to_owned();
        pages.entry(page).or_default().push(row);
    }
    let mut found = 0;
    for (page, mut revisions) in pages {
        revisions.sort_by_key(|r| r["revision"].as_i64());
        let path = format!("/api/pages/{page}");
        let (status, now) = wren.get(&path).await;
        if status == StatusCode::NOT_FOUND {
            continue; // The neighbours' page.
        }
        let newest = revisions.last().unwrap();
        assert_eq!(now["revision"], newest["revision"]);
        assert_eq!(asked(&fit_of(&now)), asked(&newest["plan"]["fit"]));
        for (station, mark) in newest["plan"]["stations"].as_object().into_iter().flatten() {
            assert_eq!(now["plan"][station]["mark"], *mark, "{station}");
        }
        for revision in &revisions {
            let number = &revision["revision"];
            let then = wren.get(&format!("{path}/revisions/{number}")).await.1;
            assert_eq!(asked(&fit_of(&then)), asked(&revision["plan"]["fit"]));
            found += 1;
        }
    }
    assert!(found >= 25, "{found}");
}

#[tokio::test]
async fn undo_goes_back_into_what_an_earlier_version_did() {
    let (_server, wren) = restored().await;
    let mut page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    assert_eq!(
        page["plan"]["note"], "kept as it is",
        "what is not understood stays"
    );
    assert_eq!(page["plan"]["fit"]["weather"], "gale");
    assert_eq!(next_step(&page, "fit", "undo"), "a note");
    assert_eq!(next_step(&page, "fit", "redo"), "photos need a look");
    let step = async |page: &Value, way: &str| {
        let body = json!({"revision": page["revision"], "station": "fit"});
        wren.post(&format!("{path}/{way}"), &body).await
    };
    page = step(&page, "redo").await.1;
    assert_eq!(page["plan"]["photos"]["mark"], "needs-a-look");
    for undone in ["photos need a look", "a note", "my prints", "turned round"] {
        assert_eq!(next_step(&page, "fit", "undo"), undone);
        let (status, now) = step(&page, "undo").await;
        assert_eq!(status, StatusCode::OK, "{now}");
        page = now;
    }
    assert_eq!(page["plan"]["photos"]["photos"], json!({"count": 6}));
    assert_eq!(page["plan"]["sketch"]["turn"], Value::Null);
    // And it goes on from there.
    let body = change(
        &page,
        "fit",
        json!({"fit": {"snap": 0.25}}),
        "a coarser step",
    );
    let (status, page) = wren.patch(&format!("{path}/plan"), &body).await;
    assert_eq!(
        (status, &page["plan"]["fit"]["snap"]),
        (StatusCode::OK, &json!(0.25))
    );
    let versions = wren.get(&format!("{path}/versions")).await.1;
    assert_eq!(versions[0]["name"], "mirrored");
    let back =
        json!({"revision": page["revision"], "station": "fit", "to": versions[0]["revision"]});
    let page = wren.post(&format!("{path}/return"), &back).await.1;
    assert_eq!(page["plan"]["fit"]["approach"], "mirror");
}
