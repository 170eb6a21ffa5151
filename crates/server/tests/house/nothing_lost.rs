//! What once lost work: each test is named after its mend.

use crate::support::{Guest, Server, answer, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

fn sketch(name: &str, x: f64) -> Value {
    let photo = json!({"id": "p1", "kind": "photo", "box": {"x": x, "y": 2, "w": 4, "h": 4}});
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": name, "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [photo]})
}

#[tokio::test]
async fn a_sketch_written_by_two_is_told_to_the_second_and_both_are_kept() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let added = wren.post("/api/sketches", &sketch("Tide", 1.0)).await.1;
    let path = format!("/api/sketches/{}", id(&added));
    let write = async |who: &Guest, x: f64, from: i64| {
        who.put(
            &format!("{path}/document?revision={from}"),
            &sketch("Tide", x),
        )
        .await
    };
    assert_eq!(added["revision"], 1);
    assert_eq!(write(&wren, 2.0, 1).await.1["revision"], 2);
    let (status, problem) = write(&teal, 3.0, 1).await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::CONFLICT, &json!("stale-sketch"))
    );
    let newest = &problem["newest_sketch"];
    assert_eq!(
        (
            &newest["revision"],
            &newest["document"]["blocks"][0]["box"]["x"]
        ),
        (&json!(2), &json!(2)),
        "she sees what the other made"
    );
    assert_eq!(write(&teal, 3.0, 2).await.0, StatusCode::OK);
    // Tags and a name are no way around it.
    let (status, problem) = teal
        .put(&path, &json!({"revision": 2, "name": "Ebb"}))
        .await;
    assert_eq!(
        (status, &problem["newest_sketch"]["name"]),
        (StatusCode::CONFLICT, &json!("Tide"))
    );
    let revisions = wren.get(&format!("{path}/revisions")).await.1;
    let told: Vec<(i64, &str)> = revisions
        .as_array()
        .unwrap()
        .iter()
        .map(|r| {
            (
                r["revision"].as_i64().unwrap(),
                r["author"].as_str().unwrap(),
            )
        })
        .collect();
    assert_eq!(told, [(3, "Teal"), (2, "Wren"), (1, "Wren")]);
    for (revision, x) in [(1, 1), (2, 2), (3, 3)] {
        assert_eq!(
            wren.get(&format!("{path}/revisions/{revision}")).await.1["blocks"][0]["box"]["x"],
            x
        );
    }
    assert_eq!(
        wren.get(&format!("{path}/revisions?before=2"))
            .await
            .1
            .as_array()
            .unwrap()
            .len(),
        1
    );
    assert_eq!(
        wren.get(&format!("{path}/revisions/9")).await.0,
        StatusCode::NOT_FOUND
    );
}

#[tokio::test]
async fn a_pages_name_and_date_changed_by_two_are_told_to_the_second_and_both_are_kept() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let from = page["details_revision"].clone();
    assert_eq!(
        wren.put(
            &path,
            &json!({"details_revision": from, "name": "Kites at noon"})
        )
        .await
        .0,
        StatusCode::OK
    );
    let (status, problem) = teal
        .put(
            &path,
            &json!({"details_revision": from, "due": "2031-01-02"}),
        )
        .await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::CONFLICT, &json!("stale-details"))
    );
    assert_eq!(problem["newest"]["name"], "Kites at noon");
    let details = wren.get(&format!("{path}/details")).await.1;
    let names: Vec<&str> = details
        .as_array()
        .unwrap()
        .iter()
        .map(|d| d["name"].as_str().unwrap())
        .collect();
    assert_eq!(names, ["Kites at noon", "Kites over the flats"]);
}

#[tokio::test]
async fn versions_have_a_list_of_their_own_and_a_name_taken_is_told() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let mut page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let name = async |revision: i64, name: &str| {
        wren.post(
            &format!("{path}/versions"),
            &json!({"revision": revision, "name": name}),
        )
        .await
    };
    assert_eq!(name(1, "the first").await.0, StatusCode::NO_CONTENT);
    for n in 0..205 {
        page = wren
            .patch(
                &format!("{path}/plan"),
                &crate::support::photos(&page, 1 + n % 6, "another count"),
            )
            .await
            .1;
    }
    let newest = page["revision"].as_i64().unwrap();
    let versions = wren.get(&format!("{path}/versions")).await.1;
    assert_eq!(
        (&versions[0]["name"], &versions[0]["revision"]),
        (&json!("the first"), &json!(1)),
        "two hundred steps later it is there"
    );
    let (status, problem) = name(newest, "the first").await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(
        problem["detail"]
            .as_str()
            .unwrap()
            .contains("Version 1 is called"),
        "{problem}"
    );
    assert_eq!(
        name(1, "the first").await.0,
        StatusCode::NO_CONTENT,
        "said again it is no news"
    );
    let first = wren.get(&format!("{path}/revisions")).await.1;
    let last = first.as_array().unwrap().last().unwrap()["revision"]
        .as_i64()
        .unwrap();
    let second = wren.get(&format!("{path}/revisions?before={last}")).await.1;
    assert_eq!(first.as_array().unwrap().len(), 200);
    assert_eq!(
        second.as_array().unwrap().last().unwrap()["revision"],
        1,
        "the history goes on behind its first page"
    );
}

