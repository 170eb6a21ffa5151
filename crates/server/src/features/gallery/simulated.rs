//! The simulated gallery: it checks an entry's deadline, credits and pictures, takes one entry a maker, and can be slow, refuse, be gone, answer
//! rubbish, or vanish after taking an entry.

use super::store::{self as gallery, Hung};
use crate::features::calls::store as calls;
use crate::http::error::Failure;
use crate::state::App;
use async_trait::async_trait;
use chrono::{DateTime, NaiveTime, TimeZone, Utc};
use chrono_tz::Tz;
use metrosk_core::calls::Call;
use metrosk_ports::{Entry, Gallery, OrderId, PortError, Progress, Published};
use std::time::Duration;
use uuid::Uuid;

/// What it is called.
const DEVICE: &str = "The gallery";
/// The shortest side of the picture of the whole page, in pixels.
const SMALLEST: u32 = 600;
/// How long it takes where it is slow, in so many steps.
const SLOW: (Duration, usize) = (Duration::from_millis(400), 3);

/// How it can be.
pub(super) const MOODS: [&str; 6] = ["well", "slow", "refuses", "gone", "vanishes", "rubbish"];

/// A team's gallery.
pub(super) struct Simulated {
    pub(super) app: App,
    pub(super) team: Uuid,
}

fn gone() -> PortError {
    PortError::Unreachable {
        device: DEVICE.to_owned(),
    }
}

fn refused(why: String) -> PortError {
    PortError::Refused {
        device: DEVICE.to_owned(),
        why,
    }
}

fn broken(failure: &Failure) -> PortError {
    tracing::warn!(error = %failure, "the simulated gallery's state can't be had");
    gone()
}

fn id_of(id: &OrderId) -> Result<Uuid, PortError> {
    id.0.parse()
        .map_err(|_| refused(format!("it does not know the entry {}", id.0)))
}

fn address(number: i32) -> Published {
    Published {
        address: format!("entry {number}"),
    }
}

/// Until when entries are taken, where a day is said: to the hour, in the challenge's own place.
fn closes(call: &Call) -> Option<(DateTime<Utc>, Tz)> {
    let zone = call.zone.unwrap_or(Tz::UTC);
    let end = NaiveTime::from_hms_opt(23, 59, 59)?;
    let at = call.due_at().or_else(|| {
        let local = call.due?.and_time(call.due_time.unwrap_or(end));
        let found = zone.from_local_datetime(&local).latest()?;
        Some(found.with_timezone(&Utc))
    })?;
    Some((at, zone))
}

impl Simulated {
    async fn mood(&self) -> Result<String, PortError> {
        let found = async {
            let mut db = self.app.pool.acquire().await?;
            Ok::<_, Failure>(gallery::mood(&mut db, self.team).await?)
        };
        found.await.map_err(|e| broken(&e))
    }

    /// Why it does not take an entry: what was found, and what it asks for.
    async fn objection(&self, entry: &Entry) -> Result<Option<String>, Failure> {
        let Some(whole) = entry.pictures.first() else {
            return Ok(Some("it has no picture of the page".to_owned()));
        };
        if whole.width.min(whole.height) < SMALLEST {
            return Ok(Some(format!(
                "the picture of the page has {} × {} pixels; it asks for {SMALLEST} on the shorter side",
                whole.width, whole.height
            )));
        }
        let challenge = entry.challenge.as_deref();
        let Some(challenge) = challenge.and_then(|id| Uuid::parse_str(id).ok()) else {
            return Ok(None);
        };
        let Some(row) = calls::find(&self.app.pool, self.team, challenge).await? else {
            return Ok(Some("that challenge is not there any more".to_owned()));
        };
        let call = Call::from_json(&row.document)?;
        if let Some((at, zone)) = closes(&call)
            && at < Utc::now()
        {
            let said = at.with_timezone(&zone).format("%B %-d, %Y at %-H:%M");
            return Ok(Some(format!("“{}” closed on {said} ({zone})", call.name)));
        }
        let lacks = call
            .credits
            .iter()
            .find(|c| !entry.credits.iter().any(|said| said.contains(&c.name)));
        if let Some(credit) = lacks {
            return Ok(Some(format!(
                "{} is not credited for the {}",
                credit.name, credit.what
            )));
        }
        Ok(None)
    }

