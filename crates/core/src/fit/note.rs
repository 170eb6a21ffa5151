//! What a proposal tells of itself, as data; the sentences a maker reads are made here and nowhere else.

use crate::geometry::Size;
use crate::length::{Length, Unit};
use crate::reading::Place;
use crate::sketch::Kind;

/// A width and a height.
pub type SizePair = (Length, Length);

/// Something worth telling of a proposal. Blocks are told by their ids.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs, reason = "each field is told by its variant's line")]
pub enum Note {
    /// Photos that the maker leaves out, and their mats with them.
    LeftOut {
        photos: Vec<String>,
        mats: Vec<String>,
    },
    /// Photo slots that are something else, by choice or because there are fewer photos.
    Becomes {
        photos: Vec<String>,
        kind: Kind,
        chosen: bool,
    },
    /// Photo slots that are one.
    OneSlot { photos: Vec<String> },
    /// A slot with one large print and small ones below or beside it.
    LargeWithSmall {
        photo: String,
        large: SizePair,
        small: SizePair,
        count: usize,
        below: bool,
    },
    /// Slots that are a row of others.
    Row {
        photos: Vec<String>,
        parts: Vec<String>,
        each: SizePair,
    },
    /// A slot that is split.
    Split {
        photo: String,
        parts: Vec<String>,
        each: SizePair,
        straightened: bool,
    },
    /// A block that stands on both pages: once on each, or as a pair; by the maker's choice or by itself.
    OnBothPages {
        block: String,
        parts: Vec<String>,
        size: SizePair,
        pair: bool,
        chosen: bool,
    },
    /// A block that was to be on both pages and does not stand at the fold.
    StaysOne { block: String },
    /// A title that was to run across and does not stand at the fold.
    StaysWhole { title: String },
    /// Photos that touched and still do.
    StillTouch { photos: Vec<String> },
    /// A gap between photos that is another one now.
    GapChanged {
        photos: Vec<String>,
        from: Length,
        to: Length,
    },
    /// A block that is not where it was wanted.
    Moved {
        block: String,
        by: Length,
        way: Way,
        why: Option<String>,
    },
    /// A print that is trimmed to suit its slot.
    Trimmed {
        print: String,
        slot: String,
        from: SizePair,
        to: SizePair,
        share: f64,
    },
    /// Prints that keep their size.
    KeepSizes { count: usize },
    /// Faces that don't show whole.
    FacesCut { print: String, count: usize },
    /// A block in two parts.
    OverFold {
        kind: Kind,
        blocks: Vec<String>,
        parts: [String; 2],
        widths: SizePair,
        broken: Option<Broken>,
    },
    /// Blocks that run over the fold with a part on either page.
    JoinedAtFold { blocks: Vec<String> },
    /// A grid with another number of units.
    Recounted {
        grid: String,
        from: (u32, u32),
        to: (u32, u32),
    },
    /// Borders that stay.
    Borders { mats: Vec<String>, width: Length },
    /// Edges that no longer agree.
    LineLost { place: Place, blocks: Vec<String> },
    /// So many more.
    MoreLinesLost { count: usize },
    /// Few photos on two pages.
    OpenSpread { photos: usize, would_fill: usize },
    /// The search was bounded.
    SearchBounded { compared: usize, left_out: usize },
    /// What runs on across the fold, be it nothing.
    RunsOn { blocks: Vec<String> },
    /// Which page of a spread is kept.
    PageKept { right: bool },
    /// What was on the other page.
    OnOtherPage { blocks: Vec<String> },
}

/// Which way a block moved.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Way {
    /// To the left.
    Left,
    /// To the right.
    Right,
    /// Towards the top.
    Up,
    /// Towards the bottom.
    Down,
}

/// Where the fold comes in what it parts.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs, reason = "each field is told by its variant's line")]
pub enum Broken {
    /// Between two words.
    Words { left: String, right: String },
    /// Between two units, so many columns of so many on the left.
    Units { left: u32, cols: u32 },
    /// Through units, as the sketch has it or not.
    ThroughUnits { as_drawn: bool },
}

impl Note {
    /// Whether it says why a block of the sketch has no place.
    pub fn explains_absence_of(&self, id: &str) -> bool {
        let named = |ids: &[String]| ids.iter().any(|i| i == id);
        match self {
            Note::LeftOut { photos, mats } => named(photos) || named(mats),
            Note::OnOtherPage { blocks } => named(blocks),
            _ => false,
        }
    }

    /// The sentence, with lengths as the unit's ruler has them.
    pub fn sentence(&self, unit: Unit) -> String {
        match self {
            Note::LeftOut { .. }
            | Note::Becomes { .. }
            | Note::OneSlot { .. }
            | Note::LargeWithSmall { .. }
            | Note::Row { .. }
            | Note::Split { .. } => self.of_slots(unit),
            Note::StillTouch { .. }
            | Note::GapChanged { .. }
            | Note::Trimmed { .. }
            | Note::KeepSizes { .. }
            | Note::FacesCut { .. }
            | Note::Borders { .. }
            | Note::OpenSpread { .. } => self.of_prints(unit),
            Note::OnBothPages { .. }
            | Note::StaysOne { .. }
            | Note::StaysWhole { .. }
            | Note::OverFold { .. }
            | Note::JoinedAtFold { .. }
            | Note::RunsOn { .. }
            | Note::PageKept { .. }
            | Note::OnOtherPage { .. } => self.of_fold(unit),
            Note::Moved { .. }
            | Note::Recounted { .. }
            | Note::LineLost { .. }
            | Note::MoreLinesLost { .. }
            | Note::SearchBounded { .. } => self.of_lines(unit),
        }
    }

