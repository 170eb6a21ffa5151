//! Ways laid beside each other, alternatives kept until she chooses, photos up and down.

use crate::support::{AtFit, click, until_saved};
use anyhow::Result;

#[tokio::test]
async fn ways_are_compared_and_alternatives_kept_until_she_chooses() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;
    click(browser, "//button[@aria-label='Two pages']").await?;
    browser.find("//h2[contains(., '4 ways')]").await?;

    // Two ways side by side, then one over the other.
    click(browser, "//button[.='Compare side by side']").await?;
    browser
        .find("//section[@aria-label='At the left']//*[name()='svg']")
        .await?;
    click(
        browser,
        "//select[@aria-label='At the right']/option[.='by echo']",
    )
    .await?;
    browser
        .find("//section[@aria-label='At the right']//*[@aria-label='by echo']")
        .await?;
    click(browser, "//label[contains(., 'one over the other')]/input").await?;
    browser
        .find("//*[@aria-label='by echo over by stretch']")
        .await?;
    click(browser, "//button[.='Close']").await?;

    // The page as it is becomes an alternative; she goes on with more photos, and keeps that as another.
    let keep = "//button[.='Keep this as one'][not(@disabled)]";
    click(browser, keep).await?;
    browser.find("//span[.='Alternative A']").await?;
    for _ in 0..3 {
        click(browser, "//button[@aria-label='One photo more']").await?;
    }
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    browser.find("//p[@data-save='saved']").await?;
    click(browser, keep).await?;
    browser.find("//span[.='Alternative B']").await?;
    // Photos go down again, below what is drawn: neighbours merge or a slot becomes room to write.
    for _ in 0..4 {
        click(browser, "//button[@aria-label='One photo fewer']").await?;
    }
    browser
        .find("//output[@aria-label='Photos'][.='2']")
        .await?;
    until_saved(browser, |fit| fit["photos"]["count"] == 2).await?;

    // She chooses B; A can still be compared.
    click(browser, "//button[@aria-label='Take Alternative B']").await?;
    browser
        .find("//output[@aria-label='Photos'][.='6']")
        .await?;
    until_saved(browser, |fit| fit["photos"]["count"] == 6).await?;
    click(browser, "//button[@aria-label='Compare Alternative A']").await?;
    browser
        .find("//section[@aria-label='At the left']//*[@aria-label='Alternative A']")
        .await?;
    at_fit.close().await
}

#[tokio::test]
async fn a_sketch_is_looked_at_turned_before_it_is() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;
    click(browser, "//summary[.='Turned or flipped']").await?;
    click(
        browser,
        "//button[.//*[@aria-label='The sketch turned 90°']][not(@disabled)]",
    )
    .await?;
    until_saved(browser, |fit| fit["turn"] == 90).await?;
    // What it was before is one of the others now.
    browser.find("//span[.='as drawn']").await?;
    at_fit.close().await
}
