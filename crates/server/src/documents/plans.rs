//! Plans in sections, as shapes.

use crate::documents::calls::CallSectionDoc;
use crate::documents::clusters::ClustersSectionDoc;
use crate::documents::log::LogSectionDoc;
use crate::documents::requests::{
    FoldChoiceDoc, LiftChoiceDoc, MatChoiceDoc, PhotosDoc, PinDoc, ReadingsDoc, SlackDoc,
    SlotChoiceDoc, TargetDoc,
};
use crate::documents::sketches::{BoxDoc, SizeDoc, SketchDoc};
use crate::documents::words::WordsSectionDoc;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// A page's plan: everything decided so far, a section a station.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PlanDoc {
    /// `metrosk-plan/2`
    pub(crate) format: String,
    /// `in` or `mm`: the unit of the sections' lengths.
    pub(crate) unit: String,
    /// What is asked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) call: Option<CallSectionDoc>,
    /// The sketch, how it stands, and what of it is held.
    pub(crate) sketch: SketchSectionDoc,
    /// Which photos.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) photos: Option<PhotosSectionDoc>,
    /// The page, and where everything goes.
    pub(crate) fit: FitSectionDoc,
    /// Which paper for which piece.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) papers: Option<PapersSectionDoc>,
    /// What is cut from which sheet.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) cut: Option<CutSectionDoc>,
    /// The title and the writing.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) words: Option<WordsSectionDoc>,
    /// Where the clusters sit.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) clusters: Option<ClustersSectionDoc>,
    /// The order of making.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) build: Option<BuildSectionDoc>,
    /// What was done.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) log: Option<LogSectionDoc>,
}

/// What a maker said of a station.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SectionDoc {
    /// `settled` or `needs-a-look`; open where it is left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) mark: Option<String>,
    /// Digests of what it was settled on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) grounds: Option<BTreeMap<String, String>>,
}

/// The sketch, how it stands, and what of it is held.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SketchSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// The sketch.
    pub(crate) sketch: SketchDoc,
    /// 0, 90, 180 or 270.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) turn: Option<u32>,
    /// `none`, `across` or `down`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) flip: Option<String>,
    /// The keep-list: a block's id to `place`, `size`, `both` or `free`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) keep: Option<BTreeMap<String, String>>,
    /// Readings of the sketch that are switched off or added.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) readings: Option<ReadingsDoc>,
}

/// Which photos.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PhotosSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// So many, or these prints.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) photos: Option<PhotosDoc>,
    /// `trim` or `whole`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) photo_rule: Option<String>,
    /// The mats she chose; where she chose none, the sketch's own stay.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) mats: Option<Vec<MatChoiceDoc>>,
    /// What lifts photos off the page.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) lift: Option<Vec<LiftChoiceDoc>>,
    /// How thick a page, or a spread that is closed, may be.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) room: Option<f64>,
}

/// A side of something in the stash.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PaperRefDoc {
    /// Its id.
    pub(crate) item: String,
    /// `a` (if left out) or `b`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) side: Option<String>,
}

/// Which paper for which piece.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PapersSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// The paper under each page: `0`, and `1` for the right one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) ground: Option<BTreeMap<String, PaperRefDoc>>,
    /// By the sketch's block, and which part of it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) pieces: Option<BTreeMap<String, BTreeMap<String, PieceChoiceDoc>>>,
    /// How far pieces reach under their neighbours.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) tuck: Option<f64>,
    /// `lean` or `whole`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) cut: Option<String>,
    /// What is gutted.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) gut: Option<GutDoc>,
    /// How much each rule of the choice counts, 0 to 3; those left out count 1.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) weights: Option<BTreeMap<String, f64>>,
}

/// What is decided and done about cutting.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CutSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// The trimmer, by its id in the stash.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) trimmer: Option<String>,
    /// Sheets of which at least one cut is made.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) begun: Option<Vec<BegunSheetDoc>>,
    /// What is held of pieces' places, by their names.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) locks: Option<BTreeMap<String, PieceLockDoc>>,
    /// `largest-rest` or `few-settings`: what counts more among plans that open the same sheets.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) prefers: Option<String>,
}

/// What a maker holds of a piece's place.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PieceLockDoc {
    /// The stock that it comes from, as sheets name it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) from: Option<String>,
    /// It lies on its sheet as it lies on the page.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) upright: Option<bool>,
}

