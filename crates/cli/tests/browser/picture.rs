//! From a picture to a fitted spread.

use crate::support::{Server, come_in, saved};
use anyhow::{Context, Result, ensure};
use metrosk_demo::{SEED, Style, picture};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use thirtyfour::prelude::*;

#[tokio::test]
async fn a_picture_becomes_a_settled_sketch_and_a_spread_by_keyboard_alone() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    let scan = metrosk_vision::jpeg(&picture(&metrosk_demo::sketches(SEED)[0], Style::Phone, SEED), 88)?;
    let path = std::path::Path::new(env!("CARGO_TARGET_TMPDIR")).join("a phone photo.jpg");
    std::fs::write(&path, scan)?;
    browser.window.goto(format!("{}/drawer/picture", server.address)).await?;
    let file = browser.find("//input[@type='file']").await?;
    file.send_keys(path.to_str().context("a path")?).await?;
    browser.find("//button[.='Read it'][not(@disabled)]").await?.send_keys(Key::Enter + "").await?;
    browser.find("//p[@role='status'][contains(., 'blocks')]").await?;
    // The page's corners are found; the first one moves by keys and the picture is read again.
    let corner = browser.find("//*[@aria-label='top left corner of the page']").await?;
    let before = corner.attr("aria-valuetext").await?;
    corner.send_keys(Key::Right + "").await?;
    browser.gone(&format!("//*[@aria-valuetext='{}']", before.context("a place")?)).await?;
    browser.find("//button[.='Read it again'][not(@disabled)]").await?.send_keys(Key::Enter + "").await?;
    let list = browser.find("//div[@role='listbox']").await?;
    // The unsure ones come first: the first is given a kind, the others are accepted.
    list.send_keys("p").await?;
    for _ in 0..30 {
        if !browser.window.find_all(By::XPath("//p[@role='status'][contains(., 'all settled')]")).await?.is_empty() {
            break;
        }
        list.send_keys(Key::Enter + "").await?;
    }
    browser.find("//p[@role='status'][contains(., 'all settled')]").await?;
    browser.find("//button[.='Put into the drawer']").await?.send_keys(Key::Enter + "").await?;
    browser.find("//button[.='Start a page'][not(@disabled)]").await?.send_keys(Key::Enter + "").await?;
    browser.find("//h1[.='a phone photo']").await?;
    browser.find("//button[.='Two pages']").await?.send_keys(Key::Enter + "").await?;
    browser.find("//h2[contains(., 'Two pages')]").await?;
    let page = saved(&browser).await?;
    ensure!(page["plan"]["fit"]["target"]["pages"] == 2, "{}", page["plan"]["fit"]["target"]);
    browser.close().await
}
