//! The drawer.

use super::body::{Body, Document, Id, InHand, QueryParams, Raw};
use super::history::Before;
use super::once::{Answer, Once, begin};
use super::{archives, names, notation};
use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::error::{Failure, Problem};
use crate::schema::{PageCard, SketchChange, SketchDoc, SketchRevisionView, SketchView};
use crate::state::App;
use crate::store::events::{self, NewEvent};
use crate::store::sketches::{self, Change, SketchRow};
use crate::store::{pages, pictures};
use axum::Json;
use axum::extract::rejection::PathRejection;
use axum::extract::{Path, State};
use axum::http::{HeaderMap, StatusCode};
use metrosk_core::document::Invalid;
use metrosk_core::sketch::{Flip, QuarterTurn, Sketch, changes_for};
use serde::Deserialize;
use serde_json::Value;
use utoipa::IntoParams;
use uuid::Uuid;

/// Most of a sketch's revisions in one answer.
const MOST_REVISIONS: i64 = 100;

/// What is looked for in the drawer.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct DrawerQuery {
    /// Words that name, note or maker must hold.
    search: Option<String>,
    /// Those that were put away.
    #[serde(default)]
    archived: bool,
    /// So many photos are at hand: the sketches that suit them best come first.
    #[param(minimum = 1, maximum = 60)]
    photos: Option<u32>,
    /// So many of them upright.
    #[param(maximum = 60)]
    upright: Option<u32>,
}

/// The picture that a sketch comes from.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct FromPicture {
    /// The picture that it was read from or laid over.
    picture: Option<Uuid>,
    /// The lift of that picture that it was laid over.
    lift: Option<Uuid>,
}

