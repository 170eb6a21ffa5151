//! Names given to revisions.

use crate::auth::{Maker, Member};
use crate::features::history::store::{self as revisions};
use crate::features::history::views::{NewVersion, VersionView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, QueryParams};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::IntoParams;

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
    crate::features::pages::routes::find(&app, &member, id).await?;
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
