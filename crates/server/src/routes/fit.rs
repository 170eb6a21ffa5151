//! The fit, without a page.

use super::body::Document;
use super::names;
use crate::auth::Member;
use crate::error::{Failure, Problem};
use crate::schema::{ChangeDoc, FitDoc, ProposalsDoc, RefitDoc, SketchDoc};
use axum::Json;
use metrosk_core::document::Invalid;
use metrosk_core::fit::{self, Choices, Outcome, Request};
use metrosk_core::sketch::{Change, Sketch};
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

/// Fits again with what an earlier proposal settled: one solve, for a block that follows a hand.
#[utoipa::path(
    post, operation_id = "refit", path = "/api/fit/again", tag = "fit", request_body = RefitDoc,
    responses((status = 200, body = ProposalsDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn again(_member: Member, Document(body): Document) -> Result<Json<Value>, Failure> {
    let part = |name| part(&body, name);
    let request = Request::from_json(part("fit")?).map_err(|e| names::under("fit", e))?;
    let choices = Choices::from_json(part("choices")?).map_err(|e| names::under("choices", e))?;
    let unit = request.unit;
    let outcome = off_thread(move || fit::refit(&request, &choices)).await?;
    Ok(Json(outcome.to_json(unit)))
}

/// A sketch with one thing changed: a block put straight, photos swapped, a cluster at another corner, another kind.
#[utoipa::path(
    post, operation_id = "change_blocks", path = "/api/numbers/change", tag = "sketches", request_body = ChangeDoc,
    responses((status = 200, body = SketchDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn change(_member: Member, Document(body): Document) -> Result<Json<Value>, Failure> {
    let part = |name| part(&body, name);
    let sketch = Sketch::from_json(part("sketch")?).map_err(|e| names::under("sketch", e))?;
    let change = Change::from_json(part("change")?, &sketch).map_err(|e| names::under("change", e))?;
    Ok(Json(sketch.changed(&change).map_err(|e| names::under("sketch", e))?.to_json()))
}

/// A document within a body.
fn part<'a>(body: &'a Value, name: &str) -> Result<&'a Value, Invalid> {
    body.get(name).ok_or_else(|| Invalid::one(name, "nothing", "a document"))
}

/// Runs a fit off the threads that answer.
async fn compute(request: Request) -> Result<Outcome, Failure> {
    off_thread(move || fit::fit(&request)).await
}

async fn off_thread(work: impl FnOnce() -> Outcome + Send + 'static) -> Result<Outcome, Failure> {
    tokio::task::spawn_blocking(work).await.map_err(|e| Failure::Internal(format!("a fit did not end: {e}")))
}
