//! A call out of text that was pasted: a message, a rule page. What is found is to be looked over, so each finding says from which words
//! it was read.

mod days;

use super::{LONGEST_NAME, LONGEST_TEXT, MOST_ASKS, MOST_NAMES};
use crate::document::Invalid;
use crate::length::Unit;
use chrono::NaiveDate;
use days::{DayFound, Role};
use regex::Regex;
use serde_json::{Map, Value, json};
use std::sync::LazyLock;

/// Characters that may be pasted at once.
pub const LONGEST_PASTED: usize = 20_000;

/// A call as it was understood.
#[derive(Clone, Debug, PartialEq)]
pub struct Pasted {
    /// The call's document, to be looked over.
    pub call: Value,
    /// What was understood, in the order of the text.
    pub noticed: Vec<Noticed>,
}

/// Something that was understood in a pasted text.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Noticed {
    /// The words it was read from.
    pub words: String,
    /// What they were taken for.
    pub taken_for: String,
}

/// Reads a call out of a text. `today` decides which year a day without one is of, and which Saturday is meant.
///
/// # Errors
/// When the text is empty or too long.
pub fn pasted(text: &str, today: NaiveDate) -> Result<Pasted, Invalid> {
    let length = text.chars().count();
    if length > LONGEST_PASTED {
        return Err(Invalid::one(
            "text",
            format!("{length} characters"),
            format!("up to {LONGEST_PASTED}: paste the part that says what is asked"),
        ));
    }
    let lines: Vec<&str> = text
        .lines()
        .map(str::trim)
        .filter(|l| !l.is_empty())
        .collect();
    let Some(first) = lines.first() else {
        return Err(Invalid::one(
            "text",
            "nothing",
            "what is asked, in any words",
        ));
    };
    let mut draft = Draft::default();
    draft.name(first);
    for line in &lines {
        draft.days(line, today);
        draft.links(line);
        draft.credits(line);
    }
    for line in &lines[1..] {
        draft.asks(line);
    }
    draft.asks_of_title(first);
    Ok(draft.finish(text))
}

#[derive(Default)]
struct Draft {
    call: Map<String, Value>,
    asks: Vec<Value>,
    credits: Vec<Value>,
    links: Vec<Value>,
    noticed: Vec<Noticed>,
}

/// A pattern that is written here, so that it can be meant.
fn pattern(text: &str) -> Regex {
    Regex::new(text).expect("the pattern is written right")
}

macro_rules! patterns {
    ($($name:ident = $text:expr;)+) => {
        $(static $name: LazyLock<Regex> = LazyLock::new(|| pattern($text));)+
    };
}

patterns! {
    BULLET = r"^(?:[-*•·–]|\d{1,2}[.)]|[a-z][.)])\s+";
    TWO_PAGES = r"(?i)\b(?:two|2)[ -]pages?\b|\bdouble[ -]page|\btwo-pager|\bspread\b";
    ONE_PAGE = r"(?i)\b(?:one|1|single)[ -]pages?\b";
    PAGE_SIZE = r"(?i)\b(\d{1,2}(?:\.\d+)?)\s?(?:x|×|by)\s?(\d{1,2}(?:\.\d+)?)\s?(?:in\.?|inch(?:es)?|″)?\s*(?:pages?|layouts?|spread)\b";
    PHOTOS = r"(?i)\b(\d{1,2}|two|three|four|five|six|seven|eight|nine|ten)\s+(?:or more\s+)?(?:photos?|pictures?|prints)\b";
    LARGE_PHOTO = r"(?i)\b(?:large|big|oversized?)\s+(?:photo|picture|print)\b(?:\s*\(?(?:of\s+)?(\d{1,2}(?:\.\d+)?)\s?(?:x|×|by)\s?(\d{1,2}(?:\.\d+)?)(?:\s?in\.?)?\)?)?";
    PAPERS = r"(?i)\b(\d{1,2}|two|three|four|five|six|seven|eight|nine|ten)\s+(?:of\s+(?:its|the)\s+|or more\s+|different\s+|patterned\s+)*(?:papers?|sheets)\b";
    KIT = r"\b(?:[Kk]it|KIT):?\s+[“”]?([A-Z][\w'’-]*(?:\s+[A-Z][\w'’-]*){0,2})|\b([A-Z][\w'’-]*)\s+kit\b";
    SKETCH = r"(?i)\b(?:this|the|our|my)\s+sketch\b|\bsketch\s+(?:no\.?\s*)?\d+|\buse (?:a|the) sketch";
    TECHNIQUE = r"(?i)\b(hand[- ]stitching|machine[- ]stitching|stitching|stitches|stitch|stamping|stencil(?:l?ing)?|ink(?:ing)|splatters?|mist(?:ing)?|watercolou?r|embossing|die[- ]cuts?|tearing|torn edges|fussy[- ]cutting|layering|paint(?:ing)?|sewing|weaving|punching)\b";
    CREDIT = r"(?i)\b(sketch|kit|design|challenge|prompt|page|idea|call)\s+(?:is\s+)?(?:by|from|designed by|made by|put together by)\s+((?-i:[A-Z])[\w'’-]*(?:\s+(?-i:[A-Z])[\w'’-]*){0,2})";
    LINK = r"https?://[^\s<>“”\x22]+";
}

