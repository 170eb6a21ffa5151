//! Calls and who takes part in them.

pub(crate) mod feeds;
pub(crate) mod hops;

use crate::features::events::store::{self as events, NewEvent};
use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::{Date, OffsetDateTime};
use uuid::Uuid;

/// A call as it is kept.
#[derive(Debug, Clone)]
pub(crate) struct CallRow {
    pub(crate) id: Uuid,
    pub(crate) document: Value,
    pub(crate) sketch_id: Option<Uuid>,
    pub(crate) revision: i32,
    pub(crate) series: Option<Uuid>,
    pub(crate) made_by: String,
    pub(crate) made_at: OffsetDateTime,
    pub(crate) archived_at: Option<OffsetDateTime>,
}

/// The query of a team's calls.
macro_rules! calls {
    ($which:literal, $($argument:expr),+) => {
        sqlx::query_as!(
            CallRow,
            "SELECT c.id, c.document, c.sketch_id, c.revision, c.series, c.made_by, c.made_at, c.archived_at FROM calls c WHERE c.team_id = $1 "
                + $which,
            $($argument),+
        )
    };
}

/// Most calls of a season.
pub(crate) const MOST_OF_SEASON: i64 = 500;

/// A team's calls since a day, by when they are due; of earlier ones those that somebody is still at. Undated ones come last.
pub(crate) async fn season(
    db: impl PgExecutor<'_>,
    team: Uuid,
    since: Date,
) -> sqlx::Result<Vec<CallRow>> {
    calls!(
        "AND c.archived_at IS NULL AND (c.due IS NULL OR c.due >= $2 OR EXISTS ( \
             SELECT FROM call_makers m LEFT JOIN pages p ON p.id = m.page_id WHERE m.call_id = c.id AND p.finished_at IS NULL)) \
         ORDER BY c.due NULLS LAST, c.made_at, c.id LIMIT $3",
        team,
        since,
        MOST_OF_SEASON
    )
    .fetch_all(db)
    .await
}

/// One of a team's.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<CallRow>> {
    calls!("AND c.id = $2", team, id).fetch_optional(db).await
}

/// The last of a series by its day.
pub(crate) async fn last_of_series(
    db: impl PgExecutor<'_>,
    team: Uuid,
    series: Uuid,
) -> sqlx::Result<Option<CallRow>> {
    calls!(
        "AND c.series = $2 ORDER BY c.due DESC NULLS LAST LIMIT 1",
        team,
        series
    )
    .fetch_optional(db)
    .await
}

/// How many calls of a series are due after a day.
pub(crate) async fn ahead(
    db: impl PgExecutor<'_>,
    team: Uuid,
    series: Uuid,
    day: Date,
) -> sqlx::Result<i64> {
    sqlx::query_scalar!(
        "SELECT count(*) AS \"count!\" FROM calls WHERE team_id = $1 AND series = $2 AND due > $3",
        team,
        series,
        day
    )
    .fetch_one(db)
    .await
}

/// The series of all teams, for keeping each a little ahead.
pub(crate) async fn all_series(db: impl PgExecutor<'_>) -> sqlx::Result<Vec<(Uuid, Uuid)>> {
    let rows = sqlx::query!(
        "SELECT DISTINCT team_id, series AS \"series!\" FROM calls WHERE series IS NOT NULL"
    )
    .fetch_all(db)
    .await?;
    Ok(rows.into_iter().map(|r| (r.team_id, r.series)).collect())
}

/// Takes away what a series made after a day and nobody has touched: it is made anew.
pub(crate) async fn drop_untouched(
    db: impl PgExecutor<'_>,
    team: Uuid,
    series: Uuid,
    after: Date,
) -> sqlx::Result<()> {
    sqlx::query!(
        "DELETE FROM calls c WHERE c.team_id = $1 AND c.series = $2 AND c.due > $3 AND c.made_for IS NOT NULL AND c.revision = 1 \
         AND c.archived_at IS NULL AND NOT EXISTS (SELECT FROM call_makers m WHERE m.call_id = c.id) \
         AND NOT EXISTS (SELECT FROM hop_links l WHERE l.call_id = c.id)",
        team,
        series,
        after
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Ends a series: those of its calls after a day that somebody has touched stay, and come again no more.
pub(crate) async fn end_series(
    db: impl PgExecutor<'_>,
    team: Uuid,
    series: Uuid,
    after: Date,
    author: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "WITH ended AS (UPDATE calls SET series = NULL, document = document - 'repeats', revision = revision + 1 \
             WHERE team_id = $1 AND series = $2 AND due > $3 RETURNING id, revision, document) \
         INSERT INTO call_revisions (call_id, team_id, revision, document, author, reason) \
         SELECT id, $1, revision, document, $4, 'comes again no more' FROM ended",
        team,
        series,
        after,
        author
    )
    .execute(db)
    .await?;
    Ok(())
}

/// A call to come, or what one becomes.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewCall<'a> {
    pub(crate) name: &'a str,
    pub(crate) document: &'a Value,
    pub(crate) due: Option<Date>,
    pub(crate) sketch: Option<Uuid>,
    pub(crate) series: Option<Uuid>,
    pub(crate) author: &'a str,
    pub(crate) reason: &'a str,
}

/// Puts a call into a team's season under an id; none where the series has one for that day already.
pub(crate) async fn insert(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    call: NewCall<'_>,
    made_for: Option<Date>,
) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "INSERT INTO calls (id, team_id, name, document, due, sketch_id, series, made_for, made_by, made_at) \
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, clock_timestamp()) ON CONFLICT (series, made_for) DO NOTHING",
        id,
        team,
        call.name,
        call.document,
        call.due,
        call.sketch,
        call.series,
        made_for,
        call.author
    )
    .execute(&mut *db)
    .await?;
    if done.rows_affected() == 0 {
        return Ok(false);
    }
    append(&mut *db, team, id, 1, call).await?;
    events::tell(db, team, NewEvent::of(events::CALL, id, 1, call.author)).await?;
    Ok(true)
}

