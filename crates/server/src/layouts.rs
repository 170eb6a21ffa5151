//! What a page's plan comes to. It is computed after a write, off the threads that answer, and kept beside the page, so
//! that the table can show two hundred pages at once. Whatever is missing is made again: it holds nothing of its own.

use crate::app::App;
use crate::error::Failure;
use crate::store::pages::{self, PageRow};
use metrosk_core::fit::Proposal;
use metrosk_core::plan;
use serde_json::Value;
use std::collections::HashSet;
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::Semaphore;
use uuid::Uuid;

/// Layouts in the making, so that none is made twice at once.
#[derive(Clone, Debug)]
pub(crate) struct Layouts {
    room: Arc<Semaphore>,
    under_way: Arc<Mutex<HashSet<(Uuid, i32)>>>,
}

impl Default for Layouts {
    fn default() -> Layouts {
        Layouts { room: Arc::new(Semaphore::new(1)), under_way: Arc::default() }
    }
}

/// A plan's chosen proposal, or why there is none.
pub(crate) async fn made(plan: Value) -> Result<Result<Proposal, String>, Failure> {
    let work = move || plan::made(&plan);
    Ok(tokio::task::spawn_blocking(work).await.map_err(|e| Failure::Internal(format!("a fit did not end: {e}")))??)
}

/// Makes a page's layout in its own time.
pub(crate) fn make_later(app: &App, row: &PageRow) {
    let (app, id, revision, plan) = (app.clone(), row.id, row.revision, row.plan.clone());
    let under_way = app.layouts.under_way.clone();
    if !under_way.lock().unwrap_or_else(PoisonError::into_inner).insert((id, revision)) {
        return;
    }
    tokio::spawn(async move {
        if let Err(error) = make(&app, id, revision, plan).await {
            tracing::warn!(page = %id, error = %error, "a layout was not kept; it is made again when it is asked for");
        }
        under_way.lock().unwrap_or_else(PoisonError::into_inner).remove(&(id, revision));
    });
}

async fn make(app: &App, id: Uuid, revision: i32, plan: Value) -> Result<(), Failure> {
    let _room = app.layouts.room.acquire().await.map_err(|e| Failure::Internal(e.to_string()))?;
    match made(plan).await? {
        Ok(proposal) => pages::keep_layout(&app.pool, id, revision, Some(&proposal.layout.to_json()), None).await?,
        Err(clash) => pages::keep_layout(&app.pool, id, revision, None, Some(&clash)).await?,
    }
    Ok(())
}
