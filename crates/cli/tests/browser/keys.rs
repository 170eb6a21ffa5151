//! Letters and numbers as keys: on the page only, and only for those who want them.

use crate::support::{Server, click, come_in, open_kites_at_fit, press};
use anyhow::{Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use thirtyfour::prelude::*;

const HISTORY: &str = "//*[@role='dialog'][.//h2[.='History']]";

async fn is_open(browser: &Browser) -> Result<bool> {
    Ok(!browser
        .window
        .find_all(By::XPath(HISTORY))
        .await?
        .is_empty())
}

/// Types where the focus is.
async fn type_there(browser: &Browser, keys: impl Into<TypingData>) -> Result<()> {
    let focused = browser.window.active_element().await?;
    Ok(focused.send_keys(keys).await?)
}

#[tokio::test]
async fn letters_act_while_the_page_has_the_focus_and_can_be_switched_off() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_kites_at_fit(&browser).await?;
    // Opened anew, not come to by a link that has the focus.
    let fit = browser.window.current_url().await?;
    browser.window.goto(fit.as_str()).await?;
    browser
        .find("//section[@data-keys='page']//h2[contains(., 'by stretch')]")
        .await?;

    // The page has the focus when it is opened.
    type_there(&browser, "h").await?;
    browser.find(HISTORY).await?;
    type_there(&browser, Key::Escape + "").await?;
    browser.gone(HISTORY).await?;

    // On a button beside the page a letter does nothing; Escape leads back to the page.
    let beside = "//aside[@aria-label='Ledger']//button[not(@disabled)]";
    browser.find(beside).await?.send_keys("h").await?;
    ensure!(
        !is_open(&browser).await?,
        "h on a button opened the history"
    );
    type_there(&browser, Key::Escape + "").await?;
    type_there(&browser, "h").await?;
    browser.find(HISTORY).await?;
    type_there(&browser, Key::Escape + "").await?;
    browser.gone(HISTORY).await?;

    let page = browser.window.current_url().await?;
    browser
        .window
        .goto(format!("{}/me", server.address))
        .await?;
    let switch = "//label[contains(., 'letter and number keys')]//option";
    click(&browser, &format!("{switch}[.='off']")).await?;
    browser.find("//p[@role='status'][.='Saved.']").await?;
    browser.window.goto(page.as_str()).await?;
    browser
        .find("//section[@data-keys='page']//h2[contains(., 'by stretch')]")
        .await?;
    for key in ["h", "8", "?"] {
        press(&browser, key).await?;
    }
    ensure!(
        browser
            .window
            .find_all(By::XPath(
                "//*[@role='dialog'] | //h2[contains(., 'Block 8')]"
            ))
            .await?
            .is_empty(),
        "a letter did something though they are off"
    );
    browser.close().await
}
