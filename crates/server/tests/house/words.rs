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
async fn words_stand_on_a_photo_beside_faces_or_where_nothing_lies() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = |words: Value| json!({"page": id(&kites), "unit": "in", "words": words, "plan": kites["plan"], "layout": layout});
    let words = kites["plan"]["words"].clone();
    let (status, set) = wren.post("/api/words/set", &ask(words.clone())).await;
    assert_eq!(status, StatusCode::OK, "{set}");
    let places = set["places"].as_array().unwrap();
    let span = |b: &Value| ["x", "y", "w", "h"].map(|k| b[k].as_f64().unwrap());
    let overlap = |a: [f64; 4], b: [f64; 4]| {
        a[0] < b[0] + b[2] && b[0] < a[0] + a[2] && a[1] < b[1] + b[3] && b[1] < a[1] + a[3]
    };
    let blocks = layout["blocks"].as_array().unwrap();
    let mut photos = 0;
    for place in places {
        let own = span(&place["box"]);
        match place["kind"].as_str().unwrap() {
            "free" => {
                let solid = blocks.iter().filter(|b| b["kind"] != "wash");
                for block in solid {
                    assert!(!overlap(own, span(&block["box"])), "{place} on {block}");
                }
            }
            "photo" => {
                photos += 1;
                let photo = blocks.iter().find(|b| b["id"] == place["key"]).unwrap();
                let [x, y, w, h] = span(&photo["box"]);
                let within = own[0] >= x
                    && own[1] >= y
                    && own[0] + own[2] <= x + w
                    && own[1] + own[3] <= y + h;
                assert!(within, "{place} in {photo}");
            }
            _ => {}
        }
    }
    assert!(
        photos > 2 && places.iter().any(|p| p["kind"] == "free"),
        "{places:?}"
    );
    // Without what she marked on the prints the quiet part of some photo is larger.
    let mut unmarked = ask(words.clone());
    unmarked["plan"] = Value::Null;
    let (_, without) = wren.post("/api/words/set", &unmarked).await;
    let quiet = |set: &Value| -> f64 {
        let all = set["places"].as_array().unwrap().iter();
        all.filter(|p| p["kind"] == "photo")
            .map(|p| span(&p["box"]))
            .map(|s| s[2] * s[3])
            .sum()
    };
    assert!(
        quiet(&without) > quiet(&set) + 1.0,
        "{} {}",
        quiet(&without),
        quiet(&set)
    );
    // A title goes where she says, and its space with it.
    let free = places.iter().find(|p| p["kind"] == "free").unwrap();
    let mut moved = words.clone();
    moved["title"]["block"] = free["key"].clone();
    let (_, there) = wren.post("/api/words/set", &ask(moved)).await;
    assert_eq!(there["title"]["space"], free["box"]);
    // In columns there are as many lines again; on printed lines no more than the card has.
    let mut columns = words.clone();
    columns["writing"]["shape"] = json!({"kind": "columns", "count": 2});
    let (_, two) = wren.post("/api/words/set", &ask(columns)).await;
    assert_eq!(
        two["writing"]["room"].as_u64(),
        set["writing"]["room"].as_u64().map(|n| n * 2)
    );
    let mut card = words;
    card["writing"]["shape"] = json!({"kind": "printed", "lines": 3, "apart": 0.25});
    let (_, printed) = wren.post("/api/words/set", &ask(card.clone())).await;
    assert_eq!(printed["writing"]["slots"].as_array().unwrap().len(), 3);
    card["writing"]["shape"] = json!({"kind": "spiral"});
    let (status, wrong) = wren.post("/api/words/set", &ask(card)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        wrong["findings"][0]["path"], "words.writing.shape.kind",
        "{wrong}"
    );
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
