//! Pages in the making.

use crate::features::history::store::{self as revisions, NewRevision, TrailRow};
use metrosk_core::plan::{Change, Digest, FIT_ENGINE, Station};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use sqlx::types::Json;
use sqlx::{PgConnection, PgExecutor};
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

/// A page with its newest plan, and what that comes to where it is known.
#[derive(Debug, Clone)]
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
    /// Whether the newest plan's layout, or why there is none, is known.
    pub(crate) known: bool,
    pub(crate) layout: Option<Value>,
    pub(crate) clash: Option<String>,
    /// The call that it answers.
    pub(crate) call: Option<Json<CallOfPage>>,
    /// What undo and redo lead to at its stations, where that was asked for.
    pub(crate) trails: Option<Json<Vec<TrailRow>>>,
}

/// The call that a page answers.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CallOfPage {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
}

/// The query of a team's pages: `$layout` and `$trails` are what is told of each, `$which` says which.
macro_rules! pages {
    ($layout:literal, $trails:literal, $which:literal, $($argument:expr),+) => {
        sqlx::query_as!(
            PageRow,
            "SELECT p.id, p.sketch_id, p.name, p.due, p.finished_at, p.archived_at, p.changed_at, p.details_revision, p.revision, p.plan, "
                + "r.author, r.reason, l.digest IS NOT NULL AS \"known!\", l.clash AS \"clash?\", "
                + "(SELECT jsonb_build_object('id', c.id, 'name', c.name) FROM call_makers m JOIN calls c ON c.id = m.call_id \
                    WHERE m.page_id = p.id) AS \"call: Json<CallOfPage>\", "
                + $layout
                + " AS \"layout?\", "
                + $trails
                + " AS \"trails?: Json<Vec<TrailRow>>\" FROM pages p JOIN page_revisions r ON r.page_id = p.id AND r.revision = p.revision "
                + "LEFT JOIN layouts l ON l.digest = p.fit_digest AND l.engine = $2 WHERE p.team_id = $1 "
                + $which,
            $($argument),+
        )
    };
    ($which:literal, $($argument:expr),+) => {
        pages!("l.layout", "NULL::jsonb", $which, $($argument),+)
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
    match shelf {
        Shelf::Making => pages!(
            "AND p.archived_at IS NULL AND p.finished_at IS NULL ORDER BY p.due NULLS LAST, p.changed_at DESC, p.id LIMIT $3 OFFSET $4",
            team,
            FIT_ENGINE,
            most,
            from
        ).fetch_all(db).await,
        Shelf::Finished => pages!(
            "AND p.archived_at IS NULL AND p.finished_at IS NOT NULL ORDER BY p.finished_at DESC, p.id LIMIT $3 OFFSET $4",
            team,
            FIT_ENGINE,
            most,
            from
        ).fetch_all(db).await,
        Shelf::Archived => pages!(
            "AND p.archived_at IS NOT NULL ORDER BY p.archived_at DESC, p.id LIMIT $3 OFFSET $4",
            team,
            FIT_ENGINE,
            most,
            from
        ).fetch_all(db).await,
    }
}

/// The pages made from a sketch of the team's, newest first.
pub(crate) async fn of_sketch(
    db: impl PgExecutor<'_>,
    team: Uuid,
    sketch: Uuid,
) -> sqlx::Result<Vec<PageRow>> {
    pages!(
        "AND p.sketch_id = $3 ORDER BY p.changed_at DESC, p.id",
        team,
        FIT_ENGINE,
        sketch
    )
    .fetch_all(db)
    .await
}

/// One of a team's, without its layout.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<PageRow>> {
    pages!(
        "NULL::jsonb",
        "NULL::jsonb",
        "AND p.id = $3",
        team,
        FIT_ENGINE,
        id
    )
    .fetch_optional(db)
    .await
}

