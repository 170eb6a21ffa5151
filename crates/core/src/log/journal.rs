//! A page's entries as one text, and the time that it took.

use super::decisions::{Entry, EntryKind};
use chrono::{DateTime, FixedOffset, NaiveDate, Utc};

/// A longer pause than this, in minutes, is no work on the page.
const PAUSE: i64 = 45;
/// What lies further ahead than this, in minutes, comes from a clock that is wrong.
const AHEAD: i64 = 10;

/// A day's entries, the first first.
#[derive(Clone, Debug, PartialEq)]
pub struct Day<'a> {
    /// Where she was.
    pub day: NaiveDate,
    /// In order of time.
    pub entries: Vec<&'a Entry>,
}

/// The entries day by day.
pub fn journal(entries: &[Entry]) -> Vec<Day<'_>> {
    let mut sorted: Vec<&Entry> = entries.iter().collect();
    sorted.sort_by_key(|e| e.at);
    let mut days: Vec<Day<'_>> = Vec::new();
    for entry in sorted {
        let day = entry.at.date_naive();
        match days.last_mut().filter(|d| d.day == day) {
            Some(today) => today.entries.push(entry),
            None => days.push(Day {
                day,
                entries: vec![entry],
            }),
        }
    }
    days
}

/// Minutes that the page took: from entry to entry, without the pauses between.
pub fn minutes_taken(entries: &[Entry]) -> i64 {
    let mut times: Vec<DateTime<FixedOffset>> = entries
        .iter()
        .filter(|e| e.kind != EntryKind::Note)
        .map(|e| e.at)
        .collect();
    times.sort_unstable();
    let gaps = times.windows(2).map(|w| (w[1] - w[0]).num_seconds());
    let worked: i64 = gaps.filter(|s| *s <= PAUSE * 60).sum();
    (worked + 30) / 60
}

/// Entries that lie ahead of now, by their ids: their clock was wrong.
pub fn ahead_of(entries: &[Entry], now: DateTime<Utc>) -> Vec<&str> {
    let limit = now + chrono::Duration::minutes(AHEAD);
    let ahead = entries.iter().filter(|e| e.at > limit);
    ahead.map(|e| e.id.as_str()).collect()
}
