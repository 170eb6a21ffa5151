//! A server as its own process, and hands on the browser.

use anyhow::{Context, Result, bail, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use metrosk_testkit::fit_of;
use serde_json::Value;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::Duration;
use thirtyfour::error::WebDriverErrorInner::StaleElementReference;
use thirtyfour::prelude::*;

/// `metrosk serve` as its own process; it ends when dropped.
pub(crate) struct Server {
    process: Child,
    pub(crate) address: String,
}

impl Server {
    pub(crate) fn start(database: &Database, listen: &str) -> Result<Server> {
        let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/dist");
        ensure!(
            web.join("index.html").is_file(),
            "the front end is not built: npm run build in web/"
        );
        let mut process = Command::new(env!("CARGO_BIN_EXE_metrosk"))
            .args(["serve", "--demo", "--listen", listen, "--web"])
            .arg(web)
            .env("DATABASE_URL", &database.url)
            .env(
                "METROSK_PICTURES",
                Path::new(env!("CARGO_TARGET_TMPDIR")).join("pictures"),
            )
            .env("METROSK_DEMO_PHOTOS", "0.15")
            .env("RUST_LOG", "warn")
            .stdout(Stdio::piped())
            .spawn()?;
        let mut line = String::new();
        BufReader::new(process.stdout.take().context("the server has no output")?)
            .read_line(&mut line)?;
        let address = line
            .trim_end()
            .strip_prefix("Metrosk is at ")
            .with_context(|| format!("the server said {line:?}"))?;
        Ok(Server {
            process,
            address: address.to_owned(),
        })
    }

    pub(crate) fn socket(&self) -> &str {
        self.address.trim_start_matches("http://")
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.process.kill();
        let _ = self.process.wait();
    }
}

/// Clicks what an XPath finds. What the screen drew anew between finding and clicking is looked for again.
pub(crate) async fn click(browser: &Browser, xpath: &str) -> Result<()> {
    use_when_still(browser, xpath, async |found: WebElement| {
        found.click().await
    })
    .await
}

/// Uses a link or a button by keyboard.
pub(crate) async fn enter(browser: &Browser, xpath: &str) -> Result<()> {
    use_when_still(browser, xpath, async |found: WebElement| {
        found.send_keys(Key::Enter + "").await
    })
    .await
}

/// Uses what an XPath finds; what was drawn anew between finding and using is found again.
async fn use_when_still(
    browser: &Browser,
    xpath: &str,
    act: impl AsyncFn(WebElement) -> WebDriverResult<()>,
) -> Result<()> {
    const TRIES: usize = 20;
    for _ in 1..TRIES {
        match act(browser.find(xpath).await?).await {
            Err(error) if matches!(error.as_inner(), StaleElementReference(_)) => {}
            used => return used.with_context(|| xpath.to_owned()),
        }
    }
    bail!("the screen draws this anew all the time: {xpath}")
}

/// Chooses in a list by its name and what is to be read there.
pub(crate) async fn choose(browser: &Browser, list: &str, option: &str) -> Result<()> {
    click(
        browser,
        &format!("//select[@aria-label='{list}']/option[contains(., '{option}')]"),
    )
    .await
}

/// Types into the field of a label, in place of what is there.
pub(crate) async fn fill(browser: &Browser, label: &str, text: &str) -> Result<()> {
    let field = browser
        .find(&format!(
            "//input[@id = //label[normalize-space() = '{label}']/@for]"
        ))
        .await?;
    field.send_keys(Key::Control + "a").await?;
    field.send_keys(text).await?;
    field.send_keys(Key::Enter + "").await?;
    Ok(())
}

/// Types on the page itself, as keys of the station.
pub(crate) async fn press(browser: &Browser, keys: &str) -> Result<()> {
    browser
        .find("//section[@data-keys='page']")
        .await?
        .send_keys(keys)
        .await
        .context("keys")
}

/// Comes in to the demo with one click.
pub(crate) async fn come_in(browser: &Browser, server: &Server) -> Result<()> {
    browser.window.goto(&server.address).await?;
    click(browser, "//button[.='Try it as Wren']").await?;
    browser.find("//nav[@aria-label='House']").await?;
    Ok(())
}

/// Opens a page from the table. What comes late moves the tape: a press that began on the link and ended beside it is made again.
pub(crate) async fn open_page(browser: &Browser, name: &str) -> Result<()> {
    const PRESSES: usize = 3;
    let stations = By::XPath("//nav[@aria-label='Stations']");
    for _ in 0..PRESSES {
        click(browser, &format!("//h3/a[.='{name}']")).await?;
        let opened = browser.window.query(stations.clone());
        let patience = Duration::from_secs(10);
        if opened
            .wait(patience, Duration::from_millis(50))
            .exists()
            .await?
        {
            return Ok(());
        }
    }
    bail!("{name} does not open")
}

/// Opens the demo's spread at its Fit station: from the table it opens where something is to be decided next.
pub(crate) async fn open_kites_at_fit(browser: &Browser) -> Result<()> {
    open_page(browser, "Kites over the flats").await?;
    click(
        browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Fit')]",
    )
    .await?;
    browser.find("//h2[contains(., 'by stretch')]").await?;
    Ok(())
}

/// Starts a page from a sketch of the drawer.
pub(crate) async fn start_page(browser: &Browser, sketch: &str) -> Result<()> {
    click(browser, "//nav//a[.='Sketch drawer']").await?;
    click(
        browser,
        &format!("//main//li/button[starts-with(normalize-space(.), '{sketch}')]"),
    )
    .await?;
    click(
        browser,
        &format!("//section[@aria-label='{sketch}']//button[.='Start a page']"),
    )
    .await
}

/// A house with a browser in it, open at the Fit station of a new page.
pub(crate) struct AtFit {
    pub(crate) browser: Browser,
    _server: Server,
    _database: Database,
}

impl AtFit {
    pub(crate) async fn of(sketch: &str) -> Result<AtFit> {
        let database = Database::fresh()?;
        let server = Server::start(&database, "127.0.0.1:0")?;
        let browser = Browser::open().await?;
        come_in(&browser, &server).await?;
        start_page(&browser, sketch).await?;
        browser.find("//h2[contains(., 'by scale')]").await?;
        Ok(AtFit {
            browser,
            _server: server,
            _database: database,
        })
    }

    pub(crate) async fn close(self) -> Result<()> {
        self.browser.close().await
    }
}

/// What the page itself gets from an address of the API, with its own cookie.
pub(crate) async fn fetched(browser: &Browser, path: &str) -> Result<Value> {
    let script = "return fetch(arguments[0]).then(r => r.json())";
    Ok(browser
        .window
        .execute(script, vec![path.into()])
        .await?
        .json()
        .clone())
}

/// The page's newest plan as the server has it.
pub(crate) async fn saved(browser: &Browser) -> Result<Value> {
    let at = browser.window.current_url().await?;
    let id = at.path().split('/').nth(2).context("a page is open")?;
    fetched(browser, &format!("/api/pages/{id}")).await
}

/// Waits until the server has a plan whose fit is as wanted, and the screen says that it is saved.
pub(crate) async fn until_saved(
    browser: &Browser,
    wanted: impl Fn(&Value) -> bool,
) -> Result<Value> {
    for _ in 0..200 {
        let page = saved(browser).await?;
        if wanted(&fit_of(&page)) {
            browser.find("//p[@data-save='saved']").await?;
            return Ok(page);
        }
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    anyhow::bail!(
        "the wanted plan was never saved; the newest is {}",
        fit_of(&saved(browser).await?)
    )
}

/// The id of the page or sketch that is open, from the address.
pub(crate) async fn open_id(browser: &Browser) -> Result<String> {
    let address = browser.window.current_url().await?;
    let id = address.path().split('/').nth(2).context("an id")?;
    Ok(id.to_owned())
}

/// Writes past the screen, as another window would.
pub(crate) async fn write_meanwhile(
    browser: &Browser,
    method: &str,
    path: &str,
    body: Value,
) -> Result<()> {
    let write = "return fetch(arguments[0], {method: arguments[2], headers: {'content-type': 'application/json'}, body: JSON.stringify(arguments[1])}).then(r => r.status)";
    let status = browser
        .window
        .execute(write, vec![path.into(), body, method.into()])
        .await?;
    ensure!(status.json() == 200, "{:?}", status.json());
    Ok(())
}
