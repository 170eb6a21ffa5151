//! What of a page's words crosses the wire.

use crate::documents::plans::PlanDoc;
use crate::documents::sketches::{BoxDoc, LayoutDoc};
use crate::documents::words::{HandDoc, TakenLineDoc, UsesDoc, WordsSectionDoc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A page's words, and the layout that they lie on.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WordsAskedDoc {
    /// The page: what its own title spends is free for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) page: Option<String>,
    /// `in` or `mm`
    pub(crate) unit: String,
    /// What is decided about words.
    pub(crate) words: WordsSectionDoc,
    /// The layout.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) layout: Option<LayoutDoc>,
    /// The plan: its prints tell what must stay in sight on photos.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) plan: Option<PlanDoc>,
}

/// How a page's words come out.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WordsSetDoc {
    /// What every hand is measured by.
    pub(crate) sentence: String,
    /// Printed type that writing can be in, as hands.
    pub(crate) types: Vec<HandDoc>,
    /// Where words can stand on the layout.
    pub(crate) places: Vec<WordsPlaceDoc>,
    /// The letter sets of the stash.
    pub(crate) sets: Vec<LetterTrayDoc>,
    /// The title's settings; none where nothing is to be set, or there is no space for it.
    #[schema(required = true)]
    pub(crate) title: Option<TitleSetDoc>,
    /// The writing; none where no hand or no space is known.
    #[schema(required = true)]
    pub(crate) writing: Option<WrittenDoc>,
}

/// Where words can stand.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WordsPlaceDoc {
    /// What a plan names it by: a block's id, or `free-` and the page's number.
    pub(crate) key: String,
    /// `block`, `photo` (beside what must stay in sight) or `free` (nothing lies there)
    pub(crate) kind: String,
    /// The kind of its block.
    #[schema(required = true)]
    pub(crate) block: Option<String>,
    /// On which page, from 0.
    pub(crate) page: u8,
    /// Where on the layout.
    #[serde(rename = "box")]
    pub(crate) rect: BoxDoc,
}

/// A letter set and what is left of it.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LetterTrayDoc {
    /// Its id in the stash.
    pub(crate) id: String,
    /// Its name.
    pub(crate) name: String,
    /// As `#rrggbb`.
    #[schema(required = true)]
    pub(crate) colour: Option<String>,
    /// How high capitals are.
    pub(crate) height: f64,
    /// What they are.
    pub(crate) material: String,
    /// `upper`, `lower` or `both`
    pub(crate) case: String,
    /// Whether there is always another.
    pub(crate) never_runs_out: bool,
    /// Each letter.
    pub(crate) letters: Vec<LetterLeftDoc>,
    /// Other pages that spend of it.
    pub(crate) pages: Vec<String>,
}

/// A letter of a set.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LetterLeftDoc {
    /// Which.
    pub(crate) letter: String,
    /// Across.
    pub(crate) w: f64,
    /// Above the baseline.
    pub(crate) h: f64,
    /// Below it.
    pub(crate) below: f64,
    /// How many the stash has.
    pub(crate) had: u32,
    /// How many are free for this page.
    pub(crate) left: u32,
}

/// A title's settings, best first.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TitleSetDoc {
    /// The block that it stands in.
    #[schema(required = true)]
    pub(crate) block: Option<String>,
    /// Where on the layout.
    pub(crate) space: BoxDoc,
    /// Each way to set it.
    pub(crate) proposals: Vec<TitleSettingDoc>,
    /// Why there is none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) why: Option<WhyNoTitleDoc>,
    /// Other titles that she would take; those that can be set come first.
    pub(crate) others: Vec<OtherTitleDoc>,
}

/// Why a title can't be set.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WhyNoTitleDoc {
    /// In words.
    pub(crate) text: String,
    /// For each set the letters that lack.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) short: Option<UsesDoc>,
    /// The space that would do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) needs: Option<crate::documents::sketches::SizeDoc>,
}

/// Another title.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct OtherTitleDoc {
    /// What it says.
    pub(crate) title: String,
    /// Whether it can be set here.
    pub(crate) fits: bool,
    /// What is made out of other letters, in costs.
    #[schema(required = true)]
    pub(crate) cost: Option<f64>,
    /// What it takes, or why it can't be.
    pub(crate) text: String,
}

