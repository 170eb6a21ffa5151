//! Sessions kept in PostgreSQL, so that several servers on one database know them.

use crate::auth::tokens::hash;
use crate::features::people::store::sessions;
use async_trait::async_trait;
use axum::extract::Request;
use axum::middleware::Next;
use axum::response::Response;
use axum_login::tower_sessions::session::{Id, Record};
use axum_login::tower_sessions::session_store::{Error, Result};
use axum_login::tower_sessions::{Session, SessionStore};
use sqlx::PgPool;
use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

/// A session that was looked up so long ago is looked up again. Who signs out on one server is out of the others this
/// much later; on this one at once. A new password and a role are looked up anew by every request.
const FRESH: Duration = Duration::from_secs(2);
/// Who has not come for so long signs in again.
pub(crate) const LASTS: time::Duration = time::Duration::days(30);
/// A session is prolonged when it was last prolonged so long ago: not by every request.
const PROLONGED_EVERY: time::Duration = time::Duration::hours(12);
/// Under what a session remembers when it was prolonged, in seconds since 1970.
const PROLONGED_AT: &str = "prolonged_at";
/// Sessions remembered at once.
const MOST: usize = 4096;

/// The store. A session is kept under the hash of its id: who reads the database can't sign in with it.
#[derive(Clone, Debug)]
pub(crate) struct Sessions {
    pool: PgPool,
    seen: Arc<Mutex<HashMap<Id, (Record, Instant)>>>,
}

impl Sessions {
    pub(crate) fn new(pool: PgPool) -> Sessions {
        Sessions {
            pool,
            seen: Arc::default(),
        }
    }

    fn seen(&self, id: &Id) -> Option<Record> {
        let seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner);
        seen.get(id)
            .filter(|(_, at)| at.elapsed() < FRESH)
            .map(|(record, _)| record.clone())
    }

    fn remember(&self, record: &Record) {
        let mut seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner);
        if seen.len() >= MOST {
            seen.clear();
        }
        seen.insert(record.id, (record.clone(), Instant::now()));
    }

    fn forget(&self, id: &Id) {
        self.seen
            .lock()
            .unwrap_or_else(PoisonError::into_inner)
            .remove(id);
    }
}

/// Lets a session end so long after it was last used, not after sign-in: changing it writes it, and its cookie, anew.
pub(crate) async fn prolong(request: Request, next: Next) -> Response {
    let now = time::OffsetDateTime::now_utc().unix_timestamp();
    let session = request
        .extensions()
        .get::<Session>()
        .filter(|s| s.id().is_some())
        .cloned();
    if let Some(session) = session {
        // A store that fails shows in the routes that need it.
        let is_old = |last: Option<i64>| {
            last.is_none_or(|last| now - last >= PROLONGED_EVERY.whole_seconds())
        };
        let is_due = session.get::<i64>(PROLONGED_AT).await.is_ok_and(is_old);
        if is_due && !session.is_empty().await {
            let _ = session.insert(PROLONGED_AT, now).await;
        }
    }
    next.run(request).await
}

fn key(id: &Id) -> Vec<u8> {
    hash(&id.to_string())
}

fn backend(error: sqlx::Error) -> Error {
    Error::Backend(error.to_string())
}

#[async_trait]
impl SessionStore for Sessions {
    async fn create(&self, record: &mut Record) -> Result<()> {
        let data = serde_json::to_value(&record.data).map_err(|e| Error::Encode(e.to_string()))?;
        while !sessions::insert(&self.pool, &key(&record.id), &data, record.expiry_date)
            .await
            .map_err(backend)?
        {
            record.id = Id::default();
        }
        Ok(())
    }

    async fn save(&self, record: &Record) -> Result<()> {
        self.forget(&record.id);
        let data = serde_json::to_value(&record.data).map_err(|e| Error::Encode(e.to_string()))?;
        sessions::save(&self.pool, &key(&record.id), &data, record.expiry_date)
            .await
            .map_err(backend)
    }

    async fn load(&self, id: &Id) -> Result<Option<Record>> {
        if let Some(record) = self.seen(id) {
            return Ok(Some(record));
        }
        let Some((data, expiry_date)) = sessions::load(&self.pool, &key(id))
            .await
            .map_err(backend)?
        else {
            return Ok(None);
        };
        let data = serde_json::from_value(data).map_err(|e| Error::Decode(e.to_string()))?;
        let record = Record {
            id: *id,
            data,
            expiry_date,
        };
        self.remember(&record);
        Ok(Some(record))
    }

    async fn delete(&self, id: &Id) -> Result<()> {
        self.forget(id);
        sessions::delete(&self.pool, &key(id))
            .await
            .map_err(backend)
    }
}
