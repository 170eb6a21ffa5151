//! The web application's HTTP API. Thin: routes extract, call and answer; every rule of the job is in `metrosk-core`.

pub mod app;
mod arrival;
mod auth;
pub mod backup;
pub mod bootstrap;
mod compute;
pub mod demo;
mod error;
mod layers;
mod layouts;
mod objects;
mod routes;
mod schema;
pub mod settings;
mod store;

pub use app::{App, openapi, router, serve};
pub use objects::Pictures;
pub use settings::Settings;
