//! Reads a call from a plan, with everything that is wrong in it.

use super::{
    Ask, Call, CallDecisions, CallKind, Credit, Day, LONGEST_NAME, LONGEST_TEXT, Link, MOST_ASKS,
    MOST_NAMES, What,
};
use crate::document::{Findings, Node};
use crate::geometry::Size;
use crate::length::Length;
use crate::sketch::{Reader, Sketch};

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
    let (due, shown, prize) = (day("due"), day("shown"), day("prize"));
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
        shown: shown?,
        prize: prize?,
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
        let found = format!("due on {}, shown on {}", due.as_str(), shown.as_str());
        node.wrong_because(
            found,
            "a page that is due before it is shown, or on that day",
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

fn read_day(node: &Node<'_>) -> Option<Day> {
    let text = node.text()?;
    let parts: Vec<u32> = text.split('-').filter_map(|p| p.parse().ok()).collect();
    let is_shaped = text.len() == 10 && text.split('-').map(str::len).eq([4, 2, 2]);
    match parts[..] {
        [year, month, day] if is_shaped && day >= 1 && day <= days_of(year, month) => {
            Some(Day(text.to_owned()))
        }
        _ => {
            node.wrong(A_DAY);
            None
        }
    }
}

/// How many days a month has; none where there is no such month.
const fn days_of(year: u32, month: u32) -> u32 {
    match month {
        1 | 3 | 5 | 7 | 8 | 10 | 12 => 31,
        4 | 6 | 9 | 11 => 30,
        2 if year.is_multiple_of(4) && !year.is_multiple_of(100) || year.is_multiple_of(400) => 29,
        2 => 28,
        _ => 0,
    }
}
