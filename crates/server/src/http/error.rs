//! One failure, one status, in one shape: problem details (RFC 9457), with findings by JSON path.

use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use metrosk_core::document::Invalid;
use serde::Serialize;
use serde_json::Value;
use thiserror::Error;
use utoipa::ToSchema;

/// What can go wrong in a request.
#[derive(Debug, Error)]
pub(crate) enum Failure {
    /// A document that breaks its format.
    #[error("{0}")]
    Invalid(#[from] Invalid),
    /// Nothing of that kind and id in this team.
    #[error("there is no {0} of that id")]
    Missing(&'static str),
    /// A write that started from an older revision.
    #[error("this page has been changed since version {yours}; the newest is {}", newest.revision)]
    Stale {
        yours: i32,
        newest: Box<crate::features::pages::views::PageView>,
    },
    /// A write of a page's name, dates and the like that started from an older revision.
    #[error("this page's name or dates have been changed since version {yours}; the newest is {}", newest.details_revision)]
    StaleDetails {
        yours: i32,
        newest: Box<crate::features::pages::views::PageView>,
    },
    /// A write of a sketch that started from an older revision.
    #[error("this sketch has been changed since version {yours}; the newest is {}", newest.revision)]
    StaleSketch {
        yours: i32,
        newest: Box<crate::features::sketches::views::SketchView>,
    },
    /// She is in no team, or not in the one that she asks about.
    #[error("You are not in this team now. An invitation by one of its leads lets you in again.")]
    NoTeam,
    /// A write of a call that started from an older revision.
    #[error("this call has been changed since version {yours}; the newest is {}", newest.revision)]
    StaleCall {
        yours: i32,
        newest: Box<crate::features::calls::views::CallView>,
    },
    /// Nobody is signed in.
    #[error("Sign in first.")]
    SignedOut,
    /// The account or the password is wrong; which of them is not said.
    #[error("This name and password don't go together.")]
    WrongSignIn,
    /// Her role does not let her.
    #[error("{0}")]
    NotAllowed(&'static str),
    /// Too many sign-ins have failed.
    #[error("Too many sign-ins have failed. Wait {} minutes, then try again.", wait.div_ceil(60))]
    TooMany { wait: u32 },
    /// What is asked can't be done as things stand.
    #[error("{0}")]
    Standing(String),
    /// The database could not be reached.
    #[error("the database could not be reached")]
    Unreachable,
    /// What is sent can't be kept in the database as it is.
    #[error("the database refused a value: {0}")]
    Unstorable(sqlx::Error),
    /// Another write came in between.
    #[error("another write came in between: {0}")]
    Clash(sqlx::Error),
    /// A fault in what is asked of the database.
    #[error("the database failed: {0}")]
    Database(sqlx::Error),
    /// More is asked than can be computed now.
    #[error("Too much is being worked on at once. Try again in a moment.")]
    Busy,
    /// It was given up after so many seconds.
    #[error(
        "This took longer than {0} seconds and was given up. A page with fewer blocks, or fewer choices, takes less."
    )]
    TooLong(u64),
    /// The answer took too long.
    #[error("The server took too long and gave up. Nothing is lost that was shown as saved.")]
    Slow,
    /// A body did not come in for too long.
    #[error("What was sent stopped coming in. Nothing of it was kept; send it again.")]
    SlowBody,
    /// The store of pictures did not answer as it should.
    #[error("the store of pictures failed: {0}")]
    Objects(#[from] object_store::Error),
    /// A fault of ours.
    #[error("{0}")]
    Internal(String),
}

/// Problem details.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct Problem {
    /// Which problem, as a name.
    #[serde(rename = "type")]
    pub(crate) kind: String,
    /// What happened, in a few words.
    pub(crate) title: String,
    /// The HTTP status.
    pub(crate) status: u16,
    /// What was found and what is allowed.
    pub(crate) detail: String,
    /// Each finding in the document that was sent.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub(crate) findings: Vec<FindingView>,
    /// On a stale write, the page as it is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<crate::features::pages::views::PageView>)]
    pub(crate) newest: Option<Value>,
    /// On a stale write of a sketch, the sketch as it is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<crate::features::sketches::views::SketchView>)]
    pub(crate) newest_sketch: Option<Value>,
    /// On a stale write of a call, the call as it is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<crate::features::calls::views::CallView>)]
    pub(crate) newest_call: Option<Value>,
}

/// One finding in a document.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct FindingView {
    /// The JSON path, `blocks[2].box.w`; empty for the document itself.
    pub(crate) path: String,
    /// What was found there.
    pub(crate) found: String,
    /// What is allowed there.
    pub(crate) allowed: String,
}

