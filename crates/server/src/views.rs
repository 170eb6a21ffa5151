//! What rows look like from outside.

use crate::schema::{PageCard, PageView, StationView, StepView, TrailView};
use crate::store::pages::PageRow;
use crate::store::revisions::{StepRow, Trail};
use metrosk_core::plan::{self, Progress, brought_up};
use metrosk_core::sketch::Sketch;
use std::collections::BTreeMap;

fn stations(progress: Progress) -> Vec<StationView> {
    let view = |s: plan::Standing| StationView {
        name: s.station.name().to_owned(),
        state: s.state.name().to_owned(),
        changed: s.changed.into_iter().map(str::to_owned).collect(),
    };
    progress.stations.into_iter().map(view).collect()
}

/// A page as it hangs on the table: by its sketch until its layout is known, and where pins clash.
pub(crate) fn card(mut row: PageRow) -> PageCard {
    let mut plan = brought_up(&row.plan).into_owned();
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
pub(crate) fn page(row: PageRow, trails: BTreeMap<String, Trail>) -> PageView {
    let plan = brought_up(&row.plan).into_owned();
    let progress = plan::progress(&plan, row.clash.as_deref());
    let credit = Sketch::from_json(&plan["sketch"]["sketch"])
        .ok()
        .and_then(|s| s.credit());
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
