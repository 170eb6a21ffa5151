//! People and teams: a lead invites, somebody joins, a guest looks; defaults, passwords, another team.

use crate::support::{Server, click, come_in, fetched, fill, open_kites_at_fit, start_page};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::json;

/// Types into the field of a label.
async fn type_in(browser: &Browser, label: &str, text: &str) -> Result<()> {
    let field = browser
        .find(&format!(
            "//input[@id = //label[normalize-space() = '{label}']/@for]"
        ))
        .await?;
    field
        .send_keys(text)
        .await
        .with_context(|| label.to_owned())
}

#[tokio::test]
async fn a_lead_invites_and_a_guest_looks() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    click(&browser, "//nav//a[.='Team']").await?;
    browser
        .find("//section[@aria-labelledby='invites']//select/option[.='guest']")
        .await?
        .click()
        .await?;
    click(&browser, "//button[.='Make a link']").await?;
    let link = browser
        .find("//div[@role='status']//code")
        .await?
        .text()
        .await?;
    ensure!(
        link.starts_with(&server.address) && link.contains("/join/"),
        "{link}"
    );

    // Somebody else, who is not signed in yet, opens it.
    let other = Browser::open().await?;
    other.window.goto(&link).await?;
    other.find("//h2[.='Join Slipway Paper Club']").await?;
    click(&other, "//button[.='Join the team']").await?;
    other
        .find("//p[@role='alert'][.='Type your name.']")
        .await?;
    type_in(&other, "Your name", "Dunlin").await?;
    type_in(&other, "Name to sign in with", "dunlin").await?;
    type_in(&other, "Password", "short").await?;
    click(&other, "//button[.='Join the team']").await?;
    other
        .find("//p[@role='alert'][contains(., '10 to 200 characters')]")
        .await?;
    type_in(&other, "Password", " and then long enough").await?;
    click(&other, "//button[.='Join the team']").await?;
    other
        .find("//button[contains(., 'Dunlin, Slipway Paper Club')]")
        .await?;

    // A guest sees the pages, and can't change them.
    open_kites_at_fit(&other).await?;
    other.find("//p[@data-save][.='To look at']").await?;
    click(&other, "//button[@aria-label='One photo fewer']").await?;
    other.find("//output[@aria-label='Photos'][.='6']").await?;
    ensure!(
        other
            .find("//button[.='Undo']")
            .await?
            .prop("disabled")
            .await?
            .as_deref()
            == Some("true"),
        "undo is not hers"
    );

    // The link is used up, and the lead makes her a member.
    other.window.goto(&link).await?;
    other.find("//h2[.='The link does not work']").await?;
    browser.window.refresh().await?;
    browser
        .find("//select[@aria-label='Role of Dunlin']/option[.='member']")
        .await?
        .click()
        .await?;
    browser
        .find("//tr[th[.='Dunlin']]//span[.='can make and change pages']")
        .await?;
    click(&browser, "//tr[th[.='Dunlin']]//button[.='Remove']").await?;
    click(&browser, "//*[@role='alertdialog']//button[.='Remove']").await?;
    browser.gone("//tr[th[.='Dunlin']]").await?;
    other.window.goto(&server.address).await?;
    other.find("//h2[.='You are in no team now']").await?;
    other.close().await?;
    browser.close().await
}

#[tokio::test]
async fn her_defaults_are_what_a_new_page_starts_with() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    browser
        .window
        .goto(format!("{}/me", server.address))
        .await?;
    browser
        .find("//select/option[.='millimetres']")
        .await?
        .click()
        .await?;
    browser.find("//select/option[.='0.5 mm']").await?;
    fill(&browser, "margin", "8 mm").await?;
    browser
        .find("//select/option[.='dark']")
        .await?
        .click()
        .await?;
    browser.find("//html[@data-theme='dark']").await?;
    fill(&browser, "margin", "a lot").await?;
    browser
        .find("//*[@role='alert'][contains(., 'a lot')]")
        .await?;
    // Three choices one after the other: none is lost, and the screen does not wait for their being saved.
    // Her two hands keep their own unit.
    let mut me = fetched(&browser, "/api/me").await?;
    let hands = me["defaults"]["hands"].clone();
    ensure!(hands.as_array().map_or(0, Vec::len) == 2, "{hands}");
    let wanted = json!({"unit": "mm", "margin": 8, "theme": "dark", "hands": hands});
    for _ in 0..200 {
        if me["defaults"] == wanted {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
        me = fetched(&browser, "/api/me").await?;
    }
    ensure!(me["defaults"] == wanted, "{me}");
    start_page(&browser, "Flag row").await?;
    browser.find("//h2[contains(., '304.8')]").await?;
    browser.close().await
}

#[tokio::test]
async fn she_goes_to_another_team_and_signs_out() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    click(
        &browser,
        "//button[contains(., 'Wren, Slipway Paper Club')]",
    )
    .await?;
    click(
        &browser,
        "//*[@role='menuitem'][.='Go to Harbour Lamp Makers']",
    )
    .await?;
    browser.find("//h3/a[.='Lamps at dusk']").await?;
    browser.gone("//h3/a[.='Kites over the flats']").await?;
    click(
        &browser,
        "//button[contains(., 'Wren, Harbour Lamp Makers')]",
    )
    .await?;
    click(&browser, "//*[@role='menuitem'][.='Sign out']").await?;
    browser.find("//h2[.='Sign in']").await?;
    // A wrong password is told without telling which of the two is wrong.
    type_in(&browser, "Name you sign in with", "wren").await?;
    type_in(&browser, "Password", "not her password").await?;
    click(&browser, "//button[.='Sign in']").await?;
    browser
        .find("//p[@role='alert'][contains(., 'go together')]")
        .await?;
    browser.close().await
}