impl From<sqlx::Error> for Failure {
    /// By what can be done about it: try again, send something else, or mend the program.
    fn from(error: sqlx::Error) -> Failure {
        match &error {
            sqlx::Error::Io(_)
            | sqlx::Error::Tls(_)
            | sqlx::Error::PoolTimedOut
            | sqlx::Error::PoolClosed
            | sqlx::Error::WorkerCrashed => Failure::Unreachable,
            sqlx::Error::Database(told) => match told.code().as_deref().unwrap_or_default() {
                // No connection, none to be had, or the server is going down or coming up (classes 08, 53, 57).
                code if code.starts_with("08")
                    || code.starts_with("53")
                    || code.starts_with("57P") =>
                {
                    Failure::Unreachable
                }
                // Serialisation failure, deadlock, no lock to be had.
                "40001" | "40P01" | "55P03" => Failure::Clash(error),
                // Two at once made what may be there once.
                "23505" => Failure::Clash(error),
                // A value out of range, too long, or of no such form.
                code if code.starts_with("22") => Failure::Unstorable(error),
                _ => Failure::Database(error),
            },
            _ => Failure::Database(error),
        }
    }
}

impl Failure {
    fn status(&self) -> StatusCode {
        match self {
            Failure::Invalid(_) | Failure::Unstorable(_) | Failure::TooLong(_) => {
                StatusCode::UNPROCESSABLE_ENTITY
            }
            Failure::Missing(_) => StatusCode::NOT_FOUND,
            Failure::Stale { .. }
            | Failure::StaleDetails { .. }
            | Failure::StaleSketch { .. }
            | Failure::StaleCall { .. }
            | Failure::Standing(_) => StatusCode::CONFLICT,
            Failure::SignedOut | Failure::WrongSignIn => StatusCode::UNAUTHORIZED,
            Failure::NotAllowed(_) | Failure::NoTeam => StatusCode::FORBIDDEN,
            Failure::TooMany { .. } => StatusCode::TOO_MANY_REQUESTS,
            Failure::Clash(_)
            | Failure::Unreachable
            | Failure::Objects(_)
            | Failure::Busy
            | Failure::Slow => StatusCode::SERVICE_UNAVAILABLE,
            Failure::SlowBody => StatusCode::REQUEST_TIMEOUT,
            Failure::Database(_) | Failure::Internal(_) => StatusCode::INTERNAL_SERVER_ERROR,
        }
    }

    const fn name(&self) -> (&'static str, &'static str) {
        match self {
            Failure::Invalid(_) => ("invalid-document", "The document breaks its format"),
            Failure::Missing(_) => ("missing", "Not found"),
            Failure::Stale { .. } => ("stale-write", "The page has changed meanwhile"),
            Failure::StaleDetails { .. } => (
                "stale-details",
                "The page's name or dates have changed meanwhile",
            ),
            Failure::StaleSketch { .. } => ("stale-sketch", "The sketch has changed meanwhile"),
            Failure::StaleCall { .. } => ("stale-call", "The call has changed meanwhile"),
            Failure::NoTeam => ("no-team", "Not in this team"),
            Failure::Unstorable(_) => ("unstorable", "This can't be kept"),
            Failure::Clash(_) => ("clash", "Another write came in between"),
            Failure::Busy => ("busy", "The server is busy"),
            Failure::TooLong(_) => ("too-long", "This takes too long"),
            Failure::Slow => ("slow", "The server took too long"),
            Failure::SlowBody => ("slow-body", "The rest did not come in"),
            Failure::SignedOut => ("signed-out", "Nobody is signed in"),
            Failure::WrongSignIn => ("wrong-sign-in", "That did not sign you in"),
            Failure::NotAllowed(_) => ("not-allowed", "Not allowed"),
            Failure::TooMany { .. } => ("too-many", "Too many tries"),
            Failure::Standing(_) => ("as-things-stand", "Not as things stand"),
            Failure::Unreachable => ("database", "The database does not answer"),
            Failure::Database(_) => ("internal", "Something went wrong here"),
            Failure::Objects(_) => ("pictures", "The store of pictures does not answer"),
            Failure::Internal(_) => ("internal", "Something went wrong here"),
        }
    }

