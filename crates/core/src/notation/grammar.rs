//! The grammar: a text to lines of clauses, with the place of every word.

use super::WordError;
use crate::geometry::Edge;
use crate::length::{FRACTION_SLASH, INCH_MARKS, Length, Unit};
use crate::sketch::{ClusterSize, Kind, TriangleCorner};
use chumsky::error::RichPattern;
use chumsky::prelude::*;
use std::ops::Range;

/// Where something stands in the text, in bytes.
pub(super) type Place = Range<usize>;

/// Something with its place.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct At<T> {
    pub(super) value: T,
    pub(super) place: Place,
}

/// A length as it was written: its unit, if it has none of its own, is the sketch's.
pub(super) type Written = At<String>;

/// A clause of a block's line.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Clause {
    /// `4x6`
    Size(Written, Written),
    /// `1 3/8`, of a strip or a mat.
    Thick(Written),
    /// `full width`, or else `full height`.
    Full { wide: bool },
    /// `at 3, 2`
    At(Written, Option<Written>),
    /// `along the top`
    Along(Edge),
    /// `in the middle`
    Middle,
    /// `5x2 of 2 1/4`: columns, rows, unit.
    Units(u32, u32, Written),
    /// `in 5 by 2`: columns and rows of a grid whose size is told.
    By(u32, u32),
    /// `gap 1/8`
    Gap(Written),
    /// `staggered`
    Staggered,
    /// `circles`, or else `squares`.
    Circles(bool),
    /// `with 10 of 5/8`
    Ring(u32, Written),
    /// `turned -8`
    Turned(f64),
    /// `round`
    Round,
    /// `triangle top-left`
    Triangle(TriangleCorner),
    /// `polygon 0 0, 1 0, 1 1`
    Polygon(Vec<[f64; 2]>),
    /// `off left right`
    Off(Vec<Edge>),
    /// `around p1`
    Around(At<String>),
    /// `on p1`
    On(At<String>),
    /// `large`
    Size3(ClusterSize),
}

/// A line.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Line {
    /// `sketch "Corner trio"`
    Name(String),
    /// `one page 12 x 12 in`: pages, width, height, and the unit of everything that has none.
    Page(u8, Written, Written, Option<Unit>),
    /// A block.
    Block {
        kind: At<Kind>,
        id: Option<At<String>>,
        clauses: Vec<At<Clause>>,
    },
}

/// A text's lines, each with where it stands.
pub(super) struct Lines<'a> {
    pub(super) text: &'a str,
    pub(super) lines: Vec<Line>,
}

type Fault<'a> = extra::Err<Rich<'a, char>>;

/// Reads all lines, or tells what is wrong in each.
pub(super) fn lines(text: &str) -> Result<Lines<'_>, Vec<WordError>> {
    let grammar = line();
    let (mut found, mut errors) = (Vec::new(), Vec::new());
    let mut start = 0;
    for whole in text.split_inclusive('\n') {
        let content = whole.trim_end_matches(['\n', '\r']);
        let content = content.split('#').next().unwrap_or_default().trim_end();
        if !content.trim().is_empty() {
            match grammar.parse(content).into_result() {
                Ok(line) => found.push(shifted(line, start)),
                Err(faults) => {
                    errors.extend(faults.first().map(|f| word_error(text, content, start, f)))
                }
            }
        }
        start += whole.len();
    }
    if errors.is_empty() {
        Ok(Lines { text, lines: found })
    } else {
        Err(errors)
    }
}

/// A finding at a place of the text.
pub(super) fn at_place(
    text: &str,
    place: &Place,
    found: String,
    allowed: Vec<String>,
) -> WordError {
    let before = &text[..place.start.min(text.len())];
    let line_start = before.rfind('\n').map_or(0, |n| n + 1);
    WordError {
        line: before.matches('\n').count() + 1,
        column: before[line_start..].chars().count() + 1,
        length: text[place.start.min(text.len())..place.end.min(text.len())]
            .chars()
            .count(),
        found,
        allowed,
    }
}

