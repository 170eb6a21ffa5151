//! Layouts: asked for at once, made ahead as jobs, and taken out as pictures and documents.

pub(crate) mod job;
pub(crate) mod routes;
