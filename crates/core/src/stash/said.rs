//! Things for the stash as a maker says them: “2 x 12x12 dots / plain, strip 1/2 bottom, kit Ebb”.

use super::{Colour, Item, ItemKind, PrintedStrip, Side, Swatch};
use crate::geometry::{Edge, Size};
use crate::length::{Length, Unit};
use regex::Regex;
use std::sync::LazyLock;

/// What one part of a text came to.
#[derive(Clone, Debug, PartialEq)]
pub enum Said {
    /// Something to put away, with what was said of it.
    Item(Box<Item>),
    /// What is not understood: it is kept as a note on the thing before it, if there is one.
    Unknown(String),
}

/// A length: `8 1/2`, `3.75`, `86 mm`, `1/2"`.
const LENGTH: &str = r#"\d+(?:[ -]\d+/\d+|/\d+|[.,]\d+)?(?:\s*(?:in|inch|mm|cm|"|″))?"#;

fn pattern(text: &str) -> Regex {
    Regex::new(text).expect("the pattern is one")
}

static SIZE: LazyLock<Regex> =
    LazyLock::new(|| pattern(&format!(r"(?:^|\s)({LENGTH})\s*[x×]\s*({LENGTH})(?:\s|$)")));
static LAST_LENGTH: LazyLock<Regex> = LazyLock::new(|| {
    pattern(&format!(
        r"(?:^|\s)({LENGTH})(?:\s+(?:round|wide|long|high))?$"
    ))
});
static TIMES: LazyLock<Regex> = LazyLock::new(|| pattern(r"^(\d+)\s*[x×]\s+(\S.*)$"));
static COUNT: LazyLock<Regex> = LazyLock::new(|| pattern(r"^(\d+)\s+([^\sx×\d].*|\d.*[x×].*)$"));
static LEFT: LazyLock<Regex> = LazyLock::new(|| pattern(r"^(\d+)\s+(?:left|of them|in all)$"));
static STRIP: LazyLock<Regex> = LazyLock::new(|| {
    pattern(&format!(
        r"^(?:printed )?strip\s+(?:of\s+)?(?:(top|bottom|left|right)\s+)?({LENGTH})(?:\s+(?:at the\s+|on the\s+)?(top|bottom|left|right))?$"
    ))
});

const NUMBERS: [&str; 12] = [
    "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven",
    "twelve",
];

/// Words that say what a thing is; the first that is found counts.
const KINDS: [(&str, ItemKind); 30] = [
    ("scrap", ItemKind::Scrap),
    ("scraps", ItemKind::Scrap),
    ("pad", ItemKind::Pad),
    ("pads", ItemKind::Pad),
    ("cardstock", ItemKind::Cardstock),
    ("vellum", ItemKind::Vellum),
    ("acetate", ItemKind::Acetate),
    ("packaging", ItemKind::Packaging),
    ("card", ItemKind::Card),
    ("cards", ItemKind::Card),
    ("letters", ItemKind::Letters),
    ("alphabet", ItemKind::Letters),
    ("trimmer", ItemKind::Tool),
    ("punch", ItemKind::Tool),
    ("die", ItemKind::Tool),
    ("buttons", ItemKind::Embellishment),
    ("button", ItemKind::Embellishment),
    ("tags", ItemKind::Embellishment),
    ("tag", ItemKind::Embellishment),
    ("stars", ItemKind::Embellishment),
    ("stickers", ItemKind::Embellishment),
    ("doilies", ItemKind::Embellishment),
    ("flowers", ItemKind::Embellishment),
    ("leaves", ItemKind::Embellishment),
    ("brads", ItemKind::Embellishment),
    ("ribbon", ItemKind::Embellishment),
    ("sequins", ItemKind::Embellishment),
    ("sheet", ItemKind::Sheet),
    ("sheets", ItemKind::Sheet),
    ("paper", ItemKind::Sheet),
];

