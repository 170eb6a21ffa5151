//! A page's history: every change is a revision, and none is ever taken away. Undo and redo are revisions too: each
//! knows where undo and redo lead from it.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::OffsetDateTime;
use uuid::Uuid;

/// A revision without its plan.
#[derive(Debug, sqlx::FromRow)]
pub(crate) struct RevisionRow {
    pub(crate) revision: i32,
    pub(crate) author: String,
    pub(crate) reason: String,
    pub(crate) made_at: OffsetDateTime,
    /// The names that it was given.
    pub(crate) names: Vec<String>,
}

/// A revision with its plan.
#[derive(Debug, sqlx::FromRow)]
pub(crate) struct PlanRow {
    pub(crate) plan: Value,
    pub(crate) reason: String,
    /// Which change brought the plan to what it is.
    pub(crate) step: String,
    pub(crate) undo_to: Option<i32>,
    pub(crate) redo_to: Option<i32>,
}

/// What a new revision says.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Change<'a> {
    pub(crate) plan: &'a Value,
    pub(crate) author: &'a str,
    pub(crate) reason: &'a str,
    /// Which change brought the plan to what it is: the reason itself, but for steps back and on.
    pub(crate) step: &'a str,
    pub(crate) undo_to: Option<i32>,
    pub(crate) redo_to: Option<i32>,
}

/// A page's history, newest first, before a revision.
pub(crate) async fn list(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    before: i32,
    most: i64,
) -> sqlx::Result<Vec<RevisionRow>> {
    sqlx::query_as(
        "SELECT r.revision, r.author, r.reason, r.made_at, \
         coalesce((SELECT array_agg(v.name ORDER BY v.made_at) FROM page_versions v WHERE v.page_id = r.page_id AND v.revision = r.revision), '{}') AS names \
         FROM page_revisions r WHERE r.team_id = $1 AND r.page_id = $2 AND r.revision < $3 ORDER BY r.revision DESC LIMIT $4",
    )
    .bind(team)
    .bind(page)
    .bind(before)
    .bind(most)
    .fetch_all(db)
    .await
}

/// One revision of a page.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    revision: i32,
) -> sqlx::Result<Option<PlanRow>> {
    sqlx::query_as("SELECT plan, reason, step, undo_to, redo_to FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision = $3")
        .bind(team)
        .bind(page)
        .bind(revision)
        .fetch_optional(db)
        .await
}

/// Moves a page on from a revision, if that is still its newest. The row stays locked until the transaction ends.
pub(crate) async fn advance(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    from: i32,
) -> sqlx::Result<bool> {
    let moved = sqlx::query("UPDATE pages SET revision = revision + 1, changed_at = now() WHERE team_id = $1 AND id = $2 AND revision = $3")
        .bind(team)
        .bind(page)
        .bind(from)
        .execute(db)
        .await?;
    Ok(moved.rows_affected() == 1)
}

/// Appends a revision.
pub(crate) async fn append(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    revision: i32,
    change: Change<'_>,
) -> sqlx::Result<()> {
    sqlx::query(
        "INSERT INTO page_revisions (page_id, team_id, revision, plan, author, reason, step, undo_to, redo_to) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
    )
    .bind(page)
    .bind(team)
    .bind(revision)
    .bind(change.plan)
    .bind(change.author)
    .bind(change.reason)
    .bind(change.step)
    .bind(change.undo_to)
    .bind(change.redo_to)
    .execute(db)
    .await?;
    Ok(())
}

/// A named version of a page.
#[derive(Debug, sqlx::FromRow)]
pub(crate) struct VersionRow {
    pub(crate) name: String,
    pub(crate) revision: i32,
    pub(crate) made_by: String,
    pub(crate) made_at: OffsetDateTime,
}

/// All named versions of a page, the newest name first.
pub(crate) async fn versions(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
) -> sqlx::Result<Vec<VersionRow>> {
    sqlx::query_as("SELECT name, revision, made_by, made_at FROM page_versions WHERE team_id = $1 AND page_id = $2 ORDER BY made_at DESC, name")
        .bind(team)
        .bind(page)
        .fetch_all(db)
        .await
}

/// The revision that a name of a page stands for.
pub(crate) async fn named(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    name: &str,
) -> sqlx::Result<Option<i32>> {
    sqlx::query_scalar(
        "SELECT revision FROM page_versions WHERE team_id = $1 AND page_id = $2 AND name = $3",
    )
    .bind(team)
    .bind(page)
    .bind(name)
    .fetch_optional(db)
    .await
}

/// Gives a revision a name, unless the page has it already; whether it was given.
pub(crate) async fn name(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    revision: i32,
    name: &str,
    by: &str,
) -> sqlx::Result<bool> {
    let done = sqlx::query(
        "INSERT INTO page_versions (page_id, team_id, name, revision, made_by) \
         SELECT page_id, team_id, $4, revision, $5 FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision = $3 \
         ON CONFLICT (page_id, name) DO NOTHING",
    )
    .bind(team)
    .bind(page)
    .bind(revision)
    .bind(name)
    .bind(by)
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Takes a name off again; whether there was one.
pub(crate) async fn unname(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    name: &str,
) -> sqlx::Result<bool> {
    let done =
        sqlx::query("DELETE FROM page_versions WHERE team_id = $1 AND page_id = $2 AND name = $3")
            .bind(team)
            .bind(page)
            .bind(name)
            .execute(db)
            .await?;
    Ok(done.rows_affected() == 1)
}
