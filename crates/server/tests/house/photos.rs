//! Photos over HTTP: kept once, shown in sizes, and what becomes of prints.

use crate::support::{Guest, Server, answer, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

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
async fn a_photo_is_shown_in_the_sizes_that_screens_ask_for() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, photo) = put_in(&wren, "name=Large&photo=true", large()).await;
    let path = |form: &str| format!("/api/pictures/{}/{form}", id(&photo));
    for (form, side) in [("screen-480", 480), ("screen-960", 960)] {
        let first = bytes(&wren, path(form)).await;
        assert_eq!(metrosk_vision::decode(&first).unwrap().pixels.width(), side);
        assert_eq!(bytes(&wren, path(form)).await, first, "it is made once");
    }
    let (status, _) = wren.get(&path("screen-481")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert_eq!(
        wren.delete(&format!("/api/pictures/{}", id(&photo)))
            .await
            .0,
        StatusCode::NO_CONTENT
    );
}

fn large() -> Vec<u8> {
    let pixels = image::RgbImage::from_fn(1300, 900, |x, y| image::Rgb([x as u8, y as u8, 7]));
    metrosk_vision::jpeg(&pixels, 88).unwrap()
}

#[tokio::test]
async fn what_can_not_be_a_photo_is_answered_clearly_and_the_others_go_on() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let whole = photo(9);
    let narrow = image::RgbImage::from_pixel(20_000, 1, image::Rgb([1, 2, 3]));
    let mut png = std::io::Cursor::new(Vec::new());
    narrow.write_to(&mut png, image::ImageFormat::Png).unwrap();
    // 300 million pixels, as a PNG's head says them: nothing of them is decoded.
    let mut huge = png.get_ref().clone();
    huge[16..24].copy_from_slice(&[0, 0, 0x4E, 0x20, 0, 0, 0x3A, 0x98]);
    let animation = b"GIF89a\x01\0\x01\0\0\0\0;".to_vec();
    for (name, bytes, said) in [
        ("empty", Vec::new(), "not a picture"),
        ("truncated", whole[..400].to_vec(), "broken"),
        ("narrow", png.get_ref().clone(), "20000 x 1 pixels"),
        ("huge", huge, "broken"),
        ("animation", animation, "not a picture"),
    ] {
        let (status, wrong) = put_in(&wren, &format!("name={name}&photo=true"), bytes).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{name}: {wrong}");
        let found = wrong["findings"][0]["found"].as_str().unwrap();
        assert!(found.contains(said), "{name}: {found}");
    }
    // Named as another kind, a picture is what its bytes are.
    let (status, kept) = put_in(&wren, "name=kites.png&photo=true", whole).await;
    assert_eq!(
        (status, &kept["size"]),
        (StatusCode::CREATED, &json!([640, 480]))
    );
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

/// What is taken away from an address.
pub(crate) async fn bytes(guest: &Guest, path: String) -> Vec<u8> {
    let response = guest.request(Method::GET, &path).send().await.unwrap();
    assert_eq!(response.status(), StatusCode::OK);
    response.bytes().await.unwrap().to_vec()
}
