//! Long work, as rows: who asked, who is at it, how far it is, what came of it.

use crate::features::events::store as events;
use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use std::time::Duration;
use uuid::Uuid;

/// A server that is at a job says so more often than this; after it, another takes the job over.
pub(crate) const LEASE: Duration = Duration::from_secs(15);
/// A job that was begun so often, and never ended, is given up.
const MOST_TRIES: i32 = 3;

/// A job, as those see it who wait for it.
#[derive(Debug, Clone)]
pub(crate) struct JobRow {
    pub(crate) id: Uuid,
    pub(crate) kind: String,
    pub(crate) state: String,
    pub(crate) progress: Option<String>,
    pub(crate) outcome: Option<Value>,
    pub(crate) problem: Option<Value>,
    /// How often it has been told so far.
    pub(crate) told: i32,
}

/// A job that this server has taken.
#[derive(Debug, Clone)]
pub(crate) struct Taken {
    pub(crate) id: Uuid,
    pub(crate) team_id: Uuid,
    pub(crate) kind: String,
    pub(crate) input: Value,
    pub(crate) tries: i32,
}

/// A job to come.
#[derive(Debug, Clone)]
pub(crate) struct NewJob<'a> {
    pub(crate) kind: &'a str,
    pub(crate) key: Option<&'a str>,
    pub(crate) input: &'a Value,
    pub(crate) asked_by: &'a str,
}

/// How a job ends.
#[derive(Debug, Clone)]
pub(crate) enum End {
    /// With what came of it.
    Done(Value),
    /// With the problem that its asker is told.
    Failed(Value),
}

/// Puts a job down for whichever server takes it; its id. One of the same key that waits or runs already is that one.
pub(crate) async fn insert(
    db: &mut PgConnection,
    team: Uuid,
    job: NewJob<'_>,
) -> sqlx::Result<Uuid> {
    let made: Option<Uuid> = sqlx::query_scalar!(
        "INSERT INTO jobs (id, team_id, kind, key, input, asked_by) VALUES ($1, $2, $3, $4, $5, $6) \
         ON CONFLICT (team_id, kind, key) WHERE key IS NOT NULL AND state IN ('waiting', 'running') DO NOTHING RETURNING id",
        Uuid::new_v4(),
        team,
        job.kind,
        job.key,
        job.input,
        job.asked_by
    )
    .fetch_optional(&mut *db)
    .await?;
    let Some(id) = made else {
        let under_way: Option<Uuid> = sqlx::query_scalar!(
            "SELECT id FROM jobs WHERE team_id = $1 AND kind = $2 AND key = $3 AND state IN ('waiting', 'running')",
            team,
            job.kind,
            job.key
        )
        .fetch_optional(&mut *db)
        .await?;
        // It has ended this very moment: what it came to is there.
        return Ok(under_way.unwrap_or_default());
    };
    tell(db, id).await?;
    Ok(id)
}

/// How many of a team's jobs of a kind wait.
pub(crate) async fn waiting(db: impl PgExecutor<'_>, team: Uuid, kind: &str) -> sqlx::Result<i64> {
    sqlx::query_scalar!(
        "SELECT count(*) AS \"count!\" FROM jobs WHERE team_id = $1 AND kind = $2 AND state = 'waiting'",
        team,
        kind
    )
    .fetch_one(db)
    .await
}

/// One of a team's.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<JobRow>> {
    sqlx::query_as!(
        JobRow,
        "SELECT id, kind, state, progress, outcome, problem, told FROM jobs WHERE team_id = $1 AND id = $2",
        team,
        id
    )
    .fetch_optional(db)
    .await
}

/// Takes the job of these kinds that has waited longest, or one whose server is gone; none where there is nothing to do.
pub(crate) async fn take(
    db: &mut PgConnection,
    kinds: &[&str],
    lease: Uuid,
) -> sqlx::Result<Option<Taken>> {
    let taken: Option<Taken> = sqlx::query_as!(
        Taken,
        "UPDATE jobs SET state = 'running', lease = $2, lease_until = now() + $3, tries = tries + 1, progress = NULL WHERE id = ( \
             SELECT id FROM jobs WHERE kind = ANY($1) AND (state = 'waiting' OR state = 'running' AND lease_until < now()) \
             ORDER BY made_at LIMIT 1 FOR UPDATE SKIP LOCKED) \
         RETURNING id, team_id, kind, input, tries",
        kinds as &[&str],
        lease,
        LEASE as Duration
    )
    .fetch_optional(&mut *db)
    .await?;
    if let Some(job) = &taken {
        tell(db, job.id).await?;
    }
    Ok(taken)
}

