//! Another team's things are not there, whatever the route: one table, which a new route fails until it stands in it.

use crate::machine::sent_to_machine;
use crate::printing::sent_to_printer;
use crate::support::{Guest, Server, answer, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::collections::BTreeSet;

/// Of which kind the id in a route is.
#[derive(Clone, Copy, PartialEq)]
enum Of {
    Page,
    Sketch,
    Person,
    Invite,
    Picture,
    Lift,
    Job,
    Call,
    PrintOrder,
    CutOrder,
    Entry,
    Thing,
}

/// Every route with an id, what it is the id of, and a body that would do for one's own.
fn routes(plan: &Value) -> Vec<(Method, &'static str, Of, Value)> {
    let (get, post, put, delete) = (Method::GET, Method::POST, Method::PUT, Method::DELETE);
    let none = Value::Null;
    let step = json!({"revision": 1, "station": "fit"});
    vec![
        (get.clone(), "/api/sketches/{id}", Of::Sketch, none.clone()),
        (
            put.clone(),
            "/api/sketches/{id}",
            Of::Sketch,
            json!({"revision": 1, "name": "x"}),
        ),
        (
            get.clone(),
            "/api/sketches/{id}/document",
            Of::Sketch,
            none.clone(),
        ),
        (
            put.clone(),
            "/api/sketches/{id}/document",
            Of::Sketch,
            plan["sketch"]["sketch"].clone(),
        ),
        (
            get.clone(),
            "/api/sketches/{id}/notation",
            Of::Sketch,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/sketches/{id}/pages",
            Of::Sketch,
            none.clone(),
        ),
        (
            post.clone(),
            "/api/sketches/{id}/copy",
            Of::Sketch,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/sketches/{id}/revisions",
            Of::Sketch,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/sketches/{id}/revisions/{revision}",
            Of::Sketch,
            none.clone(),
        ),
        (get.clone(), "/api/pages/{id}", Of::Page, none.clone()),
        (
            put.clone(),
            "/api/pages/{id}",
            Of::Page,
            json!({"details_revision": 1, "name": "x"}),
        ),
        (
            get.clone(),
            "/api/pages/{id}/details",
            Of::Page,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/pages/{id}/versions",
            Of::Page,
            none.clone(),
        ),
        (post.clone(), "/api/pages/{id}/copy", Of::Page, none.clone()),
        (
            Method::PATCH,
            "/api/pages/{id}/plan",
            Of::Page,
            json!({"revision": 1, "station": "fit", "patch": {}, "reason": "x"}),
        ),
        (post.clone(), "/api/pages/{id}/undo", Of::Page, step.clone()),
        (post.clone(), "/api/pages/{id}/redo", Of::Page, step),
        (
            post.clone(),
            "/api/pages/{id}/return",
            Of::Page,
            json!({"revision": 1, "station": "fit", "to": 1}),
        ),
        (
            get.clone(),
            "/api/pages/{id}/revisions",
            Of::Page,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/pages/{id}/revisions/{revision}",
            Of::Page,
            none.clone(),
        ),
        (
            post,
            "/api/pages/{id}/versions",
            Of::Page,
            json!({"revision": 1, "name": "x"}),
        ),
        (
            delete.clone(),
            "/api/pages/{id}/versions",
            Of::Page,
            none.clone(),
        ),
        (get.clone(), "/api/pages/{id}/call", Of::Page, none.clone()),
        (
            get.clone(),
            "/api/pages/{id}/layout",
            Of::Page,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/pages/{id}/drawing.svg",
            Of::Page,
            none.clone(),
        ),
        (
            get.clone(),
            "/api/pages/{id}/sheet.pdf",
            Of::Page,
            none.clone(),
        ),
        (get, "/api/pages/{id}/sheet.svg", Of::Page, none.clone()),
        (
            put,
            "/api/team/people/{id}",
            Of::Person,
            json!({"role": "guest"}),
        ),
        (
            delete.clone(),
            "/api/team/people/{id}",
            Of::Person,
            none.clone(),
        ),
        (delete, "/api/team/invites/{id}", Of::Invite, none.clone()),
        (
            Method::POST,
            "/api/team/people/{id}/password-link",
            Of::Person,
            none.clone(),
        ),
        (Method::GET, "/api/lifts/{id}", Of::Lift, none.clone()),
        (Method::GET, "/api/lifts/{id}/page", Of::Lift, none.clone()),
        (
            Method::POST,
            "/api/lifts/{id}/edges",
            Of::Lift,
            json!({"sides": [0.1, 0.1, 0.4, 0.4]}),
        ),
        (Method::GET, "/api/pictures/{id}", Of::Picture, none.clone()),
        (
            Method::GET,
            "/api/pictures/{id}/{form}",
            Of::Picture,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/pictures/{id}/reading",
            Of::Picture,
            none.clone(),
        ),
        (
            Method::DELETE,
            "/api/pictures/{id}",
            Of::Picture,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pictures/{id}/matters",
            Of::Picture,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/prints",
            Of::Page,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/prints.pdf",
            Of::Page,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/writing.pdf",
            Of::Page,
            none.clone(),
        ),
        (Method::GET, "/api/pages/{id}/log", Of::Page, none.clone()),
        (
            Method::GET,
            "/api/pages/{id}/pack.zip",
            Of::Page,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/prints/{sheet}",
            Of::Page,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/print-orders",
            Of::Page,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/pages/{id}/print-orders",
            Of::Page,
            json!({"paper": "4x6"}),
        ),
        (
            Method::GET,
            "/api/pages/{id}/cut-orders",
            Of::Page,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/pages/{id}/cut-orders",
            Of::Page,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/steps.pdf",
            Of::Page,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/pages/{id}/differences",
            Of::Page,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/pictures/{id}/made",
            Of::Picture,
            json!({"frame": [0.1, 0.1, 0.5, 0.5]}),
        ),
        (
            Method::GET,
            "/api/pages/{id}/gallery-entries",
            Of::Page,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/pages/{id}/gallery-entries",
            Of::Page,
            json!({}),
        ),
        (
            Method::POST,
            "/api/gallery-entries/{id}/ask-again",
            Of::Entry,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/gallery-entries/{id}/withdraw",
            Of::Entry,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/cut-orders/{id}/go-on",
            Of::CutOrder,
            none.clone(),
        ),
        (
            Method::POST,
            "/api/print-orders/{id}/go-on",
            Of::PrintOrder,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/print-orders/{id}/sheets/{sheet}",
            Of::PrintOrder,
            none.clone(),
        ),
        (
            Method::PUT,
            "/api/stash/{id}",
            Of::Thing,
            json!({"revision": 1, "item": {"unit": "in", "kind": "tool", "name": "Knife", "a": {"colours": [], "busy": 0, "direction": "any"}, "count": 1}}),
        ),
        (Method::DELETE, "/api/stash/{id}", Of::Thing, none.clone()),
        (Method::GET, "/api/jobs/{id}", Of::Job, none.clone()),
        (Method::DELETE, "/api/jobs/{id}", Of::Job, none.clone()),
        (Method::GET, "/api/calls/{id}", Of::Call, none.clone()),
        (
            Method::PUT,
            "/api/calls/{id}",
            Of::Call,
            json!({"revision": 1, "archived": true}),
        ),
        (
            Method::GET,
            "/api/calls/{id}/revisions",
            Of::Call,
            none.clone(),
        ),
        (
            Method::GET,
            "/api/calls/{id}/revisions/{revision}",
            Of::Call,
            none.clone(),
        ),
        (Method::POST, "/api/calls/{id}/taking", Of::Call, json!({})),
        (
            Method::DELETE,
            "/api/calls/{id}/taking",
            Of::Call,
            none.clone(),
        ),
        (Method::POST, "/api/calls/{id}/pages", Of::Call, json!({})),
        (Method::GET, "/api/calls/{id}/hop", Of::Call, none),
        (
            Method::PUT,
            "/api/calls/{id}/hop",
            Of::Call,
            json!({"revision": 1, "links": []}),
        ),
        (
            Method::POST,
            "/api/pictures/{id}/lift",
            Of::Picture,
            json!({"width": "12", "height": "12"}),
        ),
        (
            Method::POST,
            "/api/pages/{id}/sketch",
            Of::Page,
            json!({"name": "x"}),
        ),
        (
            Method::GET,
            "/api/pages/{id}/cut.pdf",
            Of::Page,
            Value::Null,
        ),
        (
            Method::GET,
            "/api/pages/{id}/cut.svg",
            Of::Page,
            Value::Null,
        ),
        (
            Method::POST,
            "/api/pictures/{id}/paper",
            Of::Picture,
            json!({"width": 12, "height": 12, "unit": "in"}),
        ),
        (
            Method::POST,
            "/api/pictures/{id}/edges",
            Of::Picture,
            json!({"sides": [0.1, 0.1, 0.4, 0.4]}),
        ),
    ]
}

#[tokio::test]
async fn another_teams_ids_are_missing_on_every_route() {
    let house = Server::start().await;
    // Sandpiper leads the neighbours, and has nothing to do with the club.
    let (wren, sandpiper) = (house.as_wren().await, house.as_person("sandpiper").await);
    let order = sent_to_printer(&wren).await;
    let cut_order = sent_to_machine(&wren).await;
    let entry = crate::gallery::entered(&wren).await;
    let page = wren.kites().await;
    let teal = wren.get("/api/team").await.1["people"]
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["account"] == "teal")
        .unwrap()
        .clone();
    let invite = wren
        .post("/api/team/invites", &json!({"role": "guest"}))
        .await
        .1;
    let picture = wren.get("/api/pictures").await.1[0].clone();
    let lift = wren
        .post(
            &format!("/api/pictures/{}/lift", id(&picture)),
            &json!({"width": "12", "height": "12"}),
        )
        .await
        .1;
    let path = format!("/api/pictures/{}/reading?width=12&height=12", id(&picture));
    let job = wren.post(&path, &Value::Null).await.1;
    let call = wren.get("/api/season").await.1["calls"][0].clone();
    let thing = wren.get("/api/stash?search=kites").await.1["items"][0].clone();
    let table = routes(&page["plan"]);
    let known: BTreeSet<(String, String)> = table
        .iter()
        .map(|r| (r.0.to_string().to_lowercase(), r.1.to_owned()))
        .collect();
    assert_eq!(
        known,
        described(),
        "every route with an id stands in the table"
    );
    for (method, path, of, body) in table {
        let foreign = match of {
            Of::Page => id(&page),
            Of::Sketch => page["sketch"].as_str().unwrap().to_owned(),
            Of::Person => id(&teal),
            Of::Invite => id(&invite),
            Of::Picture => id(&picture),
            Of::Lift => id(&lift),
            Of::Job => id(&job),
            Of::Call => id(&call),
            Of::PrintOrder => id(&order),
            Of::CutOrder => id(&cut_order),
            Of::Entry => id(&entry),
            Of::Thing => id(&thing),
        };
        let path = path
            .replace("{id}", &foreign)
            .replace("{revision}", "1")
            .replace("{form}", "thumb")
            .replace("{sheet}", "1")
            + if path.ends_with("/versions") && method == Method::DELETE {
                "?name=x"
            } else if path.contains("/prints") {
                "?paper=4x6"
            } else if path.ends_with("/document") && method == Method::PUT {
                "?revision=1"
            } else if path.ends_with("/reading") {
                "?width=12&height=12"
            } else {
                ""
            };
        let (status, problem) = ask(&sandpiper, &method, &path, &body).await;
        assert_eq!(
            (status, &problem["type"]),
            (StatusCode::NOT_FOUND, &json!("missing")),
            "{method} {path}: {problem}"
        );
    }
    // And none of it came through all the same.
    assert_eq!(wren.kites().await, page);
    assert_eq!(
        wren.get("/api/team").await.1["invites"]
            .as_array()
            .unwrap()
            .len(),
        1
    );
    let of_lift = format!("/api/sketches?picture={}&lift={}", id(&picture), id(&lift));
    assert_eq!(
        wren.post(&of_lift, &page["plan"]["sketch"]["sketch"])
            .await
            .0,
        StatusCode::CREATED
    );
    assert_eq!(
        sandpiper
            .post(&of_lift, &page["plan"]["sketch"]["sketch"])
            .await
            .0,
        StatusCode::NOT_FOUND
    );
    let foreign = format!("/api/sketches?picture={}", id(&picture));
    assert_eq!(
        sandpiper
            .post(&foreign, &page["plan"]["sketch"]["sketch"])
            .await
            .0,
        StatusCode::NOT_FOUND
    );
    let (status, _) = sandpiper
        .post("/api/pages", &json!({"sketch": page["sketch"]}))
        .await;
    assert_eq!(
        status,
        StatusCode::NOT_FOUND,
        "an id in a body is bound to the team too"
    );
}

