//! What pages are asked for, and how they stand to it.

pub(crate) mod routes;
pub(crate) mod views;
