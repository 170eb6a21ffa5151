//! Pictures that were put in.

use serde_json::Value;
use sqlx::{PgConnection, PgExecutor};
use time::OffsetDateTime;
use uuid::Uuid;

/// A picture as it is known; its pixels lie in the object store.
#[derive(Debug, Clone)]
pub(crate) struct PictureRow {
    pub(crate) id: Uuid,
    pub(crate) name: String,
    pub(crate) width: i32,
    pub(crate) height: i32,
    /// The names of its files.
    pub(crate) original: String,
    pub(crate) view: String,
    pub(crate) thumb: String,
    pub(crate) made_at: OffsetDateTime,
    /// A photo that goes on pages, not a picture of a sketch.
    pub(crate) is_photo: bool,
}

/// One of a team's.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<PictureRow>> {
    sqlx::query_as!(
        PictureRow,
        "SELECT id, name, width, height, original, view, thumb, made_at, is_photo FROM pictures WHERE team_id = $1 AND id = $2",
        team,
        id
    )
    .fetch_optional(db)
    .await
}

/// A team's photo, or picture of a sketch, of which that is the original's file.
pub(crate) async fn with_original(
    db: impl PgExecutor<'_>,
    team: Uuid,
    original: &str,
    is_photo: bool,
) -> sqlx::Result<Option<PictureRow>> {
    sqlx::query_as!(
        PictureRow,
        "SELECT id, name, width, height, original, view, thumb, made_at, is_photo FROM pictures
             WHERE team_id = $1 AND original = $2 AND is_photo = $3 AND NOT is_paper ORDER BY made_at LIMIT 1",
        team,
        original,
        is_photo
    )
    .fetch_optional(db)
    .await
}

/// A team's newest photos, or pictures of sketches, so many of them.
pub(crate) async fn newest(
    db: impl PgExecutor<'_>,
    team: Uuid,
    is_photo: bool,
    most: i64,
) -> sqlx::Result<Vec<PictureRow>> {
    sqlx::query_as!(
        PictureRow,
        "SELECT id, name, width, height, original, view, thumb, made_at, is_photo FROM pictures WHERE team_id = $1 AND is_photo = $2 AND NOT is_paper ORDER BY made_at DESC, id LIMIT $3",
        team,
        is_photo,
        most
    )
    .fetch_all(db)
    .await
}

/// Notes a picture, whose pixels lie in the store already.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    team: Uuid,
    row: &PictureRow,
    made_by: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO pictures (id, team_id, name, width, height, original, view, thumb, made_by, made_at, is_photo) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)",
        row.id,
        team,
        &row.name,
        row.width,
        row.height,
        &row.original,
        &row.view,
        &row.thumb,
        made_by,
        row.made_at,
        row.is_photo
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Notes that a picture is one of a paper: it is offered neither as a photo nor as a sketch.
pub(crate) async fn mark_as_paper(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE pictures SET is_paper = true WHERE team_id = $1 AND id = $2",
        team,
        id
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// A page that was lifted out of a picture; its pixels lie in the object store.
#[derive(Debug, Clone)]
pub(crate) struct LiftRow {
    pub(crate) id: Uuid,
    pub(crate) picture_id: Uuid,
    pub(crate) corners: Value,
    pub(crate) swatches: Value,
    /// The name of its page's file.
    pub(crate) page: String,
}

/// One of a team's lifts.
pub(crate) async fn find_lift(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<LiftRow>> {
    sqlx::query_as!(
        LiftRow,
        "SELECT id, picture_id, corners, swatches, page FROM lifts WHERE team_id = $1 AND id = $2",
        team,
        id
    )
    .fetch_optional(db)
    .await
}

/// Notes a lift, whose pixels lie in the store already.
pub(crate) async fn insert_lift(
    db: impl PgExecutor<'_>,
    team: Uuid,
    row: &LiftRow,
    made_by: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO lifts (id, team_id, picture_id, corners, swatches, page, made_by) VALUES ($1, $2, $3, $4, $5, $6, $7)",
        row.id,
        team,
        row.picture_id,
        &row.corners,
        &row.swatches,
        &row.page,
        made_by
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Takes away what was brought upright for a reading some days ago and never kept with a sketch, and returns its files.
pub(crate) async fn delete_left_lifts(
    db: impl PgExecutor<'_>,
    team: Uuid,
    picture: Uuid,
) -> sqlx::Result<Vec<String>> {
    sqlx::query_scalar!(
        "DELETE FROM lifts WHERE team_id = $1 AND picture_id = $2 AND made_at < now() - interval '3 days'
             AND NOT EXISTS (SELECT FROM sketches WHERE sketches.lift_id = lifts.id) RETURNING page",
        team,
        picture
    )
    .fetch_all(db)
    .await
}

/// Whether a sketch of the drawer, set aside or not, was read from a picture or laid over it, or a page shows it.
pub(crate) async fn is_used(db: impl PgExecutor<'_>, team: Uuid, id: Uuid) -> sqlx::Result<bool> {
    sqlx::query_scalar!(
        "SELECT EXISTS (SELECT FROM sketches WHERE team_id = $1 AND picture_id = $2)
             OR EXISTS (SELECT FROM pages WHERE team_id = $1 AND plan #> '{photos,photos}' @> jsonb_build_array(jsonb_build_object('picture', $2::uuid::text))) AS \"used!\"",
        team,
        id
    )
    .fetch_one(db)
    .await
}

/// The file of a team's picture in a screen's size, once it has been made.
pub(crate) async fn form(
    db: impl PgExecutor<'_>,
    team: Uuid,
    picture: Uuid,
    form: &str,
) -> sqlx::Result<Option<String>> {
    sqlx::query_scalar!(
        "SELECT f.file FROM picture_forms f JOIN pictures p ON p.id = f.picture_id WHERE p.team_id = $1 AND f.picture_id = $2 AND f.form = $3",
        team,
        picture,
        form
    )
    .fetch_optional(db)
    .await
}

/// Notes a picture's file in a screen's size; whether it had none.
pub(crate) async fn insert_form(
    db: impl PgExecutor<'_>,
    picture: Uuid,
    form: &str,
    file: &str,
) -> sqlx::Result<bool> {
    let done = sqlx::query!(
        "INSERT INTO picture_forms (picture_id, form, file) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING",
        picture,
        form,
        file
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Throws a picture away with all that was lifted from it: the names of the files that they used.
pub(crate) async fn delete(
    db: &mut PgConnection,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<Vec<String>>> {
    let mut names: Vec<String> = sqlx::query_scalar!(
        "DELETE FROM lifts WHERE team_id = $1 AND picture_id = $2 RETURNING page",
        team,
        id
    )
    .fetch_all(&mut *db)
    .await?;
    let screens = sqlx::query_scalar!(
        "DELETE FROM picture_forms f USING pictures p WHERE p.id = f.picture_id AND p.team_id = $1 AND p.id = $2 RETURNING f.file",
        team,
        id
    )
    .fetch_all(&mut *db)
    .await?;
    names.extend(screens);
    let own = sqlx::query!(
        "DELETE FROM pictures WHERE team_id = $1 AND id = $2 RETURNING original, view, thumb",
        team,
        id
    )
    .fetch_optional(db)
    .await?;
    Ok(own.map(|own| {
        names.extend([own.original, own.view, own.thumb]);
        names
    }))
}