/// The parser's own finding, at the whole word that it stopped in.
fn word_error(text: &str, content: &str, start: usize, fault: &Rich<'_, char>) -> WordError {
    let span = fault.span();
    let is_word = |c: char| {
        c.is_alphanumeric()
            || matches!(c, '-' | '_' | '/' | '.' | FRACTION_SLASH)
            || INCH_MARKS.contains(&c)
    };
    let from = content[..span.start]
        .char_indices()
        .rev()
        .take_while(|(_, c)| is_word(*c))
        .last()
        .map_or(span.start, |(n, _)| n);
    let to = content[span.start..]
        .char_indices()
        .find(|(_, c)| !is_word(*c))
        .map_or(content.len(), |(n, _)| span.start + n);
    // A sign that belongs to no word stands for itself.
    let to = if to == from {
        content[from..]
            .chars()
            .next()
            .map_or(from, |c| from + c.len_utf8())
    } else {
        to
    };
    let found = if from >= content.len() {
        "the end of the line".to_owned()
    } else {
        format!("“{}”", &content[from..to])
    };
    let mut allowed: Vec<String> = fault.expected().filter_map(pattern).collect();
    if let chumsky::error::RichReason::Custom(why) = fault.reason() {
        allowed.push(why.clone());
    }
    allowed.sort();
    allowed.dedup();
    if allowed.is_empty() {
        allowed.push("nothing more".to_owned());
    }
    at_place(text, &(start + from..start + to), found, allowed)
}

fn pattern(of: &RichPattern<'_, char>) -> Option<String> {
    match of {
        RichPattern::Label(label) => Some(label.to_string()),
        RichPattern::Identifier(word) => Some(word.clone()),
        _ => None,
    }
}

/// Places counted from the text's start rather than the line's.
fn shifted(mut line: Line, by: usize) -> Line {
    let shift = |place: &mut Place| *place = place.start + by..place.end + by;
    match &mut line {
        Line::Name(_) => {}
        Line::Page(_, w, h, _) => [w, h].into_iter().for_each(|l| shift(&mut l.place)),
        Line::Block { kind, id, clauses } => {
            shift(&mut kind.place);
            id.iter_mut().for_each(|i| shift(&mut i.place));
            for clause in clauses {
                shift(&mut clause.place);
                match &mut clause.value {
                    Clause::Size(a, b) => [a, b].into_iter().for_each(|l| shift(&mut l.place)),
                    Clause::At(a, b) => std::iter::once(a)
                        .chain(b)
                        .for_each(|l| shift(&mut l.place)),
                    Clause::Thick(a)
                    | Clause::Units(_, _, a)
                    | Clause::Gap(a)
                    | Clause::Ring(_, a) => shift(&mut a.place),
                    Clause::Around(id) | Clause::On(id) => shift(&mut id.place),
                    _ => {}
                }
            }
        }
    }
    line
}

fn gap<'a>() -> impl Parser<'a, &'a str, (), Fault<'a>> + Clone {
    one_of(" \t\u{a0}").repeated().ignored()
}

fn space<'a>() -> impl Parser<'a, &'a str, (), Fault<'a>> + Clone {
    one_of(" \t\u{a0}").repeated().at_least(1).ignored()
}

/// A word of the language, in whatever case.
fn word<'a>(wanted: &'static str) -> impl Parser<'a, &'a str, (), Fault<'a>> + Clone {
    let letters = any()
        .filter(|c: &char| c.is_alphabetic() || *c == '-')
        .repeated()
        .at_least(1)
        .to_slice();
    letters
        .try_map(move |found: &str, span| {
            if found.eq_ignore_ascii_case(wanted) {
                Ok(())
            } else {
                Err(Rich::custom(span, String::new()))
            }
        })
        .labelled(wanted)
}

/// One of several words.
fn one_word<'a, T: Clone + 'a>(
    words: Vec<(&'static str, T)>,
) -> impl Parser<'a, &'a str, T, Fault<'a>> + Clone {
    choice(
        words
            .into_iter()
            .map(|(name, value)| word(name).to(value))
            .collect::<Vec<_>>(),
    )
}

fn placed<'a, T>(
    of: impl Parser<'a, &'a str, T, Fault<'a>> + Clone,
) -> impl Parser<'a, &'a str, At<T>, Fault<'a>> + Clone {
    of.map_with(|value, e| {
        let span: SimpleSpan = e.span();
        At {
            value,
            place: span.start..span.end,
        }
    })
}

fn digits<'a>() -> impl Parser<'a, &'a str, &'a str, Fault<'a>> + Clone {
    any()
        .filter(char::is_ascii_digit)
        .repeated()
        .at_least(1)
        .at_most(9)
        .to_slice()
}

