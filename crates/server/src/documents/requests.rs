//! Fit requests, as shapes.

use crate::documents::sketches::{SizeDoc, SketchDoc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A fit request.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct FitDoc {
    /// `metrosk-fit/1`
    pub(crate) format: String,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// The sketch.
    pub(crate) sketch: SketchDoc,
    /// The page or spread.
    pub(crate) target: TargetDoc,
    /// So many, or these prints.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) photos: Option<PhotosDoc>,
    /// `trim` or `whole`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) photo_rule: Option<String>,
    /// The mats she chose; where she chose none, the sketch's own stay.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) mats: Option<Vec<MatChoiceDoc>>,
    /// `auto` or an approach.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) approach: Option<String>,
    /// 0, 90, 180 or 270.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) turn: Option<u32>,
    /// `none`, `across` or `down`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) flip: Option<String>,
    /// The ruler step.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) snap: Option<f64>,
    /// What is held.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) pins: Option<Vec<PinDoc>>,
    /// Kinds that may be cut at the fold.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) across_fold: Option<Vec<String>>,
    /// The keep-list: a block's id to `place`, `size`, `both` or `free`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) keep: Option<std::collections::BTreeMap<String, String>>,
    /// Readings of the sketch that are switched off or added.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) readings: Option<ReadingsDoc>,
    /// What she chose for single photo slots.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) slots: Option<Vec<SlotChoiceDoc>>,
    /// What becomes of single blocks that would stand on the fold.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) at_fold: Option<Vec<FoldChoiceDoc>>,
    /// Where leftover room goes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) slack: Option<SlackDoc>,
    /// `balance`, `positions` or `proportions`: what counts more on a page of another shape.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) emphasis: Option<String>,
}

/// A choice for one photo slot, or for several that become one.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SlotChoiceDoc {
    /// The photo blocks.
    pub(crate) photos: Vec<String>,
    /// `cells`, `focal`, `each`, `journal`, `paper` or `gone`
    #[serde(rename = "as")]
    pub(crate) way: String,
    /// Of cells: prints across.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) cols: Option<u32>,
    /// Of cells: prints down; 1 if left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) rows: Option<u32>,
    /// Of a focal print: how many small ones.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) small: Option<u32>,
    /// Of a focal print: the small ones `beside` or `below` it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) along: Option<String>,
}

/// What becomes of a block that would stand on the fold.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct FoldChoiceDoc {
    /// The sketch block.
    pub(crate) block: String,
    /// `left`, `right`, `each`, `pair` or `across`
    #[serde(rename = "as")]
    pub(crate) way: String,
    /// Of a title that runs across: its words, two or more. The fold comes between two of them.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) words: Option<String>,
}

/// Where leftover room goes.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub(crate) enum SlackDoc {
    /// `best`, `between`, `outside`, `ends` or `mats`
    Named(String),
    /// Into one gap.
    Gap {
        /// The two blocks beside it.
        gap: Vec<String>,
    },
}

/// Readings of the sketch that are not as they were found.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct ReadingsDoc {
    /// Not held to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) off: Option<Vec<LinkDoc>>,
    /// Added by the maker.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) on: Option<Vec<LinkDoc>>,
}

/// A reading between blocks.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LinkDoc {
    /// `line`, `equal`, `touch`, `gap`, `lies-on` or `mirrored`
    pub(crate) what: String,
    /// On a line which edges (`left`, `right`, `centre-x`, `top`, `bottom`, `centre-y`), on equal sizes `width` or `height`, on images
    /// `across` or `down`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) along: Option<String>,
    /// The blocks.
    pub(crate) blocks: Vec<String>,
}

/// So many photos, or these prints.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub(crate) enum PhotosDoc {
    /// So many, in the sketch's own shapes.
    Count {
        /// How many.
        count: u32,
    },
    /// These.
    Prints(Vec<PrintDoc>),
}

