//! Orders, the simulated machine's state, how far its blade is, and its log.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::OffsetDateTime;
use uuid::Uuid;

/// Sheets that were sent to be cut.
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
    /// Sheet by sheet as far as they are begun: its number, how many lines it has, and how many are cut.
    pub(crate) sheet: Vec<i32>,
    pub(crate) lines: Vec<i32>,
    pub(crate) cut: Vec<i32>,
    /// What the machine said, and when.
    pub(crate) said: Vec<String>,
    pub(crate) said_at: Vec<OffsetDateTime>,
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
        "INSERT INTO cut_orders (id, team_id, page_id, sheets, job_id, asked_by) VALUES ($1, $2, $3, $4, $5, $6)",
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
        "UPDATE cut_orders SET job_id = $3 WHERE team_id = $1 AND id = $2",
        team,
        id,
        job
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// The newest of a team's orders: of a page, or the one of that id.
pub(crate) async fn orders(
    db: impl PgExecutor<'_>,
    team: Uuid,
    (page, id): (Option<Uuid>, Option<Uuid>),
    most: i64,
) -> sqlx::Result<Vec<OrderRow>> {
    sqlx::query_as!(
        OrderRow,
        "SELECT o.id, o.page_id, o.sheets, o.job_id, o.asked_by, o.made_at, j.state AS \"state?\", j.progress, j.problem, \
             ARRAY(SELECT sheet FROM machine_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"sheet!\", \
             ARRAY(SELECT lines FROM machine_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"lines!\", \
             ARRAY(SELECT cut FROM machine_sheets s WHERE s.order_id = o.id ORDER BY sheet) AS \"cut!\", \
             ARRAY(SELECT said FROM machine_log l WHERE l.order_id = o.id ORDER BY l.number) AS \"said!\", \
             ARRAY(SELECT at FROM machine_log l WHERE l.order_id = o.id ORDER BY l.number) AS \"said_at!\" \
         FROM cut_orders o LEFT JOIN jobs j ON j.id = o.job_id \
         WHERE o.team_id = $1 AND ($2::uuid IS NULL OR o.page_id = $2) AND ($3::uuid IS NULL OR o.id = $3) ORDER BY o.made_at DESC LIMIT $4",
        team,
        page,
        id,
        most
    )
    .fetch_all(db)
    .await
}

/// A team's machine as it is.
#[derive(Debug, Clone)]
pub(crate) struct MachineRow {
    pub(crate) mat: String,
    pub(crate) jammed: bool,
    pub(crate) lost: bool,
    pub(crate) trouble: String,
    pub(crate) trouble_after: i32,
}

/// A team's machine; until the transaction ends nobody else uses it.
pub(crate) async fn machine(db: &mut PgConnection, team: Uuid) -> sqlx::Result<MachineRow> {
    sqlx::query!(
        "INSERT INTO cutting_machines (team_id) VALUES ($1) ON CONFLICT DO NOTHING",
        team
    )
    .execute(&mut *db)
    .await?;
    sqlx::query_as!(
        MachineRow,
        "SELECT mat, jammed, lost, trouble, trouble_after FROM cutting_machines WHERE team_id = $1 FOR UPDATE",
        team
    )
    .fetch_one(db)
    .await
}

/// Sets how it is.
pub(crate) async fn set_machine(
    db: impl PgExecutor<'_>,
    team: Uuid,
    to: &MachineRow,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO cutting_machines (team_id, mat, jammed, lost, trouble, trouble_after) VALUES ($1, $2, $3, $4, $5, $6) \
         ON CONFLICT (team_id) DO UPDATE SET mat = $2, jammed = $3, lost = $4, trouble = $5, trouble_after = $6",
        team,
        to.mat,
        to.jammed,
        to.lost,
        to.trouble,
        to.trouble_after
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// How many lines of a sheet are cut; it is begun by asking.
pub(crate) async fn lines_cut(
    db: &mut PgConnection,
    team: Uuid,
    (order, sheet): (Uuid, i32),
    lines: i32,
) -> sqlx::Result<i32> {
    sqlx::query_scalar!(
        "INSERT INTO machine_sheets (order_id, sheet, team_id, lines) VALUES ($1, $2, $3, $4) \
         ON CONFLICT (order_id, sheet) DO UPDATE SET lines = machine_sheets.lines RETURNING cut",
        order,
        sheet,
        team,
        lines
    )
    .fetch_one(db)
    .await
}

/// One line more is cut.
pub(crate) async fn cut_one(
    db: &mut PgConnection,
    team: Uuid,
    (order, sheet): (Uuid, i32),
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE machine_sheets SET cut = cut + 1 WHERE team_id = $1 AND order_id = $2 AND sheet = $3",
        team,
        order,
        sheet
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Writes down what the machine did, or what stopped it.
pub(crate) async fn log(
    db: &mut PgConnection,
    team: Uuid,
    (order, sheet): (Uuid, i32),
    said: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO machine_log (order_id, number, team_id, sheet, said) \
         SELECT $2, coalesce(max(number), 0) + 1, $1, $3, $4 FROM machine_log WHERE order_id = $2",
        team,
        order,
        sheet,
        said
    )
    .execute(db)
    .await
    .map(|_| ())
}