/// A length as makers write it; its value is read where the unit is known.
fn length<'a>() -> impl Parser<'a, &'a str, Written, Fault<'a>> + Clone {
    let stroke = one_of(['/', FRACTION_SLASH]);
    let fraction = digits().then_ignore(stroke).then(digits()).ignored();
    let glyph = one_of("½¼¾⅛⅜⅝⅞⅓⅔").ignored();
    let part = choice((fraction.clone(), glyph));
    let between = choice((just('-').ignored(), space()));
    let whole = digits()
        .then(
            choice((
                just('.').then(digits().or_not()).ignored(),
                glyph,
                between.then(part).ignored(),
            ))
            .or_not(),
        )
        .ignored();
    let decimal = just('.').then(digits()).ignored();
    let number = just('-')
        .or_not()
        .then(choice((fraction, glyph, whole, decimal)))
        .ignored();
    let letters = choice((
        just("inches"),
        just("inch"),
        just("in"),
        just("mm"),
        just("cm"),
    ));
    let no_letter = any().filter(|c: &char| c.is_alphabetic()).not();
    // `6 in the middle` and `6 in 5 by 2` are six of whatever is measured in, and then a clause.
    let clause = just("in")
        .then(space())
        .then(choice((just("the").ignored(), digits().ignored())))
        .not();
    let unit = gap().then(clause).ignore_then(choice((
        one_of(INCH_MARKS).ignored(),
        just("''").ignored(),
        letters.then_ignore(no_letter).ignored(),
    )));
    placed(number.then(unit.or_not()).to_slice().map(str::to_owned))
        .labelled("a length such as 3 3/8 or 86 mm")
}

fn number<'a>() -> impl Parser<'a, &'a str, f64, Fault<'a>> + Clone {
    let exponent = one_of("eE").then(one_of("+-").or_not()).then(digits());
    let written = just('-')
        .or_not()
        .then(digits())
        .then(
            just('.')
                .then(any().filter(char::is_ascii_digit).repeated().at_least(1))
                .or_not(),
        )
        .then(exponent.or_not());
    written
        .to_slice()
        .try_map(|text: &str, span| {
            text.parse()
                .map_err(|_| Rich::custom(span, "a number".to_owned()))
        })
        .labelled("a number")
}

fn count<'a>() -> impl Parser<'a, &'a str, u32, Fault<'a>> + Clone {
    digits()
        .try_map(|text: &str, span| {
            text.parse()
                .map_err(|_| Rich::custom(span, "a whole number".to_owned()))
        })
        .labelled("a whole number")
}

/// A text in quotes, with `\"` and `\\` in it.
fn quoted<'a>() -> impl Parser<'a, &'a str, String, Fault<'a>> + Clone {
    let plain = any().filter(|c: &char| *c != '"' && *c != '\\');
    let escaped = just('\\').ignore_then(one_of("\"\\hn").map(|c| match c {
        'h' => '#',
        'n' => '\n',
        other => other,
    }));
    choice((plain, escaped))
        .repeated()
        .collect::<String>()
        .delimited_by(just('"'), just('"'))
}

/// Words that mean something in a block's line, so that no bare id is one of them.
pub(super) const WORDS: [&str; 26] = [
    "full",
    "at",
    "along",
    "in",
    "gap",
    "staggered",
    "circles",
    "squares",
    "with",
    "turned",
    "round",
    "triangle",
    "polygon",
    "off",
    "around",
    "on",
    "small",
    "medium",
    "large",
    "mm",
    "cm",
    "inch",
    "inches",
    "x",
    "by",
    "of",
];

/// Whether an id may stand without quotes: a letter, then letters and digits, `-` and `_`, and no word of the language.
pub(super) fn is_bare(id: &str) -> bool {
    let mut letters = id.chars();
    letters.next().is_some_and(|c| c.is_ascii_alphabetic())
        && letters.all(|c| c.is_ascii_alphanumeric() || matches!(c, '-' | '_'))
        && !WORDS.iter().any(|w| w.eq_ignore_ascii_case(id))
}

fn id<'a>() -> impl Parser<'a, &'a str, At<String>, Fault<'a>> + Clone {
    let bare = any()
        .filter(|c: &char| c.is_ascii_alphanumeric() || matches!(c, '-' | '_'))
        .repeated()
        .at_least(1)
        .to_slice();
    let bare = bare.try_map(|text: &str, span| {
        if is_bare(text) {
            Ok(text.to_owned())
        } else {
            Err(Rich::custom(span, String::new()))
        }
    });
    placed(choice((quoted(), bare))).labelled("a block's id")
}

fn edge<'a>() -> impl Parser<'a, &'a str, Edge, Fault<'a>> + Clone {
    one_word(Edge::ALL.map(|e| (e.name(), e)).to_vec())
}

/// `,` or just space.
fn comma<'a>() -> impl Parser<'a, &'a str, (), Fault<'a>> + Clone {
    gap()
        .then(just(',').labelled("a comma"))
        .then(gap())
        .ignored()
}

