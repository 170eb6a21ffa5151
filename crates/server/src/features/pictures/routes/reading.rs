//! Asks for a sketch to be read from a picture.

use crate::auth::Maker;
use crate::features::jobs::routes::job_view;
use crate::features::jobs::views::JobView;
use crate::features::pictures::job::ask as ask_to_read;
use crate::features::pictures::routes::{Shown, original};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, QueryParams};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;

/// Reads a sketch from a picture that was put in, as a job: its progress are the stages, its outcome a `PictureReading` to look over. The
/// sketch lies in no drawer yet.
#[utoipa::path(
    post, operation_id = "read_picture", path = "/api/pictures/{id}/reading", tag = "pictures", params(("id" = Uuid, Path), Shown),
    responses(
        (status = 202, body = JobView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn read(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    QueryParams(shown): QueryParams<Shown>,
) -> Result<(StatusCode, Json<JobView>), Failure> {
    shown.wanted()?;
    // What can't be read at all is told at once.
    original(&app, maker.team(), id).await?;
    let job = ask_to_read(&app, &maker, id, &shown).await?;
    Ok((
        StatusCode::ACCEPTED,
        Json(job_view(&app, &maker, job).await?),
    ))
}
