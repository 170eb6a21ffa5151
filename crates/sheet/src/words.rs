//! Text in SVG: escaped, and lengths with their fractions set as fractions.

use metrosk_core::length::{Length, Unit};

/// Text that may stand in an element or an attribute.
pub(crate) fn escaped(text: &str) -> String {
    let mut safe = String::with_capacity(text.len());
    for c in text.chars() {
        match c {
            '&' => safe.push_str("&amp;"),
            '<' => safe.push_str("&lt;"),
            '>' => safe.push_str("&gt;"),
            '"' => safe.push_str("&quot;"),
            // No control character may stand in XML, nor these two.
            c if c.is_control() || matches!(c, '\u{fffe}' | '\u{ffff}') => safe.push(' '),
            c => safe.push(c),
        }
    }
    safe
}

/// A text cut to a count of characters.
pub(crate) fn cut(text: &str, most: usize) -> String {
    if text.chars().count() <= most {
        return text.to_owned();
    }
    format!(
        "{}…",
        text.chars().take(most - 1).collect::<String>().trim_end()
    )
}

/// A length as a ruler shows it: whole number, and numerator and denominator of a fraction.
pub(crate) fn parts(length: Length, unit: Unit) -> (String, Option<(String, String)>) {
    let text = length.to_ruler_text(unit);
    let number = text.trim_end_matches(unit.name()).trim();
    let (whole, fraction) = match number.rsplit_once(' ') {
        Some((whole, fraction)) => (whole, fraction),
        None if number.contains('/') => ("", number),
        None => return (number.to_owned(), None),
    };
    let fraction = fraction
        .split_once('/')
        .map(|(top, bottom)| (top.trim_start_matches('-').to_owned(), bottom.to_owned()));
    (
        if number.starts_with('-') && whole.is_empty() {
            "-".to_owned()
        } else {
            whole.to_owned()
        },
        fraction,
    )
}

/// A length as spans of a text element of a font size. A fraction is set as one: its numerator raised, both smaller.
pub(crate) fn length_spans(length: Length, unit: Unit, size: f64) -> String {
    let (whole, fraction) = parts(length, unit);
    let Some((top, bottom)) = fraction else {
        return escaped(&whole);
    };
    let (small, up) = (size * 0.66, size * 0.3);
    let space = if whole.is_empty() || whole == "-" {
        ""
    } else {
        "\u{a0}"
    };
    format!(
        "{}{space}<tspan font-size=\"{small:.2}\" dy=\"{:.2}\">{top}</tspan><tspan font-size=\"{small:.2}\" dy=\"{up:.2}\">\u{2044}{bottom}</tspan>",
        escaped(&whole),
        -up
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lengths_are_taken_apart() {
        let inch = |n, d| parts(Length::inches(n, d), Unit::Inch);
        assert_eq!(
            inch(27, 8),
            ("3".to_owned(), Some(("3".to_owned(), "8".to_owned())))
        );
        assert_eq!(
            inch(5, 16),
            (String::new(), Some(("5".to_owned(), "16".to_owned())))
        );
        assert_eq!(
            inch(-5, 16),
            ("-".to_owned(), Some(("5".to_owned(), "16".to_owned())))
        );
        assert_eq!(inch(12, 1), ("12".to_owned(), None));
        assert_eq!(
            parts(Length::from_ticks(8_400), Unit::Millimetre),
            ("1.1".to_owned(), None)
        );
    }

    #[test]
    fn nothing_breaks_out_of_its_element() {
        assert_eq!(escaped("<b>\u{1} \"&\""), "&lt;b&gt;  &quot;&amp;&quot;");
        assert_eq!(escaped("Kites\u{ffff}\u{fffe}"), "Kites  ");
        assert_eq!(cut("Kites over the flats", 6), "Kites…");
    }
}
