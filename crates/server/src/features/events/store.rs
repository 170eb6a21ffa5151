//! Notices of what happened to a team's things.

use serde::{Deserialize, Serialize};
use sqlx::PgExecutor;
use uuid::Uuid;

/// Where all servers of a database listen.
pub(crate) const CHANNEL: &str = "metrosk_events";
/// A page has another plan.
pub(crate) const PAGE: &str = "page";
/// A page has another name, date or place.
pub(crate) const DETAILS: &str = "details";
/// A page's layout is known.
pub(crate) const LAYOUT: &str = "layout";
/// A sketch is another.
pub(crate) const SKETCH: &str = "sketch";
/// A call is another, or who takes part in it.
pub(crate) const CALL: &str = "call";
/// Something in the stash is another, or held otherwise.
pub(crate) const STASH: &str = "stash";
/// A job has come further.
pub(crate) const JOB: &str = "job";

/// A notice.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub(crate) struct EventRow {
    pub(crate) id: i64,
    pub(crate) team_id: Uuid,
    /// What of the thing is another now.
    pub(crate) what: String,
    pub(crate) thing: Uuid,
    pub(crate) revision: i32,
    pub(crate) author: String,
    pub(crate) state: Option<String>,
    pub(crate) progress: Option<String>,
}

/// A notice to come.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewEvent<'a> {
    pub(crate) what: &'a str,
    pub(crate) thing: Uuid,
    pub(crate) revision: i32,
    pub(crate) author: &'a str,
    /// Of a job.
    pub(crate) state: Option<&'a str>,
    pub(crate) progress: Option<&'a str>,
}

impl<'a> NewEvent<'a> {
    /// That somebody changed a thing.
    pub(crate) const fn of(what: &'a str, thing: Uuid, revision: i32, author: &'a str) -> Self {
        NewEvent {
            what,
            thing,
            revision,
            author,
            state: None,
            progress: None,
        }
    }
}

/// Tells everybody who listens, once the transaction is committed.
pub(crate) async fn tell(
    db: impl PgExecutor<'_>,
    team: Uuid,
    event: NewEvent<'_>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "WITH e AS (INSERT INTO events (team_id, what, thing, revision, author, state, progress) VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING *) \
         SELECT pg_notify($8, row_to_json(e)::text) FROM e",
        team,
        event.what,
        event.thing,
        event.revision,
        event.author,
        event.state,
        event.progress,
        CHANNEL
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Numbers are given out before a transaction ends, so that one may be seen after a later one: so many are told once more.
const SLACK: i64 = 64;
/// Who has been away for longer than so many notices looks at everything again.
pub(crate) const MOST: i64 = 500;

/// A team's notices since one, oldest first; some that were told already come once more.
pub(crate) async fn since(
    db: impl PgExecutor<'_>,
    team: Uuid,
    last: i64,
) -> sqlx::Result<Vec<EventRow>> {
    sqlx::query_as!(
        EventRow,
        "SELECT id, team_id, what, thing, revision, author, state, progress FROM events WHERE team_id = $1 AND id > $2 ORDER BY id LIMIT $3",
        team,
        last.saturating_sub(SLACK),
        MOST
    )
    .fetch_all(db)
    .await
}
