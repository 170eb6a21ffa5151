//! How the lines of a title run: straight, up and down, upright, along an arc, round a corner. Each manner asks the search for lines in a space
//! of its own, and bends what it finds back into the space that there is; so letters are spent and gaps are even in all of them alike.

use super::gaps::Bounds;
use super::mixing::mixed;
use super::on_arc::on_arcs;
use super::placing::{PlacedLetter, PlacedLine, Proposal};
use super::request::{Align, Lines, Words};
use super::spreading::spread;
use crate::geometry::{Rect, Size};
use crate::length::Length;
use crate::letters::{Glyph, LetterSet, Make};
use std::collections::BTreeMap;

/// So many settings of each manner are proposed.
const MOST_OF_A_MANNER: usize = 2;
/// Tiles lie over one another by a quarter of the narrowest letter at most, and never by more than this.
const MOST_OVERLAP: Length = Length::inches(1, 8);
const OVERLAP_SHARE: i64 = 4;
/// How far letters stand up and down where she doesn't say.
const USUAL_STAGGER: Length = Length::inches(3, 16);

/// How the lines of a title run.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub enum Manner {
    /// Straight, on a baseline.
    #[default]
    Lines,
    /// Every other letter lower.
    Staggered,
    /// On one line, the last words in another set.
    Mixed,
    /// Letters of different heights, their tops on the upper edge of the space.
    Tops,
    /// Along an arc.
    Arc,
    /// Each word on a line of its own from the left top to the right bottom, ascenders between descenders.
    Spread,
    /// Down a column, letters standing.
    Standing,
    /// Up a column, the whole line turned.
    Turned,
    /// Along the upper edge and down the right one.
    RoundCorner,
    /// Like tiles, each over the edge of the one before.
    Overlapped,
}

impl Manner {
    /// All of them.
    pub const ALL: [Manner; 10] = {
        use Manner::{
            Arc, Lines, Mixed, Overlapped, RoundCorner, Spread, Staggered, Standing, Tops, Turned,
        };
        [
            Lines,
            Staggered,
            Mixed,
            Tops,
            Arc,
            Spread,
            Standing,
            Turned,
            RoundCorner,
            Overlapped,
        ]
    };
    /// The names that documents use.
    pub const NAMES: [&'static str; 10] = [
        "lines",
        "staggered",
        "mixed",
        "tops",
        "arc",
        "spread",
        "standing",
        "turned",
        "round-corner",
        "overlapped",
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The manner of that document name.
    pub fn from_name(name: &str) -> Option<Manner> {
        Self::ALL.into_iter().find(|m| m.name() == name)
    }
}

impl Words {
    /// Settings in every manner but plain lines. `plain` are those on lines; tiles are laid over one another only where none of these has room.
    pub(super) fn in_other_manners(
        &self,
        plain: &[Proposal],
        stagger: Option<Length>,
    ) -> Vec<Proposal> {
        let stagger = stagger.unwrap_or(USUAL_STAGGER);
        let too_long = !plain.iter().any(|p| p.lines.len() == 1);
        let mut all = self.staggered(stagger);
        all.extend(mixed(self));
        all.extend(self.by_tops());
        all.extend(on_arcs(self));
        all.extend(spread(self));
        all.extend(self.standing());
        all.extend(self.turned());
        all.extend(self.round_the_corner());
        if too_long {
            all.extend(self.overlapped());
        }
        all
    }

    fn staggered(&self, by: Length) -> Vec<Proposal> {
        let lower = |bounds: Bounds| Bounds {
            least: bounds.least + by,
            best: bounds.best + by,
            most: bounds.most + by,
        };
        let asked = Words {
            space: Size {
                w: self.space.w,
                h: self.space.h - by,
            },
            line_gap: lower(self.line_gap),
            ..self.clone()
        };
        let hint = format!("Every other letter {} lower.", by.to_text(self.unit));
        asked.found(Manner::Staggered, &hint, |line| {
            for (n, letter) in line.words.iter_mut().flatten().enumerate() {
                if n % 2 == 1 {
                    letter.rect.y = letter.rect.y + by;
                }
            }
        })
    }

    fn overlapped(&self) -> Vec<Proposal> {
        let said = |s: &LetterSet| s.case.of(&self.text);
        let of_text = |s: &LetterSet| {
            let letters = said(s);
            let widths = letters.chars().filter_map(|c| s.letters.get(&c));
            widths.map(|l| l.glyph.w).min()
        };
        let Some(narrowest) = self.sets.iter().filter_map(of_text).min() else {
            return Vec::new();
        };
        let over = MOST_OVERLAP.min(Length::from_ticks(narrowest.ticks() / OVERLAP_SHARE));
        let back = |ticks: i64| Length::from_ticks(-ticks);
        let asked = Words {
            gap: Bounds {
                least: back(over.ticks()),
                best: back(over.ticks() / 2),
                most: Length::ZERO,
            },
            lines: Lines::Count(1),
            ..self.clone()
        };
        let hint = "Lay them from left to right, each over the edge of the one before.";
        asked.found(Manner::Overlapped, hint, |_| ())
    }