    /// What became of the slots.
    fn of_slots(&self, unit: Unit) -> String {
        let size = |s: &SizePair| size_text(s, unit);
        match self {
            Note::LeftOut { photos, mats } => {
                let mats: Vec<String> = mats
                    .iter()
                    .map(|m| format!(", and its mat {m} with it"))
                    .collect();
                format!(
                    "Photo {} is left out, as you chose{}.",
                    list(photos),
                    mats.concat()
                )
            }
            Note::Becomes {
                photos,
                kind,
                chosen,
            } => {
                let what = if *kind == Kind::Paper {
                    "a square of paper"
                } else {
                    "writing space"
                };
                let because = if *chosen {
                    "as you chose"
                } else {
                    "there are fewer photos than slots"
                };
                format!("Photo {} becomes {what}: {because}.", list(photos))
            }
            Note::OneSlot { photos } => format!("Photos {} become one slot.", list(photos)),
            Note::LargeWithSmall {
                photo,
                large,
                small,
                count,
                below,
            } => {
                let side = if *below { "below" } else { "beside" };
                format!(
                    "Photo {photo} shows one large print, {}, and {count} small ones {side} it, {} each.",
                    size(large),
                    size(small)
                )
            }
            Note::Row {
                photos,
                parts,
                each,
            } => {
                format!(
                    "Photos {} become a row of {}: {}, {} each.",
                    list(photos),
                    parts.len(),
                    list(parts),
                    size(each)
                )
            }
            Note::Split {
                photo,
                parts,
                each,
                straightened,
            } => {
                let straight = if *straightened {
                    ", and stands straight"
                } else {
                    ""
                };
                format!(
                    "Photo {photo} is split for {} prints{straight}: {}, {} each.",
                    parts.len(),
                    list(parts),
                    size(each)
                )
            }
            _ => String::new(),
        }
    }

    /// What became of photos and prints in their slots.
    fn of_prints(&self, unit: Unit) -> String {
        let length = |l: &Length| l.to_ruler_text(unit);
        let size = |s: &SizePair| size_text(s, unit);
        match self {
            Note::StillTouch { photos } => format!("Photos {} still touch.", list(photos)),
            Note::GapChanged { photos, from, to } => format!(
                "The gap between photos {} goes from {} to {}.",
                list(photos),
                length(from),
                length(to)
            ),
            Note::Trimmed {
                print,
                slot,
                from,
                to,
                share,
            } => {
                format!(
                    "Print {print} is trimmed from {} to {} in {slot}: {:.0} % comes off.",
                    size(from),
                    size(to),
                    share * 100.0
                )
            }
            Note::KeepSizes { count: 1 } => "The print keeps its size.".to_owned(),
            Note::KeepSizes { count } => format!("All {count} prints keep their size."),
            Note::FacesCut { print, count } => {
                let what = if *count == 1 {
                    "a marked face is".to_owned()
                } else {
                    format!("{count} marked faces are")
                };
                format!(
                    "Of print {print} {what} not shown whole: its slot is too small for that. Another print, or a larger slot, would do."
                )
            }
            Note::Borders { mats, width } => {
                let (borders, stay) = if mats.len() == 1 {
                    ("border", "stays")
                } else {
                    ("borders", "stay")
                };
                format!("The {borders} of {} {stay} {}.", list(mats), length(width))
            }
            Note::OpenSpread { photos, would_fill } => {
                let (noun, leave) = if *photos == 1 {
                    ("photo", "leaves")
                } else {
                    ("photos", "leave")
                };
                format!(
                    "{photos} {noun} on two pages {leave} much of the spread open; {would_fill} would fill the slots."
                )
            }
            _ => String::new(),
        }
    }

