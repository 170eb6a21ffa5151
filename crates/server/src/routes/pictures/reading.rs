//! Reading a sketch from a picture, stage by stage, for as long as somebody listens.

use super::{Shown, original};
use crate::auth::Maker;
use crate::compute::Work;
use crate::error::{Failure, Problem};
use crate::routes::body::{Id, InHand, QueryParams};
use crate::schema::PictureReading;
use crate::state::App;
use axum::extract::State;
use axum::response::sse::{Event, KeepAlive, Sse};
use futures_util::Stream;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::sketch::Sketch;
use metrosk_vision::{Stage, Unreadable};
use std::convert::Infallible;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use tokio::sync::mpsc;

/// Events on their way; when nobody takes them any more, the reading stops at its next stage.
struct Listener {
    events: mpsc::UnboundedReceiver<Event>,
    gone: Arc<AtomicBool>,
}

impl Drop for Listener {
    fn drop(&mut self) {
        self.gone.store(true, Ordering::Relaxed);
    }
}

/// Reads a sketch from a picture that was put in. Server-sent events: `stage` with the stage's name, as often as it goes on, then
/// `read` with the sketch to look over, or `failed` with problem details. Closing the connection stops the reading. The sketch lies in
/// no drawer yet.
#[utoipa::path(
    get, operation_id = "read_picture", path = "/api/pictures/{id}/reading", tag = "pictures", params(("id" = Uuid, Path), Shown),
    responses(
        (status = 200, body = PictureReading, content_type = "text/event-stream"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn read(
    State(app): State<App>,
    maker: Maker,
    in_hand: InHand,
    Id(id): Id,
    QueryParams(shown): QueryParams<Shown>,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Failure> {
    let wanted = shown.wanted()?;
    let bytes = original(&app, &maker, id).await?;
    let (tell, events) = mpsc::unbounded_channel();
    let gone = Arc::new(AtomicBool::new(false));
    let listener = Listener {
        events,
        gone: gone.clone(),
    };
    let team = maker.team();
    tokio::spawn(async move {
        let _in_hand = in_hand;
        let stages = tell.clone();
        let work = move |cancel: &Cancel| {
            let picture = metrosk_vision::decode(&bytes)?;
            drop(bytes);
            let size = [picture.pixels.width(), picture.pixels.height()];
            let go_on = |stage: Stage| {
                let told = Event::default().event("stage").data(stage.name());
                stages.send(told).is_ok() && !gone.load(Ordering::Relaxed) && !cancel.is_cancelled()
            };
            let reading = metrosk_vision::read(&picture.pixels, &wanted, &go_on)?;
            Ok::<_, Unreadable>((reading, size))
        };
        let read = match app.compute.run(team, Work::Picture, work).await {
            Ok(Ok((reading, size))) => Sketch::from_json(&reading.sketch)
                .map_err(Failure::from)
                .map(|sketch| PictureReading {
                    sketch: sketch.to_json(),
                    size,
                    corners: reading.quads.iter().map(|q| q.to_vec()).collect(),
                }),
            Ok(Err(Unreadable::Stopped)) => return,
            Ok(Err(unreadable)) => {
                Err(Invalid::one("", unreadable.to_string(), "a picture of a page sketch").into())
            }
            Err(failure) => Err(failure),
        };
        let last = match read {
            Ok(reading) => Event::default().event("read").json_data(reading),
            Err(failure) => Event::default()
                .event("failed")
                .json_data(failure.problem()),
        };
        // A listener that has gone needs no answer.
        let _ = last.map(|event| tell.send(event));
    });
    let stream = futures_util::stream::unfold(listener, async |mut l| {
        l.events.recv().await.map(|event| (Ok(event), l))
    });
    Ok(Sse::new(stream).keep_alive(KeepAlive::default()))
}
