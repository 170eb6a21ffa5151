//! The drawer's own things: finding, tagging, putting away, archives, numbers, and the pages made from a sketch.

use crate::support::{Guest, Server, answer, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::io::{Cursor, Write};
use zip::write::SimpleFileOptions;

fn sketch(name: &str, blocks: Value) -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": name, "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
}

/// Two photos whose left edges nearly agree.
fn nearly() -> Value {
    sketch(
        "Nearly",
        json!([
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 1, "w": 4, "h": 3}},
            {"id": "p2", "kind": "photo", "box": {"x": 1.0625, "y": 5, "w": 4, "h": 3}},
            {"id": "t1", "kind": "title", "box": {"x": 6, "y": 9, "w": 5, "h": 1}},
        ]),
    )
}

async fn names(guest: &Guest, query: &str) -> Vec<String> {
    let (status, found) = guest.get(&format!("/api/sketches{query}")).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    found
        .as_array()
        .unwrap()
        .iter()
        .map(|s| s["name"].as_str().unwrap().to_owned())
        .collect()
}

fn paths(problem: &Value) -> Vec<&str> {
    problem["findings"]
        .as_array()
        .unwrap()
        .iter()
        .map(|f| f["path"].as_str().unwrap())
        .collect()
}

#[tokio::test]
async fn a_sketch_is_found_by_its_tags_its_note_and_its_maker() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut document = nearly();
    document["origin"] = json!({"how": "scraplift", "maker": "Sorrel", "note": "from the harbour wall", "after": ["Plover"]});
    let (_, added) = wren.post("/api/sketches", &document).await;
    let path = format!("/api/sketches/{}", id(&added));
    let (status, tagged) = wren
        .change_sketch(&path, &json!({"tags": ["Winter", "  kites ", "winter"]}))
        .await;
    assert_eq!(
        (status, &tagged["tags"]),
        (StatusCode::OK, &json!(["winter", "kites"]))
    );
    for query in [
        "?search=sorrel",
        "?search=HARBOUR%20wall",
        "?search=winter",
        "?search=scraplift%20plover",
    ] {
        assert!(
            names(&wren, query).await.contains(&"Nearly".to_owned()),
            "{query}"
        );
    }
    assert!(
        !names(&wren, "?search=sorrel%20summer")
            .await
            .contains(&"Nearly".to_owned()),
        "every word must be there"
    );
    // The document carries its tags, so that they go out with it.
    let (_, document) = wren.get(&format!("{path}/document")).await;
    assert_eq!(document["tags"], json!(["winter", "kites"]));
}

#[tokio::test]
async fn names_and_tags_that_cannot_be_are_told_and_change_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let before = wren.get("/api/sketches").await.1[0].clone();
    let path = format!("/api/sketches/{}", id(&before));
    let many: Vec<String> = (0..21).map(|n| format!("tag {n}")).collect();
    for (change, found) in [
        (json!({"name": "   "}), "name"),
        (json!({"name": "x".repeat(201)}), "name"),
        (json!({"name": "two\nlines"}), "name"),
        (json!({"tags": many}), "tags"),
        (json!({"tags": ["fine", "y".repeat(41)]}), "tags[1]"),
        (json!({"tags": ["fine", ""]}), "tags[1]"),
    ] {
        let (status, problem) = wren.change_sketch(&path, &change).await;
        assert_eq!(
            (status, paths(&problem)),
            (StatusCode::UNPROCESSABLE_ENTITY, vec![found]),
            "{change}"
        );
    }
    assert_eq!(wren.get(&path).await.1, before);
}

#[tokio::test]
async fn what_is_put_away_leaves_the_drawer_and_comes_back() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let all = names(&wren, "").await;
    let first = wren.get("/api/sketches").await.1[0].clone();
    let path = format!("/api/sketches/{}", id(&first));
    assert_eq!(
        wren.change_sketch(&path, &json!({"archived": true}))
            .await
            .1["archived"],
        true
    );
    assert_eq!(names(&wren, "").await, all[1..]);
    assert_eq!(names(&wren, "?archived=true").await, all[..1]);
    // A new name does not take it out again.
    assert_eq!(
        wren.change_sketch(&path, &json!({"name": "Kept for later"}))
            .await
            .1["archived"],
        true
    );
    assert_eq!(
        wren.change_sketch(&path, &json!({"archived": false}))
            .await
            .1["archived"],
        false
    );
    assert_eq!(names(&wren, "").await.len(), all.len());
}

