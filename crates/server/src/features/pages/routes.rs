//! Pages in the making.

use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::features::events::store::{self as events, NewEvent};
use crate::features::history::store as revisions;
use crate::features::layouts::job as layouts;
use crate::features::pages::store::{Details, PageRow, Shelf};
use crate::features::pages::views::{DetailsView, NewPage, PageCard, PageChange, PageView};
use crate::features::pages::{store as pages, views};
use crate::features::sketches::routes::copies::copied;
use crate::features::sketches::store as sketches;
use crate::features::stash::holding;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, QueryParams};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::fit::back;
use metrosk_core::plan::{self, Defaults, Plan, brought_up};
use metrosk_core::sketch::Sketch;
use serde::Deserialize;
use serde_json::Value;
use sqlx::PgConnection;
use time::Date;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// Most pages in one answer.
const MOST: u32 = 500;
/// Most revisions of a page's details in one answer.
const MOST_DETAILS: i64 = 200;

/// Which shelf of the table.
#[derive(Debug, Clone, Copy, Default, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub(crate) enum ShelfName {
    /// In the making, by due date.
    #[default]
    Making,
    /// Finished.
    Finished,
    /// Put away.
    Archived,
}

/// Which pages are asked for.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct TableQuery {
    /// `making` (the default), `finished` or `archived`
    #[serde(default)]
    #[param(inline)]
    shelf: ShelfName,
    /// At most so many, up to 500; 200 where nothing is said.
    #[param(minimum = 1, maximum = 500)]
    most: Option<u32>,
    /// From this place on.
    #[param(maximum = 1_000_000)]
    from: Option<u32>,
}