#[tokio::test]
async fn who_was_taken_out_signs_in_and_comes_back_by_an_invitation() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let teal = house.as_person("teal").await;
    let me = teal.get("/api/me").await.1;
    let person = format!("/api/team/people/{}", me["id"].as_str().unwrap());
    assert_eq!(wren.delete(&person).await.0, StatusCode::NO_CONTENT);
    // She signs in all the same, and is in no team.
    let again = house.as_person("teal").await;
    let me = again.get("/api/me").await.1;
    assert_eq!(
        (&me["name"], &me["team"], &me["teams"]),
        (&json!("Teal"), &Value::Null, &json!([]))
    );
    assert_eq!(again.get("/api/pages").await.1["type"], "no-team");
    let invite = wren
        .post("/api/team/invites", &json!({"role": "member"}))
        .await
        .1;
    let link = invite["link"]
        .as_str()
        .unwrap()
        .replace("/join/", "/api/links/");
    let (status, me) = again.put(&link, &json!({})).await;
    assert_eq!((status, &me["role"]), (StatusCode::OK, &json!("member")));
    assert_eq!(again.get("/api/pages").await.0, StatusCode::OK);
}

#[tokio::test]
async fn a_lead_makes_a_link_for_a_new_password_that_works_once() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let teal = house.as_person("teal").await;
    let of = async |account: &str| {
        let people = wren.get("/api/team").await.1["people"].clone();
        let person = people
            .as_array()
            .unwrap()
            .iter()
            .find(|p| p["account"] == account)
            .unwrap();
        format!(
            "/api/team/people/{}/password-link",
            person["id"].as_str().unwrap()
        )
    };
    let path = of("teal").await;
    assert_eq!(
        teal.post(&path, &json!({})).await.0,
        StatusCode::FORBIDDEN,
        "only a lead"
    );
    let (status, made) = wren.post(&path, &json!({})).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    let link = made["link"]
        .as_str()
        .unwrap()
        .replace("/password/", "/api/password-links/");
    let stranger = house.stranger();
    assert_eq!(stranger.get(&link).await.1["account"], "teal");
    assert_eq!(
        stranger.put(&link, &json!({"password": "short"})).await.0,
        StatusCode::UNPROCESSABLE_ENTITY,
        "and the link still works"
    );
    assert_eq!(
        stranger
            .put(&link, &json!({"password": "a kite and a sledge"}))
            .await
            .0,
        StatusCode::OK
    );
    assert_eq!(stranger.get("/api/me").await.1["account"], "teal");
    assert_eq!(
        stranger
            .put(&link, &json!({"password": "another kite and sledge"}))
            .await
            .0,
        StatusCode::NOT_FOUND,
        "once"
    );
    assert_eq!(
        teal.get("/api/pages").await.0,
        StatusCode::UNAUTHORIZED,
        "her other sessions end"
    );
    let invite_with_it = made["link"]
        .as_str()
        .unwrap()
        .replace("/password/", "/api/links/");
    assert_eq!(
        house.stranger().get(&invite_with_it).await.0,
        StatusCode::NOT_FOUND,
        "it leads into no team"
    );
    // Wren is in a team that Sandpiper leads: a lead of the one team must not get into the other.
    let sandpiper = house.as_person("sandpiper").await;
    let people = sandpiper.get("/api/team").await.1["people"].clone();
    let wren_there = people
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["account"] == "wren")
        .unwrap()["id"]
        .as_str()
        .unwrap()
        .to_owned();
    let (status, problem) = sandpiper
        .post(
            &format!("/api/team/people/{wren_there}/password-link"),
            &json!({}),
        )
        .await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::CONFLICT, &json!("as-things-stand"))
    );
}

