//! A maker's whole task, through the real interface: from a sketch to a measured spread that is still there tomorrow.

use crate::support::{
    Server, click, come_in, fetched, fill, press, saved, start_page, until_saved,
};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::json;
use std::path::Path;
use thirtyfour::prelude::*;

#[tokio::test]
async fn from_a_sketch_to_a_measured_spread() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;

    // She starts a page from one of the drawer's sketches.
    start_page(&browser, "Three by the tide line").await?;
    browser
        .find("//h2[contains(., 'One page') and contains(., 'by scale')]")
        .await?;

    // Two pages, six photos: the page refits and says what changed.
    click(&browser, "//button[@aria-label='Two pages']").await?;
    browser
        .find("//h2[contains(., 'Two pages') and contains(., 'by stretch')]")
        .await?;
    for _ in 0..3 {
        click(&browser, "//button[@aria-label='One photo more']").await?;
    }
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    browser
        .find("//li[contains(., 'Photo 5 is split for 2 prints')]")
        .await?;

    // She types the title's number and reads it off: sketch, wanted, here.
    press(&browser, "8").await?;
    browser.find("//h2[contains(., '8 The title')]").await?;
    let row = browser.find("//tr[th[.='height']]").await?.text().await?;
    ensure!(
        row.starts_with("height 1 1 "),
        "the title's height reads {row:?}"
    );

    // She pins its left edge a bit further in, typed as makers write it.
    click(&browser, "//button[@aria-label='Pin the left edge']").await?;
    fill(&browser, "left edge pinned at", "13 1/2").await?;
    let pinned = json!([{"block": "t1", "edge": "left", "at": 13.5}]);
    until_saved(&browser, |fit| fit["pins"] == pinned).await?;

    // A wrong length is answered at the field, and nothing is lost.
    fill(&browser, "left edge pinned at", "3 feet").await?;
    browser
        .find("//*[@role='alert'][contains(., '“feet” is not a unit')]")
        .await?;

    // A pin that can't hold is explained; she lets go of it.
    fill(&browser, "left edge pinned at", "23 7/8").await?;
    let clash = browser
        .find("//section[@role='alert'][contains(., \"can't hold\")]")
        .await?
        .text()
        .await?;
    ensure!(
        clash.contains("title") && clash.contains("margin"),
        "the clash says {clash:?}"
    );
    click(
        &browser,
        "//button[contains(., 'Let go of the left edge of 8')]",
    )
    .await?;
    browser.gone("//section[@role='alert']").await?;
    until_saved(&browser, |fit| fit["pins"] == json!([])).await?;

    // Undone: the pin is back, and it is back after a reload and a restart of the server.
    click(&browser, "//button[.='Undo']").await?;
    until_saved(&browser, |fit| fit["pins"][0]["at"] == 23.875).await?;
    click(&browser, "//button[.='Undo']").await?;
    let page = until_saved(&browser, |fit| fit["pins"] == pinned).await?;
    let socket = server.socket().to_owned();
    drop(server);
    let _server = Server::start(&database, &socket)?;
    browser.window.refresh().await?;
    browser.find("//h2[contains(., 'Two pages')]").await?;
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    ensure!(
        saved(&browser).await?["plan"] == page["plan"],
        "the plan is as it was left"
    );

    // She takes the layout away, and looks at the sheet she will print.
    let more = "//header//button[starts-with(@aria-label, 'More for')]";
    click(&browser, more).await?;
    let link = browser
        .find("//*[@role='menuitem'][.='Layout (JSON)']")
        .await?
        .attr("href")
        .await?
        .context("an address")?;
    let layout = fetched(&browser, &link).await?;
    let photos = layout["blocks"]
        .as_array()
        .map_or(0, |b| b.iter().filter(|b| b["kind"] == "photo").count());
    ensure!(
        layout["format"] == "metrosk-layout/1" && photos == 6,
        "{layout}"
    );
    click(&browser, "//*[@role='menuitem'][.='Measurement sheet']").await?;
    browser
        .find("//div[@role='img'][contains(@aria-label, 'Sheet 1 of')]//*[local-name()='svg']")
        .await?;
    click(&browser, "//a[.='Back to the page']").await?;

    // The last station has the pack, and says what it still lacks.
    click(&browser, "//nav//a[.='Log']").await?;
    browser
        .find("//strong[.='Missing: a picture of the whole page']")
        .await?;
    browser.close().await
}

