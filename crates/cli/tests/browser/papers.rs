//! The Papers station and the stash: papers chosen, a colour brought on, a sheet gutted, squares dealt out, and two windows that want the
//! last sheet.

use crate::support::{Server, click, come_in, fetched, fill, open_id, saved, start_page};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::Value;

struct House {
    browser: Browser,
    server: Server,
    _database: Database,
}

impl House {
    /// A page of the demo at the Papers station.
    async fn at(page: &str) -> Result<House> {
        let database = Database::fresh()?;
        let server = Server::start(&database, "127.0.0.1:0")?;
        let browser = Browser::open().await?;
        come_in(&browser, &server).await?;
        let house = House {
            browser,
            server,
            _database: database,
        };
        house.go_to(page).await?;
        Ok(house)
    }

    async fn go_to(&self, page: &str) -> Result<()> {
        let pages = fetched(&self.browser, "/api/pages").await?;
        let found = pages
            .as_array()
            .into_iter()
            .flatten()
            .find(|p| p["name"] == page);
        let id = found
            .and_then(|p| p["id"].as_str())
            .context("the page is on the table")?;
        let address = format!("{}/pages/{id}/papers", self.server.address);
        self.browser.window.goto(address).await?;
        self.browser
            .find("//h2[.='Papers, best first']/following::ol/li")
            .await?;
        Ok(())
    }
}

