//! Everything of a server in one open archive, and back onto an empty one.
//!
//! The archive is a zip: `metrosk-backup.json` says what it is, `tables/<name>.jsonl` holds one row a line, as JSON, `pictures/` the
//! pictures' pixels. What
//! only lasts (sessions, throttles, keys of writes) or can be made again (layouts) is left out: after a restore people
//! sign in anew.

use crate::App;
use crate::routes::pictures::{FORMS, file as object};
use anyhow::{Context, bail, ensure};
use serde_json::{Value, json};
use sqlx::{AssertSqlSafe, PgConnection, PgTransaction};
use std::fs::File;
use std::io::{BufRead, BufReader, Read, Write};
use std::path::Path;
use uuid::Uuid;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// The `format` of the manifest.
const FORMAT: &str = "metrosk-backup/1";
/// The tables that are kept, each after those it refers to.
const TABLES: [&str; 9] = ["teams", "people", "members", "links", "pictures", "sketches", "pages", "page_revisions", "page_versions"];
/// Rows fetched or written at once.
const BATCH: usize = 200;

/// How many rows of each table went into an archive or came out of it.
pub type Counts = Vec<(String, usize)>;

/// Writes everything of the server into a new file, as of one moment.
///
/// # Errors
/// When the database fails or the file can't be written. A file that exists is not overwritten.
pub async fn backup(app: &App, path: &Path) -> anyhow::Result<Counts> {
    let file = File::create_new(path).with_context(|| format!("{} can't be written", path.display()))?;
    let done = write_archive(app, file).await;
    if done.is_err() {
        // Half an archive must not be taken for one.
        let _ = std::fs::remove_file(path);
    }
    done
}

async fn write_archive(app: &App, file: File) -> anyhow::Result<Counts> {
    let mut zip = ZipWriter::new(file);
    let mut tx = app.pool.begin_with("BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY").await?;
    let mut counts = Counts::new();
    for table in TABLES {
        zip.start_file(format!("tables/{table}.jsonl"), SimpleFileOptions::default())?;
        counts.push((table.to_owned(), write_table(&mut tx, table, &mut zip).await?));
    }
    write_pictures(app, &mut tx, &mut zip).await?;
    let tables: serde_json::Map<String, Value> = counts.iter().map(|(t, n)| (t.clone(), json!(n))).collect();
    let manifest = json!({"format": FORMAT, "schema": schema(&mut tx).await?, "tables": tables});
    zip.start_file("metrosk-backup.json", SimpleFileOptions::default())?;
    zip.write_all(serde_json::to_string_pretty(&manifest)?.as_bytes())?;
    zip.finish()?.sync_all()?;
    Ok(counts)
}

/// The newest migration of the database.
async fn schema(db: &mut PgConnection) -> sqlx::Result<i64> {
    sqlx::query_scalar("SELECT max(version) FROM _sqlx_migrations WHERE success").fetch_one(db).await
}

async fn write_table(tx: &mut PgTransaction<'_>, table: &str, out: &mut impl Write) -> anyhow::Result<usize> {
    // A cursor, so that a large table does not lie in memory. The names are this file's own.
    let declare = format!("DECLARE {table}_rows CURSOR FOR SELECT row_to_json(t)::text FROM {table} t ORDER BY t");
    sqlx::query(AssertSqlSafe(declare)).execute(&mut **tx).await?;
    let fetch = format!("FETCH {BATCH} FROM {table}_rows");
    let mut count = 0;
    loop {
        let rows: Vec<String> = sqlx::query_scalar(AssertSqlSafe(fetch.clone())).fetch_all(&mut **tx).await?;
        if rows.is_empty() {
            return Ok(count);
        }
        count += rows.len();
        for row in rows {
            writeln!(out, "{row}")?;
        }
    }
}

