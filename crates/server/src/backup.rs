//! Everything of a server in one open archive, and back onto an empty one.
//!
//! The archive is a zip: `tables/<name>.jsonl` holds one row a line, as JSON, `pictures/` and `lifts/` the pixels, and
//! `metrosk-backup.json`, written last, says what there is: how many rows of each table, and each file's size and SHA-256. What only
//! lasts (sessions, throttles, keys of writes) or can be made again (layouts) is left out: after a restore people sign in anew.

use crate::App;
use crate::features::pictures::routes::earlier_lift;
use crate::state::MIGRATOR;
use anyhow::{Context, bail, ensure};
use futures_util::StreamExt;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sqlx::{AssertSqlSafe, PgConnection, PgTransaction};
use std::collections::BTreeMap;
use std::fs::File;
use std::io::{BufRead, BufReader, Read, Write};
use std::path::Path;
use tokio::io::AsyncWriteExt;
use uuid::Uuid;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// The `format` of the manifest, and an earlier one that names no files' hashes.
const FORMAT: &str = "metrosk-backup/2";
const EARLIER: &str = "metrosk-backup/1";
/// The manifest's name in the archive.
const MANIFEST: &str = "metrosk-backup.json";
/// The tables that are kept, each after those it refers to.
const TABLES: [&str; 33] = [
    "teams",
    "people",
    "members",
    "links",
    "files",
    "pictures",
    "picture_forms",
    "lifts",
    "sketches",
    "sketch_revisions",
    "pages",
    "page_details",
    "page_revisions",
    "page_stations",
    "page_versions",
    "calls",
    "call_revisions",
    "call_makers",
    "hop_links",
    "feeds",
    "stash_items",
    "stash_holds",
    "stash_used",
    "print_orders",
    "printers",
    "printed_sheets",
    "cut_orders",
    "cutting_machines",
    "machine_sheets",
    "machine_log",
    "gallery_entries",
    "galleries",
    "gallery_wall",
];
/// Rows fetched or written at once.
const BATCH: usize = 200;
/// How much of a file is read at once.
const PIECE: usize = 1 << 20;

/// How many rows of each table went into an archive or came out of it, and how many files.
pub type Counts = Vec<(String, usize)>;

/// What an archive says of itself.
#[derive(Debug, Serialize, Deserialize)]
struct Manifest {
    format: String,
    /// The newest migration of the database it was made of.
    schema: i64,
    tables: BTreeMap<String, usize>,
    #[serde(default)]
    files: BTreeMap<String, FileFacts>,
}

#[derive(Debug, PartialEq, Eq, Serialize, Deserialize)]
struct FileFacts {
    bytes: u64,
    sha256: String,
}

/// A file's facts, gathered piece by piece.
#[derive(Default)]
struct Gathered {
    bytes: u64,
    hash: Sha256,
}

impl Gathered {
    fn take(&mut self, piece: &[u8]) {
        self.bytes += piece.len() as u64;
        self.hash.update(piece);
    }

    fn facts(self) -> FileFacts {
        let sha256 = self
            .hash
            .finalize()
            .iter()
            .map(|b| format!("{b:02x}"))
            .collect();
        FileFacts {
            bytes: self.bytes,
            sha256,
        }
    }
}

/// Writes everything of the server into a new file, as of one moment. The database is left as it is.
///
/// # Errors
/// When the database is of another version, fails, or misses a picture, or the file can't be written. A file that exists is not overwritten.
pub async fn backup(app: &App, path: &Path) -> anyhow::Result<Counts> {
    let file =
        File::create_new(path).with_context(|| format!("{} can't be written", path.display()))?;
    let done = write_archive(app, file).await;
    if done.is_err() {
        // Half an archive must not be taken for one.
        let _ = std::fs::remove_file(path);
    }
    done
}

