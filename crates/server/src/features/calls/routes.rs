//! A page's call, checked; beside it the routes of the team's calls.

pub(crate) mod feed;
pub(crate) mod hop;
pub(crate) mod keep;
pub(crate) mod reading;
pub(crate) mod season;
pub(crate) mod taking;

use super::views::AskView;
use crate::auth::Member;
use crate::compute::Work;
use crate::features::pages::routes::find;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::Id;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::Cancel;
use metrosk_core::calls::{Finding, check};
use metrosk_core::document::Invalid;
use metrosk_core::plan::Plan;

/// How a page stands to what it is asked for, in the order of the asking; nothing where nothing is asked.
#[utoipa::path(
    get, operation_id = "page_call", path = "/api/pages/{id}/call", tag = "calls", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<AskView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn checked(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<AskView>>, Failure> {
    let plan = find(&app, &member, id).await?.plan;
    let work = move |cancel: &Cancel| -> Result<Option<Vec<Finding>>, Invalid> {
        let plan = Plan::from_json(&plan)?;
        if plan.call.decisions.call.is_none() {
            return Ok(Some(Vec::new()));
        }
        // Where pins clash there is no layout, and what needs one is not seen.
        let Some(fitted) = plan.fitted(cancel) else {
            return Ok(None);
        };
        let layout = fitted.ok().map(|p| p.layout);
        Ok(Some(check(
            &plan.call.decisions,
            &plan.request(),
            layout.as_ref(),
        )))
    };
    let found = app
        .compute
        .run(member.team(), Work::Drawing, work)
        .await??;
    let found = found.ok_or(Failure::Busy)?;
    Ok(Json(found.into_iter().map(AskView::from).collect()))
}
