//! A picture made out of another: brought upright, a part of it framed, faces blurred.

use super::{NewPicture, QUALITY, SIDE, keep, original, prepared};
use crate::auth::Maker;
use crate::compute::Work;
use crate::features::pictures::store as pictures;
use crate::features::pictures::views::{MadeFromDoc, PictureView};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, InHand};
use crate::http::idempotency::{Answer, Once, begin};
use crate::state::App;
use axum::extract::State;
use axum::http::StatusCode;
use image::RgbImage;
use image::imageops;
use metrosk_core::document::Invalid;
use metrosk_vision::{find_page, jpeg, straightened};
use uuid::Uuid;

/// So many places are blurred at once.
const MOST_BLURRED: usize = 40;
/// The smallest part that is framed, in pixels.
const LEAST: u32 = 40;
/// A blurred place is as coarse as this many squares across.
const SQUARES: u32 = 6;

/// Makes a picture out of another, which stays as it is: brought upright between the corners that are found, then what is blurred, then framed.
/// Like a picture of a paper it is offered neither as a photo nor as a sketch.
#[utoipa::path(
    post, operation_id = "picture_from_picture", path = "/api/pictures/{id}/made", tag = "pictures",
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)), request_body = MadeFromDoc,
    responses(
        (status = 201, body = PictureView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn made(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    _in_hand: InHand,
    Id(id): Id,
    Body(asked): Body<MadeFromDoc>,
) -> Result<Answer, Failure> {
    check(&asked)?;
    let from = pictures::find(&app.pool, maker.team(), id)
        .await?
        .ok_or(Failure::Missing("picture"))?;
    let bytes = original(&app, maker.team(), id).await?;
    let work = move |_: &_| {
        let mut pixels = metrosk_vision::decode(&bytes)
            .map_err(|e| e.to_string())?
            .pixels;
        if let Some(page) = asked.upright {
            let corners = find_page(&pixels, page[2] as u32);
            let size = (page[0], page[1]);
            pixels = straightened(&pixels, &corners, size, 1, SIDE).map_err(|e| e.to_string())?;
        }
        for place in &asked.blur {
            blur(&mut pixels, *place);
        }
        if let Some(frame) = asked.frame {
            let [x, y, w, h] = in_pixels(frame, &pixels);
            pixels = imageops::crop_imm(&pixels, x, y, w.max(LEAST), h.max(LEAST)).to_image();
        }
        let encoded = jpeg(&pixels, QUALITY).map_err(|e| e.to_string())?;
        prepared(&encoded).map_err(|e| e.to_string())
    };
    let made = app.compute.run(maker.team(), Work::Picture, work).await?;
    let ready = made.map_err(|e| Invalid::one("", e, "a page that shows in the picture"))?;
    let mut write = begin!(once, &app, &maker, "make a picture out of another");
    let new = NewPicture {
        id: Uuid::new_v4(),
        name: from.name,
        made_by: maker.name(),
        is_photo: false,
    };
    let row = keep(&app, write.db(), maker.team(), new, ready).await?;
    pictures::mark_as_paper(write.db(), maker.team(), row.id).await?;
    write.finish(StatusCode::CREATED, &super::view(&row)).await
}

fn check(asked: &MadeFromDoc) -> Result<(), Invalid> {
    let is_within = |[x, y, w, h]: &[f64; 4]| {
        let all = [*x, *y, *w, *h];
        all.iter().all(|v| v.is_finite())
            && *x >= 0.0
            && *y >= 0.0
            && *w > 0.0
            && *h > 0.0
            && x + w <= 1.0 + 1e-6
            && y + h <= 1.0 + 1e-6
    };
    let allowed = "left, top, width and height as shares of the picture, within it";
    let places = asked.blur.iter().map(|b| ("blur", b));
    let frame = asked.frame.iter().map(|f| ("frame", f));
    if let Some((path, found)) = places.chain(frame).find(|(_, place)| !is_within(place)) {
        return Err(Invalid::one(path, format!("{found:?}"), allowed));
    }
    if asked.blur.len() > MOST_BLURRED {
        let found = format!("{} places", asked.blur.len());
        return Err(Invalid::one("blur", found, format!("up to {MOST_BLURRED}")));
    }
    if let Some([w, h, pages]) = asked.upright
        && !([1.0, 2.0].contains(&pages)
            && w.is_finite()
            && h.is_finite()
            && w > 0.0
            && h > 0.0
            && (0.1..=10.0).contains(&(w / h)))
    {
        let found = format!("{w} by {h}, {pages} pages");
        let allowed = "the width and height of one page or of a spread, and 1 or 2";
        return Err(Invalid::one("upright", found, allowed));
    }
    Ok(())
}

fn in_pixels([x, y, w, h]: [f64; 4], pixels: &RgbImage) -> [u32; 4] {
    let of = |share: f64, side: u32| (share * f64::from(side)).round() as u32;
    let (x, y) = (of(x, pixels.width()), of(y, pixels.height()));
    [x, y, of(w, pixels.width()), of(h, pixels.height())]
}

/// Makes a place so coarse that nothing can be told any more, and soft, so that it does not jar. What was there can't be brought back: it is
/// averaged away before it is softened.
fn blur(pixels: &mut RgbImage, place: [f64; 4]) {
    let [x, y, w, h] = in_pixels(place, pixels);
    let (w, h) = (w.min(pixels.width() - x), h.min(pixels.height() - y));
    if w == 0 || h == 0 {
        return;
    }
    let part = imageops::crop_imm(pixels, x, y, w, h).to_image();
    let down = (SQUARES * h).div_ceil(w).clamp(1, h);
    let coarse = imageops::resize(&part, SQUARES.min(w), down, imageops::FilterType::Triangle);
    let soft = imageops::resize(&coarse, w, h, imageops::FilterType::CatmullRom);
    imageops::replace(pixels, &soft, i64::from(x), i64::from(y));
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::Rgb;

    #[test]
    fn what_is_blurred_is_gone_and_what_lies_beside_it_stays() {
        let is_dark = |x: u32, y: u32| (x / 2 + y / 2).is_multiple_of(2);
        let mut pixels = RgbImage::from_fn(120, 80, |x, y| {
            if is_dark(x, y) {
                Rgb([0, 0, 0])
            } else {
                Rgb([255, 255, 255])
            }
        });
        let before = pixels.clone();
        blur(&mut pixels, [0.5, 0.0, 0.5, 1.0]);
        let range = |from: u32, to: u32| {
            let all = (from..to).flat_map(|x| (0..80).map(move |y| (x, y)));
            let values: Vec<u8> = all.map(|(x, y)| pixels.get_pixel(x, y)[0]).collect();
            values.iter().max().map_or(0, |v| *v) - values.iter().min().map_or(0, |v| *v)
        };
        assert_eq!(range(0, 60), 255);
        assert!(range(62, 118) < 60, "{}", range(62, 118));
        assert_eq!(pixels.get_pixel(10, 10), before.get_pixel(10, 10));
    }
}
