//! Pictures: put in, read as a sketch, lifted.

pub(crate) mod job;
pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
