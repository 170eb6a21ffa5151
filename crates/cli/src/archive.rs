//! Backup and restore, and what else is done to a server that is not running.

use crate::documents::print;
use clap::Args;
use metrosk_server::backup::{self, Counts};
use metrosk_server::{App, Pictures, Settings, bootstrap};
use std::path::{Path, PathBuf};

/// The server's database, and where its pictures are.
#[derive(Args)]
pub(crate) struct Store {
    /// The PostgreSQL that everything is kept in.
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// Where pictures are kept: a folder, or s3://bucket, as for `serve`.
    #[arg(long, env = "METROSK_PICTURES", default_value = "pictures")]
    pictures: String,
}

/// An archive and a server.
#[derive(Args)]
pub(crate) struct Archive {
    /// The archive's file.
    file: PathBuf,
    #[command(flatten)]
    store: Store,
}

impl Store {
    async fn open(&self) -> anyhow::Result<App> {
        let settings = Settings {
            pictures: Pictures::at(&self.pictures),
            ..Settings::default()
        };
        App::connect_as_is(&self.database_url, settings).await
    }
}

/// Writes everything of a server into a new file.
pub(crate) fn backup(archive: &Archive) -> anyhow::Result<()> {
    let counts = run(async { backup::backup(&archive.store.open().await?, &archive.file).await })?;
    print(&summary("Written", &archive.file, &counts))
}

/// Fills an empty database from a backup.
pub(crate) fn restore(archive: &Archive) -> anyhow::Result<()> {
    let counts = run(async { backup::restore(&archive.store.open().await?, &archive.file).await })?;
    print(&summary("Restored", &archive.file, &counts))
}

/// Prints the path of a link with which a person sets a new password.
pub(crate) fn password_link(account: &str, store: &Store) -> anyhow::Result<()> {
    let path = run(async { bootstrap::password_link(&store.open().await?, account).await })?;
    print(&format!(
        "It works once, within two days: put the server's address before it.\n{path}\n"
    ))
}

fn run<T>(work: impl Future<Output = anyhow::Result<T>>) -> anyhow::Result<T> {
    tokio::runtime::Runtime::new()?.block_on(work)
}

fn summary(done: &str, file: &Path, counts: &Counts) -> String {
    let rows: Vec<String> = counts
        .iter()
        .map(|(table, n)| format!("{n} {}", table.replace('_', " ")))
        .collect();
    format!("{done}: {}, {}\n", file.display(), rows.join(", "))
}
