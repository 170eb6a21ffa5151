//! Pictures as they come: checked before they are decoded, decoded within limits, turned upright.

use image::{ColorType, DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits, RgbImage};
use moxcms::{ColorProfile, DataColorSpace, Layout, TransformOptions};
use std::io::Cursor;

/// The most pixels that a picture may have: more than any phone's.
pub const MOST_PIXELS: u64 = 60_000_000;
/// The most bytes that a picture may have.
pub const MOST_BYTES: usize = 24 * 1024 * 1024;
/// The fewest pixels of a side: in less nothing can be read.
pub const FEWEST_PIXELS: u32 = 120;
/// The most memory that decoding may take, with the pixels that come of it: 60 million pixels of 8 bits in three colours, twice.
const MOST_MEMORY: u64 = 2 * 3 * MOST_PIXELS;

/// Why a picture can't be used.
#[derive(Debug, thiserror::Error)]
pub enum Unreadable {
    /// Not one of the three formats, whatever its name says.
    #[error("this is not a picture that can be read; allowed are PNG, JPEG and WebP")]
    NotAPicture,
    /// One of the formats, but broken.
    #[error("the {0} picture is broken: {1}")]
    Broken(&'static str, String),
    /// Too many bytes.
    #[error("the picture has {0} bytes; allowed are up to {MOST_BYTES}")]
    TooLong(usize),
    /// Too many pixels.
    #[error("the picture has {0} x {1} pixels; allowed are up to {MOST_PIXELS} in all")]
    TooLarge(u32, u32),
    /// Too many bits a pixel for its size.
    #[error(
        "the picture has {0} x {1} pixels of {2} bits each; allowed are up to {3} of these in all"
    )]
    TooDeep(u32, u32, u64, u64),
    /// Too few pixels to read anything in.
    #[error("the picture has {0} x {1} pixels; at least {FEWEST_PIXELS} a side are needed")]
    TooSmall(u32, u32),
    /// Nothing drawn was found.
    #[error("no blocks were found in the picture")]
    Nothing,
    /// The four corners given make no page.
    #[error(
        "the corners given make no page; they are its top left, top right, bottom right and bottom left, in the picture"
    )]
    Corners,
    /// It was stopped by whoever asked for it.
    #[error("reading was stopped")]
    Stopped,
}

/// A decoded picture, upright as its camera meant it. What else the file held (place, device, thumbnails) is not kept.
#[derive(Debug, Clone)]
pub struct Picture {
    /// The pixels.
    pub pixels: RgbImage,
    /// The format it came in: `png`, `jpeg` or `webp`.
    pub format: &'static str,
    /// How the camera said that it is turned, as Exif numbers it: 1 for upright. The pixels are upright already.
    pub orientation: u8,
}

fn format_of(bytes: &[u8]) -> Result<(ImageFormat, &'static str), Unreadable> {
    match image::guess_format(bytes) {
        Ok(ImageFormat::Png) => Ok((ImageFormat::Png, "png")),
        Ok(ImageFormat::Jpeg) => Ok((ImageFormat::Jpeg, "jpeg")),
        Ok(ImageFormat::WebP) => Ok((ImageFormat::WebP, "webp")),
        _ => Err(Unreadable::NotAPicture),
    }
}

/// Decodes a picture from its bytes; what it is, its own first bytes tell, not its name.
///
/// # Errors
/// When it is none, is broken, or is larger than allowed. Sizes are checked before any pixel is decoded.
pub fn decode(bytes: &[u8]) -> Result<Picture, Unreadable> {
    if bytes.len() > MOST_BYTES {
        return Err(Unreadable::TooLong(bytes.len()));
    }
    let (kind, format) = format_of(bytes)?;
    let broken = |e: image::ImageError| Unreadable::Broken(format, e.to_string());
    let mut reader = ImageReader::with_format(Cursor::new(bytes), kind);
    let mut limits = Limits::default();
    limits.max_image_width = Some(20_000);
    limits.max_image_height = Some(20_000);
    limits.max_alloc = Some(MOST_MEMORY);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(broken)?;
    let (w, h) = decoder.dimensions();
    if u64::from(w) * u64::from(h) > MOST_PIXELS {
        return Err(Unreadable::TooLarge(w, h));
    }
    if w.min(h) < FEWEST_PIXELS {
        return Err(Unreadable::TooSmall(w, h));
    }
    // The decoded pixels lie beside those of 8 bits that are made of them.
    let deep = u64::from(decoder.color_type().bytes_per_pixel());
    let clear = if decoder.color_type().has_alpha() {
        4
    } else {
        0
    };
    let each = if decoder.color_type() == ColorType::Rgb8 {
        3
    } else {
        deep + clear + 3
    };
    if each * u64::from(w) * u64::from(h) > MOST_MEMORY {
        return Err(Unreadable::TooDeep(w, h, deep * 8, MOST_MEMORY / each));
    }
    let turned = decoder.orientation().map_err(broken)?;
    // A profile that can't be had is none.
    let profile = decoder.icc_profile().ok().flatten();
    let mut picture = DynamicImage::from_decoder(decoder).map_err(broken)?;
    picture.apply_orientation(turned);
    Ok(Picture {
        pixels: in_srgb(on_white(picture), profile.as_deref()),
        format,
        orientation: turned.to_exif(),
    })
}

