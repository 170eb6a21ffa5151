//! Before the glue: edges that nearly agree are put in line, and taken back; what she lets be is gone from the list.

use crate::support::{Server, click, come_in};
use anyhow::Result;
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;

#[tokio::test]
async fn edges_that_nearly_agree_are_put_in_line_and_taken_back() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    click(&browser, "//h3/a[.='Kites over the flats']").await?;
    click(
        &browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Clusters')]",
    )
    .await?;
    browser.find("//h2[.='One thing to look at']").await?;
    click(&browser, "//button[.='Put them in line']").await?;
    browser
        .find("//p[contains(., 'no edges nearly agree')]")
        .await?;
    click(&browser, "//button[.='Undo']").await?;
    browser.find("//h2[.='One thing to look at']").await?;
    click(&browser, "//button[.='Let it be']").await?;
    browser.find("//h2[.='Nothing to look at']").await?;
    click(&browser, "//button[starts-with(., 'Show again')]").await?;
    browser.find("//h2[.='One thing to look at']").await?;
    browser.close().await
}
