//! The pictures on a plan's prints.

use crate::features::pictures::store as pictures;
use crate::http::error::Failure;
use crate::state::App;
use axum::body::Bytes;
use metrosk_sheet::{Picture, Pictures};
use serde_json::Value;
use uuid::Uuid;

/// A print's picture as a plan names it.
#[derive(Debug, Clone)]
pub(crate) struct PictureOnPrint {
    pub(crate) print: String,
    pub(crate) picture: Uuid,
    /// Clockwise: 0, 90, 180 or 270.
    pub(crate) turned: u32,
}

/// The pictures that a plan's prints show.
pub(crate) fn on_prints(plan: &Value) -> Vec<PictureOnPrint> {
    let prints = plan["photos"]["photos"].as_array();
    let one = |print: &Value| {
        Some(PictureOnPrint {
            print: print["id"].as_str()?.to_owned(),
            picture: Uuid::parse_str(print["picture"].as_str()?).ok()?,
            turned: print["turned"].as_u64().map_or(0, |t| (t % 360) as u32),
        })
    };
    prints.into_iter().flatten().filter_map(one).collect()
}

/// What is shown of a plan's prints on paper: their pictures as screens show them. One that is gone is left out.
pub(crate) async fn views(app: &App, team: Uuid, plan: &Value) -> Result<Pictures, Failure> {
    let mut shown = Pictures::new();
    for on in on_prints(plan) {
        let Some(row) = pictures::find(&app.pool, team, on.picture).await? else {
            continue;
        };
        if let Some(bytes) = app.objects.get(&row.view).await? {
            let picture = Picture {
                jpeg: bytes.to_vec(),
                turned: on.turned,
            };
            shown.insert(on.print, picture);
        }
    }
    Ok(shown)
}

/// A team's picture as screens show it.
pub(crate) async fn picture_view(app: &App, team: Uuid, id: Uuid) -> Result<Bytes, Failure> {
    let missing = || Failure::Missing("picture");
    let row = pictures::find(&app.pool, team, id)
        .await?
        .ok_or_else(missing)?;
    app.objects.get(&row.view).await?.ok_or_else(missing)
}
