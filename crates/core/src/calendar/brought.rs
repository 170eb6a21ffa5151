//! Calls out of the events of a calendar that is brought in.

use crate::calls::{Call, Every, LONGEST_NAME, LONGEST_TEXT, Repeat};
use crate::document::Invalid;
use chrono::{Datelike, NaiveDate, Timelike};
use icalendar::parser::{read_calendar, unfold};
use icalendar::{Calendar, CalendarDateTime, Component, DatePerhapsTime, Event};
use serde_json::{Map, Value, json};

/// Events of one calendar.
pub const MOST_EVENTS: usize = 1_000;
/// The largest calendar that is read, in bytes.
const LARGEST: usize = 2_000_000;
/// An event, as a call to be looked over.
#[derive(Clone, Debug, PartialEq)]
pub struct Brought {
    /// The call's document.
    pub call: Value,
    /// Whether it can be taken: it has a day that is still to come.
    pub comes: bool,
    /// What was left out or guessed, in words.
    pub notes: Vec<String>,
}

/// Reads a calendar's events as calls, by day; those that are past come last.
///
/// # Errors
/// When it is no calendar, is too large, or has none or too many events.
pub fn brought(text: &str, today: NaiveDate) -> Result<Vec<Brought>, Invalid> {
    let wrong = |found: String, allowed: &str| Err(Invalid::one("calendar", found, allowed));
    if text.len() > LARGEST {
        return wrong(format!("{} bytes", text.len()), "up to 2 MB");
    }
    // Counted before it is read: a count costs nothing.
    let count = text
        .lines()
        .filter(|l| l.trim_end().eq_ignore_ascii_case("BEGIN:VEVENT"))
        .count();
    if count > MOST_EVENTS {
        let allowed = format!("up to {MOST_EVENTS}: bring in a part of the calendar");
        return wrong(format!("{count} events"), &allowed);
    }
    let unfolded = unfold(text.trim_start_matches('\u{feff}'));
    let calendar: Calendar = match read_calendar(&unfolded) {
        Ok(read) => read.into(),
        Err(_) => {
            return wrong(
                "something that is no calendar".to_owned(),
                "a calendar file (.ics) with BEGIN:VCALENDAR at its top",
            );
        }
    };
    let mut found: Vec<Brought> = calendar.events().map(|e| call_of(e, today)).collect();
    if found.is_empty() {
        return wrong("a calendar without events".to_owned(), "one event or more");
    }
    found.sort_by_key(|b| {
        (
            !b.comes,
            b.call["due"].as_str().unwrap_or_default().to_owned(),
        )
    });
    Ok(found)
}

fn call_of(event: &Event, today: NaiveDate) -> Brought {
    let mut notes = Vec::new();
    let mut call = Map::new();
    let name = event.get_summary().map(plain).unwrap_or_default();
    let name = cut(
        name.split_whitespace()
            .collect::<Vec<_>>()
            .join(" ")
            .as_str(),
        LONGEST_NAME,
        "name",
        &mut notes,
    );
    let name = if name.is_empty() {
        "A call without a name".to_owned()
    } else {
        name
    };
    call.insert("name".to_owned(), name.into());
    if let Some(text) = event.get_description() {
        call.insert(
            "text".to_owned(),
            cut(plain(text).trim(), LONGEST_TEXT, "text", &mut notes).into(),
        );
    }
    let url = event.get_url().map(str::trim).unwrap_or_default();
    if url.starts_with("https://") || url.starts_with("http://") {
        call.insert(
            "links".to_owned(),
            json!([{"name": "from the calendar", "url": cut(url, 2_000, "link", &mut notes)}]),
        );
    }
    let start = event
        .get_start()
        .filter(|s| (1970..2200).contains(&day_of(s).year()));
    let Some(start) = start else {
        notes.push("it has no day that is understood".to_owned());
        return Brought {
            call: Value::Object(call),
            comes: false,
            notes,
        };
    };
    let day = next_day(event, day_of(&start), today, &mut call, &mut notes);
    call.insert("due".to_owned(), day.to_string().into());
    hour(&start, &mut call);
    let comes = day >= today;
    if !comes {
        notes.push("it is past".to_owned());
    }
    let call = Value::Object(call);
    debug_assert!(Call::from_json(&call).is_ok(), "{call}");
    Brought { call, comes, notes }
}

