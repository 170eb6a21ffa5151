//! Slows down guesses: so many failures of an account, and so many from an address, and no more are looked at for a while.

use crate::auth::tokens::hash;
use crate::features::people::store::sessions;
use crate::http::error::Failure;
use sqlx::PgPool;

/// How far back failures count, in seconds.
const WINDOW: f64 = 900.0;
/// Failures of one account.
const OF_ACCOUNT: i64 = 8;
/// Failures from one address: a whole club may share one.
const FROM_ADDRESS: i64 = 40;

/// One sign-in's account and address, as hashes.
pub(crate) struct Throttle {
    account: Vec<u8>,
    address: Vec<u8>,
}

impl Throttle {
    /// For a sign-in of an account from an address.
    pub(crate) fn of(account: &str, address: &str) -> Throttle {
        Throttle {
            account: hash(&format!("account {account}")),
            address: hash(&format!("address {address}")),
        }
    }

    /// Lets a sign-in through, or says how long to wait. It says the same of an account that does not exist. A try counts as failed
    /// from the start, so that many tries at once are as many failures; [`Throttle::succeeded`] takes it back.
    pub(crate) async fn begin(&self, pool: &PgPool) -> Result<(), Failure> {
        let mut tx = pool.begin().await?;
        // Tries of one account wait for each other here, and so do those from one address: each sees the ones before it.
        sessions::lock_tries(&mut tx, &[&self.account, &self.address]).await?;
        let of_account = sessions::failures(&mut *tx, &self.account, WINDOW).await?;
        let from_address = sessions::failures(&mut *tx, &self.address, WINDOW).await?;
        if of_account >= OF_ACCOUNT || from_address >= FROM_ADDRESS {
            return Err(Failure::TooMany {
                wait: WINDOW as u32,
            });
        }
        sessions::note_failure(&mut *tx, &[&self.account, &self.address]).await?;
        tx.commit().await?;
        Ok(())
    }

    /// Notes that it succeeded: the account starts anew, the address has one failure less.
    pub(crate) async fn succeeded(&self, pool: &PgPool) -> Result<(), Failure> {
        sessions::forget_failures(pool, &self.account).await?;
        Ok(sessions::forget_newest_failure(pool, &self.address).await?)
    }
}
