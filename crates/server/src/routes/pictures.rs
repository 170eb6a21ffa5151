//! Sketches out of pictures. A picture is read and forgotten: nothing of it is kept, its place and camera neither.

use super::body::{Asked, Raw};
use crate::app::App;
use crate::auth::Maker;
use crate::error::{Failure, Problem};
use crate::schema::PictureReading;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_core::length::{Length, Unit};
use metrosk_core::sketch::Sketch;
use metrosk_vision::{Asked as Wanted, Quad, Unreadable};
use serde::Deserialize;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use tokio::sync::Semaphore;

/// Pictures read at the same time: each takes a core and up to some 300 MB.
const AT_ONCE: usize = 2;

/// Keeps the number of pictures in hand small.
#[derive(Clone, Debug)]
pub(crate) struct Desk(Arc<Semaphore>);

impl Default for Desk {
    fn default() -> Desk {
        Desk(Arc::new(Semaphore::new(AT_ONCE)))
    }
}

/// What the picture shows.
#[derive(Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Shown {
    /// The page's width, as makers write lengths: `12`, `8 1/2`, `210 mm`.
    width: String,
    /// The page's height.
    height: String,
    /// 1, or 2 for a spread.
    #[param(minimum = 1, maximum = 2)]
    pages: Option<u32>,
    /// `in` or `mm`.
    unit: Option<String>,
    /// The sketch's name.
    name: Option<String>,
    /// Where the page lies in the picture, as eight numbers in its pixels: top left x, y, then top right, bottom right, bottom left.
    corners: Option<String>,
}

impl Shown {
    fn wanted(&self) -> Result<Wanted, Invalid> {
        let unit = match self.unit.as_deref() {
            None => Unit::Inch,
            Some(name) => Unit::from_name(name).ok_or_else(|| Invalid::one("unit", format!("{name:?}"), "in or mm"))?,
        };
        let side = |path: &str, text: &str| {
            let length = Length::parse(text, unit).map_err(|e| Invalid::one(path, e.to_string(), "a length of 1 to 48 in"))?;
            let fits = (1.0..=48.0).contains(&length.to_units(Unit::Inch));
            if fits { Ok(length.to_units(unit)) } else { Err(Invalid::one(path, format!("{text:?}"), "a length of 1 to 48 in")) }
        };
        let pages = self.pages.unwrap_or(1);
        if pages != 1 && pages != 2 {
            return Err(Invalid::one("pages", pages.to_string(), "1 or 2"));
        }
        let name = self.name.as_deref().map(str::trim).filter(|n| !n.is_empty()).unwrap_or("From a picture");
        let name = name.chars().filter(|c| *c != '\0').take(120).collect();
        Ok(Wanted { page: (side("width", &self.width)?, side("height", &self.height)?), pages, unit, name, corners: self.quad()? })
    }

    fn quad(&self) -> Result<Option<Quad>, Invalid> {
        let Some(text) = &self.corners else { return Ok(None) };
        let numbers: Option<Vec<f64>> = text.split(',').map(|n| n.trim().parse().ok()).collect();
        match numbers.as_deref() {
            Some([a, b, c, d, e, f, g, h]) => Ok(Some([[*a, *b], [*c, *d], [*e, *f], [*g, *h]])),
            _ => Err(Invalid::one("corners", format!("{text:?}"), "eight numbers with commas between")),
        }
    }
}

/// Tells the reading to stop when nobody waits for it any more.
struct Waiting(Arc<AtomicBool>);

impl Drop for Waiting {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

/// Reads a sketch from a picture (PNG, JPEG or WebP). The answer is a sketch to look over; nothing is kept.
#[utoipa::path(
    post, operation_id = "read_picture", path = "/api/pictures/read", tag = "pictures", params(Shown),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = 200, body = PictureReading),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn read(
    State(app): State<App>,
    _maker: Maker,
    Asked(shown): Asked<Shown>,
    Raw(bytes): Raw,
) -> Result<Json<PictureReading>, Failure> {
    let wanted = shown.wanted()?;
    let place = app.desk.0.clone().acquire_owned().await.map_err(|e| Failure::Internal(e.to_string()))?;
    let gone = Arc::new(AtomicBool::new(false));
    let waiting = Waiting(gone.clone());
    let work = move || {
        let _place = place;
        let picture = metrosk_vision::decode(&bytes)?;
        drop(bytes);
        let size = [picture.pixels.width(), picture.pixels.height()];
        let reading = metrosk_vision::read(&picture.pixels, &wanted, &|_| !gone.load(Ordering::Relaxed))?;
        Ok::<_, Unreadable>((reading, size))
    };
    let read = tokio::task::spawn_blocking(work).await.map_err(|e| Failure::Internal(format!("reading a picture did not end: {e}")))?;
    drop(waiting);
    let (reading, size) = read.map_err(|e| Invalid::one("", e.to_string(), "a picture of a page sketch: PNG, JPEG or WebP, up to 16 MB"))?;
    // What the drawer takes is a sketch by its own rules.
    let sketch = Sketch::from_json(&reading.sketch)?.to_json();
    Ok(Json(PictureReading { sketch, size, corners: reading.quads.iter().map(|q| q.to_vec()).collect() }))
}
