//! The stash: put away, looked for, held by plans as they are, and never more than there is.

use crate::support::{Events, Guest, Server, answer, change, id};
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

async fn thing(guest: &Guest, name: &str) -> Value {
    let (status, found) = guest.get("/api/stash?search=").await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let items = found["items"].as_array().unwrap();
    let found = items.iter().find(|t| t["item"]["name"] == name);
    found
        .unwrap_or_else(|| panic!("{name} is in the stash"))
        .clone()
}

/// A page's strip gets a paper.
async fn strip_in(guest: &Guest, page: &str, paper: &Value) -> Value {
    let page = guest.page(page).await;
    let patch = json!({"papers": {"pieces": {"s1": {"0": {"paper": {"item": id(paper)}}}}}});
    let write = change(&page, "papers", patch, "strip in a paper");
    let path = format!("/api/pages/{}/plan", id(&page));
    let (status, written) = guest.patch(&path, &write).await;
    assert_eq!(status, StatusCode::OK, "{written}");
    written
}

fn held(thing: &Value) -> (i64, i64) {
    (
        thing["held"].as_i64().unwrap(),
        thing["free"].as_i64().unwrap(),
    )
}

#[tokio::test]
async fn what_is_said_is_put_away_and_found_again() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let said = json!({"text": "2 x 12x12 dots / plain navy, strip 1/2 bottom, kit Spindrift, frayed", "unit": "in"});
    let (_, understood) = wren.post("/api/stash/said", &said).await;
    assert_eq!(understood[0]["item"]["kit"], "Spindrift");
    assert_eq!(understood[1]["unknown"], "frayed");
    let (status, put) = wren
        .post("/api/stash", &json!({"items": [understood[0]["item"]]}))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{put}");
    for (search, finds) in [
        ("spindrift", true),
        ("navy+dots", true),
        ("coral+spindrift", false),
        ("kit+Spindrift,+enough+for+a+12+in+strip", true),
        ("kit+Spindrift,+enough+for+a+14+in+strip", false),
        ("%25", false),
    ] {
        let (status, found) = wren.get(&format!("/api/stash?search={search}")).await;
        assert_eq!(status, StatusCode::OK);
        let dots = found["items"].as_array().unwrap().iter();
        assert_eq!(
            dots.filter(|t| t["item"]["name"] == "Dots").count() == 1,
            finds,
            "{search}"
        );
    }
    // Another team has none of it, and nothing half is put away.
    let sandpiper = house.as_person("sandpiper").await;
    let theirs = sandpiper.get("/api/stash?search=").await.1;
    assert_eq!(theirs["items"], json!([]));
    let mut wrong = understood[0]["item"].clone();
    wrong["count"] = json!(-1);
    let (status, problem) = wren
        .post(
            "/api/stash",
            &json!({"items": [understood[0]["item"], wrong]}),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "items[1].count");
    let dots = wren.get("/api/stash?search=spindrift").await.1;
    assert_eq!(dots["items"].as_array().unwrap().len(), 1);
}

