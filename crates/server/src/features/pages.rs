//! Pages in the making.

pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
