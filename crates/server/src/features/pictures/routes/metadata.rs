//! A picture's own bytes without what its camera and programs noted: segment by segment, the pixels as they were encoded.

use img_parts::Bytes;
use img_parts::jpeg::{Jpeg, JpegSegment, markers};
use img_parts::png::Png;
use img_parts::webp::WebP;

/// The chunks of a PNG that tell how its pixels look; all others are notes.
const PNG_KEPT: [&[u8; 4]; 15] = [
    b"IHDR", b"PLTE", b"IDAT", b"IEND", b"tRNS", b"cHRM", b"gAMA", b"iCCP", b"sBIT", b"sRGB",
    b"cICP", b"pHYs", b"bKGD", b"mDCV", b"cLLI",
];
/// The chunks of a WebP that tell how its pixels look.
const WEBP_KEPT: [&[u8; 4]; 6] = [b"VP8 ", b"VP8L", b"VP8X", b"ALPH", b"ICCP", b"ANIM"];
/// How an ICC profile's segment begins in a JPEG.
const ICC: &[u8] = b"ICC_PROFILE\0";
/// How a JPEG's note begins that says how its colours are stored.
const ADOBE: &[u8] = b"Adobe\0";
/// In the flags of a VP8X chunk: there is Exif, there is XMP.
const WEBP_NOTES: u8 = 0b0000_1100;

/// The picture's bytes without metadata, and their media type. A turn that the camera noted is kept: `orientation` as Exif numbers it,
/// 1 for upright.
///
/// # Errors
/// When the bytes have not the structure of their format.
pub(super) fn without_metadata(
    bytes: &[u8],
    format: &str,
    orientation: u8,
) -> Result<(Vec<u8>, &'static str), String> {
    let bytes = Bytes::copy_from_slice(bytes);
    let told = |e: img_parts::Error| e.to_string();
    match format {
        "jpeg" => Ok((
            jpeg(Jpeg::from_bytes(bytes).map_err(told)?, orientation),
            "image/jpeg",
        )),
        "png" => Ok((
            png(Png::from_bytes(bytes).map_err(told)?, orientation),
            "image/png",
        )),
        _ => Ok((
            webp(WebP::from_bytes(bytes).map_err(told)?, orientation),
            "image/webp",
        )),
    }
}

fn jpeg(mut picture: Jpeg, orientation: u8) -> Vec<u8> {
    picture
        .segments_mut()
        .retain(|segment| match segment.marker() {
            markers::APP2 => segment.contents().starts_with(ICC),
            markers::APP14 => segment.contents().starts_with(ADOBE),
            markers::APP1 | markers::APP3..=markers::APP13 | markers::APP15 | markers::COM => false,
            _ => true,
        });
    if orientation != 1 {
        let note = Bytes::from([b"Exif\0\0".as_slice(), &exif(orientation)].concat());
        picture
            .segments_mut()
            .insert(0, JpegSegment::new_with_contents(markers::APP1, note));
    }
    let mut written = picture.encoder().bytes().to_vec();
    // Behind the picture's end a phone hides whole further pictures, with notes of their own.
    if let Some(end) = end_of_jpeg(&written) {
        written.truncate(end);
    }
    written
}

/// Where a JPEG ends: behind the first end marker that follows its pixels.
fn end_of_jpeg(bytes: &[u8]) -> Option<usize> {
    let mut at = 2;
    // Segments tell their length, until the pixels begin.
    while bytes.get(at) == Some(&0xFF) {
        let marker = *bytes.get(at + 1)?;
        if marker == markers::EOI {
            return Some(at + 2);
        }
        let length = usize::from(u16::from_be_bytes([
            *bytes.get(at + 2)?,
            *bytes.get(at + 3)?,
        ]));
        at += 2 + length;
        if marker == markers::SOS {
            // Within the pixels a marker's first byte stands alone only before a marker.
            while !matches!(bytes.get(at..at + 2)?, [0xFF, next] if *next != 0 && !(0xD0..=0xD7).contains(next))
            {
                at += 1;
            }
        }
    }
    None
}

fn png(mut picture: Png, orientation: u8) -> Vec<u8> {
    picture
        .chunks_mut()
        .retain(|chunk| PNG_KEPT.contains(&&chunk.kind()));
    if orientation != 1 {
        let chunk = img_parts::png::PngChunk::new(*b"eXIf", Bytes::from(exif(orientation)));
        let before_pixels = picture
            .chunks()
            .iter()
            .position(|c| &c.kind() == b"IDAT")
            .unwrap_or(1);
        picture.chunks_mut().insert(before_pixels, chunk);
    }
    picture.encoder().bytes().to_vec()
}