#[tokio::test]
async fn two_pages_want_the_last_sheet_and_the_second_gets_it_when_the_first_lets_go() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let paper = thing(&wren, "Confetti").await;
    assert_eq!(held(&paper), (0, 1));
    let first = strip_in(&wren, "Kites over the flats", &paper).await;
    let second = strip_in(&wren, "Low sun on one sheet", &paper).await;
    let now = thing(&wren, "Confetti").await;
    assert_eq!(held(&now), (1, 0));
    let holds: Vec<(i64, i64)> = now["holds"]
        .as_array()
        .unwrap()
        .iter()
        .map(|h| (h["wanted"].as_i64().unwrap(), h["held"].as_i64().unwrap()))
        .collect();
    assert_eq!(holds, [(1, 1), (1, 0)]);
    // The second is told, and what else would do.
    let layout = layout_of(&wren, &second).await;
    let ask = json!({"page": id(&second), "unit": "in", "papers": second["plan"]["papers"], "layout": layout, "piece": "s1/0"});
    let (status, ranked) = wren.post("/api/papers/ranked", &ask).await;
    assert_eq!(status, StatusCode::OK, "{ranked}");
    let ranked = ranked.as_array().unwrap();
    let gone = ranked
        .iter()
        .find(|r| r["item"] == id(&paper).as_str())
        .unwrap();
    assert_eq!(gone["serves"], false);
    assert_eq!(gone["reasons"][0], "Held for Kites over the flats.");
    assert!(ranked[0]["serves"] == true && ranked.len() > 20);
    // There can't be fewer than are held, and what is held can't go.
    let path = format!("/api/stash/{}", id(&paper));
    let mut none = now["item"].clone();
    none["count"] = json!(0);
    let (status, problem) = wren
        .put(&path, &json!({"revision": now["revision"], "item": none}))
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "item.count");
    let (status, problem) = wren.delete(&path).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(
        problem["detail"]
            .as_str()
            .unwrap()
            .contains("Kites over the flats"),
        "{problem}"
    );
    // Undone on the first page, the second holds it; a later sheet comes to who waits.
    let undo = json!({"revision": first["revision"], "station": "papers"});
    let (status, undone) = wren
        .post(&format!("/api/pages/{}/undo", id(&first)), &undo)
        .await;
    assert_eq!(status, StatusCode::OK, "{undone}");
    let now = thing(&wren, "Confetti").await;
    assert_eq!(now["holds"].as_array().unwrap().len(), 1);
    assert_eq!(now["holds"][0]["page"], id(&second).as_str());
    assert_eq!(held(&now), (1, 0));
    let redo = json!({"revision": undone["revision"], "station": "papers"});
    wren.post(&format!("/api/pages/{}/redo", id(&first)), &redo)
        .await;
    assert_eq!(thing(&wren, "Confetti").await["holds"][1]["held"], 0);
    let mut two = now["item"].clone();
    two["count"] = json!(2);
    let revision = thing(&wren, "Confetti").await["revision"].clone();
    let (status, _) = wren
        .put(&path, &json!({"revision": revision, "item": two}))
        .await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(held(&thing(&wren, "Confetti").await), (2, 0));
    // A page that is put away lets go.
    let details = wren.page("Low sun on one sheet").await["details_revision"].clone();
    let away = json!({"details_revision": details, "archived": true});
    let (status, _) = wren
        .put(&format!("/api/pages/{}", id(&second)), &away)
        .await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(held(&thing(&wren, "Confetti").await), (1, 1));
}

/// The layout that a page's plan comes to.
pub(crate) async fn layout_of(guest: &Guest, page: &Value) -> Value {
    let (status, layout) = guest.get(&format!("/api/pages/{}/layout", id(page))).await;
    assert_eq!(status, StatusCode::OK, "{layout}");
    layout
}

#[tokio::test]
async fn as_many_sheets_are_held_as_the_pieces_take() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let layout = layout_of(&wren, &kites).await;
    let ask = json!({"unit": "in", "papers": kites["plan"]["papers"], "layout": layout});
    let (status, placed) = wren.post("/api/papers/placed", &ask).await;
    assert_eq!(status, StatusCode::OK, "{placed}");
    let pieces = placed["pieces"].as_array().unwrap();
    let ground = pieces.iter().find(|p| p["name"] == "ground-1").unwrap();
    assert_eq!(
        (&ground["cut"]["w"], &ground["page"]),
        (&json!(12), &json!(1))
    );
    let strip = pieces.iter().find(|p| p["name"] == "s1/0").unwrap();
    assert!(
        strip["told"][0].as_str().unwrap().contains("tucks under"),
        "{strip}"
    );
    // A ground takes a whole sheet: two pages, two sheets.
    let water = id(&thing(&wren, "Low water").await);
    assert_eq!(placed["needed"][&water], 2);
    let strips = id(&thing(&wren, "Tide waves").await);
    assert_eq!(placed["needed"][&strips], 1);
    let (status, problem) = wren
        .post(
            "/api/papers/placed",
            &json!({"unit": "in", "papers": {"tuck": -1}, "layout": layout}),
        )
        .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "papers.tuck");
}

