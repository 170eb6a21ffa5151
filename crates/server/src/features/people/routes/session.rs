//! Signing in and out, and who is signed in.

use crate::auth::{Auth, Credentials, Person, Throttle, check_password};
use crate::features::people::store::people;
use crate::features::people::store::people::PersonRow;
use crate::features::people::views::{
    DefaultsDoc, MeView, NewPassword, PersonChange, SignIn, TeamChoice, TeamView,
};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::Body;
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::{ConnectInfo, State};
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use metrosk_core::plan::Defaults;
use std::net::SocketAddr;

/// Who is signed in, if anybody.
#[utoipa::path(
    get, operation_id = "who_am_i", path = "/api/me", tag = "people",
    responses((status = 200, body = MeView), (status = 503, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn me(
    State(app): State<App>,
    person: Result<Person, Failure>,
) -> Result<Json<MeView>, Failure> {
    match person {
        Ok(Person(person)) => view(&app, Some(&person)).await.map(Json),
        Err(Failure::SignedOut) => view(&app, None).await.map(Json),
        Err(failure) => Err(failure),
    }
}

/// Signs in.
#[utoipa::path(
    post, operation_id = "sign_in", path = "/api/session", tag = "people", request_body = SignIn,
    responses(
        (status = 200, body = MeView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
        (status = 429, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn sign_in(
    State(app): State<App>,
    mut auth: Auth,
    address: Address,
    Body(given): Body<SignIn>,
) -> Result<Json<MeView>, Failure> {
    let account = names::account(&given.account);
    let throttle = Throttle::of(&account, &address.0);
    throttle.begin(&app.pool).await?;
    let found = auth
        .authenticate(Credentials {
            account,
            password: given.password,
        })
        .await
        .map_err(failed)?;
    let person = found.ok_or(Failure::WrongSignIn)?;
    throttle.succeeded(&app.pool).await?;
    open(&app, &mut auth, &person).await
}

/// Signs in as the demo's lead, where the demo is served.
#[utoipa::path(
    post, operation_id = "sign_in_to_demo", path = "/api/session/demo", tag = "people",
    responses((status = 200, body = MeView), (status = 404, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn sign_in_to_demo(
    State(app): State<App>,
    mut auth: Auth,
) -> Result<Json<MeView>, Failure> {
    let found = if app.settings.demo {
        people::by_account(&app.pool, metrosk_demo::MAKER_ACCOUNT).await?
    } else {
        None
    };
    let person = found.ok_or(Failure::Missing("demo"))?;
    open(&app, &mut auth, &person).await
}

/// Signs out.
#[utoipa::path(delete, operation_id = "sign_out", path = "/api/session", tag = "people", responses((status = 204)))]
pub(crate) async fn sign_out(mut auth: Auth) -> Result<StatusCode, Failure> {
    auth.logout().await.map_err(failed)?;
    Ok(StatusCode::NO_CONTENT)
}

/// Goes to another of her teams: new tabs begin there. A tab names the team it is in by itself (`Metrosk-Team`).
#[utoipa::path(
    put, operation_id = "choose_team", path = "/api/session/team", tag = "people", request_body = TeamChoice,
    responses(
        (status = 200, body = MeView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn choose_team(
    State(app): State<App>,
    mut auth: Auth,
    Person(person): Person,
    Body(choice): Body<TeamChoice>,
) -> Result<Json<MeView>, Failure> {
    let person = people::in_team(&app.pool, person.id, choice.team)
        .await?
        .ok_or(Failure::Missing("team"))?;
    open(&app, &mut auth, &person).await
}

/// Changes her name and her defaults.
#[utoipa::path(
    put, operation_id = "change_me", path = "/api/me", tag = "people", request_body = PersonChange,
    responses(
        (status = 200, body = MeView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn change_me(
    State(app): State<App>,
    Person(person): Person,
    Body(change): Body<PersonChange>,
) -> Result<Json<MeView>, Failure> {
    let name = names::short("name", &change.name)?;
    let told =
        serde_json::to_value(&change.defaults).map_err(|e| Failure::Internal(e.to_string()))?;
    let defaults = Defaults::from_json(&told).map_err(|e| names::under("defaults", e))?;
    people::update(&app.pool, person.id, &name, &defaults.to_json()).await?;
    let person = people::find(&app.pool, person.id, person.team).await?;
    view(&app, person.as_ref()).await.map(Json)
}

/// Changes her password; every other session of hers ends.
#[utoipa::path(
    put, operation_id = "change_password", path = "/api/me/password", tag = "people", request_body = NewPassword,
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
        (status = 429, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn change_password(
    State(app): State<App>,
    mut auth: Auth,
    Person(person): Person,
    address: Address,
    Body(given): Body<NewPassword>,
) -> Result<StatusCode, Failure> {
    check_password("new", &given.new)?;
    let throttle = Throttle::of(&person.account, &address.0);
    throttle.begin(&app.pool).await?;
    if !app
        .passwords
        .is_right(given.old, Some(person.password_hash.clone()))
        .await
    {
        return Err(Invalid::one(
            "old",
            "another password",
            "the password that you sign in with now",
        )
        .into());
    }
    throttle.succeeded(&app.pool).await?;
    let hash = app.passwords.hash(given.new).await?;
    people::set_password(&app.pool, person.id, &hash).await?;
    let person = PersonRow {
        password_hash: hash,
        ..person
    };
    auth.login(&person).await.map_err(failed)?;
    Ok(StatusCode::NO_CONTENT)
}

/// Opens a session for a person, and tells who she is.
pub(crate) async fn open(
    app: &App,
    auth: &mut Auth,
    person: &PersonRow,
) -> Result<Json<MeView>, Failure> {
    auth.login(person).await.map_err(failed)?;
    view(app, Some(person)).await.map(Json)
}

async fn view(app: &App, person: Option<&PersonRow>) -> Result<MeView, Failure> {
    let Some(person) = person else {
        return Ok(MeView {
            demo: app.settings.demo,
            ..MeView::default()
        });
    };
    let teams = people::teams_of(&app.pool, person.id).await?;
    Ok(MeView {
        demo: app.settings.demo,
        id: Some(person.id),
        account: Some(person.account.clone()),
        name: Some(person.name.clone()),
        role: person.role.clone(),
        team: person.membership().map(team_view),
        teams: teams.into_iter().map(team_view).collect(),
        defaults: serde_json::from_value::<DefaultsDoc>(person.defaults.clone())
            .unwrap_or_default(),
    })
}

fn team_view(team: people::TeamRow) -> TeamView {
    TeamView {
        id: team.id,
        name: team.name,
        role: team.role,
    }
}

fn failed(error: axum_login::Error<crate::auth::Backend>) -> Failure {
    match error {
        axum_login::Error::Backend(e) => e.into(),
        axum_login::Error::Session(_) => Failure::Unreachable,
    }
}

/// The address that a request came from, as far as the server can know it.
pub(crate) struct Address(pub(crate) String);

impl axum::extract::FromRequestParts<App> for Address {
    type Rejection = Failure;

    /// Behind a proxy of the house, the last address of the last line, which is what it appended; otherwise the peer's own.
    async fn from_request_parts(
        parts: &mut axum::http::request::Parts,
        app: &App,
    ) -> Result<Address, Failure> {
        let mut lines = parts.headers.get_all("x-forwarded-for").iter();
        let forwarded = lines.next_back().filter(|_| app.settings.behind_proxy);
        let last = forwarded
            .and_then(|v| v.to_str().ok())
            .and_then(|v| v.rsplit(',').next())
            .map(|a| a.trim().to_owned());
        let peer = || {
            parts
                .extensions
                .get::<ConnectInfo<SocketAddr>>()
                .map(|c| c.0.ip().to_string())
        };
        Ok(Address(last.or_else(peer).unwrap_or_default()))
    }
}
