//! The team's calls, its season and the addresses of its calendars.

use crate::support::{Guest, Server, answer, id};
use metrosk_server::keep_series_ahead;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use time::{Date, Duration, OffsetDateTime};

/// A day from today.
fn day(days: i64) -> String {
    let day: Date = (OffsetDateTime::now_utc() + Duration::days(days)).date();
    day.to_string()
}

fn call(name: &str, due: i64) -> Value {
    json!({"document": {"name": name, "kind": "challenge", "due": day(due)}})
}

fn names(list: &Value) -> Vec<String> {
    let all = list.as_array().unwrap().iter();
    all.map(|c| c["name"].as_str().unwrap().to_owned())
        .collect()
}

/// The call of a name in somebody's season.
async fn called(guest: &Guest, name: &str) -> Value {
    let season = guest.get("/api/season").await.1;
    let calls = season["calls"].as_array().unwrap();
    calls.iter().find(|c| c["name"] == name).unwrap().clone()
}

#[tokio::test]
async fn the_demos_season_says_who_makes_what_and_what_is_late() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (status, season) = wren.get("/api/season?zone=Europe/Lisbon").await;
    assert_eq!(status, StatusCode::OK, "{season}");
    assert_eq!(
        names(&season["calls"]),
        [
            "First frost",
            "From behind",
            "Only scraps",
            "Out on the flats",
            "All of the Ebb kit",
            "Only scraps",
            "All of the Ebb kit"
        ]
    );
    let behind = &season["calls"][1];
    assert_eq!(behind["makers"][0]["name"], "Wren");
    assert!(
        behind["makers"][0]["late_days"].as_i64().unwrap() >= 1,
        "{behind}"
    );
    assert!(behind["makers"][0]["settled"].as_u64().unwrap() >= 3);
    let open: Vec<&Value> = season["calls"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|c| c["open"] == true)
        .collect();
    assert_eq!(
        (open.len(), &open[0]["name"]),
        (1, &json!("All of the Ebb kit"))
    );
    let flats = &season["calls"][3];
    assert_eq!(flats["makers"][2]["name"], "Teal");
    assert_eq!(
        flats["makers"][2]["waits_for"],
        Value::Null,
        "Wren's page is settled"
    );
    assert!(flats["prize_at"].as_str().unwrap().ends_with("T23:00:00Z"));
    // Plover has nothing begun, and is free after the last that she has taken.
    let plover = season["free"]
        .as_array()
        .unwrap()
        .iter()
        .find(|f| f["maker"] == "Plover")
        .unwrap();
    assert_eq!(plover["from"], day(24));
    let notices = season["notices"].as_array().unwrap();
    assert_eq!(
        (&notices[0]["mine"], &notices[0]["what"]),
        (&json!(true), &json!("late"))
    );
    assert!(
        notices
            .iter()
            .any(|n| n["what"] == "waits" || n["what"] == "due"),
        "{notices:?}"
    );
    let (status, told) = wren.get("/api/season?zone=Nowhere").await;
    assert_eq!(
        (status, &told["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("zone"))
    );
}

#[tokio::test]
async fn a_lead_writes_a_call_a_maker_takes_it_and_begins_her_page() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let sketches = wren.get("/api/sketches").await.1;
    let mut new = call("Cold hands", 12);
    new["document"]["asks"] = json!([
        {"id": "a", "what": "pages", "count": 2},
        {"id": "b", "what": "page-size", "w": 8, "h": 8},
        {"id": "c", "what": "sketch"},
    ]);
    new["document"]["credits"] = json!([{"what": "sketch", "name": "Gull"}]);
    new["sketch"] = sketches[0]["id"].clone();
    let (status, made) = wren.post("/api/calls", &new).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    assert_eq!(made["document"]["sketch"]["name"], sketches[0]["name"]);
    let path = format!("/api/calls/{}", id(&made));

    let (status, taken) = teal.post(&format!("{path}/taking"), &json!({})).await;
    assert_eq!(
        (status, &taken["makers"][0]["name"]),
        (StatusCode::OK, &json!("Teal"))
    );
    assert!(!called(&wren, "Cold hands").await["open"].as_bool().unwrap());
    let (status, page) = teal
        .post(&format!("{path}/pages"), &json!({"name": "Mittens"}))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{page}");
    assert_eq!(
        (&page["name"], &page["due"]),
        (&json!("Mittens"), &json!(day(12)))
    );
    assert_eq!(
        page["call"],
        json!({"id": made["id"], "name": "Cold hands"})
    );
    assert_eq!(page["plan"]["fit"]["target"]["pages"], 2);
    assert_eq!(
        page["plan"]["fit"]["target"]["page"],
        json!({"w": 8, "h": 8})
    );
    assert_eq!(
        page["plan"]["call"]["of"],
        json!({"id": made["id"], "revision": 1})
    );
    let (_, asks) = teal.get(&format!("/api/pages/{}/call", id(&page))).await;
    assert_eq!(
        (&asks[0]["seen"], &asks[1]["seen"]),
        (&json!(true), &json!(true))
    );
    // One page a maker; another maker has one of her own.
    let (status, told) = teal.post(&format!("{path}/pages"), &json!({})).await;
    assert_eq!(
        (status, &told["type"]),
        (StatusCode::CONFLICT, &json!("as-things-stand"))
    );
    let (status, other) = wren.post(&format!("{path}/pages"), &json!({})).await;
    assert_eq!(
        (status, &other["name"]),
        (StatusCode::CREATED, &json!("Cold hands"))
    );
    let on_table = wren.get("/api/pages").await.1;
    let card = on_table
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["name"] == "Mittens")
        .unwrap();
    assert_eq!(card["call"]["name"], "Cold hands");

    // Given back, the page stays and answers no call.
    let (status, back) = teal.delete(&format!("{path}/taking")).await;
    assert_eq!(
        (status, back["makers"].as_array().unwrap().len()),
        (StatusCode::OK, 1)
    );
    let (_, page) = teal.get(&format!("/api/pages/{}", id(&page))).await;
    assert_eq!(
        (&page["name"], &page["call"]),
        (&json!("Mittens"), &Value::Null)
    );
    assert_eq!(
        teal.delete(&format!("{path}/taking")).await.0,
        StatusCode::CONFLICT
    );
    // A page that is there already can answer it too, but only one call.
    let with = json!({"page": page["id"]});
    let (_, taken) = teal.post(&format!("{path}/taking"), &with).await;
    assert_eq!(taken["makers"][1]["page_name"], "Mittens");
    let second = wren.post("/api/calls", &call("Another", 3)).await.1;
    let (status, told) = teal
        .post(&format!("/api/calls/{}/taking", id(&second)), &with)
        .await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(
        told["detail"].as_str().unwrap().contains("Cold hands"),
        "{told}"
    );
    // Nothing to begin with: said, and nothing is begun.
    let (status, told) = teal
        .post(&format!("/api/calls/{}/pages", id(&second)), &json!({}))
        .await;
    assert_eq!(
        (status, &told["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("sketch"))
    );
}

#[tokio::test]
async fn calls_are_versioned_and_a_late_write_loses_nothing() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let made = wren.post("/api/calls", &call("Cold hands", 12)).await.1;
    let path = format!("/api/calls/{}", id(&made));
    let mut document = made["document"].clone();
    document["text"] = json!("gloves or none");
    let (status, changed) = wren
        .put(&path, &json!({"revision": 1, "document": document}))
        .await;
    assert_eq!((status, &changed["revision"]), (StatusCode::OK, &json!(2)));
    let (status, told) = wren
        .put(&path, &json!({"revision": 1, "archived": true}))
        .await;
    assert_eq!(
        (status, &told["type"]),
        (StatusCode::CONFLICT, &json!("stale-call"))
    );
    assert_eq!(told["newest_call"]["document"]["text"], "gloves or none");
    let (_, aside) = wren
        .put(&path, &json!({"revision": 2, "archived": true}))
        .await;
    assert_eq!(aside["archived"], true);
    assert!(!names(&wren.get("/api/season").await.1["calls"]).contains(&"Cold hands".to_owned()));
    let (_, revisions) = wren.get(&format!("{path}/revisions")).await;
    let reasons: Vec<&Value> = revisions
        .as_array()
        .unwrap()
        .iter()
        .map(|r| &r["reason"])
        .collect();
    assert_eq!(reasons, ["set aside", "changed", "written"]);
    let (_, first) = wren.get(&format!("{path}/revisions/1")).await;
    assert_eq!(first, made["document"]);
    assert_eq!(
        wren.get(&format!("{path}/revisions/9")).await.0,
        StatusCode::NOT_FOUND
    );
}