#[tokio::test]
async fn a_sketch_file_of_her_own_and_a_broken_one() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    click(&browser, "//nav//a[.='Sketch drawer']").await?;
    let folder = Path::new(env!("CARGO_TARGET_TMPDIR"));
    let mut sketch = metrosk_demo::sketches(3)[3].to_json();
    sketch["name"] = json!("From my folder");
    let give = async |name: &str, text: String| -> Result<()> {
        let path = folder.join(name);
        std::fs::write(&path, text)?;
        browser
            .find("//input[@type='file']")
            .await?
            .send_keys(path.to_string_lossy())
            .await
            .context("the file")
    };
    give("own.metrosk.json", sketch.to_string()).await?;
    browser
        .find("//p[@role='status'][contains(., 'From my folder')]")
        .await?;
    browser
        .find("//li/button[contains(., 'From my folder')]")
        .await?;

    sketch["blocks"][2]["kind"] = json!("foto");
    sketch["blocks"][3]["box"]["w"] = json!(-1);
    give("broken.metrosk.json", sketch.to_string()).await?;
    let told = browser.find("//*[@role='alert']").await?.text().await?;
    ensure!(
        told.contains("blocks[2].kind")
            && told.contains("foto")
            && told.contains("blocks[3].box.w"),
        "{told}"
    );
    give("none.metrosk.json", "not a sketch".to_owned()).await?;
    browser
        .find("//*[@role='alert'][contains(., 'none.metrosk.json was not imported')]")
        .await?;
    let count = browser
        .window
        .find_all(By::XPath("//main//section//li/button"))
        .await?
        .len();
    ensure!(
        count == metrosk_demo::sketches(3).len() + 1,
        "{count} sketches"
    );
    browser.close().await
}

#[tokio::test]
async fn a_sketch_by_number_becomes_a_page_by_keyboard_alone() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    browser
        .window
        .goto(format!("{}/drawer/new", server.address))
        .await?;
    browser
        .find("//*[@role='textbox'][contains(., 'one page')]")
        .await?;
    let lines = browser.find("//*[@role='textbox']").await?;
    lines.send_keys(Key::Control + Key::End).await?;
    lines.send_keys("mat 1/8 around p1\nphoto 4x6 at 3, 2\nstrip 1 3/8 full width at 9\ntitel 5x1 at 6, 10 1/2").await?;
    // The word that is wrong is told at its line; what is right is drawn already.
    browser
        .find("//p[@role='alert'][contains(., 'Line 6')][contains(., '“titel”')]")
        .await?;
    for _ in 0.."titel 5x1 at 6, 10 1/2".len() {
        lines.send_keys(Key::Backspace + "").await?;
    }
    lines.send_keys("title 5x1 at 6, 10 1/2").await?;
    browser.gone("//p[@role='alert']").await?;
    browser
        .find("//summary[starts-with(., 'What lies on what')]")
        .await?;
    // Named, kept, and a page started from it, without a mouse.
    let name = browser
        .find("//input[@id = //label[.='Name']/@for]")
        .await?;
    name.send_keys(Key::Control + "a").await?;
    name.send_keys("Typed at the table").await?;
    browser
        .find("//button[.='Start a page'][not(@disabled)]")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    browser
        .find("//h2[contains(., 'One page') and contains(., 'by scale')]")
        .await?;
    browser.find("//h1[.='Typed at the table']").await?;
    let page = saved(&browser).await?;
    let kinds: Vec<&str> = page["plan"]["sketch"]["sketch"]["blocks"]
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(|b| b["kind"].as_str())
        .collect();
    ensure!(kinds == ["mat", "photo", "strip", "title"], "{kinds:?}");
    browser.close().await
}
