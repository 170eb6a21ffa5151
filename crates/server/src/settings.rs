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
    pub most_requests: usize,
    /// No answer takes longer.
    pub slowest: Duration,
    /// Connections to PostgreSQL.
    pub connections: u32,
    /// The folder of the built front end.
    pub web: Option<PathBuf>,
    /// Where pictures are kept.
    pub pictures: Pictures,
}

impl Default for Settings {
    fn default() -> Settings {
        Settings {
            demo: false,
            public_url: None,
            behind_proxy: false,
            most_requests: 256,
            slowest: Duration::from_secs(30),
            connections: 10,
            web: None,
            pictures: Pictures::default(),
        }
    }
}

impl Settings {
    /// Whether people reach it over TLS.
    pub fn is_secure(&self) -> bool {
        self.public_url.as_deref().is_some_and(|u| u.starts_with("https://"))
    }
}
