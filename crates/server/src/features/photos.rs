//! Photos: what becomes of a page's prints.

pub(crate) mod routes;
pub(crate) mod views;
