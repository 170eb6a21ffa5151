//! Pages in the making.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
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
    /// The newest revision of its name, dates and the like.
    pub(crate) details_revision: i32,
    pub(crate) revision: i32,
    pub(crate) plan: Value,
    pub(crate) author: String,
    pub(crate) reason: String,
    /// The change that undo takes back.
    pub(crate) undo: Option<String>,
    /// The change that redo brings back.
    pub(crate) redo: Option<String>,
    /// The plan that undo leads to, where one page is asked for.
    #[sqlx(default)]
    pub(crate) undo_plan: Option<Value>,
    /// The plan that redo leads to, where one page is asked for.
    #[sqlx(default)]
    pub(crate) redo_plan: Option<Value>,
    /// Whether the newest plan's layout, or why there is none, is known.
    pub(crate) known: bool,
    pub(crate) layout: Option<Value>,
    pub(crate) clash: Option<String>,
}

/// The fit's engine: one more whenever the same plan may come to another layout. What an older one computed is computed again.
macro_rules! engine {
    () => {
        1
    };
}
const ENGINE: i32 = engine!();

macro_rules! page {
    ($which:literal) => {
        page!("", "", $which)
    };
    ($more:literal, $join:literal, $which:literal) => {
        concat!(
            "SELECT p.id, p.sketch_id, p.name, p.due, p.finished_at, p.archived_at, p.changed_at, p.details_revision, p.revision, r.plan, r.author, r.reason, ",
            "CASE WHEN r.undo_to IS NOT NULL THEN r.step END AS undo, d.step AS redo, ",
            "l.page_id IS NOT NULL AS known, l.layout, l.clash",
            $more,
            " FROM pages p ",
            "JOIN page_revisions r ON r.page_id = p.id AND r.revision = p.revision ",
            "LEFT JOIN page_revisions d ON d.page_id = p.id AND d.revision = r.redo_to ",
            $join,
            "LEFT JOIN page_layouts l ON l.page_id = p.id AND l.revision = p.revision AND l.engine = ",
            engine!(),
            " WHERE p.team_id = $1 ",
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
pub(crate) async fn list(
    db: impl PgExecutor<'_>,
    team: Uuid,
    shelf: Shelf,
    most: i64,
    from: i64,
) -> sqlx::Result<Vec<PageRow>> {
    let sql = match shelf {
        Shelf::Making => {
            page!(
                "AND p.archived_at IS NULL AND p.finished_at IS NULL ORDER BY p.due NULLS LAST, p.changed_at DESC, p.id LIMIT $2 OFFSET $3"
            )
        }
        Shelf::Finished => page!(
            "AND p.archived_at IS NULL AND p.finished_at IS NOT NULL ORDER BY p.finished_at DESC, p.id LIMIT $2 OFFSET $3"
        ),
        Shelf::Archived => page!(
            "AND p.archived_at IS NOT NULL ORDER BY p.archived_at DESC, p.id LIMIT $2 OFFSET $3"
        ),
    };
    sqlx::query_as(sql)
        .bind(team)
        .bind(most)
        .bind(from)
        .fetch_all(db)
        .await
}

/// The pages made from a sketch of the team's, newest first.
pub(crate) async fn of_sketch(
    db: impl PgExecutor<'_>,
    team: Uuid,
    sketch: Uuid,
) -> sqlx::Result<Vec<PageRow>> {
    sqlx::query_as(page!(
        "AND p.sketch_id = $2 ORDER BY p.changed_at DESC, p.id"
    ))
    .bind(team)
    .bind(sketch)
    .fetch_all(db)
    .await
}

/// One of a team's, with the plans that undo and redo lead to.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<PageRow>> {
    let sql = page!(
        ", u.plan AS undo_plan, d.plan AS redo_plan",
        "LEFT JOIN page_revisions u ON u.page_id = p.id AND u.revision = r.undo_to ",
        "AND p.id = $2"
    );
    sqlx::query_as(sql)
        .bind(team)
        .bind(id)
        .fetch_optional(db)
        .await
}

/// What of a page is no plan.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Details<'a> {
    pub(crate) name: &'a str,
    pub(crate) due: Option<Date>,
    pub(crate) finished: bool,
    pub(crate) archived: bool,
}

/// Moves a page's details on from a revision, if that is still their newest.
pub(crate) async fn change_details(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    from: i32,
    details: Details<'_>,
    author: &str,
) -> sqlx::Result<bool> {
    let moved = sqlx::query(
        "UPDATE pages SET name = $4, due = $5, changed_at = now(), details_revision = details_revision + 1, \
         finished_at = CASE WHEN $6 THEN coalesce(finished_at, now()) END, \
         archived_at = CASE WHEN $7 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2 AND details_revision = $3",
    )
    .bind(team)
    .bind(id)
    .bind(from)
    .bind(details.name)
    .bind(details.due)
    .bind(details.finished)
    .bind(details.archived)
    .execute(&mut *db)
    .await?;
    if moved.rows_affected() == 0 {
        return Ok(false);
    }
    append_details(db, team, id, from + 1, details, author).await?;
    Ok(true)
}

async fn append_details(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    revision: i32,
    details: Details<'_>,
    author: &str,
) -> sqlx::Result<()> {
    sqlx::query(
        "INSERT INTO page_details (page_id, team_id, revision, name, due, finished, archived, author) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)",
    )
    .bind(id)
    .bind(team)
    .bind(revision)
    .bind(details.name)
    .bind(details.due)
    .bind(details.finished)
    .bind(details.archived)
    .bind(author)
    .execute(db)
    .await?;
    Ok(())
}

/// A revision of a page's details.
#[derive(Debug, sqlx::FromRow)]
pub(crate) struct DetailsRow {
    pub(crate) revision: i32,
    pub(crate) name: String,
    pub(crate) due: Option<Date>,
    pub(crate) finished: bool,
    pub(crate) archived: bool,
    pub(crate) author: String,
    pub(crate) made_at: OffsetDateTime,
}

/// What a page was called and when it was due, newest first, so many of them.
pub(crate) async fn details(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    most: i64,
) -> sqlx::Result<Vec<DetailsRow>> {
    sqlx::query_as(
        "SELECT revision, name, due, finished, archived, author, made_at FROM page_details WHERE team_id = $1 AND page_id = $2 \
         ORDER BY revision DESC LIMIT $3",
    )
    .bind(team)
    .bind(id)
    .bind(most)
    .fetch_all(db)
    .await
}

/// A page to come.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewPage<'a> {
    pub(crate) sketch: Option<Uuid>,
    pub(crate) name: &'a str,
    pub(crate) due: Option<Date>,
    pub(crate) author: &'a str,
}

