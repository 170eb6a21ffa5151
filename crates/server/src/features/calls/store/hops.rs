//! The chains of hops.

use sqlx::{PgConnection, PgExecutor};
use time::Date;
use uuid::Uuid;

/// A link of a chain.
#[derive(Debug, Clone)]
pub(crate) struct LinkRow {
    pub(crate) call_id: Uuid,
    pub(crate) person_id: Option<Uuid>,
    /// Her name: the person's, or that of somebody from outside.
    pub(crate) maker: String,
    pub(crate) url: Option<String>,
    pub(crate) sketch_id: Option<Uuid>,
    pub(crate) day: Date,
}

/// The chains of calls of a team, each in its order.
pub(crate) async fn links(
    db: impl PgExecutor<'_>,
    team: Uuid,
    calls: &[Uuid],
) -> sqlx::Result<Vec<LinkRow>> {
    sqlx::query_as!(
        LinkRow,
        "SELECT l.call_id, l.person_id, coalesce(p.name, l.name) AS \"maker!\", l.url, l.sketch_id, l.day FROM hop_links l \
         LEFT JOIN people p ON p.id = l.person_id WHERE l.team_id = $1 AND l.call_id = ANY($2) ORDER BY l.call_id, l.place",
        team,
        calls
    )
    .fetch_all(db)
    .await
}

/// A link to come.
#[derive(Debug, Clone)]
pub(crate) struct NewLink {
    pub(crate) person: Option<Uuid>,
    pub(crate) name: Option<String>,
    pub(crate) url: Option<String>,
    pub(crate) sketch: Option<Uuid>,
    pub(crate) day: Date,
}

/// Puts another chain in place of a call's. Its makers take part from then on; who has dropped out does no longer, and keeps her page.
pub(crate) async fn put(
    db: &mut PgConnection,
    team: Uuid,
    call: Uuid,
    links: &[NewLink],
) -> sqlx::Result<()> {
    sqlx::query!(
        "DELETE FROM hop_links WHERE team_id = $1 AND call_id = $2",
        team,
        call
    )
    .execute(&mut *db)
    .await?;
    for (place, link) in (0_i32..).zip(links) {
        sqlx::query!(
            "INSERT INTO hop_links (team_id, call_id, place, person_id, name, url, sketch_id, day) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)",
            team,
            call,
            place,
            link.person,
            link.name,
            link.url,
            link.sketch,
            link.day
        )
        .execute(&mut *db)
        .await?;
        if let Some(person) = link.person {
            super::take(&mut *db, team, call, person, None).await?;
        }
    }
    let makers: Vec<Uuid> = links.iter().filter_map(|l| l.person).collect();
    sqlx::query!(
        "DELETE FROM call_makers WHERE team_id = $1 AND call_id = $2 AND person_id <> ALL($3)",
        team,
        call,
        &makers
    )
    .execute(db)
    .await?;
    Ok(())
}
