//! The table and the drawer: what can be done with a page and a sketch as a whole, and a page's history.

use crate::support::{Server, click, come_in, fetched, open_id, open_kites_at_fit, press};
use anyhow::{Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use thirtyfour::prelude::*;

/// Answers the question that is open with a text.
async fn answer(browser: &Browser, text: &str, yes: &str) -> Result<()> {
    let field = browser.find("(//*[@role='dialog'])[last()]//input").await?;
    field.send_keys(Key::Control + "a").await?;
    field.send_keys(Key::Delete + "").await?;
    field.send_keys(text).await?;
    click(
        browser,
        &format!("(//*[@role='dialog'])[last()]//button[.='{yes}']"),
    )
    .await
}

/// Chooses from the menu of a page on the table.
async fn more(browser: &Browser, page: &str, item: &str) -> Result<()> {
    click(browser, &format!("//button[@aria-label='More for {page}']")).await?;
    click(browser, &format!("//*[@role='menuitem'][.='{item}']")).await
}

#[tokio::test]
async fn a_page_is_renamed_dated_copied_finished_and_put_away() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    more(&browser, "Lanterns", "Rename").await?;
    answer(&browser, "", "Rename").await?;
    browser
        .find("//*[@role='dialog']//*[@role='alert'][contains(., '1 to 200 characters')]")
        .await?;
    answer(&browser, "Lanterns on the quay", "Rename").await?;
    browser
        .find("//section[@aria-labelledby='undated']//h3/a[.='Lanterns on the quay']")
        .await?;
    more(&browser, "Lanterns on the quay", "Due date").await?;
    // The browser's own field for a day takes month, day and year as its language has them.
    let day = browser
        .find("//*[@role='dialog']//input[@type='date']")
        .await?;
    day.send_keys("01092031").await?;
    click(&browser, "//button[.='Set due date']").await?;
    browser
        .gone("//section[@aria-labelledby='undated']")
        .await?;
    browser.find("//h3/a[.='Lanterns on the quay']").await?;
    more(&browser, "Lanterns on the quay", "Copy").await?;
    browser
        .find("//h1[.='Lanterns on the quay, a copy']")
        .await?;
    click(&browser, "//a[.='Table']").await?;
    more(&browser, "Lanterns on the quay, a copy", "Mark as finished").await?;
    browser
        .gone("//h3/a[.='Lanterns on the quay, a copy']")
        .await?;
    click(&browser, "//button[starts-with(., 'Finished')]").await?;
    browser
        .find("//section[@aria-label='Finished']//h3/a[.='Lanterns on the quay, a copy']")
        .await?;
    more(&browser, "Lanterns on the quay, a copy", "Archive").await?;
    click(&browser, "//button[starts-with(., 'Archived')]").await?;
    browser
        .find("//section[@aria-label='Archived']//h3/a[.='Lanterns on the quay, a copy']")
        .await?;
    browser.close().await
}

#[tokio::test]
async fn a_version_is_named_and_returned_to_and_keys_do_it() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_kites_at_fit(&browser).await?;
    browser.find("//p[@data-save='saved']").await?;
    press(&browser, "?").await?;
    browser
        .find("//*[@role='dialog']//dd[contains(., 'yesterday')]")
        .await?;
    browser
        .find("//body")
        .await?
        .send_keys(Key::Escape + "")
        .await?;
    browser.gone("//*[@role='dialog']").await?;
    press(&browser, "h").await?;
    click(
        &browser,
        "//li[contains(., 'two pages')]//button[.='Name it']",
    )
    .await?;
    answer(&browser, "before the photos", "Name it").await?;
    browser
        .find("//li[contains(., 'two pages')]//span[contains(., 'before the photos')]")
        .await?;
    click(
        &browser,
        "//li[contains(., 'before the photos')]//button[.='Return to it']",
    )
    .await?;
    browser
        .find("//output[@aria-label='Photos'][.='3']")
        .await?;
    browser
        .find("//p[@data-save='saved'][contains(., 'version 8')]")
        .await?;
    // Undone by the keyboard: what was settled before this visit is back.
    browser
        .find("//body")
        .await?
        .send_keys(Key::Control + "z")
        .await?;
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    browser
        .find("//p[@data-save='saved'][contains(., 'version 9')]")
        .await?;
    let id = open_id(&browser).await?;
    let history = fetched(&browser, &format!("/api/pages/{id}/revisions")).await?;
    ensure!(
        history[0]["reason"] == "undone: returned to version 2"
            && history[7]["names"][0] == "before the photos",
        "{history}"
    );
    browser.close().await
}

#[tokio::test]
async fn the_drawer_is_searched_and_sketches_are_drawn_on() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    click(&browser, "//nav//a[.='Sketch drawer']").await?;
    browser.find("//li/button[contains(., 'Flag row')]").await?;
    let search = browser.find("//input[@type='search']").await?;
    search.send_keys("plover").await?;
    browser.gone("//li/button[contains(., 'Flag row')]").await?;
    browser
        .find("//li/button[contains(., 'Lanterns coming home')]")
        .await?;
    search.send_keys(" nowhere").await?;
    browser
        .find("//p[contains(., 'No sketch is about')]")
        .await?;
    search.clear().await?;
    search.send_keys(" ").await?;
    // For four photos, two of them upright, the sketch of the low sun comes first.
    browser
        .find("//input[@aria-label='prints at hand']")
        .await?
        .send_keys("4")
        .await?;
    browser
        .find("//input[@aria-label='of them upright']")
        .await?
        .send_keys("2")
        .await?;
    browser
        .find("//ol/li[1][contains(., 'Low sun, both pages') and contains(., 'As drawn.')]")
        .await?;
    // Drawn on by the keyboard: a block is nudged, and the lines follow.
    click(
        &browser,
        "//section[@aria-label='Four photos']//li/button[contains(., 'Sledge race')]",
    )
    .await?;
    click(&browser, "//a[.='Change it']").await?;
    browser
        .find("//*[@role='textbox'][contains(., 'title t1 7 x 1 1/4 at 1, 8')]")
        .await?;
    click(&browser, "//button[.='title']").await?;
    click(&browser, "//button[.='title']").await?;
    let lines = browser.find("//*[@role='textbox']").await?;
    lines.send_keys(Key::Control + Key::End).await?;
    lines.send_keys("accent 1x1 in the middle").await?;
    browser
        .find("//p[@role='status'][starts-with(., 'Not saved yet')]")
        .await?;
    click(&browser, "//button[.='Save']").await?;
    browser
        .find("//p[@role='status'][.='As it lies in the drawer.']")
        .await?;
    browser.window.refresh().await?;
    browser
        .find("//*[@role='textbox'][contains(., 'accent a1 1 x 1 at 5 1/2, 5 1/2')]")
        .await?;
    browser.close().await
}
