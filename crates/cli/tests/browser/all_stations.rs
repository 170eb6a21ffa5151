//! One page from its call to its entry in the gallery, through all ten stations, by one maker: wherever she reads them, its numbers are the same.

use crate::log::{finished_picture, until_plan};
use crate::support::{Server, click, come_in, open_page};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use std::collections::BTreeSet;
use thirtyfour::prelude::*;

const STATIONS: [&str; 10] = [
    "Call", "Sketch", "Photos", "Fit", "Papers", "Cut", "Words", "Clusters", "Build", "Log",
];
/// Stations that draw the whole page with its blocks' numbers.
const DRAWN: [&str; 4] = ["Fit", "Papers", "Build", "Log"];

async fn open(browser: &Browser, station: &str) -> Result<()> {
    let link =
        format!("//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), '{station}')]");
    click(browser, &link).await?;
    let here = format!(
        "//nav[@aria-label='Stations']//a[@aria-current='page'][starts-with(normalize-space(.), '{station}')]"
    );
    browser.find(&here).await.map(|_| ())
}

/// Marks the station in hand as settled, unless it is.
async fn settle(browser: &Browser) -> Result<()> {
    const OPEN: &str = "//button[.='Mark as settled' or .='Settle it again']";
    browser
        .find("//button[.='Mark as settled' or .='Settle it again' or .='Settled']")
        .await?;
    if !browser.window.find_all(By::XPath(OPEN)).await?.is_empty() {
        click(browser, OPEN).await?;
    }
    browser.find("//button[.='Settled']").await.map(|_| ())
}

/// The numbers that stand on the page as it is drawn.
async fn numbers_on_page(browser: &Browser) -> Result<BTreeSet<String>> {
    const READ: &str =
        "return [...document.querySelectorAll('[data-number]')].map(e => e.dataset.number)";
    browser.find("//*[@data-number='3b']").await?;
    let read = browser.window.execute(READ, vec![]).await?;
    let numbers: Vec<String> = read.convert()?;
    Ok(numbers.into_iter().collect())
}

/// Without units and spaces: `12×21/8`.
fn bare(size: &str) -> String {
    let plain = size.replace(" in", "");
    plain
        .chars()
        .filter(|c| !c.is_whitespace())
        .map(|c| if c == '⁄' { '/' } else { c })
        .collect()
}

#[tokio::test]
async fn a_page_goes_through_all_ten_stations_with_one_set_of_numbers() -> Result<()> {
    let database = Database::fresh()?;
    let server = Server::start(&database, "127.0.0.1:0")?;
    let browser = Browser::open().await?;
    come_in(&browser, &server).await?;
    open_page(&browser, "Kites over the flats").await?;

    open(&browser, "Call").await?;
    browser.find("//*[contains(., 'Out on the flats')]").await?;
    let mut drawn: Vec<(&str, BTreeSet<String>)> = Vec::new();
    let (mut shows, mut cut) = (String::new(), String::new());
    for station in STATIONS {
        open(&browser, station).await?;
        if DRAWN.contains(&station) {
            drawn.push((station, numbers_on_page(&browser).await?));
        }
        match station {
            "Papers" => {
                let piece = "//label[contains(., 'Piece')]/select";
                browser.find(piece).await?;
                click(&browser, &format!("{piece}/option[.='2, the strip']")).await?;
                browser.find("//h2[.='Piece 2, the strip']").await?;
                let side = |word: &str| format!("//dt[.='{word}']/following-sibling::dd[1]");
                shows = bare(&browser.find(&side("shows")).await?.text().await?);
                cut = bare(&browser.find(&side("cut")).await?.text().await?);
            }
            "Cut" => {
                let row = "//table//tr[th//strong[.='2']]/td[1]";
                let listed = bare(&browser.find(row).await?.text().await?);
                ensure!(listed == cut, "the cut list has {listed}, the paper {cut}");
                click(&browser, "//ol//button[.='Cut']").await?;
            }
            "Words" => {
                browser.find("//h2[.='Ways to set it, best first']").await?;
            }
            "Build" => {
                click(&browser, "//button[.='Done']").await?;
            }
            "Log" => {
                let field = browser
                    .find("//label[contains(., 'Add a picture of the page')]//input | //span[contains(., 'Add a picture of the page')]//input")
                    .await?;
                field.send_keys(finished_picture()?).await?;
                until_plan(&browser, |plan| plan["log"]["picture"].is_string()).await?;
                click(&browser, "//button[.='See the pack']").await?;
                let pack = browser.find("//pre").await?.text().await?;
                let line = pack
                    .lines()
                    .find(|l| l.contains("2: shows"))
                    .context("the pack tells the strip's sizes")?;
                let said = bare(line);
                ensure!(
                    said.contains(&format!("shows{shows},cut{cut}")),
                    "{said} for {shows} and {cut}"
                );
            }
            _ => {}
        }
        settle(&browser).await?;
    }
    let (_, first) = &drawn[0];
    ensure!(first.len() > 8, "{first:?}");
    for (station, numbers) in &drawn {
        ensure!(numbers == first, "{station} has {numbers:?}, not {first:?}");
    }

    click(&browser, "//button[.='Enter this page…'][not(@disabled)]").await?;
    browser
        .find("//p[contains(., 'entered for “Out on the flats”')]")
        .await?;
    click(&browser, "//button[.='Enter it in the gallery']").await?;
    browser
        .find("//li[contains(., 'Entered')][contains(., 'entry 1')]")
        .await?;
    browser.close().await
}