#[tokio::test]
async fn fifty_writers_on_one_stash_take_no_more_than_there_is() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let paper = thing(&wren, "Bunting").await;
    let count = paper["item"]["count"].as_i64().unwrap();
    let sketch = wren.get("/api/sketches").await.1[0].clone();
    let start = |n: usize| {
        let (wren, sketch) = (&wren, id(&sketch));
        async move {
            let new = json!({"sketch": sketch, "name": format!("Page {n}")});
            let (status, page) = wren.post("/api/pages", &new).await;
            assert_eq!(status, StatusCode::CREATED, "{page}");
            page
        }
    };
    let pages = futures_util::future::join_all((0..50).map(start)).await;
    let take = |page: Value, wanted: bool| {
        let (wren, paper) = (&wren, id(&paper));
        async move {
            let ground = if wanted {
                json!({"item": paper})
            } else {
                Value::Null
            };
            let patch = json!({"papers": {"ground": {"0": ground}}});
            let path = format!("/api/pages/{}/plan", id(&page));
            for _ in 0..20 {
                let (status, written) = wren
                    .patch(&path, &change(&page, "papers", patch.clone(), "ground"))
                    .await;
                match status {
                    StatusCode::OK => return written,
                    StatusCode::SERVICE_UNAVAILABLE => tokio::task::yield_now().await,
                    other => panic!("{other} {written}"),
                }
            }
            panic!("the house was busy twenty times over");
        }
    };
    let taken = futures_util::future::join_all(pages.into_iter().map(|p| take(p, true))).await;
    let now = thing(&wren, "Bunting").await;
    assert_eq!(held(&now), (count, 0));
    let sum = |thing: &Value, field: &str| -> i64 {
        let holds = thing["holds"].as_array().unwrap().iter();
        holds.map(|h| h[field].as_i64().unwrap()).sum()
    };
    assert_eq!((sum(&now, "wanted"), sum(&now, "held")), (50, count));
    // Half of them let go at once: what they held goes to those who wait.
    let half = taken.into_iter().step_by(2).map(|p| take(p, false));
    futures_util::future::join_all(half).await;
    let now = thing(&wren, "Bunting").await;
    assert_eq!((sum(&now, "wanted"), sum(&now, "held")), (25, count));
    assert_eq!(held(&now), (count, 0));
}

/// What a page's newest plan asks of a paper: for its ground, once for each page that it lies under.
fn asked(page: &Value, paper: &str) -> i64 {
    let ground = page["plan"]["papers"]["ground"].as_object();
    let of = |g: &&Value| g["item"] == paper;
    ground.map_or(0, |g| g.values().filter(of).count() as i64)
}

#[tokio::test]
async fn what_is_held_adds_up_over_random_histories_with_undo() {
    const STEPS: usize = 80;
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let papers = [
        thing(&wren, "Bunting").await,
        thing(&wren, "Confetti").await,
    ];
    let sketch = wren.get("/api/sketches").await.1[0].clone();
    let mut pages = Vec::new();
    for n in 0..4 {
        let new = json!({"sketch": id(&sketch), "name": format!("Page {n}")});
        pages.push(wren.post("/api/pages", &new).await.1);
    }
    let mut random = StdRng::seed_from_u64(18);
    let mut undone = 0;
    for step in 0..STEPS {
        let n = random.random_range(0..pages.len());
        let path = format!("/api/pages/{}", id(&pages[n]));
        let (status, written) = if random.random_bool(0.35) {
            let undo = json!({"revision": pages[n]["revision"], "station": "papers"});
            wren.post(&format!("{path}/undo"), &undo).await
        } else {
            let ground = match random.random_range(0..3) {
                2 => Value::Null,
                paper => json!({"item": id(&papers[paper])}),
            };
            let patch = json!({"papers": {"ground": {"0": ground}}});
            let write = change(&pages[n], "papers", patch, &format!("ground {step}"));
            wren.patch(&format!("{path}/plan"), &write).await
        };
        if status == StatusCode::OK {
            undone += usize::from(written["plan"] != pages[n]["plan"]);
        } else {
            assert_eq!(status, StatusCode::CONFLICT, "{written}");
        }
        pages[n] = wren.get(&path).await.1;
        for paper in &papers {
            let now = thing(&wren, paper["item"]["name"].as_str().unwrap()).await;
            let holds = now["holds"].as_array().unwrap();
            let of_page = |page: &Value, field: &str| -> i64 {
                let own = holds.iter().filter(|h| h["page"] == page["id"]);
                own.map(|h| h[field].as_i64().unwrap()).sum()
            };
            for page in &pages {
                assert_eq!(
                    of_page(page, "wanted"),
                    asked(page, &id(paper)),
                    "step {step}: {now}"
                );
            }
            let all_held: i64 = holds.iter().map(|h| h["held"].as_i64().unwrap()).sum();
            let (held, free) = held(&now);
            let count = now["item"]["count"].as_i64().unwrap();
            assert_eq!((held, held + free), (all_held, count), "step {step}: {now}");
            let all_wanted: i64 = holds.iter().map(|h| h["wanted"].as_i64().unwrap()).sum();
            assert_eq!(held, all_wanted.min(count), "step {step}: {now}");
        }
    }
    assert!(undone > STEPS / 2, "most steps change a plan");
}

