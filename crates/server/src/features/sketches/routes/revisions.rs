//! A sketch's revisions: put another document in its place, look at earlier ones.

use super::{find, view};
use crate::auth::{Maker, Member};
use crate::documents::sketches::SketchDoc;
use crate::features::events::store::{self as events, NewEvent};
use crate::features::history::routes::listing::Before;
use crate::features::sketches::store as sketches;
use crate::features::sketches::store::Change;
use crate::features::sketches::views::{SketchRevisionView, SketchView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, Id, QueryParams};
use crate::state::App;
use axum::Json;
use axum::extract::rejection::PathRejection;
use axum::extract::{Path, State};
use metrosk_core::sketch::Sketch;
use serde::Deserialize;
use serde_json::Value;
use utoipa::IntoParams;
use uuid::Uuid;

/// Most of a sketch's revisions in one answer.
const MOST_REVISIONS: i64 = 100;

/// Which revision a rewrite started from.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct From {
    /// The sketch's revision that it started from.
    revision: i32,
}

/// Puts another document in place of a sketch's, for going on with it. Pages made from it keep theirs.
#[utoipa::path(
    put, operation_id = "write_sketch", path = "/api/sketches/{id}/document", tag = "sketches", params(("id" = Uuid, Path), From),
    request_body = SketchDoc,
    responses(
        (status = 200, body = SketchView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn rewrite(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    QueryParams(from): QueryParams<From>,
    Document(body): Document,
) -> Result<Json<SketchView>, Failure> {
    let row = find(&app, &maker, id).await?;
    let sketch = Sketch::from_json(&body)?;
    let name = if sketch.name.trim().is_empty() {
        row.name
    } else {
        sketch.name.trim().to_owned()
    };
    let document = sketch.to_json();
    let change = Change {
        name: &name,
        document: &document,
        archived: row.archived_at.is_some(),
        author: maker.name(),
        reason: "drawn on",
    };
    advance(&app, &maker, id, from.revision, change).await
}

/// Moves a sketch on from a revision; who comes too late is told, with the newest.
pub(super) async fn advance(
    app: &App,
    maker: &Maker,
    id: Uuid,
    from: i32,
    change: Change<'_>,
) -> Result<Json<SketchView>, Failure> {
    let mut tx = app.pool.begin().await?;
    let moved = (1..i32::MAX).contains(&from)
        && sketches::change(&mut tx, maker.team(), id, from, change).await?;
    if moved {
        let changed = NewEvent::of(events::SKETCH, id, from + 1, maker.name());
        events::tell(&mut *tx, maker.team(), changed).await?;
        tx.commit().await?;
    }
    let newest = view(find(app, maker, id).await?)?;
    if moved {
        Ok(Json(newest))
    } else {
        Err(Failure::StaleSketch {
            yours: from,
            newest: Box::new(newest),
        })
    }
}

/// A sketch's revisions, newest first, up to 100.
#[utoipa::path(
    get, operation_id = "sketch_revisions", path = "/api/sketches/{id}/revisions", tag = "sketches", params(("id" = Uuid, Path), Before),
    responses(
        (status = 200, body = Vec<SketchRevisionView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn revisions(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
    QueryParams(query): QueryParams<Before>,
) -> Result<Json<Vec<SketchRevisionView>>, Failure> {
    find(&app, &member, id).await?;
    let rows = sketches::revisions(
        &app.pool,
        member.team(),
        id,
        query.before.unwrap_or(i32::MAX),
        MOST_REVISIONS,
    )
    .await?;
    let view = |r: sketches::SketchRevisionRow| SketchRevisionView {
        revision: r.revision,
        author: r.author,
        reason: r.reason,
        made_at: r.made_at,
    };
    Ok(Json(rows.into_iter().map(view).collect()))
}

/// The document of one of a sketch's revisions.
#[utoipa::path(
    get, operation_id = "sketch_revision", path = "/api/sketches/{id}/revisions/{revision}", tag = "sketches",
    params(("id" = Uuid, Path), ("revision" = i32, Path)),
    responses(
        (status = 200, body = SketchDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn revision(
    State(app): State<App>,
    member: Member,
    path: Result<Path<(Uuid, i32)>, PathRejection>,
) -> Result<Json<Value>, Failure> {
    let Path((id, revision)) = path.map_err(|_| Failure::Missing("version"))?;
    let found = sketches::document_of(&app.pool, member.team(), id, revision).await?;
    Ok(Json(found.ok_or(Failure::Missing("version"))?))
}
