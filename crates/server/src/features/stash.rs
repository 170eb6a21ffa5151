//! The stash, what pages hold of it, and which paper suits which piece.

pub(crate) mod by_picture;
pub(crate) mod detail;
pub(crate) mod holding;
pub(crate) mod papers;
pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod table;
pub(crate) mod units;
mod used;
pub(crate) mod using_up;
pub(crate) mod views;
