//! Hops: a page's bones go on from maker to maker.

use crate::support::{Guest, Server, change, id};
use reqwest::StatusCode;
use serde_json::{Value, json};
use time::{Date, Duration, OffsetDateTime};

fn day(days: i64) -> String {
    let day: Date = (OffsetDateTime::now_utc() + Duration::days(days)).date();
    day.to_string()
}

async fn person(guest: &Guest, account: &str) -> Value {
    let team = guest.get("/api/team").await.1;
    let people = team["people"].as_array().unwrap();
    people.iter().find(|p| p["account"] == account).unwrap()["id"].clone()
}

async fn hop_of(guest: &Guest, name: &str) -> String {
    let season = guest.get("/api/season").await.1;
    let calls = season["calls"].as_array().unwrap();
    format!(
        "/api/calls/{}",
        id(calls.iter().find(|c| c["name"] == name).unwrap())
    )
}

#[tokio::test]
async fn a_page_goes_on_when_it_is_settled() {
    let house = Server::start().await;
    let (wren, teal) = (house.as_wren().await, house.as_person("teal").await);
    let path = hop_of(&wren, "Out on the flats").await;
    let (status, hop) = teal.get(&format!("{path}/hop")).await;
    assert_eq!(status, StatusCode::OK, "{hop}");
    let makers: Vec<&Value> = hop["links"]
        .as_array()
        .unwrap()
        .iter()
        .map(|l| &l["maker"])
        .collect();
    assert_eq!(makers, ["Dunlin", "Plover", "Wren", "Teal"]);
    assert_eq!(hop["links"][0]["changed"], Value::Null);
    let plover = &hop["links"][1];
    assert_eq!(
        (&plover["page_name"], &plover["settled"]),
        (&json!("Low water"), &json!(true))
    );
    assert_eq!(plover["changed"]["went"], 0, "{plover}");
    assert!(plover["changed"]["stayed"].as_u64().unwrap() >= 5);
    // Wren's fit is settled, so that Teal can begin: then Wren opens it again.
    assert_eq!(
        (&hop["links"][2]["settled"], &hop["links"][3]["ready"]),
        (&json!(true), &json!(true))
    );
    let kites = wren.kites().await;
    let open = change(
        &kites,
        "fit",
        json!({"fit": {"mark": null}}),
        "Fit open again",
    );
    let (status, reopened) = wren
        .patch(&format!("/api/pages/{}/plan", id(&kites)), &open)
        .await;
    assert_eq!(status, StatusCode::OK, "{reopened}");
    let (status, told) = teal.post(&format!("{path}/pages"), &json!({})).await;
    assert_eq!(status, StatusCode::CONFLICT, "{told}");
    assert!(
        told["detail"]
            .as_str()
            .unwrap()
            .starts_with("Wren has not settled"),
        "{told}"
    );
    let settle = change(
        &reopened,
        "fit",
        json!({"fit": {"mark": "settled"}}),
        "Fit settled",
    );
    wren.patch(&format!("/api/pages/{}/plan", id(&kites)), &settle)
        .await;

    let (status, page) = teal
        .post(&format!("{path}/pages"), &json!({"name": "Fog"}))
        .await;
    assert_eq!(status, StatusCode::CREATED, "{page}");
    assert_eq!(page["due"], day(10), "her own day in the chain");
    let credit = page["credit"].as_str().unwrap();
    assert!(
        credit.starts_with("Lifted from a page by Wren, after"),
        "{credit}"
    );
    assert_eq!(
        page["plan"]["sketch"]["sketch"]["canvas"]["pages"], 2,
        "it begins as Wren's spread"
    );
    let hop = teal.get(&format!("{path}/hop")).await.1;
    let mine = &hop["links"][3];
    assert_eq!(
        (&mine["me"], &mine["page_name"]),
        (&json!(true), &json!("Fog"))
    );
    assert_eq!(
        (&mine["changed"]["went"], &mine["changed"]["came"]),
        (&json!(0), &json!(0)),
        "{mine}"
    );
}

#[tokio::test]
async fn a_chain_is_written_closed_up_and_told_what_is_wrong() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let (plover, teal, gull) = (
        person(&wren, "plover").await,
        person(&wren, "teal").await,
        person(&wren, "gull").await,
    );
    let path = hop_of(&wren, "Out on the flats").await;
    let before = wren.get(&format!("{path}/hop")).await.1;
    let put = async |links: Value| {
        let revision = wren.get(&path).await.1["revision"].clone();
        wren.put(
            &format!("{path}/hop"),
            &json!({"revision": revision, "links": links}),
        )
        .await
    };
    for (links, at) in [
        (
            json!([{"person": plover, "day": day(3)}, {"person": teal, "day": day(3)}]),
            "links[1].day",
        ),
        (
            json!([{"person": plover, "day": day(3)}, {"person": teal, "day": day(4)}, {"person": plover, "day": day(5)}]),
            "links[2]",
        ),
        (json!([{"person": gull, "day": day(3)}]), "links[0].person"),
        (
            json!([{"name": "Dunlin", "day": "2020-01-01"}]),
            "links[0].day",
        ),
        (
            json!([{"name": "Dunlin", "url": "ftp://x", "day": day(3)}]),
            "links[0].url",
        ),
    ] {
        let (status, told) = put(links).await;
        assert_eq!(
            (status, &told["findings"][0]["path"]),
            (StatusCode::UNPROCESSABLE_ENTITY, &json!(at)),
            "{told}"
        );
    }
    // Another team's person and sketch are not there.
    let sandpiper = house.as_person("sandpiper").await;
    let foreign = person(&sandpiper, "sandpiper").await;
    assert_eq!(
        put(json!([{"person": foreign, "day": day(3)}])).await.0,
        StatusCode::NOT_FOUND
    );
    let theirs = sandpiper.get("/api/sketches").await.1[0]["id"].clone();
    assert_eq!(
        put(json!([{"name": "Dunlin", "sketch": theirs, "day": day(3)}]))
            .await
            .0,
        StatusCode::NOT_FOUND
    );
    // Nor is another team's page: it can't stand for one of hers.
    let foreign = sandpiper.get("/api/pages").await.1[0]["id"].clone();
    let (status, _) = wren
        .post(&format!("{path}/taking"), &json!({"page": foreign}))
        .await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert_eq!(wren.get(&format!("{path}/hop")).await.1, before);
    // Wren drops out: Teal comes after Plover now, and Wren's page stays on the table.
    let keep = |n: usize| {
        let l = &before["links"][n];
        match &l["person"] {
            Value::Null => {
                json!({"name": l["maker"], "url": l["url"], "sketch": l["sketch"], "day": l["day"]})
            }
            person => json!({"person": person, "day": l["day"]}),
        }
    };
    let (status, closed) = put(json!([keep(0), keep(1), keep(3)])).await;
    assert_eq!(status, StatusCode::OK, "{closed}");
    assert_eq!(
        (&closed["links"][2]["maker"], &closed["links"][2]["ready"]),
        (&json!("Teal"), &json!(true))
    );
    let kites = wren.kites().await;
    assert_eq!(kites["call"], Value::Null);
    // Who started from an older chain is told so.
    let stale = json!({"revision": 1, "links": []});
    let (status, told) = wren.put(&format!("{path}/hop"), &stale).await;
    assert_eq!(
        (status, &told["type"]),
        (StatusCode::CONFLICT, &json!("stale-call"))
    );
    // In the chain one is taken out, not given back.
    let plover = house.as_person("plover").await;
    assert_eq!(
        plover.delete(&format!("{path}/taking")).await.0,
        StatusCode::CONFLICT
    );
}
