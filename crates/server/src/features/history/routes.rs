//! A page's history: each change appends a revision, and nothing is ever taken away.

pub(crate) mod listing;
pub(crate) mod versions;

use crate::auth::Maker;
use crate::features::history::store::{self as revisions, NewRevision, StationRow};
use crate::features::history::views::{PlanChange, Return, Step};
use crate::features::pages::routes::{finish, page_view};
use crate::features::pages::views::PageView;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id};
use crate::http::idempotency::{Answer, Once, Write, begin};
use crate::http::names;
use crate::state::App;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use metrosk_core::plan::{self, Change, Station};
use uuid::Uuid;

/// Changes sections of a page's plan, each change a revision. It is refused where one of these sections has been changed since the
/// revision it started from; what happened to other sections does not matter.
#[utoipa::path(
    patch, operation_id = "change_plan", path = "/api/pages/{id}/plan", tag = "pages", request_body = PlanChange,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn write(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(asked): Body<PlanChange>,
) -> Result<Answer, Failure> {
    let station = station("station", &asked.station)?;
    let reason = names::short("reason", &asked.reason)?;
    let write = begin!(once, &app, &maker, &format!("change plan {id}"));
    let mut page = Writing::of(write, &maker, id, asked.revision).await?;
    let change = plan::changed(&page.newest.plan, station, &asked.patch)
        .map_err(|e| names::under("patch", e))?;
    page.must_stand_still(&change.touches()).await?;
    let mut steps = page.steps(station);
    steps.undo.push(page.next());
    steps.redo.clear();
    page.append(station, &change, &reason, steps).await?;
    finish(page.write, &maker, id, StatusCode::OK).await
}

/// A page whose plan is being changed: nobody else can change it until that is done.
struct Writing<'a> {
    write: Write,
    maker: &'a Maker,
    id: Uuid,
    /// The revision that the change started from.
    from: i32,
    newest: revisions::Newest,
    stations: Vec<StationRow>,
}

impl<'a> Writing<'a> {
    async fn of(
        mut write: Write,
        maker: &'a Maker,
        id: Uuid,
        from: i32,
    ) -> Result<Writing<'a>, Failure> {
        let newest = revisions::lock(write.db(), maker.team(), id)
            .await?
            .ok_or(Failure::Missing("page"))?;
        let stations = revisions::stations(write.db(), maker.team(), id).await?;
        let mut page = Writing {
            write,
            maker,
            id,
            from,
            newest,
            stations,
        };
        if (1..=page.newest.revision).contains(&from) {
            Ok(page)
        } else {
            Err(page.stale().await?)
        }
    }

    /// The number of the revision to come.
    const fn next(&self) -> i32 {
        self.newest.revision + 1
    }

    /// The answer to who comes too late: with the newest.
    async fn stale(&mut self) -> Result<Failure, Failure> {
        let newest = page_view(self.write.db(), self.maker.team(), self.id).await?;
        Ok(Failure::Stale {
            yours: self.from,
            newest: Box::new(newest),
        })
    }

    fn station(&self, station: Station) -> Option<&StationRow> {
        self.stations.iter().find(|s| s.station == station.name())
    }

    /// What undo and redo lead to at a station.
    fn steps(&self, station: Station) -> StationRow {
        self.station(station).cloned().unwrap_or_default()
    }

    /// Whether none of these sections has been changed since the revision that the change started from.
    async fn must_stand_still(&mut self, sections: &[Station]) -> Result<(), Failure> {
        let moved = |s: &Station| self.station(*s).is_some_and(|row| row.revision > self.from);
        if sections.iter().any(moved) {
            return Err(self.stale().await?);
        }
        Ok(())
    }

    /// Undo and redo start from what the station's trail was.
    async fn must_have_seen(&mut self, station: Station) -> Result<StationRow, Failure> {
        let row = self.steps(station);
        if row.steps_revision > self.from {
            return Err(self.stale().await?);
        }
        Ok(row)
    }

    /// The change that a step leads to, as a patch of what stands now. What stands otherwise since stays as it is: that is said instead.
    async fn step(&mut self, revision: i32, back: bool) -> Result<(Change, String), Failure> {
        let step = revisions::step(self.write.db(), self.maker.team(), self.id, revision)
            .await?
            .ok_or(Failure::Missing("version"))?;
        let (patch, other) = if back {
            (&step.inverse, &step.patch)
        } else {
            (&step.patch, &step.inverse)
        };
        if !plan::holds(&self.newest.plan, other) {
            let way = if back { "undone" } else { "redone" };
            return Err(Failure::Standing(format!(
                "“{}” can't be {way} on its own: what it changed has been changed since at another station. The history leads back to any version.",
                step.reason
            )));
        }
        let plan = plan::patched(&self.newest.plan, patch);
        Ok((Change::between(&self.newest.plan, plan), step.reason))
    }

    async fn append(
        &mut self,
        station: Station,
        change: &Change,
        reason: &str,
        steps: StationRow,
    ) -> Result<(), Failure> {
        let new = NewRevision {
            revision: self.next(),
            station: station.name(),
            change,
            author: self.maker.name(),
            reason,
            undo: steps.undo,
            redo: steps.redo,
        };
        revisions::append(self.write.db(), self.maker.team(), self.id, new).await?;
        Ok(())
    }
}

