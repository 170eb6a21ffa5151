//! Files: kept once a team, counted, served as a stream, swept when unused.

pub(crate) mod content;
pub(crate) mod store;