impl Draft {
    fn notice(&mut self, words: &str, taken_for: impl Into<String>) {
        let words = BULLET.replace(words.trim(), "");
        self.noticed.push(Noticed {
            words: words.chars().take(LONGEST_NAME).collect(),
            taken_for: taken_for.into(),
        });
    }

    /// The first line, up to where its first sentence ends.
    fn name(&mut self, line: &str) {
        let plain = BULLET.replace(line, "");
        let plain = plain.trim_start_matches(['#', ' ']);
        let end = plain.find([':', '!', '?']).filter(|at| *at > 2);
        let sentence = plain.find(". ");
        let end = end.into_iter().chain(sentence).min().unwrap_or(plain.len());
        let name: String = plain[..end].trim().chars().take(80).collect();
        let name = if name.is_empty() {
            "A call".to_owned()
        } else {
            name
        };
        self.notice(line, "its name");
        self.call.insert("name".to_owned(), name.into());
    }

    fn days(&mut self, line: &str, today: NaiveDate) {
        for found in days::in_line(line, today) {
            let DayFound {
                words,
                day,
                time,
                role,
            } = found;
            let free = |call: &Map<String, Value>, name: &str| !call.contains_key(name);
            let field = match role {
                Some(Role::Due) => "due",
                Some(Role::Shown) => "shown",
                Some(Role::Prize) => "prize",
                None if free(&self.call, "due") => "due",
                None => {
                    self.notice(
                        &words,
                        format!("{}, a day that nothing is said of", told(day)),
                    );
                    continue;
                }
            };
            if !free(&self.call, field) {
                self.notice(
                    &words,
                    format!("{}, one day more; the first one stays", told(day)),
                );
                continue;
            }
            let says = match field {
                "due" => "the day it is due",
                "shown" => "the day it is shown",
                _ => "the day the prize closes",
            };
            self.call.insert(field.to_owned(), day.to_string().into());
            let mut meaning = format!("{}, {says}", told(day));
            if let Some((time, zone)) = time
                && field != "shown"
            {
                self.call.insert(
                    format!("{field}_time"),
                    time.format("%H:%M").to_string().into(),
                );
                meaning += &format!(", at {}", time.format("%H:%M"));
                if let Some(zone) = zone {
                    self.call.insert("zone".to_owned(), zone.into());
                }
            }
            self.notice(&words, meaning);
        }
        let (due, shown) = (self.call.get("due"), self.call.get("shown"));
        if let (Some(Value::String(due)), Some(Value::String(shown))) = (due, shown)
            && due > shown
        {
            // Shown before it is due can't be: the later of the two is looked at again by her who pastes.
            let (due, shown) = (due.clone(), shown.clone());
            self.call.shift_remove("shown");
            self.notice(
                &shown,
                format!("shown on {shown}, before {due}, when it is due: left out"),
            );
        }
    }

    fn links(&mut self, line: &str) {
        for found in LINK.find_iter(line) {
            let url = found.as_str().trim_end_matches(['.', ',', ')', ';', '!']);
            if self.links.len() >= MOST_NAMES || url.chars().count() > 2_000 {
                continue;
            }
            let before = BULLET.replace(&line[..found.start()], "");
            let before = before.trim().trim_end_matches([':', '-', '–']).trim();
            let host = url.split('/').nth(2).unwrap_or(url);
            let name: String = if before.is_empty() { host } else { before }
                .chars()
                .take(60)
                .collect();
            self.links.push(json!({"name": name, "url": url}));
            self.notice(url, "a link");
        }
    }

    fn credits(&mut self, line: &str) {
        for found in CREDIT.captures_iter(line) {
            let (what, name) = (found[1].to_lowercase(), found[2].to_owned());
            let one = json!({"what": what, "name": name});
            if self.credits.len() < MOST_NAMES && !self.credits.contains(&one) {
                self.credits.push(one);
                self.notice(&found[0], format!("whom to credit for the {what}: {name}"));
            }
        }
    }

