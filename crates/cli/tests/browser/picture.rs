//! From a picture to a fitted spread.

use crate::support::{Server, click, come_in, fetched, saved, until_saved};
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
    let scan = metrosk_vision::jpeg(
        &picture(&metrosk_demo::sketches(SEED)[0], Style::Phone, SEED),
        88,
    )?;
    let path = std::path::Path::new(env!("CARGO_TARGET_TMPDIR")).join("a phone photo.jpg");
    std::fs::write(&path, scan)?;
    browser
        .window
        .goto(format!("{}/drawer/picture", server.address))
        .await?;
    let file = browser.find("//input[@type='file']").await?;
    file.send_keys(path.to_str().context("a path")?).await?;
    browser
        .find("//button[.='Read it'][not(@disabled)]")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    browser
        .find("//p[@role='status'][contains(., ' blocks')][not(contains(., '…'))]")
        .await?;
    // The page's corners are found; the first one moves by keys and the picture is read again.
    let corner = browser
        .find("//*[@aria-label='top left corner of the page']")
        .await?;
    let before = corner.attr("aria-valuetext").await?;
    corner.send_keys(Key::Right + "").await?;
    browser
        .gone(&format!(
            "//*[@aria-valuetext='{}']",
            before.context("a place")?
        ))
        .await?;
    browser
        .find("//button[.='Read it again'][not(@disabled)]")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    let list = browser.find("//div[@role='listbox']").await?;
    // The unsure ones come first: the first is given a kind, the others are accepted.
    list.send_keys("p").await?;
    for _ in 0..30 {
        if !browser
            .window
            .find_all(By::XPath("//p[@role='status'][contains(., 'all settled')]"))
            .await?
            .is_empty()
        {
            break;
        }
        list.send_keys(Key::Enter + "").await?;
    }
    browser
        .find("//p[@role='status'][contains(., 'all settled')]")
        .await?;
    browser
        .find("//button[.='Put into the drawer']")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    browser
        .find("//button[.='Start a page'][not(@disabled)]")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    browser.find("//h1[.='a phone photo']").await?;
    browser
        .find("//button[@aria-label='Two pages']")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    browser.find("//h2[contains(., 'Two pages')]").await?;
    until_saved(&browser, |fit| fit["target"]["pages"] == 2).await?;
    browser.close().await
}

/// Where something is on the screen: left, top, width, height.
async fn place(browser: &Browser, xpath: &str) -> Result<[f64; 4]> {
    let rect = browser.find(xpath).await?.rect().await?;
    Ok([rect.x, rect.y, rect.width, rect.height])
}

#[tokio::test]
async fn a_finished_page_is_lifted_and_its_maker_stays_with_it() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    browser
        .window
        .goto(format!("{}/drawer/picture", server.address))
        .await?;
    click(&browser, "//button[contains(., 'A finished page to lift')]").await?;
    click(
        &browser,
        "//label[contains(., 'a finished page to lift')]/input",
    )
    .await?;
    for (label, text) in [
        ("Page width (in)", "8.5"),
        ("Page height (in)", "11"),
        ("Made by", "Brisa Lund"),
        ("After, oldest first", "Ode Marsh, Teal"),
    ] {
        let field = browser
            .find(&format!(
                "//input[@id = //label[normalize-space() = '{label}']/@for]"
            ))
            .await?;
        field.send_keys(Key::Control + "a").await?;
        field.send_keys(text).await?;
    }
    // The page is looked for; then she lays blocks over it.
    click(&browser, "//button[.='Find the page']").await?;
    click(&browser, "//button[.='Lay blocks over it'][not(@disabled)]").await?;
    browser.find("//h3[.='Colours of the page']").await?;
    // A strip is drawn roughly over the lower one of the page: it goes to the page's own edges.
    let [x, y, w, h] = place(&browser, "//*[name()='image']").await?;
    click(&browser, "//button[.='strip']").await?;
    let at = |u: f64, v: f64| ((x + w * u) as i64, (y + h * v) as i64);
    let (from, until) = (at(0.01, 0.892), at(0.99, 0.962));
    browser
        .window
        .action_chain()
        .move_to(from.0, from.1)
        .click_and_hold()
        .move_to(until.0, until.1)
        .release()
        .perform()
        .await?;
    browser
        .find("//span[contains(., 'strip')][contains(., '1')]")
        .await?;
    click(&browser, "//button[.='Save'][not(@disabled)]").await?;
    browser
        .find("//p[@role='status'][.='As it lies in the drawer.']")
        .await?;
    let id = browser
        .window
        .current_url()
        .await?
        .path_segments()
        .and_then(|mut s| s.next_back().map(str::to_owned))
        .context("an id")?;
    let kept = fetched(&browser, &format!("/api/sketches/{id}")).await?;
    ensure!(
        kept["reading"]["credit"] == "Lifted from a page by Brisa Lund, after Ode Marsh and Teal.",
        "{}",
        kept["reading"]["credit"]
    );
    let strip = &kept["document"]["blocks"][0];
    ensure!(
        strip["kind"] == "strip" && !kept["picture"].is_null(),
        "{strip}"
    );
    // The chain stays with a page made from it.
    click(&browser, "//button[.='Start a page'][not(@disabled)]").await?;
    browser.find("//h2[.='Sketch card']").await?;
    let page = saved(&browser).await?;
    ensure!(
        page["plan"]["sketch"]["sketch"]["origin"]["after"][0] == "Ode Marsh",
        "{}",
        page["plan"]["sketch"]["sketch"]["origin"]
    );
    browser
        .find("//p[contains(., 'Lifted from a page by Brisa Lund')]")
        .await?;
    browser.close().await
}

