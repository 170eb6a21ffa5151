//! The routes of the API, its description, and what surrounds them.

use crate::auth::{Backend, SESSION_LASTS, Sessions, prolong};
use crate::features::building;
use crate::features::building::taking_away as steps_on_paper;
use crate::features::calls::routes as calls;
use crate::features::checks;
use crate::features::clusters;
use crate::features::cutting;
use crate::features::cutting::machine::routes as machine;
use crate::features::events::routes as events;
use crate::features::gallery::routes as gallery;
use crate::features::history::routes as history;
use crate::features::jobs::routes as jobs;
use crate::features::layouts::routes::{self as fit, exports};
use crate::features::log;
use crate::features::log::comparing;
use crate::features::pages::routes as pages;
use crate::features::people::routes::{links, session, team};
use crate::features::photos::printing::routes as printing;
use crate::features::photos::routes as photos;
use crate::features::pictures::routes as pictures;
use crate::features::sketches::routes::{self as sketches, notation};
use crate::features::stash::{by_picture, papers, routes as stash, table, units, using_up};
use crate::features::words;
use crate::http::layers;
use crate::state::{App, LARGEST_DOCUMENT, LARGEST_FILE};
use axum::Router;
use axum::body::Bytes;
use axum::extract::DefaultBodyLimit;
use axum::http::header;
use axum::middleware;
use axum::routing::get;
use axum_login::AuthManagerLayerBuilder;
use axum_login::tower_sessions::cookie::SameSite;
use axum_login::tower_sessions::{Expiry, SessionManagerLayer};
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

#[derive(OpenApi)]
#[openapi(info(
    title = "Metrosk",
    description = "Sketches, pages in the making and the fit. Documents follow the Metrosk formats, version 1."
))]
struct Description;

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Description::openapi())
        .merge(people())
        .routes(routes!(sketches::list, sketches::add))
        .routes(routes!(sketches::files::export))
        .routes(routes!(sketches::show, sketches::change))
        .routes(routes!(
            sketches::files::document,
            sketches::revisions::rewrite
        ))
        .routes(routes!(notation::as_numbers))
        .routes(routes!(notation::read_numbers))
        .routes(routes!(notation::write_numbers))
        .routes(routes!(notation::agree))
        .routes(routes!(sketches::pages_of))
        .routes(routes!(sketches::copies::copy))
        .routes(routes!(sketches::revisions::revisions))
        .routes(routes!(sketches::revisions::revision))
        .routes(routes!(pages::list, pages::start))
        .routes(routes!(pages::show, pages::change))
        .routes(routes!(pages::details))
        .routes(routes!(pages::copy))
        .routes(routes!(history::write))
        .routes(routes!(history::undo))
        .routes(routes!(history::redo))
        .routes(routes!(history::return_to))
        .routes(routes!(history::listing::history))
        .routes(routes!(history::listing::one))
        .routes(routes!(
            history::versions::versions,
            history::versions::name,
            history::versions::unname
        ))
        .routes(routes!(exports::layout))
        .routes(routes!(exports::drawing))
        .routes(routes!(exports::pdf))
        .routes(routes!(exports::view))
        .merge(team_calls())
        .routes(routes!(events::stream_of))
        .routes(routes!(jobs::show, jobs::cancel))
        .routes(routes!(fit::propose))
        .routes(routes!(fit::again))
        .routes(routes!(fit::change))
        .routes(routes!(photos::placed))
        .routes(routes!(photos::in_words))
        .routes(routes!(photos::matters))
        .routes(routes!(stash::list, stash::put_away))
        .routes(routes!(stash::in_words))
        .routes(routes!(table::export))
        .routes(routes!(stash::change, stash::take_out))
        .routes(routes!(papers::placed))
        .routes(routes!(papers::rank))
        .routes(routes!(papers::deal))
        .routes(routes!(units::table))
        .routes(routes!(using_up::kit))
        .routes(routes!(by_picture::paper))
        .routes(routes!(cutting::planned))
        .routes(routes!(cutting::taking_away::pdf))
        .routes(routes!(cutting::taking_away::svg))
        .routes(routes!(words::set))
        .routes(routes!(building::ordered))
        .routes(routes!(words::pdf))
        .routes(routes!(checks::layout))
        .routes(routes!(log::seen))
        .routes(routes!(log::pack))
        .routes(routes!(log::giving_away::sketch))
        .routes(routes!(log::looking_back::pages_told))
        .routes(routes!(clusters::laid))
        .routes(routes!(clusters::shared))
        .routes(routes!(printing::sheets))
        .routes(routes!(printing::pdf))
        .routes(routes!(printing::sheet_picture))
        .routes(routes!(printing::send, printing::orders))
        .routes(routes!(printing::go_on))
        .routes(routes!(printing::printed))
        .routes(routes!(printing::printer, printing::set_printer))
        .routes(routes!(machine::send, machine::orders))
        .routes(routes!(machine::go_on))
        .routes(routes!(gallery::enter, gallery::entries))
        .routes(routes!(gallery::ask_again))
        .routes(routes!(steps_on_paper::pdf))
        .routes(routes!(comparing::differences))
        .routes(routes!(gallery::withdraw))
        .routes(routes!(gallery::gallery_state, gallery::set_gallery))
        .routes(routes!(machine::machine_state, machine::set_machine))
        .layer(DefaultBodyLimit::max(LARGEST_DOCUMENT))
        .merge(files())
}