    /// What a line asks for; a line of a list that nothing is known of is asked for in its own words.
    fn asks(&mut self, line: &str) {
        let before = self.asks.len();
        self.known_asks(line);
        let item = BULLET.find(line);
        if self.asks.len() > before || item.is_none() {
            return;
        }
        let words = BULLET.replace(line, "");
        let is_told_already = self.noticed.iter().any(|n| line.contains(&n.words));
        if !is_told_already && !words.trim().is_empty() {
            let name: String = words.trim().chars().take(LONGEST_NAME).collect();
            self.ask(
                line,
                "an ask of its own words",
                json!({"what": "other", "name": name}),
            );
        }
    }

    /// A title asks for pages and photos, not for what it plays with in words.
    fn asks_of_title(&mut self, line: &str) {
        if TWO_PAGES.is_match(line) {
            self.ask(line, "two pages", json!({"what": "pages", "count": 2}));
        }
        if SKETCH.is_match(line) {
            self.ask(line, "the sketch", json!({"what": "sketch"}));
        }
    }

    fn known_asks(&mut self, line: &str) {
        if TWO_PAGES.is_match(line) {
            self.ask(line, "two pages", json!({"what": "pages", "count": 2}));
        } else if ONE_PAGE.is_match(line) {
            self.ask(line, "one page", json!({"what": "pages", "count": 1}));
        }
        if let Some(found) = PAGE_SIZE.captures(line) {
            let side = |n: usize| {
                found[n]
                    .parse::<f64>()
                    .ok()
                    .filter(|l| (3.0..=40.0).contains(l))
            };
            if let (Some(w), Some(h)) = (side(1), side(2)) {
                self.ask(
                    &found[0],
                    "the page's size",
                    json!({"what": "page-size", "w": w, "h": h}),
                );
            }
        }
        if let Some(found) = LARGE_PHOTO.captures(line) {
            let side = |n: usize| found.get(n).and_then(|m| m.as_str().parse::<f64>().ok());
            let (w, h) = side(1).zip(side(2)).unwrap_or((6.0, 4.0));
            self.ask(
                &found[0],
                format!("a large photo, {w} × {h} in or more"),
                json!({"what": "large-photo", "w": w, "h": h}),
            );
        } else if let Some(count) = PHOTOS.captures(line).and_then(|f| counted(&f[1])) {
            self.ask(
                line,
                format!("{count} photos at least"),
                json!({"what": "photos", "count": count}),
            );
        }
        let kit = KIT.captures(line);
        let kit = kit.as_ref().and_then(|f| f.get(1).or_else(|| f.get(2)));
        let papers = PAPERS.captures(line).and_then(|f| counted(&f[1]));
        match (papers, kit.map(|m| m.as_str().to_owned())) {
            (Some(count), kit) => {
                let mut ask = json!({"what": "papers", "count": count});
                if let Some(kit) = kit {
                    ask["kit"] = kit.into();
                }
                self.ask(line, format!("{count} papers at least"), ask);
            }
            (None, Some(kit)) => self.ask(
                line,
                format!("the kit {kit}"),
                json!({"what": "kit", "name": kit}),
            ),
            (None, None) => {}
        }
        if SKETCH.is_match(line) {
            self.ask(line, "the sketch", json!({"what": "sketch"}));
        }
        for found in TECHNIQUE.find_iter(line) {
            let name = capitalised(found.as_str());
            self.ask(
                found.as_str(),
                format!("a technique: {name}"),
                json!({"what": "technique", "name": name}),
            );
        }
    }

    /// Asks for something, once.
    fn ask(&mut self, words: &str, taken_for: impl Into<String>, mut ask: Value) {
        let is_asked = self.asks.iter().any(|a| {
            let (a, b) = (&a["what"], &ask["what"]);
            a == b && !["technique", "other"].contains(&b.as_str().unwrap_or_default())
        }) || self
            .asks
            .iter()
            .any(|a| !ask["name"].is_null() && a["name"] == ask["name"]);
        if is_asked || self.asks.len() >= MOST_ASKS.min(26) {
            return;
        }
        let letter = char::from(b'a' + self.asks.len() as u8);
        ask["id"] = letter.to_string().into();
        self.asks.push(ask);
        self.notice(words, taken_for);
    }