/// The team's pages of one shelf: in the making by due date, the others newest first.
#[utoipa::path(
    get, operation_id = "list_pages", path = "/api/pages", tag = "pages", params(TableQuery),
    responses(
        (status = 200, body = Vec<PageCard>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn list(
    State(app): State<App>,
    member: Member,
    QueryParams(query): QueryParams<TableQuery>,
) -> Result<Json<Vec<PageCard>>, Failure> {
    let shelf = match query.shelf {
        ShelfName::Making => Shelf::Making,
        ShelfName::Finished => Shelf::Finished,
        ShelfName::Archived => Shelf::Archived,
    };
    let (most, from) = (query.most.unwrap_or(200), query.from.unwrap_or(0));
    if !(1..=MOST).contains(&most) {
        return Err(Invalid::one("most", most.to_string(), format!("1 to {MOST}")).into());
    }
    let rows = pages::list(&app.pool, member.team(), shelf, most.into(), from.into()).await?;
    if rows.iter().any(|r| !r.known) {
        let mut tx = app.pool.begin().await?;
        for row in rows.iter().filter(|r| !r.known) {
            layouts::make_later(&mut tx, member.team(), row).await?;
        }
        tx.commit().await?;
    }
    Ok(Json(rows.into_iter().map(views::card).collect()))
}

/// One page with its newest plan.
#[utoipa::path(
    get, operation_id = "show_page", path = "/api/pages/{id}", tag = "pages", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<PageView>, Failure> {
    let mut db = app.pool.acquire().await?;
    Ok(Json(page_view(&mut db, member.team(), id).await?))
}

/// The plan for the back of a page, with what shows through the front held in place.
async fn plan_for_back(
    app: &App,
    team: Uuid,
    first: Value,
    front: Value,
    see_through: Vec<String>,
    sketch: Sketch,
) -> Result<Value, Failure> {
    let work = move |cancel: &Cancel| {
        let front = Plan::from_json(&front)?
            .fitted(cancel)
            .ok_or(Failure::Busy)?
            .map_err(|conflict| {
                Invalid::one(
                    "back_of",
                    conflict.text,
                    "a page whose pins and limits can hold together",
                )
            })?;
        let back = back(&front.layout, &see_through, &sketch)?;
        let plan = plan::with_back(first, &front.layout, &back);
        Plan::from_json(&plan)?;
        Ok(plan)
    };
    app.compute.run(team, Work::Fit, work).await?
}

/// Starts a page from a sketch, or the back of a page.
#[utoipa::path(
    post, operation_id = "start_page", path = "/api/pages", tag = "pages", request_body = NewPage,
    params(("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn start(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Body(new): Body<NewPage>,
) -> Result<Answer, Failure> {
    let row = sketches::find(&app.pool, maker.team(), new.sketch)
        .await?
        .ok_or(Failure::Missing("sketch"))?;
    let sketch = Sketch::from_json(&row.document)?;
    if sketch.blocks.is_empty() {
        return Err(Invalid::one(
            "sketch",
            format!("“{}”, which has no blocks", row.name),
            "a sketch with at least one block",
        )
        .into());
    }
    let name = names::short("name", new.name.as_deref().unwrap_or(&row.name))?;
    let defaults = Defaults::from_json(&maker.person.defaults).unwrap_or_default();
    let mut first = plan::start(&sketch, &defaults);
    if let Some(front) = new.back_of {
        let front = pages::find(&app.pool, maker.team(), front)
            .await?
            .ok_or(Failure::Missing("page"))?;
        first = plan_for_back(
            &app,
            maker.team(),
            first,
            front.plan,
            new.see_through.unwrap_or_default(),
            sketch,
        )
        .await?;
    }
    let mut write = begin!(once, &app, &maker, "start a page");
    let page = pages::NewPage {
        sketch: Some(row.id),
        name: &name,
        due: new.due,
        author: maker.name(),
        plan: &first,
        reason: "started from the sketch",
    };
    let id = pages::insert(write.db(), maker.team(), page).await?;
    finish(write, &maker, id, StatusCode::CREATED).await
}

/// Changes a page's name and due date, finishes it, puts it away, or takes it out again.
#[utoipa::path(
    put, operation_id = "change_page", path = "/api/pages/{id}", tag = "pages", params(("id" = Uuid, Path)), request_body = PageChange,
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn change(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    Body(change): Body<PageChange>,
) -> Result<Json<PageView>, Failure> {
    let row = find(&app, &maker, id).await?;
    let name = change
        .name
        .as_deref()
        .map_or(Ok(row.name), |n| names::short("name", n))?;
    let details = Details {
        name: &name,
        due: change.due.map_or(Ok(row.due), |d| day("due", &d))?,
        finished: change.finished.unwrap_or(row.finished_at.is_some()),
        archived: change.archived.unwrap_or(row.archived_at.is_some()),
    };
    let from = change.details_revision;
    let mut tx = app.pool.begin().await?;
    let moved = (1..i32::MAX).contains(&from)
        && pages::change_details(&mut tx, maker.team(), id, from, details, maker.name()).await?;
    if moved {
        let changed = NewEvent::of(events::DETAILS, id, from + 1, maker.name());
        events::tell(&mut *tx, maker.team(), changed).await?;
        holding::follow(&mut tx, maker.team(), id, maker.name()).await?;
        tx.commit().await?;
    }
    let newest = page_view(&mut *app.pool.acquire().await?, maker.team(), id).await?;
    if moved {
        Ok(Json(newest))
    } else {
        Err(Failure::StaleDetails {
            yours: from,
            newest: Box::new(newest),
        })
    }
}

/// What a page was called and when it was due, newest first, up to 200 revisions.
#[utoipa::path(
    get, operation_id = "page_details", path = "/api/pages/{id}/details", tag = "pages", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<DetailsView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn details(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<DetailsView>>, Failure> {
    find(&app, &member, id).await?;
    let rows = pages::details(&app.pool, member.team(), id, MOST_DETAILS).await?;
    let view = |r: pages::DetailsRow| DetailsView {
        revision: r.revision,
        name: r.name,
        due: r.due,
        finished: r.finished,
        archived: r.archived,
        author: r.author,
        made_at: r.made_at,
    };
    Ok(Json(rows.into_iter().map(view).collect()))
}

/// A day of the calendar, or null for none.
fn day(field: &str, value: &Value) -> Result<Option<Date>, Invalid> {
    let wrong = || {
        Invalid::one(
            field,
            value.to_string(),
            "a day such as 2026-12-03, or null for none",
        )
    };
    match value {
        Value::Null => Ok(None),
        Value::String(text) => {
            let format = time::macros::format_description!("[year]-[month]-[day]");
            Date::parse(text, format).map(Some).map_err(|_| wrong())
        }
        _ => Err(wrong()),
    }
}

/// Copies a page with its newest plan; the copy has no due date.
#[utoipa::path(
    post, operation_id = "copy_page", path = "/api/pages/{id}/copy", tag = "pages",
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn copy(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
) -> Result<Answer, Failure> {
    let row = find(&app, &maker, id).await?;
    let mut write = begin!(once, &app, &maker, &format!("copy page {id}"));
    let reason = names::short(
        "reason",
        &format!(
            "copied from “{}”",
            row.name.chars().take(150).collect::<String>()
        ),
    )?;
    let page = pages::NewPage {
        sketch: row.sketch_id,
        name: &copied(&row.name),
        due: None,
        author: maker.name(),
        plan: &brought_up(&row.plan),
        reason: &reason,
    };
    let copy = pages::insert(write.db(), maker.team(), page).await?;
    finish(write, &maker, copy, StatusCode::CREATED).await
}

/// Ends a write to a page: answers with the page, and sees to its layout.
pub(crate) async fn finish(
    mut write: crate::http::idempotency::Write,
    member: &Member,
    id: Uuid,
    status: StatusCode,
) -> Result<Answer, Failure> {
    let mut row = pages::find_with_trails(write.db(), member.team(), id)
        .await?
        .ok_or(Failure::Missing("page"))?;
    let steps = row.trails.take().unwrap_or_default().0;
    let trails = revisions::trails(write.db(), member.team(), id, steps).await?;
    if !row.known {
        layouts::make_later(write.db(), member.team(), &row).await?;
    }
    holding::follow(write.db(), member.team(), id, member.name()).await?;
    let changed = NewEvent::of(events::PAGE, id, row.revision, member.name());
    events::tell(write.db(), member.team(), changed).await?;
    write.finish(status, &views::page(row, trails)).await
}

/// A page of the member's team.
pub(crate) async fn find(app: &App, member: &Member, id: Uuid) -> Result<PageRow, Failure> {
    pages::find(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("page"))
}

/// A page of a team's, with its plan and what undo and redo lead to.
pub(crate) async fn page_view(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
) -> Result<PageView, Failure> {
    let mut row = pages::find_with_trails(&mut *db, team, id)
        .await?
        .ok_or(Failure::Missing("page"))?;
    let steps = row.trails.take().unwrap_or_default().0;
    let trails = revisions::trails(db, team, id, steps).await?;
    Ok(views::page(row, trails))
}
