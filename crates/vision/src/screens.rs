//! Photos in the sizes that screens ask for: resized well and fast, and as WebP.

use fast_image_resize::images::{Image, ImageRef};
use fast_image_resize::{FilterType, PixelType, ResizeAlg, ResizeOptions, Resizer};
use image::RgbImage;

/// The picture no larger than `most` pixels a side, by a cubic filter over all the pixels that each of the new ones stands for.
#[must_use]
pub fn resized(pixels: &RgbImage, most: u32) -> RgbImage {
    let long = pixels.width().max(pixels.height());
    if long <= most {
        return pixels.clone();
    }
    let scale = f64::from(most) / f64::from(long);
    let side = |v: u32| ((f64::from(v) * scale).round() as u32).max(1);
    let (w, h) = (side(pixels.width()), side(pixels.height()));
    let cubic = ResizeOptions::new().resize_alg(ResizeAlg::Convolution(FilterType::CatmullRom));
    let source = ImageRef::new(
        pixels.width(),
        pixels.height(),
        pixels.as_raw(),
        PixelType::U8x3,
    );
    let mut small = Image::new(w, h, PixelType::U8x3);
    let done = source
        .ok()
        .and_then(|source| Resizer::new().resize(&source, &mut small, &cubic).ok());
    let made = done.and_then(|()| RgbImage::from_raw(w, h, small.into_vec()));
    made.unwrap_or_else(|| image::imageops::thumbnail(pixels, w, h))
}

/// A WebP of the pixels, with losses that nobody sees on a screen: quality from 0 to 100.
#[must_use]
pub fn webp(pixels: &RgbImage, quality: f32) -> Vec<u8> {
    let encoder = webp::Encoder::from_rgb(pixels.as_raw(), pixels.width(), pixels.height());
    encoder.encode(quality).to_vec()
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::Rgb;

    #[test]
    fn a_photo_gets_smaller_and_stays_what_it_is() {
        let photo = RgbImage::from_fn(1200, 800, |x, y| Rgb([(x / 5) as u8, (y / 4) as u8, 90]));
        let small = resized(&photo, 300);
        assert_eq!(small.dimensions(), (300, 200));
        let [r, g, b] = small.get_pixel(150, 100).0;
        assert!(
            r.abs_diff(120) < 4 && g.abs_diff(100) < 4 && b.abs_diff(90) < 3,
            "{r} {g} {b}"
        );
        assert_eq!(resized(&small, 300), small);
        let bytes = webp(&small, 80.0);
        assert!(bytes.len() < 20_000, "{} bytes", bytes.len());
        let again = crate::decode(&bytes).expect("a WebP picture").pixels;
        let [r, g, ..] = again.get_pixel(150, 100).0;
        assert!(r.abs_diff(120) < 8 && g.abs_diff(100) < 8, "{r} {g}");
    }
}
