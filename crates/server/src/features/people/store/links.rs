//! Links that work once: to the first lead, and invitations.

use crate::auth::{hash, new_token};
use crate::http::error::Failure;
use sqlx::{PgExecutor, PgPool};
use time::OffsetDateTime;
use uuid::Uuid;

/// A link that still works.
#[derive(Debug)]
pub(crate) struct LinkRow {
    pub(crate) id: Uuid,
    /// None for the first lead, who names her team.
    pub(crate) team_id: Option<Uuid>,
    pub(crate) team_name: Option<String>,
    pub(crate) role: String,
    pub(crate) made_by: String,
    pub(crate) expires_at: OffsetDateTime,
}

/// The open link of a token's hash.
pub(crate) async fn find(db: impl PgExecutor<'_>, hash: &[u8]) -> sqlx::Result<Option<LinkRow>> {
    sqlx::query_as!(
        LinkRow,
        "SELECT l.id, l.team_id, t.name AS \"team_name?\", l.role, l.made_by, l.expires_at FROM links l LEFT JOIN teams t ON t.id = l.team_id \
     WHERE l.used_at IS NULL AND l.expires_at > now() AND l.person_id IS NULL AND l.token_hash = $1",
        hash
    ).fetch_optional(db).await
}

/// A team's open invitations, newest first.
pub(crate) async fn of_team(db: impl PgExecutor<'_>, team: Uuid) -> sqlx::Result<Vec<LinkRow>> {
    sqlx::query_as!(
        LinkRow,
        "SELECT l.id, l.team_id, t.name AS team_name, l.role, l.made_by, l.expires_at FROM links l JOIN teams t ON t.id = l.team_id \
         WHERE l.team_id = $1 AND l.used_at IS NULL AND l.expires_at > now() ORDER BY l.made_at DESC, l.id",
        team
    )
    .fetch_all(db)
    .await
}

/// A link to come.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewLink<'a> {
    pub(crate) hash: &'a [u8],
    pub(crate) team: Option<Uuid>,
    /// Who sets a new password with it.
    pub(crate) person: Option<Uuid>,
    pub(crate) role: &'a str,
    pub(crate) made_by: &'a str,
    pub(crate) expires_at: OffsetDateTime,
}

/// Makes a link.
pub(crate) async fn insert(db: impl PgExecutor<'_>, link: NewLink<'_>) -> sqlx::Result<Uuid> {
    sqlx::query_scalar!(
        "INSERT INTO links (id, token_hash, team_id, person_id, role, made_by, expires_at) VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING id",
        Uuid::new_v4(),
        link.hash,
        link.team,
        link.person,
        link.role,
        link.made_by,
        link.expires_at
    )
    .fetch_one(db)
    .await
}

/// How long a link for a new password works.
const PASSWORD_LINK_LASTS: time::Duration = time::Duration::days(2);

/// Makes a link with which a person sets a new password: its token, and until when it works. Earlier ones of hers work no more.
pub(crate) async fn for_password(
    pool: &PgPool,
    person: Uuid,
    made_by: &str,
) -> Result<(String, OffsetDateTime), Failure> {
    let token = new_token()?;
    let expires_at = OffsetDateTime::now_utc() + PASSWORD_LINK_LASTS;
    let mut tx = pool.begin().await?;
    sqlx::query!(
        "DELETE FROM links WHERE person_id = $1 AND used_at IS NULL",
        person
    )
    .execute(&mut *tx)
    .await?;
    let link = NewLink {
        hash: &hash(&token),
        team: None,
        person: Some(person),
        role: "guest",
        made_by,
        expires_at,
    };
    insert(&mut *tx, link).await?;
    tx.commit().await?;
    Ok((token, expires_at))
}

/// A link for a new password that still works.
#[derive(Debug)]
pub(crate) struct PasswordLinkRow {
    pub(crate) id: Uuid,
    pub(crate) person_id: Uuid,
    pub(crate) account: String,
    pub(crate) name: String,
    pub(crate) made_by: String,
}

/// The open link for a new password of a token's hash.
pub(crate) async fn find_password_link(
    db: impl PgExecutor<'_>,
    hash: &[u8],
) -> sqlx::Result<Option<PasswordLinkRow>> {
    sqlx::query_as!(
        PasswordLinkRow,
        "SELECT l.id, p.id AS person_id, p.account, p.name, l.made_by FROM links l JOIN people p ON p.id = l.person_id \
         WHERE l.used_at IS NULL AND l.expires_at > now() AND l.token_hash = $1",
        hash
    )
    .fetch_optional(db)
    .await
}

/// Uses a link up; whether it was still open.
pub(crate) async fn spend(db: impl PgExecutor<'_>, id: Uuid) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "UPDATE links SET used_at = now() WHERE id = $1 AND used_at IS NULL AND expires_at > now()",
        id
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Takes an invitation of a team back; whether there was one.
pub(crate) async fn take_back(db: impl PgExecutor<'_>, team: Uuid, id: Uuid) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "DELETE FROM links WHERE team_id = $1 AND id = $2 AND used_at IS NULL",
        team,
        id
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Takes back every link for a first lead.
pub(crate) async fn drop_first(db: impl PgExecutor<'_>) -> sqlx::Result<()> {
    sqlx::query!(
        "DELETE FROM links WHERE team_id IS NULL AND person_id IS NULL AND used_at IS NULL"
    )
    .execute(db)
    .await?;
    Ok(())
}
