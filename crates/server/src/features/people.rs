//! People, their teams, and how they sign in.

pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
