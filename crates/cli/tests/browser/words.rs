//! The Words station: a title that lacks a letter is set and spent, another goes onto two lines, writing is made to fit.

use crate::support::{Server, click, come_in, open_page, saved};
use anyhow::{Result, bail};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::Value;
use thirtyfour::prelude::*;

async fn at_words(server: &Server) -> Result<Browser> {
    let browser = Browser::open().await?;
    come_in(&browser, server).await?;
    open_page(&browser, "Kites over the flats").await?;
    click(
        &browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Words')]",
    )
    .await?;
    browser.find("//h2[.='Ways to set it, best first']").await?;
    Ok(browser)
}

/// Waits until the server has words as wanted.
async fn until_words(browser: &Browser, wanted: impl Fn(&Value) -> bool) -> Result<Value> {
    const TRIES: usize = 300;
    let mut last = Value::Null;
    for _ in 0..TRIES {
        last = saved(browser).await?["plan"]["words"].take();
        if wanted(&last) {
            return Ok(last);
        }
        browser.find("//p[@data-save]").await?;
    }
    bail!("never saved; the newest is {last}")
}

async fn type_into(browser: &Browser, xpath: &str, text: &str) -> Result<()> {
    let field = browser.find(xpath).await?;
    field.send_keys(Key::Control + "a").await?;
    field.send_keys(text).await?;
    field.send_keys(Key::Tab + "").await?;
    Ok(())
}

#[tokio::test]
async fn a_title_that_lacks_a_letter_is_set_and_spent() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = at_words(&server).await?;
    browser
        .find("//li[contains(., 'Cork capitals')]//span[contains(., 'N out of Z, a quarter turn')]")
        .await?;
    click(
        &browser,
        "//button[starts-with(@aria-label, 'Take it: way 1')]",
    )
    .await?;
    browser.find("//strong[.='taken']").await?;
    browser
        .find("//li//span[contains(., 'Z: 1 left, 1 in this title')]")
        .await?;
    let spent = |words: &Value| -> u64 {
        let sets = words["title"]["uses"].as_object().into_iter().flatten();
        let letters = sets.filter_map(|(_, set)| set.as_object()).flatten();
        letters.filter_map(|(_, n)| n.as_u64()).sum()
    };
    until_words(&browser, |words| spent(words) == 10).await?;

    // A title that has no room in one line goes onto more; one that lacks letters says which.
    type_into(
        &browser,
        "//input[@placeholder='What the title says']",
        "Low sun at dusk",
    )
    .await?;
    browser
        .find("//li[contains(., 'Cork capitals on 2 lines')]")
        .await?;
    type_into(
        &browser,
        "//input[@placeholder='What the title says']",
        "Pizzazz jazz quizzes",
    )
    .await?;
    browser
        .find("//p[@role='status'][contains(., 'There are not enough letters')]")
        .await?;
    // What was typed is saved; the letters of the first title are free again.
    until_words(&browser, |words| {
        words["title"]["text"] == "Pizzazz jazz quizzes" && spent(words) == 0
    })
    .await?;
    browser.close().await
}

#[tokio::test]
async fn writing_is_measured_in_her_hand_and_made_to_fit() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = at_words(&server).await?;
    click(&browser, "//button[.='Measure my hand']").await?;
    let dialog = "//div[@role='dialog']";
    browser
        .find(&format!(
            "{dialog}//p[contains(., 'Low water at a quarter past one')]"
        ))
        .await?;
    type_into(
        &browser,
        &format!("{dialog}//input[@placeholder='Fine pen']"),
        "Broad nib",
    )
    .await?;
    let wide =
        format!("{dialog}//input[@id = //label[normalize-space() = 'The sentence is']/@for]");
    type_into(&browser, &wide, "7 1/2").await?;
    click(&browser, &format!("{dialog}//button[.='Keep this hand']")).await?;
    browser
        .find("//div[@role='status']//p[contains(., 'over')]/span[contains(., 'line')]")
        .await?;
    click(
        &browser,
        "//button[starts-with(@aria-label, 'Try it: Write smaller')]",
    )
    .await?;
    browser
        .find("//div[@role='status']//p[contains(., 'to spare')]")
        .await?;
    // The date is kept all the while.
    browser
        .find("//div[@role='status']//p[contains(., 'kept for date')]/span[.='1']")
        .await?;
    until_words(&browser, |words| {
        let writing = &words["writing"];
        writing["hand"]["name"] == "Broad nib" && writing["pitch"].as_f64() < Some(0.25)
    })
    .await?;
    browser
        .find("//a[.='Guide lines and strips as PDF']")
        .await?;
    browser.close().await
}

/// Chooses in a list of the station by its name.
async fn choose_in(browser: &Browser, list: &str, option: &str) -> Result<()> {
    click(
        browser,
        &format!("//select[@aria-label='{list}']/option[contains(., '{option}')]"),
    )
    .await
}

#[tokio::test]
async fn words_go_elsewhere_get_a_banner_and_run_in_columns() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = at_words(&server).await?;
    // Where nothing lies, then back where the sketch has it.
    choose_in(&browser, "Where the title stands", "where nothing lies").await?;
    until_words(&browser, |w| w["title"]["block"] == "free-0").await?;
    choose_in(
        &browser,
        "Where the title stands",
        "where the sketch has it",
    )
    .await?;
    until_words(&browser, |w| w["title"]["block"].is_null()).await?;
    // Writing in columns, in printed type, with the date kept.
    choose_in(&browser, "How the writing runs", "in 2 columns").await?;
    until_words(&browser, |w| w["writing"]["shape"]["count"] == 2).await?;
    click(&browser, "//select/option[.='printed, plain, 8 pt']").await?;
    until_words(&browser, |w| w["writing"]["hand"]["type"] == "plain").await?;
    browser
        .find("//div[@role='status']//p[contains(., 'kept for date')]/span[.='1']")
        .await?;
    // A banner under the title is a piece of the sketch from then on.
    let accents = |page: &Value| -> usize {
        let blocks = page["plan"]["sketch"]["sketch"]["blocks"].as_array();
        let all = blocks.into_iter().flatten();
        all.filter(|b| b["kind"] == "accent").count()
    };
    let before = accents(&saved(&browser).await?);
    click(&browser, "//button[.='Lay a banner behind it']").await?;
    for _ in 0..300 {
        if accents(&saved(&browser).await?) > before {
            return browser.close().await;
        }
        browser.find("//p[@data-save]").await?;
    }
    bail!("no banner was laid")
}
