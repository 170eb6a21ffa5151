//! The Photos station: pictures brought in, cropped, matted and printed, by mouse and by keyboard.

use crate::support::{Server, click, come_in, fetched, open_id, press, saved, start_page};
use anyhow::{Context, Result, ensure};
use metrosk_testkit::Database;
use metrosk_testkit::browser::Browser;
use serde_json::{Value, json};
use std::path::PathBuf;
use thirtyfour::Key;

/// A house with a browser in it.
struct House {
    browser: Browser,
    server: Server,
    database: Database,
}

impl House {
    async fn open() -> Result<House> {
        let database = Database::fresh()?;
        let server = Server::start(&database, "127.0.0.1:0")?;
        let browser = Browser::open().await?;
        come_in(&browser, &server).await?;
        Ok(House {
            browser,
            server,
            database,
        })
    }

    /// The demo's spread at the Photos station.
    async fn at_kites() -> Result<House> {
        let house = House::open().await?;
        click(&house.browser, "//h3//a[.='Kites over the flats']").await?;
        click(
            &house.browser,
            "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Photos')]",
        )
        .await?;
        house
            .browser
            .find("//h2[.='Prints on the worktop']")
            .await?;
        Ok(house)
    }

    async fn close(self) -> Result<()> {
        self.browser.close().await
    }
}

/// So many of the demo's photos as files, small.
fn photo_files(count: usize) -> Result<Vec<PathBuf>> {
    let folder =
        PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join(format!("photos-{}", std::process::id()));
    std::fs::create_dir_all(&folder)?;
    let one = |photo: &metrosk_demo::Photo| -> Result<PathBuf> {
        let path = folder.join(format!("{}.jpg", photo.name.replace(' ', "-")));
        // Of the tests beside each other whoever comes first makes it.
        let made = metrosk_vision::jpeg(&photo.render(0.1)?, 85)?;
        std::fs::write(&path, made)?;
        Ok(path)
    };
    metrosk_demo::PHOTOS.iter().take(count).map(one).collect()
}

async fn bring_in(browser: &Browser, files: &[PathBuf]) -> Result<()> {
    let paths: Vec<String> = files.iter().map(|f| f.display().to_string()).collect();
    let field = browser.find("//input[@type='file']").await?;
    field.send_keys(paths.join("\n")).await?;
    Ok(())
}

/// Waits until the saved plan's photos are as wanted.
async fn until_photos(browser: &Browser, wanted: impl Fn(&Value) -> bool) -> Result<Value> {
    for _ in 0..400 {
        let page = saved(browser).await?;
        if wanted(&page["plan"]["photos"]) {
            browser.find("//p[@data-save='saved']").await?;
            return Ok(page);
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    anyhow::bail!(
        "the wanted photos were never saved: {}",
        saved(browser).await?["plan"]["photos"]
    )
}

fn print<'a>(photos: &'a Value, id: &str) -> &'a Value {
    let all = photos["photos"].as_array().map_or(&[][..], Vec::as_slice);
    all.iter().find(|p| p["id"] == id).unwrap_or(&Value::Null)
}

/// The layout of the page that is open.
async fn layout(browser: &Browser) -> Result<Value> {
    fetched(
        browser,
        &format!("/api/pages/{}/layout", open_id(browser).await?),
    )
    .await
}