    /// Hangs an entry up, unless it hangs there.
    async fn take(&self, entry: &Entry, id: Uuid) -> Result<Result<i32, PortError>, Failure> {
        let mut tx = self.app.pool.begin().await?;
        gallery::mood(&mut tx, self.team).await?;
        gallery::hold_wall(&mut tx, self.team).await?;
        if let Some(number) = gallery::hangs(&mut tx, self.team, id).await? {
            return Ok(Ok(number));
        }
        if let Some(old) = &entry.replaces
            && let Ok(old) = old.0.parse()
        {
            gallery::take_down(&mut tx, self.team, old).await?;
        }
        if let Some(challenge) = &entry.challenge {
            let own = (challenge.as_str(), entry.maker.as_str());
            if let Some(number) = gallery::of_maker(&mut tx, self.team, own).await? {
                return Ok(Err(refused(format!(
                    "{} has an entry there already, entry {number}; a maker has one: replace it, or withdraw it first",
                    entry.maker
                ))));
            }
        }
        let hung = Hung {
            entry: id,
            challenge: entry.challenge.as_deref(),
            maker: &entry.maker,
            title: &entry.title,
            credits: &entry.credits,
            told: &entry.text,
            pictures: entry.pictures.len() as i32,
        };
        let number = gallery::hang(&mut tx, self.team, hung).await?;
        tx.commit().await?;
        Ok(Ok(number))
    }
}

#[async_trait]
impl Gallery for Simulated {
    async fn publish(
        &self,
        entry: &Entry,
        progress: &dyn Progress,
    ) -> Result<Published, PortError> {
        let id = id_of(&entry.id)?;
        let mood = self.mood().await?;
        match mood.as_str() {
            "gone" => return Err(gone()),
            "refuses" => return Err(refused("it takes no entries today".to_owned())),
            // What it says can't be understood: whether it took the entry is not known.
            "rubbish" => return Err(gone()),
            "slow" => {
                for step in 0..SLOW.1 {
                    if progress.is_cancelled() {
                        return Err(PortError::Cancelled);
                    }
                    progress.tell(&format!(
                        "the gallery takes its time, {} of {}",
                        step + 1,
                        SLOW.1
                    ));
                    tokio::time::sleep(SLOW.0).await;
                }
            }
            _ => {}
        }
        if let Some(why) = self.objection(entry).await.map_err(|e| broken(&e))? {
            return Err(refused(why));
        }
        if progress.is_cancelled() {
            return Err(PortError::Cancelled);
        }
        let number = self.take(entry, id).await.map_err(|e| broken(&e))??;
        if mood == "vanishes" {
            return Err(gone());
        }
        Ok(address(number))
    }

    async fn look_up(&self, id: &OrderId) -> Result<Option<Published>, PortError> {
        if matches!(self.mood().await?.as_str(), "gone" | "vanishes" | "rubbish") {
            return Err(gone());
        }
        let id = id_of(id)?;
        let found = async {
            let mut db = self.app.pool.acquire().await?;
            Ok::<_, Failure>(gallery::hangs(&mut db, self.team, id).await?)
        };
        Ok(found.await.map_err(|e| broken(&e))?.map(address))
    }

    async fn withdraw(&self, id: &OrderId) -> Result<(), PortError> {
        let mood = self.mood().await?;
        if matches!(mood.as_str(), "gone" | "rubbish") {
            return Err(gone());
        }
        let id = id_of(id)?;
        let done = async {
            let mut tx = self.app.pool.begin().await?;
            gallery::hold_wall(&mut tx, self.team).await?;
            gallery::take_down(&mut tx, self.team, id).await?;
            tx.commit().await?;
            Ok::<_, Failure>(())
        };
        done.await.map_err(|e| broken(&e))?;
        // It is down, but nobody is told.
        if mood == "vanishes" {
            return Err(gone());
        }
        Ok(())
    }
}
