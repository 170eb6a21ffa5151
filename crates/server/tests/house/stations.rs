//! Several people at the stations of one page: only those at one station are in each other's way.

use crate::support::{Guest, Server, answer, change, id, next_step};
use reqwest::StatusCode;
use serde_json::{Value, json};

/// Two people at different stations: neither gets in the other's way, nor does one's undo take back what the other did.
#[tokio::test]
async fn people_at_different_stations_do_not_disturb_each_other() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let write = async |who: &Guest, from: &Value, station: &str, patch: Value, reason: &str| {
        let body = change(from, station, patch, reason);
        who.patch(&format!("{path}/plan"), &body).await
    };
    // Both start from the same version.
    let (status, hers) = write(
        &wren,
        &page,
        "fit",
        json!({"fit": {"snap": 0.25}}),
        "a coarser step",
    )
    .await;
    assert_eq!(status, StatusCode::OK);
    let (status, both) = write(
        &teal,
        &page,
        "papers",
        json!({"papers": {"note": "dots"}}),
        "dots",
    )
    .await;
    assert_eq!(status, StatusCode::OK, "{both}");
    assert_eq!(
        (
            &both["plan"]["fit"]["snap"],
            &both["plan"]["papers"]["note"]
        ),
        (&json!(0.25), &json!("dots"))
    );
    // Hers is undone from the version she knows; the other's stays.
    let step = json!({"revision": hers["revision"], "station": "fit"});
    let (status, undone) = wren.post(&format!("{path}/undo"), &step).await;
    assert_eq!(status, StatusCode::OK, "{undone}");
    assert_eq!(
        (
            &undone["plan"]["fit"]["snap"],
            &undone["plan"]["papers"]["note"]
        ),
        (&page["plan"]["fit"]["snap"], &json!("dots"))
    );
    assert_eq!(next_step(&undone, "papers", "undo"), "dots");
    // At one station the second is told, with both.
    let (status, told) = write(
        &teal,
        &page,
        "fit",
        json!({"fit": {"snap": 0.5}}),
        "coarser still",
    )
    .await;
    assert_eq!(
        (status, &told["newest"]["revision"]),
        (StatusCode::CONFLICT, &undone["revision"])
    );
}

/// What was changed since at another station can't be undone on its own: it would take that back too.
#[tokio::test]
async fn undo_leaves_alone_what_another_station_has_changed_since() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let write = async |from: &Value, station: &str, turn: u32| {
        let patch = json!({"sketch": {"turn": turn}});
        let body = change(from, station, patch, &format!("turned by {turn}"));
        wren.patch(&format!("{path}/plan"), &body).await.1
    };
    let turned = write(&page, "fit", 180).await;
    let again = write(&turned, "sketch", 0).await;
    let step = json!({"revision": again["revision"], "station": "fit"});
    let (status, told) = wren.post(&format!("{path}/undo"), &step).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(
        told["detail"].as_str().unwrap().contains("turned by 180"),
        "{told}"
    );
    let step = json!({"revision": again["revision"], "station": "sketch"});
    let (_, undone) = wren.post(&format!("{path}/undo"), &step).await;
    assert_eq!(undone["plan"]["sketch"]["turn"], 180);
    let step = json!({"revision": undone["revision"], "station": "fit"});
    let (status, undone) = wren.post(&format!("{path}/undo"), &step).await;
    assert_eq!(
        (status, &undone["plan"]["sketch"]),
        (StatusCode::OK, &page["plan"]["sketch"])
    );
}

/// Fifty people at the ten stations of one page, each until her change is in: only those at one station wait for each other.
#[tokio::test]
async fn of_fifty_writers_at_ten_stations_every_accepted_change_is_in_the_history_once() {
    const STATIONS: [&str; 10] = [
        "call", "sketch", "photos", "fit", "papers", "cut", "words", "clusters", "build", "log",
    ];
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = wren.kites().await;
    let path = format!("/api/pages/{}", id(&page));
    let write = async |n: usize, client: reqwest::Client, address: String, mut page: Value| {
        let station = STATIONS[n % 10];
        for _ in 0..100 {
            let patch = json!({station: {"notes": {format!("writer {n}"): n}}});
            let body = change(&page, station, patch, &format!("writer {n}"));
            match answer(client.patch(&address).json(&body)).await {
                (StatusCode::OK, _) => return,
                (StatusCode::CONFLICT, told) => {
                    // It was one at the same station who came first.
                    let newest = &told["newest"]["plan"][station]["notes"];
                    assert_ne!(&page["plan"][station]["notes"], newest, "{n}");
                    page = told["newest"].clone();
                }
                (other, told) => panic!("{other}: {told}"),
            }
        }
        panic!("writer {n} was never let in")
    };
    let address = format!("{}{path}/plan", wren.address);
    let writers: Vec<_> = (0..50)
        .map(|n| tokio::spawn(write(n, wren.client.clone(), address.clone(), page.clone())))
        .collect();
    for writer in writers {
        writer.await.unwrap();
    }
    let now = wren.get(&path).await.1;
    for n in 0..50 {
        let notes = &now["plan"][STATIONS[n % 10]]["notes"];
        assert_eq!(notes[format!("writer {n}")], n, "{notes}");
    }
    let history = wren.get(&format!("{path}/revisions")).await.1;
    let mut reasons: Vec<&str> = history
        .as_array()
        .unwrap()
        .iter()
        .filter_map(|r| r["reason"].as_str().filter(|r| r.starts_with("writer ")))
        .collect();
    assert_eq!(reasons.len(), 50);
    reasons.sort_unstable();
    reasons.dedup();
    assert_eq!(reasons.len(), 50, "none twice");
    // Any version between can be read: patches lie over whole plans.
    let first = page["revision"].as_i64().unwrap();
    let early = wren.get(&format!("{path}/revisions/{}", first + 1)).await.1;
    let notes = STATIONS
        .iter()
        .filter(|s| !early["plan"][**s]["notes"].is_null());
    assert_eq!(notes.count(), 1);
}
