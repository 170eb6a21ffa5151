//! Serving: from the first request until a stop, with the chores beside it.

use crate::features::files::content as files;
use crate::features::jobs::workers as jobs;
use crate::http::layers;
use crate::router::router;
use crate::state::App;
use std::net::SocketAddr;
use std::time::Duration;
use tokio::net::TcpListener;
use tokio::task::JoinHandle;

/// How long a server that stops waits for its jobs to be put back.
const PUT_BACK: Duration = Duration::from_secs(5);

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
        tokio::spawn(sweep(app.clone())),
        tokio::spawn(layers::keep_metrics()),
    ];
    let (stopping, stopped) = tokio::sync::oneshot::channel();
    let (compute, events, grace) = (app.compute.clone(), app.events.clone(), app.settings.grace);
    let told = async move {
        stop.await;
        compute.stop();
        events.stop();
        let _ = stopping.send(());
    };
    let workers = work(&app);
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
    // They put back what they were at; what hangs is taken over by another server.
    let put_back = async {
        for worker in workers {
            let _ = worker.await;
        }
    };
    let _ = tokio::time::timeout(PUT_BACK, put_back).await;
    Ok(())
}

/// Does what waits to be done, until the server stops: `serve` begins with it.
pub fn work(app: &App) -> Vec<JoinHandle<()>> {
    jobs::start(app)
}

/// Throws away what nobody needs any more and makes the calls that come again, every hour.
async fn sweep(app: App) {
    let pool = &app.pool;
    let mut hourly = tokio::time::interval(Duration::from_secs(3600));
    loop {
        hourly.tick().await;
        if let Err(error) = crate::features::people::store::sessions::sweep(pool).await {
            tracing::warn!(%error, "old sessions were not swept; tried again in an hour");
        }
        if let Err(failure) = files::sweep(&app, files::UNUSED).await {
            tracing::warn!(error = %failure, "unused files were not swept; tried again in an hour");
        }
        if let Err(error) = crate::features::jobs::store::sweep(pool).await {
            tracing::warn!(%error, "old jobs were not swept; tried again in an hour");
        }
        if let Err(error) = crate::features::calls::series::keep_ahead(&app).await {
            tracing::warn!(%error, "calls that come again were not made; tried again in an hour");
        }
        if let Err(error) = crate::features::pages::store::sweep_layouts(pool).await {
            tracing::warn!(%error, "old layouts were not swept; tried again in an hour");
        }
    }
}
