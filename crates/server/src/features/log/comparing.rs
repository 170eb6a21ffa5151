//! The picture of a finished page held against its plan, edge by edge.

use super::views::ComparedDoc;
use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::routes::exports::fitted_page;
use crate::features::pictures::routes::original;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::Id;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::{Invalid, number};
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use metrosk_core::log::{Compared, SeenBlock, compared, seen_blocks};
use metrosk_core::plan::Plan;
use metrosk_vision::edges_near;
use serde_json::{Value, json};
use uuid::Uuid;

/// Where the finished page differs from its plan, by the picture of it at the Log station. Found edges are for her to confirm.
#[utoipa::path(
    get, operation_id = "page_differences", path = "/api/pages/{id}/differences", tag = "log", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = ComparedDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn differences(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Value>, Failure> {
    let page = fitted_page(&app, &member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let picture = plan.log.decisions.picture.as_deref();
    let Some(picture) = picture.and_then(|p| Uuid::parse_str(p).ok()) else {
        let allowed = "a picture of the finished page, at the Log station";
        return Err(Invalid::one("log.picture", "no picture", allowed).into());
    };
    let bytes = original(&app, member.team(), picture).await?;
    let unit = plan.unit;
    let work = move |_: &metrosk_core::Cancel| {
        let pixels = metrosk_vision::decode(&bytes)
            .map_err(|e| e.to_string())?
            .pixels;
        let seen = seen_blocks(&page.layout);
        let found = found_edges(&pixels, &page.layout, &seen);
        Ok::<_, String>(written(&compared(&seen, &found, unit), unit))
    };
    let done = app.compute.run(member.team(), Work::Picture, work).await?;
    Ok(Json(done.map_err(Failure::Internal)?))
}

/// The edges that a picture of the whole page or spread shows near the planned ones, in ticks.
fn found_edges(
    pixels: &image::RgbImage,
    layout: &Layout,
    seen: &[SeenBlock],
) -> Vec<[Option<f64>; 4]> {
    let page = layout.canvas.page;
    let across = page.w.ticks() as f64 * f64::from(layout.canvas.pages);
    let scale = [
        f64::from(pixels.width()) / across,
        f64::from(pixels.height()) / page.h.ticks() as f64,
    ];
    let of_block = |block: &SeenBlock| {
        let sides = [0, 1, 2, 3].map(|n| block.sides[n] * scale[n % 2]);
        [0, 1, 2, 3].map(|n| {
            let found = edges_near(pixels, sides, block.reach[n]? * scale[n % 2]);
            Some(found[n]? / scale[n % 2])
        })
    };
    seen.iter().map(of_block).collect()
}

fn written(found: &Compared, unit: Unit) -> Value {
    let side = |ticks: f64| number(ticks / unit.ticks() as f64);
    let differences: Vec<Value> = found
        .differences
        .iter()
        .map(|d| {
            json!({"block": d.block, "text": d.text, "right": side(d.moved.0), "down": side(d.moved.1),
                   "wider": side(d.grown.0), "taller": side(d.grown.1)})
        })
        .collect();
    json!({"differences": differences, "looked_for": found.looked_for, "found": found.found, "is_this_page": found.is_this_page})
}
