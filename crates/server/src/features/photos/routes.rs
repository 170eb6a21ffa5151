//! What becomes of a page's prints, without a page.

use super::views::{PlacedPhotosAskedDoc, PlacedPhotosDoc};
use crate::auth::Member;
use crate::compute::Work;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
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