/// Waits until the saved plan's papers are as wanted.
async fn until_papers(browser: &Browser, wanted: impl Fn(&Value) -> bool) -> Result<Value> {
    for _ in 0..400 {
        let page = saved(browser).await?;
        if wanted(&page["plan"]["papers"]) {
            browser.find("//p[@data-save='saved']").await?;
            return Ok(page);
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    anyhow::bail!("never saved: {}", saved(browser).await?["plan"]["papers"])
}

async fn take(browser: &Browser, piece: &str) -> Result<()> {
    let script = "const s = document.querySelector('aside select'); const o = [...s.options].find(o => o.text.includes(arguments[0])); \
                  if (!o) return [...s.options].map(o => o.text).join('; '); \
                  Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(s, o.value); \
                  s.dispatchEvent(new Event('change', {bubbles: true})); return ''";
    let missing = browser
        .window
        .execute(script, vec![piece.into()])
        .await?
        .convert::<String>()?;
    ensure!(missing.is_empty(), "no piece “{piece}” among {missing}");
    Ok(())
}

/// Types into a field, by its own name or the label around it.
async fn type_into(browser: &Browser, name: &str, text: &str) -> Result<()> {
    let field = browser
        .find(&format!(
            "//input[@aria-label='{name}' or ancestor::label[contains(., '{name}')]]"
        ))
        .await?;
    field.send_keys(thirtyfour::Key::Control + "a").await?;
    field.send_keys(text).await?;
    Ok(())
}

/// The thing of the stash that is called so.
async fn thing(browser: &Browser, name: &str) -> Result<Value> {
    let all = fetched(browser, "/api/stash").await?;
    let found = all["items"]
        .as_array()
        .into_iter()
        .flatten()
        .find(|t| t["item"]["name"] == name);
    found
        .cloned()
        .with_context(|| format!("{name} is in the stash"))
}

#[tokio::test]
async fn a_spread_gets_its_papers_a_made_up_blue_and_a_gutted_ground() -> Result<()> {
    let house = House::at("Kites over the flats").await?;
    let browser = &house.browser;
    // The strip in another paper, by the list; then by the stash, on its other side.
    take(browser, "2, the strip").await?;
    browser
        .find("//h2[@id='piece-in-hand'][contains(., '2, the strip')]")
        .await?;
    click(browser, "//ol/li//button[.='Teal gingham']").await?;
    let gingham = thing(browser, "Teal gingham").await?["id"].clone();
    until_papers(browser, |p| {
        p["pieces"]["s1"]["0"]["paper"]["item"] == gingham
    })
    .await?;
    click(
        browser,
        "//button[@aria-label='Teal stripe, the other side']",
    )
    .await?;
    let page = until_papers(browser, |p| p["pieces"]["s1"]["0"]["paper"]["side"] == "b").await?;
    ensure!(
        page["plan"]["papers"]["pieces"]["s2"]["0"]["paper"].is_object(),
        "the other strip keeps its own"
    );
    // What the page holds follows at once.
    ensure!(thing(browser, "Tiny kites").await?["held"] == 1);
    ensure!(thing(browser, "Teal gingham").await?["held"] == 0);
    // Whole instead of lean; a tuck of her own.
    click(
        browser,
        "//*[@aria-label='How much is cut']//button[.='whole']",
    )
    .await?;
    fill(browser, "Tuck", "1/4").await?;
    until_papers(browser, |p| {
        let strip = &p["pieces"]["s1"]["0"];
        strip["cut"] == "whole" && strip["tuck"] == 0.25
    })
    .await?;
    // No blue left: the piece is painted.
    click(browser, "//button[.='Ink, paint or spray this piece']").await?;
    click(browser, "//*[@aria-label='With what']//button[.='paint']").await?;
    until_papers(browser, |p| {
        p["pieces"]["s1"]["0"]["made"]["medium"] == "paint"
    })
    .await?;
    browser
        .find("//p[contains(., 'Follow what the maker of the paint says')]")
        .await?;
    // The mat is put together from four strips: only its border is cut.
    take(browser, "4, the mat").await?;
    click(browser, "//button[.='four strips']").await?;
    until_papers(browser, |p| p["pieces"]["m1"]["0"]["cut_as"] == "strips").await?;
    browser
        .find("//h2[@id='piece-in-hand'][contains(., '4, the mat, part 1')]")
        .await?;
    // Her own weights: what the call's kit counts.
    click(browser, "//button[.='What counts here']").await?;
    click(
        browser,
        "//*[@aria-label='The kit asked for']//button[.='not']",
    )
    .await?;
    until_papers(browser, |p| p["weights"]["asked-kit"] == 0).await?;
    // The left ground is gutted.
    take(browser, "the ground").await?;
    click(
        browser,
        "//label[contains(., 'Cut its hidden middle out')]//input",
    )
    .await?;
    until_papers(browser, |p| p["gut"]["from"][0] == "ground-0").await?;
    browser
        .find("//p[contains(., 'comes out of it, and nobody sees the hole')]")
        .await?;
    // Undo takes the last step back.
    click(browser, "//button[.='Undo']").await?;
    until_papers(browser, |p| {
        p["gut"]["from"].as_array().is_none_or(Vec::is_empty)
    })
    .await?;
    house.browser.close().await
}

#[tokio::test]
async fn squares_are_dealt_out_and_one_is_locked() -> Result<()> {
    let house = House::at("Kites over the flats").await?;
    let browser = &house.browser;
    browser
        .window
        .goto(format!("{}/drawer", house.server.address))
        .await?;
    start_page(browser, "Flag row").await?;
    click(
        browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Papers')]",
    )
    .await?;
    browser
        .find("//h2[.='Papers, best first']/following::ol/li")
        .await?;
    take(browser, "1, the grid, unit 1, 1").await?;
    click(browser, "//button[.='Deal them out']").await?;
    browser.find("//p[.='None lies beside its like.']").await?;
    let page = until_papers(browser, |p| p["pieces"]["g1"]["0"]["units"].is_object()).await?;
    let first = page["plan"]["papers"]["pieces"]["g1"]["0"]["units"]["1/1"].clone();
    click(browser, "//button[.='Lock this one']").await?;
    until_papers(browser, |p| p["pieces"]["g1"]["0"]["locked"][0] == "1/1").await?;
    let before = saved(browser).await?["revision"].clone();
    click(browser, "//button[.='Deal another way']").await?;
    for _ in 0..400 {
        if saved(browser).await?["revision"] != before {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    let page = saved(browser).await?;
    ensure!(
        page["plan"]["papers"]["pieces"]["g1"]["0"]["units"]["1/1"] == first,
        "the locked one stays"
    );
    // One, two, three along the rows; then two units change, and two more are cut to spare.
    click(browser, "//button[.='one, two, three']").await?;
    let before = page["plan"]["papers"]["pieces"]["g1"]["0"]["units"].clone();
    click(browser, "//button[.='Deal another way']").await?;
    let page = until_papers(browser, |p| p["pieces"]["g1"]["0"]["units"] != before).await?;
    let units = &page["plan"]["papers"]["pieces"]["g1"]["0"]["units"];
    ensure!(
        units["1/1"] == first,
        "the locked one stays in a rhythm too"
    );
    let other = units["1/2"].clone();
    let script = "const s = [...document.querySelectorAll('label')].find(l => l.textContent.includes('Change papers with unit')).querySelector('select');                   Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(s, '1/2');                   s.dispatchEvent(new Event('change', {bubbles: true}))";
    browser.window.execute(script, vec![]).await?;
    until_papers(browser, |p| {
        let units = &p["pieces"]["g1"]["0"]["units"];
        units["1/1"] == other && units["1/2"] == first
    })
    .await?;
    type_into(browser, "and spare", "2").await?;
    until_papers(browser, |p| p["pieces"]["g1"]["0"]["spares"] == 2).await?;
    browser
        .find("//section[@aria-labelledby='unit-table']//tr[contains(., 'mark at')]")
        .await?;
    house.browser.close().await
}

#[tokio::test]
async fn two_windows_want_the_last_sheet() -> Result<()> {
    let house = House::at("Kites over the flats").await?;
    let browser = &house.browser;
    take(browser, "2, the strip").await?;
    click(browser, "//button[starts-with(@aria-label, 'Confetti, ')]").await?;
    let confetti = thing(browser, "Confetti").await?["id"].clone();
    until_papers(browser, |p| {
        p["pieces"]["s1"]["0"]["paper"]["item"] == confetti
    })
    .await?;
    let first = open_id(browser).await?;
    house.go_to("Low sun on one sheet").await?;
    take(browser, "the strip").await?;
    click(browser, "//button[starts-with(@aria-label, 'Confetti, ')]").await?;
    browser
        .find("//section[@aria-labelledby='together']//p[contains(., 'Confetti is not there: held for Kites over the flats')]")
        .await?;
    // The first window lets go: the second holds it, without being asked.
    let undo = format!(
        "const d = arguments[arguments.length - 1]; fetch('/api/pages/{first}').then(r => r.json()).then(p => \
         fetch('/api/pages/{first}/undo', {{method: 'POST', headers: {{'content-type': 'application/json'}}, \
         body: JSON.stringify({{revision: p.revision, station: 'papers'}})}})).then(r => d(r.status))"
    );
    let status = browser
        .window
        .execute_async(undo, vec![])
        .await?
        .convert::<u16>()?;
    ensure!(status == 200, "{status}");
    browser
        .gone("//section[@aria-labelledby='together']//p[contains(., 'Confetti is not there')]")
        .await?;
    house.browser.close().await
}

#[tokio::test]
async fn what_is_said_lies_in_the_stash() -> Result<()> {
    let house = House::at("Kites over the flats").await?;
    let browser = &house.browser;
    browser
        .window
        .goto(format!("{}/stash", house.server.address))
        .await?;
    type_into(
        browser,
        "What you have",
        "2 x 12x12 spindrift / plain navy, strip 1/2 bottom, kit Spray, frayed",
    )
    .await?;
    browser
        .find("//ul[@aria-label='What was understood']//*[contains(., 'frayed')]")
        .await?;
    browser
        .find("//ul[@aria-label='What was understood']//b[.='2 × Spindrift']")
        .await?;
    click(browser, "//button[.='Put away']").await?;
    browser
        .find("//section[@aria-label='Sheets']//button[contains(., 'Spindrift')]")
        .await?;
    let put = thing(browser, "Spindrift").await?;
    ensure!(
        put["item"]["note"] == "frayed" && put["item"]["kit"] == "Spray",
        "{put}"
    );
    browser.find("//section[@aria-label='Spray']").await?;
    // Fewer of it, by hand; then out of the stash.
    click(
        browser,
        "//section[@aria-label='Sheets']//button[contains(., 'Spindrift')]",
    )
    .await?;
    type_into(browser, "How many", "1\u{e007}").await?;
    browser
        .find("//section[@aria-label='Sheets']//button[contains(., 'Spindrift')]//*[.='1']")
        .await?;
    click(browser, "//button[.='Take it out of the stash']").await?;
    click(browser, "//*[@role='alertdialog']//button[.='Take it out']").await?;
    browser
        .gone("//section[@aria-label='Sheets']//button[contains(., 'Spindrift')]")
        .await?;
    house.browser.close().await
}

#[tokio::test]
async fn the_stash_goes_out_as_a_table_and_comes_in_again_as_it_was() -> Result<()> {
    let house = House::at("Kites over the flats").await?;
    let browser = &house.browser;
    browser
        .window
        .goto(format!("{}/stash", house.server.address))
        .await?;
    click(browser, "//button[@aria-label='More for the stash']").await?;
    let out = browser
        .find("//a[.='Take it all out as a table (CSV)']")
        .await?;
    let address = out.attr("href").await?.context("an address")?;
    let script = "return fetch(arguments[0]).then(r => r.text())";
    let table: String = browser
        .window
        .execute(script, vec![address.into()])
        .await?
        .convert()?;
    ensure!(table.lines().count() > 50, "{table}");
    let items = |stash: Value| -> Vec<Value> {
        let all = stash["items"].as_array().into_iter().flatten();
        all.map(|t| t["item"].clone()).collect()
    };
    let before = items(fetched(browser, "/api/stash").await?);
    let file = std::env::temp_dir().join(format!("metrosk-stash-{}.csv", std::process::id()));
    let bring = async |table: String| -> Result<()> {
        std::fs::write(&file, table)?;
        let field = browser
            .find("//input[@aria-label='A table to bring in']")
            .await?;
        let path = file.to_str().context("a path")?;
        field.send_keys(path).await.context("brought in")
    };
    bring(table.clone()).await?;
    let told = format!("{} written anew.", before.len());
    browser
        .find(&format!("//p[@role='status'][contains(., '{told}')]"))
        .await?;
    ensure!(items(fetched(browser, "/api/stash").await?) == before);
    // One row too many of a kind that there is not: it is named, and nothing comes in.
    bring("kind,name,count\nsheet,Good,1\nsail,Bad,1\n".to_owned()).await?;
    browser
        .find("//*[contains(., 'Nothing of the table was brought in')]")
        .await?;
    browser
        .find("//*[contains(., 'Nothing of the table was brought in')][contains(., 'sail')]")
        .await?;
    ensure!(items(fetched(browser, "/api/stash").await?) == before);
    std::fs::remove_file(&file)?;
    house.browser.close().await
}
