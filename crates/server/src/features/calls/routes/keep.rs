//! The team's calls: written, changed, looked at, with their revisions.

use super::season::makers_of;
use crate::auth::{Maker, Member};
use crate::features::calls::days;
use crate::features::calls::series;
use crate::features::calls::store::{self as calls, CallRow};
use crate::features::calls::views::{
    self, CallChange, CallRevisionView, CallView, NewCall, NewCalls,
};
use crate::features::history::routes::listing::Before;
use crate::features::sketches::store as sketches;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, QueryParams};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::rejection::PathRejection;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use chrono::NaiveDate;
use metrosk_core::calls::Call;
use metrosk_core::document::Invalid;
use serde_json::Value;
use sqlx::PgConnection;
use uuid::Uuid;

/// Most calls put in at once.
const MOST_AT_ONCE: usize = 200;
/// Most of a call's revisions in one answer.
const MOST_REVISIONS: i64 = 100;

/// A call's document, read and ready to be kept.
struct Ready {
    name: String,
    document: Value,
    call: Call,
}

impl Ready {
    /// Reads it; `before` is the day that it was due, which may be past by now.
    fn read(mut document: Value, before: Option<NaiveDate>) -> Result<Ready, Invalid> {
        let call = Call::from_json(&document)?;
        let earliest = days::earliest_today();
        if let Some(due) = call.due
            && due < earliest
            && before != Some(due)
        {
            let allowed = "today or a later day";
            return Err(Invalid::one(
                "due",
                format!("{due}, which is past"),
                allowed,
            ));
        }
        let name = names::short("name", &call.name)?;
        document["name"] = name.as_str().into();
        Ok(Ready {
            name,
            document,
            call,
        })
    }

    fn as_new<'a>(
        &'a self,
        sketch: Option<Uuid>,
        author: &'a str,
        reason: &'a str,
    ) -> calls::NewCall<'a> {
        calls::NewCall {
            name: &self.name,
            document: &self.document,
            due: self.call.due.and_then(days::stored),
            sketch,
            series: None,
            author,
            reason,
        }
    }
}

/// Puts a drawer's sketch into a call's document, as it is now.
async fn with_sketch(
    db: &mut PgConnection,
    team: Uuid,
    document: &mut Value,
    sketch: Option<Uuid>,
) -> Result<(), Failure> {
    let Some(id) = sketch else { return Ok(()) };
    let row = sketches::find(db, team, id)
        .await?
        .ok_or(Failure::Missing("sketch"))?;
    if let Some(fields) = document.as_object_mut() {
        fields.insert("sketch".to_owned(), row.document);
    }
    Ok(())
}

/// Puts a call in as one of a series where it comes again, and makes those that come next.
async fn put_in(
    db: &mut PgConnection,
    member: &Member,
    ready: &Ready,
    sketch: Option<Uuid>,
    reason: &str,
) -> Result<Uuid, Failure> {
    let id = Uuid::new_v4();
    let series = ready.call.repeats.map(|_| id);
    let call = calls::NewCall {
        series,
        ..ready.as_new(sketch, member.name(), reason)
    };
    calls::insert(&mut *db, member.team(), id, call, None).await?;
    if let Some(series) = series {
        series::go_on(db, member.team(), series).await?;
    }
    Ok(id)
}