#[tokio::test]
async fn the_pages_made_from_a_sketch_are_told_and_keep_their_own_copy() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, added) = wren.post("/api/sketches", &nearly()).await;
    let pages = format!("/api/sketches/{}/pages", id(&added));
    assert_eq!(wren.get(&pages).await, (StatusCode::OK, json!([])));
    for name in ["First", "Second"] {
        assert_eq!(
            wren.post("/api/pages", &json!({"sketch": added["id"], "name": name}))
                .await
                .0,
            StatusCode::CREATED
        );
    }
    let (_, made) = wren.get(&pages).await;
    let newest: Vec<&Value> = made
        .as_array()
        .unwrap()
        .iter()
        .map(|p| &p["name"])
        .collect();
    assert_eq!(newest, ["Second", "First"]);
    assert_eq!(
        wren.get(&format!("/api/sketches/{}", id(&added))).await.1["pages"],
        2
    );

    // Going on with the sketch leaves them as they are.
    let written = sketch(
        "Nearly",
        json!([{"id": "p1", "kind": "photo", "box": {"x": 2, "y": 2, "w": 8, "h": 8}}]),
    );
    let (status, _) = wren
        .write_sketch(&format!("/api/sketches/{}", id(&added)), &written)
        .await;
    assert_eq!(status, StatusCode::OK);
    let page = wren.get(&format!("/api/pages/{}", id(&made[0]))).await.1;
    assert_eq!(
        page["plan"]["sketch"]["sketch"]["blocks"]
            .as_array()
            .unwrap()
            .len(),
        3
    );
}

#[tokio::test]
async fn edges_that_nearly_agree_are_made_one() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, read) = wren.post("/api/notation/lines", &nearly()).await;
    let near = &read["reading"]["near"];
    assert!(
        near.as_array()
            .unwrap()
            .iter()
            .any(|n| n["along"] == "left" && n["blocks"] == json!(["p1", "p2"])),
        "{near}"
    );
    let (status, agreed) = wren
        .post(
            "/api/notation/agree",
            &json!({"sketch": nearly(), "along": "left", "blocks": ["p1", "p2"]}),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{agreed}");
    assert_eq!(
        agreed["blocks"][0]["box"]["x"],
        agreed["blocks"][1]["box"]["x"]
    );
    assert_eq!(
        agreed["blocks"][2],
        nearly()["blocks"][2],
        "nothing else moves"
    );
    for (asked, path) in [
        (
            json!({"sketch": nearly(), "along": "sideways", "blocks": ["p1", "p2"]}),
            "along",
        ),
        (
            json!({"sketch": nearly(), "along": "centre-x", "blocks": ["p1", "p2"]}),
            "along",
        ),
        (
            json!({"sketch": nearly(), "along": "top", "blocks": ["p1", "p2"]}),
            "blocks",
        ),
        (
            json!({"sketch": nearly(), "along": "left", "blocks": ["p1", "t9"]}),
            "blocks",
        ),
        (
            json!({"sketch": {"format": "metrosk-sketch/9"}, "along": "left", "blocks": ["p1"]}),
            "sketch.format",
        ),
    ] {
        let (status, problem) = wren.post("/api/notation/agree", &asked).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{asked}");
        assert!(paths(&problem).contains(&path), "{path}: {problem}");
    }
}

#[tokio::test]
async fn a_sketch_written_as_lines_reads_back_as_itself() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, sketches) = wren.get("/api/sketches").await;
    for kept in sketches.as_array().unwrap() {
        let (status, lines) = wren.post("/api/notation/lines", &kept["document"]).await;
        assert_eq!(status, StatusCode::OK);
        let (_, read) = wren
            .post(
                "/api/notation",
                &json!({"text": lines["text"], "over": kept["document"]}),
            )
            .await;
        assert_eq!(read["errors"], json!([]), "{}", kept["name"]);
        assert_eq!(
            read["document"]["blocks"], kept["document"]["blocks"],
            "{}",
            kept["name"]
        );
    }
    // Lines half typed still show what is understood so far.
    let (_, half) = wren
        .post(
            "/api/notation",
            &json!({"text": "photo p1 4x6 at 1, 1\nphoto p2 4x"}),
        )
        .await;
    assert!(
        half["document"].is_null() && half["errors"][0]["line"] == 2,
        "{half}"
    );
    assert_eq!(half["preview"]["blocks"].as_array().unwrap().len(), 1);
}

