//! A page's history: each change appends a revision, and nothing is ever taken away.

use super::body::{Body, Id, QueryParams};
use super::names;
use super::once::{Answer, Once, Write, begin};
use super::pages::{finish, view};
use crate::auth::{Maker, Member};
use crate::error::{Failure, Problem};
use crate::schema::{
    NewVersion, PageView, PlanChange, Return, RevisionPlan, RevisionView, Step, VersionView,
};
use crate::state::App;
use crate::store::pages;
use crate::store::revisions::{self, Change, PlanRow};
use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use metrosk_core::plan;
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

/// Most revisions in one answer.
const MOST: i64 = 200;

/// Appends a revision of a page's plan. The whole plan is sent, with the revision it started from.
#[utoipa::path(
    put, operation_id = "write_plan", path = "/api/pages/{id}/plan", tag = "pages", request_body = PlanChange,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn write(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(change): Body<PlanChange>,
) -> Result<Answer, Failure> {
    plan::fit_of(&change.plan).map_err(|e| names::under("plan", e))?;
    let reason = names::short("reason", &change.reason)?;
    let mut write = begin!(once, &app, &maker, &format!("write plan {id}"));
    advance(&mut write, &maker, id, change.revision).await?;
    let appended = Change {
        plan: &change.plan,
        author: maker.name(),
        reason: &reason,
        step: &reason,
        undo_to: Some(change.revision),
        redo_to: None,
    };
    revisions::append(write.db(), maker.team(), id, change.revision + 1, appended).await?;
    finish(&app, write, &maker, id, StatusCode::OK).await
}

/// Moves the page on from a revision; who comes too late is told, with the newest.
async fn advance(write: &mut Write, maker: &Maker, id: Uuid, from: i32) -> Result<(), Failure> {
    if (1..i32::MAX).contains(&from)
        && revisions::advance(write.db(), maker.team(), id, from).await?
    {
        return Ok(());
    }
    let row = pages::find(write.db(), maker.team(), id)
        .await?
        .ok_or(Failure::Missing("page"))?;
    Err(Failure::Stale {
        yours: from,
        newest: Box::new(view(row)),
    })
}

/// Takes the last change back, whoever made it and whenever: its own step can be redone.
#[utoipa::path(
    post, operation_id = "undo", path = "/api/pages/{id}/undo", tag = "pages", request_body = Step,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn undo(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(step): Body<Step>,
) -> Result<Answer, Failure> {
    let mut write = begin!(once, &app, &maker, &format!("undo {id}"));
    advance(&mut write, &maker, id, step.revision).await?;
    let now = revision(&mut write, &maker, id, step.revision).await?;
    let to = now
        .undo_to
        .ok_or_else(|| Failure::Standing("There is nothing to undo.".to_owned()))?;
    let earlier = revision(&mut write, &maker, id, to).await?;
    let reason = format!("undone: {}", now.step);
    // From here undo goes on to what came before, and redo back to where it was.
    let change = Change {
        plan: &earlier.plan,
        author: maker.name(),
        reason: &reason,
        step: &earlier.step,
        undo_to: earlier.undo_to,
        redo_to: Some(step.revision),
    };
    revisions::append(write.db(), maker.team(), id, step.revision + 1, change).await?;
    finish(&app, write, &maker, id, StatusCode::OK).await
}

/// Brings back what undo took.
#[utoipa::path(
    post, operation_id = "redo", path = "/api/pages/{id}/redo", tag = "pages", request_body = Step,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn redo(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(step): Body<Step>,
) -> Result<Answer, Failure> {
    let mut write = begin!(once, &app, &maker, &format!("redo {id}"));
    advance(&mut write, &maker, id, step.revision).await?;
    let now = revision(&mut write, &maker, id, step.revision).await?;
    let to = now
        .redo_to
        .ok_or_else(|| Failure::Standing("There is nothing to redo.".to_owned()))?;
    let undone = revision(&mut write, &maker, id, to).await?;
    let reason = format!("redone: {}", undone.step);
    let change = Change {
        plan: &undone.plan,
        author: maker.name(),
        reason: &reason,
        step: &undone.step,
        undo_to: Some(step.revision),
        redo_to: undone.redo_to,
    };
    revisions::append(write.db(), maker.team(), id, step.revision + 1, change).await?;
    finish(&app, write, &maker, id, StatusCode::OK).await
}

/// Returns to the plan of an earlier revision; the ones in between stay in the history.
#[utoipa::path(
    post, operation_id = "return_to", path = "/api/pages/{id}/return", tag = "pages", request_body = Return,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn return_to(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(step): Body<Return>,
) -> Result<Answer, Failure> {
    let mut write = begin!(once, &app, &maker, &format!("return {id}"));
    advance(&mut write, &maker, id, step.revision).await?;
    let wanted = revision(&mut write, &maker, id, step.to).await?;
    let reason = format!("returned to version {}", step.to);
    let change = Change {
        plan: &wanted.plan,
        author: maker.name(),
        reason: &reason,
        step: &reason,
        undo_to: Some(step.revision),
        redo_to: None,
    };
    revisions::append(write.db(), maker.team(), id, step.revision + 1, change).await?;
    finish(&app, write, &maker, id, StatusCode::OK).await
}

