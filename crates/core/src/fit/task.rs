//! A request with what the engine adds to it on the way: no field of any document.

use super::request::Request;
use crate::geometry::Edge;

/// One fit to be solved.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Task {
    /// What was asked, as far as this fit is concerned.
    pub(crate) request: Request,
    /// On one page of a spread that is said twice, the edges where the fold may be.
    pub(crate) fold_at: Vec<Edge>,
    /// Blocks that the engine itself has doubled at the fold.
    pub(crate) doubled: Vec<String>,
}

impl Task {
    /// A request as it stands.
    pub(crate) fn of(request: &Request) -> Task {
        Task {
            request: request.clone(),
            fold_at: Vec::new(),
            doubled: Vec::new(),
        }
    }
}
