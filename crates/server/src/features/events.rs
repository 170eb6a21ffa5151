//! What happens to a team's things, told to everybody who looks at them.

pub(crate) mod hub;
pub(crate) mod routes;
pub(crate) mod store;
pub(crate) mod views;
