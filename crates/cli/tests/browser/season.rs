//! The team's season: a call written, taken and answered; a hop handed on; a text and a calendar.

use crate::support::{Server, click, come_in, enter, fetched, saved};
use anyhow::{Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use thirtyfour::prelude::*;

/// Somebody of the demo in a browser of her own.
async fn as_person(server: &Server, account: &str) -> Result<Browser> {
    let browser = Browser::open().await?;
    browser.window.goto(&server.address).await?;
    browser.find("//button[.='Try it as Wren']").await?;
    let script = "return fetch('/api/session', {method: 'POST', headers: {'content-type': 'application/json'}, body: JSON.stringify(arguments[0])}).then(r => r.status)";
    let body = serde_json::json!({"account": account, "password": "low sun on wet sand"});
    let status = browser.window.execute(script, vec![body]).await?;
    ensure!(status.json() == 200, "{:?}", status.json());
    browser.window.goto(&server.address).await?;
    browser.find("//nav[@aria-label='House']").await?;
    Ok(browser)
}

/// Types where the focus is.
async fn type_there(browser: &Browser, keys: impl Into<TypingData>) -> Result<()> {
    let focused = browser.window.active_element().await?;
    Ok(focused.send_keys(keys).await?)
}

/// Moves the focus on, or back, so many times.
async fn tab(browser: &Browser, times: usize, back: bool) -> Result<()> {
    for _ in 0..times {
        if back {
            type_there(browser, Key::Shift + Key::Tab).await?;
        } else {
            type_there(browser, Key::Tab + "").await?;
        }
    }
    Ok(())
}

/// A day from today as a date field takes it, key by key.
async fn day_keys(browser: &Browser, days: i32) -> Result<String> {
    let script = "const d = new Date(Date.now() + arguments[0] * 864e5); const two = (n) => String(n).padStart(2, '0'); \
                  return two(d.getMonth() + 1) + two(d.getDate()) + d.getFullYear()";
    let found = browser.window.execute(script, vec![days.into()]).await?;
    Ok(found.json().as_str().unwrap_or_default().to_owned())
}

#[tokio::test]
async fn a_lead_writes_a_call_by_keyboard_and_a_maker_answers_it() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let wren = Browser::open().await?;
    come_in(&wren, &server).await?;
    click(&wren, "//nav//a[.='The season']").await?;
    enter(&wren, "//button[.='Write a call']").await?;
    wren.find("//form[@aria-label='What is asked']").await?;
    type_there(&wren, "Cold hands").await?;
    tab(&wren, 2, false).await?;
    type_there(&wren, "Gloves or none.").await?;
    // Two things that are asked: each begins after the button that adds it, and is reached by going back.
    tab(&wren, 1, false).await?;
    type_there(&wren, Key::Enter + "").await?;
    tab(&wren, 3, true).await?;
    type_there(&wren, "so many photos").await?;
    tab(&wren, 1, false).await?;
    type_there(&wren, Key::Control + "a").await?;
    type_there(&wren, "5").await?;
    tab(&wren, 2, false).await?;
    type_there(&wren, Key::Enter + "").await?;
    tab(&wren, 2, true).await?;
    type_there(&wren, "A mitten").await?;
    // On to the sketch and the day.
    tab(&wren, 3, false).await?;
    type_there(&wren, "Three").await?;
    tab(&wren, 1, false).await?;
    type_there(&wren, day_keys(&wren, 20).await?).await?;
    type_there(&wren, Key::Enter + "").await?;
    wren.find("//h1[.='Cold hands']").await?;
    wren.find("//li[contains(., '5 photos at least')]").await?;
    click(&wren, "//nav//a[.='The season']").await?;

    let teal = as_person(&server, "teal").await?;
    click(&teal, "//nav//a[.='The season']").await?;
    enter(&teal, "//button[.='Take it: Cold hands']").await?;
    // Wren sees it without looking anew.
    wren.find("//li[contains(., 'Cold hands')]//*[.='Teal']")
        .await?;
    teal.gone("//button[.='Take it: Cold hands']").await?;
    click(&teal, "//li//a[.='Cold hands']").await?;
    enter(&teal, "//button[.='Begin my page']").await?;
    teal.find("//li[contains(., '5 photos at least')]//*[@aria-label='Not yet']")
        .await?;
    click(
        &teal,
        "//li[contains(., 'A mitten')]//input[@type='checkbox']",
    )
    .await?;
    let page = saved(&teal).await?;
    ensure!(page["call"]["name"] == "Cold hands", "{}", page["call"]);
    click(&teal, "//nav[@aria-label='Stations']//a[.='Fit']").await?;
    for count in 4..=5 {
        click(&teal, "//button[@aria-label='One photo more']").await?;
        teal.find(&format!("//output[@aria-label='Photos'][.='{count}']"))
            .await?;
    }
    teal.find("//p[@data-save='saved']").await?;
    click(&teal, "//nav[@aria-label='Stations']//a[.='Call']").await?;
    teal.find("//li[contains(., '5 photos at least')]//*[@aria-label='The plan sees it']")
        .await?;
    teal.close().await?;
    wren.close().await
}

