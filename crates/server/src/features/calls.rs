//! What is asked: a team's calls and who takes part in them, its season, its hops, and how a page stands to what it is asked for.

pub(crate) mod days;
pub(crate) mod routes;
pub(crate) mod seasons;
pub(crate) mod series;
pub(crate) mod store;
pub(crate) mod views;