/// Words that say nothing of a thing.
const FILLERS: [&str; 8] = ["a", "an", "the", "of", "sheet", "sheets", "in", "scrap"];

/// Reads things to put away; sizes without a unit are in `unit`.
pub fn said(text: &str, unit: Unit) -> Vec<Said> {
    let mut found: Vec<Said> = Vec::new();
    let parts = text.split([',', ';', '\n']).map(str::trim);
    for part in parts.filter(|p| !p.is_empty()) {
        let before = found.iter_mut().rev().find_map(|s| match s {
            Said::Item(item) => Some(item),
            Said::Unknown(_) => None,
        });
        let took = before.is_some_and(|item| add_to(item, part, unit));
        if took {
            continue;
        }
        match item(part, unit) {
            Some(item) => found.push(Said::Item(Box::new(item))),
            None => found.push(Said::Unknown(part.to_owned())),
        }
    }
    found
}

/// What is said of the thing before: its strip, its kit, where it lies, how many are left.
fn add_to(item: &mut Item, part: &str, unit: Unit) -> bool {
    let lower = part.to_lowercase();
    if let Some(found) = STRIP.captures(&lower) {
        let edge = found.get(1).or_else(|| found.get(3));
        let edge = edge.and_then(|e| Edge::ALL.into_iter().find(|a| a.name() == e.as_str()));
        let width = Length::parse(&found[2], unit).ok();
        item.strip = width.map(|width| PrintedStrip {
            edge: edge.unwrap_or(Edge::Bottom),
            width,
        });
        return item.strip.is_some();
    }
    if let Some(found) = LEFT.captures(&lower) {
        let count = found[1].parse().ok();
        item.count = count.unwrap_or(item.count);
        return count.is_some();
    }
    for (word, is_kit) in [("kit ", true), ("kept in ", false), ("in ", false)] {
        if lower.starts_with(word) && part.is_char_boundary(word.len()) {
            let named = Some(part[word.len()..].trim().to_owned());
            if is_kit {
                item.kit = named;
            } else {
                item.kept = named;
            }
            return true;
        }
    }
    false
}

/// A thing of its own; none where nothing in the text says that it is one.
fn item(part: &str, unit: Unit) -> Option<Item> {
    let (count, rest) = counted(part);
    let (front, back) = match rest.split_once(" / ") {
        Some((front, back)) => (front.to_owned(), Some(back.trim().to_owned())),
        None => (rest.clone(), None),
    };
    let (size, words) = without_size(&front, unit);
    let (b_size, back) = match back {
        Some(back) => {
            let (size, words) = without_size(&back, unit);
            (size, Some(words))
        }
        None => (None, None),
    };
    let lower = words.to_lowercase();
    let all: Vec<&str> = lower.split_whitespace().collect();
    let kind = KINDS
        .iter()
        .find(|(word, _)| all.contains(word))
        .map(|(_, kind)| *kind);
    let size = size.or(b_size);
    if count.is_none() && size.is_none() && kind.is_none() {
        return None;
    }
    let kind = kind.unwrap_or(ItemKind::Sheet);
    let name = name_of(&words, kind);
    let mut item = Item::new(kind, name, unit);
    item.count = count.unwrap_or(1);
    item.size =
        size.or_else(|| (kind == ItemKind::Embellishment).then(|| last_length(&words, unit))?);
    item.size = item.size.or(kind.usual_size());
    if kind == ItemKind::Embellishment
        && let Some(found) = LAST_LENGTH.captures(&words)
    {
        let without = words[..found.get(1)?.start()].trim();
        item.name = name_of(without, kind);
    }
    item.a = side_said(&lower);
    item.b = back.map(|b| Side {
        name: Some(capitalised(&b)).filter(|n| !n.is_empty()),
        ..side_said(&b.to_lowercase())
    });
    // A scrap without a size is no use to anybody.
    (item.kind != ItemKind::Scrap || item.size.is_some()).then_some(item)
}

