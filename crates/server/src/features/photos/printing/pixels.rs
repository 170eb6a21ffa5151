//! What is printed, as pixels: 300 an inch.

use super::{Sheet, SheetPhoto};
use image::imageops::{self, FilterType};
use image::{Rgb, RgbImage};
use metrosk_core::length::Unit;
use uuid::Uuid;

/// Dots an inch.
pub(crate) const DOTS: f64 = 300.0;
const WHITE: Rgb<u8> = Rgb([255, 255, 255]);
const INK: Rgb<u8> = Rgb([23, 38, 59]);

/// Ticks in dots.
pub(super) fn dots(ticks: i64) -> u32 {
    (ticks as f64 / Unit::Inch.ticks() as f64 * DOTS)
        .round()
        .max(0.0) as u32
}

/// A sheet of photos with its cutting marks. Pictures are asked for one after the other, so that no two lie in memory at once.
///
/// # Errors
/// What went wrong with a picture.
pub(super) fn sheet_pixels(
    sheet: &Sheet,
    mut picture_of: impl FnMut(Uuid) -> Result<RgbImage, String>,
) -> Result<RgbImage, String> {
    let mut paper = RgbImage::from_pixel(dots(sheet.size.w), dots(sheet.size.h), WHITE);
    for photo in &sheet.photos {
        let picture = picture_of(photo.picture)?;
        let (printed, [x, y, ..]) = (photo_pixels(photo, &picture), photo.rect.map(dots));
        imageops::replace(&mut paper, &printed, i64::from(x), i64::from(y));
    }
    for photo in &sheet.photos {
        marks(&mut paper, photo, sheet.bleed);
    }
    Ok(paper)
}

/// A photo as it lies on its sheet: what shows of its picture, with its bleed. Where the bleed reaches beyond the picture its edge goes on.
pub(super) fn photo_pixels(photo: &SheetPhoto, picture: &RgbImage) -> RgbImage {
    let upright = match photo.quarters {
        90 => imageops::rotate90(picture),
        180 => imageops::rotate180(picture),
        270 => imageops::rotate270(picture),
        _ => picture.clone(),
    };
    let [_, _, w, h] = photo.rect.map(dots);
    let (w, h) = if photo.turned { (h, w) } else { (w, h) };
    let (w, h) = (w.max(1), h.max(1));
    let [x, y, sw, sh] = photo.shows;
    let side = |at: f64, share: f64, pixels: u32, dots: u32| {
        let (full, dots) = (f64::from(pixels), f64::from(dots));
        let from = (at.max(0.0) * full).floor().min(full - 1.0);
        let to = ((at + share).min(1.0) * full).ceil().max(from + 1.0);
        // Where these pixels lie among the dots.
        let first = ((from / full - at) / share * dots).round().max(0.0);
        let last = ((to / full - at) / share * dots).round().min(dots);
        (
            from as u32,
            (to - from) as u32,
            first as u32,
            (last - first).max(1.0) as u32,
        )
    };
    let (px, pw, dx, dw) = side(x, sw, upright.width(), w);
    let (py, ph, dy, dh) = side(y, sh, upright.height(), h);
    let shown = imageops::crop_imm(&upright, px, py, pw, ph).to_image();
    let filter = if pw > dw {
        FilterType::Triangle
    } else {
        FilterType::CatmullRom
    };
    let shown = imageops::resize(&shown, dw, dh, filter);
    let printed = RgbImage::from_fn(w, h, |x, y| {
        let at = |dot: u32, first: u32, count: u32| dot.saturating_sub(first).min(count - 1);
        *shown.get_pixel(at(x, dx, dw), at(y, dy, dh))
    });
    if photo.turned {
        imageops::rotate90(&printed)
    } else {
        printed
    }
}

