//! Pictures over HTTP: put in, looked at, read, lifted from.

use crate::support::{Events, Guest, Server, answer, id};
use metrosk_core::sketch::Sketch;
use metrosk_demo::{SEED, Style, picture};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

fn scan(style: Style) -> Vec<u8> {
    let sketch: &Sketch = &metrosk_demo::sketches(SEED)[0];
    metrosk_vision::jpeg(&picture(sketch, style, SEED), 88).unwrap()
}

async fn put_in(guest: &Guest, name: &str, bytes: Vec<u8>) -> (StatusCode, Value) {
    answer(
        guest
            .request(Method::POST, &format!("/api/pictures?name={name}"))
            .body(bytes),
    )
    .await
}

/// A picture read to the end: the job as it ended, and the stages that were told on the way.
async fn read(guest: &Guest, picture: &Value, query: &str) -> (Value, Vec<String>) {
    let mut events = Events::of(guest, None).await;
    let path = format!("/api/pictures/{}/reading?{query}", id(picture));
    let (status, job) = guest.post(&path, &Value::Null).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{job}");
    let stages = std::sync::Mutex::new(Vec::new());
    events
        .until(|_, event| {
            if event["thing"] != job["id"] {
                return false;
            }
            let stage = event["progress"].as_str().map(str::to_owned);
            stages.lock().unwrap().extend(stage);
            event["state"] == "done" || event["state"] == "failed"
        })
        .await;
    let mut stages = stages.into_inner().unwrap();
    stages.dedup();
    let job = guest.get(&format!("/api/jobs/{}", id(&job))).await.1;
    (job, stages)
}

#[tokio::test]
async fn a_picture_becomes_a_sketch_that_the_drawer_takes() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let before = wren.get("/api/sketches").await.1.as_array().unwrap().len();
    let (status, picture) = put_in(&wren, "Tide%20line.jpg", scan(Style::Phone)).await;
    assert_eq!(
        (status, &picture["name"]),
        (StatusCode::CREATED, &json!("Tide line.jpg")),
        "{picture}"
    );
    let (job, stages) = read(
        &wren,
        &picture,
        "width=12&height=12&pages=1&unit=in&name=Tide%20line",
    )
    .await;
    // Stages that follow each other fast are told together.
    assert!(
        stages
            .iter()
            .any(|s| ["page", "upright", "strokes", "blocks", "kinds"].contains(&s.as_str())),
        "{stages:?}"
    );
    assert_eq!(
        (&job["kind"], &job["state"]),
        (&json!("read"), &json!("done"))
    );
    let read = job["outcome"].clone();
    assert_eq!(
        (&read["sketch"]["name"], &read["sketch"]["origin"]["how"]),
        (&"Tide line".into(), &"challenge".into())
    );
    assert_eq!(read["corners"][0].as_array().unwrap().len(), 4);
    assert!(
        read["sketch"]["blocks"]
            .as_array()
            .unwrap()
            .iter()
            .all(|b| b["sure"].is_number())
    );
    assert_eq!(
        wren.get("/api/sketches").await.1.as_array().unwrap().len(),
        before,
        "reading keeps no sketch"
    );
    // The page was brought upright with it: what was read lies over that, and snaps to its lines.
    let lift = read["lift"].as_str().unwrap();
    let sides = json!({"sides": [0.1, 0.1, 0.9, 0.9]});
    let (status, snapped) = wren.post(&format!("/api/lifts/{lift}/edges"), &sides).await;
    assert_eq!(
        (status, snapped["sides"].as_array().map(Vec::len)),
        (StatusCode::OK, Some(4))
    );
    let (status, kept) = wren
        .post(
            &format!("/api/sketches?picture={}&lift={lift}", id(&picture)),
            &read["sketch"],
        )
        .await;
    assert_eq!(
        (status, &kept["name"]),
        (StatusCode::CREATED, &"Tide line".into())
    );
    let sketch = wren.get(&format!("/api/sketches/{}", id(&kept))).await.1;
    assert_eq!(
        (&sketch["picture"], &sketch["lift"]),
        (&picture["id"], &read["lift"])
    );
}

#[tokio::test]
async fn what_is_kept_of_a_picture_is_its_pixels_in_three_sizes() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut bytes = scan(Style::Clean);
    // A note of place, as a camera writes it: an APP1 segment behind the first marker.
    let note = b"Exif\0\0GPS 54 N 8 E".to_vec();
    let mut segment = vec![0xFF, 0xE1, 0, note.len() as u8 + 2];
    segment.extend(&note);
    bytes.splice(2..2, segment);
    let (_, picture) = put_in(&wren, "place.jpg", bytes).await;
    let size = |bytes: &[u8]| {
        let pixels = metrosk_vision::decode(bytes).unwrap().pixels;
        [pixels.width(), pixels.height()]
    };
    for (form, most) in [("original", 9_999), ("view", 1600), ("thumb", 240)] {
        let response = wren
            .request(
                Method::GET,
                &format!("/api/pictures/{}/{form}", id(&picture)),
            )
            .send()
            .await
            .unwrap();
        assert_eq!(response.headers()["content-type"], "image/jpeg");
        let kept = response.bytes().await.unwrap();
        assert!(!kept.windows(3).any(|w| w == b"GPS"), "{form}");
        assert!(size(&kept).iter().all(|s| *s <= most), "{form}");
        if form == "original" {
            assert_eq!(json!(size(&kept)), picture["size"]);
        }
    }
    for form in ["straight", "huge"] {
        assert_eq!(
            wren.get(&format!("/api/pictures/{}/{form}", id(&picture)))
                .await
                .0,
            StatusCode::NOT_FOUND
        );
    }
    assert_eq!(
        wren.get("/api/pictures").await.1[0]["id"],
        picture["id"],
        "the newest is offered first"
    );
}

