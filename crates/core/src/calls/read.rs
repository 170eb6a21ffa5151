//! Reads a call from a plan, with everything that is wrong in it.

use super::{
    Ask, Call, CallDecisions, CallKind, Credit, LONGEST_NAME, LONGEST_TEXT, Link, MOST_ASKS,
    MOST_NAMES, Repeat, What,
};
use crate::document::{Findings, Invalid, Node};
use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::sketch::{Reader, Sketch, read_unit};
use chrono::{Datelike, NaiveDate, NaiveTime};
use chrono_tz::Tz;
use serde_json::Value;

const WHAT: [&str; 9] = [
    "pages",
    "page-size",
    "photos",
    "large-photo",
    "sketch",
    "papers",
    "kit",
    "technique",
    "other",
];
const A_DAY: &str = "a day such as 2026-11-28";
/// No page is larger.
const LARGEST: Length = Length::inches(40, 1);

impl CallDecisions {
    /// Reads them from the object that has their fields.
    pub(crate) fn read(
        top: &Node<'_>,
        reader: Reader,
        findings: &Findings,
    ) -> Option<CallDecisions> {
        top.object()?;
        let call = match top.get("call") {
            Some(node) => Some(read_call(&node, reader, findings)?),
            None => None,
        };
        let ticked = match top.get("ticked") {
            Some(node) => node.texts(MOST_ASKS)?,
            None => Vec::new(),
        };
        Some(CallDecisions { call, ticked })
    }
}

/// A call that is no part of a plan; its lengths are in inches unless it says `"unit": "mm"`.
pub(super) fn call_by_itself(value: &Value) -> Result<Call, Invalid> {
    let findings = Findings::default();
    let top = Node::top(value, &findings);
    let unit = match top.get("unit") {
        Some(_) => read_unit(&top),
        None => Some(Unit::Inch),
    };
    let reader = Reader {
        unit: unit.unwrap_or_default(),
    };
    let call = read_call(&top, reader, &findings);
    findings.finish(call)
}

fn read_call(node: &Node<'_>, reader: Reader, findings: &Findings) -> Option<Call> {
    node.object()?;
    let name = node
        .need("name", "the call's name")
        .and_then(|n| short(&n, LONGEST_NAME));
    let kind = node.get("kind").map_or(Some(CallKind::Challenge), |n| {
        n.one_of(&CallKind::NAMES, CallKind::from_name)
    });
    let text = node
        .get("text")
        .map_or(Some(String::new()), |n| long(&n, LONGEST_TEXT));
    let asks = node.get("asks").map_or(Some(Vec::new()), |n| {
        n.each(MOST_ASKS, |a| read_ask(a, reader))
    });
    let day = |field: &str| {
        node.get(field)
            .map_or(Some(None), |n| read_day(&n).map(Some))
    };
    let time = |field: &str| {
        node.get(field)
            .map_or(Some(None), |n| read_time(&n).map(Some))
    };
    let (due, shown, prize) = (day("due"), day("shown"), day("prize"));
    let (due_time, prize_time) = (time("due_time"), time("prize_time"));
    let zone = node
        .get("zone")
        .map_or(Some(None), |n| read_zone(&n).map(Some));
    let repeats = node
        .get("repeats")
        .map_or(Some(None), |n| Repeat::read(&n).map(Some));
    let credits = node.get("credits").map_or(Some(Vec::new()), |n| {
        n.each(MOST_NAMES, |c| {
            Some(Credit {
                what: short(&c.need("what", "what for")?, LONGEST_NAME)?,
                name: short(&c.need("name", "whom to credit")?, LONGEST_NAME)?,
            })
        })
    });
    let links = node
        .get("links")
        .map_or(Some(Vec::new()), |n| n.each(MOST_NAMES, read_link));
    let sketch = match node.get("sketch") {
        Some(n) => Some(read_sketch(&n, findings)?),
        None => None,
    };
    let call = Call {
        name: name?,
        kind: kind?,
        text: text?,
        asks: asks?,
        due: due?,
        due_time: due_time?,
        shown: shown?,
        prize: prize?,
        prize_time: prize_time?,
        zone: zone?,
        repeats: repeats?,
        credits: credits?,
        links: links?,
        sketch,
    };
    agree(node, &call).then_some(call)
}

/// The sketch that was asked for; what is wrong in it is told under its own path.
fn read_sketch(node: &Node<'_>, findings: &Findings) -> Option<Sketch> {
    match Sketch::from_json(node.value) {
        Ok(sketch) => Some(sketch),
        Err(invalid) => {
            for f in invalid.findings {
                findings.add(&format!("{}.{}", node.path, f.path), f.found, f.allowed);
            }
            None
        }
    }
}