fn webp(mut picture: WebP, orientation: u8) -> Vec<u8> {
    use img_parts::riff::{RiffChunk, RiffContent};
    picture
        .chunks_mut()
        .retain(|chunk| WEBP_KEPT.contains(&&chunk.id()));
    for chunk in picture
        .chunks_mut()
        .iter_mut()
        .filter(|c| &c.id() == b"VP8X")
    {
        if let Some(data) = chunk.content().data() {
            let mut flags = data.to_vec();
            if let Some(first) = flags.first_mut() {
                *first &= !WEBP_NOTES;
                if orientation != 1 {
                    *first |= 0b0000_1000;
                }
            }
            *chunk = RiffChunk::new(*b"VP8X", RiffContent::Data(Bytes::from(flags)));
        }
    }
    // Only an extended WebP has a place for a turn; a plain one has no Exif to take it from.
    if orientation != 1 && picture.chunks().iter().any(|c| &c.id() == b"VP8X") {
        picture.chunks_mut().push(RiffChunk::new(
            *b"EXIF",
            RiffContent::Data(Bytes::from(exif(orientation))),
        ));
    }
    picture.encoder().bytes().to_vec()
}

/// Exif that says nothing but how the picture is turned: one directory with one entry (tag 0x0112, one short), little-endian.
fn exif(orientation: u8) -> Vec<u8> {
    let mut told = b"II\x2a\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0".to_vec();
    told.extend([orientation, 0, 0, 0]);
    told.extend([0; 4]);
    told
}

#[cfg(test)]
mod tests {
    use super::*;
    use metrosk_vision::{decode, jpeg as encoded};

    /// A picture that is darker to the right, 160 by 120.
    fn pixels() -> Vec<u8> {
        let mut bytes = Vec::new();
        for y in 0..120_u32 {
            for x in 0..160_u32 {
                bytes.extend([x as u8, y as u8, 90]);
            }
        }
        bytes
    }

    fn png_of(pixels: &[u8]) -> Vec<u8> {
        let mut out = Vec::new();
        let encoder = image::codecs::png::PngEncoder::new(&mut out);
        image::ImageEncoder::write_image(encoder, pixels, 160, 120, image::ExtendedColorType::Rgb8)
            .unwrap();
        out
    }

    fn webp_of(pixels: &[u8]) -> Vec<u8> {
        let mut out = Vec::new();
        image::codecs::webp::WebPEncoder::new_lossless(&mut out)
            .encode(pixels, 160, 120, image::ExtendedColorType::Rgb8)
            .unwrap();
        out
    }

    fn plain_jpeg() -> Vec<u8> {
        encoded(&image::RgbImage::from_raw(160, 120, pixels()).unwrap(), 90).unwrap()
    }

    const SECRET: &[u8] = b"53.55 north, somewhere";

    #[test]
    fn a_jpegs_notes_go_and_its_pixels_and_turn_stay() {
        let mut noted = Jpeg::from_bytes(Bytes::from(plain_jpeg())).unwrap();
        let exif_note = [b"Exif\0\0".as_slice(), &exif(6), SECRET].concat();
        for (marker, note) in [
            (markers::APP1, exif_note.as_slice()),
            (markers::COM, SECRET),
            (markers::APP13, SECRET),
            (markers::APP2, SECRET),
        ] {
            noted.segments_mut().insert(
                0,
                JpegSegment::new_with_contents(marker, Bytes::copy_from_slice(note)),
            );
        }
        let mut given = noted.encoder().bytes().to_vec();
        given.extend(SECRET);
        let told = decode(&given).unwrap();
        assert_eq!(
            (told.pixels.dimensions(), told.orientation),
            ((120, 160), 6)
        );
        let (kept, media_type) = without_metadata(&given, "jpeg", told.orientation).unwrap();
        assert_eq!(media_type, "image/jpeg");
        assert!(!kept.windows(SECRET.len()).any(|w| w == SECRET));
        let again = decode(&kept).unwrap();
        assert_eq!(
            again.pixels, told.pixels,
            "not a pixel is encoded anew, and it stands upright"
        );
        assert!(kept.len() < given.len());
    }

    #[test]
    fn a_png_and_a_webp_lose_their_notes_and_nothing_else() {
        let mut noted = Png::from_bytes(Bytes::from(png_of(&pixels()))).unwrap();
        for kind in [b"tEXt", b"eXIf", b"tIME", b"iTXt"] {
            noted.chunks_mut().insert(
                1,
                img_parts::png::PngChunk::new(*kind, Bytes::from_static(SECRET)),
            );
        }
        let given = noted.encoder().bytes().to_vec();
        let (kept, _) = without_metadata(&given, "png", 1).unwrap();
        assert!(!kept.windows(SECRET.len()).any(|w| w == SECRET));
        assert_eq!(kept, png_of(&pixels()), "byte for byte as it was before");
        let webp = webp_of(&pixels());
        let (kept, media_type) = without_metadata(&webp, "webp", 1).unwrap();
        assert_eq!(
            (kept.as_slice(), media_type),
            (webp.as_slice(), "image/webp")
        );
        let (turned, _) = without_metadata(&png_of(&pixels()), "png", 3).unwrap();
        assert_eq!(decode(&turned).unwrap().orientation, 3);
    }

    #[test]
    fn what_is_broken_is_told() {
        assert!(without_metadata(b"\xff\xd8 and no more", "jpeg", 1).is_err());
        assert!(without_metadata(b"no picture", "png", 1).is_err());
        assert_eq!(end_of_jpeg(&[0xFF, 0xD8, 0xFF]), None);
    }
}
