//! People, their teams and their roles.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use uuid::Uuid;

/// A person, and one of her teams while she is in any.
#[derive(Debug, Clone)]
pub(crate) struct PersonRow {
    pub(crate) id: Uuid,
    pub(crate) account: String,
    pub(crate) name: String,
    pub(crate) password_hash: String,
    pub(crate) defaults: Value,
    pub(crate) team: Option<Uuid>,
    pub(crate) team_name: Option<String>,
    pub(crate) role: Option<String>,
}

impl PersonRow {
    /// The team of this row, with her role there.
    pub(crate) fn membership(&self) -> Option<TeamRow> {
        Some(TeamRow {
            id: self.team?,
            name: self.team_name.clone()?,
            role: self.role.clone()?,
        })
    }
}

/// One of a team's people.
#[derive(Debug)]
pub(crate) struct MemberRow {
    pub(crate) id: Uuid,
    pub(crate) account: String,
    pub(crate) name: String,
    pub(crate) role: String,
}

/// One of a person's teams.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct TeamRow {
    pub(crate) id: Uuid,
    pub(crate) name: String,
    pub(crate) role: String,
}

/// The query of people as they stand in a team.
macro_rules! person {
    ($which:literal, $($argument:expr),+) => {
        sqlx::query_as!(
            PersonRow,
            "SELECT p.id, p.account, p.name, p.password_hash, p.defaults, m.team_id AS \"team?\", t.name AS \"team_name?\", m.role AS \"role?\" "
                + "FROM people p LEFT JOIN members m ON m.person_id = p.id LEFT JOIN teams t ON t.id = m.team_id "
                + $which,
            $($argument),+
        )
    };
}

/// The person of an account, in the team she joined first. Who has been taken out of her last team can still sign in.
pub(crate) async fn by_account(
    db: impl PgExecutor<'_>,
    account: &str,
) -> sqlx::Result<Option<PersonRow>> {
    person!(
        "WHERE p.account = $1 ORDER BY m.joined_at, m.team_id LIMIT 1",
        account
    )
    .fetch_optional(db)
    .await
}

/// A person, in the team that is preferred while she is in it, otherwise in the one she joined first.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    person: Uuid,
    preferred: Option<Uuid>,
) -> sqlx::Result<Option<PersonRow>> {
    person!(
        "WHERE p.id = $1 ORDER BY m.team_id IS NOT DISTINCT FROM $2 DESC, m.joined_at, m.team_id LIMIT 1",
        person,
        preferred
    )
    .fetch_optional(db)
    .await
}

/// A person in one of her teams.
pub(crate) async fn in_team(
    db: impl PgExecutor<'_>,
    person: Uuid,
    team: Uuid,
) -> sqlx::Result<Option<PersonRow>> {
    person!("WHERE p.id = $1 AND m.team_id = $2", person, team)
        .fetch_optional(db)
        .await
}

/// Whether a lead leads every team that a person is in.
pub(crate) async fn is_led_by(
    db: impl PgExecutor<'_>,
    person: Uuid,
    lead: Uuid,
) -> sqlx::Result<bool> {
    sqlx::query_scalar!(
        "SELECT NOT EXISTS (SELECT 1 FROM members m WHERE m.person_id = $1 AND NOT EXISTS (SELECT 1 FROM members l \
         WHERE l.team_id = m.team_id AND l.person_id = $2 AND l.role = 'lead')) AS \"all!\"",
        person,
        lead
    )
    .fetch_one(db)
    .await
}

/// Whether there is anybody yet.
pub(crate) async fn any(db: impl PgExecutor<'_>) -> sqlx::Result<bool> {
    sqlx::query_scalar!("SELECT EXISTS (SELECT 1 FROM people) AS \"any!\"")
        .fetch_one(db)
        .await
}

/// A new person; `None` when the account is taken.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    account: &str,
    name: &str,
    hash: &str,
) -> sqlx::Result<Option<Uuid>> {
    sqlx::query_scalar!(
        "INSERT INTO people (id, account, name, password_hash) VALUES ($1, $2, $3, $4) ON CONFLICT (account) DO NOTHING RETURNING id",
        Uuid::new_v4(),
        account,
        name,
        hash
    )
    .fetch_optional(db)
    .await
}

