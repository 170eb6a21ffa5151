//! The gallery over HTTP: an entry hangs there once or is told as open, whenever the gallery vanishes; what it checks, and taking entries back.

use crate::support::{Events, Guest, Server, change, id};
use metrosk_server::Settings;
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::time::Duration;

/// A picture of so many pixels, put in.
async fn picture(guest: &Guest, side: u32) -> Value {
    let pixels = image::RgbImage::from_fn(side, side, |x, y| {
        image::Rgb([(x % 251) as u8, (y % 241) as u8, 90])
    });
    let mut png = std::io::Cursor::new(Vec::new());
    pixels.write_to(&mut png, image::ImageFormat::Png).unwrap();
    let (status, put) = crate::support::answer(
        guest
            .request(Method::POST, "/api/pictures?name=the%20page")
            .body(png.into_inner()),
    )
    .await;
    assert!(status.is_success(), "{put}");
    put
}

/// The demo's spread with a picture of it.
async fn finished(guest: &Guest, side: u32) -> Value {
    with_picture(guest, guest.kites().await, side).await
}

async fn with_picture(guest: &Guest, page: Value, side: u32) -> Value {
    let patch = json!({"log": {"picture": id(&picture(guest, side).await)}});
    let path = format!("/api/pages/{}/plan", id(&page));
    let (status, saved) = guest
        .patch(&path, &change(&page, "log", patch, "done"))
        .await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    saved
}

/// An entry of the demo's spread.
pub(crate) async fn entered(guest: &Guest) -> Value {
    let page = finished(guest, 700).await;
    enter(guest, &page, &json!({})).await
}

async fn enter(guest: &Guest, page: &Value, asked: &Value) -> Value {
    let path = format!("/api/pages/{}/gallery-entries", id(page));
    let (status, entry) = guest.post(&path, asked).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{entry}");
    entry
}

/// Waits until an entry's job has ended: the entry.
pub(crate) async fn settled(guest: &Guest, events: &mut Events, entry: &Value) -> Value {
    events
        .until(|_, e| {
            e["thing"] == entry["job"] && (e["state"] == "done" || e["state"] == "failed")
        })
        .await;
    let page = entry["page"].as_str().unwrap();
    let path = format!("/api/pages/{page}/gallery-entries");
    let entries = guest.get(&path).await.1;
    let all = entries.as_array().unwrap();
    all.iter().find(|e| e["id"] == entry["id"]).unwrap().clone()
}

async fn mood(guest: &Guest, mood: &str) {
    let (status, told) = guest.put("/api/gallery", &json!({"mood": mood})).await;
    assert_eq!(status, StatusCode::OK, "{told}");
}

/// Whether an entry hangs in the gallery, and how many hang there in all.
async fn on_wall(guest: &Guest, entry: &Value) -> (bool, usize) {
    let wall = guest.get("/api/gallery").await.1["wall"].clone();
    let all = wall.as_array().unwrap();
    (all.iter().any(|w| w["entry"] == entry["id"]), all.len())
}

async fn act(guest: &Guest, entry: &Value, what: &str) -> (StatusCode, Value) {
    let path = format!("/api/gallery-entries/{}/{what}", id(entry));
    guest.post(&path, &Value::Null).await
}

#[tokio::test]
async fn an_entry_hangs_once_is_replaced_and_withdrawn() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut events = Events::of(&wren, None).await;
    let page = finished(&wren, 700).await;
    let first = enter(&wren, &page, &json!({})).await;
    let first = settled(&wren, &mut events, &first).await;
    assert_eq!(
        (&first["state"], &first["address"]),
        (&json!("entered"), &json!("entry 1"))
    );
    assert_eq!(
        act(&wren, &first, "ask-again").await.0,
        StatusCode::CONFLICT
    );
    // A maker has one entry for a challenge.
    let second = enter(&wren, &page, &json!({})).await;
    let second = settled(&wren, &mut events, &second).await;
    assert_eq!(second["state"], "refused");
    assert!(
        second["why"].as_str().unwrap().contains("entry 1"),
        "{second}"
    );
    // Replaced, there is never both.
    let next = enter(&wren, &page, &json!({"replaces": first["id"]})).await;
    let next = settled(&wren, &mut events, &next).await;
    assert_eq!(next["state"], "entered");
    assert_eq!(on_wall(&wren, &next).await, (true, 1));
    let path = format!("/api/pages/{}/gallery-entries", id(&page));
    let all = wren.get(&path).await.1;
    let was = all
        .as_array()
        .unwrap()
        .iter()
        .find(|e| e["id"] == first["id"]);
    assert_eq!(was.unwrap()["state"], "withdrawn");
    let (_, going) = act(&wren, &next, "withdraw").await;
    assert_eq!(
        settled(&wren, &mut events, &going).await["state"],
        "withdrawn"
    );
    assert_eq!(on_wall(&wren, &next).await, (false, 0));
    assert_eq!(act(&wren, &next, "withdraw").await.0, StatusCode::CONFLICT);
}