/// What is decided and done about making the page.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BuildSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// `lay-out-first` or `glue-as-you-go`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) school: Option<String>,
    /// Of `gesso`, `stitch`, `spatter` and `round-corners`, what is done beside what the plan shows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) techniques: Option<Vec<String>>,
    /// Steps in an order of her own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) order: Option<Vec<String>>,
    /// Steps that are done.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) done: Option<Vec<String>>,
}

/// A sheet that is to be cut, or is being cut.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BegunSheetDoc {
    /// The stash's thing.
    pub(crate) item: String,
    /// Which of these, from 1.
    pub(crate) copy: u32,
    /// Across.
    pub(crate) w: f64,
    /// Down.
    pub(crate) h: f64,
    /// What no piece may touch.
    pub(crate) spoiled: Vec<BoxDoc>,
    /// In the order in which they are made.
    pub(crate) cuts: Vec<NamedCutDoc>,
    /// What comes out.
    pub(crate) pieces: Vec<OnSheetPartDoc>,
    /// Clean rests.
    pub(crate) rests: Vec<OnSheetPartDoc>,
    /// How many of its cuts are made.
    pub(crate) done: usize,
    /// Pieces that were cut wrong.
    pub(crate) wrong: Vec<String>,
}

/// A cut across a part of a sheet.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NamedCutDoc {
    /// The part that is cut; at first `whole`.
    pub(crate) part: String,
    /// `x` from left to right, `y` from top to bottom.
    pub(crate) along: String,
    /// From the part's top, or its left.
    pub(crate) at: f64,
    /// The top or left part, and the other.
    pub(crate) makes: Vec<String>,
}

/// A piece or a clean rest on a sheet.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct OnSheetPartDoc {
    /// The piece's name in the plan; of a rest the part's.
    pub(crate) name: String,
    /// The part that it is.
    pub(crate) part: String,
    /// From the sheet's left.
    pub(crate) x: f64,
    /// From its top.
    pub(crate) y: f64,
    /// Across.
    pub(crate) w: f64,
    /// Down.
    pub(crate) h: f64,
    /// Whether a piece lies across.
    pub(crate) turned: bool,
}

/// What is decided about one piece.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PieceChoiceDoc {
    /// Its paper.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) paper: Option<PaperRefDoc>,
    /// How far it reaches under its neighbours.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) tuck: Option<f64>,
    /// `lean` or `whole`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) cut: Option<String>,
    /// A colour that is brought on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) made: Option<MadeUpDoc>,
    /// Its edges are roughened.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) rough: Option<bool>,
    /// `one` (if left out), `parts` (a piece of paper for each part that shows) or `strips` (four round what is hidden)
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) cut_as: Option<String>,
    /// A second one is cut for the back of a page that can be seen through.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) twin: Option<bool>,
    /// Units that are cut beyond those on the page.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) spares: Option<u32>,
    /// Papers of single units of a grid or ring.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) units: Option<BTreeMap<String, PaperRefDoc>>,
    /// Units that keep their paper when papers are dealt out again.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) locked: Option<Vec<String>>,
}

/// A colour brought onto a piece.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct MadeUpDoc {
    /// `ink`, `paint` or `spray`
    pub(crate) medium: String,
    /// `#rrggbb`
    pub(crate) colour: String,
    /// Only its edges.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) edges: Option<bool>,
}

/// What may come out of hidden middles.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct GutDoc {
    /// How far a hole stays away from what shows.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) margin: Option<f64>,
    /// How far from the sheet's sides.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) bar: Option<f64>,
    /// The shortest side of a hole.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) least: Option<f64>,
    /// The pieces that are gutted.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) from: Option<Vec<String>>,
    /// Of them, those out of whose middle shapes of a die are cut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) dies: Option<BTreeMap<String, DieChoiceDoc>>,
}

/// A die whose shapes are cut out of a hidden middle.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DieChoiceDoc {
    /// The tool's id in the stash.
    pub(crate) tool: String,
    /// What it cuts.
    pub(crate) size: SizeDoc,
    /// How many at the most.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) count: Option<u32>,
}

/// The page, and where everything goes.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct FitSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// The page or spread.
    pub(crate) target: TargetDoc,
    /// `auto` or an approach.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) approach: Option<String>,
    /// The ruler step.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) snap: Option<f64>,
    /// What is held.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) pins: Option<Vec<PinDoc>>,
    /// Kinds that may be cut at the fold.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) across_fold: Option<Vec<String>>,
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