/// Writes a call for the team.
#[utoipa::path(
    post, operation_id = "add_call", path = "/api/calls", tag = "calls", request_body = NewCall,
    params(("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = CallView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn add(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Body(mut new): Body<NewCall>,
) -> Result<Answer, Failure> {
    let mut write = begin!(once, &app, &maker, "write a call");
    with_sketch(write.db(), maker.team(), &mut new.document, new.sketch).await?;
    let ready = Ready::read(new.document, None).map_err(|e| names::under("document", e))?;
    let id = put_in(write.db(), &maker, &ready, new.sketch, "written").await?;
    let view = call_view(write.db(), &maker, id).await?;
    write.finish(StatusCode::CREATED, &view).await
}

/// Writes several calls for the team, all of them or none: those of a calendar that was looked over.
#[utoipa::path(
    post, operation_id = "add_calls", path = "/api/calls/several", tag = "calls", request_body = NewCalls,
    params(("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = Vec<Uuid>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn add_several(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Body(new): Body<NewCalls>,
) -> Result<Answer, Failure> {
    let count = new.documents.len();
    if !(1..=MOST_AT_ONCE).contains(&count) {
        let allowed = format!("1 to {MOST_AT_ONCE}");
        return Err(Invalid::one("documents", format!("{count} calls"), allowed).into());
    }
    let mut findings = Vec::new();
    let mut ready = Vec::with_capacity(count);
    for (n, document) in new.documents.into_iter().enumerate() {
        match Ready::read(document, None) {
            Ok(call) => ready.push(call),
            Err(e) => findings.extend(names::under(&format!("documents[{n}]"), e).findings),
        }
    }
    if !findings.is_empty() {
        return Err(Invalid { findings }.into());
    }
    let mut write = begin!(once, &app, &maker, "write several calls");
    let mut ids = Vec::with_capacity(count);
    for call in &ready {
        ids.push(put_in(write.db(), &maker, call, None, "out of a calendar").await?);
    }
    write.finish(StatusCode::CREATED, &ids).await
}

/// One call, with who takes part in it.
#[utoipa::path(
    get, operation_id = "show_call", path = "/api/calls/{id}", tag = "calls", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = CallView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<CallView>, Failure> {
    let mut db = app.pool.acquire().await?;
    Ok(Json(call_view(&mut db, &member, id).await?))
}

/// Changes a call, sets it aside or takes it out again. Pages that answer it keep what they have until somebody takes the change over.
#[utoipa::path(
    put, operation_id = "change_call", path = "/api/calls/{id}", tag = "calls", params(("id" = Uuid, Path)), request_body = CallChange,
    responses(
        (status = 200, body = CallView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn change(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    Body(change): Body<CallChange>,
) -> Result<Json<CallView>, Failure> {
    let mut tx = app.pool.begin().await?;
    let row = find(&mut tx, &maker, id).await?;
    let is_rewritten = change.document.is_some();
    let mut document = change.document.unwrap_or_else(|| row.document.clone());
    with_sketch(&mut tx, maker.team(), &mut document, change.sketch).await?;
    let before = Call::from_json(&row.document).ok().and_then(|c| c.due);
    let ready = Ready::read(document, before).map_err(|e| names::under("document", e))?;
    let archived = change.archived.unwrap_or(row.archived_at.is_some());
    let reason = match (archived != row.archived_at.is_some(), archived) {
        (true, true) => "set aside",
        (true, false) => "taken out again",
        (false, _) => "changed",
    };
    let repeats = ready.call.repeats.is_some();
    let series = repeats.then_some(row.series.unwrap_or(id));
    let call = calls::NewCall {
        series,
        ..ready.as_new(change.sketch.or(row.sketch_id), maker.name(), reason)
    };
    let from = change.revision;
    let moved = (1..i32::MAX).contains(&from)
        && calls::change(&mut tx, maker.team(), id, from, call, archived).await?;
    if !moved {
        let newest = Box::new(call_view(&mut tx, &maker, id).await?);
        return Err(Failure::StaleCall {
            yours: from,
            newest,
        });
    }
    if let (true, Some(due)) = (is_rewritten, call.due) {
        follow(&mut tx, &maker, (row.series, series), due).await?;
    }
    let view = call_view(&mut tx, &maker, id).await?;
    tx.commit().await?;
    Ok(Json(view))
}

/// What comes after a changed call of a series follows it from now on, but for what somebody has touched; or the series ends with it.
async fn follow(
    db: &mut PgConnection,
    maker: &Maker,
    (was, is): (Option<Uuid>, Option<Uuid>),
    due: time::Date,
) -> Result<(), Failure> {
    let team = maker.team();
    if let Some(series) = was {
        calls::drop_untouched(&mut *db, team, series, due).await?;
        if is.is_none() {
            calls::end_series(&mut *db, team, series, due, maker.name()).await?;
        }
    }
    if let Some(series) = is {
        series::go_on(db, team, series).await?;
    }
    Ok(())
}

/// A call's revisions, newest first, up to 100.
#[utoipa::path(
    get, operation_id = "call_revisions", path = "/api/calls/{id}/revisions", tag = "calls", params(("id" = Uuid, Path), Before),
    responses(
        (status = 200, body = Vec<CallRevisionView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn revisions(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
    QueryParams(before): QueryParams<Before>,
) -> Result<Json<Vec<CallRevisionView>>, Failure> {
    let mut db = app.pool.acquire().await?;
    find(&mut db, &member, id).await?;
    let before = before.before.unwrap_or(i32::MAX);
    let rows = calls::revisions(&mut *db, member.team(), id, before, MOST_REVISIONS).await?;
    let view = |r: calls::CallRevisionRow| CallRevisionView {
        revision: r.revision,
        author: r.author,
        reason: r.reason,
        made_at: r.made_at,
    };
    Ok(Json(rows.into_iter().map(view).collect()))
}

/// What a call asked at one of its revisions.
#[utoipa::path(
    get, operation_id = "call_revision", path = "/api/calls/{id}/revisions/{revision}", tag = "calls",
    params(("id" = Uuid, Path), ("revision" = i32, Path)),
    responses(
        (status = 200, body = crate::documents::calls::CallDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn revision(
    State(app): State<App>,
    member: Member,
    path: Result<Path<(Uuid, i32)>, PathRejection>,
) -> Result<Json<Value>, Failure> {
    let Path((id, revision)) = path.map_err(|_| Failure::Missing("revision"))?;
    let document = calls::document_of(&app.pool, member.team(), id, revision).await?;
    document.map(Json).ok_or(Failure::Missing("revision"))
}

/// A call of the member's team.
pub(crate) async fn find(
    db: &mut PgConnection,
    member: &Member,
    id: Uuid,
) -> Result<CallRow, Failure> {
    calls::find(db, member.team(), id)
        .await?
        .ok_or(Failure::Missing("call"))
}

/// A call of the member's team, with who takes part in it.
pub(crate) async fn call_view(
    db: &mut PgConnection,
    member: &Member,
    id: Uuid,
) -> Result<CallView, Failure> {
    let row = find(&mut *db, member, id).await?;
    let makers = makers_of(db, member, row.clone()).await?;
    Ok(views::call(row, makers))
}
