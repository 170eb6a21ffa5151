//! Writes done under a key of the sender's.

use serde_json::Value;
use sqlx::PgConnection;
use uuid::Uuid;

/// What is known of a key.
#[derive(Debug)]
pub(crate) enum Known {
    /// It is new, and is this writer's until the transaction ends.
    New,
    /// The write was done before: what it was, and its answer.
    Done {
        what: String,
        body_hash: Option<Vec<u8>>,
        status: i16,
        answer: Value,
    },
}

/// Claims a key. A second writer with the same key waits here until the first has ended.
pub(crate) async fn claim(
    db: &mut PgConnection,
    person: Uuid,
    key: &str,
    what: &str,
    body_hash: &[u8],
) -> sqlx::Result<Known> {
    let claimed = sqlx::query!(
        "INSERT INTO done_writes (person_id, key, what, body_hash) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING",
        person,
        key,
        what,
        body_hash
    )
    .execute(&mut *db)
    .await?;
    if claimed.rows_affected() == 1 {
        return Ok(Known::New);
    }
    let row = sqlx::query!(
        "SELECT what, body_hash, status, answer FROM done_writes WHERE person_id = $1 AND key = $2",
        person,
        key
    )
    .fetch_one(db)
    .await?;
    Ok(Known::Done {
        what: row.what,
        body_hash: row.body_hash,
        status: row.status.unwrap_or(500),
        answer: row.answer.unwrap_or_default(),
    })
}

/// Keeps the answer of a claimed key.
pub(crate) async fn keep(
    db: &mut PgConnection,
    person: Uuid,
    key: &str,
    status: i16,
    answer: &Value,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE done_writes SET status = $3, answer = $4 WHERE person_id = $1 AND key = $2",
        person,
        key,
        status,
        answer
    )
    .execute(db)
    .await?;
    Ok(())
}
