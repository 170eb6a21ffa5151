//! What she chooses on the page: for one slot, between two blocks, with her hand; and how a clash is undone.

use crate::support::{AtFit, choose, click, fill, press, saved, until_saved};
use anyhow::{Context, Result, ensure};
use serde_json::json;

#[tokio::test]
async fn a_slot_goes_another_way_and_takes_its_photos_along() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;

    press(browser, "5").await?;
    choose(browser, "This slot", "three small ones below").await?;
    browser
        .find("//li[contains(., 'Photo 5 shows one large print')]")
        .await?;
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    until_saved(browser, |fit| {
        fit["slots"][0]["small"] == 3 && fit["photos"]["count"] == 6
    })
    .await?;

    // Another slot is left out, and asked back in from its own ledger.
    press(browser, "6").await?;
    choose(browser, "This slot", "left out").await?;
    browser
        .find("//p[.='It has no place on this page.']")
        .await?;
    browser
        .find("//li[contains(., 'Photo 6 is left out, as you chose')]")
        .await?;
    choose(browser, "This slot", "as the fit finds best").await?;
    browser
        .gone("//p[.='It has no place on this page.']")
        .await?;

    // A photo becomes a title, and what was chosen is all one step back at a time.
    press(browser, "7").await?;
    choose(browser, "Kind", "title").await?;
    browser.find("//h2[contains(., '7 The title')]").await?;
    until_saved(browser, |fit| fit["sketch"]["blocks"][6]["kind"] == "title").await?;
    click(browser, "//button[.='Undo']").await?;
    browser.find("//h2[contains(., '7 The photo')]").await?;
    at_fit.close().await
}

#[tokio::test]
async fn blocks_are_held_to_each_other_and_a_clash_is_let_go_of() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;

    // The title is as wide as half of the upper strip.
    press(browser, "8").await?;
    click(browser, "//button[contains(., 'Hold it to another block')]").await?;
    choose(browser, "What of this block", "width").await?;
    choose(browser, "Which part", "half").await?;
    choose(browser, "Which other block", "2 strip").await?;
    click(browser, "//button[.='As large']").await?;
    click(browser, "//button[.='Hold']").await?;
    let to = json!({"block": "s1", "edge": "width", "times": 0.5});
    let held = json!([{"block": "t1", "edge": "width", "at": 0, "to": to}]);
    until_saved(browser, |fit| {
        fit["pins"][0]["to"] == held[0]["to"] && fit["pins"][0]["at"] == 0.0
    })
    .await?;
    let row = browser.find("//tr[th[.='width']]").await?.text().await?;
    ensure!(
        row.split_whitespace().any(|w| w == "6"),
        "half of twelve is six: {row:?}"
    );

    // Another width can't hold beside it: both are named, each with its button.
    click(browser, "//button[@aria-label='Pin the width']").await?;
    fill(browser, "width pinned at", "4").await?;
    browser.find("//section[@role='alert'][contains(., 'can')]//button[contains(., 'Let go of the width of 8 at')]").await?;
    click(
        browser,
        "//section[@role='alert']//button[contains(., 'Let go of the width of 8 as half')]",
    )
    .await?;
    browser.gone("//section[@role='alert']").await?;
    until_saved(browser, |fit| {
        fit["pins"] == json!([{"block": "t1", "edge": "width", "at": 4}])
    })
    .await?;
    at_fit.close().await
}

#[tokio::test]
async fn a_block_follows_the_hand_and_is_held_where_it_is_let_go() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;

    let title = browser
        .find("//*[name()='rect'][*[name()='title'][.='Block 8, title']]")
        .await?;
    let before = saved(browser).await?["plan"]["fit"]["pins"].clone();
    ensure!(
        before.is_null() || before == json!([]),
        "nothing is held: {before}"
    );
    // Right by some 60 pixels, in steps as a hand moves, and a moment for the page to follow.
    let hand = browser
        .window
        .action_chain_with_delay(None, Some(std::time::Duration::from_millis(40)));
    let mut hand = hand.move_to_element_center(&title).click_and_hold();
    for _ in 0..12 {
        hand = hand.move_by_offset(5, -1);
    }
    hand.perform().await.context("a drag")?;
    browser
        .find("//*[@aria-label='Why it is here'] | //section")
        .await?;
    tokio::time::sleep(std::time::Duration::from_millis(400)).await;
    browser
        .window
        .action_chain()
        .release()
        .perform()
        .await
        .context("a release")?;
    let page = until_saved(browser, |fit| {
        fit["pins"].as_array().is_some_and(|p| p.len() == 2)
    })
    .await?;
    let pins = &page["plan"]["fit"]["pins"];
    ensure!(
        pins[0]["block"] == "t1" && pins[0]["edge"] == "left" && pins[1]["edge"] == "top",
        "{pins}"
    );
    let at = pins[0]["at"].as_f64().context("a place")?;
    ensure!((at * 8.0).fract() == 0.0, "on the ruler: {at}");
    at_fit.close().await
}
