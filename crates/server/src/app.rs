//! The application: its state, its routes and what surrounds them; used by the command and by the tests.

use crate::auth::{Backend, Passwords, SESSION_LASTS, Sessions, prolong};
use crate::compute::Compute;
use crate::layers;
use crate::layouts::Layouts;
use crate::objects::Objects;
use crate::routes::{
    exports, fit, history, links, notation, pages, pictures, session, sketches, team,
};
use crate::settings::Settings;
use anyhow::Context;
use axum::Router;
use axum::body::Bytes;
use axum::extract::DefaultBodyLimit;
use axum::http::header;
use axum::middleware;
use axum::routing::get;
use axum_login::AuthManagerLayerBuilder;
use axum_login::tower_sessions::cookie::SameSite;
use axum_login::tower_sessions::{Expiry, SessionManagerLayer};
use sqlx::PgPool;
use sqlx::migrate::Migrator;
use sqlx::postgres::PgPoolOptions;
use std::net::SocketAddr;
use std::time::Duration;
use tokio::net::TcpListener;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// The largest document that is read.
pub(crate) const LARGEST_DOCUMENT: usize = 2 * 1024 * 1024;
/// The largest archive or picture that is read.
pub(crate) const LARGEST_FILE: usize = 16 * 1024 * 1024;
/// A connection that has lain for so long is tried before it is used.
const STALE: Duration = Duration::from_secs(1);

/// The database's tables, step by step.
pub(crate) static MIGRATOR: Migrator = sqlx::migrate!();

/// What every route needs.
#[derive(Clone, Debug)]
pub struct App {
    pub(crate) pool: PgPool,
    pub(crate) settings: Settings,
    pub(crate) passwords: Passwords,
    pub(crate) layouts: Layouts,
    pub(crate) compute: Compute,
    pub(crate) objects: Objects,
}

impl App {
    /// Connects and brings the tables up to date.
    ///
    /// # Errors
    /// When the database does not answer, a migration fails, or the place of pictures can't be used.
    pub async fn connect(database_url: &str, settings: Settings) -> anyhow::Result<App> {
        let app = App::connect_as_is(database_url, settings).await?;
        MIGRATOR
            .run(&app.pool)
            .await
            .context("the database's tables could not be brought up to date")?;
        Ok(app)
    }

    /// Connects, and leaves the tables as they are.
    ///
    /// # Errors
    /// When the database does not answer, or the place of pictures can't be used.
    pub async fn connect_as_is(database_url: &str, settings: Settings) -> anyhow::Result<App> {
        let pool = PgPoolOptions::new()
            .max_connections(settings.connections)
            .acquire_timeout(Duration::from_secs(5))
            // What was used a moment ago still works; what has lain may have lost its server.
            .test_before_acquire(false)
            .before_acquire(|connection, meta| {
                Box::pin(async move {
                    if meta.idle_for < STALE {
                        return Ok(true);
                    }
                    Ok(sqlx::Connection::ping(connection).await.is_ok())
                })
            })
            .connect(database_url)
            .await
            .context("the database does not answer; DATABASE_URL says where it is looked for")?;
        let objects = Objects::open(&settings.pictures)?;
        let cores = std::thread::available_parallelism().map_or(2, usize::from);
        let at_once = if settings.compute_at_once == 0 {
            cores
        } else {
            settings.compute_at_once
        };
        let compute = Compute::new(at_once, settings.compute_timeout);
        Ok(App {
            pool,
            settings,
            passwords: Passwords::default(),
            layouts: Layouts::default(),
            compute,
            objects,
        })
    }
}

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
        .routes(routes!(sketches::export))
        .routes(routes!(sketches::show, sketches::change))
        .routes(routes!(sketches::document, sketches::rewrite))
        .routes(routes!(notation::as_numbers))
        .routes(routes!(notation::read_numbers))
        .routes(routes!(notation::write_numbers))
        .routes(routes!(notation::agree))
        .routes(routes!(sketches::pages_of))
        .routes(routes!(sketches::copy))
        .routes(routes!(sketches::revisions))
        .routes(routes!(sketches::revision))
        .routes(routes!(pages::list, pages::start))
        .routes(routes!(pages::show, pages::change))
        .routes(routes!(pages::details))
        .routes(routes!(pages::copy))
        .routes(routes!(history::write))
        .routes(routes!(history::undo))
        .routes(routes!(history::redo))
        .routes(routes!(history::return_to))
        .routes(routes!(history::history))
        .routes(routes!(history::one))
        .routes(routes!(history::versions, history::name, history::unname))
        .routes(routes!(exports::layout))
        .routes(routes!(exports::drawing))
        .routes(routes!(exports::pdf))
        .routes(routes!(exports::view))
        .routes(routes!(fit::propose))
        .routes(routes!(fit::again))
        .routes(routes!(fit::change))
        .layer(DefaultBodyLimit::max(LARGEST_DOCUMENT))
        .merge(files())
}

/// What takes files, or works on them.
fn files() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(sketches::import))
        .routes(routes!(pictures::limits))
        .routes(routes!(pictures::list, pictures::add))
        .routes(routes!(pictures::show))
        .routes(routes!(pictures::show_file))
        .routes(routes!(pictures::read))
        .routes(routes!(pictures::lift))
        .routes(routes!(pictures::edges_of_picture))
        .routes(routes!(pictures::show_lift))
        .routes(routes!(pictures::lifted_page))
        .routes(routes!(pictures::edges))
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

/// Serves the application until `stop` is done, then lets open requests end for as long as the settings' grace; what still goes on after
/// that is broken off.
///
/// # Errors
/// When the listener fails.
pub async fn serve(
    listener: TcpListener,
    app: App,
    stop: impl Future<Output = ()> + Send + 'static,
) -> anyhow::Result<()> {
    let chores = [
        tokio::spawn(sweep(app.pool.clone())),
        tokio::spawn(layers::keep_metrics()),
    ];
    let (stopping, stopped) = tokio::sync::oneshot::channel();
    let (compute, grace) = (app.compute.clone(), app.settings.grace);
    let told = async move {
        stop.await;
        compute.stop();
        let _ = stopping.send(());
    };
    let service = router(app).into_make_service_with_connect_info::<SocketAddr>();
    let over = async {
        let _ = stopped.await;
        tokio::time::sleep(grace).await;
    };
    tokio::select! {
        served = axum::serve(listener, service).with_graceful_shutdown(told) => served?,
        () = over => tracing::warn!("requests that had not ended were broken off"),
    }
    chores.iter().for_each(tokio::task::JoinHandle::abort);
    Ok(())
}

/// Throws away what nobody needs any more, every hour.
async fn sweep(pool: PgPool) {
    let mut hourly = tokio::time::interval(Duration::from_secs(3600));
    loop {
        hourly.tick().await;
        if let Err(error) = crate::store::sessions::sweep(&pool).await {
            tracing::warn!(%error, "old sessions were not swept; tried again in an hour");
        }
    }
}
