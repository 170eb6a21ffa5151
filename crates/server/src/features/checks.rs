//! Checks of a layout before anything is glued. Without a page's row: what is asked stands in the body.

pub(crate) mod views;

use crate::auth::Member;
use crate::compute::Work;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::checks::Check;
use serde_json::{Value, json};
use views::{CheckAskedDoc, CheckedDoc};

/// What an experienced eye would see on a layout: paper that is shut in, with cures that were tried, and edges that nearly agree.
#[utoipa::path(
    post, operation_id = "checked_layout", path = "/api/layouts/checked", tag = "fit", request_body = CheckAskedDoc,
    responses((status = 200, body = CheckedDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn layout(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let layout = body.get("layout").cloned().unwrap_or(Value::Null);
    let unit = layout.get("unit").cloned().unwrap_or_else(|| json!("in"));
    let asked = json!({"format": "metrosk-check/1", "unit": unit, "layout": layout});
    let check = Check::from_json(&asked)?;
    let work = move |_: &metrosk_core::Cancel| check.checked().to_json(&check);
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}
