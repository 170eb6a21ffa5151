//! What of the stash crosses the wire.

use crate::documents::plans::{PaperRefDoc, PapersSectionDoc};
use crate::documents::sketches::{BoxDoc, LayoutDoc, SizeDoc};
use crate::documents::words::LettersDoc;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// Something in the stash, as a document.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct StashItemDoc {
    /// `metrosk-stash-item/1`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) format: Option<String>,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// `sheet`, `pad`, `cardstock`, `card`, `vellum`, `acetate`, `packaging`, `scrap`, `letters`, `embellishment` or `tool`
    pub(crate) kind: String,
    /// What she calls it.
    pub(crate) name: String,
    /// How many there are.
    pub(crate) count: u32,
    /// How large one is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) size: Option<SizeDoc>,
    /// The side that lies up.
    pub(crate) a: PaperSideDoc,
    /// The other one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) b: Option<PaperSideDoc>,
    /// The maker's strip.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) strip: Option<PrintedStripDoc>,
    /// What has been cut out of a scrap.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) bites: Option<Vec<BoxDoc>>,
    /// The kit that it came in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) kit: Option<String>,
    /// Where it lies.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) kept: Option<String>,
    /// What else she wants to know of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) note: Option<String>,
    /// How thick it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) thickness: Option<f64>,
    /// `paper`, `card`, `chipboard`, `wood`, `acetate`, `vellum`, `fabric`, `metal` or `plastic`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) material: Option<String>,
    /// What a piece to decorate with looks like: `plain`, `round`, `doily`, `button`, `star`, `heart`, `leaf`, `flower`, `tag`, `kite`, `flag`, `sledge` or `phrase`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) form: Option<String>,
    /// Of a trimmer: the longest cut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) reach: Option<f64>,
    /// Of a trimmer: the smallest step.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) finest: Option<f64>,
    /// Of a punch or die: the sizes that it cuts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) cuts: Option<Vec<SizeDoc>>,
    /// Of a letter set: its letters.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) letters: Option<LettersDoc>,
}

/// One side of a sheet.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PaperSideDoc {
    /// What it is called.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) name: Option<String>,
    /// Its colours, most first.
    pub(crate) colours: Vec<ColourShareDoc>,
    /// How much is going on in it, 0 to 1.
    pub(crate) busy: f64,
    /// `any`, `across`, `down` or `up`
    pub(crate) direction: String,
    /// How large one motif is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) scale: Option<f64>,
    /// The picture of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) picture: Option<String>,
    /// How much of the side the picture shows; it is repeated beyond.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) tile: Option<SizeDoc>,
}

/// A colour and its share of a side.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct ColourShareDoc {
    /// `#rrggbb`
    pub(crate) colour: String,
    /// 0 to 1.
    pub(crate) share: f64,
}

/// The maker's strip along an edge.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PrintedStripDoc {
    /// `left`, `right`, `top` or `bottom`
    pub(crate) edge: String,
    /// How wide.
    pub(crate) width: f64,
}

/// Something in the stash, and who holds how much of it.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct StashItemView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its revision.
    pub(crate) revision: i32,
    /// Hers alone, not the team's.
    pub(crate) own: bool,
    /// How many pages hold.
    pub(crate) held: i32,
    /// How many are free.
    pub(crate) free: i32,
    /// Which pages ask for how many, who asked first first.
    pub(crate) holds: Vec<StashHoldView>,
    /// The thing.
    #[schema(value_type = StashItemDoc)]
    pub(crate) item: serde_json::Value,
}

/// What a page asks for, and what it got.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct StashHoldView {
    /// The page.
    pub(crate) page: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// How many it asks for.
    pub(crate) wanted: i32,
    /// How many it holds.
    pub(crate) held: i32,
}

/// What is looked for.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct StashQuery {
    /// Words, a kind, “enough for a 12 in strip”.
    pub(crate) search: Option<String>,
    /// The unit of lengths without one: `in` (if left out) or `mm`.
    pub(crate) unit: Option<String>,
    /// How many have been seen.
    #[serde(default)]
    #[param(minimum = 0)]
    pub(crate) from: u32,
}

/// Some of the stash.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct StashPage {
    /// In the order in which it was put away.
    pub(crate) items: Vec<StashItemView>,
    /// Whether there is more.
    pub(crate) more: bool,
}

/// Things to put away, as a maker says them.
#[derive(Debug, Deserialize, ToSchema)]
pub(crate) struct StashInWords {
    /// “2 x 12x12 dots / plain, strip 1/2 bottom, kit Ebb”
    #[schema(max_length = 2000)]
    pub(crate) text: String,
    /// The unit of lengths without one: `in` or `mm`.
    pub(crate) unit: String,
}

/// What one part of a text came to.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct SaidView {
    /// The thing, where it was understood.
    #[schema(value_type = Option<StashItemDoc>)]
    pub(crate) item: Option<serde_json::Value>,
    /// What was not understood.
    pub(crate) unknown: Option<String>,
}

