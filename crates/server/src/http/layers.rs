//! What surrounds every route: limits, headers, request ids, logs without personal data, metrics.

use crate::http::arrival::request_timeout;
use crate::http::error::{Failure, Problem, problem};
use crate::settings::Settings;
use crate::state::App;
use axum::Router;
use axum::body::Body;
use axum::error_handling::HandleErrorLayer;
use axum::extract::{ConnectInfo, MatchedPath, Request, State};
use axum::http::{HeaderName, HeaderValue, Method, StatusCode, header};
use axum::middleware::{self, Next};
use axum::response::{IntoResponse, Response};
use metrics_exporter_prometheus::{Matcher, PrometheusBuilder, PrometheusHandle};
use std::net::SocketAddr;
use std::path::Path;
use std::sync::OnceLock;
use std::time::{Duration, Instant};
use tower::ServiceBuilder;
use tower::limit::GlobalConcurrencyLimitLayer;
use tower::load_shed::LoadShedLayer;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::csrf::CsrfLayer;
use tower_http::request_id::{
    MakeRequestUuid, PropagateRequestIdLayer, RequestId, SetRequestIdLayer,
};
use tower_http::services::{ServeDir, ServeFile};
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::trace::{DefaultOnResponse, TraceLayer};
use tracing::Level;

/// Scripts, styles, fonts and pictures from here only; nothing in frames.
const CONTENT_POLICY: &str = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";
/// What is shared between places may be looked at again, not kept.
const NO_STORE: &str = "no-store";
/// Who asks whether the server is ready does not wait longer.
const READY_WITHIN: Duration = Duration::from_secs(2);

/// Refuses writes that another site sent in her name.
pub(crate) fn cross_site(settings: &Settings) -> CsrfLayer {
    let layer = CsrfLayer::new();
    match settings
        .public_url
        .as_deref()
        .map(|url| CsrfLayer::new().add_trusted_origin(url.trim_end_matches('/')))
    {
        Some(Ok(trusting)) => trusting,
        _ => layer,
    }
}

/// The built front end, for every address that is not the server's own.
pub(crate) fn front_end(router: Router, folder: Option<&Path>) -> Router {
    match folder {
        Some(folder) => {
            let assets = ServeDir::new(folder.join("assets"));
            // What is missing today may be there tomorrow: only what was found is kept.
            let immutable = SetResponseHeaderLayer::if_not_present(
                header::CACHE_CONTROL,
                |response: &Response<_>| {
                    response
                        .status()
                        .is_success()
                        .then_some(HeaderValue::from_static(
                            "public, max-age=31536000, immutable",
                        ))
                },
            );
            router
                .nest_service(
                    "/assets",
                    ServiceBuilder::new().layer(immutable).service(assets),
                )
                .fallback_service(
                    ServeDir::new(folder).fallback(ServeFile::new(folder.join("index.html"))),
                )
        }
        None => router.fallback(async || {
            (StatusCode::NOT_FOUND, "The front end has not been built.").into_response()
        }),
    }
}

