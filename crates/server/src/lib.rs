//! The web application's HTTP API. Thin: routes extract, call and answer; every rule of the job is in `metrosk-core`.

mod arrival;
mod auth;
pub mod backup;
pub mod bootstrap;
mod compute;
pub mod demo;
mod error;
mod events;
mod files;
mod jobs;
mod layers;
mod objects;
mod router;
mod routes;
mod schema;
mod serve;
pub mod settings;
mod state;
mod store;
mod views;

pub use files::sweep as sweep_files;
pub use objects::Pictures;
pub use router::{openapi, router};
pub use serve::{serve, work};
pub use settings::Settings;
pub use state::App;