async fn write_archive(app: &App, file: File) -> anyhow::Result<Counts> {
    let mut zip = ZipWriter::new(file);
    let mut tx = app
        .pool
        .begin_with("BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY")
        .await?;
    let schema = schema(&mut tx).await?;
    let own = newest_migration();
    ensure!(
        schema == own,
        "the database is of schema {schema}, this program of schema {own}: back it up with the program that serves it, or start this one on it first"
    );
    let mut tables = BTreeMap::new();
    let mut counts = Counts::new();
    for table in TABLES {
        zip.start_file(
            format!("tables/{table}.jsonl"),
            SimpleFileOptions::default().large_file(true),
        )?;
        let rows = write_table(&mut tx, table, &mut zip).await?;
        tables.insert(table.to_owned(), rows);
        counts.push((table.to_owned(), rows));
    }
    let files = write_files(app, &mut tx, &mut zip).await?;
    counts.push(("files".to_owned(), files.len()));
    let manifest = Manifest {
        format: FORMAT.to_owned(),
        schema,
        tables,
        files,
    };
    zip.start_file(MANIFEST, SimpleFileOptions::default())?;
    zip.write_all(serde_json::to_string_pretty(&manifest)?.as_bytes())?;
    zip.finish()?.sync_all()?;
    Ok(counts)
}

/// The newest migration that this program knows.
fn newest_migration() -> i64 {
    MIGRATOR.iter().map(|m| m.version).max().unwrap_or_default()
}

/// The newest migration of the database.
async fn schema(db: &mut PgConnection) -> anyhow::Result<i64> {
    let known: bool = sqlx::query_scalar("SELECT to_regclass('_sqlx_migrations') IS NOT NULL")
        .fetch_one(&mut *db)
        .await?;
    ensure!(known, "this database holds nothing of Metrosk");
    let newest: Option<i64> =
        sqlx::query_scalar("SELECT max(version) FROM _sqlx_migrations WHERE success")
            .fetch_one(db)
            .await?;
    newest.context("this database holds nothing of Metrosk")
}

async fn write_table(
    tx: &mut PgTransaction<'_>,
    table: &str,
    out: &mut impl Write,
) -> anyhow::Result<usize> {
    // A cursor, so that a large table does not lie in memory. The names are this file's own.
    let declare = format!(
        "DECLARE {table}_rows CURSOR FOR SELECT row_to_json(t)::text FROM {table} t ORDER BY t"
    );
    sqlx::query(AssertSqlSafe(declare))
        .execute(&mut **tx)
        .await?;
    let fetch = format!("FETCH {BATCH} FROM {table}_rows");
    let mut count = 0;
    loop {
        let rows: Vec<String> = sqlx::query_scalar(AssertSqlSafe(fetch.clone()))
            .fetch_all(&mut **tx)
            .await?;
        if rows.is_empty() {
            return Ok(count);
        }
        count += rows.len();
        for row in rows {
            writeln!(out, "{row}")?;
        }
    }
}

/// All pixels, each form a file of its own. One that is missing in the store is an error: an archive without it would not be everything.
async fn write_files(
    app: &App,
    tx: &mut PgTransaction<'_>,
    zip: &mut ZipWriter<File>,
) -> anyhow::Result<BTreeMap<String, FileFacts>> {
    let mut files = BTreeMap::new();
    let names: Vec<String> = sqlx::query_scalar!("SELECT name FROM files ORDER BY name")
        .fetch_all(&mut **tx)
        .await?;
    for name in names {
        let facts = write_file(app, &name, zip)
            .await?
            .with_context(|| missing(&name))?;
        files.insert(name, facts);
    }
    // A page that was lifted before lifts had ids of their own has no row.
    let pictures: Vec<Uuid> = sqlx::query_scalar!("SELECT id FROM pictures ORDER BY id")
        .fetch_all(&mut **tx)
        .await?;
    for name in pictures.into_iter().map(earlier_lift) {
        if let Some(facts) = write_file(app, &name, zip).await? {
            files.insert(name, facts);
        }
    }
    Ok(files)
}

