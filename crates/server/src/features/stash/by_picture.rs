//! A paper by its picture: straightened, its colours taken, its pattern's scale and direction suggested.

use super::views::{ColourShareDoc, PaperInPicture, PaperShown, PaperSideDoc};
use crate::auth::Maker;
use crate::compute::Work;
use crate::documents::sketches::SizeDoc;
use crate::features::pictures::routes::{
    NewPicture, Prepared, QUALITY, SIDE, keep, original, prepared,
};
use crate::features::pictures::store as pictures;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_core::length::{Length, Unit};
use metrosk_core::stash::LARGEST_SIDE;
use metrosk_vision::{Pattern, Quad, Unreadable, find_page, jpeg, pattern, straightened};
use uuid::Uuid;

/// Brings a paper in a picture upright, between the corners given or those that are found, keeps it as a picture of its own, and suggests
/// what its side is like. Nothing is put away by it.
#[utoipa::path(
    post, operation_id = "paper_in_picture", path = "/api/pictures/{id}/paper", tag = "stash", params(("id" = Uuid, Path)), request_body = PaperShown,
    responses(
        (status = 200, body = PaperInPicture),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn paper(
    State(app): State<App>,
    maker: Maker,
    _in_hand: InHand,
    Id(id): Id,
    Body(shown): Body<PaperShown>,
) -> Result<Json<PaperInPicture>, Failure> {
    let size = size_of(&shown)?;
    let corners = corners_of(&shown)?;
    let bytes = original(&app, maker.team(), id).await?;
    let work = move |_: &_| straight(&bytes, corners, size);
    let found = app.compute.run(maker.team(), Work::Picture, work).await?;
    let (corners, pattern, ready) =
        found.map_err(|e| Invalid::one("corners", e.to_string(), "four corners of a sheet"))?;
    let new = NewPicture {
        id: Uuid::new_v4(),
        name: "A paper".to_owned(),
        made_by: maker.name(),
        is_photo: false,
    };
    let mut tx = app.pool.begin().await?;
    let row = keep(&app, &mut tx, maker.team(), new, ready).await?;
    pictures::mark_as_paper(&mut *tx, maker.team(), row.id).await?;
    tx.commit().await?;
    Ok(Json(PaperInPicture {
        side: side_of(&pattern, &shown, row.id),
        corners: corners.to_vec(),
    }))
}

fn straight(
    bytes: &[u8],
    corners: Option<Quad>,
    size: (f64, f64),
) -> Result<(Quad, Pattern, Prepared), Unreadable> {
    let picture = metrosk_vision::decode(bytes)?.pixels;
    let corners = corners.unwrap_or_else(|| find_page(&picture, 1));
    let upright = straightened(&picture, &corners, size, 1, SIDE)?;
    let found = pattern(&upright);
    let broken = |e: image::ImageError| Unreadable::Broken("new", e.to_string());
    let ready = prepared(&jpeg(&upright, QUALITY).map_err(broken)?)?;
    Ok((corners, found, ready))
}

fn size_of(shown: &PaperShown) -> Result<(f64, f64), Invalid> {
    let unit = Unit::from_name(&shown.unit)
        .ok_or_else(|| Invalid::one("unit", format!("{:?}", shown.unit), "in or mm"))?;
    let (least, most) = (Length::inches(1, 2), LARGEST_SIDE);
    for (path, side) in [("width", shown.width), ("height", shown.height)] {
        if !(least.to_units(unit)..=most.to_units(unit)).contains(&side) {
            let allowed = format!("{} to {}", least.to_text(unit), most.to_text(unit));
            return Err(Invalid::one(path, side.to_string(), allowed));
        }
    }
    Ok((shown.width, shown.height))
}

fn corners_of(shown: &PaperShown) -> Result<Option<Quad>, Invalid> {
    let Some(corners) = &shown.corners else {
        return Ok(None);
    };
    let quad = Quad::try_from(corners.as_slice());
    let found = format!("{} corners", corners.len());
    quad.map(Some)
        .map_err(|_| Invalid::one("corners", found, "four corners of a sheet"))
}

fn side_of(pattern: &Pattern, shown: &PaperShown, picture: Uuid) -> PaperSideDoc {
    let rounded = |v: f64, steps: f64| (v * steps).round() / steps;
    let longer = shown.width.max(shown.height);
    let steps = if shown.unit == "mm" { 1.0 } else { 16.0 };
    PaperSideDoc {
        name: None,
        colours: pattern
            .colours
            .iter()
            .map(|c| ColourShareDoc {
                colour: c.hex(),
                share: rounded(c.share, 1000.0),
            })
            .collect(),
        busy: rounded(pattern.busy, 100.0),
        direction: pattern.runs.name().to_owned(),
        scale: pattern
            .motif
            .map(|share| rounded(share * longer, steps).max(1.0 / steps)),
        picture: Some(picture.to_string()),
        tile: Some(SizeDoc {
            w: shown.width,
            h: shown.height,
        }),
    }
}
