//! A team's season: who makes what, who is free, what is late, and what each maker is to be reminded of.

use chrono::{NaiveDate, TimeDelta};

/// A call, as the season sees it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SeasonCall {
    /// Its name.
    pub name: String,
    /// The day it is due where she who looks lives.
    pub due: Option<NaiveDate>,
    /// Who takes part, in the order of the taking.
    pub makers: Vec<Taking>,
}

/// A maker who takes part in a call.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Taking {
    /// Her name, as the team knows her.
    pub maker: String,
    /// How far her page is.
    pub stands: Stands,
    /// Her own day, where it is not the call's: her place in a hop.
    pub due: Option<NaiveDate>,
    /// In a hop, whose page she waits for.
    pub waits_for: Option<String>,
}

/// How far a maker's page is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stands {
    /// Not begun.
    Taken,
    /// Being made.
    Begun,
    /// Done.
    Finished,
}

/// A week ahead she is reminded.
const AHEAD_DAYS: i64 = 7;
/// So far ahead it is said that nobody has a call yet.
const OPEN_AHEAD_DAYS: i64 = 14;

impl Taking {
    fn due_of(&self, call: &SeasonCall) -> Option<NaiveDate> {
        self.due.or(call.due)
    }
}

impl SeasonCall {
    /// Days that a maker's page is late, 1 or more; none where it is done or still in time.
    pub fn late_days(&self, taking: &Taking, today: NaiveDate) -> Option<i64> {
        let late = (today - taking.due_of(self)?).num_days();
        (late > 0 && taking.stands != Stands::Finished).then_some(late)
    }

    /// Whether nobody has taken it, and there is still time.
    pub fn is_open(&self, today: NaiveDate) -> bool {
        self.makers.is_empty() && self.due.is_none_or(|due| due >= today)
    }
}

/// The first day on which a maker has nothing left to make: the day after the last that she has taken, today where she has none.
pub fn free_from(maker: &str, calls: &[SeasonCall], today: NaiveDate) -> NaiveDate {
    let last = calls
        .iter()
        .flat_map(|c| c.makers.iter().map(move |t| (c, t)))
        .filter(|(_, t)| t.maker == maker && t.stands != Stands::Finished)
        .filter_map(|(c, t)| t.due_of(c))
        .max();
    last.map_or(today, |last| (last + TimeDelta::days(1)).max(today))
}

/// Something a maker is to be told of.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Notice {
    /// Which of the calls.
    pub call: usize,
    /// What it is.
    pub what: NoticeKind,
    /// Whom it concerns; nobody yet for an open call.
    pub maker: Option<String>,
    /// In words.
    pub text: String,
}

/// What a notice is of, the most pressing first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum NoticeKind {
    /// A page is late.
    Late,
    /// The page before hers in a hop is settled: hers can begin.
    YourTurn,
    /// A page is due within the week.
    Due,
    /// Nobody has a call that is due soon.
    Open,
    /// She waits for the page before hers.
    Waits,
}

impl NoticeKind {
    /// The name that crosses the wire.
    pub const fn name(self) -> &'static str {
        match self {
            NoticeKind::Late => "late",
            NoticeKind::YourTurn => "your-turn",
            NoticeKind::Due => "due",
            NoticeKind::Open => "open",
            NoticeKind::Waits => "waits",
        }
    }
}

/// What is due this week, late, open, and what waits for whom: what concerns `me` first, then the most pressing.
pub fn notices(me: &str, calls: &[SeasonCall], today: NaiveDate) -> Vec<Notice> {
    let mut found = Vec::new();
    for (n, call) in calls.iter().enumerate() {
        for taking in &call.makers {
            found.extend(notice_of(me, n, call, taking, today));
        }
        let days = call.due.map(|due| (due - today).num_days());
        if call.is_open(today) && days.is_some_and(|d| d <= OPEN_AHEAD_DAYS) {
            let when = in_days(days.unwrap_or_default());
            found.push(Notice {
                call: n,
                what: NoticeKind::Open,
                maker: None,
                text: format!("Nobody has “{}” yet; it is due {when}.", call.name),
            });
        }
    }
    found.sort_by_key(|notice| {
        let due = calls[notice.call].due;
        (
            notice.maker.as_deref() != Some(me),
            notice.what,
            due,
            notice.call,
        )
    });
    found
}