/// Things to put away.
#[derive(Debug, Deserialize, ToSchema)]
pub(crate) struct ToPutAway {
    /// Up to 100.
    #[schema(value_type = Vec<StashItemDoc>)]
    pub(crate) items: Vec<serde_json::Value>,
    /// Hers alone, not the team's.
    #[serde(default)]
    pub(crate) own: bool,
}

/// A thing written anew.
#[derive(Debug, Deserialize, ToSchema)]
pub(crate) struct StashChange {
    /// The revision that it started from.
    pub(crate) revision: i32,
    /// The thing as it is to be.
    #[schema(value_type = StashItemDoc)]
    pub(crate) item: serde_json::Value,
    /// Hers alone, or the team's; as it was where that is left out.
    #[serde(default)]
    pub(crate) own: Option<bool>,
}

/// What a table brought in.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct BroughtInView {
    /// Things put away.
    pub(crate) new: usize,
    /// Things written anew.
    pub(crate) changed: usize,
    /// Columns that mean nothing here.
    pub(crate) ignored: Vec<String>,
}

/// A page's papers, and the layout that they lie on.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PaperedAskedDoc {
    /// `in` or `mm`
    pub(crate) unit: String,
    /// What is decided about papers.
    pub(crate) papers: PapersSectionDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
}

/// What became of them.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PaperedDoc {
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Bottom to top, page by page.
    pub(crate) pieces: Vec<PaperedPieceDoc>,
    /// What is cut beyond them: spares and twins, by name.
    pub(crate) extras: Vec<String>,
    /// Pieces of which nothing shows.
    pub(crate) not_needed: Vec<String>,
    /// How many of each item they take.
    pub(crate) needed: std::collections::BTreeMap<String, u32>,
}

/// A piece of paper on a page. Places are measured from the page's own corner.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PaperedPieceDoc {
    /// What a plan calls it: `ground-0`, `BLOCK/PART`, `BLOCK/PART/UNIT`.
    pub(crate) name: String,
    /// Its layout block; of a ground its own name.
    pub(crate) block: String,
    /// The sketch's block.
    pub(crate) of: Option<String>,
    /// Which part of it.
    pub(crate) part: Option<u32>,
    /// Which unit of a grid or ring.
    pub(crate) unit: Option<String>,
    /// The block's kind; none of a ground.
    pub(crate) kind: Option<String>,
    /// 0, or 1 for the right page.
    pub(crate) page: u8,
    /// Degrees clockwise.
    pub(crate) turn: f64,
    /// Its paper.
    pub(crate) paper: Option<PaperRefDoc>,
    /// The box around what shows.
    pub(crate) shows: BoxDoc,
    /// How much shows.
    pub(crate) area: f64,
    /// In how many parts.
    pub(crate) parts: u32,
    /// Which of the pieces of paper it is that a piece is put together from, from 1.
    pub(crate) slice: Option<u32>,
    /// What is cut, in the piece's own frame.
    pub(crate) cut: BoxDoc,
    /// What can come out of its hidden middle.
    pub(crate) hole: Option<BoxDoc>,
    /// What each punch or die gives from that.
    pub(crate) hole_gives: Option<Vec<HoleGivesDoc>>,
    /// Shapes of a die that are cut out of it in place of all of it.
    pub(crate) dies: Option<DiesInMiddleDoc>,
    /// How far the cut reaches beyond what shows.
    pub(crate) tucked: TuckedDoc,
    /// Why it is cut so; layout blocks by their ids.
    pub(crate) told: Vec<String>,
    /// What of its paper can't reach; layout blocks by their ids.
    pub(crate) short: Option<String>,
}

/// How many a punch or die gives from a hidden middle.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct HoleGivesDoc {
    /// The punch or die.
    pub(crate) tool: String,
    /// What it cuts.
    pub(crate) size: SizeDoc,
    /// How many.
    pub(crate) each: u32,
}

/// How far each side of a cut reaches beyond what shows.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TuckedDoc {
    pub(crate) left: f64,
    pub(crate) right: f64,
    pub(crate) top: f64,
    pub(crate) bottom: f64,
}

/// Which papers suit a piece.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RankingAskedDoc {
    /// The page, whose own holds count as free.
    pub(crate) page: Uuid,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// What is decided about papers.
    pub(crate) papers: PapersSectionDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
    /// The piece's name.
    pub(crate) piece: String,
    /// The kit that the call asks for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) kit: Option<String>,
    /// The pictures of the layout's prints.
    #[serde(default)]
    pub(crate) photos: Vec<PhotoOfPrintDoc>,
}

/// The picture of a print.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PhotoOfPrintDoc {
    /// The print's id.
    pub(crate) print: String,
    /// The picture's.
    pub(crate) picture: Uuid,
}

/// Shapes of a die in a hidden middle.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DiesInMiddleDoc {
    /// The die's id in the stash.
    pub(crate) tool: String,
    /// What it cuts.
    pub(crate) size: SizeDoc,
    /// Where its shapes lie on the page.
    pub(crate) places: Vec<BoxDoc>,
}

