//! Pictures that were put in.

use serde_json::Value;
use sqlx::PgExecutor;
use time::OffsetDateTime;
use uuid::Uuid;

/// A picture as it is known; its pixels lie in the object store.
#[derive(Debug, Clone, sqlx::FromRow)]
pub(crate) struct PictureRow {
    pub(crate) id: Uuid,
    pub(crate) name: String,
    pub(crate) width: i32,
    pub(crate) height: i32,
    pub(crate) bytes: i64,
    /// Of the original; view and thumbnail are JPEG.
    pub(crate) media_type: String,
    pub(crate) made_at: OffsetDateTime,
}

/// One of a team's.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<PictureRow>> {
    sqlx::query_as("SELECT id, name, width, height, bytes, media_type, made_at FROM pictures WHERE team_id = $1 AND id = $2")
        .bind(team)
        .bind(id)
        .fetch_optional(db)
        .await
}

/// A team's newest pictures, so many of them.
pub(crate) async fn newest(
    db: impl PgExecutor<'_>,
    team: Uuid,
    most: i64,
) -> sqlx::Result<Vec<PictureRow>> {
    sqlx::query_as("SELECT id, name, width, height, bytes, media_type, made_at FROM pictures WHERE team_id = $1 ORDER BY made_at DESC, id LIMIT $2")
        .bind(team)
        .bind(most)
        .fetch_all(db)
        .await
}

/// Notes a picture, whose pixels lie in the store already.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    team: Uuid,
    row: &PictureRow,
    made_by: &str,
) -> sqlx::Result<()> {
    sqlx::query(
        "INSERT INTO pictures (id, team_id, name, width, height, bytes, media_type, made_by, made_at) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
    )
    .bind(row.id)
    .bind(team)
    .bind(&row.name)
    .bind(row.width)
    .bind(row.height)
    .bind(row.bytes)
    .bind(&row.media_type)
    .bind(made_by)
    .bind(row.made_at)
    .execute(db)
    .await
    .map(|_| ())
}

/// A page that was lifted out of a picture; its pixels lie in the object store.
#[derive(Debug, Clone, sqlx::FromRow)]
pub(crate) struct LiftRow {
    pub(crate) id: Uuid,
    pub(crate) picture_id: Uuid,
    pub(crate) corners: Value,
    pub(crate) swatches: Value,
}

/// One of a team's lifts.
pub(crate) async fn find_lift(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<LiftRow>> {
    sqlx::query_as(
        "SELECT id, picture_id, corners, swatches FROM lifts WHERE team_id = $1 AND id = $2",
    )
    .bind(team)
    .bind(id)
    .fetch_optional(db)
    .await
}

/// Notes a lift, whose pixels lie in the store already.
pub(crate) async fn insert_lift(
    db: impl PgExecutor<'_>,
    team: Uuid,
    row: &LiftRow,
    made_by: &str,
) -> sqlx::Result<()> {
    sqlx::query("INSERT INTO lifts (id, team_id, picture_id, corners, swatches, made_by) VALUES ($1, $2, $3, $4, $5, $6)")
        .bind(row.id)
        .bind(team)
        .bind(row.picture_id)
        .bind(&row.corners)
        .bind(&row.swatches)
        .bind(made_by)
        .execute(db)
        .await
        .map(|_| ())
}
