//! A season, as it crosses the wire.

use chrono::NaiveDate;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A team's calls, and what follows from them for who looks.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct SeasonView {
    /// The day that it is where she lives.
    pub(crate) today: NaiveDate,
    /// By when they are due; undated ones last.
    pub(crate) calls: Vec<SeasonCallView>,
    /// From when on the team's makers have nothing left to make.
    pub(crate) free: Vec<FreeView>,
    /// What is due, late, open, and what waits for whom: hers first.
    pub(crate) notices: Vec<NoticeView>,
}

/// A call in the season.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct SeasonCallView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// `challenge`, `kit`, `scraplift` or `hop`
    pub(crate) kind: String,
    /// The day it is due where she lives.
    pub(crate) due: Option<NaiveDate>,
    /// The moment, where an hour is set: in UTC.
    pub(crate) due_at: Option<String>,
    /// When it is shown to all.
    pub(crate) shown: Option<NaiveDate>,
    /// When a prize closes.
    pub(crate) prize: Option<NaiveDate>,
    /// The moment, where an hour is set: in UTC.
    pub(crate) prize_at: Option<String>,
    /// Whether nobody has taken it, and there is still time.
    pub(crate) open: bool,
    /// Whether it is one of several that come again.
    pub(crate) comes_again: bool,
    /// Who takes part.
    pub(crate) makers: Vec<MakerView>,
}

/// Somebody who takes part in a call.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct MakerView {
    /// Her id.
    pub(crate) person: Uuid,
    /// Her name.
    pub(crate) name: String,
    /// Whether that is she who looks.
    pub(crate) me: bool,
    /// Her page, once she has begun it.
    pub(crate) page: Option<Uuid>,
    /// Its name.
    pub(crate) page_name: Option<String>,
    /// How many of its ten stations are settled.
    pub(crate) settled: usize,
    /// Whether it is done.
    pub(crate) finished: bool,
    /// Her own day, where it is not the call's: her place in a hop.
    pub(crate) due: Option<NaiveDate>,
    /// How many days late it is.
    pub(crate) late_days: Option<i64>,
    /// In a hop, whose page she waits for.
    pub(crate) waits_for: Option<String>,
}

/// From when on a maker has nothing left to make.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct FreeView {
    /// Her name.
    pub(crate) maker: String,
    /// The first such day.
    pub(crate) from: NaiveDate,
}

/// What she is to be told.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct NoticeView {
    /// `late`, `your-turn`, `due`, `open` or `waits`
    pub(crate) what: String,
    /// Which call it is about.
    pub(crate) call: Uuid,
    /// Her page for it, where there is one.
    pub(crate) page: Option<Uuid>,
    /// Whether it concerns her who looks.
    pub(crate) mine: bool,
    /// In words.
    pub(crate) text: String,
}
