//! Lifting a finished page: the page brought upright, its main colours, and edges to lay blocks along.

use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::features::files::content::{self as files, Content};
use crate::features::pictures::routes::{Shown, earlier_lifted, original};
use crate::features::pictures::store::{self as pictures, LiftRow};
use crate::features::pictures::views::{EdgesDoc, EdgesView, LiftView, SwatchView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, InHand};
use crate::state::App;
use axum::Json;
use axum::body::Bytes;
use axum::extract::State;
use axum::response::Response;
use metrosk_core::document::Invalid;
use metrosk_vision::{Swatch, find_page, jpeg, snapped, straightened, swatches};
use serde_json::json;
use uuid::Uuid;

/// Pixels along the longer side of a page that has been brought upright.
pub(crate) const SIDE: u32 = 1400;
/// How well its JPEG is kept, of 100.
pub(crate) const QUALITY: u8 = 88;
/// How many main colours are taken out of a page.
pub(crate) const COLOURS: usize = 8;
/// The share of the page's longer side within which an edge of the picture draws a block's edge to it.
const REACH: f64 = 0.02;

/// Brings the page in a picture upright, between the corners given or those that are found, and takes out its main colours. Each lift stays
/// as it is, whatever is lifted from the picture later.
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
pub(crate) async fn lift(
    State(app): State<App>,
    maker: Maker,
    _in_hand: InHand,
    Id(id): Id,
    Body(shown): Body<Shown>,
) -> Result<Json<LiftView>, Failure> {
    let wanted = shown.wanted()?;
    let bytes = original(&app, maker.team(), id).await?;
    let work = move |_: &_| {
        let picture = metrosk_vision::decode(&bytes)?.pixels;
        let corners = wanted
            .corners
            .unwrap_or_else(|| find_page(&picture, wanted.pages));
        let straight = straightened(&picture, &corners, wanted.page, wanted.pages, SIDE)?;
        let colours = swatches(&straight, COLOURS);
        Ok::<_, metrosk_vision::Unreadable>((jpeg(&straight, QUALITY), colours, corners))
    };
    let lifted = app.compute.run(maker.team(), Work::Picture, work).await?;
    let (page, colours, corners) =
        lifted.map_err(|e| Invalid::one("corners", e.to_string(), "four corners of a page"))?;
    let swatches = swatch_views(&colours);
    let page = Content {
        kind: "lift",
        media_type: "image/jpeg",
        bytes: page.map_err(|e| Failure::Internal(e.to_string()))?,
    };
    let mut tx = app.pool.begin().await?;
    let names = files::keep(&app, &mut tx, maker.team(), vec![page]).await?;
    let row = LiftRow {
        id: Uuid::new_v4(),
        picture_id: id,
        corners: json!(corners),
        swatches: json!(swatches),
        page: names.concat(),
    };
    pictures::insert_lift(&mut *tx, maker.team(), &row, maker.name()).await?;
    tx.commit().await?;
    view(&app, &maker, row).await
}

pub(crate) fn swatch_views(colours: &[Swatch]) -> Vec<SwatchView> {
    colours
        .iter()
        .map(|c| SwatchView {
            colour: c.hex(),
            share: (c.share * 1000.0).round() / 1000.0,
        })
        .collect()
}

/// A lift: where its page lay in the picture, and its main colours.
#[utoipa::path(
    get, operation_id = "show_lift", path = "/api/lifts/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = LiftView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show_lift(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<LiftView>, Failure> {
    let row = pictures::find_lift(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("lift"))?;
    view(&app, &member, row).await
}

async fn view(app: &App, member: &Member, row: LiftRow) -> Result<Json<LiftView>, Failure> {
    let picture = pictures::find(&app.pool, member.team(), row.picture_id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    let broken =
        |e: serde_json::Error| Failure::Internal(format!("lift {} is broken: {e}", row.id));
    Ok(Json(LiftView {
        id: row.id,
        picture: row.picture_id,
        corners: serde_json::from_value(row.corners.clone()).map_err(broken)?,
        size: [picture.width.unsigned_abs(), picture.height.unsigned_abs()],
        swatches: serde_json::from_value(row.swatches.clone()).map_err(broken)?,
    }))
}

/// A lifted page's pixels, upright, as JPEG.
#[utoipa::path(
    get, operation_id = "lifted_page", path = "/api/lifts/{id}/page", tag = "pictures", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "image/jpeg"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn lifted_page(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Response, Failure> {
    let row = pictures::find_lift(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("lift"))?;
    files::answer(&app, member.team(), &row.page).await
}

async fn lifted_pixels(app: &App, member: &Member, id: Uuid) -> Result<Bytes, Failure> {
    let row = pictures::find_lift(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("lift"))?;
    app.objects
        .get(&row.page)
        .await?
        .ok_or(Failure::Missing("lift"))
}

/// Moves the sides of a block, as shares of a lifted page, onto the strong straight edges that are near them.
#[utoipa::path(
    post, operation_id = "snap_to_lift", path = "/api/lifts/{id}/edges", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = EdgesDoc,
    responses(
        (status = 200, body = EdgesView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn edges(
    State(app): State<App>,
    maker: Maker,
    _in_hand: InHand,
    Id(id): Id,
    Body(asked): Body<EdgesDoc>,
) -> Result<Json<EdgesView>, Failure> {
    let sides = checked(&asked)?;
    let bytes = lifted_pixels(&app, &maker, id).await?;
    snap(&app, &maker, bytes, sides).await
}

/// The same for a page that was lifted before lifts had ids of their own.
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
pub(crate) async fn edges_of_picture(
    State(app): State<App>,
    maker: Maker,
    _in_hand: InHand,
    Id(id): Id,
    Body(asked): Body<EdgesDoc>,
) -> Result<Json<EdgesView>, Failure> {
    let sides = checked(&asked)?;
    let bytes = earlier_lifted(&app, maker.team(), id).await?;
    snap(&app, &maker, bytes, sides).await
}

fn checked(asked: &EdgesDoc) -> Result<[f64; 4], Invalid> {
    let sides = asked.sides;
    if sides.iter().any(|s| !s.is_finite() || s.abs() > 4.0)
        || sides[2] <= sides[0]
        || sides[3] <= sides[1]
    {
        return Err(Invalid::one(
            "sides",
            format!("{sides:?}"),
            "left, top, right and bottom as shares of the page, the first two smaller",
        ));
    }
    Ok(sides)
}

async fn snap(
    app: &App,
    maker: &Maker,
    page: Bytes,
    sides: [f64; 4],
) -> Result<Json<EdgesView>, Failure> {
    let work = move |_: &_| {
        let page = metrosk_vision::decode(&page)?.pixels;
        let (w, h) = (f64::from(page.width()), f64::from(page.height()));
        let [l, t, r, b] = snapped(
            &page,
            [sides[0] * w, sides[1] * h, sides[2] * w, sides[3] * h],
            REACH * w.max(h),
        );
        Ok::<_, metrosk_vision::Unreadable>([l / w, t / h, r / w, b / h])
    };
    let sides = app
        .compute
        .run(maker.team(), Work::Picture, work)
        .await?
        .map_err(|e| Failure::Internal(e.to_string()))?;
    Ok(Json(EdgesView { sides }))
}