/// Whether a job was begun too often to be begun again.
pub(crate) const fn is_hopeless(tries: i32) -> bool {
    tries > MOST_TRIES
}

/// Says that this server is still at it, and how far; whether it still is this server's to do.
pub(crate) async fn go_on(
    db: &mut PgConnection,
    id: Uuid,
    lease: Uuid,
    progress: Option<&str>,
) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "UPDATE jobs SET lease_until = now() + $3, progress = coalesce($4, progress) WHERE id = $1 AND lease = $2 AND state = 'running'",
        id,
        lease,
        LEASE as Duration,
        progress
    )
    .execute(&mut *db)
    .await?;
    let ours = done.rows_affected() == 1;
    if ours && progress.is_some() {
        tell(db, id).await?;
    }
    Ok(ours)
}

/// Ends a job of this server's; one that was cancelled meanwhile, or taken over, is left as it is.
pub(crate) async fn end(
    db: &mut PgConnection,
    id: Uuid,
    lease: Uuid,
    end: &End,
) -> sqlx::Result<()> {
    let (state, outcome, problem) = match end {
        End::Done(outcome) => ("done", Some(outcome), None),
        End::Failed(problem) => ("failed", None, Some(problem)),
    };
    let done = sqlx::query!(
        "UPDATE jobs SET state = $3, outcome = $4, problem = $5, ended_at = now(), lease = NULL, lease_until = NULL \
         WHERE id = $1 AND lease = $2 AND state = 'running'",
        id,
        lease,
        state,
        outcome,
        problem
    )
    .execute(&mut *db)
    .await?;
    if done.rows_affected() == 1 {
        tell(db, id).await?;
    }
    Ok(())
}

/// Puts a job back for whichever server takes it next: this one goes down. That it was begun here counts for nothing.
pub(crate) async fn give_back(db: &mut PgConnection, id: Uuid, lease: Uuid) -> sqlx::Result<()> {
    let done = sqlx::query!(
        "UPDATE jobs SET state = 'waiting', lease = NULL, lease_until = NULL, progress = NULL, tries = tries - 1 WHERE id = $1 AND lease = $2 AND state = 'running'",
        id,
        lease
    )
    .execute(&mut *db)
    .await?;
    if done.rows_affected() == 1 {
        tell(db, id).await?;
    }
    Ok(())
}

/// Cancels a team's job that has not ended; whether there was one.
pub(crate) async fn cancel(db: &mut PgConnection, team: Uuid, id: Uuid) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "UPDATE jobs SET state = 'cancelled', ended_at = now(), lease = NULL, lease_until = NULL \
         WHERE team_id = $1 AND id = $2 AND state IN ('waiting', 'running')",
        team,
        id
    )
    .execute(&mut *db)
    .await?;
    let was = done.rows_affected() == 1;
    if was {
        tell(db, id).await?;
    }
    Ok(was)
}

/// Tells everybody who listens how a job stands.
async fn tell(db: &mut PgConnection, id: Uuid) -> sqlx::Result<()> {
    let job = sqlx::query!(
        "UPDATE jobs SET told = told + 1 WHERE id = $1 RETURNING team_id, told, state, progress",
        id
    )
    .fetch_one(&mut *db)
    .await?;
    let event = events::NewEvent {
        what: events::JOB,
        thing: id,
        revision: job.told,
        author: "",
        state: Some(&job.state),
        progress: job.progress.as_deref(),
    };
    events::tell(db, job.team_id, event).await
}

/// Throws away jobs that ended long ago, and those that nobody will ask for.
pub(crate) async fn sweep(db: impl PgExecutor<'_>) -> sqlx::Result<u64> {
    let done = sqlx::query!("DELETE FROM jobs WHERE ended_at < now() - interval '1 day'")
        .execute(db)
        .await?;
    Ok(done.rows_affected())
}
