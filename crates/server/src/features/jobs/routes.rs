//! Long work, as those see it who wait for it.

use crate::auth::{Maker, Member};
use crate::features::jobs::store as jobs;
use crate::features::jobs::views::JobView;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::Id;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use uuid::Uuid;

/// How a job stands, and what came of it. Events tell when that is worth asking.
#[utoipa::path(
    get, operation_id = "show_job", path = "/api/jobs/{id}", tag = "jobs", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = JobView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<JobView>, Failure> {
    Ok(Json(job_view(&app, &member, id).await?))
}

/// Cancels a job that has not ended. Wherever it runs, it stops.
#[utoipa::path(
    delete, operation_id = "cancel_job", path = "/api/jobs/{id}", tag = "jobs", params(("id" = Uuid, Path)),
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn cancel(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<StatusCode, Failure> {
    let mut tx = app.pool.begin().await?;
    let cancelled = jobs::cancel(&mut tx, maker.team(), id).await?;
    tx.commit().await?;
    if cancelled || jobs::find(&app.pool, maker.team(), id).await?.is_some() {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Failure::Missing("job"))
    }
}

/// A job of the member's team.
pub(crate) async fn job_view(app: &App, member: &Member, id: Uuid) -> Result<JobView, Failure> {
    let row = jobs::find(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("job"))?;
    Ok(JobView {
        id: row.id,
        kind: row.kind,
        state: row.state,
        progress: row.progress,
        outcome: row.outcome,
        problem: row.problem,
        told: row.told,
    })
}
