//! Files: kept once a team by what is in them, counted, held to a quota, and swept when nothing uses them any more.

use crate::features::files::store::{self as files, NewFile};
use crate::http::error::Failure;
use crate::state::App;
use axum::body::Body;
use axum::http::{HeaderValue, header};
use axum::response::Response;
use futures_util::StreamExt;
use sha2::{Digest, Sha256};
use sqlx::PgConnection;
use std::time::Duration;
use uuid::Uuid;

/// How long a file that nothing uses is kept: an undo may want it back.
pub(crate) const UNUSED: Duration = Duration::from_secs(24 * 3600);
/// The folder of all that has a row from the start.
const FOLDER: &str = "files";

/// What is to be kept of a thing.
#[derive(Debug)]
pub(crate) struct Content {
    /// `original`, `view`, `thumb` or `lift`.
    pub(crate) kind: &'static str,
    pub(crate) media_type: &'static str,
    pub(crate) bytes: Vec<u8>,
}

/// What a file of these bytes is called.
pub(crate) fn name_of(team: Uuid, kind: &str, bytes: &[u8]) -> String {
    files::name_of(team, kind, &Sha256::digest(bytes))
}

/// Keeps files for a team, one use each: their names, in order. What is there already is not kept twice.
pub(crate) async fn keep(
    app: &App,
    db: &mut PgConnection,
    team: Uuid,
    contents: Vec<Content>,
) -> Result<Vec<String>, Failure> {
    let before = files::taken_up(db, team).await?;
    let mut kept = Vec::with_capacity(contents.len());
    for content in contents {
        let sha256 = Sha256::digest(&content.bytes);
        let file = NewFile {
            kind: content.kind,
            media_type: content.media_type,
            sha256: &sha256,
            bytes: content.bytes.len() as i64,
        };
        let (name, is_new) = files::claim(db, team, file).await?;
        kept.push((name, is_new.then_some(content.bytes)));
    }
    let after = files::used(&mut *db, team).await?;
    let most = i64::try_from(app.settings.team_bytes).unwrap_or(i64::MAX);
    if after > most && after > before {
        return Err(Failure::Standing(format!(
            "Your team's pictures take up {} of {}, and this one needs {} more. Throw away pictures that no sketch and no page uses.",
            megabytes(before),
            megabytes(most),
            megabytes(after - before)
        )));
    }
    let mut names = Vec::with_capacity(kept.len());
    for (name, bytes) in kept {
        if let Some(bytes) = bytes {
            app.objects.put(&name, bytes).await?;
        }
        names.push(name);
    }
    Ok(names)
}

fn megabytes(bytes: i64) -> String {
    format!("{:.1} MB", bytes as f64 / 1024.0 / 1024.0)
}

/// A team's file as an answer, piece by piece as the store gives it.
pub(crate) async fn answer(app: &App, team: Uuid, name: &str) -> Result<Response, Failure> {
    let missing = || Failure::Missing("picture");
    let file = files::find(&app.pool, team, name)
        .await?
        .ok_or_else(missing)?;
    let pieces = app.objects.pieces(&file.name).await?.ok_or_else(missing)?;
    let mut response = Response::new(Body::from_stream(pieces));
    let headers = response.headers_mut();
    headers.insert(
        header::CONTENT_TYPE,
        HeaderValue::from_str(&file.media_type).unwrap_or(HeaderValue::from_static("image/jpeg")),
    );
    headers.insert(
        header::CACHE_CONTROL,
        HeaderValue::from_static("private, max-age=86400, immutable"),
    );
    Ok(response)
}

/// Throws away what nothing has used for so long, and objects that old which never came to have a row: how many.
///
/// # Errors
/// When the database or the store fails.
pub async fn sweep(app: &App, unused: Duration) -> anyhow::Result<usize> {
    let mut swept = 0;
    loop {
        let mut tx = app.pool.begin().await?;
        let Some(name) = files::take_unused(&mut tx, unused.as_secs_f64()).await? else {
            break;
        };
        // Before the row is gone for others: who puts the same in again does so after this.
        app.objects.delete_if_there(&name).await?;
        tx.commit().await?;
        swept += 1;
    }
    Ok(swept + sweep_strays(app, unused).await?)
}

async fn sweep_strays(app: &App, unused: Duration) -> anyhow::Result<usize> {
    let mut batches = app.objects.older(FOLDER, unused).chunks(500);
    let mut swept = 0;
    while let Some(batch) = batches.next().await {
        let names: Vec<String> = batch.into_iter().collect::<Result<_, _>>()?;
        let known = files::known(&app.pool, &names).await?;
        for name in names.into_iter().filter(|n| !known.contains(n)) {
            app.objects.delete_if_there(&name).await?;
            swept += 1;
        }
    }
    Ok(swept)
}
