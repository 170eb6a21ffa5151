//! One stream a browser of what happens to the team's things.

use crate::auth::Member;
use crate::features::events::hub::Notice;
use crate::features::events::store::{self as events, EventRow};
use crate::features::events::views::EventView;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::QueryParams;
use crate::state::App;
use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::sse::{Event, KeepAlive, Sse};
use futures_util::{Stream, StreamExt, stream};
use serde::Deserialize;
use std::convert::Infallible;
use tokio::sync::broadcast::error::RecvError;
use utoipa::IntoParams;

/// From where on.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct After {
    /// The last event that was heard.
    after: Option<i64>,
}

/// What happens to the team's things, as server-sent events: `listening` once nothing is missed any more, `changed` with what changed, and `again` where something may have been missed.
/// With `Last-Event-ID`, or `after` where no header can be sent, the stream begins with what was told since; some of that may come once more.
#[utoipa::path(
    get, operation_id = "events", path = "/api/events", tag = "events",
    params(("Last-Event-ID" = Option<i64>, Header), After),
    responses(
        (status = 200, body = EventView, content_type = "text/event-stream"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn stream_of(
    State(app): State<App>,
    member: Member,
    headers: HeaderMap,
    QueryParams(query): QueryParams<After>,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Failure> {
    let team = member.team();
    let last = headers
        .get("last-event-id")
        .and_then(|v| v.to_str().ok())
        .and_then(|v| v.parse().ok())
        .or(query.after);
    // Listening comes before looking back, so that nothing falls between.
    let (receiver, stopping) = app.events.subscribe(&app.pool);
    let missed: Vec<Event> = match last {
        None => Vec::new(),
        Some(last) => {
            let rows = events::since(&app.pool, team, last).await?;
            if rows.len() as i64 == events::MOST {
                vec![look_again()]
            } else {
                rows.iter().map(changed).collect()
            }
        }
    };
    let live = stream::unfold(
        (receiver, stopping),
        move |(mut receiver, mut stopping)| async move {
            loop {
                let notice = tokio::select! {
                    _ = stopping.wait_for(|stop| *stop) => return None,
                    notice = receiver.recv() => notice,
                };
                let event = match notice {
                    Ok(Notice::Event(event)) if event.team_id == team => changed(&event),
                    Ok(Notice::Event(_)) => continue,
                    Ok(Notice::LookAgain) | Err(RecvError::Lagged(_)) => look_again(),
                    Err(RecvError::Closed) => return None,
                };
                return Some((event, (receiver, stopping)));
            }
        },
    );
    let listening = Event::default().event("listening").data("from now on");
    let all = stream::iter(std::iter::once(listening).chain(missed))
        .chain(live)
        .map(Ok);
    Ok(Sse::new(all).keep_alive(KeepAlive::default()))
}

fn changed(row: &EventRow) -> Event {
    let view = EventView {
        what: row.what.clone(),
        thing: row.thing,
        revision: row.revision,
        author: row.author.clone(),
        state: row.state.clone(),
        progress: row.progress.clone(),
    };
    let event = Event::default().event("changed").id(row.id.to_string());
    event.json_data(view).unwrap_or_else(|_| look_again())
}

fn look_again() -> Event {
    Event::default().event("again").data("again")
}
