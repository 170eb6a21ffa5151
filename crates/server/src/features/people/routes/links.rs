//! Links that work once: the first lead's, and invitations.

use crate::auth::{Auth, check_password, hash};
use crate::features::people::routes::session::open;
use crate::features::people::store::links::LinkRow;
use crate::features::people::store::{links, people, teams};
use crate::features::people::views::{
    LinkView, MeView, NewPerson, PasswordByLink, PasswordLinkView,
};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Token};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use sqlx::PgTransaction;
use uuid::Uuid;

/// What a link is for, while it works.
#[utoipa::path(
    get, operation_id = "show_link", path = "/api/links/{token}", tag = "people", params(("token" = String, Path)),
    responses((status = 200, body = LinkView), (status = 404, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn show(
    State(app): State<App>,
    Token(token): Token,
) -> Result<Json<LinkView>, Failure> {
    let link = open_link(&app, &token).await?;
    Ok(Json(LinkView {
        team: link.team_name,
        role: link.role,
        made_by: link.made_by,
    }))
}

/// Uses a link as a new person: she is signed in.
#[utoipa::path(
    post, operation_id = "join", path = "/api/links/{token}", tag = "people", params(("token" = String, Path)), request_body = NewPerson,
    responses(
        (status = 200, body = MeView),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn join(
    State(app): State<App>,
    mut auth: Auth,
    Token(token): Token,
    Body(new): Body<NewPerson>,
) -> Result<Json<MeView>, Failure> {
    let link = open_link(&app, &token).await?;
    let account = names::new_account("account", &new.account)?;
    let name = names::short("name", &new.name)?;
    check_password("password", &new.password)?;
    let team_name = match (&link.team_id, &new.team) {
        (Some(_), _) => None,
        (None, Some(team)) => Some(names::short("team", team)?),
        (None, None) => return Err(Invalid::one("team", "nothing", "the name of your team").into()),
    };
    let hash = app.passwords.hash(new.password).await?;
    let mut tx = app.pool.begin().await?;
    let taken = || {
        Failure::Standing(format!(
            "The name “{account}” is taken: choose another to sign in with."
        ))
    };
    let person = people::insert(&mut *tx, &account, &name, &hash)
        .await?
        .ok_or_else(taken)?;
    let team = spend(&mut tx, &link, person, team_name.as_deref()).await?;
    tx.commit().await?;
    let row = people::in_team(&app.pool, person, team)
        .await?
        .ok_or(Failure::Missing("team"))?;
    open(&app, &mut auth, &row).await
}

/// Uses an invitation as the person who is signed in.
#[utoipa::path(
    put, operation_id = "join_as_me", path = "/api/links/{token}", tag = "people", params(("token" = String, Path)),
    responses(
        (status = 200, body = MeView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn join_as_me(
    State(app): State<App>,
    mut auth: Auth,
    Token(token): Token,
) -> Result<Json<MeView>, Failure> {
    let me = auth.user.clone().ok_or(Failure::SignedOut)?;
    let link = open_link(&app, &token).await?;
    if link.team_id.is_none() {
        return Err(Failure::Missing("link"));
    }
    let mut tx = app.pool.begin().await?;
    let team = spend(&mut tx, &link, me.id, None).await?;
    tx.commit().await?;
    let row = people::in_team(&app.pool, me.id, team)
        .await?
        .ok_or(Failure::Missing("team"))?;
    open(&app, &mut auth, &row).await
}

/// Whose password a link sets, while it works.
#[utoipa::path(
    get, operation_id = "show_password_link", path = "/api/password-links/{token}", tag = "people", params(("token" = String, Path)),
    responses((status = 200, body = PasswordLinkView), (status = 404, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn show_password_link(
    State(app): State<App>,
    Token(token): Token,
) -> Result<Json<PasswordLinkView>, Failure> {
    let link = links::find_password_link(&app.pool, &hash(&token))
        .await?
        .ok_or(Failure::Missing("link"))?;
    Ok(Json(PasswordLinkView {
        account: link.account,
        name: link.name,
        made_by: link.made_by,
    }))
}

/// Sets a new password by a link, and signs in: every other session of hers ends.
#[utoipa::path(
    put, operation_id = "set_password", path = "/api/password-links/{token}", tag = "people", params(("token" = String, Path)),
    request_body = PasswordByLink,
    responses(
        (status = 200, body = MeView),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn set_password(
    State(app): State<App>,
    mut auth: Auth,
    Token(token): Token,
    Body(new): Body<PasswordByLink>,
) -> Result<Json<MeView>, Failure> {
    let link = links::find_password_link(&app.pool, &hash(&token))
        .await?
        .ok_or(Failure::Missing("link"))?;
    check_password("password", &new.password)?;
    let hash = app.passwords.hash(new.password).await?;
    let mut tx = app.pool.begin().await?;
    if !links::spend(&mut *tx, link.id).await? {
        return Err(Failure::Missing("link"));
    }
    people::set_password(&mut *tx, link.person_id, &hash).await?;
    tx.commit().await?;
    let person = people::find(&app.pool, link.person_id, None)
        .await?
        .ok_or(Failure::Missing("person"))?;
    open(&app, &mut auth, &person).await
}

async fn open_link(app: &App, token: &str) -> Result<LinkRow, Failure> {
    links::find(&app.pool, &hash(token))
        .await?
        .ok_or(Failure::Missing("link"))
}

/// Uses the link up and takes the person into its team, made now for a first lead.
async fn spend(
    tx: &mut PgTransaction<'_>,
    link: &LinkRow,
    person: Uuid,
    new_team: Option<&str>,
) -> Result<Uuid, Failure> {
    if !links::spend(&mut **tx, link.id).await? {
        return Err(Failure::Missing("link"));
    }
    let team = match (link.team_id, new_team) {
        (Some(team), _) => team,
        // Pages from before there were people belong to whoever sets the server up.
        (None, name) => match (
            teams::without_people(&mut **tx).await?,
            name.unwrap_or("My team"),
        ) {
            (Some(team), name) => {
                teams::rename(&mut **tx, team, name).await?;
                team
            }
            (None, name) => teams::insert(&mut **tx, name).await?,
        },
    };
    people::join(&mut **tx, team, person, &link.role).await?;
    Ok(team)
}
