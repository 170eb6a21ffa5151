//! What the fit holds to of a sketch, as she switches it.

use crate::support::{AtFit, click, press, until_saved};
use anyhow::{Result, ensure};
use serde_json::{Value, json};

#[tokio::test]
async fn readings_are_switched_off_and_added_and_a_block_is_held() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;
    browser.find("//h2[.='Sketch card']").await?;

    // At the Fit station a block is held to its size.
    press(browser, "8").await?;
    click(
        browser,
        "//label[contains(., 'Held to')]//option[.='its size']",
    )
    .await?;
    until_saved(browser, |fit| fit["keep"] == json!({"t1": "size"})).await?;

    // At the Sketch station a line is switched off, and two blocks are made to agree.
    let address = browser.window.current_url().await?.to_string();
    browser
        .window
        .goto(address.replace("/fit", "/sketch"))
        .await?;
    let line = "(//details[summary[contains(., 'Lines')]]//input[@type='checkbox'])[1]";
    click(browser, line).await?;
    browser
        .find("//summary[contains(., 'Lines')][contains(., '1 off')]")
        .await?;
    click(browser, "//summary[.='Add one']").await?;
    click(
        browser,
        "//select[@aria-label='what they are to each other']/option[.='equally wide']",
    )
    .await?;
    click(browser, "//button[.='Hold to it']").await?;
    browser.find("//h3[.='Added by you']").await?;
    let readings = |fit: &Value| {
        fit["readings"]["off"][0]["what"] == "line" && fit["readings"]["on"][0]["along"] == "width"
    };
    let page = until_saved(browser, readings).await?;
    let fit = &metrosk_testkit::fit_of(&page);
    ensure!(
        fit["keep"] == json!({"t1": "size"}),
        "what was held stays held"
    );

    // It is one step back.
    click(browser, line).await?;
    browser.gone("//summary[contains(., '1 off')]").await?;
    at_fit.close().await
}
