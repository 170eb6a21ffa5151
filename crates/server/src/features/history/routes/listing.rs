//! A page's history, read.

use crate::auth::Member;
use crate::features::history::store::{self as revisions};
use crate::features::history::views::{RevisionPlan, RevisionView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, QueryParams};
use crate::state::App;
use axum::Json;
use axum::extract::{Path, State};
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

/// Most revisions in one answer.
const MOST: i64 = 200;

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
    crate::features::pages::routes::find(&app, &member, id).await?;
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
        station: r.station,
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
    let found = (
        revisions::reason(&app.pool, member.team(), id, revision).await?,
        revisions::plan_at(&app.pool, member.team(), id, revision).await?,
    );
    let (Some(reason), Some(plan)) = found else {
        return Err(Failure::Missing("version"));
    };
    Ok(Json(RevisionPlan {
        revision,
        reason,
        plan,
    }))
}
