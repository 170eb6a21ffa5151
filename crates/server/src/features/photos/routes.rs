//! What becomes of a page's prints, without a page.

use super::views::{ListedPrint, PlacedPhotosAskedDoc, PlacedPhotosDoc, PrintsInWords};
use crate::auth::Member;
use crate::compute::Work;
use crate::documents::requests::FaceDoc;
use crate::features::photos::pictures::picture_view;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Document, Id, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::length::{Length, Unit};
use metrosk_core::photos::listed;
use metrosk_core::placed_photos::placed_photos_of;
use serde_json::Value;

/// What becomes of prints on a layout: windows, trims, layers, thickness, and why they lie so.
#[utoipa::path(
    post, operation_id = "placed_photos", path = "/api/photos/placed", tag = "photos", request_body = PlacedPhotosAskedDoc,
    responses((status = 200, body = PlacedPhotosDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn placed(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let work = move |_: &metrosk_core::Cancel| Ok(Json(placed_photos_of(&body)?.to_json()));
    app.compute.run(member.team(), Work::Fit, work).await?
}

/// Prints without files, as a maker says them: “three 4x6 level, one 5x7 upright”.
#[utoipa::path(
    post, operation_id = "listed_prints", path = "/api/photos/listed", tag = "photos", request_body = PrintsInWords,
    responses((status = 200, body = Vec<ListedPrint>), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn in_words(
    _member: Member,
    Body(said): Body<PrintsInWords>,
) -> Result<Json<Vec<ListedPrint>>, Failure> {
    let unit = if said.unit == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let side = |l: Length| l.to_units(unit);
    let prints = listed(&said.text, unit)?
        .into_iter()
        .flat_map(|l| std::iter::repeat_n(l.size, l.count as usize))
        .map(|size| ListedPrint {
            w: side(size.w),
            h: side(size.h),
        });
    Ok(Json(prints.collect()))
}

/// What seems to matter in a photo: areas to keep, suggested from its colours and edges.
#[utoipa::path(
    get, operation_id = "what_matters", path = "/api/pictures/{id}/matters", tag = "photos", params(("id" = uuid::Uuid, Path)),
    responses(
        (status = 200, body = Vec<FaceDoc>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn matters(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<FaceDoc>>, Failure> {
    let view = picture_view(&app, member.team(), id).await?;
    let work = move |_: &metrosk_core::Cancel| {
        let picture = metrosk_vision::decode(&view).map_err(|e| e.to_string())?;
        Ok::<_, String>(metrosk_vision::matters(&picture.pixels))
    };
    let found = app.compute.run(member.team(), Work::Picture, work).await?;
    let areas = found.map_err(Failure::Internal)?;
    let share = |s: f64| (s * 1e4).floor() / 1e4;
    let area = |[x, y, w, h]: [f64; 4]| FaceDoc {
        x: share(x),
        y: share(y),
        w: share(w),
        h: share(h),
    };
    Ok(Json(areas.into_iter().map(area).collect()))
}
