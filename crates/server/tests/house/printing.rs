//! Printing over HTTP: sheets to look at, and orders that lose nothing and print nothing twice.

use crate::photos::bytes;
use crate::support::{Events, Guest, Server, change, id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// The demo's spread with its low sun, a file, in place of the far-off kites.
async fn with_a_file(guest: &Guest) -> Value {
    let page = guest.kites().await;
    let mut prints = page["plan"]["photos"]["photos"].clone();
    prints[5]["aside"] = json!(true);
    prints[7].as_object_mut().unwrap().remove("aside");
    let patch = json!({"photos": {"photos": prints}});
    let path = format!("/api/pages/{}/plan", id(&page));
    let (status, saved) = guest
        .patch(&path, &change(&page, "photos", patch, "low sun"))
        .await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    saved
}

/// An order for the demo's file.
pub(crate) async fn sent_to_printer(guest: &Guest) -> Value {
    let page = with_a_file(guest).await;
    let path = format!("/api/pages/{}/print-orders", id(&page));
    let (status, order) = guest.post(&path, &json!({"paper": "8x10"})).await;
    assert_eq!(status, StatusCode::ACCEPTED, "{order}");
    order
}

#[tokio::test]
async fn files_lie_on_sheets_as_pdf_and_as_pictures() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = with_a_file(&wren).await;
    let path = format!("/api/pages/{}/prints", id(&page));
    let (status, sheets) = wren.get(&format!("{path}?paper=8x10&bleed=0.125")).await;
    assert_eq!(status, StatusCode::OK, "{sheets}");
    let photo = &sheets["sheets"][0]["photos"][0];
    assert_eq!(photo["print"], "8");
    let layout = wren
        .get(&format!("/api/pages/{}/layout", id(&page)))
        .await
        .1;
    let block = layout["blocks"]
        .as_array()
        .unwrap()
        .iter()
        .find(|b| b["photo"] == "8")
        .unwrap()
        .clone();
    // At its exact crop, with the bleed all round; it may lie on its side.
    let sides = |b: &Value| {
        let mut sides = [b["w"].as_f64().unwrap(), b["h"].as_f64().unwrap()];
        sides.sort_by(f64::total_cmp);
        sides
    };
    let (printed, slot) = (sides(&photo["box"]), sides(&block["box"]));
    assert!(
        (printed[0] - slot[0] - 0.25).abs() < 1e-6 && (printed[1] - slot[1] - 0.25).abs() < 1e-6,
        "{printed:?} {slot:?}"
    );
    let pdf = bytes(
        &wren,
        format!("/api/pages/{}/prints.pdf?paper=8x10", id(&page)),
    )
    .await;
    assert!(pdf.starts_with(b"%PDF"));
    let jpeg = bytes(&wren, format!("{path}/1?paper=8x10")).await;
    let sheet = metrosk_vision::decode(&jpeg).unwrap().pixels;
    assert_eq!(sheet.dimensions(), (2400, 3000), "300 dots an inch");
    let (status, wrong) = wren.get(&format!("{path}?paper=poster")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        wrong["findings"][0]["allowed"]
            .as_str()
            .unwrap()
            .contains("10x15 cm"),
        "{wrong}"
    );
    let small = wren.get(&format!("{path}?paper=4x6&bleed=1")).await.1;
    assert_eq!(small["too_large"], json!(["8"]));
}

/// Waits until an order's job has ended: the order.
pub(crate) async fn ended(guest: &Guest, events: &mut Events, order: &Value) -> Value {
    events
        .until(|_, e| {
            e["thing"] == order["job"] && (e["state"] == "done" || e["state"] == "failed")
        })
        .await;
    let orders = guest
        .get(&format!(
            "/api/pages/{}/print-orders",
            order["page"].as_str().unwrap()
        ))
        .await
        .1;
    orders
        .as_array()
        .unwrap()
        .iter()
        .find(|o| o["id"] == order["id"])
        .unwrap()
        .clone()
}

