//! A person's dates at an address of her own, for her calendar to fetch. Who has the address can read them, so it can be taken back.

use super::season::{found_since, makers_in};
use crate::auth::{Member, hash, new_token};
use crate::features::calls::days;
use crate::features::calls::seasons::{self, Looking};
use crate::features::calls::store::feeds;
use crate::features::calls::views::FeedView;
use crate::features::calls::views::season::{SeasonCallView, SeasonView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::Token;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderValue, StatusCode, header};
use chrono::TimeDelta;
use chrono_tz::Tz;
use metrosk_core::calendar::{Entry, written};

/// What was due so many days ago stays in her calendar.
const DAYS_BACK: i64 = 90;
/// What the file's name ends with.
const ENDING: &str = ".ics";

/// Whether she has an address for her calendar in this team.
#[utoipa::path(
    get, operation_id = "show_feed", path = "/api/feed", tag = "calls",
    responses((status = 200, body = FeedView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
) -> Result<Json<FeedView>, Failure> {
    let made_at = feeds::made_at(&app.pool, member.team(), member.person.id).await?;
    Ok(Json(FeedView {
        made_at,
        path: None,
    }))
}

/// Makes her a new address, told once; an earlier one works no longer.
#[utoipa::path(
    post, operation_id = "make_feed", path = "/api/feed", tag = "calls",
    responses((status = 200, body = FeedView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn make(
    State(app): State<App>,
    member: Member,
) -> Result<Json<FeedView>, Failure> {
    let token = new_token()?;
    let (team, person) = (member.team(), member.person.id);
    feeds::put(&app.pool, team, person, &hash(&token)).await?;
    let made_at = feeds::made_at(&app.pool, team, person).await?;
    Ok(Json(FeedView {
        made_at,
        path: Some(format!("/api/calendar/{token}{ENDING}")),
    }))
}

/// Takes her address back: from now on there is nothing at it.
#[utoipa::path(
    delete, operation_id = "drop_feed", path = "/api/feed", tag = "calls",
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn revoke(State(app): State<App>, member: Member) -> Result<StatusCode, Failure> {
    if feeds::drop(&app.pool, member.team(), member.person.id).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Failure::Missing("address"))
    }
}

/// The dates behind an address, as a calendar.
#[utoipa::path(
    get, operation_id = "calendar", path = "/api/calendar/{token}", tag = "calls", params(("token" = String, Path)),
    responses(
        (status = 200, body = String, content_type = "text/calendar"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn calendar(
    State(app): State<App>,
    Token(token): Token,
) -> Result<(HeaderMap, String), Failure> {
    let token = token.strip_suffix(ENDING).unwrap_or(&token);
    let feed = feeds::find(&app.pool, &hash(token))
        .await?
        .ok_or(Failure::Missing("calendar"))?;
    let mut db = app.pool.acquire().await?;
    let since = days::today(Tz::UTC) - TimeDelta::days(DAYS_BACK);
    let found = found_since(&mut db, feed.team_id, since).await?;
    let makers = makers_in(&mut db, feed.team_id).await?;
    let looking = Looking {
        me: feed.person_id,
        zone: Tz::UTC,
        makers: &makers,
    };
    let season = seasons::season(found, &looking);
    let text = written(&feed.team, &entries(&season), days::now());
    let mut headers = HeaderMap::new();
    let kind = HeaderValue::from_static("text/calendar; charset=utf-8");
    headers.insert(header::CONTENT_TYPE, kind);
    let fresh = HeaderValue::from_static("private, max-age=300");
    headers.insert(header::CACHE_CONTROL, fresh);
    Ok((headers, text))
}

/// Her dates: of what she has taken and of what nobody has yet.
fn entries(season: &SeasonView) -> Vec<Entry> {
    season.calls.iter().flat_map(entries_of).collect()
}

fn entries_of(call: &SeasonCallView) -> Vec<Entry> {
    let mine = call.makers.iter().find(|m| m.me);
    if mine.is_none() && !call.open {
        return Vec::new();
    }
    let finished = mine.is_some_and(|m| m.finished);
    let due = mine.and_then(|m| m.due).or(call.due);
    let what = match (mine.is_some(), finished) {
        (true, true) => "done",
        (true, false) => "due",
        (false, _) => "due, nobody has it yet",
    };
    let moment = |text: &Option<String>| text.as_ref().and_then(|t| t.parse().ok());
    // A hop's maker has a day of her own, not the call's hour.
    let due_at = mine
        .and_then(|m| m.due)
        .map_or_else(|| moment(&call.due_at), |_| None);
    [
        (due, due_at, what, "due"),
        (call.shown, None, "shown to all", "shown"),
        (call.prize, moment(&call.prize_at), "prize closes", "prize"),
    ]
    .into_iter()
    .filter_map(|(day, at, says, kind)| {
        Some(Entry {
            uid: format!("{kind}-{}@metrosk", call.id),
            name: format!("{}: {says}", call.name),
            day: day?,
            at,
            text: waits(mine.and_then(|m| m.waits_for.as_deref())),
            url: None,
            reminds: kind == "due" && mine.is_some() && !finished,
        })
    })
    .collect()
}

fn waits(before: Option<&str>) -> String {
    before.map_or(String::new(), |b| format!("Waits for {b}’s page."))
}
