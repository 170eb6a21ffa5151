//! Slows down guesses: so many failures of an account, and so many from an address, and no more are looked at for a while.

use super::tokens::hash;
use crate::error::Failure;
use crate::store::sessions;
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
        Throttle { account: hash(&format!("account {account}")), address: hash(&format!("address {address}")) }
    }

    /// Lets a sign-in through, or says how long to wait. It says the same of an account that does not exist.
    pub(crate) async fn check(&self, pool: &PgPool) -> Result<(), Failure> {
        let of_account = sessions::failures(pool, &self.account, WINDOW).await?;
        let from_address = sessions::failures(pool, &self.address, WINDOW).await?;
        if of_account >= OF_ACCOUNT || from_address >= FROM_ADDRESS {
            return Err(Failure::TooMany { wait: WINDOW as u32 });
        }
        Ok(())
    }

    /// Notes that it failed.
    pub(crate) async fn failed(&self, pool: &PgPool) -> Result<(), Failure> {
        Ok(sessions::note_failure(pool, &[&self.account, &self.address]).await?)
    }

    /// Notes that it succeeded: the account starts anew, the address does not.
    pub(crate) async fn succeeded(&self, pool: &PgPool) -> Result<(), Failure> {
        Ok(sessions::forget_failures(pool, &self.account).await?)
    }
}
