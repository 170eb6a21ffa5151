//! Pictures: put in, looked at, read, lifted from. What the camera noted of place and time is not kept; the pixels are.

mod lift;
mod making;
mod metadata;
mod reading;
mod screens;
mod shown;

pub(crate) use lift::{
    __path_edges, __path_edges_of_picture, __path_lift, __path_lifted_page, __path_show_lift,
    COLOURS, QUALITY, SIDE, edges, edges_of_picture, lift, lifted_page, show_lift, swatch_views,
};
pub(crate) use making::{__path_made, made};
pub(crate) use reading::{__path_read, read};
pub(crate) use shown::Shown;

use crate::auth::{Maker, Member, Person};
use crate::compute::Work;
use crate::features::files::content::Content;
use crate::features::files::{content as files, store as file_rows};
use crate::features::pictures::store::{self as pictures, PictureRow};
use crate::features::pictures::views::{LimitsView, PictureView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, InHand, QueryParams, Raw};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names;
use crate::state::{App, LARGEST_DOCUMENT, LARGEST_FILE};
use axum::Json;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use metadata::without_metadata;
use metrosk_core::document::Invalid;
use metrosk_vision::{FEWEST_PIXELS, MOST_PIXELS, Picture, Unreadable, decode, jpeg, resized};
use serde::Deserialize;
use sqlx::PgConnection;
use time::OffsetDateTime;
use uuid::Uuid;

/// The longer side of a picture as it is shown, and as a thumbnail.
const VIEW: u32 = 1600;
const THUMB: u32 = 240;
/// How many pictures are offered again.
const OFFERED: i64 = 24;
/// How many photos are.
const PHOTOS_OFFERED: i64 = 400;
/// The forms in which a picture is shown; `straight` only where a page was lifted from it before lifts had ids of their own.
pub(crate) const FORMS: [&str; 4] = ["original", "view", "thumb", "straight"];

