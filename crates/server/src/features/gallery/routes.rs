//! Entering a page in the gallery, asking how it stands, replacing and withdrawing it; the simulated gallery's moods.

use super::store::{self as gallery, EntryRow, NewEntry};
use super::views::{EntryAsked, EntryView, GalleryMood, GalleryView};
use super::{Told, ToldPicture, job, simulated};
use crate::auth::{Maker, Member};
use crate::features::jobs::store::{self as jobs, NewJob};
use crate::features::log::told_pack;
use crate::features::pages::routes::find as find_page;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id};
use crate::http::idempotency::{Answer, Once, begin};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use metrosk_core::plan::Plan;
use serde_json::json;
use sqlx::PgConnection;
use uuid::Uuid;

/// How many entries of a page, and of the wall, are told.
const TOLD: i64 = 50;

/// Enters a finished page in the gallery, in answer to its call. What is told of it is written down as it is now.
#[utoipa::path(
    post, operation_id = "enter_in_gallery", path = "/api/pages/{id}/gallery-entries", tag = "gallery",
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)), request_body = EntryAsked,
    responses(
        (status = 202, body = EntryView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn enter(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(asked): Body<EntryAsked>,
) -> Result<Answer, Failure> {
    let page = find_page(&app, &maker, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let told = told(&app, &maker, id, &plan).await?;
    let challenge = page.call.as_ref().map(|c| c.id);
    let mut write = begin!(once, &app, &maker, "enter a page in the gallery");
    if let Some(old) = asked.replaces {
        replaceable(&one(write.db(), maker.team(), old).await?, id)?;
    }
    let entry = Uuid::new_v4();
    let job = put_down(write.db(), &maker, entry).await?;
    let new = NewEntry {
        id: entry,
        page: id,
        challenge,
        replaces: asked.replaces,
        entry: &json!(told),
        job,
        asked_by: maker.name(),
    };
    gallery::insert(write.db(), maker.team(), new).await?;
    let view = EntryView::from(one(write.db(), maker.team(), entry).await?);
    write.finish(StatusCode::ACCEPTED, &view).await
}

fn replaceable(old: &EntryRow, page: Uuid) -> Result<(), Failure> {
    if old.page_id != page {
        return Err(Failure::Missing("entry"));
    }
    if old.state == "entered" {
        return Ok(());
    }
    Err(Failure::Standing(
        "Only an entry that hangs in the gallery can be replaced.".to_owned(),
    ))
}

/// What is told of a page: its pack without what stays out, and its pictures.
async fn told(app: &App, maker: &Maker, page: Uuid, plan: &Plan) -> Result<Told, Failure> {
    let log = &plan.log.decisions;
    let picture = log.picture.as_deref().and_then(|p| Uuid::parse_str(p).ok());
    let Some(whole) = picture else {
        let allowed = "a picture of the finished page, at the Log station";
        return Err(Invalid::one("log.picture", "no picture", allowed).into());
    };
    let pack = told_pack(app, maker, page).await?;
    let close = log.closeups.iter().filter_map(|p| Uuid::parse_str(p).ok());
    let close = close.map(|picture| ToldPicture {
        picture,
        shows: format!("A close-up of {}", pack.title),
    });
    let whole = ToldPicture {
        picture: whole,
        shows: format!("{}, the whole page", pack.title),
    };
    Ok(Told {
        pictures: std::iter::once(whole).chain(close).collect(),
        text: pack.to_plain(),
        title: pack.title,
        maker: pack.maker,
        credits: pack.credits,
    })
}

async fn one(db: &mut PgConnection, team: Uuid, id: Uuid) -> Result<EntryRow, Failure> {
    let rows = gallery::entries(db, team, (None, Some(id)), 1).await?;
    rows.into_iter().next().ok_or(Failure::Missing("entry"))
}

async fn put_down(db: &mut PgConnection, maker: &Maker, entry: Uuid) -> Result<Uuid, Failure> {
    let key = entry.to_string();
    let new = NewJob {
        kind: job::KIND,
        key: Some(&key),
        input: &json!({"entry": entry}),
        asked_by: maker.name(),
    };
    Ok(jobs::insert(db, maker.team(), new).await?)
}

/// A page's entries, the newest first, and how each stands.
#[utoipa::path(
    get, operation_id = "gallery_entries", path = "/api/pages/{id}/gallery-entries", tag = "gallery", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<EntryView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn entries(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<EntryView>>, Failure> {
    find_page(&app, &member, id).await?;
    let rows = gallery::entries(&app.pool, member.team(), (Some(id), None), TOLD).await?;
    Ok(Json(rows.into_iter().map(EntryView::from).collect()))
}

/// Asks the gallery again what became of an entry, and brings it there if it never came.
#[utoipa::path(
    post, operation_id = "ask_gallery_again", path = "/api/gallery-entries/{id}/ask-again", tag = "gallery", params(("id" = Uuid, Path)),
    responses(
        (status = 202, body = EntryView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn ask_again(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<(StatusCode, Json<EntryView>), Failure> {
    let mut tx = app.pool.begin().await?;
    let row = one(&mut tx, maker.team(), id).await?;
    let state = match row.state.as_str() {
        "entered" | "withdrawn" => {
            let said = format!(
                "This entry is {} already; there is nothing to ask.",
                row.state
            );
            return Err(Failure::Standing(said));
        }
        "withdrawing" => "withdrawing",
        _ => "sent",
    };
    let job = put_down(&mut tx, &maker, id).await?;
    gallery::go_on_with(&mut *tx, maker.team(), id, (job, state)).await?;
    let view = EntryView::from(one(&mut tx, maker.team(), id).await?);
    tx.commit().await?;
    Ok((StatusCode::ACCEPTED, Json(view)))
}

/// Takes an entry out of the gallery.
#[utoipa::path(
    post, operation_id = "withdraw_entry", path = "/api/gallery-entries/{id}/withdraw", tag = "gallery", params(("id" = Uuid, Path)),
    responses(
        (status = 202, body = EntryView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn withdraw(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<(StatusCode, Json<EntryView>), Failure> {
    let mut tx = app.pool.begin().await?;
    let row = one(&mut tx, maker.team(), id).await?;
    let is_under_way = matches!(row.job_state.as_deref(), Some("waiting" | "running"));
    if is_under_way {
        let said = "This entry is on its way to the gallery; it can be withdrawn in a moment.";
        return Err(Failure::Standing(said.to_owned()));
    }
    if row.state == "withdrawn" || row.state == "refused" {
        let said = format!(
            "This entry is {}: it does not hang in the gallery.",
            row.state
        );
        return Err(Failure::Standing(said));
    }
    let job = put_down(&mut tx, &maker, id).await?;
    gallery::go_on_with(&mut *tx, maker.team(), id, (job, "withdrawing")).await?;
    let view = EntryView::from(one(&mut tx, maker.team(), id).await?);
    tx.commit().await?;
    Ok((StatusCode::ACCEPTED, Json(view)))
}

/// The simulated gallery: how it is, and what hangs there.
#[utoipa::path(
    get, operation_id = "gallery", path = "/api/gallery", tag = "gallery",
    responses((status = 200, body = GalleryView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn gallery_state(
    State(app): State<App>,
    member: Member,
) -> Result<Json<GalleryView>, Failure> {
    let mood = gallery::mood(&mut *app.pool.acquire().await?, member.team()).await?;
    let wall = gallery::wall(&app.pool, member.team(), TOLD).await?;
    Ok(Json(GalleryView {
        mood,
        wall: wall.into_iter().map(Into::into).collect(),
    }))
}

/// Lets the simulated gallery be slow, refuse, be gone, answer rubbish, or vanish after taking an entry; or be well again.
#[utoipa::path(
    put, operation_id = "set_gallery", path = "/api/gallery", tag = "gallery", request_body = GalleryMood,
    responses(
        (status = 200, body = GalleryMood),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn set_gallery(
    State(app): State<App>,
    maker: Maker,
    Body(to): Body<GalleryMood>,
) -> Result<Json<GalleryMood>, Failure> {
    if !simulated::MOODS.contains(&to.mood.as_str()) {
        let allowed = simulated::MOODS.join(", ");
        return Err(Invalid::one("mood", format!("“{}”", to.mood), allowed).into());
    }
    gallery::set_mood(&app.pool, maker.team(), &to.mood).await?;
    Ok(Json(to))
}
