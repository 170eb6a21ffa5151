//! A page's revisions: changes, undo and redo, earlier plans, named versions.

pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