fn notice_of(
    me: &str,
    n: usize,
    call: &SeasonCall,
    taking: &Taking,
    today: NaiveDate,
) -> Option<Notice> {
    let mine = taking.maker == me;
    let (name, maker) = (&call.name, &taking.maker);
    if taking.stands == Stands::Finished {
        return None;
    }
    let days = taking.due_of(call).map(|due| (due - today).num_days());
    let is_soon = days.is_some_and(|d| d <= AHEAD_DAYS);
    let is_hop = taking.due.is_some();
    let (what, text) = match (call.late_days(taking, today), &taking.waits_for) {
        (_, Some(before)) if is_soon => (
            NoticeKind::Waits,
            format!("{} “{name}” waits for {before}’s page.", whose(mine, maker)),
        ),
        (Some(late), _) => (
            NoticeKind::Late,
            format!(
                "{} “{name}” is {} late.",
                whose(mine, maker),
                in_words(late)
            ),
        ),
        (None, None) if mine && is_hop && taking.stands == Stands::Taken => (
            NoticeKind::YourTurn,
            format!("“{name}” is yours now: the page before it is settled."),
        ),
        (None, None) if is_soon => (
            NoticeKind::Due,
            format!("{} “{name}” is due {}.", whose(mine, maker), in_days(days?)),
        ),
        _ => return None,
    };
    Some(Notice {
        call: n,
        what,
        maker: Some(maker.clone()),
        text,
    })
}

fn whose(mine: bool, maker: &str) -> String {
    if mine {
        "Your".to_owned()
    } else {
        format!("{maker}’s")
    }
}

fn in_words(days: i64) -> String {
    if days == 1 {
        "a day".to_owned()
    } else {
        format!("{days} days")
    }
}

/// “today”, “tomorrow”, “in 3 days”.
fn in_days(days: i64) -> String {
    match days {
        0 => "today".to_owned(),
        1 => "tomorrow".to_owned(),
        n => format!("in {n} days"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn day(text: &str) -> NaiveDate {
        text.parse().expect("a day")
    }

    fn call(name: &str, due: &str, makers: &[(&str, Stands)]) -> SeasonCall {
        SeasonCall {
            name: name.to_owned(),
            due: Some(day(due)),
            makers: makers
                .iter()
                .map(|(maker, stands)| Taking {
                    maker: (*maker).to_owned(),
                    stands: *stands,
                    due: None,
                    waits_for: None,
                })
                .collect(),
        }
    }

    fn season() -> Vec<SeasonCall> {
        let mut hop = call(
            "The hop",
            "2026-12-05",
            &[
                ("Gull", Stands::Finished),
                ("Wren", Stands::Taken),
                ("Teal", Stands::Taken),
            ],
        );
        for (taking, due) in hop
            .makers
            .iter_mut()
            .zip(["2026-11-14", "2026-11-28", "2026-12-02"])
        {
            taking.due = Some(day(due));
        }
        hop.makers[2].waits_for = Some("Wren".to_owned());
        vec![
            call(
                "From behind",
                "2026-11-21",
                &[("Plover", Stands::Begun), ("Wren", Stands::Finished)],
            ),
            hop,
            call("All of the kit", "2026-12-02", &[("Wren", Stands::Begun)]),
            call("Last light", "2026-12-09", &[]),
            call("Far away", "2027-02-01", &[("Wren", Stands::Taken)]),
        ]
    }

    #[test]
    fn what_is_mine_comes_first_and_the_most_pressing_before_the_rest() {
        let found = notices("Wren", &season(), day("2026-11-25"));
        let texts: Vec<&str> = found.iter().map(|n| n.text.as_str()).collect();
        assert_eq!(
            texts,
            [
                "“The hop” is yours now: the page before it is settled.",
                "Your “All of the kit” is due in 7 days.",
                "Plover’s “From behind” is 4 days late.",
                "Nobody has “Last light” yet; it is due in 14 days.",
                "Teal’s “The hop” waits for Wren’s page.",
            ]
        );
    }

    #[test]
    fn a_maker_is_free_after_the_last_that_she_has() {
        let season = season();
        let today = day("2026-11-25");
        assert_eq!(free_from("Wren", &season, today), day("2027-02-02"));
        assert_eq!(
            free_from("Plover", &season, today),
            today,
            "what is late leaves no day free before"
        );
        assert_eq!(free_from("Gull", &season, today), today);
        assert_eq!(free_from("Teal", &season, today), day("2026-12-03"));
    }

    #[test]
    fn late_is_what_is_past_and_not_done() {
        let season = season();
        let today = day("2026-11-25");
        let late: Vec<Option<i64>> = season[0]
            .makers
            .iter()
            .map(|t| season[0].late_days(t, today))
            .collect();
        assert_eq!(late, [Some(4), None]);
        assert!(season[3].is_open(today) && !season[0].is_open(today));
        assert!(
            !season[3].is_open(day("2026-12-10")),
            "what is past is open no more"
        );
    }
}
