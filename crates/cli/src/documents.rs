//! Commands that read a document and print another. They need no database.

use anyhow::Context;
use metrosk_core::fit::{self, Request};
use std::io::{Read, Write};

/// The largest document that is read: no sketch comes near it.
const LARGEST: u64 = 16 * 1024 * 1024;

/// Fits the request of a file and prints the proposals.
pub(crate) fn fit(path: &str) -> anyhow::Result<()> {
    let request = Request::from_text(&read(path)?).with_context(|| path.to_owned())?;
    let response = fit::fit(&request).to_json(request.unit);
    print(&format!("{}\n", serde_json::to_string_pretty(&response)?))
}

/// The text of a file, or of standard input for `-`.
fn read(path: &str) -> anyhow::Result<String> {
    let mut text = String::new();
    let read = if path == "-" {
        std::io::stdin().take(LARGEST + 1).read_to_string(&mut text)
    } else {
        let file = std::fs::File::open(path).with_context(|| format!("{path} can't be opened"))?;
        file.take(LARGEST + 1).read_to_string(&mut text)
    };
    let size = read.with_context(|| format!("{path} can't be read as UTF-8 text"))?;
    anyhow::ensure!(size as u64 <= LARGEST, "{path} is larger than {} MB, which is allowed", LARGEST / (1024 * 1024));
    Ok(text)
}

/// Prints, and does not mind a reader that has gone.
pub(crate) fn print(text: &str) -> anyhow::Result<()> {
    match std::io::stdout().write_all(text.as_bytes()) {
        Err(e) if e.kind() == std::io::ErrorKind::BrokenPipe => Ok(()),
        other => other.context("standard output can't be written"),
    }
}
