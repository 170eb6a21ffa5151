//! What every route shares: reading requests, answering once, errors, limits.

pub(crate) mod arrival;
pub(crate) mod error;
pub(crate) mod extractors;
pub(crate) mod idempotency;
pub(crate) mod layers;
pub(crate) mod names;