/// The station of that name.
fn station(field: &str, name: &str) -> Result<Station, Invalid> {
    Station::from_name(name).ok_or_else(|| {
        let all = Station::ALL.map(Station::name).join(", ");
        Invalid::one(field, format!("“{name}”"), all)
    })
}

/// Takes the last change made at a station back, whoever made it and whenever: it can be redone.
#[utoipa::path(
    post, operation_id = "undo", path = "/api/pages/{id}/undo", tag = "pages", request_body = Step,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn undo(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(asked): Body<Step>,
) -> Result<Answer, Failure> {
    let station = station("station", &asked.station)?;
    let write = begin!(once, &app, &maker, &format!("undo {id}"));
    let mut page = Writing::of(write, &maker, id, asked.revision).await?;
    let mut steps = page.must_have_seen(station).await?;
    let last = steps
        .undo
        .pop()
        .ok_or_else(|| Failure::Standing("There is nothing to undo.".to_owned()))?;
    let (change, step) = page.step(last, true).await?;
    steps.redo.push(last);
    page.append(station, &change, &format!("undone: {step}"), steps)
        .await?;
    finish(page.write, &maker, id, StatusCode::OK).await
}

/// Brings back what undo took at a station.
#[utoipa::path(
    post, operation_id = "redo", path = "/api/pages/{id}/redo", tag = "pages", request_body = Step,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn redo(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(asked): Body<Step>,
) -> Result<Answer, Failure> {
    let station = station("station", &asked.station)?;
    let write = begin!(once, &app, &maker, &format!("redo {id}"));
    let mut page = Writing::of(write, &maker, id, asked.revision).await?;
    let mut steps = page.must_have_seen(station).await?;
    let next = steps
        .redo
        .pop()
        .ok_or_else(|| Failure::Standing("There is nothing to redo.".to_owned()))?;
    let (change, step) = page.step(next, false).await?;
    steps.undo.push(next);
    page.append(station, &change, &format!("redone: {step}"), steps)
        .await?;
    finish(page.write, &maker, id, StatusCode::OK).await
}

/// Returns to the plan of an earlier revision; the ones in between stay in the history.
#[utoipa::path(
    post, operation_id = "return_to", path = "/api/pages/{id}/return", tag = "pages", request_body = Return,
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = PageView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn return_to(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(asked): Body<Return>,
) -> Result<Answer, Failure> {
    let station = station("station", &asked.station)?;
    let write = begin!(once, &app, &maker, &format!("return {id}"));
    let mut page = Writing::of(write, &maker, id, asked.revision).await?;
    let wanted = revisions::plan_at(page.write.db(), maker.team(), id, asked.to)
        .await?
        .ok_or(Failure::Missing("version"))?;
    let change = Change::between(&page.newest.plan, wanted);
    page.must_stand_still(&change.touches()).await?;
    let mut steps = page.steps(station);
    steps.undo.push(page.next());
    steps.redo.clear();
    let reason = format!("returned to version {}", asked.to);
    page.append(station, &change, &reason, steps).await?;
    finish(page.write, &maker, id, StatusCode::OK).await
}

/// The invalid document that a plan without a layout is, for those who ask for its layout.
pub(crate) fn no_layout(why: String) -> Failure {
    Invalid::one("plan.fit", why, "pins and limits that can hold together").into()
}