#[tokio::test]
async fn papers_are_dealt_out_over_a_grid_and_a_locked_one_stays() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let sketches = wren.get("/api/sketches").await.1;
    let flags = sketches
        .as_array()
        .unwrap()
        .iter()
        .find(|s| s["name"] == "Flag row")
        .unwrap();
    let new = json!({"sketch": id(flags), "name": "Flags for two"});
    let page = wren.post("/api/pages", &new).await.1;
    let layout = layout_of(&wren, &page).await;
    let mut papers = Vec::new();
    for name in ["Awning", "Teal gingham", "Red gingham"] {
        papers.push(json!({"item": id(&thing(&wren, name).await), "side": "a"}));
    }
    let ask = |decided: Value, seed: u64| {
        json!({"page": id(&page), "unit": "in", "papers": decided, "layout": layout, "block": "g1", "part": 0,
        "deal": papers, "seed": seed})
    };
    let (status, dealt) = wren.post("/api/papers/dealt", &ask(json!({}), 1)).await;
    assert_eq!(status, StatusCode::OK, "{dealt}");
    // Four across, then five with half ones at both ends.
    assert_eq!(dealt["units"].as_object().unwrap().len(), 9);
    assert_eq!((&dealt["met"], &dealt["short"]), (&json!([]), &json!(0)));
    let locked = json!({"pieces": {"g1": {"0": {"units": {"1/1": papers[2]}, "locked": ["1/1"]}}}});
    for seed in 0..4 {
        let (_, dealt) = wren
            .post("/api/papers/dealt", &ask(locked.clone(), seed))
            .await;
        assert_eq!(dealt["units"]["1/1"], papers[2]);
        assert_eq!(dealt["met"], json!([]));
    }
    let mut nowhere = ask(json!({}), 1);
    nowhere["block"] = json!("p1");
    let (status, problem) = wren.post("/api/papers/dealt", &nowhere).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["findings"][0]["path"], "block");
}

