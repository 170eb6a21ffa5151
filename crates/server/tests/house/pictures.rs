//! Sketches out of pictures, over HTTP.

use crate::support::{Guest, Server, answer};
use metrosk_core::sketch::Sketch;
use metrosk_demo::{SEED, Style, picture};
use reqwest::{Method, StatusCode};
use serde_json::Value;

fn scan(style: Style) -> Vec<u8> {
    let sketch: &Sketch = &metrosk_demo::sketches(SEED)[0];
    metrosk_vision::jpeg(&picture(sketch, style, SEED), 88).unwrap()
}

async fn read(guest: &Guest, query: &str, bytes: Vec<u8>) -> (StatusCode, Value) {
    answer(guest.request(Method::POST, &format!("/api/pictures/read?{query}")).body(bytes)).await
}

#[tokio::test]
async fn a_picture_becomes_a_sketch_that_the_drawer_takes() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let before = wren.get("/api/sketches").await.1.as_array().unwrap().len();
    let (status, read) = read(&wren, "width=12&height=12&pages=1&unit=in&name=Tide%20line", scan(Style::Phone)).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    assert_eq!((&read["sketch"]["name"], &read["sketch"]["origin"]["how"]), (&"Tide line".into(), &"challenge".into()));
    assert_eq!(read["corners"][0].as_array().unwrap().len(), 4);
    assert!(read["sketch"]["blocks"].as_array().unwrap().iter().all(|b| b["sure"].is_number()));
    assert_eq!(wren.get("/api/sketches").await.1.as_array().unwrap().len(), before, "reading keeps nothing");
    let (status, kept) = wren.post("/api/sketches", &read["sketch"]).await;
    assert_eq!((status, &kept["name"]), (StatusCode::CREATED, &"Tide line".into()));
}

#[tokio::test]
async fn what_is_no_picture_or_no_page_is_told_and_costs_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let refused = |query: &'static str, bytes: Vec<u8>| read(&wren, query, bytes);
    for (query, bytes, path, says) in [
        ("width=12&height=12", b"not a picture".to_vec(), "", "PNG, JPEG and WebP"),
        ("width=12&height=12", scan(Style::Clean)[..400].to_vec(), "", "broken"),
        ("width=twelve&height=12", scan(Style::Clean), "width", "twelve"),
        ("width=12&height=900", scan(Style::Clean), "height", "900"),
        ("width=12&height=12&pages=3", scan(Style::Clean), "pages", "3"),
        ("width=12&height=12&unit=ell", scan(Style::Clean), "unit", "ell"),
        ("width=12&height=12&corners=1,2,3", scan(Style::Clean), "corners", "1,2,3"),
        ("width=12&height=12&corners=0,0,1,0,1,1,0,1", scan(Style::Clean), "", "corners"),
    ] {
        let (status, problem) = refused(query, bytes).await;
        let finding = &problem["findings"][0];
        assert_eq!((status, finding["path"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some(path)), "{query}: {problem}");
        assert!(finding["found"].as_str().unwrap().contains(says), "{query}: {finding}");
    }
    let large = vec![0_u8; 17 * 1024 * 1024];
    assert_eq!(refused("width=12&height=12", large).await.0, StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn who_may_only_look_gives_no_pictures() {
    let house = Server::start().await;
    let gull = house.as_person("gull").await;
    assert_eq!(read(&gull, "width=12&height=12", scan(Style::Clean)).await.0, StatusCode::FORBIDDEN);
}