    /// What the fold did.
    fn of_fold(&self, unit: Unit) -> String {
        let length = |l: &Length| l.to_ruler_text(unit);
        let size = |s: &SizePair| size_text(s, unit);
        match self {
            Note::OnBothPages {
                block,
                parts,
                size: each,
                pair,
                chosen,
            } => {
                let how = if *pair {
                    "becomes a pair, one on each page"
                } else {
                    "stands once on each page"
                };
                let why = if *chosen {
                    "as you chose"
                } else {
                    "since the fold parts what it lay over"
                };
                format!(
                    "The {block} {how}, {why}: {}, {} each.",
                    list(parts),
                    size(each)
                )
            }
            Note::StaysOne { block } => {
                format!("The {block} does not stand at the fold here, so it stays one.")
            }
            Note::StaysWhole { title } => {
                format!("The title {title} does not stand at the fold here, so it stays whole.")
            }
            Note::OverFold {
                kind,
                blocks,
                parts: [left, right],
                widths,
                broken,
            } => {
                let broken = broken.as_ref().map(Broken::clause).unwrap_or_default();
                let word = kind.word();
                let widths = format!("{} + {}", length(&widths.0), length(&widths.1));
                format!(
                    "The {word} {} runs over the fold in two parts, {left} and {right}: {widths} wide{broken}.",
                    blocks.join(" and ")
                )
            }
            Note::JoinedAtFold { blocks } => {
                let (run, part) = if blocks.len() == 1 {
                    ("runs", "a part")
                } else {
                    ("run", "a part each")
                };
                format!(
                    "{} {run} over the fold, with {part} on either page.",
                    blocks.join(", ")
                )
            }
            Note::RunsOn { blocks } if blocks.is_empty() => {
                "Nothing in the sketch runs off its right edge, so nothing runs on across the fold."
                    .to_owned()
            }
            Note::RunsOn { blocks } => format!(
                "{} {} on across the fold.",
                blocks.join(", "),
                if blocks.len() == 1 { "runs" } else { "run" }
            ),
            Note::PageKept { right } => format!(
                "The {} page is kept: it holds more of the photos.",
                if *right { "right" } else { "left" }
            ),
            Note::OnOtherPage { blocks } => {
                format!(
                    "{} {} on the other page and left out.",
                    blocks.join(", "),
                    if blocks.len() == 1 { "is" } else { "are" }
                )
            }
            _ => String::new(),
        }
    }

    /// What moved, and what no longer agrees.
    fn of_lines(&self, unit: Unit) -> String {
        let length = |l: &Length| l.to_ruler_text(unit);
        match self {
            Note::Moved {
                block,
                by,
                way,
                why,
            } => {
                format!(
                    "The {block} moves {} {}, {}.",
                    length(by),
                    way.word(),
                    why.as_deref().unwrap_or("to suit its neighbours")
                )
            }
            Note::Recounted { grid, from, to } => {
                format!(
                    "The grid {grid} goes from {} × {} to {} × {} units, so that its units keep their shape.",
                    from.0, from.1, to.0, to.1
                )
            }
            Note::LineLost { place, blocks } => {
                format!("The {} of {} no longer agree.", place.name(), list(blocks))
            }
            Note::MoreLinesLost { count } => format!("{count} more edges no longer agree."),
            Note::SearchBounded { compared, left_out } => {
                format!(
                    "{compared} choices of sides of the fold were compared, {left_out} more were left out to keep it quick."
                )
            }
            _ => String::new(),
        }
    }
}

impl Way {
    const fn word(self) -> &'static str {
        match self {
            Way::Left => "left",
            Way::Right => "right",
            Way::Up => "up",
            Way::Down => "down",
        }
    }
}

impl Broken {
    fn clause(&self) -> String {
        match self {
            Broken::Words { left, right } => format!(
                ", \u{201c}{left}\u{201d} on the left and \u{201c}{right}\u{201d} on the right"
            ),
            Broken::Units { left, cols } => format!(", {left} of its {cols} columns on the left"),
            Broken::ThroughUnits { as_drawn: true } => {
                "; it cuts through its units, as drawn".to_owned()
            }
            Broken::ThroughUnits { as_drawn: false } => "; it cuts through its units".to_owned(),
        }
    }
}

/// `2 1/2 × 3 in`.
fn size_text((w, h): &SizePair, unit: Unit) -> String {
    Size { w: *w, h: *h }.to_ruler_text(unit)
}

/// `a`, `a and b`, `a, b and c`.
fn list(names: &[String]) -> String {
    match names {
        [] => String::new(),
        [one] => one.clone(),
        [most @ .., last] => format!("{} and {last}", most.join(", ")),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_is_left_out_explains_an_absence() {
        let left_out = Note::LeftOut {
            photos: vec!["p2".into()],
            mats: vec!["m2".into()],
        };
        assert!(
            left_out.explains_absence_of("p2")
                && left_out.explains_absence_of("m2")
                && !left_out.explains_absence_of("p")
        );
        let touch = Note::StillTouch {
            photos: vec!["p1".into(), "p2".into()],
        };
        assert!(
            !touch.explains_absence_of("p1"),
            "to be named is not to be explained"
        );
    }

    #[test]
    fn sentences_name_lengths_as_the_ruler_has_them() {
        let each = (Length::inches(5, 2), Length::inches(3, 1));
        let split = Note::Split {
            photo: "p1".into(),
            parts: vec!["p1".into(), "p1b".into()],
            each,
            straightened: false,
        };
        assert_eq!(
            split.sentence(Unit::Inch),
            "Photo p1 is split for 2 prints: p1 and p1b, 2 1/2 × 3 in each."
        );
        let moved = Note::Moved {
            block: "title t1".into(),
            by: Length::inches(9, 8),
            way: Way::Right,
            why: Some("to clear the fold".into()),
        };
        assert_eq!(
            moved.sentence(Unit::Inch),
            "The title t1 moves 1 1/8 in right, to clear the fold."
        );
    }
}
