//! A page's history: every change is a revision, and none is ever taken away. A revision keeps what it changed as a patch, some keep the
//! whole plan too. Undo and redo are revisions like any other; each station knows which changes they lead to.

use metrosk_core::plan::{self, Change, brought_up, fit_digest};
use serde::Deserialize;
use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use std::collections::BTreeMap;
use time::OffsetDateTime;
use uuid::Uuid;

/// Every so many revisions keep the whole plan: no more patches than that are laid over each other to read one.
const WHOLE_EVERY: i32 = 25;
/// So many steps back are known to a station; what lies further back is in the history.
const MOST_STEPS: usize = 500;

/// A revision without its plan.
#[derive(Debug)]
pub(crate) struct RevisionRow {
    pub(crate) revision: i32,
    pub(crate) station: String,
    pub(crate) author: String,
    pub(crate) reason: String,
    pub(crate) made_at: OffsetDateTime,
    /// The names that it was given.
    pub(crate) names: Vec<String>,
}

/// A page's newest plan. Nobody else can change it until the transaction ends.
#[derive(Debug)]
pub(crate) struct Newest {
    pub(crate) revision: i32,
    pub(crate) plan: Value,
}

/// A station of a page, as writes left it.
#[derive(Debug, Clone, Default)]
pub(crate) struct StationRow {
    pub(crate) station: String,
    /// The revision that last changed its section.
    pub(crate) revision: i32,
    /// The last revision that was made at it.
    pub(crate) steps_revision: i32,
    /// The changes that undo takes back here, the next one last.
    pub(crate) undo: Vec<i32>,
    /// The changes that redo brings back here, the next one last.
    pub(crate) redo: Vec<i32>,
}

/// A change that undo takes back or redo brings back.
#[derive(Debug, Clone)]
pub(crate) struct StepRow {
    pub(crate) revision: i32,
    pub(crate) reason: String,
    pub(crate) patch: Value,
    pub(crate) inverse: Value,
}

/// What a station's undo and redo lead to, the next one last.
#[derive(Debug, Clone, Default)]
pub(crate) struct Trail {
    pub(crate) undo: Vec<StepRow>,
    pub(crate) redo: Vec<StepRow>,
}

/// A revision to come.
#[derive(Debug, Clone)]
pub(crate) struct NewRevision<'a> {
    /// Its number: one after the newest.
    pub(crate) revision: i32,
    /// The station at which it is made.
    pub(crate) station: &'a str,
    pub(crate) change: &'a Change,
    pub(crate) author: &'a str,
    pub(crate) reason: &'a str,
    /// What undo and redo lead to at that station afterwards.
    pub(crate) undo: Vec<i32>,
    pub(crate) redo: Vec<i32>,
}

/// A page's newest plan, locked until the transaction ends.
pub(crate) async fn lock(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
) -> sqlx::Result<Option<Newest>> {
    let row = sqlx::query!(
        "SELECT revision, plan FROM pages WHERE team_id = $1 AND id = $2 FOR UPDATE",
        team,
        page
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|row| Newest {
        revision: row.revision,
        plan: brought_up(&row.plan).into_owned(),
    }))
}

/// A page's stations, as far as anything was decided there.
pub(crate) async fn stations(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
) -> sqlx::Result<Vec<StationRow>> {
    sqlx::query_as!(
        StationRow,
        "SELECT station, revision, steps_revision, undo, redo FROM page_stations WHERE team_id = $1 AND page_id = $2",
        team,
        page
    )
    .fetch_all(db)
    .await
}

/// Appends a revision, and moves the page on to it.
pub(crate) async fn append(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    new: NewRevision<'_>,
) -> sqlx::Result<()> {
    let keeps_whole = new.revision % WHOLE_EVERY == 1;
    sqlx::query!(
        "INSERT INTO page_revisions (page_id, team_id, revision, plan, patch, inverse, station, author, reason, step, changed_from) \
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $9, nullif($3 - 1, 0))",
        page,
        team,
        new.revision,
        keeps_whole.then_some(&new.change.plan),
        &new.change.patch,
        &new.change.inverse,
        new.station,
        new.author,
        new.reason
    )
    .execute(&mut *db)
    .await?;
    let digest = fit_digest(&new.change.plan);
    let (settled, fit_settled) = settled_in(&new.change.plan);
    sqlx::query!(
        "UPDATE pages SET revision = $3, plan = $4, fit_digest = $5, settled = $6, fit_settled = $7, changed_at = clock_timestamp() WHERE team_id = $1 AND id = $2",
        team,
        page,
        new.revision,
        &new.change.plan,
        digest.bytes().as_slice(),
        settled,
        fit_settled
    )
    .execute(&mut *db)
    .await?;
    let touched: Vec<String> = new
        .change
        .touches()
        .iter()
        .map(|s| s.name().to_owned())
        .collect();
    sqlx::query!(
        "INSERT INTO page_stations (page_id, team_id, station, revision) SELECT $1, $2, s, $4 FROM unnest($3::text[]) s \
         ON CONFLICT (page_id, station) DO UPDATE SET revision = excluded.revision",
        page,
        team,
        &touched,
        new.revision
    )
    .execute(&mut *db)
    .await?;
    let undo = &new.undo[new.undo.len().saturating_sub(MOST_STEPS)..];
    sqlx::query!(
        "INSERT INTO page_stations (page_id, team_id, station, steps_revision, undo, redo) VALUES ($1, $2, $3, $4, $5, $6) \
         ON CONFLICT (page_id, station) DO UPDATE SET steps_revision = excluded.steps_revision, undo = excluded.undo, redo = excluded.redo",
        page,
        team,
        new.station,
        new.revision,
        undo,
        &new.redo
    )
    .execute(db)
    .await?;
    Ok(())
}