/// A picture made ready to be kept: as it was given, without its metadata, and as a view and a thumbnail of it turned upright.
#[derive(Clone, Debug)]
pub(crate) struct Prepared {
    pub(crate) size: (u32, u32),
    media_type: &'static str,
    /// Original, view and thumbnail.
    pub(crate) forms: [(&'static str, Vec<u8>); 3],
}

impl Prepared {
    /// What is kept of it.
    fn contents(self) -> Vec<Content> {
        let media_type = self.media_type;
        let content = |(kind, bytes)| Content {
            kind,
            media_type: if kind == "original" {
                media_type
            } else {
                "image/jpeg"
            },
            bytes,
        };
        self.forms.into_iter().map(content).collect()
    }
}

/// Decodes within limits, and takes the metadata out of the bytes that were given.
pub(crate) fn prepared(bytes: &[u8]) -> Result<Prepared, Unreadable> {
    let Picture {
        pixels,
        format,
        orientation,
    } = decode(bytes)?;
    let encoded = |pixels: &_, quality| {
        jpeg(pixels, quality).map_err(|e| Unreadable::Broken("new", e.to_string()))
    };
    let (original, media_type) =
        without_metadata(bytes, format, orientation).map_err(|e| Unreadable::Broken(format, e))?;
    let view = resized(&pixels, VIEW);
    let forms = [
        ("original", original),
        ("view", encoded(&view, 86)?),
        ("thumb", encoded(&resized(&view, THUMB), 82)?),
    ];
    Ok(Prepared {
        size: (pixels.width(), pixels.height()),
        media_type,
        forms,
    })
}

/// The name of the page that was lifted from a picture before lifts had ids of their own: such a page has no row.
pub(crate) fn earlier_lift(id: Uuid) -> String {
    format!("pictures/{id}/straight.jpg")
}

/// What is said of a picture that is put in.
#[derive(Debug)]
pub(crate) struct NewPicture<'a> {
    pub(crate) id: Uuid,
    pub(crate) name: String,
    pub(crate) made_by: &'a str,
    /// A photo that goes on pages, not a picture of a sketch.
    pub(crate) is_photo: bool,
}

/// Keeps a picture's files, and what the table says of it.
pub(crate) async fn keep(
    app: &App,
    db: &mut PgConnection,
    team: Uuid,
    new: NewPicture<'_>,
    ready: Prepared,
) -> Result<PictureRow, Failure> {
    let (width, height) = (ready.size.0 as i32, ready.size.1 as i32);
    let names = files::keep(app, db, team, ready.contents()).await?;
    let [original, view, thumb] = <[String; 3]>::try_from(names)
        .map_err(|names| Failure::Internal(format!("{} files of three", names.len())))?;
    let row = PictureRow {
        id: new.id,
        name: new.name,
        width,
        height,
        original,
        view,
        thumb,
        made_at: OffsetDateTime::now_utc(),
        is_photo: new.is_photo,
    };
    pictures::insert(db, team, &row, new.made_by).await?;
    Ok(row)
}

/// What may be put in: told before anything is sent.
#[utoipa::path(
    get, operation_id = "limits", path = "/api/limits", tag = "pictures",
    responses((status = 200, body = LimitsView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn limits(
    State(app): State<App>,
    _person: Person,
    member: Result<Member, Failure>,
) -> Result<Json<LimitsView>, Failure> {
    let used = match member {
        Ok(member) => file_rows::used(&app.pool, member.team()).await?,
        Err(_) => 0,
    };
    Ok(Json(LimitsView {
        team_bytes: app.settings.team_bytes,
        team_bytes_used: used.unsigned_abs(),
        file_bytes: LARGEST_FILE as u64,
        document_bytes: LARGEST_DOCUMENT as u64,
        picture_pixels: MOST_PIXELS,
        picture_side: FEWEST_PIXELS,
        picture_types: ["image/jpeg", "image/png", "image/webp"]
            .map(str::to_owned)
            .to_vec(),
    }))
}

/// What a picture is called.
#[derive(Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Named {
    /// Its name, its file's for example.
    name: Option<String>,
    /// A photo that goes on pages, not a picture of a sketch. One that is there already is kept once.
    photo: Option<bool>,
    /// A picture of a paper: it is offered neither as a photo nor as a sketch.
    paper: Option<bool>,
}

/// Which pictures.
#[derive(Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Which {
    /// Photos that go on pages in place of pictures of sketches.
    photos: Option<bool>,
}

/// Puts a picture in (PNG, JPEG or WebP, up to 16 MB). Its size is checked before its pixels are decoded. It is kept as it is but for its
/// metadata: nothing of place, time and camera stays.
#[utoipa::path(
    post, operation_id = "add_picture", path = "/api/pictures", tag = "pictures",
    params(Named, ("Idempotency-Key" = Option<String>, Header)),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = 200, body = PictureView, description = "This photo is there already."),
        (status = 201, body = PictureView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn add(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    _in_hand: InHand,
    QueryParams(named): QueryParams<Named>,
    Raw(bytes): Raw,
) -> Result<Answer, Failure> {
    let name = named
        .name
        .as_deref()
        .map(str::trim)
        .filter(|n| !n.is_empty());
    let name = names::short(
        "name",
        &name
            .unwrap_or("A picture")
            .chars()
            .take(names::LONGEST)
            .collect::<String>(),
    )?;
    let allowed = "a picture: PNG, JPEG or WebP, up to 16 MB";
    let ready = app
        .compute
        .run(maker.team(), Work::Picture, move |_| prepared(&bytes))
        .await?
        .map_err(|e| Invalid::one("", e.to_string(), allowed))?;
    let mut write = begin!(once, &app, &maker, "add a picture");
    let is_photo = named.photo.unwrap_or_default();
    if is_photo {
        let original = files::name_of(maker.team(), "original", &ready.forms[0].1);
        let there = pictures::with_original(write.db(), maker.team(), &original, true).await?;
        if let Some(row) = there {
            let there = PictureView {
                known: true,
                ..view(&row)
            };
            return write.finish(StatusCode::OK, &there).await;
        }
    }
    let new = NewPicture {
        id: Uuid::new_v4(),
        name,
        made_by: maker.name(),
        is_photo,
    };
    let row = keep(&app, write.db(), maker.team(), new, ready).await?;
    if named.paper.unwrap_or_default() {
        pictures::mark_as_paper(write.db(), maker.team(), row.id).await?;
    }
    write.finish(StatusCode::CREATED, &view(&row)).await
}

/// The pictures that were put in last, the newest first.
#[utoipa::path(
    get, operation_id = "list_pictures", path = "/api/pictures", tag = "pictures", params(Which),
    responses((status = 200, body = Vec<PictureView>), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn list(
    State(app): State<App>,
    member: Member,
    QueryParams(which): QueryParams<Which>,
) -> Result<Json<Vec<PictureView>>, Failure> {
    let (is_photo, most) = match which.photos {
        Some(true) => (true, PHOTOS_OFFERED),
        _ => (false, OFFERED),
    };
    let rows = pictures::newest(&app.pool, member.team(), is_photo, most).await?;
    Ok(Json(rows.iter().map(view).collect()))
}

/// What is known of a picture.
#[utoipa::path(
    get, operation_id = "show_picture", path = "/api/pictures/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = PictureView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<PictureView>, Failure> {
    let row = pictures::find(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    Ok(Json(view(&row)))
}

/// A picture's pixels: `original` as it was given, as WebP `screen-480` and `screen-960`, and as JPEG `view` (up to 1600 pixels), `thumb`, or `straight`, the page that was lifted
/// from it before lifts had ids of their own.
#[utoipa::path(
    get, operation_id = "picture_file", path = "/api/pictures/{id}/{form}", tag = "pictures", params(("id" = Uuid, Path), ("form" = String, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "image/jpeg"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show_file(
    State(app): State<App>,
    member: Member,
    Path((id, form)): Path<(String, String)>,
) -> Result<Response, Failure> {
    let id = Uuid::parse_str(&id).map_err(|_| Failure::Missing("picture"))?;
    let row = pictures::find(&app.pool, member.team(), id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    if let Some(screen) = screens::screen(&form) {
        return screens::answer(&app, member.team(), &row, screen).await;
    }
    let form = FORMS
        .into_iter()
        .find(|f| *f == form)
        .ok_or(Failure::Missing("picture"))?;
    let name = match form {
        "original" => row.original,
        "view" => row.view,
        "thumb" => row.thumb,
        _ => {
            let bytes = app.objects.get(&earlier_lift(id)).await?;
            let mut response = bytes.ok_or(Failure::Missing("picture"))?.into_response();
            response
                .headers_mut()
                .insert(header::CONTENT_TYPE, HeaderValue::from_static("image/jpeg"));
            return Ok(response);
        }
    };
    files::answer(&app, member.team(), &name).await
}

/// Throws a picture away, and all that was lifted from it. One that a sketch was read from or laid over stays.
#[utoipa::path(
    delete, operation_id = "delete_picture", path = "/api/pictures/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn delete(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<StatusCode, Failure> {
    let mut tx = app.pool.begin().await?;
    if pictures::is_used(&mut *tx, maker.team(), id).await? {
        return Err(Failure::Standing(
            "A sketch was read from this picture or laid over it, or a page shows it, so it stays. What is set aside counts too.".to_owned(),
        ));
    }
    let names = pictures::delete(&mut tx, maker.team(), id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    file_rows::release(&mut tx, &names).await?;
    tx.commit().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// A picture of a team's at its full size.
pub(crate) async fn original(app: &App, team: Uuid, id: Uuid) -> Result<Bytes, Failure> {
    let row = pictures::find(&app.pool, team, id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    app.objects
        .get(&row.original)
        .await?
        .ok_or(Failure::Missing("picture"))
}

/// The page that was lifted from a team's picture before lifts had ids of their own.
async fn earlier_lifted(app: &App, team: Uuid, id: Uuid) -> Result<Bytes, Failure> {
    pictures::find(&app.pool, team, id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    app.objects
        .get(&earlier_lift(id))
        .await?
        .ok_or(Failure::Missing("picture"))
}

fn view(row: &PictureRow) -> PictureView {
    PictureView {
        id: row.id,
        name: row.name.clone(),
        size: [row.width.unsigned_abs(), row.height.unsigned_abs()],
        made_at: row.made_at,
        known: false,
    }
}
