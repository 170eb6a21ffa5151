//! The pack in which a page is published: story, what it is made of, measures, steps, credits and links, as Markdown, HTML and plain text.

use super::decisions::{KeptOut, LogDecisions};
use crate::words::Writing;
use pulldown_cmark::{Parser, html};
use std::fmt::Write as _;

/// Something that the page is made of.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Supply {
    /// The kit it came in; what is in none comes last.
    pub kit: Option<String>,
    /// What it is called.
    pub name: String,
    /// How many of it.
    pub count: u32,
}

/// A measure or a step.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PackLine {
    /// What it is about, where it has a name.
    pub of: Option<String>,
    /// In words.
    pub text: String,
}

/// All that is told of a page.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Pack {
    /// The page's name.
    pub title: String,
    /// Who made it.
    pub maker: String,
    /// Whom it credits, in a sentence each.
    pub credits: Vec<String>,
    /// The story.
    pub story: String,
    /// What it is made of.
    pub supplies: Vec<Supply>,
    /// What shows and what to cut.
    pub measures: Vec<PackLine>,
    /// In their order.
    pub steps: Vec<PackLine>,
    /// The hop's links in order.
    pub links: Vec<String>,
    /// Words to find it by.
    pub tags: Vec<String>,
}

impl Pack {
    /// The story that may be told: her own, otherwise her writing; names, place and date only where they don't stay out.
    pub fn story_of(log: &LogDecisions, writing: Option<&Writing>) -> String {
        let own = log.story.as_deref().filter(|s| !s.trim().is_empty());
        let text = own.or(writing.map(|w| w.text.as_str())).unwrap_or_default();
        let mut told = text.trim().to_owned();
        if let Some(writing) = writing {
            let private = [
                (KeptOut::Names, &writing.names),
                (KeptOut::Place, &writing.place),
                (KeptOut::Date, &writing.date),
            ];
            for (which, said) in &private {
                for name in names_in(said) {
                    if log.leave_out.contains(which) {
                        told = told.replace(name, "…");
                    }
                }
            }
            let open: Vec<&str> = private
                .iter()
                .rev()
                .filter(|(which, said)| !log.leave_out.contains(which) && !said.trim().is_empty())
                .map(|(_, said)| said.trim())
                .collect();
            if !open.is_empty() {
                let _ = write!(told, "\n\n{}", open.join(", "));
            }
        }
        told.trim().to_owned()
    }

    /// As Markdown.
    #[must_use]
    pub fn to_markdown(&self) -> String {
        let mut text = format!("# {}\n\n", escaped(&self.title));
        let _ = writeln!(text, "By {}.\n", escaped(&self.maker));
        for credit in &self.credits {
            let _ = writeln!(text, "{}\n", escaped(credit));
        }
        if !self.story.is_empty() {
            let _ = writeln!(text, "{}\n", escaped(&self.story));
        }
        if !self.supplies.is_empty() {
            text.push_str("## What it is made of\n\n");
            for (kit, supplies) in self.by_kit() {
                let _ = writeln!(text, "### {}\n", escaped(kit.unwrap_or("In no kit")));
                for supply in supplies {
                    let _ = writeln!(text, "- {}", escaped(&supply_text(supply)));
                }
                text.push('\n');
            }
        }
        let list = |text: &mut String, heading: &str, lines: &[PackLine], numbered: bool| {
            if lines.is_empty() {
                return;
            }
            let _ = writeln!(text, "## {heading}\n");
            for (n, line) in lines.iter().enumerate() {
                let mark = if numbered {
                    format!("{}.", n + 1)
                } else {
                    "-".to_owned()
                };
                let of = line.of.as_ref().map_or(String::new(), |o| format!("{o}: "));
                let _ = writeln!(text, "{mark} {}", escaped(&format!("{of}{}", line.text)));
            }
            text.push('\n');
        };
        list(
            &mut text,
            "What shows and what to cut",
            &self.measures,
            false,
        );
        list(&mut text, "Step by step", &self.steps, true);
        if !self.links.is_empty() {
            text.push_str("## The hop\n\n");
            for (n, link) in self.links.iter().enumerate() {
                let _ = writeln!(text, "{}. {}", n + 1, escaped(link));
            }
            text.push('\n');
        }
        if !self.tags.is_empty() {
            let tags: Vec<String> = self.tags.iter().map(|t| escaped(t)).collect();
            let _ = writeln!(text, "{}", tags.join(", "));
        }
        text.trim_end().to_owned() + "\n"
    }

    /// As a page of HTML.
    #[must_use]
    pub fn to_html(&self) -> String {
        let markdown = self.to_markdown();
        let mut body = String::new();
        html::push_html(&mut body, Parser::new(&markdown));
        let title = self
            .title
            .replace('&', "&amp;")
            .replace('<', "&lt;")
            .replace('>', "&gt;");
        format!(
            "<!doctype html>\n<html lang=\"en\">\n<head><meta charset=\"utf-8\"><title>{title}</title></head>\n<body>\n{body}</body>\n</html>\n"
        )
    }

    /// As plain text.
    #[must_use]
    pub fn to_plain(&self) -> String {
        let plain = |line: &str| {
            let line = line.trim_start_matches('#').trim_start();
            line.replace('\\', "")
        };
        let lines: Vec<String> = self.to_markdown().lines().map(plain).collect();
        lines.join("\n") + "\n"
    }

    fn by_kit(&self) -> Vec<(Option<&str>, Vec<&Supply>)> {
        let mut kits: Vec<(Option<&str>, Vec<&Supply>)> = Vec::new();
        for supply in &self.supplies {
            let kit = supply.kit.as_deref();
            match kits.iter_mut().find(|(k, _)| *k == kit) {
                Some((_, of)) => of.push(supply),
                None => kits.push((kit, vec![supply])),
            }
        }
        kits.sort_by_key(|(kit, _)| (kit.is_none(), kit.map(str::to_owned)));
        kits
    }
}

/// The single names of a list in words: “Wren, Teal and Plover”.
fn names_in(said: &str) -> impl Iterator<Item = &str> {
    said.split([',', ';', '&'])
        .flat_map(|part| part.split(" and "))
        .map(str::trim)
        .filter(|name| name.chars().count() > 1)
}

fn supply_text(supply: &Supply) -> String {
    if supply.count == 1 {
        supply.name.clone()
    } else {
        format!("{} × {}", supply.count, supply.name)
    }
}

/// A text in which Markdown's own characters mean themselves.
fn escaped(text: &str) -> String {
    let mut safe = String::with_capacity(text.len());
    for c in text.chars() {
        if matches!(
            c,
            '\\' | '*' | '_' | '`' | '[' | ']' | '<' | '>' | '#' | '&'
        ) {
            safe.push('\\');
        }
        safe.push(c);
    }
    safe
}

/// What a pack still lacks, each in a few words.
pub fn missing(pack: &Pack, log: &LogDecisions, in_a_hop: bool) -> Vec<&'static str> {
    let mut lacks = Vec::new();
    if log.picture.is_none() {
        lacks.push("a picture of the whole page");
    }
    if log.closeups.is_empty() {
        lacks.push("a close-up");
    }
    if pack.story.is_empty() {
        lacks.push("the story");
    }
    if pack.supplies.is_empty() {
        lacks.push("what it is made of");
    }
    if pack.credits.is_empty() {
        lacks.push("whom it credits");
    }
    if in_a_hop && log.link.is_none() {
        lacks.push("a link to the next maker’s page");
    }
    lacks
}
