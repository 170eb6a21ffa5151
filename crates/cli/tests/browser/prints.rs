//! Her own prints with what must not be cut on them, and blocks that would stand on the fold.

use crate::support::{AtFit, choose, click, fill, press, until_saved};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::browser::Browser;
use metrosk_testkit::fit_of;
use serde_json::{Value, json};

#[tokio::test]
async fn prints_are_listed_and_a_face_is_kept_out_of_the_trim() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;

    click(browser, "//button[.='List my prints…']").await?;
    let page = until_saved(browser, |fit| {
        fit["photos"].as_array().is_some_and(|p| p.len() == 3)
    })
    .await?;
    ensure!(
        page["plan"]["photos"]["photos"][0] == json!({"id": "f1", "w": 4, "h": 6}),
        "an upright print for an upright slot"
    );
    fill(browser, "f2 width", "6").await?;
    fill(browser, "f2 height", "3 1/2").await?;
    until_saved(browser, |fit| {
        fit["photos"][1]["w"] == 6.0 && fit["photos"][1]["h"] == 3.5
    })
    .await?;
    browser
        .find("//li[contains(., 'Print f2 is trimmed from 6')]")
        .await?;

    // A face at the print's left edge: the trim is taken at the right.
    click(
        browser,
        "//button[contains(., 'faces')][contains(., 'of f2')]",
    )
    .await?;
    click(
        browser,
        "//fieldset[@aria-label='Faces on f2']//button[@aria-label='column 1, row 2']",
    )
    .await?;
    let page = until_saved(browser, |fit| {
        fit["photos"][1]["faces"]
            .as_array()
            .is_some_and(|f| f.len() == 1)
    })
    .await?;
    let fit = &fit_of(&page);
    let keep = keep_of(&fitted(browser, fit).await?, "f2")?;
    ensure!(
        keep["x"].as_f64().context("x")? < 1e-6 && keep["w"].as_f64().context("w")? < 0.95,
        "trimmed at the right alone: {keep}"
    );

    // It is taken off again, the main photo is said, the list goes back to a count.
    click(browser, "//fieldset[@aria-label='Faces on f2']//button[@aria-label='column 1, row 2'][@aria-pressed='true']").await?;
    until_saved(browser, |fit| fit["photos"][1]["faces"].is_null()).await?;
    click(
        browser,
        "//label[contains(., 'main photo')]//option[.='f3']",
    )
    .await?;
    until_saved(browser, |fit| fit["photos"][2]["focal"] == true).await?;
    click(browser, "//button[.='One print more']").await?;
    browser
        .find("//output[@aria-label='Photos'][.='4']")
        .await?;
    click(browser, "//button[.='Count only']").await?;
    until_saved(browser, |fit| fit["photos"] == json!({"count": 4})).await?;
    at_fit.close().await
}

#[tokio::test]
async fn what_would_stand_on_the_fold_goes_where_she_says() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;
    click(browser, "//button[@aria-label='Two pages']").await?;
    browser.find("//h2[contains(., 'by stretch')]").await?;

    // The title stands near the middle: on the right page, then once on each.
    press(browser, "8").await?;
    choose(browser, "At the fold", "the right page").await?;
    let page = until_saved(browser, |fit| {
        fit["at_fold"] == json!([{"block": "t1", "as": "right"}])
    })
    .await?;
    let layout = fitted(browser, &fit_of(&page)).await?;
    ensure!(pages_of(&layout, "t1") == [1], "{layout}");
    choose(browser, "At the fold", "once on each page").await?;
    browser
        .find("//li[contains(., 'stands once on each page, as you chose')]")
        .await?;
    let page = until_saved(browser, |fit| fit["at_fold"][0]["as"] == "each").await?;
    let layout = fitted(browser, &fit_of(&page)).await?;
    ensure!(pages_of(&layout, "t1") == [0, 1], "{layout}");
    choose(browser, "At the fold", "where it costs least").await?;
    until_saved(browser, |fit| fit["at_fold"].is_null()).await?;
    at_fit.close().await
}

#[tokio::test]
async fn a_title_runs_across_between_two_of_its_words() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;
    click(browser, "//button[@aria-label='Two pages']").await?;
    browser.find("//h2[contains(., 'by stretch')]").await?;
    press(browser, "8").await?;

    // Nothing changes before its words are known; one word is told off, and what was typed stays.
    choose(browser, "At the fold", "across, between two words").await?;
    fill(browser, "Its words", "Kites").await?;
    browser
        .find("//p[@role='alert'][contains(., '“Kites” is one word')]")
        .await?;
    fill(browser, "Its words", "Kites over the flat").await?;
    let words = json!([{"block": "t1", "as": "across", "words": "Kites over the flat"}]);
    let page = until_saved(browser, |fit| fit["at_fold"] == words).await?;
    let layout = fitted(browser, &fit_of(&page)).await?;
    ensure!(pages_of(&layout, "t1") == [0, 1], "{layout}");
    browser
        .find("//li[contains(., 'on the left and “')]")
        .await?;

    // The words are still there after a look at another block.
    press(browser, "7").await?;
    press(browser, "8").await?;
    browser
        .find("//input[@id = //label[.='Its words']/@for][@value='Kites over the flat']")
        .await?;
    choose(browser, "At the fold", "where it costs least").await?;
    until_saved(browser, |fit| fit["at_fold"].is_null()).await?;
    at_fit.close().await
}

/// The best layout for a fit, as the page's own screen gets it.
async fn fitted(browser: &Browser, fit: &Value) -> Result<Value> {
    let script = "return fetch('/api/fit', {method: 'POST', headers: {'content-type': 'application/json'}, \
                  body: JSON.stringify(arguments[0])}).then(r => r.json())";
    let answer = browser
        .window
        .execute(script, vec![fit.clone()])
        .await?
        .json()
        .clone();
    Ok(answer["proposals"][0]["layout"].clone())
}

fn blocks(layout: &Value) -> impl Iterator<Item = &Value> {
    layout["blocks"].as_array().into_iter().flatten()
}

fn keep_of(layout: &Value, print: &str) -> Result<Value> {
    Ok(blocks(layout)
        .find(|b| b["photo"] == print)
        .context("the print is placed")?["keep"]
        .clone())
}

fn pages_of(layout: &Value, block: &str) -> Vec<u64> {
    blocks(layout)
        .filter(|b| b["from"] == json!([block]))
        .filter_map(|b| b["page"].as_u64())
        .collect()
}
