//! What every route needs: the database, the settings, the place of pictures, and what computes.

use crate::auth::Passwords;
use crate::compute::Compute;
use crate::features::events::hub::Events;
use crate::objects::Objects;
use crate::settings::Settings;
use anyhow::Context;
use sqlx::PgPool;
use sqlx::migrate::Migrator;
use sqlx::postgres::PgPoolOptions;
use std::time::Duration;

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
    pub(crate) compute: Compute,
    pub(crate) events: Events,
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
            compute,
            events: Events::default(),
            objects,
        })
    }
}
