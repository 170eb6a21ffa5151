//! Days and moments between the core's calendar and the database's.

use chrono::{DateTime, Datelike, NaiveDate, Utc};
use chrono_tz::Tz;
use metrosk_core::document::Invalid;
use time::{Date, OffsetDateTime};

/// A day for the database. Calls have days of this era only, so each of them is one.
pub(crate) fn stored(day: NaiveDate) -> Option<Date> {
    Date::from_ordinal_date(day.year(), u16::try_from(day.ordinal()).ok()?).ok()
}

/// A day out of the database.
pub(crate) fn read(day: Date) -> Option<NaiveDate> {
    NaiveDate::from_yo_opt(day.year(), day.ordinal().into())
}

/// This moment.
pub(crate) fn now() -> DateTime<Utc> {
    let now = OffsetDateTime::now_utc();
    DateTime::from_timestamp(now.unix_timestamp(), 0).unwrap_or_default()
}

/// The day that it is now in a place.
pub(crate) fn today(zone: Tz) -> NaiveDate {
    now().with_timezone(&zone).date_naive()
}

/// The earliest day that it is anywhere now: what is due then is not past for everybody.
pub(crate) fn earliest_today() -> NaiveDate {
    (now() - chrono::TimeDelta::hours(12)).date_naive()
}

/// The zone of a name; of none, that of the world's clock.
pub(crate) fn zone(name: Option<&str>) -> Result<Tz, Invalid> {
    let name = name.unwrap_or("UTC");
    name.parse().map_err(|_| {
        Invalid::one(
            "zone",
            format!("“{}”", name.chars().take(60).collect::<String>()),
            "a time zone by its name, such as UTC or Europe/Lisbon",
        )
    })
}
