//! What a page is asked for: a challenge, a kit to be used, a scraplift day, a page of a hop.
//!
//! A call is written on a page's plan (`{"name", "kind", "text", "asks", "due", "shown", "prize", "credits", "links", "sketch"}`). What the plan
//! knows of it is checked (`check`); the rest is ticked by hand.

mod check;
mod read;

pub use check::{Finding, Held, check};

use crate::geometry::Size;
use crate::sketch::Sketch;

/// Things asked by one call.
pub const MOST_ASKS: usize = 40;
/// Credits and links of one call.
pub const MOST_NAMES: usize = 40;
/// Characters of a name, and of the call's text.
pub const LONGEST_NAME: usize = 200;
/// Characters of the call's text.
pub const LONGEST_TEXT: usize = 4_000;

/// What kind of call it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CallKind {
    /// A sketch or a theme to answer.
    Challenge,
    /// A kit to use.
    Kit,
    /// A page to lift from.
    Scraplift,
    /// A page passed along a chain.
    Hop,
}

impl CallKind {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["challenge", "kit", "scraplift", "hop"];

    /// The kind of that name.
    pub fn from_name(name: &str) -> Option<CallKind> {
        match name {
            "challenge" => Some(CallKind::Challenge),
            "kit" => Some(CallKind::Kit),
            "scraplift" => Some(CallKind::Scraplift),
            "hop" => Some(CallKind::Hop),
            _ => None,
        }
    }
}

/// A day of the calendar, as `2026-11-28`; later days compare as greater.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Day(pub(crate) String);

impl Day {
    /// As documents write it.
    pub fn as_str(&self) -> &str {
        &self.0
    }
}

/// A call.
#[derive(Clone, Debug, PartialEq)]
pub struct Call {
    /// Its name.
    pub name: String,
    /// What kind it is.
    pub kind: CallKind,
    /// What is asked, in its maker's words.
    pub text: String,
    /// What must appear.
    pub asks: Vec<Ask>,
    /// By when the page is to be with who asked.
    pub due: Option<Day>,
    /// When it is shown to all.
    pub shown: Option<Day>,
    /// When a prize closes.
    pub prize: Option<Day>,
    /// Whom to credit, and for what.
    pub credits: Vec<Credit>,
    /// Addresses to look at or to link to.
    pub links: Vec<Link>,
    /// The sketch that was asked for, as it was then: what the page's own sketch is held against.
    pub sketch: Option<Sketch>,
}

/// One thing that is asked.
#[derive(Clone, Debug, PartialEq)]
pub struct Ask {
    /// Its letter or name within the call.
    pub id: String,
    /// What it is.
    pub what: What,
}

/// What may be asked.
#[derive(Clone, Debug, PartialEq)]
pub enum What {
    /// So many pages, one or two.
    Pages(u32),
    /// A page of this size.
    PageSize(Size),
    /// So many photos at least.
    Photos(u32),
    /// A photo of this size at least, either way up.
    LargePhoto(Size),
    /// The call's sketch: told in counts, never judged.
    Sketch,
    /// So many papers at least, of a kit where one is named.
    Papers(u32, Option<String>),
    /// A kit.
    Kit(String),
    /// A technique, such as stitching.
    Technique(String),
    /// Something on the page that only an eye can find.
    Other(String),
}

/// Whom to credit.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Credit {
    /// For what: the sketch, the kit.
    pub what: String,
    /// Who.
    pub name: String,
}

/// An address with a name.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Link {
    /// What it leads to.
    pub name: String,
    /// Where: `http` or `https`.
    pub url: String,
}

/// What is decided at the Call station.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct CallDecisions {
    /// What is asked; none for a page of one's own.
    pub call: Option<Call>,
    /// The ids of what was ticked by hand.
    pub ticked: Vec<String>,
}