#[tokio::test]
async fn twelve_pictures_become_a_fitted_cropped_and_matted_spread() -> Result<()> {
    let house = House::open().await?;
    let browser = &house.browser;
    start_page(browser, "Three by the tide line").await?;
    click(browser, "//button[@aria-label='Two pages']").await?;
    browser.find("//h2[contains(., 'Two pages')]").await?;
    click(
        browser,
        "//nav[@aria-label='Stations']//a[starts-with(normalize-space(.), 'Photos')]",
    )
    .await?;
    browser.find("//p[contains(., 'No prints yet')]").await?;
    bring_in(browser, &photo_files(12)?).await?;
    let page = until_photos(browser, |p| {
        p["photos"].as_array().is_some_and(|l| l.len() == 12)
    })
    .await?;
    let prints = page["plan"]["photos"]["photos"]
        .as_array()
        .context("prints")?;
    ensure!(
        prints
            .iter()
            .all(|p| p["file"] == true && p["picture"].is_string())
    );
    ensure!(
        prints.iter().filter(|p| p["aside"] == true).count() == 9,
        "three have a place: {prints:?}"
    );
    // Places for six.
    for left in [8, 7, 6] {
        click(browser, "//button[.='Add a place']").await?;
        until_photos(browser, |p| {
            p["photos"]
                .as_array()
                .is_some_and(|l| l.iter().filter(|p| p["aside"] == true).count() == left)
        })
        .await?;
    }
    browser.find("//h2[.='Six photos on two pages']").await?;
    // A print that lies aside is carried onto one that has a place.
    let (from, onto) = (
        browser.find("//button[@data-print='9']").await?,
        browser.find("//button[@data-print='2']").await?,
    );
    browser
        .window
        .action_chain()
        .drag_and_drop_element(&from, &onto)
        .perform()
        .await?;
    until_photos(browser, |p| {
        print(p, "2")["aside"] == true && print(p, "9")["place"].is_object()
    })
    .await?;
    // The window of the one in hand follows the mouse, and two set-off mats go to all photos.
    click(browser, "//button[@data-print='9']").await?;
    let window = browser
        .find("//*[@role='slider'][starts-with(@aria-label, 'The window on print 9')]")
        .await?;
    let mut hand = browser
        .window
        .action_chain_with_delay(None, Some(std::time::Duration::from_millis(30)))
        .move_to_element_center(&window)
        .click_and_hold();
    for _ in 0..6 {
        hand = hand.move_by_offset(5, 5);
    }
    hand.release().perform().await?;
    until_photos(browser, |p| print(p, "9")["crop"].is_object()).await?;
    click(
        browser,
        "//section[@aria-labelledby='mats']//button[.='two']",
    )
    .await?;
    until_photos(browser, |p| {
        p["mats"][0]["layers"]
            .as_array()
            .is_some_and(|l| l.len() == 2)
    })
    .await?;
    click(
        browser,
        "//section[@aria-labelledby='mats']//button[.='set off']",
    )
    .await?;
    click(browser, "//button[.='So for all photos']").await?;
    let page = until_photos(browser, |p| {
        p["mats"]
            .as_array()
            .is_some_and(|m| m.len() == 1 && m[0]["of"].is_null())
    })
    .await?;
    ensure!(
        page["plan"]["photos"]["mats"][0]["layers"][1]["off"]["x"] == 0.0625,
        "{}",
        page["plan"]["photos"]["mats"]
    );
    let layout = layout(browser).await?;
    let blocks = layout["blocks"].as_array().context("blocks")?;
    let count = |kind: &str| blocks.iter().filter(|b| b["kind"] == kind).count();
    ensure!(count("photo") == 6, "{} photos", count("photo"));
    ensure!(count("mat") >= 6, "{} mats", count("mat"));
    house.close().await
}

#[tokio::test]
async fn a_crop_keeps_what_must_be_kept_by_keyboard_alone() -> Result<()> {
    let house = House::at_kites().await?;
    let browser = &house.browser;
    press(browser, "3").await?;
    browser
        .find("//h2[@id='print-in-hand'][contains(., 'print 3')]")
        .await?;
    let window = browser
        .find("//*[@role='slider'][starts-with(@aria-label, 'The window on print 3')]")
        .await?;
    for _ in 0..3 {
        window.send_keys(Key::Up + "").await?;
    }
    let page = until_photos(browser, |p| {
        print(p, "3")["crop"]["y"]
            .as_f64()
            .is_some_and(|y| y < 0.17)
    })
    .await?;
    // She asked for more of the sky; what must be kept holds the window down.
    browser.find("//li[contains(., 'kept whole')]").await?;
    let laid = layout(browser).await?;
    let blocks = laid["blocks"].as_array().context("blocks")?;
    let block = blocks.iter().find(|b| b["photo"] == "3");
    let keep = block.context("print 3")?["keep"].clone();
    let face = &print(&page["plan"]["photos"], "3")["faces"][0];
    let at = |v: &Value, name: &str| v[name].as_f64().unwrap_or(f64::NAN);
    ensure!(
        at(face, "y") + at(face, "h") <= at(&keep, "y") + at(&keep, "h") + 1e-3,
        "{face} in {keep}"
    );
    // An area more to keep, moved and made larger with arrow keys.
    click_by_key(browser, "//button[.='Keep something']").await?;
    until_photos(browser, |p| {
        print(p, "3")["faces"]
            .as_array()
            .is_some_and(|f| f.len() == 2)
    })
    .await?;
    let area = browser
        .find("(//*[@role='slider'][starts-with(@aria-label, 'Area to keep')])[2]")
        .await?;
    area.send_keys(Key::Left + "").await?;
    until_photos(browser, |p| print(p, "3")["faces"][1]["x"] == 0.33).await?;
    // Mats by arrow keys between their counts, a swap by two numbers.
    browser
        .find("//*[@aria-label='How many mats']//button[.='one']")
        .await?
        .send_keys(Key::Right + "")
        .await?;
    click_by_key(browser, "//*[@aria-label='How many mats']//button[.='two']").await?;
    until_photos(browser, |p| {
        p["mats"][0]["layers"]
            .as_array()
            .is_some_and(|l| l.len() == 2)
    })
    .await?;
    for (label, id) in [("swap print", "3"), ("with", "7")] {
        browser
            .find(&format!(
                "//label[starts-with(normalize-space(.), '{label}')]/input"
            ))
            .await?
            .send_keys(id)
            .await?;
    }
    browser
        .find("//label[normalize-space(.)='with']/input")
        .await?
        .send_keys(Key::Enter + "")
        .await?;
    until_photos(browser, |p| {
        print(p, "3")["aside"] == true && print(p, "7")["place"].is_object()
    })
    .await?;
    house.close().await
}

