//! The objects of the store as rows: whose they are, how large, and how many things use them.

use sqlx::{PgConnection, PgExecutor};
use uuid::Uuid;

/// A file to come.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewFile<'a> {
    pub(crate) kind: &'a str,
    pub(crate) media_type: &'a str,
    pub(crate) sha256: &'a [u8],
    pub(crate) bytes: i64,
}

/// A file as it is known.
#[derive(Debug, Clone)]
pub(crate) struct FileRow {
    pub(crate) name: String,
    pub(crate) media_type: String,
}

/// What a team's files take up. Until the transaction ends nobody else adds any.
pub(crate) async fn taken_up(db: &mut PgConnection, team: Uuid) -> sqlx::Result<i64> {
    sqlx::query!(
        "SELECT pg_advisory_xact_lock(hashtextextended($1::uuid::text, 0))",
        team
    )
    .execute(&mut *db)
    .await?;
    used(db, team).await
}

/// What a team's files take up, in bytes.
pub(crate) async fn used(db: impl PgExecutor<'_>, team: Uuid) -> sqlx::Result<i64> {
    sqlx::query_scalar!(
        "SELECT coalesce(sum(bytes), 0)::bigint AS \"bytes!\" FROM files WHERE team_id = $1",
        team
    )
    .fetch_one(db)
    .await
}

/// What a file with this hash is called.
pub(crate) fn name_of(team: Uuid, kind: &str, sha256: &[u8]) -> String {
    let hash: String = sha256.iter().map(|b| format!("{b:02x}")).collect();
    format!("files/{team}/{kind}-{hash}")
}

/// Notes one more use of a file of these bytes: its name, and whether the store does not have it yet.
pub(crate) async fn claim(
    db: &mut PgConnection,
    team: Uuid,
    file: NewFile<'_>,
) -> sqlx::Result<(String, bool)> {
    let row = sqlx::query!(
        "INSERT INTO files (name, team_id, kind, media_type, sha256, bytes) VALUES ($1, $2, $3, $4, $5, $6) \
         ON CONFLICT (team_id, sha256, kind) DO UPDATE SET uses = files.uses + 1, unused_since = NULL RETURNING name, xmax = 0 AS \"is_new!\"",
        name_of(team, file.kind, file.sha256),
        team,
        file.kind,
        file.media_type,
        file.sha256,
        file.bytes
    )
    .fetch_one(db)
    .await?;
    Ok((row.name, row.is_new))
}

/// Notes that a thing no longer uses files; each is named as often as it was used.
pub(crate) async fn release(db: &mut PgConnection, names: &[String]) -> sqlx::Result<()> {
    for name in names {
        sqlx::query!(
            "UPDATE files SET uses = uses - 1, unused_since = CASE WHEN uses = 1 THEN now() END WHERE name = $1",
            name
        )
        .execute(&mut *db)
        .await?;
    }
    Ok(())
}

/// A team's file of that name.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    name: &str,
) -> sqlx::Result<Option<FileRow>> {
    sqlx::query_as!(
        FileRow,
        "SELECT name, media_type FROM files WHERE team_id = $1 AND name = $2",
        team,
        name
    )
    .fetch_optional(db)
    .await
}

/// Takes out one file that has been unused for longer than so many seconds: its name. Who puts the same in meanwhile waits for the
/// transaction to end.
pub(crate) async fn take_unused(
    db: &mut PgConnection,
    for_seconds: f64,
) -> sqlx::Result<Option<String>> {
    sqlx::query_scalar!(
        "DELETE FROM files WHERE name = (SELECT name FROM files WHERE uses = 0 AND unused_since <= now() - make_interval(secs => $1) \
         LIMIT 1 FOR UPDATE SKIP LOCKED) RETURNING name",
        for_seconds
    )
    .fetch_optional(db)
    .await
}

/// Which of these names have a row.
pub(crate) async fn known(db: impl PgExecutor<'_>, names: &[String]) -> sqlx::Result<Vec<String>> {
    sqlx::query_scalar!("SELECT name FROM files WHERE name = ANY($1)", names)
        .fetch_all(db)
        .await
}