fn archive(files: &[(&str, &str)]) -> Vec<u8> {
    let mut archive = zip::ZipWriter::new(Cursor::new(Vec::new()));
    for (name, text) in files {
        archive
            .start_file(*name, SimpleFileOptions::default())
            .unwrap();
        archive.write_all(text.as_bytes()).unwrap();
    }
    archive.finish().unwrap().into_inner()
}

#[tokio::test]
async fn of_an_archive_with_one_broken_sketch_none_goes_in() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let before = names(&wren, "").await;
    let import = |bytes: Vec<u8>| {
        answer(
            wren.request(Method::POST, "/api/sketches/import")
                .body(bytes),
        )
    };
    let good = nearly().to_string();
    let bad = good.replace("\"photo\"", "\"poster\"");
    let (status, problem) = import(archive(&[
        ("good.metrosk.json", &good),
        ("bad.metrosk.json", &bad),
    ]))
    .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        paths(&problem)
            .iter()
            .all(|p| p.starts_with("bad.metrosk.json: blocks[")),
        "{problem}"
    );
    assert_eq!(names(&wren, "").await, before);
    // What is no sketch document is passed over, as long as there is one.
    let (status, added) = import(archive(&[
        ("read me.txt", "hello"),
        ("drawer/good.metrosk.json", &good),
    ]))
    .await;
    assert_eq!(
        (status, added.as_array().unwrap().len()),
        (StatusCode::CREATED, 1)
    );
    let (status, problem) = import(archive(&[("read me.txt", "hello")])).await;
    assert_eq!(
        (status, problem["findings"][0]["found"].as_str()),
        (
            StatusCode::UNPROCESSABLE_ENTITY,
            Some("an archive without sketch documents")
        )
    );
    // One file that unpacks to far more than it weighs.
    let (status, _) = import(archive(&[(
        "huge.metrosk.json",
        &" ".repeat(3 * 1024 * 1024),
    )]))
    .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn another_team_is_made_and_starts_with_an_empty_drawer() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, club) = wren.get("/api/team").await;
    for name in ["", "a\tb", &"x".repeat(201)] {
        let (status, problem) = wren.post("/api/teams", &json!({"name": name})).await;
        assert_eq!(
            (status, paths(&problem)),
            (StatusCode::UNPROCESSABLE_ENTITY, vec!["name"]),
            "{name:?}"
        );
    }
    let (status, me) = wren
        .post("/api/teams", &json!({"name": "Winter pair"}))
        .await;
    assert_eq!(
        (status, &me["team"]["name"]),
        (StatusCode::OK, &json!("Winter pair")),
        "{me}"
    );
    assert!(
        names(&wren, "").await.is_empty(),
        "the club's sketches stay with the club"
    );
    let (_, team) = wren.get("/api/team").await;
    assert_eq!(team["people"].as_array().unwrap().len(), 1);
    // She is still of the club, and goes back there.
    let (status, me) = wren
        .put("/api/session/team", &json!({"team": club["id"]}))
        .await;
    assert_eq!(
        (status, &me["team"]["name"]),
        (StatusCode::OK, &club["name"]),
        "{me}"
    );
    assert!(!names(&wren, "").await.is_empty());
}

#[tokio::test]
async fn who_may_only_look_changes_nothing_in_the_drawer() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, team) = wren.get("/api/team").await;
    let Some(guest) = team["people"]
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["role"] == "guest")
    else {
        panic!("the demo has a guest: {team}")
    };
    let looker = house.as_person(guest["account"].as_str().unwrap()).await;
    let first = looker.get("/api/sketches").await.1[0].clone();
    let path = format!("/api/sketches/{}", id(&first));
    assert_eq!(
        looker.put(&path, &json!({"name": "Mine now"})).await.0,
        StatusCode::FORBIDDEN
    );
    assert_eq!(
        looker.put(&format!("{path}/document"), &nearly()).await.0,
        StatusCode::FORBIDDEN
    );
    assert_eq!(
        looker.post("/api/sketches", &nearly()).await.0,
        StatusCode::FORBIDDEN
    );
    assert_eq!(
        looker.post(&format!("{path}/copy"), &json!({})).await.0,
        StatusCode::FORBIDDEN
    );
    assert_eq!(looker.get(&path).await.1["name"], first["name"]);
    // Looking, reading numbers and trying fits is free.
    assert_eq!(
        looker
            .post("/api/notation", &json!({"text": "photo 4x6 at 1, 1"}))
            .await
            .0,
        StatusCode::OK
    );
}
