//! Two people, one page; no connection; every screen in both themes, without a finding of axe-core.

use crate::support::{
    Server, click, come_in, fetched, open_id, open_kites_at_fit, write_meanwhile,
};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use metrosk_testkit::photo_count;
use serde_json::{Value, json};
use std::path::Path;
use std::time::Duration;

/// Which of axe-core's rules are looked at.
#[derive(Clone, Copy)]
enum Which {
    All,
    Contrast,
}

/// What axe-core finds on the screen, as `rule: element`.
async fn findings(browser: &Browser, which: Which) -> Result<Vec<String>> {
    let source =
        Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/node_modules/axe-core/axe.min.js");
    browser
        .window
        .execute(std::fs::read_to_string(source)?, vec![])
        .await?;
    let rules = match which {
        Which::All => "rules: {'target-size': {enabled: true}}",
        Which::Contrast => "runOnly: ['color-contrast']",
    };
    let script = format!(
        "return axe.run(document, {{resultTypes: ['violations'], {rules}}}).then(r => r.violations.flatMap(v => v.nodes.map(n => v.id + ': ' + n.html.slice(0, 160) + ' ' + n.failureSummary.slice(0, 200))))"
    );
    let found = browser
        .window
        .execute(script.as_str(), vec![])
        .await?
        .json()
        .clone();
    Ok(serde_json::from_value(found)?)
}

#[tokio::test]
async fn every_screen_is_clean_in_both_themes() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    browser.window.goto(&server.address).await?;
    browser.find("//h2[.='Sign in']").await?;
    ensure!(
        findings(&browser, Which::All).await?.is_empty(),
        "the door: {:#?}",
        findings(&browser, Which::All).await?
    );
    come_in(&browser, &server).await?;
    let pages = fetched(&browser, "/api/pages").await?;
    let id = |name: &str| {
        pages
            .as_array()
            .and_then(|p| p.iter().find(|p| p["name"] == name))
            .and_then(|p| p["id"].as_str())
            .map(str::to_owned)
    };
    let (kites, noses) = (
        id("Kites over the flats").context("kites")?,
        id("Noses in the wind").context("noses")?,
    );
    let invite = "return fetch('/api/team/invites', {method: 'POST', headers: {'content-type': 'application/json'}, body: '{\"role\": \"guest\"}'}).then(r => r.json()).then(i => i.link)";
    let join: String = browser.window.execute(invite, vec![]).await?.convert()?;
    let screens = [
        ("/".to_owned(), "//h3[contains(., 'Kites over the flats')]"),
        ("/drawer".to_owned(), "//li/button[contains(., 'Flag row')]"),
        (
            "/drawer/new".to_owned(),
            "//*[@role='textbox'][contains(., 'one page')]",
        ),
        ("/drawer/picture".to_owned(), "//button[.='Read it']"),
        (format!("/pages/{kites}/call"), "//h2[.='Out on the flats']"),
        (
            format!("/pages/{kites}/photos"),
            "//h2[@id='print-in-hand'][contains(., 'print 1')]",
        ),
        (
            format!("/pages/{kites}/sketch"),
            "//summary[starts-with(., 'Lines')]",
        ),
        (
            "/season".to_owned(),
            "//h2[contains(., 'from maker to maker')]",
        ),
        (
            "/calls/5ea50000-0000-4000-8000-000000000003".to_owned(),
            "//h2[.='Who makes it']",
        ),
        ("/team".to_owned(), "//h2[.='People']"),
        ("/look-back".to_owned(), "//h2[.='By month']"),
        ("/me".to_owned(), "//h2[.='Password']"),
        (
            format!("/pages/{kites}/fit"),
            "//h2[contains(., 'by stretch')]",
        ),
        (format!("/pages/{noses}/fit"), "//section[@role='alert']"),
        (
            format!("/pages/{kites}/papers"),
            "//h2[.='Papers, best first']/following::ol/li",
        ),
        (
            format!("/pages/{kites}/cut#at-the-table"),
            "//h2[starts-with(., 'Set ')]",
        ),
        ("/stash".to_owned(), "//h2[.='Sheets']"),
        (
            format!("/pages/{kites}/cut"),
            "//h2[contains(., 'sheet 1 of')]",
        ),
        (
            format!("/pages/{kites}/clusters"),
            "//h2[contains(., 'worth a look')]",
        ),
        (
            format!("/pages/{kites}/words"),
            "//h2[.='Ways to set it, best first']",
        ),
        (format!("/pages/{kites}/build"), "//h2[.='The page so far']"),
        (
            format!("/pages/{kites}/log"),
            "//h2[.='The pack to publish']",
        ),
        (format!("/pages/{kites}/sheet"), "//*[local-name()='svg']"),
        (join, "//h2[contains(., 'Join')]"),
        (
            "/pages/00000000-0000-4000-8000-000000000000/fit".to_owned(),
            "//*[@role='alert']",
        ),
    ];
    let mut all = Vec::new();
    // The themes differ in their colours alone.
    for (theme, which) in [("light", Which::All), ("dark", Which::Contrast)] {
        let put = "return fetch('/api/me', {method: 'PUT', headers: {'content-type': 'application/json'}, body: JSON.stringify({name: 'Wren', defaults: {theme: arguments[0]}})}).then(r => r.status)";
        let status = browser
            .window
            .execute(put, vec![json!(theme)])
            .await?
            .json()
            .clone();
        ensure!(status == 200, "{status}");
        for (path, sign) in &screens {
            browser
                .window
                .goto(format!("{}{path}", server.address))
                .await?;
            browser.find(sign).await?;
            browser
                .find(&format!("//html[@data-theme='{theme}']"))
                .await?;
            all.extend(
                findings(&browser, which)
                    .await?
                    .into_iter()
                    .map(|f| format!("{path}, {theme}: {f}")),
            );
        }
    }
    ensure!(all.is_empty(), "{all:#?}");
    browser.close().await
}

