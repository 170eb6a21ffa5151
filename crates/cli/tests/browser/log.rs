//! The Log station: a tick at the Build station comes here, what goes wrong is written down and counted, the pack says what it lacks.

use crate::support::{Server, choose, click, come_in, open_page, saved};
use anyhow::{Context, Result, bail};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::Value;
use thirtyfour::prelude::*;

async fn open(browser: &Browser, station: &str) -> Result<()> {
    let link =
        format!("//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), '{station}')]");
    click(browser, &link).await
}

/// Waits until the server has a plan as wanted.
pub(crate) async fn until_plan(browser: &Browser, wanted: impl Fn(&Value) -> bool) -> Result<()> {
    const TRIES: usize = 300;
    let mut last = Value::Null;
    for _ in 0..TRIES {
        last = saved(browser).await?["plan"].take();
        if wanted(&last) {
            return Ok(());
        }
        browser.find("//p[@data-save]").await?;
    }
    bail!("never saved; the log is {}", last["log"])
}

/// A picture of a finished page, large enough for the gallery.
pub(crate) fn finished_picture() -> Result<String> {
    let photo = metrosk_demo::PHOTOS.iter().max_by_key(|p| p.pixels.1);
    let photo = photo.context("the demo has photos")?;
    let path = std::path::Path::new(env!("CARGO_TARGET_TMPDIR"))
        .join(format!("finished-{}.jpg", std::process::id()));
    std::fs::write(&path, metrosk_vision::jpeg(&photo.render(0.5)?, 85)?)?;
    Ok(path.display().to_string())
}

async fn leave_with(browser: &Browser, label: &str, text: &str) -> Result<()> {
    let field = browser
        .find(&format!("//label[.='{label}']/following::textarea[1]"))
        .await?;
    field.send_keys(Key::Control + "a").await?;
    field.send_keys(text).await?;
    field.send_keys(Key::Tab + "").await?;
    Ok(())
}

#[tokio::test]
async fn a_page_is_logged_and_its_pack_looked_over() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_page(&browser, "Kites over the flats").await?;
    open(&browser, "Build").await?;
    click(&browser, "//button[.='Done']").await?;
    until_plan(&browser, |plan| {
        plan["log"]["entries"][0]["kind"] == "step" && plan["build"]["done"][0].is_string()
    })
    .await?;

    open(&browser, "Log").await?;
    browser
        .find("//section[@aria-labelledby='as-it-went']//li")
        .await?;
    choose(&browser, "What is written down", "cut short").await?;
    let by = browser
        .find("//label[.='short by']/following::input[1]")
        .await?;
    by.send_keys(Key::Control + "a").await?;
    by.send_keys("1/8").await?;
    by.send_keys(Key::Tab + "").await?;
    click(&browser, "//button[.='Write it down']").await?;
    until_plan(&browser, |plan| plan["log"]["entries"][1]["by"] == 0.125).await?;
    // Four by now, over all pages; the tuck that would have covered them is offered, and set by her alone.
    browser
        .find("//tr[contains(., 'cut short')]/td[.='4']")
        .await?;
    click(&browser, "//button[contains(., 'on this page')]").await?;
    until_plan(&browser, |plan| plan["papers"]["tuck"] == 0.625).await?;

    let link = "Link to the next maker’s page";
    leave_with(&browser, link, "teal's page").await?;
    browser
        .find("//p[@role='alert'][contains(., 'begins with https://')]")
        .await?;
    leave_with(&browser, link, "https://teal.example/kites").await?;
    until_plan(&browser, |plan| {
        plan["log"]["link"] == "https://teal.example/kites"
    })
    .await?;
    browser
        .gone("//strong[contains(., 'a link to the next maker')]")
        .await?;
    leave_with(
        &browser,
        "The story, where it differs from your writing",
        "We held the kite at the slipway.",
    )
    .await?;
    click(&browser, "//button[.='See the pack']").await?;
    browser
        .find("//pre[contains(., 'We held the kite …')]")
        .await?;
    click(&browser, "//label[contains(., 'the place')]/input").await?;
    browser
        .find("//pre[contains(., 'We held the kite at the slipway')]")
        .await?;
    // A sketch of the page goes into the drawer, folded to one page; what is finished is looked back on.
    browser.find("//h2[@id='give-away']").await?;
    click(
        &browser,
        "//form[@aria-labelledby='give-away']//input[@type='checkbox']",
    )
    .await?;
    click(&browser, "//button[.='Put it into the drawer']").await?;
    browser
        .find("//p[@role='status']/a[.='Sketch of Kites over the flats']")
        .await?;
    browser
        .window
        .goto(format!("{}/look-back", server.address))
        .await?;
    click(
        &browser,
        "//section[@aria-label='By sketch']//button[contains(., 'Flag row')]",
    )
    .await?;
    browser.find("//h2[.='Pages: Flag row']").await?;
    browser.find("//a[.='Flags drying']").await?;
    browser.gone("//a[.='Low water']").await?;
    browser.close().await
}