#[tokio::test]
async fn what_was_read_wrongly_is_mended_by_keyboard() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    browser
        .window
        .goto(format!("{}/drawer/picture", server.address))
        .await?;
    click(&browser, "//button[contains(., 'A diagram')]").await?;
    click(&browser, "//button[.='Read it'][not(@disabled)]").await?;
    let before = blocks_read(&browser).await?;
    let list = browser.find("//div[@role='listbox']").await?;
    // Halved there is one more; marked and gathered there are as many as before.
    list.send_keys("h").await?;
    ensure!(blocks_read(&browser).await? == before + 1, "halved");
    browser
        .find("//div[@role='option'][@aria-selected='true']")
        .await?;
    list.send_keys(" ").await?;
    list.send_keys(Key::Down + "").await?;
    browser
        .find("//button[starts-with(., 'Join with')][not(contains(., 'another'))]")
        .await?;
    list.send_keys("g").await?;
    ensure!(blocks_read(&browser).await? == before, "merged");
    // An edge is taken in hand and moved; Escape lets go.
    list.send_keys("3").await?;
    browser
        .find("//div[@role='option'][contains(., 'right edge in hand')]")
        .await?;
    list.send_keys(Key::Left + "").await?;
    list.send_keys(Key::Escape + "").await?;
    browser
        .gone("//div[@role='option'][contains(., 'edge in hand')]")
        .await?;
    browser.close().await
}

/// The blocks of the sketch that is looked over, as the list shows them.
async fn blocks_read(browser: &Browser) -> Result<usize> {
    let told = "//p[@role='status'][contains(., ' blocks')][not(contains(., '…'))]";
    let text = browser.find(told).await?.text().await?;
    let count = text.split(' ').next().and_then(|n| n.parse().ok());
    count.with_context(|| text.clone())
}

#[tokio::test]
async fn a_sketch_in_another_manner_is_settled_by_keyboard() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    let drawn = (0..)
        .map(|n| metrosk_drawn::sample(n, metrosk_drawn::Set::Tuning))
        .find(|s| s.manner.style() == "by hand")
        .context("a sketch by hand")?;
    let path = std::path::Path::new(env!("CARGO_TARGET_TMPDIR")).join("another hand.png");
    drawn.picture.save(&path)?;
    browser
        .window
        .goto(format!("{}/drawer/picture", server.address))
        .await?;
    let file = browser.find("//input[@type='file']").await?;
    file.send_keys(path.to_str().context("a path")?).await?;
    browser
        .find("//button[.='Read it'][not(@disabled)]")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    let list = browser.find("//div[@role='listbox']").await?;
    let settled = "//p[@role='status'][contains(., 'all settled')]";
    for _ in 0..60 {
        if !browser
            .window
            .find_all(By::XPath(settled))
            .await?
            .is_empty()
        {
            break;
        }
        list.send_keys(Key::Enter + "").await?;
    }
    browser.find(settled).await?;
    let count = blocks_read(&browser).await?;
    ensure!(count >= drawn.truth.blocks.len() / 2, "{count} blocks");
    browser
        .find("//button[.='Put into the drawer']")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    browser
        .find("//button[.='Start a page'][not(@disabled)]")
        .await?;
    browser.close().await
}

