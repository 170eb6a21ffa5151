//! The Cut station: from papers to a cut plan, to the table, cut by cut, one of them wrong.

use crate::support::{Server, click, come_in, open_page, saved};
use anyhow::{Result, bail, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::Value;
use thirtyfour::prelude::*;

/// Waits until the server has a plan whose begun sheets are as wanted.
async fn until_cut(browser: &Browser, wanted: impl Fn(&[Value]) -> bool) -> Result<()> {
    const TRIES: usize = 300;
    let mut last = Value::Null;
    for _ in 0..TRIES {
        last = saved(browser).await?["plan"]["cut"]["begun"].take();
        if wanted(last.as_array().map_or(&[], Vec::as_slice)) {
            return Ok(());
        }
        browser.find("//p[@data-save]").await?;
    }
    bail!("never saved; the newest is {last}")
}

/// The cuts that are made, over all sheets that are begun.
fn made(begun: &[Value]) -> u64 {
    begun.iter().filter_map(|s| s["done"].as_u64()).sum()
}

async fn key(browser: &Browser, keys: impl Into<TypingData>) -> Result<()> {
    let focused = browser.window.active_element().await?;
    Ok(focused.send_keys(keys).await?)
}

#[tokio::test]
async fn a_page_is_cut_at_the_table_and_a_wrong_cut_is_planned_anew() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_page(&browser, "Kites over the flats").await?;
    click(
        &browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Cut')]",
    )
    .await?;
    browser.find("//h2[contains(., 'sheet 1 of')]").await?;
    browser.find("//table//td[.='to cut']").await?;
    click(&browser, "//button[.='Cut at the table']").await?;
    browser.resize(800, 1280).await?;
    let title = browser
        .find("//div[@role='dialog']//h2[starts-with(., 'Set ')]")
        .await?
        .text()
        .await?;
    ensure!(title.contains("Cut"), "{title}");

    // A tap, then a key as a foot switch sends it; one is taken back.
    click(&browser, "//button[contains(., 'ut made')]").await?;
    browser.find("//p[contains(., 'cut 2 of')]").await?;
    key(&browser, Key::PageDown + "").await?;
    browser.find("//p[contains(., 'cut 3 of')]").await?;
    click(&browser, "//button[.='Take one back']").await?;
    browser.find("//p[contains(., 'cut 2 of')]").await?;
    until_cut(&browser, |begun| made(begun) == 1).await?;

    // She is at the table after a reload as well.
    browser.window.refresh().await?;
    browser.find("//p[contains(., 'cut 2 of')]").await?;
    key(&browser, Key::PageDown + "").await?;
    browser.find("//p[contains(., 'cut 3 of')]").await?;
    let wrong = browser
        .find("//div[@role='dialog']//button[starts-with(., 'I cut ') and not(@disabled)]")
        .await?;
    wrong.click().await?;
    until_cut(&browser, |begun| {
        let wrong = begun.first().and_then(|s| s["wrong"].as_array());
        wrong.is_some_and(|w| w.len() == 1)
    })
    .await?;
    click(&browser, "//button[.='Leave the table']").await?;
    browser.resize(1280, 800).await?;
    browser.find("//table//td[.='to cut']").await?;

    // The sheets that nothing is cut of yet go to the machine; it jams, and goes on.
    click(&browser, "//button[.='Send to the cutting machine']").await?;
    click(&browser, "//button[.='Jam it after two lines']").await?;
    browser
        .find("//span[@role='status'][contains(., 'will jam after 2 lines')]")
        .await?;
    click(
        &browser,
        "//div[@role='dialog']//button[contains(., 'to the machine')]",
    )
    .await?;
    browser.find("//li//strong[.='Interrupted']").await?;
    browser
        .find("//li//p[contains(., 'the paper is jammed')]")
        .await?;
    click(&browser, "//button[.='Take the jam out']").await?;
    browser
        .find("//span[@role='status'][contains(., 'ready')]")
        .await?;
    click(&browser, "//button[.='Go on cutting']").await?;
    browser.find("//li//strong[.='Cut']").await?;
    browser.gone("//button[.='Go on cutting']").await?;
    browser.close().await
}
