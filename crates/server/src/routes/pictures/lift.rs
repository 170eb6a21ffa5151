//! Lifting a finished page: the page brought upright, its main colours, and edges to lay blocks along.

use super::{Shown, file, original, pixels};
use crate::app::App;
use crate::auth::Maker;
use crate::error::{Failure, Problem};
use crate::routes::body::{Body, Id};
use crate::schema::{EdgesDoc, EdgesView, LiftView, SwatchView};
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_vision::{find_page, jpeg, snapped, straightened, swatches};

/// Pixels along the longer side of a page that has been brought upright.
const SIDE: u32 = 1400;
/// How many main colours are taken out of a page.
const COLOURS: usize = 8;
/// The share of the page's longer side within which an edge of the picture draws a block's edge to it.
const REACH: f64 = 0.02;

/// Brings the page in a picture upright, between the corners given or those that are found, and takes out its main colours.
#[utoipa::path(
    post, operation_id = "lift_page", path = "/api/pictures/{id}/lift", tag = "pictures", params(("id" = Uuid, Path)), request_body = Shown,
    responses(
        (status = 200, body = LiftView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn lift(State(app): State<App>, maker: Maker, Id(id): Id, Body(shown): Body<Shown>) -> Result<Json<LiftView>, Failure> {
    let wanted = shown.wanted()?;
    let bytes = original(&app, &maker, id).await?;
    let work = move || {
        let picture = metrosk_vision::decode(&bytes)?.pixels;
        let corners = wanted.corners.unwrap_or_else(|| find_page(&picture, wanted.pages));
        let straight = straightened(&picture, &corners, wanted.page, wanted.pages, SIDE)?;
        let colours = swatches(&straight, COLOURS);
        Ok::<_, metrosk_vision::Unreadable>((straight, colours, corners, [picture.width(), picture.height()]))
    };
    let (straight, colours, corners, size) =
        app.desk.work(work).await?.map_err(|e| Invalid::one("corners", e.to_string(), "four corners of a page"))?;
    let made = jpeg(&straight, 88).map_err(|e| Failure::Internal(e.to_string()))?;
    app.objects.put(&file(id, "straight"), made).await?;
    let swatches = colours.iter().map(|c| SwatchView { colour: c.hex(), share: (c.share * 1000.0).round() / 1000.0 }).collect();
    Ok(Json(LiftView { corners: corners.to_vec(), size, swatches }))
}

/// Moves the sides of a block, as shares of the page brought upright, onto the strong straight edges that are near them.
#[utoipa::path(
    post, operation_id = "snap_to_picture", path = "/api/pictures/{id}/edges", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = EdgesDoc,
    responses(
        (status = 200, body = EdgesView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn edges(State(app): State<App>, maker: Maker, Id(id): Id, Body(asked): Body<EdgesDoc>) -> Result<Json<EdgesView>, Failure> {
    let sides = asked.sides;
    if sides.iter().any(|s| !s.is_finite() || s.abs() > 4.0) || sides[2] <= sides[0] || sides[3] <= sides[1] {
        return Err(Invalid::one("sides", format!("{sides:?}"), "left, top, right and bottom as shares of the page, the first two smaller").into());
    }
    let bytes = pixels(&app, &maker, id, "straight").await?;
    let work = move || {
        let page = metrosk_vision::decode(&bytes)?.pixels;
        let (w, h) = (f64::from(page.width()), f64::from(page.height()));
        let [l, t, r, b] = snapped(&page, [sides[0] * w, sides[1] * h, sides[2] * w, sides[3] * h], REACH * w.max(h));
        Ok::<_, metrosk_vision::Unreadable>([l / w, t / h, r / w, b / h])
    };
    let sides = app.desk.work(work).await?.map_err(|e| Failure::Internal(e.to_string()))?;
    Ok(Json(EdgesView { sides }))
}
