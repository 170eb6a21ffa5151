//! Sketches by number: a short line a block, typed.
//!
//! ```text
//! sketch "Corner trio"
//! one page 12 x 12 in
//! strip 1 3/8 full width at 7 5/8
//! mat 1/8 around p1
//! photo p1 4x6 at 3, 2
//! grid 5x2 of 2 1/4 along the top, staggered
//! cluster 2x2 at 5, 6 1/2 on p1, large
//! ```
//!
//! A line is a kind, an id if she wants to choose it, and clauses in any order; commas between clauses are optional, and
//! `#` begins a remark. Lines go bottom to top, as blocks do. Lengths are written as makers write them, with a point where
//! there are decimals: a comma parts two lengths.
//!
//! [`read`] and [`print`](fn@print) are inverse for what the language speaks of; what a document has beside that (its
//! origin, fields this version does not know) is kept by [`read_over`], block by block, by id.
//!
//! ```
//! use metrosk_core::notation;
//! let sketch = notation::read("one page 12 x 12 in\nphoto 4x6 at 3, 2").unwrap();
//! assert_eq!(sketch.blocks[0].id, "p1");
//! let wrong = notation::read("photo 4x6 ta 3, 2").unwrap_err();
//! assert_eq!((wrong[0].line, wrong[0].column, wrong[0].found.as_str()), (1, 11, "“ta”"));
//! ```

mod grammar;
mod meaning;
mod print;

pub use print::print;

use crate::defaults::Defaults;
use crate::sketch::{Kind, Sketch};
use std::collections::BTreeSet;
use std::fmt;

/// How many lines a text may have: a sketch has up to 500 blocks, and remarks between them.
const MOST_LINES: usize = 2_000;
/// How often what names lines that have gone is left out, while a text is being typed.
const MOST_TRIES: usize = 12;

/// Something that can't be understood, at its place.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct WordError {
    /// The line, from 1.
    pub line: usize,
    /// The character in the line at which it begins, from 1.
    pub column: usize,
    /// How many characters it takes; 0 at the end of a line.
    pub length: usize,
    /// What was found there.
    pub found: String,
    /// What may stand there, each as it would be typed or in words.
    pub allowed: Vec<String>,
}

impl fmt::Display for WordError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(
            f,
            "line {}, character {}: found {}; allowed is {}",
            self.line,
            self.column,
            self.found,
            self.allowed.join(", ")
        )
    }
}

/// Reads a sketch; a page that is not told is 12 x 12 in.
///
/// # Errors
/// Every line that can't be understood, each at the word.
pub fn read(text: &str) -> Result<Sketch, Vec<WordError>> {
    read_as(&Defaults::default(), text)
}

/// Reads a sketch as a maker means it who has defaults of her own: `mat around p1` has her border.
///
/// # Errors
/// Every line that can't be understood, each at the word.
pub fn read_as(maker: &Defaults, text: &str) -> Result<Sketch, Vec<WordError>> {
    if let Some(beyond) = text.lines().nth(MOST_LINES) {
        let found = format!("line {} of {}", MOST_LINES + 1, text.lines().count());
        let length = beyond.chars().count();
        return Err(vec![WordError {
            line: MOST_LINES + 1,
            column: 1,
            length,
            found,
            allowed: vec![format!("at most {MOST_LINES} lines")],
        }]);
    }
    meaning::sketch(grammar::lines(text)?, maker)
}

/// The sketch of those lines that can be understood, for looking at while the rest is being typed. `None` when what is left
/// can't be read either.
pub fn read_what_can_be(maker: &Defaults, text: &str) -> Option<Sketch> {
    let mut lines: Vec<&str> = text.lines().take(MOST_LINES).collect();
    // A line that goes may take what others name with it, so it is tried again; each time there is less.
    for _ in 0..MOST_TRIES {
        match read_as(maker, &lines.join("\n")) {
            Ok(sketch) => return Some(sketch),
            Err(errors) => {
                let wrong: std::collections::BTreeSet<usize> =
                    errors.iter().map(|e| e.line).collect();
                let left = lines
                    .iter()
                    .enumerate()
                    .filter(|(n, _)| !wrong.contains(&(n + 1)))
                    .map(|(_, l)| *l)
                    .collect::<Vec<_>>();
                if left.len() == lines.len() {
                    return None;
                }
                lines = left;
            }
        }
    }
    None
}

