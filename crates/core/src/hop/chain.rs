//! The chain of a hop: who makes a page on which day, one after another.

use crate::document::{Findings, Invalid, Node};
use chrono::{Datelike, NaiveDate};
use serde_json::Value;

/// Makers of one chain.
pub const MOST_LINKS: usize = 40;

/// A maker in the chain.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ChainLink {
    /// The id of a person of the team; none for somebody from outside.
    pub person: Option<String>,
    /// Somebody from outside, by name.
    pub name: Option<String>,
    /// Where her page is to be seen.
    pub url: Option<String>,
    /// The id of a sketch in the drawer that stands for her page.
    pub sketch: Option<String>,
    /// The day her page is shown and goes on.
    pub day: NaiveDate,
}

/// Reads a chain: a list of `{"person" or "name", "day", "url", "sketch"}`, in the order of their days.
///
/// # Errors
/// All that breaks it, each with its JSON path: a maker who stands in it twice (it would run in a loop), two on one day, days out of order.
pub fn chain_from_json(value: &Value) -> Result<Vec<ChainLink>, Invalid> {
    let findings = Findings::default();
    let top = Node::top(value, &findings);
    let links = top
        .need("links", "a list of makers")
        .and_then(|n| n.each(MOST_LINKS, read_link));
    if let Some(links) = &links {
        follow(links, &findings);
    }
    findings.finish(links)
}

fn read_link(node: &Node<'_>) -> Option<ChainLink> {
    node.object()?;
    let text = |field: &str, most: usize| match node.get(field) {
        None => Some(None),
        Some(n) => {
            let text = n.text()?.trim();
            if text.is_empty() || text.chars().count() > most || text.chars().any(char::is_control)
            {
                n.wrong(format!("1 to {most} characters on one line"));
                return None;
            }
            Some(Some(text.to_owned()))
        }
    };
    let (person, name, url, sketch) = (
        text("person", 60)?,
        text("name", 200)?,
        text("url", 2_000)?,
        text("sketch", 60)?,
    );
    if person.is_some() == name.is_some() {
        node.wrong_because(
            if person.is_some() {
                "both a person and a name"
            } else {
                "nobody"
            },
            "a person of the team, or the name of somebody from outside",
        );
        return None;
    }
    if let Some(url) = &url
        && !(url.starts_with("https://") || url.starts_with("http://"))
    {
        node.get("url")?
            .wrong("an address that begins with https:// or http://");
        return None;
    }
    let at = node.need("day", "a day such as 2026-11-28")?;
    let day = at.text()?.parse::<NaiveDate>().ok();
    let Some(day) = day.filter(|d| (1970..2200).contains(&d.year())) else {
        at.wrong("a day such as 2026-11-28");
        return None;
    };
    Some(ChainLink {
        person,
        name,
        url,
        sketch,
        day,
    })
}

/// What is right link by link may be wrong in a row.
fn follow(links: &[ChainLink], findings: &Findings) {
    for (n, link) in links.iter().enumerate() {
        let at = format!("links[{n}]");
        let twice = links[..n].iter().position(|l| l.is_same_maker(link));
        if let Some(first) = twice {
            findings.add(
                &at,
                format!("the maker of links[{first}] again"),
                "each maker once: a chain that comes back to her would run in a loop",
            );
        }
        if let Some(before) = n.checked_sub(1).map(|n| &links[n]) {
            let allowed = format!("a day after {}: one maker a day, in order", before.day);
            if link.day == before.day {
                findings.add(
                    &format!("{at}.day"),
                    format!("{}, the day of the maker before", link.day),
                    allowed,
                );
            } else if link.day < before.day {
                findings.add(&format!("{at}.day"), link.day.to_string(), allowed);
            }
        }
    }
}

impl ChainLink {
    fn is_same_maker(&self, other: &ChainLink) -> bool {
        let folded = |l: &ChainLink| l.name.as_ref().map(|n| n.to_lowercase());
        (self.person.is_some() && self.person == other.person)
            || (self.name.is_some() && folded(self) == folded(other))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn wrong(links: Value) -> Vec<(String, String)> {
        let told = chain_from_json(&json!({"links": links})).expect_err("it is wrong");
        told.findings
            .into_iter()
            .map(|f| (f.path, f.found))
            .collect()
    }

    #[test]
    fn a_chain_is_read_in_order() {
        let links = json!([
            {"person": "a", "day": "2026-11-14"},
            {"name": "Dunlin", "url": "https://dunlin.example", "day": "2026-11-20"},
            {"person": "b", "day": "2026-11-28"},
        ]);
        let chain = chain_from_json(&json!({"links": links})).expect("a chain");
        assert_eq!(chain.len(), 3);
        assert_eq!(chain[1].name.as_deref(), Some("Dunlin"));
    }

    #[test]
    fn loops_and_crowded_days_are_told() {
        let found = wrong(json!([
            {"person": "a", "day": "2026-11-14"},
            {"person": "b", "day": "2026-11-14"},
            {"person": "a", "day": "2026-11-20"},
        ]));
        assert_eq!(
            found[0],
            (
                "links[1].day".to_owned(),
                "2026-11-14, the day of the maker before".to_owned()
            )
        );
        assert_eq!(
            found[1],
            (
                "links[2]".to_owned(),
                "the maker of links[0] again".to_owned()
            )
        );
        let found = wrong(
            json!([{"name": "Dunlin", "day": "2026-11-14"}, {"name": "dunlin", "day": "2026-11-10"}]),
        );
        assert_eq!(found.len(), 2);
    }

    #[test]
    fn what_is_no_link_is_told() {
        assert_eq!(wrong(json!([{"day": "2026-11-14"}]))[0].1, "nobody");
        assert_eq!(
            wrong(json!([{"person": "a", "day": "soon"}]))[0].0,
            "links[0].day"
        );
        assert_eq!(
            wrong(json!([{"name": "x", "url": "javascript:1", "day": "2026-11-14"}]))[0].0,
            "links[0].url"
        );
    }
}
