//! A picture in the sizes that screens ask for, made when one is first asked for and kept.

use crate::compute::Work;
use crate::features::files::content::{self as files, Content};
use crate::features::files::store as file_rows;
use crate::features::pictures::store::{self as pictures, PictureRow};
use crate::http::error::Failure;
use crate::state::App;
use axum::response::Response;
use metrosk_core::Cancel;
use uuid::Uuid;

/// Their names, and the longer side of each in pixels.
const SCREENS: [(&str, u32); 2] = [("screen-480", 480), ("screen-960", 960)];
/// How well they are encoded.
const QUALITY: f32 = 82.0;

/// The size of that name.
pub(super) fn screen(form: &str) -> Option<(&'static str, u32)> {
    SCREENS.into_iter().find(|(name, _)| *name == form)
}

/// A picture in such a size.
pub(super) async fn answer(
    app: &App,
    team: Uuid,
    row: &PictureRow,
    (form, side): (&'static str, u32),
) -> Result<Response, Failure> {
    if let Some(file) = pictures::form(&app.pool, team, row.id, form).await? {
        return files::answer(app, team, &file).await;
    }
    let view = app
        .objects
        .get(&row.view)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    let work = move |_: &Cancel| {
        let picture = metrosk_vision::decode(&view).map_err(|e| e.to_string())?;
        let small = metrosk_vision::resized(&picture.pixels, side);
        Ok::<_, String>(metrosk_vision::webp(&small, QUALITY))
    };
    let made = app.compute.run(team, Work::Picture, work).await?;
    let content = Content {
        kind: form,
        media_type: "image/webp",
        bytes: made.map_err(Failure::Internal)?,
    };
    let mut tx = app.pool.begin().await?;
    let file = files::keep(app, &mut tx, team, vec![content])
        .await?
        .concat();
    if !pictures::insert_form(&mut *tx, row.id, form, &file).await? {
        // Somebody else asked for it in the same moment.
        file_rows::release(&mut tx, std::slice::from_ref(&file)).await?;
    }
    tx.commit().await?;
    files::answer(app, team, &file).await
}
