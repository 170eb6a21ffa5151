//! Who is signed in, and sign-ins that failed.

use serde_json::Value;
use sqlx::PgExecutor;
use time::OffsetDateTime;

/// A session's data, while it lasts.
pub(crate) async fn load(
    db: impl PgExecutor<'_>,
    key: &[u8],
) -> sqlx::Result<Option<(Value, OffsetDateTime)>> {
    let row = sqlx::query!(
        "SELECT data, expires_at FROM sessions WHERE key = $1 AND expires_at > now()",
        key
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|row| (row.data, row.expires_at)))
}

/// Makes a session; false when the key is taken.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    key: &[u8],
    data: &Value,
    expires_at: OffsetDateTime,
) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "INSERT INTO sessions (key, data, expires_at) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING",
        key,
        data,
        expires_at
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Keeps a session's new data. A session that has been ended meanwhile stays ended.
pub(crate) async fn save(
    db: impl PgExecutor<'_>,
    key: &[u8],
    data: &Value,
    expires_at: OffsetDateTime,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE sessions SET data = $2, expires_at = $3 WHERE key = $1",
        key,
        data,
        expires_at
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Ends a session.
pub(crate) async fn delete(db: impl PgExecutor<'_>, key: &[u8]) -> sqlx::Result<()> {
    sqlx::query!("DELETE FROM sessions WHERE key = $1", key)
        .execute(db)
        .await?;
    Ok(())
}

/// How many sign-ins of each failed within the last so many seconds.
pub(crate) async fn failures(
    db: impl PgExecutor<'_>,
    who: &[u8],
    seconds: f64,
) -> sqlx::Result<i64> {
    sqlx::query_scalar!(
        "SELECT count(*) AS \"count!\" FROM failed_sign_ins WHERE who = $1 AND at > now() - make_interval(secs => $2)",
        who,
        seconds
    )
    .fetch_one(db)
    .await
}

/// Lets only one transaction at a time look at the failures of these and add to them.
pub(crate) async fn lock_tries(db: &mut sqlx::PgConnection, who: &[&[u8]]) -> sqlx::Result<()> {
    // In one order, so that two never wait for each other.
    let mut keys: Vec<i64> = who
        .iter()
        .filter_map(|w| Some(i64::from_be_bytes(w.get(..8)?.try_into().ok()?)))
        .collect();
    keys.sort_unstable();
    for key in keys {
        sqlx::query!("SELECT pg_advisory_xact_lock($1)", key)
            .execute(&mut *db)
            .await?;
    }
    Ok(())
}

/// Notes a sign-in that failed.
pub(crate) async fn note_failure(db: impl PgExecutor<'_>, who: &[&[u8]]) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO failed_sign_ins (who) SELECT unnest($1::bytea[])",
        who as &[&[u8]]
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Forgets the failures of one who has signed in.
pub(crate) async fn forget_failures(db: impl PgExecutor<'_>, who: &[u8]) -> sqlx::Result<()> {
    sqlx::query!("DELETE FROM failed_sign_ins WHERE who = $1", who)
        .execute(db)
        .await?;
    Ok(())
}

/// Takes one failure back.
pub(crate) async fn forget_newest_failure(db: impl PgExecutor<'_>, who: &[u8]) -> sqlx::Result<()> {
    sqlx::query!(
        "DELETE FROM failed_sign_ins WHERE ctid = (SELECT ctid FROM failed_sign_ins WHERE who = $1 ORDER BY at DESC LIMIT 1)",
        who
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Throws away what nobody needs any more: sessions and links that ended, old failures, keys of writes long done.
pub(crate) async fn sweep(pool: &sqlx::PgPool) -> sqlx::Result<()> {
    sqlx::query!("DELETE FROM sessions WHERE expires_at < now()")
        .execute(pool)
        .await?;
    sqlx::query!("DELETE FROM failed_sign_ins WHERE at < now() - interval '1 day'")
        .execute(pool)
        .await?;
    sqlx::query!("DELETE FROM done_writes WHERE at < now() - interval '2 days'")
        .execute(pool)
        .await?;
    sqlx::query!("DELETE FROM links WHERE expires_at < now() - interval '30 days'")
        .execute(pool)
        .await?;
    sqlx::query!("DELETE FROM events WHERE at < now() - interval '1 day'")
        .execute(pool)
        .await?;
    Ok(())
}
