//! What comes in: bodies, ids and tokens. What is no JSON, or of the wrong shape, is a finding like any other.

use crate::auth::Member;
use crate::compute::Admission;
use crate::http::error::Failure;
use crate::state::App;
use axum::body::Bytes;
use axum::extract::rejection::BytesRejection;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::request::Parts;
use axum::http::{HeaderMap, HeaderValue, header};
use metrosk_core::document::{Invalid, parse_json};
use serde::de::DeserializeOwned;
use serde_json::Value;
use uuid::Uuid;

/// A JSON document, as it is.
pub(crate) struct Document(pub(crate) Value);

/// A JSON body of a known shape.
pub(crate) struct Body<T>(pub(crate) T);

/// Bytes of whatever kind.
pub(crate) struct Raw(pub(crate) Bytes);

/// A place in the house for a request that computes: taken before its body is read.
pub(crate) struct InHand(
    #[allow(dead_code, reason = "held until the request is answered")] Admission,
);

impl FromRequestParts<App> for InHand {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<InHand, Failure> {
        let member = Member::from_request_parts(parts, app).await?;
        app.compute.admit(member.team()).map(InHand)
    }
}

/// The id in the address. What is no id is the id of nothing.
pub(crate) struct Id(pub(crate) Uuid);

/// The token in the address.
pub(crate) struct Token(pub(crate) String);

/// The questions in the address.
pub(crate) struct QueryParams<T>(pub(crate) T);

impl<S: Send + Sync> FromRequest<S> for Raw {
    type Rejection = Failure;

    async fn from_request(request: Request, state: &S) -> Result<Raw, Failure> {
        let too_large = |e: BytesRejection| {
            Invalid::one(
                "",
                e.body_text(),
                "a body of at most 16 MB (a document: 2 MB)",
            )
        };
        Ok(Raw(Bytes::from_request(request, state)
            .await
            .map_err(too_large)?))
    }
}

impl<S: Send + Sync> FromRequest<S> for Document {
    type Rejection = Failure;

    async fn from_request(request: Request, state: &S) -> Result<Document, Failure> {
        let bytes = Bytes::from_request(request, state)
            .await
            .map_err(|e| Invalid::one("", e.body_text(), "a document of at most 2 MB"))?;
        read_document(&bytes)
            .map(Document)
            .map_err(Failure::Invalid)
    }
}

/// Reads one JSON document of bytes.
pub(crate) fn read_document(bytes: &[u8]) -> Result<Value, Invalid> {
    let text = std::str::from_utf8(bytes)
        .map_err(|_| Invalid::one("", "text that is not UTF-8", "one JSON document in UTF-8"))?;
    let value = parse_json(text.trim_start_matches('\u{feff}'))?;
    // PostgreSQL keeps no NUL in a text, and no maker means one.
    match nul(&value, String::new()) {
        Some(path) => Err(Invalid::one(
            &path,
            "a NUL character",
            "text without NUL characters",
        )),
        None => Ok(value),
    }
}

/// Where a text holds a NUL.
fn nul(value: &Value, path: String) -> Option<String> {
    match value {
        Value::String(text) => text.contains('\0').then_some(path),
        Value::Array(items) => items
            .iter()
            .enumerate()
            .find_map(|(n, v)| nul(v, format!("{path}[{n}]"))),
        Value::Object(fields) => fields.iter().find_map(|(name, v)| {
            let dot = if path.is_empty() { "" } else { "." };
            if name.contains('\0') {
                Some(path.clone())
            } else {
                nul(v, format!("{path}{dot}{name}"))
            }
        }),
        _ => None,
    }
}

impl<S: Send + Sync, T: DeserializeOwned> FromRequest<S> for Body<T> {
    type Rejection = Failure;

    async fn from_request(request: Request, state: &S) -> Result<Body<T>, Failure> {
        let Document(value) = Document::from_request(request, state).await?;
        serde_json::from_value(value).map(Body).map_err(|e| {
            Failure::Invalid(Invalid::one(
                "",
                e.to_string(),
                "the fields that the API describes",
            ))
        })
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Id {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Id, Failure> {
        let Path(id) = Path::<Uuid>::from_request_parts(parts, state)
            .await
            .map_err(|_| Failure::Missing("thing"))?;
        Ok(Id(id))
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Token {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Token, Failure> {
        let Path(token) = Path::<String>::from_request_parts(parts, state)
            .await
            .map_err(|_| Failure::Missing("link"))?;
        Ok(Token(token))
    }
}

impl<S: Send + Sync, T: DeserializeOwned> FromRequestParts<S> for QueryParams<T> {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<QueryParams<T>, Failure> {
        let asked = Query::<T>::from_request_parts(parts, state).await;
        let Query(asked) =
            asked.map_err(|e| Invalid::one("query", e.body_text(), "what the API describes"))?;
        Ok(QueryParams(asked))
    }
}

/// Headers of a file to take away.
pub(crate) fn download(kind: &'static str, file: &str) -> HeaderMap {
    let mut headers = HeaderMap::new();
    headers.insert(header::CONTENT_TYPE, HeaderValue::from_static(kind));
    if let Ok(value) = HeaderValue::from_str(&format!("attachment; filename=\"{file}\"")) {
        headers.insert(header::CONTENT_DISPOSITION, value);
    }
    headers
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_nul_is_found_where_it_is() {
        let found = read_document(br#"{"blocks": [{"id": "p\u0000"}]}"#)
            .expect_err("a NUL")
            .findings;
        assert_eq!(found[0].path, "blocks[0].id");
        assert!(read_document(b"{\"name\": \"Kites\"}").is_ok());
    }
}