/// One of a team's, without its layout, with the last eight steps each way that lead from it at each station.
pub(crate) async fn find_with_trails(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<PageRow>> {
    pages!(
        "NULL::jsonb",
        "(SELECT coalesce(jsonb_agg(to_jsonb(steps) ORDER BY steps.place), '[]') FROM ( \
             SELECT s.station, t.is_undo, t.place, tr.revision, tr.step, tr.patch, tr.inverse FROM page_stations s CROSS JOIN LATERAL ( \
                 SELECT true AS is_undo, id, place FROM unnest(s.undo[cardinality(s.undo) - 7 :]) WITH ORDINALITY AS u (id, place) \
                 UNION ALL \
                 SELECT false, id, place FROM unnest(s.redo[cardinality(s.redo) - 7 :]) WITH ORDINALITY AS u (id, place)) t \
             JOIN page_revisions tr ON tr.page_id = s.page_id AND tr.revision = t.id \
             WHERE s.team_id = p.team_id AND s.page_id = p.id) steps)",
        "AND p.id = $3",
        team,
        FIT_ENGINE,
        id
    )
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
    let moved = sqlx::query!(
        "UPDATE pages SET name = $4, due = $5, changed_at = now(), details_revision = details_revision + 1, \
         finished_at = CASE WHEN $6 THEN coalesce(finished_at, now()) END, \
         archived_at = CASE WHEN $7 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2 AND details_revision = $3",
        team,
        id,
        from,
        details.name,
        details.due,
        details.finished,
        details.archived
    )
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
    sqlx::query!(
        "INSERT INTO page_details (page_id, team_id, revision, name, due, finished, archived, author) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)",
        id,
        team,
        revision,
        details.name,
        details.due,
        details.finished,
        details.archived,
        author
    )
    .execute(db)
    .await?;
    Ok(())
}

/// A revision of a page's details.
#[derive(Debug)]
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
    sqlx::query_as!(
        DetailsRow,
        "SELECT revision, name, due, finished, archived, author, made_at FROM page_details WHERE team_id = $1 AND page_id = $2 \
         ORDER BY revision DESC LIMIT $3",
        team,
        id,
        most
    )
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
    /// Its first plan, and where that comes from.
    pub(crate) plan: &'a Value,
    pub(crate) reason: &'a str,
}

/// A page with the first revision of its plan.
pub(crate) async fn insert(
    db: &mut PgConnection,
    team: Uuid,
    page: NewPage<'_>,
) -> sqlx::Result<Uuid> {
    let id = Uuid::new_v4();
    sqlx::query!(
        "INSERT INTO pages (id, team_id, sketch_id, name, due, revision, plan, changed_at) VALUES ($1, $2, $3, $4, $5, 1, $6, clock_timestamp())",
        id,
        team,
        page.sketch,
        page.name,
        page.due,
        page.plan
    )
    .execute(&mut *db)
    .await?;
    let change = Change {
        plan: page.plan.clone(),
        patch: json!({}),
        inverse: json!({}),
    };
    let first = NewRevision {
        revision: 1,
        station: Station::Sketch.name(),
        change: &change,
        author: page.author,
        reason: page.reason,
        undo: Vec::new(),
        redo: Vec::new(),
    };
    revisions::append(&mut *db, team, id, first).await?;
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

/// Keeps what the plans of a digest come to: a layout, or why there is none.
pub(crate) async fn keep_layout(
    db: impl PgExecutor<'_>,
    digest: &Digest,
    layout: Option<&Value>,
    clash: Option<&str>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO layouts (digest, engine, layout, clash) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING",
        digest.bytes().as_slice(),
        FIT_ENGINE,
        layout,
        clash
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Notes a page's digest where it was not known yet: pages of an earlier version have none.
pub(crate) async fn note_digest(
    db: impl PgExecutor<'_>,
    page: Uuid,
    revision: i32,
    digest: &Digest,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE pages SET fit_digest = $3 WHERE id = $1 AND revision = $2 AND fit_digest IS DISTINCT FROM $3",
        page,
        revision,
        digest.bytes().as_slice()
    )
    .execute(db)
    .await?;
    Ok(())
}

/// The layout of a digest, where it is known and there is one.
pub(crate) async fn layout_of(
    db: impl PgExecutor<'_>,
    digest: &Digest,
) -> sqlx::Result<Option<Value>> {
    sqlx::query_scalar!(
        "SELECT layout FROM layouts WHERE digest = $1 AND engine = $2",
        digest.bytes().as_slice(),
        FIT_ENGINE
    )
    .fetch_optional(db)
    .await
    .map(Option::flatten)
}

/// Whether the layout of a digest is known.
pub(crate) async fn is_known(db: impl PgExecutor<'_>, digest: &Digest) -> sqlx::Result<bool> {
    sqlx::query_scalar!(
        "SELECT EXISTS (SELECT FROM layouts WHERE digest = $1 AND engine = $2) AS \"known!\"",
        digest.bytes().as_slice(),
        FIT_ENGINE
    )
    .fetch_one(db)
    .await
}

/// Takes away layouts that no page comes to any more.
pub(crate) async fn sweep_layouts(db: impl PgExecutor<'_>) -> sqlx::Result<u64> {
    let done = sqlx::query!(
        "DELETE FROM layouts l WHERE engine < $1 OR made_at < now() - interval '1 day' AND NOT EXISTS (SELECT FROM pages p WHERE p.fit_digest = l.digest)",
        FIT_ENGINE
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected())
}
