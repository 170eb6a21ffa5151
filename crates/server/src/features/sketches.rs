//! The drawer of sketches.

pub(crate) mod archives;
pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