/// A paper with its rank.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RankedPaperDoc {
    /// The item.
    pub(crate) item: String,
    /// `a` or `b`
    pub(crate) side: String,
    /// Whether a piece of it can be had.
    pub(crate) serves: bool,
    /// The higher, the better.
    pub(crate) points: f64,
    /// Why, the weightiest first.
    pub(crate) reasons: Vec<String>,
    /// How many are free for this page.
    pub(crate) free: i32,
}

/// Papers to deal out over the units of a grid or ring.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DealAskedDoc {
    /// The page, whose own holds count as free.
    pub(crate) page: Uuid,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// What is decided about papers.
    pub(crate) papers: PapersSectionDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
    /// The sketch's block.
    pub(crate) block: String,
    /// Which part of it.
    pub(crate) part: u32,
    /// The papers to deal out.
    pub(crate) deal: Vec<PaperRefDoc>,
    /// Another number deals another way that is as good.
    pub(crate) seed: u64,
    /// One, two, three along the rows, in place of as far apart as can be.
    #[serde(default)]
    pub(crate) rhythm: bool,
}

/// How papers were dealt out.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct DealtDoc {
    /// Each unit's paper.
    pub(crate) units: std::collections::BTreeMap<String, PaperRefDoc>,
    /// Neighbours with the same paper.
    pub(crate) met: Vec<[String; 2]>,
    /// Units that got none.
    pub(crate) short: usize,
}

/// Which grid or ring of a page is asked about.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct UnitsAskedDoc {
    /// `in` or `mm`
    pub(crate) unit: String,
    /// What is decided about papers.
    pub(crate) papers: PapersSectionDoc,
    /// The layout.
    pub(crate) layout: LayoutDoc,
    /// The sketch's block.
    pub(crate) block: String,
    /// Which part of it.
    pub(crate) part: u32,
    /// Papers of which it is asked how many units a sheet gives.
    #[serde(default)]
    pub(crate) deal: Vec<PaperRefDoc>,
}

/// A grid or ring, unit by unit.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct UnitTableDoc {
    /// How many lie on the page.
    pub(crate) count: usize,
    /// How large a whole one is.
    pub(crate) size: SizeDoc,
    /// Rows of a grid, with their marks on the ruler.
    pub(crate) rows: Vec<UnitRowDoc>,
    /// Units of which a part is cut off.
    pub(crate) cut_off: Vec<CutOffDoc>,
    /// How many units a sheet gives, by paper and tool.
    pub(crate) yields: Vec<YieldDoc>,
}

/// A row of units.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct UnitRowDoc {
    /// From 1.
    pub(crate) row: usize,
    /// From the top of the page.
    pub(crate) top: f64,
    /// From left to right.
    pub(crate) marks: Vec<UnitMarkDoc>,
    /// How the sizes go into the run.
    pub(crate) told: String,
}

/// A unit's mark on the ruler.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct UnitMarkDoc {
    /// `ROW/COLUMN`
    pub(crate) unit: String,
    /// Its left edge, from the left edge of its page.
    pub(crate) at: f64,
    /// When it is laid: 1 is the first.
    pub(crate) turn: usize,
}

/// A unit of which a part is cut off.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct CutOffDoc {
    /// `ROW/COLUMN`
    pub(crate) unit: String,
    /// How much.
    pub(crate) told: String,
}

/// How many units a sheet gives.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct YieldDoc {
    /// The paper.
    pub(crate) item: String,
    /// The punch or die, by its id; none for straight cuts.
    pub(crate) tool: Option<String>,
    /// Units.
    pub(crate) each: u32,
}

/// Which kit.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct KitQuery {
    /// Its name.
    pub(crate) kit: String,
}

/// A page that would use up some of a kit.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct KitUseView {
    /// The page.
    pub(crate) page: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// Pieces without a paper.
    pub(crate) open: usize,
    /// Those of them that the kit would serve.
    pub(crate) served: usize,
    /// Sheets of each thing.
    pub(crate) takes: std::collections::BTreeMap<String, u32>,
    /// Whether no paper of the kit would be left.
    pub(crate) finishes: bool,
}

/// A paper in a picture.
#[derive(Debug, Deserialize, ToSchema)]
pub(crate) struct PaperShown {
    /// Its width.
    pub(crate) width: f64,
    /// Its height.
    pub(crate) height: f64,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// Where it lies in the picture, in its pixels: four corners, clockwise from the top left. They are found where that is left out.
    pub(crate) corners: Option<Vec<[f64; 2]>>,
}

/// What a picture tells of a paper.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct PaperInPicture {
    /// The side as it may be put away; its picture is the paper, straightened.
    pub(crate) side: PaperSideDoc,
    /// Where the paper was found.
    pub(crate) corners: Vec<[f64; 2]>,
}
