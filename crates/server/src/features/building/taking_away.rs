//! The steps of making a page on paper.

use super::making_of;
use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::routes::exports::{FittedPage, fitted_page};
use crate::features::log::{numbers, with_numbers};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, download};
use crate::http::names::file_name;
use crate::state::App;
use axum::extract::State;
use axum::http::HeaderMap;
use metrosk_core::plan::Plan;
use metrosk_sheet::{StepOnPaper, steps_pdf};

/// A page's steps in their order, each with a box to tick, why it comes where it does, what to check and what to mind, as PDF.
#[utoipa::path(
    get, operation_id = "steps_pdf", path = "/api/pages/{id}/steps.pdf", tag = "build", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "application/pdf"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn pdf(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let page = fitted_page(&app, &member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let file = file_name(&format!("{} steps", page.name), ".pdf");
    let work = move |_: &metrosk_core::Cancel| {
        let steps = on_paper(&page, &plan);
        steps_pdf(&format!("Making {}", page.name), &steps)
    };
    let made = app.compute.run(member.team(), Work::Drawing, work).await?;
    let made = made.map_err(|e| Failure::Internal(e.to_string()))?;
    Ok((download("application/pdf", &file), made))
}

fn on_paper(page: &FittedPage, plan: &Plan) -> Vec<StepOnPaper> {
    let numbers = numbers(plan, &page.layout);
    let built = making_of(plan, &page.layout).built();
    let done = &plan.build.decisions.done;
    let one = |at: usize| {
        let step = &built.steps[at];
        let why = built.edges.iter().filter(|e| e.before == at);
        let why = why.map(|e| {
            let after = with_numbers(&built.steps[e.after].text, &numbers);
            format!("Before “{after}”: {}.", e.reason.text())
        });
        let hint = Some(step.hint.clone()).filter(|h| !h.is_empty());
        let check = step.no_return.as_ref();
        let check = check.map(|c| format!("No way back after this. {c}"));
        let dries = (step.dries > 0).then(|| format!("Let it dry for {} minutes.", step.dries));
        let caution = step.caution.map(|c| c.text().to_owned());
        let notes = [hint, check, dries, caution].into_iter().flatten();
        let notes = notes.map(|n| with_numbers(&n, &numbers));
        StepOnPaper {
            text: with_numbers(&step.text, &numbers),
            notes: notes.chain(why.take(2)).collect(),
            is_done: done.contains(&step.id),
        }
    };
    built.order.iter().map(|s| one(s.step)).collect()
}
