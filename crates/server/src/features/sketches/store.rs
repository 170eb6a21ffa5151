//! The drawer.

use crate::features::events::store::{self as events, NewEvent};
use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::OffsetDateTime;
use uuid::Uuid;

/// A sketch as it is kept.
#[derive(Debug, Clone)]
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

/// The query of a team's sketches.
macro_rules! sketches {
    ($which:literal, $($argument:expr),+) => {
        sqlx::query_as!(
            SketchRow,
            "SELECT s.id, s.name, s.document, s.made_at, s.archived_at, s.picture_id, s.lift_id, s.revision, "
                + "(SELECT count(*) FROM pages p WHERE p.sketch_id = s.id AND p.team_id = s.team_id) AS \"pages!\" "
                + "FROM sketches s WHERE s.team_id = $1 "
                + $which,
            $($argument),+
        )
    };
}

/// A team's, oldest first: those in the drawer, or those set aside.
pub(crate) async fn list(
    db: impl PgExecutor<'_>,
    team: Uuid,
    archived: bool,
) -> sqlx::Result<Vec<SketchRow>> {
    sketches!(
        "AND (s.archived_at IS NOT NULL) = $2 ORDER BY s.made_at, s.id",
        team,
        archived
    )
    .fetch_all(db)
    .await
}

/// One of a team's.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<SketchRow>> {
    sketches!("AND s.id = $2", team, id)
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
    sqlx::query!(
        "INSERT INTO sketches (id, team_id, name, document, made_at) VALUES ($1, $2, $3, $4, clock_timestamp())",
        id,
        team,
        name,
        document
    )
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
    let moved = sqlx::query!(
        "UPDATE sketches SET name = $4, document = $5, changed_at = now(), revision = revision + 1, \
         archived_at = CASE WHEN $6 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2 AND revision = $3",
        team,
        id,
        from,
        change.name,
        change.document,
        change.archived
    )
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
    sqlx::query!(
        "INSERT INTO sketch_revisions (sketch_id, team_id, revision, document, author, reason) VALUES ($1, $2, $3, $4, $5, $6)",
        id,
        team,
        revision,
        document,
        author,
        reason
    )
    .execute(db)
    .await?;
    Ok(())
}

/// A sketch's revision without its document.
#[derive(Debug)]
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
    sqlx::query_as!(
        SketchRevisionRow,
        "SELECT revision, author, reason, made_at FROM sketch_revisions WHERE team_id = $1 AND sketch_id = $2 AND revision < $3 \
         ORDER BY revision DESC LIMIT $4",
        team,
        id,
        before,
        most
    )
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
    sqlx::query_scalar!(
        "SELECT document FROM sketch_revisions WHERE team_id = $1 AND sketch_id = $2 AND revision = $3",
        team,
        id,
        revision
    )
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
    sqlx::query!(
        "UPDATE sketches SET picture_id = $3, lift_id = $4 WHERE team_id = $1 AND id = $2",
        team,
        id,
        picture,
        lift
    )
    .execute(db)
    .await
    .map(|_| ())
}
