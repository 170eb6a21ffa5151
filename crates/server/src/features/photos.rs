//! Photos: what becomes of a page's prints, the pictures on them, and printing them.

pub(crate) mod pictures;
pub(crate) mod printing;
pub(crate) mod routes;
pub(crate) mod views;