/// A print.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PrintDoc {
    /// Its id.
    pub(crate) id: String,
    /// Width.
    pub(crate) w: f64,
    /// Height.
    pub(crate) h: f64,
    /// The main photo.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) focal: Option<bool>,
    /// What must neither lie in the fold nor be trimmed away.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) faces: Option<Vec<FaceDoc>>,
    /// What an embellishment should hide.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) covers: Option<Vec<FaceDoc>>,
    /// The point that matters, in shares of the print.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) mark: Option<PointDoc>,
    /// What the maker calls it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) name: Option<String>,
    /// What she noted of it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) note: Option<String>,
    /// The picture it shows: its id.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) picture: Option<String>,
    /// By how much that picture is turned on it, clockwise: 0, 90, 180 or 270.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) turned: Option<u32>,
    /// The pixels of its picture, across and down.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) pixels: Option<Vec<u32>>,
    /// A file, which can be printed at any size.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) file: Option<bool>,
    /// It lies on the worktop without a place.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) aside: Option<bool>,
    /// The slot that it is locked to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) place: Option<PlaceOfPrintDoc>,
    /// Where she put the window.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) crop: Option<WindowDoc>,
}

/// A point on a print, in shares of its width and height.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PointDoc {
    /// From the left, 0 to 1.
    pub(crate) x: f64,
    /// From the top.
    pub(crate) y: f64,
}

/// A slot for a print.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlaceOfPrintDoc {
    /// The sketch's photo block.
    pub(crate) block: String,
    /// Which of the prints in that slot, from 0.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) part: Option<u32>,
}

/// Where a window begins on a print, in shares of the print.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WindowDoc {
    /// From the left.
    pub(crate) x: f64,
    /// From the top.
    pub(crate) y: f64,
    /// Of a file: how many times it is enlarged beyond what covers its slot.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) zoom: Option<f64>,
}

/// The layers behind one photo, several, or all.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct MatChoiceDoc {
    /// The sketch's photo blocks; all of them where it is left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) of: Option<Vec<String>>,
    /// From the photo outwards.
    pub(crate) layers: Vec<LayerDoc>,
    /// Where prints share a slot, each has layers of its own.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) each: Option<bool>,
}

/// A layer behind a photo.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LayerDoc {
    /// How far it shows around what lies on it; 1/8 in where it is left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) border: Option<f64>,
    /// Where it is another on the left.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) left: Option<f64>,
    /// Where it is another at the top.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) top: Option<f64>,
    /// Where it is another on the right.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) right: Option<f64>,
    /// Where it is another at the bottom.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) bottom: Option<f64>,
    /// How far it is set off to the right and down.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) off: Option<SetOffDoc>,
    /// `cut`, `torn` or `roughened`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) edge: Option<String>,
    /// What lies under it: `flat`, `card`, `thin-foam` or `thick-foam`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) lift: Option<String>,
}

/// How far a layer is set off.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SetOffDoc {
    /// To the right.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) x: Option<f64>,
    /// Down.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) y: Option<f64>,
}

/// What lifts one photo, several, or all.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LiftChoiceDoc {
    /// The sketch's photo blocks; all of them where it is left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) of: Option<Vec<String>>,
    /// `flat`, `card`, `thin-foam` or `thick-foam`
    pub(crate) by: String,
}

/// A face on a print, in shares of the print's width and height.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct FaceDoc {
    /// From the left, 0 to 1.
    pub(crate) x: f64,
    /// From the top.
    pub(crate) y: f64,
    /// Its width.
    pub(crate) w: f64,
    /// Its height.
    pub(crate) h: f64,
}

/// The page or spread to fill.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TargetDoc {
    /// One page.
    pub(crate) page: SizeDoc,
    /// 1 or 2.
    pub(crate) pages: u8,
    /// Along the edges.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) margin: Option<f64>,
    /// Along the fold.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) fold_guard: Option<f64>,
}

/// A held edge or size.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PinDoc {
    /// The sketch block.
    pub(crate) block: String,
    /// `left`, `right`, `top`, `bottom`, `width`, `height`, `centre-x` or `centre-y`
    pub(crate) edge: String,
    /// Where; with `to`, how far from it.
    pub(crate) at: f64,
    /// Held to another block rather than to the page.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) to: Option<PinToDoc>,
}

/// What a pin is held to.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PinToDoc {
    /// The other block.
    pub(crate) block: String,
    /// A place for a place, a size for a size.
    pub(crate) edge: String,
    /// So many times its size; 1 if left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) times: Option<f64>,
}
