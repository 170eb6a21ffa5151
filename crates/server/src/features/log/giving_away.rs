//! A sketch of my page: her layout as a challenge sketch in the drawer, a spread folded to one page if she wants.

use super::views::SketchOfPage;
use crate::auth::Maker;
use crate::compute::Work;
use crate::features::layouts::routes::exports::fitted_page;
use crate::features::sketches::routes::{put, view};
use crate::features::sketches::store as sketches;
use crate::features::sketches::views::SketchView;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::fit::{Outcome, Request, fit};
use metrosk_core::layout::Layout;
use metrosk_core::plan::Plan;
use metrosk_core::sketch::Sketch;
use serde_json::json;

/// Puts a sketch of a page's layout into the drawer, from where it is given away as a document, a drawing or on paper.
#[utoipa::path(
    post, operation_id = "sketch_of_page", path = "/api/pages/{id}/sketch", tag = "log", params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    request_body = SketchOfPage,
    responses(
        (status = 201, body = SketchView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn sketch(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(asked): Body<SketchOfPage>,
) -> Result<Answer, Failure> {
    let name = names::short("name", asked.name.trim())?;
    let page = fitted_page(&app, &maker, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let other = plan.sketch.decisions.sketch.other;
    let of_page = page.layout.as_sketch(name, other);
    let work = move |_: &Cancel| {
        if asked.folded && of_page.canvas.pages == 2 {
            folded(&of_page)
        } else {
            Ok(of_page)
        }
    };
    let made = app.compute.run(maker.team(), Work::Fit, work).await??;
    let mut write = begin!(once, &app, &maker, "a sketch of a page");
    let id = put(write.db(), &maker, &made).await?;
    let row = sketches::find(write.db(), maker.team(), id)
        .await?
        .ok_or(Failure::Missing("sketch"))?;
    write.finish(StatusCode::CREATED, &view(row)?).await
}

/// A spread fitted to one of its pages.
fn folded(spread: &Sketch) -> Result<Sketch, Invalid> {
    let document = spread.to_json();
    let page = &document["canvas"]["page"];
    let asked = json!({"format": "metrosk-fit/1", "unit": document["unit"], "sketch": document, "target": {"page": page, "pages": 1}});
    let found = match fit(&Request::from_json(&asked)?) {
        Outcome::Proposals(ways) => ways.into_iter().next(),
        Outcome::Conflict(_) => None,
    };
    let layout: Option<Layout> = found.map(|way| way.layout);
    layout
        .map(|l| l.as_sketch(spread.name.clone(), spread.other.clone()))
        .ok_or_else(|| {
            Invalid::one(
                "folded",
                "a spread that one page can't hold",
                "a spread that fits one page, or both pages",
            )
        })
}