/// A page with no revision of its plan yet: one must follow in the same transaction.
pub(crate) async fn insert(
    db: &mut PgConnection,
    team: Uuid,
    page: NewPage<'_>,
) -> sqlx::Result<Uuid> {
    let id = Uuid::new_v4();
    sqlx::query("INSERT INTO pages (id, team_id, sketch_id, name, due, revision, changed_at) VALUES ($1, $2, $3, $4, $5, 1, clock_timestamp())")
        .bind(id)
        .bind(team)
        .bind(page.sketch)
        .bind(page.name)
        .bind(page.due)
        .execute(&mut *db)
        .await?;
    append_details(
        db,
        team,
        id,
        1,
        Details {
            name: page.name,
            due: page.due,
            finished: false,
            archived: false,
        },
        page.author,
    )
    .await?;
    Ok(id)
}

/// Keeps what a revision of a page comes to by this engine, unless something newer is kept.
pub(crate) async fn keep_layout(
    db: impl PgExecutor<'_>,
    page: Uuid,
    revision: i32,
    layout: Option<&Value>,
    clash: Option<&str>,
) -> sqlx::Result<()> {
    sqlx::query(
        "INSERT INTO page_layouts (page_id, revision, layout, clash, engine) VALUES ($1, $2, $3, $4, $5) ON CONFLICT (page_id) DO UPDATE \
         SET revision = excluded.revision, layout = excluded.layout, clash = excluded.clash, engine = excluded.engine \
         WHERE (page_layouts.revision, page_layouts.engine) < (excluded.revision, excluded.engine)",
    )
    .bind(page)
    .bind(revision)
    .bind(layout)
    .bind(clash)
    .bind(ENGINE)
    .execute(db)
    .await?;
    Ok(())
}
