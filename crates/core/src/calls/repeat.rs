//! Calls that come again: every second Saturday, the first of the month.

use super::read::read_day;
use crate::document::Node;
use chrono::{Datelike, NaiveDate, NaiveTime, TimeDelta, Weekday};
use rrule::{Frequency, NWeekday, RRule, Tz};
use serde_json::Value;

/// How a call comes again, counted from the day that it is due.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Repeat {
    /// By what.
    pub every: Every,
    /// The last day it may fall on.
    pub until: Option<NaiveDate>,
}

/// By what a call comes again.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Every {
    /// So many weeks, 1 to 12, on the same weekday.
    Weeks(u32),
    /// On that day of each month; a shorter month's last day where it has none.
    MonthDay(u32),
    /// On the same weekday of the month's first to fourth week, or (5) its last.
    MonthWeek(u32),
}

/// The most weeks between two.
const MOST_WEEKS: u32 = 12;
/// Between a day of a month and that of the next there are fewer days than these.
const MORE_THAN_A_MONTH: i64 = 42;
const NAMES: [&str; 3] = ["weeks", "month-day", "month-week"];

impl Repeat {
    /// Reads `{"every": "weeks", "number": 2, "until": "2027-06-30"}`.
    pub(super) fn read(node: &Node<'_>) -> Option<Repeat> {
        node.object()?;
        let every = node
            .need("every", &NAMES.join(", "))
            .and_then(|n| n.one_of(&NAMES, |w| NAMES.iter().position(|k| *k == w)));
        let most = [MOST_WEEKS, 31, 5][every.unwrap_or_default()];
        let number = node
            .need("number", "a number")
            .and_then(|n| n.count(1, most));
        let until = node
            .get("until")
            .map_or(Some(None), |n| read_day(&n).map(Some));
        let number = number?;
        Some(Repeat {
            every: match every? {
                0 => Every::Weeks(number),
                1 => Every::MonthDay(number),
                _ => Every::MonthWeek(number),
            },
            until: until?,
        })
    }

    /// The day on which it comes after one on which it was; none after its last.
    pub fn after(&self, day: NaiveDate) -> Option<NaiveDate> {
        let start = day.and_time(NaiveTime::MIN).and_local_timezone(Tz::UTC);
        let set = self.rule(day).build(start.single()?).ok()?;
        let next = set
            .into_iter()
            .map(|at| at.date_naive())
            .find(|d| *d > day)?;
        (self.until.is_none_or(|until| next <= until)).then_some(next)
    }

    /// The first of its days from today on, when it began long ago; the last of them where it has ended.
    pub fn from(&self, start: NaiveDate, today: NaiveDate) -> NaiveDate {
        // Near to today by arithmetic, so that a row that began long ago takes no longer.
        let near = match self.every {
            Every::Weeks(weeks) => {
                let span = i64::from(weeks) * 7;
                later(start, (today - start).num_days() / span * span)
            }
            Every::MonthDay(_) => later(today, -MORE_THAN_A_MONTH),
            Every::MonthWeek(_) => {
                let days = (today - start).num_days() - MORE_THAN_A_MONTH;
                later(start, days / 7 * 7)
            }
        };
        let mut day = near.map_or(start, |near| near.max(start));
        while day < today {
            match self.after(day) {
                Some(next) => day = next,
                None => break,
            }
        }
        self.until.map_or(day, |until| day.min(until.max(start)))
    }

    fn rule(&self, day: NaiveDate) -> RRule<rrule::Unvalidated> {
        match self.every {
            // Weeks are counted from the day itself, whatever day a week begins with.
            Every::Weeks(n) => RRule::new(Frequency::Weekly)
                .interval(u16::try_from(n).unwrap_or(1))
                .week_start(day.weekday())
                .by_weekday(vec![NWeekday::Every(day.weekday())]),
            Every::MonthDay(n) => {
                // Of the days from the 28th to the wished one, the last that the month has.
                let wished: Vec<i8> = (n.min(28)..=n)
                    .filter_map(|d| i8::try_from(d).ok())
                    .collect();
                RRule::new(Frequency::Monthly)
                    .by_month_day(wished)
                    .by_set_pos(vec![-1])
            }
            Every::MonthWeek(n) => {
                RRule::new(Frequency::Monthly).by_weekday(vec![nth(n, day.weekday())])
            }
        }
    }
}

/// The weekday of a month's week; the fifth is the last.
const fn nth(week: u32, weekday: Weekday) -> NWeekday {
    NWeekday::Nth(if week >= 5 { -1 } else { week as i16 }, weekday)
}

/// A call's document as it comes again on another day: every date goes on by as many days as it does.
pub fn again(document: &Value, due: NaiveDate, next: NaiveDate) -> Value {
    let mut document = document.clone();
    for name in ["due", "shown", "prize"] {
        let day = document
            .get(name)
            .and_then(Value::as_str)
            .and_then(|t| t.parse::<NaiveDate>().ok());
        if let Some(moved) = day.and_then(|d| d.checked_add_signed(next - due)) {
            document[name] = moved.to_string().into();
        }
    }
    document
}

/// So many days later.
pub(super) fn later(day: NaiveDate, days: i64) -> Option<NaiveDate> {
    day.checked_add_signed(TimeDelta::try_days(days)?)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(text: &str) -> NaiveDate {
        text.parse().expect("the test's own day")
    }

    fn row(every: Every, from: &str) -> Vec<String> {
        let repeat = Repeat { every, until: None };
        let mut at = day(from);
        (0..4)
            .map(|_| {
                at = repeat.after(at).expect("it comes again");
                at.to_string()
            })
            .collect()
    }

    #[test]
    fn every_second_saturday_keeps_its_weekday() {
        assert_eq!(
            row(Every::Weeks(2), "2026-11-28"),
            ["2026-12-12", "2026-12-26", "2027-01-09", "2027-01-23"]
        );
        assert_eq!(row(Every::Weeks(1), "2026-12-30")[0], "2027-01-06");
    }

    #[test]
    fn a_months_first_and_its_last_day() {
        assert_eq!(
            row(Every::MonthDay(1), "2026-12-01"),
            ["2027-01-01", "2027-02-01", "2027-03-01", "2027-04-01"]
        );
        // February has no 31st, and March has it again.
        assert_eq!(
            row(Every::MonthDay(31), "2026-12-31"),
            ["2027-01-31", "2027-02-28", "2027-03-31", "2027-04-30"]
        );
    }

    #[test]
    fn a_months_first_saturday_and_its_last() {
        assert_eq!(
            row(Every::MonthWeek(1), "2026-12-05"),
            ["2027-01-02", "2027-02-06", "2027-03-06", "2027-04-03"]
        );
        assert_eq!(row(Every::MonthWeek(5), "2026-11-28")[0], "2026-12-26");
    }

    #[test]
    fn it_ends_on_its_last_day_and_takes_all_dates_along() {
        let repeat = Repeat {
            every: Every::Weeks(1),
            until: Some(day("2026-12-05")),
        };
        assert_eq!(repeat.after(day("2026-11-28")), Some(day("2026-12-05")));
        assert_eq!(repeat.after(day("2026-12-05")), None);
        let call = serde_json::json!({"name": "x", "due": "2026-11-28", "shown": "2026-12-01", "prize": "2026-12-11"});
        let next = again(&call, day("2026-11-28"), day("2026-12-12"));
        assert_eq!(
            (&next["due"], &next["shown"], &next["prize"]),
            (
                &"2026-12-12".into(),
                &"2026-12-15".into(),
                &"2026-12-25".into()
            )
        );
    }
}