#[tokio::test]
async fn what_the_gallery_does_not_take_it_says() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut events = Events::of(&wren, None).await;
    // Without a picture nothing is sent.
    let kites = wren.kites().await;
    let path = format!("/api/pages/{}/gallery-entries", id(&kites));
    let (status, told) = wren.post(&path, &json!({})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(told["findings"][0]["path"], "log.picture");
    let small = finished(&wren, 320).await;
    let entry = enter(&wren, &small, &json!({})).await;
    let refused = settled(&wren, &mut events, &entry).await;
    assert_eq!(refused["state"], "refused");
    assert!(
        refused["why"].as_str().unwrap().contains("320 × 320"),
        "{refused}"
    );
    mood(&wren, "refuses").await;
    let page = finished(&wren, 700).await;
    let entry = enter(&wren, &page, &json!({})).await;
    let refused = settled(&wren, &mut events, &entry).await;
    assert!(
        refused["why"]
            .as_str()
            .unwrap()
            .contains("no entries today"),
        "{refused}"
    );
    mood(&wren, "slow").await;
    let (_, going) = act(&wren, &refused, "ask-again").await;
    assert_eq!(
        settled(&wren, &mut events, &going).await["state"],
        "entered"
    );
    let (status, told) = wren.put("/api/gallery", &json!({"mood": "cross"})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{told}");
}

#[tokio::test]
async fn a_challenge_that_is_closed_takes_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut events = Events::of(&wren, None).await;
    let page = finished(&wren, 700).await;
    let call = wren.kites().await["call"]["id"]
        .as_str()
        .unwrap()
        .to_owned();
    // It was open when the page was begun; by now it is long over.
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    let over = r#"UPDATE calls SET document = document || '{"due": "2020-02-29", "due_time": "18:00", "zone": "Europe/London"}' WHERE id = $1::uuid"#;
    sqlx::query(over).bind(&call).execute(&pool).await.unwrap();
    let entry = enter(&wren, &page, &json!({})).await;
    let refused = settled(&wren, &mut events, &entry).await;
    let why = refused["why"].as_str().unwrap();
    assert!(
        why.contains("closed on February 29, 2020 at 18:00 (Europe/London)"),
        "{why}"
    );
}

/// Whatever the gallery does at whichever moment: what is told as entered hangs there, once; what hangs there is told as entered or open.
#[tokio::test]
async fn a_gallery_that_vanishes_at_any_moment_has_an_entry_once_or_it_is_told_as_open() {
    const TIMES: usize = 200;
    let settings = Settings {
        gallery_wait: Duration::from_millis(3),
        ..Settings::default()
    };
    let house = Server::start_with(settings).await;
    let wren = house.as_wren().await;
    let mut events = Events::of(&wren, None).await;
    let page = with_picture(&wren, wren.page("The long walk out").await, 700).await;
    let mut random = StdRng::seed_from_u64(20_261_202);
    let mut tide =
        || ["well", "gone", "vanishes", "vanishes", "rubbish"][random.random_range(0..5)];
    for round in 0..TIMES {
        mood(&wren, tide()).await;
        let sent = enter(&wren, &page, &json!({})).await;
        let mut entry = settled(&wren, &mut events, &sent).await;
        for _ in 0..2 {
            let (hangs, all) = on_wall(&wren, &entry).await;
            assert!(all <= 1, "round {round}: {all} hang there");
            match entry["state"].as_str().unwrap() {
                "entered" => {
                    assert!(hangs, "round {round}: {entry}");
                    break;
                }
                "open" => {}
                other => panic!("round {round}: {other}"),
            }
            mood(&wren, tide()).await;
            let (_, going) = act(&wren, &entry, "ask-again").await;
            entry = settled(&wren, &mut events, &going).await;
        }
        mood(&wren, "well").await;
        if entry["state"] == "open" {
            let (_, going) = act(&wren, &entry, "ask-again").await;
            entry = settled(&wren, &mut events, &going).await;
        }
        assert_eq!(entry["state"], "entered", "round {round}");
        assert_eq!(on_wall(&wren, &entry).await, (true, 1), "round {round}");
        let (_, going) = act(&wren, &entry, "withdraw").await;
        assert_eq!(
            settled(&wren, &mut events, &going).await["state"],
            "withdrawn"
        );
        assert_eq!(on_wall(&wren, &entry).await, (false, 0), "round {round}");
    }
}