/// Colours of another profile as screens and printers take them. What is no profile of three colours changes nothing.
fn in_srgb(pixels: RgbImage, profile: Option<&[u8]>) -> RgbImage {
    let source = profile.and_then(|p| ColorProfile::new_from_slice(p).ok());
    let Some(source) = source.filter(|p| p.color_space == DataColorSpace::Rgb) else {
        return pixels;
    };
    let target = ColorProfile::new_srgb();
    let options = TransformOptions::default();
    let Ok(transform) = source.create_transform_8bit(Layout::Rgb, &target, Layout::Rgb, options)
    else {
        return pixels;
    };
    let mut converted = RgbImage::new(pixels.width(), pixels.height());
    match transform.transform(&pixels, &mut converted) {
        Ok(()) => converted,
        Err(_) => pixels,
    }
}

/// What can be seen through shows white paper.
fn on_white(picture: DynamicImage) -> RgbImage {
    if !picture.color().has_alpha() {
        return picture.into_rgb8();
    }
    let clear = picture.into_rgba8();
    RgbImage::from_fn(clear.width(), clear.height(), |x, y| {
        let p = clear.get_pixel(x, y);
        let over =
            |v: u8| ((u16::from(v) * u16::from(p[3]) + 255 * (255 - u16::from(p[3]))) / 255) as u8;
        image::Rgb([over(p[0]), over(p[1]), over(p[2])])
    })
}

/// The picture made no larger than `most` pixels a side.
#[must_use]
pub fn reduced(pixels: &RgbImage, most: u32) -> RgbImage {
    let long = pixels.width().max(pixels.height());
    if long <= most {
        return pixels.clone();
    }
    let scale = f64::from(most) / f64::from(long);
    let side = |v: u32| ((f64::from(v) * scale).round() as u32).max(1);
    image::imageops::thumbnail(pixels, side(pixels.width()), side(pixels.height()))
}

/// A JPEG of the pixels, without anything else in it.
///
/// # Errors
/// When the encoder fails.
pub fn jpeg(pixels: &RgbImage, quality: u8) -> Result<Vec<u8>, image::ImageError> {
    let mut out = Vec::new();
    image::codecs::jpeg::JpegEncoder::new_with_quality(&mut out, quality).encode_image(pixels)?;
    Ok(out)
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::ImageEncoder;
    use image::codecs::png::PngEncoder;

    fn png(profile: Option<Vec<u8>>) -> Vec<u8> {
        let pixels = RgbImage::from_pixel(160, 160, image::Rgb([90, 190, 90]));
        let mut bytes = Vec::new();
        let mut encoder = PngEncoder::new(&mut bytes);
        if let Some(profile) = profile {
            encoder
                .set_icc_profile(profile)
                .expect("PNG has room for one");
        }
        let kind = image::ExtendedColorType::Rgb8;
        encoder
            .write_image(&pixels, 160, 160, kind)
            .expect("it is encoded");
        bytes
    }

    #[test]
    fn colours_of_another_profile_are_converted() {
        let colour = |bytes: &[u8]| decode(bytes).expect("a picture").pixels.get_pixel(80, 80).0;
        assert_eq!(colour(&png(None)), [90, 190, 90]);
        let wide = ColorProfile::new_display_p3().encode().expect("a profile");
        let [r, g, _] = colour(&png(Some(wide)));
        // The wider profile's green is a stronger one: less red, more green.
        assert!(r < 80 && g > 190, "{r} {g}");
        // What is no profile changes nothing.
        assert_eq!(colour(&png(Some(b"no profile".to_vec()))), [90, 190, 90]);
    }
}
