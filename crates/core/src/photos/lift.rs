//! What lies under a photo, and how thick that makes the page, spot by spot.
//!
//! `"lift": [{"of": ["p1"], "by": "thin-foam"}]`: flat, on card, on thin or on thick foam; without `of`, all photos.

use crate::document::Node;
use crate::geometry::Span;
use crate::length::Length;
use crate::sketch::MOST_BLOCKS;

/// How many choices a plan may have.
const MOST_CHOICES: usize = 200;

/// What lifts a photo, with its mats, off what lies below.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub enum Lift {
    /// Glued down.
    #[default]
    Flat,
    /// A card behind it.
    Card,
    /// Foam of 1/16 in.
    ThinFoam,
    /// Foam of 1/8 in.
    ThickFoam,
}

impl Lift {
    /// The names that documents use.
    pub const NAMES: [&'static str; 4] = ["flat", "card", "thin-foam", "thick-foam"];

    /// The lift of that document name.
    pub fn from_name(name: &str) -> Option<Lift> {
        let all = [Lift::Flat, Lift::Card, Lift::ThinFoam, Lift::ThickFoam];
        all.into_iter().find(|l| l.name() == name)
    }

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// What it adds.
    pub const fn thickness(self) -> Length {
        match self {
            Lift::Flat => Length::ZERO,
            Lift::Card => Length::inches(1, 32),
            Lift::ThinFoam => Length::inches(1, 16),
            Lift::ThickFoam => Length::inches(1, 8),
        }
    }
}

/// A sheet of cardstock or patterned paper, and a photo: about a hundredth of an inch.
pub const SHEET: Length = Length::inches(1, 100);

/// What a maker chose for one photo, several, or all.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LiftChoice {
    /// The sketch's photo blocks; all of them when it is empty.
    pub of: Vec<String>,
    /// What lies under them.
    pub by: Lift,
}

/// What was chosen for a photo; flat where nothing was.
#[must_use]
pub fn lift_of(choices: &[LiftChoice], photo: &str) -> Lift {
    let names = |c: &&LiftChoice| c.of.iter().any(|id| id == photo);
    let by_name = choices.iter().rev().find(names);
    let chosen = by_name.or_else(|| choices.iter().rev().find(|c| c.of.is_empty()));
    chosen.map_or(Lift::Flat, |c| c.by)
}

/// Reads `lift` of a plan.
pub(crate) fn read_lifts(node: &Node<'_>) -> Option<Vec<LiftChoice>> {
    node.each(MOST_CHOICES, |node| {
        node.object()?;
        let of = match node.get("of") {
            Some(list) => list.texts(MOST_BLOCKS),
            None => Some(Vec::new()),
        };
        let by = node
            .need("by", "flat, card, thin-foam or thick-foam")
            .and_then(|n| n.one_of(&Lift::NAMES, Lift::from_name));
        Some(LiftChoice { of: of?, by: by? })
    })
}

/// Something that lies on a page: where, and how much it adds.
#[derive(Clone, Debug, PartialEq)]
pub struct Lying {
    /// Whose it is: the photo's block.
    pub of: String,
    /// Its true bounds on its own page, in ticks.
    pub bounds: Span,
    /// What it adds.
    pub thick: Length,
}

/// The thickest spot.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Thickest {
    /// How thick, both pages of a spread closed on one another.
    pub thick: Length,
    /// What lies there, the thickest first.
    pub of: Vec<String>,
    /// The middle of the spot on the left page (or the only one), in ticks.
    pub at: (f64, f64),
}

/// The thickest spot of a page, or of a spread that is closed: the right page then lies mirrored on the left one. Exact: what adds up
/// changes only at the sides of things, so one place between each two of them is looked at.
#[must_use]
pub fn thickest(left: &[Lying], right: &[Lying], page_width: Length) -> Thickest {
    let width = page_width.ticks() as f64;
    let mirrored = right.iter().map(|l| Lying {
        bounds: Span {
            l: width - l.bounds.r,
            r: width - l.bounds.l,
            ..l.bounds
        },
        ..l.clone()
    });
    let all: Vec<Lying> = left.iter().cloned().chain(mirrored).collect();
    let between = |mut sides: Vec<f64>| {
        sides.sort_by(f64::total_cmp);
        sides.dedup();
        sides
            .windows(2)
            .map(|w| f64::midpoint(w[0], w[1]))
            .collect::<Vec<f64>>()
    };
    let xs = between(all.iter().flat_map(|l| [l.bounds.l, l.bounds.r]).collect());
    let ys = between(all.iter().flat_map(|l| [l.bounds.t, l.bounds.b]).collect());
    let mut found = Thickest::default();
    for &x in &xs {
        let here: Vec<&Lying> = all
            .iter()
            .filter(|l| l.bounds.l < x && x < l.bounds.r)
            .collect();
        for &y in &ys {
            let lies = |l: &&&Lying| l.bounds.t < y && y < l.bounds.b;
            let thick = here
                .iter()
                .filter(lies)
                .fold(Length::ZERO, |sum, l| sum + l.thick);
            if thick > found.thick {
                let mut of: Vec<&&Lying> = here.iter().filter(lies).collect();
                of.sort_by_key(|l| std::cmp::Reverse(l.thick));
                let mut names: Vec<String> = of.into_iter().map(|l| l.of.clone()).collect();
                names.dedup();
                found = Thickest {
                    thick,
                    of: names,
                    at: (x, y),
                };
            }
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    fn lying(of: &str, [l, t, r, b]: [f64; 4], lift: Lift) -> Lying {
        let inches = |at: f64| at * crate::reading::INCH;
        Lying {
            of: of.to_owned(),
            bounds: Span {
                l: inches(l),
                t: inches(t),
                r: inches(r),
                b: inches(b),
            },
            thick: lift.thickness(),
        }
    }

    #[test]
    fn two_pages_closed_on_one_another_add_up_where_they_meet() {
        let left = [lying("p1", [1.0, 1.0, 5.0, 5.0], Lift::ThinFoam)];
        // Mirrored on a page 12 wide it lies from 4 to 8: over the left one's last inch.
        let right = [lying("p2", [4.0, 2.0, 8.0, 4.0], Lift::ThickFoam)];
        let found = thickest(&left, &right, Length::inches(12, 1));
        assert_eq!(found.thick, Length::inches(3, 16));
        assert_eq!(found.of, ["p2", "p1"]);
        // Where they don't meet, the thicker one alone counts.
        let apart = [lying("p2", [8.0, 2.0, 11.0, 4.0], Lift::ThickFoam)];
        let left = [lying("p1", [6.0, 1.0, 11.0, 5.0], Lift::ThinFoam)];
        let found = thickest(&left, &apart, Length::inches(12, 1));
        assert_eq!(found.thick, Length::inches(1, 8));
    }

    #[test]
    fn a_page_with_nothing_on_it_is_not_thick() {
        assert_eq!(
            thickest(&[], &[], Length::inches(12, 1)),
            Thickest::default()
        );
    }
}
