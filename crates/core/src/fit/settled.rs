//! What a search settled, for a refit to hold to.

use super::model::Side;

/// What a search settled.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Settled {
    pub(super) sides: Vec<Option<Side>>,
    pub(super) lost: Vec<usize>,
    pub(super) solved: Vec<f64>,
}
