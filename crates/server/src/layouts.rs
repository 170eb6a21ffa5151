//! What a page's plan comes to. It is computed after a write, off the threads that answer, and kept beside the page, so
//! that the table can show two hundred pages at once. Whatever is missing is made again: it holds nothing of its own.

use crate::compute::{Compute, Work};
use crate::error::Failure;
use crate::state::App;
use crate::store::pages::{self, PageRow};
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::fit::Proposal;
use metrosk_core::plan::{Plan, brought_up, fit_digest};
use serde_json::Value;
use std::collections::HashSet;
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::Semaphore;
use uuid::Uuid;

/// Layouts in the making, so that none is made twice at once.
#[derive(Clone, Debug)]
pub(crate) struct Layouts {
    /// One at a time: nobody waits for them, and those who fit at this moment do.
    turn: Arc<Semaphore>,
    under_way: Arc<Mutex<HashSet<(Uuid, i32)>>>,
}

impl Default for Layouts {
    fn default() -> Layouts {
        Layouts {
            turn: Arc::new(Semaphore::new(1)),
            under_way: Arc::default(),
        }
    }
}

/// A plan's chosen proposal, or why there is none.
pub(crate) async fn made(
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

/// Makes a page's layout in its own time.
pub(crate) fn make_later(app: &App, team: Uuid, row: &PageRow) {
    let (app, id, revision, plan) = (app.clone(), row.id, row.revision, row.plan.clone());
    let under_way = app.layouts.under_way.clone();
    if !under_way
        .lock()
        .unwrap_or_else(PoisonError::into_inner)
        .insert((id, revision))
    {
        return;
    }
    tokio::spawn(async move {
        if let Err(error) = make(&app, team, id, revision, plan).await {
            tracing::warn!(page = %id, error = %error, "a layout was not kept; it is made again when it is asked for");
        }
        under_way
            .lock()
            .unwrap_or_else(PoisonError::into_inner)
            .remove(&(id, revision));
    });
}

async fn make(app: &App, team: Uuid, id: Uuid, revision: i32, plan: Value) -> Result<(), Failure> {
    let _turn = app
        .layouts
        .turn
        .acquire()
        .await
        .map_err(|e| Failure::Internal(e.to_string()))?;
    let digest = fit_digest(&brought_up(&plan));
    let (layout, clash) = if pages::is_known(&app.pool, &digest).await? {
        (None, None)
    } else {
        match made(&app.compute, team, plan).await {
            Ok(Ok(proposal)) => (Some(proposal.layout.to_json()), None),
            Ok(Err(clash)) => (None, Some(clash)),
            // What takes too long once does so again: it is not tried with every look at the table.
            Err(Failure::TooLong(_)) => (None, Some("It takes too long to fit.".to_owned())),
            Err(failure) => return Err(failure),
        }
    };
    let mut db = app.pool.acquire().await?;
    pages::keep_layout(
        &mut db,
        id,
        revision,
        &digest,
        layout.as_ref(),
        clash.as_deref(),
    )
    .await?;
    Ok(())
}