fn cross<'a>() -> impl Parser<'a, &'a str, (), Fault<'a>> + Clone {
    gap()
        .then(one_of("xX×").labelled("x"))
        .then(gap())
        .ignored()
}

fn clause<'a>() -> impl Parser<'a, &'a str, Clause, Fault<'a>> + Clone {
    let after = |name: &'static str| word(name).then_ignore(space()).ignored();
    let units = count()
        .then_ignore(cross())
        .then(count())
        .then_ignore(space().then(word("of")).then(space()))
        .then(length());
    let size = length().then_ignore(cross()).then(length());
    let at = after("at")
        .ignore_then(length())
        .then(comma().ignore_then(length()).or_not());
    let point = number()
        .then_ignore(space())
        .then(number())
        .map(|(x, y)| [x, y]);
    let points = point.separated_by(comma()).at_least(3).collect::<Vec<_>>();
    let corners: Vec<_> = TriangleCorner::NAMES
        .iter()
        .filter_map(|n| Some((*n, TriangleCorner::from_name(n)?)))
        .collect();
    let sizes: Vec<_> = ClusterSize::NAMES
        .iter()
        .filter_map(|n| Some((*n, ClusterSize::from_name(n)?)))
        .collect();
    let middle = after("in").ignore_then(choice((
        after("the").ignore_then(word("middle")).to(Clause::Middle),
        count()
            .then_ignore(space().then(word("by")).then(space()))
            .then(count())
            .map(|(c, r)| Clause::By(c, r)),
    )));
    choice((
        units.map(|((c, r), unit)| Clause::Units(c, r, unit)),
        size.map(|(w, h)| Clause::Size(w, h)),
        length().map(Clause::Thick),
        after("full")
            .ignore_then(one_word(vec![("width", true), ("height", false)]))
            .map(|wide| Clause::Full { wide }),
        at.map(|(x, y)| Clause::At(x, y)),
        after("along")
            .ignore_then(after("the").or_not())
            .ignore_then(edge())
            .map(Clause::Along),
        middle,
        after("gap").ignore_then(length()).map(Clause::Gap),
        word("staggered").to(Clause::Staggered),
        one_word(vec![("circles", true), ("squares", false)]).map(Clause::Circles),
        after("with")
            .ignore_then(count())
            .then_ignore(space().then(word("of")).then(space()))
            .then(length())
            .map(|(n, unit)| Clause::Ring(n, unit)),
        after("turned").ignore_then(number()).map(Clause::Turned),
        word("round").to(Clause::Round),
        after("triangle")
            .ignore_then(one_word(corners))
            .map(Clause::Triangle),
        after("polygon").ignore_then(points).map(Clause::Polygon),
        after("off")
            .ignore_then(edge().separated_by(space()).at_least(1).collect::<Vec<_>>())
            .map(Clause::Off),
        after("around").ignore_then(id()).map(Clause::Around),
        after("on").ignore_then(id()).map(Clause::On),
        one_word(sizes).map(Clause::Size3),
    ))
}

fn line<'a>() -> impl Parser<'a, &'a str, Line, Fault<'a>> {
    let mut kinds: Vec<(&'static str, Kind)> = Kind::ALL.map(|k| (k.name(), k)).to_vec();
    kinds.extend([("panel", Kind::Paper), ("journaling", Kind::Journal)]);
    let parted = choice((comma(), space()));
    let clauses = parted
        .ignore_then(placed(clause()))
        .repeated()
        .collect::<Vec<_>>();
    let block = placed(one_word(kinds))
        .then(space().ignore_then(id()).or_not())
        .then(clauses);
    let block = block.map(|((kind, id), clauses)| Line::Block { kind, id, clauses });
    let name = word("sketch")
        .then(space())
        .ignore_then(quoted().labelled("a name in quotes"))
        .map(Line::Name);
    let pages = one_word(vec![("one", 1), ("two", 2)])
        .then_ignore(space())
        .then_ignore(choice((word("pages"), word("page"))))
        .then_ignore(space());
    let page = pages
        .then(length())
        .then_ignore(cross())
        .then(length())
        .map(|((pages, w), h)| {
            let unit = Length::unit_in(&h.value);
            Line::Page(pages, w, h, unit)
        });
    gap()
        .ignore_then(choice((name, page, block)))
        .then_ignore(gap())
        .then_ignore(end())
}

/// Reads a written length; the error says what was found.
pub(super) fn value(text: &str, written: &Written, unit: Unit) -> Result<Length, WordError> {
    Length::parse(&written.value, unit)
        .map_err(|e| at_place(text, &written.place, e.found, vec![e.allowed.to_owned()]))
}