async fn ask(guest: &Guest, method: &Method, path: &str, body: &Value) -> (StatusCode, Value) {
    let request = guest.request(method.clone(), path);
    answer(if body.is_null() {
        request
    } else {
        request.json(body)
    })
    .await
}

/// The routes with an id that the API describes of itself.
fn described() -> BTreeSet<(String, String)> {
    let description: Value = serde_json::from_str(&metrosk_server::openapi()).unwrap();
    let paths = description["paths"]
        .as_object()
        .unwrap()
        .iter()
        .filter(|(path, _)| path.contains("{id}"));
    paths
        .flat_map(|(path, methods)| {
            methods
                .as_object()
                .unwrap()
                .keys()
                .map(|m| (m.clone(), path.clone()))
                .collect::<Vec<_>>()
        })
        .collect()
}

#[tokio::test]
async fn she_sees_the_team_that_she_is_in() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let me = wren.get("/api/me").await.1;
    let other = me["teams"]
        .as_array()
        .unwrap()
        .iter()
        .find(|t| t["name"] == "Harbour Lamp Makers")
        .unwrap();
    let (status, me) = wren
        .put("/api/session/team", &json!({"team": other["id"]}))
        .await;
    assert_eq!((status, &me["role"]), (StatusCode::OK, &json!("member")));
    let pages = wren.get("/api/pages").await.1;
    assert_eq!(
        pages
            .as_array()
            .unwrap()
            .iter()
            .map(|p| p["name"].as_str().unwrap())
            .collect::<Vec<_>>(),
        ["Lamps at dusk"]
    );
    let nobody = json!({"team": "00000000-0000-4000-8000-000000000000"});
    assert_eq!(
        wren.put("/api/session/team", &nobody).await.0,
        StatusCode::NOT_FOUND
    );
}