/// Short lines at the corners of what is cut.
fn marks(paper: &mut RgbImage, photo: &SheetPhoto, bleed: i64) {
    let [x, y, w, h] = photo.rect;
    let (l, t, r, b) = (x + bleed, y + bleed, x + w - bleed, y + h - bleed);
    let (off, long) = (dots(Unit::Inch.ticks() / 32), dots(Unit::Inch.ticks() / 8));
    let mut dot = |x: i64, y: i64| {
        if let (Ok(x), Ok(y)) = (u32::try_from(x), u32::try_from(y))
            && let Some(pixel) = paper.get_pixel_mut_checked(x, y)
        {
            *pixel = INK;
        }
    };
    for (x, out) in [(l, -1), (r, 1)] {
        for (y, down) in [(t, -1), (b, 1)] {
            let (x, y) = (i64::from(dots(x)), i64::from(dots(y)));
            for along in i64::from(off)..i64::from(off + long) {
                dot(x + out * along, y);
                dot(x, y + down * along);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Red on the left half, blue on the right, 600 by 400.
    fn halves() -> RgbImage {
        RgbImage::from_fn(600, 400, |x, _| {
            if x < 300 {
                Rgb([200, 0, 0])
            } else {
                Rgb([0, 0, 200])
            }
        })
    }

    fn inch(n: i64) -> i64 {
        Unit::Inch.ticks() * n
    }

    fn photo(shows: [f64; 4], turned: bool) -> SheetPhoto {
        SheetPhoto {
            print: "1".to_owned(),
            picture: Uuid::nil(),
            quarters: 0,
            rect: [inch(1), inch(1), inch(2), inch(1)],
            turned,
            shows,
            dots: 300.0,
        }
    }

    #[test]
    fn what_shows_is_printed_at_three_hundred_dots_an_inch() {
        let printed = photo_pixels(&photo([0.0, 0.0, 1.0, 1.0], false), &halves());
        assert_eq!(printed.dimensions(), (600, 300));
        assert_eq!(
            (
                printed.get_pixel(10, 10).0[0],
                printed.get_pixel(590, 10).0[2]
            ),
            (200, 200)
        );
        // The right half alone.
        let right = photo_pixels(&photo([0.5, 0.0, 0.5, 1.0], false), &halves());
        assert!(right.pixels().all(|p| p.0[0] == 0));
    }

    #[test]
    fn beyond_the_pictures_edge_its_edge_goes_on() {
        let printed = photo_pixels(&photo([-0.1, -0.1, 1.2, 1.2], false), &halves());
        assert_eq!(printed.get_pixel(0, 0).0, [200, 0, 0]);
        assert_eq!(printed.get_pixel(599, 299).0, [0, 0, 200]);
    }

    #[test]
    fn a_photo_on_its_side_is_turned_with_its_place() {
        let printed = photo_pixels(&photo([0.0, 0.0, 1.0, 1.0], true), &halves());
        assert_eq!(printed.dimensions(), (600, 300));
        // Turned clockwise, its left half is on top.
        assert_eq!(printed.get_pixel(300, 10).0, [200, 0, 0]);
        assert_eq!(printed.get_pixel(300, 290).0, [0, 0, 200]);
    }

    #[test]
    fn a_sheet_has_its_photos_in_place_and_marks_where_they_are_cut() {
        let sheet = Sheet {
            size: super::super::TickSize {
                w: inch(4),
                h: inch(6),
            },
            margin: 0,
            bleed: inch(1) / 16,
            photos: vec![photo([0.0, 0.0, 1.0, 1.0], false)],
        };
        let pixels = sheet_pixels(&sheet, |_| Ok(halves())).expect("its picture is there");
        assert_eq!(
            sheet_pixels(&sheet, |_| Err("gone".to_owned())),
            Err("gone".to_owned())
        );
        assert_eq!(pixels.dimensions(), (1200, 1800));
        assert_eq!(pixels.get_pixel(350, 450).0, [200, 0, 0]);
        assert_eq!(*pixels.get_pixel(100, 100), WHITE);
        assert!(pixels.pixels().filter(|p| **p == INK).count() > 100);
    }
}
