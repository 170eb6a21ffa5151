//! Titles, writing, letter sets and hands, as shapes.

use crate::documents::plans::SectionDoc;
use crate::documents::sketches::SizeDoc;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// How many of each letter are used, by letter set.
pub(crate) type UsesDoc = BTreeMap<String, BTreeMap<String, u32>>;

/// What is decided about the title and the writing.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WordsSectionDoc {
    /// The mark, and what it was settled on.
    #[serde(flatten)]
    pub(crate) section: SectionDoc,
    /// The title.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) title: Option<TitleDoc>,
    /// The writing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) writing: Option<WritingDoc>,
}

/// A title.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TitleDoc {
    /// What it says.
    pub(crate) text: String,
    /// Others that she would take.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) others: Option<Vec<String>>,
    /// The place that it stands in: a block of the layout, or `free-` and a page's number; where it is left out the first title block, and
    /// without one where nothing lies.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) block: Option<String>,
    /// Its space, where it is not the block's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) space: Option<SizeDoc>,
    /// `any`, or how many lines
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) lines: Option<LinesDoc>,
    /// `left`, `centre` or `right`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) align: Option<String>,
    /// The sets that may be used; all where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) sets: Option<Vec<String>>,
    /// `halving` or `centre-out`: in which order letters are laid
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) laying: Option<String>,
    /// How far letters stand up and down where they are staggered; 3/16 in where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) stagger: Option<f64>,
    /// How the lines run of the setting that she took: `lines`, `staggered`, `mixed`, `tops`, `arc`, `spread`, `standing`, `turned`,
    /// `round-corner` or `overlapped`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) manner: Option<String>,
    /// The setting that she took.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) taken: Option<Vec<TakenLineDoc>>,
    /// The letters that it spends.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) uses: Option<UsesDoc>,
}

/// How many lines a title has.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub(crate) enum LinesDoc {
    /// So many.
    Count(u32),
    /// `any`: as suits best.
    Any(String),
}

/// A line of the setting that she took.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TakenLineDoc {
    /// The letter set.
    pub(crate) set: String,
    /// How many words stand on it.
    pub(crate) words: usize,
}

/// Writing.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct WritingDoc {
    /// What it says; each of its lines begins anew.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) text: Option<String>,
    /// The place that it stands in: a block of the layout, or `free-` and a page's number; where it is left out the first writing block, and
    /// without one where nothing lies.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) block: Option<String>,
    /// Its space, where it is not the block's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) space: Option<SizeDoc>,
    /// In which hand.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) hand: Option<HandDoc>,
    /// From one line to the next, where it is not the hand's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) pitch: Option<f64>,
    /// When it was.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) date: Option<String>,
    /// Where.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) place: Option<String>,
    /// Who is on it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) names: Option<String>,
    /// Date, place and names stand somewhere else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) date_elsewhere: Option<bool>,
    /// How it runs in its space; line under line where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) shape: Option<WritingShapeDoc>,
}

/// How writing runs in its space.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct WritingShapeDoc {
    /// `lines`, `columns`, `strips` (each line on a strip of its own), `printed` (on a card's lines) or `edge` (round the page)
    pub(crate) kind: String,
    /// How many columns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) count: Option<u32>,
    /// How many lines a card has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) lines: Option<u32>,
    /// From one line of a card to the next.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) apart: Option<f64>,
}

/// A maker's hand with a certain pen.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct HandDoc {
    /// `in` or `mm`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) unit: Option<String>,
    /// What she calls it.
    pub(crate) name: String,
    /// How wide the sentence came out that every hand is measured by.
    pub(crate) sentence: f64,
    /// From one line to the next.
    pub(crate) pitch: f64,
    /// `plain`, `bold` or `display`, where it is printed type.
    #[serde(default, skip_serializing_if = "Option::is_none", rename = "type")]
    pub(crate) typeface: Option<String>,
}

/// A set's letters.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LettersDoc {
    /// `upper`, `lower` or `both`
    pub(crate) case: String,
    /// `narrow`, `normal`, `wide` or `round`
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) style: Option<String>,
    /// `sticker`, `chipboard`, `wood`, `foam`, `rub-on`, `stamp`, `die` or `print`; the last three never run out
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) material: Option<String>,
    /// How high capitals are.
    pub(crate) height: f64,
    /// Characters that she measured: how wide each is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) measured: Option<BTreeMap<String, f64>>,
    /// How many are left of each.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) left: Option<BTreeMap<String, u32>>,
    /// Her own ways to come by a letter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) ways: Option<Vec<LetterWayDoc>>,
}

/// A way to come by a letter.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LetterWayDoc {
    /// What is wanted.
    pub(crate) letter: String,
    /// Out of what.
    pub(crate) of: String,
    /// How.
    pub(crate) how: String,
}