#[tokio::test]
async fn a_printer_that_runs_out_in_the_middle_goes_on_and_prints_nothing_twice() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = with_a_file(&wren).await;
    // Two more files: three sheets of 5 by 7 in all.
    let mut prints = page["plan"]["photos"]["photos"].clone();
    for n in [2, 4] {
        prints[n]["file"] = json!(true);
    }
    let patch = json!({"photos": {"photos": prints}});
    let path = format!("/api/pages/{}", id(&page));
    wren.patch(
        &format!("{path}/plan"),
        &change(&page, "photos", patch, "files"),
    )
    .await;
    let sheets = wren.get(&format!("{path}/prints?paper=5x7")).await.1;
    let count = sheets["sheets"].as_array().unwrap().len();
    assert!(count >= 2, "{sheets}");
    let set = |to: Value| {
        let wren = &wren;
        async move { wren.put("/api/printer", &to).await }
    };
    set(json!({"paper": 1, "ink": 100, "jammed": false})).await;
    let mut events = Events::of(&wren, None).await;
    let order = wren
        .post(&format!("{path}/print-orders"), &json!({"paper": "5x7"}))
        .await
        .1;
    let stopped = ended(&wren, &mut events, &order).await;
    assert_eq!(
        (&stopped["state"], printed(&stopped)),
        (&json!("failed"), vec![1])
    );
    assert!(
        stopped["problem"]["detail"]
            .as_str()
            .unwrap()
            .contains("no paper left"),
        "{stopped}"
    );
    // Filled up it goes on; then it jams no more and has its ink.
    set(json!({"paper": 9, "ink": 100, "jammed": true})).await;
    let (_, going) = wren
        .post(
            &format!("/api/print-orders/{}/go-on", id(&order)),
            &Value::Null,
        )
        .await;
    let jammed = ended(&wren, &mut events, &going).await;
    assert!(
        jammed["problem"]["detail"]
            .as_str()
            .unwrap()
            .contains("jammed"),
        "{jammed}"
    );
    set(json!({"paper": 9, "ink": 100, "jammed": false})).await;
    let (_, going) = wren
        .post(
            &format!("/api/print-orders/{}/go-on", id(&order)),
            &Value::Null,
        )
        .await;
    let done = ended(&wren, &mut events, &going).await;
    let all: Vec<u64> = (1..=count as u64).collect();
    assert_eq!((&done["state"], printed(&done)), (&json!("done"), all));
    // The log keeps when each sheet was printed: what was printed before it stopped stays as it was noted then.
    assert_eq!(done["printed"][0]["at"], stopped["printed"][0]["at"]);
    assert!(done["printed"][0]["at"].as_str() < done["printed"][1]["at"].as_str());
    // A sheet each, none twice: so many are gone from the tray.
    let printer = wren.get("/api/printer").await.1;
    assert_eq!(printer["paper"], json!(9 - (count - 1)));
    let (_, again) = wren
        .post(
            &format!("/api/print-orders/{}/go-on", id(&order)),
            &Value::Null,
        )
        .await;
    ended(&wren, &mut events, &again).await;
    assert_eq!(wren.get("/api/printer").await.1["paper"], printer["paper"]);
    let picture = wren
        .request(
            Method::GET,
            &format!("/api/print-orders/{}/sheets/1", id(&order)),
        )
        .send()
        .await
        .unwrap();
    assert_eq!(
        (
            picture.status(),
            picture.headers()["content-type"].to_str().unwrap()
        ),
        (StatusCode::OK, "image/jpeg")
    );
    let (status, wrong) = set(json!({"paper": -1, "ink": 100, "jammed": false})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{wrong}");
}

#[tokio::test]
async fn what_a_printer_can_not_print_it_refuses_in_words() {
    let house = Server::start().await;
    let wren = house.as_wren().await;
    let page = with_a_file(&wren).await;
    // Said to have few pixels, it is too coarse for the printer.
    let mut prints = page["plan"]["photos"]["photos"].clone();
    prints[7]["pixels"] = json!([60, 45]);
    let path = format!("/api/pages/{}", id(&page));
    let patch = json!({"photos": {"photos": prints}});
    wren.patch(
        &format!("{path}/plan"),
        &change(&page, "photos", patch, "few"),
    )
    .await;
    let mut events = Events::of(&wren, None).await;
    let order = wren
        .post(&format!("{path}/print-orders"), &json!({"paper": "8x10"}))
        .await
        .1;
    let refused = ended(&wren, &mut events, &order).await;
    assert!(
        refused["problem"]["detail"]
            .as_str()
            .unwrap()
            .contains("dots an inch"),
        "{refused}"
    );
    assert_eq!(refused["printed"], json!([]));
}

/// The numbers of an order's printed sheets.
fn printed(order: &Value) -> Vec<u64> {
    let sheets = order["printed"].as_array().unwrap();
    sheets
        .iter()
        .map(|p| p["sheet"].as_u64().unwrap())
        .collect()
}