#[tokio::test]
async fn who_writes_second_is_told_sees_both_and_chooses() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_kites_at_fit(&browser).await?;
    browser.find("//p[@data-save='saved']").await?;
    let id = open_id(&browser).await?;
    let page = fetched(&browser, &format!("/api/pages/{id}")).await?;
    // Hers is held up on its way, and somebody else is quicker: seven photos.
    let hold = "window.send = window.fetch; \
        window.fetch = (r, ...more) => r.method === 'PATCH' ? new Promise(go => { window.letGo = () => go(send(r, ...more)); }) : send(r, ...more)";
    browser.window.execute(hold, vec![]).await?;
    click(&browser, "//button[@aria-label='One photo fewer']").await?;
    browser.find("//p[@data-save='saving']").await?;
    let patch = json!({"photos": {"photos": {"count": 7}}});
    let change = json!({"revision": page["revision"], "station": "fit", "patch": patch, "reason": "seven photos"});
    write_meanwhile(&browser, "PATCH", &format!("/api/pages/{id}/plan"), change).await?;
    browser
        .window
        .execute("window.fetch = window.send; window.letGo()", vec![])
        .await?;
    browser
        .find("//*[@role='dialog'][contains(., 'seven photos')]//figcaption[.='Yours']")
        .await?;
    click(&browser, "//button[contains(., 'Take version')]").await?;
    browser
        .find("//output[@aria-label='Photos'][.='7']")
        .await?;
    browser.find("//p[@data-save='saved']").await?;
    // Hers is in the history: one step back brings it.
    for _ in 0..100 {
        if fetched(&browser, &format!("/api/pages/{id}")).await?["reason"]
            .as_str()
            .is_some_and(|r| r.starts_with("returned"))
        {
            break;
        }
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    click(&browser, "//button[.='Undo']").await?;
    browser
        .find("//output[@aria-label='Photos'][.='5']")
        .await?;
    browser.close().await
}

/// Two windows, one stream: what is done in one, or by somebody else, is on the screen of the other by itself.
#[tokio::test]
async fn what_others_change_is_shown_by_itself_and_disturbs_nobody_at_another_station() -> Result<()>
{
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    let table = browser.window.window().await?;
    browser.find("//h3/a[.='Kites over the flats']").await?;
    browser.window.new_tab().await.map(|_| ())?;
    let tabs = browser.window.windows().await?;
    let page = tabs
        .into_iter()
        .find(|t| *t != table)
        .context("a second tab")?;
    browser.window.switch_to_window(page.clone()).await?;
    browser.window.goto(format!("{}/", server.address)).await?;
    open_kites_at_fit(&browser).await?;
    browser.find("//p[@data-save='saved']").await?;
    let id = open_id(&browser).await?;
    let now = fetched(&browser, &format!("/api/pages/{id}")).await?;
    let path = format!("/api/pages/{id}/plan");
    let write = |patch: Value, station: &str, reason: &str| json!({"revision": now["revision"], "station": station, "patch": patch, "reason": reason});
    let seven = write(
        json!({"photos": {"photos": {"count": 7}}}),
        "fit",
        "seven photos",
    );
    write_meanwhile(&browser, "PATCH", &path, seven).await?;
    browser
        .find("//output[@aria-label='Photos'][.='7']")
        .await?;
    // Somebody at another station starts from what she knew: both go on, and nobody is asked.
    let papers = write(
        json!({"papers": {"mark": "settled"}}),
        "papers",
        "Papers settled",
    );
    write_meanwhile(&browser, "PATCH", &path, papers).await?;
    click(&browser, "//button[@aria-label='One photo fewer']").await?;
    browser
        .find("//p[@data-save='saved'][contains(., 'version 10')]")
        .await?;
    browser
        .find("//nav[@aria-label='Stations']//a[contains(., 'Papers')]//*[@aria-label='needs a look']")
        .await?;
    // The other window has heard of it all by way of this one's stream, or of its own.
    browser.window.switch_to_window(table).await?;
    browser
        .find("//article[contains(., 'Kites over the flats')]//*[contains(., 'Choose the papers again')]")
        .await?;
    browser.close().await
}

#[tokio::test]
async fn what_is_changed_without_a_server_is_saved_when_it_comes_back() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_kites_at_fit(&browser).await?;
    browser.find("//p[@data-save='saved']").await?;
    let socket = server.socket().to_owned();
    drop(server);
    click(&browser, "//button[@aria-label='One photo fewer']").await?;
    browser.find("//p[@data-save='offline']").await?;
    click(&browser, "//button[.='Mark as settled' or .='Settled']").await?;
    let server = Server::start(&database, &socket)?;
    browser.find("//p[@data-save='saved']").await?;
    let id = open_id(&browser).await?;
    let page = fetched(&browser, &format!("/api/pages/{id}")).await?;
    ensure!(
        photo_count(&page) == 5 && page["plan"]["fit"]["mark"].is_null(),
        "{page}"
    );
    let history: Value = fetched(&browser, &format!("/api/pages/{id}/revisions")).await?;
    ensure!(
        history[0]["reason"] == "Fit opened again" && history[1]["reason"] == "5 photos",
        "{history}"
    );
    drop(server);
    browser.close().await
}