/// What is right by itself may be wrong together.
fn agree(node: &Node<'_>, call: &Call) -> bool {
    let mut right = true;
    if let (Some(due), Some(shown)) = (&call.due, &call.shown)
        && due > shown
    {
        let found = format!("due on {due}, shown on {shown}");
        node.wrong_because(
            found,
            "a page that is due before it is shown, or on that day",
        );
        right = false;
    }
    for (day, time, name) in [
        (call.due, call.due_time, "due"),
        (call.prize, call.prize_time, "prize"),
    ] {
        if day.is_none() && time.is_some() {
            node.wrong_because(
                format!("{name}_time without {name}"),
                format!("a day ({name}) for an hour ({name}_time)"),
            );
            right = false;
        }
    }
    if call.repeats.is_some() && call.due.is_none() {
        node.wrong_because(
            "a call that comes again, without a day",
            "a day that it is due",
        );
        right = false;
    }
    for (n, ask) in call.asks.iter().enumerate() {
        if call.asks[..n].iter().any(|other| other.id == ask.id) {
            let found = format!("two things asked under “{}”", ask.id);
            node.wrong_because(found, "an id of its own for each thing that is asked");
            right = false;
        }
    }
    right
}

fn read_ask(node: &Node<'_>, reader: Reader) -> Option<Ask> {
    node.object()?;
    let id = node
        .need("id", "a letter or a short name")
        .and_then(|n| short(&n, LONGEST_NAME));
    let name = || {
        node.need("name", "what is asked")
            .and_then(|n| short(&n, LONGEST_NAME))
    };
    let count = |most: u32| {
        node.need("count", "a number")
            .and_then(|n| n.count(1, most))
    };
    let size = || {
        let side = |field: &str| {
            node.need(field, "a length")
                .and_then(|n| n.length(reader.unit, Length::from_ticks(1), LARGEST))
        };
        let (w, h) = (side("w"), side("h"));
        Some(Size { w: w?, h: h? })
    };
    let what = node
        .need("what", &WHAT.join(", "))
        .and_then(|n| n.one_of(&WHAT, |w| WHAT.iter().find(|k| **k == w).copied()));
    let what = match what? {
        "pages" => What::Pages(count(2)?),
        "page-size" => What::PageSize(size()?),
        "photos" => What::Photos(count(60)?),
        "large-photo" => What::LargePhoto(size()?),
        "sketch" => What::Sketch,
        "papers" => {
            let kit = match node.get("kit") {
                Some(n) => Some(short(&n, LONGEST_NAME)?),
                None => None,
            };
            What::Papers(count(60)?, kit)
        }
        "kit" => What::Kit(name()?),
        "technique" => What::Technique(name()?),
        _ => What::Other(name()?),
    };
    Some(Ask { id: id?, what })
}

fn read_link(node: &Node<'_>) -> Option<Link> {
    let name = short(&node.need("name", "what it leads to")?, LONGEST_NAME);
    let at = node.need("url", "an address")?;
    let url = long(&at, 2_000)?;
    if !(url.starts_with("https://") || url.starts_with("http://")) {
        at.wrong("an address that begins with https:// or http://");
        return None;
    }
    Some(Link { name: name?, url })
}

/// A text of one line that is not empty.
fn short(node: &Node<'_>, most: usize) -> Option<String> {
    let text = long(node, most)?;
    let text = text.trim();
    if text.is_empty() || text.contains('\n') {
        node.wrong(format!("1 to {most} characters on one line"));
        return None;
    }
    Some(text.to_owned())
}

fn long(node: &Node<'_>, most: usize) -> Option<String> {
    let text = node.text()?;
    let found = text.chars().count();
    if found > most {
        node.wrong_because(format!("{found} characters"), format!("up to {most}"));
        return None;
    }
    Some(text.to_owned())
}

/// A day of the calendar.
pub(super) fn read_day(node: &Node<'_>) -> Option<NaiveDate> {
    let text = node.text()?;
    let read = NaiveDate::parse_from_str(text, "%Y-%m-%d").ok();
    let day = read.filter(|d| text.len() == 10 && (1900..2200).contains(&d.year()));
    if day.is_none() {
        node.wrong(A_DAY);
    }
    day
}

fn read_time(node: &Node<'_>) -> Option<NaiveTime> {
    let read = NaiveTime::parse_from_str(node.text()?, "%H:%M").ok();
    if read.is_none() {
        node.wrong("an hour such as 23:00");
    }
    read
}

fn read_zone(node: &Node<'_>) -> Option<Tz> {
    let read = node.text()?.parse().ok();
    if read.is_none() {
        node.wrong("a time zone by its name, such as UTC or Europe/Lisbon");
    }
    read
}