/// All that surrounds the routes, the outermost last.
///
/// `probes` are answered whatever the load is.
pub(crate) fn around(router: Router, probes: Router, settings: &Settings) -> Router {
    recorder();
    let fixed = |name: HeaderName, value: &'static str| {
        SetResponseHeaderLayer::if_not_present(name, HeaderValue::from_static(value))
    };
    let shed = ServiceBuilder::new()
        .layer(HandleErrorLayer::new(async |_: tower::BoxError| {
            Failure::Busy.into_response()
        }))
        .layer(LoadShedLayer::new())
        .layer(GlobalConcurrencyLimitLayer::new(settings.max_in_flight));
    let router = router
        .layer(middleware::from_fn(as_problems))
        .layer(middleware::from_fn_with_state(
            settings.request_timeout,
            request_timeout,
        ))
        .layer(CatchPanicLayer::custom(
            |_: Box<dyn std::any::Any + Send>| {
                Failure::Internal("a request panicked".to_owned()).into_response()
            },
        ))
        .layer(shed)
        .merge(probes)
        .layer(CompressionLayer::new())
        .layer(middleware::from_fn(measured))
        .layer(fixed(header::CONTENT_SECURITY_POLICY, CONTENT_POLICY))
        .layer(fixed(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(fixed(header::REFERRER_POLICY, "no-referrer"))
        .layer(fixed(
            HeaderName::from_static("cross-origin-opener-policy"),
            "same-origin",
        ))
        .layer(fixed(
            HeaderName::from_static("cross-origin-resource-policy"),
            "same-origin",
        ))
        .layer(fixed(
            HeaderName::from_static("permissions-policy"),
            "camera=(), geolocation=(), microphone=()",
        ));
    let router = if settings.is_secure() {
        router.layer(fixed(header::STRICT_TRANSPORT_SECURITY, "max-age=31536000"))
    } else {
        router
    };
    router
        .layer(PropagateRequestIdLayer::x_request_id())
        .layer(
            TraceLayer::new_for_http()
                .make_span_with(span)
                .on_response(DefaultOnResponse::new().level(Level::INFO)),
        )
        .layer(SetRequestIdLayer::x_request_id(MakeRequestUuid))
}

/// A log line's span: method and route, never an id, a name, a query or an address.
fn span(request: &Request) -> tracing::Span {
    let route = request
        .extensions()
        .get::<MatchedPath>()
        .map_or("front end", MatchedPath::as_str);
    let id = request
        .extensions()
        .get::<RequestId>()
        .and_then(|i| i.header_value().to_str().ok())
        .unwrap_or_default();
    tracing::info_span!("request", method = %request.method(), route, id)
}

/// Failures that layers tell in a word are told like all others; answers of the API are not kept by anybody.
async fn as_problems(request: Request, next: Next) -> Response {
    let of_api = request.uri().path().starts_with("/api/");
    let mut response = next.run(request).await;
    let status = response.status();
    let told = response
        .headers()
        .get(header::CONTENT_TYPE)
        .is_some_and(|t| t.as_bytes().starts_with(b"application/problem"));
    if of_api && (status.is_client_error() || status.is_server_error()) && !told {
        let retry = response.headers().get(header::RETRY_AFTER).cloned();
        response = untold(status).into_response();
        if let Some(retry) = retry {
            response.headers_mut().insert(header::RETRY_AFTER, retry);
        }
    }
    if of_api {
        response
            .headers_mut()
            .entry(header::CACHE_CONTROL)
            .or_insert(HeaderValue::from_static(NO_STORE));
    }
    response
}

/// What a bare status means here.
fn untold(status: StatusCode) -> Response {
    match status {
        // The session layer could not reach the database.
        StatusCode::INTERNAL_SERVER_ERROR => Failure::Unreachable.into_response(),
        StatusCode::FORBIDDEN => {
            Failure::NotAllowed("This write came from another site.").into_response()
        }
        other => problem(Problem {
            kind: "refused".to_owned(),
            title: other.canonical_reason().unwrap_or("Refused").to_owned(),
            status: other.as_u16(),
            detail: match other {
                StatusCode::METHOD_NOT_ALLOWED => {
                    "This address does not answer to that method.".to_owned()
                }
                _ => "The request could not be understood.".to_owned(),
            },
            findings: Vec::new(),
            newest: None,
            newest_sketch: None,
            newest_call: None,
        }),
    }
}

/// There is nothing at this address of the API.
pub(crate) async fn nothing_here() -> Failure {
    Failure::Missing("such address; nothing")
}

/// The address is right, the method is not.
pub(crate) async fn no_such_method() -> StatusCode {
    StatusCode::METHOD_NOT_ALLOWED
}

/// Whether it can work: the database answers, and soon.
pub(crate) async fn ready(State(app): State<App>) -> Result<&'static str, Failure> {
    let asked = sqlx::query("SELECT 1").execute(&app.pool);
    tokio::time::timeout(READY_WITHIN, asked)
        .await
        .map_err(|_| Failure::Unreachable)??;
    Ok("ready")
}

/// Takes in what the histograms have recorded, every few seconds: nobody may ever ask for the metrics.
pub(crate) async fn keep_metrics() {
    let mut often = tokio::time::interval(Duration::from_secs(5));
    loop {
        often.tick().await;
        recorder().run_upkeep();
    }
}

fn recorder() -> &'static PrometheusHandle {
    static RECORDER: OnceLock<PrometheusHandle> = OnceLock::new();
    RECORDER.get_or_init(|| {
        let steps = [
            0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0,
        ];
        let builder = PrometheusBuilder::new()
            .set_buckets_for_metric(Matcher::Suffix("_seconds".to_owned()), &steps);
        let recorder = match builder {
            Ok(builder) => builder.build_recorder(),
            Err(_) => PrometheusBuilder::new().build_recorder(),
        };
        let handle = recorder.handle();
        // A second server in one process (the tests' own) counts into the first one's.
        let _ = metrics::set_global_recorder(recorder);
        handle
    })
}

/// Counts and times each request by its route.
async fn measured(request: Request, next: Next) -> Response {
    let route = request
        .extensions()
        .get::<MatchedPath>()
        .map_or_else(|| "front end".to_owned(), |p| p.as_str().to_owned());
    let method = plain_method(request.method());
    let begun = Instant::now();
    let response = next.run(request).await;
    let status = response.status().as_u16().to_string();
    metrics::histogram!("metrosk_request_seconds", "method" => method, "route" => route.clone())
        .record(begun.elapsed());
    metrics::counter!("metrosk_requests_total", "method" => method, "route" => route, "status" => status).increment(1);
    response
}

/// A method of the few that are used: others would each be a label of their own.
fn plain_method(method: &Method) -> &'static str {
    match *method {
        Method::GET => "GET",
        Method::HEAD => "HEAD",
        Method::POST => "POST",
        Method::PUT => "PUT",
        Method::DELETE => "DELETE",
        _ => "other",
    }
}

/// Prometheus metrics, for this machine alone: what a proxy has forwarded is refused.
pub(crate) async fn metrics(request: Request<Body>) -> Response {
    let peer = request
        .extensions()
        .get::<ConnectInfo<SocketAddr>>()
        .is_none_or(|c| c.0.ip().is_loopback());
    let forwarded = ["x-forwarded-for", "forwarded"]
        .iter()
        .any(|h| request.headers().contains_key(*h));
    if !peer || forwarded {
        return (
            StatusCode::NOT_FOUND,
            "Metrics are told to this machine only.",
        )
            .into_response();
    }
    (
        [(header::CONTENT_TYPE, "text/plain; version=0.0.4")],
        recorder().render(),
    )
        .into_response()
}