#[tokio::test]
async fn a_table_goes_out_and_in_again_and_nothing_of_a_wrong_one_stays() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let all = |found: Value| -> Vec<Value> {
        let items = found["items"].as_array().unwrap().clone();
        items.into_iter().map(|t| t["item"].clone()).collect()
    };
    let before = all(wren.get("/api/stash").await.1);
    let table = wren
        .request(Method::GET, "/api/stash/table")
        .send()
        .await
        .unwrap();
    assert_eq!(table.headers()["content-type"], "text/csv; charset=utf-8");
    let text = table.text().await.unwrap();
    assert!(text.lines().count() > 50, "{text}");
    let bring = |text: String| {
        let request = wren.request(Method::POST, "/api/stash/table");
        let request = request.header("content-type", "text/csv").body(text);
        async move { answer(request).await }
    };
    let (status, done) = bring(text.clone()).await;
    assert_eq!(status, StatusCode::OK, "{done}");
    assert_eq!(
        (&done["new"], done["changed"].as_u64()),
        (&json!(0), Some(before.len() as u64))
    );
    assert_eq!(all(wren.get("/api/stash").await.1), before);
    // Into a team that has none of it, it is the same stash.
    let sandpiper = house.as_person("sandpiper").await;
    let request = sandpiper.request(Method::POST, "/api/stash/table");
    let (status, done) = answer(
        request
            .header("content-type", "text/csv")
            .body(text.clone()),
    )
    .await;
    assert_eq!(
        (status, done["new"].as_u64()),
        (StatusCode::OK, Some(before.len() as u64)),
        "{done}"
    );
    let theirs = all(sandpiper.get("/api/stash").await.1);
    assert_eq!(theirs.len(), before.len());
    assert!(before.iter().all(|item| theirs.contains(item)));
    // Two rows are wrong: both are told, and the good one is not put away.
    let wrong = "name;count;width;height\nGood;1;12;12\nDots;-1;12;12\nWaves;1;wide;12\n";
    let (status, problem) = bring(wrong.to_owned()).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let paths: Vec<&Value> = problem["findings"]
        .as_array()
        .unwrap()
        .iter()
        .map(|f| &f["path"])
        .collect();
    assert_eq!(paths, ["row 3.count", "row 4.width"]);
    assert_eq!(all(wren.get("/api/stash").await.1), before);
    // What pages hold can't be taken away by a table.
    let held = thing(&wren, "Low water").await;
    let (status, problem) = bring(format!(
        "id,name,count,width,height\n{},Low water,0,12,12\n",
        id(&held)
    ))
    .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert!(
        problem["detail"].as_str().unwrap().contains("held"),
        "{problem}"
    );
}

#[tokio::test]
async fn what_is_hers_alone_is_seen_by_her_and_can_be_the_teams_again() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let said = json!({"text": "2 x 12x12 heron", "unit": "in"});
    let (_, understood) = wren.post("/api/stash/said", &said).await;
    let (status, put) = wren
        .post(
            "/api/stash",
            &json!({"items": [understood[0]["item"]], "own": true}),
        )
        .await;
    assert_eq!(
        (status, &put[0]["own"]),
        (StatusCode::CREATED, &json!(true))
    );
    let teal = house.as_person("teal").await;
    let seen = |found: Value| found["items"].as_array().unwrap().len();
    let search = "/api/stash?search=heron";
    assert_eq!(seen(teal.get(search).await.1), 0);
    let write = json!({"revision": put[0]["revision"], "item": put[0]["item"], "own": false});
    let path = format!("/api/stash/{}", id(&put[0]));
    let (status, changed) = wren.put(&path, &write).await;
    assert_eq!(
        (status, &changed["own"]),
        (StatusCode::OK, &json!(false)),
        "{changed}"
    );
    assert_eq!(seen(teal.get(search).await.1), 1);
}

#[tokio::test]
async fn pages_in_the_making_tell_what_they_would_take_of_a_kit() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (status, uses) = wren.get("/api/stash/kit?kit=Ebb").await;
    assert_eq!(status, StatusCode::OK, "{uses}");
    let uses = uses.as_array().unwrap();
    assert!(!uses.is_empty());
    for used in uses {
        assert!(used["served"].as_u64() <= used["open"].as_u64(), "{used}");
        assert!(!used["takes"].as_object().unwrap().is_empty(), "{used}");
    }
    assert_eq!(wren.get("/api/stash/kit?kit=No+such").await.1, json!([]));
    // Another team's pages take nothing.
    let sandpiper = house.as_person("sandpiper").await;
    assert_eq!(sandpiper.get("/api/stash/kit?kit=Ebb").await.1, json!([]));
}

/// A striped sheet on a dark table, a little turned.
fn striped_sheet() -> Vec<u8> {
    let (sin, cos) = 0.05_f64.sin_cos();
    let picture = image::RgbImage::from_fn(900, 900, |x, y| {
        let (x, y) = (f64::from(x) - 450.0, f64::from(y) - 450.0);
        let (u, v) = (x * cos + y * sin + 320.0, y * cos - x * sin + 320.0);
        if !(0.0..640.0).contains(&u) || !(0.0..640.0).contains(&v) {
            image::Rgb([70, 58, 50])
        } else if u % 64.0 < 30.0 {
            image::Rgb([40, 90, 150])
        } else {
            image::Rgb([248, 243, 230])
        }
    });
    let mut bytes = std::io::Cursor::new(Vec::new());
    picture
        .write_to(&mut bytes, image::ImageFormat::Png)
        .unwrap();
    bytes.into_inner()
}