/// The demo's spread as it is planned, as a picture: its layout with each block in a colour of its own, one of them moved.
async fn as_planned(guest: &Guest, moved: Option<(&str, f64)>) -> Vec<u8> {
    let page = guest.kites().await;
    let layout = guest
        .get(&format!("/api/pages/{}/layout", id(&page)))
        .await
        .1;
    let inch = 40.0;
    let mut pixels = image::RgbImage::from_pixel(960, 480, image::Rgb([244, 240, 228]));
    for (n, block) in layout["blocks"].as_array().unwrap().iter().enumerate() {
        let kind = block["kind"].as_str().unwrap();
        if !["photo", "mat", "paper", "strip"].contains(&kind) {
            continue;
        }
        let side = |name: &str| block["box"][name].as_f64().unwrap() * inch;
        let by = moved
            .filter(|(id, _)| block["id"] == *id)
            .map_or(0.0, |m| m.1);
        let n = n as u8;
        let colour = image::Rgb([
            n.wrapping_mul(83),
            n.wrapping_mul(47).wrapping_add(60),
            n.wrapping_mul(29),
        ]);
        let x = side("x") + by * inch;
        let (left, top) = (x.round() as u32, side("y").round() as u32);
        for px in left..(left + side("w").round() as u32).min(960) {
            for py in top..(top + side("h").round() as u32).min(480) {
                pixels.put_pixel(px, py, colour);
            }
        }
    }
    let mut png = std::io::Cursor::new(Vec::new());
    pixels.write_to(&mut png, image::ImageFormat::Png).unwrap();
    png.into_inner()
}

async fn put_in(guest: &Guest, bytes: Vec<u8>) -> Value {
    let request = guest.request(Method::POST, "/api/pictures?name=made");
    let (status, put) = crate::support::answer(request.body(bytes)).await;
    assert!(status.is_success(), "{put}");
    put
}

async fn compared(guest: &Guest, picture: &Value) -> Value {
    let page = guest.kites().await;
    let patch = json!({"log": {"picture": id(picture)}});
    let path = format!("/api/pages/{}/plan", id(&page));
    let (status, saved) = guest
        .patch(&path, &change(&page, "log", patch, "done"))
        .await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    let path = format!("/api/pages/{}/differences", id(&page));
    let (status, found) = guest.get(&path).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    found
}

#[tokio::test]
async fn a_finished_page_is_held_against_its_plan_block_by_block() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let same = put_in(&wren, as_planned(&wren, None).await).await;
    let found = compared(&wren, &same).await;
    assert_eq!(found["is_this_page"], json!(true), "{found}");
    assert_eq!(found["differences"], json!([]), "{found}");
    let page = wren.kites().await;
    let layout = wren
        .get(&format!("/api/pages/{}/layout", id(&page)))
        .await
        .1;
    let mut photos = layout["blocks"].as_array().unwrap().iter();
    let last = photos.rfind(|b| b["kind"] == "photo").unwrap();
    let name = last["id"].as_str().unwrap();
    let off = put_in(&wren, as_planned(&wren, Some((name, 0.25))).await).await;
    let found = compared(&wren, &off).await;
    assert_eq!(found["differences"][0]["block"], name, "{found}");
    assert_eq!(
        found["differences"][0]["text"], "1/4 in further right",
        "{found}"
    );
    // A picture of something else is not taken for this page.
    let other = picture(&wren, 700).await;
    assert_eq!(compared(&wren, &other).await["is_this_page"], json!(false));
}

#[tokio::test]
async fn a_part_is_framed_and_faces_are_blurred_in_a_picture_of_its_own() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let from = picture(&wren, 600).await;
    let path = format!("/api/pictures/{}/made", id(&from));
    let asked = json!({"frame": [0.25, 0.25, 0.5, 0.25], "blur": [[0.3, 0.3, 0.2, 0.1]]});
    let (status, made) = wren.post(&path, &asked).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    assert_eq!(made["size"], json!([300, 150]));
    assert_ne!(made["id"], from["id"]);
    let listed = wren.get("/api/pictures").await.1;
    let is_offered = listed
        .as_array()
        .unwrap()
        .iter()
        .any(|p| p["id"] == made["id"]);
    assert!(!is_offered, "it is no picture of a sketch");
    let (status, told) = wren
        .post(&path, &json!({"frame": [0.5, 0.5, 0.9, 0.1]}))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(told["findings"][0]["path"], "frame");
}
