//! Looking back over finished pages: how many of each sketch, kit, maker and colour, how long they took, and what has not been used for long.

use std::collections::{BTreeMap, BTreeSet};

/// What has not been on a page for so many months is told.
const LONG_AGO: i32 = 3;
/// At most so many of those are told.
const MOST_TOLD: usize = 6;

/// A month, counted through: twelve times the year and the month from 0.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Month(pub i32);

impl Month {
    /// The month of a year; `month` from 1.
    pub const fn of(year: i32, month: u8) -> Month {
        Month(year * 12 + month as i32 - 1)
    }

    /// `May 2026`.
    pub fn name(self) -> String {
        const NAMES: [&str; 12] = [
            "January",
            "February",
            "March",
            "April",
            "May",
            "June",
            "July",
            "August",
            "September",
            "October",
            "November",
            "December",
        ];
        let (year, month) = (self.0.div_euclid(12), self.0.rem_euclid(12));
        format!("{} {year}", NAMES[month as usize])
    }
}

/// A page that is finished, as it counts here.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct FinishedPage {
    /// When.
    pub month: Month,
    /// By whom.
    pub maker: String,
    /// From which sketch.
    pub sketch: String,
    /// Out of which kits its papers come.
    pub kits: BTreeSet<String>,
    /// The colours of its papers.
    pub colours: BTreeSet<String>,
    /// How long it took, where its log tells.
    pub minutes: Option<i64>,
}

/// How many pages have something.
pub type Tally = Vec<(String, usize)>;

/// What finished pages come to.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct LookedBack {
    /// By month, the newest first.
    pub months: Tally,
    /// By sketch, most first; so the others.
    pub sketches: Tally,
    /// By kit.
    pub kits: Tally,
    /// By maker.
    pub makers: Tally,
    /// By colour.
    pub colours: Tally,
    /// Minutes in all, and of how many pages they are known.
    pub minutes: (i64, usize),
    /// What has not been told for long, the longest first.
    pub not_for_long: Vec<String>,
}

fn tally<'a>(names: impl Iterator<Item = &'a String>) -> Tally {
    let mut counts: BTreeMap<&String, usize> = BTreeMap::new();
    for name in names.filter(|n| !n.is_empty()) {
        *counts.entry(name).or_insert(0) += 1;
    }
    let mut tally: Tally = counts.into_iter().map(|(n, c)| (n.clone(), c)).collect();
    tally.sort_by(|a, b| b.1.cmp(&a.1).then_with(|| a.0.cmp(&b.0)));
    tally
}

/// Looks back from a month over finished pages.
pub fn look_back(pages: &[FinishedPage], now: Month) -> LookedBack {
    let mut months: BTreeMap<Month, usize> = BTreeMap::new();
    for page in pages {
        *months.entry(page.month).or_insert(0) += 1;
    }
    let timed = || pages.iter().filter_map(|p| p.minutes);
    LookedBack {
        months: months
            .into_iter()
            .rev()
            .map(|(month, count)| (month.name(), count))
            .collect(),
        sketches: tally(pages.iter().map(|p| &p.sketch)),
        kits: tally(pages.iter().flat_map(|p| &p.kits)),
        makers: tally(pages.iter().map(|p| &p.maker)),
        colours: tally(pages.iter().flat_map(|p| &p.colours)),
        minutes: (timed().sum(), timed().count()),
        not_for_long: not_for_long(pages, now),
    }
}

/// “No page out of Lantern since May 2026.”
fn not_for_long(pages: &[FinishedPage], now: Month) -> Vec<String> {
    let mut last: BTreeMap<(&str, &String), Month> = BTreeMap::new();
    for page in pages {
        let kits = page.kits.iter().map(|k| ("out of", k));
        let makers = std::iter::once(("by", &page.maker));
        let colours = page.colours.iter().map(|c| ("with", c));
        for what in kits
            .chain(makers)
            .chain(colours)
            .filter(|w| !w.1.is_empty())
        {
            let newest = last.entry(what).or_insert(page.month);
            *newest = (*newest).max(page.month);
        }
    }
    let mut old: Vec<(Month, String)> = last
        .into_iter()
        .filter(|(_, month)| now.0 - month.0 >= LONG_AGO)
        .map(|((how, name), month)| {
            (
                month,
                format!("No page {how} {name} since {}.", month.name()),
            )
        })
        .collect();
    old.sort();
    old.into_iter()
        .take(MOST_TOLD)
        .map(|(_, told)| told)
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn page(month: u8, maker: &str, kit: &str, minutes: Option<i64>) -> FinishedPage {
        FinishedPage {
            month: Month::of(2026, month),
            maker: maker.to_owned(),
            sketch: "Flag row".to_owned(),
            kits: BTreeSet::from([kit.to_owned()]),
            colours: BTreeSet::new(),
            minutes,
        }
    }

    #[test]
    fn counts_add_up_and_what_was_long_ago_is_told_once() {
        let pages = [
            page(3, "Wren", "Ebb", Some(90)),
            page(8, "Wren", "Lantern", None),
            page(8, "Teal", "Lantern", Some(30)),
        ];
        let back = look_back(&pages, Month::of(2026, 9));
        assert_eq!(back.sketches, [("Flag row".to_owned(), 3)]);
        assert_eq!(back.kits[0], ("Lantern".to_owned(), 2));
        assert_eq!(back.months[0], ("August 2026".to_owned(), 2));
        assert_eq!(back.minutes, (120, 2));
        assert_eq!(back.not_for_long, ["No page out of Ebb since March 2026."]);
        assert_eq!(look_back(&[], Month::of(2026, 1)), LookedBack::default());
    }
}
