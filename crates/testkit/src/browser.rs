//! A headless browser, driven.

use anyhow::{Context, Result, bail};
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::Duration;
use thirtyfour::prelude::*;

/// What a maker's screen shows, in pixels.
const SCREEN: (u32, u32) = (1280, 800);
/// How long a screen may take to show what is looked for, on a busy machine.
const PATIENCE: Duration = Duration::from_secs(30);
const LOOK_AGAIN: Duration = Duration::from_millis(50);

/// A browser window with its driver; both end when it is dropped.
#[derive(Debug)]
pub struct Browser {
    /// The window.
    pub window: WebDriver,
    driver: Child,
    _profile: Profile,
}

#[derive(Debug)]
struct Profile(std::path::PathBuf);

impl Drop for Profile {
    fn drop(&mut self) {
        let _ = std::fs::remove_dir_all(&self.0);
    }
}

impl Browser {
    /// Opens a window whose contents are 1280 by 800 pixels.
    ///
    /// # Errors
    /// When ChromeDriver or Chromium are not installed or don't start.
    pub async fn open() -> Result<Browser> {
        // The server's features leave the choice to the process; that it has been made already is no failure.
        let _ = rustls::crypto::ring::default_provider().install_default();
        let (driver, port) = start_driver()?;
        let profile = Profile(
            std::env::temp_dir().join(format!("metrosk-browser-{}-{port}", std::process::id())),
        );
        let mut wishes = DesiredCapabilities::chrome();
        let flags = [
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--disable-dev-shm-usage",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--force-device-scale-factor=1",
            "--lang=en",
        ];
        for flag in flags {
            wishes.add_arg(flag)?;
        }
        wishes.add_arg(&format!("--user-data-dir={}", profile.0.display()))?;
        let window = WebDriver::new(format!("http://127.0.0.1:{port}"), wishes)
            .await
            .context("the browser did not start")?;
        let browser = Browser {
            window,
            driver,
            _profile: profile,
        };
        browser.resize(SCREEN.0, SCREEN.1).await?;
        Ok(browser)
    }

    /// Gives the window's contents another size, in pixels. Below the narrowest window that the system allows, the contents alone are
    /// narrowed.
    ///
    /// # Errors
    /// When the driver does not answer.
    pub async fn resize(&self, w: u32, h: u32) -> Result<()> {
        let frame = self
            .window
            .execute(
                "return [outerWidth - innerWidth, outerHeight - innerHeight]",
                vec![],
            )
            .await?;
        let (dw, dh): (u32, u32) = frame.convert()?;
        self.window
            .set_window_rect(0, 0, w.max(500) + dw, h + dh)
            .await?;
        let metrics =
            serde_json::json!({"width": w, "height": h, "deviceScaleFactor": 1, "mobile": false});
        self.window
            .cdp()
            .send_raw("Emulation.setDeviceMetricsOverride", metrics)
            .await?;
        Ok(())
    }

    /// The first element of an XPath, as soon as it is there.
    ///
    /// # Errors
    /// When it does not come within half a minute.
    pub async fn find(&self, xpath: &str) -> Result<WebElement> {
        let found = self
            .window
            .query(By::XPath(xpath))
            .wait(PATIENCE, LOOK_AGAIN)
            .first()
            .await;
        found.with_context(|| format!("nothing on the screen is {xpath}"))
    }

    /// Whether an XPath is not on the screen, now or within half a minute.
    ///
    /// # Errors
    /// When it stays there.
    pub async fn gone(&self, xpath: &str) -> Result<()> {
        let patience_ends = tokio::time::Instant::now() + PATIENCE;
        while tokio::time::Instant::now() < patience_ends {
            if self.window.find_all(By::XPath(xpath)).await?.is_empty() {
                return Ok(());
            }
            tokio::time::sleep(LOOK_AGAIN).await;
        }
        bail!("still on the screen: {xpath}")
    }

    /// Closes the window.
    ///
    /// # Errors
    /// When the driver does not answer.
    pub async fn close(self) -> Result<()> {
        self.window.clone().quit().await?;
        Ok(())
    }
}

impl Drop for Browser {
    fn drop(&mut self) {
        let _ = self.driver.kill();
        let _ = self.driver.wait();
    }
}

/// Starts ChromeDriver on a port of its own choice and keeps reading what it says.
fn start_driver() -> Result<(Child, u16)> {
    let mut driver = Command::new("chromedriver")
        .arg("--port=0")
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .context("chromedriver can't be run (Debian's packages chromium and chromium-driver)")?;
    let mut lines =
        BufReader::new(driver.stdout.take().context("chromedriver has no output")?).lines();
    for line in lines.by_ref() {
        let line = line?;
        let port = line
            .split_once("successfully on port ")
            .map(|(_, rest)| rest.trim_end_matches('.').parse());
        if let Some(Ok(port)) = port {
            std::thread::spawn(move || lines.for_each(drop));
            return Ok((driver, port));
        }
    }
    bail!("chromedriver ended without saying its port")
}
