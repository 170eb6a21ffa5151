//! Signing in, joining, roles, defaults.

use crate::support::{Server, answer, id};
use metrosk_server::{Settings, bootstrap};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

#[tokio::test]
async fn the_first_lead_comes_in_by_a_link_that_works_once() {
    let house = Server::empty(Settings::default()).await;
    let old = bootstrap::link(&house.app).await.unwrap().unwrap();
    let link = bootstrap::link(&house.app).await.unwrap().unwrap();
    let stranger = house.stranger();
    let at = |link: &str| format!("/api/links/{}", link.trim_start_matches("/join/"));
    assert_eq!(
        stranger.get(&at(&old)).await.0,
        StatusCode::NOT_FOUND,
        "the next start makes a new one"
    );
    assert_eq!(
        stranger.get(&at(&link)).await.1,
        json!({"team": null, "role": "lead", "made_by": "the server"})
    );
    let new = json!({"account": "Avocet", "name": "Avocet", "password": "short", "team": "Mudflat Makers"});
    let (status, problem) = stranger.post(&at(&link), &new).await;
    assert_eq!(
        (status, &problem["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("password"))
    );
    let new = json!({"account": "Avocet", "name": "Avocet", "password": "long enough by far", "team": "Mudflat Makers"});
    let (status, me) = stranger.post(&at(&link), &new).await;
    assert_eq!(
        (status, &me["team"]["name"], &me["role"], &me["account"]),
        (
            StatusCode::OK,
            &json!("Mudflat Makers"),
            &json!("lead"),
            &json!("avocet")
        )
    );
    assert_eq!(
        stranger.get("/api/sketches").await,
        (StatusCode::OK, json!([])),
        "she is signed in"
    );
    assert_eq!(
        house.stranger().get(&at(&link)).await.0,
        StatusCode::NOT_FOUND
    );
    assert!(bootstrap::link(&house.app).await.unwrap().is_none());
    assert_eq!(
        house
            .stranger()
            .post("/api/session/demo", &json!({}))
            .await
            .0,
        StatusCode::NOT_FOUND,
        "no demo is served here"
    );
}

/// A server of before there were people: its one team has sketches and pages, and nobody in it.
#[tokio::test]
async fn pages_from_before_there_were_people_are_found_by_the_first_lead() {
    let house = Server::start().await;
    let pool = sqlx::PgPool::connect(&house.database.url).await.unwrap();
    for table in ["hop_links", "call_makers", "members", "people"] {
        sqlx::query(sqlx::AssertSqlSafe(format!("DELETE FROM {table}")))
            .execute(&pool)
            .await
            .unwrap();
    }
    let link = bootstrap::link(&house.app).await.unwrap().unwrap();
    let new = json!({"account": "avocet", "name": "Avocet", "password": "long enough by far", "team": "Mudflat Makers"});
    let avocet = house.stranger();
    let (status, me) = avocet
        .post(
            &format!("/api/links/{}", link.trim_start_matches("/join/")),
            &new,
        )
        .await;
    assert_eq!(
        (status, &me["team"]["name"]),
        (StatusCode::OK, &json!("Mudflat Makers"))
    );
    assert_eq!(avocet.kites().await["name"], "Kites over the flats");
}

#[tokio::test]
async fn a_lead_invites_changes_roles_and_takes_out() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (status, invite) = wren
        .post("/api/team/invites", &json!({"role": "guest"}))
        .await;
    assert_eq!(status, StatusCode::CREATED);
    let path = format!(
        "/api/links/{}",
        invite["link"]
            .as_str()
            .unwrap()
            .trim_start_matches("/join/")
    );
    let new = house.stranger();
    assert_eq!(new.get(&path).await.1["team"], "Slipway Paper Club");
    let taken = json!({"account": "teal", "name": "Knot", "password": "long enough by far"});
    assert_eq!(
        new.post(&path, &taken).await.0,
        StatusCode::CONFLICT,
        "a taken name does not use the link up"
    );
    let (status, me) = new
        .post(
            &path,
            &json!({"account": "knot", "name": "Knot", "password": "long enough by far"}),
        )
        .await;
    assert_eq!((status, &me["role"]), (StatusCode::OK, &json!("guest")));
    // A guest looks, and does not change.
    let page = new.kites().await;
    assert_eq!(
        new.change_page(
            &format!("/api/pages/{}", id(&page)),
            &json!({"name": "Mine"})
        )
        .await
        .0,
        StatusCode::FORBIDDEN
    );
    assert_eq!(
        new.post("/api/team/invites", &json!({"role": "lead"}))
            .await
            .0,
        StatusCode::FORBIDDEN
    );
    let person = format!("/api/team/people/{}", me["id"].as_str().unwrap());
    assert_eq!(
        wren.put(&person, &json!({"role": "member"})).await.0,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        new.change_page(
            &format!("/api/pages/{}", id(&page)),
            &json!({"name": "Ours"})
        )
        .await
        .0,
        StatusCode::OK
    );
    assert_eq!(wren.delete(&person).await.0, StatusCode::NO_CONTENT);
    let (status, problem) = new.get("/api/pages").await;
    assert_eq!(
        (status, &problem["type"]),
        (StatusCode::FORBIDDEN, &json!("no-team")),
        "who was taken out is out at once"
    );
    // A team is never left without a lead.
    let wren_id = wren.get("/api/me").await.1["id"].clone();
    let own = format!("/api/team/people/{}", wren_id.as_str().unwrap());
    assert_eq!(
        wren.put(&own, &json!({"role": "member"})).await.0,
        StatusCode::CONFLICT
    );
    assert_eq!(wren.delete(&own).await.0, StatusCode::CONFLICT);
}

#[tokio::test]
async fn an_invitation_is_taken_back_or_used_by_who_is_known_already() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (_, invite) = wren
        .post("/api/team/invites", &json!({"role": "member"}))
        .await;
    let path = format!(
        "/api/links/{}",
        invite["link"]
            .as_str()
            .unwrap()
            .trim_start_matches("/join/")
    );
    let team = wren.get("/api/team").await.1;
    assert_eq!(team["invites"].as_array().unwrap().len(), 1);
    assert!(
        team["invites"][0].get("link").is_none(),
        "the link is told once"
    );
    assert_eq!(
        wren.delete(&format!("/api/team/invites/{}", id(&invite)))
            .await
            .0,
        StatusCode::NO_CONTENT
    );
    assert_eq!(house.stranger().get(&path).await.0, StatusCode::NOT_FOUND);
    let (_, invite) = wren
        .post("/api/team/invites", &json!({"role": "member"}))
        .await;
    let path = format!(
        "/api/links/{}",
        invite["link"]
            .as_str()
            .unwrap()
            .trim_start_matches("/join/")
    );
    let sandpiper = house.as_person("sandpiper").await;
    let (status, me) = sandpiper.put(&path, &json!({})).await;
    assert_eq!(
        (status, &me["team"]["name"]),
        (StatusCode::OK, &json!("Slipway Paper Club"))
    );
    assert_eq!(me["teams"].as_array().unwrap().len(), 2);
}