/// The event's day, or the next one where it comes again in a way that calls can.
fn next_day(
    event: &Event,
    start: NaiveDate,
    today: NaiveDate,
    call: &mut Map<String, Value>,
    notes: &mut Vec<String>,
) -> NaiveDate {
    let Some(rule) = event.property_value("RRULE") else {
        return start;
    };
    let Some((repeat, document)) = repeat_of(rule, start) else {
        notes.push("it comes again in a way that calls don't: taken once".to_owned());
        return start;
    };
    let day = repeat.from(start, today);
    call.insert("repeats".to_owned(), document);
    day
}

/// A rule that calls can follow: by weeks, by a day of the month, by a weekday of the month.
fn repeat_of(rule: &str, start: NaiveDate) -> Option<(Repeat, Value)> {
    let part = |name: &str| {
        rule.split(';')
            .filter_map(|p| p.split_once('='))
            .find(|(k, _)| k.eq_ignore_ascii_case(name))
            .map(|(_, v)| v.trim())
    };
    let interval: u32 = part("INTERVAL").map_or(Some(1), |n| n.parse().ok())?;
    let until = match (part("UNTIL"), part("COUNT")) {
        (_, Some(_)) => return None,
        (Some(until), None) => Some(NaiveDate::parse_from_str(until.get(..8)?, "%Y%m%d").ok()?),
        (None, None) => None,
    };
    let days = part("BYDAY").map(str::to_uppercase);
    let own =
        ["MO", "TU", "WE", "TH", "FR", "SA", "SU"][start.weekday().num_days_from_monday() as usize];
    let (name, number, every) = match (
        part("FREQ")?.to_uppercase().as_str(),
        days.as_deref(),
        part("BYMONTHDAY"),
    ) {
        ("WEEKLY", None, None) if (1..=12).contains(&interval) => {
            ("weeks", interval, Every::Weeks(interval))
        }
        ("WEEKLY", Some(day), None) if day == own && (1..=12).contains(&interval) => {
            ("weeks", interval, Every::Weeks(interval))
        }
        ("MONTHLY", None, by)
            if interval == 1 && by.is_none_or(|d| d == start.day().to_string()) =>
        {
            ("month-day", start.day(), Every::MonthDay(start.day()))
        }
        ("MONTHLY", Some(day), None) if interval == 1 && day.ends_with(own) => {
            let week = match day.strip_suffix(own)? {
                "-1" => 5,
                n => n.parse().ok().filter(|n| (1..=4).contains(n))?,
            };
            ("month-week", week, Every::MonthWeek(week))
        }
        _ => return None,
    };
    let mut document = json!({"every": name, "number": number});
    if let Some(until) = until {
        document["until"] = until.to_string().into();
    }
    Some((Repeat { every, until }, document))
}

fn day_of(start: &DatePerhapsTime) -> NaiveDate {
    match start {
        DatePerhapsTime::Date(day) => *day,
        DatePerhapsTime::DateTime(CalendarDateTime::Floating(at)) => at.date(),
        DatePerhapsTime::DateTime(CalendarDateTime::Utc(at)) => at.date_naive(),
        DatePerhapsTime::DateTime(CalendarDateTime::WithTimezone { date_time, .. }) => {
            date_time.date()
        }
    }
}

/// The hour and its zone, where the event has them.
fn hour(start: &DatePerhapsTime, call: &mut Map<String, Value>) {
    let (time, zone) = match start {
        DatePerhapsTime::DateTime(CalendarDateTime::Utc(at)) => (at.time(), "UTC"),
        DatePerhapsTime::DateTime(CalendarDateTime::WithTimezone { date_time, tzid })
            if tzid.parse::<chrono_tz::Tz>().is_ok() =>
        {
            (date_time.time(), tzid.as_str())
        }
        _ => return,
    };
    call.insert(
        "due_time".to_owned(),
        format!("{:02}:{:02}", time.hour(), time.minute()).into(),
    );
    call.insert("zone".to_owned(), zone.into());
}

/// A text of a calendar with its escapes taken back.
fn plain(text: &str) -> String {
    let mut plain = String::with_capacity(text.len());
    let mut signs = text.chars();
    while let Some(sign) = signs.next() {
        match (sign, sign == '\\') {
            (_, true) => match signs.next() {
                Some('n' | 'N') => plain.push('\n'),
                Some(other) => plain.push(other),
                None => {}
            },
            // No maker means a control character, and the database keeps no NUL.
            (s, false) if s.is_control() && s != '\n' => {}
            (s, false) => plain.push(s),
        }
    }
    plain
}

