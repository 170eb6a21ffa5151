//! What is on screen and not saved yet is not lost: by a reload, a server that goes away, a step back without a connection, two clicks.

use crate::support::{
    Server, click, come_in, fetched, open_id, open_kites_at_fit, write_meanwhile,
};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use metrosk_testkit::photo_count;
use serde_json::{Value, json};
use thirtyfour::prelude::*;

/// A house with a browser at the table.
async fn at_table() -> Result<(Database, Server, Browser)> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    Ok((database, server, browser))
}

/// Writes a line of a sketch in the drawer and waits until it is kept as unsaved.
async fn add_line(browser: &Browser, line: &str) -> Result<()> {
    let lines = browser
        .find("//*[@role='textbox'][contains(., 'one page')]")
        .await?;
    lines.send_keys(Key::Control + Key::End).await?;
    lines.send_keys(format!("{line}\n")).await?;
    browser
        .find("//p[@role='status'][starts-with(., 'Not saved yet')]")
        .await?;
    let kept = "return indexedDB.databases().then(all => all.some(d => d.name === 'metrosk-drafts') ? new Promise(done => { \
                const open = indexedDB.open('metrosk-drafts'); open.onsuccess = () => { const all = open.result.transaction('drafts').objectStore('drafts').getAll(); \
                all.onsuccess = () => { open.result.close(); done(JSON.stringify(all.result)) } } }) : '')";
    for _ in 0..200 {
        let drafts: String = browser.window.execute(kept, vec![]).await?.convert()?;
        if drafts.contains("\"draft\"") {
            return Ok(());
        }
        tokio::time::sleep(std::time::Duration::from_millis(25)).await;
    }
    anyhow::bail!("nothing was kept in the browser")
}

#[tokio::test]
async fn an_unsaved_sketch_survives_a_reload_and_leaving_it_asks() -> Result<()> {
    let (_database, server, browser) = at_table().await?;
    let sketches = fetched(&browser, "/api/sketches").await?;
    let sketch = sketches
        .as_array()
        .and_then(|s| s.iter().find(|s| s["name"] == "Sledge race"))
        .context("the sketch")?;
    let address = format!(
        "{}/sketches/{}",
        server.address,
        sketch["id"].as_str().context("an id")?
    );
    browser.window.goto(&address).await?;
    add_line(&browser, "accent 1x1 in the middle").await?;
    // Within the house she is asked.
    click(&browser, "//a[.='Team']").await?;
    browser
        .find("//*[@role='alertdialog'][contains(., 'Leave without saving?')]")
        .await?;
    click(&browser, "//button[.='Stay']").await?;
    // A reload asks too, as the browser does; then what she drew is offered again.
    browser
        .window
        .refresh()
        .await
        .or_else(|_| Ok::<_, anyhow::Error>(()))?;
    let _ = browser.window.accept_alert().await;
    browser
        .find("//p[contains(., 'You left this sketch unsaved')]")
        .await?;
    click(&browser, "//button[.='Go on with it']").await?;
    browser
        .find("//*[@role='textbox'][contains(., 'accent a1 1 x 1 at 5 1/2, 5 1/2')]")
        .await?;
    click(&browser, "//button[.='Save']").await?;
    browser
        .find("//p[@role='status'][.='As it lies in the drawer.']")
        .await?;
    browser.find("//summary[.='1 earlier']").await?;
    let now = fetched(
        &browser,
        &format!("/api/sketches/{}", sketch["id"].as_str().context("an id")?),
    )
    .await?;
    ensure!(
        now["revision"] == 2 && now["document"]["blocks"].to_string().contains("\"a1\""),
        "{now}"
    );
    browser.window.refresh().await?;
    browser
        .find("//*[@role='textbox'][contains(., 'accent a1')]")
        .await?;
    browser
        .gone("//p[contains(., 'You left this sketch unsaved')]")
        .await?;
    browser.close().await
}