/// Drags from one place of the picture to another, both as shares of it.
async fn drag_over(browser: &Browser, from: (f64, f64), until: (f64, f64)) -> Result<()> {
    let [x, y, w, h] = place(browser, "//*[@data-over]//*[name()='image']").await?;
    let at = |(u, v): (f64, f64)| ((x + w * u) as i64, (y + h * v) as i64);
    let (from, until) = (at(from), at(until));
    browser
        .window
        .action_chain()
        .move_to(from.0, from.1)
        .click_and_hold()
        .move_to(until.0, until.1)
        .release()
        .perform()
        .await?;
    Ok(())
}

/// Left, top, width and height of the block in hand, as shown.
async fn in_hand(browser: &Browser) -> Result<Vec<String>> {
    let mut shown = Vec::new();
    for label in ["left", "top", "width", "height"] {
        let field = format!(
            "//section[@aria-labelledby='in-hand']//input[@id = //label[.='{label}']/@for]"
        );
        let value = browser.find(&field).await?.prop("value").await?;
        shown.push(value.context("a value")?);
    }
    Ok(shown)
}

#[tokio::test]
async fn a_missed_block_is_drawn_over_its_lines_and_an_edge_is_pulled_to_them() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    browser
        .window
        .goto(format!("{}/drawer/picture", server.address))
        .await?;
    click(&browser, "//button[contains(., 'A diagram')]").await?;
    click(&browser, "//button[.='Read it'][not(@disabled)]").await?;
    let photo = "//div[@role='option'][contains(., 'photo')]";
    click(&browser, photo).await?;
    let before = in_hand(&browser).await?;
    let count = blocks_read(&browser).await?;
    click(&browser, "//button[.='Drop']").await?;
    browser
        .find(&format!(
            "//p[@role='status'][starts-with(., '{} blocks')]",
            count - 1
        ))
        .await?;
    // Where it lay, as shares of the page of twelve inches.
    let inches = |text: &str| -> f64 {
        let part = |p: &str| match p.split_once('/') {
            Some((a, b)) => a.parse::<f64>().unwrap_or(0.0) / b.parse::<f64>().unwrap_or(1.0),
            None => p.parse().unwrap_or(0.0),
        };
        text.split(' ').map(part).sum()
    };
    let [x, y, w, h] = [0, 1, 2, 3].map(|n| inches(&before[n]) / 12.0);
    // Drawn roughly, it goes to its own lines.
    click(&browser, "//button[.='Draw a missed block']").await?;
    browser
        .find("//button[.='photo'][@aria-pressed='true']")
        .await?;
    drag_over(
        &browser,
        (x + 0.006, y + 0.004),
        (x + w - 0.005, y + h - 0.006),
    )
    .await?;
    browser
        .find(&format!(
            "//p[@role='status'][starts-with(., '{count} blocks')]"
        ))
        .await?;
    let near = |shown: &[String]| {
        let pairs = before.iter().zip(shown);
        pairs
            .map(|(a, b)| (inches(a) - inches(b)).abs())
            .fold(0.0, f64::max)
    };
    let after = in_hand(&browser).await?;
    ensure!(near(&after) <= 1.0 / 16.0, "{before:?} and {after:?}");
    // An edge pulled a little way off goes back to its line.
    drag_over(&browser, (x + w, y + h / 2.0), (x + w - 0.012, y + h / 2.0)).await?;
    let pulled = in_hand(&browser).await?;
    ensure!(near(&pulled) <= 1.0 / 16.0, "{before:?} and {pulled:?}");
    click(&browser, "//button[.='Undo'][not(@disabled)]").await?;
    browser.close().await
}
