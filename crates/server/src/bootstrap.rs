//! A server without people: its first lead comes in by a link that works once.

use crate::App;
use crate::auth::{hash, new_token};
use crate::features::people::store::links::NewLink;
use crate::features::people::store::{links, people};
use time::{Duration, OffsetDateTime};

/// How long the link works; every start of a server without people makes a new one.
const LASTS: Duration = Duration::days(2);

/// The path of a link with which a person sets a new password, for whoever keeps the server.
///
/// # Errors
/// When there is nobody of that account, or the database fails.
pub async fn password_link(app: &App, account: &str) -> anyhow::Result<String> {
    let person = people::by_account(&app.pool, &account.trim().to_lowercase()).await?;
    let person = person.ok_or_else(|| anyhow::anyhow!("nobody signs in as {account:?} here"))?;
    let (token, _) = links::for_password(&app.pool, person.id, "the server").await?;
    Ok(format!("/password/{token}"))
}

/// The path of the first lead's link, if there is nobody yet.
///
/// # Errors
/// When the database fails.
pub async fn link(app: &App) -> anyhow::Result<Option<String>> {
    if people::any(&app.pool).await? {
        return Ok(None);
    }
    let token = new_token()?;
    links::drop_first(&app.pool).await?;
    let link = NewLink {
        hash: &hash(&token),
        team: None,
        person: None,
        role: "lead",
        made_by: "the server",
        expires_at: OffsetDateTime::now_utc() + LASTS,
    };
    links::insert(&app.pool, link).await?;
    Ok(Some(format!("/join/{token}")))
}