    /// What failed, without what people wrote: a database's own message can hold the values of a row.
    fn for_the_log(&self) -> String {
        match self {
            Failure::Database(sqlx::Error::Database(e))
            | Failure::Unstorable(sqlx::Error::Database(e))
            | Failure::Clash(sqlx::Error::Database(e)) => {
                format!("the database failed: code {}", e.code().unwrap_or_default())
            }
            other => other.to_string(),
        }
    }

    /// What is told of it.
    pub(crate) fn problem(&self) -> Problem {
        let (kind, title) = self.name();
        let findings = match self {
            Failure::Invalid(invalid) => (invalid.findings.iter())
                .map(|f| FindingView {
                    path: f.path.clone(),
                    found: f.found.clone(),
                    allowed: f.allowed.clone(),
                })
                .collect(),
            _ => Vec::new(),
        };
        let newest = match self {
            Failure::Stale { newest, .. } | Failure::StaleDetails { newest, .. } => {
                serde_json::to_value(newest).ok()
            }
            _ => None,
        };
        let newest_sketch = match self {
            Failure::StaleSketch { newest, .. } => serde_json::to_value(newest).ok(),
            _ => None,
        };
        let newest_call = match self {
            Failure::StaleCall { newest, .. } => serde_json::to_value(newest).ok(),
            _ => None,
        };
        // What the database or we ourselves say is for the log, not for the reader.
        let detail = match self {
            Failure::Clash(_) | Failure::Unreachable | Failure::Objects(_) => {
                "Nothing is lost that was shown as saved. Try again in a moment.".to_owned()
            }
            Failure::Unstorable(_) => "Something in what was sent can't be kept: a text that is too long, or a number out of range.".to_owned(),
            Failure::Database(_) | Failure::Internal(_) => "This is a fault of the program. Nothing is lost that was shown as saved.".to_owned(),
            other => other.to_string(),
        };
        Problem {
            kind: kind.to_owned(),
            title: title.to_owned(),
            status: self.status().as_u16(),
            detail,
            findings,
            newest,
            newest_sketch,
            newest_call,
        }
    }
}

impl IntoResponse for Failure {
    fn into_response(self) -> Response {
        if matches!(
            self,
            Failure::Database(_)
                | Failure::Unreachable
                | Failure::Objects(_)
                | Failure::Internal(_)
        ) {
            tracing::error!(error = self.for_the_log(), "request failed");
        }
        let mut response = problem(self.problem());
        let wait = match self {
            Failure::TooMany { wait } => Some(wait),
            Failure::Unreachable | Failure::Clash(_) | Failure::Objects(_) => Some(2),
            Failure::Busy | Failure::Slow => Some(1),
            _ => None,
        };
        if let Some(wait) = wait {
            response
                .headers_mut()
                .insert(header::RETRY_AFTER, HeaderValue::from(wait));
        }
        response
    }
}

/// An answer in the shape of problem details.
pub(crate) fn problem(told: Problem) -> Response {
    let status = StatusCode::from_u16(told.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
    let mut response = (status, Json(told)).into_response();
    response.headers_mut().insert(
        header::CONTENT_TYPE,
        HeaderValue::from_static("application/problem+json"),
    );
    response
}
