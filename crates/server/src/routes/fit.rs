//! The fit, without a page.

use super::body::Document;
use crate::auth::Member;
use crate::error::{Failure, Problem};
use crate::schema::{FitDoc, ProposalsDoc};
use axum::Json;
use metrosk_core::fit::{self, Outcome, Request};
use serde_json::Value;

/// Fits a sketch to a page or spread.
#[utoipa::path(
    post, operation_id = "fit", path = "/api/fit", tag = "fit", request_body = FitDoc,
    responses((status = 200, body = ProposalsDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn propose(_member: Member, Document(body): Document) -> Result<Json<Value>, Failure> {
    let request = Request::from_json(&body)?;
    let unit = request.unit;
    Ok(Json(compute(request).await?.to_json(unit)))
}

/// Runs a fit off the threads that answer.
async fn compute(request: Request) -> Result<Outcome, Failure> {
    tokio::task::spawn_blocking(move || fit::fit(&request)).await.map_err(|e| Failure::Internal(format!("a fit did not end: {e}")))
}