#[tokio::test]
async fn what_is_wrong_is_told_and_nothing_is_half_done() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let before = wren.get("/api/season").await.1["calls"].clone();
    for (document, at) in [
        (json!({"name": "x", "due": "2020-01-01"}), "document.due"),
        (
            json!({"name": "x", "due": day(3), "shown": day(2)}),
            "document",
        ),
        (
            json!({"name": "x", "due": day(3), "due_time": "25:00"}),
            "document.due_time",
        ),
        (json!({"name": "x", "prize_time": "23:00"}), "document"),
        (
            json!({"name": "x", "due": day(3), "zone": "Nowhere/At all"}),
            "document.zone",
        ),
        (
            json!({"name": "x", "repeats": {"every": "weeks", "number": 2}}),
            "document",
        ),
        (
            json!({"name": "x", "due": day(3), "repeats": {"every": "seconds", "number": 1}}),
            "document.repeats.every",
        ),
        (
            json!({"name": "x", "due": day(3), "repeats": {"every": "weeks", "number": 9_000}}),
            "document.repeats.number",
        ),
        (json!({"name": ""}), "document.name"),
    ] {
        let (status, told) = wren
            .post("/api/calls", &json!({"document": document}))
            .await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{document}");
        assert_eq!(told["findings"][0]["path"], at, "{told}");
    }
    // Of several, one is wrong: none is kept, and each finding says which.
    let several = json!({"documents": [{"name": "Right", "due": day(3)}, {"name": "Wrong", "due": "1999-01-01"}, {"name": ""}]});
    let (status, told) = wren.post("/api/calls/several", &several).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let paths: Vec<&Value> = told["findings"]
        .as_array()
        .unwrap()
        .iter()
        .map(|f| &f["path"])
        .collect();
    assert_eq!(paths, ["documents[1].due", "documents[2].name"]);
    let megabyte = json!({"text": "x".repeat(1_000_000)});
    let (status, told) = wren.post("/api/calls/text", &megabyte).await;
    assert_eq!(
        (status, &told["findings"][0]["found"]),
        (
            StatusCode::UNPROCESSABLE_ENTITY,
            &json!("1000000 characters")
        )
    );
    assert_eq!(wren.get("/api/season").await.1["calls"], before);
    // A guest looks, and changes nothing.
    let gull = house.as_person("gull").await;
    assert_eq!(gull.get("/api/season").await.0, StatusCode::OK);
    assert_eq!(
        gull.post("/api/calls", &call("Mine", 3)).await.0,
        StatusCode::FORBIDDEN
    );
}

