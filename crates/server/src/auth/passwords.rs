//! Passwords, hashed with argon2id at its recommended cost.

use crate::http::error::Failure;
use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use metrosk_core::document::Invalid;
use std::sync::{Arc, OnceLock};
use tokio::sync::Semaphore;

/// The shortest password.
const SHORTEST: usize = 10;
/// The longest: what is hashed is bounded.
const LONGEST: usize = 200;
/// Hashes computed at once: each takes 19 MB.
const AT_ONCE: usize = 2;

/// Hashes and checks passwords, off the threads that answer.
#[derive(Clone, Debug)]
pub(crate) struct Passwords {
    room: Arc<Semaphore>,
}

impl Default for Passwords {
    fn default() -> Passwords {
        Passwords {
            room: Arc::new(Semaphore::new(AT_ONCE)),
        }
    }
}

impl Passwords {
    /// The hash to keep.
    pub(crate) async fn hash(&self, password: String) -> Result<String, Failure> {
        self.work(move || hashed(&password))
            .await
            .and_then(|h| h.map_err(Failure::Internal))
    }

    /// Whether a password is that of a hash; without a hash it is not, and that takes as long to say.
    pub(crate) async fn is_right(&self, password: String, hash: Option<String>) -> bool {
        let check = move || {
            static NOBODY: OnceLock<String> = OnceLock::new();
            let nobody =
                NOBODY.get_or_init(|| hashed("the password of nobody").unwrap_or_default());
            let right = verify(&password, hash.as_deref().unwrap_or(nobody));
            right && hash.is_some()
        };
        self.work(check).await.unwrap_or(false)
    }

    async fn work<T: Send + 'static>(
        &self,
        work: impl FnOnce() -> T + Send + 'static,
    ) -> Result<T, Failure> {
        let _room = self
            .room
            .acquire()
            .await
            .map_err(|e| Failure::Internal(e.to_string()))?;
        tokio::task::spawn_blocking(work)
            .await
            .map_err(|e| Failure::Internal(format!("a password's hash did not end: {e}")))
    }
}

fn hashed(password: &str) -> Result<String, String> {
    Argon2::default()
        .hash_password(password.as_bytes())
        .map(|h| h.to_string())
        .map_err(|e| e.to_string())
}

fn verify(password: &str, hash: &str) -> bool {
    PasswordHash::new(hash).is_ok_and(|parsed| {
        Argon2::default()
            .verify_password(password.as_bytes(), &parsed)
            .is_ok()
    })
}

/// Whether a new password will do.
pub(crate) fn check_password(field: &str, password: &str) -> Result<(), Invalid> {
    let length = password.chars().count();
    if (SHORTEST..=LONGEST).contains(&length) {
        return Ok(());
    }
    Err(Invalid::one(
        field,
        format!("{length} characters"),
        format!("{SHORTEST} to {LONGEST} characters; a few plain words do well"),
    ))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn only_the_right_password_is_right() {
        let passwords = Passwords::default();
        let hash = passwords
            .hash("kites over the flats".to_owned())
            .await
            .unwrap();
        assert!(hash.starts_with("$argon2id$"), "{hash}");
        assert!(
            passwords
                .is_right("kites over the flats".to_owned(), Some(hash.clone()))
                .await
        );
        assert!(
            !passwords
                .is_right("kites over the flat".to_owned(), Some(hash))
                .await
        );
        assert!(
            !passwords
                .is_right("the password of nobody".to_owned(), None)
                .await
        );
    }

    #[test]
    fn short_and_endless_passwords_are_found() {
        assert!(check_password("password", "ten letter").is_ok());
        assert!(check_password("password", "nine char").is_err());
        assert!(check_password("password", &"x".repeat(201)).is_err());
    }
}
