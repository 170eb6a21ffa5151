//! Backup and restore.

use crate::documents::print;
use metrosk_server::backup::{self, Counts};
use metrosk_server::{App, Settings};
use std::path::Path;

/// Writes everything of a server into a new file.
pub(crate) fn backup(file: &Path, database_url: &str) -> anyhow::Result<()> {
    let counts = run(async { backup::backup(&App::connect(database_url, Settings::default()).await?, file).await })?;
    print(&told("Written", file, &counts))
}

/// Fills an empty database from a backup.
pub(crate) fn restore(file: &Path, database_url: &str) -> anyhow::Result<()> {
    let counts = run(async { backup::restore(&App::connect(database_url, Settings::default()).await?, file).await })?;
    print(&told("Restored", file, &counts))
}

fn run(work: impl Future<Output = anyhow::Result<Counts>>) -> anyhow::Result<Counts> {
    tokio::runtime::Runtime::new()?.block_on(work)
}

fn told(done: &str, file: &Path, counts: &Counts) -> String {
    let rows: Vec<String> = counts.iter().map(|(table, n)| format!("{n} {}", table.replace('_', " "))).collect();
    format!("{done}: {}, {}\n", file.display(), rows.join(", "))
}
