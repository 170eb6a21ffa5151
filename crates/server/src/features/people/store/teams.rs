//! Teams.

use sqlx::PgExecutor;
use uuid::Uuid;

/// A new team. Its time is the clock's and not the transaction's: two teams made together have an order.
pub(crate) async fn insert(db: impl PgExecutor<'_>, name: &str) -> sqlx::Result<Uuid> {
    sqlx::query_scalar!(
        "INSERT INTO teams (id, name, made_at) VALUES ($1, $2, clock_timestamp()) RETURNING id",
        Uuid::new_v4(),
        name
    )
    .fetch_one(db)
    .await
}

/// Gives a team another name.
pub(crate) async fn rename(db: impl PgExecutor<'_>, team: Uuid, name: &str) -> sqlx::Result<()> {
    sqlx::query!("UPDATE teams SET name = $2 WHERE id = $1", team, name)
        .execute(db)
        .await?;
    Ok(())
}

/// A team that nobody is in, the oldest: one from before there were people.
pub(crate) async fn without_people(db: impl PgExecutor<'_>) -> sqlx::Result<Option<Uuid>> {
    sqlx::query_scalar!(
        "SELECT t.id FROM teams t WHERE NOT EXISTS (SELECT 1 FROM members m WHERE m.team_id = t.id) ORDER BY t.made_at, t.id LIMIT 1"
    )
    .fetch_optional(db)
    .await
}