async fn click_by_key(browser: &Browser, xpath: &str) -> Result<()> {
    browser
        .find(xpath)
        .await?
        .send_keys(Key::Enter + "")
        .await
        .context("Enter")
}

#[tokio::test]
async fn a_printer_without_paper_in_the_middle_loses_nothing() -> Result<()> {
    let house = House::at_kites().await?;
    let browser = &house.browser;
    click(browser, "//button[@data-print='3']").await?;
    click(
        browser,
        "//label[contains(., 'a file that can be printed')]",
    )
    .await?;
    until_photos(browser, |p| print(p, "3")["file"] == true).await?;
    click(browser, "//button[@data-print='5']").await?;
    browser
        .find("//h2[@id='print-in-hand'][contains(., 'print 5')]")
        .await?;
    click(
        browser,
        "//label[contains(., 'a file that can be printed')]",
    )
    .await?;
    until_photos(browser, |p| print(p, "5")["file"] == true).await?;
    click(browser, "//button[.='Print files']").await?;
    browser.find("//p[starts-with(., 'sheet 2')]").await?;
    click(browser, "//button[.='Leave one sheet']").await?;
    browser
        .find("//p[contains(., '1 sheet in its tray')]")
        .await?;
    click(browser, "//button[.='Send 2 sheets to the printer']").await?;
    browser.find("//strong[.='Interrupted']").await?;
    browser
        .find("//p[contains(., 'it has no paper left')]")
        .await?;
    browser
        .find("//img[@alt='Sheet 1 as it was printed']")
        .await?;
    click(browser, "//button[.='Fill tray and ink']").await?;
    browser
        .find("//p[contains(., '20 sheets in its tray')]")
        .await?;
    click(browser, "//button[.='Go on printing']").await?;
    browser
        .find("//p[contains(., '2 of 2 sheets printed')]")
        .await?;
    browser
        .find("//p[contains(., '19 sheets in its tray')]")
        .await?;
    house.close().await
}

#[tokio::test]
async fn pictures_on_their_way_in_survive_a_server_that_is_gone_and_a_reload() -> Result<()> {
    let House {
        browser,
        server,
        database,
    } = House::at_kites().await?;
    let socket = server.socket().to_owned();
    drop(server);
    // Those of the demo that are not on the spread, and a text that is no picture.
    let mut files = photo_files(11)?.split_off(8);
    let text = files[0].with_file_name("letter.jpg");
    std::fs::write(&text, "Dear all")?;
    files.push(text);
    bring_in(&browser, &files).await?;
    browser
        .find("//*[contains(., 'waits for the server')]")
        .await?;
    let server = Server::start(&database, &socket)?;
    browser.window.refresh().await?;
    let page = until_photos(&browser, |p| {
        p["photos"].as_array().is_some_and(|l| l.len() == 11)
    })
    .await?;
    let names: Vec<&str> = page["plan"]["photos"]["photos"]
        .as_array()
        .context("prints")?[8..]
        .iter()
        .filter_map(|p| p["name"].as_str())
        .collect();
    ensure!(names.contains(&"Dog-on-the-sand"), "{names:?}");
    // The text is told, and taken off the list by hand.
    browser
        .find("//li[contains(., 'letter.jpg')][contains(., 'PNG, JPEG or WebP')]")
        .await?;
    click(&browser, "//li[contains(., 'letter.jpg')]//button").await?;
    ensure!(
        print(&page["plan"]["photos"], "9")["aside"] == json!(true),
        "there was no place for it"
    );
    browser.close().await?;
    drop(server);
    Ok(())
}
