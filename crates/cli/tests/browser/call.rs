//! What a page is asked for: written down, seen by the plan, ticked by hand.

use crate::support::{AtFit, click, saved};
use anyhow::{Result, ensure};

#[tokio::test]
async fn what_is_asked_is_written_down_and_ticks_itself() -> Result<()> {
    let at_fit = AtFit::of("Three by the tide line").await?;
    let browser = &at_fit.browser;
    click(browser, "//nav[@aria-label='Stations']//a[.='Call']").await?;
    click(browser, "//button[.='Write down what is asked']").await?;
    // A call without a name is not taken.
    click(browser, "//button[.='Save what is asked']").await?;
    browser
        .find("//p[@role='alert'][.='Give the call a name.']")
        .await?;
    browser
        .find("//input[@id = //label[.='Name of the call']/@for]")
        .await?
        .send_keys("Out on the flats")
        .await?;
    for _ in 0..2 {
        click(browser, "//button[.='Add something']").await?;
    }
    click(
        browser,
        "//select[@aria-label='What is asked under a']/option[@value='pages']",
    )
    .await?;
    browser
        .find("//input[@aria-label='b: what']")
        .await?
        .send_keys("A sledge somewhere")
        .await?;
    click(browser, "//button[.='Save what is asked']").await?;
    // One page so far: two are asked, and the plan sees it.
    browser
        .find("//li[contains(., 'Two pages')]//*[@aria-label='Not yet']")
        .await?;
    click(
        browser,
        "//li[contains(., 'A sledge somewhere')]//input[@type='checkbox']",
    )
    .await?;
    browser.find("//p[@data-save='saved']").await?;
    let mut page = saved(browser).await?;
    for _ in 0..200 {
        if page["plan"]["call"]["ticked"][0] == "b" {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
        page = saved(browser).await?;
    }
    let call = &page["plan"]["call"];
    ensure!(
        call["ticked"][0] == "b" && call["call"]["name"] == "Out on the flats",
        "{call}"
    );
    click(browser, "//nav[@aria-label='Stations']//a[.='Fit']").await?;
    click(browser, "//button[@aria-label='Two pages']").await?;
    browser.find("//p[@data-save='saved']").await?;
    browser.find("//h2[contains(., 'Two pages')]").await?;
    click(browser, "//nav[@aria-label='Stations']//a[.='Call']").await?;
    browser
        .find("//li[contains(., 'Two pages')]//*[@aria-label='The plan sees it']")
        .await?;
    at_fit.close().await
}
