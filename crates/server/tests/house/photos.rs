//! Photos over HTTP: kept once, what becomes of prints, and printing that loses nothing and prints nothing twice.

use crate::support::{Events, Guest, Server, answer, change, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// The demo's spread with its low sun, a file, in place of the far-off kites.
async fn with_a_file(guest: &Guest) -> Value {
    let page = guest.kites().await;
    let mut prints = page["plan"]["photos"]["photos"].clone();
    prints[5]["aside"] = json!(true);
    prints[7].as_object_mut().unwrap().remove("aside");
    let patch = json!({"photos": {"photos": prints}});
    let path = format!("/api/pages/{}/plan", id(&page));
    let (status, saved) = guest
        .patch(&path, &change(&page, "photos", patch, "low sun"))
        .await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    saved
}

/// An order for the demo's file.
pub(crate) async fn sent_to_printer(guest: &Guest) -> Value {
    let page = with_a_file(guest).await;
    let path = format!("/api/pages/{}/print-orders", id(&page));
    let (status, order) = guest.post(&path, &json!({"paper": "8x10"})).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{order}");
    order
}

fn photo(seed: u8) -> Vec<u8> {
    let pixels = image::RgbImage::from_fn(640, 480, |x, y| image::Rgb([x as u8, y as u8, seed]));
    metrosk_vision::jpeg(&pixels, 88).unwrap()
}

async fn put_in(guest: &Guest, query: &str, bytes: Vec<u8>) -> (StatusCode, Value) {
    let request = guest.request(Method::POST, &format!("/api/pictures?{query}"));
    answer(request.body(bytes)).await
}

#[tokio::test]
async fn a_photo_is_kept_once_and_lies_apart_from_pictures_of_sketches() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (status, first) = put_in(&wren, "name=Gulls&photo=true", photo(1)).await;
    assert_eq!(
        (status, &first["known"]),
        (StatusCode::CREATED, &Value::Null)
    );
    let (status, again) = put_in(&wren, "name=Gulls%20again&photo=true", photo(1)).await;
    assert_eq!(
        (status, &again["known"], &again["id"]),
        (StatusCode::OK, &json!(true), &first["id"])
    );
    let (_, other) = put_in(&wren, "name=Others&photo=true", photo(2)).await;
    assert_ne!(other["id"], first["id"]);
    let names = |list: &Value| -> Vec<String> {
        list.as_array()
            .unwrap()
            .iter()
            .map(|p| p["name"].as_str().unwrap().to_owned())
            .collect()
    };
    let photos = names(&wren.get("/api/pictures?photos=true").await.1);
    assert_eq!(photos.iter().filter(|n| n.starts_with("Gulls")).count(), 1);
    assert_eq!(photos.len(), metrosk_demo::PHOTOS.len() + 2);
    let scans = names(&wren.get("/api/pictures").await.1);
    assert!(!scans.iter().any(|n| photos.contains(n)), "{scans:?}");
    // What is no picture is told, and nothing of it is kept.
    let (status, wrong) = put_in(&wren, "name=letter&photo=true", b"Dear all".to_vec()).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        wrong["findings"][0]["allowed"]
            .as_str()
            .unwrap()
            .contains("PNG, JPEG or WebP"),
        "{wrong}"
    );
}

#[tokio::test]
async fn a_photo_on_a_page_is_not_thrown_away() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let on_page = page["plan"]["photos"]["photos"][0]["picture"]
        .as_str()
        .unwrap();
    let (status, why) = wren.delete(&format!("/api/pictures/{on_page}")).await;
    assert_eq!(status, StatusCode::CONFLICT, "{why}");
    let (_, free) = put_in(&wren, "name=Free&photo=true", photo(3)).await;
    assert_eq!(
        wren.delete(&format!("/api/pictures/{}", id(&free))).await.0,
        StatusCode::NO_CONTENT
    );
}

