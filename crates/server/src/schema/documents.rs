//! Documents of the Metrosk formats, as shapes.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A page's plan: everything decided so far.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlanDoc {
    /// `metrosk-plan/1`
    pub(crate) format: String,
    /// The fit that the layout comes from.
    pub(crate) fit: FitDoc,
    /// What the maker has marked: a station's name to `open`, `settled` or `needs-a-look`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) stations: Option<std::collections::BTreeMap<String, String>>,
}

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
    /// `cells`, `focal`, `journal`, `paper` or `gone`
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
}

/// Width and height.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SizeDoc {
    /// Width.
    pub(crate) w: f64,
    /// Height.
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

/// How many of how many.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct KeptDoc {
    /// Those kept.
    pub(crate) kept: usize,
    /// All.
    pub(crate) of: usize,
}

/// A share's mean and largest.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DriftDoc {
    /// Mean, 0 to 1.
    pub(crate) mean: f64,
    /// Largest.
    pub(crate) max: f64,
}

/// A sketch block's three boxes.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlaceDoc {
    /// The sketch block.
    pub(crate) id: String,
    /// As drawn, turned and flipped.
    pub(crate) sketch: BoxDoc,
    /// Where the approach wants it.
    pub(crate) wanted: BoxDoc,
    /// Where it is.
    pub(crate) here: BoxDoc,
    /// Where it is not as wanted, what moved it.
    pub(crate) why: Vec<String>,
}

/// How far a search went.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SearchDoc {
    /// Choices compared.
    pub(crate) tried: usize,
    /// Choices left out for their number.
    pub(crate) left_out: usize,
}

/// What a fit settled, for one that follows a hand.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ChoicesDoc {
    /// The approach.
    pub(crate) approach: String,
    /// The page of each of its blocks: `left`, `right`, `astride` or none.
    pub(crate) sides: Vec<Option<String>>,
    /// Wishes let go of.
    pub(crate) lost: Vec<usize>,
    /// Its solution.
    pub(crate) solved: Vec<f64>,
}

/// A fit to make again with an earlier one's choices held.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RefitDoc {
    /// The fit, with what has moved.
    pub(crate) fit: FitDoc,
    /// What the proposal on screen had settled.
    pub(crate) choices: ChoicesDoc,
}

/// A change to a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ChangeDoc {
    /// The sketch.
    pub(crate) sketch: SketchDoc,
    /// What to change.
    pub(crate) change: OneChangeDoc,
}

/// What to change of a sketch.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct OneChangeDoc {
    /// `straighten`, `swap`, `corner` or `kind`
    pub(crate) what: String,
    /// The block.
    pub(crate) block: String,
    /// Of a swap: the other photo.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) with: Option<String>,
    /// `top-left`, `top-right`, `bottom-left` or `bottom-right`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) corner: Option<String>,
    /// The kind that it becomes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) kind: Option<String>,
}

/// How good a layout is.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ReportDoc {
    /// Centres against their wanted places.
    pub(crate) drift: DriftDoc,
    /// Like edges that agree.
    pub(crate) alignments: KeptDoc,
    /// Neighbours.
    pub(crate) relations: KeptDoc,
    /// Share of the prints' area.
    pub(crate) trimmed: f64,
    /// What changed and why.
    pub(crate) notes: Vec<String>,
    /// Each block's boxes.
    pub(crate) blocks: Vec<PlaceDoc>,
    /// How far the search went.
    pub(crate) search: SearchDoc,
}

/// One way.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ProposalDoc {
    /// Which approach.
    pub(crate) approach: String,
    /// Turned first.
    pub(crate) turn: u32,
    /// Then flipped.
    pub(crate) flip: String,
    /// `positions` or `proportions`, where one of them counted more.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) emphasis: Option<String>,
    /// 0 to 100.
    pub(crate) score: f64,
    /// What it settled.
    pub(crate) choices: ChoicesDoc,
    /// Where everything is.
    pub(crate) layout: LayoutDoc,
    /// How good it is.
    pub(crate) report: ReportDoc,
}

/// What can't hold together.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ConflictDoc {
    /// In words.
    pub(crate) text: String,
    /// Pins in it.
    pub(crate) pins: Vec<usize>,
    /// Blocks in it.
    pub(crate) blocks: Vec<String>,
    /// Limits in it.
    pub(crate) limits: Vec<String>,
}

/// A fit's answer.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ProposalsDoc {
    /// `metrosk-proposals/1`
    pub(crate) format: String,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Best first.
    pub(crate) proposals: Vec<ProposalDoc>,
    /// Where there are none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) conflict: Option<ConflictDoc>,
}
