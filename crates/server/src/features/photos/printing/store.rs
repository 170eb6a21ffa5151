//! Orders, the simulated printer's state, and what it printed.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::OffsetDateTime;
use uuid::Uuid;

/// Photos that were sent to be printed.
#[derive(Debug, Clone)]
pub(crate) struct OrderRow {
    pub(crate) id: Uuid,
    pub(crate) page_id: Uuid,
    pub(crate) sheets: Value,
    pub(crate) job_id: Uuid,
    pub(crate) asked_by: String,
    pub(crate) made_at: OffsetDateTime,
    /// Of its job: how it stands; none once that is forgotten.
    pub(crate) state: Option<String>,
    pub(crate) progress: Option<String>,
    pub(crate) problem: Option<Value>,
    /// The numbers of the sheets that are printed.
    pub(crate) printed: Vec<i32>,
    /// When each of them was.
    pub(crate) printed_at: Vec<OffsetDateTime>,
}

/// Writes an order down.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    team: Uuid,
    (id, page, job): (Uuid, Uuid, Uuid),
    sheets: &Value,
    asked_by: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO print_orders (id, team_id, page_id, sheets, job_id, asked_by) VALUES ($1, $2, $3, $4, $5, $6)",
        id,
        team,
        page,
        sheets,
        job,
        asked_by
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Another job goes on with an order.
pub(crate) async fn go_on_with(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    job: Uuid,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE print_orders SET job_id = $3 WHERE team_id = $1 AND id = $2",
        team,
        id,
        job
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// One of a team's orders.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<OrderRow>> {
    sqlx::query_as!(
        OrderRow,
        "SELECT o.id, o.page_id, o.sheets, o.job_id, o.asked_by, o.made_at, j.state AS \"state?\", j.progress, j.problem, \
             ARRAY(SELECT sheet FROM printed_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"printed!\", \
             ARRAY(SELECT printed_at FROM printed_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"printed_at!\" \
             FROM print_orders o LEFT JOIN jobs j ON j.id = o.job_id WHERE o.team_id = $1 AND o.id = $2",
        team,
        id
    )
    .fetch_optional(db)
    .await
}

/// A page's orders, the newest first.
pub(crate) async fn of_page(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Uuid,
    most: i64,
) -> sqlx::Result<Vec<OrderRow>> {
    sqlx::query_as!(
        OrderRow,
        "SELECT o.id, o.page_id, o.sheets, o.job_id, o.asked_by, o.made_at, j.state AS \"state?\", j.progress, j.problem, \
             ARRAY(SELECT sheet FROM printed_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"printed!\", \
             ARRAY(SELECT printed_at FROM printed_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"printed_at!\" \
             FROM print_orders o LEFT JOIN jobs j ON j.id = o.job_id WHERE o.team_id = $1 AND o.page_id = $2 ORDER BY o.made_at DESC LIMIT $3",
        team,
        page,
        most
    )
    .fetch_all(db)
    .await
}

/// What a team's printer has left.
#[derive(Debug, Clone, Copy)]
pub(crate) struct PrinterRow {
    pub(crate) paper: i32,
    pub(crate) ink: i32,
    pub(crate) jammed: bool,
}

/// A team's printer; until the transaction ends nobody else uses it.
pub(crate) async fn printer(db: &mut PgConnection, team: Uuid) -> sqlx::Result<PrinterRow> {
    sqlx::query!(
        "INSERT INTO printers (team_id) VALUES ($1) ON CONFLICT DO NOTHING",
        team
    )
    .execute(&mut *db)
    .await?;
    sqlx::query_as!(
        PrinterRow,
        "SELECT paper, ink, jammed FROM printers WHERE team_id = $1 FOR UPDATE",
        team
    )
    .fetch_one(db)
    .await
}

/// Sets what it has.
pub(crate) async fn set_printer(
    db: impl PgExecutor<'_>,
    team: Uuid,
    to: PrinterRow,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO printers (team_id, paper, ink, jammed) VALUES ($1, $2, $3, $4) \
         ON CONFLICT (team_id) DO UPDATE SET paper = $2, ink = $3, jammed = $4",
        team,
        to.paper,
        to.ink,
        to.jammed
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// A sheet and ink are used up.
pub(crate) async fn use_up(db: impl PgExecutor<'_>, team: Uuid, ink: i32) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE printers SET paper = paper - 1, ink = ink - $2 WHERE team_id = $1",
        team,
        ink
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// A sheet that was printed.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Printed<'a> {
    pub(crate) order: Uuid,
    pub(crate) sheet: i32,
    pub(crate) file: &'a str,
}

/// Whether a sheet of an order is printed.
pub(crate) async fn is_printed(
    db: &mut PgConnection,
    order: Uuid,
    sheet: i32,
) -> sqlx::Result<bool> {
    sqlx::query_scalar!(
        "SELECT EXISTS (SELECT FROM printed_sheets WHERE order_id = $1 AND sheet = $2) AS \"printed!\"",
        order,
        sheet
    )
    .fetch_one(db)
    .await
}

/// Notes that a sheet is printed.
pub(crate) async fn insert_printed(
    db: &mut PgConnection,
    team: Uuid,
    printed: Printed<'_>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO printed_sheets (order_id, sheet, team_id, file) VALUES ($1, $2, $3, $4)",
        printed.order,
        printed.sheet,
        team,
        printed.file
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// The file of a sheet that was printed.
pub(crate) async fn printed_file(
    db: impl PgExecutor<'_>,
    team: Uuid,
    order: Uuid,
    sheet: i32,
) -> sqlx::Result<Option<String>> {
    sqlx::query_scalar!(
        "SELECT file FROM printed_sheets WHERE team_id = $1 AND order_id = $2 AND sheet = $3",
        team,
        order,
        sheet
    )
    .fetch_optional(db)
    .await
}
