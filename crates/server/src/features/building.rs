//! The order of making a page. Without a page's row: what is asked stands in the body.

pub(crate) mod taking_away;
pub(crate) mod views;

use crate::auth::Member;
use crate::compute::Work;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::building::Making;
use metrosk_core::document::Invalid;
use metrosk_core::layout::Layout;
use metrosk_core::photos::Photos;
use metrosk_core::plan::Plan;
use serde_json::Value;
use views::{BuildAskedDoc, BuiltDoc};

/// The steps of a page in an order, what comes before what and why.
#[utoipa::path(
    post, operation_id = "build_ordered", path = "/api/build/ordered", tag = "build", request_body = BuildAskedDoc,
    responses((status = 200, body = BuiltDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn ordered(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let (plan, layout) = read(&body)?;
    let work = move |_: &metrosk_core::Cancel| making_of(&plan, &layout).built().to_json();
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}

/// What the steps of a page are made of.
pub(crate) fn making_of<'a>(plan: &'a Plan, layout: &'a Layout) -> Making<'a> {
    let papers = &plan.papers.decisions;
    let title = plan.words.decisions.title.as_ref();
    Making {
        unit: plan.unit,
        layout,
        has_papers: !papers.pieces.is_empty(),
        prints: has_files(plan),
        gutted: [0, 1].map(|n| papers.gut.from.contains(&format!("ground-{n}"))),
        title: title.map(|t| t.text.as_str()),
        decisions: &plan.build.decisions,
    }
}

fn read(body: &Value) -> Result<(Plan, Layout), Invalid> {
    let part = |name: &str| body.get(name).unwrap_or(&Value::Null);
    let plan = Plan::from_json(part("plan")).map_err(|e| e.under("plan"))?;
    let layout = Layout::from_json(part("layout")).map_err(|e| e.under("layout"))?;
    Ok((plan, layout))
}

/// Whether any photo of the page still has to be printed.
fn has_files(plan: &Plan) -> bool {
    match &plan.photos.decisions.photos {
        Photos::Prints(prints) => prints.iter().any(|p| p.is_file),
        Photos::AsDrawn | Photos::Count(_) => false,
    }
}
