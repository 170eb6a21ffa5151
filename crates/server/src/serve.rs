//! Serving: from the first request until a stop, with the chores beside it.

use crate::layers;
use crate::router::router;
use crate::state::App;
use sqlx::PgPool;
use std::net::SocketAddr;
use std::time::Duration;
use tokio::net::TcpListener;

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
        if let Err(error) = crate::store::pages::sweep_layouts(&pool).await {
            tracing::warn!(%error, "old layouts were not swept; tried again in an hour");
        }
    }
}
