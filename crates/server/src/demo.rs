//! Loads the demo into a database that has none yet.

use crate::App;
use crate::features::history::store::{self as revisions, NewRevision};
use crate::features::pages::store as pages;
use crate::features::people::store::{people, teams};
use crate::features::pictures::routes::{Prepared, keep, prepared};
use crate::features::sketches::store as sketches;
use anyhow::Context;
use metrosk_core::plan::Station;
use sqlx::PgTransaction;
use std::collections::HashMap;
use std::sync::OnceLock;
use time::{Duration, OffsetDateTime};
use uuid::Uuid;

/// Puts the demo's teams, people, sketches and pages into the database, once: where there is anybody already, nothing is touched.
///
/// # Errors
/// When the database fails.
pub async fn load_once(app: &App) -> anyhow::Result<bool> {
    // Hashed before the transaction begins: it takes its time.
    let hash = app
        .passwords
        .hash(metrosk_demo::PASSWORD.to_owned())
        .await?;
    let mut tx = app.pool.begin().await?;
    // Two servers may start on one database at once.
    sqlx::query("LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE")
        .execute(&mut *tx)
        .await?;
    if people::any(&mut *tx).await? {
        return Ok(false);
    }
    let mut known: HashMap<&str, Uuid> = HashMap::new();
    for team in metrosk_demo::teams(metrosk_demo::SEED) {
        // A team from before there were people keeps its things, and gets its people.
        let earlier = teams::without_people(&mut *tx).await?;
        let id = match earlier {
            Some(id) => id,
            None => teams::insert(&mut *tx, team.name).await?,
        };
        for (account, name, role) in team.people.iter().copied() {
            let person = match known.get(account) {
                Some(person) => *person,
                None => people::insert(&mut *tx, account, name, &hash)
                    .await?
                    .context("the demo's accounts differ")?,
            };
            known.insert(account, person);
            people::join(&mut *tx, id, person, role).await?;
        }
        if earlier.is_none() {
            fill(&mut tx, id, &team).await?;
            if team
                .people
                .iter()
                .any(|p| p.0 == metrosk_demo::MAKER_ACCOUNT && p.2 == "lead")
            {
                for (name, ready) in scans()? {
                    let named = ((*name).to_owned(), "Wren");
                    keep(app, &mut tx, id, named, ready.clone()).await?;
                }
            }
        }
    }
    tx.commit().await?;
    Ok(true)
}

/// The demo's pictures, made once a process.
fn scans() -> anyhow::Result<&'static [(&'static str, Prepared)]> {
    static MADE: OnceLock<Vec<(&'static str, Prepared)>> = OnceLock::new();
    if MADE.get().is_none() {
        let made = metrosk_demo::scans(metrosk_demo::SEED)
            .into_iter()
            .map(|(name, picture, _)| {
                let bytes = metrosk_vision::jpeg(&picture, 92)?;
                Ok((name, prepared(&bytes)?))
            });
        let _ = MADE.set(made.collect::<anyhow::Result<_>>()?);
    }
    Ok(MADE.get().map_or(&[], Vec::as_slice))
}

/// A team's drawer and table.
async fn fill(
    tx: &mut PgTransaction<'_>,
    team: Uuid,
    demo: &metrosk_demo::Team,
) -> anyhow::Result<()> {
    let mut drawer: HashMap<&str, Uuid> = HashMap::new();
    for sketch in &demo.sketches {
        let id = sketches::insert(tx, team, &sketch.name, &sketch.to_json(), "Wren").await?;
        drawer.insert(&sketch.name, id);
    }
    let today = OffsetDateTime::now_utc().date();
    for page in &demo.pages {
        let due = page.due_in_days.map(|days| today + Duration::days(days));
        let sketch = drawer.get(page.sketch.as_str()).copied();
        let new = pages::NewPage {
            sketch,
            name: page.name,
            due,
            author: page.author,
            plan: &page.plan,
            reason: "started from the sketch",
        };
        let id = pages::insert(tx, team, new).await?;
        let mut undo: HashMap<Station, Vec<i32>> = HashMap::new();
        for (step, revision) in page.steps.iter().zip(2..) {
            let undo = undo.entry(step.station).or_default();
            undo.push(revision);
            let new = NewRevision {
                revision,
                station: step.station.name(),
                change: &step.change,
                author: page.author,
                reason: step.reason,
                undo: undo.clone(),
                redo: Vec::new(),
            };
            revisions::append(tx, team, id, new).await?;
        }
        if page.finished {
            let details = pages::Details {
                name: page.name,
                due,
                finished: true,
                archived: false,
            };
            pages::change_details(tx, team, id, 1, details, page.author).await?;
        }
    }
    Ok(())
}