fn missing(name: &str) -> String {
    format!(
        "{name} is missing in the place of pictures; --pictures (METROSK_PICTURES) says which that is, as for `metrosk serve`"
    )
}

/// Writes one object piece by piece; none where the store has none of that name.
async fn write_file(
    app: &App,
    name: &str,
    zip: &mut ZipWriter<File>,
) -> anyhow::Result<Option<FileFacts>> {
    let Some(mut pieces) = app.objects.pieces(name).await? else {
        return Ok(None);
    };
    let stored = SimpleFileOptions::default()
        .compression_method(zip::CompressionMethod::Stored)
        .large_file(true);
    zip.start_file(name, stored)?;
    let mut gathered = Gathered::default();
    while let Some(piece) = pieces.next().await {
        let piece =
            piece.with_context(|| format!("{name} can't be read from the place of pictures"))?;
        gathered.take(&piece);
        zip.write_all(&piece)?;
    }
    Ok(Some(gathered.facts()))
}

/// Puts everything of an archive onto a server that has nothing yet: all of it, or nothing. The database may be bare, or hold no more than
/// the link for a first lead. An archive of an earlier version is brought up to this one's.
///
/// # Errors
/// When the archive is none, is damaged, is of a later version, or the server is not empty.
pub async fn restore(app: &App, path: &Path) -> anyhow::Result<Counts> {
    let file = File::open(path).with_context(|| format!("{} can't be opened", path.display()))?;
    let mut archive =
        ZipArchive::new(file).with_context(|| format!("{} is no archive", path.display()))?;
    let manifest = read_manifest(&mut archive)
        .with_context(|| format!("{} is no backup of Metrosk", path.display()))?;
    let own = newest_migration();
    ensure!(
        manifest.schema <= own,
        "the backup is of schema {}, this program knows schemas up to {own}: restore it with a newer one",
        manifest.schema
    );
    let bare: bool = sqlx::query_scalar("SELECT to_regclass('_sqlx_migrations') IS NULL")
        .fetch_one(&app.pool)
        .await?;
    if bare {
        MIGRATOR
            .run_to(manifest.schema, &app.pool)
            .await
            .context("the database's tables could not be made")?;
    }
    let mut tx = app.pool.begin().await?;
    let here = schema(&mut tx).await?;
    ensure!(
        here == manifest.schema,
        "the backup is of schema {}, this database of schema {here}: restore it onto a database in which nothing has been made yet",
        manifest.schema
    );
    let mut written = Vec::new();
    let done = fill(app, &mut tx, &mut archive, &manifest, &mut written).await;
    if done.is_err() {
        // What the database knows nothing of must not lie about.
        for name in written {
            let _ = app.objects.delete(&name).await;
        }
        return done;
    }
    tx.commit().await?;
    MIGRATOR
        .run(&app.pool)
        .await
        .context("the database's tables could not be brought up to date")?;
    done
}