#[tokio::test]
async fn what_comes_again_is_made_ahead_and_follows_a_change() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut new = call("Sketch week", 3);
    new["document"]["repeats"] = json!({"every": "weeks", "number": 1});
    new["document"]["shown"] = json!(day(5));
    let made = wren.post("/api/calls", &new).await.1;
    assert_eq!(made["comes_again"], true);
    let weeks = async || -> Vec<(Value, Value)> {
        let calls = wren.get("/api/season").await.1["calls"].clone();
        let mine = calls
            .as_array()
            .unwrap()
            .clone()
            .into_iter()
            .filter(|c| c["name"].as_str().unwrap().starts_with("Sketch week"));
        mine.map(|c| (c["due"].clone(), c["shown"].clone()))
            .collect()
    };
    assert_eq!(
        weeks().await,
        [
            (json!(day(3)), json!(day(5))),
            (json!(day(10)), json!(day(12)))
        ]
    );
    // Looking after it twice makes nothing twice.
    keep_series_ahead(&house.app).await.unwrap();
    keep_series_ahead(&house.app).await.unwrap();
    assert_eq!(weeks().await.len(), 2);
    // Every second week from now on: the one after follows.
    let mut document = made["document"].clone();
    document["repeats"]["number"] = json!(2);
    let path = format!("/api/calls/{}", id(&made));
    let (status, changed) = wren
        .put(&path, &json!({"revision": 1, "document": document}))
        .await;
    assert_eq!(status, StatusCode::OK, "{changed}");
    assert_eq!(weeks().await[1].0, day(17));
    // Somebody has taken the next one: it stays when the row ends.
    let next = wren.get("/api/season").await.1["calls"]
        .as_array()
        .unwrap()
        .iter()
        .find(|c| c["due"] == day(17))
        .unwrap()
        .clone();
    wren.post(&format!("/api/calls/{}/taking", id(&next)), &json!({}))
        .await;
    document.as_object_mut().unwrap().remove("repeats");
    let (status, _) = wren
        .put(&path, &json!({"revision": 2, "document": document}))
        .await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(weeks().await.len(), 2);
    let (_, kept) = wren.get(&format!("/api/calls/{}", id(&next))).await;
    assert_eq!(
        (&kept["comes_again"], &kept["document"]["repeats"]),
        (&json!(false), &Value::Null)
    );
}

