//! The web application's HTTP API. Thin: routes extract, call and answer; every rule of the job is in `metrosk-core`.

mod auth;
pub mod backup;
pub mod bootstrap;
mod compute;
pub mod demo;
mod documents;
mod features;
mod http;
mod limit;
mod objects;
mod router;
mod serve;
pub mod settings;
mod state;

pub use features::calls::series::keep_ahead as keep_series_ahead;
pub use features::files::content::sweep as sweep_files;
pub use limit::within;
pub use objects::Pictures;
pub use router::{openapi, router};
pub use serve::{serve, work};
pub use settings::Settings;
pub use state::App;
