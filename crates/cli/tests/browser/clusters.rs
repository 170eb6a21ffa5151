//! The Clusters station: what is worth a look is put in line, taken back, let be or no longer looked for; pieces are shared out, moved by
//! numbers and taken out.

use crate::support::{Server, click, come_in, open_page, saved};
use anyhow::{Result, bail};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::Value;
use thirtyfour::prelude::*;

async fn at_clusters(server: &Server) -> Result<Browser> {
    let browser = Browser::open().await?;
    come_in(&browser, server).await?;
    open_page(&browser, "Kites over the flats").await?;
    click(
        &browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Clusters')]",
    )
    .await?;
    browser.find("//h2[.='Five things worth a look']").await?;
    Ok(browser)
}

/// Waits until the server has clusters as wanted.
async fn until_clusters(browser: &Browser, wanted: impl Fn(&Value) -> bool) -> Result<()> {
    const TRIES: usize = 300;
    let mut last = Value::Null;
    for _ in 0..TRIES {
        last = saved(browser).await?["plan"]["clusters"].take();
        if wanted(&last) {
            return Ok(());
        }
        browser.find("//p[@data-save]").await?;
    }
    bail!("never saved; the newest is {last}")
}

#[tokio::test]
async fn findings_are_cured_taken_back_let_be_and_switched_off() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = at_clusters(&server).await?;
    click(&browser, "//button[.='Put them in line']").await?;
    browser.find("//h2[.='Four things worth a look']").await?;
    click(&browser, "//button[.='Undo']").await?;
    browser.find("//h2[.='Five things worth a look']").await?;
    // A colour that stands alone is echoed by a piece out of the stash.
    click(
        &browser,
        "//button[starts-with(@aria-label, 'Try it: Lay one of “Sledges”')]",
    )
    .await?;
    browser.find("//h2[.='Four things worth a look']").await?;
    click(&browser, "//button[@aria-label='Let it be: A']").await?;
    browser.find("//h2[.='Three things worth a look']").await?;
    click(
        &browser,
        "//button[@aria-label='Don’t look for edges that nearly agree on this page']",
    )
    .await?;
    click(
        &browser,
        "//button[@aria-label='Look for edges that nearly agree again']",
    )
    .await?;
    click(&browser, "//button[starts-with(., 'Show again')]").await?;
    browser.find("//h2[.='Four things worth a look']").await?;
    // What she never wants is not looked for on any page, nor on another station, until she has it again.
    click(
        &browser,
        "//button[@aria-label='Never look for edges that nearly agree']",
    )
    .await?;
    browser.find("//h2[.='Three things worth a look']").await?;
    click(
        &browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Papers')]",
    )
    .await?;
    click(&browser, "//button[.='Three things worth a look']").await?;
    click(&browser, "//a[starts-with(., 'Look at them on the page')]").await?;
    click(
        &browser,
        "//button[@aria-label='Look for edges that nearly agree again, on every page']",
    )
    .await?;
    browser.find("//h2[.='Four things worth a look']").await?;
    browser.close().await
}

#[tokio::test]
async fn pieces_are_shared_out_moved_by_numbers_and_taken_out() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = at_clusters(&server).await?;
    let count = |clusters: &Value, block: &str| {
        let pieces = clusters["clusters"][block]["0"]["pieces"].as_array();
        pieces.map_or(0, Vec::len)
    };
    // One more into the small cluster, then all of them anew.
    click(&browser, "//button[@aria-label='Cluster 11']").await?;
    click(
        &browser,
        "//section[@aria-labelledby='ready']//button[contains(., 'Stars')]",
    )
    .await?;
    until_clusters(&browser, |c| count(c, "c2") == 4).await?;
    click(&browser, "//button[.='Share out']").await?;
    until_clusters(&browser, |c| {
        count(c, "c1") + count(c, "c2") == 11
            && count(c, "c1") > count(c, "c2")
            && count(c, "c2") > 1
    })
    .await?;
    // The first of the large one is held where she says, on foam.
    click(&browser, "//button[@aria-label='Cluster 10']").await?;
    click(
        &browser,
        "//section[@aria-labelledby='stack']//tbody/tr[last()]//button",
    )
    .await?;
    let left = browser
        .find("//label[.='middle from left']/following::input[1]")
        .await?;
    left.send_keys(Key::Control + "a").await?;
    left.send_keys("6 1/4").await?;
    left.send_keys(Key::Enter + "").await?;
    until_clusters(&browser, |c| {
        c["clusters"]["c1"]["0"]["pieces"][0]["at"]["x"] == 6.25
    })
    .await?;
    click(
        &browser,
        "//label[contains(., 'lift')]/select/option[.='thick foam']",
    )
    .await?;
    until_clusters(&browser, |c| {
        c["clusters"]["c1"]["0"]["pieces"][0]["lift"] == "thick-foam"
    })
    .await?;
    click(&browser, "//button[.='Take it out']").await?;
    until_clusters(&browser, |c| count(c, "c1") + count(c, "c2") == 10).await?;
    browser.close().await
}
