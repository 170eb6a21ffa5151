//! Pages in the making.

use serde_json::Value;
use sqlx::PgExecutor;
use time::{Date, OffsetDateTime};
use uuid::Uuid;

/// A page with its newest plan, and what that comes to where it is known.
#[derive(Debug, Clone, sqlx::FromRow)]
pub(crate) struct PageRow {
    pub(crate) id: Uuid,
    pub(crate) sketch_id: Option<Uuid>,
    pub(crate) name: String,
    pub(crate) due: Option<Date>,
    pub(crate) finished_at: Option<OffsetDateTime>,
    pub(crate) archived_at: Option<OffsetDateTime>,
    pub(crate) changed_at: OffsetDateTime,
    pub(crate) revision: i32,
    pub(crate) plan: Value,
    pub(crate) author: String,
    pub(crate) reason: String,
    /// The change that undo takes back.
    pub(crate) undo: Option<String>,
    /// The change that redo brings back.
    pub(crate) redo: Option<String>,
    /// Whether the newest plan's layout, or why there is none, is known.
    pub(crate) known: bool,
    pub(crate) layout: Option<Value>,
    pub(crate) clash: Option<String>,
}

macro_rules! page {
    ($which:literal) => {
        concat!(
            "SELECT p.id, p.sketch_id, p.name, p.due, p.finished_at, p.archived_at, p.changed_at, p.revision, r.plan, r.author, r.reason, ",
            "CASE WHEN r.undo_to IS NOT NULL THEN r.step END AS undo, d.step AS redo, ",
            "l.page_id IS NOT NULL AS known, l.layout, l.clash FROM pages p ",
            "JOIN page_revisions r ON r.page_id = p.id AND r.revision = p.revision ",
            "LEFT JOIN page_revisions d ON d.page_id = p.id AND d.revision = r.redo_to ",
            "LEFT JOIN page_layouts l ON l.page_id = p.id AND l.revision = p.revision WHERE p.team_id = $1 ",
            $which
        )
    };
}

/// Which pages are asked for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Shelf {
    /// Being made, by due date.
    Making,
    /// Finished, newest first.
    Finished,
    /// Put away, newest first.
    Archived,
}

/// A team's pages of one shelf, so many from an offset.
pub(crate) async fn list(db: impl PgExecutor<'_>, team: Uuid, shelf: Shelf, most: i64, from: i64) -> sqlx::Result<Vec<PageRow>> {
    let sql = match shelf {
        Shelf::Making => {
            page!("AND p.archived_at IS NULL AND p.finished_at IS NULL ORDER BY p.due NULLS LAST, p.changed_at DESC, p.id LIMIT $2 OFFSET $3")
        }
        Shelf::Finished => page!("AND p.archived_at IS NULL AND p.finished_at IS NOT NULL ORDER BY p.finished_at DESC, p.id LIMIT $2 OFFSET $3"),
        Shelf::Archived => page!("AND p.archived_at IS NOT NULL ORDER BY p.archived_at DESC, p.id LIMIT $2 OFFSET $3"),
    };
    sqlx::query_as(sql).bind(team).bind(most).bind(from).fetch_all(db).await
}

/// The pages made from a sketch of the team's, newest first.
pub(crate) async fn of_sketch(db: impl PgExecutor<'_>, team: Uuid, sketch: Uuid) -> sqlx::Result<Vec<PageRow>> {
    sqlx::query_as(page!("AND p.sketch_id = $2 ORDER BY p.changed_at DESC, p.id")).bind(team).bind(sketch).fetch_all(db).await
}

/// One of a team's.
pub(crate) async fn find(db: impl PgExecutor<'_>, team: Uuid, id: Uuid) -> sqlx::Result<Option<PageRow>> {
    sqlx::query_as(page!("AND p.id = $2")).bind(team).bind(id).fetch_optional(db).await
}

/// What of a page is no plan.
#[derive(Debug, Clone)]
pub(crate) struct Facts<'a> {
    pub(crate) name: &'a str,
    pub(crate) due: Option<Date>,
    pub(crate) finished: bool,
    pub(crate) archived: bool,
}

/// Changes a page's name and dates; whether there is such a page.
pub(crate) async fn update(db: impl PgExecutor<'_>, team: Uuid, id: Uuid, facts: &Facts<'_>) -> sqlx::Result<bool> {
    let done = sqlx::query(
        "UPDATE pages SET name = $3, due = $4, changed_at = now(), finished_at = CASE WHEN $5 THEN coalesce(finished_at, now()) END, \
         archived_at = CASE WHEN $6 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2",
    )
    .bind(team)
    .bind(id)
    .bind(facts.name)
    .bind(facts.due)
    .bind(facts.finished)
    .bind(facts.archived)
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// A page with no revision yet: one must follow in the same transaction.
pub(crate) async fn insert(db: impl PgExecutor<'_>, team: Uuid, sketch: Option<Uuid>, name: &str, due: Option<Date>) -> sqlx::Result<Uuid> {
    sqlx::query_scalar(
        "INSERT INTO pages (id, team_id, sketch_id, name, due, revision, changed_at) VALUES ($1, $2, $3, $4, $5, 1, clock_timestamp()) RETURNING id",
    )
    .bind(Uuid::new_v4())
    .bind(team)
    .bind(sketch)
    .bind(name)
    .bind(due)
    .fetch_one(db)
    .await
}

/// Keeps what a revision of a page comes to, unless something newer is kept.
pub(crate) async fn keep_layout(db: impl PgExecutor<'_>, page: Uuid, revision: i32, layout: Option<&Value>, clash: Option<&str>) -> sqlx::Result<()> {
    sqlx::query(
        "INSERT INTO page_layouts (page_id, revision, layout, clash) VALUES ($1, $2, $3, $4) ON CONFLICT (page_id) DO UPDATE \
         SET revision = excluded.revision, layout = excluded.layout, clash = excluded.clash WHERE page_layouts.revision < excluded.revision",
    )
    .bind(page)
    .bind(revision)
    .bind(layout)
    .bind(clash)
    .execute(db)
    .await?;
    Ok(())
}