/// One way to set a title.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TitleSettingDoc {
    /// What it is called.
    pub(crate) name: String,
    /// How its lines run, as a title keeps it.
    pub(crate) manner: String,
    /// What she has to know to lay it so; empty for straight lines.
    pub(crate) hint: String,
    /// What is made out of other letters, in costs.
    pub(crate) cost: f64,
    /// From top to bottom.
    pub(crate) lines: Vec<SetLineDoc>,
    /// Between lines.
    pub(crate) line_gap: f64,
    /// How many remain of each letter that is used, by set.
    pub(crate) leaves: UsesDoc,
    /// What is made out of what, and how.
    pub(crate) made: Vec<String>,
    /// Letters of which it takes the last.
    pub(crate) last: Vec<String>,
    /// The letters that it spends.
    pub(crate) uses: UsesDoc,
    /// Whether it is the one that she took.
    pub(crate) is_taken: bool,
    /// What a plan keeps when she takes it.
    pub(crate) taken: Vec<TakenLineDoc>,
}

/// A line of letters.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SetLineDoc {
    /// The set.
    pub(crate) set: String,
    /// From the top of the space.
    pub(crate) baseline: f64,
    /// Between letters.
    pub(crate) gap: f64,
    /// Between words.
    pub(crate) word_gap: f64,
    /// From left to right.
    pub(crate) letters: Vec<SetLetterDoc>,
    /// Which letter is laid first, second and so on, by its place.
    pub(crate) order: Vec<usize>,
    /// How its width adds up.
    pub(crate) sum: LineSumDoc,
}

/// How a line's width adds up.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LineSumDoc {
    /// All letters.
    pub(crate) letters: f64,
    /// How many gaps between letters.
    pub(crate) gaps: usize,
    /// How many between words.
    pub(crate) word_gaps: usize,
    /// All of it.
    pub(crate) together: f64,
}

/// A letter in its place.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SetLetterDoc {
    /// What it says.
    pub(crate) letter: String,
    /// The piece that it is made of.
    pub(crate) of: String,
    /// From the left top corner of the space, before it is turned about its middle.
    #[serde(rename = "box")]
    pub(crate) rect: BoxDoc,
    /// Degrees clockwise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) turn: Option<f64>,
    /// Where it begins along its line.
    pub(crate) mark: f64,
}

/// How writing comes out.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WrittenDoc {
    /// The block that it stands in.
    #[schema(required = true)]
    pub(crate) block: Option<String>,
    /// Where on the layout.
    pub(crate) space: BoxDoc,
    /// `plain`, `bold` or `display`, where it is printed type.
    #[serde(rename = "type")]
    #[schema(required = true)]
    pub(crate) typeface: Option<String>,
    /// Room for lines, in the order in which they are written.
    pub(crate) slots: Vec<LineSlotDoc>,
    /// Its lines.
    pub(crate) lines: Vec<String>,
    /// How wide each comes out at most.
    pub(crate) widths: Vec<f64>,
    /// Lines that the space has.
    pub(crate) room: usize,
    /// Lines kept for date, place and names.
    pub(crate) kept: usize,
    /// What stands there.
    pub(crate) kept_text: String,
    /// Lines without room.
    pub(crate) over: usize,
    /// Lines that stay free.
    pub(crate) spare: usize,
    /// Words on the lines without room.
    pub(crate) words_over: usize,
    /// Words wider than the space.
    pub(crate) too_wide: Vec<String>,
    /// Whether the line that is kept is wider than the space.
    pub(crate) kept_too_wide: bool,
    /// Whether all of it has room.
    pub(crate) fits: bool,
    /// From one line to the next.
    pub(crate) pitch: f64,
    /// What would make it fit, each alone.
    pub(crate) remedies: Vec<RemedyDoc>,
}

/// Room for one line: from its left top corner it runs to the right, turned about that corner.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LineSlotDoc {
    /// From the space's left edge.
    pub(crate) x: f64,
    /// From its upper edge.
    pub(crate) y: f64,
    /// How long it is.
    pub(crate) w: f64,
    /// Degrees clockwise.
    pub(crate) turn: f64,
}

/// What would make writing fit.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RemedyDoc {
    /// `pitch`, `wider`, `taller`, `date-elsewhere` or `shorter`
    pub(crate) what: String,
    /// A length; for `shorter` a count of words.
    pub(crate) to: f64,
    /// In words.
    pub(crate) text: String,
}
