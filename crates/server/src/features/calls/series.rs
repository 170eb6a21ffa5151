//! Calls that come again: each time is a call of its own, and some are always made ahead.

use super::days;
use super::store::{self, CallRow, NewCall};
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::calls::{Call, again};
use serde_json::Value;
use sqlx::PgConnection;
use uuid::Uuid;

/// So many calls of a series are kept ahead of today.
const AHEAD: i64 = 2;
/// However long a server was away, no more than this are made at once.
const MOST_AT_ONCE: usize = 12;

/// Makes the next calls of a series, until enough are ahead or it has ended.
pub(crate) async fn go_on(db: &mut PgConnection, team: Uuid, series: Uuid) -> Result<(), Failure> {
    let today = days::earliest_today();
    let Some(stored_today) = days::stored(today) else {
        return Ok(());
    };
    for _ in 0..MOST_AT_ONCE {
        if store::ahead(&mut *db, team, series, stored_today).await? >= AHEAD {
            break;
        }
        let Some(last) = store::last_of_series(&mut *db, team, series).await? else {
            break;
        };
        let Some((document, due)) = next_of(&last, today) else {
            break;
        };
        let name = document["name"].as_str().unwrap_or_default();
        let call = NewCall {
            name,
            document: &document,
            due: days::stored(due),
            sketch: last.sketch_id,
            series: Some(series),
            author: &last.made_by,
            reason: "comes again",
        };
        let id = Uuid::new_v4();
        if !store::insert(&mut *db, team, id, call, days::stored(due)).await? {
            break;
        }
    }
    Ok(())
}

/// The call after one of its series, from today on; none where it comes again no more.
fn next_of(last: &CallRow, today: chrono::NaiveDate) -> Option<(Value, chrono::NaiveDate)> {
    let call = Call::from_json(&last.document).ok()?;
    let (due, repeats) = (call.due?, call.repeats?);
    let next = repeats.after(due)?;
    // What was missed while nobody looked is not made up for.
    let next = repeats.from(next, today);
    (next > due).then(|| (again(&last.document, due, next), next))
}

/// Keeps every series of every team ahead.
///
/// # Errors
/// When the database fails.
pub async fn keep_ahead(app: &App) -> anyhow::Result<()> {
    for (team, series) in store::all_series(&app.pool).await? {
        let mut tx = app.pool.begin().await?;
        go_on(&mut tx, team, series).await?;
        tx.commit().await?;
    }
    Ok(())
}
