//! What is looked for in the stash, as a maker types it: “navy, kit Ebb, enough for a 12 in strip”.

use super::ItemKind;
use crate::length::{Length, Unit};
use regex::Regex;
use std::sync::LazyLock;

/// What is looked for.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Wanted {
    /// Words that name, kit, place, note or colours must hold, in small letters.
    pub words: Vec<String>,
    /// How long it must be at least.
    pub long: Option<Length>,
    /// How wide it must be at least.
    pub wide: Option<Length>,
    /// What it must be.
    pub kind: Option<ItemKind>,
}

static ENOUGH: LazyLock<Regex> = LazyLock::new(|| {
    let length = r#"\d+(?:[ -]\d+/\d+|/\d+|[.,]\d+)?(?:\s*(?:in|mm|cm|"|″)\b)?"#;
    let text = format!(
        r"(?:enough for|at least|from)\s+(?:an?\s+)?({length})(?:\s*[x×]\s*({length}))?\s*(?:strips?|pieces?|wide|long|high)?"
    );
    Regex::new(&text).expect("the pattern is one")
});

/// Reads what is looked for; lengths without a unit are in `unit`.
pub fn wanted(text: &str, unit: Unit) -> Wanted {
    let lower = text.to_lowercase();
    let mut found = Wanted::default();
    let rest = match ENOUGH.captures(&lower) {
        Some(enough) => {
            let read = |n: usize| {
                enough
                    .get(n)
                    .and_then(|m| Length::parse(m.as_str().trim(), unit).ok())
            };
            let (a, b) = (read(1), read(2));
            found.long = a.max(b);
            found.wide = b.and(a.min(b));
            let range = enough.get(0).map_or(0..0, |m| m.range());
            format!("{} {}", &lower[..range.start], &lower[range.end..])
        }
        None => lower.clone(),
    };
    for word in rest.split(|c: char| c.is_whitespace() || c == ',' || c == ';') {
        match ItemKind::from_name(word.trim_end_matches('s')).or_else(|| ItemKind::from_name(word))
        {
            Some(kind) => found.kind = Some(kind),
            None if word.is_empty() || matches!(word, "kit" | "a" | "the" | "in" | "of") => {}
            None => found.words.push(word.to_owned()),
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_kinds_and_how_much_are_told_apart() {
        let found = wanted("Navy, kit Ebb, enough for a 12 in strip", Unit::Inch);
        assert_eq!(found.words, ["navy", "ebb"]);
        assert_eq!(
            (found.long, found.wide, found.kind),
            (Some(Length::inches(12, 1)), None, None)
        );
        let found = wanted("scraps enough for 3 1/2 x 6", Unit::Inch);
        assert_eq!(found.kind, Some(ItemKind::Scrap));
        assert_eq!(
            (found.long, found.wide),
            (Some(Length::inches(6, 1)), Some(Length::inches(7, 2)))
        );
        assert_eq!(wanted("", Unit::Inch), Wanted::default());
    }
}