#[tokio::test]
async fn what_becomes_of_prints_is_told_and_what_is_wrong_is_told_by_its_place() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let layout = wren
        .get(&format!("/api/pages/{}/layout", id(&page)))
        .await
        .1;
    let asked =
        json!({"unit": "in", "drawn": 3, "photos": page["plan"]["photos"], "layout": layout});
    let (status, found) = wren.post("/api/photos/placed", &asked).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["placed"].as_array().unwrap().len(), 6);
    assert_eq!(found["aside"], json!(["7", "8"]));
    let first = found["placed"]
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["print"] == "1")
        .unwrap();
    assert!(
        first["told"]
            .as_str()
            .unwrap()
            .starts_with("Trim 6 × 8 in to "),
        "{first}"
    );
    assert_eq!(first["quality"], "good", "2400 by 3200 pixels at 6 by 8");
    let mut wrong = asked.clone();
    wrong["photos"]["photos"][1]["w"] = json!(-1);
    wrong["photos"]["lift"] = json!([{"by": "balloon"}]);
    let (status, told) = wren.post("/api/photos/placed", &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let paths: Vec<&str> = told["findings"]
        .as_array()
        .unwrap()
        .iter()
        .map(|f| f["path"].as_str().unwrap())
        .collect();
    assert_eq!(paths, ["photos.photos[1].w", "photos.lift[0].by"]);
}

#[tokio::test]
async fn prints_are_listed_in_words() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let said = json!({"text": "two 4x6 level, a 3x3", "unit": "in"});
    let (status, prints) = wren.post("/api/photos/listed", &said).await;
    assert_eq!(
        (status, &prints),
        (
            StatusCode::OK,
            &json!([{"w": 6.0, "h": 4.0}, {"w": 6.0, "h": 4.0}, {"w": 3.0, "h": 3.0}])
        )
    );
    let (status, told) = wren
        .post(
            "/api/photos/listed",
            &json!({"text": "a few", "unit": "in"}),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        told["findings"][0]["found"]
            .as_str()
            .unwrap()
            .contains("a few"),
        "{told}"
    );
}

#[tokio::test]
async fn files_lie_on_sheets_as_pdf_and_as_pictures() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = with_a_file(&wren).await;
    let path = format!("/api/pages/{}/prints", id(&page));
    let (status, sheets) = wren.get(&format!("{path}?paper=8x10&bleed=0.125")).await;
    assert_eq!(status, StatusCode::OK, "{sheets}");
    let photo = &sheets["sheets"][0]["photos"][0];
    assert_eq!(photo["print"], "8");
    let layout = wren
        .get(&format!("/api/pages/{}/layout", id(&page)))
        .await
        .1;
    let block = layout["blocks"]
        .as_array()
        .unwrap()
        .iter()
        .find(|b| b["photo"] == "8")
        .unwrap()
        .clone();
    // At its exact crop, with the bleed all round; it may lie on its side.
    let sides = |b: &Value| {
        let mut sides = [b["w"].as_f64().unwrap(), b["h"].as_f64().unwrap()];
        sides.sort_by(f64::total_cmp);
        sides
    };
    let (printed, slot) = (sides(&photo["box"]), sides(&block["box"]));
    assert!(
        (printed[0] - slot[0] - 0.25).abs() < 1e-6 && (printed[1] - slot[1] - 0.25).abs() < 1e-6,
        "{printed:?} {slot:?}"
    );
    let bytes = |path: String| async {
        let response = wren.request(Method::GET, &path).send().await.unwrap();
        assert_eq!(response.status(), StatusCode::OK);
        response.bytes().await.unwrap()
    };
    let pdf = bytes(format!("/api/pages/{}/prints.pdf?paper=8x10", id(&page))).await;
    assert!(pdf.starts_with(b"%PDF"));
    let jpeg = bytes(format!("{path}/1?paper=8x10")).await;
    let sheet = metrosk_vision::decode(&jpeg).unwrap().pixels;
    assert_eq!(sheet.dimensions(), (2400, 3000), "300 dots an inch");
    let (status, wrong) = wren.get(&format!("{path}?paper=poster")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        wrong["findings"][0]["allowed"]
            .as_str()
            .unwrap()
            .contains("10x15 cm"),
        "{wrong}"
    );
    let small = wren.get(&format!("{path}?paper=4x6&bleed=1")).await.1;
    assert_eq!(small["too_large"], json!(["8"]));
}

/// Waits until an order's job has ended: the order.
async fn ended(guest: &Guest, events: &mut Events, order: &Value) -> Value {
    events
        .until(|_, e| {
            e["thing"] == order["job"] && (e["state"] == "done" || e["state"] == "failed")
        })
        .await;
    let orders = guest
        .get(&format!(
            "/api/pages/{}/print-orders",
            order["page"].as_str().unwrap()
        ))
        .await
        .1;
    orders
        .as_array()
        .unwrap()
        .iter()
        .find(|o| o["id"] == order["id"])
        .unwrap()
        .clone()
}

