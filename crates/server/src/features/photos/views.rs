//! What is asked about a page's prints and answered, as shapes.

use crate::documents::plans::PhotosSectionDoc;
use crate::documents::sketches::{BoxDoc, LayoutDoc, SizeDoc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A plan's section about photos, and the layout on which they lie.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlacedPhotosAskedDoc {
    /// `in` or `mm`
    pub(crate) unit: String,
    /// How many photos the sketch draws.
    pub(crate) drawn: u32,
    /// What was decided about photos.
    pub(crate) photos: PhotosSectionDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
}

/// What became of the prints.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlacedPhotosDoc {
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Prints that have a place.
    pub(crate) placed: Vec<PlacedPhotoDoc>,
    /// Prints that lie aside, by their ids.
    pub(crate) aside: Vec<String>,
    /// How many photos the sketch draws.
    pub(crate) drawn: u32,
    /// Why they lie so; prints and blocks by their ids.
    pub(crate) reasons: Vec<String>,
    /// The thickest spot.
    pub(crate) thickness: ThicknessDoc,
}

/// A print in its place.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlacedPhotoDoc {
    /// The print.
    pub(crate) print: String,
    /// Its layout block.
    pub(crate) block: String,
    /// The sketch's photo block.
    pub(crate) of: String,
    /// Which of that block's prints it is, from 0.
    pub(crate) part: u32,
    /// 0, or 1 for the right page.
    pub(crate) page: u8,
    /// The size of what shows.
    pub(crate) slot: SizeDoc,
    /// How large it is printed.
    pub(crate) size: SizeDoc,
    /// What shows, on the print.
    pub(crate) window: BoxDoc,
    /// How a print on paper is trimmed to that.
    pub(crate) trims: Vec<TrimDoc>,
    /// The same as a sentence.
    pub(crate) told: Option<String>,
    /// Areas to keep that are cut.
    pub(crate) cut: Vec<CutAreaDoc>,
    /// Areas to hide.
    pub(crate) covered: Vec<CoveredDoc>,
    /// Of a picture: its dots an inch.
    pub(crate) dots: Option<f64>,
    /// Of a picture: `good`, `fair` or `coarse`.
    pub(crate) quality: Option<String>,
    /// Of a picture: the largest size at which it is good.
    pub(crate) largest_good: Option<SizeDoc>,
    /// From the photo outwards.
    pub(crate) layers: Vec<PlacedLayerDoc>,
    /// `flat`, `card`, `thin-foam` or `thick-foam`
    pub(crate) lift: String,
}

/// A cut off a print.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TrimDoc {
    /// `left`, `right`, `top` or `bottom`
    pub(crate) side: String,
    /// How much comes off.
    pub(crate) off: f64,
}

/// An area to keep that is cut, and what would hold all of them.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CutAreaDoc {
    /// Its place in the print's list.
    pub(crate) area: u32,
    /// The smallest slot that would.
    pub(crate) slot: SizeDoc,
    /// The largest print of the same shape that would, in this slot.
    pub(crate) print: Option<SizeDoc>,
}

/// An area to hide.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CoveredDoc {
    /// Its place in the print's list.
    pub(crate) area: u32,
    /// The layout block that lies over it.
    pub(crate) by: Option<String>,
    /// Whether it is trimmed off.
    pub(crate) trimmed: bool,
}

/// A layer behind a photo on the page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlacedLayerDoc {
    /// Its layout block.
    pub(crate) block: String,
    /// Its size.
    pub(crate) size: SizeDoc,
    /// How far it shows: left, top, right, bottom.
    pub(crate) borders: [f64; 4],
    /// `cut`, `torn` or `roughened`
    pub(crate) edge: String,
    /// How many photos lie on it.
    pub(crate) around: u32,
    /// What lies under it: `flat`, `card`, `thin-foam` or `thick-foam`
    pub(crate) lift: String,
}

/// The thickest spot of a page, or of a spread that is closed.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ThicknessDoc {
    /// How thick.
    pub(crate) thick: f64,
    /// How thick it may be.
    pub(crate) room: f64,
    /// The sketch blocks that lie there.
    pub(crate) of: Vec<String>,
    /// Where it is too thick: what to take down.
    pub(crate) take_down: Vec<TakeDownDoc>,
}

/// A photo to take down.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TakeDownDoc {
    /// The sketch's photo block.
    pub(crate) of: String,
    /// The lift that would do.
    pub(crate) by: String,
}

/// Prints as a maker says them.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub(crate) struct PrintsInWords {
    /// `three 4x6 level, one 5x7 upright`
    pub(crate) text: String,
    /// `in` or `mm`: the unit of sizes that name none, and of the answer.
    pub(crate) unit: String,
}

/// A print of a list.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct ListedPrint {
    /// Its width.
    pub(crate) w: f64,
    /// Its height.
    pub(crate) h: f64,
}
