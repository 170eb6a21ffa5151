//! Days in a line of text, and what they are said to be for.

use super::pattern;
use crate::calls::repeat::later;
use chrono::{Datelike, NaiveDate, NaiveTime, Weekday};
use regex::{Captures, Regex};
use std::ops::Range;
use std::sync::LazyLock;

/// A day as it stands in a text.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct DayFound {
    /// The words that name it.
    pub(super) words: String,
    pub(super) day: NaiveDate,
    /// The hour that is named after it, and the zone of its clock.
    pub(super) time: Option<(NaiveTime, Option<&'static str>)>,
    /// What it is said to be for.
    pub(super) role: Option<Role>,
}

/// What a day may be for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Role {
    Due,
    Shown,
    Prize,
}

/// A day without a year that is longer ago than this is next year's.
const DAYS_BACK: i64 = 30;

const MONTHS: &str = "jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?";
const WEEKDAYS: &str = "mon(?:day)?|tue(?:s(?:day)?)?|wed(?:nesday)?|thu(?:r(?:s(?:day)?)?)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?";

type DayOf = fn(&Captures<'_>, NaiveDate) -> Option<NaiveDate>;

/// The ways in which days are written, the plainest first.
static WAYS: LazyLock<Vec<(Regex, DayOf)>> = LazyLock::new(|| {
    let before = format!(r"(?i)\b(?:(?:{WEEKDAYS})\.?,?\s+)?(?:the\s+)?");
    let day = r"(\d{1,2})(?:st|nd|rd|th)?";
    let year = r"(?:,?\s+(\d{4}))?\b";
    let ways: [(String, DayOf); 6] = [
        (r"\b(\d{4})-(\d{2})-(\d{2})\b".to_owned(), |f, _| {
            date(&f[1], &f[2], &f[3])
        }),
        (
            format!(r"{before}{day}\.?\s+(?:of\s+)?({MONTHS})\b\.?{year}"),
            |f, today| named(f.get(3).map(|m| m.as_str()), &f[2], &f[1], today),
        ),
        (
            format!(r"{before}({MONTHS})\.?\s+{day}{year}"),
            |f, today| named(f.get(3).map(|m| m.as_str()), &f[1], &f[2], today),
        ),
        (r"\b(\d{1,2})\.(\d{1,2})\.(\d{4})\b".to_owned(), |f, _| {
            date(&f[3], &f[2], &f[1])
        }),
        // With strokes the month is first, unless that can't be.
        (r"\b(\d{1,2})/(\d{1,2})/(\d{4})\b".to_owned(), |f, _| {
            date(&f[3], &f[1], &f[2]).or_else(|| date(&f[3], &f[2], &f[1]))
        }),
        (
            format!(r"(?i)\b(?:by|on|until|next|this|before)\s+({WEEKDAYS})\b"),
            |f, today| next_weekday(&f[1], today),
        ),
    ];
    ways.into_iter()
        .map(|(text, day)| (pattern(&text), day))
        .collect()
});

static TIME: LazyLock<Regex> = LazyLock::new(|| {
    pattern(
        r"(?i)^[\s,]*(?:at|by|before|until)?\s*(\d{1,2})(?:[:.](\d{2}))?\s*([ap])?\.?m?\.?\b\s*(utc|gmt)?",
    )
});

/// Words that say what a day is for.
static ROLES: LazyLock<Vec<(Regex, Role)>> = LazyLock::new(|| {
    [
        (r"(?i)\b(?:prize|prizes|giveaway|draw|winners?|entries close|link-?up closes|closes)\b", Role::Prize),
        (r"(?i)\b(?:go(?:es)? live|live on|publish(?:ed|es|ing)?|reveal(?:ed|s)?|shown|posted|post(?:s|ing)?|online)\b", Role::Shown),
        (r"(?i)\b(?:due|by|deadline|until|before|send|submit|hand(?:ed)? in|in my hands|with me)\b", Role::Due),
    ]
    .into_iter()
    .map(|(text, role)| (pattern(text), role))
    .collect()
});

/// The days that a line names, in its order.
pub(super) fn in_line(line: &str, today: NaiveDate) -> Vec<DayFound> {
    let mut found: Vec<(Range<usize>, NaiveDate)> = Vec::new();
    for (way, day) in WAYS.iter() {
        for captures in way.captures_iter(line) {
            let Some(all) = captures.get(0) else { continue };
            let is_taken = found
                .iter()
                .any(|(r, _)| r.start < all.end() && all.start() < r.end);
            if let (false, Some(day)) = (is_taken, day(&captures, today)) {
                found.push((all.range(), day));
            }
        }
    }
    found.sort_by_key(|(range, _)| range.start);
    let mut from = 0;
    found
        .into_iter()
        .map(|(range, day)| {
            let role = role_in(&line[from..range.end]);
            from = range.end;
            DayFound {
                words: line[range.clone()].trim().to_owned(),
                day,
                time: time_after(&line[range.end..]),
                role,
            }
        })
        .collect()
}

/// The last word before a day that says what it is for; a prize and a showing are meant more than a plain “by”.
fn role_in(words: &str) -> Option<Role> {
    let last = |regex: &Regex| regex.find_iter(words).last().map(|m| m.start());
    ROLES
        .iter()
        .filter_map(|(regex, role)| last(regex).map(|at| (at, *role)))
        .max_by_key(|(at, role)| (*role != Role::Due, *at))
        .map(|(_, role)| role)
}

fn time_after(words: &str) -> Option<(NaiveTime, Option<&'static str>)> {
    let found = TIME.captures(words)?;
    let (minutes, half) = (found.get(2), found.get(3));
    if minutes.is_none() && half.is_none() {
        return None;
    }
    let hour: u32 = found[1].parse().ok()?;
    let minute: u32 = minutes.map_or(Some(0), |m| m.as_str().parse().ok())?;
    let hour = match half.map(|h| h.as_str().to_lowercase()).as_deref() {
        Some("p") if hour < 12 => hour + 12,
        Some("a") if hour == 12 => 0,
        _ => hour,
    };
    let zone = found.get(4).map(|_| "UTC");
    Some((NaiveTime::from_hms_opt(hour, minute, 0)?, zone))
}

fn date(year: &str, month: &str, day: &str) -> Option<NaiveDate> {
    let year = year.parse().ok().filter(|y| (1900..2200).contains(y))?;
    NaiveDate::from_ymd_opt(year, month.parse().ok()?, day.parse().ok()?)
}

/// A day by its month's name; of the year that brings it nearest, where none is said.
fn named(year: Option<&str>, month: &str, day: &str, today: NaiveDate) -> Option<NaiveDate> {
    let month = month
        .get(..3)?
        .parse::<chrono::Month>()
        .ok()?
        .number_from_month();
    if let Some(year) = year {
        return date(year, &month.to_string(), day);
    }
    let day: u32 = day.parse().ok()?;
    let least = later(today, -DAYS_BACK)?;
    (today.year() - 1..=today.year() + 8)
        .filter_map(|y| NaiveDate::from_ymd_opt(y, month, day))
        .find(|d| *d >= least)
}

/// The next such weekday after today.
fn next_weekday(name: &str, today: NaiveDate) -> Option<NaiveDate> {
    let weekday = name.get(..3)?.parse::<Weekday>().ok()?;
    let days = (weekday.num_days_from_monday() + 7 - today.weekday().num_days_from_monday()) % 7;
    later(today, i64::from(if days == 0 { 7 } else { days }))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn days(line: &str) -> Vec<(String, Option<Role>)> {
        let today = "2026-11-25".parse().expect("a day");
        in_line(line, today)
            .into_iter()
            .map(|f| (f.day.to_string(), f.role))
            .collect()
    }

    #[test]
    fn days_are_read_in_the_usual_ways() {
        for (line, day) in [
            ("due 2026-12-03", "2026-12-03"),
            ("due Thursday, 3rd of December", "2026-12-03"),
            ("due Dec 3", "2026-12-03"),
            ("due December 3rd, 2026", "2026-12-03"),
            ("due 3.12.2026", "2026-12-03"),
            ("due 12/3/2026", "2026-12-03"),
            ("due 13/12/2026", "2026-12-13"),
            ("due by Thursday", "2026-11-26"),
            ("due by wed", "2026-12-02"),
            ("due 10 January", "2027-01-10"),
            ("due 1 November", "2026-11-01"),
        ] {
            assert_eq!(days(line), [(day.to_owned(), Some(Role::Due))], "{line}");
        }
    }

    #[test]
    fn what_is_no_day_is_none() {
        for line in [
            "3 of 4 papers",
            "12 x 12",
            "31 February",
            "99/99/2026",
            "mayfly",
            "sat on a sledge",
        ] {
            assert!(days(line).is_empty(), "{line}");
        }
    }

    #[test]
    fn each_day_has_its_own_role() {
        assert_eq!(
            days("Send it by 3 December, it goes live 5 December and the prize closes 11 December"),
            [
                ("2026-12-03".to_owned(), Some(Role::Due)),
                ("2026-12-05".to_owned(), Some(Role::Shown)),
                ("2026-12-11".to_owned(), Some(Role::Prize)),
            ]
        );
    }

    #[test]
    fn hours_are_read_after_a_day() {
        let today = "2026-11-25".parse().expect("a day");
        let time = |line: &str| {
            in_line(line, today)[0]
                .time
                .map(|(t, z)| (t.format("%H:%M").to_string(), z))
        };
        assert_eq!(
            time("due 3 Dec at 11 pm UTC"),
            Some(("23:00".to_owned(), Some("UTC")))
        );
        assert_eq!(time("due 3 Dec, 23:59"), Some(("23:59".to_owned(), None)));
        assert_eq!(time("due 3 Dec, 12 photos"), None);
        assert_eq!(time("due 3 Dec 12:15 am"), Some(("00:15".to_owned(), None)));
    }
}