/// Moves a call on from a revision, if that is still its newest.
pub(crate) async fn change(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    from: i32,
    call: NewCall<'_>,
    archived: bool,
) -> sqlx::Result<bool> {
    let moved = sqlx::query!(
        "UPDATE calls SET name = $4, document = $5, due = $6, sketch_id = $7, series = $8, revision = revision + 1, \
         archived_at = CASE WHEN $9 THEN coalesce(archived_at, now()) END WHERE team_id = $1 AND id = $2 AND revision = $3",
        team,
        id,
        from,
        call.name,
        call.document,
        call.due,
        call.sketch,
        call.series,
        archived
    )
    .execute(&mut *db)
    .await?;
    if moved.rows_affected() == 0 {
        return Ok(false);
    }
    append(&mut *db, team, id, from + 1, call).await?;
    events::tell(
        db,
        team,
        NewEvent::of(events::CALL, id, from + 1, call.author),
    )
    .await?;
    Ok(true)
}

async fn append(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
    revision: i32,
    call: NewCall<'_>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO call_revisions (call_id, team_id, revision, document, author, reason) VALUES ($1, $2, $3, $4, $5, $6)",
        id,
        team,
        revision,
        call.document,
        call.author,
        call.reason
    )
    .execute(db)
    .await?;
    Ok(())
}

/// A call's revision without its document.
#[derive(Debug)]
pub(crate) struct CallRevisionRow {
    pub(crate) revision: i32,
    pub(crate) author: String,
    pub(crate) reason: String,
    pub(crate) made_at: OffsetDateTime,
}

/// A call's revisions before one, newest first, so many of them.
pub(crate) async fn revisions(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    before: i32,
    most: i64,
) -> sqlx::Result<Vec<CallRevisionRow>> {
    sqlx::query_as!(
        CallRevisionRow,
        "SELECT revision, author, reason, made_at FROM call_revisions WHERE team_id = $1 AND call_id = $2 AND revision < $3 \
         ORDER BY revision DESC LIMIT $4",
        team,
        id,
        before,
        most
    )
    .fetch_all(db)
    .await
}

/// The document of a call's revision.
pub(crate) async fn document_of(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    revision: i32,
) -> sqlx::Result<Option<Value>> {
    sqlx::query_scalar!(
        "SELECT document FROM call_revisions WHERE team_id = $1 AND call_id = $2 AND revision = $3",
        team,
        id,
        revision
    )
    .fetch_optional(db)
    .await
}

/// Somebody who takes part in a call, with her page where she has begun it.
#[derive(Debug, Clone)]
pub(crate) struct TakingRow {
    pub(crate) call_id: Uuid,
    pub(crate) person_id: Uuid,
    pub(crate) maker: String,
    pub(crate) page_id: Option<Uuid>,
    pub(crate) page_name: Option<String>,
    pub(crate) finished_at: Option<OffsetDateTime>,
    /// How many stations its plan has settled, and whether the fit is one of them, where that has been noted.
    pub(crate) settled: Option<i16>,
    pub(crate) fit_settled: Option<bool>,
    pub(crate) plan: Option<Value>,
    pub(crate) clash: Option<String>,
}

/// Which plans are fetched with those who take part.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Plans {
    /// Of every page.
    All,
    /// Only those of which it has not been noted how far they are.
    Unnoted,
}

/// Who takes part in calls of a team, in the order of the taking.
pub(crate) async fn takings(
    db: impl PgExecutor<'_>,
    team: Uuid,
    calls: &[Uuid],
    plans: Plans,
) -> sqlx::Result<Vec<TakingRow>> {
    sqlx::query_as!(
        TakingRow,
        "SELECT m.call_id, m.person_id, e.name AS maker, m.page_id, p.name AS \"page_name?\", p.finished_at, \
         p.settled AS \"settled?\", p.fit_settled AS \"fit_settled?\", CASE WHEN $4 OR p.settled IS NULL THEN p.plan END AS \"plan?\", \
         l.clash AS \"clash?\" FROM call_makers m JOIN people e ON e.id = m.person_id \
         LEFT JOIN pages p ON p.id = m.page_id AND p.archived_at IS NULL \
         LEFT JOIN layouts l ON l.digest = p.fit_digest AND l.engine = $3 \
         WHERE m.team_id = $1 AND m.call_id = ANY($2) ORDER BY m.taken_at, e.name",
        team,
        calls,
        metrosk_core::plan::FIT_ENGINE,
        plans == Plans::All
    )
    .fetch_all(db)
    .await
}

/// Takes a call for somebody, if she has not got it yet; with a page of the team's that answers it, where there is one.
pub(crate) async fn take(
    db: impl PgExecutor<'_>,
    team: Uuid,
    call: Uuid,
    person: Uuid,
    page: Option<Uuid>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO call_makers (team_id, call_id, person_id, page_id, taken_at) VALUES ($1, $2, $3, $4, clock_timestamp()) \
         ON CONFLICT (call_id, person_id) DO UPDATE SET page_id = coalesce(excluded.page_id, call_makers.page_id)",
        team,
        call,
        person,
        page
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Gives a call back; whether she had it. A page that she has begun stays, and answers no call any more.
pub(crate) async fn give_back(
    db: impl PgExecutor<'_>,
    team: Uuid,
    call: Uuid,
    person: Uuid,
) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "DELETE FROM call_makers WHERE team_id = $1 AND call_id = $2 AND person_id = $3",
        team,
        call,
        person
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}
