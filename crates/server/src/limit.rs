//! A clock for work that has none of its own.

use metrosk_core::Cancel;
use std::sync::mpsc::{RecvTimeoutError, channel};
use std::time::Duration;

/// Does work that is told to stop when it takes longer than so long.
pub fn within<T>(cancel: &Cancel, limit: Duration, work: impl FnOnce(&Cancel) -> T) -> T {
    let (ended, wait) = channel::<()>();
    let clock = cancel.clone();
    std::thread::scope(|scope| {
        scope.spawn(move || {
            // Over in time, or the work is done and its end of the line is gone.
            if wait.recv_timeout(limit) == Err(RecvTimeoutError::Timeout) {
                clock.cancel();
            }
        });
        let done = work(cancel);
        drop(ended);
        done
    })
}
