//! Bringing an entry to the gallery, or taking it down: asked again as often as it takes, done once.

use super::simulated::Simulated;
use super::store::{self as gallery, EntryRow};
use super::{Told, ToldPicture};
use crate::features::jobs::workers::Running;
use crate::features::photos::pictures::picture_view;
use crate::features::pictures::store as pictures;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_ports::{Entry, EntryPicture, Gallery, OrderId, PortError, Progress, Published};
use serde_json::{Value, json};
use uuid::Uuid;

/// The kind of these jobs.
pub(crate) const KIND: &str = "gallery";
/// So often it is asked before an entry is left open, each time after twice as long.
const TRIES: u32 = 3;

struct Watched(Running);

impl Progress for Watched {
    fn tell(&self, _: &str) {}

    fn is_cancelled(&self) -> bool {
        self.0.cancel.is_cancelled()
    }
}

/// Brings an entry to where its maker wants it.
pub(crate) async fn perform(app: &App, running: &Running, input: &Value) -> Result<Value, Failure> {
    let id = input["entry"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok())
        .ok_or(Failure::Missing("entry"))?;
    let rows = gallery::entries(&app.pool, running.team, (None, Some(id)), 1).await?;
    let row = rows.into_iter().next().ok_or(Failure::Missing("entry"))?;
    let port = Simulated {
        app: app.clone(),
        team: running.team,
    };
    running.progress("at the gallery's door").await?;
    let is_withdrawn = row.state == "withdrawing";
    let outcome = if is_withdrawn {
        withdrawn(&port, &row).await
    } else {
        let entry = entry_of(app, running.team, &row).await?;
        entered(&port, running, &entry).await
    };
    stand(app, running.team, &row, outcome).await?;
    Ok(json!({"entry": id}))
}

/// What is known of an entry after the gallery was asked.
enum Known {
    Entered(Published),
    Withdrawn,
    /// It may hang there, or not.
    Open(String),
    Refused(String),
    /// Nobody waits for it any more, and it was not sent.
    NotSent,
}

async fn entered(port: &Simulated, running: &Running, entry: &Entry) -> Known {
    let watched = Watched(running.clone());
    let mut wait = port.app.settings.gallery_wait;
    let mut last = String::new();
    for attempt in 0..TRIES {
        if attempt > 0 {
            tokio::time::sleep(wait).await;
            wait *= 2;
        }
        // What hangs there already is not sent again; and where that can't be known, nothing is sent.
        match port.look_up(&entry.id).await {
            Ok(Some(published)) => return Known::Entered(published),
            Ok(None) => {}
            Err(error) => {
                last = error.to_string();
                // The first time nothing was ever sent: it is brought there without asking.
                if attempt > 0 {
                    continue;
                }
            }
        }
        match port.publish(entry, &watched).await {
            Ok(published) => return Known::Entered(published),
            Err(PortError::Refused { why, .. }) => return Known::Refused(why),
            Err(PortError::Cancelled) => return Known::NotSent,
            Err(error) => last = error.to_string(),
        }
    }
    Known::Open(last)
}

async fn withdrawn(port: &Simulated, row: &EntryRow) -> Known {
    let id = OrderId(row.id.to_string());
    let mut wait = port.app.settings.gallery_wait;
    let mut last = String::new();
    for attempt in 0..TRIES {
        if attempt > 0 {
            tokio::time::sleep(wait).await;
            wait *= 2;
        }
        match port.withdraw(&id).await {
            Ok(()) => return Known::Withdrawn,
            Err(error) => last = error.to_string(),
        }
    }
    Known::Open(last)
}

/// Writes down how an entry stands.
async fn stand(app: &App, team: Uuid, row: &EntryRow, known: Known) -> Result<(), Failure> {
    let mut tx = app.pool.begin().await?;
    match &known {
        Known::Entered(published) => {
            let to = ("entered", Some(published.address.as_str()), None);
            gallery::set_state(&mut *tx, team, row.id, to).await?;
            if let Some(old) = row.replaces {
                gallery::set_state(&mut *tx, team, old, ("withdrawn", None, None)).await?;
            }
        }
        Known::Withdrawn => {
            gallery::set_state(&mut *tx, team, row.id, ("withdrawn", None, None)).await?;
        }
        Known::Open(why) => {
            // One that is to come down stays so: it is asked for again in the same way.
            let state = if row.state == "withdrawing" {
                "withdrawing"
            } else {
                "open"
            };
            gallery::set_state(&mut *tx, team, row.id, (state, None, Some(why))).await?;
        }
        Known::Refused(why) => {
            gallery::set_state(&mut *tx, team, row.id, ("refused", None, Some(why))).await?;
        }
        Known::NotSent => {
            let why = "it was stopped before it was sent";
            gallery::set_state(&mut *tx, team, row.id, ("open", None, Some(why))).await?;
        }
    }
    tx.commit().await?;
    Ok(())
}

async fn entry_of(app: &App, team: Uuid, row: &EntryRow) -> Result<Entry, Failure> {
    let told: Told =
        serde_json::from_value(row.entry.clone()).map_err(|e| Failure::Internal(e.to_string()))?;
    let mut shown = Vec::new();
    for ToldPicture { picture, shows } in told.pictures {
        let found = pictures::find(&app.pool, team, picture).await?;
        // One that was thrown away since is not shown.
        let Some(own) = found else { continue };
        shown.push(EntryPicture {
            bytes: picture_view(app, team, picture).await?.to_vec(),
            width: own.width.unsigned_abs(),
            height: own.height.unsigned_abs(),
            shows,
        });
    }
    Ok(Entry {
        id: OrderId(row.id.to_string()),
        challenge: row.challenge.map(|id| id.to_string()),
        replaces: row.replaces.map(|id| OrderId(id.to_string())),
        title: told.title,
        maker: told.maker,
        credits: told.credits,
        text: told.text,
        pictures: shown,
    })
}