#[tokio::test]
async fn guesses_are_slowed_down_whether_the_account_exists_or_not() {
    let house = Server::start().await;
    let stranger = house.stranger();
    for account in ["wren", "nobody-at-all"] {
        let guess = json!({"account": account, "password": "guess after guess"});
        for n in 0..8 {
            let (status, problem) = stranger.post("/api/session", &guess).await;
            assert_eq!(
                (status, &problem["type"]),
                (StatusCode::UNAUTHORIZED, &json!("wrong-sign-in")),
                "{account} {n}"
            );
        }
        let response = stranger
            .request(Method::POST, "/api/session")
            .json(&guess)
            .send()
            .await
            .unwrap();
        assert_eq!(response.status(), StatusCode::TOO_MANY_REQUESTS);
        assert!(response.headers().contains_key("retry-after"));
    }
    let right = json!({"account": "wren", "password": metrosk_demo::PASSWORD});
    assert_eq!(
        stranger.post("/api/session", &right).await.0,
        StatusCode::TOO_MANY_REQUESTS
    );
    assert_eq!(
        stranger
            .post(
                "/api/session",
                &json!({"account": "TEAL ", "password": metrosk_demo::PASSWORD})
            )
            .await
            .0,
        StatusCode::OK
    );
}

#[tokio::test]
async fn a_new_password_ends_the_other_sessions() {
    let house = Server::start().await;
    let (here, there) = (house.as_wren().await, house.as_wren().await);
    let wrong = json!({"old": "not this one", "new": "kites on the evening wind"});
    assert_eq!(
        here.put("/api/me/password", &wrong).await.1["findings"][0]["path"],
        "old"
    );
    let change = json!({"old": metrosk_demo::PASSWORD, "new": "kites on the evening wind"});
    assert_eq!(
        here.put("/api/me/password", &change).await.0,
        StatusCode::NO_CONTENT
    );
    assert_eq!(here.get("/api/pages").await.0, StatusCode::OK);
    assert_eq!(there.get("/api/pages").await.0, StatusCode::UNAUTHORIZED);
    let old = json!({"account": "wren", "password": metrosk_demo::PASSWORD});
    assert_eq!(
        house.stranger().post("/api/session", &old).await.0,
        StatusCode::UNAUTHORIZED
    );
}

