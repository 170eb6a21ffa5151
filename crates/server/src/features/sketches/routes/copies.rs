//! Copies of a sketch, turned and flipped.

use super::{find, view};
use crate::auth::Maker;
use crate::features::sketches::store as sketches;
use crate::features::sketches::store::SketchRow;
use crate::features::sketches::views::SketchView;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, QueryParams};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::App;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use metrosk_core::sketch::{Flip, QuarterTurn, Sketch};
use serde::Deserialize;
use utoipa::IntoParams;

/// How a copy stands.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Orientation {
    /// 0, 90, 180 or 270 degrees clockwise; 0 and 180 for a spread.
    turn: Option<u32>,
    /// `none`, `across` or `down`.
    flip: Option<String>,
}

/// Copies a sketch in the drawer; the copy is turned and flipped as asked.
#[utoipa::path(
    post, operation_id = "copy_sketch", path = "/api/sketches/{id}/copy", tag = "sketches",
    params(("id" = Uuid, Path), Orientation, ("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = SketchView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn copy(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    QueryParams(stands): QueryParams<Orientation>,
) -> Result<Answer, Failure> {
    let mut row = find(&app, &maker, id).await?;
    if stands.turn.is_some() || stands.flip.is_some() {
        row.document = oriented(&row, &stands)?.to_json();
    }
    let name = copied(&row.name);
    row.document["name"] = name.as_str().into();
    let mut write = begin!(once, &app, &maker, &format!("copy sketch {id}"));
    let copy =
        sketches::insert(write.db(), maker.team(), &name, &row.document, maker.name()).await?;
    let row = sketches::find(write.db(), maker.team(), copy)
        .await?
        .ok_or(Failure::Missing("sketch"))?;
    write.finish(StatusCode::CREATED, &view(row)?).await
}

/// A sketch of the drawer, turned and flipped.
fn oriented(row: &SketchRow, stands: &Orientation) -> Result<Sketch, Failure> {
    let sketch = Sketch::from_json(&row.document)?;
    let degrees = stands.turn.unwrap_or(0);
    let turn =
        QuarterTurn::from_degrees(degrees).filter(|t| !(t.exchanges() && sketch.canvas.pages == 2));
    let allowed = if sketch.canvas.pages == 2 {
        "0 or 180 for a sketch of two pages"
    } else {
        "0, 90, 180 or 270"
    };
    let turn = turn.ok_or_else(|| Invalid::one("turn", degrees.to_string(), allowed))?;
    let flip = match stands.flip.as_deref() {
        None => Flip::None,
        Some(name) => Flip::from_name(name)
            .ok_or_else(|| Invalid::one("flip", format!("{name:?}"), Flip::NAMES.join(", ")))?,
    };
    Ok(sketch.oriented(turn, flip))
}

/// The name of a copy, no longer than a name may be.
pub(crate) fn copied(name: &str) -> String {
    let room = names::LONGEST - 7;
    format!(
        "{}, a copy",
        name.chars().take(room - 1).collect::<String>().trim_end()
    )
}
