//! Reading a sketch from a picture, stage by stage.

use crate::auth::Maker;
use crate::compute::Work;
use crate::features::jobs::store::{self as jobs, NewJob};
use crate::features::jobs::workers::{Running, stages};
use crate::features::pictures::routes::{Shown, original};
use crate::features::pictures::views::PictureReading;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::sketch::Sketch;
use metrosk_vision::{Stage, Unreadable};
use serde_json::{Value, json};
use uuid::Uuid;

/// The kind of these jobs.
pub(crate) const KIND: &str = "read";
/// So many of a team's may wait.
const MOST_WAITING: i64 = 24;

/// Puts the reading of a picture down, once what it is to be read as can be meant.
pub(crate) async fn ask(
    app: &App,
    maker: &Maker,
    picture: Uuid,
    shown: &Shown,
) -> Result<Uuid, Failure> {
    shown.wanted()?;
    let mut tx = app.pool.begin().await?;
    if jobs::waiting(&mut *tx, maker.team(), KIND).await? >= MOST_WAITING {
        return Err(Failure::Busy);
    }
    let job = NewJob {
        kind: KIND,
        key: None,
        input: &json!({"picture": picture, "shown": shown}),
        asked_by: maker.name(),
    };
    let id = jobs::insert(&mut tx, maker.team(), job).await?;
    tx.commit().await?;
    Ok(id)
}

pub(crate) async fn perform(app: &App, running: &Running, input: &Value) -> Result<Value, Failure> {
    let shown: Shown = serde_json::from_value(input["shown"].clone())
        .map_err(|e| Failure::Internal(e.to_string()))?;
    let picture = input["picture"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok())
        .ok_or(Failure::Missing("picture"))?;
    let wanted = shown.wanted()?;
    let bytes = original(app, running.team, picture).await?;
    let (tell, puts_down) = stages(running);
    let cancelled = running.cancel.clone();
    let work = move |cancel: &Cancel| {
        let picture = metrosk_vision::decode(&bytes)?;
        drop(bytes);
        let size = [picture.pixels.width(), picture.pixels.height()];
        let go_on = |stage: Stage| {
            tell.send_replace(Some(stage.name()));
            !cancelled.is_cancelled() && !cancel.is_cancelled()
        };
        let reading = metrosk_vision::read(&picture.pixels, &wanted, &go_on)?;
        Ok::<_, Unreadable>((reading, size))
    };
    let read = app.compute.run(running.team, Work::Picture, work).await?;
    // The last word before the end has been said by then.
    let _ = puts_down.await;
    match read {
        Ok((reading, size)) => {
            let reading = PictureReading {
                sketch: Sketch::from_json(&reading.sketch)?.to_json(),
                size,
                corners: reading.quads.iter().map(|q| q.to_vec()).collect(),
            };
            serde_json::to_value(reading).map_err(|e| Failure::Internal(e.to_string()))
        }
        Err(Unreadable::Stopped) => Err(Failure::Busy),
        Err(unreadable) => {
            Err(Invalid::one("", unreadable.to_string(), "a picture of a page sketch").into())
        }
    }
}