/// Changes her name and defaults.
pub(crate) async fn update(
    db: impl PgExecutor<'_>,
    person: Uuid,
    name: &str,
    defaults: &Value,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE people SET name = $2, defaults = $3 WHERE id = $1",
        person,
        name,
        defaults
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Changes her password.
pub(crate) async fn set_password(
    db: impl PgExecutor<'_>,
    person: Uuid,
    hash: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE people SET password_hash = $2 WHERE id = $1",
        person,
        hash
    )
    .execute(db)
    .await?;
    Ok(())
}

/// A person's teams, the one she joined first at the top.
pub(crate) async fn teams_of(db: impl PgExecutor<'_>, person: Uuid) -> sqlx::Result<Vec<TeamRow>> {
    sqlx::query_as!(
        TeamRow,
        "SELECT t.id, t.name, m.role FROM members m JOIN teams t ON t.id = m.team_id WHERE m.person_id = $1 ORDER BY m.joined_at, t.id",
        person
    )
    .fetch_all(db)
    .await
}

/// A team's people, leads first.
pub(crate) async fn of_team(db: impl PgExecutor<'_>, team: Uuid) -> sqlx::Result<Vec<MemberRow>> {
    sqlx::query_as!(
        MemberRow,
        "SELECT p.id, p.account, p.name, m.role FROM members m JOIN people p ON p.id = m.person_id WHERE m.team_id = $1 \
         ORDER BY array_position(ARRAY['lead', 'member', 'guest'], m.role), p.name, p.id",
        team
    )
    .fetch_all(db)
    .await
}

/// Takes a person into a team; who is in it already keeps her role.
pub(crate) async fn join(
    db: impl PgExecutor<'_>,
    team: Uuid,
    person: Uuid,
    role: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO members (team_id, person_id, role, joined_at) VALUES ($1, $2, $3, clock_timestamp()) ON CONFLICT DO NOTHING",
        team,
        person,
        role
    )
    .execute(db)
    .await?;
    Ok(())
}

/// What became of a change to a member.
#[derive(Debug, PartialEq, Eq)]
pub(crate) enum Changed {
    /// It is done.
    Done,
    /// She is not in the team.
    Missing,
    /// The team would be left without a lead.
    LastLead,
}

/// Gives a member another role, or takes her out of the team. A team is never left without a lead.
pub(crate) async fn change(
    db: &mut PgConnection,
    team: Uuid,
    person: Uuid,
    role: Option<&str>,
) -> sqlx::Result<Changed> {
    // Two leads who demote each other at once must not both succeed.
    sqlx::query!("SELECT id FROM teams WHERE id = $1 FOR UPDATE", team)
        .fetch_optional(&mut *db)
        .await?;
    let held: Option<String> = sqlx::query_scalar!(
        "SELECT role FROM members WHERE team_id = $1 AND person_id = $2",
        team,
        person
    )
    .fetch_optional(&mut *db)
    .await?;
    let Some(held) = held else {
        return Ok(Changed::Missing);
    };
    let leads: i64 = sqlx::query_scalar!(
        "SELECT count(*) AS \"count!\" FROM members WHERE team_id = $1 AND role = 'lead'",
        team
    )
    .fetch_one(&mut *db)
    .await?;
    if held == "lead" && role != Some("lead") && leads == 1 {
        return Ok(Changed::LastLead);
    }
    match role {
        Some(role) => {
            sqlx::query!(
                "UPDATE members SET role = $3 WHERE team_id = $1 AND person_id = $2",
                team,
                person,
                role
            )
            .execute(db)
            .await?
        }
        None => {
            sqlx::query!(
                "DELETE FROM members WHERE team_id = $1 AND person_id = $2",
                team,
                person
            )
            .execute(db)
            .await?
        }
    };
    Ok(Changed::Done)
}
