//! The drawer.

pub(crate) mod copies;
pub(crate) mod files;
pub(crate) mod notation;
pub(crate) mod revisions;

use crate::auth::{Maker, Member};
use crate::documents::sketches::SketchDoc;
use crate::features::pages::store as pages;
use crate::features::pages::views::PageCard;
use crate::features::pictures::store as pictures;
use crate::features::sketches::store as sketches;
use crate::features::sketches::store::{Change, SketchRow};
use crate::features::sketches::views::{SketchChange, SketchView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Document, Id, QueryParams};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::sketch::{Need, Sketch, needs_for, needs_sentences};
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

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
            let upright = query.upright.unwrap_or(0) as usize;
            let needs = needs_for(&read, photos as usize, upright);
            sketch.changes = needs
                .as_ref()
                .map(|needs| needs.iter().map(Need::changes).sum());
            sketch.needs = needs_sentences(&needs.unwrap_or_default());
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
    Ok(Json(
        rows.into_iter()
            .map(crate::features::pages::views::card)
            .collect(),
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

/// What the core writes back goes into the drawer, unknown fields included, so that every document there has one form.
pub(crate) async fn put(
    db: &mut sqlx::PgConnection,
    maker: &Maker,
    sketch: &Sketch,
) -> Result<Uuid, Failure> {
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
    revisions::advance(&app, &maker, id, change.revision, change_to).await
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
        needs: Vec::new(),
    })
}
