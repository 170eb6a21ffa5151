//! The team's season.

use crate::auth::Member;
use crate::compute::Work;
use crate::features::calls::days;
use crate::features::calls::seasons::{self, Found, Looking};
use crate::features::calls::store::{self as calls, CallRow, Plans, hops};
use crate::features::calls::views::season::{MakerView, SeasonView};
use crate::features::people::store::people;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::QueryParams;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use chrono::{NaiveDate, TimeDelta};
use chrono_tz::Tz;
use metrosk_core::Cancel;
use serde::Deserialize;
use sqlx::PgConnection;
use utoipa::IntoParams;
use uuid::Uuid;

/// A season is looked at from so many days back.
const DAYS_BACK: i64 = 45;

/// Where she who looks lives, and from when on.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct SeasonQuery {
    /// Her time zone's name, such as Europe/Lisbon; UTC where nothing is said.
    zone: Option<String>,
    /// From this day on; 45 days back where nothing is said.
    since: Option<NaiveDate>,
}

/// The team's calls with who makes what, who is free, what is late, and what she is to be told.
#[utoipa::path(
    get, operation_id = "season", path = "/api/season", tag = "calls", params(SeasonQuery),
    responses(
        (status = 200, body = SeasonView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn season(
    State(app): State<App>,
    member: Member,
    QueryParams(query): QueryParams<SeasonQuery>,
) -> Result<Json<SeasonView>, Failure> {
    let zone = days::zone(query.zone.as_deref())?;
    let since = query
        .since
        .unwrap_or(days::today(zone) - TimeDelta::days(DAYS_BACK));
    let mut db = app.pool.acquire().await?;
    let found = found_since(&mut db, member.team(), since).await?;
    let makers = makers_in(&mut db, member.team()).await?;
    drop(db);
    let me = member.person.id;
    let work = move |_: &Cancel| {
        let looking = Looking {
            me,
            zone,
            makers: &makers,
        };
        seasons::season(found, &looking)
    };
    Ok(Json(
        app.compute.run(member.team(), Work::Drawing, work).await?,
    ))
}

/// A team's calls since a day, with all that belongs to them.
pub(crate) async fn found_since(
    db: &mut PgConnection,
    team: Uuid,
    since: NaiveDate,
) -> Result<Found, Failure> {
    let since = days::stored(since).ok_or_else(|| {
        metrosk_core::document::Invalid::one("since", since.to_string(), "a day of this era")
    })?;
    let rows = calls::season(&mut *db, team, since).await?;
    with_all(db, team, rows).await
}

async fn with_all(db: &mut PgConnection, team: Uuid, rows: Vec<CallRow>) -> Result<Found, Failure> {
    let ids: Vec<Uuid> = rows.iter().map(|c| c.id).collect();
    Ok(Found {
        takings: calls::takings(&mut *db, team, &ids, Plans::Unnoted).await?,
        links: hops::links(db, team, &ids).await?,
        calls: rows,
    })
}

/// Who makes pages in a team: everybody but its guests.
pub(crate) async fn makers_in(
    db: &mut PgConnection,
    team: Uuid,
) -> Result<Vec<(Uuid, String)>, Failure> {
    let people = people::of_team(db, team).await?;
    let makers = people.into_iter().filter(|p| p.role != "guest");
    Ok(makers.map(|p| (p.id, p.name)).collect())
}

/// Who takes part in one call.
pub(crate) async fn makers_of(
    db: &mut PgConnection,
    member: &Member,
    row: CallRow,
) -> Result<Vec<MakerView>, Failure> {
    let found = with_all(&mut *db, member.team(), vec![row]).await?;
    let looking = Looking {
        me: member.person.id,
        zone: Tz::UTC,
        makers: &[],
    };
    Ok(seasons::makers(found, &looking))
}