#[tokio::test]
async fn signed_out_is_signed_out() {
    let house = Server::start().await;
    let wren = house.stranger();
    let response = wren
        .request(Method::POST, "/api/session/demo")
        .send()
        .await
        .unwrap();
    let cookie = response.headers()["set-cookie"]
        .to_str()
        .unwrap()
        .to_owned();
    assert!(
        cookie.contains("HttpOnly")
            && cookie.contains("SameSite=Lax")
            && !cookie.contains("Secure"),
        "{cookie}"
    );
    let value = cookie.split(';').next().unwrap().to_owned();
    assert_eq!(wren.delete("/api/session").await.0, StatusCode::NO_CONTENT);
    assert_eq!(wren.get("/api/pages").await.0, StatusCode::UNAUTHORIZED);
    let stolen = house
        .stranger()
        .request(Method::GET, "/api/pages")
        .header("cookie", value);
    assert_eq!(
        answer(stolen).await.0,
        StatusCode::UNAUTHORIZED,
        "the cookie is worth nothing any more"
    );
}

#[tokio::test]
async fn behind_tls_the_cookie_is_secure() {
    let settings = Settings {
        demo: true,
        public_url: Some("https://paper.example".to_owned()),
        ..Settings::default()
    };
    let house = Server::empty(settings).await;
    metrosk_server::demo::load_once(&house.app).await.unwrap();
    let stranger = house.stranger();
    let response = stranger
        .request(Method::POST, "/api/session/demo")
        .send()
        .await
        .unwrap();
    assert!(
        response.headers()["set-cookie"]
            .to_str()
            .unwrap()
            .contains("Secure")
    );
    assert!(response.headers().contains_key("strict-transport-security"));
}

#[tokio::test]
async fn a_new_page_starts_with_her_own_defaults() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let defaults = json!({"unit": "mm", "step": 0.5, "margin": 8, "fold_guard": 5, "border": 2, "theme": "dark"});
    let (status, me) = wren
        .put("/api/me", &json!({"name": "Wren", "defaults": defaults}))
        .await;
    assert_eq!(
        (status, &me["defaults"]["theme"]),
        (StatusCode::OK, &json!("dark"))
    );
    let sketch = wren.get("/api/sketches").await.1[0]["id"].clone();
    let (_, page) = wren.post("/api/pages", &json!({"sketch": sketch})).await;
    let fit = metrosk_testkit::fit_of(&page);
    let near = |value: &Value, expected: f64| (value.as_f64().unwrap() - expected).abs() < 1e-9;
    assert!(
        fit["unit"] == "mm"
            && near(&fit["snap"], 0.5)
            && near(&fit["target"]["margin"], 8.0)
            && near(&fit["target"]["page"]["w"], 304.8),
        "{fit}"
    );
    let wrong = json!({"name": "Wren", "defaults": {"margin": 99}});
    let (status, problem) = wren.put("/api/me", &wrong).await;
    assert_eq!(
        (status, &problem["findings"][0]["path"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("defaults.margin"))
    );
}
