//! A page's log: its journal and time, what went wrong over a season, and the pack in which the page is published.

pub(crate) mod comparing;
pub(crate) mod giving_away;
pub(crate) mod looking_back;
mod packing;
pub(crate) mod views;

use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::routes::exports::{FittedPage, fitted_page};
use crate::features::pages::routes::find;
use crate::features::pages::store::{self as pages, Shelf};
use crate::features::photos::pictures::picture_view;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, download};
use crate::http::names::file_name;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::HeaderMap;
use metrosk_core::calls::CallKind;
use metrosk_core::document::length_number;
use metrosk_core::fit::Approach;
use metrosk_core::length::Unit;
use metrosk_core::log::{
    Entry, LogDecisions, Pack, ahead_of, counted, journal, minutes_taken, missing, suggested,
};
use metrosk_core::plan::{Plan, brought_up};
use metrosk_sheet::{Paper, Pictures, Subject, measurement_pdf};
use packing::{Archive, pack_of, stash_of};
pub(crate) use packing::{numbers, with_numbers};
use serde_json::{Value, json};
use uuid::Uuid;
use views::LogSeenDoc;

/// So many finished pages make a season.
const A_SEASON: i64 = 200;

/// What a page's log comes to: time, journal, what went wrong this season and what that suggests, and what is in the pack.
#[utoipa::path(
    get, operation_id = "log_seen", path = "/api/pages/{id}/log", tag = "log", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = LogSeenDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn seen(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Value>, Failure> {
    let row = find(&app, &member, id).await?;
    let plan = Plan::from_json(&row.plan)?;
    let page = match fitted_page(&app, &member, id).await {
        Ok(page) => Some(page),
        // A page that can't be laid out has its log all the same.
        Err(Failure::Invalid(_)) => None,
        Err(other) => return Err(other),
    };
    let season = season(&app, &member, id, &plan.log.decisions).await?;
    let items = stash_of(&app, &member, &plan).await?;
    let work = move |_: &metrosk_core::Cancel| {
        let log = &plan.log.decisions;
        let layout = page.as_ref().map(|p| &p.layout);
        let (pack, planned) = pack_of(&row.name, &row.author, &plan, layout, &items);
        let tuck = plan.papers.decisions.tuck;
        let unit = plan.unit;
        let in_a_hop = plan
            .call
            .decisions
            .call
            .as_ref()
            .is_some_and(|c| c.kind == CallKind::Hop);
        let supplies = pack.supplies.iter();
        let supplies: Vec<Value> = supplies
            .map(|s| json!({"kit": s.kit, "name": s.name, "count": s.count}))
            .collect();
        json!({
            "planned": planned,
            "took": minutes_taken(&log.entries),
            "days": days_json(&log.entries),
            "ahead": ahead_of(&log.entries, chrono::Utc::now()),
            "wrong": counted(season.iter()).iter().map(|c| json!({"what": c.what.name(), "count": c.count})).collect::<Vec<_>>(),
            "suggestions": suggested(season.iter(), tuck, unit).iter().map(|s| json!({"text": s.text,
                "tuck": s.tuck.map(|t| length_number(t, unit)), "helps": s.helps, "of": s.of})).collect::<Vec<_>>(),
            "pack": {"story": pack.story, "supplies": supplies, "credits": pack.credits, "measures": pack.measures.len(),
                "steps": pack.steps.len(), "tags": pack.tags, "missing": missing(&pack, log, in_a_hop), "text": pack.to_plain()},
        })
    };
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}

fn days_json(entries: &[Entry]) -> Vec<Value> {
    let days = journal(entries);
    days.iter()
        .map(|d| {
            let ids: Vec<&str> = d.entries.iter().map(|e| e.id.as_str()).collect();
            json!({"day": d.day.to_string(), "entries": ids})
        })
        .collect()
}

/// The entries of this page and of the team's others, this page's as it is now.
async fn season(
    app: &App,
    member: &Member,
    own: Uuid,
    log: &LogDecisions,
) -> Result<Vec<Entry>, Failure> {
    let mut entries = log.entries.clone();
    for shelf in [Shelf::Making, Shelf::Finished] {
        for row in pages::list(&app.pool, member.team(), shelf, A_SEASON, 0).await? {
            let plan = brought_up(&row.plan);
            let unit = if plan["unit"] == "mm" {
                Unit::Millimetre
            } else {
                Unit::Inch
            };
            if row.id != own
                && let Some(section) = plan.get("log")
                && let Ok(read) = LogDecisions::from_json(section, unit)
            {
                entries.extend(read.entries);
            }
        }
    }
    Ok(entries)
}

/// What may be told of a page: its pack, without what stays out.
pub(crate) async fn told_pack(app: &App, member: &Member, id: Uuid) -> Result<Pack, Failure> {
    let page = fitted_page(app, member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let items = stash_of(app, member, &plan).await?;
    let work = move |_: &metrosk_core::Cancel| {
        pack_of(&page.name, &page.author, &plan, Some(&page.layout), &items).0
    };
    app.compute.run(member.team(), Work::Fit, work).await
}

/// The pack of a page as an archive: the texts, the measurement sheet, the sketch, the steps and the pictures.
#[utoipa::path(
    get, operation_id = "page_pack", path = "/api/pages/{id}/pack.zip", tag = "take away", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "application/zip"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn pack(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let page = fitted_page(&app, &member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let items = stash_of(&app, &member, &plan).await?;
    let log = plan.log.decisions.clone();
    let mut pictures = Vec::new();
    let named = log.picture.iter().map(|p| ("whole-page", p));
    let closeups = log.closeups.iter().map(|p| ("close-up", p));
    for (n, (name, picture)) in named.chain(closeups).enumerate() {
        let Ok(picture) = Uuid::parse_str(picture) else {
            continue;
        };
        match picture_view(&app, member.team(), picture).await {
            Ok(bytes) => pictures.push((format!("pictures/{}-{name}.jpg", n + 1), bytes)),
            // One that was thrown away is told as missing on the screen.
            Err(Failure::Missing(_)) => {}
            Err(other) => return Err(other),
        }
    }
    let headers = download("application/zip", &file_name(&page.name, ".zip"));
    let work = move |_: &metrosk_core::Cancel| packed(&page, &plan, &items, &pictures);
    Ok((
        headers,
        app.compute
            .run(member.team(), Work::Drawing, work)
            .await??,
    ))
}

fn packed(
    page: &FittedPage,
    plan: &Plan,
    items: &packing::Items,
    pictures: &[(String, axum::body::Bytes)],
) -> Result<Vec<u8>, Failure> {
    let (pack, _) = pack_of(&page.name, &page.author, plan, Some(&page.layout), items);
    let sketch = &plan.sketch.decisions.sketch;
    let none = Pictures::new();
    let subject = Subject {
        name: &page.name,
        sketch,
        layout: &page.layout,
        way: plan.fit.decisions.approach.map_or("auto", Approach::name),
        pictures: &none,
    };
    let mut archive = Archive::new();
    archive.add("page.md", pack.to_markdown().as_bytes())?;
    archive.add("page.html", pack.to_html().as_bytes())?;
    archive.add("page.txt", pack.to_plain().as_bytes())?;
    let sheet = measurement_pdf(&subject, Paper::A4);
    let sheet = sheet.map_err(|e| Failure::Internal(e.to_string()))?;
    archive.add("measures.pdf", &sheet)?;
    archive.add("sketch.metrosk.json", &pretty(&sketch.to_json())?)?;
    let steps: Vec<&str> = pack.steps.iter().map(|s| s.text.as_str()).collect();
    archive.add("steps.json", &pretty(&json!({"steps": steps}))?)?;
    for (name, bytes) in pictures {
        archive.add(name, bytes)?;
    }
    archive.finish()
}

fn pretty(value: &Value) -> Result<Vec<u8>, Failure> {
    serde_json::to_vec_pretty(value).map_err(|e| Failure::Internal(e.to_string()))
}
