//! How a request comes in and how long it may take: a slow upload is given the time it needs while it goes on, what is then computed is
//! not. The body's hash is taken on the way, for writes that act once.

use crate::http::error::Failure;
use axum::body::{Body, Bytes};
use axum::extract::{Request, State};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use futures_util::StreamExt;
use futures_util::stream;
use sha2::{Digest, Sha256};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::task::Poll;
use std::time::Duration;
use tokio::time::Instant;

/// A body that brings nothing for so long has stopped.
const STALLED: Duration = Duration::from_secs(20);
/// No body takes longer in all.
const LONGEST_BODY: Duration = Duration::from_secs(600);

/// How far a request has come in.
#[derive(Debug)]
pub(crate) struct Arrival(Mutex<Progress>);

#[derive(Debug)]
struct Progress {
    begun: Instant,
    /// When the last piece of the body came in; none before the first.
    last_piece: Option<Instant>,
    ended: bool,
    hash: Sha256,
}

impl Arrival {
    fn new(request: &Request) -> Arrival {
        let mut hash = Sha256::new();
        hash.update(request.uri().path_and_query().map_or("", |p| p.as_str()));
        hash.update([0]);
        Arrival(Mutex::new(Progress {
            begun: Instant::now(),
            last_piece: None,
            ended: false,
            hash,
        }))
    }

    fn lock(&self) -> MutexGuard<'_, Progress> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn took(&self, piece: &Bytes) {
        let mut progress = self.lock();
        progress.last_piece = Some(Instant::now());
        progress.hash.update(piece);
    }

    fn end(&self) {
        let mut progress = self.lock();
        progress.last_piece = Some(Instant::now());
        progress.ended = true;
    }

    /// The hash of the address and of what came in of the body so far.
    pub(crate) fn hash(&self) -> Vec<u8> {
        self.lock().hash.clone().finalize().to_vec()
    }

    /// Until when the answer may take as things stand, and what it is when it takes longer.
    fn deadline(&self, slowest: Duration) -> (Instant, Failure) {
        let progress = self.lock();
        match progress.last_piece {
            Some(last) if !progress.ended => (
                (last + STALLED).min(progress.begun + LONGEST_BODY),
                Failure::SlowBody,
            ),
            last => (last.unwrap_or(progress.begun) + slowest, Failure::Slow),
        }
    }
}

/// Gives up an answer that takes too long, counted from when the body was in.
pub(crate) async fn request_timeout(
    State(slowest): State<Duration>,
    request: Request,
    next: Next,
) -> Response {
    let arrival = Arc::new(Arrival::new(&request));
    let mut request = watched(request, &arrival);
    request.extensions_mut().insert(arrival.clone());
    let mut answer = std::pin::pin!(next.run(request));
    loop {
        let (until, _) = arrival.deadline(slowest);
        if let Ok(answer) = tokio::time::timeout_at(until, &mut answer).await {
            return answer;
        }
        // The body may have come on meanwhile.
        let (until, failure) = arrival.deadline(slowest);
        if until <= Instant::now() {
            return failure.into_response();
        }
    }
}

fn watched(request: Request, arrival: &Arc<Arrival>) -> Request {
    let (parts, body) = request.into_parts();
    let (piece, end) = (arrival.clone(), arrival.clone());
    let pieces = body.into_data_stream().inspect(move |p| {
        if let Ok(bytes) = p {
            piece.took(bytes);
        }
    });
    let at_end = stream::poll_fn(move |_| {
        end.end();
        Poll::Ready(None)
    });
    Request::from_parts(parts, Body::from_stream(pieces.chain(at_end)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use axum::Router;
    use axum::http::StatusCode;
    use axum::middleware;
    use axum::routing::post;
    use tower::ServiceExt;

    async fn answered(body: Body, work: Duration) -> StatusCode {
        let handler = async move |_: Bytes| tokio::time::sleep(work).await;
        let app = Router::new()
            .route("/", post(handler))
            .layer(middleware::from_fn_with_state(
                Duration::from_secs(5),
                request_timeout,
            ));
        let request = Request::builder()
            .method("POST")
            .uri("/")
            .body(body)
            .unwrap();
        app.oneshot(request).await.unwrap().status()
    }

    /// A body of so many pieces, each after a pause.
    fn dripping(pieces: usize, pause: Duration) -> Body {
        let pieces = stream::iter(0..pieces).then(move |_| async move {
            tokio::time::sleep(pause).await;
            Ok::<_, std::io::Error>(Bytes::from_static(b"x"))
        });
        Body::from_stream(stream::iter([Ok(Bytes::from_static(b"x"))]).chain(pieces))
    }

    #[tokio::test(start_paused = true)]
    async fn a_slow_upload_does_not_count_and_slow_work_does() {
        assert_eq!(
            answered(Body::empty(), Duration::from_secs(4)).await,
            StatusCode::OK
        );
        assert_eq!(
            answered(Body::empty(), Duration::from_secs(6)).await,
            StatusCode::SERVICE_UNAVAILABLE
        );
        assert_eq!(
            answered(
                dripping(10, Duration::from_secs(10)),
                Duration::from_secs(4)
            )
            .await,
            StatusCode::OK
        );
        assert_eq!(
            answered(
                dripping(10, Duration::from_secs(10)),
                Duration::from_secs(6)
            )
            .await,
            StatusCode::SERVICE_UNAVAILABLE
        );
        assert_eq!(
            answered(dripping(1, Duration::from_secs(30)), Duration::ZERO).await,
            StatusCode::REQUEST_TIMEOUT
        );
        assert_eq!(
            answered(dripping(1000, Duration::from_secs(10)), Duration::ZERO).await,
            StatusCode::REQUEST_TIMEOUT
        );
    }
}