/// What is asked, and the season.
fn team_calls() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(calls::checked))
        .routes(routes!(calls::season::season))
        .routes(routes!(calls::keep::add))
        .routes(routes!(calls::keep::add_several))
        .routes(routes!(calls::reading::text))
        .routes(routes!(calls::reading::calendar))
        .routes(routes!(calls::keep::show, calls::keep::change))
        .routes(routes!(calls::keep::revisions))
        .routes(routes!(calls::keep::revision))
        .routes(routes!(calls::taking::take, calls::taking::give_back))
        .routes(routes!(calls::taking::start))
        .routes(routes!(calls::hop::show, calls::hop::write))
        .routes(routes!(
            calls::feed::show,
            calls::feed::make,
            calls::feed::revoke
        ))
        .routes(routes!(calls::feed::calendar))
}

/// What takes files, or works on them.
fn files() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(sketches::files::import))
        .routes(routes!(table::import))
        .routes(routes!(pictures::limits))
        .routes(routes!(pictures::list, pictures::add))
        .routes(routes!(pictures::show, pictures::delete))
        .routes(routes!(pictures::show_file))
        .routes(routes!(pictures::read))
        .routes(routes!(pictures::lift))
        .routes(routes!(pictures::edges_of_picture))
        .routes(routes!(pictures::show_lift))
        .routes(routes!(pictures::lifted_page))
        .routes(routes!(pictures::edges))
        .routes(routes!(pictures::made))
        .layer(DefaultBodyLimit::max(LARGEST_FILE))
}

fn people() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(session::me, session::change_me))
        .routes(routes!(session::change_password))
        .routes(routes!(session::sign_in, session::sign_out))
        .routes(routes!(session::sign_in_to_demo))
        .routes(routes!(session::choose_team))
        .routes(routes!(links::show, links::join, links::join_as_me))
        .routes(routes!(links::show_password_link, links::set_password))
        .routes(routes!(team::show, team::rename))
        .routes(routes!(team::make))
        .routes(routes!(team::invite))
        .routes(routes!(team::take_invite_back))
        .routes(routes!(team::change_role, team::remove))
        .routes(routes!(team::password_link))
        .routes(routes!(team::export))
}

/// The API's description, as served at `/api/openapi.json`.
pub fn openapi() -> String {
    let (_, description) = api().split_for_parts();
    description.to_pretty_json().unwrap_or_default() + "\n"
}

/// The whole application; where there is a folder of the built front end, that is served too.
pub fn router(app: App) -> Router {
    let (api, description) = api().split_for_parts();
    let description = Bytes::from(description.to_json().unwrap_or_default());
    let sessions = SessionManagerLayer::new(Sessions::new(app.pool.clone()))
        .with_name("metrosk")
        .with_http_only(true)
        .with_same_site(SameSite::Lax)
        .with_secure(app.settings.is_secure())
        .with_expiry(Expiry::OnInactivity(SESSION_LASTS));
    let backend = Backend {
        pool: app.pool.clone(),
        passwords: app.passwords.clone(),
    };
    let auth = AuthManagerLayerBuilder::new(backend, sessions).build();
    let router = api
        .route(
            "/api/openapi.json",
            get(async move || {
                (
                    [(header::CONTENT_TYPE, "application/json")],
                    description.clone(),
                )
            }),
        )
        .method_not_allowed_fallback(layers::no_such_method)
        .layer(middleware::from_fn(prolong))
        .layer(auth)
        .layer(layers::cross_site(&app.settings))
        .route(
            "/api/{*rest}",
            get(layers::nothing_here).fallback(layers::nothing_here),
        )
        .with_state(app.clone());
    let probes = Router::new()
        .route("/readyz", get(layers::ready))
        .with_state(app.clone())
        .route("/healthz", get(async || "ok"))
        .route("/metrics", get(layers::metrics));
    layers::around(
        layers::front_end(router, app.settings.web.as_deref()),
        probes,
        &app.settings,
    )
}
