//! The drawer.

use crate::features::events::store::{self as events, NewEvent};
use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
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
    /// The lift that it was laid over.
    pub(crate) lift_id: Option<Uuid>,
    /// Its newest revision.
    pub(crate) revision: i32,
    /// How many pages have been made from it.
    pub(crate) pages: i64,
}

macro_rules! sketch {
    ($which:literal) => {
        concat!(
            "SELECT s.id, s.name, s.document, s.made_at, s.archived_at, s.picture_id, s.lift_id, s.revision, ",
            "(SELECT count(*) FROM pages p WHERE p.sketch_id = s.id AND p.team_id = s.team_id) AS pages FROM sketches s WHERE s.team_id = $1 ",
            $which
        )
    };
}

/// A team's, oldest first: those in the drawer, or those set aside.
pub(crate) async fn list(
    db: impl PgExecutor<'_>,
    team: Uuid,
    archived: bool,
) -> sqlx::Result<Vec<SketchRow>> {
    let sql = if archived {
        sketch!("AND s.archived_at IS NOT NULL ORDER BY s.made_at, s.id")
    } else {
        sketch!("AND s.archived_at IS NULL ORDER BY s.made_at, s.id")
    };
    sqlx::query_as(sql).bind(team).fetch_all(db).await
}

/// One of a team's.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<SketchRow>> {
    sqlx::query_as(sketch!("AND s.id = $2"))
        .bind(team)
        .bind(id)
        .fetch_optional(db)
        .await
}

/// Puts a sketch into a team's drawer, as its first revision.
pub(crate) async fn insert(
    db: &mut PgConnection,
    team: Uuid,
    name: &str,
    document: &Value,
    author: &str,
) -> sqlx::Result<Uuid> {
    let id = Uuid::new_v4();
    // clock_timestamp, so that several of one transaction keep their order.
    sqlx::query("INSERT INTO sketches (id, team_id, name, document, made_at) VALUES ($1, $2, $3, $4, clock_timestamp())")
        .bind(id)
        .bind(team)
        .bind(name)
        .bind(document)
        .execute(&mut *db)
        .await?;
    append(
        &mut *db,
        team,
        id,
        1,
        document,
        author,
        "put into the drawer",
    )
    .await?;
    events::tell(db, team, NewEvent::of(events::SKETCH, id, 1, author)).await?;
    Ok(id)
}

/// What a sketch becomes.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Change<'a> {
    /// Its name, in its document too.
    pub(crate) name: &'a str,
    pub(crate) document: &'a Value,
    pub(crate) archived: bool,
    pub(crate) author: &'a str,
    pub(crate) reason: &'a str,
}

/// Moves a sketch on from a revision, if that is still its newest.
pub(crate) async fn change(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    from: i32,
    change: Change<'_>,
) -> sqlx::Result<bool> {
    let moved = sqlx::query(
        "UPDATE sketches SET name = $4, document = $5, changed_at = now(), revision = revision + 1, \
         archived_at = CASE WHEN $6 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2 AND revision = $3",
    )
    .bind(team)
    .bind(id)
    .bind(from)
    .bind(change.name)
    .bind(change.document)
    .bind(change.archived)
    .execute(&mut *db)
    .await?;
    if moved.rows_affected() == 0 {
        return Ok(false);
    }
    append(
        db,
        team,
        id,
        from + 1,
        change.document,
        change.author,
        change.reason,
    )
    .await?;
    Ok(true)
}

async fn append(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    revision: i32,
    document: &Value,
    author: &str,
    reason: &str,
) -> sqlx::Result<()> {
    sqlx::query("INSERT INTO sketch_revisions (sketch_id, team_id, revision, document, author, reason) VALUES ($1, $2, $3, $4, $5, $6)")
        .bind(id)
        .bind(team)
        .bind(revision)
        .bind(document)
        .bind(author)
        .bind(reason)
        .execute(db)
        .await?;
    Ok(())
}

/// A sketch's revision without its document.
#[derive(Debug, sqlx::FromRow)]
pub(crate) struct SketchRevisionRow {
    pub(crate) revision: i32,
    pub(crate) author: String,
    pub(crate) reason: String,
    pub(crate) made_at: OffsetDateTime,
}

/// A sketch's revisions before one, newest first, so many of them.
pub(crate) async fn revisions(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    before: i32,
    most: i64,
) -> sqlx::Result<Vec<SketchRevisionRow>> {
    sqlx::query_as(
        "SELECT revision, author, reason, made_at FROM sketch_revisions WHERE team_id = $1 AND sketch_id = $2 AND revision < $3 \
         ORDER BY revision DESC LIMIT $4",
    )
    .bind(team)
    .bind(id)
    .bind(before)
    .bind(most)
    .fetch_all(db)
    .await
}

/// The document of a sketch's revision.
pub(crate) async fn document_of(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    revision: i32,
) -> sqlx::Result<Option<Value>> {
    sqlx::query_scalar("SELECT document FROM sketch_revisions WHERE team_id = $1 AND sketch_id = $2 AND revision = $3")
        .bind(team)
        .bind(id)
        .bind(revision)
        .fetch_optional(db)
        .await
}

/// Notes which picture a sketch comes from, and which lift of it.
pub(crate) async fn set_source(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    picture: Uuid,
    lift: Option<Uuid>,
) -> sqlx::Result<()> {
    sqlx::query("UPDATE sketches SET picture_id = $3, lift_id = $4 WHERE team_id = $1 AND id = $2")
        .bind(team)
        .bind(id)
        .bind(picture)
        .bind(lift)
        .execute(db)
        .await
        .map(|_| ())
}