async fn fill(
    app: &App,
    tx: &mut PgTransaction<'_>,
    archive: &mut ZipArchive<File>,
    manifest: &Manifest,
    written: &mut Vec<String>,
) -> anyhow::Result<Counts> {
    // A server that has been started shows a link for its first lead and nothing else.
    sqlx::query!("DELETE FROM links WHERE team_id IS NULL AND used_at IS NULL")
        .execute(&mut **tx)
        .await?;
    let tables: Vec<&str> = TABLES
        .into_iter()
        .filter(|t| manifest.tables.contains_key(*t))
        .collect();
    for table in &tables {
        let any: bool = sqlx::query_scalar(AssertSqlSafe(format!(
            "SELECT EXISTS (SELECT 1 FROM {table})"
        )))
        .fetch_one(&mut **tx)
        .await?;
        ensure!(
            !any,
            "this server is not empty: there are {table}; a backup is restored onto an empty database"
        );
    }
    let mut counts = Counts::new();
    for table in tables {
        let count = read_table(tx, table, archive).await?;
        let told = manifest.tables.get(table).copied().unwrap_or_default();
        ensure!(
            count == told,
            "the archive is damaged: {count} rows of {table}, {told} were written"
        );
        counts.push((table.to_owned(), count));
    }
    let files = if manifest.format == EARLIER {
        pixel_names(archive)?
    } else {
        manifest.files.keys().cloned().collect()
    };
    for name in &files {
        let known = ["files/", "pictures/", "lifts/"]
            .iter()
            .any(|folder| name.starts_with(folder));
        ensure!(
            known && !name.contains(".."),
            "the archive is damaged: it names the file {name:?}"
        );
        // What lies there already may be another house's.
        ensure!(
            !app.objects.has(name).await?,
            "the place of pictures is not empty: it has {name} already; give an empty one with --pictures"
        );
        written.push(name.clone());
        let facts = read_file(app, archive, name).await?;
        let told = manifest.files.get(name);
        ensure!(
            told.is_none_or(|t| *t == facts),
            "the archive is damaged: {name} is not what was written"
        );
    }
    counts.push(("files".to_owned(), files.len()));
    Ok(counts)
}

/// The pixels in an archive that names no files.
fn pixel_names(archive: &ZipArchive<File>) -> anyhow::Result<Vec<String>> {
    let all: Vec<String> = archive
        .file_names()
        .map(|n| n.map(|n| n.into_owned()))
        .collect::<Result<_, _>>()?;
    Ok(all
        .into_iter()
        .filter(|n| n.starts_with("pictures/") && !n.ends_with('/'))
        .collect())
}

/// Puts one file into the store piece by piece.
async fn read_file(
    app: &App,
    archive: &mut ZipArchive<File>,
    name: &str,
) -> anyhow::Result<FileFacts> {
    let mut file = archive
        .by_name(name)
        .with_context(|| format!("the archive is damaged: {name} is not in it"))?;
    let mut writer = app.objects.writer(name);
    let mut gathered = Gathered::default();
    let mut piece = vec![0; PIECE];
    loop {
        let read = file
            .read(&mut piece)
            .with_context(|| format!("the archive is damaged at {name}"))?;
        if read == 0 {
            break;
        }
        gathered.take(&piece[..read]);
        writer.write_all(&piece[..read]).await?;
    }
    writer
        .shutdown()
        .await
        .with_context(|| format!("{name} can't be written to the place of pictures"))?;
    Ok(gathered.facts())
}

fn read_manifest(archive: &mut ZipArchive<File>) -> anyhow::Result<Manifest> {
    let mut text = String::new();
    archive
        .by_name(MANIFEST)?
        .take(1 << 30)
        .read_to_string(&mut text)?;
    let manifest: Manifest = serde_json::from_str(&text)?;
    if manifest.format != FORMAT && manifest.format != EARLIER {
        bail!(
            "its format is {:?}, {FORMAT} and {EARLIER} are allowed",
            manifest.format
        );
    }
    Ok(manifest)
}

async fn read_table(
    tx: &mut PgTransaction<'_>,
    table: &str,
    archive: &mut ZipArchive<File>,
) -> anyhow::Result<usize> {
    let insert = format!(
        "INSERT INTO {table} SELECT * FROM json_populate_recordset(NULL::{table}, $1::json)"
    );
    let mut lines = BufReader::new(archive.by_name(&format!("tables/{table}.jsonl"))?).lines();
    let mut count = 0;
    loop {
        let batch: Vec<String> = lines.by_ref().take(BATCH).collect::<Result<_, _>>()?;
        if batch.is_empty() {
            return Ok(count);
        }
        count += batch.len();
        let rows = format!("[{}]", batch.join(","));
        sqlx::query(AssertSqlSafe(insert.clone()))
            .bind(rows)
            .execute(&mut **tx)
            .await
            .with_context(|| format!("rows of {table}"))?;
    }
}
