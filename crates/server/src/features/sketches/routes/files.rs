//! Sketches in and out of the drawer as files.

use super::{find, put, view};
use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::documents::sketches::SketchDoc;
use crate::features::sketches::views::SketchView;
use crate::features::sketches::{archives, store as sketches};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, InHand, Raw};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode};

/// A sketch as its document, to take away.
#[utoipa::path(
    get, operation_id = "sketch_document", path = "/api/sketches/{id}/document", tag = "sketches", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = SketchDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn document(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, Json<serde_json::Value>), Failure> {
    let row = find(&app, &member, id).await?;
    Ok((
        crate::http::extractors::download(
            "application/json",
            &names::file_name(&row.name, ".metrosk.json"),
        ),
        Json(row.document),
    ))
}

/// The whole drawer as one archive (zip) of sketch documents.
#[utoipa::path(
    get, operation_id = "export_sketches", path = "/api/sketches/export", tag = "sketches",
    responses((status = 200, body = Vec<u8>, content_type = "application/zip"), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn export(
    State(app): State<App>,
    member: Member,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let rows = sketches::list(&app.pool, member.team(), false).await?;
    Ok((
        crate::http::extractors::download("application/zip", "sketches.zip"),
        archives::sketches(&rows)?,
    ))
}

/// Puts one or many sketches into the drawer: a document, or an archive (zip) of documents. All of them go in, or none.
#[utoipa::path(
    post, operation_id = "import_sketches", path = "/api/sketches/import", tag = "sketches",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), params(("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = Vec<SketchView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn import(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    _in_hand: InHand,
    Raw(bytes): Raw,
) -> Result<Answer, Failure> {
    let found = app
        .compute
        .run(maker.team(), Work::Document, move |_| {
            archives::read_sketches(&bytes)
        })
        .await??;
    let mut write = begin!(once, &app, &maker, "import sketches");
    let mut added = Vec::with_capacity(found.len());
    for sketch in &found {
        let id = put(write.db(), &maker, sketch).await?;
        let row = sketches::find(write.db(), maker.team(), id)
            .await?
            .ok_or(Failure::Missing("sketch"))?;
        added.push(view(row)?);
    }
    write.finish(StatusCode::CREATED, &added).await
}
