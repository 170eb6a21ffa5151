//! Calendars in iCalendar form (RFC 5545): a maker's dates for her own calendar, and calls out of a calendar that is brought in.

mod brought;

pub use brought::{Brought, MOST_EVENTS, brought};

use chrono::{DateTime, Duration, NaiveDate, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};

/// One date of a maker's.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Entry {
    /// Its own for all time, so that a calendar changes an entry instead of adding another.
    pub uid: String,
    /// What is to be on that day.
    pub name: String,
    /// The day.
    pub day: NaiveDate,
    /// The moment, where there is one: a prize that closes by the clock.
    pub at: Option<DateTime<Utc>>,
    /// What is asked, in words.
    pub text: String,
    /// Where to look.
    pub url: Option<String>,
    /// Whether the calendar is to remind her some days before.
    pub reminds: bool,
}

/// A calendar reminds this many days before.
const REMIND_DAYS: i64 = 3;

/// Writes a calendar of entries, as of a moment.
pub fn written(name: &str, entries: &[Entry], now: DateTime<Utc>) -> String {
    let mut calendar = Calendar::new();
    calendar.name(name).ttl(&Duration::hours(1));
    for entry in entries {
        let mut event = Event::with_uid(&entry.uid);
        event
            .summary(&entry.name)
            .description(&entry.text)
            .timestamp(now);
        match entry.at {
            // A moment that ends something takes no time of its own.
            Some(at) => event.starts(at).ends(at),
            None => event.all_day(entry.day),
        };
        if let Some(url) = &entry.url {
            event.url(url);
        }
        if entry.reminds {
            event.alarm(Alarm::display(&entry.name, -Duration::days(REMIND_DAYS)));
        }
        calendar.push(event.done());
    }
    calendar.to_string()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn entry(uid: &str, name: &str) -> Entry {
        Entry {
            uid: uid.to_owned(),
            name: name.to_owned(),
            day: "2026-11-28".parse().expect("a day"),
            at: None,
            text: "two pages; cold, wind,\nand a sledge".to_owned(),
            url: Some("https://slipway.example/season".to_owned()),
            reminds: true,
        }
    }

    /// What another reader of calendars finds: name and value of each event's properties.
    fn read_by_another(text: &str) -> Vec<Vec<(String, String)>> {
        let mut parser = ical::IcalParser::new(text.as_bytes());
        let calendar = parser
            .next()
            .expect("a calendar")
            .expect("it is well formed");
        assert!(parser.next().is_none());
        let properties = |e: ical::parser::ical::component::IcalEvent| {
            e.properties
                .into_iter()
                .map(|p| (p.name, p.value.unwrap_or_default()))
                .collect()
        };
        calendar.events.into_iter().map(properties).collect()
    }

    #[test]
    fn another_reader_finds_every_entry() {
        let long = "Kites ".repeat(40);
        let now = "2026-11-25T10:00:00Z".parse().expect("a moment");
        let mut prize = entry("p@metrosk", "Prize closes; hurry, all");
        prize.at = Some("2026-12-11T23:00:00Z".parse().expect("a moment"));
        let text = written("Slipway", &[entry("a@metrosk", &long), prize], now);
        let found = read_by_another(&text);
        assert_eq!(found.len(), 2);
        let value = |n: usize, name: &str| {
            let of = found[n].iter().find(|(k, _)| k == name);
            of.map(|(_, v)| v.as_str()).unwrap_or_default()
        };
        assert_eq!(value(0, "SUMMARY").trim(), long.trim());
        assert_eq!(value(0, "DTSTART"), "20261128");
        assert_eq!(value(0, "UID"), "a@metrosk");
        assert_eq!(value(1, "DTSTART"), "20261211T230000Z");
        assert_eq!(value(1, "SUMMARY"), r"Prize closes\; hurry\, all");
        assert_eq!(
            value(0, "DESCRIPTION"),
            r"two pages\; cold\, wind\,\nand a sledge"
        );
        assert!(text.lines().all(|l| l.len() <= 76), "long lines are folded");
    }

    #[test]
    fn what_is_written_is_read_again() {
        let now = "2026-11-25T10:00:00Z".parse().expect("a moment");
        let text = written("Slipway", &[entry("a@metrosk", "Out on the flats")], now);
        let today = "2026-11-25".parse().expect("a day");
        let found = brought(&text, today).expect("it is read");
        assert_eq!(found[0].call["name"], "Out on the flats");
        assert_eq!(found[0].call["due"], "2026-11-28");
        assert_eq!(
            found[0].call["text"],
            "two pages; cold, wind,\nand a sledge"
        );
    }
}
