//! People, teams, sessions and links as rows.

pub(crate) mod links;
pub(crate) mod people;
pub(crate) mod sessions;
pub(crate) mod teams;
