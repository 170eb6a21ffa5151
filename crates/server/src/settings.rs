//! How a server is run, from the command line or the environment. Every default is the careful one.

use crate::objects::Pictures;
use std::path::PathBuf;
use std::time::Duration;

/// The settings that routes and layers look at.
#[derive(Clone, Debug)]
pub struct Settings {
    /// The demo is served: one click signs in. Never on a server that people trust with their pages.
    pub demo: bool,
    /// Where people reach the server, `https://…` behind TLS: then cookies are Secure and browsers are told to stay there.
    pub public_url: Option<String>,
    /// A proxy of the house stands in front and says where a request came from.
    pub behind_proxy: bool,
    /// Requests answered at once; the next ones are asked to come back.
    pub max_in_flight: usize,
    /// No answer takes longer, counted from when its request was in.
    pub request_timeout: Duration,
    /// How long a fit, a reading or a picture may compute.
    pub compute_timeout: Duration,
    /// How many of these are computed at once; 0 for as many as there are cores.
    pub compute_at_once: usize,
    /// How long a server that is told to stop lets open requests end.
    pub grace: Duration,
    /// Connections to PostgreSQL.
    pub connections: u32,
    /// The folder of the built front end.
    pub web: Option<PathBuf>,
    /// Where pictures are kept.
    pub pictures: Pictures,
    /// What a team's files may take up, in bytes.
    pub team_bytes: u64,
    /// How long a gallery that does not answer is left alone before it is asked again; then twice as long.
    pub gallery_wait: Duration,
    /// The demo's photos have this share of their pixels across and down; 1 is what a camera makes, less starts faster.
    pub demo_photos: f64,
}

impl Default for Settings {
    fn default() -> Settings {
        Settings {
            demo: false,
            public_url: None,
            behind_proxy: false,
            max_in_flight: 256,
            request_timeout: Duration::from_secs(30),
            compute_timeout: Duration::from_secs(20),
            compute_at_once: 0,
            grace: Duration::from_secs(10),
            connections: 10,
            web: None,
            pictures: Pictures::default(),
            team_bytes: 2 << 30,
            gallery_wait: Duration::from_millis(500),
            demo_photos: 0.1,
        }
    }
}

impl Settings {
    /// Whether people reach it over TLS.
    pub fn is_secure(&self) -> bool {
        self.public_url
            .as_deref()
            .is_some_and(|u| u.starts_with("https://"))
    }
}
