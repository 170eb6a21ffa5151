//! Entries, the simulated gallery's mood, and what hangs on its wall.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::OffsetDateTime;
use uuid::Uuid;

/// A page that was entered.
#[derive(Debug, Clone)]
pub(crate) struct EntryRow {
    pub(crate) id: Uuid,
    pub(crate) page_id: Uuid,
    pub(crate) challenge: Option<Uuid>,
    pub(crate) replaces: Option<Uuid>,
    pub(crate) entry: Value,
    pub(crate) state: String,
    pub(crate) address: Option<String>,
    pub(crate) why: Option<String>,
    pub(crate) job_id: Uuid,
    pub(crate) asked_by: String,
    pub(crate) made_at: OffsetDateTime,
    /// Of its job.
    pub(crate) job_state: Option<String>,
    pub(crate) progress: Option<String>,
}

/// An entry to come.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewEntry<'a> {
    pub(crate) id: Uuid,
    pub(crate) page: Uuid,
    pub(crate) challenge: Option<Uuid>,
    pub(crate) replaces: Option<Uuid>,
    pub(crate) entry: &'a Value,
    pub(crate) job: Uuid,
    pub(crate) asked_by: &'a str,
}

/// Writes an entry down.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    team: Uuid,
    new: NewEntry<'_>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO gallery_entries (id, team_id, page_id, challenge, replaces, entry, job_id, asked_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)",
        new.id,
        team,
        new.page,
        new.challenge,
        new.replaces,
        new.entry,
        new.job,
        new.asked_by
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// A team's entries, the newest first: of a page, or the one of that id.
pub(crate) async fn entries(
    db: impl PgExecutor<'_>,
    team: Uuid,
    (page, id): (Option<Uuid>, Option<Uuid>),
    most: i64,
) -> sqlx::Result<Vec<EntryRow>> {
    sqlx::query_as!(
        EntryRow,
        "SELECT e.id, e.page_id, e.challenge, e.replaces, e.entry, e.state, e.address, e.why, e.job_id, e.asked_by, e.made_at, \
             j.state AS \"job_state?\", j.progress AS \"progress?\" FROM gallery_entries e LEFT JOIN jobs j ON j.id = e.job_id \
         WHERE e.team_id = $1 AND ($2::uuid IS NULL OR e.page_id = $2) AND ($3::uuid IS NULL OR e.id = $3) ORDER BY e.made_at DESC LIMIT $4",
        team,
        page,
        id,
        most
    )
    .fetch_all(db)
    .await
}

/// Another job goes on with an entry, which now stands so.
pub(crate) async fn go_on_with(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    (job, state): (Uuid, &str),
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE gallery_entries SET job_id = $3, state = $4, why = NULL WHERE team_id = $1 AND id = $2",
        team,
        id,
        job,
        state
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// How an entry stands now, and why.
pub(crate) async fn set_state(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    (state, address, why): (&str, Option<&str>, Option<&str>),
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE gallery_entries SET state = $3, address = coalesce($4, address), why = $5 WHERE team_id = $1 AND id = $2",
        team,
        id,
        state,
        address,
        why
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// How a team's gallery is today.
pub(crate) async fn mood(db: &mut PgConnection, team: Uuid) -> sqlx::Result<String> {
    sqlx::query!(
        "INSERT INTO galleries (team_id) VALUES ($1) ON CONFLICT DO NOTHING",
        team
    )
    .execute(&mut *db)
    .await?;
    sqlx::query_scalar!("SELECT mood FROM galleries WHERE team_id = $1", team)
        .fetch_one(db)
        .await
}

/// Sets how it is.
pub(crate) async fn set_mood(db: impl PgExecutor<'_>, team: Uuid, mood: &str) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO galleries (team_id, mood) VALUES ($1, $2) ON CONFLICT (team_id) DO UPDATE SET mood = $2",
        team,
        mood
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Until the transaction ends nobody else hangs anything on a team's wall.
pub(crate) async fn hold_wall(db: &mut PgConnection, team: Uuid) -> sqlx::Result<()> {
    sqlx::query_scalar!(
        "SELECT team_id FROM galleries WHERE team_id = $1 FOR UPDATE",
        team
    )
    .fetch_optional(db)
    .await
    .map(|_| ())
}

/// The number under which an entry hangs.
pub(crate) async fn hangs(
    db: &mut PgConnection,
    team: Uuid,
    entry: Uuid,
) -> sqlx::Result<Option<i32>> {
    sqlx::query_scalar!(
        "SELECT number FROM gallery_wall WHERE team_id = $1 AND entry_id = $2 AND down_at IS NULL",
        team,
        entry
    )
    .fetch_optional(db)
    .await
}

/// The number of a maker's entry for a challenge.
pub(crate) async fn of_maker(
    db: &mut PgConnection,
    team: Uuid,
    (challenge, maker): (&str, &str),
) -> sqlx::Result<Option<i32>> {
    sqlx::query_scalar!(
        "SELECT number FROM gallery_wall WHERE team_id = $1 AND challenge = $2 AND maker = $3 AND down_at IS NULL",
        team,
        challenge,
        maker
    )
    .fetch_optional(db)
    .await
}

/// What is hung up.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Hung<'a> {
    pub(crate) entry: Uuid,
    pub(crate) challenge: Option<&'a str>,
    pub(crate) maker: &'a str,
    pub(crate) title: &'a str,
    pub(crate) credits: &'a [String],
    pub(crate) told: &'a str,
    pub(crate) pictures: i32,
}

/// Hangs an entry up; its number.
pub(crate) async fn hang(db: &mut PgConnection, team: Uuid, hung: Hung<'_>) -> sqlx::Result<i32> {
    sqlx::query_scalar!(
        "INSERT INTO gallery_wall (entry_id, team_id, number, challenge, maker, title, credits, told, pictures) \
         SELECT $1, $2, coalesce(max(number), 0) + 1, $3, $4, $5, $6, $7, $8 FROM gallery_wall WHERE team_id = $2 RETURNING number",
        hung.entry,
        team,
        hung.challenge,
        hung.maker,
        hung.title,
        hung.credits,
        hung.told,
        hung.pictures
    )
    .fetch_one(db)
    .await
}

/// Takes an entry down.
pub(crate) async fn take_down(db: &mut PgConnection, team: Uuid, entry: Uuid) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE gallery_wall SET down_at = now() WHERE team_id = $1 AND entry_id = $2 AND down_at IS NULL",
        team,
        entry
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// What hangs on the wall.
#[derive(Debug, Clone)]
pub(crate) struct WallRow {
    pub(crate) entry_id: Uuid,
    pub(crate) number: i32,
    pub(crate) title: String,
    pub(crate) maker: String,
    pub(crate) taken_at: OffsetDateTime,
}

/// All that hangs on a team's wall, the newest first.
pub(crate) async fn wall(
    db: impl PgExecutor<'_>,
    team: Uuid,
    most: i64,
) -> sqlx::Result<Vec<WallRow>> {
    sqlx::query_as!(
        WallRow,
        "SELECT entry_id, number, title, maker, taken_at FROM gallery_wall WHERE team_id = $1 AND down_at IS NULL ORDER BY number DESC LIMIT $2",
        team,
        most
    )
    .fetch_all(db)
    .await
}