#[tokio::test]
async fn a_text_and_a_calendar_become_calls_once_they_are_looked_over() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let text = json!({"text": format!("Night tide\n- two pages\n- stitching\nSend it by {}", day(20)), "zone": "UTC"});
    let (status, read) = wren.post("/api/calls/text", &text).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    assert_eq!(
        (&read["document"]["name"], &read["document"]["due"]),
        (&json!("Night tide"), &json!(day(20)))
    );
    assert!(read["noticed"].as_array().unwrap().len() >= 4);
    assert_eq!(
        wren.post("/api/calls", &json!({"document": read["document"]}))
            .await
            .0,
        StatusCode::CREATED
    );

    let event = |n: usize, day: &str| {
        format!(
            "BEGIN:VEVENT\r\nUID:{n}\r\nSUMMARY:Club day {n}\r\nDTSTART;VALUE=DATE:{}\r\nEND:VEVENT\r\n",
            day.replace('-', "")
        )
    };
    let file =
        |events: String| format!("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{events}END:VCALENDAR\r\n");
    let send = async |text: String| {
        answer(
            wren.request(Method::POST, "/api/calls/calendar")
                .header("content-type", "text/calendar")
                .body(text),
        )
        .await
    };
    let (status, brought) = send(file([event(1, &day(8)), event(2, "2020-01-01")].concat())).await;
    assert_eq!(status, StatusCode::OK, "{brought}");
    assert_eq!(
        (&brought[0]["comes"], &brought[1]["comes"]),
        (&json!(true), &json!(false))
    );
    let (status, ids) = wren
        .post(
            "/api/calls/several",
            &json!({"documents": [brought[0]["document"]]}),
        )
        .await;
    assert_eq!(
        (status, ids.as_array().unwrap().len()),
        (StatusCode::CREATED, 1)
    );
    assert_eq!(called(&wren, "Club day 1").await["due"], day(8));
    let (status, told) = send(file(event(1, &day(8)).repeat(10_000))).await;
    assert_eq!(
        (status, &told["findings"][0]["found"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("10000 events"))
    );
    assert_eq!(
        send("no calendar".to_owned()).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[tokio::test]
async fn her_calendar_reads_her_dates_until_the_address_is_taken_back() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    assert_eq!(wren.get("/api/feed").await.1["made_at"], Value::Null);
    let made = wren.post("/api/feed", &Value::Null).await.1;
    let path = made["path"].as_str().unwrap().to_owned();
    // Whoever has the address reads it, without being signed in.
    let stranger = house.stranger();
    let response = stranger.request(Method::GET, &path).send().await.unwrap();
    assert_eq!(response.status(), StatusCode::OK);
    assert!(
        response.headers()["content-type"]
            .to_str()
            .unwrap()
            .starts_with("text/calendar")
    );
    let text = response.text().await.unwrap();
    // Read by another reader than the one that wrote it.
    let calendar = ical::IcalParser::new(text.as_bytes())
        .next()
        .unwrap()
        .unwrap();
    let summaries: Vec<String> = calendar
        .events
        .iter()
        .map(|e| {
            e.properties
                .iter()
                .find(|p| p.name == "SUMMARY")
                .unwrap()
                .value
                .clone()
                .unwrap()
        })
        .collect();
    assert!(
        summaries.contains(&"From behind: due".to_owned()),
        "{summaries:?}"
    );
    assert!(
        summaries.contains(&"All of the Ebb kit: due\\, nobody has it yet".to_owned()),
        "{summaries:?}"
    );
    assert!(
        !summaries.iter().any(|s| s.starts_with("Only scraps")),
        "that is Teal's and Plover's"
    );
    let kites = calendar
        .events
        .iter()
        .find(|e| {
            e.properties
                .iter()
                .any(|p| p.value.as_deref() == Some("Out on the flats: due"))
        })
        .unwrap();
    let start = kites
        .properties
        .iter()
        .find(|p| p.name == "DTSTART")
        .unwrap();
    assert_eq!(
        start.value.as_deref(),
        Some(day(3).replace('-', "").as_str()),
        "her own day in the hop"
    );
    assert_eq!(kites.alarms.len(), 1);
    // A new address ends the old one; taken back, both are gone at once. Teal's is her own.
    let again = wren.post("/api/feed", &Value::Null).await.1["path"]
        .as_str()
        .unwrap()
        .to_owned();
    assert_eq!(stranger.get(&path).await.0, StatusCode::NOT_FOUND);
    assert_eq!(teal.delete("/api/feed").await.0, StatusCode::NOT_FOUND);
    assert_eq!(stranger.get(&again).await.0, StatusCode::OK);
    assert_eq!(wren.delete("/api/feed").await.0, StatusCode::NO_CONTENT);
    assert_eq!(stranger.get(&again).await.0, StatusCode::NOT_FOUND);
    // Who leaves the team reads it no longer.
    let hers = teal.post("/api/feed", &Value::Null).await.1["path"]
        .as_str()
        .unwrap()
        .to_owned();
    // Hers they are whatever she is called.
    let namesake = json!({"name": "Wren", "defaults": {}});
    assert_eq!(teal.put("/api/me", &namesake).await.0, StatusCode::OK);
    let (_, text) = stranger.get(&hers).await;
    let text = text.as_str().unwrap().to_owned();
    assert!(
        text.contains("Only scraps: due") && !text.contains("From behind"),
        "{text}"
    );
    let people = wren.get("/api/team").await.1;
    let teal_id = people["people"]
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["account"] == "teal")
        .unwrap()
        .clone();
    assert!(
        wren.delete(&format!("/api/team/people/{}", id(&teal_id)))
            .await
            .0
            .is_success()
    );
    assert_eq!(stranger.get(&hers).await.0, StatusCode::NOT_FOUND);
}