    /// On one line whose letters differ in height: their tops touch the upper edge of the space.
    fn by_tops(&self) -> Vec<Proposal> {
        let hanging = |g: Glyph| Glyph {
            h: g.h + g.below,
            below: Length::ZERO,
            ..g
        };
        let asked = Words {
            lines: Lines::Count(1),
            ..self.with_glyphs(hanging)
        };
        let found = asked.found(Manner::Tops, "All tops touch the upper edge.", |line| {
            for letter in line.words.iter_mut().flatten() {
                letter.rect.y = Length::ZERO;
            }
        });
        let differs = |p: &Proposal| {
            let mut heights = p.letters().map(|l| l.rect.h);
            let first = heights.next();
            heights.any(|h| Some(h) != first)
        };
        found.into_iter().filter(differs).collect()
    }

    fn standing(&self) -> Vec<Proposal> {
        let upright = |g: Glyph| Glyph {
            w: g.h + g.below,
            h: g.w,
            below: Length::ZERO,
        };
        let asked = Words {
            space: self.space_on_its_side(),
            align: Align::Left,
            lines: self.in_columns(),
            ..self.with_glyphs(upright)
        };
        let hint = "Letters stand one under the other, each in the middle of the column.";
        asked.found(Manner::Standing, hint, |line| {
            let widest = line.words.iter().flatten().map(|l| l.rect.h).max();
            let (left, widest) = (
                line.baseline - widest.unwrap_or_default(),
                widest.unwrap_or_default(),
            );
            for letter in line.words.iter_mut().flatten() {
                let Rect { x, h: w, w: h, .. } = letter.rect;
                let beside = Length::from_ticks((widest - w).ticks() / 2);
                letter.rect = Rect {
                    x: left + beside,
                    y: x,
                    w,
                    h,
                };
            }
        })
    }

    fn turned(&self) -> Vec<Proposal> {
        let asked = Words {
            space: self.space_on_its_side(),
            lines: self.in_columns(),
            ..self.clone()
        };
        let high = self.space.h;
        let hint = "Reads from the bottom to the top; marks are taken from the bottom.";
        asked.found(Manner::Turned, hint, |line| {
            for letter in line.words.iter_mut().flatten() {
                let middle = letter.middle();
                letter.stand_at((middle.1, high.ticks() as f64 - middle.0), -90.0);
            }
        })
    }

    /// Along the upper edge, round the right top corner and down the right edge: for each place to break the text the letters of its first part are
    /// spent before those of its second.
    fn round_the_corner(&self) -> Vec<Proposal> {
        let words = self.each_word();
        let tallest = self
            .sets
            .iter()
            .flat_map(|s| s.letters.values())
            .map(|l| l.glyph.h + l.glyph.below)
            .max();
        let corner = tallest.unwrap_or_default() + self.gap.best;
        let (across, down) = (self.space.w - corner, self.space.h - corner);
        // In a low space the second part would be a letter or two: no maker goes round that corner.
        if down < corner || across < corner {
            return Vec::new();
        }
        let side = |text: String, along: Length, align, sets| Words {
            text,
            align,
            sets,
            lines: Lines::Count(1),
            space: Size {
                w: along,
                h: corner,
            },
            ..self.clone()
        };
        let all: Vec<Proposal> = (1..words.len())
            .filter_map(|at| {
                let upper = side(
                    words[..at].join(" "),
                    across,
                    Align::Right,
                    self.sets.clone(),
                );
                let mut upper = upper.best(1).pop()?;
                let rest = without(&self.sets, &upper);
                let beside = side(words[at..].join(" "), down, Align::Left, rest);
                let beside = beside.best(1).pop()?;
                upper.lines.iter_mut().for_each(hang);
                upper.continue_down(beside, self.space.w, corner);
                Some(upper)
            })
            .collect();
        best_few(all)
    }

    /// What the search finds, each line bent by `bend`.
    fn found(&self, manner: Manner, hint: &str, bend: impl Fn(&mut PlacedLine)) -> Vec<Proposal> {
        if self.space.w <= Length::ZERO || self.space.h <= Length::ZERO {
            return Vec::new();
        }
        let mut found = self.best(MOST_OF_A_MANNER);
        for proposal in &mut found {
            proposal.manner = manner;
            proposal.hint = hint.to_owned();
            proposal.lines.iter_mut().for_each(&bend);
        }
        found
    }

