//! What a page is asked for: a challenge, a kit to be used, a scraplift day, a page of a hop.
//!
//! A call is written on a page's plan (`{"name", "kind", "text", "asks", "due", "shown", "prize", "credits", "links", "sketch"}`). What the plan
//! knows of it is checked (`check`); the rest is ticked by hand.

mod check;
mod pasted;
mod read;
mod repeat;

pub use check::{Finding, Held, check};
pub use pasted::{LONGEST_PASTED, Noticed, Pasted, pasted};
pub use repeat::{Every, Repeat, again};

use crate::document::Invalid;
use crate::geometry::Size;
use crate::sketch::Sketch;
use chrono::{DateTime, NaiveDate, NaiveTime, TimeZone, Utc};
use chrono_tz::Tz;
use serde_json::Value;

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
    pub due: Option<NaiveDate>,
    /// The hour of that day; its end where none is said.
    pub due_time: Option<NaiveTime>,
    /// When it is shown to all.
    pub shown: Option<NaiveDate>,
    /// When a prize closes.
    pub prize: Option<NaiveDate>,
    /// The hour of that day.
    pub prize_time: Option<NaiveTime>,
    /// Where those hours are told by the clock; the maker's own place where none is said.
    pub zone: Option<Tz>,
    /// How it comes again.
    pub repeats: Option<Repeat>,
    /// Whom to credit, and for what.
    pub credits: Vec<Credit>,
    /// Addresses to look at or to link to.
    pub links: Vec<Link>,
    /// The sketch that was asked for, as it was then: what the page's own sketch is held against.
    pub sketch: Option<Sketch>,
}

impl Call {
    /// Reads a call that stands by itself.
    ///
    /// # Errors
    /// All that breaks its format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Call, Invalid> {
        read::call_by_itself(value)
    }

    /// The day it is due where the maker lives: an hour elsewhere may fall on another day of hers.
    pub fn due_in(&self, here: Tz) -> Option<NaiveDate> {
        let due = self.due?;
        Some(match (self.due_time, self.zone) {
            (Some(time), Some(zone)) => {
                instant(due, time, zone).map_or(due, |at| at.with_timezone(&here).date_naive())
            }
            _ => due,
        })
    }

    /// Whether a sketch is among what it asks for.
    pub fn asks_for_sketch(&self) -> bool {
        self.asks.iter().any(|a| a.what == What::Sketch)
    }

    /// The moment at which its prize closes, where its hour and place are said.
    pub fn prize_at(&self) -> Option<DateTime<Utc>> {
        instant(self.prize?, self.prize_time?, self.zone?)
    }

    /// The moment by which it is due, where its hour and place are said.
    pub fn due_at(&self) -> Option<DateTime<Utc>> {
        instant(self.due?, self.due_time?, self.zone?)
    }
}

/// A day's hour in a place. In the hour that a clock skips in spring it is the moment at which the clock skips.
fn instant(day: NaiveDate, time: NaiveTime, zone: Tz) -> Option<DateTime<Utc>> {
    let local = day.and_time(time);
    let found = zone.from_local_datetime(&local);
    found
        .earliest()
        .or_else(|| {
            zone.from_local_datetime(&(local + chrono::TimeDelta::hours(1)))
                .earliest()
        })
        .map(|at| at.with_timezone(&Utc))
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
