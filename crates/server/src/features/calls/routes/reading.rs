//! Calls out of what others sent: a text that is pasted, a calendar that is brought in. Nothing is kept until it has been looked over.

use crate::auth::Maker;
use crate::features::calls::days;
use crate::features::calls::views::{BroughtView, NoticedView, PastedText, PastedView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Raw};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::Cancel;
use metrosk_core::calendar::brought;
use metrosk_core::calls::pasted;
use metrosk_core::document::Invalid;

/// Reads a call out of a text; it is looked over before it is kept.
#[utoipa::path(
    post, operation_id = "read_call", path = "/api/calls/text", tag = "calls", request_body = PastedText,
    responses(
        (status = 200, body = PastedView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn text(
    State(app): State<App>,
    maker: Maker,
    Body(body): Body<PastedText>,
) -> Result<Json<PastedView>, Failure> {
    let today = days::today(days::zone(body.zone.as_deref())?);
    let work = move |_: &Cancel| pasted(&body.text, today);
    let work_kind = crate::compute::Work::Drawing;
    let found = app.compute.run(maker.team(), work_kind, work).await??;
    Ok(Json(PastedView {
        document: found.call,
        noticed: found.noticed.into_iter().map(NoticedView::from).collect(),
    }))
}

/// Reads the events of a calendar file as calls; they are looked over before any is kept.
#[utoipa::path(
    post, operation_id = "read_calendar", path = "/api/calls/calendar", tag = "calls",
    request_body(content = String, content_type = "text/calendar"),
    responses(
        (status = 200, body = Vec<BroughtView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn calendar(
    State(app): State<App>,
    maker: Maker,
    Raw(bytes): Raw,
) -> Result<Json<Vec<BroughtView>>, Failure> {
    let text = String::from_utf8(bytes.to_vec()).map_err(|_| {
        Invalid::one(
            "calendar",
            "text that is not UTF-8",
            "a calendar file (.ics)",
        )
    })?;
    let today = days::earliest_today();
    let work = move |_: &Cancel| brought(&text, today);
    let work_kind = crate::compute::Work::Drawing;
    let found = app.compute.run(maker.team(), work_kind, work).await??;
    let view = |b: metrosk_core::calendar::Brought| BroughtView {
        document: b.call,
        comes: b.comes,
        notes: b.notes,
    };
    Ok(Json(found.into_iter().map(view).collect()))
}
