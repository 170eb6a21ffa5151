//! What she takes away: the layout as a document, the true-scale drawing, the measurement sheet.

use crate::auth::Member;
use crate::compute::Work;
use crate::documents::sketches::LayoutDoc;
use crate::features::history::routes::no_layout;
use crate::features::layouts::job::fitted;
use crate::features::pages::routes::find;
use crate::features::photos::pictures::views;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, QueryParams, download};
use crate::http::names::file_name;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderValue, header};
use metrosk_core::Cancel;
use metrosk_core::fit::Proposal;
use metrosk_core::layout::Layout;
use metrosk_core::plan::{Plan, brought_up};
use metrosk_sheet::{Paper, Pictures, Subject};
use serde::Deserialize;
use serde_json::Value;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// The layout of a page's newest plan, as a document to take away.
#[utoipa::path(
    get, operation_id = "page_layout", path = "/api/pages/{id}/layout", tag = "take away", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = LayoutDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn layout(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, Json<Value>), Failure> {
    let made = Fitted::of(&app, &member, id).await?;
    let headers = download("application/json", &file_name(&made.name, ".metrosk.json"));
    Ok((headers, Json(made.proposal.layout.to_json())))
}

/// The layout as an SVG of real inches or millimetres.
#[utoipa::path(
    get, operation_id = "page_drawing", path = "/api/pages/{id}/drawing.svg", tag = "take away", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = String, content_type = "image/svg+xml"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn drawing(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, String), Failure> {
    let made = Fitted::of(&app, &member, id).await?;
    Ok((
        download("image/svg+xml", &file_name(&made.name, ".svg")),
        metrosk_sheet::true_scale(&made.subject()),
    ))
}

/// On which paper.
#[derive(Debug, Clone, Copy, Default, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub(crate) enum PaperName {
    /// 8 1/2 by 11 in.
    Letter,
    /// 210 by 297 mm.
    #[default]
    A4,
}

/// How the sheet is wanted.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct SheetQuery {
    /// `letter` or `a4` (the default)
    #[serde(default)]
    #[param(inline)]
    paper: PaperName,
    /// Which page of it, from 1.
    sheet: Option<u32>,
}

impl SheetQuery {
    fn paper(&self) -> Paper {
        match self.paper {
            PaperName::Letter => Paper::Letter,
            PaperName::A4 => Paper::A4,
        }
    }
}

/// The measurement sheet as PDF.
#[utoipa::path(
    get, operation_id = "page_sheet", path = "/api/pages/{id}/sheet.pdf", tag = "take away", params(("id" = Uuid, Path), SheetQuery),
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
    QueryParams(query): QueryParams<SheetQuery>,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let made = Fitted::of(&app, &member, id).await?;
    let file = file_name(&made.name, ".pdf");
    let work = move |_: &Cancel| metrosk_sheet::measurement_pdf(&made.subject(), query.paper());
    let done = app.compute.run(member.team(), Work::Drawing, work).await?;
    Ok((
        download("application/pdf", &file),
        done.map_err(|e| Failure::Internal(e.to_string()))?,
    ))
}

/// One page of the measurement sheet as SVG, for looking at and printing from the browser. `X-Sheets` says how many there are.
#[utoipa::path(
    get, operation_id = "page_sheet_view", path = "/api/pages/{id}/sheet.svg", tag = "take away", params(("id" = Uuid, Path), SheetQuery),
    responses(
        (status = 200, body = String, content_type = "image/svg+xml"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn view(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
    QueryParams(query): QueryParams<SheetQuery>,
) -> Result<(HeaderMap, String), Failure> {
    let made = Fitted::of(&app, &member, id).await?;
    let paper = query.paper();
    let work = move |_: &Cancel| metrosk_sheet::measurement_pages(&made.subject(), paper);
    let mut pages = app.compute.run(member.team(), Work::Drawing, work).await?;
    let count = pages.len();
    let at = (query.sheet.unwrap_or(1) as usize).wrapping_sub(1);
    if at >= count {
        return Err(Failure::Missing("sheet"));
    }
    let mut headers = HeaderMap::new();
    headers.insert(
        header::CONTENT_TYPE,
        HeaderValue::from_static("image/svg+xml"),
    );
    headers.insert("x-sheets", HeaderValue::from(count));
    Ok((headers, pages.swap_remove(at)))
}

/// A page's newest plan, made.
struct Fitted {
    name: String,
    sketch: metrosk_core::sketch::Sketch,
    proposal: Proposal,
    pictures: Pictures,
}

/// A page with its newest plan's layout.
pub(crate) struct FittedPage {
    pub(crate) name: String,
    /// Who changed it last.
    pub(crate) author: String,
    pub(crate) plan: Value,
    pub(crate) layout: Layout,
}

/// A team's page, fitted.
pub(crate) async fn fitted_page(
    app: &App,
    member: &Member,
    id: Uuid,
) -> Result<FittedPage, Failure> {
    let row = find(app, member, id).await?;
    let proposal = fitted(&app.compute, member.team(), row.plan.clone())
        .await?
        .map_err(no_layout)?;
    Ok(FittedPage {
        name: row.name,
        author: row.author,
        plan: brought_up(&row.plan).into_owned(),
        layout: proposal.layout,
    })
}

impl Fitted {
    async fn of(app: &App, member: &Member, id: Uuid) -> Result<Fitted, Failure> {
        let row = find(app, member, id).await?;
        // The drawing's numbers are the sketch card's, so the sketch counts as it lies in the plan.
        let sketch = Plan::from_json(&row.plan)?.sketch.decisions.sketch;
        let pictures = views(app, member.team(), &brought_up(&row.plan)).await?;
        let proposal = fitted(&app.compute, member.team(), row.plan)
            .await?
            .map_err(no_layout)?;
        Ok(Fitted {
            pictures,
            name: row.name,
            sketch,
            proposal,
        })
    }

    fn subject(&self) -> Subject<'_> {
        Subject {
            name: &self.name,
            sketch: &self.sketch,
            layout: &self.proposal.layout,
            way: self.proposal.approach.name(),
            pictures: &self.pictures,
        }
    }
}