#[tokio::test]
async fn a_paper_is_told_by_its_picture() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let put = wren.request(Method::POST, "/api/pictures?name=stripes");
    let (status, picture) = answer(put.body(striped_sheet())).await;
    assert_eq!(status, StatusCode::CREATED, "{picture}");
    let path = format!("/api/pictures/{}/paper", id(&picture));
    let shown = json!({"width": 12, "height": 12, "unit": "in"});
    let (status, told) = wren.post(&path, &shown).await;
    assert_eq!(status, StatusCode::OK, "{told}");
    let side = &told["side"];
    assert_eq!(side["direction"], "down", "{side}");
    let scale = side["scale"].as_f64().unwrap();
    assert!((1.0..=1.4).contains(&scale), "{scale}");
    assert!(side["colours"].as_array().unwrap().len() >= 2);
    // What was straightened is kept, but offered neither as a sketch nor as a photo.
    let offered = wren.get("/api/pictures").await.1;
    let all = offered.as_array().unwrap();
    assert!(all.iter().all(|p| p["id"] != side["picture"]));
    for (wrong, path_of) in [
        (json!({"width": 0, "height": 12, "unit": "in"}), "width"),
        (
            json!({"width": 12, "height": 12, "unit": "in", "corners": [[1, 1]]}),
            "corners",
        ),
    ] {
        let (status, problem) = wren.post(&path, &wrong).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(problem["findings"][0]["path"], path_of);
    }
}

/// A page is finished or taken up again.
async fn finish(guest: &Guest, page: &Value, finished: bool) {
    let newest = guest.get(&format!("/api/pages/{}", id(page))).await.1;
    let change = json!({"details_revision": newest["details_revision"], "finished": finished});
    let path = format!("/api/pages/{}", id(page));
    let (status, told) = guest.put(&path, &change).await;
    assert_eq!(status, StatusCode::OK, "{told}");
}

#[tokio::test]
async fn what_a_finished_page_is_made_of_goes_out_of_the_stash_and_comes_back_with_it() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let kites = wren.kites().await;
    let counts = |t: &Value| {
        (
            t["item"]["count"].as_i64().unwrap(),
            t["held"].as_i64().unwrap(),
        )
    };
    // Two grounds, once it is known how the page lies.
    let water = thing(&wren, "Low water").await;
    let mut events = Events::of(&wren, Some(0)).await;
    while thing(&wren, "Low water").await["held"] != 2 {
        events.until(|_, e| e["thing"] == water["id"]).await;
    }
    let before = counts(&thing(&wren, "Low water").await);
    for _ in 0..2 {
        finish(&wren, &kites, true).await;
        assert_eq!(
            counts(&thing(&wren, "Low water").await),
            (before.0 - before.1, 0)
        );
        // Nothing more goes when the page is only called otherwise.
        let newest = wren.get(&format!("/api/pages/{}", id(&kites))).await.1;
        let name = json!({"details_revision": newest["details_revision"], "due": null});
        wren.put(&format!("/api/pages/{}", id(&kites)), &name).await;
        assert_eq!(
            counts(&thing(&wren, "Low water").await),
            (before.0 - before.1, 0)
        );
        finish(&wren, &kites, false).await;
        assert_eq!(counts(&thing(&wren, "Low water").await), before);
    }
    // Taken off the plan of a finished page, a sheet is there again.
    finish(&wren, &kites, true).await;
    let newest = wren.get(&format!("/api/pages/{}", id(&kites))).await.1;
    let patch = json!({"papers": {"ground": {"1": null}}});
    let path = format!("/api/pages/{}/plan", id(&kites));
    let (status, saved) = wren
        .patch(&path, &change(&newest, "papers", patch, "one ground"))
        .await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    assert_eq!(counts(&thing(&wren, "Low water").await), (before.0 - 1, 0));
}