    fn finish(mut self, text: &str) -> Pasted {
        let kept: String = text.trim().chars().take(LONGEST_TEXT).collect();
        let call = &mut self.call;
        call.insert("kind".to_owned(), kind_of(text).into());
        call.insert("text".to_owned(), kept.into());
        call.insert("unit".to_owned(), Unit::Inch.name().into());
        for (name, list) in [
            ("asks", self.asks),
            ("credits", self.credits),
            ("links", self.links),
        ] {
            if !list.is_empty() {
                call.insert(name.to_owned(), list.into());
            }
        }
        Pasted {
            call: Value::Object(self.call),
            noticed: self.noticed,
        }
    }
}

/// What kind of call a text speaks of most plainly.
fn kind_of(text: &str) -> &'static str {
    let text = text.to_lowercase();
    if text.contains("hop") {
        "hop"
    } else if text.contains("scraplift") {
        "scraplift"
    } else if text.contains(" kit") && !text.contains("challenge") {
        "kit"
    } else {
        "challenge"
    }
}

/// A day as it is said: `Saturday 28 November 2026`.
fn told(day: NaiveDate) -> String {
    day.format("%A %-d %B %Y").to_string()
}

fn counted(word: &str) -> Option<u32> {
    const WORDS: [&str; 9] = [
        "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten",
    ];
    let by_word = WORDS
        .iter()
        .zip(2..)
        .find(|(w, _)| word.eq_ignore_ascii_case(w));
    by_word
        .map(|(_, n)| n)
        .or_else(|| word.parse().ok())
        .filter(|n| (1..=60).contains(n))
}

fn capitalised(word: &str) -> String {
    let mut letters = word.chars();
    letters
        .next()
        .map(|first| first.to_uppercase().chain(letters).collect())
        .unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::calls::Call;

    const MESSAGE: &str = "Out on the flats: a challenge for the whole club!\n\
        Plover asks everybody for a double page spread.\n\
        - at least three papers of the Ebb kit\n\
        - one large photo (6 x 6)\n\
        - some stitching\n\
        - a sledge somewhere\n\
        Sketch by Gull. Rules: https://slipway.example/rules.\n\
        Please send it by Saturday 28 November, it goes live on Dec 1st.\n\
        The prize draw closes on 11 December at 11 pm UTC.";

    fn read(text: &str) -> Value {
        let today = "2026-11-25".parse().expect("a day");
        let found = pasted(text, today).expect("it is read");
        Call::from_json(&found.call).expect("what is understood is a call");
        found.call
    }

    #[test]
    fn a_message_becomes_a_call() {
        let call = read(MESSAGE);
        assert_eq!(call["name"], "Out on the flats");
        assert_eq!(call["kind"], "challenge");
        assert_eq!(
            (&call["due"], &call["shown"]),
            (&"2026-11-28".into(), &"2026-12-01".into())
        );
        assert_eq!(
            (&call["prize"], &call["prize_time"]),
            (&"2026-12-11".into(), &"23:00".into())
        );
        assert_eq!(call["zone"], "UTC");
        let asks: Vec<&str> = call["asks"]
            .as_array()
            .expect("asks")
            .iter()
            .filter_map(|a| a["what"].as_str())
            .collect();
        assert_eq!(
            asks,
            ["pages", "papers", "large-photo", "technique", "other"]
        );
        assert_eq!(call["asks"][1]["kit"], "Ebb");
        assert_eq!(call["asks"][4]["name"], "a sledge somewhere");
        assert_eq!(call["credits"][0]["name"], "Gull");
        assert_eq!(call["links"][0]["url"], "https://slipway.example/rules");
    }

    #[test]
    fn each_finding_names_its_words() {
        let today = "2026-11-25".parse().expect("a day");
        let found = pasted(MESSAGE, today).expect("it is read").noticed;
        assert!(
            found.iter().all(|n| MESSAGE.contains(&n.words)),
            "{found:?}"
        );
        let due = found
            .iter()
            .find(|n| n.taken_for.contains("due"))
            .expect("a day");
        assert_eq!(due.words, "Saturday 28 November");
    }

    #[test]
    fn too_much_and_nothing_are_told() {
        let today = "2026-11-25".parse().expect("a day");
        let long = "x ".repeat(500_000);
        let told = pasted(&long, today).expect_err("it is too long");
        assert_eq!(told.findings[0].found, "1000000 characters");
        assert!(pasted(" \n ", today).is_err());
    }

    #[test]
    fn any_text_comes_to_a_call_that_can_be_read() {
        for text in [
            "hop",
            "1.",
            "- ",
            "::!!",
            "31.02.2027",
            "by Saturday",
            "99/99/9999 25:99",
            "due 2027-01-05, shown 2027-01-01",
            "ünïcödé – “x” kit Ébb",
        ] {
            read(text);
        }
    }
}
