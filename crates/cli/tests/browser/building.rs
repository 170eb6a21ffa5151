//! The Build station: further work is taken in, a step is moved too far, steps are ticked at the table, and the ticks stay.

use crate::support::{Server, click, come_in, open_page, saved};
use anyhow::{Result, bail, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::Value;

/// Waits until the server has a build section as wanted.
async fn until_build(browser: &Browser, wanted: impl Fn(&Value) -> bool) -> Result<()> {
    const TRIES: usize = 300;
    let mut last = Value::Null;
    for _ in 0..TRIES {
        last = saved(browser).await?["plan"]["build"].take();
        if wanted(&last) {
            return Ok(());
        }
        browser.find("//p[@data-save]").await?;
    }
    bail!("never saved; the newest is {last}")
}

#[tokio::test]
async fn a_page_is_built_step_by_step() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_page(&browser, "Kites over the flats").await?;
    click(
        &browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Build')]",
    )
    .await?;
    browser.find("//h2[.='All steps']").await?;
    click(&browser, "//label[contains(., 'spatter paint')]/input").await?;
    browser
        .find("//section[@aria-labelledby='all-steps']//button[contains(., 'Spatter paint over the page')]")
        .await?;
    // The spatter can't come before the photos are covered.
    click(
        &browser,
        "//button[contains(., 'Spatter paint over the page')]",
    )
    .await?;
    browser
        .find("//p[contains(., 'No way back after this.')]")
        .await?;
    click(&browser, "//button[.='Move it earlier']").await?;
    browser
        .find("//div[@role='alert'][contains(., 'paint would fall on the photos')]")
        .await?;
    click(&browser, "//button[.='Back to the order that waits least']").await?;
    browser
        .gone("//div[@role='alert'][contains(., 'farther than it can go')]")
        .await?;

    // At the table, step by step; the ticks are there again after a reload.
    browser.resize(800, 1280).await?;
    for done in 1..=3_usize {
        click(&browser, "//button[.='Done']").await?;
        until_build(&browser, |build| {
            build["done"].as_array().map_or(0, Vec::len) == done
        })
        .await?;
    }
    browser.window.refresh().await?;
    // What was painted dries, also after a reload, and what can be done meanwhile is named.
    browser
        .find("//section[@aria-labelledby='drying'][.//h3[.='Meanwhile']]//*[@role='timer'][contains(., ':')]")
        .await?;
    click(&browser, "//button[.='It is dry already']").await?;
    browser
        .find("//p[@role='status'][contains(., '3 done')]")
        .await?;
    let page = saved(&browser).await?;
    ensure!(
        page["plan"]["build"]["order"].is_null(),
        "{}",
        page["plan"]["build"]
    );
    browser.close().await
}
