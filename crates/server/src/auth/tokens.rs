//! Tokens of links that work once, and hashes of what is not to be kept as it is.

use rand::TryRngCore;
use rand::rngs::OsRng;
use sha2::{Digest, Sha256};

/// The hash under which a token, an account or an address is kept.
pub(crate) fn hash(text: &str) -> Vec<u8> {
    Sha256::digest(text.as_bytes()).to_vec()
}

/// A new token: 160 random bits, as 40 characters.
pub(crate) fn new_token() -> Result<String, crate::http::error::Failure> {
    let mut bytes = [0_u8; 20];
    OsRng
        .try_fill_bytes(&mut bytes)
        .map_err(|e| crate::http::error::Failure::Internal(format!("no random numbers: {e}")))?;
    Ok(bytes.iter().map(|b| format!("{b:02x}")).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn tokens_differ_and_their_hashes_too() {
        let (a, b) = (new_token().unwrap(), new_token().unwrap());
        assert_eq!((a.len(), b.len()), (40, 40));
        assert_ne!(a, b);
        assert_ne!(hash(&a), hash(&b));
        assert_eq!(hash(&a), hash(&a.clone()));
    }
}
