//! The web application.

use crate::documents::print;
use anyhow::{Context, ensure};
use clap::Args;
use metrosk_server::{App, Pictures, Settings, bootstrap, demo};
use std::net::SocketAddr;
use std::path::PathBuf;
use std::time::Duration;
use tokio::net::TcpListener;
use tokio::signal::unix::{SignalKind, signal};
use tracing_subscriber::EnvFilter;

/// How it is run. Each option can be set in the environment instead.
#[derive(Args)]
pub(crate) struct Options {
    /// Where to listen. Others than loopback addresses are allowed only behind TLS (--public-url https://…).
    #[arg(long, env = "METROSK_LISTEN", default_value = "127.0.0.1:4870")]
    listen: SocketAddr,
    /// The PostgreSQL to keep everything in.
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// The folder of the built front end.
    #[arg(long, env = "METROSK_WEB", default_value = "web/dist")]
    web: PathBuf,
    /// Where pictures are kept: a folder, or s3://bucket (reached as the environment's AWS_… variables say).
    #[arg(long, env = "METROSK_PICTURES", default_value = "pictures")]
    pictures: String,
    /// Where people reach the server. With https, cookies are Secure and browsers stay on TLS.
    #[arg(long, env = "METROSK_PUBLIC_URL")]
    public_url: Option<String>,
    /// A proxy of the house stands in front: it says (X-Forwarded-For) where a request came from.
    #[arg(long, env = "METROSK_BEHIND_PROXY")]
    behind_proxy: bool,
    /// Requests answered at once; the next ones are asked to come back.
    #[arg(long, env = "METROSK_MAX_IN_FLIGHT", default_value_t = 256, value_parser = clap::value_parser!(u32).range(1..=100_000))]
    max_in_flight: u32,
    /// Seconds after which an answer is given up, counted from when its request was in.
    #[arg(long, env = "METROSK_REQUEST_TIMEOUT", default_value_t = 30, value_parser = clap::value_parser!(u32).range(1..=600))]
    request_timeout: u32,
    /// Seconds after which a fit, a reading or a picture's work is given up.
    #[arg(long, env = "METROSK_COMPUTE_TIMEOUT", default_value_t = 20, value_parser = clap::value_parser!(u32).range(1..=600))]
    compute_timeout: u32,
    /// How many of these are worked on at once; 0 for as many as there are cores.
    #[arg(long, env = "METROSK_COMPUTE_AT_ONCE", default_value_t = 0, value_parser = clap::value_parser!(u32).range(0..=256))]
    compute_at_once: u32,
    /// Seconds that a server which is told to stop lets open requests end.
    #[arg(long, env = "METROSK_GRACE", default_value_t = 10, value_parser = clap::value_parser!(u32).range(0..=600))]
    grace: u32,
    /// Connections to PostgreSQL.
    #[arg(long, env = "METROSK_CONNECTIONS", default_value_t = 10, value_parser = clap::value_parser!(u32).range(1..=500))]
    connections: u32,
    /// What a team's pictures may take up, in megabytes.
    #[arg(long, env = "METROSK_TEAM_SPACE", default_value_t = 2048, value_parser = clap::value_parser!(u32).range(1..=10_000_000))]
    team_space: u32,
    /// Serve the demo: load it into an empty database, and let one click sign in. For looking around only.
    #[arg(long, env = "METROSK_DEMO")]
    demo: bool,
    /// The share of their pixels that the demo's photos have across and down: less starts faster.
    #[arg(long, env = "METROSK_DEMO_PHOTOS", default_value_t = 1.0, value_parser = share)]
    demo_photos: f64,
}

/// A share above 0, up to 1.
fn share(text: &str) -> Result<f64, String> {
    let found = text.parse().ok().filter(|s| (0.01..=1.0).contains(s));
    found.ok_or_else(|| "a number from 0.01 to 1".to_owned())
}

impl Options {
    fn check(&self) -> anyhow::Result<Settings> {
        if let Some(url) = &self.public_url {
            let known = url.starts_with("https://") || url.starts_with("http://");
            let bare = url.splitn(4, '/').nth(3).is_none_or(str::is_empty);
            ensure!(
                known && bare,
                "--public-url is {url:?}; allowed is https:// or http:// with a host, and nothing after it"
            );
        }
        let settings = Settings {
            demo: self.demo,
            public_url: self.public_url.clone(),
            behind_proxy: self.behind_proxy,
            max_in_flight: self.max_in_flight as usize,
            request_timeout: Duration::from_secs(self.request_timeout.into()),
            compute_timeout: Duration::from_secs(self.compute_timeout.into()),
            compute_at_once: self.compute_at_once as usize,
            grace: Duration::from_secs(self.grace.into()),
            connections: self.connections,
            web: Some(self.web.clone()),
            pictures: Pictures::at(&self.pictures),
            team_bytes: u64::from(self.team_space) << 20,
            demo_photos: self.demo_photos,
            ..Settings::default()
        };
        let alone = self.listen.ip().is_loopback();
        ensure!(
            alone || settings.is_secure(),
            "{} is not an address of this machine alone; allowed are 127.0.0.1 and [::1], or any with --public-url https://… and TLS in front",
            self.listen
        );
        Ok(settings)
    }
}

/// Serves until it is told to stop.
pub(crate) fn run(options: Options) -> anyhow::Result<()> {
    let settings = options.check()?;
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("info"));
    tracing_subscriber::fmt()
        .with_env_filter(filter)
        .with_writer(std::io::stderr)
        .init();
    let runtime = tokio::runtime::Runtime::new()?;
    let done = runtime.block_on(serve(options, settings));
    // What still computes has been told to stop; a step of it that takes longer is not waited for.
    runtime.shutdown_timeout(Duration::from_secs(2));
    done
}

async fn serve(options: Options, settings: Settings) -> anyhow::Result<()> {
    let public = settings.public_url.clone();
    let app = App::connect(&options.database_url, settings).await?;
    let built = options.web.join("index.html").is_file();
    ensure!(
        built,
        "{} holds no built front end; `npm run build` in web/ makes one",
        options.web.display()
    );
    if options.demo && demo::load_once(&app).await? {
        tracing::info!("the demo has been loaded");
    }
    let first = bootstrap::link(&app).await?;
    let listener = TcpListener::bind(options.listen)
        .await
        .with_context(|| format!("{} can't be listened on", options.listen))?;
    // Whoever reads that it is ready may tell it to stop in the next moment.
    let stop = told_to_stop()?;
    let address = public.unwrap_or(format!("http://{}", listener.local_addr()?));
    let address = address.trim_end_matches('/');
    // Nobody may read any further: that must not end the server.
    print(&format!("Metrosk is at {address}\n"))?;
    if let Some(link) = first {
        print(&format!(
            "Nobody is known here yet. Make the first lead, with this link that works once: {address}{link}\n"
        ))?;
    }
    metrosk_server::serve(listener, app, stop).await
}

/// Listens for Ctrl-C, and for the signal that a service manager sends, from now on; done when one has come.
fn told_to_stop() -> anyhow::Result<impl Future<Output = ()> + Send + 'static> {
    let (mut terminate, mut interrupt) = (
        signal(SignalKind::terminate())?,
        signal(SignalKind::interrupt())?,
    );
    Ok(async move {
        tokio::select! {
            _ = interrupt.recv() => {}
            _ = terminate.recv() => {}
        }
    })
}
