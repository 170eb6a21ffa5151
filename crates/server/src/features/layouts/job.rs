//! What a page's plan comes to. It is computed after a write, and kept by the digest of what it follows from, so that the table can show
//! two hundred pages at once. Whatever is missing is made again: it holds nothing of its own.

use crate::compute::{Compute, Work};
use crate::features::events::store::{self as events, NewEvent};
use crate::features::jobs::store::{self as jobs, NewJob};
use crate::features::jobs::workers::Running;
use crate::features::pages::store::{self as pages, PageRow};
use crate::features::stash::holding;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::fit::Proposal;
use metrosk_core::plan::{Plan, brought_up, fit_digest};
use serde_json::{Value, json};
use sqlx::PgConnection;
use uuid::Uuid;

/// The kind of these jobs.
pub(crate) const KIND: &str = "layout";

/// Puts a page's layout down to be made, where it is not known.
pub(crate) async fn make_later(
    db: &mut PgConnection,
    team: Uuid,
    page: &PageRow,
) -> sqlx::Result<()> {
    let key = format!("{} {}", page.id, page.revision);
    let job = NewJob {
        kind: KIND,
        key: Some(&key),
        input: &json!({"page": page.id, "revision": page.revision}),
        asked_by: "",
    };
    jobs::insert(db, team, job).await.map(|_| ())
}

pub(crate) async fn perform(app: &App, running: &Running, input: &Value) -> Result<Value, Failure> {
    let id = input["page"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok());
    let page = match id {
        Some(id) => pages::find(&app.pool, running.team, id).await?,
        None => None,
    };
    // What has been changed since has a job of its own.
    let Some(page) = page.filter(|p| input["revision"] == p.revision) else {
        return Ok(Value::Null);
    };
    let digest = fit_digest(&brought_up(&page.plan));
    let made = if pages::is_known(&app.pool, &digest).await? {
        None
    } else {
        Some(match fitted(&app.compute, running.team, page.plan).await {
            Ok(Ok(proposal)) => (Some(proposal.layout.to_json()), None),
            Ok(Err(clash)) => (None, Some(clash)),
            // What takes too long once does so again: it is not tried with every look at the table.
            Err(Failure::TooLong(_)) => (None, Some("It takes too long to fit.".to_owned())),
            Err(failure) => return Err(failure),
        })
    };
    let mut tx = app.pool.begin().await?;
    if let Some((layout, clash)) = made {
        pages::keep_layout(&mut *tx, &digest, layout.as_ref(), clash.as_deref()).await?;
    }
    pages::note_digest(&mut *tx, page.id, page.revision, &digest).await?;
    // How many sheets its pieces take is known only now.
    holding::follow(&mut tx, running.team, page.id, "").await?;
    let known = NewEvent::of(events::LAYOUT, page.id, page.revision, "");
    events::tell(&mut *tx, running.team, known).await?;
    tx.commit().await?;
    Ok(Value::Null)
}

/// A plan's chosen proposal, or why there is none.
pub(crate) async fn fitted(
    compute: &Compute,
    team: Uuid,
    plan: Value,
) -> Result<Result<Proposal, String>, Failure> {
    let work = move |cancel: &Cancel| Ok::<_, Invalid>(Plan::from_json(&plan)?.fitted(cancel));
    compute
        .run(team, Work::Drawing, work)
        .await??
        .map(|fitted| fitted.map_err(|conflict| conflict.text))
        .ok_or(Failure::Busy)
}
