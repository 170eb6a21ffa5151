//! Reading a sketch from a picture, stage by stage.

use crate::auth::Maker;
use crate::compute::Work;
use crate::features::files::content::{self as files, Content};
use crate::features::files::store as file_rows;
use crate::features::jobs::store::{self as jobs, NewJob};
use crate::features::jobs::workers::{Running, stages};
use crate::features::pictures::routes::{COLOURS, QUALITY, SIDE, Shown, original, swatch_views};
use crate::features::pictures::store::{self as pictures, LiftRow};
use crate::features::pictures::views::{PageSize, PictureReading, SwatchView, WrittenSize};
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::sketch::Sketch;
use metrosk_vision::{Reading, Stage, Unreadable, jpeg, pages_straightened, swatches};
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
        let (quads, page) = (&reading.quads, wanted.page);
        let upright = pages_straightened(&picture.pixels, quads, page, wanted.pages, SIDE)?;
        let colours = swatches(&upright, COLOURS);
        let upright = Upright {
            page: jpeg(&upright, QUALITY).map_err(|e| e.to_string()),
            swatches: swatch_views(&colours),
        };
        Ok::<_, Unreadable>((reading, size, upright))
    };
    let read = app.compute.run(running.team, Work::Picture, work).await?;
    // The last word before the end has been said by then.
    let _ = puts_down.await;
    match read {
        Ok((reading, size, upright)) => {
            let corners = json!(reading.quads.first());
            let reading = PictureReading {
                lift: keep(app, running.team, picture, corners, upright).await?,
                sketch: Sketch::from_json(&reading.sketch)?.to_json(),
                size,
                looks_like: reading
                    .looks_like
                    .iter()
                    .map(|&(w, h)| PageSize { w, h })
                    .collect(),
                written: written(&reading),
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

/// The sizes that are written in photos' places, by the ids of their blocks.
fn written(reading: &Reading) -> Vec<WrittenSize> {
    let id = |n: usize| {
        reading.sketch["blocks"][n]["id"]
            .as_str()
            .map(str::to_owned)
    };
    let each = reading.written.iter();
    each.filter_map(|&(n, w, h)| id(n).map(|block| WrittenSize { block, w, h }))
        .collect()
}

/// A page brought upright for its reading to be laid over.
struct Upright {
    page: Result<Vec<u8>, String>,
    swatches: Vec<SwatchView>,
}

/// Keeps a page as a lift of its picture; those of earlier readings that nobody kept go.
async fn keep(
    app: &App,
    team: Uuid,
    picture: Uuid,
    corners: Value,
    upright: Upright,
) -> Result<Uuid, Failure> {
    let page = Content {
        kind: "lift",
        media_type: "image/jpeg",
        bytes: upright.page.map_err(Failure::Internal)?,
    };
    let mut tx = app.pool.begin().await?;
    let left = pictures::delete_left_lifts(&mut *tx, team, picture).await?;
    file_rows::release(&mut tx, &left).await?;
    let names = files::keep(app, &mut tx, team, vec![page]).await?;
    let row = LiftRow {
        id: Uuid::new_v4(),
        picture_id: picture,
        corners,
        swatches: json!(upright.swatches),
        page: names.concat(),
    };
    pictures::insert_lift(&mut *tx, team, &row, "a reading").await?;
    tx.commit().await?;
    Ok(row.id)
}