/// The plan of one revision: the last whole one before it, and the patches since.
pub(crate) async fn plan_at(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    revision: i32,
) -> sqlx::Result<Option<Value>> {
    let rows = sqlx::query!(
        "SELECT revision, plan, patch FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision <= $3 AND revision >= \
         (SELECT max(revision) FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision <= $3 AND plan IS NOT NULL) \
         ORDER BY revision",
        team,
        page,
        revision
    )
    .fetch_all(db)
    .await?;
    if rows.last().map(|r| r.revision) != Some(revision) {
        return Ok(None);
    }
    let mut rows = rows.into_iter();
    let whole = rows.next().and_then(|r| r.plan).unwrap_or_default();
    let first = brought_up(&whole).into_owned();
    Ok(Some(rows.fold(first, |plan, row| {
        row.patch
            .map_or(plan.clone(), |patch| plan::patched(&plan, &patch))
    })))
}

/// One revision's reason.
pub(crate) async fn reason(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    revision: i32,
) -> sqlx::Result<Option<String>> {
    sqlx::query_scalar!(
        "SELECT reason FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision = $3",
        team,
        page,
        revision
    )
    .fetch_optional(db)
    .await
}

/// What a revision's change was, and what takes it back.
pub(crate) async fn step(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    revision: i32,
) -> sqlx::Result<Option<StepRow>> {
    let row = sqlx::query!(
        "SELECT step, changed_from, patch, inverse FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision = $3",
        team,
        page,
        revision
    )
    .fetch_optional(&mut *db)
    .await?;
    let Some(row) = row else {
        return Ok(None);
    };
    let reason = row.step;
    if let Some((patch, inverse)) = row.patch.zip(row.inverse) {
        return Ok(Some(StepRow {
            revision,
            reason,
            patch,
            inverse,
        }));
    }
    // Earlier revisions have whole plans only.
    let Some(before) = row.changed_from else {
        return Ok(None);
    };
    let before = plan_at(&mut *db, team, page, before).await?;
    let after = plan_at(db, team, page, revision).await?;
    Ok(before.zip(after).map(|(before, after)| {
        let change = Change::between(&before, after);
        StepRow {
            revision,
            reason,
            patch: change.patch,
            inverse: change.inverse,
        }
    }))
}

/// A step of a station's trail, as the query of a page tells it.
#[derive(Debug, Clone, Deserialize)]
pub(crate) struct TrailRow {
    station: String,
    is_undo: bool,
    revision: i32,
    step: String,
    patch: Option<Value>,
    inverse: Option<Value>,
}

/// What undo and redo lead to at each station of a page, as far as is told.
pub(crate) async fn trails(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    rows: Vec<TrailRow>,
) -> sqlx::Result<BTreeMap<String, Trail>> {
    let mut found: BTreeMap<String, Trail> = BTreeMap::new();
    for row in rows {
        let known = row.patch.zip(row.inverse).map(|(patch, inverse)| StepRow {
            revision: row.revision,
            reason: row.step,
            patch,
            inverse,
        });
        let told = match known {
            Some(known) => Some(known),
            // Earlier revisions have whole plans only.
            None => step(&mut *db, team, page, row.revision).await?,
        };
        let trail = found.entry(row.station).or_default();
        if row.is_undo {
            trail.undo.extend(told);
        } else {
            trail.redo.extend(told);
        }
    }
    Ok(found)
}

/// A page's history, newest first, before a revision.
pub(crate) async fn list(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    before: i32,
    most: i64,
) -> sqlx::Result<Vec<RevisionRow>> {
    sqlx::query_as!(
        RevisionRow,
        "SELECT r.revision, r.station, r.author, r.reason, r.made_at, \
         coalesce((SELECT array_agg(v.name ORDER BY v.made_at) FROM page_versions v WHERE v.page_id = r.page_id AND v.revision = r.revision), '{}') AS \"names!\" \
         FROM page_revisions r WHERE r.team_id = $1 AND r.page_id = $2 AND r.revision < $3 ORDER BY r.revision DESC LIMIT $4",
        team,
        page,
        before,
        most
    )
    .fetch_all(db)
    .await
}

/// A named version of a page.
#[derive(Debug)]
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
    sqlx::query_as!(
        VersionRow,
        "SELECT name, revision, made_by, made_at FROM page_versions WHERE team_id = $1 AND page_id = $2 ORDER BY made_at DESC, name",
        team,
        page
    )
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
    sqlx::query_scalar!(
        "SELECT revision FROM page_versions WHERE team_id = $1 AND page_id = $2 AND name = $3",
        team,
        page,
        name
    )
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
    let done = sqlx::query!(
        "INSERT INTO page_versions (page_id, team_id, name, revision, made_by) \
         SELECT page_id, team_id, $4, revision, $5 FROM page_revisions WHERE team_id = $1 AND page_id = $2 AND revision = $3 \
         ON CONFLICT (page_id, name) DO NOTHING",
        team,
        page,
        revision,
        name,
        by
    )
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
    let done = sqlx::query!(
        "DELETE FROM page_versions WHERE team_id = $1 AND page_id = $2 AND name = $3",
        team,
        page,
        name
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// How many stations a plan has settled, and whether the fit is one of them; pins that clash are not looked at here.
pub(crate) fn settled_in(plan: &Value) -> (i16, bool) {
    let progress = plan::progress(&brought_up(plan), None);
    let mut settled = progress
        .stations
        .iter()
        .filter(|s| s.state == plan::State::Settled);
    let fit = settled.clone().any(|s| s.station == plan::Station::Fit);
    let count = settled.by_ref().count();
    (i16::try_from(count).unwrap_or_default(), fit)
}
