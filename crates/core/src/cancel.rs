//! A way to stop work that nobody waits for any more.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

/// Shared between who waits and what works: once cancelled, work stops at its next step and has no result.
#[derive(Clone, Debug, Default)]
pub struct Cancel(Arc<AtomicBool>);

impl Cancel {
    /// Tells the work to stop.
    pub fn cancel(&self) {
        self.0.store(true, Ordering::Relaxed);
    }

    /// Whether the work is to stop.
    pub fn is_cancelled(&self) -> bool {
        self.0.load(Ordering::Relaxed)
    }

    /// Whether this is the same token as another, not only one in the same state.
    pub fn is(&self, other: &Cancel) -> bool {
        Arc::ptr_eq(&self.0, &other.0)
    }
}
