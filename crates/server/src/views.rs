//! What rows look like from outside.

use crate::schema::{PageCard, PageView, StationView, StepView, TrailView};
use crate::store::pages::PageRow;
use crate::store::revisions::{StepRow, Trail};
use metrosk_core::plan::{self, Progress, brought_up};
use metrosk_core::sketch::credit_of;
use serde_json::Value;
use std::borrow::Cow;
use std::collections::BTreeMap;

fn stations(progress: Progress) -> Vec<StationView> {
    let view = |s: plan::Standing| StationView {
        name: s.station.name().to_owned(),
        state: s.state.name().to_owned(),
        changed: s.changed.into_iter().map(str::to_owned).collect(),
    };
    progress.stations.into_iter().map(view).collect()
}

/// A row's plan in today's format, taken out of it.
fn today(row: &mut PageRow) -> Value {
    let plan = row.plan.take();
    match brought_up(&plan) {
        Cow::Owned(today) => today,
        Cow::Borrowed(_) => plan,
    }
}

/// A page as it hangs on the table: by its sketch until its layout is known, and where pins clash.
pub(crate) fn card(mut row: PageRow) -> PageCard {
    let mut plan = today(&mut row);
    let progress = plan::progress(&plan, row.clash.as_deref());
    let layout = row
        .layout
        .take()
        .unwrap_or_else(|| plan["sketch"]["sketch"].take());
    PageCard {
        id: row.id,
        name: row.name,
        sketch: row.sketch_id,
        due: row.due,
        finished: row.finished_at.is_some(),
        archived: row.archived_at.is_some(),
        details_revision: row.details_revision,
        revision: row.revision,
        author: row.author,
        reason: row.reason,
        changed_at: row.changed_at,
        next: progress.next.clone(),
        stations: stations(progress),
        layout,
        known: row.known,
        clash: row.clash,
    }
}

/// A page with its plan.
pub(crate) fn page(mut row: PageRow, trails: BTreeMap<String, Trail>) -> PageView {
    let plan = today(&mut row);
    let progress = plan::progress(&plan, row.clash.as_deref());
    let credit = credit_of(&plan["sketch"]["sketch"]["origin"]);
    PageView {
        credit,
        id: row.id,
        name: row.name,
        sketch: row.sketch_id,
        due: row.due,
        finished: row.finished_at.is_some(),
        archived: row.archived_at.is_some(),
        details_revision: row.details_revision,
        revision: row.revision,
        plan,
        author: row.author,
        reason: row.reason,
        trails: trails.into_iter().map(|(s, t)| (s, trail(t))).collect(),
        changed_at: row.changed_at,
        next: progress.next.clone(),
        stations: stations(progress),
    }
}

fn trail(trail: Trail) -> TrailView {
    let step = |s: StepRow| StepView {
        revision: s.revision,
        reason: s.reason,
        patch: s.patch,
        inverse: s.inverse,
    };
    TrailView {
        undo: trail.undo.into_iter().map(step).collect(),
        redo: trail.redo.into_iter().map(step).collect(),
    }
}
