//! The fit, without a page.

pub(crate) mod exports;

use crate::auth::Member;
use crate::compute::Work;
use crate::documents::answers::{ChangeDoc, ProposalsDoc, RefitDoc};
use crate::documents::requests::FitDoc;
use crate::documents::sketches::SketchDoc;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::fit::{self, Choices, Request};
use metrosk_core::sketch::{Change, Sketch};
use serde_json::Value;

/// Fits a sketch to a page or spread.
#[utoipa::path(
    post, operation_id = "fit", path = "/api/fit", tag = "fit", request_body = FitDoc,
    responses((status = 200, body = ProposalsDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn propose(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let work = move |cancel: &Cancel| {
        let request = Request::from_json(&body)?;
        let outcome = fit::fit_while(&request, cancel).ok_or(Failure::Busy)?;
        Ok(Json(outcome.to_json(request.unit)))
    };
    app.compute.run(member.team(), Work::Fit, work).await?
}

/// Fits again with what an earlier proposal settled: one solve, for a block that follows a hand.
#[utoipa::path(
    post, operation_id = "refit", path = "/api/fit/again", tag = "fit", request_body = RefitDoc,
    responses((status = 200, body = ProposalsDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn again(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let work = move |_: &Cancel| {
        let request =
            Request::from_json(part(&body, "fit")?).map_err(|e| names::under("fit", e))?;
        let choices =
            Choices::from_json(part(&body, "choices")?).map_err(|e| names::under("choices", e))?;
        let outcome = fit::refit(&request, &choices).map_err(|e| names::under("choices", e))?;
        Ok(Json(outcome.to_json(request.unit)))
    };
    app.compute.run(member.team(), Work::Fit, work).await?
}

/// A sketch with one thing changed: a block put straight, photos swapped, a cluster at another corner, another kind.
#[utoipa::path(
    post, operation_id = "change_blocks", path = "/api/notation/change", tag = "sketches", request_body = ChangeDoc,
    responses((status = 200, body = SketchDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn change(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let work = move |_: &Cancel| {
        let sketch =
            Sketch::from_json(part(&body, "sketch")?).map_err(|e| names::under("sketch", e))?;
        let change = Change::from_json(part(&body, "change")?, &sketch)
            .map_err(|e| names::under("change", e))?;
        Ok(Json(
            sketch
                .changed(&change)
                .map_err(|e| names::under("sketch", e))?
                .to_json(),
        ))
    };
    app.compute.run(member.team(), Work::Document, work).await?
}

/// A document within a body.
fn part<'a>(body: &'a Value, name: &str) -> Result<&'a Value, Invalid> {
    body.get(name)
        .ok_or_else(|| Invalid::one(name, "nothing", "a document"))
}
