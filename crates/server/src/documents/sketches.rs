//! Documents of the Metrosk formats, as shapes.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The page of a document and how many.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CanvasDoc {
    /// One page.
    pub(crate) page: SizeDoc,
    /// 1 or 2.
    pub(crate) pages: u8,
}

/// A sketch document.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchDoc {
    /// `metrosk-sketch/1`
    pub(crate) format: String,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Its name.
    pub(crate) name: String,
    /// The page or spread.
    pub(crate) canvas: CanvasDoc,
    /// Bottom to top.
    pub(crate) blocks: Vec<BlockDoc>,
}

/// A placed box.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BoxDoc {
    /// Left.
    pub(crate) x: f64,
    /// Top.
    pub(crate) y: f64,
    /// Width.
    pub(crate) w: f64,
    /// Height.
    pub(crate) h: f64,
}

/// A block's outline in its box.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ShapeDoc {
    /// `rect`, `ellipse`, `triangle` or `polygon`
    #[serde(rename = "type")]
    pub(crate) kind: String,
    /// A triangle's right angle.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) corner: Option<String>,
    /// A polygon's points.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) points: Option<Vec<[f64; 2]>>,
}

/// Units in rows and columns.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct GridDoc {
    /// Across.
    pub(crate) cols: u32,
    /// Down.
    pub(crate) rows: u32,
    /// Between.
    #[serde(default)]
    pub(crate) gap: f64,
    /// The shift of every second row.
    #[serde(default)]
    pub(crate) stagger: f64,
    /// `square` or `circle`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) unit_shape: Option<String>,
}

/// Units around a centre.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RingDoc {
    /// How many.
    pub(crate) count: u32,
    /// Diameter.
    pub(crate) unit: f64,
    /// `square` or `circle`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) unit_shape: Option<String>,
}

/// A block of a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BlockDoc {
    /// Unique in its document.
    pub(crate) id: String,
    /// What it is.
    pub(crate) kind: String,
    /// Its place.
    #[serde(rename = "box")]
    pub(crate) place: BoxDoc,
    /// Degrees clockwise.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) turn: Option<f64>,
    /// Its outline.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) shape: Option<ShapeDoc>,
    /// Edges it runs off.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) bleed: Option<Vec<String>>,
    /// What it frames.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) under: Option<String>,
    /// What it sits on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) host: Option<String>,
    /// How sure a reader of pictures is of it, 0 to 1.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) sure: Option<f64>,
    /// Of a layout's mat, how its edge is finished where it isn't cut: `torn` or `roughened`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) edge: Option<String>,
    /// A cluster's size.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) size: Option<String>,
    /// On a grid.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) grid: Option<GridDoc>,
    /// On a ring.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) ring: Option<RingDoc>,
}

/// A block of a layout.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LayoutBlockDoc {
    /// As in a sketch.
    #[serde(flatten)]
    pub(crate) block: BlockDoc,
    /// The sketch blocks it stands for.
    pub(crate) from: Vec<String>,
    /// 0, or 1 for the right page.
    pub(crate) page: u8,
    /// The print it holds.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) photo: Option<String>,
    /// The print's size.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) print: Option<SizeDoc>,
    /// What of it shows.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) keep: Option<BoxDoc>,
    /// The undivided block.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) whole: Option<WholeDoc>,
}

/// The undivided block of which a layout block is a part.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WholeDoc {
    /// Its box.
    #[serde(rename = "box")]
    pub(crate) place: BoxDoc,
    /// Degrees clockwise.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) turn: Option<f64>,
    /// Its outline.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) shape: Option<ShapeDoc>,
    /// Its units.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) grid: Option<GridDoc>,
    /// Its units.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) ring: Option<RingDoc>,
}

/// A layout document.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LayoutDoc {
    /// `metrosk-layout/1`
    pub(crate) format: String,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// The target.
    pub(crate) canvas: CanvasDoc,
    /// Bottom to top.
    pub(crate) blocks: Vec<LayoutBlockDoc>,
}

/// Width and height.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SizeDoc {
    /// Width.
    pub(crate) w: f64,
    /// Height.
    pub(crate) h: f64,
}
