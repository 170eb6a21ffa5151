//! Every screen at the sizes of the table: nothing is cut off, and at a station the page comes first and whole.

use crate::support::{Server, come_in, fetched};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;

/// Laptop, small laptop, tablet upright, phone.
const SIZES: [(u32, u32); 4] = [(1280, 800), (1024, 768), (800, 1280), (390, 844)];

/// How far the widest thing reaches beyond what holds it, be it the window or a part that is scrolled sideways.
const OVER: &str = "const holds = [...document.querySelectorAll('body *')].filter(e => /auto|scroll/.test(getComputedStyle(e).overflowX)); \
                    return Math.max(document.documentElement.scrollWidth - innerWidth, ...holds.map(e => e.scrollWidth - e.clientWidth))";

/// By how many pixels something is cut off, once the screen has come to rest at its size.
async fn cut_off(browser: &Browser) -> Result<i64> {
    let look =
        async || -> Result<i64> { Ok(browser.window.execute(OVER, vec![]).await?.convert()?) };
    let mut over = look().await?;
    for _ in 0..60 {
        if over <= 0 {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
        over = look().await?;
    }
    Ok(over)
}

#[tokio::test]
async fn nothing_is_cut_off_and_the_page_comes_first_at_four_sizes() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
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
    let screens = [
        (
            format!("/pages/{kites}/fit"),
            "//h2[contains(., 'by stretch')]",
            true,
        ),
        (
            format!("/pages/{noses}/fit"),
            "//section[@role='alert']",
            true,
        ),
        (
            format!("/pages/{kites}/sketch"),
            "//main//*[local-name()='svg']",
            true,
        ),
        (
            format!("/pages/{kites}/call"),
            "//main//*[local-name()='svg']",
            true,
        ),
        (
            format!("/pages/{kites}/photos"),
            "//h2[@id='print-in-hand'][contains(., 'print 1')]",
            true,
        ),
        (
            format!("/pages/{kites}/papers"),
            "//h2[.='Papers, best first']/following::ol/li",
            true,
        ),
        (
            format!("/pages/{kites}/cut"),
            "//h2[contains(., 'sheet 1 of')]",
            false,
        ),
        (
            format!("/pages/{kites}/clusters"),
            "//h2[contains(., 'worth a look')]",
            true,
        ),
        (
            format!("/pages/{kites}/words"),
            "//h2[.='Ways to set it, best first']",
            false,
        ),
        (
            format!("/pages/{kites}/build"),
            "//h2[.='The page so far']",
            false,
        ),
        (
            format!("/pages/{kites}/log"),
            "//h2[.='The pack to publish']",
            false,
        ),
        ("/stash".to_owned(), "//h2[.='Sheets']", false),
        ("/".to_owned(), "//h2[.='Without a date']", false),
        (
            "/drawer".to_owned(),
            "//li/button[contains(., 'Flag row')]",
            false,
        ),
        ("/drawer/picture".to_owned(), "//button[.='Read it']", false),
        (
            "/season".to_owned(),
            "//h2[contains(., 'from maker to maker')]",
            false,
        ),
        (
            "/calls/5ea50000-0000-4000-8000-000000000003".to_owned(),
            "//h2[contains(., 'from maker to maker')]",
            false,
        ),
        ("/team".to_owned(), "//h2[.='People']", false),
        ("/look-back".to_owned(), "//h2[.='By month']", false),
        ("/me".to_owned(), "//h2[.='Password']", false),
    ];
    let mut wrong = Vec::new();
    for (w, h) in SIZES {
        browser.resize(w, h).await?;
        for (path, sign, is_station) in &screens {
            browser
                .window
                .goto(format!("{}{path}", server.address))
                .await?;
            browser.find(sign).await?;
            let over = cut_off(&browser).await?;
            if over > 0 {
                wrong.push(format!(
                    "{path} at {w} x {h}: {over} pixels are cut off at the right"
                ));
            }
            if !is_station {
                continue;
            }
            // The drawing of the page: wholly in the window, without a scroll.
            browser
                .find("//main//*[local-name()='svg'][.//*[local-name()='clipPath']]")
                .await?;
            let script = "const all = [...document.querySelectorAll('main svg')].filter(s => s.querySelector('clipPath')).map(s => s.getBoundingClientRect()); \
                          const b = all.reduce((a, b) => a.width * a.height > b.width * b.height ? a : b); \
                          return [b.left, b.top, b.right - innerWidth, b.bottom - innerHeight].map(Math.round)";
            let [left, top, right, bottom]: [i64; 4] =
                browser.window.execute(script, vec![]).await?.convert()?;
            if left < 0 || top < 0 || right > 0 || bottom > 0 {
                wrong.push(format!(
                    "{path} at {w} x {h}: the page is out of view, {left} {top} {right} {bottom}"
                ));
            }
        }
    }
    ensure!(wrong.is_empty(), "{wrong:#?}");
    browser.close().await
}
