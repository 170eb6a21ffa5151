//! Who asks: sign-in, sessions, and what a route may require of her.

mod extractors;
mod passwords;
mod sessions;
mod throttle;
mod tokens;

pub(crate) use extractors::{Lead, Maker, Member, Person};
pub(crate) use passwords::{Passwords, check_password};
pub(crate) use sessions::{LASTS as SESSION_LASTS, Sessions, prolong};
pub(crate) use throttle::Throttle;
pub(crate) use tokens::{hash, new_token};

use crate::features::people::store::people;
use crate::features::people::store::people::PersonRow;
use axum_login::{AuthUser, AuthnBackend, UserId};
use serde::{Deserialize, Serialize};
use sqlx::PgPool;
use std::fmt;
use uuid::Uuid;

/// Who is signed in, and the team that a new tab of hers begins in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(crate) struct SignedIn {
    pub(crate) person: Uuid,
    pub(crate) team: Option<Uuid>,
}

impl fmt::Display for SignedIn {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}", self.person)
    }
}

impl AuthUser for PersonRow {
    type Id = SignedIn;

    fn id(&self) -> SignedIn {
        SignedIn {
            person: self.id,
            team: self.team,
        }
    }

    /// A new password ends every session that was opened with the old one.
    fn session_auth_hash(&self) -> &[u8] {
        self.password_hash.as_bytes()
    }
}

/// People as the sign-in sees them.
#[derive(Clone, Debug)]
pub(crate) struct Backend {
    pub(crate) pool: PgPool,
    pub(crate) passwords: Passwords,
}

/// What she types.
pub(crate) struct Credentials {
    pub(crate) account: String,
    pub(crate) password: String,
}

/// A request's session.
pub(crate) type Auth = axum_login::AuthSession<Backend>;

impl AuthnBackend for Backend {
    type User = PersonRow;
    type Credentials = Credentials;
    type Error = sqlx::Error;

    /// Takes as long for an account that does not exist as for one that does.
    async fn authenticate(&self, given: Credentials) -> sqlx::Result<Option<PersonRow>> {
        let found = people::by_account(&self.pool, &given.account).await?;
        let hash = found.as_ref().map(|p| p.password_hash.clone());
        let right = self.passwords.is_right(given.password, hash).await;
        Ok(found.filter(|_| right))
    }

    async fn get_user(&self, id: &UserId<Backend>) -> sqlx::Result<Option<PersonRow>> {
        people::find(&self.pool, id.person, id.team).await
    }
}