    /// The same text with letters of other sizes.
    fn with_glyphs(&self, change: impl Fn(Glyph) -> Glyph) -> Words {
        let mut words = self.clone();
        let letters = words.sets.iter_mut().flat_map(|s| s.letters.values_mut());
        letters.for_each(|l| l.glyph = change(l.glyph));
        words
            .makes
            .iter_mut()
            .for_each(|m: &mut Make| m.glyph = change(m.glyph));
        words
    }

    pub(super) fn each_word(&self) -> Vec<&str> {
        self.text.split(' ').filter(|w| !w.is_empty()).collect()
    }

    /// The same text where there is this set only.
    pub(super) fn alone_in(&self, set: &LetterSet) -> Words {
        let of_set = self.makes.iter().filter(|m| m.set == set.id);
        Words {
            sets: vec![set.clone()],
            makes: of_set.cloned().collect(),
            ..self.clone()
        }
    }

    const fn space_on_its_side(&self) -> Size {
        Size {
            w: self.space.h,
            h: self.space.w,
        }
    }

    /// One column where she doesn't say how many.
    const fn in_columns(&self) -> Lines {
        match self.lines {
            Lines::Any => Lines::Count(1),
            count @ Lines::Count(_) => count,
        }
    }
}

/// The cheapest, and of these the least squeezed, up to as many as one manner may propose.
pub(super) fn best_few(mut all: Vec<Proposal>) -> Vec<Proposal> {
    let badness = |a: &Proposal, b: &Proposal| a.badness.total_cmp(&b.badness);
    all.sort_by(|a, b| a.cost.total_cmp(&b.cost).then_with(|| badness(a, b)));
    all.truncate(MOST_OF_A_MANNER);
    all
}

/// Sets without what a setting spends.
fn without(sets: &[LetterSet], spent: &Proposal) -> Vec<LetterSet> {
    let uses = spent.uses();
    let mut left = sets.to_vec();
    for set in &mut left {
        for (piece, count) in uses.get(&set.id).into_iter().flatten() {
            if let Some(letter) = set.letters.get_mut(piece) {
                letter.quantity = letter.quantity.saturating_sub(*count);
            }
        }
    }
    left
}

/// A line at the upper edge of its space.
fn hang(line: &mut PlacedLine) {
    let top = line
        .words
        .iter()
        .flatten()
        .map(|l| l.rect.y)
        .min()
        .unwrap_or_default();
    line.baseline = line.baseline - top;
    for letter in line.words.iter_mut().flatten() {
        letter.rect.y = letter.rect.y - top;
    }
}

impl PlacedLetter {
    /// Its middle, in ticks.
    pub(super) fn middle(&self) -> (f64, f64) {
        let half = |from: Length, side: Length| from.ticks() as f64 + side.ticks() as f64 / 2.0;
        (
            half(self.rect.x, self.rect.w),
            half(self.rect.y, self.rect.h),
        )
    }

    /// Puts its middle somewhere else, and turns it.
    pub(super) fn stand_at(&mut self, middle: (f64, f64), turn: f64) {
        let corner = |at: f64, side: Length| {
            Length::from_ticks((at - side.ticks() as f64 / 2.0).round() as i64)
        };
        self.rect.x = corner(middle.0, self.rect.w);
        self.rect.y = corner(middle.1, self.rect.h);
        self.turn = turn;
    }

    /// Its corners as it lies, in ticks.
    pub fn corners(&self) -> [(f64, f64); 4] {
        let (x, y) = self.middle();
        let (w, h) = (
            self.rect.w.ticks() as f64 / 2.0,
            self.rect.h.ticks() as f64 / 2.0,
        );
        let (sin, cos) = self.turn.to_radians().sin_cos();
        [(-w, -h), (w, -h), (w, h), (-w, h)]
            .map(|(a, b)| (x + a * cos - b * sin, y + a * sin + b * cos))
    }
}

impl Proposal {
    /// All its letters.
    pub fn letters(&self) -> impl Iterator<Item = &PlacedLetter> {
        self.lines.iter().flat_map(|l| l.words.iter().flatten())
    }

    /// Goes on down the right edge of a space so wide, from below the corner.
    fn continue_down(&mut self, mut beside: Proposal, wide: Length, corner: Length) {
        for line in &mut beside.lines {
            hang(line);
            for letter in line.words.iter_mut().flatten() {
                let middle = letter.middle();
                letter.stand_at(
                    (
                        wide.ticks() as f64 - middle.1,
                        corner.ticks() as f64 + middle.0,
                    ),
                    90.0,
                );
            }
        }
        self.manner = Manner::RoundCorner;
        self.hint = "Turns the corner after the first line; marks of the second are taken from below the corner.".to_owned();
        self.cost += beside.cost;
        self.badness += beside.badness;
        // What remains is counted after the second part, where both take of one set.
        for (set, left) in beside.leaves {
            let here: &mut BTreeMap<char, u32> = self.leaves.entry(set).or_default();
            here.extend(left);
        }
        self.lines.append(&mut beside.lines);
    }
}
