//! The server by feature: what it routes, the rows it keeps (`store`: SQL and nothing else, every query of a team's things bound to the
//! team), and what crosses the wire (`views`).

pub(crate) mod building;
pub(crate) mod calls;
pub(crate) mod checks;
pub(crate) mod clusters;
pub(crate) mod cutting;
pub(crate) mod events;
pub(crate) mod files;
pub(crate) mod gallery;
pub(crate) mod history;
pub(crate) mod jobs;
pub(crate) mod layouts;
pub(crate) mod log;
pub(crate) mod pages;
pub(crate) mod people;
pub(crate) mod photos;
pub(crate) mod pictures;
pub(crate) mod sketches;
pub(crate) mod stash;
pub(crate) mod words;
