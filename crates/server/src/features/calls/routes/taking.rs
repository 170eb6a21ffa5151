//! Taking a call, giving it back, and beginning a page for it.

use super::keep::{call_view, find};
use crate::auth::Maker;
use crate::compute::Work;
use crate::features::calls::days;
use crate::features::calls::routes::hop::{before_mine, bones_of};
use crate::features::calls::store::{self as calls, CallRow, Plans, hops};
use crate::features::calls::views::{CallView, PageForCall, Taking};
use crate::features::events::store::{self as events, NewEvent};
use crate::features::pages::routes::finish;
use crate::features::pages::store as pages;
use crate::features::pages::views::PageView;
use crate::features::sketches::store as sketches;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use chrono::NaiveDate;
use metrosk_core::Cancel;
use metrosk_core::calls::Call;
use metrosk_core::document::Invalid;
use metrosk_core::plan::{Defaults, start_for_call};
use metrosk_core::sketch::Sketch;
use sqlx::PgConnection;
use uuid::Uuid;

/// Takes a call; where a page of the team's answers it already, with that page.
#[utoipa::path(
    post, operation_id = "take_call", path = "/api/calls/{id}/taking", tag = "calls", params(("id" = Uuid, Path)), request_body = Taking,
    responses(
        (status = 200, body = CallView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn take(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    Body(taking): Body<Taking>,
) -> Result<Json<CallView>, Failure> {
    let mut tx = app.pool.begin().await?;
    let row = find(&mut tx, &maker, id).await?;
    if let Some(page) = taking.page {
        let found = pages::find(&mut *tx, maker.team(), page)
            .await?
            .ok_or(Failure::Missing("page"))?;
        if let Some(other) = found.call.filter(|c| c.0.id != id) {
            let told = format!("That page answers “{}” already.", other.0.name);
            return Err(Failure::Standing(told));
        }
    }
    calls::take(&mut *tx, maker.team(), id, maker.person.id, taking.page).await?;
    told(&mut tx, &maker, &row).await?;
    let view = call_view(&mut tx, &maker, id).await?;
    tx.commit().await?;
    Ok(Json(view))
}

/// Gives a call back. A page that was begun for it stays, and answers no call any more.
#[utoipa::path(
    delete, operation_id = "give_call_back", path = "/api/calls/{id}/taking", tag = "calls", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = CallView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn give_back(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<Json<CallView>, Failure> {
    let mut tx = app.pool.begin().await?;
    let row = find(&mut tx, &maker, id).await?;
    let links = hops::links(&mut *tx, maker.team(), &[id]).await?;
    if links.iter().any(|l| l.person_id == Some(maker.person.id)) {
        return Err(Failure::Standing(
            "You stand in this hop's chain. Take yourself out of the chain: it closes up, and the makers after you are told.".to_owned(),
        ));
    }
    if !calls::give_back(&mut *tx, maker.team(), id, maker.person.id).await? {
        return Err(Failure::Standing(
            "You have not taken this call.".to_owned(),
        ));
    }
    told(&mut tx, &maker, &row).await?;
    let view = call_view(&mut tx, &maker, id).await?;
    tx.commit().await?;
    Ok(Json(view))
}

/// Tells the team that who takes part in a call is another.
async fn told(db: &mut PgConnection, maker: &Maker, row: &CallRow) -> Result<(), Failure> {
    let event = NewEvent::of(events::CALL, row.id, row.revision, maker.name());
    Ok(events::tell(db, maker.team(), event).await?)
}

/// Begins her page for a call: with its sketch, size, date and credits; in a hop with what the page before hers has become.
#[utoipa::path(
    post, operation_id = "start_page_for_call", path = "/api/calls/{id}/pages", tag = "calls", request_body = PageForCall,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn start(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(wanted): Body<PageForCall>,
) -> Result<Answer, Failure> {
    let mut write = begin!(once, &app, &maker, &format!("begin a page for call {id}"));
    let row = find(write.db(), &maker, id).await?;
    not_begun_yet(write.db(), &maker, id).await?;
    let call = Call::from_json(&row.document)?;
    let name = names::short("name", wanted.name.as_deref().unwrap_or(&call.name))?;
    let from = begin_with(&app, write.db(), &maker, &row, wanted.sketch).await?;
    let defaults = Defaults::from_json(&maker.person.defaults).unwrap_or_default();
    let mut document = row.document.clone();
    if call.asks_for_sketch() {
        document["sketch"] = from.sketch.to_json();
    }
    let of = (row.id.to_string(), row.revision);
    let plan = start_for_call(&from.sketch, &defaults, (&call, &document), (&of.0, of.1));
    let page = pages::NewPage {
        sketch: from.drawer,
        name: &name,
        due: from.due.or(call.due).and_then(days::stored),
        author: maker.name(),
        plan: &plan,
        reason: "started for the call",
    };
    let page = pages::insert(write.db(), maker.team(), page).await?;
    calls::take(write.db(), maker.team(), id, maker.person.id, Some(page)).await?;
    told(write.db(), &maker, &row).await?;
    finish(write, &maker, page, StatusCode::CREATED).await
}

/// A maker answers a call with one page.
async fn not_begun_yet(db: &mut PgConnection, maker: &Maker, call: Uuid) -> Result<(), Failure> {
    let takings = calls::takings(db, maker.team(), &[call], Plans::Unnoted).await?;
    let mine = takings.into_iter().find(|t| t.person_id == maker.person.id);
    match mine.and_then(|t| t.page_name) {
        Some(name) => Err(Failure::Standing(format!(
            "You answer this call with “{name}” already."
        ))),
        None => Ok(()),
    }
}

/// What a page begins with.
struct Beginning {
    sketch: Sketch,
    /// The sketch in the drawer, where it is one.
    drawer: Option<Uuid>,
    /// Her own day in a hop.
    due: Option<NaiveDate>,
}

async fn begin_with(
    app: &App,
    db: &mut PgConnection,
    maker: &Maker,
    row: &CallRow,
    wanted: Option<Uuid>,
) -> Result<Beginning, Failure> {
    let links = hops::links(&mut *db, maker.team(), &[row.id]).await?;
    let place = links
        .iter()
        .position(|l| l.person_id == Some(maker.person.id));
    let due = place.and_then(|p| days::read(links[p].day));
    if let (None, Some(before)) = (
        wanted,
        before_mine(&mut *db, maker, row.id, &links, place).await?,
    ) {
        let work = move |cancel: &Cancel| bones_of(before, cancel);
        let sketch = app
            .compute
            .run(maker.team(), Work::Fit, work)
            .await?
            .map_err(Failure::Standing)?;
        return Ok(Beginning {
            sketch,
            drawer: None,
            due,
        });
    }
    let (document, drawer) = match wanted.or(row.sketch_id) {
        Some(id) if wanted.is_some() || row.document.get("sketch").is_none() => {
            let found = sketches::find(db, maker.team(), id)
                .await?
                .ok_or(Failure::Missing("sketch"))?;
            (found.document, Some(id))
        }
        drawer => (row.document["sketch"].clone(), drawer),
    };
    if document.is_null() {
        return Err(Invalid::one(
            "sketch",
            "nothing: this call asks for no sketch of its own",
            "a sketch out of the drawer",
        )
        .into());
    }
    let sketch = Sketch::from_json(&document)?;
    if sketch.blocks.is_empty() {
        let found = format!("“{}”, which has no blocks", sketch.name);
        return Err(Invalid::one("sketch", found, "a sketch with at least one block").into());
    }
    Ok(Beginning {
        sketch,
        drawer,
        due,
    })
}