async fn revision(
    write: &mut Write,
    maker: &Maker,
    id: Uuid,
    revision: i32,
) -> Result<PlanRow, Failure> {
    revisions::find(write.db(), maker.team(), id, revision)
        .await?
        .ok_or(Failure::Missing("version"))
}

/// From where in a history.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Before {
    /// Only revisions before this one.
    pub(crate) before: Option<i32>,
}

/// A page's history, newest first, up to 200 revisions.
#[utoipa::path(
    get, operation_id = "page_history", path = "/api/pages/{id}/revisions", tag = "pages", params(("id" = Uuid, Path), Before),
    responses(
        (status = 200, body = Vec<RevisionView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn history(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
    QueryParams(query): QueryParams<Before>,
) -> Result<Json<Vec<RevisionView>>, Failure> {
    super::pages::find(&app, &member, id).await?;
    let rows = revisions::list(
        &app.pool,
        member.team(),
        id,
        query.before.unwrap_or(i32::MAX),
        MOST,
    )
    .await?;
    let view = |r: revisions::RevisionRow| RevisionView {
        revision: r.revision,
        author: r.author,
        reason: r.reason,
        made_at: r.made_at,
        names: r.names,
    };
    Ok(Json(rows.into_iter().map(view).collect()))
}

/// One revision with its plan.
#[utoipa::path(
    get, operation_id = "page_revision", path = "/api/pages/{id}/revisions/{revision}", tag = "pages",
    params(("id" = Uuid, Path), ("revision" = i32, Path)),
    responses(
        (status = 200, body = RevisionPlan),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn one(
    State(app): State<App>,
    member: Member,
    path: Result<Path<(Uuid, i32)>, axum::extract::rejection::PathRejection>,
) -> Result<Json<RevisionPlan>, Failure> {
    let Path((id, revision)) = path.map_err(|_| Failure::Missing("version"))?;
    let row = revisions::find(&app.pool, member.team(), id, revision)
        .await?
        .ok_or(Failure::Missing("version"))?;
    Ok(Json(RevisionPlan {
        revision,
        reason: row.reason,
        plan: row.plan,
    }))
}

/// All of a page's named versions, the newest name first.
#[utoipa::path(
    get, operation_id = "page_versions", path = "/api/pages/{id}/versions", tag = "pages", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<VersionView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn versions(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<VersionView>>, Failure> {
    super::pages::find(&app, &member, id).await?;
    let rows = revisions::versions(&app.pool, member.team(), id).await?;
    let view = |r: revisions::VersionRow| VersionView {
        name: r.name,
        revision: r.revision,
        made_by: r.made_by,
        made_at: r.made_at,
    };
    Ok(Json(rows.into_iter().map(view).collect()))
}

/// Gives a revision a name. A name that the page has already is told, and stays where it is.
#[utoipa::path(
    post, operation_id = "name_version", path = "/api/pages/{id}/versions", tag = "pages", params(("id" = Uuid, Path)), request_body = NewVersion,
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn name(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    Body(new): Body<NewVersion>,
) -> Result<StatusCode, Failure> {
    let name = names::short("name", &new.name)?;
    if revisions::name(
        &app.pool,
        maker.team(),
        id,
        new.revision,
        &name,
        maker.name(),
    )
    .await?
    {
        return Ok(StatusCode::NO_CONTENT);
    }
    match revisions::named(&app.pool, maker.team(), id, &name).await? {
        Some(same) if same == new.revision => Ok(StatusCode::NO_CONTENT),
        Some(other) => Err(Failure::Standing(format!(
            "Version {other} is called “{name}” already. Choose another name, or take it off there first."
        ))),
        None => Err(Failure::Missing("version")),
    }
}

/// The name to take off.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct NameQuery {
    /// It.
    name: String,
}

/// Takes a name off a revision; the revision stays.
#[utoipa::path(
    delete, operation_id = "unname_version", path = "/api/pages/{id}/versions", tag = "pages", params(("id" = Uuid, Path), NameQuery),
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn unname(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    QueryParams(query): QueryParams<NameQuery>,
) -> Result<StatusCode, Failure> {
    let name = names::short("name", &query.name)?;
    if revisions::unname(&app.pool, maker.team(), id, &name).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Failure::Missing("named version"))
    }
}

/// The invalid document that a plan without a layout is, for those who ask for its layout.
pub(crate) fn no_layout(why: String) -> Failure {
    Invalid::one("plan.fit", why, "pins and limits that can hold together").into()
}