#[tokio::test]
async fn who_saves_a_sketch_second_sees_both_and_neither_is_lost() -> Result<()> {
    let (_database, server, browser) = at_table().await?;
    let sketch = fetched(&browser, "/api/sketches").await?[0].clone();
    let id = sketch["id"].as_str().context("an id")?.to_owned();
    browser
        .window
        .goto(format!("{}/sketches/{id}", server.address))
        .await?;
    add_line(&browser, "accent 1x1 in the middle").await?;
    let theirs = json!({"revision": 1, "name": "Renamed meanwhile"});
    write_meanwhile(&browser, "PUT", &format!("/api/sketches/{id}"), theirs).await?;
    click(&browser, "//button[.='Save']").await?;
    browser
        .find("//*[@role='dialog'][contains(., 'changed meanwhile')]//figcaption[.='Yours']")
        .await?;
    click(&browser, "//button[.='Save mine']").await?;
    browser
        .find("//p[@role='status'][.='As it lies in the drawer.']")
        .await?;
    let revisions = fetched(&browser, &format!("/api/sketches/{id}/revisions")).await?;
    ensure!(
        revisions.as_array().is_some_and(|r| r.len() == 3),
        "{revisions}"
    );
    let before = fetched(&browser, &format!("/api/sketches/{id}/revisions/2")).await?;
    ensure!(
        before["name"] == "Renamed meanwhile",
        "theirs is an earlier version: {before}"
    );
    browser.close().await
}

#[tokio::test]
async fn an_editor_stays_on_screen_when_the_server_goes_away() -> Result<()> {
    let (database, server, browser) = at_table().await?;
    let sketch = fetched(&browser, "/api/sketches").await?[0].clone();
    browser
        .window
        .goto(format!(
            "{}/sketches/{}",
            server.address,
            sketch["id"].as_str().context("an id")?
        ))
        .await?;
    add_line(&browser, "accent 1x1 in the middle").await?;
    let socket = server.socket().to_owned();
    drop(server);
    // Coming back to the window looks again, and fails.
    browser.window.execute("window.dispatchEvent(new Event('visibilitychange')); window.dispatchEvent(new Event('focus'))", vec![]).await?;
    click(&browser, "//button[.='Save']").await?;
    browser
        .find("//p[@role='alert'][contains(., \"can't be reached\")]")
        .await?;
    browser
        .find("//*[@role='textbox'][contains(., 'accent')]")
        .await?;
    let server = Server::start(&database, &socket)?;
    click(&browser, "//button[.='Save']").await?;
    browser
        .find("//p[@role='status'][.='As it lies in the drawer.']")
        .await?;
    drop(server);
    browser.close().await
}

#[tokio::test]
async fn undo_shows_without_a_connection() -> Result<()> {
    let (database, server, browser) = at_table().await?;
    open_kites_at_fit(&browser).await?;
    browser.find("//p[@data-save='saved']").await?;
    click(&browser, "//button[@aria-label='One photo fewer']").await?;
    browser
        .find("//output[@aria-label='Photos'][.='5']")
        .await?;
    browser.find("//p[@data-save='saved']").await?;
    let socket = server.socket().to_owned();
    drop(server);
    click(&browser, "//button[.='Undo'][not(@disabled)]").await?;
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    browser.find("//p[contains(., 'Waiting: undo')]").await?;
    let server = Server::start(&database, &socket)?;
    browser.find("//p[@data-save='saved']").await?;
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    let id = open_id(&browser).await?;
    let page = fetched(&browser, &format!("/api/pages/{id}")).await?;
    ensure!(
        photo_count(&page) == 6 && page["trails"]["fit"]["redo"][0]["reason"] == "5 photos",
        "{page}"
    );
    drop(server);
    browser.close().await
}

#[tokio::test]
async fn two_quick_clicks_make_one_sketch() -> Result<()> {
    let (_database, server, browser) = at_table().await?;
    browser
        .window
        .goto(format!("{}/drawer/new", server.address))
        .await?;
    add_line(&browser, "photo 4x6 at 3, 2").await?;
    let count = |sketches: &Value| sketches.as_array().map_or(0, Vec::len);
    let before = count(&fetched(&browser, "/api/sketches").await?);
    let button = browser.find("//button[.='Put into the drawer']").await?;
    browser
        .window
        .execute(
            "arguments[0].click(); arguments[0].click()",
            vec![button.to_json()?],
        )
        .await?;
    browser
        .find("//p[@role='status'][.='As it lies in the drawer.']")
        .await?;
    ensure!(count(&fetched(&browser, "/api/sketches").await?) == before + 1);
    browser.close().await
}
