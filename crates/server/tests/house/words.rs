//! A page's words: a title in the letters that are left, counted over all pages, and writing that goes on paper.

use crate::photos::bytes;
use crate::stash::layout_of;
use crate::support::{Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};

fn left(words: &Value, set: &str, letter: &str) -> u64 {
    let sets = words["sets"].as_array().unwrap();
    let set = sets.iter().find(|s| s["name"] == set).unwrap();
    let letters = set["letters"].as_array().unwrap();
    letters.iter().find(|l| l["letter"] == letter).unwrap()["left"]
        .as_u64()
        .unwrap()
}

#[tokio::test]
async fn a_title_spends_letters_and_gives_them_back() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = |page: &Value| json!({"page": id(page), "unit": "in", "words": kites["plan"]["words"], "layout": layout});
    let (status, words) = wren.post("/api/words/set", &ask(&kites)).await;
    assert_eq!(status, StatusCode::OK, "{words}");
    let first = &words["title"]["proposals"][0];
    assert_eq!(
        first["made"],
        json!(["N out of Z, a quarter turn"]),
        "{first}"
    );
    assert_eq!(left(&words, "Cork capitals", "Z"), 2);

    // She takes it: no other page has these letters any more; her own still has.
    let mut section = kites["plan"]["words"].clone();
    section["title"]["taken"] = first["taken"].clone();
    section["title"]["uses"] = first["uses"].clone();
    let path = format!("/api/pages/{}/plan", id(&kites));
    let write = change(&kites, "words", json!({"words": section}), "title set");
    let (status, taken) = wren.patch(&path, &write).await;
    assert_eq!(status, StatusCode::OK, "{taken}");
    let other = json!({"id": "00000000-0000-4000-8000-0000000000ff"});
    let (_, elsewhere) = wren.post("/api/words/set", &ask(&other)).await;
    assert_eq!(left(&elsewhere, "Cork capitals", "N"), 0);
    assert_eq!(left(&elsewhere, "Cork capitals", "Z"), 1);
    assert_eq!(
        elsewhere["sets"][0]["pages"],
        json!(["Kites over the flats"])
    );
    let (_, own) = wren.post("/api/words/set", &ask(&kites)).await;
    assert_eq!(left(&own, "Cork capitals", "N"), 2);

    // Undone, they are free for all.
    let undo = format!("/api/pages/{}/undo", id(&kites));
    let (status, undone) = wren
        .post(
            &undo,
            &json!({"revision": taken["revision"], "station": "words"}),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{undone}");
    let (_, free) = wren.post("/api/words/set", &ask(&other)).await;
    assert_eq!(left(&free, "Cork capitals", "N"), 2);

    let wrong = json!({"unit": "in", "words": {"title": {"text": "x", "lines": "few"}}});
    let (status, problem) = wren.post("/api/words/set", &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "words.title.lines");
}

#[tokio::test]
async fn writing_goes_on_paper_for_the_own_team_only() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let path = format!("/api/pages/{}/writing.pdf", id(&kites));
    let pdf = bytes(&wren, path.clone()).await;
    assert!(pdf.starts_with(b"%PDF"));
    let stranger = house.as_person("sandpiper").await;
    assert_eq!(stranger.get(&path).await.0, StatusCode::NOT_FOUND);
    // Without writing there is nothing to put there, and that is said.
    let write = change(
        &kites,
        "words",
        json!({"words": {"writing": null}}),
        "no writing",
    );
    let plan = format!("/api/pages/{}/plan", id(&kites));
    assert_eq!(wren.patch(&plan, &write).await.0, StatusCode::OK);
    let (status, problem) = wren.get(&path).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["findings"][0]["path"], "words.writing");
}