#[tokio::test]
async fn a_printer_that_runs_out_in_the_middle_goes_on_and_prints_nothing_twice() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = with_a_file(&wren).await;
    // Two more files: three sheets of 5 by 7 in all.
    let mut prints = page["plan"]["photos"]["photos"].clone();
    for n in [2, 4] {
        prints[n]["file"] = json!(true);
    }
    let patch = json!({"photos": {"photos": prints}});
    let path = format!("/api/pages/{}", id(&page));
    wren.patch(
        &format!("{path}/plan"),
        &change(&page, "photos", patch, "files"),
    )
    .await;
    let sheets = wren.get(&format!("{path}/prints?paper=5x7")).await.1;
    let count = sheets["sheets"].as_array().unwrap().len();
    assert!(count >= 2, "{sheets}");
    let set = |to: Value| {
        let wren = &wren;
        async move { wren.put("/api/printer", &to).await }
    };
    set(json!({"paper": 1, "ink": 100, "jammed": false})).await;
    let mut events = Events::of(&wren, None).await;
    let order = wren
        .post(&format!("{path}/print-orders"), &json!({"paper": "5x7"}))
        .await
        .1;
    let stopped = ended(&wren, &mut events, &order).await;
    assert_eq!(
        (&stopped["state"], &stopped["printed"]),
        (&json!("failed"), &json!([1]))
    );
    assert!(
        stopped["problem"]["detail"]
            .as_str()
            .unwrap()
            .contains("no paper left"),
        "{stopped}"
    );
    // Filled up it goes on; then it jams no more and has its ink.
    set(json!({"paper": 9, "ink": 100, "jammed": true})).await;
    let (_, going) = wren
        .post(
            &format!("/api/print-orders/{}/go-on", id(&order)),
            &Value::Null,
        )
        .await;
    let jammed = ended(&wren, &mut events, &going).await;
    assert!(
        jammed["problem"]["detail"]
            .as_str()
            .unwrap()
            .contains("jammed"),
        "{jammed}"
    );
    set(json!({"paper": 9, "ink": 100, "jammed": false})).await;
    let (_, going) = wren
        .post(
            &format!("/api/print-orders/{}/go-on", id(&order)),
            &Value::Null,
        )
        .await;
    let done = ended(&wren, &mut events, &going).await;
    let all: Vec<usize> = (1..=count).collect();
    assert_eq!(
        (&done["state"], &done["printed"]),
        (&json!("done"), &json!(all))
    );
    // A sheet each, none twice: so many are gone from the tray.
    let printer = wren.get("/api/printer").await.1;
    assert_eq!(printer["paper"], json!(9 - (count - 1)));
    let (_, again) = wren
        .post(
            &format!("/api/print-orders/{}/go-on", id(&order)),
            &Value::Null,
        )
        .await;
    ended(&wren, &mut events, &again).await;
    assert_eq!(wren.get("/api/printer").await.1["paper"], printer["paper"]);
    let picture = wren
        .request(
            Method::GET,
            &format!("/api/print-orders/{}/sheets/1", id(&order)),
        )
        .send()
        .await
        .unwrap();
    assert_eq!(
        (
            picture.status(),
            picture.headers()["content-type"].to_str().unwrap()
        ),
        (StatusCode::OK, "image/jpeg")
    );
    let (status, wrong) = set(json!({"paper": -1, "ink": 100, "jammed": false})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{wrong}");
}

#[tokio::test]
async fn what_a_printer_can_not_print_it_refuses_in_words() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = with_a_file(&wren).await;
    // Said to have few pixels, it is too coarse for the printer.
    let mut prints = page["plan"]["photos"]["photos"].clone();
    prints[7]["pixels"] = json!([60, 45]);
    let path = format!("/api/pages/{}", id(&page));
    let patch = json!({"photos": {"photos": prints}});
    wren.patch(
        &format!("{path}/plan"),
        &change(&page, "photos", patch, "few"),
    )
    .await;
    let mut events = Events::of(&wren, None).await;
    let order = wren
        .post(&format!("{path}/print-orders"), &json!({"paper": "8x10"}))
        .await
        .1;
    let refused = ended(&wren, &mut events, &order).await;
    assert!(
        refused["problem"]["detail"]
            .as_str()
            .unwrap()
            .contains("dots an inch"),
        "{refused}"
    );
    assert_eq!(refused["printed"], json!([]));
}