/// How many, and the rest.
fn counted(part: &str) -> (Option<u32>, String) {
    let number = |text: &str| text.parse::<u32>().ok().filter(|n| *n <= super::MOST_COUNT);
    if let Some(found) = TIMES.captures(part)
        && (SIZE.is_match(&found[2]) || !found[2].starts_with(|c: char| c.is_ascii_digit()))
    {
        return (number(&found[1]), found[2].to_owned());
    }
    if let Some(found) = COUNT.captures(part) {
        // “8 1/2 x 11 kraft” begins with a size, not with a number of sheets.
        let is_size = SIZE.find(part).is_some_and(|f| f.start() == 0);
        let rest_is_size = SIZE.find(&found[2]).is_some_and(|f| f.start() == 0);
        let starts_with_fraction = found[2]
            .split_whitespace()
            .next()
            .is_some_and(|w| w.contains('/'));
        if !is_size || rest_is_size && !starts_with_fraction {
            return (number(&found[1]), found[2].to_owned());
        }
    }
    let lower = part.to_lowercase();
    let first = lower.split_whitespace().next().unwrap_or_default();
    let spoken = NUMBERS.iter().position(|n| *n == first);
    let rest = || part[first.len()..].trim().to_owned();
    match spoken {
        Some(n) => (Some(n as u32 + 1), rest()),
        None if first == "a" || first == "an" => (Some(1), rest()),
        None => (None, part.to_owned()),
    }
}

fn without_size(text: &str, unit: Unit) -> (Option<Size>, String) {
    let Some(found) = SIZE.captures(text) else {
        return (None, text.to_owned());
    };
    // “10 x 15 cm”: the unit behind both.
    let named = Length::unit_in(found[2].trim());
    let side = |side: &str| {
        let default = if Length::unit_in(side).is_none() {
            named
        } else {
            None
        };
        Length::parse(side, default.unwrap_or(unit)).ok()
    };
    let size = side(found[1].trim())
        .zip(side(found[2].trim()))
        .map(|(w, h)| Size { w, h })
        .filter(|s| {
            [s.w, s.h]
                .iter()
                .all(|l| *l > Length::ZERO && *l <= super::LARGEST_SIDE)
        });
    let whole = found.get(0).map_or(0..0, |m| m.range());
    let rest = format!("{} {}", &text[..whole.start], &text[whole.end..]);
    (size, rest.trim().to_owned())
}

/// What is round is as wide as high.
fn last_length(words: &str, unit: Unit) -> Option<Size> {
    let found = LAST_LENGTH.captures(words)?;
    let side = Length::parse(found[1].trim(), unit).ok()?;
    Some(Size { w: side, h: side })
}

fn name_of(words: &str, kind: ItemKind) -> String {
    let lower = words.to_lowercase();
    let kept: Vec<&str> = words
        .split_whitespace()
        .zip(lower.split_whitespace())
        .filter(|(_, l)| !FILLERS.contains(l))
        .map(|(w, _)| w)
        .collect();
    if kept.is_empty() {
        capitalised(kind.name())
    } else {
        capitalised(&kept.join(" "))
    }
}

fn capitalised(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| {
        first.to_uppercase().chain(letters).collect()
    })
}

