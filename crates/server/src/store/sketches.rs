//! The drawer.

use serde_json::Value;
use sqlx::PgExecutor;
use time::OffsetDateTime;
use uuid::Uuid;

/// A sketch as it is kept.
#[derive(Debug, Clone, sqlx::FromRow)]
pub(crate) struct SketchRow {
    pub(crate) id: Uuid,
    pub(crate) name: String,
    pub(crate) document: Value,
    pub(crate) made_at: OffsetDateTime,
    pub(crate) archived_at: Option<OffsetDateTime>,
    pub(crate) picture_id: Option<Uuid>,
    /// How many pages have been made from it.
    pub(crate) pages: i64,
}

macro_rules! sketch {
    ($which:literal) => {
        concat!(
            "SELECT s.id, s.name, s.document, s.made_at, s.archived_at, s.picture_id, ",
            "(SELECT count(*) FROM pages p WHERE p.sketch_id = s.id AND p.team_id = s.team_id) AS pages FROM sketches s WHERE s.team_id = $1 ",
            $which
        )
    };
}

/// A team's, oldest first: those in the drawer, or those put away.
pub(crate) async fn list(db: impl PgExecutor<'_>, team: Uuid, archived: bool) -> sqlx::Result<Vec<SketchRow>> {
    sqlx::query_as(sketch!("AND (s.archived_at IS NOT NULL) = $2 ORDER BY s.made_at, s.id")).bind(team).bind(archived).fetch_all(db).await
}

/// One of a team's.
pub(crate) async fn find(db: impl PgExecutor<'_>, team: Uuid, id: Uuid) -> sqlx::Result<Option<SketchRow>> {
    sqlx::query_as(sketch!("AND s.id = $2")).bind(team).bind(id).fetch_optional(db).await
}

/// Puts a sketch into a team's drawer.
pub(crate) async fn insert(db: impl PgExecutor<'_>, team: Uuid, name: &str, document: &Value) -> sqlx::Result<Uuid> {
    // clock_timestamp, so that several of one transaction keep their order.
    sqlx::query_scalar("INSERT INTO sketches (id, team_id, name, document, made_at) VALUES ($1, $2, $3, $4, clock_timestamp()) RETURNING id")
        .bind(Uuid::new_v4())
        .bind(team)
        .bind(name)
        .bind(document)
        .fetch_one(db)
        .await
}

/// Gives a sketch another name (in its document too) and document, puts it away or takes it out again.
pub(crate) async fn update(db: impl PgExecutor<'_>, team: Uuid, id: Uuid, name: &str, document: &Value, archived: bool) -> sqlx::Result<bool> {
    let done = sqlx::query(
        "UPDATE sketches SET name = $3, document = $4, changed_at = now(), \
         archived_at = CASE WHEN $5 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2",
    )
    .bind(team)
    .bind(id)
    .bind(name)
    .bind(document)
    .bind(archived)
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Notes which picture a sketch comes from.
pub(crate) async fn set_picture(db: impl PgExecutor<'_>, team: Uuid, id: Uuid, picture: Uuid) -> sqlx::Result<()> {
    sqlx::query("UPDATE sketches SET picture_id = $3 WHERE team_id = $1 AND id = $2").bind(team).bind(id).bind(picture).execute(db).await.map(|_| ())
}
