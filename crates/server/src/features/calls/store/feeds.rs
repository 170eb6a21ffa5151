//! The addresses at which people's own calendars fetch their dates.

use sqlx::PgExecutor;
use time::OffsetDateTime;
use uuid::Uuid;

/// Since when a person has an address in a team; none where she has none.
pub(crate) async fn made_at(
    db: impl PgExecutor<'_>,
    team: Uuid,
    person: Uuid,
) -> sqlx::Result<Option<OffsetDateTime>> {
    sqlx::query_scalar!(
        "SELECT made_at FROM feeds WHERE team_id = $1 AND person_id = $2",
        team,
        person
    )
    .fetch_optional(db)
    .await
}

/// Gives her a new address; an earlier one works no longer.
pub(crate) async fn put(
    db: impl PgExecutor<'_>,
    team: Uuid,
    person: Uuid,
    hash: &[u8],
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO feeds (team_id, person_id, token_hash) VALUES ($1, $2, $3) \
         ON CONFLICT (team_id, person_id) DO UPDATE SET token_hash = excluded.token_hash, made_at = now()",
        team,
        person,
        hash
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Takes her address back; whether she had one.
pub(crate) async fn drop(db: impl PgExecutor<'_>, team: Uuid, person: Uuid) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "DELETE FROM feeds WHERE team_id = $1 AND person_id = $2",
        team,
        person
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Whose dates an address tells.
#[derive(Debug)]
pub(crate) struct FeedRow {
    pub(crate) team_id: Uuid,
    pub(crate) team: String,
    pub(crate) person_id: Uuid,
}

/// The address of a token's hash, as long as its person is in the team.
pub(crate) async fn find(db: impl PgExecutor<'_>, hash: &[u8]) -> sqlx::Result<Option<FeedRow>> {
    sqlx::query_as!(
        FeedRow,
        "SELECT f.team_id, t.name AS team, f.person_id FROM feeds f JOIN teams t ON t.id = f.team_id \
         JOIN members m ON m.team_id = f.team_id AND m.person_id = f.person_id \
         WHERE f.token_hash = $1",
        hash
    )
    .fetch_optional(db)
    .await
}