/// Puts everything of an archive onto a server that has nothing yet: all of it, or nothing.
///
/// # Errors
/// When the archive is none, is of another schema, or the server is not empty.
pub async fn restore(app: &App, path: &Path) -> anyhow::Result<Counts> {
    let file = File::open(path).with_context(|| format!("{} can't be opened", path.display()))?;
    let mut archive = ZipArchive::new(file).with_context(|| format!("{} is no archive", path.display()))?;
    let manifest = read_manifest(&mut archive).with_context(|| format!("{} is no backup of Metrosk", path.display()))?;
    let mut tx = app.pool.begin().await?;
    let (own, theirs) = (schema(&mut tx).await?, manifest["schema"].as_i64().unwrap_or_default());
    ensure!(
        own == theirs,
        "the backup is of schema {theirs}, this server of schema {own}; restore with the version of Metrosk that made it, then upgrade"
    );
    for table in TABLES {
        let any: bool = sqlx::query_scalar(AssertSqlSafe(format!("SELECT EXISTS (SELECT 1 FROM {table})"))).fetch_one(&mut *tx).await?;
        ensure!(!any, "this server is not empty: there are {table}; a backup is restored onto an empty database");
    }
    let mut counts = Counts::new();
    for table in TABLES {
        let count = read_table(&mut tx, table, &mut archive).await?;
        let told = manifest["tables"][table].as_u64().unwrap_or_default() as usize;
        ensure!(count == told, "the archive is damaged: {count} rows of {table}, {told} were written");
        counts.push((table.to_owned(), count));
    }
    read_pictures(app, &mut archive).await?;
    tx.commit().await?;
    Ok(counts)
}

/// The pixels of all pictures, each form a file of its own. A picture whose pixels are missing in the store has none in the archive.
async fn write_pictures(app: &App, tx: &mut PgTransaction<'_>, zip: &mut ZipWriter<File>) -> anyhow::Result<()> {
    let stored = SimpleFileOptions::default().compression_method(zip::CompressionMethod::Stored);
    let ids: Vec<Uuid> = sqlx::query_scalar("SELECT id FROM pictures ORDER BY id").fetch_all(&mut **tx).await?;
    for name in ids.iter().flat_map(|id| FORMS.map(|form| object(*id, form))) {
        if let Some(bytes) = app.objects.get(&name).await? {
            zip.start_file(name, stored)?;
            zip.write_all(&bytes)?;
        }
    }
    Ok(())
}

async fn read_pictures(app: &App, archive: &mut ZipArchive<File>) -> anyhow::Result<()> {
    let all: Vec<String> = archive.file_names().map(|n| n.map(|n| n.into_owned())).collect::<Result<_, _>>()?;
    let names = all.into_iter().filter(|n| n.starts_with("pictures/") && !n.contains(".."));
    for name in names {
        let mut bytes = Vec::new();
        archive.by_name(&name)?.take(metrosk_vision::MOST_BYTES as u64 * 4).read_to_end(&mut bytes)?;
        app.objects.put(&name, bytes).await?;
    }
    Ok(())
}

fn read_manifest(archive: &mut ZipArchive<File>) -> anyhow::Result<Value> {
    let mut text = String::new();
    archive.by_name("metrosk-backup.json")?.take(1 << 20).read_to_string(&mut text)?;
    let manifest: Value = serde_json::from_str(&text)?;
    if manifest["format"] != FORMAT {
        bail!("its format is {}, {FORMAT} is allowed", manifest["format"]);
    }
    Ok(manifest)
}

async fn read_table(tx: &mut PgTransaction<'_>, table: &str, archive: &mut ZipArchive<File>) -> anyhow::Result<usize> {
    let insert = format!("INSERT INTO {table} SELECT * FROM json_populate_recordset(NULL::{table}, $1::json)");
    let mut file = archive.by_name(&format!("tables/{table}.jsonl"))?;
    // The rows of a table are read before they are written: an archive's file can't be held over a wait.
    let lines: Vec<String> = BufReader::new(&mut file).lines().collect::<Result<_, _>>()?;
    drop(file);
    for batch in lines.chunks(BATCH) {
        let rows = format!("[{}]", batch.join(","));
        sqlx::query(AssertSqlSafe(insert.clone())).bind(rows).execute(&mut **tx).await.with_context(|| format!("rows of {table}"))?;
    }
    Ok(lines.len())
}
