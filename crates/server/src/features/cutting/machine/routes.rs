//! Sheets sent to the cutting machine, and the simulated machine's switches.

use super::job;
use super::simulated::MATS;
use super::store::{self as machine, MachineRow};
use super::views::{CutOrderView, MachineView};
use crate::auth::{Maker, Member};
use crate::features::cutting::taking_away::machine_sheets;
use crate::features::jobs::store::{self as jobs, NewJob};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::Body;
use crate::http::extractors::Id;
use crate::http::idempotency::{Answer, Once, begin};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use serde_json::json;
use uuid::Uuid;

/// How many orders of a page are told.
const TOLD: i64 = 20;
/// So many sheets may be sent at once.
const MOST_SHEETS: usize = 60;
const TROUBLES: [&str; 3] = ["none", "jam", "lost"];
const MOST_LINES: i32 = 10_000;

/// Sends the sheets of a page that nothing is cut of yet to the cutting machine.
#[utoipa::path(
    post, operation_id = "send_to_machine", path = "/api/pages/{id}/cut-orders", tag = "cut",
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 202, body = CutOrderView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn send(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
) -> Result<Answer, Failure> {
    let sheets = machine_sheets(&app, &maker, id).await?;
    if sheets.is_empty() {
        return Err(Failure::Standing(
            "Every sheet of this page is begun already, and a machine cuts whole sheets."
                .to_owned(),
        ));
    }
    if sheets.len() > MOST_SHEETS {
        let found = format!("{} sheets", sheets.len());
        return Err(Invalid::one("sheets", found, format!("up to {MOST_SHEETS} at once")).into());
    }
    let mut write = begin!(once, &app, &maker, "send sheets to the cutting machine");
    let order = Uuid::new_v4();
    let job = put_down(write.db(), &maker, order).await?;
    let ids = (order, id, job);
    machine::insert(write.db(), maker.team(), ids, &json!(sheets), maker.name()).await?;
    let view = find(write.db(), maker.team(), order).await?;
    write.finish(StatusCode::ACCEPTED, &view).await
}

async fn find(
    db: &mut sqlx::PgConnection,
    team: Uuid,
    order: Uuid,
) -> Result<CutOrderView, Failure> {
    let rows = machine::orders(db, team, (None, Some(order)), 1).await?;
    let row = rows.into_iter().next().ok_or(Failure::Missing("order"))?;
    Ok(row.into())
}

async fn put_down(
    db: &mut sqlx::PgConnection,
    maker: &Maker,
    order: Uuid,
) -> Result<Uuid, Failure> {
    let key = order.to_string();
    let new = NewJob {
        kind: job::KIND,
        key: Some(&key),
        input: &json!({"order": order}),
        asked_by: maker.name(),
    };
    Ok(jobs::insert(db, maker.team(), new).await?)
}

/// Goes on with an order that stopped: no line is cut twice.
#[utoipa::path(
    post, operation_id = "go_on_cutting", path = "/api/cut-orders/{id}/go-on", tag = "cut", params(("id" = Uuid, Path)),
    responses(
        (status = 202, body = CutOrderView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn go_on(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<(StatusCode, Json<CutOrderView>), Failure> {
    let mut tx = app.pool.begin().await?;
    find(&mut tx, maker.team(), id).await?;
    let job = put_down(&mut tx, &maker, id).await?;
    machine::go_on_with(&mut *tx, maker.team(), id, job).await?;
    let view = find(&mut tx, maker.team(), id).await?;
    tx.commit().await?;
    Ok((StatusCode::ACCEPTED, Json(view)))
}

/// A page's orders, the newest first: how far each sheet is, and what stopped the blade.
#[utoipa::path(
    get, operation_id = "cut_orders", path = "/api/pages/{id}/cut-orders", tag = "cut", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<CutOrderView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn orders(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<CutOrderView>>, Failure> {
    crate::features::pages::routes::find(&app, &member, id).await?;
    let rows = machine::orders(&app.pool, member.team(), (Some(id), None), TOLD).await?;
    Ok(Json(rows.into_iter().map(CutOrderView::from).collect()))
}

/// The simulated cutting machine as it is.
#[utoipa::path(
    get, operation_id = "machine", path = "/api/cutting-machine", tag = "cut",
    responses((status = 200, body = MachineView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn machine_state(
    State(app): State<App>,
    member: Member,
) -> Result<Json<MachineView>, Failure> {
    let mut tx = app.pool.begin().await?;
    let row = machine::machine(&mut tx, member.team()).await?;
    tx.commit().await?;
    Ok(Json(row.into()))
}

/// Changes its mat, jams it, lets it lose its place, or sets it right.
#[utoipa::path(
    put, operation_id = "set_machine", path = "/api/cutting-machine", tag = "cut", request_body = MachineView,
    responses(
        (status = 200, body = MachineView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn set_machine(
    State(app): State<App>,
    maker: Maker,
    Body(to): Body<MachineView>,
) -> Result<Json<MachineView>, Failure> {
    let one_of = |path: &str, found: &str, allowed: &[&str]| {
        let is_known = allowed.contains(&found);
        is_known
            .then_some(())
            .ok_or_else(|| Invalid::one(path, format!("“{found}”"), allowed.join(", ")))
    };
    one_of("mat", &to.mat, &MATS.map(|(name, _)| name))?;
    one_of("trouble", &to.trouble, &TROUBLES)?;
    if !(0..=MOST_LINES).contains(&to.trouble_after) {
        let found = to.trouble_after.to_string();
        return Err(Invalid::one("trouble_after", found, format!("0 to {MOST_LINES}")).into());
    }
    let row = MachineRow {
        mat: to.mat.clone(),
        jammed: to.jammed,
        lost: to.lost,
        trouble: to.trouble.clone(),
        trouble_after: to.trouble_after,
    };
    machine::set_machine(&app.pool, maker.team(), &row).await?;
    Ok(Json(to))
}
