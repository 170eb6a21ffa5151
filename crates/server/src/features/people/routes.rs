//! Signing in, links that work once, and the team.

pub(crate) mod links;
pub(crate) mod session;
pub(crate) mod team;
