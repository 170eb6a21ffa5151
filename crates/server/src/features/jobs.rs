//! Long work, done by whichever server is free.

pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
pub(crate) mod workers;
