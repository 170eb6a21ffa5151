//! For tests only: near comparisons, PostgreSQL on loopback, plans, a driven browser.

#[cfg(feature = "browser")]
pub mod browser;
mod plans;
mod postgres;

pub use plans::{fit_of, photo_count};
pub use postgres::Database;

/// Fails unless two numbers are within a stated distance of each other.
#[track_caller]
pub fn assert_near(found: f64, expected: f64, within: f64) {
    assert!(
        (found - expected).abs() <= within,
        "found {found}, expected {expected} within {within}"
    );
}
