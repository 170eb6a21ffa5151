//! Commands that read a document and print another. They need no database.

use anyhow::Context;
use metrosk_core::Cancel;
use metrosk_core::checks::Check;
use metrosk_core::cutting::CutJob;
use metrosk_core::fit::{self, Request};
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::{Deal, Piecing};
use metrosk_core::sketch::Sketch;
use metrosk_core::words::Words;
use metrosk_vision::{MOST_BYTES, ReadRequest};
use std::io::{Read, Write};

/// The largest document that is read: no sketch comes near it.
const LARGEST: u64 = 16 * 1024 * 1024;

/// Fits the request of a file and prints the proposals.
pub(crate) fn fit(path: &str) -> anyhow::Result<()> {
    let request = Request::from_text(&text(path)?).with_context(|| path.to_owned())?;
    let response = fit::fit(&request).to_json(request.unit);
    print(&format!("{}\n", serde_json::to_string_pretty(&response)?))
}

/// Tells what shows and what is cut of each piece of a file's layout.
pub(crate) fn pieces(path: &str) -> anyhow::Result<()> {
    let piecing = Piecing::from_text(&text(path)?).with_context(|| path.to_owned())?;
    let answer = piecing.answer(&piecing.pieces());
    print(&format!("{}\n", serde_json::to_string_pretty(&answer)?))
}

/// Plans the cuts of a file's job. The search ends by itself, or after as many seconds as the job allows.
pub(crate) fn cut(path: &str) -> anyhow::Result<()> {
    let job = CutJob::from_text(&text(path)?).with_context(|| path.to_owned())?;
    let limit = std::time::Duration::from_secs_f64(job.seconds);
    let plan = metrosk_server::within(&Cancel::default(), limit, |cancel| job.planned(cancel));
    let plan = plan.to_json(&job);
    print(&format!("{}\n", serde_json::to_string_pretty(&plan)?))
}

/// Deals the papers of a file out and prints who got which.
pub(crate) fn deal(path: &str) -> anyhow::Result<()> {
    let deal = Deal::from_text(&text(path)?).with_context(|| path.to_owned())?;
    let answer = deal.answer(&deal.dealt());
    print(&format!("{}\n", serde_json::to_string_pretty(&answer)?))
}

/// Sets the words of a file in its letters and prints how.
pub(crate) fn words(path: &str) -> anyhow::Result<()> {
    let words = Words::from_text(&text(path)?).with_context(|| path.to_owned())?;
    let answer = words.worded().to_json(&words);
    print(&format!("{}\n", serde_json::to_string_pretty(&answer)?))
}

/// Checks the layout of a file and prints what was found, with what cures it.
pub(crate) fn check(path: &str) -> anyhow::Result<()> {
    let check = Check::from_text(&text(path)?).with_context(|| path.to_owned())?;
    let answer = check.checked().to_json(&check);
    print(&format!("{}\n", serde_json::to_string_pretty(&answer)?))
}

/// Reads a sketch from the picture of a file and prints it.
pub(crate) fn read(path: &str, page: &str, pages: &str, unit: &str) -> anyhow::Result<()> {
    let unit = Unit::from_name(unit)
        .with_context(|| format!("--unit is {unit:?}; allowed are in and mm"))?;
    let pages: u32 = match pages {
        "1" => 1,
        "2" => 2,
        other => anyhow::bail!("--pages is {other:?}; allowed are 1 and 2"),
    };
    let page = page_size(page, unit).with_context(|| {
        format!("--page is {page:?}; allowed is width by height, as 12x12, each from 1 to 48 in")
    })?;
    let picture = metrosk_vision::decode(&bytes(path)?).with_context(|| path.to_owned())?;
    let name = std::path::Path::new(path)
        .file_stem()
        .map_or("Sketch".to_owned(), |n| n.to_string_lossy().into_owned());
    let asked = ReadRequest {
        page,
        pages,
        unit,
        name,
        corners: None,
    };
    let reading = metrosk_vision::read(&picture.pixels, &asked, &|_| true)
        .with_context(|| path.to_owned())?;
    // What is printed is a sketch by its own rules, or nothing.
    Sketch::from_json(&reading.sketch).context("what was read makes no sketch")?;
    print(&format!(
        "{}\n",
        serde_json::to_string_pretty(&reading.sketch)?
    ))
}

/// Width by height in the unit.
fn page_size(text: &str, unit: Unit) -> Option<(f64, f64)> {
    let (w, h) = text.split_once(['x', 'X'])?;
    let side = |t: &str| {
        let length = Length::parse(t.trim(), unit).ok()?;
        let inches = length.to_units(Unit::Inch);
        (1.0..=48.0)
            .contains(&inches)
            .then(|| length.to_units(unit))
    };
    Some((side(w)?, side(h)?))
}

/// The bytes of a picture's file, or of standard input for `-`.
fn bytes(path: &str) -> anyhow::Result<Vec<u8>> {
    let mut bytes = Vec::new();
    let most = MOST_BYTES as u64 + 1;
    if path == "-" {
        std::io::stdin()
            .take(most)
            .read_to_end(&mut bytes)
            .context("standard input can't be read")?;
    } else {
        let file = std::fs::File::open(path).with_context(|| format!("{path} can't be opened"))?;
        file.take(most)
            .read_to_end(&mut bytes)
            .with_context(|| format!("{path} can't be read"))?;
    }
    Ok(bytes)
}

/// The text of a file, or of standard input for `-`.
fn text(path: &str) -> anyhow::Result<String> {
    let mut text = String::new();
    let read = if path == "-" {
        std::io::stdin().take(LARGEST + 1).read_to_string(&mut text)
    } else {
        let file = std::fs::File::open(path).with_context(|| format!("{path} can't be opened"))?;
        file.take(LARGEST + 1).read_to_string(&mut text)
    };
    let size = read.with_context(|| format!("{path} can't be read as UTF-8 text"))?;
    anyhow::ensure!(
        size as u64 <= LARGEST,
        "{path} is larger than {} MB, which is allowed",
        LARGEST / (1024 * 1024)
    );
    Ok(text)
}

/// Prints, and does not mind a reader that has gone.
pub(crate) fn print(text: &str) -> anyhow::Result<()> {
    match std::io::stdout().write_all(text.as_bytes()) {
        Err(e) if e.kind() == std::io::ErrorKind::BrokenPipe => Ok(()),
        other => other.context("standard output can't be written"),
    }
}