fn cut(text: &str, most: usize, what: &str, notes: &mut Vec<String>) -> String {
    let length = text.chars().count();
    if length > most {
        notes.push(format!(
            "its {what} is {length} characters long: the first {most} are taken"
        ));
    }
    text.chars().take(most).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn of(lines: &str) -> Result<Vec<Brought>, Invalid> {
        let text = format!(
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n{lines}END:VCALENDAR\r\n"
        );
        brought(&text, "2026-11-25".parse().expect("a day"))
    }

    fn event(start: &str, more: &str) -> String {
        format!(
            "BEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Sketch day\r\nDTSTART{start}\r\n{more}END:VEVENT\r\n"
        )
    }

    #[test]
    fn an_event_becomes_a_call() {
        let found = of(&event(
            ";TZID=Europe/Lisbon:20261203T230000",
            "URL:https://slipway.example/x\r\n",
        ))
        .expect("it is read");
        let call = &found[0].call;
        assert_eq!(
            (&call["name"], &call["due"]),
            (&"Sketch day".into(), &"2026-12-03".into())
        );
        assert_eq!(
            (&call["due_time"], &call["zone"]),
            (&"23:00".into(), &"Europe/Lisbon".into())
        );
        assert_eq!(call["links"][0]["url"], "https://slipway.example/x");
        assert!(found[0].comes && found[0].notes.is_empty());
    }

    #[test]
    fn what_comes_again_is_taken_from_its_next_day_on() {
        for (rule, start, due, every) in [
            (
                "FREQ=WEEKLY;INTERVAL=2;BYDAY=SA",
                "20261031",
                "2026-11-28",
                "weeks",
            ),
            (
                "FREQ=MONTHLY;BYDAY=1SA",
                "20260704",
                "2026-12-05",
                "month-week",
            ),
            (
                "FREQ=MONTHLY;BYDAY=-1SA",
                "20260725",
                "2026-11-28",
                "month-week",
            ),
            (
                "FREQ=MONTHLY;BYMONTHDAY=1",
                "20260101",
                "2026-12-01",
                "month-day",
            ),
        ] {
            let found = of(&event(
                &format!(";VALUE=DATE:{start}"),
                &format!("RRULE:{rule}\r\n"),
            ))
            .expect("it is read");
            let call = &found[0].call;
            assert_eq!(
                (&call["due"], &call["repeats"]["every"]),
                (&due.into(), &every.into()),
                "{rule}"
            );
            assert!(found[0].notes.is_empty(), "{:?}", found[0].notes);
        }
    }

    #[test]
    fn hostile_rules_are_taken_once() {
        for rule in [
            "FREQ=SECONDLY",
            "FREQ=DAILY;BYHOUR=1,2,3",
            "FREQ=WEEKLY;INTERVAL=99999999999",
            "FREQ=WEEKLY;COUNT=1000000000",
            "FREQ=",
            "",
            "RRULE",
        ] {
            let found = of(&event(";VALUE=DATE:19710101", &format!("RRULE:{rule}\r\n")))
                .expect("it is read");
            assert!(!found[0].comes);
            assert!(
                found[0].notes[0].contains("taken once"),
                "{rule}: {:?}",
                found[0].notes
            );
        }
        let found =
            of(&event(";VALUE=DATE:19880102", "RRULE:FREQ=WEEKLY\r\n")).expect("it is read");
        assert_eq!(found[0].call["due"], "2026-11-28");
    }

    #[test]
    fn what_is_no_calendar_or_too_much_is_told() {
        let told = |text: &str| {
            let today = "2026-11-25".parse().expect("a day");
            brought(text, today).expect_err("it is wrong").findings[0]
                .found
                .clone()
        };
        assert_eq!(told("hello"), "something that is no calendar");
        let many = event(";VALUE=DATE:20261201", "").repeat(10_000);
        assert_eq!(told(&many), "10000 events");
        assert!(of("").is_err());
        let odd = of("BEGIN:VEVENT\r\nSUMMARY:No day\r\nEND:VEVENT\r\n").expect("it is read");
        assert!(!odd[0].comes);
    }
}