/// What the words tell of a side: colours by their names.
fn side_said(words: &str) -> Side {
    let colours: Vec<Colour> = words.split_whitespace().filter_map(Colour::named).collect();
    let share = 1.0 / colours.len().max(1) as f64;
    Side {
        colours: colours
            .into_iter()
            .map(|colour| Swatch { colour, share })
            .collect(),
        ..Side::default()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn items(text: &str) -> Vec<Item> {
        let found = said(text, Unit::Inch).into_iter();
        found
            .filter_map(|s| match s {
                Said::Item(item) => Some(*item),
                Said::Unknown(_) => None,
            })
            .collect()
    }

    fn size(w: (i64, i64), h: (i64, i64)) -> Option<Size> {
        Some(Size {
            w: Length::inches(w.0, w.1),
            h: Length::inches(h.0, h.1),
        })
    }

    #[test]
    fn a_sheet_with_all_that_can_be_said_of_it() {
        let found =
            items("2 x 12x12 dots / plain navy, strip 1/2 bottom, kit Ebb, in the blue box");
        let [sheet] = found.as_slice() else {
            panic!("{found:?}")
        };
        assert_eq!(
            (sheet.kind, sheet.count, sheet.name.as_str()),
            (ItemKind::Sheet, 2, "Dots")
        );
        assert_eq!(sheet.size, size((12, 1), (12, 1)));
        let strip = sheet.strip.unwrap();
        assert_eq!(
            (strip.edge, strip.width),
            (Edge::Bottom, Length::inches(1, 2))
        );
        assert_eq!(
            (sheet.kit.as_deref(), sheet.kept.as_deref()),
            (Some("Ebb"), Some("the blue box"))
        );
        let b = sheet.b.as_ref().unwrap();
        assert_eq!(b.name.as_deref(), Some("Plain navy"));
        assert_eq!(b.ground(), Colour::named("navy"));
    }

    #[test]
    fn several_things_and_what_is_not_understood() {
        let all = said(
            "3 vellum 8 1/2 x 11, a scrap of awning 12 x 3 3/4, 20 buttons navy 1/2, frayed",
            Unit::Inch,
        );
        assert_eq!(all.last(), Some(&Said::Unknown("frayed".to_owned())));
        let found =
            items("3 vellum 8 1/2 x 11, a scrap of awning 12 x 3 3/4, 20 buttons navy 1/2, frayed");
        let told: Vec<(ItemKind, u32, &str)> = found
            .iter()
            .map(|i| (i.kind, i.count, i.name.as_str()))
            .collect();
        assert_eq!(
            told,
            [
                (ItemKind::Vellum, 3, "Vellum"),
                (ItemKind::Scrap, 1, "Awning"),
                (ItemKind::Embellishment, 20, "Buttons navy")
            ]
        );
        assert_eq!(found[0].size, size((17, 2), (11, 1)));
        assert_eq!(found[1].size, size((12, 1), (15, 4)));
        assert_eq!(found[2].size, size((1, 2), (1, 2)));
    }

    #[test]
    fn counts_and_sizes_are_told_apart() {
        for (text, count, wanted) in [
            ("8 1/2 x 11 kraft", 1, size((17, 2), (11, 1))),
            ("3 8 1/2 x 11 kraft", 3, size((17, 2), (11, 1))),
            ("12x12 waves", 1, size((12, 1), (12, 1))),
            ("two 12x12 waves", 2, size((12, 1), (12, 1))),
            ("4 cardstock mustard", 4, size((17, 2), (11, 1))),
            ("5 x waves", 5, size((12, 1), (12, 1))),
            ("6x6 pad mist", 1, size((6, 1), (6, 1))),
        ] {
            let found = items(text);
            assert_eq!(found.len(), 1, "{text}");
            assert_eq!((found[0].count, found[0].size), (count, wanted), "{text}");
        }
        assert_eq!(items("6x6 pad mist, 18 left")[0].count, 18);
        let millimetres = items("2 x 300x300 mm waves");
        assert_eq!(
            millimetres[0].size.unwrap().w,
            Length::from_ticks(2_400_000)
        );
    }

    #[test]
    fn nonsense_is_kept_and_nothing_falls() {
        for text in [
            "",
            ",,,",
            "/",
            "x",
            "99999999999 x 1x1 dots",
            "frayed",
            "scrap",
            "½ x ½",
            "strip 1/0",
        ] {
            let _ = said(text, Unit::Inch);
        }
        assert_eq!(
            said("frayed", Unit::Inch),
            [Said::Unknown("frayed".to_owned())]
        );
    }
}
