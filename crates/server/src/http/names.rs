//! Short texts that people give: names, reasons, accounts.

use metrosk_core::document::Invalid;

/// The longest name or reason, in characters.
pub(crate) const LONGEST: usize = 200;

/// A name or reason without spaces around it; not empty, not endless, on one line.
pub(crate) fn short(field: &str, text: &str) -> Result<String, Invalid> {
    let text = text.trim();
    let length = text.chars().count();
    if length == 0 || length > LONGEST {
        return Err(Invalid::one(
            field,
            format!("{length} characters"),
            format!("1 to {LONGEST} characters"),
        ));
    }
    if let Some(odd) = text.chars().find(|c| c.is_control()) {
        return Err(Invalid::one(
            field,
            format!("the control character {:#x}", u32::from(odd)),
            "letters, digits and signs on one line",
        ));
    }
    Ok(text.to_owned())
}

/// An account as it is looked up.
pub(crate) fn account(text: &str) -> String {
    text.trim().to_lowercase()
}

/// A new account: letters, digits and a few signs, so that it can be told over a table.
pub(crate) fn new_account(field: &str, text: &str) -> Result<String, Invalid> {
    let account = account(text);
    let length = account.chars().count();
    let plain = account
        .chars()
        .all(|c| c.is_alphanumeric() || matches!(c, '.' | '-' | '_' | '@' | '+'));
    if (2..=80).contains(&length) && plain {
        return Ok(account);
    }
    Err(Invalid::one(
        field,
        format!("“{}”", text.chars().take(80).collect::<String>()),
        "2 to 80 letters, digits, or . - _ @ +, without spaces",
    ))
}

/// Findings of a part of a document, told from the document's top.
pub(crate) fn under(prefix: &str, invalid: Invalid) -> Invalid {
    invalid.under(prefix)
}

/// A file name of plain characters, after a thing's own.
pub(crate) fn file_name(name: &str, ending: &str) -> String {
    let plain: String = name
        .chars()
        .map(|c| {
            if c.is_ascii_alphanumeric() {
                c.to_ascii_lowercase()
            } else {
                '-'
            }
        })
        .collect();
    let plain = plain.trim_matches('-');
    format!(
        "{}{ending}",
        if plain.is_empty() { "unnamed" } else { plain }
    )
}

/// How many tags a sketch may have.
const MOST_TAGS: usize = 20;

/// Tags as they are kept: short, each once, in lower case.
pub(crate) fn tags(given: &[String]) -> Result<Vec<String>, Invalid> {
    if given.len() > MOST_TAGS {
        return Err(Invalid::one(
            "tags",
            format!("{} tags", given.len()),
            format!("up to {MOST_TAGS}"),
        ));
    }
    let mut kept: Vec<String> = Vec::new();
    for (n, tag) in given.iter().enumerate() {
        let tag = short(&format!("tags[{n}]"), tag)?.to_lowercase();
        if tag.chars().count() > 40 {
            return Err(Invalid::one(
                &format!("tags[{n}]"),
                format!("{} characters", tag.chars().count()),
                "1 to 40 characters",
            ));
        }
        if !kept.contains(&tag) {
            kept.push(tag);
        }
    }
    Ok(kept)
}

/// The tags in a sketch document.
pub(crate) fn tags_of(document: &serde_json::Value) -> Vec<String> {
    let list = document["tags"].as_array().into_iter().flatten();
    list.filter_map(|t| t.as_str().map(str::to_owned)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_trimmed_and_bounded() {
        assert_eq!(short("name", "  Kites  ").unwrap(), "Kites");
        for wrong in ["", "   ", "a\nb", "nul\u{0}", &"x".repeat(201)] {
            assert!(short("name", wrong).is_err(), "{wrong:?}");
        }
    }

    #[test]
    fn accounts_are_told_over_a_table() {
        assert_eq!(new_account("account", " Wren ").unwrap(), "wren");
        for wrong in ["w", "two words", "semi;colon", ""] {
            assert!(new_account("account", wrong).is_err(), "{wrong:?}");
        }
    }

    #[test]
    fn file_names_are_plain() {
        assert_eq!(
            file_name("Kites over the flats", ".svg"),
            "kites-over-the-flats.svg"
        );
        assert_eq!(file_name("„!“", ".pdf"), "unnamed.pdf");
    }
}
