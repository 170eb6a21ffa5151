//! Writes that act once: a request with an `Idempotency-Key` that has been done is answered as it was the first time.

mod store;

use crate::auth::Member;
use crate::http::arrival::Arrival;
use crate::http::error::Failure;
use crate::http::idempotency::store::{self as done, Known};
use crate::state::App;
use axum::Json;
use axum::extract::FromRequestParts;
use axum::http::StatusCode;
use axum::http::request::Parts;
use metrosk_core::document::Invalid;
use serde::Serialize;
use serde_json::Value;
use sqlx::{PgConnection, PgTransaction};
use std::sync::Arc;
use uuid::Uuid;

/// The header's longest value.
const LONGEST: usize = 100;

/// A write's answer.
pub(crate) type Answer = (StatusCode, Json<Value>);

/// The request's key, if it has one.
#[derive(Debug)]
pub(crate) struct Once {
    key: Option<String>,
    arrival: Option<Arc<Arrival>>,
}

impl<S: Send + Sync> FromRequestParts<S> for Once {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Once, Failure> {
        let Some(value) = parts.headers.get("idempotency-key") else {
            return Ok(Once {
                key: None,
                arrival: None,
            });
        };
        let key = value
            .to_str()
            .ok()
            .filter(|k| !k.is_empty() && k.len() <= LONGEST);
        let allowed = || format!("1 to {LONGEST} plain characters, new for each write");
        let key = key.ok_or_else(|| {
            Invalid::one(
                "header Idempotency-Key",
                "a value of another kind",
                allowed(),
            )
        })?;
        Ok(Once {
            key: Some(key.to_owned()),
            arrival: parts.extensions.get().cloned(),
        })
    }
}

/// A write that is new, or the answer of one that was done.
pub(crate) enum Begun {
    /// Go on.
    New(Write),
    /// Nothing is left to do.
    Done(Answer),
}

/// A write under way: all of it happens, or nothing.
pub(crate) struct Write {
    tx: PgTransaction<'static>,
    person: Uuid,
    key: Option<String>,
}

impl Once {
    /// Begins a write, once its body is in. `what` tells which: a key belongs to one request, not to several.
    pub(crate) async fn begin(
        self,
        app: &App,
        member: &Member,
        what: &str,
    ) -> Result<Begun, Failure> {
        let mut write = Write {
            tx: app.pool.begin().await?,
            person: member.person.id,
            key: self.key,
        };
        let Some(key) = &write.key else {
            return Ok(Begun::New(write));
        };
        let hash = self.arrival.map(|a| a.hash()).unwrap_or_default();
        match done::claim(&mut write.tx, write.person, key, what, &hash).await? {
            Known::New => Ok(Begun::New(write)),
            Known::Done {
                what: first,
                body_hash,
                status,
                answer,
            } if first == what && body_hash.as_ref().is_none_or(|h| *h == hash) => {
                let status = u16::try_from(status)
                    .ok()
                    .and_then(|s| StatusCode::from_u16(s).ok());
                Ok(Begun::Done((
                    status.unwrap_or(StatusCode::OK),
                    Json(answer),
                )))
            }
            Known::Done { what: first, .. } => {
                let found = if first == what {
                    "the key of a write that sent something else".to_owned()
                } else {
                    format!("the key of another write ({first})")
                };
                Err(
                    Invalid::one("header Idempotency-Key", found, "a new key for each write")
                        .into(),
                )
            }
        }
    }
}

impl Write {
    /// The transaction that everything of the write goes through.
    pub(crate) fn db(&mut self) -> &mut PgConnection {
        &mut self.tx
    }

    /// Ends the write, and keeps its answer under its key.
    pub(crate) async fn finish<T: Serialize>(
        mut self,
        status: StatusCode,
        answer: &T,
    ) -> Result<Answer, Failure> {
        let answer = serde_json::to_value(answer).map_err(|e| Failure::Internal(e.to_string()))?;
        if let Some(key) = &self.key {
            done::keep(
                &mut self.tx,
                self.person,
                key,
                status.as_u16() as i16,
                &answer,
            )
            .await?;
        }
        self.tx.commit().await?;
        Ok((status, Json(answer)))
    }
}

/// Begins a write, or answers what was answered before.
macro_rules! begin {
    ($once:expr, $app:expr, $member:expr, $what:expr) => {
        match $once.begin($app, $member, $what).await? {
            $crate::http::idempotency::Begun::New(write) => write,
            $crate::http::idempotency::Begun::Done(answer) => return Ok(answer),
        }
    };
}
pub(crate) use begin;
