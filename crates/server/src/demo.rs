//! Loads the demo into a database that has none yet.

mod stash;

use crate::App;
use crate::features::calls::store::hops::{self, NewLink};
use crate::features::calls::{days, series, store as calls};
use crate::features::history::store::{self as revisions, NewRevision};
use crate::features::pages::store as pages;
use crate::features::people::store::{people, teams};
use crate::features::pictures::routes::{NewPicture, Prepared, keep, prepared};
use crate::features::sketches::store as sketches;
use crate::features::stash::holding;
use anyhow::Context;
use metrosk_core::calls::Call;
use metrosk_core::plan::Station;
use metrosk_demo::SeasonCall;
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
    for team in metrosk_demo::teams(metrosk_demo::SEED, days::today(chrono_tz::Tz::UTC)) {
        // A team from before there were people keeps its things, and gets its people.
        let earlier = teams::without_people(&mut *tx).await?;
        let id = match earlier {
            Some(id) => id,
            None => teams::insert(&mut *tx, team.name).await?,
        };
        for (account, name, role) in team.people.iter().copied() {
            let person = match known.get(account) {
                Some(person) => *person,
                None => {
                    let person = people::insert(&mut *tx, account, name, &hash)
                        .await?
                        .context("the demo's accounts differ")?;
                    if account == metrosk_demo::MAKER_ACCOUNT {
                        let defaults = serde_json::json!({"hands": metrosk_demo::hands()});
                        people::update(&mut *tx, person, name, &defaults).await?;
                    }
                    person
                }
            };
            known.insert(account, person);
            people::join(&mut *tx, id, person, role).await?;
        }
        if earlier.is_none() {
            if team
                .people
                .iter()
                .any(|p| p.0 == metrosk_demo::MAKER_ACCOUNT && p.2 == "lead")
            {
                let made = made_pictures(app.settings.demo_photos)?;
                for picture in made {
                    let new = NewPicture {
                        id: picture.id,
                        name: picture.name.to_owned(),
                        made_by: "Wren",
                        is_photo: picture.is_photo,
                    };
                    keep(app, &mut tx, id, new, picture.ready.clone()).await?;
                }
                stash::put_away(app, &mut tx, id).await?;
            }
            fill(&mut tx, id, &team, &known).await?;
        }
    }
    tx.commit().await?;
    Ok(true)
}

/// A picture of the demo.
#[derive(Clone)]
struct Made {
    id: Uuid,
    name: &'static str,
    /// A photo that goes on pages, not a picture of a sketch.
    is_photo: bool,
    ready: Prepared,
}

/// The demo's photos and pictures of sketches, made once a process.
fn made_pictures(share: f64) -> anyhow::Result<&'static [Made]> {
    static MADE: OnceLock<Vec<Made>> = OnceLock::new();
    if MADE.get().is_none() {
        let _ = MADE.set(make_pictures(share)?);
    }
    Ok(MADE.get().map_or(&[], Vec::as_slice))
}

fn make_pictures(share: f64) -> anyhow::Result<Vec<Made>> {
    let photo = |photo: &metrosk_demo::Photo| -> anyhow::Result<Made> {
        let bytes = metrosk_vision::jpeg(&photo.render(share)?, 90)?;
        Ok(Made {
            id: Uuid::parse_str(&photo.id())?,
            name: photo.name,
            is_photo: true,
            ready: prepared(&bytes)?,
        })
    };
    // Half of them beside the other half: they are most of what a first start takes.
    let halves = metrosk_demo::PHOTOS.split_at(metrosk_demo::PHOTOS.len() / 2);
    let all = |photos: &[metrosk_demo::Photo]| {
        let made = photos.iter().map(photo);
        made.collect::<anyhow::Result<Vec<Made>>>()
    };
    let (first, second) = std::thread::scope(|scope| {
        let second = scope.spawn(|| all(halves.1));
        let first = all(halves.0);
        let second = second
            .join()
            .unwrap_or_else(|panic| std::panic::resume_unwind(panic));
        (first, second)
    });
    let scans = metrosk_demo::scans(metrosk_demo::SEED)
        .into_iter()
        .map(|(name, picture, _)| {
            let bytes = metrosk_vision::jpeg(&picture, 92)?;
            Ok(Made {
                id: Uuid::new_v4(),
                name,
                is_photo: false,
                ready: prepared(&bytes)?,
            })
        });
    let scans: Vec<Made> = scans.collect::<anyhow::Result<_>>()?;
    Ok([first?, second?, scans].concat())
}

/// A team's drawer and table.
async fn fill(
    tx: &mut PgTransaction<'_>,
    team: Uuid,
    demo: &metrosk_demo::Team,
    people: &HashMap<&str, Uuid>,
) -> anyhow::Result<()> {
    let mut on_table: HashMap<&str, Uuid> = HashMap::new();
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
        on_table.insert(page.name, id);
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
        holding::follow(tx, team, id, page.author).await?;
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
    for call in &demo.calls {
        let mut call = call.clone();
        let asked = demo
            .sketches
            .iter()
            .find(|s| Some(s.name.as_str()) == call.sketch);
        if let Some(sketch) = asked {
            call.document["sketch"] = sketch.to_json();
        }
        ask(tx, team, &call, (people, &drawer, &on_table)).await?;
    }
    Ok(())
}

/// What the demo's things are called, and their ids.
type Named<'a> = (
    &'a HashMap<&'a str, Uuid>,
    &'a HashMap<&'a str, Uuid>,
    &'a HashMap<&'a str, Uuid>,
);

/// A call, with who takes part in it and its chain.
async fn ask(
    tx: &mut PgTransaction<'_>,
    team: Uuid,
    call: &SeasonCall,
    (people, drawer, on_table): Named<'_>,
) -> anyhow::Result<()> {
    let read = Call::from_json(&call.document)?;
    let id = Uuid::from_u128(call.id);
    let series = read.repeats.map(|_| id);
    let new = calls::NewCall {
        name: &read.name,
        document: &call.document,
        due: read.due.and_then(days::stored),
        sketch: call.sketch.and_then(|s| drawer.get(s).copied()),
        series,
        author: call.author,
        reason: "written",
    };
    calls::insert(tx, team, id, new, None).await?;
    for (account, page) in &call.makers {
        let page = page.and_then(|p| on_table.get(p).copied());
        calls::take(&mut **tx, team, id, people[account], page).await?;
    }
    let chain: Option<Vec<NewLink>> = call
        .chain
        .iter()
        .map(|link| {
            Some(NewLink {
                person: link
                    .who
                    .ok()
                    .and_then(|account| people.get(account).copied()),
                name: link.who.err().map(str::to_owned),
                url: link.url.map(str::to_owned),
                sketch: link.sketch.and_then(|s| drawer.get(s).copied()),
                day: days::stored(link.day)?,
            })
        })
        .collect();
    let chain = chain.context("the demo's days are days")?;
    if !chain.is_empty() {
        hops::put(tx, team, id, &chain).await?;
    }
    if let Some(series) = series {
        series::go_on(tx, team, series).await?;
        if let (Some(next), Some(row)) = (
            call.next_maker,
            calls::last_of_series(&mut **tx, team, series).await?,
        ) {
            calls::take(&mut **tx, team, row.id, people[next], None).await?;
        }
    }
    Ok(())
}