/// Reads a sketch in place of an earlier one: what the language does not speak of is kept, of blocks by their ids.
///
/// # Errors
/// Every line that can't be understood, each at the word.
pub fn read_over(earlier: &Sketch, maker: &Defaults, text: &str) -> Result<Sketch, Vec<WordError>> {
    let mut sketch = read_as(maker, text)?;
    let ids: BTreeSet<String> = sketch.blocks.iter().map(|b| b.id.clone()).collect();
    sketch.other.clone_from(&earlier.other);
    for block in &mut sketch.blocks {
        if let Some(known) = earlier
            .blocks
            .iter()
            .find(|b| b.id == block.id && b.kind == block.kind)
        {
            block.other.clone_from(&known.other);
            block.sure = known.sure;
            if block.kind != Kind::Cluster {
                block.size = known.size;
            }
            if block.kind != Kind::Mat && known.under.as_ref().is_some_and(|id| ids.contains(id)) {
                block.under.clone_from(&known.under);
            }
        }
    }
    Ok(sketch)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Edge;
    use crate::length::{Length, Unit};
    use crate::sketch::{Shape, UnitShape};

    fn one(line: &str) -> crate::sketch::Block {
        read(line)
            .unwrap_or_else(|e| panic!("{line}: {e:?}"))
            .blocks
            .remove(0)
    }

    fn at(line: &str) -> [String; 4] {
        let r = one(line).rect;
        [r.x, r.y, r.w, r.h].map(|l| l.to_text(Unit::Inch).trim_end_matches(" in").to_owned())
    }

    #[test]
    fn lines_are_read_as_makers_write_them() {
        for (line, place) in [
            ("photo 4x6 at 3, 2", ["3", "2", "4", "6"]),
            ("photo p7 4 x 6 at 3,2", ["3", "2", "4", "6"]),
            (
                "Photo 3 1/2 x 5-1/4 at 1/2, 2.25",
                ["1/2", "2 1/4", "3 1/2", "5 1/4"],
            ),
            (
                "strip 1 3/8 full width at 7 5/8",
                ["0", "7 5/8", "12", "1 3/8"],
            ),
            ("strip 1 full height at 3", ["3", "0", "1", "12"]),
            (
                "grid 5x2 of 2 1/4 along the top, staggered",
                ["3/8", "0", "11 1/4", "4 1/2"],
            ),
            (
                "panel 3x12 along the left, off left top bottom",
                ["0", "0", "3", "12"],
            ),
            (
                "wash round 9x8 at 1 1/2, 1 1/4",
                ["1 1/2", "1 1/4", "9", "8"],
            ),
            (
                "journaling 25.4 mm x 2.54 cm at 0, 0 # remark",
                ["0", "0", "1", "1"],
            ),
            ("photo 4x6 in the middle", ["4", "3", "4", "6"]),
            ("photo 4″ x 6” in the middle", ["4", "3", "4", "6"]),
            ("photo 4 1⁄2″ x 6'' at 0, 0", ["0", "0", "4 1/2", "6"]),
        ] {
            assert_eq!(at(line), place, "{line}");
        }
    }

    #[test]
    fn clauses_say_the_rest() {
        let strip = one("strip 1 3/8 full width at 7 5/8");
        assert_eq!(strip.bleed, [Edge::Left, Edge::Right]);
        let grid = one("grid 5x2 of 2 1/4 along the top, staggered, gap 1/8, circles")
            .grid
            .expect("a grid");
        assert_eq!(
            (grid.cols, grid.rows, grid.gap, grid.unit_shape),
            (5, 2, Length::inches(1, 8), UnitShape::Circle)
        );
        assert!((grid.stagger - 0.5).abs() < 1e-12);
        let ring = one("ring 3x3 at 1, 1 with 10 of 5/8");
        assert_eq!(
            ring.ring.map(|r| (r.count, r.unit)),
            Some((10, Length::inches(5, 8)))
        );
        let tag = one("accent 2x1 at 1, 1 turned -7.5");
        assert!((tag.turn + 7.5).abs() < 1e-12);
        assert!(
            matches!(one("panel 4x4 at 8, 8 triangle bottom-right").shape, Shape::Triangle(c) if !c.top && !c.left)
        );
        assert_eq!(
            one("panel 4x4 at 8, 8 polygon 0.2 0, 1 0, 1 1, 0 1").shape,
            Shape::Polygon(vec![[0.2, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]])
        );
    }

    #[test]
    fn a_mat_goes_around_what_it_frames_wherever_that_stands() {
        let sketch = read("mat 1/8 around p1\nphoto 4x6 at 3, 2\ncluster 2x2 at 6, 7 on p1, large")
            .expect("all of it is plain");
        let mat = &sketch.blocks[0];
        assert_eq!((mat.kind, mat.under.as_deref()), (Kind::Mat, Some("p1")));
        assert_eq!(mat.rect.x, Length::inches(23, 8));
        assert_eq!(mat.rect.h, Length::inches(25, 4));
        assert_eq!(sketch.blocks[2].host.as_deref(), Some("p1"));
        let plain =
            read("mat around p1\nphoto 4x6 at 3, 2").expect("a border as most makers cut it");
        assert_eq!(plain.blocks[0].rect.x, Length::inches(23, 8));
        let maker = Defaults {
            border: Some(Length::inches(1, 4)),
            ..Defaults::default()
        };
        let hers = read_as(&maker, "mat around p1\nphoto 4x6 at 3, 2").expect("her own border");
        assert_eq!(hers.blocks[0].rect.x, Length::inches(11, 4));
    }

    #[test]
    fn errors_stand_at_the_word() {
        for (text, line, column, length, found) in [
            ("foto 4x6 at 3, 2", 1, 1, 4, "“foto”"),
            ("photo 4x6 ta 3, 2", 1, 11, 2, "“ta”"),
            ("photo 4x6 at 3", 1, 15, 0, "the end of the line"),
            ("photo at 3, 2", 1, 1, 5, "a photo without a size"),
            ("photo 4x6", 1, 1, 5, "a photo without a place"),
            (
                "photo 4x6 at 3, 2\nmat 1/8 around p9",
                2,
                16,
                2,
                "“p9”, which is no block here",
            ),
            (
                "photo p1 4x6 at 3, 2\nphoto p1 1x1 at 0, 0",
                2,
                7,
                2,
                "the id p1 a second time",
            ),
            ("photo 0x6 at 3, 2", 1, 7, 1, "0 in"),
            ("photo 4x6 at 3, 2 turned by", 1, 26, 2, "“by”"),
        ] {
            let found_at = read(text).expect_err(text);
            let e = &found_at[0];
            assert_eq!(
                (e.line, e.column, e.length, e.found.as_str()),
                (line, column, length, found),
                "{text}: {e:?}"
            );
            assert!(!e.allowed.is_empty(), "{text}");
        }
        assert_eq!(
            read("foto\nphoto 1x1 at 0, 0\nstip")
                .expect_err("two")
                .len(),
            2,
            "every line is told"
        );
    }

    #[test]
    fn the_rest_is_shown_while_a_line_is_being_typed() {
        let text = "photo 4x6 at 3, 2\nclustr 2x2 at 6, 7\nmat 1/8 around p9\ntitle 4x1 at 1, 9";
        assert_eq!(
            read(text).expect_err("two lines are wrong").len(),
            1,
            "the grammar comes first"
        );
        let shown = read_what_can_be(&Defaults::default(), text).expect("two lines are plain");
        assert_eq!(
            shown
                .blocks
                .iter()
                .map(|b| b.id.as_str())
                .collect::<Vec<_>>(),
            ["p1", "t1"]
        );
        assert!(read_what_can_be(&Defaults::default(), "").is_some_and(|s| s.blocks.is_empty()));
    }

    #[test]
    fn what_the_language_does_not_speak_of_is_kept() {
        let mut earlier = read("photo p1 4x6 at 3, 2").expect("plain");
        earlier.blocks[0]
            .other
            .insert("mood".to_owned(), "calm".into());
        earlier.other.insert("season".to_owned(), "winter".into());
        let again = read_over(
            &earlier,
            &Defaults::default(),
            "photo p1 4x5 at 3, 2\nphoto 1x1 at 0, 0",
        )
        .expect("plain");
        assert_eq!(
            (again.blocks[0].other.get("mood"), again.other.get("season")),
            (Some(&"calm".into()), Some(&"winter".into()))
        );
        assert_eq!(again.blocks[1].id, "p2");
    }
}
