//! A page's cut list and cut plan: what is cut from which sheet, by which steps. Without a page's row: what is asked stands in the body.

pub(crate) mod machine;
mod planning;
pub(crate) mod taking_away;
pub(crate) mod views;

use crate::auth::Member;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::cutting::CutDecisions;
use metrosk_core::document::Invalid;
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use metrosk_core::papers::PaperDecisions;
use planning::{PlanAsked, plan_cuts};
use serde_json::{Value, json};
use std::time::Duration;
use uuid::Uuid;
use views::{PageCutsAskedDoc, PageCutsDoc};

/// How long a better plan is looked for.
const LIMIT: Duration = Duration::from_millis(2_000);
/// How long a plan at a glance may take.
const AT_A_GLANCE: Duration = Duration::from_millis(120);

/// What is to be cut for a page, sheet by sheet. What is begun stays as it is; what is short is told before the first cut, with what could give.
#[utoipa::path(
    post, operation_id = "page_cuts", path = "/api/cut/planned", tag = "cut", request_body = PageCutsAskedDoc,
    responses((status = 200, body = PageCutsDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn planned(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let asked = read(&body)?;
    let planned = plan_cuts(&app, &member, asked, |planned| {
        let mut answer = planned.cuts.to_json(planned.unit);
        answer["cures"] = planned
            .cures
            .iter()
            .map(metrosk_core::cutting::Cure::to_json)
            .collect();
        answer
    });
    Ok(Json(planned.await?))
}

fn read(body: &Value) -> Result<PlanAsked, Invalid> {
    let unit = if body["unit"] == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let given = |name: &str| body.get(name).filter(|v| !v.is_null());
    let papers = given("papers").map_or(Ok(PaperDecisions::default()), |papers| {
        PaperDecisions::from_json(papers, unit).map_err(|e| e.under("papers"))
    })?;
    let cut = given("cut").map_or(Ok(CutDecisions::default()), |cut| {
        CutDecisions::from_json(cut, unit).map_err(|e| e.under("cut"))
    })?;
    let layout = body.get("layout").unwrap_or(&Value::Null);
    Ok(PlanAsked {
        unit,
        papers,
        cut,
        layout: Layout::from_json(layout).map_err(|e| e.under("layout"))?,
        page: body["page"]
            .as_str()
            .and_then(|id| Uuid::parse_str(id).ok()),
        limit: if body["at_a_glance"] == json!(true) {
            AT_A_GLANCE
        } else {
            LIMIT
        },
    })
}
