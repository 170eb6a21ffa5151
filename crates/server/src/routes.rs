//! Extract, call, answer.

pub(crate) mod archives;
pub(crate) mod body;
pub(crate) mod events;
pub(crate) mod exports;
pub(crate) mod fit;
pub(crate) mod history;
pub(crate) mod jobs;
pub(crate) mod links;
pub(crate) mod names;
pub(crate) mod notation;
pub(crate) mod once;
pub(crate) mod pages;
pub(crate) mod pictures;
pub(crate) mod session;
pub(crate) mod sketches;
pub(crate) mod team;
