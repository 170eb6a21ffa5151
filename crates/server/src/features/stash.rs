//! The stash, what pages hold of it, and which paper suits which piece.

pub(crate) mod holding;
pub(crate) mod papers;
pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod table;
pub(crate) mod views;