/// The team's sketches, oldest first.
#[utoipa::path(
    get, operation_id = "list_sketches", path = "/api/sketches", tag = "sketches", params(DrawerQuery),
    responses(
        (status = 200, body = Vec<SketchView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn list(
    State(app): State<App>,
    member: Member,
    QueryParams(query): QueryParams<DrawerQuery>,
) -> Result<Json<Vec<SketchView>>, Failure> {
    let rows = sketches::list(&app.pool, member.team(), query.archived).await?;
    let words: Vec<String> = query
        .search
        .unwrap_or_default()
        .split_whitespace()
        .map(str::to_lowercase)
        .collect();
    let found = rows.into_iter().filter(|r| is_about(r, &words)).map(view);
    let mut found: Vec<SketchView> = found.collect::<Result<_, _>>()?;
    if let Some(photos) = query.photos {
        for sketch in &mut found {
            let read = Sketch::from_json(&sketch.document)?;
            sketch.changes =
                changes_for(&read, photos as usize, query.upright.unwrap_or(0) as usize);
        }
        // The sort is stable: among equals the older comes first, as in the drawer.
        found.sort_by_key(|s| s.changes.unwrap_or(usize::MAX));
    }
    Ok(Json(found))
}

/// Whether a sketch's name, note or makers hold every word.
fn is_about(row: &SketchRow, words: &[String]) -> bool {
    let origin = &row.document["origin"];
    let told = [
        &origin["maker"],
        &origin["note"],
        &origin["after"],
        &origin["how"],
        &row.document["tags"],
    ];
    let text = told.iter().fold(row.name.to_lowercase(), |all, t| {
        format!("{all} {}", t.to_string().to_lowercase())
    });
    words.iter().all(|w| text.contains(w.as_str()))
}

/// One sketch, with what was read from it.
#[utoipa::path(
    get, operation_id = "show_sketch", path = "/api/sketches/{id}", tag = "sketches", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = SketchView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<SketchView>, Failure> {
    Ok(Json(view(find(&app, &member, id).await?)?))
}

/// The pages made from a sketch, newest first.
#[utoipa::path(
    get, operation_id = "pages_of_sketch", path = "/api/sketches/{id}/pages", tag = "sketches", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<PageCard>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn pages_of(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<PageCard>>, Failure> {
    find(&app, &member, id).await?;
    let rows = pages::of_sketch(&app.pool, member.team(), id).await?;
    Ok(Json(rows.into_iter().map(crate::views::card).collect()))
}

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
        super::body::download(
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
        super::body::download("application/zip", "sketches.zip"),
        archives::sketches(&rows)?,
    ))
}

/// Puts a sketch document into the drawer.
#[utoipa::path(
    post, operation_id = "add_sketch", path = "/api/sketches", tag = "sketches", request_body = SketchDoc,
    params(FromPicture, ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = SketchView),
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
    QueryParams(from): QueryParams<FromPicture>,
    Document(body): Document,
) -> Result<Answer, Failure> {
    let sketch = Sketch::from_json(&body)?;
    let mut write = begin!(once, &app, &maker, "add a sketch");
    let id = put(write.db(), &maker, &sketch).await?;
    if let Some(picture) = from.picture {
        pictures::find(write.db(), maker.team(), picture)
            .await?
            .ok_or(Failure::Missing("picture"))?;
        if let Some(lift) = from.lift {
            let found = pictures::find_lift(write.db(), maker.team(), lift).await?;
            found
                .filter(|l| l.picture_id == picture)
                .ok_or(Failure::Missing("lift"))?;
        }
        sketches::set_source(write.db(), maker.team(), id, picture, from.lift).await?;
    }
    let row = sketches::find(write.db(), maker.team(), id)
        .await?
        .ok_or(Failure::Missing("sketch"))?;
    write.finish(StatusCode::CREATED, &view(row)?).await
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

/// What the core writes back goes into the drawer, unknown fields included, so that every document there has one form.
async fn put(db: &mut sqlx::PgConnection, maker: &Maker, sketch: &Sketch) -> Result<Uuid, Failure> {
    let name = if sketch.name.trim().is_empty() {
        "Unnamed sketch"
    } else {
        sketch.name.trim()
    };
    Ok(sketches::insert(db, maker.team(), name, &sketch.to_json(), maker.name()).await?)
}

/// Renames a sketch, tags it, sets it aside or takes it back.
#[utoipa::path(
    put, operation_id = "change_sketch", path = "/api/sketches/{id}", tag = "sketches", params(("id" = Uuid, Path)), request_body = SketchChange,
    responses(
        (status = 200, body = SketchView),
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
    Body(change): Body<SketchChange>,
) -> Result<Json<SketchView>, Failure> {
    let mut row = find(&app, &maker, id).await?;
    let mut reasons = Vec::new();
    if let Some(name) = &change.name {
        row.name = names::short("name", name)?;
        row.document["name"] = row.name.as_str().into();
        reasons.push("renamed");
    }
    if let Some(tags) = &change.tags {
        row.document["tags"] = names::tags(tags)?.into();
        reasons.push("tagged");
    }
    let archived = change.archived.unwrap_or(row.archived_at.is_some());
    if archived != row.archived_at.is_some() {
        reasons.push(if archived { "set aside" } else { "taken back" });
    }
    let reason = if reasons.is_empty() {
        "changed".to_owned()
    } else {
        reasons.join(", ")
    };
    let change_to = Change {
        name: &row.name,
        document: &row.document,
        archived,
        author: maker.name(),
        reason: &reason,
    };
    advance(&app, &maker, id, change.revision, change_to).await
}

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
async fn advance(
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

/// How a copy stands.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Orientation {
    /// 0, 90, 180 or 270 degrees clockwise; 0 and 180 for a spread.
    turn: Option<u32>,
    /// `none`, `across` or `down`.
    flip: Option<String>,
}

/// Copies a sketch in the drawer; the copy is turned and flipped as asked.
#[utoipa::path(
    post, operation_id = "copy_sketch", path = "/api/sketches/{id}/copy", tag = "sketches",
    params(("id" = Uuid, Path), Orientation, ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = SketchView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn copy(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    QueryParams(stands): QueryParams<Orientation>,
) -> Result<Answer, Failure> {
    let mut row = find(&app, &maker, id).await?;
    if stands.turn.is_some() || stands.flip.is_some() {
        row.document = oriented(&row, &stands)?.to_json();
    }
    let name = copied(&row.name);
    row.document["name"] = name.as_str().into();
    let mut write = begin!(once, &app, &maker, &format!("copy sketch {id}"));
    let copy =
        sketches::insert(write.db(), maker.team(), &name, &row.document, maker.name()).await?;
    let row = sketches::find(write.db(), maker.team(), copy)
        .await?
        .ok_or(Failure::Missing("sketch"))?;
    write.finish(StatusCode::CREATED, &view(row)?).await
}

/// A sketch of the drawer, turned and flipped.
fn oriented(row: &SketchRow, stands: &Orientation) -> Result<Sketch, Failure> {
    let sketch = Sketch::from_json(&row.document)?;
    let degrees = stands.turn.unwrap_or(0);
    let turn =
        QuarterTurn::from_degrees(degrees).filter(|t| !(t.exchanges() && sketch.canvas.pages == 2));
    let allowed = if sketch.canvas.pages == 2 {
        "0 or 180 for a sketch of two pages"
    } else {
        "0, 90, 180 or 270"
    };
    let turn = turn.ok_or_else(|| Invalid::one("turn", degrees.to_string(), allowed))?;
    let flip = match stands.flip.as_deref() {
        None => Flip::None,
        Some(name) => Flip::from_name(name)
            .ok_or_else(|| Invalid::one("flip", format!("{name:?}"), Flip::NAMES.join(", ")))?,
    };
    Ok(sketch.oriented(turn, flip))
}

/// The name of a copy, no longer than a name may be.
pub(crate) fn copied(name: &str) -> String {
    let room = names::LONGEST - 7;
    format!(
        "{}, a copy",
        name.chars().take(room - 1).collect::<String>().trim_end()
    )
}

pub(crate) async fn find(app: &App, member: &Member, id: Uuid) -> Result<SketchRow, Failure> {
    sketches::find(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("sketch"))
}

pub(crate) fn view(row: SketchRow) -> Result<SketchView, Failure> {
    let sketch = Sketch::from_json(&row.document).map_err(|e| {
        Failure::Internal(format!("sketch {} in the drawer is broken: {e}", row.id))
    })?;
    Ok(SketchView {
        id: row.id,
        name: row.name,
        reading: notation::reading(&sketch),
        tags: names::tags_of(&row.document),
        document: row.document,
        pages: row.pages,
        made_at: row.made_at,
        archived: row.archived_at.is_some(),
        picture: row.picture_id,
        lift: row.lift_id,
        revision: row.revision,
        changes: None,
    })
}
