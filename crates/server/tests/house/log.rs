//! A page's log over a season, and its pack: nothing private leaves unless she says so.

use crate::photos::bytes;
use crate::support::{Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};
use std::io::{Cursor, Read};
use zip::ZipArchive;

#[tokio::test]
async fn what_went_wrong_is_counted_over_the_season_and_suggests_a_tuck() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let path = format!("/api/pages/{}/log", id(&kites));
    let (status, log) = wren.get(&path).await;
    assert_eq!(status, StatusCode::OK, "{log}");
    assert_eq!(log["took"], 0);
    assert!(log["planned"].as_u64().unwrap() > 60, "{log}");
    assert_eq!(log["wrong"][0], json!({"what": "cut-short", "count": 3}));
    assert_eq!(log["suggestions"][0]["tuck"], 0.625, "{log}");
    assert!(
        log["pack"]["missing"]
            .as_array()
            .unwrap()
            .contains(&json!("a close-up"))
    );
    assert!(
        log["pack"]["supplies"]
            .as_array()
            .unwrap()
            .iter()
            .any(|s| s["name"] == "Tide waves")
    );

    // A clock that is wrong is told; what is written is kept.
    let entry = json!({"id": "e1", "at": "2126-11-26T20:31:00Z", "kind": "wrong", "wrong": "blot", "text": "A drop."});
    let write = change(
        &kites,
        "log",
        json!({"log": {"entries": [entry]}}),
        "written",
    );
    let (status, page) = wren
        .patch(&format!("/api/pages/{}/plan", id(&kites)), &write)
        .await;
    assert_eq!(status, StatusCode::OK, "{page}");
    let (_, log) = wren.get(&path).await;
    assert_eq!(
        (log["ahead"].clone(), log["days"][0]["day"].clone()),
        (json!(["e1"]), json!("2126-11-26"))
    );
    assert!(
        log["wrong"]
            .as_array()
            .unwrap()
            .contains(&json!({"what": "blot", "count": 2}))
    );
    let wrong = json!({"id": "e2", "at": "soon", "kind": "note"});
    let write = change(
        &page,
        "log",
        json!({"log": {"entries": [wrong]}}),
        "written",
    );
    let (status, problem) = wren
        .patch(&format!("/api/pages/{}/plan", id(&kites)), &write)
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "patch.log.entries[0].at");
}

/// The files of a pack.
fn unpacked(zip: Vec<u8>) -> Vec<(String, Vec<u8>)> {
    let mut archive = ZipArchive::new(Cursor::new(zip)).unwrap();
    (0..archive.len())
        .map(|n| {
            let mut file = archive.by_index(n).unwrap();
            let mut bytes = Vec::new();
            file.read_to_end(&mut bytes).unwrap();
            (file.name().unwrap().into_owned(), bytes)
        })
        .collect()
}

fn said(files: &[(String, Vec<u8>)], text: &str) -> bool {
    let found = |bytes: &[u8]| bytes.windows(text.len()).any(|w| w == text.as_bytes());
    files
        .iter()
        .any(|(name, bytes)| name.contains(text) || found(bytes))
}

#[tokio::test]
async fn the_pack_has_all_of_the_page_and_nothing_private() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let path = format!("/api/pages/{}/plan", id(&kites));
    let writing = json!({"words": {"writing": {"text": "Pipit Harrier flew it at the slipway.", "names": "Pipit Harrier", "place": "the slipway", "date": "7 November"}}});
    let (status, page) = wren
        .patch(&path, &change(&kites, "words", writing, "written"))
        .await;
    assert_eq!(status, StatusCode::OK, "{page}");
    let pack = format!("/api/pages/{}/pack.zip", id(&kites));
    let files = unpacked(bytes(&wren, pack.clone()).await);
    let names: Vec<&str> = files.iter().map(|(n, _)| n.as_str()).collect();
    assert_eq!(
        names,
        [
            "page.md",
            "page.html",
            "page.txt",
            "measures.pdf",
            "sketch.metrosk.json",
            "steps.json"
        ]
    );
    assert!(
        said(&files, "Tide waves")
            && said(&files, "7 November")
            && said(&files, "Slipway Paper Club")
    );
    for private in ["Pipit", "Harrier", "the slipway."] {
        assert!(!said(&files, private), "{private} is in the pack");
    }
    let text = |name: &str| {
        let (_, bytes) = files.iter().find(|(n, _)| n == name).unwrap();
        String::from_utf8(bytes.clone()).unwrap()
    };
    let steps: Value = serde_json::from_str(&text("steps.json")).unwrap();
    assert!(steps["steps"].as_array().unwrap().len() > 10);
    assert!(
        !text("page.txt").contains("p1b"),
        "blocks go by their numbers"
    );

    // Unless she says so.
    let open = change(&page, "log", json!({"log": {"leave_out": []}}), "told");
    let (status, _) = wren.patch(&path, &open).await;
    assert_eq!(status, StatusCode::OK);
    assert!(said(&unpacked(bytes(&wren, pack).await), "Pipit Harrier"));
}

#[tokio::test]
async fn finished_pages_are_looked_back_on() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (status, back) = wren.get("/api/look-back").await;
    assert_eq!(status, StatusCode::OK, "{back}");
    let pages = back["pages"].as_array().unwrap();
    assert!(!pages.is_empty());
    for tally in ["months", "sketches", "makers"] {
        let counts = back[tally].as_array().unwrap().iter();
        let all: u64 = counts.map(|t| t["pages"].as_u64().unwrap()).sum();
        assert_eq!(all as usize, pages.len(), "{tally}");
    }
    let sandpiper = house.as_person("sandpiper").await;
    let theirs = sandpiper.get("/api/look-back").await.1;
    let own: Vec<&Value> = theirs["pages"].as_array().unwrap().iter().collect();
    assert!(own.iter().all(|p| pages.iter().all(|q| q["id"] != p["id"])));
}

#[tokio::test]
async fn a_page_becomes_a_sketch_to_give_away_folded_or_not() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.page("Kites over the flats").await;
    let path = format!("/api/pages/{}/sketch", id(&kites));
    for (folded, pages) in [(false, 2), (true, 1)] {
        let asked = json!({"name": "Kites to give away", "folded": folded});
        let (status, sketch) = wren.post(&path, &asked).await;
        assert_eq!(status, StatusCode::CREATED, "{sketch}");
        let path = format!("/api/sketches/{}/document", id(&sketch));
        let document = wren.get(&path).await.1;
        assert_eq!(document["canvas"]["pages"], pages);
        assert_eq!(document["name"], "Kites to give away");
        assert!(document["blocks"].as_array().unwrap().len() > 5);
        assert!(document["origin"].is_object(), "its credit goes with it");
    }
    let (status, problem) = wren.post(&path, &json!({"name": "  "})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
}