#[tokio::test]
async fn another_lift_of_a_picture_leaves_the_first_as_it_is() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let picture = wren.get("/api/pictures").await.1[0].clone();
    let lift = async |corners: &str| {
        let shown = json!({"width": "12", "height": "12", "corners": corners});
        wren.post(&format!("/api/pictures/{}/lift", id(&picture)), &shown)
            .await
            .1
    };
    let page = async |lift: &Value| {
        let response = wren
            .request(Method::GET, &format!("/api/lifts/{}/page", id(lift)))
            .send()
            .await
            .unwrap();
        response.bytes().await.unwrap()
    };
    let first = lift("10,10,400,10,400,400,10,400").await;
    let before = page(&first).await;
    let address = format!("/api/sketches?picture={}&lift={}", id(&picture), id(&first));
    let drawn = wren.post(&address, &sketch("Over the first", 1.0)).await.1;
    assert_eq!(
        (&drawn["picture"], &drawn["lift"]),
        (&picture["id"], &first["id"])
    );
    let second = lift("60,60,300,60,300,300,60,300").await;
    assert_ne!(first["id"], second["id"]);
    assert_ne!(page(&second).await, before);
    assert_eq!(page(&first).await, before);
    // A lift of another picture is no source of this one's sketch.
    let other = wren.get("/api/pictures").await.1[1].clone();
    let wrong = format!("/api/sketches?picture={}&lift={}", id(&other), id(&first));
    assert_eq!(
        wren.post(&wrong, &sketch("Mixed up", 1.0)).await.0,
        StatusCode::NOT_FOUND
    );
}

#[tokio::test]
async fn a_picture_is_kept_as_it_was_given_and_limits_are_told_before() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let limits = wren.get("/api/limits").await.1;
    assert_eq!(
        (&limits["file_bytes"], &limits["picture_types"][1]),
        (&json!(16 * 1024 * 1024), &json!("image/png"))
    );
    let mut png = Vec::new();
    let pixels: Vec<u8> = (0..200 * 200 * 3).map(|n| (n % 251) as u8).collect();
    let encoder = image::codecs::png::PngEncoder::new(&mut png);
    image::ImageEncoder::write_image(encoder, &pixels, 200, 200, image::ExtendedColorType::Rgb8)
        .unwrap();
    let (status, added) = answer(
        wren.request(Method::POST, "/api/pictures?name=Grain")
            .body(png.clone()),
    )
    .await;
    assert_eq!(status, StatusCode::CREATED, "{added}");
    let original = wren
        .request(
            Method::GET,
            &format!("/api/pictures/{}/original", id(&added)),
        )
        .send()
        .await
        .unwrap();
    assert_eq!(original.headers()["content-type"], "image/png");
    assert_eq!(
        original.bytes().await.unwrap(),
        png,
        "not a pixel is encoded anew, so it can't grow beyond what can be read"
    );
    assert_eq!(
        wren.get(&format!("/api/pictures/{}/thumb", id(&added)))
            .await
            .0,
        StatusCode::OK
    );
}

#[tokio::test]
async fn a_key_with_another_body_is_refused_and_with_the_same_acts_once() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let add = |name: &str| {
        wren.request(Method::POST, "/api/sketches")
            .header("idempotency-key", "once")
            .json(&sketch(name, 1.0))
    };
    let (status, first) = answer(add("One")).await;
    assert_eq!(status, StatusCode::CREATED);
    assert_eq!(answer(add("One")).await, (StatusCode::CREATED, first));
    let (status, problem) = answer(add("Two")).await;
    assert_eq!(
        (status, &problem["findings"][0]["found"]),
        (
            StatusCode::UNPROCESSABLE_ENTITY,
            &json!("the key of a write that sent something else")
        )
    );
    let sketches = wren.get("/api/sketches").await.1;
    assert_eq!(
        sketches
            .as_array()
            .unwrap()
            .iter()
            .filter(|s| s["name"] == "One" || s["name"] == "Two")
            .count(),
        1
    );
}

#[tokio::test]
async fn two_tabs_are_in_two_teams() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let teams = wren.get("/api/me").await.1["teams"].clone();
    let team = |name: &str| {
        teams
            .as_array()
            .unwrap()
            .iter()
            .find(|t| t["name"] == name)
            .unwrap()["id"]
            .as_str()
            .unwrap()
            .to_owned()
    };
    let (club, lamps) = (team("Slipway Paper Club"), team("Harbour Lamp Makers"));
    let pages = async |team: &str| {
        answer(
            wren.request(Method::GET, "/api/pages")
                .header("metrosk-team", team),
        )
        .await
        .1
    };
    // A layout may be made between two looks; the pages are the same.
    let ids = |pages: Value| pages.as_array().unwrap().iter().map(id).collect::<Vec<_>>();
    assert_eq!(ids(pages(&lamps).await).len(), 1);
    assert!(ids(pages(&club).await).len() > 1);
    assert_eq!(
        ids(wren.get(&format!("/api/pages?team={lamps}")).await.1),
        ids(pages(&lamps).await),
        "what sends no header says it in its address"
    );
    assert_eq!(
        answer(
            wren.request(Method::GET, "/api/me")
                .header("metrosk-team", &lamps)
        )
        .await
        .1["team"]["id"],
        json!(lamps)
    );
    // A tab in a team that she is no longer in gets nobody else's things.
    let none = "00000000-0000-4000-8000-000000000000";
    let (status, problem) = answer(
        wren.request(Method::GET, "/api/pages")
            .header("metrosk-team", none),
    )
    .await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::FORBIDDEN, &json!("no-team"))
    );
}