#[tokio::test]
async fn what_is_no_picture_or_no_page_is_told_and_costs_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    for (bytes, says) in [
        (b"not a picture".to_vec(), "PNG, JPEG and WebP"),
        (scan(Style::Clean)[..400].to_vec(), "broken"),
    ] {
        let (status, problem) = put_in(&wren, "broken", bytes).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(
            problem["findings"][0]["found"]
                .as_str()
                .unwrap()
                .contains(says),
            "{problem}"
        );
    }
    assert_eq!(
        put_in(&wren, "large", vec![0_u8; 17 * 1024 * 1024]).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    let picture = put_in(&wren, "clean", scan(Style::Clean)).await.1;
    for (query, path, says) in [
        ("width=twelve&height=12", "width", "twelve"),
        ("width=12&height=900", "height", "900"),
        ("width=12&height=12&pages=3", "pages", "3"),
        ("width=12&height=12&unit=ell", "unit", "ell"),
        ("width=12&height=12&corners=1,2,3", "corners", "1,2,3"),
    ] {
        let (status, problem) = wren
            .post(
                &format!("/api/pictures/{}/reading?{query}", id(&picture)),
                &Value::Null,
            )
            .await;
        let finding = &problem["findings"][0];
        assert_eq!(
            (status, finding["path"].as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, Some(path)),
            "{query}: {problem}"
        );
        assert!(
            finding["found"].as_str().unwrap().contains(says),
            "{query}: {finding}"
        );
    }
    // What only shows while reading is told as the job's problem.
    let (job, _) = read(
        &wren,
        &picture,
        "width=12&height=12&corners=0,0,1,0,1,1,0,1",
    )
    .await;
    assert_eq!(job["state"], "failed");
    assert!(
        job["problem"]["findings"][0]["found"]
            .as_str()
            .unwrap()
            .contains("corners")
    );
}

#[tokio::test]
async fn a_finished_page_is_brought_upright_and_blocks_snap_to_its_edges() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let pictures = wren.get("/api/pictures").await.1;
    let page = pictures
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["name"] == "A finished page to lift")
        .unwrap()
        .clone();
    let (_, _, truth) = metrosk_demo::scans(SEED)
        .into_iter()
        .find(|s| s.0 == "A finished page to lift")
        .unwrap();
    let corners = format!(
        "70,70,{w},70,{w},{h},70,{h}",
        w = page["size"][0].as_u64().unwrap() - 70,
        h = page["size"][1].as_u64().unwrap() - 70
    );
    let inches = |l: metrosk_core::length::Length| l.to_units(metrosk_core::length::Unit::Inch);
    let (w, h) = (inches(truth.canvas.page.w), inches(truth.canvas.page.h));
    let shown = json!({"width": w.to_string(), "height": h.to_string(), "corners": corners});
    let (status, lift) = wren
        .post(&format!("/api/pictures/{}/lift", id(&page)), &shown)
        .await;
    assert_eq!(status, StatusCode::OK, "{lift}");
    let swatches = lift["swatches"].as_array().unwrap();
    assert!((3..=8).contains(&swatches.len()));
    assert!(
        swatches
            .windows(2)
            .all(|s| s[0]["share"].as_f64() >= s[1]["share"].as_f64())
    );
    let lifted = format!("/api/lifts/{}", id(&lift));
    let straight = wren
        .request(Method::GET, &format!("{lifted}/page"))
        .send()
        .await
        .unwrap();
    assert_eq!(
        (
            straight.status(),
            straight.headers()["content-type"].as_bytes()
        ),
        (StatusCode::OK, b"image/jpeg".as_slice())
    );
    assert_eq!(
        wren.get(&lifted).await.1,
        lift,
        "a lift is told again as it was told at first"
    );
    let photo = truth.blocks.iter().find(|b| b.id == "p1").unwrap().rect;
    let sides = [
        inches(photo.x) / w,
        inches(photo.y) / h,
        inches(photo.right()) / w,
        inches(photo.bottom()) / h,
    ];
    let rough: Vec<f64> = sides
        .iter()
        .zip([0.008, -0.007, 0.006, -0.008])
        .map(|(s, off)| s + off)
        .collect();
    let (status, snapped) = wren
        .post(&format!("{lifted}/edges"), &json!({"sides": rough}))
        .await;
    assert_eq!(status, StatusCode::OK, "{snapped}");
    for (found, side) in snapped["sides"].as_array().unwrap().iter().zip(sides) {
        assert!(
            (found.as_f64().unwrap() - side).abs() < 0.003,
            "{snapped} for {sides:?}"
        );
    }
    let wrong = json!({"sides": [0.5, 0.5, 0.2, 0.9]});
    assert_eq!(
        wren.post(&format!("{lifted}/edges"), &wrong).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[tokio::test]
async fn who_may_only_look_gives_no_pictures() {
    let house = Server::start().await;
    let gull = house.as_person("gull").await;
    assert_eq!(
        put_in(&gull, "x", scan(Style::Clean)).await.0,
        StatusCode::FORBIDDEN
    );
    let picture = gull.get("/api/pictures").await.1[0].clone();
    assert_eq!(
        gull.get(&format!("/api/pictures/{}/thumb", id(&picture)))
            .await
            .0,
        StatusCode::OK,
        "looking is allowed"
    );
    assert_eq!(
        gull.post(
            &format!("/api/pictures/{}/reading?width=12&height=12", id(&picture)),
            &Value::Null,
        )
        .await
        .0,
        StatusCode::FORBIDDEN
    );
}
