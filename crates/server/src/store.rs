//! SQL, and nothing else. Every query of a team's things is bound to the team.

pub(crate) mod done;
pub(crate) mod events;
pub(crate) mod files;
pub(crate) mod jobs;
pub(crate) mod links;
pub(crate) mod pages;
pub(crate) mod people;
pub(crate) mod pictures;
pub(crate) mod revisions;
pub(crate) mod sessions;
pub(crate) mod sketches;
pub(crate) mod teams;