#[tokio::test]
async fn a_hop_is_handed_on_once_the_page_is_settled() -> Result<()> {
    handed_on(By::Mouse).await
}

#[tokio::test]
async fn a_hop_is_handed_on_by_keyboard_alone() -> Result<()> {
    handed_on(By::Keyboard).await
}

/// How buttons and links are used.
#[derive(Clone, Copy)]
enum By {
    Mouse,
    Keyboard,
}

impl By {
    async fn act(self, browser: &Browser, xpath: &str) -> Result<()> {
        match self {
            By::Mouse => click(browser, xpath).await,
            By::Keyboard => enter(browser, xpath).await,
        }
    }
}

async fn handed_on(by: By) -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let wren = Browser::open().await?;
    come_in(&wren, &server).await?;
    by.act(&wren, "//h3/a[.='Kites over the flats']").await?;
    by.act(
        &wren,
        "//nav[@aria-label='Stations']//a[starts-with(., 'Fit')]",
    )
    .await?;
    wren.find("//h2[contains(., 'by stretch')]").await?;
    by.act(&wren, "//button[.='Settled']").await?;
    wren.find("//button[.='Mark as settled']").await?;

    let teal = as_person(&server, "teal").await?;
    by.act(&teal, "//nav//a[.='The season']").await?;
    by.act(&teal, "//li//a[.='Out on the flats']").await?;
    teal.find("//li[contains(., 'waits for Wren’s page')]")
        .await?;
    by.act(&teal, "//button[.='Begin my page']").await?;
    teal.find("//p[@role='alert'][contains(., 'Wren has not settled')]")
        .await?;
    // Wren settles it, and it goes on.
    by.act(&wren, "//button[.='Mark as settled']").await?;
    teal.gone("//li[contains(., 'waits for Wren’s page')]")
        .await?;
    by.act(&teal, "//button[.='Begin my page']").await?;
    teal.find("//p[contains(., 'Lifted from a page by Wren')]")
        .await?;
    let page = saved(&teal).await?;
    let sketch = &page["plan"]["sketch"]["sketch"];
    ensure!(sketch["canvas"]["pages"] == 2, "{sketch}");
    // Wren sees Teal's page on the thread.
    by.act(
        &wren,
        "//nav[@aria-label='Stations']//a[starts-with(., 'Call')]",
    )
    .await?;
    wren.find("//h3[.='Teal']/following-sibling::a[.='Out on the flats']")
        .await?;
    teal.close().await?;
    wren.close().await
}

#[tokio::test]
async fn a_text_is_looked_over_and_dates_go_to_her_calendar() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let wren = Browser::open().await?;
    come_in(&wren, &server).await?;
    click(&wren, "//nav//a[.='The season']").await?;
    click(&wren, "//button[.='Paste a text']").await?;
    wren.find("//textarea")
        .await?
        .send_keys("Night tide\n- two pages\n- hand stitching\nSketch by Dunlin.")
        .await?;
    click(&wren, "//button[.='Find what is asked']").await?;
    wren.find("//section[@aria-labelledby='noticed']//dd[.='two pages']")
        .await?;
    click(&wren, "//button[.='Save the call']").await?;
    wren.find("//h1[.='Night tide']").await?;
    wren.find("//dd[.='Dunlin']").await?;
    click(&wren, "//nav//a[.='The season']").await?;
    click(&wren, "//button[.='Dates to my calendar']").await?;
    click(&wren, "//button[.='Make an address']").await?;
    let address = wren
        .find("//div[@role='status']//code")
        .await?
        .text()
        .await?;
    ensure!(address.starts_with(&server.address), "{address}");
    click(&wren, "//button[.='Take the address back']").await?;
    wren.find("//button[.='Make an address']").await?;
    let path = address.trim_start_matches(&server.address);
    let told = fetched(&wren, path).await?;
    ensure!(told["type"] == "missing", "{told}");
    wren.close().await
}
