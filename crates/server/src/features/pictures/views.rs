//! Pictures, what is read in them and lifted from them.

use crate::documents::sketches::SketchDoc;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// What was read in a picture.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct PictureReading {
    /// The sketch, each block with how sure it is. It lies in no drawer yet.
    #[schema(value_type = SketchDoc)]
    pub(crate) sketch: Value,
    /// The picture's width and height in pixels, turned upright.
    pub(crate) size: [u32; 2],
    /// Where the page lies in it, in its pixels: one list of corners, clockwise from the top left, or one a page drawn apart.
    pub(crate) corners: Vec<Vec<[f64; 2]>>,
    /// The page or spread brought upright, for laying what was read over it.
    pub(crate) lift: Uuid,
    /// Sizes of paper, in inches, with the page's proportions, where the size that was said has others; the likeliest first.
    pub(crate) looks_like: Vec<PageSize>,
    /// Sizes that are written in photos' places.
    pub(crate) written: Vec<WrittenSize>,
}

/// A size that is written in a photo's place.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct WrittenSize {
    /// The block's id.
    pub(crate) block: String,
    /// Its width in inches.
    pub(crate) w: u32,
    /// Its height in inches.
    pub(crate) h: u32,
}

/// A page's size, in inches.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct PageSize {
    /// Its width.
    pub(crate) w: f64,
    /// Its height.
    pub(crate) h: f64,
}

/// How a picture is made out of another; places are left, top, width and height as shares of it.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct MadeFromDoc {
    /// The page or spread in it is brought upright: its width, its height, how many pages.
    #[serde(default)]
    pub(crate) upright: Option<[f64; 3]>,
    /// What nobody is to recognise.
    #[serde(default)]
    pub(crate) blur: Vec<[f64; 4]>,
    /// The part that is kept.
    #[serde(default)]
    pub(crate) frame: Option<[f64; 4]>,
}

/// A picture that was put in.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PictureView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// Width and height in pixels, upright.
    pub(crate) size: [u32; 2],
    /// When it was put in.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
    /// It was there already: the same file had been put in before.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub(crate) known: bool,
}

/// What may be put in.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct LimitsView {
    /// What a team's files may take up, in bytes.
    pub(crate) team_bytes: u64,
    /// What her team's take up.
    pub(crate) team_bytes_used: u64,
    /// The largest picture or archive, in bytes.
    pub(crate) file_bytes: u64,
    /// The largest document, in bytes.
    pub(crate) document_bytes: u64,
    /// The most pixels of a picture.
    pub(crate) picture_pixels: u64,
    /// The fewest pixels of a picture's shorter side.
    pub(crate) picture_side: u32,
    /// The formats that pictures are read from.
    pub(crate) picture_types: Vec<String>,
}

/// A finished page brought upright. It stays as it is when its picture is lifted again.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct LiftView {
    /// Its id.
    pub(crate) id: Uuid,
    /// The picture that it was lifted from.
    pub(crate) picture: Uuid,
    /// Where the page lies in the picture, in its pixels: four corners, clockwise from the top left.
    pub(crate) corners: Vec<[f64; 2]>,
    /// The picture's width and height in pixels.
    pub(crate) size: [u32; 2],
    /// The page's main colours, the largest first.
    pub(crate) swatches: Vec<SwatchView>,
}

/// A colour of a page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SwatchView {
    /// As `#rrggbb`.
    pub(crate) colour: String,
    /// Its share of the page, 0 to 1.
    pub(crate) share: f64,
}

/// The sides of a block laid over a page, as shares of the page (of both pages, on a spread).
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub(crate) struct EdgesDoc {
    /// Left, top, right, bottom.
    pub(crate) sides: [f64; 4],
}

/// The sides, moved onto edges where there are some near.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct EdgesView {
    /// Left, top, right, bottom.
    pub(crate) sides: [f64; 4],
}
